"""What hangs on an axle besides its links and springs: brackets and truss, dampers, shafts, the pitman arm.

A bracket of plates is stood for by the round bars that fill the block round all its plates; rounding
its corners makes it too small there by less than a third of its least size.
"""

import math
from collections.abc import Callable, Sequence
from typing import Literal

import numpy as np

from nodulant.axles.layouts.live import LeafSprings
from nodulant.axles.points import on_axle
from nodulant.axles.springs import AntiRollBar, BarRun, Damper, HalfShaft, LeafPack, TorsionBar
from nodulant.axles.steering import DragLink
from nodulant.base.arrays import Columns, Mask
from nodulant.clearance.moving import Mover, Positions, RoundBar
from nodulant.driveline.driveline import Driveline
from nodulant.linkage.mechanism import Point
from nodulant.parts.solid import Solid
from nodulant.steering.gear import shaft_axis
from nodulant.steering.rods import SteerRod
from nodulant.suspension.anti_roll import bar_arm

Stands = Callable[[Point], Columns]
"""Where a point of the axle at ride height is in every position, (positions.., 3)."""
Work = tuple[str, Solid]
"""An operation's name and the block round all that it puts on the axle's right side."""
MOST_BARS = 3
SHORT_MM = 60.0
"""A shaft's ends this near to its joints are the joints'."""
DROP_LINK_MM = 8.0
"""Radius of an anti-roll bar's drop link (common practice)."""
HALF_SHAFT_MM, PITMAN_MM, NUT_MM, NUT_LONG_MM = 14.0, 20.0, 18.0, 30.0
"""Radii of a half shaft, a pitman arm and its nut, and how far stud and nut stand off the arm's middle (common practice)."""


def block_of(solids: Sequence[Solid]) -> Solid | None:
    """The one block round what an operation puts on the axle; None where it puts nothing there."""
    own = [s for s in solids if s.on == "axle"]
    if not own:
        return None

    def reach(axis: Literal["x", "y", "z"]) -> list[float]:
        rows = [getattr(s, axis) for s in own]
        return [min(r[0] for r in rows), max(r[1] for r in rows)]

    return Solid(name=own[0].name, on="axle", x=reach("x"), y=reach("y"), z=reach("z"))


def bars_of(solid: Solid) -> list[tuple[Point, Point, float]]:
    """Round bars that fill a block: along its longest side, one beside the other along the next, half its least side thick."""
    sides = np.array([solid.x, solid.y, solid.z], dtype=float)
    size = sides[:, 1] - sides[:, 0]
    least, middle, longest = np.argsort(size, kind="stable")
    r = max(float(size[least]) / 2, 0.5)
    count = min(MOST_BARS, max(1, math.ceil(float(size[middle]) / max(float(size[least]), 1.0) - 1e-6)))
    spots = np.linspace(sides[middle, 0] + r, sides[middle, 1] - r, count) if count > 1 else [sides[middle].mean()]
    out = []
    for spot in spots:
        a, b = sides.mean(axis=1), sides.mean(axis=1)
        a[middle] = b[middle] = spot
        a[longest], b[longest] = sides[longest, 0] + r, max(sides[longest, 1] - r, sides[longest, 0] + r)
        out.append((_point(a), _point(b), r))
    return out


def _point(values: Columns) -> Point:
    x, y, z = (float(v) for v in values)
    return (x, y, z)


def work_movers(work: Sequence[Work], hub: Point, stands: Stands, there: Mask, positions: Positions) -> list[Mover]:
    """Brackets, pads and truss of a beam axle: what crosses its middle once, all else on both sides."""
    out = []
    for name, solid in work:
        across = solid.y[0] < 0 < solid.y[1]
        for side, sign in (("both", 1.0),) if across else (("right", 1.0), ("left", -1.0)):
            for k, (a, b, r) in enumerate(bars_of(solid)):
                ends = [stands((hub[0] + p[0], sign * p[1], hub[2] + p[2])) for p in (a, b)]
                own = name if k == 0 else f"{name} ({k + 1})"
                called = own if across else f"{own}, {side}"
                out.append(Mover(called, "bracket", RoundBar(ends[0], ends[1], r), there, positions, side))
    return out


