"""Figures of a suspension that stand beside its curves: they must say what the curves and the hands say."""

import math

import numpy as np
from django.test import SimpleTestCase

from nodulant.evaluate import evaluate
from nodulant.suspension import motion
from nodulant.suspension.motion import Setting, moved_through
from nodulant.suspension.study import study
from nodulant.targets.drop import add_up
from nodulant.units.inline import told
from tests import fixtures as f
from tests.core.test_suspensions import AIR, BAR, COIL, LAYOUTS, ONLY, link, p, suspended, travel_checks

DAMPER = {"lower": p(-60, 300, -40), "upper": p(2550, 260, 340), "open_mm": 540.0, "closed_mm": 330.0}


def facts(**more):
    return {fact.name: fact for fact in evaluate(suspended(**more), ONLY).travel[0].facts}


def studied(**more):
    job = suspended(**more)
    return study(
        job.survey, job.design.suspensions[0], job.design.seats, add_up(job.design.targets).towards_rail_mm, 0.9
    )


class Sideways(SimpleTestCase):
    def test_a_live_axle_says_how_stiffly_it_is_held(self):
        for kind in ("triangulated", "parallel", "three-link"):
            self.assertGreater(facts(kind=kind)["Side stiffness of the links"].value, 0)

    def test_single_wheels_and_leaves_do_not(self):
        for kind in ("double-wishbone", "leaf"):
            self.assertNotIn("Side stiffness of the links", facts(kind=kind, springs=None))

    def test_softer_bushes_hold_it_less(self):
        soft = {
            **LAYOUTS["triangulated"],
            "upper": {**LAYOUTS["triangulated"]["upper"], "joints": {"bush_n_per_mm": 5000.0}},
        }
        name = "Side stiffness of the links"
        self.assertLess(facts(layout=soft)[name].value, 0.2 * facts()[name].value)


class PairInRoll(SimpleTestCase):
    """Of single wheels the one goes up as the other goes down: camber to the road is what the tyre feels."""

    def test_both_wheels_by_their_own_travel(self):
        s = studied(kind="double-wishbone", springs=None)
        m = s.motion
        rise = m.setting.half_track_mm * math.tan(math.radians(3.0))
        lean = motion.lean_deg(m)
        found = facts(kind="double-wishbone", springs=None)
        for name, travel, sign in (("loaded", rise, 1.0), ("other", -rise, -1.0)):
            fact = found[f"Camber to the road at 3° of roll, {name} wheel"]
            self.assertAlmostEqual(fact.value, float(np.interp(travel, m.travel, lean)) + sign * 3.0, places=6)
            self.assertIn(f"{rise:.1f} mm", told(fact.words, "mm"))

    def test_equal_parallel_arms_lean_with_the_body(self):
        """Arms of one length, parallel: no camber to the body, so the tyre leans by the roll (textbook)."""
        layout = {
            "upper_front": p(2500, 400, 40),
            "upper_rear": p(2720, 400, 40),
            "upper_ball": p(0, 690, 161),
            "lower_front": p(2500, 400, -200),
            "lower_rear": p(2720, 400, -200),
            "lower_ball": p(0, 690, -79),
            "toe": link((2740, 400, -80), (130, 690, 41)),
        }
        found = facts(kind="double-wishbone", springs=None, layout=layout)
        self.assertAlmostEqual(found["Camber to the road at 3° of roll, loaded wheel"].value, 3.0, delta=0.15)

    def test_static_camber_leans_with_it(self):
        """-3 degrees standing: the loaded wheel of the sum above stands upright, the other leans six."""
        plain, set_ = (facts(kind="double-wishbone", springs=None, camber_deg=c) for c in (0.0, -3.0))
        for name in ("loaded", "other"):
            key = f"Camber to the road at 3° of roll, {name} wheel"
            self.assertAlmostEqual(set_[key].value - plain[key].value, -3.0, delta=0.05)

    def test_too_little_travel_says_nothing(self):
        names = facts(kind="double-wishbone", springs=None, bump_mm=20.0, droop_mm=20.0)
        self.assertFalse(any(name.startswith("Camber to the road") for name in names))


class Clocking(SimpleTestCase):
    """What a mount's bracket is turned by: the damper's lean, and the rail's own rise (plane geometry)."""

    def rising(self, inputs, per_mm):
        rails = {}
        for side in ("left", "right"):
            rail = inputs.survey.rails.of(side)
            ends = (rail.stations[0].x_mm, rail.stations[-1].x_mm)
            stations = tuple(
                s.model_copy(update={"underside_z_mm": per_mm * (s.x_mm - ends[0])}) for s in rail.stations
            )
            rails[side] = rail.model_copy(update={"stations": stations})
        return f.with_survey(inputs, rails=inputs.survey.rails.model_copy(update=rails))

    def turned(self, inputs):
        facts = evaluate(inputs, ONLY).travel[0].facts
        return {fact.name: fact.value for fact in facts if fact.name.endswith("turned")}

    def test_a_pair_is_clocked_each_by_itself(self):
        damper = {**DAMPER, "count": 2, "apart_mm": 600.0}
        level = self.turned(suspended(springs=AIR, damper=damper))
        self.assertEqual(set(level), {"Bracket of the front damper turned", "Bracket of the rear damper turned"})
        self.assertAlmostEqual(*level.values())
        risen = self.turned(self.rising(suspended(springs=AIR, damper=damper), 0.1))
        for name, value in level.items():
            self.assertAlmostEqual(risen[name] - value, math.degrees(math.atan(0.1)), places=3)


