"""Short gaps in a box, relative life, slenderness, the frame between steps, and options side by side."""

import math

import numpy as np
from django.test import SimpleTestCase

from nodulant.evaluate import Want, evaluate
from nodulant.evaluate.side_by_side import side_by_side
from nodulant.frame.model import planned_state, sections
from nodulant.job.document import Rates, Shop
from nodulant.loads.space_frame import Held, Members, solve
from nodulant.materials.steel import ELASTIC_MODULUS_MPA, SHEAR_MODULUS_MPA
from nodulant.sections.gaps import bridged
from nodulant.sections.torsion import Torsion
from nodulant.strength.fatigue import CLASSES, relative_life
from nodulant.survey.rail import Rail, Station
from tests import fixtures as f
from tests.core.test_operations import made


class Gaps(SimpleTestCase):
    """Saint-Venant alone would let 40 mm of slit soften a frame like sixteen metres of it."""

    def bridge(self, length=60.0, webs=(4.0, 4.0), height=100.0, width=60.0):
        x = np.array([0.0, 10.0, 10.0 + length / 2, 10.0 + length, 20.0 + length])
        closed = np.array([True, True, False, True, True])
        j = np.where(closed, 2e6, 4e3)
        plain = Torsion(j, np.where(closed, 9e6, 1e5), closed, np.where(closed, 1e-4, 0.0))
        ones = np.ones_like(x)
        sizes = (height * ones, width * ones)
        return plain, bridged(x, plain, closed, (webs[0] * ones, webs[1] * ones), sizes, 248.0)

    def test_stiffness_is_that_of_two_clamped_webs(self):
        """Against the space frame: two webs, ends clamped in a rigid slice, twisted by a couple."""
        length, t, h, b = 80.0, 4.0, 60.0, 60.0
        _, ours = self.bridge(length, (t, t), h, b)
        inertia = t * h**3 / 12
        nodes = np.array([[0, -b / 2, 0], [0, b / 2, 0], [length, -b / 2, 0], [length, b / 2, 0]], dtype=float)
        stiff, small = 1e9, 1e-3
        members = Members(
            np.array([0, 1, 0, 2]),
            np.array([2, 3, 1, 3]),
            np.array([stiff, stiff, stiff, stiff]),
            np.array([inertia, inertia, stiff, stiff]),
            np.array([stiff, stiff, stiff, stiff]),
            np.array([small, small, stiff, stiff]),
            np.ones(4),
        )
        held = Held((0, 0, 0, 0, 0, 0, 1, 1, 1, 1, 1, 1, 2, 3), (0, 1, 2, 3, 4, 5, 0, 1, 2, 3, 4, 5, 4, 4))
        loads = np.zeros((1, 4, 6))
        loads[0, 2, 2], loads[0, 3, 2] = -1.0, 1.0
        w = solve(nodes, members, held, loads).displacements[0, 2:, 2]
        angle = (w[1] - w[0]) / b
        per_length = b / angle * length / SHEAR_MODULUS_MPA
        self.assertAlmostEqual((ours.j[2] - 4e3) / per_length, 1.0, delta=2e-3)
        self.assertAlmostEqual(
            ours.j[2] - 4e3, 12 * ELASTIC_MODULUS_MPA * b**2 * inertia / 2 / (SHEAR_MODULUS_MPA * length**2), delta=1.0
        )

    def test_never_stiffer_or_stronger_than_its_closed_ends(self):
        plain, ours = self.bridge(length=2.0)
        self.assertEqual((ours.j[2], ours.capacity[2]), (plain.j[1], plain.capacity[1]))

    def test_a_long_gap_or_one_web_is_left_open(self):
        for plain, ours in (self.bridge(length=400.0), self.bridge(webs=(4.0, 0.0))):
            np.testing.assert_array_equal(ours.j, plain.j)
            self.assertFalse(ours.closed[2])

    def test_a_lined_notch_in_a_box_keeps_most_of_the_frame_s_stiffness(self):
        rows = tuple(Station(x_mm=x, underside_z_mm=0, height_mm=110, width_mm=70, wall_mm=3.5) for x in (0.0, 3000.0))
        survey = f.survey_of(Rail(kind="rect-tube", stations=rows, steel_id="mild"))
        notch = f.straight_notch(30.0, 110.0, 150.0, 13.0, liner=f.liner(5.0), outer_plate=f.side_plate(5.0))
        x = f.stations_at(*np.arange(1380.0, 1620.0, 4.0))
        section = sections(survey, (notch,), "left", x, planned_state((notch,)))
        self.assertTrue(section.torsion.closed.all())
        self.assertGreater(section.torsion.j.min() / section.torsion.j.max(), 0.3)


