"""What is reflected is proved to be a mirror image; with one side changed it is worked out by itself."""

from dataclasses import replace
from unittest import TestCase, mock

import numpy as np

from nodulant.clearance import sweep as of_sweep
from nodulant.clearance.mirror import moves_alike, other_side, stands_alike
from nodulant.clearance.obstacle import BarShape, BoxShape, Obstacle
from nodulant.clearance.placed_things import standing_of
from nodulant.evaluate import evaluate
from nodulant.evaluate.clearances.sweep import scene, whole_sweep
from nodulant.evaluate.rails.mirrored import alike
from tests import fixtures as f
from tests.core.test_along import point, with_design
from tests.core.test_steering import job
from tests.published.test_made_well_and_badly import BADLY, WELL


def box(y, yaw, mirrored=False):
    shape = BoxShape(middle=point(100, y, 50), long_mm=300, wide_mm=80, high_mm=60, yaw_deg=yaw, nose_up_deg=8)
    return standing_of(Obstacle(id="thing", name="thing", body=shape, mirrored=mirrored))


class Alike(TestCase):
    def test_names_of_twins(self):
        self.assertEqual(other_side("toe link, right"), "toe link, left")
        self.assertEqual(other_side("left rail"), "right rail")
        self.assertEqual(other_side("axle tube"), "axle tube")

    def test_a_turned_box_and_its_image(self):
        self.assertTrue(stands_alike(box(300, 20), box(-300, -20)))
        self.assertFalse(stands_alike(box(300, 20), box(-300, 20)))
        self.assertTrue(stands_alike(box(300, 20, mirrored=True), box(300, 20, mirrored=True)))

    def test_bars_of_other_size_are_no_twins(self):
        def bar(y, d):
            shape = BarShape(a=point(0, y, 0), b=point(400, y, 20), diameter_mm=d)
            return standing_of(Obstacle(id="bar", name="bar", body=shape))

        self.assertTrue(stands_alike(bar(200, 30), bar(-200, 30)))
        self.assertFalse(stands_alike(bar(200, 30), bar(-200, 31)))
        self.assertFalse(stands_alike(bar(200, 30), box(-200, 0)))

    def test_a_rail_that_is_cut_on_one_side_has_no_twin(self):
        inputs = job("wherry", "step")
        rails = {s.name: s for s in scene(inputs).standing if s.kind == "rail"}
        self.assertTrue(stands_alike(rails["right rail"], rails["left rail"]))
        ops = tuple(
            op.model_copy(update={"side": "left"}) if op.kind == "notch" else op for op in inputs.design.operations
        )
        cut = {s.name: s for s in scene(with_design(inputs, operations=ops)).standing if s.kind == "rail"}
        self.assertFalse(stands_alike(cut["right rail"], cut["left rail"]))

    def test_a_wheel_a_hair_off_is_no_twin(self):
        movers = {m.name: m for m in scene(job("wherry", "step")).movers if m.positions.axle == "front"}
        right, left = movers["tyre, right"], movers["tyre, left"]
        self.assertTrue(moves_alike(right, left))
        off = replace(left, body=replace(left.body, centre=left.body.centre + np.array([0.0, 0.0, 0.001])))
        self.assertFalse(moves_alike(right, off))
        self.assertFalse(moves_alike(right, movers["toe link, left"]))


class Swept(TestCase):
    def test_reflected_pairs_are_what_is_found_without_the_mirror(self):
        inputs = job("wherry", "step")
        seen = []
        reflected = of_sweep._reflected

        def counted(twin, pair):
            seen.append(pair.id)
            return reflected(twin, pair)

        with mock.patch.object(of_sweep, "_reflected", counted):
            quick = {p.id: p for p in whole_sweep(inputs).pairs}
        self.assertGreater(len(seen), 60)
        with mock.patch.object(of_sweep._Twins, "alike", lambda *_: False):
            plain = {p.id: p for p in whole_sweep(inputs).pairs}
        self.assertEqual(set(quick), set(plain))
        for name in seen:
            one, two = quick[name], plain[name]
            with self.subTest(name):
                if two.gap_mm is None:
                    self.assertIsNone(one.gap_mm)
                    continue
                self.assertAlmostEqual(one.gap_mm, two.gap_mm, delta=0.02)
                self.assertEqual(one.verdict, two.verdict)
                self.assertEqual(set(one.stands_mm), set(two.stands_mm))

    def test_a_thing_on_one_side_is_told_for_that_side_only(self):
        inputs = job("wherry", "step")
        shape = BoxShape(middle=point(0, -820, 160), long_mm=200, wide_mm=40, high_mm=40)
        tray = Obstacle(id="tray", name="tray", body=shape)
        found = {p.id: p for p in whole_sweep(with_design(inputs, obstacles=(tray,))).pairs}
        left, right = found["front:tyre-left:tray"], found["front:tyre-right:tray"]
        self.assertLess(left.gap_mm, 0.0)
        self.assertIsNone(right.gap_mm)


