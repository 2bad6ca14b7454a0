"""Points as people measure them, by arithmetic on a frame whose faces are known."""

import math

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from nodulant.axles.points import HardPoint
from nodulant.base.errors import NotSolvable, UnknownReference
from nodulant.job.fresh.suspension import fresh_suspension
from nodulant.job.taped_points import FromJoint, Taped, TapedAcross, TapedAlong, TapedUp, taped_point
from tests import fixtures as f
from tests.core.test_fresh_suspension import hung, job

QUICK = settings(deadline=None, derandomize=True, max_examples=60)
FRAME_END, AXLE_END = "layout.lower.frame", "layout.lower.axle"
lengths = st.floats(-900, 900)


def rear(**change):
    inputs = job()
    return hung(inputs, fresh_suspension(inputs, "rear", "triangulated", before=False).model_copy(update=change))


def found(taped, path=FRAME_END, on="frame", inputs=None):
    return taped_point(inputs or rear(), 0, path, on, taped, before=False)


class Stations(SimpleTestCase):
    def test_from_a_hub_and_from_a_feature(self):
        """Rails of 150 x 60 channel, web 410 out, front axle at 0, rear at 2610, front hanger at its own station."""
        inputs = rear()
        hanger = next(x for x in inputs.survey.features if x.kind == "hanger")
        rows = (
            ("hub:rear", -500.0, 2110.0),
            ("hub:front", 1900.0, 1900.0),
            (f"feature:{hanger.id}", 50.0, hanger.x_mm + 50),
        )
        for of, mm, x in rows:
            self.assertAlmostEqual(found(Taped(along=TapedAlong(of=of, mm=mm))).x_mm, x)

    def test_what_was_not_measured_stays(self):
        was = rear().design.suspensions[0].layout.lower.frame
        now = found(Taped(along=TapedAlong(of="hub:rear", mm=-500.0)))
        self.assertAlmostEqual(now.y_mm, was.y_mm, places=3)
        self.assertAlmostEqual(now.z_mm, was.z_mm, places=3)


class Heights(SimpleTestCase):
    def test_over_floor_rail_and_datum(self):
        inputs = rear()
        ground = inputs.survey.ground_z_mm()
        for of, mm, z in (("rail-underside", -40.0, -40.0), ("rail-top", 10.0, 160.0), ("datum", 33.0, 33.0)):
            self.assertAlmostEqual(found(Taped(up=TapedUp(of=of, mm=mm))).z_mm, z)
        self.assertAlmostEqual(found(Taped(up=TapedUp(of="floor", mm=400.0))).z_mm, ground + 400.0, places=3)

    def test_the_floor_needs_hubs_and_tyres(self):
        inputs = rear()
        axle = inputs.survey.rear.model_copy(update={"tyre": None, "loaded_radius_mm": None})
        inputs = inputs.model_copy(update={"survey": inputs.survey.model_copy(update={"rear": axle})})
        with self.assertRaises(NotSolvable) as told:
            found(Taped(up=TapedUp(of="floor", mm=400.0)), inputs=inputs)
        self.assertEqual(told.exception.field, "/survey/rear/tyre")


class Sideways(SimpleTestCase):
    def test_from_the_rail_s_faces_and_the_centre(self):
        for of, mm, y in (("rail-outer", 15.0, 425.0), ("rail-inner", -20.0, 330.0), ("centre", 90.0, 90.0)):
            self.assertAlmostEqual(found(Taped(across=TapedAcross(of=of, mm=mm))).y_mm, y)


