"""Steps at which an arc burns, and the reading of a plate's thickness: what every welded piece shares."""

from nodulant.parts.cautions import HOT, WHEEL
from nodulant.parts.specs import Act, HoldPoint, Phase, ReadingSpec, StepSpec, reading
from nodulant.units.inline import as_length


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
    acts: tuple[Act, ...] = (),
    once: bool = False,
) -> StepSpec:
    """A step with the welder, and with its caution; other tools come first. Tacks are cut again until the weld."""
    tacked = phase == "tack"
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
        acts=acts,
        once=once,
        undo=UNTACK if tacked else "",
        undo_until="weld" if tacked else "",
    )


UNTACK = "cut the tacks with a thin wheel and dress them"
BRACED = "Spreaders and diagonals as listed, tacked or clamped, unless a crossmember lies within {near}."


CLAMPED = "Spreaders and diagonals as listed, clamped or bolted, unless a crossmember lies within {near}: nothing is tacked to this rail."


def braces(why: str, *, tacked: bool = True) -> StepSpec:
    """Before metal goes: what keeps both rails where they are; on rails that are only bolted they are not ``tacked``."""
    near, held = as_length(150), BRACED if tacked else CLAMPED
    return welded(
        key="brace",
        phase="brace",
        title="Brace the rails ahead of the cut and behind it",
        detail=f"{why} {held.format(near=near)} Only where the cut is: nothing else is braced.",
        minutes=60,
        with_tools=("square tube",),
        acts=("braces",),
        once=True,
    ).model_copy(update={} if tacked else {"tools": ("square tube", "clamps"), "cautions": ()})


def braces_off(*, tacked: bool = True) -> StepSpec:
    """Once its welds are cold; once its bolts are tight where nothing was ``tacked``."""
    if not tacked:
        return StepSpec(
            key="unbrace",
            phase="plate",
            title="Braces off",
            detail="When every bolt here is drawn and marked: clamps off, diagonals read once more without them.",
            minutes=15,
            tools=("tape",),
            acts=("unbraces",),
            once=True,
        )
    return StepSpec(
        key="unbrace",
        phase="plate",
        title="Braces off",
        detail="When every weld here is cold to the hand: tacks cut, not torn, their marks dressed; diagonals read once more without them.",
        minutes=30,
        tools=("cut-off wheel", "tape"),
        cautions=(WHEEL,),
        acts=("unbraces",),
        once=True,
    )


def thickness_reading(role: str, name: str, planned_mm: float) -> ReadingSpec:
    """A plate's thickness, on the plate itself."""
    return reading(f"{role}-thickness", f"{name} thickness", planned_mm, "the plate itself", "as-built-plate")
