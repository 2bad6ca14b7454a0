"""From the sweep, the cut: the hole that a rod needs in a rail, as operations with their strength, and an axle's notch."""

import math
from dataclasses import dataclass
from typing import Literal

import numpy as np
from shapely.geometry import Polygon

from nodulant.axles.layouts.independent import TOE_LINK
from nodulant.base.errors import NodulantError, NotSolvable
from nodulant.base.model import Frozen
from nodulant.checks.check import Check
from nodulant.clearance.hull import least_circle, least_oblong, swept_hull
from nodulant.clearance.moving import Mover, RoundBar
from nodulant.evaluate.clearances.sweep import Scene, scene
from nodulant.evaluate.evaluation import InvalidInputs, Want
from nodulant.evaluate.run import evaluate
from nodulant.frame.model import planned_state, route_on
from nodulant.frame.ops.hole import WebHole
from nodulant.frame.ops.notches.notch import Liner, Notch
from nodulant.frame.ops.notches.notch_shape import ArcShape, TrapezoidShape
from nodulant.frame.ops.union import Operation
from nodulant.frame.place import Place
from nodulant.frame.seen import RailSeen, rail_seen
from nodulant.job.document import Inputs
from nodulant.materials.hole_saws import HOLE_SAWS_MM, next_saw_mm
from nodulant.materials.pipe import Pipe, pipe_that_clears
from nodulant.parts.limits import find_limit
from nodulant.parts.sides import Side, Sides
from nodulant.units.inline import as_length, as_thickness
from nodulant.units.show import MM_PER_INCH

Kind = Literal["saw", "pipe", "oblong", "half-moon", "notch"]
FORMED_MM, NOTCH_LINER_MM, NEAR_MM, CORNER_MM, WIDER_MM, SHOWN = 5.0, 6.0, 300.0, 13.0, 20.0, 4
BARE = Want(strips=False, parts=False, steps=False, readings=False, frame=False, interim=False, travel=False)


class Verdict(Frozen):
    """One check of the rail with the hole in it."""

    title: str
    value: float | None
    unit: str
    verdict: str


class CutChoice(Frozen):
    """One way to make room: its size, where it is, what is left of the rail, and the worst checks there."""

    kind: Kind
    words: str
    x_mm: float
    height_mm: float
    """Its middle above the rail's underside; of a notch its depth."""
    wide_mm: float
    high_mm: float
    left_mm: float
    """Web left above and below together."""
    area_mm2: float
    operation: Operation
    verdicts: tuple[Verdict, ...]
    reason: str = ""
    """Why it cannot be placed; empty where it can."""


class CutFromSweep(Frozen):
    """What is swept on the rail's side plane, with and without clearance (x, z), and the choices."""

    side: Side
    both: bool
    """The other rail needs the same: the choices are for both."""
    moving: tuple[str, ...]
    clearance_mm: float
    underside_mm: float
    top_mm: float
    """The rail's underside and top where it is passed, above the datum."""
    hull: list[list[float]]
    outline: list[list[float]]
    choices: tuple[CutChoice, ...]


@dataclass(frozen=True)
class _Room:
    """The rail where the rod passes it: underside and height, mm, and how far stock stations lie from planned ones."""

    inputs: Inputs
    on: Sides
    """Both where the other side's rod sweeps the mirror image."""
    side: Side
    moving: str
    under_mm: float
    high_mm: float
    to_stock_mm: float


