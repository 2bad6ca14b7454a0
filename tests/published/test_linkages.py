"""Linkages against closed forms, line constructions and a general least-squares solver."""

import math

import numpy as np
from django.test import SimpleTestCase
from scipy.optimize import least_squares

from nodulant.axles.layouts.independent import DoubleWishbone, TrailingArm
from nodulant.axles.layouts.lateral import TrackBar, WattsLink
from nodulant.axles.layouts.live import LeafSprings, ParallelFourLink, ThreeLink, TriangulatedFourLink
from nodulant.axles.points import HardPoint, Link
from nodulant.linkage.compiled import places
from nodulant.linkage.rotation import rotation_vector
from nodulant.linkage.sweep import stretches
from nodulant.suspension import motion
from nodulant.suspension.feet import Foot, Strung, heights
from nodulant.suspension.motion import Setting, moved_through

HUB = (2610.0, 0.0, -20.0)
AXLE = Setting(HUB, 760.0, 330.0)
TRAVEL = np.linspace(-90.0, 90.0, 61)


def point(x, y, z):
    return HardPoint(x_mm=x, y_mm=y, z_mm=z)


def link(frame, axle):
    return Link(frame=point(*frame), axle=point(*axle))


def triangulated(**more):
    fields = {
        "lower": link((1950, 330, -60), (0, 420, -90)),
        "upper": link((2150, 330, 40), (-10, 90, 80)),
    }
    return TriangulatedFourLink(**{**fields, **more})


def parallel(slope=0.0, lateral=None):
    """Four bars of one length; the upper ones slope down forward by ``slope`` mm over their length."""
    bar = TrackBar(bar=link((2640, 400, 20), (30, -400, 40)))
    return ParallelFourLink(
        lower=link((2010, 380, -110), (0, 380, -90)),
        upper=link((2010, 380, 70 - slope), (0, 380, 90)),
        lateral=lateral or bar,
    )


def ride(values):
    """The value at ride height."""
    return float(values[int(np.argmin(np.abs(TRAVEL)))])


class FourBar(SimpleTestCase):
    """In heave a mirrored four-link is a planar four-bar: its coupler has a closed form (Freudenstein, from memory)."""

    def test_every_coupler_position(self):
        layout = triangulated()
        m = moved_through(layout, AXLE, TRAVEL)
        for i, z in enumerate(TRAVEL):
            with self.subTest(z):
                x, _, height = m.level.pose.origin[i]
                self.assertAlmostEqual(height, HUB[2] + z, places=8)
                # both links of the right side keep their lengths in space; seen by hand from the pose
                theta = math.radians(motion.pitch_deg(m)[i])
                for own in (layout.lower, layout.upper):
                    ax, ay, az = own.axle.xyz()
                    end = (
                        x + ax * math.cos(theta) + az * math.sin(theta),
                        ay,
                        height - ax * math.sin(theta) + az * math.cos(theta),
                    )
                    length = math.dist(own.frame.xyz(), (HUB[0] + ax, HUB[1] + ay, HUB[2] + az))
                    self.assertAlmostEqual(math.dist(end, own.frame.xyz()), length, places=7)

    def test_the_planar_loop_in_closed_form(self):
        """Lower and upper links straight fore and aft: crank angle gives the coupler's by Freudenstein's quadratic."""
        lower, upper = link((2010, 380, -110), (0, 380, -90)), link((2110, 380, 50), (0, 380, 90))
        layout = ThreeLink(lower=lower, upper=upper, lateral=TrackBar(bar=link((2610, 4000, 0), (0, -4000, 20))))
        m = moved_through(layout, AXLE, TRAVEL, (0.0,))
        a, d = math.dist((2010, -110), (2610, -110)), math.dist((2010, -110), (2110, 50))
        b, c = 180.0, math.dist((2110, 50), (2610, 70))
        for i in (0, 20, 45, 60):
            theta = math.radians(motion.pitch_deg(m)[i])
            x, _, z = m.level.pose.origin[i]
            low = (x - 90 * math.sin(theta), z - 90 * math.cos(theta))
            crank = math.atan2(low[1] + 110, low[0] - 2010)
            base = math.atan2(160, 100)
            t2 = crank - base
            k1, k4, k5 = d / a, d / b, (c**2 - d**2 - a**2 - b**2) / (2 * a * b)
            big_d = math.cos(t2) - k1 + k4 * math.cos(t2) + k5
            big_e, big_f = -2 * math.sin(t2), k1 + (k4 - 1) * math.cos(t2) + k5
            roots = [
                2 * math.atan2(-big_e + s * math.sqrt(big_e**2 - 4 * big_d * big_f), 2 * big_d) + base for s in (1, -1)
            ]
            coupler = math.pi / 2 - theta
            nearest = min(abs((r - coupler + math.pi) % (2 * math.pi) - math.pi) for r in roots)
            self.assertLess(nearest, 2e-4)  # the track bar's 4 m arc shifts the axle by hundredths

    def test_a_trailing_arm_swings_on_its_circle(self):
        layout = TrailingArm(inner=point(2100, 300, 10), outer=point(2100, 700, 10))
        m = moved_through(layout, AXLE, TRAVEL)
        hub = motion.hub_place(m)
        radius = math.hypot(510, 30)
        np.testing.assert_allclose(np.hypot(hub[:, 0] - 2100, hub[:, 2] - 10), radius, atol=1e-8)
        np.testing.assert_allclose(hub[:, 1], 760, atol=1e-9)
        self.assertTrue(m.there.all())


