"""Distances between bodies against a general collision library (FCL), on the same shapes."""

from unittest import TestCase

import fcl
import numpy as np
from scipy.optimize import minimize_scalar

from nodulant.clearance.distance import Ring, bar_to_bar, bar_to_convex, nearest_along, ring_to_bar, ring_to_convex
from nodulant.clearance.looks import Ask, answers
from nodulant.clearance.shapes import Bars, Blocks, Prisms, block_axes

RNG = np.random.default_rng(20261126)
CASES = 60
CLOSE_MM = 0.05


def turned(z: np.ndarray) -> np.ndarray:
    """A rotation that takes the z axis to ``z``."""
    z = z / np.linalg.norm(z)
    x = np.cross([0.0, 1.0, 0.0] if abs(z[1]) < 0.9 else [1.0, 0.0, 0.0], z)
    x /= np.linalg.norm(x)
    return np.stack([x, np.cross(z, x), z], axis=1)


def capsule(a, b, radius):
    return fcl.CollisionObject(
        fcl.Capsule(radius, float(np.linalg.norm(b - a))), fcl.Transform(turned(b - a), (a + b) / 2)
    )


def disc(centre, spin, radius, width):
    return fcl.CollisionObject(fcl.Cylinder(radius, width), fcl.Transform(turned(spin), centre))


def solid(points, faces):
    flat = np.concatenate([[len(f), *f] for f in faces]).astype(int)
    return fcl.CollisionObject(fcl.Convex(points, len(faces), flat), fcl.Transform())


def prism_in_fcl(p: Prisms):
    n = 4
    points = np.array([[x, y, z] for y in (p.low_y[0], p.high_y[0]) for x, z in p.corners[0]])
    sides = [[i, (i + 1) % n, n + (i + 1) % n, n + i] for i in range(n)]
    return solid(points, [list(range(n))[::-1], list(range(n, 2 * n)), *sides])


def far(one, two) -> float:
    request = fcl.DistanceRequest(enable_nearest_points=True, gjk_solver_type=1)
    return fcl.distance(one, two, request, fcl.DistanceResult())


def somewhere(spread=400.0):
    return RNG.uniform(-spread, spread, 3)


def direction():
    v = RNG.normal(size=3)
    return v / np.linalg.norm(v)


PRISM = Prisms(
    np.array([[(-60.0, -40.0), (80.0, -55.0), (80.0, 45.0), (-60.0, 70.0)]]), np.array([-30.0]), np.array([40.0])
)
BOX = Blocks(np.array([[20.0, -30.0, 10.0]]), np.array([[90.0, 60.0, 45.0]]), block_axes(12.0, -25.0)[None])
BAR = Bars(np.array([[-80.0, 10.0, 0.0]]), np.array([[120.0, 60.0, 40.0]]), np.array([25.0]))


def same(pack, count=CASES):
    """One body for every place."""
    return pack.some(np.zeros(count, dtype=int))


def standing():
    """Each kind of body, ours and the library's."""
    return (
        (BOX, fcl.CollisionObject(fcl.Box(180.0, 120.0, 90.0), fcl.Transform(BOX.axes[0], BOX.middle[0]))),
        (BAR, capsule(BAR.a[0], BAR.b[0], 25.0)),
        (PRISM, prism_in_fcl(PRISM)),
    )


def one_block(middle, half):
    return Blocks(np.array([middle], dtype=float), np.array([half], dtype=float), np.eye(3)[None])


