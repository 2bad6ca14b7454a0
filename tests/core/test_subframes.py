"""A subframe as one part: its pose against matrix exponentials, and everything that rides with it."""

import numpy as np
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.linalg import expm

from nodulant.asbuilt.compare import Known, asked_readings
from nodulant.axles.riding import frame_points
from nodulant.evaluate import evaluate
from nodulant.evaluate.clearances.sweep import scene
from nodulant.evaluate.suspensions.travel import moved
from nodulant.frame.model import placed_on, planned_state
from nodulant.frame.ops.subframes.subframe import Subframe
from nodulant.frame.ops.subframes.subframe_points import Beam, SubframePoint, Weight
from nodulant.frame.ops.union import operation_kinds
from nodulant.frame.parts import work_on
from nodulant.frame.place import Place
from nodulant.frame.pose import Pose
from nodulant.frame.ties import planned_crossmembers
from nodulant.job.caused import with_caused
from nodulant.job.riding import in_place, re_hung
from nodulant.targets.drop import Targets
from tests import fixtures as f
from tests.core.test_remedies import remedies

QUICK = settings(deadline=None, derandomize=True, max_examples=80)
angles = st.floats(-20, 20)
lengths = st.floats(-400, 400)
AXES = {
    "nose_up_deg": np.array([[0, 0, 1], [0, 0, 0], [-1, 0, 0]]),
    "nose_right_deg": np.array([[0, 1, 0], [-1, 0, 0], [0, 0, 0]]),
    "right_up_deg": np.array([[0, 0, 0], [0, 0, -1], [0, 1, 0]]),
}
"""Generators: nose up takes -x to +z, nose to the right takes -x to +y, right side up takes +y to +z."""


def subframe(**more):
    """A front subframe at the front axle, its faces on the rails."""
    own = {"id": "front", "name": "Front subframe", "place": Place(anchor_id="front-axle"), "height_mm": -40.0}
    points = (
        SubframePoint(name="mount", what="face", x_mm=0.0, y_mm=380.0, z_mm=0.0),
        SubframePoint(name="rear ear", what="ear", x_mm=200.0, y_mm=300.0, z_mm=-40.0),
        SubframePoint(name="lower pivot", what="pivot", x_mm=20.0, y_mm=250.0, z_mm=-60.0),
    )
    beams = (
        Beam(name="front beam", x_mm=0.0, z_mm=-40.0, half_mm=380.0),
        Beam(name="rear beam", x_mm=250.0, z_mm=-40.0),
    )
    return Subframe.model_validate({**own, "points": points, "beams": beams, **more})


def job(*operations, option="step", rides="front"):
    """The demo's van with its suspensions carried by a subframe, its own pockets left out."""
    inputs = f.job().inputs(option)
    hung = tuple(s.model_copy(update={"rides": rides, "rides_but": {}}) for s in inputs.design.suspensions)
    things = tuple(t.model_copy(update={"rides": rides}) for t in inputs.design.obstacles)
    design = inputs.design.model_copy(update={"operations": operations, "suspensions": hung, "obstacles": things})
    return inputs.model_copy(update={"design": design})


class ItsPose(SimpleTestCase):
    @QUICK
    @given(angles, angles, angles, lengths, lengths, lengths)
    def test_against_matrix_exponentials(self, up, right, roll, x, y, z):
        """Three turns about the datum one after the other: exp of each generator, then the shift."""
        pose = Pose(100.0, 50.0, 30.0, -20.0, 75.0, up, right, roll)
        turn = np.eye(3)
        for name, value in (("nose_up_deg", up), ("nose_right_deg", right), ("right_up_deg", roll)):
            turn = expm(np.radians(value) * AXES[name]) @ turn
        datum = np.array([100.0, 0.0, 50.0])
        by_hand = turn @ (np.array([x, y, z]) - datum) + datum + (30.0, -20.0, 75.0)
        np.testing.assert_allclose(pose.of((x, y, z)), by_hand, atol=1e-9)

    def test_which_way_each_goes(self):
        """By hand: 10 degrees at 100 mm ahead or to the right of the datum lift or shift by 100 sin 10 = 17.36 mm."""
        lift = 100 * np.sin(np.radians(10))
        self.assertAlmostEqual(Pose(0.0, nose_up_deg=10).of((-100, 0, 0))[2], lift)
        self.assertAlmostEqual(Pose(0.0, nose_right_deg=10).of((-100, 0, 0))[1], lift)
        self.assertAlmostEqual(Pose(0.0, right_up_deg=10).of((0, 100, 0))[2], lift)

    @QUICK
    @given(angles, angles, angles, lengths, st.floats(60, 400), lengths, st.booleans())
    def test_there_and_back(self, up, right, roll, x, y, z, bench):
        pose = Pose(900.0, -40.0, 12.0, 3.0, 75.0, up, right, roll, narrower_mm=30.0, on_bench=bench)
        np.testing.assert_allclose(pose.before(pose.of((x, y, z))), (x, y, z), atol=1e-9)

    @QUICK
    @given(angles, angles, lengths, lengths)
    def test_it_is_rigid(self, up, right, x, z):
        pose = Pose(500.0, 10.0, up_mm=75.0, nose_up_deg=up, nose_right_deg=right)
        a, b = (x, 200.0, z), (x + 300.0, -100.0, z - 50.0)
        far = np.linalg.norm(np.subtract(pose.of(a), pose.of(b)))
        self.assertAlmostEqual(far, np.linalg.norm(np.subtract(a, b)), places=9)

    def test_narrower_takes_each_side_inward_and_leaves_the_middle(self):
        pose = Pose(0.0, narrower_mm=50.0)
        self.assertEqual([pose.of((0, y, 0))[1] for y in (-300.0, 0.0, 300.0)], [-250.0, 0.0, 250.0])


