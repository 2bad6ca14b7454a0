"""Springs that stand on a wishbone: motion ratio against the lever of the textbooks, forces against moments about the hinge."""

import numpy as np
from django.test import SimpleTestCase

from nodulant.axles.layouts.independent import DoubleWishbone, Strut
from nodulant.axles.points import on_axle
from nodulant.axles.springs import Coilover
from nodulant.axles.suspension import Suspension
from nodulant.axles.wishbone import wishbone_of
from nodulant.base.errors import InputError
from nodulant.suspension.feet import foot_of, heights, stands
from nodulant.suspension.forces import AxleLoads, balance, tyre_forces
from nodulant.suspension.motion import moved_through
from nodulant.suspension.on_frame import beyond_standing
from nodulant.suspension.spring_motion import both_strung, strung
from nodulant.suspension.study import study
from tests import fixtures as f
from tests.core.test_suspensions import LAYOUTS
from tests.published.test_linkages import AXLE, HUB, TRAVEL, link, point, ride

ARMS = DoubleWishbone(
    upper_front=point(2500, 400, 100),
    upper_rear=point(2700, 400, 100),
    upper_ball=point(0, 660, 120),
    lower_front=point(2500, 400, -100),
    lower_rear=point(2700, 400, -100),
    lower_ball=point(0, 660, -80),
    toe=link((2720, 400, 0), (110, 660, 20)),
)
"""Level equal arms 260 mm long: the wheel goes straight up at ride height, and its ball joints with it."""
SKEW = ARMS.model_copy(update={"upper_rear": point(2690, 440, 85), "upper_front": point(2490, 430, 120)})
LOADS = AxleLoads(standing_n=8000.0, launch_n=None, drive_n=0.0, braking_n=9000.0, brake_n=6000.0)
RIDE = int(np.argmin(np.abs(TRAVEL)))


def coil(lower, upper, on="lower-arm"):
    sizes = {"rate_n_per_mm": 60, "free_mm": 300, "block_mm": 90, "open_mm": 460, "closed_mm": 320}
    return Coilover(lower=lower, on=on, upper=upper, **sizes)


def out_on_arm(share):
    """A point of the lower arm between hinge and ball joint."""
    return point(0, 400 + 260 * share, -80)


class Levers(SimpleTestCase):
    def test_upright_spring_halfway_out_moves_half(self):
        """MR = a/b of a level arm with an upright spring (Milliken, Race Car Vehicle Dynamics, chapter 16, from memory)."""
        m = moved_through(ARMS, AXLE, TRAVEL)
        for share in (0.35, 0.5, 0.8):
            with self.subTest(share):
                at = out_on_arm(share)
                _, ratio = heights(strung(coil(at, point(2610, at.y_mm, 19_000)), m), m)
                self.assertAlmostEqual(ride(ratio), share, places=4)

    def test_leaning_spring_loses_by_its_cosine(self):
        m = moved_through(ARMS, AXLE, TRAVEL)
        lean = np.radians(25.0)
        at = out_on_arm(0.6)
        up = point(2610, at.y_mm - 400 * np.sin(lean), HUB[2] + at.z_mm + 400 * np.cos(lean))
        _, ratio = heights(strung(coil(at, up), m), m)
        self.assertAlmostEqual(ride(ratio), 0.6 * np.cos(lean), places=4)

    def test_at_the_ball_joint_arm_and_upright_are_one(self):
        m = moved_through(SKEW, AXLE, TRAVEL)
        ball, top = SKEW.lower_ball, point(2600, 520, 400)
        own = [heights(strung(coil(ball, top, on), m), m) for on in ("upright", "lower-arm")]
        np.testing.assert_allclose(own[0][0], own[1][0], atol=1e-6)
        np.testing.assert_allclose(own[0][1], own[1][1], atol=1e-6)

    def test_ratio_is_the_slope_of_the_length(self):
        m = moved_through(SKEW, AXLE, TRAVEL)
        for on, at in (("lower-arm", point(30, 560, -70)), ("upper-arm", point(-20, 540, 140))):
            with self.subTest(on):
                length, ratio = heights(strung(coil(at, point(2630, 500, 420), on), m), m)
                wheel = stands(foot_of(point(0, AXLE.half_track_mm, 0), "upright", m), m)[:, 2]
                np.testing.assert_allclose(ratio[1:-1], -np.gradient(length, wheel)[1:-1], atol=3e-4)

    def test_a_point_of_an_arm_keeps_its_distances(self):
        m = moved_through(SKEW, AXLE, TRAVEL)
        foot = foot_of(point(30, 560, -70), "lower-arm", m)
        place = stands(foot, m)
        ball = stands(foot_of(SKEW.lower_ball, "upright", m), m)
        for fixed in (SKEW.lower_front.xyz(), SKEW.lower_rear.xyz()):
            self.assertLess(np.ptp(np.linalg.norm(place - np.array(fixed), axis=1)), 1e-6)
        self.assertLess(np.ptp(np.linalg.norm(place - ball, axis=1)), 1e-6)


