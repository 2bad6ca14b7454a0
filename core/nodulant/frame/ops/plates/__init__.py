"""Plates on a rail's walls, and what welds them."""
