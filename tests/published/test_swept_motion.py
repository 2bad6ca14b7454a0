"""Least distances over a motion against closed forms: what lies between two positions is found too.

A circle's and a straight line's nearest approach are school geometry; the reach of a turned disc is
its support function, R sqrt(1 - (n.s)^2) + w/2 |n.s| (convex geometry, textbook).
"""

import math

import numpy as np
from django.test import SimpleTestCase
from scipy.interpolate import RegularGridInterpolator
from scipy.optimize import minimize_scalar

from nodulant.clearance.distance import Ring, bar_to_convex, ring_to_bar, ring_to_convex
from nodulant.clearance.looks import in_step
from nodulant.clearance.moving import Mover, Positions, RoundBar, TyreBody, between, spots
from nodulant.clearance.pair import FAR_MM, Far, Least, along, at_rest, gaps_at, least
from nodulant.clearance.shapes import Bars, Blocks, Prisms, Standing
from nodulant.clearance.sweep import Pair, clearance_map, swept

RNG = np.random.default_rng(7)
TRAVEL = np.linspace(-80.0, 80.0, 17)
LOCK = np.linspace(-1.0, 1.0, 15)
LEVEL, AHEAD = np.zeros(1), np.zeros(1)


def rising(a, b, radius=10.0, travel=TRAVEL, kind="rod"):
    """A bar that rises with the wheel without turning."""
    positions = Positions("front", travel, LEVEL, AHEAD)
    lift = travel[:, None, None, None] * np.array([0.0, 0.0, 1.0])
    body = RoundBar(np.array(a) + lift, np.array(b) + lift, radius)
    return Mover("rod, right", kind, body, np.ones(positions.shape, dtype=bool), positions, "right")


def swinging(length, degrees, radius=10.0, steps=15):
    """A bar hinged at the origin about y that swings in the x-z plane, driven by the steering's input."""
    positions = Positions("front", np.zeros(1), LEVEL, np.linspace(-1.0, 1.0, steps))
    angle = np.radians(degrees) * positions.input
    tip = length * np.stack([np.cos(angle), np.zeros_like(angle), np.sin(angle)], axis=-1)[None, None]
    body = RoundBar(np.zeros_like(tip), tip, radius)
    return Mover("arm, right", "rod", body, np.ones(positions.shape, dtype=bool), positions, "right")


def turning_tyre(outside=330.0, width=200.0, lock_deg=36.0, shoulder=20.0):
    """A tyre that turns about an upright axis through its middle."""
    positions = Positions("front", np.zeros(1), LEVEL, LOCK)
    angle = np.radians(lock_deg) * LOCK
    spin = np.stack([np.sin(angle), np.cos(angle), np.zeros_like(angle)], axis=-1)[None, None]
    body = TyreBody(np.zeros_like(spin), spin, outside, 200.0, width, shoulder)
    return Mover("tyre, right", "tyre", body, np.ones(positions.shape, dtype=bool), positions, "right")


def ball(at, radius):
    """A ball: a round bar without length."""
    return Standing("ball", "other", Bars(np.array([at], float), np.array([at], float), np.array([radius])), "ball")


def wall(x):
    """Everything behind x, far to all sides."""
    half = np.array([[500.0, 5000.0, 5000.0]])
    return Standing("wall", "other", Blocks(np.array([[x + 500.0, 0.0, 0.0]]), half, np.eye(3)[None]), "wall")


