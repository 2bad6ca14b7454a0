"""Load cases: a name, a factor and what it is based on."""

from nodulant.base.model import Frozen
from nodulant.loads.plan import CaseId, LoadPlan
from nodulant.materials.steel import SAFETY_ON_YIELD

KERB_UP, KERB_BACK = 3.0, 2.0
"""Kerb strike: three times the wheel's load up and twice rearward at the hub (Nodulant default)."""
TEXTBOOK = "body-engineering textbooks, from memory"


class Case(Frozen):
    """A case and the factor on what it adds to, or makes of, the standing load."""

    id: CaseId
    name: str
    factor: float
    basis: str
    reserve: float = SAFETY_ON_YIELD
    """What yield is divided by: 1 where the load is an accident that may bend nothing."""


CASES: tuple[Case, ...] = (
    Case(id="static", name="Standing, 1 g", factor=1.0, basis="weight"),
    Case(id="bump", name="Both wheels in a bump, 3 g", factor=3.0, basis=f"three times static in total: {TEXTBOOK}"),
)
"""The symmetric cases, on each rail as a beam."""

SPACE_CASES: tuple[Case, ...] = (
    Case(
        id="twist",
        name="One wheel in a hole",
        factor=1.3,
        basis=f"lighter axle's load x half its track on top of 1 g: {TEXTBOOK}",
    ),
    Case(
        id="brake", name="Braking, 1 g", factor=1.0, basis=f"1 g with the transfer, on top of 1 g upright: {TEXTBOOK}"
    ),
    Case(id="corner", name="Cornering, 1 g", factor=1.0, basis=f"1 g with the transfer, on top of 1 g: {TEXTBOOK}"),
    Case(id="launch", name="Launch at the tyres' limit", factor=1.0, basis="grip x rear load with its own transfer"),
    Case(
        id="jack",
        name="Jack under one rail",
        factor=1.0,
        basis="that side's rear wheel off the ground, front free to roll",
    ),
    Case(
        id="stop",
        name="Rear bump stops struck",
        factor=3.0,
        basis="three times the rear's static load, the surplus through the stop pads",
    ),
    Case(
        id="kerb",
        name="Kerb strike, rear wheel",
        factor=1.0,
        reserve=1.0,
        basis="an accident that may bend nothing: three times the wheel's load up and twice rearward at the hub, met by the masses' own inertia, on top of 1 g; each rail under its own side's strike: Nodulant default",
    ),
)
"""Cases that need the frame in space."""


def find_case(case_id: str) -> Case:
    """The symmetric case of that id; the bump case where it is another."""
    return next((case for case in CASES if case.id == case_id), CASES[-1])


def in_force(cases: tuple[Case, ...], plan: LoadPlan) -> tuple[Case, ...]:
    """The cases with the user's own factors in place, and the reason as their basis."""
    out = []
    for case in cases:
        change = plan.cases.get(case.id)
        if change is None:
            out.append(case)
            continue
        basis = f"your own factor: {change.reason} (default {case.factor:g}: {case.basis})"
        out.append(case.model_copy(update={"factor": change.factor, "basis": basis}))
    return tuple(out)
