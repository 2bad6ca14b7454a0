"""The build steps and as-built readings of a boxing plate, as plain data."""

from nodulant.frame.ops.plates.boxing_plan import BoxingPlan
from nodulant.parts.cautions import HOT
from nodulant.parts.specs import ReadingSpec, StepSpec, reading


def boxing_steps(boxing: BoxingPlan) -> list[StepSpec]:
    """Steps on one side."""
    return [
        StepSpec(
            key="inside",
            phase="fit",
            title="Everything that goes inside the rail",
            detail="Captive nuts, sleeves, drain holes, earth studs and weld-through primer before the section is closed.",
            minutes=60,
            tools=("drill", "primer"),
            hides="the inside of the rail",
        ),
        StepSpec(
            key="fit",
            phase="tack",
            title="Fit and tack the boxing plate",
            detail=f"{boxing.thickness_mm:g} mm, {boxing.fit.replace('-', ' ')}, tacks every 150 mm from the middle outwards.",
            minutes=60,
            people=2,
            tools=("clamps", "welder"),
            cautions=(HOT,),
        ),
        StepSpec(
            key="weld",
            phase="weld",
            title="Weld the boxing plate",
            detail=_beads(boxing),
            minutes=150,
            tools=("welder",),
            cautions=(HOT,),
            hides="the inside of the rail",
        ),
    ]


def _beads(boxing: BoxingPlan) -> str:
    if boxing.seam == "stitch":
        return f"Stitches of {boxing.bead_mm:g} mm every {boxing.pitch_mm:g} mm, both edges, spread along and around; full length for the last 100 mm at each end."
    return "Full length in beads of 40-50 mm, spread along and around, rail to rail, hand-warm between."


def boxing_readings(boxing: BoxingPlan) -> list[ReadingSpec]:
    """What is measured on one side after welding, mm."""
    return [
        reading("boxing-thickness", "Boxing plate thickness", boxing.thickness_mm, "the plate itself", "as-built-plate")
    ]
