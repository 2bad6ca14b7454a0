"""What goes along: distances against arithmetic, the lock before the cut, ways out, hoses by hand."""

import math
from unittest import TestCase

import numpy as np

from nodulant.asbuilt.log import OverrideEntry
from nodulant.axles.hose import Hose
from nodulant.axles.points import HardPoint
from nodulant.build.general import ALONG_STEP
from nodulant.clearance.apart import apart
from nodulant.clearance.obstacle import BarShape, BoxShape, Obstacle
from nodulant.clearance.placed_things import standing_of
from nodulant.evaluate import Want, evaluate
from nodulant.evaluate.clearances.solids import frame_solids
from nodulant.job.along import AlongNote
from nodulant.job.document import AsBuilt
from nodulant.job.riding import in_place
from nodulant.steering.hoses import hose_reach
from nodulant.steering.study import steer_study
from nodulant.suspension.study import study
from tests.core.test_steering import front, job

PLAN = Want(strips=False, parts=False, frame=False, interim=False)


def with_design(inputs, **update):
    return inputs.model_copy(update={"design": inputs.design.model_copy(update=update)})


def point(x, y, z):
    return HardPoint(x_mm=x, y_mm=y, z_mm=z)


def box(id_, kind, middle, size, **more):
    long, wide, high = size
    body = BoxShape(middle=point(*middle), long_mm=long, wide_mm=wide, high_mm=high)
    return Obstacle(id=id_, name=id_, kind=kind, body=body, **more)


def rows(inputs):
    return {r.thing: r for r in evaluate(inputs, PLAN).along}


class Apart(TestCase):
    """Static distances in closed form."""

    def gap(self, one, two):
        return apart(standing_of(one), standing_of(two))

    def test_boxes_face_to_face_edge_to_edge_and_corner_to_corner(self):
        a = box("a", "engine", (0, 0, 0), (100, 100, 100))
        for offset, by_hand in (
            ((150, 0, 0), 50),
            ((150, 140, 0), math.hypot(50, 40)),
            ((130, 140, 150), math.sqrt(5000)),
        ):
            with self.subTest(offset):
                self.assertAlmostEqual(self.gap(a, box("b", "hood", offset, (100, 100, 100))), by_hand, places=4)

    def test_boxes_that_meet_are_nothing_apart(self):
        a = box("a", "engine", (0, 0, 0), (100, 100, 100))
        self.assertEqual(self.gap(a, box("b", "hood", (60, 30, 10), (100, 100, 100))), 0.0)

    def test_bar_beside_box_and_bar(self):
        bar = Obstacle(
            id="p", name="p", kind="exhaust", body=BarShape(a=point(-200, 90, 0), b=point(200, 90, 0), diameter_mm=60)
        )
        self.assertAlmostEqual(self.gap(bar, box("b", "hood", (0, 0, 0), (100, 100, 100))), 10.0, places=4)
        across = Obstacle(
            id="q", name="q", kind="line", body=BarShape(a=point(0, 0, 100), b=point(0, 300, 100), diameter_mm=20)
        )
        self.assertAlmostEqual(self.gap(bar, across), 100 - 30 - 10, places=4)

    def test_mirror_images_count(self):
        a = box("a", "tank", (0, 0, 0), (100, 100, 100))
        b = box("b", "wing", (0, 300, 0), (100, 100, 100), mirrored=True)
        self.assertAlmostEqual(self.gap(a, b), 200.0, places=4)

    def test_turned_boxes_against_sampled_surfaces(self):
        rng = np.random.default_rng(5)
        for _ in range(12):
            turn = {"nose_up_deg": float(rng.uniform(-40, 40)), "yaw_deg": float(rng.uniform(-40, 40))}
            shape = BoxShape(middle=point(*rng.uniform(180, 300, 3)), long_mm=160, wide_mm=90, high_mm=120, **turn)
            one, two = box("a", "engine", (0, 0, 0), (150, 110, 130)), Obstacle(id="b", name="b", body=shape)
            a, b = standing_of(one).pack, standing_of(two).pack
            share = np.stack(np.meshgrid(*[np.linspace(-1, 1, 41)] * 3, indexing="ij"), axis=-1).reshape(-1, 3)
            points = b.middle[0] + (share * b.half[0]) @ b.axes[0].T
            sampled = float(a.some(np.zeros(len(points), dtype=int)).distance(points).min())
            gap = self.gap(one, two)
            self.assertLessEqual(gap, sampled + 1e-6)
            self.assertGreater(gap, sampled - 1.5)


