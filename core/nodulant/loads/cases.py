"""Load cases: a name, a factor and what it is based on."""

from nodulant.base.model import Frozen
from nodulant.loads.plan import CaseId, LoadPlan
from nodulant.parts.sides import AxleName

KERB_UP, KERB_BACK = 3.0, 2.0
"""Kerb strike: three times the wheel's load up and twice rearward at the hub (Nodulant default)."""
TEXTBOOK = "body-engineering textbooks"
"""From memory."""


BESIDE: CaseId = "bump-beside"
"""Asked only where springs beside the rails twist them."""


class Case(Frozen):
    """A case and the factor on what it adds to, or makes of, the standing load."""

    id: CaseId
    name: str
    factor: float
    basis: str
    accident: bool = False
    """It may happen once and must bend nothing: yield itself is the limit."""
    axle: AxleName | None = None
    """The axle that it strikes or lifts."""
    place: str = ""
    """What has to be said of where it acts, where it is not known otherwise."""
    of: tuple[CaseId, ...] = ()
    """The cases that it puts together, its factor of each."""


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
        basis="what lifts that wheel, load x half track x 1.3, or what the hole's depth enforces on frame and springs, whichever is less",
    ),
    Case(
        id="brake", name="Braking, 1 g", factor=1.0, basis=f"1 g with the transfer, on top of 1 g upright: {TEXTBOOK}"
    ),
    Case(id="corner", name="Cornering, 1 g", factor=1.0, basis=f"1 g with the transfer, on top of 1 g: {TEXTBOOK}"),
    Case(id="launch", name="Launch at the tyres' limit", factor=1.0, basis="grip x rear load with its own transfer"),
    Case(
        id="jack",
        name="Jack under one rail, rear",
        factor=1.0,
        basis="that side's wheel off the ground, the other axle free to roll",
        axle="rear",
        place="where a jack lifts the rear",
    ),
    Case(
        id="jack-front",
        name="Jack under one rail, front",
        factor=1.0,
        basis="that side's wheel off the ground, the other axle free to roll",
        axle="front",
        place="where a jack lifts the front",
    ),
    Case(
        id="stop",
        name="Rear bump stops struck",
        factor=3.0,
        basis="three times the axle's static load, the surplus through the stop pads",
        axle="rear",
        place="where the rear bump stops strike the rails",
    ),
    Case(
        id="stop-front",
        name="Front bump stops struck",
        factor=3.0,
        basis="three times the axle's static load, the surplus through the stop pads",
        axle="front",
        place="where the front bump stops strike the rails",
    ),
    Case(
        id="kerb",
        name="Kerb strike, rear wheel",
        factor=1.0,
        basis="an accident that may bend nothing: three times the wheel's load up and twice rearward at the hub, met by the masses' own inertia, on top of 1 g; each rail under its own side's strike: Nodulant default",
        axle="rear",
        accident=True,
    ),
    Case(
        id="kerb-front",
        name="Kerb strike, front wheel",
        factor=1.0,
        basis="an accident that may bend nothing: three times the wheel's load up and twice rearward at the hub, met by the masses' own inertia, on top of 1 g; each rail under its own side's strike: Nodulant default",
        axle="front",
        accident=True,
    ),
    Case(
        id=BESIDE,
        name="Both wheels in a bump, springs beside the rails",
        factor=1.0,
        basis="the bump of both wheels, with what springs beside the rails twist them by",
        of=("bump",),
    ),
    Case(
        id="bump-brake",
        name="Bump while braking",
        factor=0.7,
        basis="0.7 of the bump and of braking together: Nodulant default",
        of=("bump", "brake"),
    ),
    Case(
        id="brake-corner",
        name="Braking in a corner",
        factor=0.7,
        basis="0.7 of braking and of cornering together: Nodulant default",
        of=("brake", "corner"),
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
