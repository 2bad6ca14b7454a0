"""What an operation asks of the layers above it, as plain data."""

from typing import Literal

from nodulant.base.model import Frozen
from nodulant.parts.measure import Measure

Phase = Literal[
    "survey", "prepare", "brace", "mark", "cut", "fit", "tack", "look", "weld", "plate", "finish", "prove", "road"
]
PHASES: tuple[Phase, ...] = (
    "survey",
    "prepare",
    "brace",
    "mark",
    "cut",
    "fit",
    "tack",
    "look",
    "weld",
    "plate",
    "finish",
    "prove",
    "road",
)


Act = Literal[
    "supports",
    "frees-springs",
    "braces",
    "unbraces",
    "drills-corners",
    "cuts",
    "moves",
    "goes-inside",
    "shuts",
    "boxes",
    "ties",
    "stands-at-height",
    "mocks-up",
    "moves-by-hand",
    "joints-out",
    "welds",
    "welds-mount",
    "reads-runout",
    "welds-axle",
    "reads-runout-again",
]
"""What a step does that decides which other steps come before it and after it."""


class HoldPoint(Frozen):
    """A reading or a look that must pass before the next step opens."""

    kind: Literal["reading", "look"]
    ask: str
    reading: str | None = None
    """Kind of as-built reading that answers it."""


class StepSpec(Frozen):
    """One build step of an operation; ``key`` is unique within the operation."""

    key: str
    phase: Phase
    title: str
    detail: str
    minutes: int
    people: int = 1
    rest_min: int = 0
    """What it rests by the clock before anything that waits for it: paint dries."""
    tools: tuple[str, ...] = ()
    cautions: tuple[str, ...] = ()
    hold: HoldPoint | None = None
    hides: str = ""
    """What cannot be reached afterwards."""
    acts: tuple[Act, ...] = ()
    once: bool = False
    """Taken once for both rails, where the operation is on both."""
    undo: str = ""
    """How it is undone, up to its operation's step ``undo_until``; empty where it is not, or by a step of its own."""
    undo_until: str = ""


class ReadingSpec(Frozen):
    """An as-built reading that a part or cut asks for, with what was planned."""

    key: str
    name: str
    planned: float
    limit_id: str
    datum: str
    unit: Measure = "mm"
    extra: bool = False
    """It can be taken, and counts where it is; nobody has to."""


def reading(
    key: str,
    name: str,
    planned: float,
    datum: str,
    limit_id: str = "as-built",
    unit: Measure = "mm",
    *,
    extra: bool = False,
) -> ReadingSpec:
    """A reading against what was planned, from ``datum``."""
    return ReadingSpec(key=key, name=name, planned=planned, limit_id=limit_id, datum=datum, unit=unit, extra=extra)


class CheckSpec(Frozen):
    """A check that an operation works out by itself: the value and the formula that gives it.

    ``value`` None says that an input is missing; ``missing`` points at it and ``remedy`` says why.
    """

    limit_id: str
    about: str = ""
    """What of the operation it is about; part of the check's id."""
    value: float | None
    formula: str = ""
    values: dict[str, float] = {}
    words: str = ""
    detail: str = ""
    station_mm: float | None = None
    remedy: str = ""
    same_as_stock: bool = False
    missing: tuple[str, ...] = ()


class FigureSpec(Frozen):
    """A number of an operation that is shown, not judged."""

    key: str
    name: str
    value: float
    unit: str
    basis: str


DetailId = Literal[
    "edge-dressed", "edge-rough", "butt-ground", "butt", "butt-backed", "butt-blind", "attachment", "plate-end"
]


class FatigueDetail(Frozen):
    """An edge or a weld whose fatigue counts, at a station (or over a run) of the stock rail."""

    about: str
    detail: DetailId
    start_mm: float
    end_mm: float
    words: str
    concentration: float = 1.0
    """Stress at an unwelded edge over that of the net section."""
    modulus_mm3: float | None = None
    """Of the inserted piece that it belongs to; the rail's own section where left out."""
