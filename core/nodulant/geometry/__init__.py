"""Flat outlines with true arcs."""

from nodulant.geometry.outline import Outline, Vertex

__all__ = ["Outline", "Vertex"]
