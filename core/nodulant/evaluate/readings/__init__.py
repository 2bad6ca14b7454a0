"""Readings that suspensions, wheels and frame ask for beside the operations' own, and what they say together."""
