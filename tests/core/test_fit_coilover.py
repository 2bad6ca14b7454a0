"""A coilover fitted to a wish holds in the whole evaluation, or says what is in the way."""

from django.test import SimpleTestCase

from nodulant.base.errors import NotSolvable
from nodulant.evaluate import evaluate
from nodulant.search.fit_coilover import CoilWish, fit_coilover
from tests import fixtures as f
from tests.core.test_suspensions import AIR, COIL, ONLY, suspended, travel_checks


def fit(inputs, **wish):
    d = inputs.design
    return fit_coilover(inputs.survey, d.suspensions[0], d.seats, 60.0, CoilWish(**wish))


def judged(inputs, found):
    design = inputs.design.model_copy(update={"suspensions": (found.suspension,)})
    return travel_checks(evaluate(inputs.model_copy(update={"design": design}), ONLY))


class Fitted(SimpleTestCase):
    def test_frequency_stroke_and_coil_come_out_as_wanted(self):
        wrong = {
            **COIL,
            "rate_n_per_mm": 90.0,
            "free_mm": 200.0,
            "upper": {"x_mm": 2590.0, "y_mm": 280.0, "z_mm": 420.0},
        }
        for wish in (1.2, 1.5):
            inputs = suspended(springs=wrong)
            found = fit(inputs, frequency_hz=wish, used_percent=47.0)
            self.assertAlmostEqual(found.frequency_hz, wish, delta=0.03)
            self.assertAlmostEqual(found.used_percent, 47.0, delta=0.2)
            checks = judged(inputs, found)
            for rule in (
                "coil-block:rear-coil",
                "coil-seated:rear-coil",
                "damper-closed:rear-coilover",
                "damper-open:rear-coilover",
            ):
                self.assertNotEqual(checks[f"{rule}:both"].verdict, "fails", rule)
            shown = checks["frequency-least:rear-springs:both"].value
            self.assertAlmostEqual(shown, found.frequency_hz, places=6)

    def test_the_coil_is_the_shortest_that_does(self):
        inputs = suspended()
        found = fit(inputs)
        coil = found.suspension.springs.model_copy(
            update={"free_mm": found.free_mm - 25, "block_mm": 0.31 * (found.free_mm - 25)}
        )
        shorter = found.suspension.model_copy(update={"springs": coil})
        checks = judged(inputs, found.model_copy(update={"suspension": shorter}))
        self.assertIn(
            "fails", (checks["coil-block:rear-coil:both"].verdict, checks["coil-seated:rear-coil:both"].verdict)
        )

    def test_too_much_travel_for_a_stiff_coil(self):
        inputs = suspended(droop_mm=200.0, springs={**COIL, "open_mm": 760.0})
        found = fit(inputs, frequency_hz=3.0)
        self.assertIsNone(found.suspension)
        self.assertIn("helper spring", found.reason)


class Refused(SimpleTestCase):
    def test_no_coilover_no_weight_no_motion(self):
        with self.assertRaises(NotSolvable):
            fit(suspended(springs=AIR))
        with self.assertRaises(NotSolvable):
            fit(suspended(inputs=f.with_survey(f.demo("step"), masses=())))
