"""What stands in the axle's way beside its own stretch of rail: post, riser, gussets, plates, brackets, the other stretch."""

import math

import numpy as np
from django.test import SimpleTestCase
from shapely.geometry import Point, Polygon

from nodulant.clearance.metal import Metal, tube_to_metal
from nodulant.evaluate import evaluate
from nodulant.evaluate.clearances.sweep import scene, whole_sweep
from nodulant.targets.axle_path import TubePath
from tests import fixtures as f


def step(offset, **more):
    fields = {"kind": "z-step", "id": "st", "name": "Step", "rise_mm": 127.0, "box": {"depth_mm": 90.0}}
    return f.operation({**fields, "place": {"anchor_id": "rear-axle", "offset_mm": float(offset)}, **more})


def told(*operations, side="left"):
    return f.check_of(evaluate(f.with_operations(f.demo(), *operations)), f"metal-clearance:axle-tube:{side}")


class Tube(SimpleTestCase):
    """Signed distance of the tube to an outline, against the geometry library."""

    def test_against_shapely(self):
        rng = np.random.default_rng(3)
        ring = [(0, 0), (80, -10), (120, 40), (60, 30), (40, 90), (10, 60)]
        shape = Polygon(ring)
        x, z = rng.uniform(-80, 200, 400), rng.uniform(-80, 160, 400)
        path = TubePath(travel=x * 0, x=x, z=z, radius=20.0)
        far = Metal("elsewhere", np.add(ring, (5000.0, 0.0)))
        (gap, _), (at, _) = tube_to_metal(path, [Metal("it", np.array(ring, dtype=float)), far])
        for k in range(400):
            here = Point(x[k], z[k])
            away = shape.exterior.distance(here)
            self.assertAlmostEqual(gap[k], (-away if shape.contains(here) else away) - 20.0, places=9)
            self.assertLessEqual(abs(at[k] - x[k]), away + 1e-9)


class Live(SimpleTestCase):
    """A tube through a post must not be told to hold."""

    def test_a_post_beside_the_axle_by_hand(self):
        """Cut 200 mm ahead, post of 90 mm, tube of 76 mm: 200 - 90 - 38 = 72 mm of air through all travel."""
        check = told(step(-200))
        tube = f.demo().survey.rear.tube_diameter_mm
        self.assertAlmostEqual(check.value, 200.0 - 90.0 - tube / 2, delta=0.1)
        self.assertIn("post", check.title)
        self.assertEqual(check.verdict, "holds")

    def test_a_post_in_the_axle_s_way_fails(self):
        check = told(step(-110))
        self.assertEqual(check.verdict, "fails")
        self.assertLess(check.value, 0.0)
        self.assertIn("Step", check.title)

    def test_a_gusset_in_the_corner_counts(self):
        bare, gusseted = (told(step(-200, **g)) for g in ({}, {"gusset": {"leg_mm": 100, "thickness_mm": 5}}))
        self.assertLess(gusseted.value, bare.value - 5.0)

    def test_the_rail_ahead_of_a_step_hangs_lower(self):
        """Set on top, cut just ahead: what stays ahead lies 160 mm below the axle's own stretch."""
        check = told(step(-60, method="set-on", rise_mm=160.0, overlap_mm=100.0))
        self.assertEqual(check.verdict, "fails")

    def test_a_plate_with_the_notch_s_own_opening_takes_nothing(self):
        own = f.demo("arc").design.operations
        none = {"outer_plate": None, "inner_plate": None}
        plated, bare = told(*own), told(*(op.model_copy(update=none) if op.kind == "notch" else op for op in own))
        self.assertAlmostEqual(plated.value, bare.value, delta=0.05)

    def test_a_bracket_hung_below_the_rail_is_met(self):
        fields = {"kind": "bracket", "id": "hang", "name": "Hanger", "height_mm": 30.0, "tall_mm": 90.0}
        far, near = (
            told(f.operation({**fields, "place": {"anchor_id": "rear-axle", "offset_mm": at}})) for at in (-900.0, 0.0)
        )
        self.assertEqual(near.verdict, "fails")
        self.assertIn("Hanger", near.title)
        self.assertGreater(far.value, near.value)


class Swept(SimpleTestCase):
    """Everything that is drawn on the rails stands in the sweep."""

    def test_each_operation_that_adds_metal_beside_the_rail_has_a_body(self):
        inputs = f.demo("step")
        names = {thing.name for thing in scene(inputs).standing if thing.kind == "work"}
        for op in inputs.design.operations:
            parts = [p for p in evaluate(inputs).parts if p.operation == op.id and p.face in {"inner", "outer"}]
            if parts:
                self.assertIn(f"{op.name}, left", names)
                self.assertIn(f"{op.name}, right", names)

    def test_a_body_fills_what_its_outline_does(self):
        """Volume of the prisms of a plain plate, against its outline and thickness."""
        fields = {"kind": "plate", "id": "fish", "name": "Fish plate", "thickness_mm": 6.0, "ends": "taper"}
        ends = {
            "start": {"anchor_id": "rear-axle", "offset_mm": -700.0},
            "end": {"anchor_id": "rear-axle", "offset_mm": -300.0},
        }
        inputs = f.with_operations(f.demo("step"), f.operation({**fields, **ends}))
        (body,) = (t for t in scene(inputs).standing if t.name == "Fish plate, right")
        (part,) = (p for p in evaluate(inputs).parts if p.side == "right")
        area = 0.0
        for corners, low, high in zip(body.pack.corners, body.pack.low_y, body.pack.high_y, strict=True):
            area += Polygon(corners).area * (high - low)
        self.assertTrue(math.isclose(area, abs(part.outline.area_mm2()) * 6.0, rel_tol=1e-6))
        self.assertAlmostEqual(float(body.pack.high_y.max()), inputs.survey.rails.right.web_y_mm + 6.0)

    def test_a_link_is_no_pair_with_its_own_bracket_and_meets_another_s(self):
        inputs = f.demo("step")
        pairs = {(p.moving, p.other) for p in whole_sweep(inputs).pairs if p.axle == "rear"}
        bracket = next(op for op in inputs.design.operations if op.kind == "bracket" and "lower" in op.name)
        others = {moving for moving, other in pairs if other == f"{bracket.name}, right"}
        self.assertTrue(any("tyre" in m for m in others))
        self.assertFalse(any(m.startswith("lower") and m.endswith("right") for m in others))

    def test_a_hoop_in_the_tyre_s_way_fails(self):
        inputs = f.demo("step")
        box = {"kind": "bracket", "id": "arm", "name": "Outrigger", "height_mm": 60.0, "tabs": {"standoff_mm": 450.0}}
        op = f.operation({**box, "place": {"anchor_id": "rear-axle", "offset_mm": 0.0}})
        added = inputs.model_copy(
            update={"design": inputs.design.model_copy(update={"operations": (*inputs.design.operations, op)})}
        )
        hit = [
            p
            for p in whole_sweep(added).pairs
            if (p.axle, p.other, p.moving) == ("rear", "Outrigger, right", "tyre, right")
        ]
        self.assertEqual([p.verdict for p in hit], ["fails"])
