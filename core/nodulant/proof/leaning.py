"""One rail higher than the other: what that is for frame and body, and what takes it out."""

import math

from nodulant.asbuilt.compare import AskedReading
from nodulant.asbuilt.said_of import amount_off
from nodulant.base.model import Frozen
from nodulant.job.document import Inputs
from nodulant.parts.limits import find_limit
from nodulant.parts.sides import LEFT_RIGHT

HIGHER: dict[str, float] = {"rise": 1.0, "hub-height": 1.0, "hub-above": -1.0, "depth": 1.0}
"""Keys of readings of a height, and whether more of it stands a rail higher over its axle; a depth is only compared."""


class Leaning(Frozen):
    """Left against right of one height: how much less the left has, mm, the lean, degrees, and what corrects it."""

    about: str
    name: str
    low_mm: float
    """Positive where the left rail is lower; of a depth, where the left is shallower."""
    allowed_mm: float
    lean_deg: float
    matters: bool
    words: str
    corrections: tuple[str, ...]


def leanings(inputs: Inputs, asked: list[AskedReading]) -> tuple[Leaning, ...]:
    """Of every height that was read on both rails."""
    by = {r.id: r for r in asked if r.value is not None}
    out = []
    for one in by.values():
        other = by.get(f"{one.operation}/{one.spec.key}/right")
        if one.side != "left" or one.spec.key not in HIGHER or other is None:
            continue
        if one.value is None or other.value is None:
            continue
        less = (other.value - other.spec.planned) - (one.value - one.spec.planned)
        out.append(_row(inputs, one, HIGHER[one.spec.key] * less))
    return tuple(out)


def _row(inputs: Inputs, reading: AskedReading, low: float) -> Leaning:
    apart = sum(inputs.survey.rails.of(side).web_y_mm for side in LEFT_RIGHT)
    allowed = find_limit(reading.spec.limit_id, inputs.design.limits)[0].value
    lean = math.degrees(math.atan2(low, apart))
    size = amount_off(low, "mm")
    side, opposite = ("left", "right") if low > 0 else ("right", "left")
    matters = abs(low) > allowed
    what, fixed = f"{side} rail {size} lower than the other against the plan", tuple[str, ...]()
    if matters and reading.spec.key == "rise":
        # a step that is less lowers its side of the body by less: the spring stands under the rail that was stepped
        what += f": the frame is twisted there, and the body stands high on the {side} and leans {abs(lean):.2f} deg to the {opposite}"
        fixed = (
            f"tacked only: cut the {side} tacks, raise that rail by {size}, tack and read it again",
            f"welded: the {opposite} spring's seat shimmed by {size} levels the body; the frame keeps its twist",
        )
    elif matters and reading.spec.key == "depth":
        what = f"the cut is {size} deeper on the {opposite}: room and strength differ there, height does not"
        fixed = ("see the as-built checks of that side; nothing is moved for it",)
    elif matters:
        what += f": the body leans {abs(lean):.2f} deg to the {side} before anything is made"
        fixed = (f"set the {side} strut {size} longer, and read both again, before a bracket is tacked",)
    return Leaning(
        about=reading.about,
        name=reading.spec.name,
        low_mm=low,
        allowed_mm=allowed,
        lean_deg=lean,
        matters=matters,
        words=what if matters else "left and right alike within the tolerance",
        corrections=fixed,
    )