class AsOne(SimpleTestCase):
    """Raised by 50 mm: pivots, rack, things and beams go up by it in every view."""

    def setUp(self):
        self.stood, self.up = job(subframe()), job(subframe(up_mm=50.0))

    def test_every_frame_point(self):
        for was, now in zip(*(in_place(i).design.suspensions for i in (self.stood, self.up)), strict=True):
            for path, point in frame_points(was).items():
                there = frame_points(now)[path]
                self.assertAlmostEqual(there.z_mm - point.z_mm, 50.0, places=9)
                self.assertEqual((there.x_mm, there.y_mm), (point.x_mm, point.y_mm))

    def test_in_travel_and_in_the_sweep(self):
        hubs = [moved(i, glance=True).travel[0].hub[2] for i in (self.stood, self.up)]
        self.assertAlmostEqual(hubs[1] - hubs[0], 50.0)
        bodies = [
            {b.name: b.pack for b in scene(i).standing if "Front subframe" in b.name} for i in (self.stood, self.up)
        ]
        self.assertEqual(len(bodies[0]), 2)
        for name, pack in bodies[0].items():
            np.testing.assert_allclose(bodies[1][name].corners[..., 1] - pack.corners[..., 1], 50.0)

    def test_things_on_it(self):
        for was, now in zip(*(in_place(i).design.obstacles for i in (self.stood, self.up)), strict=True):
            a, b = (t.body.middle if hasattr(t.body, "middle") else t.body.a for t in (was, now))
            self.assertAlmostEqual(b.z_mm - a.z_mm, 50.0)

    def test_turned_it_takes_points_round_its_datum(self):
        turned = in_place(job(subframe(nose_up_deg=5.0))).design
        for was, now in zip(in_place(self.stood).design.suspensions, turned.suspensions, strict=True):
            pose = subframe(nose_up_deg=5.0).pose(self.stood.survey.rails, self.stood.survey.features)
            for path, point in frame_points(was).items():
                np.testing.assert_allclose(frame_points(now)[path].xyz(), pose.of(point.xyz()), atol=1e-9)

    def test_found_in_the_plan_it_is_laid_back_on_the_surveyed_frame(self):
        inputs = job(subframe(up_mm=50.0, nose_up_deg=4.0, nose_right_deg=-3.0))
        for k, own in enumerate(inputs.design.suspensions):
            again = re_hung(inputs, k, "placed")
            once = re_hung(
                inputs.model_copy(
                    update={
                        "design": inputs.design.model_copy(
                            update={
                                "suspensions": tuple(
                                    again if i == k else s for i, s in enumerate(inputs.design.suspensions)
                                )
                            }
                        )
                    }
                ),
                k,
                "front",
            )
            for path, point in frame_points(own).items():
                np.testing.assert_allclose(frame_points(once)[path].xyz(), point.xyz(), atol=1e-6)

    def test_the_drop_is_told_once_though_its_pocket_is_as_deep(self):
        pocket = next(op for op in f.job().inputs("step").design.operations if op.kind == "raise")
        for operations in ((subframe(up_mm=54.0),), (pocket,), (pocket, subframe(up_mm=54.0))):
            told = with_caused(self.up.survey, operations, Targets())
            self.assertEqual([round(e.amount_mm) for e in told.front.entries], [54])

    def test_an_axle_that_hangs_elsewhere_is_not_lowered_by_it(self):
        for rides, rows in (("front", 1), ("rail", 0)):
            targets = in_place(job(subframe(up_mm=54.0), rides=rides)).design.targets
            own = [e for e in targets.front.entries if e.mechanism == "raise"]
            self.assertEqual(len(own), rows)