class AgainstFcl(TestCase):
    def compare(self, mine: float, theirs: float, what: str) -> None:
        """Outside both agree; a library tells no depth inside."""
        if theirs > 0:
            self.assertAlmostEqual(mine, theirs, delta=CLOSE_MM, msg=what)
        else:
            self.assertLess(mine, CLOSE_MM, msg=what)

    def test_bars_against_bars(self):
        a, b, c, d = (np.array([somewhere() for _ in range(CASES)]) for _ in range(4))
        near = bar_to_bar(a, b, 22.0, c, d, 15.0)
        for i in range(CASES):
            self.compare(near.gap[i], far(capsule(a[i], b[i], 22.0), capsule(c[i], d[i], 15.0)), f"bars {i}")
            if near.gap[i] > 0:
                self.assertAlmostEqual(np.linalg.norm(near.mine[i] - near.other[i]), near.gap[i], places=6)

    def test_parallel_and_crossing_bars(self):
        a, b = np.zeros((3, 3)), np.tile([100.0, 0.0, 0.0], (3, 1))
        c = np.array([[0.0, 50.0, 0.0], [150.0, 50.0, 0.0], [50.0, -60.0, 30.0]])
        d = np.array([[100.0, 50.0, 0.0], [300.0, 50.0, 0.0], [50.0, 60.0, 30.0]])
        near = bar_to_bar(a, b, 5.0, c, d, 5.0)
        np.testing.assert_allclose(near.gap, [40.0, np.hypot(50, 50) - 10.0, 20.0], atol=1e-9)

    def test_bars_against_boxes_bars_and_prisms(self):
        for body, other in standing():
            a, b = (np.array([somewhere(300.0) for _ in range(CASES)]) for _ in range(2))
            near = bar_to_convex(a, b, 18.0, same(body))
            for i in range(CASES):
                self.compare(near.gap[i], far(capsule(a[i], b[i], 18.0), other), f"{type(body).__name__} {i}")

    def test_tyres_against_boxes_bars_and_prisms(self):
        for body, other in standing():
            centre, spin = (
                np.array([somewhere(700.0) for _ in range(CASES)]),
                np.array([direction() for _ in range(CASES)]),
            )
            ring = Ring(centre, spin, 340.0, 200.0, 215.0, 40.0)
            near = ring_to_convex(ring, same(body))
            for i in range(CASES):
                # the library's disc has sharp edges: the rounding is the ball that is added to it
                core = disc(centre[i], spin[i], 300.0, 135.0)
                self.compare(
                    near.gap[i],
                    far(core, other) - 40.0 if far(core, other) > 0 else -40.0,
                    f"{type(body).__name__} {i}",
                )

    def test_tyres_against_bars_that_stay_outside_the_rim(self):
        """Beyond the tyre's outside the ring and the filled disc are one; inside the rim only the ring leaves room."""
        centre = np.array([somewhere(500.0) for _ in range(CASES)])
        spin = np.array([direction() for _ in range(CASES)])
        flat = np.cross(spin, np.array([direction() for _ in range(CASES)]))
        flat /= np.linalg.norm(flat, axis=1, keepdims=True)
        a = centre + flat * 560.0 + spin * RNG.uniform(-90.0, 90.0, (CASES, 1))
        b = a + np.array([direction() for _ in range(CASES)]) * 120.0
        near = ring_to_bar(Ring(centre, spin, 340.0, 200.0, 215.0, 40.0), a, b, 16.0)
        for i in range(CASES):
            theirs = far(disc(centre[i], spin[i], 300.0, 135.0), capsule(a[i], b[i], 16.0)) - 40.0
            self.assertAlmostEqual(near.gap[i], theirs, delta=CLOSE_MM)

    def test_a_bar_on_the_spin_axis_clears_the_rim(self):
        ring = Ring(np.zeros((1, 3)), np.array([[0.0, 1.0, 0.0]]), 340.0, 200.0, 215.0, 40.0)
        near = ring_to_bar(ring, np.array([[0.0, -300.0, 0.0]]), np.array([[0.0, 300.0, 0.0]]), 30.0)
        self.assertAlmostEqual(near.gap[0], 170.0, places=6)


class Inside(TestCase):
    def test_depth_is_the_way_to_the_nearest_face(self):
        box = one_block((0, 0, 0), (100, 60, 40))
        near = bar_to_convex(np.array([[0.0, 0.0, 30.0]]), np.array([[1.0, 0.0, 30.0]]), 5.0, box)
        self.assertAlmostEqual(near.gap[0], -15.0, places=5)
        prism = Prisms(
            np.array([[(-100.0, -40.0), (100.0, -40.0), (100.0, 40.0), (-100.0, 40.0)]]),
            np.array([-60.0]),
            np.array([60.0]),
        )
        self.assertAlmostEqual(
            bar_to_convex(np.array([[0.0, 0.0, 30.0]]), np.array([[1.0, 0.0, 30.0]]), 5.0, prism).gap[0],
            -15.0,
            places=5,
        )

    def test_a_tyre_pushed_into_a_wall_says_how_far(self):
        wall = one_block((500, 0, 0), (100, 400, 400))
        for into in (-30.0, 0.0, 12.0, 60.0):
            ring = Ring(
                np.array([[400.0 - 340.0 + into, 0.0, 0.0]]), np.array([[0.0, 1.0, 0.0]]), 340.0, 200.0, 215.0, 40.0
            )
            self.assertAlmostEqual(ring_to_convex(ring, wall).gap[0], -into, delta=0.5 if into > 20 else 0.05)


