"""What the person on the floor sees: one step at a time, with its drawing and its numbers."""