def cut_from_sweep(inputs: Inputs, axle: str, moving: str, side: Side) -> CutFromSweep:
    """Hole or notch for what passes a rail; raises NotSolvable where nothing passes it."""
    movers = _passing(scene(inputs), axle, moving)
    seen = _seen(inputs, side)
    faces = [float(np.interp(_middle_x(movers[0]), seen.x, face)) for face in (seen.web, seen.tip)]
    clearance = find_limit("metal-clearance", inputs.design.limits)[0].value
    hull = swept_hull(movers, faces[0], faces[1])
    with_room = swept_hull(movers, faces[0], faces[1], clearance)
    if hull is None or with_room is None:
        raise NotSolvable(
            f"{moving} does not come between the faces of the {side} rail",
            field="moving",
            found=moving,
            acceptable="a rod or an axle that passes this rail",
        )
    x = float(hull.centroid.x)
    under, top, stock = (float(np.interp(x, seen.x, column)) for column in (seen.low, seen.high, seen.stock_x))
    both = _mirrored(inputs, axle, moving, side, hull)
    room = _Room(inputs, "both" if both else side, side, moving, under, top - under, stock - x)
    choices = [_notch(room, with_room)] if movers[0].kind == "axle" else _holes(room, with_room)
    return CutFromSweep(
        side=side,
        both=both,
        moving=tuple(m.name for m in movers),
        clearance_mm=clearance,
        underside_mm=under,
        top_mm=top,
        hull=_ring(hull),
        outline=_ring(with_room),
        choices=tuple(choices),
    )


def _mirrored(inputs: Inputs, axle: str, moving: str, side: Side, hull: Polygon) -> bool:
    """Whether the other rail needs the same: its own rod's outline lies where this one's does."""
    other: Side = "left" if side == "right" else "right"
    try:
        movers = _passing(scene(inputs), axle, moving.replace(f", {side}", f", {other}"))
    except NotSolvable:
        return False
    seen = _seen(inputs, other)
    faces = [float(np.interp(_middle_x(movers[0]), seen.x, face)) for face in (seen.web, seen.tip)]
    theirs = swept_hull(movers, faces[0], faces[1])
    return theirs is not None and bool(np.allclose(theirs.bounds, hull.bounds, atol=ALIKE_MM))


ALIKE_MM = 1.0


def _name(what: str, room: _Room) -> str:
    moving = room.moving.partition(",")[0] if room.on == "both" else room.moving
    return f"{what} for the {moving}"[:120]


def _ring(shape: Polygon) -> list[list[float]]:
    return [[round(u, 2), round(v, 2)] for u, v in shape.exterior.coords]


def _seen(inputs: Inputs, side: Side) -> RailSeen:
    state = planned_state(inputs.design.operations)
    return rail_seen(inputs.survey, side, route_on(inputs.survey, inputs.design.operations, side, state))


def _passing(here: Scene, axle: str, moving: str) -> tuple[Mover, ...]:
    """The body that is asked for and, with a toe link, the boot over it."""
    own = [m for m in here.movers if m.positions.axle == axle]
    first = [m for m in own if m.name == moving and isinstance(m.body, RoundBar)]
    if not first:
        names = ", ".join(m.name for m in own if isinstance(m.body, RoundBar))
        raise NotSolvable(
            f"no bar is called '{moving}'", field="moving", found=moving, acceptable=names or "nothing moves"
        )
    return (
        *first,
        *(m for m in own if m.kind == "boot" and m.side == first[0].side and first[0].name.startswith(TOE_LINK)),
    )


def _middle_x(mover: Mover) -> float:
    if not isinstance(mover.body, RoundBar):
        raise ValueError("only bars pass a rail")
    ends = [v[mover.positions.ride()][0] for v in (mover.body.a, mover.body.b)]
    return float(sum(ends)) / 2