class StraightPast(SimpleTestCase):
    def test_a_bar_passes_a_ball_between_two_positions(self):
        """A bar along y rises past a ball: nearest where both are level, wherever the grid's rows lie."""
        for z in (3.3, -17.9, 41.2, 66.6):
            with self.subTest(z):
                rod = rising((0.0, -200.0, 0.0), (0.0, 200.0, 0.0))
                found = least(rod, ball((35.0, 20.0, z), 12.0))
                self.assertIsInstance(found, Least)
                self.assertAlmostEqual(found.gap_mm, 35.0 - 10.0 - 12.0, delta=0.01)
                # a distance is flat about its least: a hundredth of it is half a millimetre of travel
                self.assertAlmostEqual(found.travel_mm, z, delta=0.8)

    def test_the_nearest_points_face_each_other(self):
        found = least(rising((0.0, -200.0, 0.0), (0.0, 200.0, 0.0)), ball((35.0, 20.0, 13.0), 12.0))
        np.testing.assert_allclose(found.mine, (10.0, 20.0, 13.0), atol=0.8)
        np.testing.assert_allclose(found.other, (23.0, 20.0, 13.0), atol=0.8)
        self.assertAlmostEqual(float(np.linalg.norm(found.mine - found.other)), found.gap_mm, places=6)

    def test_beyond_its_stops_it_does_not_go(self):
        rod = rising((0.0, -200.0, 0.0), (0.0, 200.0, 0.0))
        found = least(rod, ball((0.0, 0.0, 110.0), 12.0))
        self.assertAlmostEqual(found.gap_mm, 110.0 - 80.0 - 10.0 - 12.0, delta=0.01)
        self.assertEqual(found.travel_mm, 80.0)

    def test_what_it_runs_through_says_how_deep(self):
        rod = rising((0.0, -200.0, 0.0), (0.0, 200.0, 0.0))
        found = least(rod, ball((4.0, 0.0, 55.0), 12.0))
        self.assertAlmostEqual(found.gap_mm, 4.0 - 22.0, delta=0.02)

    def test_at_rest_already_is_told_as_that(self):
        rod = rising((0.0, -200.0, 0.0), (0.0, 200.0, 0.0))
        found = least(rod, ball((15.0, 0.0, 2.0), 12.0))
        (rest,) = in_step([at_rest(rod, ball((15.0, 0.0, 2.0), 12.0))])
        self.assertEqual((found.travel_mm, found.gap_mm), (0.0, rest.gap_mm))
        self.assertAlmostEqual(rest.gap_mm, math.hypot(15.0, 2.0) - 22.0, places=3)

    def test_far_is_only_bounded_and_never_too_much(self):
        rod = rising((0.0, -200.0, 0.0), (0.0, 200.0, 0.0))
        for away in (90.0, 200.0, 2000.0):
            found = least(rod, ball((away, 0.0, 0.0), 5.0))
            true = away - 15.0
            self.assertIsInstance(found, Far)
            self.assertGreater(found.beyond_mm, FAR_MM)
            self.assertLessEqual(found.beyond_mm, true + 1e-9)

    def test_what_is_asked_for_decides_what_is_far(self):
        """With a limit of your own beyond the usual the same pair is worked out, between the positions too."""
        rod = rising((0.0, -200.0, 0.0), (0.0, 200.0, 0.0))
        for away, needed in ((75.0, 0.0), (90.0, 70.0), (140.0, 110.0), (400.0, 380.0)):
            with self.subTest(away):
                found = least(rod, ball((away, 20.0, 3.3), 12.0), needed)
                self.assertAlmostEqual(found.gap_mm, away - 22.0, delta=0.01)

    def test_far_of_what_it_passes_between_two_positions(self):
        """What is told as 'further than' holds between the positions as well, for any limit."""
        rod = rising((0.0, -200.0, 0.0), (0.0, 200.0, 0.0), travel=np.linspace(-80.0, 80.0, 5))
        for away in np.linspace(82.0, 150.0, 35):
            for needed in (0.0, 25.0, 60.0):
                found = least(rod, ball((away, 0.0, 20.0), 12.0), needed)
                true = away - 22.0
                if isinstance(found, Far):
                    self.assertLessEqual(found.beyond_mm, true + 1e-9)
                    self.assertGreater(found.beyond_mm, needed)
                else:
                    self.assertAlmostEqual(found.gap_mm, true, delta=0.01)

    def test_a_long_thing_across_does_not_hide_a_near_one(self):
        """A brace across the bar's corner has a box that the bar lies in, and is further off than a ball beside it."""
        rod = rising((0.0, -50.0, 0.0), (0.0, 50.0, 0.0))
        brace = (np.array([-100.0, 0.0, 400.0]), np.array([400.0, 0.0, -100.0]))
        knob = np.array([-150.0, 0.0, 3.3])
        both = Standing(
            "brace",
            "other",
            Bars(np.array([brace[0], knob]), np.array([brace[1], knob]), np.array([5.0, 5.0])),
            "brace",
        )
        self.assertAlmostEqual(in_step([at_rest(rod, both)])[0].gap_mm, math.hypot(150.0, 3.3) - 15.0, delta=0.01)
        np.testing.assert_allclose(
            in_step([gaps_at(rod, both, np.array([3.3, 0.0]))])[0], [135.0, math.hypot(150.0, 3.3) - 15.0], atol=0.01
        )
        self.assertAlmostEqual(least(rod, both, 130.0).gap_mm, 135.0, delta=0.01)

    def test_nor_is_a_pair_told_to_be_further_than_the_near_one(self):
        """A brace that rises, a knob in its corner and one 90 mm beside its middle: the second bounds what may be told."""
        brace = rising((-100.0, 0.0, 500.0), (500.0, 0.0, -100.0))
        knobs = np.array([[0.0, 0.0, 0.0], [200.0, 90.0, 200.0]])
        both = Standing("knobs", "other", Bars(knobs, knobs, np.array([5.0, 5.0])), "knobs")
        found = least(brace, both)
        self.assertIsInstance(found, Far)
        self.assertLessEqual(found.beyond_mm, 75.0)
        self.assertAlmostEqual(least(brace, both, 70.0).gap_mm, 75.0, delta=0.01)

    def test_nowhere_at_all(self):
        rod = rising((0.0, -200.0, 0.0), (0.0, 200.0, 0.0))
        gone = Mover(rod.name, rod.kind, rod.body, np.zeros(rod.positions.shape, dtype=bool), rod.positions)
        self.assertIsNone(least(gone, ball((0.0, 0.0, 0.0), 5.0)))

    def test_the_states_between(self):
        rod = rising((0.0, -200.0, 0.0), (0.0, 200.0, 0.0))
        at = np.array([-31.0, 0.0, 7.7, 64.0])
        (found,) = in_step([gaps_at(rod, ball((30.0, 0.0, 20.0), 8.0), at)])
        np.testing.assert_allclose(found, np.hypot(30.0, at - 20.0) - 18.0, atol=0.01)


