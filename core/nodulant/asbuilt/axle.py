"""An axle or a wheel where its measured joints and links put it: the linkage solved at ride height as it was built.

Each rod that reaches from the frame to the axle has its frame end and its length as measured; what was
not measured stays as planned. Left and right are told apart.
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace

import numpy as np

from nodulant.axles.layouts.independent import Steered, Strut, TrailingArm
from nodulant.axles.layouts.layout import Layout
from nodulant.axles.points import FramePoint
from nodulant.axles.suspension import Suspension
from nodulant.base.arrays import Columns
from nodulant.base.errors import NotSolvable
from nodulant.linkage.compiled import Compiled, Pose, compile_mechanism, reference
from nodulant.linkage.mechanism import FRAME, NOWHERE, End, Mechanism, Point, Rod
from nodulant.linkage.rotation import angles
from nodulant.linkage.solve import solve
from nodulant.parts.sides import LEFT_RIGHT, Side
from nodulant.suspension.motion import Setting, drives_of, spin_at_rest

ON_MIDDLE_MM = 1.0
"""A joint nearer to the centre plane is on neither side."""


@dataclass(frozen=True)
class Joint:
    """Where a rod meets the frame: the rod's name, the side, its place as planned and its rod's length, mm."""

    key: str
    """By which its readings are kept; of a pair both sides have the same."""
    name: str
    side: Side
    rod: int | None
    """Its rod in the mechanism of its side; None of a pivot or a mount that is no rod's end."""
    at: Point
    length_mm: float = 0.0


Measured = Mapping[tuple[str, Side, str], float]
"""How far off the plan each reading is, mm: by joint, side and 'along', 'up', 'across' (outward) or 'length';
of the same link's joint on the axle 'axle-along' and 'axle-up'."""


def joints_of(layout: Layout, setting: Setting) -> tuple[Joint, ...]:
    """Every joint on the frame, right ones first; a single one counts with the right."""
    out, rods = _mounts_of(layout), layout.mechanism(setting.hub).rods
    for k, rod in enumerate(rods):
        if rod.b.body != FRAME or rod.a.body == FRAME:
            continue
        name = rod.name.removesuffix(", right").removesuffix(", left")
        y = rod.b.point[1]
        side: Side = "left" if rod.name.endswith(", left") else "right"
        key = name.replace(",", "").replace("'", "").replace(" ", "-").lower()
        own = Joint(key, name, side, k, rod.b.point, math.dist(rod.a.point, rod.b.point))
        out.append(own)
        if layout.independent and abs(y) > ON_MIDDLE_MM:
            x, _, z = rod.b.point
            out.append(replace(own, side="left", at=(x, -y, z)))
    return tuple(out)


def _mounts_of(layout: Layout) -> list[Joint]:
    """Pivots and mounts on the frame that are no rod's end, both sides."""
    points: dict[str, FramePoint] = {}
    if isinstance(layout, TrailingArm):
        points = {"inner pivot": layout.inner, "outer pivot": layout.outer}
    elif isinstance(layout, Strut):
        points = {STRUT_TOP: layout.top}
    return [
        Joint(name.replace(" ", "-"), name, side, None, (p.x_mm, p.y_mm if side == "right" else -p.y_mm, p.z_mm))
        for name, p in points.items()
        for side in LEFT_RIGHT[::-1]
    ]


STRUT_TOP = "strut top"


@dataclass(frozen=True)
class Sat:
    """A beam axle as built against its plan: mm and degrees."""

    rear_mm: float
    """Its middle behind where it is planned."""
    right_mm: float
    thrust_deg: float
    pinion_deg: float


@dataclass(frozen=True)
class Stood:
    """A single wheel as built against its plan."""

    rear_mm: float
    camber_deg: float
    toe_deg: float
    caster_deg: float | None
    """None where the wheel has no king pin."""


def beam_as_built(layout: Layout, setting: Setting, measured: Measured, lean_rad: float = 0.0) -> Sat:
    """Solve a beam axle with what was measured; raises NotSolvable where its links do not reach."""
    mechanism = layout.mechanism(setting.hub)
    rods = list(mechanism.rods)
    for joint in joints_of(layout, setting):
        if joint.rod is not None:
            rods[joint.rod] = _as_measured(rods[joint.rod], joint, joint.side, measured)
    pose = _solved(replace(mechanism, rods=tuple(rods)), layout, setting, (0.0, lean_rad))
    was = _solved(mechanism, layout, setting, (0.0, 0.0))
    dx, dy = (pose.origin - was.origin)[0, :2]
    psi, _, theta = (math.degrees(float(v[0])) for v in angles(pose.rotation))
    return Sat(float(dx), float(dy), -psi, theta)


