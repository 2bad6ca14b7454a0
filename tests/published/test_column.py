"""The steering shaft against the cardan equation, two-joint cancellation and a step-by-step model of yokes in space."""

import math
from unittest import TestCase

import numpy as np

from nodulant.axles.points import HardPoint
from nodulant.axles.steering import ColumnClamp, SteeringShaft
from nodulant.base.errors import InputError
from nodulant.steering.column import lines_of, shaft_figures, slot_needed_mm


def shaft(*points, **more):
    column, *joints, gear = (HardPoint(x_mm=x, y_mm=y, z_mm=z) for x, y, z in points)
    return SteeringShaft(column=column, joints=tuple(joints), gear=gear, **more)


def bent(*degrees, long=300.0, turn=(0.0, 0.0, 0.0)):
    """Points of a shaft that bends by each angle in turn, in a plane that is turned about the last line."""
    at, way, normal = np.zeros(3), np.array([1.0, 0.0, 0.0]), np.array([0.0, 1.0, 0.0])
    points = [at]
    at = at + long * way
    points.append(at)
    for bend, twist in zip(degrees, turn, strict=False):
        normal = rotate(normal, way, math.radians(twist))
        way = rotate(way, normal, math.radians(bend))
        at = at + long * way
        points.append(at)
    return shaft(*points)


def rotate(v, k, t):
    return v * math.cos(t) + np.cross(k, v) * math.sin(t) + k * (k @ v) * (1 - math.cos(t))


def by_yokes(made: SteeringShaft, clocked, turn):
    """Turn of the last shaft, worked out with the pins as vectors: each driven pin is square to its driving pin and its own shaft."""
    lines = lines_of(made)
    out = []
    normal = np.cross(lines[0], lines[1])
    start = normal / np.linalg.norm(normal)
    for t in turn:
        pin = rotate(start, lines[0], t)
        for k in range(len(lines) - 1):
            driven = np.cross(pin, lines[k + 1])
            driven /= np.linalg.norm(driven)
            if k < len(lines) - 2:
                pin = rotate(driven, lines[k + 1], clocked[k])
        out.append(driven)
    first = out[0]
    last = lines[-1]
    side = np.cross(last, first)
    return np.unwrap([math.atan2(v @ side, v @ first) for v in out], period=math.pi)


class Cardan(TestCase):
    def test_one_joint(self):
        """w2/w1 = cos b/(1 - sin^2 b sin^2 a): 0.940 at 0, 1.064 at a quarter turn for 20 degrees; 0.0306 peak to peak at 10."""
        found = shaft_figures(bent(20.0))
        self.assertAlmostEqual(found.angles_deg[0], 20.0, places=9)
        self.assertAlmostEqual(found.ratio[0], math.cos(math.radians(20)), places=9)
        self.assertAlmostEqual(found.ratio[0], 0.940, places=3)
        self.assertAlmostEqual(found.ratio[len(found.ratio) // 2], 1.064, places=3)
        ten = shaft_figures(bent(10.0))
        self.assertAlmostEqual(
            ten.uneven_percent / 100, 1 / math.cos(math.radians(10)) - math.cos(math.radians(10)), places=6
        )
        self.assertAlmostEqual(ten.uneven_percent, 3.06, places=2)

    def test_two_equal_joints_in_one_plane_and_in_phase_cancel(self):
        """Both as a Z and as a W (textbook)."""
        for bends in ((25.0, -25.0), (25.0, 25.0)):
            self.assertLess(shaft_figures(bent(*bends)).uneven_percent, 1e-9)

    def test_out_of_phase_they_add_up(self):
        made = bent(25.0, -25.0).model_copy(update={"clocked_deg": 90.0})
        found, c = shaft_figures(made), math.cos(math.radians(25))
        self.assertAlmostEqual(found.ratio.max(), 1 / c**2, places=4)
        self.assertAlmostEqual(abs(found.best_clocking_deg[0]), 0.0, delta=0.2)

    def test_bends_in_different_planes_need_their_clocking(self):
        """Planes turned by an angle are evened out by clocking the yokes by it (common practice)."""
        for twist in (30.0, 62.0, 90.0):
            made = bent(22.0, 22.0, turn=(0.0, twist))
            found = shaft_figures(made)
            self.assertGreater(found.uneven_percent, 2.0)
            self.assertLess(found.best_uneven_percent, 0.02)
            self.assertAlmostEqual((found.best_clocking_deg[0] - twist + 90.0) % 180.0 - 90.0, 0.0, delta=0.2)
            clocked = made.model_copy(update={"clocked_deg": found.best_clocking_deg[0]})
            self.assertAlmostEqual(shaft_figures(clocked).uneven_percent, found.best_uneven_percent, places=3)

    def test_any_shaft_against_yokes_as_vectors(self):
        """Three joints, any angles and clockings: the angle of the last shaft, and so its speed, from vector geometry."""
        rng = np.random.default_rng(3)
        turn = np.linspace(0.0, math.pi, 721)
        for _ in range(6):
            bends, twists = rng.uniform(8, 30, 3), rng.uniform(-80, 80, 3)
            clocked = rng.uniform(-90, 90, 2)
            made = bent(*bends, turn=tuple(twists)).model_copy(
                update={"clocked_deg": clocked[0], "second_clocked_deg": clocked[1]}
            )
            angle = by_yokes(made, np.radians(clocked), turn)
            speed = np.abs(np.gradient(angle, turn, edge_order=2))
            np.testing.assert_allclose(shaft_figures(made).ratio[2:-2], speed[2:-2], atol=2e-4)

    def test_a_straight_shaft_turns_evenly(self):
        self.assertLess(shaft_figures(bent(0.0, 0.0)).uneven_percent, 1e-9)

    def test_two_points_in_one_place_are_refused(self):
        with self.assertRaises(InputError) as caught:
            shaft_figures(shaft((0, 0, 0), (300, 0, 0), (300, 0, 0), (600, 0, 0)))
        self.assertIn("joints", caught.exception.field)


class Clamp(TestCase):
    def test_the_slot_of_the_trade_s_example(self):
        """44.45 mm column in 50.8 x 3.05 tube, bore 44.70: pi x 0.25 = 0.8 mm (common practice: girth over play)."""
        clamp = ColumnClamp(column_mm=44.45, tube_mm=50.8, wall_mm=3.05)
        self.assertAlmostEqual(clamp.bore_mm, 44.70, places=9)
        self.assertAlmostEqual(slot_needed_mm(clamp), 0.785, places=3)