class Swings(SimpleTestCase):
    def test_a_tip_on_its_arc_past_a_ball(self):
        """The tip runs on a circle: its gap to a ball on the same circle is |R - d|, to one beyond it d - R."""
        arm = swinging(300.0, 30.0)
        for degrees, away in ((3.7, 345.0), (-21.0, 352.0), (26.1, 338.0)):
            at = away * np.array([math.cos(math.radians(degrees)), 0.0, math.sin(math.radians(degrees))])
            with self.subTest(degrees):
                found = least(arm, ball(at, 9.0))
                self.assertAlmostEqual(found.gap_mm, away - 300.0 - 10.0 - 9.0, delta=0.01)
                self.assertAlmostEqual(found.input * 30.0, degrees, delta=0.4)

    def test_the_arm_meets_a_wall_at_an_end_of_its_swing(self):
        """A wall in front of the arc is nearest when the arm points at it; one above, at full swing."""
        arm = swinging(300.0, 30.0)
        self.assertAlmostEqual(least(arm, wall(330.0)).gap_mm, 20.0, delta=0.01)
        high = 300.0 * math.sin(math.radians(30.0))
        lid = Standing(
            "lid", "other", Blocks(np.array([[0.0, 0.0, high + 530.0]]), np.full((1, 3), 500.0), np.eye(3)[None]), "lid"
        )
        found = least(arm, lid)
        self.assertAlmostEqual(found.gap_mm, 20.0, delta=0.01)
        self.assertAlmostEqual(found.input, 1.0, places=9)

    def test_the_first_touch_of_a_swing(self):
        """The arm touches a ball where the sine of the angle between them is the radii's sum over the distance."""
        arm = swinging(300.0, 30.0, steps=61)
        stands = math.radians(14.0)
        thing = ball(200.0 * np.array([math.cos(stands), 0.0, math.sin(stands)]), 15.0)
        found = next(swept([Pair(arm, thing, "metal-clearance")]))
        first = math.degrees(stands - math.asin(25.0 / 200.0))
        self.assertLess(found.least.gap_mm, 0.0)
        self.assertAlmostEqual(found.first_lock * 30.0, first, delta=0.1)

    def test_the_map_is_the_distance_at_every_place(self):
        arm = swinging(300.0, 30.0)
        thing = ball((250.0, 40.0, 60.0), 12.0)
        found = clearance_map(Pair(arm, thing, "metal-clearance"))
        angle = np.radians(30.0) * arm.positions.input
        along_it = 250.0 * np.cos(angle) + 60.0 * np.sin(angle)
        self.assertTrue((along_it < 300.0).all())
        true = np.sqrt(250.0**2 + 40.0**2 + 60.0**2 - along_it**2) - 22.0
        np.testing.assert_allclose(found[0], true, atol=0.01)
        rows = np.arange(arm.positions.count)
        np.testing.assert_allclose(in_step([along(arm, thing, rows)])[0], true, atol=0.01)


