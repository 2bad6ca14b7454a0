"""What is lifted off or out by a crane: its mass and where that is, the crane at its reach, the strap that levels it."""

from collections.abc import Iterable
from typing import Annotated

from pydantic import Field

from nodulant.base.model import Coordinate, Extra, Frozen, Id, Name
from nodulant.survey.vehicle import Survey

CRANE_KG, STRAP_MM = 500.0, 150.0
"""A two-tonne engine crane with its boom drawn out (common practice: read it on the boom); what a levelling strap moves its hook."""
HELPER_KG = 25.0
"""Above this nobody lifts alone (common practice)."""


class Lift(Frozen):
    """One lift: which of the survey's masses go, on what crane; all lifts are done before any cut."""

    id: Id
    name: Name
    masses: Annotated[tuple[Id, ...], Field(max_length=40)] = ()
    more_kg: Annotated[float, Field(ge=0, le=20_000)] = 0.0
    """What the survey does not have: slings, a subframe by itself."""
    crane_kg: Annotated[float, Field(gt=0, le=50_000)] = CRANE_KG
    """What the crane may lift with its boom as far out as it has to be."""
    hook_x_mm: Coordinate
    """Station that the hook hangs over."""
    strap_mm: Extra = STRAP_MM
    """How far along the strap's hook can be wound to either side."""


class Lifted(Frozen):
    """A lift as it hangs."""

    lift: str
    name: str
    mass_kg: float
    x_mm: float | None
    """Station of its middle; None where nothing of it is known."""
    use: float
    """Of what the crane may lift at that reach."""
    off_mm: float
    """How far its middle lies behind the hook."""
    holds: bool
    words: str


def lifted(survey: Survey, lift: Lift) -> Lifted:
    """What hangs on the hook, and whether crane and strap are good for it."""
    own = [m for m in survey.masses if m.id in lift.masses and m.mass_kg > 0]
    known = sum(m.mass_kg for m in own)
    mass = known + lift.more_kg
    rows = [(m.mass_kg, m.x_mm if m.to_x_mm is None else (m.x_mm + m.to_x_mm) / 2) for m in own]
    x = sum(kg * at for kg, at in rows) / known if known > 0 else None
    off = 0.0 if x is None else (x - lift.hook_x_mm) * known / mass
    use = mass / lift.crane_kg
    return Lifted(
        lift=lift.id,
        name=lift.name,
        mass_kg=mass,
        x_mm=x,
        use=use,
        off_mm=off,
        holds=mass > 0 and use <= 1.0 and abs(off) <= lift.strap_mm,
        words=_words(mass, use, off, lift.strap_mm),
    )


def _words(mass: float, use: float, off: float, strap: float) -> str:
    if mass <= 0:
        return "not known: say which masses it lifts"
    if use > 1.0:
        return "more than the crane may lift at this reach"
    if abs(off) > strap:
        return f"hangs {'tail' if off > 0 else 'nose'} down: the strap does not reach its middle, move the hook"
    return "hangs level"


def lifted_off(lifts: Iterable[Lift]) -> frozenset[str]:
    """Masses that are off once these lifts are done."""
    return frozenset(mass for lift in lifts for mass in lift.masses)


def without(survey: Survey, gone: frozenset[str]) -> Survey:
    """The vehicle with these masses off."""
    if not gone:
        return survey
    return survey.model_copy(update={"masses": tuple(m for m in survey.masses if m.id not in gone)})


def fresh_lift(survey: Survey, there: Iterable[Lift]) -> Lift:
    """One more: the heaviest thing that is still on, hooked over its middle."""
    own = list(there)
    off = lifted_off(own)
    left = [m for m in survey.masses if m.id not in off and m.to_x_mm is None]
    taken = {lift.id for lift in own}
    id_ = next(f"lift-{n}" for n in range(1, len(taken) + 2) if f"lift-{n}" not in taken)
    if not left:
        return Lift(id=id_, name="lift", hook_x_mm=0.0)
    most = max(left, key=lambda m: m.mass_kg)
    return Lift(id=id_, name=most.name, masses=(most.id,), hook_x_mm=most.x_mm)
