"""What stands on the rails and carries joints, springs, stops and gears."""
