"""How low, with how much travel, and what that asks of the rail."""
