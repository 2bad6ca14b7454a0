"""Steering against closed forms, line constructions, root finders and trade facts."""

import math
from unittest import TestCase

import numpy as np
from scipy.interpolate import CubicSpline
from scipy.optimize import brentq, least_squares

from nodulant.axles.layouts.independent import DoubleWishbone, Strut
from nodulant.axles.layouts.lateral import TrackBar
from nodulant.axles.layouts.live import ThreeLink
from nodulant.axles.points import HardPoint, Link
from nodulant.axles.steering import DragLink, KingPins, Rack, Sector, Steering
from nodulant.axles.suspension import Suspension
from nodulant.linkage.crank import Crank, crank_angle
from nodulant.steering.knuckles import on_beam
from nodulant.steering.measures import ackermann_outer_deg, heading_deg, turning_circle_mm
from nodulant.steering.study import bump_steer, slope_per_inch, steer_study
from nodulant.suspension.motion import Setting, moved_through
from nodulant.suspension.study import Study, Vehicle, travel_of

SETTING = Setting((0.0, 0.0, 0.0), 790.0, 340.0)


def p(x: float, y: float, z: float) -> HardPoint:
    return HardPoint(x_mm=x, y_mm=y, z_mm=z)


def flat_wishbones(upper_y: float, upper_z: float, inner: tuple[float, float]) -> DoubleWishbone:
    """Wishbones whose pivots run fore and aft: seen from the front, a plane four-bar; toe link in that plane too."""
    return DoubleWishbone(
        upper_front=p(-100, upper_y, upper_z),
        upper_rear=p(100, upper_y, upper_z),
        upper_ball=p(0, 640, 150),
        lower_front=p(-150, 330, -110),
        lower_rear=p(150, 330, -110),
        lower_ball=p(0, 700, -130),
        toe=Link(frame=p(120, *inner), axle=p(120, 680, -40)),
    )


def studied(own: Suspension, setting: Setting = SETTING, rolls: tuple[float, ...] = (0.0,)) -> Study:
    travel = travel_of(own)
    m = moved_through(own.layout, setting, travel, rolls)
    return Study(
        own, (), Vehicle(2600.0, None, None, None, 0.8), setting=setting, motion=m, ride=int(np.argmin(abs(travel)))
    )


def steered(layout, **more):
    own = Suspension(axle="front", layout=layout, steering=Steering(gear=Rack()), bump_mm=80, droop_mm=80, **more)
    return steer_study(studied(own))


def solved(gaps, guess):
    """Roots by scipy's least squares, to round-off."""
    return least_squares(gaps, guess, x_scale=(1.0, 1.0, 1e-3), xtol=1e-15, ftol=1e-15, gtol=1e-15).x


def path_of_outer(layout: DoubleWishbone, heights: np.ndarray) -> np.ndarray:
    """The toe link's outer joint in the plane four-bar without yaw, by root finding (y, z at every wheel height)."""
    a, b = np.array([layout.upper_front.y_mm, layout.upper_front.z_mm]), np.array([330.0, -110.0])
    upper, lower, joint, hub = (np.array(v) for v in ((640.0, 150.0), (700.0, -130.0), (680.0, -40.0), (790.0, 0.0)))
    long = [np.linalg.norm(upper - a), np.linalg.norm(lower - b)]
    out, guess = [], np.zeros(3)
    for height in heights:

        def gaps(state, wanted=height):
            y, z, turn = state
            c, s = math.cos(turn), math.sin(turn)
            put = lambda v: np.array([y + c * v[0] - s * v[1], z + s * v[0] + c * v[1]])  # noqa: E731
            return [
                np.linalg.norm(put(upper) - a) - long[0],
                np.linalg.norm(put(lower) - b) - long[1],
                put(hub)[1] - wanted,
            ]

        guess = solved(gaps, guess)
        y, z, turn = guess
        c, s = math.cos(turn), math.sin(turn)
        out.append([y + c * joint[0] - s * joint[1], z + s * joint[0] + c * joint[1]])
    return np.array(out)