def _cut(a: Columns, b: Columns, radius: float, at_a_mm: float, at_b_mm: float) -> RoundBar:
    """A bar without its ends at its joints."""
    long = np.maximum(np.linalg.norm(b - a, axis=-1, keepdims=True), 1.0)
    near, far = np.minimum(at_a_mm / long, 0.4), np.minimum(at_b_mm / long, 0.4)
    return RoundBar(a + (b - a) * near, b - (b - a) * far, radius)


def damper_mover(
    damper: Damper, lower: Columns, flip: Columns, side: str, there: Mask, positions: Positions, dx: float = 0.0
) -> Mover:
    """A damper beside its spring; ``lower`` is its foot in every position."""
    shift = np.array([dx, 0.0, 0.0])
    upper = np.array(damper.upper.xyz()) * flip + shift
    body = _cut(lower + shift, np.broadcast_to(upper, lower.shape), damper.body_mm / 2, 0.0, damper.body_mm + 20.0)
    return Mover(f"damper, {side}", "spring", body, there, positions, side, hangs_at=_point(upper))


def leaf_movers(
    pack: LeafPack, layout: LeafSprings, hub: Point, stands: Stands, there: Mask, positions: Positions
) -> list[Mover]:
    """A leaf spring from its clamped middle to its eyes, each half of constant curvature and thinner outside.

    As the equivalent link has it: a half is level where it is clamped, so it rises to its eye with the square of
    the way (constant curvature, small slopes). The pack's width is taken as its thickness.
    """
    above = (pack.axle_was == "under") != pack.flipped
    seat = on_axle(layout.seat, hub)
    middle = (seat[0], seat[1], seat[2] + (pack.pack_mm / 2 if above else -pack.pack_mm / 2))
    out = []
    for side, sign in (("right", 1.0), ("left", -1.0)):
        clamped = stands((middle[0], sign * middle[1], middle[2]))
        eyes = [layout.eye] if layout.rear_eye is None else [layout.eye, layout.rear_eye]
        for k, eye in enumerate(eyes):
            end = np.broadcast_to(np.array([eye.x_mm, sign * eye.y_mm, eye.z_mm]), clamped.shape)
            marks = [_on_half(clamped, end, share) for share in LEAF_SHARES]
            for n, (a, b, thick) in enumerate(zip(marks, marks[1:], LEAF_THICK, strict=False)):
                own = "leaf spring" if k == n == 0 else f"leaf spring ({2 * k + n + 1})"
                body = RoundBar(a, b, pack.pack_mm / 2 * thick)
                hangs = (eye.x_mm, sign * eye.y_mm, eye.z_mm)
                out.append(Mover(f"{own}, {side}", "spring", body, there, positions, side, hangs_at=hangs))
    return out


def _on_half(clamped: Columns, eye: Columns, share: float) -> Columns:
    """A place on a half: straight along and across, up with the square."""
    way = eye - clamped
    return np.asarray(clamped + way * np.array([share, share, share * share]))


LEAF_SHARES = (0.0, 0.45, 0.85)
"""Where a half's two bars end; the eye and what it hangs on are the hanger's or the shackle's."""
LEAF_THICK = (1.0, 0.5)
"""Of the pack's thickness: the shorter leaves end about half way (common practice)."""


def torsion_mover(
    bar: TorsionBar, ends: tuple[Point, Point], flip: Columns, side: str, there: Mask, positions: Positions
) -> Mover:
    """A torsion bar from its arm's pivot to its key: it only turns."""
    a, b = (np.broadcast_to(np.array(end) * flip, (*positions.shape, 3)) for end in ends)
    body = RoundBar(a, b, bar.diameter_mm / 2)
    return Mover(f"torsion bar, {side}", "torsion-bar", body, there, positions, side)


