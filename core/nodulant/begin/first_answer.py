"""The first answer: the notch that the axle's travel asks for, with plates that make the section as strong as stock.

Sections are compared with sections: no mass has to be known. What the factors of safety wait for is named.
"""

import math

from nodulant.base.errors import NodulantError
from nodulant.base.model import Frozen
from nodulant.begin.front_needed import front_needed, front_waits
from nodulant.evaluate.evaluation import InvalidInputs
from nodulant.evaluate.finding import QUICK, find_sets
from nodulant.evaluate.run import evaluate
from nodulant.frame.ops.fresh import Setting
from nodulant.frame.ops.notches.notch import Notch
from nodulant.frame.ops.notches.notch_shape import ArcShape
from nodulant.frame.ops.union import Operation
from nodulant.job.document import Inputs
from nodulant.job.touched import touched_axle, touched_axles
from nodulant.parts.limit import StrengthRule
from nodulant.search.finder import FoundSets
from nodulant.targets.notch_needed import NotchNeeded
from nodulant.units.said import Kind, Said, said
from nodulant.units.show import MM_PER_INCH

BUMPS_MM = (60.0, 75.0, 100.0)
ENOUGH_MM = 0.5
WAITS = "A notch waits for the axle's tube and its distance to the rail."
AT_THE_FRONT = f"{WAITS} An independent front has none: Travel and Clearance sweep its arms past the rails."
PATH = QUICK.model_copy(update={"frame": False})
"""The axle's path needs no frame."""
AS_STOCK = StrengthRule(kind="as strong as stock", reason="first answer, before any load is known")


class AtBump(Frozen):
    """What one bump travel asks for: depth and width of a notch, mm; 0 where the tube stays clear."""

    bump_mm: float
    depth_mm: float
    width_mm: float


class FirstAnswer(Frozen):
    """What the readings so far are good for."""

    operations: tuple[Operation, ...]
    """The design's, with the notch and its plates where one is needed."""
    needed: tuple[AtBump, ...]
    words: Said
    waits: tuple[str, ...]
    """Pointers of readings that the notch itself still waits for."""


def first_answer(inputs: Inputs) -> FirstAnswer:
    """Depth, width, place and plates from what is measured; says what it waits for where that is not enough."""
    own = inputs.design.operations
    try:
        needed = _needed(inputs, _bump(inputs))
    except InvalidInputs as error:
        # what cannot be cut is left out, so that the job begins all the same, and says why
        told = f"It cannot be cut so: {error.problems[0].message}, {error.problems[0].acceptable}."
        return FirstAnswer(operations=(), needed=(), waits=(), words=said(told))
    front = _front_only(inputs)
    if needed is None:
        rear = inputs.survey.rear
        rows = {
            "/survey/wheelbase_mm": inputs.survey.wheelbase_mm,
            "/survey/rear/tube_diameter_mm": rear.tube_diameter_mm,
            "/survey/rear/tube_gap_left_mm": rear.tube_gap_left_mm,
        }
        waits = front_waits(inputs) if front else tuple(p for p, value in rows.items() if value is None)
        words = said("The cut is there." if own else AT_THE_FRONT if front else WAITS)
        return FirstAnswer(operations=own, needed=(), waits=() if own else waits, words=words)
    table = tuple(row for bump in BUMPS_MM if (row := _row(inputs, bump)) is not None)
    if own or needed.depth_mm <= 0:
        return FirstAnswer(operations=own, needed=table, waits=(), words=_planned(own, needed))
    notch = _notch(inputs, needed)
    depth: tuple[float, Kind] = (notch.depth_mm, "length")
    try:
        found = _plates(inputs, notch)
    except NodulantError as error:
        deep = notch.depth_mm >= min(s.height_mm for s in inputs.survey.rails.left.stations)
        way = " Less drop on springs, less bump travel, or a Z-step that takes the rail out of the way." if deep else ""
        words = said(f"A notch {{depth}} deep is asked for; it cannot be cut: {error.message}.{way}", depth=depth)
        return FirstAnswer(operations=(), needed=table, waits=tuple(filter(None, (error.field,))), words=words)
    if not found.choices:
        words = said("A notch {depth} deep; no plates of the rack make it as strong as stock.", depth=depth)
        return FirstAnswer(operations=(notch,), needed=table, waits=(), words=words)
    best = found.choices[0]
    changed = next((op for op in best.changed if op.id == notch.id), notch)
    words = said("A notch {depth} deep over the axle, plated as strong as stock.", depth=depth)
    return FirstAnswer(operations=(changed, *best.added), needed=table, waits=(), words=words)


