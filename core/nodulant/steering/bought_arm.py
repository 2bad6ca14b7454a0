"""A bought arm laid over the pick-ups of another frame: which single change puts the ball joint back where it was.

An arm is told by three lengths: between the middles of its pivots, from the front one along the
hinge to the foot of the ball joint, and from the hinge out to the ball joint. Where both pivots are
re-welded on the arm, or both mounts slid along the old hinge, the hinge stays and every curve with
it; a mount moved alone turns the hinge, and the curves are computed again.
"""

from dataclasses import dataclass
from typing import Annotated, Literal, NamedTuple

import numpy as np
from pydantic import Field

from nodulant.axles.layouts.independent import DoubleWishbone, Strut
from nodulant.axles.points import HardPoint
from nodulant.axles.springs import Foothold
from nodulant.axles.suspension import Suspension
from nodulant.axles.wishbone import Wishbone, wishbone_of
from nodulant.base.arrays import Columns
from nodulant.base.errors import InputError, NotSolvable
from nodulant.base.model import Coordinate, Frozen, Size
from nodulant.steering.ways_down import Keeps, compared
from nodulant.suspension.motion import Setting

Change = Literal["none", "front-mount", "rear-mount", "both-mounts", "pivot-tubes"]
NAMES: dict[Change, str] = {
    "none": "Bolts in as it is",
    "front-mount": "Move the front mount alone",
    "rear-mount": "Move the rear mount alone",
    "both-mounts": "Move both mounts",
    "pivot-tubes": "Re-weld the arm's pivot tubes",
}
ORDER: tuple[Change, ...] = ("none", "front-mount", "rear-mount", "both-mounts", "pivot-tubes")
FITS_MM = 0.5
"""A difference that bushes and bolts take up (Nodulant default)."""
Arm = Literal["upper-arm", "lower-arm"]


class BoughtArm(Frozen):
    """An arm's three lengths, mm."""

    pivots_apart_mm: Annotated[float, Field(gt=20, le=1500)]
    ball_behind_mm: Coordinate
    """From the front pivot's middle rearward along the hinge to the foot of the ball joint."""
    ball_out_mm: Size
    """From the hinge square out to the ball joint."""


class Shift(NamedTuple):
    """How far something moves along the hinge, rearward, and square out from it, mm."""

    rearward_mm: float
    outward_mm: float


@dataclass(frozen=True)
class Restored:
    """One change: what moves, how far the ball joint is off then, and what of the curves it keeps."""

    change: Change
    front: Shift
    rear: Shift
    ball_off_mm: float
    restores: bool
    keeps: Keeps | None
    suspension: Suspension | None
    """With the pivots where the change has them; None where nothing on the frame moves."""


def arm_lengths(own: Suspension, arm: Arm, setting: Setting) -> BoughtArm:
    """The three lengths of the arm that is there; raises InputError or NotSolvable where there is none."""
    there = _arm(own, arm, setting)
    front, rear, ball = _flat(there)
    return BoughtArm(
        pivots_apart_mm=float(rear[0] - front[0]), ball_behind_mm=float(ball[0]), ball_out_mm=float(ball[1])
    )


def laid_over(own: Suspension, arm: Arm, setting: Setting, bought: BoughtArm) -> tuple[Restored, ...]:
    """Every change, those that restore the ball joint first, the simplest first among them."""
    there, old = _arm(own, arm, setting), arm_lengths(own, arm, setting)
    rows = [_one(own, arm, setting, there, old, bought, change) for change in ORDER]
    return tuple(sorted((r for r in rows if r is not None), key=lambda r: (not r.restores, ORDER.index(r.change))))


def _arm(own: Suspension, arm: Arm, setting: Setting) -> Wishbone:
    on: Foothold = arm
    found = wishbone_of(own.layout, on, setting.hub)
    if found is None:
        raise NotSolvable("there is no such arm", field="arm", found=arm, acceptable="an arm of wishbones or a strut")
    return found


def _flat(arm: Wishbone) -> tuple[Columns, Columns, Columns]:
    """Pivots and ball joint in the arm's own plane: along the hinge and out from it, the front pivot at 0."""
    gap = np.array(arm.ball) - np.array(arm.front)
    u, e = arm.hinge, arm.outward(np.array(arm.ball))
    apart = float(np.linalg.norm(np.array(arm.rear) - np.array(arm.front)))
    return np.zeros(2), np.array([apart, 0.0]), np.array([float(gap @ u), float(gap @ e)])


