"""Everything that goes along with a raise, a step or a narrowing, or was seen in the way of a cut: its clearance.

What stands still is looked at here: things against rails, arches and each other, hoses over all
travel and lock. What moves past them is the sweep's.
"""

from typing import Literal

import numpy as np

from nodulant.asbuilt.log import overridden
from nodulant.axles.layouts.independent import Steered
from nodulant.axles.steering import Rack
from nodulant.axles.suspension import Suspension
from nodulant.base.memo import remembered
from nodulant.base.model import Frozen
from nodulant.build.general import ALONG_STEP
from nodulant.checks.check import Check, Subject, Why, judge, not_computed
from nodulant.checks.hose_rules import hose_checks
from nodulant.clearance.apart import apart
from nodulant.clearance.arches import arch_of
from nodulant.clearance.obstacle import Obstacle
from nodulant.clearance.placed_things import standing_of
from nodulant.clearance.rail_prisms import rail_body
from nodulant.clearance.shapes import Bars, Standing
from nodulant.frame.ops.pockets.raise_into import Raise
from nodulant.frame.ops.subframes.subframe import Subframe
from nodulant.frame.ops.through.narrow import Narrow
from nodulant.frame.ops.through.zstep import ZStep
from nodulant.frame.ops.union import Operation
from nodulant.job.document import Inputs
from nodulant.job.touched import nearest_axle
from nodulant.parts.limits import find_limit
from nodulant.parts.sides import LEFT_RIGHT
from nodulant.steering.study import steer_study
from nodulant.survey.in_the_way import ALONG, AlongThing
from nodulant.survey.vehicle import Survey
from nodulant.suspension.study import Study

NAMES: dict[AlongThing, str] = {
    "engine": "Engine and gearbox",
    "sump": "Sump",
    "steering-box": "Steering box or rack",
    "column": "Steering column and shaft",
    "tank": "Tank",
    "exhaust": "Exhaust",
    "anti-roll-bar": "Anti-roll bar",
    "hoses": "Hoses at droop and lock",
}
BOLTED = (
    {"engine", "sump"},
    {"engine", "exhaust"},
    {"tank", "line"},
    {"column", "steering-box"},
    {"floor", "firewall"},
)
"""Kinds that hang together and are not judged against each other."""
RACK_MM, SHORT_MM = 22.0, 30.0
"""Radius of a rack's tube, and how far inside the inner joints it ends (common practice); boots and rods are the sweep's."""
Status = Literal["clears", "too near", "not computed", "not there", "way out"]


Judged = dict[AlongThing, tuple[Check, str]]
"""Each thing's check, and what is nearest to it."""


class Along(Frozen):
    """One thing: its least clearance standing, mm, to what, and whether that is enough; or what was said of it."""

    thing: AlongThing
    name: str
    status: Status
    clearance_mm: float | None
    nearest: str
    words: str


AT_THE_REAR: frozenset[AlongThing] = frozenset({"tank", "exhaust", "anti-roll-bar", "hoses"})
"""What stands about a rear axle: engine, sump and steering stay with the front (common practice)."""


def looked_at(inputs: Inputs) -> tuple[AlongThing, ...]:
    """What may go along with what is raised, stepped or narrowed there, and what was seen in the way of any work."""
    survey, operations = inputs.survey, inputs.design.operations
    moving = [op for op in operations if isinstance(op, Raise | Subframe | Narrow | ZStep)]
    seen = set(survey.in_the_way) if operations else set()
    if any(nearest_axle(survey, op) != "rear" or _takes_the_front(op) for op in moving):
        seen |= set(ALONG)
    elif moving:
        seen |= AT_THE_REAR
    return tuple(t for t in ALONG if t in seen)


def _takes_the_front(op: Operation) -> bool:
    """A cut behind the middle may still raise all that is ahead of it."""
    return isinstance(op, ZStep) and op.rises == "ahead"


def along_rows(inputs: Inputs, judged: Judged) -> tuple[Along, ...]:
    """One row for each thing, the open ones first; none where nothing goes along or is in the way."""
    rows = []
    notes = {note.thing: note for note in inputs.design.along}
    for thing in looked_at(inputs):
        note = notes.get(thing)
        own, nearest = judged.get(thing, (None, ""))
        if note is not None:
            status: Status = "not there" if note.how == "not-there" else "way out"
            rows.append(
                Along(thing=thing, name=NAMES[thing], status=status, clearance_mm=None, nearest="", words=note.words)
            )
            continue
        if own is None or own.value is None:
            rows.append(
                Along(
                    thing=thing,
                    name=NAMES[thing],
                    status="not computed",
                    clearance_mm=None,
                    nearest="",
                    words=_how(thing),
                )
            )
            continue
        status = "clears" if own.verdict in {"holds", "close"} else "too near"
        words = own.why.words if own.why else ""
        rows.append(
            Along(thing=thing, name=NAMES[thing], status=status, clearance_mm=own.value, nearest=nearest, words=words)
        )
    return tuple(sorted(rows, key=lambda r: (r.status not in OPEN, r.status != "too near")))


OPEN = {"not computed", "too near"}


def cut_locked(inputs: Inputs, rows: tuple[Along, ...]) -> bool:
    """Whether something that goes along still has no clearance, and nobody has passed it with a reason."""
    return any(r.status in OPEN for r in rows) and overridden(inputs.as_built.entries, ALONG_STEP) is None


