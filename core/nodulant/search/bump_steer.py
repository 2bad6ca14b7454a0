"""What cures bump steer: one end of a rod moved up, down or across, until the steer over the used travel is least.

Each cure is searched by itself over its reach, on a grid that closes in on its best place, and
judged by the span of toe (single wheels) or of steer (a beam axle) from droop to bump with the
steering wheel held straight. Rods follow in length, so that toe at ride height stays.
"""

import math
from collections.abc import Callable
from typing import Annotated, Literal, NamedTuple

import numpy as np
from pydantic import Field
from scipy.optimize import brentq

from nodulant.axles.layouts.independent import TOE_LINK, Steered
from nodulant.axles.points import HardPoint, on_axle
from nodulant.axles.steering import DragLink, Sector
from nodulant.axles.suspension import Suspension
from nodulant.base.arrays import Columns, cross
from nodulant.base.errors import NotSolvable
from nodulant.base.model import Frozen
from nodulant.linkage.compiled import with_own_rods
from nodulant.linkage.rotation import rotated
from nodulant.linkage.solve import part, solve
from nodulant.steering.knuckles import on_beam
from nodulant.steering.measures import heading_deg
from nodulant.steering.study import bump_steer, bump_steer_per_inch, steer_study
from nodulant.steering.wheels import drag_link_of
from nodulant.survey.vehicle import Seat, Survey
from nodulant.suspension.motion import Motion, spin_at_rest
from nodulant.suspension.study import Study, study

Cure = Literal["rack-height", "rack-place", "outer-spacer", "arm-height", "axle-height", "box-height", "box-lean"]
SINGLE: tuple[Cure, ...] = ("rack-height", "rack-place", "outer-spacer")
BEAM: tuple[Cure, ...] = ("arm-height", "axle-height", "box-height", "box-lean")
GRID, ROUNDS, POSES = 13, 5, 15
"""Places along each direction in every round; rounds, each on two spacings of the last; travels looked at."""
LEAN_DEG_PER_MM = 0.25
STEP_MM = 0.1


class SteerWish(Frozen):
    """How far a point may move either way, mm."""

    reach_mm: Annotated[float, Field(ge=1, le=300)] = 60.0


class SteerChoice(Frozen):
    """One cure: how far its point moves up and outward, mm, or the box leans, degrees, and what it gives."""

    cure: Cure
    up_mm: float
    out_mm: float
    lean_deg: float
    slope_deg_per_inch: float
    span_deg: float
    at_the_end: bool
    """Its best place lies at the end of its reach: further would be better still."""
    suspension: Suspension


class FoundSteer(Frozen):
    """Cures, the best first; what it is now."""

    choices: tuple[SteerChoice, ...]
    parallel: tuple[SteerChoice, ...]
    """Of a drag link: each height that lays it square to the path of its joint on the axle, so that bump does not steer
    at ride height: parallel to a track bar, or to the springs' equivalent arms."""
    off_parallel_deg: float | None
    """How far the drag link lies off that now."""
    slope_deg_per_inch: float
    span_deg: float


class AskedSteer(NamedTuple):
    """What is searched on."""

    survey: Survey
    suspension: Suspension
    seats: tuple[Seat, ...]
    towards_rail_mm: float
    wish: SteerWish


class _Ground(NamedTuple):
    """A study that moves, and the rows of its travel that are looked at."""

    study: Study
    motion: Motion
    rows: np.ndarray[tuple[int], np.dtype[np.int64]]


def find_bump_steer(asked: AskedSteer) -> FoundSteer:
    """Try every cure that fits the layout; raises NotSolvable where the steering does not move as it stands."""
    ground = _ground(asked)
    now = _told(asked, asked.suspension)
    single = isinstance(asked.suspension.layout, Steered)
    choices = [_searched(asked, ground, cure) for cure in (SINGLE if single else BEAM)]
    ranked = sorted(
        (c for c in choices if c is not None), key=lambda c: (round(c.span_deg, 4), abs(c.up_mm) + abs(c.out_mm))
    )
    laid = [] if single else [_laid(asked, ground, cure) for cure in BEAM]
    return FoundSteer(
        choices=tuple(ranked),
        parallel=tuple(sorted((c for c in laid if c is not None), key=lambda c: c.span_deg)),
        off_parallel_deg=None if single else off_parallel_deg(asked.suspension, ground.motion, ground.study.ride),
        slope_deg_per_inch=now[0],
        span_deg=now[1],
    )