class Dampers(SimpleTestCase):
    def test_spacing_is_measured_from_one_to_the_other(self):
        self.assertEqual(facts()["Upper mounts, left to right"].value, 2 * COIL["upper"]["y_mm"])
        self.assertEqual(facts(springs=AIR, damper=DAMPER)["Upper mounts, left to right"].value, 520.0)
        self.assertNotIn("Upper mounts, left to right", facts(springs=AIR))

    def test_a_damper_that_stands_along_the_axle_s_way_lies_in_its_plane(self):
        """Level parallel bars: the axle goes straight up at ride height, so an upright damper leans by nothing."""
        s = studied()
        high = s.setting.hub[2]
        level = {
            "upper": link((2100, 380, high + 130), (0, 380, 130)),
            "lower": link((2100, 380, high - 75), (0, 380, -75)),
            "lateral": BAR,
        }
        name = "Damper leans out of the plane of the axle's motion by"
        upright = {**COIL, "lower": p(0, 300, -40), "upper": p(s.setting.hub[0], 280, 340)}
        self.assertAlmostEqual(facts(kind="parallel", layout=level, springs=upright)[name].value, 0.0, delta=0.2)
        leaning = {**upright, "upper": p(s.setting.hub[0] + 60, 280, 340)}
        tall = 340 - (high - 40)
        by_hand = math.degrees(math.atan2(60, tall))
        self.assertAlmostEqual(facts(kind="parallel", layout=level, springs=leaning)[name].value, by_hand, delta=0.2)


class Stops(SimpleTestCase):
    """A stop struck askew tears; the pads are set square where it strikes."""

    NAME = "Where the stop strikes, it has turned by"

    def test_a_trailing_arm_turns_on_the_way(self):
        """An arm of length l that lies level turns by asin(gap/l) (geometry)."""
        high = evaluate(suspended("trailing"), ONLY).travel[0].hub
        layout = {"inner": p(high[0] - 480, 330, high[2]), "outer": p(high[0] - 480, 660, high[2])}
        found = facts(kind="trailing", layout=layout)[self.NAME]
        self.assertAlmostEqual(found.value, math.degrees(math.asin(60 / 480)), delta=0.05)

    def test_parallel_bars_strike_square(self):
        high = evaluate(suspended("parallel"), ONLY).travel[0].hub
        layout = {
            "upper": link((1990, 380, high[2] + 130), (0, 380, 130)),
            "lower": link((1990, 380, high[2] - 75), (0, 380, -75)),
            "lateral": BAR,
        }
        self.assertLess(facts(kind="parallel", layout=layout)[self.NAME].value, 0.5)

    def test_no_stop_no_figure(self):
        self.assertNotIn(self.NAME, facts(stop=None))


class AirPlates(SimpleTestCase):
    def test_a_turned_lower_plate_counts_as_tilt(self):
        for plate, verdict in ((0.0, "holds"), (12.0, "fails")):
            springs = {**AIR, "plate_deg": plate}
            found = travel_checks(evaluate(suspended(springs=springs), ONLY))["air-tilt:rear-air:both"]
            self.assertEqual(found.verdict, verdict)

    def test_the_plates_angle_follows_the_axle_s_pitch(self):
        axle = evaluate(suspended(springs={**AIR, "plate_deg": 2.0}), ONLY).travel[0]
        curves = {c.id: c for c in axle.curves}
        base = curves["pinion"].at_ride
        for plate, pinion in zip(curves["air-plates"].values, curves["pinion"].values, strict=True):
            self.assertAlmostEqual(plate - 2.0, pinion - base, delta=1e-3)


class Poses(SimpleTestCase):
    def test_level_poses_of_a_grid_are_those_of_the_column(self):
        """A grid in roll holds the level column to the bit: figures at zero roll do not depend on what else was asked."""
        s = studied()
        setting = Setting(s.setting.hub, s.setting.half_track_mm, s.setting.radius_mm)
        alone = moved_through(s.suspension.layout, setting, s.motion.travel, (0.0,))
        np.testing.assert_array_equal(s.motion.level.pose.origin, alone.level.pose.origin)
        np.testing.assert_array_equal(s.motion.level.pose.rotation, alone.level.pose.rotation)
