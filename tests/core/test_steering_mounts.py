"""Mounts of box and rack: bolts by hand, forces by moments about the king pin, steps that a steered axle brings."""

import math
from unittest import TestCase

import numpy as np

from nodulant.axles.points import on_axle
from nodulant.build.steering_steps import SENSE_STEP, steering_steps
from nodulant.evaluate import Want, evaluate
from nodulant.evaluate.brackets.mounts import mounts
from nodulant.evaluate.brackets.steering_mounts import drag_link_force
from nodulant.evaluate.suspensions.travel import suspension_studies
from nodulant.frame.ops.mounts.steering_mount import SteeringMount
from nodulant.loads.cases import KERB_BACK, KERB_UP
from nodulant.materials.bolts import find_bolt
from tests import fixtures as f
from tests.core.test_steering import front, job, with_front, with_gear

PLAN = Want(strips=False, frame=False, interim=False)


def mount(**update):
    place = {"anchor_id": "rear-axle", "offset_mm": -900.0}
    fields = {"id": "box", "name": "box", "place": place, "height_mm": 75.0, "along_n": 6000.0, "out_n": 3000.0}
    return SteeringMount.model_validate({**fields, **update})


def judged(op):
    result = evaluate(f.with_operations(f.demo(), op), PLAN)
    return {c.id: c for c in result.checks if ":box" in c.id}, result


class Bolts(TestCase):
    def test_rail_bolts_by_hand(self):
        """Four M12 10.9 in two rows: shear a quarter each, couples over the rows' distance (statics)."""
        op = mount(standoff_mm=60.0)
        checks, _ = judged(op)
        own = next(c for k, c in checks.items() if k.startswith("bolt-group") and "rail-bolts" in k)
        bolt = find_bolt("M12", "10.9")
        shear = 6000.0 / 4
        pull = 3000.0 / 4 + 60.0 * 6000.0 / ((200 - 50) * 2)
        by_hand = math.hypot(shear / bolt.shear_n(), pull / bolt.tension_n())
        self.assertAlmostEqual(own.value, by_hand, places=9)

    def test_without_a_force_it_is_not_computed(self):
        checks, _ = judged(mount(along_n=0.0, out_n=0.0))
        own = next(c for k, c in checks.items() if k.startswith("bolt-group"))
        self.assertEqual(own.verdict, "not computed")

    def test_holes_on_top_of_each_other_fail(self):
        checks, _ = judged(mount(pad={"long_mm": 150.0, "tall_mm": 70.0}))
        own = next(c for k, c in checks.items() if k.startswith("holes-apart"))
        self.assertEqual(own.verdict, "fails")

    def test_closed_rail_without_sleeves_fails(self):
        tubes = f.on_tubes(f.demo())
        bare = mount(bolts={"per_end": 2, "sleeves": False})
        result = evaluate(f.with_operations(tubes, bare), PLAN)
        own = next(c for c in result.checks if c.id.startswith("sleeve-there"))
        self.assertEqual(own.verdict, "fails")

    def test_every_hole_is_on_the_pattern(self):
        _, result = judged(mount())
        part = next(p for p in result.parts if p.operation == "box")
        self.assertEqual(len(part.holes), 4 + 4)
        xs = [v.x for v in part.outline.vertices]
        zs = [v.y for v in part.outline.vertices]
        for hole in part.holes:
            self.assertTrue(min(xs) < hole.x_mm < max(xs) and min(zs) < hole.y_mm < max(zs))

    def test_a_turned_plate_takes_its_holes_with_it(self):
        """Front end up by 20 degrees: each hole by the rotation matrix; under a force turned as far, the same bolts."""
        level, turned = mount(), mount(turn_deg=20.0)
        parts = [next(p for p in judged(m)[1].parts if p.operation == "box") for m in (level, turned)]
        middle = np.mean([[h.x_mm, h.y_mm] for h in parts[0].holes], axis=0)
        c, s = np.cos(np.radians(20)), np.sin(np.radians(20))
        for was, now in zip(parts[0].holes, parts[1].holes, strict=True):
            dx, dz = np.array([was.x_mm, was.y_mm]) - middle
            np.testing.assert_allclose(
                [now.x_mm, now.y_mm], middle + np.array([dx * c + dz * s, dz * c - dx * s]), atol=1e-6
            )
        xs = [v.x for v in parts[1].outline.vertices]
        self.assertAlmostEqual(max(xs) - min(xs), 200 * c + 120 * s, places=6)
        force = {"along_n": 3000.0, "up_n": -1000.0, "out_n": 500.0, "lift_mm": 0.0}
        along, up = 3000 * c - 1000 * s, -1000 * c - 3000 * s
        rows = [
            {c.id: c.value for c in judged(m)[1].checks if c.limit_id == "bolt-group"}
            for m in (mount(**force), mount(turn_deg=20.0, **{**force, "along_n": along, "up_n": up}))
        ]
        self.assertTrue(rows[0])
        for name, value in rows[0].items():
            self.assertAlmostEqual(rows[1][name], value, places=9)
        step = next(s for s in judged(turned)[1].steps if s.operation == "box" and s.spec.key == "drill")
        self.assertIn("turned 20 degrees, front end up", step.spec.detail)

    def test_a_gear_turned_on_its_plate_needs_a_larger_one(self):
        pad = {"long_mm": 110.0, "tall_mm": 70.0, "turn_deg": 45.0}
        with self.assertRaises(Exception) as caught:
            judged(mount(pad=pad))
        self.assertIn("do not fit on the plate", str(caught.exception))

    def test_steps_sleeve_before_hanging_and_never_weld_the_gear(self):
        _, result = judged(mount())
        own = [s for s in result.steps if s.operation == "box" and s.side == "left"]
        self.assertEqual([s.spec.key for s in own], ["drill", "sleeve", "hang"])
        self.assertIn("Never weld", own[-1].spec.cautions[0])
        self.assertIn("parallel", {r.spec.key for r in result.readings if r.operation == "box"})


