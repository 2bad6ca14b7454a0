"""What stands on an axle's tube."""