class Statics(SimpleTestCase):
    def test_spring_carries_the_wheel_over_its_ratio(self):
        """Virtual work: spring x MR = wheel load, standing."""
        m = moved_through(SKEW, AXLE, TRAVEL)
        for on, at in (
            ("upright", point(0, 600, 40)),
            ("lower-arm", out_on_arm(0.55)),
            ("upper-arm", point(0, 560, 118)),
        ):
            with self.subTest(on):
                own = both_strung(coil(at, point(2610, 520, 450), on), m)
                found = balance(m, RIDE, own, tyre_forces("standing", LOADS, m))
                _, ratio = heights(own[0], m)
                self.assertLess(found.left_n, 1e-6)
                self.assertAlmostEqual(found.springs[0] * ride(ratio), LOADS.standing_n / 2, places=4)

    def test_moment_about_the_hinge_by_hand(self):
        """Halfway out on a level arm an upright spring pushes twice what the ball joint gets."""
        arm = wishbone_of(ARMS, "lower-arm", HUB)
        at = np.array(on_axle(out_on_arm(0.5), HUB))
        size, way = arm.leverage(at[None], np.array(arm.ball)[None], np.array([[0.0, 0.0, -1.0]]))
        np.testing.assert_allclose(size[0] * way[0], [0.0, 0.0, -0.5], atol=1e-12)

    def test_the_frame_gets_what_the_tyres_get(self):
        """In braking, less standing: pulls of links, mounts and the arm's pivots add up to the change at the tyre."""
        for on, at in (("upright", point(0, 640, 20)), ("lower-arm", point(0, 560, -120))):
            with self.subTest(on):
                own = Suspension(
                    axle="rear",
                    layout={"kind": "double-wishbone", **LAYOUTS["double-wishbone"]},
                    springs=coil(at, point(2610, 500, 300), on),
                )
                s = study(f.demo().survey, own, (), 0.0, 0.8)
                total = np.sum([pull.force for pull in beyond_standing(s, "brake")], axis=0)
                wheel = (s.loads.braking_n - s.loads.standing_n) / 2
                np.testing.assert_allclose(total, [s.loads.brake_n / 2, 0.0, wheel], atol=1e-3)


class Wrong(SimpleTestCase):
    def test_an_arm_that_is_not_there_is_named(self):
        strut = Strut(
            top=point(2610, 560, 500),
            foot=point(0, 640, 60),
            lower_front=point(2500, 400, -100),
            lower_rear=point(2700, 400, -100),
            lower_ball=point(0, 660, -80),
            toe=link((2720, 400, 0), (110, 660, 20)),
        )
        m = moved_through(strut, AXLE, TRAVEL)
        with self.assertRaises(InputError) as caught:
            foot_of(point(0, 560, 120), "upper-arm", m)
        self.assertIn("upper arm", caught.exception.message)

    def test_a_ball_joint_on_its_hinge_is_refused(self):
        flat = ARMS.model_copy(update={"lower_ball": point(0, 405, -98)})
        with self.assertRaises(InputError):
            wishbone_of(flat, "lower-arm", HUB)