class Asked(TestCase):
    def studied(self, inputs):
        return next(s for s in suspension_studies(inputs) if s.suspension.axle == "front")

    def test_a_box_asks_for_one_plate_and_a_rack_for_two(self):
        for name, option, holds, side in (("brackmoor", "welded", "box", "left"), ("wherry", "step", "rack", "both")):
            inputs = job(name, option)
            own = next(m for m in mounts(inputs, self.studied(inputs)) if m.kind == "steering-mount")
            with self.subTest(name):
                self.assertEqual(own.holds, holds)
                if holds == "rack":
                    self.assertEqual(own.side, side)
                self.assertGreater(max(abs(own.along_n), abs(own.out_n), abs(own.up_n)), 100.0)

    def test_the_drag_link_holds_the_strike_about_the_king_pin(self):
        """Moments of strike and link about the pin's axis cancel."""
        inputs = job("brackmoor", "welded")
        s = self.studied(inputs)
        steering = s.suspension.steering
        gear, pins = steering.gear, steering.king_pins
        along, out, up = drag_link_force(s, gear, pins)
        side = np.sign(gear.box.shaft.y_mm)
        on_arm = np.array([along, out * side, up])
        hub = s.setting.hub
        right = gear.knuckle.y_mm >= 0
        lower, upper = (np.array(on_axle(p if right else p.mirrored(), hub)) for p in (pins.lower, pins.upper))
        joint = np.array(on_axle(gear.knuckle, hub))
        wheel = np.array([hub[0], (1 if right else -1) * s.setting.half_track_mm, hub[2]])
        strike = np.array([KERB_BACK, 0.0, KERB_UP]) * s.loads.standing_n / 2
        axis = (upper - lower) / np.linalg.norm(upper - lower)
        # the link is in balance: the arm pulls it with what it pulls the knuckle with, the other way
        moment = axis @ (np.cross(wheel - lower, strike) + np.cross(joint - lower, -on_arm))
        self.assertAlmostEqual(moment / abs(axis @ np.cross(wheel - lower, strike)), 0.0, places=9)
        link = np.array(gear.box.arm_end.xyz()) - joint
        np.testing.assert_allclose(
            np.cross(on_arm, link) / np.linalg.norm(on_arm) / np.linalg.norm(link), 0.0, atol=1e-9
        )


class Steps(TestCase):
    def test_sense_waits_where_the_design_steers_the_other_way(self):
        wherry = job("wherry", "step")
        plain = {s.id: s for s in evaluate(wherry, PLAN).steps}
        self.assertIn(SENSE_STEP, plain)
        self.assertIn("steer-hardware", plain["steer-align"].needs)
        turned = with_front(wherry, with_gear(front(wherry), input_right_moves="right"))
        everything = evaluate(turned, PLAN)
        self.assertEqual(next(s for s in everything.steps if s.id == SENSE_STEP).status, "waiting")

    def test_the_numbers_are_the_designs(self):
        box = {s.key: s for s in steering_steps(job("brackmoor", "welded").design.suspensions)}
        swing = front(job("brackmoor", "welded")).steering.gear.box.swing_deg
        self.assertIn(f"{swing:.0f} degrees to each side", box["steer-sweep"].detail)
        self.assertIn("Tapers", box["steer-hardware"].detail)
        rack = {s.key: s for s in steering_steps(job("wherry", "step").design.suspensions)}
        self.assertNotIn("Tapers", rack["steer-hardware"].detail)
        self.assertTrue(all("Never weld" in s.cautions[0] for s in (box["steer-mock"], rack["steer-hardware"])))

    def test_nothing_steered_brings_no_steps(self):
        self.assertEqual(steering_steps(()), ())
        self.assertNotIn(SENSE_STEP, {s.id for s in evaluate(job("wherry", "arc"), PLAN).steps})