def _ground(asked: AskedSteer) -> _Ground:
    s = study(asked.survey, asked.suspension, asked.seats, asked.towards_rail_mm, 1.0)
    q = steer_study(s)
    if s.motion is None or q is None or q.trouble is not None:
        error = s.trouble or (q.trouble if q else None)
        raise NotSolvable(
            f"the steering does not move: {error.message if error else 'there is none'}",
            field="steering",
            found="no motion",
            acceptable="a steering that moves at ride height",
        )
    there = np.flatnonzero(s.motion.there)
    return _Ground(s, s.motion, np.unique(there[np.linspace(0, len(there) - 1, POSES).astype(int)]))


def _searched(asked: AskedSteer, ground: _Ground, cure: Cure) -> SteerChoice | None:
    """Close in on the least span of one cure; None where the rods cannot follow it."""
    reach, two = asked.wish.reach_mm, cure == "rack-place"
    span_of: Callable[[Columns], Columns] = (
        (lambda moves: _single_spans(asked.suspension, ground, cure, moves))
        if cure in SINGLE
        else (lambda moves: _beam_spans(asked.suspension, ground, cure, moves))
    )
    best, half = np.zeros(2), np.array([reach, reach if two else 0.0])
    for _ in range(ROUNDS):
        up = np.clip(np.linspace(best[0] - half[0], best[0] + half[0], GRID), -reach, reach)
        out = np.clip(np.linspace(best[1] - half[1], best[1] + half[1], GRID if two else 1), -reach, reach)
        moves = np.stack(np.meshgrid(up, out, indexing="ij"), axis=-1).reshape(-1, 2)
        spans = span_of(moves)
        best = moves[int(np.argmin(spans))]
        half = half * (2.0 / (GRID - 1))
    best = np.round(best / STEP_MM) * STEP_MM
    own = changed(asked.suspension, cure, float(best[0]), float(best[1]))
    slope, span = _told(asked, own)
    if not math.isfinite(span):
        return None
    return _choice(cure, (float(best[0]), float(best[1])), (slope, span), reach, own)


def off_parallel_deg(own: Suspension, m: Motion, ride: int) -> float:
    """Angle that a drag link lacks to lie square to its axle joint's path at ride height, degrees; 0 steers nothing there."""
    if own.steering is None:
        raise ValueError("only a steered axle has a drag link")
    gear, _ = drag_link_of(own.steering)
    end = np.array(on_axle(gear.knuckle, m.setting.hub))
    u = end - np.array(gear.box.arm_end.xyz())
    v = m.heave[ride, :3] + cross(m.heave[ride, 3:6], end - m.level.pose.origin[ride])
    return math.degrees(math.asin(float(u @ v / np.linalg.norm(u) / np.linalg.norm(v))))


def _laid(asked: AskedSteer, ground: _Ground, cure: Cure) -> SteerChoice | None:
    """The height, or lean, at which the drag link lies so; None where its reach does not hold one."""
    reach, s = asked.wish.reach_mm, ground.study

    def off(up: float) -> float:
        return off_parallel_deg(changed(asked.suspension, cure, up, 0.0), ground.motion, s.ride)

    low, high = off(-reach), off(reach)
    if low * high > 0:
        return None
    best = round(float(brentq(off, -reach, reach)) / STEP_MM) * STEP_MM
    own = changed(asked.suspension, cure, best, 0.0)
    slope, span = _told(asked, own)
    return _choice(cure, (best, 0.0), (slope, span), reach, own) if math.isfinite(span) else None


def _choice(
    cure: Cure, moved: tuple[float, float], told: tuple[float, float], reach: float, own: Suspension
) -> SteerChoice:
    up, out = moved
    return SteerChoice(
        cure=cure,
        up_mm=0.0 if cure == "box-lean" else up,
        out_mm=out,
        lean_deg=LEAN_DEG_PER_MM * up if cure == "box-lean" else 0.0,
        slope_deg_per_inch=told[0],
        span_deg=told[1],
        at_the_end=max(abs(up), abs(out)) > reach - STEP_MM / 2,
        suspension=own,
    )


def _told(asked: AskedSteer, own: Suspension) -> tuple[float, float]:
    """Slope per inch at ride height and span over the whole travel, as the study tells them."""
    s = study(asked.survey, own, asked.seats, asked.towards_rail_mm, 1.0)
    q = steer_study(s)
    values = None if q is None else bump_steer(q)
    if q is None or values is None or s.motion is None or (slope := bump_steer_per_inch(q)) is None:
        return math.inf, math.inf
    good = values[s.motion.there & np.isfinite(values)]
    return slope, float(good.max() - good.min())