def wheel_as_built(own: Suspension, setting: Setting, measured: Measured, side: Side) -> Stood:
    """Solve one wheel of an independent axle with what was measured on its side; raises NotSolvable."""
    layout = own.layout
    mechanism = layout.mechanism(setting.hub)
    rods, off = list(mechanism.rods), dict[str, Point]()
    for joint in joints_of(layout, setting):
        if joint.side == side and joint.rod is not None:
            rods[joint.rod] = _as_measured(rods[joint.rod], joint, "right", measured, told_as=side)
        elif joint.side == side:
            off[joint.name] = _moved(joint.key, side, measured)
    built = replace(
        mechanism,
        rods=tuple(rods),
        guides=tuple(replace(g, moved=off.get(g.name.partition(",")[0], NOWHERE)) for g in mechanism.guides),
        slides=tuple(replace(s, moved=off.get(STRUT_TOP, NOWHERE)) for s in mechanism.slides),
    )
    top = off.get(STRUT_TOP, NOWHERE)
    now = _looked_at(own, setting, _solved(built, layout, setting, (0.0,)), top)
    was = _looked_at(own, setting, _solved(mechanism, layout, setting, (0.0,)))
    caster = None if now[3] is None or was[3] is None else now[3] - was[3]
    return Stood(now[0] - was[0], now[1] - was[1], now[2] - was[2], caster)


def _as_measured(rod: Rod, joint: Joint, drawn: Side, measured: Measured, told_as: Side | None = None) -> Rod:
    side = told_as or drawn
    along, out, up = _moved(joint.key, side, measured)
    longer, behind, above = (measured.get((joint.key, side, m), 0.0) for m in ("length", "axle-along", "axle-up"))
    (x, y, z), foot = rod.b.point, rod.a.point
    return replace(
        rod,
        a=End(rod.a.body, (foot[0] + behind, foot[1], foot[2] + above)),
        b=End(FRAME, (x + along, y + (-out if y < 0 else out), z + up)),
        length_mm=math.dist(rod.a.point, rod.b.point) + longer,
    )


def _moved(key: str, side: Side, measured: Measured) -> Point:
    """Rearward, outward and up."""
    along, across, up = (measured.get((key, side, way), 0.0) for way in ("along", "across", "up"))
    return (along, across, up)


def _solved(mechanism: Mechanism, layout: Layout, setting: Setting, targets: tuple[float, ...]) -> Pose:
    c: Compiled = compile_mechanism(mechanism, drives_of(layout, setting))
    found = solve(c, np.array([targets]), reference(c))
    if not found.found[0]:
        raise NotSolvable(
            "the links as measured do not reach",
            field="/readings",
            found="no place of the axle fits them all",
            acceptable="readings of joints and links that were taken at ride height",
        )
    return found.pose


def _looked_at(
    own: Suspension, setting: Setting, pose: Pose, moved: Point = NOWHERE
) -> tuple[float, float, float, float | None]:
    """Station of the wheel's centre, camber, toe and caster; signs as the steering has them; ``moved`` is a strut's top."""
    turn, origin = pose.rotation[0], np.array(setting.hub)
    spin = turn @ spin_at_rest(own.camber_deg, own.toe_deg)
    x = float(_carried(pose, origin, (setting.hub[0], setting.half_track_mm, setting.hub[2]))[0])
    camber, toe = -math.degrees(math.asin(spin[2])), math.degrees(math.atan2(-spin[0], spin[1]))
    if not isinstance(own.layout, Steered):
        return x, camber, toe, None
    low, high = (
        np.array(e.point) + moved if e.body == FRAME else _carried(pose, origin, e.point)
        for e in own.layout.king_pin(setting.hub)
    )
    pin = high - low
    return x, camber, toe, math.degrees(math.atan2(pin[0], pin[2]))


def _carried(pose: Pose, origin: Columns, point: Point) -> Columns:
    return np.asarray(pose.origin[0] + pose.rotation[0] @ (np.array(point) - origin))
