"""The command line: a job file evaluated without a server."""
