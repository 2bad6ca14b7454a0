"""Web crippling by EN 1993-1-5 section 6 by hand (from memory), and what asks for it in a job."""

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from nodulant.evaluate import evaluate
from nodulant.loads.beam import reactions
from nodulant.loads.plan import JackPoint
from nodulant.strength.patch_load import Web, effective_length_mm, patch_resistance_n
from tests import fixtures as f
from tests.core.test_operations import made

QUICK = settings(deadline=None, derandomize=True, max_examples=60)
CHANNEL = Web(height_mm=140.0, thickness_mm=5.0, flange_mm=65.0, flange_thickness_mm=5.0, yield_mpa=235.0)


class ByHand(SimpleTestCase):
    def test_a_pad_of_60_under_a_channel(self):
        """150 x 65 x 5, 235 MPa: m1 = 13, l_y = 60 + 10 (1 + 3.606) = 106.06, lambda 0.35: the web does not buckle."""
        self.assertAlmostEqual(effective_length_mm(CHANNEL, 60.0), 106.06, delta=0.01)
        self.assertAlmostEqual(patch_resistance_n(CHANNEL, 60.0) / (235 * 106.06 * 5), 1.0, delta=1e-3)
        self.assertLess(8000.0 / patch_resistance_n(CHANNEL, 60.0), 0.065)

    def test_a_slender_web_buckles(self):
        """2 mm of 300: F_cr = 0.9 x 6 x 205 000 x 8 / 300 = 29.5 kN, m2 counts, chi = 0.5/lambda."""
        web = Web(height_mm=300.0, thickness_mm=2.0, flange_mm=60.0, flange_thickness_mm=3.0, yield_mpa=250.0)
        wide = min(60.0, 15 * (235 / 250) ** 0.5 * 3 + 2)
        length = 50 + 6 * (1 + (wide / 2 + 0.02 * 100**2) ** 0.5)
        slender = (length * 2 * 250 / (0.9 * 6 * 205_000 * 8 / 300)) ** 0.5
        self.assertGreater(slender, 0.5)
        self.assertAlmostEqual(patch_resistance_n(web, 50.0) / (250 * 0.5 / slender * length * 2), 1.0, delta=0.01)

    @QUICK
    @given(st.floats(1.5, 10), st.floats(20, 200), st.floats(1, 100))
    def test_thicker_and_longer_never_carry_less(self, t, patch, more):
        web = Web(140.0, t, 60.0, 4.0, 250.0)
        thicker = Web(140.0, t * 1.02, 60.0, 4.0, 250.0)
        self.assertGreaterEqual(patch_resistance_n(web, patch + more), patch_resistance_n(web, patch) * (1 - 1e-9))
        self.assertGreaterEqual(patch_resistance_n(thicker, patch), patch_resistance_n(web, patch) * (1 - 1e-9))


class InAJob(SimpleTestCase):
    def test_a_jack_presses_one_rail_with_the_axle_s_lift(self):
        inputs = f.demo()
        loads = inputs.design.loads.model_copy(update={"jacks": (JackPoint(x_mm=1800.0),)})
        inputs = inputs.model_copy(update={"design": inputs.design.model_copy(update={"loads": loads})})
        rows = [c for c in evaluate(inputs).checks if c.id.startswith("patch-load:jack-rear")]
        self.assertEqual([c.id for c in rows], ["patch-load:jack-rear:left"])
        self.assertEqual(rows[0].verdict, "holds")

    def test_the_forces_are_those_of_the_frame_s_own_cases(self):
        """Pads take twice the axle's load in all (three times less what the seats carry); a jack under the axle half of it."""
        inputs = f.demo()
        rear = reactions(inputs.survey.masses, inputs.design.seats)
        loads = inputs.design.loads.model_copy(update={"jacks": (JackPoint(x_mm=rear.rear_x),)})
        inputs = inputs.model_copy(update={"design": inputs.design.model_copy(update={"loads": loads})})
        result = evaluate(inputs)
        stop, jack = (
            f.check_of(result, f"patch-load:{name}-rear:left").why.values["force"] for name in ("stop", "jack")
        )
        self.assertAlmostEqual(stop, rear.rear, places=6)
        self.assertAlmostEqual(jack, rear.rear / 2, places=6)

    def test_a_longer_pad_eases_the_web(self):
        short, long_ = (
            f.check_of(evaluate(self.padded(mm)), "patch-load:stop-rear:left").why.values["F_Rd"]
            for mm in (40.0, 160.0)
        )
        self.assertLess(short, long_)

    def padded(self, mm, **more):
        inputs = f.demo()
        place = {"anchor_id": "rear-axle", "offset_mm": 0.0}
        return f.with_operations(inputs, made("pad", place=place, long_mm=mm, **more))

    def test_a_narrow_pad_beside_the_web_bends_the_flange(self):
        """60 wide rail, web's middle 27.5 out; pad 20 wide in the middle ends 17.5 short of it; F a over f_y (L + 2 a) t2/4."""
        result = evaluate(self.padded(60.0, across_mm=20.0))
        row = f.check_of(result, "flange-bending:stop-rear:left")
        force = f.check_of(result, "patch-load:stop-rear:left").why.values["force"]
        by_hand = force * 17.5 / ((60 + 2 * 17.5) * 25 / 4 * 248 / 1.5)
        self.assertAlmostEqual(row.value / by_hand, 1.0, places=6)
        self.assertEqual(row.verdict, "fails")
        for wide in ({"across_mm": 60.0}, {"across_mm": 20.0, "out_mm": 20.0}):
            ids = {c.limit_id for c in evaluate(self.padded(60.0, **wide)).checks}
            self.assertNotIn("flange-bending", ids, "it reaches under the web")

    def test_a_new_seat_with_nothing_under_it_asks(self):
        inputs = f.demo()
        bare = inputs.model_copy(update={"design": inputs.design.model_copy(update={"crossmembers": ()})})
        row = next(c for c in evaluate(bare).checks if c.limit_id == "seat-carried")
        self.assertEqual(row.verdict, "not computed")
        self.assertIn("Nothing is planned at its place", row.remedy)
        self.assertFalse([c for c in evaluate(inputs).checks if c.limit_id == "seat-carried"])
