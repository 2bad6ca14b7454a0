"""A bought arm over other pick-ups: triangles by hand, and the ball joint back where it was."""

import math

import numpy as np
from django.test import SimpleTestCase

from nodulant.axles.points import on_axle
from nodulant.axles.suspension import Suspension
from nodulant.base.errors import InputError
from nodulant.steering.bought_arm import BoughtArm, arm_lengths, laid_over
from nodulant.suspension.motion import Setting
from tests.published.test_springs_on_arms import ARMS, SKEW

AXLE = Setting((2610.0, 0.0, 0.0), 780.0, 340.0)


def own(layout=ARMS):
    return Suspension(axle="rear", layout=layout)


def rows(bought, layout=ARMS, arm="lower-arm"):
    return {r.change: r for r in laid_over(own(layout), arm, AXLE, bought)}


def ball_of(layout, arm):
    return np.array(on_axle(getattr(layout, f"{arm}_ball"), AXLE.hub))


class Lengths(SimpleTestCase):
    def test_of_a_square_arm(self):
        """Pivots at x 2500 and 2700, ball at 2610: 200 apart, 110 behind the front one, 260 out (arithmetic)."""
        found = arm_lengths(own(), "lower-arm", AXLE)
        self.assertAlmostEqual(found.pivots_apart_mm, 200.0)
        self.assertAlmostEqual(found.ball_behind_mm, 110.0)
        self.assertAlmostEqual(found.ball_out_mm, math.hypot(260.0, 20.0))

    def test_without_that_arm_it_says_so(self):
        trailing = {"kind": "trailing", "inner": point(2130, 330), "outer": point(2100, 660)}
        with self.assertRaises(InputError):
            arm_lengths(Suspension(axle="rear", layout=trailing), "upper-arm", AXLE)


def point(x, y):
    return {"x_mm": float(x), "y_mm": float(y), "z_mm": -60.0}


class Changes(SimpleTestCase):
    def test_the_same_arm_bolts_in(self):
        for layout in (ARMS, SKEW):
            same = arm_lengths(own(layout), "upper-arm", AXLE)
            found = laid_over(own(layout), "upper-arm", AXLE, same)[0]
            self.assertEqual((found.change, found.restores, found.ball_off_mm), ("none", True, 0.0))

    def test_a_wider_arm_with_its_rear_leg_alike_needs_its_front_mount_moved(self):
        """Rear pivot and ball joint as they were: only the front corner of the triangle is elsewhere."""
        old = arm_lengths(own(SKEW), "upper-arm", AXLE)
        apart = old.pivots_apart_mm + 30.0
        bought = BoughtArm(
            pivots_apart_mm=apart,
            # measured from a front pivot 30 further forward on the same hinge
            ball_behind_mm=old.ball_behind_mm + 30.0,
            ball_out_mm=old.ball_out_mm,
        )
        found = rows(bought, SKEW, "upper-arm")
        front = found["front-mount"]
        self.assertTrue(front.restores)
        self.assertAlmostEqual(front.front.rearward_mm, -30.0, places=6)
        self.assertAlmostEqual(front.front.outward_mm, 0.0, places=6)
        self.assertTrue(front.keeps.camber and front.keeps.toe and front.keeps.anti_dive)
        self.assertFalse(found["none"].restores)
        self.assertFalse(found["rear-mount"].restores)

    def test_pivots_and_ball_are_the_bought_arms_triangle_after_each_change(self):
        bought = BoughtArm(pivots_apart_mm=236.0, ball_behind_mm=140.0, ball_out_mm=251.0)
        for arm in ("lower-arm", "upper-arm"):
            for change, found in rows(bought, SKEW, arm).items():
                if not found.restores or found.suspension is None:
                    continue
                with self.subTest(arm, change=change):
                    layout, stem = found.suspension.layout, arm.partition("-")[0]
                    ball = ball_of(layout, stem)
                    front, rear = (np.array(getattr(layout, f"{stem}_{n}").xyz()) for n in ("front", "rear"))
                    legs = (math.hypot(140.0, 251.0), math.hypot(96.0, 251.0))
                    self.assertAlmostEqual(float(np.linalg.norm(rear - front)), 236.0, places=2)
                    self.assertAlmostEqual(float(np.linalg.norm(ball - front)), legs[0], places=2)
                    self.assertAlmostEqual(float(np.linalg.norm(ball - rear)), legs[1], places=2)
                    np.testing.assert_array_equal(ball, ball_of(SKEW, stem))

    def test_mounts_slid_along_the_hinge_keep_every_curve(self):
        old = arm_lengths(own(SKEW), "lower-arm", AXLE)
        shifted = old.model_copy(update={"ball_behind_mm": old.ball_behind_mm + 25.0})
        both = rows(shifted, SKEW)["both-mounts"]
        self.assertAlmostEqual(both.front.rearward_mm, -25.0, places=6)
        self.assertTrue(both.keeps.camber and both.keeps.toe and both.keeps.anti_dive)

    def test_a_shorter_arm_on_mounts_moved_out_loses_camber(self):
        old = arm_lengths(own(SKEW), "upper-arm", AXLE)
        short = old.model_copy(update={"ball_out_mm": old.ball_out_mm - 60.0})
        both = rows(short, SKEW, "upper-arm")["both-mounts"]
        self.assertAlmostEqual(both.front.outward_mm, 60.0, places=6)
        self.assertFalse(both.keeps.camber)

    def test_re_welded_tubes_say_where_they_go(self):
        old = arm_lengths(own(), "lower-arm", AXLE)
        bought = BoughtArm(
            pivots_apart_mm=old.pivots_apart_mm + 40.0,
            ball_behind_mm=old.ball_behind_mm + 15.0,
            ball_out_mm=old.ball_out_mm - 5.0,
        )
        tubes = rows(bought)["pivot-tubes"]
        self.assertTrue(tubes.restores)
        self.assertEqual([round(v, 6) for v in (*tubes.front, *tubes.rear)], [15.0, -5.0, -25.0, -5.0])
        self.assertIsNone(tubes.suspension)
