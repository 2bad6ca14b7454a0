"""The rigid bodies of a job: the vehicle as it stands, and what each cut makes of it; each with its mass and where that is."""

from collections.abc import Iterable, Sequence
from itertools import pairwise

from nodulant.base.model import Frozen
from nodulant.frame.ops.union import Operation
from nodulant.materials.steel import DENSITY_KG_PER_MM3
from nodulant.parts.bought import Profile, girth_mm
from nodulant.parts.sides import LEFT_RIGHT, LoadState
from nodulant.supports.lift import Lift, lifted_off, without
from nodulant.survey.rail import Rail
from nodulant.survey.states import aboard
from nodulant.survey.vehicle import Mass, Survey

FAR_MM = 1e9
MASS_Y_MM = 0.0
"""Masses of the survey have no place across: they are taken to lie in the centre plane."""


class Body(Frozen):
    """A part of the frame with everything on it, from ``start_mm`` to ``end_mm``; its mass and the station of that."""

    name: str
    start_mm: float
    end_mm: float
    mass_kg: float
    x_mm: float
    y_mm: float = MASS_Y_MM


class Situation(Frozen):
    """A moment of the work, and the bodies that stand then."""

    key: str
    name: str
    operation: str | None = None
    """The operation whose cut makes it."""
    bodies: tuple[Body, ...]


def situations(survey: Survey, operations: Iterable[Operation], lifts: Sequence[Lift] = ()) -> tuple[Situation, ...]:
    """With its body on, with it off, after each lift, and after each cut that parts both rails, in the order of the work.

    A cut joined again is whole for the next one. Empty where no mass is known. Raises UnknownReference.
    """
    if not survey.weighs:
        return ()
    out = [_whole(survey, "on", "body on, as it comes", "empty"), _whole(survey, "off", "body and load off", "bare")]
    for n, lift in enumerate(lifts, 1):
        rest = without(survey, lifted_off(lifts[:n]))
        out.append(_whole(rest, f"lift/{lift.id}", f"with '{lift.name}' off", "bare"))
    bare = without(survey, lifted_off(lifts))
    out += [_cut(bare, op) for op in operations if op.saws_through and op.side == "both"]
    return tuple(out)


def _whole(survey: Survey, key: str, name: str, state: LoadState) -> Situation:
    ends = _ends(survey)
    return Situation(key=key, name=name, bodies=(_body("the vehicle", survey, state, ends, ends),))


NAMES = {
    2: ("the part ahead of the cut", "the part behind the cut"),
    3: ("the part ahead of both cuts", "the stretch between them", "the part behind both cuts"),
}


def _cut(survey: Survey, op: Operation) -> Situation:
    """Both rails parted: what is ahead, what is behind, and the stretch between two cuts where the operation makes two.

    What sits over a stretch that comes out goes with the part that it is nearer to.
    """
    gaps = [
        op.cut_spans(op.span(survey.rails.of(side), survey.features, f"/design/operations/{op.id}"))
        for side in LEFT_RIGHT
    ]
    spans = [(min(a.start_mm, b.start_mm), max(a.end_mm, b.end_mm)) for a, b in zip(*gaps, strict=True)]
    start, end = _ends(survey)
    edges = [(start, start), *spans, (end, end)]
    names = NAMES.get(len(spans) + 1, tuple(f"part {k + 1}" for k in range(len(spans) + 1)))
    bodies = []
    for name, (one, two) in zip(names, pairwise(edges), strict=True):
        if two[0] > one[1]:
            bodies.append(_body(name, survey, "bare", (one[1], two[0]), (sum(one) / 2, sum(two) / 2)))
    return Situation(
        key=f"cut/{op.id}", name=f"both rails cut through, {op.name}", operation=op.id, bodies=tuple(bodies)
    )


def _ends(survey: Survey) -> tuple[float, float]:
    rails = (survey.rails.left, survey.rails.right)
    return min(r.start_mm for r in rails), max(r.end_mm for r in rails)


Ends = tuple[float, float]


def _body(name: str, survey: Survey, state: LoadState, ends: Ends, carries: Ends) -> Body:
    """From end to end with the masses that it ``carries`` between two stations, and the frame's own steel.

    Of masses spread over a run what lies there; what hangs out beyond the frame's ends goes with the end that it hangs on.
    """
    (start, end), (first, last) = ends, _ends(survey)
    low, high = (-FAR_MM if carries[0] <= first else carries[0]), (FAR_MM if carries[1] >= last else carries[1])
    rows = [share for m in aboard(survey.masses, state) if (share := _share(m, low, high)) is not None]
    rows += _steel(survey, start, end)
    kg = sum(m for m, _ in rows)
    return Body(
        name=name,
        start_mm=start,
        end_mm=end,
        mass_kg=kg,
        x_mm=sum(m * x for m, x in rows) / kg if kg > 0 else (start + end) / 2,
    )


def _share(mass: Mass, low: float, high: float) -> tuple[float, float] | None:
    """What of a mass lies between two stations, kg, and where."""
    if mass.mass_kg <= 0:
        return None
    if mass.to_x_mm is None:
        return (mass.mass_kg, mass.x_mm) if low < mass.x_mm <= high else None
    a, b = max(mass.x_mm, low), min(mass.to_x_mm, high)
    if b <= a:
        return None
    return mass.mass_kg * (b - a) / (mass.to_x_mm - mass.x_mm), (a + b) / 2


PIECE_MM = 50.0


def _steel(survey: Survey, start: float, end: float) -> list[tuple[float, float]]:
    """The rails' and crossmembers' own mass in short pieces."""
    out = [row for side in LEFT_RIGHT for row in _rail_steel(survey.rails.of(side), start, end)]
    across = survey.rails.left.web_y_mm + survey.rails.right.web_y_mm
    for c in survey.crossmembers:
        if start < c.x_mm <= end:
            girth = girth_mm(c.profile, c.height_mm, c.width_mm, c.wall_mm)
            out.append((girth * c.wall_mm * across * DENSITY_KG_PER_MM3, c.x_mm))
    return out


def _rail_steel(rail: Rail, start: float, end: float) -> list[tuple[float, float]]:
    out = []
    for one, two in pairwise(rail.stations):
        a, b = max(one.x_mm, start), min(two.x_mm, end)
        if b <= a or one.wall_mm is None:
            continue
        profile: Profile = "tube" if rail.kind == "round-tube" else "box" if rail.closed else "channel"
        area = girth_mm(profile, one.height_mm, one.width_mm, one.wall_mm) * one.wall_mm
        out.append((area * (b - a) * DENSITY_KG_PER_MM3, (a + b) / 2))
    return out
