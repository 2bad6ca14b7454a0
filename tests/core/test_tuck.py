"""The least tuck against a wall whose answer is known, and what each way keeps."""

from unittest import TestCase

from nodulant.base.errors import InputError, NotSolvable
from nodulant.clearance.obstacle import BoxShape, Obstacle
from nodulant.clearance.placed_things import standing_of
from nodulant.evaluate.clearances.sweep import scene
from nodulant.evaluate.suspensions.tuck import least_tuck
from nodulant.parts.limit import LimitChange
from nodulant.parts.tyre import parse_tyre
from nodulant.parts.wheel import Wheel, section_on
from nodulant.search.tuck import AskedTuck, TuckWish, _mirrored, find_tuck, tucked
from nodulant.suspension.study import track_of, tyre_on_wheel
from nodulant.units.inline import told
from tests.core.test_steering import front, job


def wall(y_mm, mirrored=True):
    """A flat wing beside the wheels, as long and high as can matter."""
    middle = {"x_mm": 0.0, "y_mm": y_mm + 50.0, "z_mm": 0.0}
    body = BoxShape(middle=middle, long_mm=3000, wide_mm=100, high_mm=2400)
    return standing_of(Obstacle(id="wing", name="wing", kind="wing", body=body, mirrored=mirrored))


def asked(things, own=None, **wish):
    inputs = job("wherry", "step")
    return AskedTuck(inputs.survey, own or front(inputs), inputs.design.seats, 0.0, things, TuckWish(**wish))


class Wall(TestCase):
    def test_ten_millimetres_from_a_wall(self):
        """The tyre's outermost place over its travel, whatever it is, ends up the wanted clearance from the wall."""
        inputs = job("wherry", "step")
        own = front(inputs)
        found = find_tuck(asked((wall(1028.0),), own, gap_mm=10.0))
        self.assertFalse(found.now.clears)
        for way in found.ways:
            with self.subTest(way.way):
                self.assertTrue(way.clears)
                self.assertGreaterEqual(way.wing_gap_mm, 10.0)
                self.assertLess(way.wing_gap_mm, 10.1)
        narrow = next(w for w in found.ways if w.way == "narrow")
        # a frame that goes in by d takes the whole swept tyre in by d
        self.assertAlmostEqual(narrow.tuck_mm, 10.0 - found.now.wing_gap_mm, delta=0.1)

    def test_a_wide_clearance_is_solved_like_a_small_one(self):
        """Also where the tyre is further off than what matters by the usual limit."""
        near = find_tuck(asked((wall(1028.0),), gap_mm=10.0)).now.wing_gap_mm
        for wanted in (55.0, 75.0, 95.0):
            found = find_tuck(asked((wall(1083.0),), gap_mm=wanted, most_mm=150.0))
            narrow = next(w for w in found.ways if w.way == "narrow")
            self.assertAlmostEqual(found.now.wing_gap_mm, near + 55.0, delta=0.02)
            self.assertAlmostEqual(narrow.tuck_mm, max(wanted - near - 55.0, 0.0), delta=0.1)
            self.assertGreaterEqual(narrow.wing_gap_mm, wanted)

    def test_what_is_far_is_no_number(self):
        found = find_tuck(asked((wall(1500.0),)))
        self.assertTrue(found.now.clears)
        self.assertIsNone(found.now.wing_gap_mm)
        self.assertEqual(found.now.tuck_mm, 0.0)

    def test_a_limit_too_wide_to_tuck_for_is_named(self):
        inputs = job("wherry", "step")
        limits = {"tyre-sweep": LimitChange(value=150.0, reason="chains")}
        design = inputs.design.model_copy(update={"limits": limits})
        with self.assertRaises(InputError) as caught:
            least_tuck(inputs.model_copy(update={"design": design}), 1, 80.0)
        self.assertEqual(caught.exception.field, "/design/limits/tyre-sweep")
        self.assertIn("100 mm", told(caught.exception.acceptable, "mm"))

    def test_narrowing_keeps_the_geometry(self):
        found = find_tuck(asked((wall(1028.0),)))
        narrow = next(w for w in found.ways if w.way == "narrow")
        for name in ("scrub_mm", "camber_deg", "toe_deg", "lock_deg"):
            self.assertAlmostEqual(getattr(narrow, name), getattr(found.now, name), places=6)

    def test_offset_takes_the_scrub_radius_along(self):
        found = find_tuck(asked((wall(1028.0),)))
        offset = next(w for w in found.ways if w.way == "offset")
        self.assertAlmostEqual(found.now.scrub_mm - offset.scrub_mm, offset.tuck_mm, delta=0.05)
        self.assertAlmostEqual(found.now.track_mm - offset.track_mm, 2 * offset.tuck_mm, delta=0.02)

    def test_three_ways_beside_each_other_at_one_tuck(self):
        """The same 20 mm: frame and arms take the upright along, wheels only the tyre."""
        found = find_tuck(asked((wall(1028.0),), same_mm=20.0))
        self.assertEqual({w.tuck_mm for w in found.ways}, {20.0})
        by = {w.way: w for w in found.ways}
        self.assertAlmostEqual(found.now.scrub_mm - by["offset"].scrub_mm, 20.0, delta=0.1)
        self.assertAlmostEqual(by["narrow"].scrub_mm, found.now.scrub_mm, places=6)
        self.assertNotAlmostEqual(by["arms"].camber_deg, by["narrow"].camber_deg, places=3)
        self.assertTrue(all(w.clears for w in found.ways))

    def test_too_far_in_is_told(self):
        found = find_tuck(asked((wall(820.0),), most_mm=20.0))
        self.assertTrue(all(not w.clears and w.tuck_mm == 20.0 for w in found.ways))

    def test_what_clears_already_stays(self):
        found = find_tuck(asked((wall(1200.0),)))
        self.assertTrue(found.now.clears)
        self.assertEqual({w.tuck_mm for w in found.ways}, {0.0})

    def test_a_wing_on_one_side_is_found_on_that_side(self):
        for side in (1.0, -1.0):
            middle = {"x_mm": 0.0, "y_mm": side * 1078.0, "z_mm": 0.0}
            body = BoxShape(middle=middle, long_mm=3000, wide_mm=100, high_mm=2400)
            one = standing_of(Obstacle(id="wing", name="wing", kind="wing", body=body))
            self.assertFalse(_mirrored(one))
            found = find_tuck(asked((one,), most_mm=60.0))
            self.assertAlmostEqual(found.now.wing_gap_mm, find_tuck(asked((wall(1028.0),))).now.wing_gap_mm, delta=0.02)


