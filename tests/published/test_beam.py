"""Shear and moment against textbook beams (Gere and Goodno, *Mechanics of Materials*, beam tables).

One rail carries half of everything; g = 9.80665 m/s2 exactly (3rd CGPM, 1901).
"""

import numpy as np
from django.test import SimpleTestCase

from nodulant.base.errors import NotSolvable
from nodulant.loads.beam import G, internal_forces, reactions
from nodulant.survey.vehicle import Mass, Seat


def seats(front=0.0, rear=2000.0):
    return (
        Seat(id="f", name="front", axle="front", x_mm=front, share=1),
        Seat(id="r", name="rear", axle="rear", x_mm=rear, share=1),
    )


def mass(kg, x, to=None):
    return Mass(id="m", name="m", mass_kg=kg, x_mm=x, to_x_mm=to)


class TextbookBeams(SimpleTestCase):
    """The moment over the axle decides the whole repair."""

    x = np.linspace(-1000.0, 3000.0, 4001)

    def at(self, values, x):
        return float(np.interp(x, self.x, values))

    def test_point_load_at_mid_span(self):
        forces = internal_forces(self.x, [mass(400, 1000)], seats())
        p, span = 400 * G / 2, 2000.0
        self.assertAlmostEqual(self.at(forces.moment, 1000) / (p * span / 4), 1.0, places=6)
        self.assertAlmostEqual(self.at(forces.shear, 500), p / 2, places=6)
        self.assertAlmostEqual(self.at(forces.shear, 1500), -p / 2, places=6)

    def test_uniform_load(self):
        forces = internal_forces(self.x, [mass(400, 0, 2000)], seats())
        total, span = 400 * G / 2, 2000.0
        self.assertAlmostEqual(self.at(forces.moment, 1000) / (total * span / 8), 1.0, places=6)

    def test_overhang_hogs_over_the_support(self):
        """Load P at distance a beyond the rear support: M = -P a there (overhanging beam)."""
        forces = internal_forces(self.x, [mass(900, 500), mass(100, 2600)], seats())
        self.assertAlmostEqual(self.at(forces.moment, 2000), -100 * G / 2 * 600, delta=1.0)

    def test_moment_closes_at_both_ends(self):
        forces = internal_forces(self.x, [mass(300, -400, 2700), mass(50, 1800)], seats())
        self.assertAlmostEqual(forces.moment[0], 0, places=6)
        self.assertAlmostEqual(forces.moment[-1] / max(abs(forces.moment)), 0, places=9)
        self.assertAlmostEqual(forces.shear[-1], 0, places=6)

    def test_reactions_by_lever_law(self):
        held = reactions([mass(100, 500)], seats())
        self.assertAlmostEqual(held.front, 100 * G * 0.75)
        self.assertAlmostEqual(held.rear, 100 * G * 0.25)

    def test_shear_is_the_slope_of_the_moment(self):
        forces = internal_forces(self.x, [mass(300, 100, 1900), mass(80, 700)], seats())
        slope = np.gradient(forces.moment, self.x)
        smooth = np.abs(np.gradient(forces.shear)) < 1.0
        np.testing.assert_allclose(slope[smooth], forces.shear[smooth], atol=1.0)

    def test_leaf_hangers_share_in_halves(self):
        """A leaf spring midway between its hangers gives each half: the moment over the axle is then no cusp."""
        two = (
            seats()[0],
            Seat(id="a", name="a", axle="rear", x_mm=1500, share=0.5),
            Seat(id="b", name="b", axle="rear", x_mm=2500, share=0.5),
        )
        spread = internal_forces(self.x, [mass(500, 900)], two)
        single = internal_forces(self.x, [mass(500, 900)], seats())
        self.assertGreater(self.at(spread.moment, 2000), self.at(single.moment, 2000))


class Refusals(SimpleTestCase):
    """A frame that cannot rest must say so instead of giving figures."""

    def test_shares_must_add_up(self):
        wrong = (seats()[0], Seat(id="r", name="r", axle="rear", x_mm=2000, share=0.4))
        with self.assertRaisesMessage(NotSolvable, "rear seats do not add up to 1"):
            reactions([mass(100, 500)], wrong)

    def test_seats_in_order(self):
        with self.assertRaisesMessage(NotSolvable, "do not lie behind"):
            reactions([mass(100, 500)], seats(2000, 0))

    def test_tipping(self):
        with self.assertRaisesMessage(NotSolvable, "tips over"):
            reactions([mass(100, 2600)], seats())