def _how(thing: AlongThing) -> str:
    if thing == "hoses":
        return "give the hoses of the axles in the Travel stage"
    if thing in ("steering-box", "column"):
        return "give the steering, or place it as a thing in the Clearance stage"
    return "place it as a thing in the Clearance stage"


def along_checks(inputs: Inputs, studies: list[Study]) -> Judged:
    """The clearance of each thing that goes along; 'not computed' where it was not placed, nothing where a note says why.

    Hoses are looked at through all travel and lock of the ``studies``.
    """
    design = inputs.design
    noted = {note.thing for note in design.along}
    out: Judged = {}
    for thing in looked_at(inputs):
        if thing in noted:
            continue
        subject = Subject(subject=f"along-{thing}", stage="cut")
        if thing == "hoses":
            out[thing] = (_hoses(subject, studies, inputs), "")
            continue
        found = _nearest(inputs, thing)
        if found is None:
            out[thing] = (
                not_computed("along-clear", subject, ("/design/obstacles",), design.limits, detail=NAMES[thing]),
                "",
            )
            continue
        rule, gap, other = found
        why = Why(
            formula="gap",
            values={"gap": gap},
            words=f"mm standing as planned, to the {other}; what moves is in the sweep",
        )
        check = judge(
            rule,
            subject,
            gap,
            why,
            design.limits,
            detail=f"{NAMES[thing]} to the {other}",
            remedy=f"Move it, make room in the {other}, or say the way out.",
        )
        out[thing] = (check, other)
    return out


def _hoses(subject: Subject, studies: list[Study], inputs: Inputs) -> Check:
    own = [c for s in studies for c in hose_checks(s, steer_study(s), inputs.design.limits)]
    # an axle whose hoses nobody gave is not covered by the other one's
    if not own or any(not s.suspension.hoses for s in studies):
        return not_computed(
            "hose-slack", subject, ("/design/suspensions",), inputs.design.limits, detail=NAMES["hoses"]
        )
    least = min(own, key=lambda c: c.value or 0.0)
    value = least.value or 0.0
    why = Why(formula="slack", values={"slack": value}, words=f"mm, the least of all: {least.title}")
    return judge("hose-slack", subject, value, why, inputs.design.limits, detail=NAMES["hoses"], remedy="Longer hoses.")


def _nearest(inputs: Inputs, thing: AlongThing) -> tuple[str, float, str] | None:
    """Limit, least distance and name of what is nearest to the placed things of a kind, against its limit."""
    limits = inputs.design.limits
    needed = {rule: find_limit(rule, limits)[0].value for rule in RULES}
    found = _nearest_of_all(
        inputs.survey, inputs.design.operations, inputs.design.obstacles, inputs.design.suspensions, needed
    )
    own = [row for row in found if row[0] == thing]
    if not own:
        return None
    _, rule, gap, other = min(own, key=lambda row: row[2] - needed[row[1]])
    return rule, gap, other


RULES = ("along-clear", "exhaust-lines")


@remembered(4)
def _nearest_of_all(
    survey: Survey,
    operations: tuple[Operation, ...],
    things: tuple[Obstacle, ...],
    suspensions: tuple[Suspension, ...],
    needed: dict[str, float],
) -> tuple[tuple[str, str, float, str], ...]:
    """Of each thing that goes along: its kind, limit, distance and name of what leaves it least; none that stands alone."""
    own = (*(standing_of(o) for o in things), *_steering(suspensions))
    arches = [arch_of(name, axle) for name, axle in (("front", survey.front), ("rear", survey.rear))]
    rails = tuple(rail_body(survey, operations, side) for side in LEFT_RIGHT)
    every = (*rails, *(a for a in arches if a), *own)
    out = []
    for one in own:
        if one.kind not in ALONG:
            continue
        rows = [
            (float(one.pack.boxes.apart(two.pack.boxes).min()) - needed[_rule(one, two)], k)
            for k, two in enumerate(every)
            if two.kind != one.kind and {one.kind, two.kind} not in BOLTED
        ]
        best: tuple[float, str, float, str] | None = None
        for bound, k in sorted(rows):
            # the boxes round two things are never further apart than the things
            if best is not None and bound >= best[0]:
                break
            rule, gap = _rule(one, every[k]), apart(one, every[k])
            if best is None or gap - needed[rule] < best[0]:
                best = (gap - needed[rule], rule, gap, every[k].name)
        if best is not None:
            out.append((one.kind, *best[1:]))
    return tuple(out)


def _rule(one: Standing, two: Standing) -> str:
    return "exhaust-lines" if {one.kind, two.kind} == {"exhaust", "line"} else "along-clear"


def _steering(suspensions: tuple[Suspension, ...]) -> list[Standing]:
    """The rack's tube between its inner joints, and the shaft from column to gear, as far as they are known."""
    out = []
    for own in suspensions:
        steering = own.steering
        if steering is None:
            continue
        if isinstance(steering.gear, Rack) and isinstance(own.layout, Steered):
            x, y, z = own.layout.toe.frame.xyz()
            half = max(y - SHORT_MM, 1.0)
            ends = np.array([[x, half, z]]), np.array([[x, -half, z]])
            out.append(Standing("steering rack", "steering-box", Bars(*ends, np.array([RACK_MM])), ""))
        if steering.shaft is not None:
            points = np.array([p.xyz() for p in (steering.shaft.column, *steering.shaft.joints)])
            radius = np.full(len(points) - 1, steering.shaft.diameter_mm / 2)
            out.append(Standing("steering shaft", "column", Bars(points[:-1], points[1:], radius), ""))
    return out