def _holes(room: _Room, hull: Polygon) -> list[CutChoice]:
    """A hole by the next saw, one lined by the next pipe, and the oblong that takes the least, round what is swept with its room."""
    circle, out = least_circle(hull), []
    saw = next_saw_mm(2 * circle.radius)
    if saw is not None:
        words = f"hole saw {as_thickness(saw)} ({saw / MM_PER_INCH:g} in), no liner"
        out.append(_choice(room, "saw", words, circle.x, circle.z, saw, 0.0, None))
    pipe = pipe_that_clears(circle.radius)
    if pipe is not None:
        words = f"{pipe.name} pipe, {as_length(pipe.outside_mm)} x {as_thickness(pipe.wall_mm)}, welded in"
        out.append(_choice(room, "pipe", words, circle.x, circle.z, pipe.outside_mm, 0.0, pipe.wall_mm))
        out.append(_half_moon(room, pipe, circle.x, circle.z))
    oblong = least_oblong(hull, tuple(size / 2 - FORMED_MM for size in HOLE_SAWS_MM))
    if oblong is not None:
        wide = 2 * (oblong.radius + FORMED_MM)
        words = f"two holes of {as_length(wide)} joined, {as_length(wide + oblong.tall)} high, lined with {as_length(FORMED_MM)}"
        out.append(_choice(room, "oblong", words, oblong.x, oblong.z, wide, oblong.tall, FORMED_MM))
    return out


def _choice(
    room: _Room, kind: Kind, words: str, x: float, z: float, wide: float, tall: float, liner: float | None
) -> CutChoice:
    """A hole about (x, z) on the planned frame, as an operation on the surveyed rail."""
    height = z - room.under_mm
    change = {
        "place": _place(room, x),
        "height_mm": round(max(height, 0.1), 2),
        "diameter_mm": round(wide, 2),
        "tall_mm": round(tall, 2),
        "liner_mm": None if liner is None else round(liner, 2),
    }
    there = _hole_there(room, x)
    if there is not None:
        hole = there.model_copy(update=change)
    else:
        hole = WebHole(id=_id(room), name=_name("Hole", room), side=room.on, work="pass", **change)
    area = math.pi * wide**2 / 4 + wide * tall
    return _judged(room, kind, words, hole, x, height, wide, wide + tall, room.high_mm - wide - tall, area)


def _half_moon(room: _Room, pipe: Pipe, x: float, z: float) -> CutChoice:
    """The same room opened from below: half of the pipe over straight sides, so that the rod can be dropped in."""
    radius = pipe.outside_mm / 2
    depth = z - room.under_mm + radius
    cut = Notch(
        id=_id(room),
        name=_name("Half-moon", room),
        side=room.on,
        place=_place(room, x),
        depth_mm=round(max(depth, 0.1), 2),
        shape=ArcShape(radius_mm=round(radius, 2)),
        liner=Liner(thickness_mm=round(pipe.wall_mm, 2)),
    )
    words = f"half-moon from below, {as_length(depth)} deep, lined with half of {pipe.name} pipe, {as_length(pipe.outside_mm)} x {as_thickness(pipe.wall_mm)}"
    area = math.pi * radius**2 / 2 + 2 * radius * max(depth - radius, 0.0)
    return _judged(room, "half-moon", words, cut, x, depth, 2 * radius, depth, room.high_mm - depth, area)


def _notch(room: _Room, hull: Polygon) -> CutChoice:
    """A notch from below that the axle and its clearance fit into, its liner inside it."""
    x0, _, x1, z1 = hull.bounds
    x, depth = (x0 + x1) / 2, z1 - room.under_mm + NOTCH_LINER_MM
    top = x1 - x0 + 2 * NOTCH_LINER_MM
    shape = TrapezoidShape(
        top_width_mm=round(top, 1), mouth_width_mm=round(top + WIDER_MM, 1), corner_radius_mm=CORNER_MM
    )
    change = {"shape": shape, "depth_mm": round(max(depth, 0.1), 2), "place": _place(room, x)}
    there = _notch_there(room, x)
    if there is not None:
        # the notch that is there already becomes the one that is needed; its plates stay
        notch = there.model_copy(update=change)
    else:
        liner = Liner(thickness_mm=NOTCH_LINER_MM)
        notch = Notch(id=_id(room), name=_name("Notch", room), side=room.on, liner=liner, **change)
    words = f"notch {as_length(depth)} deep and {as_length(top)} wide, lined with {as_thickness(NOTCH_LINER_MM)}"
    return _judged(room, "notch", words, notch, x, depth, top, depth, room.high_mm - depth, top * depth)