def changed(own: Suspension, cure: Cure, up: float, out: float) -> Suspension:
    """``own`` with one cure carried out: ``up`` and ``out`` in mm (a box's lean in quarters of a degree)."""
    if isinstance(own.layout, Steered):
        toe = own.layout.toe
        if cure == "outer-spacer":
            toe = toe.model_copy(update={"axle": _raised(toe.axle, up, 0.0)})
        else:
            toe = toe.model_copy(update={"frame": _raised(toe.frame, up, out)})
        return own.model_copy(update={"layout": own.layout.model_copy(update={"toe": toe})})
    steering = own.steering
    if steering is None or not isinstance(steering.gear, DragLink):
        raise ValueError("only a drag link steers a beam axle")
    gear, box = steering.gear, steering.gear.box
    if cure == "axle-height":
        gear = gear.model_copy(update={"knuckle": _raised(gear.knuckle, up, 0.0)})
    else:
        gear = gear.model_copy(update={"box": _moved_box(box, cure, up)})
    return own.model_copy(update={"steering": steering.model_copy(update={"gear": gear})})


def _raised(p: HardPoint, up: float, out: float) -> HardPoint:
    return p.model_copy(update={"z_mm": p.z_mm + up, "y_mm": p.y_mm + out})


def _moved_box(box: Sector, cure: Cure, up: float) -> Sector:
    if cure == "arm-height":
        return box.model_copy(update={"arm_end": _raised(box.arm_end, up, 0.0)})
    if cure == "box-height":
        return box.model_copy(update={"shaft": _raised(box.shaft, up, 0.0), "arm_end": _raised(box.arm_end, up, 0.0)})
    lean = math.radians(LEAN_DEG_PER_MM * up)
    x, z = box.arm_end.x_mm - box.shaft.x_mm, box.arm_end.z_mm - box.shaft.z_mm
    end = box.arm_end.model_copy(
        update={
            "x_mm": box.shaft.x_mm + x * math.cos(lean) + z * math.sin(lean),
            "z_mm": box.shaft.z_mm - x * math.sin(lean) + z * math.cos(lean),
        }
    )
    return box.model_copy(update={"arm_end": end, "lean_deg": box.lean_deg + LEAN_DEG_PER_MM * up})


def _single_spans(own: Suspension, ground: _Ground, cure: Cure, moves: Columns) -> Columns:
    """Span of toe of every move, degrees; infinite where the link cannot follow. All in one batch, every pose its own rods."""
    m, rows, count = ground.motion, ground.rows, len(ground.rows)
    c = m.sweep.compiled
    rod = next(i for i, r in enumerate(c.mechanism.rods) if r.name == TOE_LINK)
    a = np.tile(c.a.point, (len(moves) * count, 1, 1))
    b = np.tile(c.b.point, (len(moves) * count, 1, 1))
    each = np.repeat(moves, count, axis=0)
    (a if cure == "outer-spacer" else b)[:, rod, 2] += each[:, 0]
    b[:, rod, 1] += each[:, 1]
    start = part(m.level, np.tile(rows, len(moves))).pose
    targets = np.zeros((len(each), len(c.drives)))
    targets[:, 0] = np.tile(m.travel[rows], len(moves))
    found = solve(with_own_rods(c, a, b), targets, start)
    spin = rotated(found.pose.rotation, spin_at_rest(own.camber_deg, own.toe_deg)[None])[:, 0]
    steer = np.where(found.found, heading_deg(spin, 1.0), np.nan).reshape(len(moves), count)
    return _span(steer)


def _beam_spans(own: Suspension, ground: _Ground, cure: Cure, moves: Columns) -> Columns:
    """Span of the mean steer of every move, degrees."""
    m = ground.motion
    pose, out = m.level.pose.rows(ground.rows), []
    for up, across in moves:
        trial = changed(own, cure, float(up), float(across))
        if trial.steering is None:
            raise ValueError("a changed axle keeps its steering")
        found = on_beam(trial, *drag_link_of(trial.steering), m.setting, pose, np.zeros(1))
        mean = (heading_deg(found.right.spin, 1.0) + heading_deg(found.left.spin, -1.0))[:, 0] / 2
        out.append(np.where(found.reaches[:, 0], mean, np.nan))
    return _span(np.array(out))


def _span(steer: Columns) -> Columns:
    good = np.asarray(np.isfinite(steer).all(axis=1))
    kept = np.where(good[:, None], steer, 0.0)
    return np.where(good, kept.max(axis=1) - kept.min(axis=1), np.inf)
