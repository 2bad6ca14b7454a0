"""What an arm's two pivots put on the frame: the legs' tension, and of a spring on the arm what its ball joint does not take.

Statics of the arm as a rigid body: the push on its foot bears on the ball joint by its lever about the hinge;
the rest goes into both pivots with its moments, but for the torque of a bar, which its key takes. What runs along the hinge is shared so that the pivots'
forces are least (bushes of one stiffness; own).
"""

from typing import NamedTuple

import numpy as np

from nodulant.axles.springs import Foothold
from nodulant.axles.wishbone import Wishbone, wishbone_of
from nodulant.base.arrays import Columns, cross
from nodulant.suspension.feet import bears, stands_in
from nodulant.suspension.forces import Forces, LoadCase
from nodulant.suspension.motion import Motion
from nodulant.suspension.spring_motion import strung
from nodulant.suspension.study import Study

ARMS: tuple[tuple[Foothold, str, tuple[str, ...]], ...] = (
    ("upper-arm", "upper", ("upper wishbone",)),
    ("lower-arm", "lower", ("lower wishbone", "lower arm")),
)


class PivotForce(NamedTuple):
    """Force of one pivot on the frame in its worst case, N: rearward, to the right, up."""

    case: LoadCase
    force: tuple[float, float, float]


def pivot_forces(s: Study) -> dict[str, PivotForce]:
    """Every pivot of wishbones or a strut's arm by its field in the layout, right side, in its worst case; none without forces."""
    out: dict[str, PivotForce] = {}
    for case in s.forces:
        for key, force in forces_on_frame(s, case).items():
            if key not in out or np.linalg.norm(force) > np.linalg.norm(out[key].force):
                x, y, z = (float(v) for v in force)
                out[key] = PivotForce(case, (x, y, z))
    return out


def forces_on_frame(s: Study, case: LoadCase) -> dict[str, Columns]:
    """Force of every pivot on the frame in one case, N, (3,); none for a layout without arms."""
    out: dict[str, Columns] = {}
    if s.motion is None or case not in s.forces:
        return out
    for on, stem, names in ARMS:
        arm = _arm(s, on)
        if arm is None:
            continue
        front, rear = (k for n in names for end in ("front", "rear") if (k := _row(s, f"{n}, {end} leg")) is not None)
        both = _on_frame(s, s.motion, arm, case, s.forces[case], (front, rear))
        out |= {f"{stem}_{end}": force for end, force in zip(("front", "rear"), both, strict=True)}
    return out


def _arm(s: Study, on: Foothold) -> Wishbone | None:
    layout = s.suspension.layout
    if not hasattr(layout, f"{on.partition('-')[0]}_front") or s.setting is None:
        return None
    return wishbone_of(layout, on, s.setting.hub)


def _row(s: Study, name: str) -> int | None:
    names = s.motion.sweep.compiled.mechanism.names if s.motion else ()
    return names.index(name) if name in names else None


def _on_frame(
    s: Study, m: Motion, arm: Wishbone, case: LoadCase, forces: Forces, legs: tuple[int, int]
) -> tuple[Columns, Columns]:
    """Forces of front and rear pivot on the frame in one case."""
    row = int(np.flatnonzero(m.there)[-1]) if case == "bump" else s.ride
    hub = m.setting.hub
    rotation, origin = m.level.pose.rotation[row], m.level.pose.origin[row]
    ball = origin + rotation @ (np.array(arm.ball) - np.array(hub))
    pivots = (np.array(arm.front), np.array(arm.rear))
    pulls = [
        float(forces.tension[k]) * (ball - pivot) / np.linalg.norm(ball - pivot)
        for k, pivot in zip(legs, pivots, strict=True)
    ]
    right = strung(s.suspension.springs, m) if s.suspension.springs else None
    if right is None or right.foot.arm is None or right.foot.arm.name != arm.name or len(forces.springs) == 0:
        return pulls[0], pulls[1]
    newtons = float(forces.springs[0])
    foot = stands_in(right.foot, hub, m.level.pose)[row]
    push = right.on_arm(foot, newtons)
    taken = newtons * bears(right, m, row)[0]
    middle = (pivots[0] + pivots[1]) / 2
    rest = push - taken
    moment = cross((foot - middle)[None], push[None])[0] - cross((ball - middle)[None], taken[None])[0]
    shared = _shared(rest, moment, [p - middle for p in pivots])
    return pulls[0] + shared[0], pulls[1] + shared[1]


def _shared(force: Columns, moment: Columns, arms: list[Columns]) -> tuple[Columns, Columns]:
    """Two forces at two places that make a force and a moment about their middle; the least that do."""
    rows = [np.concatenate([np.eye(3), _skew(a)]) for a in arms]
    found = np.linalg.lstsq(np.concatenate(rows, axis=1), np.concatenate([force, moment]), rcond=None)[0]
    return found[:3], found[3:]


def _skew(a: Columns) -> Columns:
    """The matrix of a x."""
    return np.array([[0.0, -a[2], a[1]], [a[2], 0.0, -a[0]], [-a[1], a[0], 0.0]])