class Tyres(SimpleTestCase):
    def reach(self, body, lock_deg, n=(1.0, 0.0, 0.0)):
        """How far a disc with rounded shoulders reaches along ``n`` when turned so far."""
        spin = np.array([math.sin(math.radians(lock_deg)), math.cos(math.radians(lock_deg)), 0.0])
        share = abs(float(spin @ np.array(n)))
        core, half = body.outside - body.shoulder, body.width / 2 - body.shoulder
        return core * math.sqrt(1.0 - share**2) + half * share + body.shoulder

    def test_a_turning_tyre_swings_its_corner_out(self):
        """Straight ahead a tyre reaches R forward; turned, its corner reaches further until the lock ends it."""
        tyre = turning_tyre()
        best = minimize_scalar(lambda lock: -self.reach(tyre.body, lock), bounds=(0.0, 36.0), method="bounded")
        found = least(tyre, wall(360.0))
        self.assertGreater(-best.fun, tyre.body.outside)
        self.assertAlmostEqual(found.gap_mm, 360.0 + best.fun, delta=0.01)
        self.assertAlmostEqual(abs(found.input) * 36.0, best.x, delta=1.0)

    def test_beside_it_the_lock_decides(self):
        """A wall beside the tyre: full lock comes nearest, by the same support function along y."""
        tyre = turning_tyre()
        side = self.reach(tyre.body, 36.0, (0.0, 1.0, 0.0))
        thing = Standing(
            "side",
            "other",
            Blocks(np.array([[0.0, side + 525.0, 0.0]]), np.array([[5000.0, 500.0, 5000.0]]), np.eye(3)[None]),
            "side",
        )
        found = least(tyre, thing)
        self.assertAlmostEqual(found.gap_mm, 25.0, delta=0.01)
        self.assertAlmostEqual(abs(found.input), 1.0, places=6)

    def test_round_things_against_brute_force(self):
        """The least over a bar's length and a tyre's disc, tried at thousands of points of both."""
        looked = 0
        for _ in range(8):
            centre, spin = RNG.uniform(-50.0, 50.0, 3), RNG.normal(size=3)
            spin /= np.linalg.norm(spin)
            a, b = (RNG.normal(size=3) for _ in range(2))
            a, b = (centre + v / np.linalg.norm(v) * RNG.uniform(380.0, 600.0) for v in (a, b))
            ring = Ring(centre[None], spin[None], 330.0, 200.0, 210.0, 30.0)
            near = ring_to_convex(ring, Bars(a[None], b[None], np.array([14.0])))
            t = np.linspace(0.0, 1.0, 20_001)
            line = a + t[:, None] * (b - a)
            flat = line - centre
            height = flat @ spin
            out = np.sqrt(np.maximum((flat**2).sum(axis=1) - height**2, 0.0))
            apart = np.hypot(np.maximum(out - 300.0, 0.0), np.maximum(np.abs(height) - 75.0, 0.0))
            if apart.min() > 0.0:
                self.assertAlmostEqual(near.gap[0], float(apart.min()) - 30.0 - 14.0, delta=0.002)
                off = near.other[0] - near.mine[0]
                self.assertAlmostEqual(float(np.linalg.norm(off)), abs(near.gap[0]), delta=0.01)
                looked += 1
        self.assertGreater(looked, 3)

    def test_a_quick_look_is_as_good_as_a_hundredth(self):
        """Few rounds and many find the same, to a hundredth of a millimetre, for whatever stands apart."""
        count = 200
        a, b = RNG.uniform(-400.0, 400.0, (2, count, 3))
        corners = np.array([(-150.0, -60.0), (140.0, -70.0), (170.0, 80.0), (-160.0, 60.0)])
        packs = (
            Prisms(np.tile(corners, (count, 1, 1)), np.full(count, -40.0), np.full(count, 45.0)),
            Blocks(np.zeros((count, 3)), np.tile([120.0, 70.0, 50.0], (count, 1)), np.tile(np.eye(3), (count, 1, 1))),
            Bars(np.zeros((count, 3)), np.tile([0.0, 200.0, 0.0], (count, 1)), np.full(count, 30.0)),
        )
        for pack in packs:
            quick, whole = (bar_to_convex(a, b, 8.0, pack, rounds).gap for rounds in (4, 14))
            apart = whole > 0.0
            self.assertGreater(apart.sum(), 50)
            with self.subTest(type(pack).__name__):
                np.testing.assert_allclose(quick[apart], whole[apart], atol=0.01)
                self.assertTrue((quick >= whole - 1e-7).all())
        ring = Ring(np.zeros((count, 3)), np.tile([0.0, 1.0, 0.0], (count, 1)), 200.0, 120.0, 150.0, 25.0)
        quick, whole = (ring_to_bar(ring, a * 2, b * 2, 8.0, rounds).gap for rounds in (4, 14))
        apart = whole > 0.0
        np.testing.assert_allclose(quick[apart], whole[apart], atol=0.02)


