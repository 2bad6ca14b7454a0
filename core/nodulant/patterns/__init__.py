"""Flat patterns, true to size, that refer to a datum on the real frame."""