def some_prisms(count):
    """Slanted plates and blocks of all sizes, turned in their plane."""
    wide, high, turn = RNG.uniform(2, 150, count), RNG.uniform(2, 90, count), RNG.uniform(-0.7, 0.7, count)
    at, y = RNG.uniform(-200, 200, (count, 1, 2)), RNG.uniform(-150, 150, count)
    slant = RNG.uniform(0.5, 1.0, count)
    corners = np.stack(
        [
            np.stack([-wide, -high], 1),
            np.stack([wide, -high], 1),
            np.stack([slant * wide, high], 1),
            np.stack([-wide, high], 1),
        ],
        axis=1,
    )
    c, s = np.cos(turn)[:, None], np.sin(turn)[:, None]
    x, z = corners[..., 0] * c - corners[..., 1] * s, corners[..., 0] * s + corners[..., 1] * c
    return Prisms(np.stack([x, z], axis=-1) + at, y, y + RNG.uniform(2, 90, count))


def some_blocks(count):
    axes = np.stack([block_axes(*RNG.uniform(-50, 50, 2)) for _ in range(count)])
    return Blocks(RNG.uniform(-200, 200, (count, 3)), RNG.uniform(2, 150, (count, 3)), axes)


def some_bars(count):
    """Short and long ones, some along an axis of the prisms."""
    a = RNG.uniform(-350, 350, (count, 3))
    way = RNG.normal(size=(count, 3)) * RNG.uniform(2, 500, (count, 1))
    way[::5, RNG.integers(0, 3)] = 0.0
    return a, a + way


class NearestOnABar(TestCase):
    """The exact place against scipy's bounded scalar minimiser (Brent), on random bodies."""

    def test_the_place_along_a_bar_is_the_least_of_a_general_minimiser(self):
        for pack in (some_prisms(200), some_blocks(200)):
            a, b = some_bars(200)
            ours = pack.distance(a + nearest_along(pack, a, b)[:, None] * (b - a))
            entered = 0
            for k in range(200):
                one = pack.some(np.array([k]))

                def off(t, one=one, start=a[k], way=b[k] - a[k]):
                    return float(one.distance((start + t * way)[None])[0])

                theirs = minimize_scalar(off, bounds=(0.0, 1.0), method="bounded", options={"xatol": 1e-10})
                least = min(theirs.fun, off(0.0), off(1.0))
                if least <= 0.0:
                    entered += 1
                    self.assertLessEqual(ours[k], 1e-6)
                else:
                    self.assertAlmostEqual(ours[k], least, delta=1e-5)
                self.assertAlmostEqual(
                    bar_to_convex(a[k : k + 1], b[k : k + 1], 7.5, one).gap[0], least - 7.5, delta=1e-3
                )
            self.assertGreater(entered, 0)

    def test_no_length_at_all_is_a_point(self):
        pack, (a, _) = some_prisms(40), some_bars(40)
        np.testing.assert_allclose(bar_to_convex(a, a, 0.0, pack).gap, pack.distance(a), atol=1e-4)

    def test_what_is_asked_together_is_answered_as_alone(self):
        """Bars of several radii and tyres against every kind of body, mixed."""
        packs = (some_prisms(30), some_blocks(20), same(BAR, 25))
        asks = []
        for pack in packs:
            count = len(pack.boxes.low)
            for radius in (4.0, 22.0):
                asks.append(Ask((*some_bars(count), radius), pack, 4))
            ring = Ring(
                RNG.uniform(-400, 400, (count, 3)), np.stack([direction() for _ in range(count)]), 390, 220, 265, 25
            )
            asks += [Ask(ring, pack, 4), Ask((*some_bars(count), 9.0), ring, 4)]
        asks.append(Ask((*some_bars(12), 9.0), (*some_bars(12), 16.0), 4))
        for together, ask in zip(answers(asks), asks, strict=True):
            (alone,) = answers([ask])
            for one, two in zip(together, alone, strict=True):
                np.testing.assert_allclose(one, two, atol=0.02)
