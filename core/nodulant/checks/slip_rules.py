"""Bolted plates in service: whether friction alone holds them in a bump of 1.5 g.

A plate that slips works loose and frets; what it carries before it breaks, in bearing and shear, is
judged with the section. The plate's share of the rail's stress over the cut gives its axial force and
its moment, and the bolts of one end bring both in (elastic vector method; a bolt's own ring of friction,
0.65 d from its middle, common practice, is what one bolt alone has against turning).
"""

import math
from collections.abc import Sequence

import numpy as np

from nodulant.checks.check import Changes, Check, Governs, Subject, Why, judge, not_computed
from nodulant.frame.additions import Plate
from nodulant.frame.model import Placed
from nodulant.frame.ops.mounts.bolted import BoltGroup, Spot
from nodulant.frame.ops.notches.notch import Notch
from nodulant.strength.rail import RailComparison

SERVICE_G = 1.5
"""The bump that bolted plates are to stand without moving (Nodulant default)."""
RING, MOST = 0.65, 100.0
"""Radius of a bolt's ring of friction in its diameters; how many times the force is told at most."""


def slip_checks(rail: RailComparison, missing: tuple[str, ...], changes: Changes) -> list[Check]:
    """Every bolted bracket of one rail; 'not computed' where loads are not known, ``missing`` points at them."""
    out = []
    for placed in rail.placed:
        if not isinstance(placed.op, Notch) or placed.op.bolts is None:
            continue
        if rail.loading is None:
            out.append(not_computed("no-slip", _about(placed.op, rail), missing, changes))
        else:
            out += _judged(rail, placed, placed.op, placed.op.bolts, changes)
    return out


def _about(notch: Notch, rail: RailComparison) -> Subject:
    return Subject(subject=notch.id, side=rail.side, cause=f"bolts {notch.id}")


def _judged(rail: RailComparison, placed: Placed, notch: Notch, bolts: BoltGroup, changes: Changes) -> list[Check]:
    side = notch.outer_plate or notch.inner_plate
    own = [p for p in rail.built.whole.plates if p.operation == notch.id and p.role in {"outer", "inner"}]
    if side is None or not own:
        return []
    k = int(np.argmin(np.abs(rail.x - placed.centre_mm)))
    forces = [_of_plate(rail, plate, k) for plate in own]
    depth = float(own[0].high[k] - own[0].low[k])
    spots = bolts.on_end(depth, side.overlap_mm, side.end == "diamond")
    axial, moment = max(forces, key=lambda f: _most(spots, f[0], f[1], bolts))
    slip = bolts.bolt().slip_n()
    pushed = max(_most(spots, axial, moment, bolts), slip / MOST)
    return [
        judge(
            "no-slip",
            _about(notch, rail),
            slip / pushed,
            Why(
                formula="friction / force",
                values={"friction": slip, "force": pushed, "axial": axial, "moment": moment},
                words=f"bump of {SERVICE_G:g} g: axial force and moment of one plate over the cut, N and N mm, on the bolts of one end",
            ),
            changes,
            governs=Governs(station_mm=placed.centre_mm),
            remedy="More or bigger bolts at each end, or further apart; or weld the plates.",
        )
    ]


def _of_plate(rail: RailComparison, plate: Plate, k: int) -> tuple[float, float]:
    """Axial force, N, and moment about its own middle, N mm, of a plate at one station."""
    p = rail.built.properties
    moment = SERVICE_G * abs(float(rail.loading.state.moment[k])) if rail.loading else 0.0
    depth = float(plate.high[k] - plate.low[k])
    area = float(plate.share[k]) * plate.thickness_mm * depth
    per_mm = moment / max(float(p.i_y[k]), 1e-9)
    middle = (float(plate.high[k]) + float(plate.low[k])) / 2 - float(p.centroid_z[k])
    return abs(area * per_mm * middle), area * depth**2 / 12 * per_mm


def _most(spots: Sequence[Spot], axial_n: float, moment_nmm: float, bolts: BoltGroup) -> float:
    """Force on the bolt of one end that is pushed hardest, N."""
    n = len(spots)
    cx, cy = sum(x for x, _ in spots) / n, sum(y for _, y in spots) / n
    ring = RING * bolts.bolt().size.diameter_mm
    polar = sum((x - cx) ** 2 + (y - cy) ** 2 for x, y in spots) + n * ring**2
    away = [(max(abs(x - cx), 0.0), max(abs(y - cy), ring)) for x, y in spots]
    return max(math.hypot(axial_n / n + moment_nmm * y / polar, moment_nmm * x / polar) for x, y in away)
