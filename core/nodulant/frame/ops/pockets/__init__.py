"""What goes up into the rail: a subframe's pocket, a spring's."""