class OnTheAxle(SimpleTestCase):
    def test_it_is_told_from_the_hub_line_again(self):
        inputs = rear()
        hub = inputs.survey.rear.hubs_z_mm()
        now = found(
            Taped(
                along=TapedAlong(of="hub:rear", mm=12.0),
                up=TapedUp(of="datum", mm=hub - 75.0),
                across=TapedAcross(of="centre", mm=400.0),
            ),
            AXLE_END,
            "axle",
        )
        self.assertEqual(now, HardPoint(x_mm=12.0, y_mm=400.0, z_mm=-75.0))

    def test_from_its_own_other_end(self):
        """The frame end as the axle end: 300 further back, level with it."""
        was = rear().design.suspensions[0].layout.lower.frame
        now = found(Taped(along=TapedAlong(of=f"point:{FRAME_END}", mm=300.0)), AXLE_END, "axle")
        self.assertAlmostEqual(now.x_mm + 2610.0, was.x_mm + 300.0, places=3)


class FromAJoint(SimpleTestCase):
    @QUICK
    @given(st.floats(50, 900), st.floats(-60, 60), st.floats(-170, 170))
    def test_length_and_both_angles_come_out_again(self, long, fall, plan):
        start = rear().design.suspensions[0].layout.lower.frame
        told = FromJoint(point=FRAME_END, length_mm=long, fall_deg=fall, plan_deg=plan)
        now = found(Taped(joint=told), AXLE_END, "axle")
        hub = rear().survey.rear.hubs_z_mm()
        gap = (now.x_mm + 2610.0 - start.x_mm, now.y_mm - start.y_mm, now.z_mm + hub - start.z_mm)
        self.assertAlmostEqual(math.dist(gap, (0, 0, 0)), long, places=2)
        self.assertAlmostEqual(math.degrees(math.asin(-gap[2] / long)), fall, delta=0.01)
        self.assertAlmostEqual(math.degrees(math.atan2(gap[1], gap[0])), plan, delta=0.05)

    def test_straight_ahead_is_180(self):
        told = FromJoint(point=AXLE_END, length_mm=600.0, plan_deg=180.0)
        self.assertAlmostEqual(found(Taped(joint=told)).x_mm, 2610.0 - 600.0, places=3)


class OnThePlannedFrame(SimpleTestCase):
    def test_a_placed_suspension_is_taped_on_the_planned_rail(self):
        """A step of 75 mm ahead of the axle: the front rail is 75 lower than it was, the axle's own is not."""
        inputs = f.job().inputs("step")
        index = next(k for k, s in enumerate(inputs.design.suspensions) if s.axle == "front")
        own = inputs.design.suspensions[index]
        heights = []
        for rides in ("rail", "placed"):
            held = tuple(
                s.model_copy(update={"rides": rides, "rides_but": {}}) if s is own else s
                for s in inputs.design.suspensions
            )
            with_it = inputs.model_copy(update={"design": inputs.design.model_copy(update={"suspensions": held})})
            taped = Taped(up=TapedUp(of="rail-underside", mm=0.0))
            heights.append(taped_point(with_it, index, "layout.lower_front", "frame", taped, before=False).z_mm)
        self.assertAlmostEqual(heights[0] - heights[1], 75.0, places=3)


class Wrong(SimpleTestCase):
    def test_it_names_what_would_do(self):
        rows = (
            (Taped(along=TapedAlong(of="feature:nowhere", mm=0.0)), "/taped/along/of", "feature:<id>"),
            (Taped(up=TapedUp(of="moon", mm=0.0)), "/taped/up/of", "rail-top"),
            (Taped(across=TapedAcross(of="left", mm=0.0)), "/taped/across/of", "rail-inner"),
            (Taped(joint=FromJoint(point="layout.nothing", length_mm=10.0)), "/taped", FRAME_END),
        )
        for taped, field, words in rows:
            with self.subTest(field), self.assertRaises(UnknownReference) as told:
                found(taped)
            self.assertEqual(told.exception.field, field)
            self.assertIn(words, told.exception.acceptable)
        with self.assertRaises(UnknownReference) as told:
            taped_point(job(), 0, FRAME_END, "frame", Taped(), before=False)
        self.assertEqual(told.exception.field, "/suspension")
