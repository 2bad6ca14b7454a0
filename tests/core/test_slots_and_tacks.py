"""Mounts that are no link's end: a strut's top and a trailing arm's pivots as read, set in their slots, tacked again."""

import math

from django.test import SimpleTestCase

from nodulant.asbuilt.axle import joints_of, wheel_as_built
from nodulant.evaluate.suspensions.travel import suspension_studies
from nodulant.job.fresh.suspension import fresh_suspension
from nodulant.job.riding import in_place
from nodulant.proof.found import built
from nodulant.units.inline import told
from tests import fixtures as f
from tests.core.test_as_built import read_of


def on(axle, kind):
    """The demo's step with another suspension on one axle."""
    inputs = f.job().inputs("step")
    kept = [s for s in inputs.design.suspensions if s.axle != axle]
    own = fresh_suspension(inputs, axle, kind, before=False)
    if axle == "rear":
        kept = [s for s in kept if s.axle != "rear"]
    return inputs.model_copy(update={"design": inputs.design.model_copy(update={"suspensions": (own, *kept)})})


def study(inputs, axle):
    return next(s for s in suspension_studies(in_place(inputs)) if s.suspension.axle == axle)


class StrutTop(SimpleTestCase):
    def setUp(self):
        self.inputs = on("front", "strut")
        self.s = study(self.inputs, "front")

    def test_camber_by_hand(self):
        """The top d inward leans the strut and all that is fast on it by d over its height above the ball joint."""
        layout, hub = self.s.suspension.layout, self.s.setting.hub
        tall = layout.top.z_mm - (hub[2] + layout.lower_ball.z_mm)
        stood = wheel_as_built(self.s.suspension, self.s.setting, {("strut-top", "left", "across"): -4.0}, "left")
        by_hand = -math.degrees(4.0 / tall)
        self.assertAlmostEqual(stood.camber_deg, by_hand, delta=0.08 * abs(by_hand))
        other = wheel_as_built(self.s.suspension, self.s.setting, {("strut-top", "left", "across"): -4.0}, "right")
        self.assertAlmostEqual(other.camber_deg, 0.0, places=9)

    def test_caster_by_hand(self):
        """The top d rearward leans the steering axis by d over the same height."""
        layout, hub = self.s.suspension.layout, self.s.setting.hub
        tall = layout.top.z_mm - (hub[2] + layout.lower_ball.z_mm)
        stood = wheel_as_built(self.s.suspension, self.s.setting, {("strut-top", "right", "along"): 6.0}, "right")
        by_hand = math.degrees(6.0 / tall)
        self.assertAlmostEqual(stood.caster_deg, by_hand, delta=0.1 * by_hand)

    def test_a_top_that_stands_inward_is_set_back_in_its_slots(self):
        found = built(read_of(self.inputs, ("front-joints/strut-top-across/left", -5.0))).axles[0]
        best = found.corrections[0]
        self.assertTrue(best.inside)
        self.assertIn("strut's top in its slots", best.words)
        self.assertIn("outward", best.words)
        # what was tried is what is told: a millimetre is no sixteenth
        self.assertIn(f'{abs(best.moves[0].steps) / 25.4:.3f}" outward', told(best.words, "in16"))


class TrailingArm(SimpleTestCase):
    def setUp(self):
        self.inputs = on("rear", "trailing")
        self.s = study(self.inputs, "rear")

    def test_toe_by_hand(self):
        """The outer pivot d forward turns the arm about the inner one by d over what lies between them: toe in."""
        layout = self.s.suspension.layout
        apart = layout.outer.y_mm - layout.inner.y_mm
        stood = wheel_as_built(self.s.suspension, self.s.setting, {("outer-pivot", "right", "along"): -3.0}, "right")
        by_hand = math.degrees(3.0 / apart)
        self.assertAlmostEqual(abs(stood.toe_deg), by_hand, delta=0.05 * by_hand)
        self.assertGreater(stood.toe_deg, 0.0, "the axle line's outer end goes forward: the wheel points in")

    def test_both_pivots_back_take_the_wheel_back(self):
        rows = {(f"{name}-pivot", "right", "along"): 5.0 for name in ("inner", "outer")}
        stood = wheel_as_built(self.s.suspension, self.s.setting, rows, "right")
        self.assertAlmostEqual(stood.rear_mm, 5.0, places=6)
        self.assertAlmostEqual(stood.toe_deg, 0.0, places=6)

    def test_both_sides_have_both_pivots(self):
        keys = [(j.key, j.side) for j in joints_of(self.s.suspension.layout, self.s.setting)]
        self.assertEqual(len(keys), 4)
        self.assertEqual(len(set(keys)), 4)

    def test_toe_is_set_at_the_outer_pivot(self):
        found = built(read_of(self.inputs, ("rear-joints/outer-pivot-along/right", 4.0))).axles[0]
        self.assertTrue(found.corrections[0].inside)
        self.assertIn("outer pivot in its slots", found.corrections[0].words)


class TackedAgain(SimpleTestCase):
    def test_nothing_is_told_as_less_than_nothing(self):
        rows = [(f"rear-links/lower-length/{side}", 0.6) for side in ("left", "right")]
        for outcome in built(read_of(f.job().inputs("step"), *rows)).axles[0].outcomes:
            self.assertNotRegex(told(outcome.words, "in16"), r"^-0\.0+[ \"]")

    def test_what_no_turns_reach_a_bracket_does_and_it_is_said_by_how_much(self):
        inputs = f.job().inputs("step")
        rows = [(f"rear-links/upper-length/{side}", -22.0) for side in ("left", "right")]
        found = built(read_of(inputs, *rows)).axles[0]
        inside = [c for c in found.corrections if c.inside]
        self.assertTrue(inside, found.words)
        self.assertIn("tacked again", inside[0].words)
        self.assertIn("cut loose", found.words)

    def test_what_nothing_reaches_is_said(self):
        inputs = f.job().inputs("step")
        found = built(read_of(inputs, ("front-wheel/caster/left", 9.0), ("front-wheel/camber/left", 6.0))).axles[0]
        self.assertFalse([c for c in found.corrections if c.inside])
        self.assertIn("measure it all once more", found.words)


class OnTheAxle(SimpleTestCase):
    def test_a_bracket_on_the_axle_that_stands_ahead_goes_into_the_model(self):
        """Both lower joints 4 mm further back on the axle, links alike: the bolts stay, the axle's underside goes forward, the nose up."""
        inputs = f.job().inputs("step")
        rows = [(f"rear-lower-link-on-axle/joint-along/{side}", 4.0) for side in ("left", "right")]
        found = built(read_of(inputs, *rows)).axles[0]
        off = {o.name: o.off for o in found.outcomes}
        layout = study(inputs, "rear").suspension.layout
        tall = layout.upper.axle.z_mm - layout.lower.axle.z_mm
        self.assertAlmostEqual(off["pinion, nose up"], math.degrees(4.0 / tall), delta=0.25)
        self.assertLess(off["behind its place"], -1.0)
        self.assertAlmostEqual(off["thrust angle, to the right"], 0.0, places=6)
