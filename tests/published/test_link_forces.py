"""Forces in links by virtual work against statics; buckling against Euler and Johnson; springs against arithmetic."""

import math

import numpy as np
from django.test import SimpleTestCase

from nodulant.axles.points import Tube, on_axle
from nodulant.axles.springs import AirSpring, Coilover
from nodulant.suspension import motion
from nodulant.suspension.feet import heights
from nodulant.suspension.forces import AxleLoads, balance, tyre_forces
from nodulant.suspension.motion import Setting, moved_through
from nodulant.suspension.spring_motion import both_strung, spring_motion
from nodulant.suspension.tube import critical_mpa, critical_n
from tests.published.test_linkages import AXLE, HUB, TRAVEL, parallel, point, ride, triangulated

UPRIGHT = Coilover(
    lower=point(0, 350, 0),
    upper=point(2610, 350, 400),
    rate_n_per_mm=30,
    free_mm=350,
    block_mm=100,
    open_mm=560,
    closed_mm=370,
)
RIDE = int(np.argmin(np.abs(TRAVEL)))
LOADS = AxleLoads(standing_n=8000.0, launch_n=11_000.0, drive_n=11_000.0, braking_n=6000.0, brake_n=5000.0)


def forces(layout, case, springs=UPRIGHT):
    m = moved_through(layout, AXLE, TRAVEL)
    return m, balance(m, RIDE, both_strung(springs, m), tyre_forces(case, LOADS, m))


class Statics(SimpleTestCase):
    """A link that is taken for weaker than it works breaks on the road."""

    def test_every_force_and_moment_balances(self):
        layout = triangulated()
        for case in ("standing", "launch", "brake", "bump", "kerb"):
            with self.subTest(case):
                m, found = forces(layout, case)
                total, moment = np.zeros(3), np.zeros(3)
                for force, place in tyre_forces(case, LOADS, m):
                    total += force
                    moment += np.cross(place, force)
                for named, tension in zip(layout.links(), found.tension, strict=True):
                    a, b = np.array(on_axle(named.link.axle, HUB)), np.array(named.link.frame.xyz())
                    pull = tension * (b - a) / np.linalg.norm(b - a)
                    total += pull
                    moment += np.cross(a - HUB, pull)
                for own, push in zip(both_strung(UPRIGHT, m), found.springs, strict=True):
                    low = own.foot.at
                    d = np.array(low) - np.array(own.upper)
                    force = push * d / np.linalg.norm(d)
                    total += force
                    moment += np.cross(np.array(low) - HUB, force)
                np.testing.assert_allclose(total, 0.0, atol=1e-6)
                np.testing.assert_allclose(moment, 0.0, atol=1e-3)
                self.assertLess(found.left_n, 1e-6)

    def test_anti_squat_of_a_hundred_per_cent_leaves_the_springs_alone(self):
        """Gillespie, Fundamentals of Vehicle Dynamics, chapter 7 (from memory): twist and forces say the same."""
        m, standing = forces(triangulated(), "standing")
        _, launch = forces(triangulated(), "launch")
        slope = ride(motion.torque_slope(m, braking=False))
        _, ratio = heights(both_strung(UPRIGHT, m)[0], m)
        transfer = LOADS.launch_n - LOADS.standing_n
        change = (launch.springs.sum() - standing.springs.sum()) * ride(ratio)
        self.assertAlmostEqual(change, transfer - LOADS.drive_n * slope, places=4)

    def test_a_bar_more_than_needed_shares_alike(self):
        _, found = forces(parallel(), "brake")
        np.testing.assert_allclose(found.tension[0], found.tension[1], rtol=0.05)
        self.assertLess(found.left_n, 1e-6)


class Buckling(SimpleTestCase):
    """Euler and Johnson (Shigley, Mechanical Engineering Design, chapter 4, from memory)."""

    def test_johnson_on_a_common_link(self):
        """38.1 x 6.35, 600 mm, 480 MPa: f_y (1 - f_y (L/k)^2/(4 pi^2 E)) = 402 MPa."""
        k = math.sqrt((38.1**2 + 25.4**2) / 16)
        by_hand = 480 * (1 - 480 * (600 / k) ** 2 / (4 * math.pi**2 * 205_000))
        self.assertAlmostEqual(by_hand, 402, delta=2.5)

        class Drawn(Tube):
            @property
            def yield_mpa(self):
                return 480.0

        self.assertAlmostEqual(critical_mpa(Drawn(), 600.0), 402, delta=2.5)

    def test_euler_on_a_slender_one(self):
        tube = Tube(od_mm=20.0, wall_mm=2.0)
        by_hand = math.pi**2 * 205_000 * math.pi / 64 * (20**4 - 16**4) / 1500**2
        self.assertAlmostEqual(critical_n(tube, 1500.0) / by_hand, 1.0, delta=0.03)

    def test_both_meet_where_they_touch(self):
        tube = Tube()
        k = math.sqrt(tube.inertia_mm4 / tube.area_mm2)
        at = k * math.sqrt(2 * math.pi**2 * 205_000 / tube.yield_mpa)
        self.assertAlmostEqual(critical_mpa(tube, at * 0.999) / critical_mpa(tube, at * 1.001), 1.0, delta=0.03)


class SpringArithmetic(SimpleTestCase):
    """f in cycles a minute = 188 / sqrt(static deflection in inches) (common practice)."""

    def test_ride_frequency(self):
        m = moved_through(triangulated(), Setting(HUB, 760.0, 330.0), TRAVEL)
        far = UPRIGHT.model_copy(update={"upper": point(2610, 350, 3e3)})
        corner = 4000.0
        found = spring_motion(far, m, corner, RIDE)
        deflection_in = corner / ride(found.wheel_rate) / 25.4
        self.assertAlmostEqual(ride(found.frequency_hz) * 60, 188 / math.sqrt(deflection_in), delta=0.3)

    def test_air_spring_is_a_closed_gas(self):
        """P V^n constant: rate = n p_abs A^2/V + p_gauge dA/dz, against the force's own slope."""
        air = AirSpring(
            lower=point(0, 350, 0),
            upper=point(2610, 350, 200),
            ride_mm=200,
            least_mm=80,
            most_mm=330,
            area_mm2=16_000,
            area_per_mm=-8.0,
            volume_mm3=3.2e6,
        )
        m = moved_through(triangulated(), AXLE, TRAVEL)
        found = spring_motion(air, m, 4000.0, RIDE)
        slope = -np.gradient(found.force, found.length)
        np.testing.assert_allclose(slope[2:-2], found.own_rate[2:-2], rtol=4e-3)