class Life(SimpleTestCase):
    """A weld can take away more life than its metal brings."""

    def test_third_power(self):
        """EN 1993-1-9: N = 2e6 (C / range)^3 (from memory)."""
        self.assertAlmostEqual(relative_life(125.0, 100.0, 100.0), 1.0)
        self.assertAlmostEqual(relative_life(125.0, 100.0, 50.0), 8.0)
        self.assertAlmostEqual(relative_life(36.0, 100.0, 100.0), (36 / 125) ** 3)

    def test_classes_are_those_of_the_standard(self):
        rows = {
            "edge-dressed": 125,
            "edge-rough": 80,
            "butt-ground": 112,
            "butt": 90,
            "butt-backed": 71,
            "butt-blind": 36,
        }
        self.assertEqual({k: CLASSES[k] for k in rows}, rows)

    def test_below_stock_s_life_a_check_is_close_and_never_holds(self):
        blind = made("z-step", weld="one-sided")
        ground = made("z-step", weld="two-sided-ground")
        rows = [f.check_of(evaluate(f.with_operations(f.demo(), op)), "fatigue:it-butt:left") for op in (blind, ground)]
        self.assertEqual(rows[0].verdict, "close")
        self.assertIn("lowers the class", rows[0].remedy)
        self.assertAlmostEqual(rows[1].value / rows[0].value, (112 / 36) ** 3, delta=0.01)

    def test_without_loads_it_is_not_computed(self):
        check = f.check_of(
            evaluate(f.with_survey(f.with_operations(f.demo(), made("plate")), masses=())), "fatigue:it-end:left"
        )
        self.assertEqual(check.verdict, "not computed")

    def test_a_thin_wide_flange_is_slender(self):
        """EN 1993-1-1 table 5.2: outstand 14 e, e = sqrt(235/248)."""
        rail = f.straight_rail(width=120.0, wall=3.0)
        inputs = f.demo().model_copy(update={"survey": f.survey_of(rail)})
        inputs = inputs.model_copy(update={"design": inputs.design.model_copy(update={"operations": (), "seats": ()})})
        check = f.check_of(evaluate(inputs), "slender:rail:left")
        self.assertAlmostEqual(check.value, 39.0 / (14 * math.sqrt(235 / 248)), places=9)
        self.assertEqual(check.verdict, "fails")


class Between(SimpleTestCase):
    """The frame is weakest between two weekends, and people move it then."""

    def test_a_rail_in_two_carries_nothing(self):
        rows = evaluate(f.with_operations(f.demo(), made("z-step"))).interim
        self.assertEqual(
            [(r.side, r.in_two, r.may_stand, r.may_move) for r in rows],
            [("left", True, False, False), ("right", True, False, False)],
        )
        self.assertIn("in two", rows[0].words)

    def test_an_open_notch_is_used_more_the_deeper_it_is(self):
        uses = [
            evaluate(
                f.with_operations(
                    f.demo(), made("notch", depth_mm=d, place={"anchor_id": "front-hanger", "offset_mm": -700.0})
                )
            )
            .interim[0]
            .use
            for d in (20.0, 60.0, 110.0)
        ]
        self.assertEqual(uses, sorted(uses))
        self.assertGreater(uses[2], 2 * uses[0])

    def test_nothing_that_only_adds_metal_is_listed(self):
        self.assertEqual(evaluate(f.with_operations(f.demo(), made("plate"), made("bracket", id="b"))).interim, ())

    def test_left_out_when_not_asked_for(self):
        self.assertEqual(evaluate(f.demo(), Want(interim=False)).interim, ())


class SideBySide(SimpleTestCase):
    """Two options are compared on the same figures, or on none."""

    def rows(self, shop=None):
        named = [
            (o, o, f.demo(o) if shop is None else f.demo(o).model_copy(update={"shop": shop})) for o in ("arc", "step")
        ]
        return side_by_side(named)

    def test_rows_are_what_the_options_say_by_themselves(self):
        both = self.rows()
        rows = {r.key: r for r in both.rows}
        for i, option in enumerate(("arc", "step")):
            result = evaluate(f.demo(option))
            least = min(c.value for c in result.checks if c.limit_id == "modulus-bottom")
            self.assertAlmostEqual(rows["modulus-bottom"].values[i], least)
            self.assertAlmostEqual(rows["mass"].values[i], result.mass_added_kg)
            self.assertAlmostEqual(rows["weld"].values[i], result.weld_mm / 1000)
            self.assertEqual(
                both.options[i].fails, sum(c.verdict == "fails" for c in result.checks if c.state != "interim")
            )

    def test_heat_goes_with_the_square_of_the_leg(self):
        rows = {r.key: r for r in self.rows().rows}
        self.assertGreater(rows["heat"].values[1], rows["heat"].values[0])

    def test_cost_only_with_all_rates(self):
        self.assertNotIn("cost", [r.key for r in self.rows().rows])
        shop = Shop(rates=Rates(currency="EUR", hour=60.0, plate_kg=2.0, weld_m=4.0))
        row = next(r for r in self.rows(shop).rows if r.key == "cost")
        rows = {r.key: r for r in self.rows(shop).rows}
        by_hand = 60 * rows["hours"].values[0] + 2 * rows["mass"].values[0] + 4 * rows["weld"].values[0]
        self.assertAlmostEqual(row.values[0], by_hand)
        self.assertEqual(row.unit, "EUR")
