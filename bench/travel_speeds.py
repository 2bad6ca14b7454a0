"""Suspensions: a whole grid of poses against looping a general least-squares solver, and the map of bracket holes."""

import time
from collections.abc import Callable

import numpy as np
from scipy.optimize import least_squares
from tests.core.test_steering import job as demo_job
from tests.core.test_suspensions import suspended
from tests.published.test_linkages import AXLE, HUB, triangulated

from bench.measure import Figure, median_ms
from nodulant.axles.layouts.independent import TOE_LINK
from nodulant.axles.layouts.live import TriangulatedFourLink
from nodulant.base.memo import forget_all
from nodulant.evaluate.clearances.sweep import whole_sweep
from nodulant.evaluate.suspensions.travel import moved
from nodulant.linkage.grid import steer_grid
from nodulant.linkage.rotation import rotation_vector
from nodulant.linkage.sweep import sweep
from nodulant.search.bracket_holes import Asked, HoleRow, Holes, Wanted, find_holes
from nodulant.suspension.motion import compiled, moved_through
from nodulant.suspension.study import study, travel_of

TRAVEL = np.linspace(-90.0, 90.0, 61)
ROLLS = tuple(np.linspace(-4.0, 4.0, 9))
SAME_MM = 1e-6


def poses() -> list[Figure]:
    """549 poses in one batch, with all curves, and pose by pose with scipy's solver."""
    layout = triangulated()
    c, rolls = compiled(layout, AXLE), np.radians(ROLLS)
    inputs = suspended()
    d, survey = inputs.design, inputs.survey

    def studied(_: int) -> None:
        forget_all()
        study(survey, d.suspensions[0], d.seats, 60.0, 1.0)

    def dragged(_: int) -> None:
        forget_all()
        moved(inputs, glance=True)

    curves, whole = median_ms(studied, 20), median_ms(dragged, 20)
    # both in turn, since the machine's speed wanders
    each, off, batch = _one_by_one(layout, lambda: sweep(c, TRAVEL, rolls))
    return [
        Figure("one axle's 549 poses", batch, "ms", budget="8 ms"),
        Figure("one axle with all its curves and forces (61 x 7 poses)", curves, "ms", budget="25 ms"),
        Figure("a drag of a link point: evaluation", whole, "ms"),
        Figure("scipy.optimize.least_squares over ours, per pose", each / (batch / 549), "x", at_least=300.0),
        Figure("largest difference between both", off, "mm", at_most=SAME_MM),
    ]


def _one_by_one(layout: TriangulatedFourLink, batch: Callable[[], object]) -> tuple[float, float, float]:
    """Median ms a pose with a general solver, the largest difference from the batch, mm, and median ms of the batch."""
    rods = layout.mechanism(HUB).rods
    p, f = np.array([r.a.point for r in rods]) - HUB, np.array([r.b.point for r in rods])
    length = np.linalg.norm(p + HUB - f, axis=1)
    m = moved_through(layout, AXLE, TRAVEL, ROLLS)
    off, spent, batches = 0.0, [], []
    for row in range(0, len(TRAVEL) * len(ROLLS), 11):
        batch()  # the one that finds the caches cold does not count
        begun = time.perf_counter()
        batch()
        batches.append(time.perf_counter() - begun)
        z, roll = TRAVEL[row // len(ROLLS)], np.radians(ROLLS[row % len(ROLLS)])

        def error(u: np.ndarray, z: float = z, roll: float = roll) -> np.ndarray:
            k = float(np.linalg.norm(u[3:])) or 1e-30
            x, y, w = u[3:] / k
            cross = np.array([[0, -w, y], [w, 0, -x], [-y, x, 0]])
            r = np.eye(3) + np.sin(k) * cross + (1 - np.cos(k)) * (cross @ cross)
            give = np.linalg.norm(p @ r.T + u[:3] - f, axis=1) - length
            return np.append(give, [u[2] - HUB[2] - z, 500 * (r[2, 1] - np.sin(roll))])

        start = np.array([HUB[0], HUB[1], HUB[2] + z, roll, 0.0, 0.0])
        begun = time.perf_counter()
        found = least_squares(error, start, xtol=1e-15, ftol=1e-15, gtol=1e-15).x
        spent.append(time.perf_counter() - begun)
        own = m.sweep.solved.pose.rows(np.array([row]))
        off = max(off, float(np.abs(own.origin[0] - found[:3]).max()))
        off = max(off, 500 * float(np.abs(rotation_vector(own.rotation)[0] - found[3:]).max()))
    return 1000 * float(np.median(spent)), off, 1000 * float(np.median(batches))


EIGHT = HoleRow(above=4, below=3)


def bracket_map() -> list[Figure]:
    """4096 combinations of holes ranked at nine poses, the best twenty studied whole."""
    inputs = suspended()
    d = inputs.design
    holes = Holes(frame_upper=EIGHT, frame_lower=EIGHT, axle_upper=EIGHT, axle_lower=EIGHT)
    asked = Asked(inputs.survey, d.suspensions[0], d.seats, 60.0, 1.0, holes, Wanted())
    spent = median_ms(lambda _: find_holes(asked), 3) / 1000
    return [Figure("map of 4096 bracket holes", spent, "s", budget="1.5 s")]


def steering() -> list[Figure]:
    """One upright's 61 x 41 poses, and the full sweep of the demo: both axles, tyres, rails with their cuts."""
    inputs = demo_job("wherry", "step")
    own = next(s for s in inputs.design.suspensions if s.axle == "front")
    s = study(inputs.survey, own, inputs.design.seats, 0.0, 1.0)
    c = compiled(own.layout, s.setting)
    rod = next(i for i, r in enumerate(c.mechanism.rods) if r.name == TOE_LINK)
    shifts = np.zeros((41, 3))
    shifts[:, 1] = np.linspace(-1.0, 1.0, 41) * own.steering.gear.stroke_mm
    travel = travel_of(own)
    grid = median_ms(lambda _: steer_grid(sweep(c, travel), rod, shifts), 20)
    result = whole_sweep(inputs)

    def swept(_: int) -> None:
        forget_all()
        whole_sweep(inputs)

    return [
        Figure("one upright's 61 x 41 steer poses", grid, "ms", budget="40 ms"),
        Figure("full sweep of the demo", median_ms(swept, 5), "ms", budget="600 ms"),
        Figure("positions of the sweep", result.positions, "", at_least=1500.0),
        Figure("pairs of the sweep", len(result.pairs), "", at_least=60.0),
    ]