class BumpSteer(TestCase):
    """Milliken & Milliken, Race Car Vehicle Dynamics, chapter 17 (from memory): the toe link is to follow the path of its outer joint."""

    def test_a_link_like_parallel_arms_never_steers(self):
        """Arms alike and parallel put the instant centre at infinity: a link alike and parallel has no bump steer at all."""
        layout = flat_wishbones(640 - 370, 150 + 20, (680 - 370, -40 + 20))
        toe = bump_steer(steered(layout))
        np.testing.assert_allclose(toe, 0.0, atol=1e-9)

    def test_an_inner_joint_at_the_centre_of_the_path_has_neither_slope_nor_curvature(self):
        """Any other place has: a joint 20 mm too high shows what the rule saves."""
        layout = flat_wishbones(420, 120, (340, -60))
        heights = np.linspace(-8.0, 8.0, 33)
        path = path_of_outer(layout, heights)
        fit = CubicSpline(heights, path)
        first, second = fit(0.0, 1), fit(0.0, 2)
        turn = (first[0] * second[1] - first[1] * second[0]) / np.linalg.norm(first) ** 3
        centre = path[16] + np.array([-first[1], first[0]]) / np.linalg.norm(first) / turn
        right = steered(layout.model_copy(update={"toe": Link(frame=p(120, *centre), axle=p(120, 680, -40))}))
        wrong = steered(
            layout.model_copy(update={"toe": Link(frame=p(120, centre[0], centre[1] + 20), axle=p(120, 680, -40))})
        )
        self.assertLess(abs(slope_per_inch(right, bump_steer(right))), 1e-3)
        self.assertGreater(abs(slope_per_inch(wrong, bump_steer(wrong))), 0.3)
        # with slope and curvature gone the toe grows by the third power only
        m = right.study.motion
        near = np.abs(m.travel) < 25.0
        self.assertLess(np.abs(bump_steer(right)[near]).max(), 0.02)

    def test_the_centre_lies_on_the_line_through_the_instant_centre(self):
        """The construction of every textbook: wishbones' lines meet in the instant centre, the link's line passes it."""
        layout = flat_wishbones(420, 120, (340, -60))
        upper, lower = (np.array(v) for v in (((420.0, 120.0), (640.0, 150.0)), ((330.0, -110.0), (700.0, -130.0))))
        d, e = upper[1] - upper[0], lower[1] - lower[0]
        share = np.linalg.solve(np.stack([d, -e], axis=1), lower[0] - upper[0])[0]
        instant = upper[0] + share * d
        outer = np.array([680.0, -40.0])
        inner = outer + 0.4 * (instant - outer) / np.linalg.norm(instant - outer) * 850.0
        found = steered(layout.model_copy(update={"toe": Link(frame=p(120, *inner), axle=p(120, 680, -40))}))
        self.assertLess(abs(slope_per_inch(found, bump_steer(found))), 1e-3)

    def test_raising_everything_with_the_hubs_leaves_every_curve(self):
        """Handbook of the trade, and plain geometry: a subframe raised whole keeps camber, toe and caster."""
        layout = flat_wishbones(420, 120, (340, -60))
        up = 60.0

        def raised(point: HardPoint) -> HardPoint:
            return point.model_copy(update={"z_mm": point.z_mm + up})

        frame = {n: raised(getattr(layout, n)) for n in ("upper_front", "upper_rear", "lower_front", "lower_rear")}
        toe = layout.toe.model_copy(update={"frame": raised(layout.toe.frame)})
        own = Suspension(axle="front", layout=layout, steering=Steering(gear=Rack()))
        high = own.model_copy(update={"layout": layout.model_copy(update={**frame, "toe": toe})})
        one = steer_study(studied(own))
        two = steer_study(studied(high, Setting((0.0, 0.0, up), 790.0, 340.0)))
        for name in ("camber_deg", "toe_deg", "caster_deg", "inclination_deg", "scrub_mm", "trail_mm"):
            np.testing.assert_allclose(getattr(two.straight, name), getattr(one.straight, name), atol=1e-9)
            np.testing.assert_allclose(getattr(two.right, name), getattr(one.right, name), atol=1e-7)


def beam(knuckle: HardPoint, arm_end: HardPoint) -> tuple[Suspension, DragLink]:
    bar = TrackBar(bar=Link(frame=p(-120, -400, 60), axle=p(-120, 500, 40)))
    layout = ThreeLink(
        upper=Link(frame=p(640, 250, 90), axle=p(0, 250, 130)),
        lower=Link(frame=p(700, 335, -20), axle=p(20, 320, -80)),
        lateral=bar,
    )
    gear = DragLink(box=Sector(shaft=p(-350, arm_end.y_mm, arm_end.z_mm), arm_end=arm_end), knuckle=knuckle)
    pins = KingPins(upper=p(0, 660, 100), lower=p(0, 660, -100), tie_rod=p(160, 640, -30))
    return Suspension(
        axle="front", layout=layout, steering=Steering(gear=gear, king_pins=pins), bump_mm=80, droop_mm=80
    ), gear


