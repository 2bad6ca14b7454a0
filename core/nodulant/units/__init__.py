"""Quantities as people type and read them."""

from nodulant.units.parse import Kind, Quantity, parse_quantity
from nodulant.units.show import Style, show_length

__all__ = ["Kind", "Quantity", "Style", "parse_quantity", "show_length"]