def _one(
    own: Suspension, arm: Arm, setting: Setting, there: Wishbone, old: BoughtArm, new: BoughtArm, change: Change
) -> Restored | None:
    front, rear, ball = _flat(there)
    still = Shift(0.0, 0.0)
    behind, out = new.ball_behind_mm - old.ball_behind_mm, new.ball_out_mm - old.ball_out_mm
    wider = new.pivots_apart_mm - old.pivots_apart_mm
    if change == "none":
        off = float(np.hypot(behind - wider / 2, out))
        fits = abs(wider) <= FITS_MM and off <= FITS_MM
        return Restored(
            change, still, still, max(off, abs(wider)), fits, Keeps(True, True, True) if fits else None, None
        )
    if change == "pivot-tubes":
        tubes = Shift(behind, out), Shift(behind - wider, out)
        return Restored(change, *tubes, 0.0, True, Keeps(True, True, True), None)
    if change == "both-mounts":
        at = ball - np.array([new.ball_behind_mm, new.ball_out_mm])
        return _moved(own, arm, setting, there, change, (at, at + np.array([new.pivots_apart_mm, 0.0])))
    legs = _legs(new)
    fixed, mine = (rear, legs[0]) if change == "front-mount" else (front, legs[1])
    kept = legs[1] if change == "front-mount" else legs[0]
    off = abs(kept - float(np.linalg.norm(ball - fixed)))
    place = _corner(fixed, ball, new.pivots_apart_mm, mine, front if change == "front-mount" else rear)
    if off > FITS_MM or place is None:
        return Restored(change, still, still, off, False, None, None)
    pivots = (place, rear) if change == "front-mount" else (front, place)
    return _moved(own, arm, setting, there, change, pivots, off)


def _legs(arm: BoughtArm) -> tuple[float, float]:
    """From the front and from the rear pivot to the ball joint."""
    behind, out = arm.ball_behind_mm, arm.ball_out_mm
    return float(np.hypot(behind, out)), float(np.hypot(arm.pivots_apart_mm - behind, out))


def _corner(fixed: Columns, ball: Columns, apart: float, leg: float, near: Columns) -> Columns | None:
    """The third corner of a triangle: ``apart`` from ``fixed`` and ``leg`` from ``ball``, on the side of ``near``; None where it does not close."""
    base = ball - fixed
    far = float(np.linalg.norm(base))
    along = (apart**2 - leg**2 + far**2) / (2 * far)
    high = apart**2 - along**2
    if high < 0:
        return None
    unit = base / far
    square = np.array([-unit[1], unit[0]]) * high**0.5
    foot = fixed + unit * along
    side = 1.0 if float((near - foot) @ square) >= 0 else -1.0
    return np.asarray(foot + side * square)


def _moved(
    own: Suspension,
    arm: Arm,
    setting: Setting,
    there: Wishbone,
    change: Change,
    pivots: tuple[Columns, Columns],
    off: float = 0.0,
) -> Restored:
    front, rear, _ = _flat(there)
    shifts = [Shift(*(float(v) for v in new - old)) for new, old in zip(pivots, (front, rear), strict=True)]
    u, e = there.hinge, there.outward(np.array(there.ball))
    places = [np.array(there.front) + p[0] * u + p[1] * e for p in pivots]
    if not isinstance(own.layout, DoubleWishbone | Strut):
        raise InputError(
            "only wishbones and struts have arms", field="layout/kind", found=own.layout.kind, acceptable=""
        )
    stem = arm.partition("-")[0]
    update = {f"{stem}_{name}": _point(p) for name, p in zip(("front", "rear"), places, strict=True)}
    layout = own.layout.model_copy(update=update)
    kept = compared(own, own.layout, layout, setting)
    return Restored(change, shifts[0], shifts[1], off, True, kept, own.model_copy(update={"layout": layout}))


def _point(p: Columns) -> HardPoint:
    x, y, z = (round(float(v), 3) for v in p)
    return HardPoint(x_mm=x, y_mm=y, z_mm=z)