class BeamAxle(TestCase):
    def test_slope_by_the_velocity_of_the_joint(self):
        """d(psi)/dz = -(u.v)/(u.(k x r)): rigid-body kinematics of a rod with one end held (textbook)."""
        own, gear = beam(p(-175, 640, 50), p(-200, -450, -5))
        q = steer_study(studied(own))
        m = q.study.motion
        pose, rate = m.level.pose, m.heave[q.study.ride]
        outer, origin = np.array([-175.0, 640.0, 50.0]), pose.origin[q.study.ride]
        v = rate[:3] + np.cross(rate[3:6], outer - origin)
        u = np.array(gear.box.arm_end.xyz()) - outer
        u /= np.linalg.norm(u)
        pin = np.array([0.0, 660.0, 0.0])
        knuckle = -(u @ v) / (u @ np.cross([0.0, 0.0, 1.0], outer - pin))
        # the tie rod turns the other knuckle with it, so the mean is taken from both as the study has them
        found = on_beam(
            own,
            gear,
            own.steering.king_pins,
            SETTING,
            pose.rows(np.array([q.study.ride - 1, q.study.ride + 1])),
            np.zeros(1),
        )
        psi = -np.radians(heading_deg(found.right.spin, 1.0))[:, 0]
        axle = rate[5]
        step = m.travel[q.study.ride + 1] - m.travel[q.study.ride - 1]
        self.assertAlmostEqual((psi[1] - psi[0]) / step, knuckle + axle, places=6)

    def test_a_drag_link_like_the_track_bar_never_steers(self):
        """A parallelogram of bar and link: zero over the whole travel (textbook; the trade's 'same length and parallel')."""
        # the same vector as the bar's, and its axle end moves with the bar's as the three-link keeps the axle from yawing
        own, _ = beam(p(-120, 640, 40), p(-120, 640 - 900, 60))
        layout = own.layout.model_copy(
            update={
                "upper": Link(frame=p(680, 250, 130), axle=p(0, 250, 130)),
                "lower": Link(frame=p(700, 320, -80), axle=p(20, 320, -80)),
            }
        )
        q = steer_study(studied(own.model_copy(update={"layout": layout})))
        self.assertLess(np.nanmax(np.abs(bump_steer(q))), 0.02)

    def test_tie_rod_by_root_finding(self):
        """The closed form of the crank against brentq on the rod's length."""
        one = Crank((0.0, 660.0, -100.0), (0.05, -0.1, math.sqrt(1 - 0.0125)), (160.0, 640.0, -30.0))
        two = Crank((0.0, -660.0, -100.0), (0.05, 0.1, math.sqrt(1 - 0.0125)), (160.0, -640.0, -30.0))
        long = 1280.0
        turned = np.radians(np.linspace(-35.0, 35.0, 15))
        found = crank_angle(two, one.at(turned), long, one.end)
        self.assertTrue(found.reaches.all())
        for angle, mine in zip(turned, found.angle, strict=True):
            end = one.at(np.array([angle]))[0]

            def gap(t, end=end):
                return float(np.linalg.norm(two.at(np.array([t]))[0] - end)) - long

            self.assertAlmostEqual(brentq(gap, mine - 0.3, mine + 0.3, xtol=1e-13), mine, places=9)


class Turning(TestCase):
    def test_both_axes_meet_the_rear_axle_in_one_point(self):
        """Ackermann's condition drawn: axes of both front wheels cross on the rear axle's line (Gillespie, chapter 8, from memory)."""
        apart, base = 1400.0, 2600.0
        for inner in (5.0, 20.0, 33.0):
            outer = ackermann_outer_deg(inner, apart, base)
            meets = [side * apart / 2 + base / math.tan(math.radians(a)) for side, a in ((1, inner), (-1, outer))]
            self.assertAlmostEqual(meets[0], meets[1], places=6)

    def test_circle_of_a_wheel_on_its_pin(self):
        """No scrub, no tyre: the outer wheel runs on a circle of L/sin(o) about the rear axle's line."""
        self.assertAlmostEqual(turning_circle_mm(30.0, 2600.0, 0.0), 10_400.0, places=6)
        self.assertAlmostEqual(turning_circle_mm(30.0, 2650.0, 200.0), 10_600.0 + 200.0, places=6)

    def test_left_lock_mirrors_right_lock(self):
        q = steered(flat_wishbones(420, 120, (340, -60)))
        np.testing.assert_allclose(q.left.steer_deg, -q.right.steer_deg[:, ::-1], atol=1e-8)
        np.testing.assert_allclose(q.left.camber_deg, q.right.camber_deg[:, ::-1], atol=1e-8)

    def test_caster_leans_the_wheels_as_they_turn(self):
        """Camber by steer about a leaned king pin: sin(camber) = a_z of the spin axis turned about it (Rodrigues, textbook)."""
        own, _ = beam(p(-175, 640, 50), p(-200, -450, -5))
        pins = own.steering.king_pins.model_copy(update={"upper": p(24, 640, 100), "lower": p(-10, 700, -130)})
        q = steer_study(
            studied(own.model_copy(update={"steering": own.steering.model_copy(update={"king_pins": pins})}))
        )
        low, up = np.array([-10.0, 700.0, -130.0]), np.array([24.0, 640.0, 100.0])
        k = (up - low) / np.linalg.norm(up - low)

        def turned(t):
            a = np.array([0.0, 1.0, 0.0])
            return a * math.cos(t) + np.cross(k, a) * math.sin(t) + k * (k @ a) * (1 - math.cos(t))

        for column in (2, 6, 10, 14, 18):
            steer = q.right.steer_deg[q.ride, column]
            t = brentq(
                lambda t, w=steer: -math.degrees(math.atan2(-turned(t)[0], turned(t)[1])) - w, -1.2, 1.2, xtol=1e-14
            )
            self.assertAlmostEqual(q.right.camber_deg[q.ride, column], -math.degrees(math.asin(turned(t)[2])), places=8)