def _notch_there(room: _Room, x: float) -> Notch | None:
    """A notch of this rail whose middle lies beside the one that is asked for."""
    features = {f.id: f.x_mm for f in room.inputs.survey.features}
    for op in room.inputs.design.operations:
        if isinstance(op, Notch) and op.side in (room.side, "both") and not op.from_above:
            at = features.get(op.place.anchor_id, math.inf) + op.place.offset_mm
            if abs(at - x - room.to_stock_mm) < BESIDE_MM:
                return op
    return None


def _hole_there(room: _Room, x: float) -> WebHole | None:
    """A hole that a rod already passes, beside the one that is asked for: it becomes that one."""
    features = {f.id: f.x_mm for f in room.inputs.survey.features}
    for op in room.inputs.design.operations:
        if isinstance(op, WebHole) and op.work == "pass" and op.side in (room.side, "both"):
            at = features.get(op.place.anchor_id, math.inf) + op.place.offset_mm
            if abs(at - x - room.to_stock_mm) < BESIDE_MM:
                return op
    return None


BESIDE_MM = 150.0


def _id(room: _Room) -> str:
    taken = {op.id for op in room.inputs.design.operations}
    stem = "-".join(part for part in "".join(c if c.isalnum() else " " for c in room.moving.lower()).split())[:30]
    names = (stem + ("" if n == 1 else f"-{n}") for n in range(1, 42))
    return next(name for name in names if name not in taken)


def _place(room: _Room, x: float) -> Place:
    """From the nearest named feature of this side, on the surveyed rail."""
    stock = x + room.to_stock_mm
    own = [f for f in room.inputs.survey.features if f.side in (room.on, "both")]
    near = min(own or list(room.inputs.survey.features), key=lambda f: abs(f.x_mm - stock))
    return Place(anchor_id=near.id, offset_mm=round(stock - near.x_mm, 2))


def _judged(
    room: _Room,
    kind: Kind,
    words: str,
    op: Operation,
    x: float,
    height: float,
    wide: float,
    high: float,
    left: float,
    area: float,
) -> CutChoice:
    """The choice with the rail's checks as they would be with it in place."""
    head = {"kind": kind, "words": words, "x_mm": x, "height_mm": height, "wide_mm": wide, "high_mm": high}
    head |= {"left_mm": left, "area_mm2": area, "operation": op}
    others = tuple(o for o in room.inputs.design.operations if o.id != op.id)
    design = room.inputs.design.model_copy(update={"operations": (*others, op)})
    try:
        result = evaluate(room.inputs.model_copy(update={"design": design}), BARE)
    except InvalidInputs as error:
        return CutChoice(**head, verdicts=(), reason=error.message)
    except NodulantError as error:
        return CutChoice(**head, verdicts=(), reason=error.message)
    near = [c for c in result.checks if _speaks_of(c, op.id, room.side, x)]
    return CutChoice(**head, verdicts=tuple(_short(c) for c in near[:SHOWN]))


def _speaks_of(check: Check, op_id: str, side: Side, x: float) -> bool:
    """Whether a check is about the new cut, or about the rail beside it."""
    own = check.id.split("@")[0].rsplit(":", 1)[-1]
    if check.stage != "cut" or check.state != "planned" or own not in (side, "both"):
        return False
    at = check.governs.station_mm
    return op_id in check.id or (at is not None and abs(at - x) < NEAR_MM and check.limit_id in RAIL_RULES)


RAIL_RULES = {
    "area",
    "inertia",
    "modulus-top",
    "modulus-bottom",
    "shear-area",
    "torsion-constant",
    "torsion-capacity",
    "use-along",
}


def _short(check: Check) -> Verdict:
    return Verdict(title=check.title, value=check.value, unit=check.unit, verdict=check.verdict)
