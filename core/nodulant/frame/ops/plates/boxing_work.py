"""The build steps and as-built readings of a boxing plate, as plain data."""

from nodulant.frame.ops.plates.boxing_plan import BoxingPlan
from nodulant.frame.ops.welded import thickness_reading, welded
from nodulant.parts.specs import HoldPoint, ReadingSpec, StepSpec
from nodulant.units.inline import as_length, as_thickness


def boxing_steps(boxing: BoxingPlan) -> list[StepSpec]:
    """Steps on one side."""
    return [
        StepSpec(
            key="inside",
            phase="fit",
            title="Everything that goes inside the rail",
            detail=f"What other work welds into the rail is in and looked at. Then its own: a drain hole of {as_thickness(10)} at the lowest place of each end, an earth stud where paint will stay off, nuts or pads for whatever is bolted here later, weld-through primer on every bare face.",
            minutes=60,
            tools=("drill", "primer"),
            hides="the inside of the rail",
            acts=("goes-inside",),
            hold=HoldPoint(kind="look", ask="Everything that goes inside is inside"),
        ),
        welded(
            key="fit",
            phase="tack",
            title="Fit and tack the boxing plate",
            detail=f"{as_thickness(boxing.thickness_mm)}, {boxing.fit.replace('-', ' ')}, tacks every {as_length(150)} from the middle outwards.{_in_lengths(boxing)}",
            minutes=60,
            people=2,
            with_tools=("clamps", "string line"),
            hold=HoldPoint(
                kind="look",
                ask="String line along the rail read before the first bead: in and out, up and down, written down",
            ),
            acts=("shuts", "boxes"),
        ),
        welded(
            key="weld",
            phase="weld",
            title="Weld the boxing plate",
            detail=_beads(boxing),
            minutes=150,
            with_tools=("string line",),
            hold=HoldPoint(
                kind="look",
                ask="Cold: string line read again, straight as before or drawn back by heat on the other side",
            ),
            hides="the inside of the rail",
            acts=("welds",),
        ),
    ]


def _in_lengths(boxing: BoxingPlan) -> str:
    if boxing.lengths == 1:
        return ""
    return f" Its {boxing.lengths} lengths butted on the bench first: edges bevelled, welded through with run-on and run-off tabs, ground flush on both faces."


def _beads(boxing: BoxingPlan) -> str:
    if boxing.seam == "stitch":
        return f"Stitches of {as_length(boxing.bead_mm)} every {as_length(boxing.pitch_mm)}, both edges, spread along and around; full length for the last {as_length(100)} at each end."
    return f"Full length in beads of {as_length(40)} to {as_length(50)}, spread along and around, rail to rail, hand-warm between."


def boxing_readings(boxing: BoxingPlan) -> list[ReadingSpec]:
    """What is measured on one side after welding, mm."""
    return [thickness_reading("boxing", "Boxing plate", boxing.thickness_mm)]
