"""Cope wraps against two cylinders in space, met by a root finder that knows nothing of the formula.

That two equal 44.4 x 3.15 tubes differ by some 11 mm between their walls is common practice.
"""

import math

import numpy as np
from django.test import SimpleTestCase
from scipy.optimize import brentq

from nodulant.base.errors import InputError
from nodulant.formats.dxf import pattern_dxf
from nodulant.parts.cope import Cope
from nodulant.patterns.cope import BEYOND_MM, cope_wrap
from nodulant.units.inline import told_in


def met(cope, phi, radius):
    """Walk out from the main tube's axis along a line of the branch until the main tube's surface is left, mm."""
    turn = math.radians(cope.angle_deg)
    along = np.array([math.cos(turn), 0.0, math.sin(turn)])
    # across the branch: towards the acute side in the plane of both axes, and out of that plane
    acute, out = np.array([-math.sin(turn), 0.0, math.cos(turn)]) * -1.0, np.array([0.0, 1.0, 0.0])
    start = radius * (math.cos(phi) * acute + math.sin(phi) * out) + cope.offset_mm * out

    def beyond(t):
        point = start + t * along
        return math.hypot(point[1], point[2]) - cope.main_mm / 2

    return brentq(beyond, foot(beyond), 2000.0)


def foot(beyond):
    """A place on the line inside the main tube."""
    grid = np.linspace(-300, 300, 1201)
    values = np.array([beyond(t) for t in grid])
    return float(grid[np.argmin(values)])


CASES = (
    Cope(branch_mm=44.4, wall_mm=3.15, main_mm=44.4),
    Cope(branch_mm=38.1, wall_mm=6.35, main_mm=44.4, angle_deg=60.0),
    Cope(branch_mm=31.8, wall_mm=3.0, main_mm=88.9, angle_deg=45.0, offset_mm=20.0),
    Cope(branch_mm=50.0, wall_mm=4.0, main_mm=76.0, angle_deg=75.0, offset_mm=-10.0),
)


class AgainstSpace(SimpleTestCase):
    def test_every_line_of_both_walls_meets_the_main_tube_where_the_wrap_says(self):
        for cope in CASES:
            for phi in np.linspace(0.1, math.tau, 11):
                for radius in (cope.branch_mm / 2, cope.branch_mm / 2 - cope.wall_mm):
                    with self.subTest(f"{cope} {phi:.2f}"):
                        self.assertAlmostEqual(cope.at(phi, radius), met(cope, phi, radius), delta=0.01)

    def test_two_equal_tubes_differ_by_eleven_millimetres_between_their_walls(self):
        cope = CASES[0]
        side = math.pi / 2
        self.assertAlmostEqual(cope.at(side, 22.2), 0.0, places=6)
        self.assertAlmostEqual(cope.at(side, 22.2 - 3.15), 11.4, delta=0.05)
        self.assertAlmostEqual(cope.kept(side), 11.4, delta=0.05)


class TheWrap(SimpleTestCase):
    def test_it_is_as_long_as_the_tube_is_round_and_closes(self):
        for cope in CASES:
            wrap = cope_wrap(cope)
            x0, y0, x1, _ = wrap.bounds()
            self.assertAlmostEqual(x1 - x0, math.pi * cope.branch_mm, places=6)
            cut = wrap.strokes[0].outline.vertices
            first, last = cut[0], max(cut[:-2], key=lambda v: v.x)
            self.assertAlmostEqual(first.y, last.y, places=6)
            self.assertAlmostEqual(y0, 0.0, places=6)

    def test_the_straight_edge_is_where_it_says(self):
        cope = CASES[1]
        wrap = cope_wrap(cope)
        longest = max(cope.kept(math.tau * k / 144) for k in range(145))
        self.assertIn(
            f"straight edge {longest + BEYOND_MM:.1f}",
            " ".join(t.text for t in told_in(wrap, "mm").labels).replace("\u00a0", " "),
        )

    def test_it_can_be_written(self):
        self.assertIn(b"Cope wrap", pattern_dxf(told_in(cope_wrap(CASES[2]), "in16")))


class Refused(SimpleTestCase):
    def test_a_branch_past_the_side(self):
        for fields in (
            {"branch_mm": 50.0, "wall_mm": 3.0, "main_mm": 44.4},
            {"branch_mm": 38.1, "wall_mm": 3.0, "main_mm": 44.4, "offset_mm": 10.0},
        ):
            with self.assertRaises(InputError) as caught:
                cope_wrap(Cope(**fields))
            self.assertIn("past the side", caught.exception.message)

    def test_a_solid_branch(self):
        with self.assertRaises(InputError) as caught:
            cope_wrap(Cope(branch_mm=20.0, wall_mm=10.0, main_mm=44.4))
        self.assertEqual(caught.exception.field, "wall_mm")