class Shapes(SimpleTestCase):
    """Several points beside each body at once say the same as one by one."""

    def test_places_side_by_side(self):
        count, beside = 30, 6
        points = RNG.uniform(-300.0, 300.0, (count, beside, 3))
        turn = np.linalg.qr(RNG.normal(size=(count, 3, 3)))[0]
        packs = (
            Prisms(
                np.tile([(-90.0, -40.0), (80.0, -50.0), (95.0, 60.0), (-70.0, 55.0)], (count, 1, 1)),
                RNG.uniform(-90.0, -30.0, count),
                RNG.uniform(30.0, 90.0, count),
            ),
            Blocks(RNG.uniform(-50.0, 50.0, (count, 3)), RNG.uniform(20.0, 90.0, (count, 3)), turn),
            Bars(*RNG.uniform(-200.0, 200.0, (2, count, 3)), RNG.uniform(5.0, 40.0, count)),
        )
        for pack in packs:
            with self.subTest(type(pack).__name__):
                whole = pack.distance(points)
                self.assertEqual(whole.shape, (count, beside))
                for k in range(beside):
                    np.testing.assert_allclose(whole[:, k], pack.distance(points[:, k]), atol=1e-12)

    def test_the_nearest_point_is_as_far_as_the_distance_says(self):
        count = 400
        points = RNG.uniform(-300.0, 300.0, (count, 3))
        corners = np.array([(-90.0, -40.0), (80.0, -50.0), (95.0, 60.0), (-70.0, 55.0)])
        pack = Prisms(np.tile(corners, (count, 1, 1)), np.full(count, -50.0), np.full(count, 60.0))
        off, near = pack.distance(points), pack.nearest(points)
        outside = off > 0.0
        np.testing.assert_allclose(np.linalg.norm(points - near, axis=1)[outside], off[outside], atol=1e-9)
        np.testing.assert_allclose(near[~outside], points[~outside])
        np.testing.assert_allclose(pack.distance(near)[outside], 0.0, atol=1e-9)


class Interpolation(SimpleTestCase):
    def grid(self):
        return Positions("front", np.array([-80.0, -35.0, 0.0, 30.0, 80.0]), np.linspace(-3, 3, 5), LOCK)

    def test_third_order_is_exact_for_cubics(self):
        """Lagrange's interpolation through four rows reproduces every cubic (textbook)."""
        positions = self.grid()
        t, r, s = np.meshgrid(*positions.axes(), indexing="ij")

        def cubic(t, r, s):
            return np.stack([t**3 * 1e-4 - r**2 * s, 3 * s**3 + t * r, r**3 - t * s**2], axis=-1)

        at = np.stack([RNG.uniform(c[0], c[-1], 200) for c in positions.axes()], axis=1)
        np.testing.assert_allclose(between(cubic(t, r, s), spots(positions, at)), cubic(*at.T), atol=1e-9)

    def test_on_the_grid_it_is_the_grid(self):
        positions = self.grid()
        values = RNG.normal(size=(*positions.shape, 6))
        where = np.stack(np.meshgrid(*positions.axes(), indexing="ij"), axis=-1).reshape(-1, 3)
        np.testing.assert_allclose(between(values, spots(positions, where)), values.reshape(-1, 6), atol=1e-12)

    def test_smooth_motion_against_a_library(self):
        """A swing of 35 degrees on fifteen columns: as near as a library's cubic through all of them."""
        positions = Positions("front", np.zeros(1), LEVEL, LOCK)
        angle = np.radians(35.0) * LOCK
        tip = 320.0 * np.stack([np.cos(angle), np.sin(angle), 0 * angle], axis=-1)
        at = np.linspace(-1.0, 1.0, 301)
        theirs = RegularGridInterpolator((LOCK,), tip, method="cubic")(at[:, None])
        ours = between(tip[None, None], spots(positions, np.stack([0 * at, 0 * at, at], axis=1)))
        np.testing.assert_allclose(ours, theirs, atol=0.02)
        true = 320.0 * np.stack([np.cos(np.radians(35.0) * at), np.sin(np.radians(35.0) * at), 0 * at], axis=-1)
        np.testing.assert_allclose(ours, true, atol=0.005)

    def test_two_rows_are_a_straight_line(self):
        positions = Positions("front", np.array([0.0, 10.0]), LEVEL, AHEAD)
        values = np.array([[1.0, 2.0, 3.0], [3.0, 0.0, 3.0]]).reshape(2, 1, 1, 3)
        found = between(values, spots(positions, np.array([[2.5, 0.0, 0.0]])))
        np.testing.assert_allclose(found, [[1.5, 1.5, 3.0]])
