"""Marks that survive the work, the steps of moving a subframe, and where its points are proved.

Three marks find a subframe again after everything around it was cut: two scribed lines square to each
other on it and on the rail, the height of a gauge block between both, and the angle of a line across
from the left to the right mark (common practice). Each is told before and after.
"""

from typing import NamedTuple

from nodulant.frame.columns import rail_at
from nodulant.frame.ops.subframes.subframe_plan import SubframePlan
from nodulant.frame.ops.welded import welded
from nodulant.frame.place import resolve
from nodulant.frame.pose import Pose
from nodulant.parts.cautions import DUST, WHEEL
from nodulant.parts.sides import Side
from nodulant.parts.specs import HoldPoint, ReadingSpec, StepSpec, reading
from nodulant.survey.vehicle import Survey
from nodulant.units.inline import as_amount, as_length, as_place

HELPER_KG, CRANE_KG = 25.0, 60.0
"""Above these a second person and a crane are asked for (common practice)."""


class Mark(NamedTuple):
    """A mark's coordinate, before the work or after it."""

    key: str
    name: str
    value: float
    unit: str


def marks_of(own: SubframePlan, pose: Pose) -> list[Mark]:
    """The scribed lines, the gauge block and the angle across: before the work, where it was on the vehicle, and after."""
    datum = (pose.x_mm, 0.0, pose.z_mm)
    after = pose.of((0.0, 0.0, 0.0) if pose.on_bench else datum)
    names = (
        ("line-across", "scribed line across, at station"),
        ("line-along", "scribed line along, right of the centre plane by"),
        ("block", "gauge block from the datum plane, high"),
    )
    states = [("after", after)] if pose.on_bench else [("before", datum), ("after", after)]
    out = [
        Mark(f"{key}-{state}", f"Mark {state}: {name}", value, "mm")
        for state, place in states
        for (key, name), value in zip(names, place, strict=True)
    ]
    return [
        *out,
        Mark("across-angle-after", "Mark after: left mark to right mark, out of square", own.nose_right_deg, "deg"),
    ]


MARKED = "scribed through subframe and rail, punched at both ends: finds it again after everything round it was cut"


def subframe_steps(own: SubframePlan, datum: str) -> list[StepSpec]:
    """The steps of one subframe, for the frame as one."""
    donor = own.measured == "bench"
    kg = own.weight.mass_kg if own.weight else None
    heavy = as_amount("mass", kg) if kg is not None else "its mass is not known: weigh it"
    lifts = kg is None or kg > CRANE_KG
    helpers = 2 if kg is None or kg > HELPER_KG else 1
    at = f"{as_place(own.place.offset_mm)} {datum}"
    moved = ", ".join(_moves(own)) or "back where it was"
    ears = [p for p in own.points if p.what == "ear"]
    rows = [
        StepSpec(
            key="mark",
            phase="mark",
            title="Marks that survive",
            detail=(
                f"Datum {at}: scribe a line across and one along, square to each other, through it onto the rails;"
                " note a gauge block's height from the datum plane and the angle of the line from the left mark to"
                " the right one. Punch both ends: paint burns off."
            ),
            minutes=40,
            people=2,
            tools=("scriber", "square", "gauge block", "angle finder"),
            hold=HoldPoint(kind="look", ask="Both lines, block and angle written down, left and right"),
        )
    ]
    if not donor:
        rows += [
            StepSpec(
                key="support",
                phase="cut",
                title="Hold up what the subframe carries",
                detail="Engine on a beam or hoist from above, steering shaft apart and its splines marked, hoses and lines off or tied up.",
                minutes=60,
                people=2,
                tools=("support beam",),
                cautions=("Nobody under a hanging engine.",),
            ),
            StepSpec(
                key="lower",
                phase="cut",
                title="Lower it out",
                detail=f"{heavy}: on a table or two jacks, strapped, level; bolts out from the rear to the front.",
                minutes=60,
                people=max(helpers, 2),
                tools=("lift table", "straps"),
                cautions=("Springs store energy: unload them first.", "Stands under the frame, never only a jack."),
            ),
        ]
    if ears:
        where = "; ".join(f"{p.name} at {as_length(p.x_mm)}, {as_length(p.y_mm)}, {as_length(p.z_mm)}" for p in ears)
        rows.append(
            StepSpec(
                key="ears",
                phase="cut",
                title="Cut the ears off",
                detail=f"{where}; ground flush, the wall behind them not thinned.",
                minutes=20 * len(ears),
                tools=("cut-off wheel", "grinder"),
                cautions=(WHEEL, DUST),
            )
        )
    rows += [
        StepSpec(
            key="up",
            phase="fit",
            title="Bring it up",
            detail=(
                f"{heavy}, {'on a crane or lift table' if lifts else 'by hand'}: {moved}; "
                "to both lines, the block's height, level and square, then clamp it."
            ),
            minutes=90,
            people=max(helpers, 2) if lifts else helpers,
            tools=("crane",) if lifts else ("clamps",),
            cautions=("Nobody under it while it hangs.",),
            hold=HoldPoint(kind="look", ask="Both lines meet, block and angle read as planned"),
        ),
        welded(
            key="tack",
            phase="tack",
            title="Tack the subframe's mounts" if own.mounted == "solid" else "Tack the bushings' seats",
            detail="Left, right, left, right; the marks read again after every second tack.",
            minutes=60,
        ),
        welded(
            key="weld",
            phase="weld",
            title="Weld the subframe in" if own.mounted == "solid" else "Weld the seats, bushings out",
            detail="Short runs from side to side, cooled to hand-warm between them; rubber is out before heat goes in.",
            minutes=120,
        ),
        StepSpec(
            key="points",
            phase="prove",
            title="Prove its points",
            detail="Each point along, across and in height, left and right, to 1/32 in or a millimetre.",
            minutes=45,
            tools=("tape", "plumb bob", "level"),
        ),
    ]
    return rows


def _moves(own: SubframePlan) -> list[str]:
    """What is done to it, in words."""
    shifts = (
        (own.up_mm, "up", "down"),
        (own.back_mm, "rearward", "forward"),
        (own.right_mm, "to the right", "to the left"),
        (own.narrower_mm, "narrower each side", ""),
    )
    turns = (
        (own.nose_up_deg, "nose up", "nose down"),
        (own.nose_right_deg, "nose to the right", "nose to the left"),
        (own.right_up_deg, "right side up", "left side up"),
    )
    return [
        *(f"{as_length(abs(v))} {up if v > 0 else down}" for v, up, down in shifts if abs(v) > 1e-9),
        *(f"{abs(v):.1f} deg {up if v > 0 else down}" for v, up, down in turns if abs(v) > 1e-9),
    ]


def subframe_readings(own: SubframePlan, side: Side, datum: str, survey: Survey) -> list[ReadingSpec]:
    """Where every point that stays stands on one side once it is fixed."""
    rail, pose = survey.rails.of(side), own.pose(survey.rails, survey.features)
    anchor = resolve(own.place.model_copy(update={"offset_mm": 0.0}), survey.features)
    out = []
    for k, point in enumerate(own.points):
        at = point.on(side)
        if at is None or point.what == "ear":
            continue
        x, y, z = pose.of(at)
        for key, words, value, zero in (
            ("along", "along", x - anchor, f"{datum}, rearward"),
            ("across", "across", abs(y), "the centre plane"),
            ("height", "height", z - rail_at(rail, x)[0], "the rail's underside there, up"),
        ):
            out.append(reading(f"point-{k + 1}-{key}", f"{point.name}, {words}", value, zero, "as-built-mount"))
    return out