def half_shaft_mover(
    shaft: HalfShaft, outer: Columns, flip: Columns, side: str, there: Mask, positions: Positions
) -> Mover:
    """From the differential on the frame to a single wheel."""
    inner = np.array(shaft.inner.xyz()) * flip
    body = _cut(np.broadcast_to(inner, outer.shape), outer, HALF_SHAFT_MM, SHORT_MM, SHORT_MM)
    return Mover(f"half shaft, {side}", "rod", body, there, positions, side, hangs_at=_point(inner))


def shaft_movers(line: Driveline, hub: Point, stands: Stands, there: Mask, positions: Positions) -> list[Mover]:
    """The propeller shaft: the piece that follows the axle, and one that only turns ahead of a bearing."""
    pinion, grid = stands(on_axle(line.pinion, hub)), (*positions.shape, 3)
    gearbox = np.broadcast_to(np.array(line.gearbox.xyz()), grid)
    front, out = gearbox, []
    if line.bearing is not None:
        front = np.broadcast_to(np.array(line.bearing.xyz()), grid)
        body = _cut(gearbox, front, line.tube_mm / 2, SHORT_MM, SHORT_MM)
        out.append(Mover("propeller shaft's front piece", "rod", body, there, positions, hangs_at=line.gearbox.xyz()))
    body = _cut(front, pinion, line.tube_mm / 2, SHORT_MM, SHORT_MM)
    return [*out, Mover("propeller shaft", "rod", body, there, positions, hangs_at=_point(front[0, 0, 0]))]


def anti_roll_mover(run: BarRun, diameter_mm: float, there: Mask, positions: Positions) -> Mover:
    """An anti-roll bar's straight part: it only turns."""
    x, y, z = run.bend.xyz()
    a, b = (np.broadcast_to(np.array([x, sign * y, z]), (*positions.shape, 3)) for sign in (-1.0, 1.0))
    return Mover("anti-roll bar", "torsion-bar", RoundBar(a, b, diameter_mm / 2), there, positions)


def anti_roll_arm_movers(
    bar: AntiRollBar,
    run: BarRun,
    rest: Point,
    joint: Columns,
    flip: Columns,
    side: str,
    there: Mask,
    positions: Positions,
) -> list[Mover]:
    """An arm and its drop link on one side; ``joint`` is the link's joint on the axle in every position."""
    found = bar_arm(bar, run, rest, joint * flip)
    eye, there = found.eye * flip, there & found.reaches
    root = np.broadcast_to(np.array(run.bend.xyz()) * flip, eye.shape)
    hangs = _point(root[0, 0, 0])
    link = _cut(eye, joint, DROP_LINK_MM, 0.0, SHORT_MM)
    return [
        Mover(
            f"anti-roll bar's arm, {side}",
            "arm",
            RoundBar(root, eye, bar.diameter_mm / 2),
            there,
            positions,
            side,
            hangs_at=hangs,
        ),
        Mover(
            f"anti-roll bar's link, {side}", "rod", link, there, positions, side, hangs_at=_point(eye[positions.ride()])
        ),
    ]


def pitman_movers(gear: DragLink, rods: Sequence[SteerRod], there: Mask, positions: Positions) -> list[Mover]:
    """The pitman arm from the box's shaft to the drag link, and the stud and nut that stand off its end."""
    link = next((rod for rod in rods if rod.name == "drag link"), None)
    if link is None:
        return []
    end = link.inner.reshape(*positions.shape, 3)
    shaft = np.broadcast_to(np.array(gear.box.shaft.xyz()), end.shape)
    # the arm turns in its end's plane: what of the shaft's direction lies between both is the shaft
    axis = np.array(shaft_axis(gear.box))
    root = shaft + ((end - shaft) @ axis)[..., None] * axis
    stud = NUT_LONG_MM * axis
    hangs = gear.box.shaft.xyz()
    return [
        Mover("pitman arm", "arm", RoundBar(root, end, PITMAN_MM), there, positions, hangs_at=hangs),
        Mover("pitman arm's nut", "arm", RoundBar(end - stud, end + stud, NUT_MM), there, positions, hangs_at=hangs),
    ]
