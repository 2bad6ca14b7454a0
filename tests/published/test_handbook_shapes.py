"""Sections against textbook closed forms and a steel table.

Timoshenko, *Strength of Materials* part II (thin-walled torsion, shear centre); Young and
Budynas, *Roark's Formulas for Stress and Strain*, tables of sections; EN 10210-2 hollow
section table, from memory.
"""

import math

import numpy as np
from django.test import SimpleTestCase

from nodulant.frame.model import STOCK, planned_state, sections
from nodulant.sections import pieces
from nodulant.sections.channel import shear_centre_offset_mm
from nodulant.sections.properties import combine
from nodulant.sections.torsion import torsion
from nodulant.sections.walls import Network, Wall
from tests import fixtures as f

ONE = np.ones(1)


def node(y, z):
    return np.array([[y, z]], dtype=float)


def wall(a, b, t):
    return Wall(a, b, t * ONE, ONE, 250.0)


class ClosedForms(SimpleTestCase):
    """If a rectangle is wrong, everything built from rectangles is."""

    def test_rectangle(self):
        p = combine([pieces.rectangle("r", 0 * ONE, 20 * ONE, 5 * ONE, 65 * ONE, ONE, ONE, (250.0, 250.0))])
        self.assertAlmostEqual(p.area[0], 20 * 60)
        self.assertAlmostEqual(p.i_y[0], 20 * 60**3 / 12, places=3)
        self.assertAlmostEqual(p.i_z[0], 60 * 20**3 / 12, places=3)
        self.assertAlmostEqual(p.s_top[0], 20 * 60**2 / 6, places=4)
        self.assertAlmostEqual(p.centroid_z[0], 35)

    def test_channel_by_subtraction(self):
        """I of a channel = outer rectangle less the hollow (Roark, table of sections)."""
        h, b, t = 150.0, 60.0, 5.0
        p = sections(f.survey_of(f.straight_rail(h, b, t)), (), "left", f.stations_at(1500), STOCK).properties
        self.assertAlmostEqual(p.area[0], b * h - (b - t) * (h - 2 * t), places=6)
        self.assertAlmostEqual(p.i_y[0], (b * h**3 - (b - t) * (h - 2 * t) ** 3) / 12, places=2)
        self.assertAlmostEqual(p.s_top[0], p.s_bottom[0], places=4)

    def test_open_channel_torsion_is_the_sum_of_its_strips(self):
        """J = sum(b t^3)/3 (Timoshenko)."""
        h, b, t = 150.0, 60.0, 5.0
        j = sections(f.survey_of(f.straight_rail(h, b, t)), (), "left", f.stations_at(1500), STOCK).torsion.j[0]
        strips = (2 * (b - t / 2) + (h - t)) * t**3 / 3
        self.assertAlmostEqual(j / strips, 1.0, delta=0.02)

    def test_round_corners_take_their_exact_area(self):
        """A rounded corner loses (1 - pi/4)(R^2 - r^2)."""
        sharp = sections(f.survey_of(f.straight_rail()), (), "left", f.stations_at(1500), STOCK).properties.area[0]
        soft = sections(f.survey_of(f.straight_rail(radius=8)), (), "left", f.stations_at(1500), STOCK).properties.area[
            0
        ]
        exact = 2 * (1 - math.pi / 4) * (13**2 - 8**2)
        self.assertAlmostEqual(sharp - soft, exact, delta=0.03 * exact)