class Lock(TestCase):
    def test_the_wherry_is_settled(self):
        result = evaluate(job("wherry", "step"), PLAN)
        self.assertFalse(result.cut_locked)
        self.assertEqual({r.status for r in result.along}, {"clears", "not there", "way out"})

    def test_what_was_not_placed_locks_the_cut(self):
        inputs = job("wherry", "step")
        gone = with_design(inputs, obstacles=tuple(o for o in inputs.design.obstacles if o.kind != "tank"))
        result = evaluate(gone, PLAN)
        self.assertTrue(result.cut_locked)
        self.assertEqual(result.along[0].thing, "tank")
        self.assertEqual(result.along[0].status, "not computed")
        steps = {s.id: s for s in result.steps}
        self.assertIn(ALONG_STEP, steps["rear-step/cut/left"].needs)
        check = next(c for c in result.checks if c.id == "along-clear:along-tank:both")
        self.assertEqual(check.verdict, "not computed")

    def test_too_near_locks_it_too(self):
        inputs = job("wherry", "step")
        hood = box("hood", "hood", (520, 0, 445), (400, 400, 10))
        near = with_design(inputs, obstacles=(*inputs.design.obstacles, hood))
        found = rows(near)["engine"]
        self.assertEqual((found.status, found.nearest), ("too near", "hood"))
        self.assertAlmostEqual(found.clearance_mm, 10.0, places=4)
        self.assertTrue(evaluate(near, PLAN).cut_locked)

    def test_a_way_out_or_a_reason_opens_it(self):
        inputs = job("wherry", "step")
        gone = with_design(inputs, obstacles=tuple(o for o in inputs.design.obstacles if o.kind != "tank"))
        note = AlongNote(thing="tank", how="way-out", words="comes off, a smaller one goes in behind the axle")
        self.assertFalse(evaluate(with_design(gone, along=(*gone.design.along, note)), PLAN).cut_locked)
        passed = OverrideEntry(number=900, at="2026-11-26T10:00:00", by="ada", subject=ALONG_STEP, reason="measured")
        logged = gone.model_copy(update={"as_built": AsBuilt(entries=(passed,))})
        result = evaluate(logged, PLAN)
        self.assertFalse(result.cut_locked)
        self.assertEqual(next(s for s in result.steps if s.id == ALONG_STEP).status, "overridden")

    def test_a_notch_takes_nothing_along(self):
        result = evaluate(job("wherry", "arc"), PLAN)
        self.assertEqual((result.along, result.cut_locked), ((), False))
        self.assertNotIn(ALONG_STEP, {s.id for s in result.steps})

    def test_exhaust_to_a_hose_wants_fifty(self):
        inputs = job("wherry", "step")
        body = BarShape(a=point(900, 240, -20), b=point(1800, 240, 0), diameter_mm=8)
        hose = Obstacle(id="fuel", name="fuel line", kind="line", body=body)
        found = rows(with_design(inputs, obstacles=(*inputs.design.obstacles, hose)))["exhaust"]
        self.assertEqual((found.status, found.nearest), ("too near", "fuel line"))
        self.assertAlmostEqual(found.clearance_mm, 60 - 27 - 4, delta=0.5)


