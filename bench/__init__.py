"""Speeds as ratios in one run; milliseconds are recorded with the machine's load, never gated."""