def _planned(own: tuple[Operation, ...], needed: NotchNeeded) -> Said:
    """What is planned beside what the travel asks for."""
    if needed.depth_mm <= 0:
        return said("No notch: at full bump the tube stays clear of the rails.")
    notch = next((op for op in own if isinstance(op, Notch)), None)
    asked = max(needed.arc_depth_mm if isinstance(getattr(notch, "shape", None), ArcShape) else needed.depth_mm, 0.0)
    if notch is None:
        return said("The travel asks for a notch {asked} deep; none is planned.", asked=(asked, "length"))
    deep, words = (notch.depth_mm, asked), "A notch {depth} deep is planned over the axle"
    tail = ", as the travel asks." if deep[0] >= deep[1] - ENOUGH_MM else "; the travel asks for {asked}."
    of: dict[str, tuple[float, Kind]] = {"depth": (deep[0], "length")}
    if "{asked}" in tail:
        of["asked"] = (asked, "length")
    return said(words + tail, **of)


def _front_only(inputs: Inputs) -> bool:
    return touched_axles(inputs.survey, inputs.design) == {"front"}


def _bump(inputs: Inputs) -> float:
    targets = inputs.design.targets
    return (targets.front.bump_mm if _front_only(inputs) else None) or targets.bump_mm


def _needed(inputs: Inputs, bump_mm: float) -> NotchNeeded | None:
    """The deeper one of both sides at a bump travel."""
    if _front_only(inputs):
        evaluate(inputs, PATH)
        return front_needed(inputs, bump_mm)
    targets = inputs.design.targets.model_copy(update={"bump_mm": bump_mm})
    asked = inputs.model_copy(update={"design": inputs.design.model_copy(update={"targets": targets})})
    result = evaluate(asked, PATH)
    return max(result.notch_needed, key=lambda n: n.arc_depth_mm, default=None)


def _row(inputs: Inputs, bump_mm: float) -> AtBump | None:
    found = _needed(inputs, bump_mm)
    if found is None:
        return None
    return AtBump(bump_mm=bump_mm, depth_mm=max(found.arc_depth_mm, 0.0), width_mm=max(found.width_mm, 0.0))


def _notch(inputs: Inputs, needed: NotchNeeded) -> Notch:
    on = Setting(inputs.survey, touched_axle(inputs.survey, inputs.design), inputs.shop.plate_stock_mm)
    fresh = Notch.fresh(on, ())
    mark = 1.0 if inputs.shop.style == "mm" else MM_PER_INCH / 16

    def up(value_mm: float) -> float:
        """The next mark of the shop's tape, so that what is read off it is never short."""
        return round(math.ceil(value_mm / mark - 1e-6) * mark, 6)

    update: dict[str, object] = {"depth_mm": up(needed.arc_depth_mm), "shape": ArcShape(radius_mm=up(needed.radius_mm))}
    return fresh.model_copy(update=update)


def _plates(inputs: Inputs, notch: Notch) -> FoundSets:
    """The lightest plates that bring every strength of the section back to stock's."""
    design = inputs.design.model_copy(update={"operations": (notch,), "rule": AS_STOCK})
    steps = find_sets(inputs.model_copy(update={"design": design}), notch.id)
    while True:
        try:
            next(steps)
        except StopIteration as end:
            found: FoundSets = end.value
            return found