class Bredt(SimpleTestCase):
    """Boxing multiplies torsion by hundreds; a wrong cell would promise stiffness that is not there."""

    def test_one_cell(self):
        """J = 4 A^2 / sum(s/t), corners not shortened where three walls would meet."""
        b, h, t = 100.0, 60.0, 4.0
        nodes = {"a": node(0, 0), "b": node(b, 0), "c": node(b, h), "d": node(0, h)}
        net = Network(nodes, (wall("a", "b", t), wall("b", "c", t), wall("c", "d", t), wall("d", "a", t)))
        j = torsion(net).j[0]
        thin = 4 * (b * h) ** 2 / (2 * (b + h) / t)
        # square corners conduct 0.44 squares better each, and the walls keep their own s t^3 / 3
        exact = 4 * (b * h) ** 2 / (2 * (b + h) / t - 4 * 0.44) + 2 * (b + h) * t**3 / 3
        self.assertAlmostEqual(j / exact, 1.0, places=8)
        self.assertAlmostEqual(j / thin, 1.0, delta=0.03)

    def test_middle_wall_of_two_equal_cells_is_idle(self):
        """By symmetry q1 = q2: the shared wall carries nothing and J is that of the outer tube (Timoshenko)."""
        b, h, t = 100.0, 60.0, 4.0
        places = {"a": (0, 0), "b": (b, 0), "c": (2 * b, 0), "d": (2 * b, h), "e": (b, h), "g": (0, h)}
        nodes = {name: node(*place) for name, place in places.items()}
        outer = [wall(*p, t) for p in (("a", "b"), ("b", "c"), ("c", "d"), ("d", "e"), ("e", "g"), ("g", "a"))]
        two = torsion(Network(nodes, (*outer, wall("b", "e", t)))).j[0]
        one = torsion(Network(nodes, tuple(outer))).j[0]
        idle = h * t**3 / 3
        self.assertAlmostEqual((two - idle) / one, 1.0, delta=0.02)

    def test_a_plate_that_is_not_developed_closes_its_cell_in_part(self):
        """Saint-Venant: from the free end inward the twist flexibility goes from the open section's to the tube's."""
        b, h, t = 100.0, 60.0, 4.0
        nodes = {"a": node(0, 0), "b": node(b, 0), "c": node(b, h), "d": node(0, h)}
        young = Wall("d", "a", t * ONE, 0.8 * ONE, 250.0)
        result = torsion(Network(nodes, (wall("a", "b", t), wall("b", "c", t), wall("c", "d", t), young)))
        shut = Wall("d", "a", t * ONE, ONE, 250.0)
        tube = torsion(Network(nodes, (wall("a", "b", t), wall("b", "c", t), wall("c", "d", t), shut))).j[0]
        strips = (2 * b + h + 0.8 * h) * t**3 / 3
        self.assertFalse(result.closed[0])
        self.assertAlmostEqual(1 / result.j[0], 0.2 / strips + 0.8 / tube, delta=0.05 / result.j[0])

    def test_torque_at_yield_of_a_thin_tube(self):
        """Tau = T / (2 A t): capacity = 2 A t x 0.577 f_y on the thinnest wall (Bredt's first formula), less the wall's own strip."""
        b, h, t = 400.0, 300.0, 2.0
        nodes = {"a": node(0, 0), "b": node(b, 0), "c": node(b, h), "d": node(0, h)}
        net = Network(nodes, (wall("a", "b", t), wall("b", "c", t), wall("c", "d", t), wall("d", "a", t)))
        self.assertAlmostEqual(torsion(net).capacity[0] / (2 * b * h * t * 0.577 * 250), 1.0, delta=0.015)


class SteelTable(SimpleTestCase):
    """RHS 150 x 100 x 5 of EN 10210-2 (from memory): A 23.7 cm2, Ixx 739 cm4, Iyy 392 cm4, It 807 cm4.

    Made here of a channel with rounded corners and a flush plate, so two of its corners are
    square where the tube's are round: 3 % allowed.
    """

    def test_hollow_section(self):
        rail = f.straight_rail(150.0, 100.0, 5.0, radius=5.0)
        box = f.boxing("flush", 5.0)
        s = sections(f.survey_of(rail), (box,), "left", f.stations_at(1500), planned_state((box,)))
        for name, mine, table in (
            ("A", s.properties.area[0], 23.7e2),
            ("Ixx", s.properties.i_y[0], 739e4),
            ("Iyy", s.properties.i_z[0], 392e4),
            ("It", s.torsion.j[0], 807e4),
        ):
            with self.subTest(name):
                self.assertAlmostEqual(mine / table, 1.0, delta=0.03)


class ShearCentre(SimpleTestCase):
    """A load hung outboard of the web twists an open channel: how far outboard the balance lies."""

    def test_textbook_limit(self):
        """For b = h to mid-lines e = 3 b^2 / (b + 6 b) = 3 b / 7 (Timoshenko)."""
        t = 1e-6
        self.assertAlmostEqual(shear_centre_offset_mm(70.0 + t, 70.0 + t / 2, t), 30.0, places=4)
