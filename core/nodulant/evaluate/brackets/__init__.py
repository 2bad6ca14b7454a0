"""Mounts that joints ask for, and whether they stand where their joints are."""