class Donor(SimpleTestCase):
    """Measured on the bench, from its own datum."""

    def donor(self, **more):
        face = SubframePoint(name="mount", what="face", x_mm=0.0, y_mm=380.0, z_mm=40.0)
        return subframe(measured="bench", points=(face,), **more)

    def test_it_stands_where_it_is_put(self):
        own = self.donor()
        survey = f.demo().survey
        pose = own.pose(survey.rails, survey.features)
        line = next(x.x_mm for x in survey.features if x.id == "front-axle")
        np.testing.assert_allclose(pose.of((0.0, 380.0, 40.0)), (line, 380.0, pose.z_mm + 40.0))

    def test_its_axle_stands_where_it_is_said_to(self):
        low, high = (in_place(job(self.donor(up_mm=up))).design.suspensions[0] for up in (0.0, 60.0))
        self.assertEqual(low.hub_z_mm, high.hub_z_mm)
        points = [frame_points(s) for s in (low, high)]
        for path, point in points[0].items():
            self.assertAlmostEqual(points[1][path].z_mm - point.z_mm, 60.0)

    def test_nothing_is_lowered_out_and_it_claims_no_drop(self):
        steps = {s.id.split("/")[1] for s in evaluate(job(self.donor(up_mm=30.0), rides="placed")).steps if "/" in s.id}
        self.assertNotIn("lower", steps)
        self.assertEqual(self.donor(up_mm=30.0).lowers(), 0.0)


class Faces(SimpleTestCase):
    def gap(self, **more):
        rows = evaluate(job(subframe(**more), rides="placed")).checks
        return {c.id: c for c in rows if c.limit_id == "face-meets"}

    def test_on_the_rail_it_meets(self):
        rows = self.gap()
        self.assertEqual(set(rows), {"face-meets:front-face-1:left", "face-meets:front-face-1:right"})
        self.assertEqual({c.verdict for c in rows.values()}, {"holds"})

    def test_below_it_misses_by_what_it_hangs_low(self):
        for check in self.gap(up_mm=-18.0).values():
            self.assertAlmostEqual(check.value, 18.0, places=6)
            self.assertEqual(check.verdict, "fails")
            self.assertIn("below the rail", check.remedy)

    def test_raised_without_a_pocket_it_stands_inside_the_rail(self):
        for check in self.gap(up_mm=40.0).values():
            self.assertEqual(check.verdict, "fails")
            self.assertIn("inside the rail", check.remedy)

    def test_a_pocket_as_deep_takes_it(self):
        pocket = next(op for op in f.job().inputs("step").design.operations if op.kind == "raise")
        place = pocket.place.model_copy(update={"anchor_id": "front-axle", "offset_mm": 0.0})
        pocket = pocket.model_copy(update={"place": place})
        rows = evaluate(job(pocket, subframe(up_mm=pocket.goes_up_mm), rides="placed")).checks
        values = [c.value for c in rows if c.limit_id == "face-meets"]
        np.testing.assert_allclose(values, 0.0, atol=1e-6)

    def test_a_press_raises_it_into_a_pocket_that_was_cut_after_it(self):
        pocket = next(op for op in f.job().inputs("step").design.operations if op.kind == "raise")
        place = pocket.place.model_copy(update={"anchor_id": "front-axle", "offset_mm": 0.0})
        inputs = job(pocket.model_copy(update={"place": place}), subframe(), rides="placed")
        (key,) = {g.key for g in evaluate(inputs).groups if any(i.startswith("face-meets") for i in g.ids)}
        best = remedies(inputs, key).offered[0]
        self.assertTrue(best.mends)
        (raised,) = best.patch.changed
        self.assertAlmostEqual(raised.up_mm, pocket.goes_up_mm, delta=0.05)

    def test_beyond_the_rail_s_end(self):
        rows = self.gap(place=Place(anchor_id="front-axle", offset_mm=0.0), back_mm=-1000.0)
        self.assertTrue(all(c.verdict == "fails" and "beyond the end" in c.remedy for c in rows.values()))


