"""Rails, operations on them and the states a frame can be in."""