class StrutOnItsLine(TestCase):
    def strut(self, caster_deg: float) -> Strut:
        back = math.tan(math.radians(caster_deg))
        return Strut(
            top=p(600 * back, 620, 600),
            foot=p(100 * back, 640, 100),
            lower_front=p(-150, 300, -100),
            lower_rear=p(150, 300, -100),
            lower_ball=p(-100 * back, 700, -100),
            toe=Link(frame=p(130, 310, -60), axle=p(130, 690, -60)),
        )

    def test_the_line_passes_the_top_mount_in_every_pose(self):
        own = Suspension(axle="front", layout=self.strut(4.0), steering=Steering(gear=Rack()))
        m = studied(own).motion
        foot, top = np.array(own.layout.foot.xyz()), np.array(own.layout.top.xyz())
        u = (top - foot) / np.linalg.norm(top - foot)
        turned = m.level.pose.rotation @ u
        at = m.level.pose.origin + m.level.pose.rotation @ foot
        off = np.linalg.norm(np.cross(top - at, turned), axis=1)
        self.assertLess(off.max(), 1e-7)

    def test_seven_degrees_over_75_mm_is_9_mm(self):
        """Common practice: a wheel guided along a line of 7 degrees goes back 9 mm in 75 mm of bump."""
        fall = math.tan(math.radians(7.0))
        # arms so long that they hardly swing, their pivots square to the line, so that nothing but it guides the wheel
        arm = {
            "lower_front": p(-160, -9000, -100 + 148 * fall),
            "lower_rear": p(140, -9000, -100 - 152 * fall),
            "toe": Link(frame=p(130, -9010, -60), axle=p(130, 690, -60)),
            "top": p(3000 * fall, 640, 3000),
        }
        long = self.strut(7.0).model_copy(update=arm)
        m = moved_through(long, SETTING, np.array([0.0, 25.0, 50.0, 75.0]))
        centre = m.level.pose.origin + m.level.pose.rotation @ np.array([0.0, 790.0, 0.0])
        self.assertAlmostEqual(centre[-1, 0] - centre[0, 0], 9.2, delta=0.5)

    def test_camber_by_a_plane_mechanism(self):
        """Front view with everything in one plane, solved by least squares: arm, and a line through the top mount."""
        own = Suspension(axle="front", layout=self.strut(0.0), steering=Steering(gear=Rack()))
        q = steer_study(studied(own))
        top, foot, ball, pivot, hub = (
            np.array(v) for v in ((620.0, 600.0), (640.0, 100.0), (700.0, -100.0), (300.0, -100.0), (790.0, 0.0))
        )
        u = (top - foot) / np.linalg.norm(top - foot)
        n = np.array([-u[1], u[0]])
        guess = np.zeros(3)
        m = q.study.motion
        for row in range(q.study.ride, len(m.travel), 10):

            def gaps(state, wanted=m.travel[row]):
                y, z, t = state
                turn = np.array([[math.cos(t), -math.sin(t)], [math.sin(t), math.cos(t)]])
                put = lambda v: np.array([y, z]) + turn @ v  # noqa: E731
                return [
                    np.linalg.norm(put(ball) - pivot) - 400.0,
                    (top - put(foot)) @ (turn @ n),
                    put(hub)[1] - wanted,
                ]

            guess = solved(gaps, guess)
            # the toe link lies off the plane's own line: it yaws the wheel by tenths, which moves camber by thousandths
            self.assertAlmostEqual(q.straight.camber_deg[row, 0], -math.degrees(guess[2]), delta=0.02)
