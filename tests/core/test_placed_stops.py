"""A placed bump stop strikes where the arc of what strikes it says, by plane geometry."""

import math

import numpy as np
from django.test import SimpleTestCase

from nodulant.axles.points import HardPoint
from nodulant.axles.springs import BumpStop, StopOnDamper, StopOnFrame
from nodulant.evaluate import evaluate
from nodulant.evaluate.suspensions.travel import suspension_studies
from nodulant.job.fresh.suspension import fresh_suspension, fresh_suspension_part
from nodulant.job.riding import in_place
from nodulant.suspension.contacts import contacts
from nodulant.suspension.motion import dead_points
from tests.core.test_fresh_suspension import hung, job


def stopped(place, kind="triangulated", axle="rear", **more):
    """A study of a fresh suspension with a stop in a place."""
    inputs = job()
    own = fresh_suspension(inputs, axle, kind, before=False).model_copy(update=more)
    own = own.model_copy(update={"stop": BumpStop(gap_mm=50.0, place=place)})
    return suspension_studies(in_place(hung(inputs, own)))[0]


def over_the_axle(study, above, **more):
    """A stop straight above a pad on the tube, its base ``above`` the pad at ride height."""
    x, _, z = study.setting.hub
    pad = HardPoint(x_mm=0.0, y_mm=380.0, z_mm=40.0)
    return StopOnFrame(base=HardPoint(x_mm=x, y_mm=380.0, z_mm=z + 40.0 + above), pad=pad, **more)


class OnTheFrame(SimpleTestCase):
    def setUp(self):
        self.plain = stopped(None)

    def test_over_an_axle_that_rises_straight_the_gap_is_what_is_left(self):
        """A parallel four-link of long level bars rises all but straight: 130 above less 60 of rubber is 70 of travel."""
        found = stopped(over_the_axle(self.plain, 130.0, tall_mm=60.0, squash_mm=20.0), kind="parallel")
        self.assertAlmostEqual(found.strike.gap_mm, 70.0, delta=1.0)
        self.assertAlmostEqual(found.strike.gives_mm, 20.0, delta=0.5)
        self.assertEqual(found.suspension.stop.gap_mm, found.strike.gap_mm)
        self.assertLess(found.strike.aside_mm, 8.0)

    def test_shims_bring_it_nearer_by_their_thickness(self):
        gaps = [
            stopped(over_the_axle(self.plain, 130.0, shims_mm=shim), kind="parallel").strike.gap_mm for shim in (0, 12)
        ]
        self.assertAlmostEqual(gaps[0] - gaps[1], 12.0, delta=0.3)

    def test_on_a_swinging_arm_by_the_circle(self):
        """A trailing arm of length L about its pivot: the pad at the hub line, level with it, rises L sin a."""
        arm = stopped(None, kind="trailing")
        layout, hub = arm.suspension.layout, arm.setting.hub
        long, high = hub[0] - layout.inner.x_mm, hub[2] - layout.inner.z_mm
        radius, first = math.hypot(long, high), math.atan2(high, long)
        pad = HardPoint(x_mm=0.0, y_mm=400.0, z_mm=0.0)
        for rise in (40.0, 65.0):
            base = HardPoint(x_mm=hub[0], y_mm=400.0, z_mm=hub[2] + 60.0 + rise)
            found = stopped(StopOnFrame(base=base, pad=pad, tall_mm=60.0, squash_mm=10.0), kind="trailing")
            self.assertAlmostEqual(found.strike.gap_mm, rise, delta=0.2)
            # the arc carries it away from straight below: R cos a0 - R cos a
            turn = math.asin((radius * math.sin(first) + rise) / radius)
            aside = radius * math.cos(first) - radius * math.cos(turn)
            self.assertAlmostEqual(found.strike.aside_mm, abs(aside), delta=0.3)
            # at the end of the squash the way of the pad leans by the arm's own angle
            last = math.asin((radius * math.sin(first) + rise + 10.0) / radius)
            self.assertAlmostEqual(found.strike.off_square_deg, abs(math.degrees(last)), delta=0.7)

    def test_raked_along_the_arc_it_is_met_squarer(self):
        arm = stopped(None, kind="trailing")
        hub = arm.setting.hub
        pad = HardPoint(x_mm=0.0, y_mm=400.0, z_mm=0.0)

        def angle(rake):
            base = HardPoint(x_mm=hub[0], y_mm=400.0, z_mm=hub[2] + 125.0)
            return stopped(StopOnFrame(base=base, pad=pad, rake_deg=rake), kind="trailing").strike.off_square_deg

        self.assertLess(min(angle(-8.0), angle(8.0)), angle(0.0))

    def test_far_off_its_axis_and_askew_it_fails(self):
        inputs = job()
        own = fresh_suspension(inputs, "rear", "parallel", before=False)
        place = over_the_axle(self.plain, 130.0, lean_deg=35.0)
        own = own.model_copy(update={"stop": BumpStop(place=place)})
        verdicts = {c.limit_id: c.verdict for c in evaluate(hung(inputs, own)).checks}
        self.assertEqual((verdicts["stop-square"], verdicts["stop-aside"]), ("fails", "fails"))

    def test_a_typed_gap_has_no_such_rows(self):
        inputs = job()
        own = fresh_suspension(inputs, "rear", "parallel", before=False).model_copy(update={"stop": BumpStop()})
        rows = {c.limit_id for c in evaluate(hung(inputs, own)).checks}
        self.assertFalse(rows & {"stop-square", "stop-aside"})

    def test_one_that_is_struck_at_ride_height_is_told(self):
        found = stopped(over_the_axle(self.plain, 40.0, tall_mm=60.0), kind="parallel")
        self.assertLess(found.strike.gap_mm, 0.0)
        self.assertEqual(found.suspension.stop.gap_mm, 0.0)


