"""A sheet for the engineer: the governing places reckoned by hand, what was assumed, and what the verdict hangs on."""

from nodulant.handcheck.sheet import HandCheck, hand_check

__all__ = ["HandCheck", "hand_check"]
