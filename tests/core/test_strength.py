"""Use against stock, station by station: each frame under its own supports."""

import numpy as np
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from nodulant.evaluate import Want, evaluate
from nodulant.frame.model import STOCK, planned_state
from nodulant.job.document import Design
from nodulant.loads.cases import CASES, find_case
from nodulant.strength.rail import compare_rail, missing_for_loads, missing_for_sections
from nodulant.survey.vehicle import Mass
from tests import fixtures as f

QUICK = settings(deadline=None, derandomize=True, max_examples=40)


def compare(inputs, side="left", state=None):
    design = inputs.design
    return compare_rail(inputs.survey, design.operations, design.seats, side, state or planned_state(design.operations))


class Criterion(SimpleTestCase):
    """A frame is judged by what it is used against what it was used."""

    def test_an_untouched_frame_equals_itself(self):
        inputs = f.with_operations(f.demo())
        bare = inputs.model_copy(update={"design": inputs.design.model_copy(update={"seats": ()})})
        comparison = compare(bare, state=STOCK)
        for values in (comparison.ratios.modulus_top, comparison.ratios.shear_area, comparison.ratios.torsion_constant):
            np.testing.assert_array_equal(values, 1.0)
        np.testing.assert_array_equal(comparison.loading.use_stock.reference, comparison.loading.use_state.reference)
        untouched = inputs.model_copy(update={"design": Design()})
        for check in evaluate(untouched).checks:
            if check.limit_id in {"use-limit", "case-limit", "accident-use", "capacity-least"}:
                self.assertIn(check.verdict, {"holds", "stock itself"}, check.id)

    def test_moving_the_seat_changes_the_moment_over_the_notch_not_the_section(self):
        inputs = f.demo()
        leaves = inputs.model_copy(update={"design": inputs.design.model_copy(update={"seats": ()})})
        a, b = compare(inputs), compare(leaves)
        np.testing.assert_array_equal(a.ratios.modulus_top[:50], b.ratios.modulus_top[:50])
        at = [float(np.interp(2610, c.x, c.loading.state.moment)) for c in (a, b)]
        self.assertLess(at[0] * at[1], 0)

    def test_use_goes_with_the_factor_of_the_case(self):
        uses = [
            next(s for s in evaluate(f.demo(), Want(case=case, strip_side="left")).strips if s.case == case).use
            for case in ("static", "bump")
        ]
        np.testing.assert_allclose(3 * np.array(uses[0]), uses[1], atol=2e-3)

    @QUICK
    @given(st.floats(1.1, 3.0))
    def test_more_payload_never_lowers_the_use(self, factor):
        inputs = f.demo()
        heavy = tuple(
            m.model_copy(update={"mass_kg": m.mass_kg * factor}) if m.id == "payload" else m
            for m in inputs.survey.masses
        )
        before, after = (
            compare(i).loading.use_state.reference.max() for i in (inputs, f.with_survey(inputs, masses=heavy))
        )
        self.assertGreater(after, before)

    def test_a_frame_that_tips_is_refused_at_its_masses(self):
        far = (Mass(id="m", name="m", mass_kg=900, x_mm=3400),)
        with self.assertRaises(ValueError) as caught:
            evaluate(f.with_survey(f.demo(), masses=far))
        self.assertEqual(caught.exception.problems[0].field, "/survey/masses")


class MonotoneNotch(SimpleTestCase):
    """Deeper is never stronger, a plate never weakens, whatever the shape."""

    @QUICK
    @given(st.floats(15, 100), st.floats(1, 30))
    def test_depth(self, depth, more):
        pair = [
            compare(f.with_notch(f.demo(), depth_mm=d, shape=f.arc_notch(d, 110).shape)).built.shear_capacity.min()
            for d in (depth, depth + more)
        ]
        self.assertLessEqual(pair[1], pair[0] * (1 + 1e-9))

    @QUICK
    @given(st.floats(1, 12), st.sampled_from(["outer_plate", "inner_plate"]))
    def test_a_side_plate_adds_shear_and_area(self, t, role):
        bare = compare(f.with_notch(f.demo(), outer_plate=None))
        plated = compare(
            f.with_notch(f.demo(), **{"outer_plate": None, role: f.side_plate(t, 230.0, inset=5.0, end="diamond")})
        )
        self.assertGreaterEqual(plated.built.shear_area.min(), bare.built.shear_area.min() * (1 - 1e-9))
        at = [float(np.interp(2610, c.x, c.built.properties.area)) for c in (bare, plated)]
        self.assertGreater(at[1], at[0])

    def test_a_liner_on_one_web_is_an_outstand(self):
        """EN 1993-1-1 table 5.2: free at its far edge, it counts to its class 3 width and no further."""
        open_rail = f.with_operations(f.demo(), f.demo().design.operations[1].model_copy(update={"outer_plate": None}))
        notch = open_rail.design.operations[0]
        at = []
        for liner in (None, f.liner(6.0), f.liner(12.0)):
            own = compare(f.with_operations(open_rail, notch.model_copy(update={"liner": liner})))
            at.append(float(np.interp(2610, own.x, own.built.properties.i_y)))
        self.assertLess(at[0], at[1])
        self.assertLess(at[1], at[2])


class Missing(SimpleTestCase):
    def test_pointers_of_what_is_missing(self):
        survey = f.demo().survey
        self.assertEqual(missing_for_loads(survey), ())
        self.assertEqual(missing_for_loads(survey.model_copy(update={"seats": ()})), ("/survey/seats",))
        self.assertEqual(missing_for_sections(survey, "left"), ())

    def test_cases(self):
        self.assertEqual([c.factor for c in CASES], [1.0, 3.0])
        self.assertEqual(find_case("static").factor, 1.0)
        self.assertTrue(all(c.basis for c in CASES))


class Fits(SimpleTestCase):
    """Three schools of boxing: over the lips, flush, inside; all close the cell."""

    def test_each_fit_closes_the_cell_and_over_the_lips_is_widest(self):
        j = {}
        for fit in ("over-lips", "flush", "inside"):
            box = f.boxing(fit, 5.0)
            survey = f.survey_of(f.straight_rail())
            comparison = compare_rail(survey, (box,), (), "left", planned_state((box,)))
            mid = len(comparison.x) // 2
            self.assertTrue(comparison.built.torsion.closed[mid], fit)
            j[fit] = comparison.built.torsion.j[mid]
        self.assertGreater(j["over-lips"], j["flush"])
        self.assertGreater(j["flush"], j["inside"])

    def test_the_cell_is_open_until_the_plate_is_developed(self):
        box = f.boxing("flush", 5.0, half=400.0)
        survey = f.survey_of(f.straight_rail())
        comparison = compare_rail(survey, (box,), (), "left", planned_state((box,)))
        end = int(np.argmin(np.abs(comparison.x - 1102)))
        self.assertFalse(comparison.built.torsion.closed[end])
        middle = int(np.argmin(np.abs(comparison.x - 1500)))
        self.assertTrue(comparison.built.torsion.closed[middle])
