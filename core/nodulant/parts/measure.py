"""What a reading is a number of."""

from typing import Literal

Measure = Literal["mm", "deg", "kg", "N m", "turns"]
"""Its unit in the core; a toe is an angle, a weight on a scale a mass."""
