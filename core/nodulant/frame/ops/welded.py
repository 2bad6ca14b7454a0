"""Steps at which an arc burns, and the reading of a plate's thickness: what every welded piece shares."""

from nodulant.parts.cautions import HOT
from nodulant.parts.specs import HoldPoint, Phase, ReadingSpec, StepSpec, reading


def welded(
    *,
    key: str,
    phase: Phase,
    title: str,
    detail: str,
    minutes: int,
    with_tools: tuple[str, ...] = (),
    people: int = 1,
    hold: HoldPoint | None = None,
    hides: str = "",
) -> StepSpec:
    """A step with the welder, and with its caution; other tools come first."""
    return StepSpec(
        key=key,
        phase=phase,
        title=title,
        detail=detail,
        minutes=minutes,
        people=people,
        tools=(*with_tools, "welder"),
        cautions=(HOT,),
        hold=hold,
        hides=hides,
    )


def thickness_reading(role: str, name: str, planned_mm: float) -> ReadingSpec:
    """A plate's thickness, on the plate itself."""
    return reading(f"{role}-thickness", f"{name} thickness", planned_mm, "the plate itself", "as-built-plate")