class Arms(TestCase):
    def test_every_point_goes_where_its_way_says(self):
        inputs = job("wherry", "step")
        own = front(inputs)
        arms = tucked(own, inputs.survey, "arms", 12.0)
        self.assertEqual(arms.layout.upper_front, own.layout.upper_front)
        self.assertEqual(arms.layout.toe.frame, own.layout.toe.frame)
        self.assertAlmostEqual(own.layout.lower_ball.y_mm - arms.layout.lower_ball.y_mm, 12.0)
        self.assertAlmostEqual(own.layout.toe.axle.y_mm - arms.layout.toe.axle.y_mm, 12.0)
        narrow = tucked(own, inputs.survey, "narrow", 12.0)
        for path, (_, point) in own.layout.points().items():
            moved = narrow.layout.points()[path][1]
            self.assertAlmostEqual(abs(point.y_mm) - abs(moved.y_mm), 12.0)

    def test_a_planned_wheel_takes_the_surveyed_track_in(self):
        inputs = job("wherry", "step")
        axle, own = inputs.survey.front, front(inputs).model_copy(update={"track_mm": None})
        self.assertEqual(track_of(own, axle), axle.track_mm)
        deeper = own.model_copy(update={"wheel": axle.wheel.moved_in(15.0)})
        self.assertAlmostEqual(track_of(deeper, axle), axle.track_mm - 30.0)

    def test_a_wider_rim_widens_the_swept_tyre(self):
        inputs = job("wherry", "step")
        own = front(inputs).model_copy(update={"wheel": Wheel(rim_width_mm=203.2, offset_mm=30.0)})
        wide = tyre_on_wheel(own, inputs.survey).section_width_mm
        self.assertAlmostEqual(wide, section_on(parse_tyre("215/75R16"), own.wheel))
        self.assertGreater(wide, 215.0)


class Design(TestCase):
    def test_the_wherry_clears_narrowed_and_not_before(self):
        """The demo's own story: 30 mm a side out of the rails is what its arch asks for."""
        inputs = job("wherry", "step")
        at = next(k for k, s in enumerate(inputs.design.suspensions) if s.axle == "front")
        self.assertTrue(least_tuck(inputs, at, 60.0).now.clears)
        wider = tucked(front(inputs), inputs.survey, "narrow", -30.0)
        arch = asked(tuple(t for t in scene(inputs).standing if t.kind == "wing"), wider)
        found = find_tuck(arch)
        self.assertFalse(found.now.clears)
        self.assertLess(next(w.tuck_mm for w in found.ways if w.way == "narrow"), 30.0)

    def test_nothing_to_clear_is_said(self):
        inputs = job("brackmoor", "welded")
        with self.assertRaises(NotSolvable) as caught:
            least_tuck(inputs, 0, 60.0)
        self.assertIn("wing", caught.exception.message)

    def test_an_arch_of_the_other_axle_does_not_count(self):
        inputs = job("wherry", "step")
        rear = next(k for k, s in enumerate(inputs.design.suspensions) if s.axle == "rear")
        with self.assertRaises(NotSolvable):
            least_tuck(inputs, rear, 60.0)
