"""Steels, weld metal and bolts."""

from nodulant.materials.steel import STEELS, Steel, find_steel
from nodulant.materials.weld import WELD_STRENGTH_MPA, line_capacity

__all__ = ["STEELS", "WELD_STRENGTH_MPA", "Steel", "find_steel", "line_capacity"]