class Turned(SimpleTestCase):
    """Beams of a subframe that is out of level or square, as bodies."""

    def ends(self, side, **more):
        """Height and station of the beam's outermost piece on one side."""
        inputs = job(subframe(**more), rides="placed")
        operations = inputs.design.operations
        placed = placed_on(inputs.survey, operations, side, planned_state(operations))
        (work,) = [w for w in work_on(inputs.survey, side, placed) if w.op.kind == "subframe"]
        outer = max((s for s in work.solids if "front beam" in s.name), key=lambda s: s.y[1])
        return (sum(outer.z) / 2, sum(outer.x) / 2, outer.y[1])

    def test_the_right_end_goes_up_and_the_left_end_down(self):
        level, right, left = (
            self.ends("right"),
            self.ends("right", right_up_deg=10.0),
            self.ends("left", right_up_deg=10.0),
        )
        # the middle of the last of eight pieces
        rise = 380.0 * 15 / 16 * np.sin(np.radians(10.0))
        self.assertAlmostEqual(right[0] - level[0], rise, places=6)
        self.assertAlmostEqual(left[0] - level[0], -rise, places=6)

    def test_out_of_square_one_end_stands_ahead_and_the_other_behind(self):
        level = self.ends("right")
        right, left = (self.ends(side, nose_right_deg=8.0) for side in ("right", "left"))
        self.assertAlmostEqual(right[1] - level[1], level[1] - left[1], places=6)
        self.assertAlmostEqual(abs(right[1] - level[1]), 380.0 * 15 / 16 * np.sin(np.radians(8.0)), places=6)

    def test_level_and_square_it_is_one_block(self):
        self.assertAlmostEqual(self.ends("right")[2], 380.0)


class Fixed(SimpleTestCase):
    def test_solid_it_ties_the_rails_and_on_rubber_it_does_not(self):
        survey = f.demo().survey
        counts = [
            len(planned_crossmembers(survey, (subframe(mounted=how),), ())) - len(survey.crossmembers)
            for how in ("rubber", "solid")
        ]
        self.assertEqual(counts, [0, 2])

    def test_solid_it_stiffens_the_frame(self):
        stiff = []
        for how in ("rubber", "solid"):
            figures = evaluate(job(subframe(mounted=how), rides="placed")).figures
            stiff.append(next(x.value for x in figures if x.id == "twist-planned"))
        self.assertGreater(stiff[1], stiff[0])

    def test_its_steps_are_taken_once(self):
        rows = [s for s in evaluate(job(subframe(), rides="placed")).steps if s.operation == "front"]
        self.assertEqual({s.side for s in rows}, {"both"})
        keys = [s.spec.key for s in rows]
        self.assertEqual(len(keys), len(set(keys)))
        order = [keys.index(k) for k in ("mark", "support", "lower", "up", "tack", "weld", "points")]
        self.assertEqual(order, sorted(order))
        self.assertIn("ears", keys)

    def test_what_is_heavy_gets_a_crane_and_a_helper(self):
        def bring_up(kg):
            rows = subframe(weight=Weight(mass_kg=kg)).steps("the line")
            return next(s for s in rows if s.key == "up")

        self.assertNotIn("crane", bring_up(20.0).tools)
        self.assertEqual(bring_up(20.0).people, 1)
        self.assertIn("crane", bring_up(90.0).tools)
        self.assertGreater(bring_up(90.0).people, 1)

    def test_marks_say_before_and_after(self):
        figures = {x.id: x for x in evaluate(job(subframe(up_mm=50.0, back_mm=12.0), rides="placed")).figures}
        told = {key: figures[f"{key}-front"].value for key in ("block-before", "block-after", "line-across-after")}
        self.assertEqual(told, {"block-before": -40.0, "block-after": 10.0, "line-across-after": 12.0})
        donor = evaluate(job(subframe(measured="bench"), rides="placed")).figures
        self.assertFalse([x for x in donor if "before-front" in x.id], "a donor was nowhere before")

    def test_each_point_that_stays_is_read_on_both_sides_to_a_thirty_second(self):
        asked = asked_readings((subframe(up_mm=50.0),), f.demo().survey, Known((), {}, "mm"))
        own = {a.id: a.spec for a in asked}
        self.assertEqual(len(own), 2 * 2 * 3, "two points that stay, both sides, three readings each")
        self.assertAlmostEqual(own["front/point-1-height/left"].planned, 50.0)
        self.assertAlmostEqual(own["front/point-3-across/right"].planned, 250.0)
        self.assertEqual({s.limit_id for s in own.values()}, {"as-built-mount"})

    def test_other_things_in_one_piece_are_done_once_too(self):
        kinds = {k.model_fields["kind"].default for k in operation_kinds() if k.one_piece}
        self.assertEqual(kinds, {"subframe", "spring-bridge", "truss", "crossmember"})
