"""What welding does to metal: heat put in, how long it stays, the order of beads, what it bends."""
