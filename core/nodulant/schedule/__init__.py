"""When each step is done: the shop's sessions, who is there, what is waited for."""