class Moves(TestCase):
    def test_what_was_measured_before_goes_up_with_its_subframe(self):
        """An engine over the pocketed front goes up by the pocket less its floor, 54 mm, and down with the front segment."""
        inputs = job("wherry", "step")
        engine = next(o for o in inputs.design.obstacles if o.kind == "engine")
        before = engine.model_copy(update={"rides": "front-pocket"})
        moved = in_place(with_design(inputs, obstacles=(before,))).design.obstacles[0]
        self.assertAlmostEqual(moved.body.middle.z_mm - engine.body.middle.z_mm, 54.0 - 75.0)
        self.assertAlmostEqual(moved.body.middle.x_mm, engine.body.middle.x_mm)
        self.assertEqual(frame_solids(with_design(inputs, obstacles=(before,))).things[0], moved)

    def test_others_stay(self):
        inputs = job("wherry", "step")
        again = in_place(inputs)
        self.assertEqual(again, inputs, "what stands in the plan is not moved again")


class Hoses(TestCase):
    def reach(self, inputs, axle, hose):
        own = next(s for s in inputs.design.suspensions if s.axle == axle)
        s = study(inputs.survey, own, inputs.design.seats, 60.0 if axle == "rear" else 0.0, 1.0)
        return s, hose_reach(s, steer_study(s), hose)

    def test_a_hose_at_a_ball_joint_does_not_feel_the_lock(self):
        """It lies on the king pin: only that steer at one height of the wheel lifts the arm a little tells (caster)."""
        inputs = job("wherry", "step")
        ball = front(inputs).layout.lower_ball
        s, found = self.reach(inputs, "front", Hose(frame=point(0, 300, 100), wheel=ball, length_mm=500))
        pose = s.motion.level.pose
        arm = np.array([*ball.xyz()])
        by_hand = np.linalg.norm(
            pose.origin + np.einsum("nij,j->ni", pose.rotation, arm) - np.array([0.0, 300.0, 100.0]), axis=1
        )
        self.assertAlmostEqual(found.most_mm, by_hand[s.motion.there].max(), delta=1.5)

    def test_an_arm_that_turns_is_furthest_at_lock(self):
        inputs = job("wherry", "step")
        hose = front(inputs).hoses[0]
        _, found = self.reach(inputs, "front", hose)
        self.assertGreater(abs(found.input), 0.9)
        self.assertAlmostEqual(found.travel_mm, -front(inputs).droop_mm)

    def test_a_knuckle_of_a_beam_turns_it(self):
        inputs = job("brackmoor", "welded")
        pins = front(inputs).steering.king_pins
        on_pin = HardPoint(
            x_mm=(pins.upper.x_mm + pins.lower.x_mm) / 2,
            y_mm=(pins.upper.y_mm + pins.lower.y_mm) / 2,
            z_mm=(pins.upper.z_mm + pins.lower.z_mm) / 2,
        )
        frame = point(-200, 500, 150)
        _, still = self.reach(inputs, "front", Hose(frame=frame, wheel=on_pin, length_mm=900))
        behind = on_pin.model_copy(update={"x_mm": on_pin.x_mm + 120})
        _, turned = self.reach(inputs, "front", Hose(frame=frame, wheel=behind, length_mm=900))
        self.assertGreater(abs(turned.input), 0.8)
        self.assertGreater(turned.most_mm, still.most_mm)

    def test_an_axle_without_a_hose_is_not_computed(self):
        inputs = job("wherry", "step")
        bare = tuple(s.model_copy(update={"hoses": ()}) if s.axle == "rear" else s for s in inputs.design.suspensions)
        self.assertEqual(rows(with_design(inputs, suspensions=bare))["hoses"].status, "not computed")

    def test_a_short_hose_fails_and_locks(self):
        inputs = job("wherry", "step")
        own = front(inputs)
        short = own.hoses[0].model_copy(update={"length_mm": 350.0})
        others = tuple(s for s in inputs.design.suspensions if s.axle != "front")
        changed = with_design(inputs, suspensions=(*others, own.model_copy(update={"hoses": (short,)})))
        self.assertEqual(rows(changed)["hoses"].status, "too near")