class AgainstLeastSquares(SimpleTestCase):
    """scipy.optimize.least_squares on the same rods, pose by pose, from the same start."""

    def test_the_same_poses(self):
        layout = triangulated()
        m = moved_through(layout, AXLE, TRAVEL)
        rods = layout.mechanism(HUB).rods
        p = np.array([r.a.point for r in rods]) - HUB
        c = np.array([r.b.point for r in rods])
        length = np.linalg.norm(p + HUB - c, axis=1)
        s = m.sweep
        for row in (0, 100, 213, 300, 426):
            target = (s.travel[row // len(s.roll)], s.roll[row % len(s.roll)])

            def error(u, target=target):
                k = np.linalg.norm(u[3:]) or 1e-30
                axis = u[3:] / k
                r = (
                    np.eye(3)
                    + math.sin(k) * np.cross(axis, np.eye(3)).T
                    + (1 - math.cos(k)) * (np.outer(axis, axis) - np.eye(3))
                )
                return np.append(
                    np.linalg.norm(p @ r.T + u[:3] - c, axis=1) - length,
                    [u[2] - HUB[2] - target[0], 500 * (r[2, 1] - math.sin(target[1]))],
                )

            start = np.array([HUB[0], HUB[1], HUB[2] + target[0], target[1], 0.0, 0.0])
            found = least_squares(error, start, xtol=1e-15, ftol=1e-15, gtol=1e-15).x
            own = s.solved.pose.rows(np.array([row]))
            np.testing.assert_allclose(own.origin[0], found[:3], atol=1e-6)
            np.testing.assert_allclose(rotation_vector(own.rotation)[0], found[3:], atol=1e-9)

    def test_the_batch_changes_no_bit(self):
        whole = moved_through(triangulated(), AXLE, TRAVEL)
        some = moved_through(triangulated(), AXLE, TRAVEL[::5])
        np.testing.assert_array_equal(whole.level.pose.origin[::5], some.level.pose.origin)
        np.testing.assert_array_equal(whole.heave[::5], some.heave)


class LineConstructions(SimpleTestCase):
    """Gillespie, Fundamentals of Vehicle Dynamics, chapters 6 to 8 (from memory)."""

    def test_instant_centre_is_where_the_links_meet_in_side_view(self):
        layout = triangulated(upper=link((2150, 330, 20), (-10, 90, 80)))
        m = moved_through(layout, AXLE, TRAVEL)
        x, z = (ride(v) for v in motion.instant_centre(m))
        low, up = ((2610, -110), (1950, -60)), ((2600, 60), (2150, 20))
        (x1, z1), (x2, z2) = low
        (x3, z3), (x4, z4) = up
        s = ((x3 - x1) * (z4 - z3) - (z3 - z1) * (x4 - x3)) / ((x2 - x1) * (z4 - z3) - (z2 - z1) * (x4 - x3))
        self.assertAlmostEqual(x, x1 + s * (x2 - x1), places=4)
        self.assertAlmostEqual(z, z1 + s * (z2 - z1), places=4)
        # anti-squat: height of the IC over its distance, seen from the contact patch
        ground = HUB[2] - AXLE.radius_mm
        slope = ride(motion.torque_slope(m, braking=False))
        self.assertAlmostEqual(slope, (z - ground) / (HUB[0] - x), places=7)

    def test_roll_centre_at_the_meeting_of_the_planes(self):
        """Triangulated: the roll axis joins the meeting points of both pairs; it is cut at the hub plane."""
        layout = triangulated(lower=link((1950, 330, -60), (0, 330.001, -90)))
        m = moved_through(layout, AXLE, TRAVEL)
        up = layout.upper
        share = up.axle.y_mm / (up.axle.y_mm - up.frame.y_mm)
        apex_x = HUB[0] + up.axle.x_mm + share * (up.frame.x_mm - HUB[0] - up.axle.x_mm)
        apex_z = HUB[2] + up.axle.z_mm + share * (up.frame.z_mm - HUB[2] - up.axle.z_mm)
        # parallel lower links meet at infinity, so the axis runs through the apex along their slope
        slope = (-60 - (HUB[2] - 90)) / (1950 - HUB[0])
        height = apex_z + slope * (HUB[0] - apex_x) - (HUB[2] - AXLE.radius_mm)
        self.assertAlmostEqual(ride(motion.roll_centre(m)), height, delta=0.02)
        # positive (roll understeer at the rear) where the axis rises rearward: dz/dx of the axis
        self.assertAlmostEqual(ride(motion.roll_steer(m)), slope, places=5)

    def test_parallel_links_keep_the_pinion_and_have_no_instant_centre(self):
        m = moved_through(parallel(), AXLE, TRAVEL, (0.0,))
        np.testing.assert_allclose(motion.pitch_deg(m), 0.0, atol=1e-6)
        x, _ = motion.instant_centre(m)
        self.assertTrue(np.all(np.isnan(x) | (np.abs(x) > 1e7)))

    def test_track_bar_shifts_the_axle_on_its_arc(self):
        m = moved_through(parallel(), AXLE, TRAVEL, (0.0,))
        bar = parallel().lateral.bar
        length = math.dist(bar.frame.xyz(), (2640, -400, 20))
        for origin in m.level.pose.origin:
            end = origin + np.array([30, -400, 40])
            self.assertAlmostEqual(math.dist(end, bar.frame.xyz()), length, places=6)
        self.assertLess(abs(m.level.pose.origin[:, 1]).max(), 8.0)

    def test_double_wishbone_roll_centre_of_level_equal_arms_is_on_the_ground(self):
        layout = DoubleWishbone(
            upper_front=point(2500, 400, 100),
            upper_rear=point(2700, 400, 100),
            upper_ball=point(0, -100, 120),
            lower_front=point(2500, 400, -100),
            lower_rear=point(2700, 400, -100),
            lower_ball=point(0, -100, -80),
            toe=link((2720, 400, 0), (110, -100, 20)),
        )
        layout = layout.model_copy(
            update={
                "upper_ball": point(0, 660, 120),
                "lower_ball": point(0, 660, -80),
                "toe": link((2720, 400, 0), (110, 660, 20)),
            }
        )
        m = moved_through(layout, AXLE, TRAVEL)
        self.assertAlmostEqual(ride(motion.roll_centre(m)), 0.0, places=6)
        np.testing.assert_allclose(motion.lean_deg(m), 0.0, atol=1e-6)


class Watts(SimpleTestCase):
    """A Watt's link keeps its pin on a line far straighter than a track bar's arc (common practice)."""

    def test_the_pin_hardly_leaves_the_middle(self):
        crank = WattsLink(pin=point(0, 0, 0), crank_mm=160, upper=point(2610, -420, 60), lower=point(2610, 420, -100))
        three = ThreeLink(
            lower=link((1950, 380, -60), (0, 420, -90)), upper=link((2050, 100, 40), (0, 100, 120)), lateral=crank
        )
        m = moved_through(three, AXLE, TRAVEL)
        self.assertTrue(m.sweep.there.all())
        self.assertLess(np.abs(m.level.pose.origin[:, 1]).max(), 0.8)
        # the roll centre is at the crank's pin (common practice)
        self.assertAlmostEqual(ride(motion.roll_centre(m)), AXLE.radius_mm, delta=0.5)


class Binding(SimpleTestCase):
    """Bars of equal slope bind hardly, converging ones by millimetres: misfit = roll x half spacing x difference of slopes."""

    def misfit(self, layout, degrees):
        m = moved_through(layout, AXLE, np.array([0.0]), (0.0, degrees))
        return stretches(m.sweep)[1]

    def test_equal_slopes_hardly_bind(self):
        self.assertLess(np.abs(self.misfit(parallel(), 1.0)).max(), 0.05)

    def test_first_order_misfit_of_converging_bars(self):
        """All rods' give adds up to the misfit that the first-order rule says."""
        slope = 60.0
        layout = parallel(slope)
        give = self.misfit(layout, 1.0)
        length = math.hypot(600, 20 + slope)
        by_rule = 2 * 380 * math.radians(1.0) * abs((20 + slope) / 600 - 20 / 600)
        total = abs(give[0] - give[1]) + abs(give[2] - give[3])
        self.assertGreater(length, 600)
        self.assertAlmostEqual(total / by_rule, 1.0, delta=0.15)

    def test_a_three_link_does_not_bind(self):
        three = ThreeLink(
            lower=link((1950, 380, -60), (0, 420, -90)),
            upper=link((2050, 100, 40), (0, 100, 120)),
            lateral=TrackBar(bar=link((2640, 400, 20), (30, -400, 40))),
        )
        m = moved_through(three, AXLE, TRAVEL)
        self.assertLess(np.abs(stretches(m.sweep)).max(), 1e-8)


class Springs(SimpleTestCase):
    """Geometry of springs by hand."""

    def test_leaf_seat_swings_on_three_quarters_of_its_front_half(self):
        leaf = LeafSprings(eye=point(2000, 450, -10), seat=point(0, 450, 0))
        m = moved_through(leaf, AXLE, TRAVEL, (0.0,))
        pivot_x = 2000 + 610 / 4
        end = m.level.pose.origin
        np.testing.assert_allclose(
            np.hypot(end[:, 0] - pivot_x, end[:, 2] + 10), math.hypot(2610 - pivot_x, 10), atol=1e-7
        )
        np.testing.assert_allclose(motion.pitch_deg(m), 0.0, atol=1e-7)

    def test_motion_ratio_is_the_slope_of_the_length(self):
        m = moved_through(triangulated(), AXLE, TRAVEL)
        lower, upper = (2560.0, 350.0, -60.0), (2560.0, 300.0, 320.0)
        length, ratio = heights(Strung(Foot(lower), upper), m)
        np.testing.assert_allclose(ratio[1:-1], -np.gradient(length, TRAVEL)[1:-1], atol=2e-4)

    def test_springs_inboard_lose_roll_stiffness(self):
        """Roll motion ratio of upright springs is spring base over track (common practice)."""
        m = moved_through(triangulated(), AXLE, TRAVEL)
        ratio = motion.roll_ratio((2610.0, 350.0, -60.0), (2610.0, 350.0, 3e5), m)
        self.assertAlmostEqual(ride(ratio), 350 / 760, delta=2e-3)


class Places(SimpleTestCase):
    def test_frame_ends_do_not_move(self):
        m = moved_through(triangulated(), AXLE, TRAVEL)
        at = places(m.sweep.compiled, m.level.pose, m.sweep.compiled.b)
        self.assertEqual(np.ptp(at, axis=0).max(), 0.0)
