"""Cells that close by degrees, lives, slenderness, the frame between steps, and options side by side."""

import math

import numpy as np
from django.test import SimpleTestCase

from nodulant.evaluate import Want, evaluate
from nodulant.evaluate.side_by_side import side_by_side
from nodulant.frame.model import planned_state, sections
from nodulant.job.document import Rates, Shop
from nodulant.strength.fatigue import CLASSES, FOR_EVER, cycles, gamma_of, relative_life, shear_cycles
from tests import fixtures as f
from tests.core.test_operations import made


class Life(SimpleTestCase):
    """EN 1993-1-9 (from memory): slope 3 to five million cycles, then 5, then for ever; shear slope 5."""

    def test_the_class_is_the_range_at_two_million_cycles(self):
        self.assertAlmostEqual(cycles(80.0, 80.0, 1.0), 2e6)
        self.assertAlmostEqual(cycles(80.0, 40.0 * 2, 1.0) / cycles(80.0, 160.0, 1.0), 8.0)

    def test_the_knee_joins_at_five_million(self):
        knee = 0.737 * 80.0
        self.assertAlmostEqual(cycles(80.0, knee, 1.0) / 5e6, 1.0, delta=2e-3)
        self.assertAlmostEqual(cycles(80.0, knee * 0.999, 1.0) / 5e6, 1.0, delta=1e-2)

    def test_below_the_cut_off_for_ever(self):
        self.assertEqual(cycles(80.0, 0.404 * 80.0, 1.0), FOR_EVER)
        self.assertAlmostEqual(cycles(80.0, 0.4051 * 80.0, 1.0) / 1e8, 1.0, delta=0.02)

    def test_shear_has_slope_five(self):
        self.assertAlmostEqual(shear_cycles(80.0, 80.0, 1.0), 2e6)
        self.assertAlmostEqual(shear_cycles(80.0, 160.0, 1.0), 2e6 / 32)
        self.assertEqual(shear_cycles(80.0, 0.45 * 80.0, 1.0), FOR_EVER)

    def test_a_root_that_nobody_sees_has_its_own_partial_factor(self):
        self.assertEqual((gamma_of("butt-blind"), gamma_of("plate-end")), (1.35, 1.15))

    def test_a_half_depth_notch_by_hand(self):
        """150 x 60 x 5 channel cut to 75 mm under 1.2 kNm static: the remaining tee, edge class 80, gamma 1.15."""
        self.assertAlmostEqual(cycles(80.0, 69.0) / (2e6 * (80.0 / 1.15 / 69.0) ** 3), 1.0)

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

    def test_a_ground_butt_outlives_a_blind_one(self):
        lives = [
            f.check_of(evaluate(f.with_operations(f.demo(), made("z-step", weld=weld))), "fatigue-life:it-butt:left")
            for weld in ("one-sided", "two-sided-ground")
        ]
        self.assertLess(lives[0].value, lives[1].value)

    def test_relative_life_is_the_third_power(self):
        self.assertAlmostEqual(relative_life(125.0, 100.0, 100.0), 1.0)
        self.assertAlmostEqual(relative_life(125.0, 100.0, 50.0), 8.0)
        self.assertAlmostEqual(relative_life(36.0, 100.0, 100.0), (36 / 125) ** 3)

    def test_without_loads_it_is_not_computed(self):
        check = f.check_of(
            evaluate(f.with_survey(f.with_operations(f.demo(), made("plate")), masses=())), "fatigue-life:it-end:left"
        )
        self.assertEqual(check.verdict, "not computed")

    def test_a_thin_wide_flange_is_slender(self):
        """EN 1993-1-1 table 5.2: outstand 14 e, e = sqrt(235/248); stock's own is a note, not this job's."""
        rail = f.straight_rail(width=120.0, wall=3.0)
        inputs = f.demo().model_copy(update={"survey": f.survey_of(rail)})
        inputs = inputs.model_copy(update={"design": inputs.design.model_copy(update={"operations": (), "seats": ()})})
        check = f.check_of(evaluate(inputs), "slender:rail:left")
        self.assertAlmostEqual(check.value, 39.0 / (14 * math.sqrt(235 / 248)), places=9)
        self.assertNotEqual(check.verdict, "holds")

    def test_a_thin_deep_plate_buckles_in_shear_and_a_tall_cap_in_its_sides(self):
        """EN 1993-1-5 5.1: 31 e sqrt(k), k = 5.34 + 4 (h/a)^2; table 5.2: 42 e. Heights by subtraction, e = sqrt(235/248)."""
        e = math.sqrt(235 / 248)
        long = {"end": {"anchor_id": "rear-axle", "offset_mm": 300.0}, "ends": "square"}
        thin = f.with_operations(f.demo(), made("plate", low_mm=0.0, high_mm=0.0, thickness_mm=1.6, **long))
        check = f.check_of(evaluate(thin), "slender:rail:left")
        high = check.why.values["slenderness"] * 1.6
        self.assertGreater(high, 100.0)
        self.assertAlmostEqual(
            check.why.values["limit"], 31 * e * math.sqrt(5.34 + 4 * (high / 1200.0) ** 2), delta=0.05
        )
        tall = f.straight_notch(40.0, cap=f.cap(2.0, height=120.0))
        place = f.demo().design.operations[-1].place
        check = f.check_of(
            evaluate(f.with_operations(f.demo(), tall.model_copy(update={"place": place}))), "slender:rail:left"
        )
        self.assertAlmostEqual(check.value, 120.0 / 2.0 / (42 * e), places=6)
        self.assertEqual(check.verdict, "fails")

    def test_stock_s_own_slender_flange_hides_no_slender_plate(self):
        """Flange 116/4 over 14 e is stock's; a plate of 148/1.6 over 72 e is this job's and is told, though it is the lesser."""
        rail = f.straight_rail(width=120.0, wall=4.0)
        inputs = f.demo().model_copy(update={"survey": f.survey_of(rail)})
        inputs = inputs.model_copy(
            update={"design": inputs.design.model_copy(update={"seats": (), "crossmembers": ()})}
        )
        span = {name: {"anchor_id": "mid", "offset_mm": x} for name, x in (("start", -600.0), ("end", 600.0))}
        thin = made("plate", **span, low_mm=0.0, high_mm=0.0, thickness_mm=1.6)
        bare = f.check_of(evaluate(f.with_operations(inputs)), "slender:rail:left")
        plated = f.check_of(evaluate(f.with_operations(inputs, thin)), "slender:rail:left")
        self.assertEqual((bare.verdict, plated.verdict), ("stock itself", "fails"))
        self.assertGreater(bare.value, plated.value)
        self.assertIn("outer plate", plated.why.words)


class Closure(SimpleTestCase):
    """A plate closes its cell by degrees from its free end, never by a jump."""

    def of(self, box, *x):
        survey = f.survey_of(f.straight_rail())
        return sections(survey, (box,), "left", f.stations_at(*x), planned_state((box,))).torsion

    def test_it_rises_from_the_free_end_to_the_whole_cell(self):
        box = f.boxing("flush", 5.0, half=400.0)
        torsion = self.of(box, 1100.5, 1130.0, 1200.0, 1500.0)
        self.assertTrue(np.all(np.diff(torsion.closure) >= 0))
        self.assertLess(torsion.closure[0], 0.02)
        self.assertAlmostEqual(torsion.closure[-1], 1.0)
        self.assertTrue(np.all(np.diff(torsion.j) >= 0))

    def test_a_millimetre_more_changes_no_figure_by_much(self):
        one, other = (self.of(f.boxing("flush", 5.0, half=h), 1150.0).j[0] for h in (400.0, 401.0))
        self.assertLess(abs(other / one - 1.0), 0.03)


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
