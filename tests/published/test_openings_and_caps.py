"""What is left beside a hole, cap ends and shear buckling, by hand and against a second calculation."""

import numpy as np
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from nodulant.evaluate import evaluate
from nodulant.frame.ops.hole import WebHole
from nodulant.frame.place import Place
from nodulant.strength.cap_end import end_flow
from nodulant.strength.opening import Tee, tee_bending
from nodulant.strength.slender import shear_factor
from tests import fixtures as f

QUICK = settings(deadline=None, derandomize=True, max_examples=60)


class Tees(SimpleTestCase):
    def test_a_tee_by_hand(self):
        """Flange 60 x 5, stem 5 x 45: centroid (300 x 2.5 + 225 x 27.5)/525 = 13.214; I = 119 246; S = 119 246/36.786."""
        tee = Tee(deep_mm=50.0, web_mm=5.0, flange_mm=60.0, flange_thickness_mm=5.0)
        self.assertAlmostEqual(tee.centre_mm, 13.2143, places=3)
        by_hand = 60 * 5**3 / 12 + 300 * (13.2143 - 2.5) ** 2 + 5 * 45**3 / 12 + 225 * (27.5 - 13.2143) ** 2
        self.assertAlmostEqual(tee.second_moment, by_hand, delta=1.0)
        self.assertAlmostEqual(tee.modulus, by_hand / (50 - 13.2143), delta=0.1)

    def test_a_frame_without_diagonals_by_hand(self):
        """Two equal tees carry half of the shear each, and half of it times half the opening bends either end."""
        tee = Tee(50.0, 5.0, 60.0, 5.0)
        self.assertAlmostEqual(tee_bending((tee, tee), 10_000.0, 40.0), 5000 * 20 / tee.modulus, places=6)

    def test_shear_goes_with_stiffness(self):
        """Of two panels that deflect alike the stiffer takes the more: V1/V2 = I1/I2."""
        deep, shallow = Tee(60.0, 5.0, 60.0, 5.0), Tee(30.0, 5.0, 60.0, 5.0)
        shares = [t.second_moment / (deep.second_moment + shallow.second_moment) for t in (deep, shallow)]
        stresses = [10_000 * s * 20 / t.modulus for s, t in zip(shares, (deep, shallow), strict=True)]
        self.assertAlmostEqual(tee_bending((deep, shallow), 10_000.0, 40.0), max(stresses), places=6)

    @QUICK
    @given(st.floats(10, 90), st.floats(2, 10), st.floats(20, 90), st.floats(2, 10))
    def test_against_a_numerical_section(self, deep, web, flange, thick):
        if deep <= thick + 1:
            return
        tee = Tee(deep, web, flange, thick)
        z = (np.arange(200_000) + 0.5) * deep / 200_000
        wide = np.where(z < thick, flange, web)
        centre = (wide * z).sum() / wide.sum()
        second = (wide * (z - centre) ** 2).sum() * deep / 200_000
        self.assertAlmostEqual(tee.second_moment / second, 1.0, places=3)


class CapEnds(SimpleTestCase):
    @QUICK
    @given(st.floats(1e3, 1e5), st.floats(10, 60), st.floats(30, 200), st.floats(30, 90))
    def test_the_group_against_its_weld_cut_into_pieces(self, force, away, long, across):
        """Every millimetre of weld by itself: its share of the shear, and the moment by its distance from the middle."""
        line = (np.arange(20_000) + 0.5) * long / 20_000
        x = np.concatenate([line, line, np.zeros(20_000)])
        piece = np.concatenate([np.full(40_000, long / 20_000), np.full(20_000, across / 20_000)])
        middle = (piece * x).sum() / piece.sum()
        second = (piece * (x - middle) ** 2).sum()
        shear, lift = end_flow(force, away, long, across)
        self.assertAlmostEqual(shear, force / piece.sum(), places=6)
        most = max(middle, long - middle)
        self.assertAlmostEqual(lift / (force * away * most / second), 1.0, places=4)

    def test_two_lines_alone_are_six_m_over_l_squared_by_two(self):
        """Without a weld across, each of two lines has section l^2/6: M/(2 l^2/6) = 3 M/l^2."""
        _, lift = end_flow(10_000.0, 30.0, 100.0, 0.0)
        self.assertAlmostEqual(lift, 3 * 10_000 * 30 / 100**2, places=9)


class ShearBuckling(SimpleTestCase):
    def test_long_square_and_short_fields(self):
        """EN 1993-1-5 A.3 (from memory): 5.34 for a long field, 9.34 for a square one, both formulas alike there."""
        tall = np.array([100.0])
        self.assertAlmostEqual(float(shear_factor(tall, 1e6)[0]), 5.34, places=4)
        self.assertAlmostEqual(float(shear_factor(tall, 100.0)[0]), 9.34, places=9)
        self.assertAlmostEqual(float(shear_factor(tall, 50.0)[0]), 4 + 5.34 * 4, places=9)

    def test_the_long_field_is_the_rule_of_72(self):
        self.assertAlmostEqual(31 * float(np.sqrt(shear_factor(np.array([1.0]), 1e6)[0])), 72.0, delta=0.5)


class InAJob(SimpleTestCase):
    def rows(self, diameter: float, height: float = 75.0, offset: float = -500.0):
        place = Place(anchor_id=f.demo("arc").design.operations[-1].place.anchor_id, offset_mm=offset)
        hole = WebHole(id="big", name="Big hole", place=place, height_mm=height, diameter_mm=diameter)
        inputs = f.with_operations(f.demo("arc"), hole)
        return [c for c in evaluate(inputs).checks if c.limit_id == "hole-bending"]

    def test_a_bolt_hole_has_no_row_and_a_large_one_has(self):
        self.assertEqual(self.rows(13.5), [])
        rows = self.rows(90.0)
        self.assertEqual({c.id for c in rows}, {"hole-bending:big:left", "hole-bending:big:right"})

    def test_larger_is_worse(self):
        values = [max(c.value for c in self.rows(d)) for d in (40.0, 60.0, 80.0, 100.0, 120.0)]
        self.assertEqual(values, sorted(values))

    def test_a_hole_that_leaves_only_flanges_fails(self):
        self.assertEqual({c.verdict for c in self.rows(138.0)}, {"fails"})

    def test_its_why_gives_the_value(self):
        for check in self.rows(90.0):
            v = check.why.values
            self.assertAlmostEqual(check.value, (v["along"] + v["tee"]) / v["allowed"], places=9)

    def test_a_cap_s_end_carries_what_the_moment_there_asks(self):
        """Half as much again of every mass is half as much again of the moment, of the cap's force and of its welds' use."""
        inputs = f.demo("step")
        heavier = tuple(m.model_copy(update={"mass_kg": 1.5 * m.mass_kg}) for m in inputs.survey.masses)
        loaded = inputs.model_copy(update={"survey": inputs.survey.model_copy(update={"masses": heavier})})
        one, two = (
            {c.id: c for c in evaluate(i).checks if c.limit_id == "cap-end" and c.governs.case == "brake"}
            for i in (inputs, loaded)
        )
        both = one.keys() & two.keys()
        self.assertTrue(both)
        for key in both:
            self.assertAlmostEqual(two[key].value / one[key].value, 1.5, delta=0.05)
            v = one[key].why.values
            self.assertAlmostEqual(one[key].value, np.hypot(v["shear"], v["lift"]) / v["line"], places=9)
