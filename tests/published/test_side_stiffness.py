"""Side stiffness of links and the turning of unequal leaf halves against closed forms."""

import math

import numpy as np
from django.test import SimpleTestCase

from nodulant.axles.layouts.live import LeafSprings
from nodulant.axles.points import Joints
from nodulant.materials.steel import ELASTIC_MODULUS_MPA
from nodulant.suspension import motion
from nodulant.suspension.motion import moved_through
from nodulant.suspension.side_stiffness import side_stiffness, usual_stiffness
from tests.published.test_linkages import AXLE, HUB, TRAVEL, link, parallel, point, ride, triangulated


def bar_rate(own):
    a = np.array(own.axle.xyz()) + np.array(HUB)
    return ELASTIC_MODULUS_MPA * own.tube.area_mm2 / float(np.linalg.norm(a - np.array(own.frame.xyz())))


class Sideways(SimpleTestCase):
    """An axle that moves under the body on every bend steers by itself."""

    def level(self, half_angle_deg=30.0, **joints):
        """Level links; lower ones fore and aft, so that only the uppers hold sideways at their height."""
        y = 90 + 460 * math.tan(math.radians(half_angle_deg))
        upper = link((2140, y, 60), (-10, 90, 80)).model_copy(update={"joints": Joints(**joints)})
        return triangulated(upper=upper, lower=link((1950, 400, -110), (0, 400, -90)))

    def test_two_converging_links_are_twice_k_sine_squared(self):
        """K = 2 (E A/L) sin^2 a across (statics), lean held: yaw of the lower pair adds nothing to first order."""
        layout = self.level()
        a = math.radians(30.0)
        stiff = side_stiffness(moved_through(layout, AXLE, TRAVEL))
        k = 2 * bar_rate(layout.upper) * math.sin(a) ** 2
        # the uppers pass behind the hubs: what they hold at their own crossing turns the axle about the lowers
        self.assertLessEqual(stiff, k * 1.001)
        self.assertGreater(stiff, 0.5 * k)

    def test_a_track_bar_is_its_own_rate(self):
        """A level bar across holds (E A/L) at its ends (statics)."""
        layout = parallel()
        m = moved_through(layout, AXLE, TRAVEL)
        bar = layout.lateral.bar
        reach = np.array(bar.axle.xyz()) + np.array(HUB) - np.array(bar.frame.xyz())
        cosine = abs(reach[1]) / np.linalg.norm(reach)
        self.assertAlmostEqual(side_stiffness(m) / (bar_rate(bar) * cosine**2), 1.0, delta=0.02)

    def test_bushes_stand_in_line_with_the_tube(self):
        """1/k = L/EA + 2/k_bush (springs in line)."""
        plain, rubber = (
            side_stiffness(moved_through(self.level(**j), AXLE, TRAVEL)) for j in ({}, {"bush_n_per_mm": 8000.0})
        )
        own = bar_rate(self.level().upper)
        softer = 1 / (1 / own + 2 / 8000.0)
        self.assertAlmostEqual(
            rubber / plain, softer / own, delta=0.05 * softer / own
        )  # the lower pair, without rubber, helps a little

    def test_what_is_lost_grows_as_sine_squared(self):
        for degrees in (10.0, 15.0, 20.0):
            layout = self.level(degrees)
            own, usual = side_stiffness(moved_through(layout, AXLE, TRAVEL)), usual_stiffness(layout, AXLE)
            expected = (math.sin(math.radians(degrees)) / math.sin(math.radians(20.0))) ** 2
            # the links' own lengths change a little with their angle
            self.assertAlmostEqual(own / usual, expected, delta=0.12 * expected)


class UnequalHalves(SimpleTestCase):
    """The seat of a spring with halves a and b turns by (b - a)/(a b) per unit of travel (SAE manual, from memory)."""

    def turned(self, rear):
        eye, seat = point(HUB[0] - 550, 450, -40), point(0, 450, -60)
        rear_eye = None if rear is None else point(HUB[0] + rear, 450, -40)
        m = moved_through(LeafSprings(eye=eye, seat=seat, rear_eye=rear_eye), AXLE, TRAVEL)
        self.assertTrue(m.there.all())
        pitch = np.radians(motion.pitch_deg(m))
        return float(np.interp(1.0, TRAVEL, pitch) - np.interp(-1.0, TRAVEL, pitch)) / 2

    def test_by_the_difference_of_the_halves(self):
        for rear in (650.0, 800.0, 480.0):
            # nose up positive; with the longer half behind, the nose goes down in bump
            self.assertAlmostEqual(
                self.turned(rear), -(rear - 550) / (550 * rear), delta=2e-6 + 0.02 * abs(rear - 550) / (550 * rear)
            )

    def test_halves_alike_do_not_turn(self):
        self.assertAlmostEqual(self.turned(550.0), 0.0, delta=1e-6)
        self.assertAlmostEqual(self.turned(None), 0.0, delta=1e-6)

    def test_ride_height_is_ride_height(self):
        self.assertAlmostEqual(ride(TRAVEL), 0.0)
