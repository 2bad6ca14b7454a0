"""The HTTP API: thin routes over actions and the core."""
