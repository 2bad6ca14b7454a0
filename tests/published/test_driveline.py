"""Propeller shafts against the cardan equation, shop rules and a beam's critical speed."""

import math

import numpy as np
from django.test import SimpleTestCase

from nodulant.axles.points import HardPoint
from nodulant.driveline.driveline import Driveline, Near
from nodulant.driveline.shaft import clearances, critical_rpm, shaft_motion, unevenness
from nodulant.evaluate import evaluate
from nodulant.suspension.motion import moved_through
from tests.core.test_suspensions import ONLY, suspended, travel_checks
from tests.published.test_linkages import AXLE, HUB, TRAVEL, parallel, point, ride, triangulated


def shaft(gearbox_deg=4.5, pinion_deg=4.5, drop=0.0, side=0.0, layout=None, **more):
    d = Driveline(gearbox=point(1200, side, 60 + drop), gearbox_deg=gearbox_deg, pinion=point(-250, 0, 0), **more)
    return d, shaft_motion(d, moved_through(layout or triangulated(), AXLE, TRAVEL), pinion_deg)


class Angles(SimpleTestCase):
    """Equal and opposite keeps the output even (common practice); the wrong sign makes one big joint."""

    def test_parallel_shafts_have_equal_angles_and_cancel(self):
        _, s = shaft()
        front, rear = (ride(s.joints[name]) for name in ("gearbox", "pinion"))
        self.assertAlmostEqual(front, rear, places=9)
        self.assertAlmostEqual(ride(s.left_deg), 0.0, places=5)
        slope = math.degrees(math.atan2(80, 2360 - 1200))
        self.assertAlmostEqual(front, abs(4.5 - slope), places=6)

    def test_the_wrong_sign_makes_a_nine_degree_joint(self):
        _, s = shaft(pinion_deg=-4.5)
        slope = math.degrees(math.atan2(80, 2360 - 1200))
        self.assertAlmostEqual(ride(s.joints["pinion"]), 4.5 + slope, places=6)
        self.assertGreater(ride(s.left_deg), 8.0)

    def test_skew_in_plan_with_parallel_shafts_still_cancels(self):
        _, s = shaft(side=120.0)
        self.assertGreater(ride(s.joints["gearbox"]), 5.0)
        self.assertAlmostEqual(ride(s.left_deg), 0.0, places=4)

    def test_both_turned_along_the_shaft_in_plan_leave_the_angles_of_the_side_view(self):
        """A gearbox 120 mm to the right: turned 5.9 degrees to the left, the pinion as much to the right, plan vanishes."""
        plan = math.degrees(math.atan2(120.0, 2360.0 - 1200.0))
        _, askew = shaft(side=120.0, gearbox_plan_deg=-plan, pinion_plan_deg=plan)
        slope = math.degrees(math.atan2(80.0, math.hypot(2360.0 - 1200.0, 120.0)))
        self.assertAlmostEqual(ride(askew.joints["gearbox"]), abs(4.5 - slope), places=6)
        self.assertAlmostEqual(ride(askew.joints["pinion"]), abs(4.5 - slope), places=6)

    def test_a_pinion_turned_alone_adds_its_angle_and_cancels_no_more(self):
        _, straight = shaft()
        _, turned = shaft(pinion_plan_deg=6.0)
        self.assertGreater(ride(turned.joints["pinion"]), 5.5)
        self.assertAlmostEqual(ride(turned.joints["gearbox"]), ride(straight.joints["gearbox"]), places=9)
        self.assertGreater(ride(turned.left_deg), 5.0)

    def test_one_bare_joint_is_as_uneven_as_the_cardan_equation(self):
        """w2/w1 = cos b/(1 - sin^2 b cos^2 a): from cos b to 1/cos b (textbook); 10 degrees gives 0.0306."""
        turn = np.linspace(0, math.pi, 2001)
        b = math.radians(10.0)
        ratio = math.cos(b) / (1 - math.sin(b) ** 2 * np.cos(turn) ** 2)
        self.assertAlmostEqual(float(unevenness(np.array([10.0]))[0]), float(np.ptp(ratio)), places=6)
        self.assertAlmostEqual(float(unevenness(np.array([10.0]))[0]), 0.0306, delta=1e-4)

    def test_three_joints(self):
        _, s = shaft(bearing=point(1800, 0, 30), pinion_deg=0.0, gearbox_deg=0.0)
        self.assertEqual(list(s.joints), ["gearbox", "bearing", "pinion"])

    def test_parallel_links_keep_both_joints_equal_through_travel(self):
        _, s = shaft(layout=parallel())
        np.testing.assert_allclose(s.joints["gearbox"], s.joints["pinion"], atol=1e-4)


class Tube(SimpleTestCase):
    def test_critical_speed(self):
        """N = (60 pi/2) sqrt(1000 E I/(m L^4)); 76.2 x 2.11, 1500 long: about 5600 rpm (pinned beam, textbook)."""
        d, _ = shaft()
        self.assertAlmostEqual(critical_rpm(d, 1500.0), 5609, delta=90)
        inner = 76.2 - 4.22
        area, inertia = math.pi / 4 * (76.2**2 - inner**2), math.pi / 64 * (76.2**4 - inner**4)
        rad = (math.pi / 1.5) ** 2 * math.sqrt(205e9 * inertia * 1e-12 / (7850 * area * 1e-6))
        self.assertAlmostEqual(critical_rpm(d, 1500.0) / (rad * 60 / (2 * math.pi)), 1.0, delta=2e-2)

    def test_gap_to_a_crossmember(self):
        d, s = shaft(near=(Near(name="seat", x_mm=1780.0, z_mm=-60.0),))
        (gap,) = clearances(d, s)
        middle = (60 + HUB[2]) / 2
        self.assertAlmostEqual(ride(gap), middle + 60 - 38.1, delta=1e-6)
        self.assertTrue(np.all(np.diff(gap) > 0), "the axle rises, the gap below the shaft grows")


class InTheJob(SimpleTestCase):
    """The shaft goes with the rear suspension, or says what it lacks."""

    def job(self, pinion=4.5, **more):
        inputs = suspended(pinion_deg=pinion)
        place = HardPoint(x_mm=1300, y_mm=0, z_mm=40)
        d = Driveline(gearbox=place, gearbox_deg=4.5, pinion=HardPoint(x_mm=-260, y_mm=0, z_mm=0), **more)
        return inputs.model_copy(update={"design": inputs.design.model_copy(update={"driveline": d})})

    def test_checks_and_curves(self):
        result = evaluate(self.job(), ONLY)
        checks = travel_checks(result)
        self.assertIn("joint-angle:shaft-pinion:both", checks)
        self.assertEqual(checks["critical-speed:shaft:both"].verdict, "holds")
        self.assertIn("slip", [c.id for c in result.travel[0].curves])
        self.assertIn("driveline.pinion", [g.path for g in result.travel[0].grips])

    def test_without_the_pinion_s_angle_nothing_is_computed(self):
        checks = travel_checks(evaluate(self.job(pinion=None), ONLY))
        check = checks["joints-cancel:shaft:both"]
        self.assertEqual((check.verdict, check.missing), ("not computed", ("/design/suspensions/0/pinion_deg",)))

    def test_a_long_thin_shaft_whips(self):
        checks = travel_checks(evaluate(self.job(tube_mm=40.0, most_rpm=6000.0), ONLY))
        self.assertEqual(checks["critical-speed:shaft:both"].verdict, "fails")