class DeadPoints(SimpleTestCase):
    def test_a_trailing_arm_ends_upright_over_its_pivot(self):
        """The hub rises no further than the arm is long: R - h above where it stands, h its height over the pivot."""
        found = stopped(None, kind="trailing", bump_mm=700.0)
        layout, hub = found.suspension.layout, found.setting.hub
        long, high = hub[0] - layout.inner.x_mm, hub[2] - layout.inner.z_mm
        _, top = dead_points(found.motion)
        self.assertAlmostEqual(top, math.hypot(long, high) - high, delta=0.1)
        told = {c.key: c.travel_mm for c in contacts(found)}
        self.assertEqual(told["locks-bump"], top)
        own = found.suspension.model_copy(update={"stop": None})
        row = next(c for c in evaluate(hung(job(), own)).checks if c.id == "travel-reached:rear-bump:both")
        self.assertEqual(row.why.values["reached"], top, "one figure has one value")

    def test_where_nothing_locks_it_is_the_whole_travel(self):
        found = stopped(None)
        self.assertEqual(dead_points(found.motion), (-found.suspension.droop_mm, found.suspension.bump_mm))


class OnTheDamper(SimpleTestCase):
    def test_it_strikes_where_as_much_shaft_is_left_as_it_is_tall(self):
        inputs = job()
        own = fresh_suspension(inputs, "rear", "triangulated", before=False)
        held = hung(inputs, own)
        spring = fresh_suspension_part(held, 0, "springs", "coilover", before=False)
        found = stopped(StopOnDamper(tall_mm=70.0, squash_mm=20.0), springs=spring)
        length = float(np.interp(found.strike.gap_mm, found.motion.travel, found.springs.length))
        self.assertAlmostEqual(length - spring.closed_mm, 70.0, delta=0.2)
        end = float(np.interp(found.strike.gap_mm + found.strike.gives_mm, found.motion.travel, found.springs.length))
        self.assertAlmostEqual(end - spring.closed_mm, 50.0, delta=0.5)
        self.assertIsNone(found.strike.off_square_deg, "it is on the shaft itself")

    def test_without_a_damper_the_typed_gap_stands(self):
        found = stopped(StopOnDamper())
        self.assertIsNone(found.strike)
        self.assertEqual(found.suspension.stop.gap_mm, 50.0)


class Begun(SimpleTestCase):
    def test_a_place_begins_with_about_the_gap_that_was_typed(self):
        for kind, axle in (("triangulated", "rear"), ("double-wishbone", "front"), ("strut", "front")):
            inputs = job()
            own = fresh_suspension(inputs, axle, kind, before=False)
            own = own.model_copy(update={"stop": BumpStop(gap_mm=45.0)})
            place = fresh_suspension_part(hung(inputs, own), 0, "stop_place", "frame", before=False)
            found = stopped(place, kind=kind, axle=axle)
            with self.subTest(kind):
                self.assertAlmostEqual(found.strike.gap_mm, 45.0, delta=12.0)
