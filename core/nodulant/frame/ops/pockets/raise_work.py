"""The build steps of a raised pocket."""

from nodulant.frame.ops.welded import welded
from nodulant.parts.cautions import DUST, HOT, WHEEL
from nodulant.parts.specs import HoldPoint, StepSpec


def raise_steps(cut: str) -> list[StepSpec]:
    """Steps on one side; ``cut`` says what is cut and where."""
    return [*_before(cut), *_after()]


def _before(cut: str) -> list[StepSpec]:
    return [
        StepSpec(
            key="mark",
            phase="mark",
            title="Mark pocket and box",
            detail=cut,
            minutes=30,
            tools=("layout dye", "scriber", "rail cut template"),
            hold=HoldPoint(kind="reading", ask="Centre of the pocket from its datum", reading="position"),
        ),
        welded(
            key="box",
            phase="brace",
            title="Tack the box on top first",
            detail="The rail gets its height back before it loses it below.",
            minutes=60,
            with_tools=("clamps",),
            acts=("braces",),
        ),
    ]


def _after() -> list[StepSpec]:
    return [
        StepSpec(
            key="drill",
            phase="cut",
            title="Drill the pocket's corners",
            detail="Where the template's points are: the cut ends in a hole, never in a corner.",
            minutes=20,
            tools=("drill",),
            cautions=(DUST,),
            acts=("drills-corners",),
        ),
        StepSpec(
            key="cut",
            phase="cut",
            title="Cut the pocket",
            detail="Inside the line, then dressed to it; one rail at a time.",
            minutes=90,
            tools=("drill", "cut-off wheel", "flap disc"),
            cautions=(WHEEL, DUST, HOT),
            hides="the uncut rail",
            hold=HoldPoint(kind="reading", ask="Depth of the pocket at the web", reading="depth"),
            acts=("cuts",),
        ),
        welded(
            key="floor",
            phase="tack",
            title="Fit the floor and offer up the subframe",
            detail="Floor tight, subframe up on its set-up bolts, then tacks.",
            minutes=90,
            people=2,
            with_tools=("jack", "clamps"),
            hold=HoldPoint(kind="look", ask="Everything that went up clears at full lock and full bump"),
            acts=("mocks-up",),
        ),
        welded(
            key="weld",
            phase="weld",
            title="Weld floor and box",
            detail="Short beads spread along and around, rail to rail.",
            minutes=120,
            hides="roots and faying faces",
            acts=("shuts", "welds"),
        ),
    ]
