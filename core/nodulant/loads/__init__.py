"""Masses, supports and the moments they make in a rail."""
