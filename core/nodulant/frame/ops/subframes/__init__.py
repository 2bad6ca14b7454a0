"""Subframes as parts: measured, placed, raised and fixed as one."""
