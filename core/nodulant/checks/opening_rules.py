"""Holes that a design opens in the web: the tees beside them under the shear that passes."""

from collections.abc import Iterator

import numpy as np

from nodulant.checks.check import Changes, Check, Governs, Subject, Why, judge, not_computed
from nodulant.frame.additions import Hole
from nodulant.frame.layout import Layout, own_closing
from nodulant.loads.cases import Case
from nodulant.materials.steel import SAFETY_ON_YIELD
from nodulant.strength.at_station import AtStation, at_station
from nodulant.strength.opening import HIGH, LONG, Tee, tee_bending
from nodulant.strength.rail import RailComparison
from nodulant.strength.space import FrameComparison
from nodulant.units.inline import as_amount, as_thickness

LEAST = 0.25
"""Holes lower than this share of the rail's height leave tees too stocky to bend (Nodulant default)."""


def opening_checks(
    rail: RailComparison,
    frames: FrameComparison | None,
    symmetric: tuple[Case, ...],
    missing: tuple[str, ...],
    changes: Changes,
) -> list[Check]:
    """The worst hole of every operation of one rail; 'not computed' without the frame in space, which lacks ``missing``."""
    worst: dict[str, Check] = {}
    for hole in openings(rail):
        subject = Subject(subject=hole.operation, side=rail.side, cause=f"hole {hole.operation}")
        if rail.loading is None or frames is None:
            check = not_computed("hole-bending", subject, missing, changes)
        else:
            check = _judged(rail, hole, list(at_station(rail, frames, symmetric, hole.x)), subject, changes)
        old = worst.get(hole.operation)
        if old is None or (check.value or 0.0) > (old.value or 0.0):
            worst[hole.operation] = check
    return list(worst.values())


def openings(rail: RailComparison) -> Iterator[Hole]:
    """Holes of operations that leave no whole wall upright and are tall enough to matter."""
    layout = rail.built.whole
    for hole in layout.holes:
        k = int(np.argmin(np.abs(rail.x - hole.x)))
        tall = hole.diameter + hole.tall
        walls = float(own_closing(layout.rail)[k]) > 0 or float(layout.closing_plane[1][k]) > 0
        if (
            hole.operation
            and not layout.rail.round
            and tall >= LEAST * float(layout.rail.height[k])
            and (hole.through or not walls)
        ):
            yield hole


def tees_at(layout: Layout, hole: Hole, k: int) -> tuple[Tee, ...]:
    """What is left over and under a hole at station ``k``; where a cut took the flange there is none."""
    rail = layout.rail
    half = HIGH * hole.diameter / 2 + hole.tall / 2
    low, high = float(layout.cut[k]), float(layout.crown[k])
    web = float(rail.wall[k] + own_closing(rail)[k])
    web += sum(p.thickness_mm * float(p.share[k]) for p in layout.plates if p.lie.upright and not p.lie.box)
    wide, thick = float(rail.width[k]), float(rail.wall[k])
    deep = (high - hole.height - half, hole.height - half - low)
    return tuple(Tee(d, web, wide, thick) for d in deep if d > thick)


def _judged(rail: RailComparison, hole: Hole, cases: list[AtStation], subject: Subject, changes: Changes) -> Check:
    k = int(np.argmin(np.abs(rail.x - hole.x)))
    layout = rail.built.whole
    tees = tees_at(layout, hole, k)
    fy = float(layout.rail.yields[1])

    def local(at: AtStation) -> float:
        return SAFETY_ON_YIELD * tee_bending(tees, at.shear, LONG * hole.diameter) / fy if tees else 10.0

    def allowed(at: AtStation) -> float:
        return SAFETY_ON_YIELD if at.case.accident else 1.0

    def whole(at: AtStation) -> float:
        # a section that is worked beyond its limit already has its own row
        return (local(at) + (at.use if at.use <= allowed(at) else 0.0)) / allowed(at)

    at = max(cases, key=whole)
    along = at.use if at.use <= allowed(at) else 0.0
    return judge(
        "hole-bending",
        subject,
        whole(at),
        Why(
            formula="(along + tee) / allowed",
            values={"along": along, "tee": local(at), "allowed": allowed(at)},
            words=f"{at.case.name}: what is used of yield/1.5 by the section there, and by the web and flange left"
            f" over and under the hole as {as_amount('force', at.shear)} of shear bend them over {as_thickness(LONG * hole.diameter)}",
        ),
        changes,
        detail=at.case.name,
        governs=Governs(case=at.case.id, station_mm=hole.x),
        remedy="A lower hole, nearer to the middle of the web, or a plate on the web round it.",
    )
