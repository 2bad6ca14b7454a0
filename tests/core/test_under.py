"""What hangs under the vehicle: scrub lines and ground angles against drawn triangles."""

import math
from unittest import TestCase

from nodulant.clearance.under import FLANGE_MM, angle_deg
from nodulant.evaluate.clearances.sweep import whole_sweep
from tests.core.test_steering import front, job, with_front


class Angles(TestCase):
    def test_a_point_on_the_ground_is_met_at_once(self):
        self.assertAlmostEqual(
            angle_deg(800.0, 0.0, 340.0),
            math.degrees(math.atan2(-340.0, 800.0) + math.asin(340.0 / math.hypot(800.0, 340.0))),
        )
        self.assertAlmostEqual(angle_deg(800.0, 0.0, 340.0), 0.0, places=9)

    def test_the_slope_touches_the_tyre_and_the_point(self):
        """The line through the point with that slope stands a radius away from the hub (textbook: distance of point and line)."""
        for ahead, height in ((700.0, 200.0), (450.0, 120.0), (900.0, 400.0)):
            slope = math.radians(angle_deg(ahead, height, 340.0))
            # hub at the origin one radius up, the point ahead of it; the line falls towards the tyre
            off = abs((0.0 - ahead) * math.sin(slope) - (340.0 - height) * math.cos(slope))
            self.assertAlmostEqual(off, 340.0, places=6)

    def test_what_the_tyre_covers_is_never_met(self):
        self.assertEqual(angle_deg(100.0, 400.0, 340.0), 90.0)

    def test_the_van_s_own(self):
        found = {f.name: f.value for f in whole_sweep(job("wherry", "step")).under}
        self.assertLess({"Approach angle", "Departure angle", "Breakover angle"}, set(found))
        # rails at the nose: 620 ahead, 366 mm over the ground; the wing's edge went down with the body by the step:
        # 470 ahead, at the surveyed hubs' height less 75 mm and its fold of 3 mm, the tyre's foot at -98 - 343 mm
        nose, wing = angle_deg(620.0, 366.0, 343.0), angle_deg(470.0, -157.5 - 75.0 - 3.0 + 98.0 + 343.0, 343.0)
        self.assertAlmostEqual(found["Approach angle"], min(nose, wing), delta=1.0)


class Scrub(TestCase):
    def checks(self, inputs):
        return {c.id: c for c in whole_sweep(inputs).checks if c.limit_id.startswith("scrub")}

    def test_both_rules_for_both_axles(self):
        found = self.checks(job("wherry", "step"))
        self.assertEqual({i.split(":")[1] for i in found}, {"front", "rear"})
        self.assertTrue(all(c.verdict == "holds" for c in found.values()))

    def test_an_arm_that_hangs_below_the_rims_is_told(self):
        inputs = job("wherry", "step")
        own = front(inputs)
        low = own.layout.lower_ball.model_copy(update={"z_mm": -260.0})
        hung = own.model_copy(update={"layout": own.layout.model_copy(update={"lower_ball": low})})
        found = self.checks(with_front(inputs, hung))["scrub-plane:front:both"]
        self.assertEqual(found.verdict, "fails")
        # rim of 16 in: its lowest edge lies 203 + flange below the hub; the arm's own radius hangs lower still,
        # and at lock the ball joint sinks by less than a millimetre more
        straight = 8 * 25.4 + FLANGE_MM - 260.0 - 16.0
        self.assertLessEqual(found.value, straight + 1e-6)
        self.assertGreater(found.value, straight - 1.0)
        self.assertIn("wishbone", found.title)

    def test_without_a_tyre_nothing_is_claimed(self):
        inputs = job("wherry", "step")
        survey = inputs.survey.model_copy(update={"front": inputs.survey.front.model_copy(update={"tyre": None})})
        self.assertFalse([i for i in self.checks(inputs.model_copy(update={"survey": survey})) if ":front" in i])


class Jack(TestCase):
    """Room under what hangs lowest: plain heights over the tyres' feet."""

    def room(self, inputs):
        return {f.name: f for f in whole_sweep(inputs).under}

    def test_both_axles_and_the_frame_have_a_figure(self):
        found = self.room(job("wherry", "step"))
        for name in ("Room for a jack, front axle", "Room for a jack, rear axle", "Lowest of frame and things"):
            self.assertGreater(found[name].value, 0.0)

    def test_an_arm_that_hangs_lower_leaves_so_much_less(self):
        inputs = job("wherry", "step")
        own = front(inputs)
        low = own.layout.lower_ball.model_copy(update={"z_mm": -260.0})
        hung = own.model_copy(update={"layout": own.layout.model_copy(update={"lower_ball": low})})
        found = self.room(with_front(inputs, hung))["Room for a jack, front axle"]
        # tyre's loaded radius 343, ball joint 260 below the hub, the arm's own radius of 16, lock below 1 mm
        self.assertAlmostEqual(found.value, 343.0 - 260.0 - 16.0, delta=1.0)
        self.assertIn("wishbone", found.words)
        # 16 in rims: the axle sinks by 343 - 203.2 - 17 = 122.8 mm, and nothing is left
        flat = self.room(with_front(inputs, hung))["Room for a jack, front axle, both its tyres flat"]
        self.assertEqual(flat.value, 0.0)
        self.assertIn("lies on the ground", flat.words)

    def test_on_flat_tyres_an_axle_sinks_onto_its_rims(self):
        """343 mm of loaded radius less 203.2 mm of rim and its flange: the difference of both figures."""
        found = self.room(job("wherry", "step"))
        name = "Room for a jack, front axle"
        sunk = found[name].value - found[f"{name}, both its tyres flat"].value
        self.assertAlmostEqual(sunk, 343.0 - 8 * 25.4 - FLANGE_MM, delta=1.0)

    def test_no_figure_hides_in_the_words_where_it_keeps_its_unit(self):
        for fact in self.room(job("wherry", "step")).values():
            self.assertNotRegex(fact.words, r"[0-9] mm")
