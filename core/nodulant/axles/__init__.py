"""What holds an axle, as data: hard points, layouts, springs; surveyed or designed alike."""