class Rails(TestCase):
    """The right rail as the left one's image is the right rail worked out by itself, to the last figure."""

    def both_ways(self, inputs):
        mine = evaluate(inputs)
        rails, axle = (f"nodulant.evaluate.{name}.alike" for name in ("rails.both_sides", "run"))
        with mock.patch(rails, return_value=False), mock.patch(axle, return_value=False):
            return mine, evaluate(inputs)

    def test_jobs_that_are_alike(self):
        jobs = {name: make() for name, make in WELL.items()} | {name: make() for name, (make, _) in BADLY.items()}
        jobs |= {option: f.demo(option) for option in ("arc", "straight", "step")}
        for name, inputs in jobs.items():
            with self.subTest(name):
                mirrored, worked_out = self.both_ways(inputs)
                self.assertEqual([c.id for c in mirrored.checks], [c.id for c in worked_out.checks])
                for a, b in zip(mirrored.checks, worked_out.checks, strict=True):
                    self.assertEqual(a, b)
                self.assertEqual(mirrored.parts, worked_out.parts)
                self.assertEqual(mirrored.strips, worked_out.strips)
                self.assertEqual(mirrored.mass_added_kg, worked_out.mass_added_kg)
                self.assertEqual(mirrored.weld_mm, worked_out.weld_mm)

    def test_what_is_not_alike_is_worked_out(self):
        inputs = f.demo("arc")
        op = inputs.design.operations[-1]
        one = f.with_operations(inputs, *inputs.design.operations[:-1], op.model_copy(update={"side": "left"}))
        rails = inputs.survey.rails
        rusted = rails.right.stations[0].model_copy(update={"rust_loss_mm": 1.0})
        right = rails.right.model_copy(update={"stations": (rusted, *rails.right.stations[1:])})
        rusty = f.with_survey(inputs, rails=rails.model_copy(update={"right": right}))
        for other in (one, rusty):
            self.assertFalse(alike(other))
            mirrored, worked_out = self.both_ways(other)
            self.assertEqual(mirrored.checks, worked_out.checks)
        self.assertTrue(alike(inputs))

    def test_what_was_measured_is_of_its_own_side_and_the_plan_of_both(self):
        inputs = f.demo("arc")
        notch = next(op for op in inputs.design.operations if op.kind == "notch")
        deeper = f.with_readings(inputs, ("depth", "left", notch.depth_mm + 4.0))
        mirrored, worked_out = self.both_ways(deeper)
        self.assertEqual(mirrored.checks, worked_out.checks)
        self.assertEqual(mirrored.strips, worked_out.strips)
        built = {s.side: min(s.inertia) for s in mirrored.strips if s.state == "as-built"}
        planned = {s.side: min(s.inertia) for s in mirrored.strips if s.state == "planned"}
        self.assertLess(built["left"], planned["left"])
        self.assertEqual(built["right"], planned["right"])

    def test_the_axle_is_mirrored_where_its_tube_hangs_level(self):
        inputs = f.demo("arc")
        level = f.with_rear(inputs, tube_gap_right_mm=inputs.survey.rear.tube_gap_left_mm)
        for own in (inputs, level):
            mirrored, worked_out = self.both_ways(own)
            self.assertEqual(mirrored.axle, worked_out.axle)
            self.assertEqual(mirrored.notch_needed, worked_out.notch_needed)
