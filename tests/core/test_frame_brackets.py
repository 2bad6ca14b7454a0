"""What the links do to the rails: brackets with their forces, and the frame's own load cases."""

import math

import numpy as np
from django.test import SimpleTestCase

from nodulant.evaluate import evaluate
from nodulant.evaluate.load_plan import plan_of
from nodulant.frame.ops.mounts.wall import wall_capacity_n
from nodulant.frame.place import Place
from nodulant.materials.weld import Line, group_load_n_per_mm, weld_group
from tests import fixtures as f
from tests.core.test_operations import made
from tests.core.test_suspensions import BAR, LAYOUTS, ONLY, link, suspended


class FromLinks(SimpleTestCase):
    """A bracket that is typed again by hand is typed wrongly."""

    def brackets(self, **more):
        (axle,) = evaluate(suspended(**more), ONLY).travel
        return axle, {b.id: b for b in axle.mounts if b.kind == "bracket"}

    def test_one_for_every_pair_at_its_place_with_its_worst_force(self):
        axle, brackets = self.brackets()
        self.assertEqual(set(brackets), {"rear-upper-link-bracket", "rear-lower-link-bracket"})
        lower = brackets["rear-lower-link-bracket"]
        survey = f.demo("step").survey
        anchor = next(a for a in survey.features if a.id == lower.place.anchor_id)
        self.assertAlmostEqual(anchor.x_mm + lower.place.offset_mm, 1950.0)
        worst = max(
            (abs(v) for row in axle.forces if row.name.startswith("lower") for v in row.cases.values()), default=0.0
        )
        self.assertAlmostEqual(np.hypot(np.hypot(lower.along_n, lower.up_n), lower.out_n), worst, delta=0.2)
        # a pushed lower link pushes its bracket forward
        self.assertLess(lower.along_n, 0)
        self.assertAlmostEqual(lower.height_mm + lower.tabs.lift_mm, -70.0)

    def test_a_link_in_the_middle_hangs_on_a_crossmember(self):
        _, brackets = self.brackets(kind="three-link")
        self.assertEqual(set(brackets), {"rear-lower-arm-bracket"})

    def test_none_without_springs(self):
        self.assertEqual(self.brackets(springs=None)[1], {})

    def test_put_into_the_design_they_are_judged_and_built(self):
        inputs = suspended()
        (axle,) = evaluate(inputs, ONLY).travel
        design = inputs.design.model_copy(update={"operations": axle.mounts})
        result = evaluate(inputs.model_copy(update={"design": design}))
        check = f.check_of(result, "weld-group:rear-lower-link-bracket:left")
        self.assertIsNotNone(check.value)
        self.assertTrue(any(s.operation == "rear-lower-link-bracket" for s in result.steps))

    def test_a_typed_force_gives_way_to_the_suspension_s_own(self):
        """Taken over by name or standing at the joint's place under a name of its own, half a metre off it does not."""
        inputs = suspended()
        (axle,) = evaluate(inputs, ONLY).travel
        own = next(m for m in axle.mounts if m.id == "rear-lower-link-bracket")
        typed = {"along_n": 10.0, "out_n": 0.0, "up_n": 0.0}
        away = Place(anchor_id=own.place.anchor_id, offset_mm=own.place.offset_mm + 500.0)

        def weld(**update):
            op = own.model_copy(update={**typed, **update})
            design = inputs.design.model_copy(update={"operations": (op,)})
            result = evaluate(inputs.model_copy(update={"design": design}), ONLY)
            return f.check_of(result, f"weld-group:{op.id}:left").value

        design = inputs.design.model_copy(update={"operations": (own,)})
        result = evaluate(inputs.model_copy(update={"design": design}), ONLY)
        asked = f.check_of(result, "weld-group:rear-lower-link-bracket:left").value
        self.assertAlmostEqual(weld(), asked)
        shown = {figure.id: figure.value for figure in result.figures}
        whole = math.hypot(own.along_n, own.out_n, own.up_n)
        self.assertAlmostEqual(shown["own-force-rear-lower-link-bracket"], whole, delta=0.2)
        self.assertAlmostEqual(weld(id="mine"), asked)
        self.assertLess(weld(id="mine", place=away), asked / 100)


class Hanging(SimpleTestCase):
    """A bolt below the foot turns it: more weld load than level with it."""

    def loads(self, lift):
        op = made(
            "bracket", along_n=12_000.0, tabs={"lift_mm": lift}, place={"anchor_id": "rear-axle", "offset_mm": -900.0}
        )
        result = evaluate(f.with_operations(f.demo(), op))
        return {rule: f.check_of(result, f"{rule}:it:left") for rule in ("weld-group", "tab-bending")}

    def test_against_the_group_by_hand(self):
        check = self.loads(-80.0)["weld-group"]
        w, h = 60.0, 45.0
        corners = [(-w, -h), (w, -h), (w, h), (-w, h)]
        lines = [Line(*a, *b) for a, b in zip(corners, corners[1:] + corners[:1], strict=True)]
        by_hand, _ = group_load_n_per_mm(weld_group(lines), (0.0, 12_000.0, 0.0), (55.0, 0.0, -80.0))
        self.assertAlmostEqual(check.why.values["load"], by_hand)

    def test_lower_is_worse(self):
        level, low = self.loads(0.0), self.loads(-120.0)
        for rule in level:
            self.assertGreater(low[rule].value, level[rule].value)


class Wall(SimpleTestCase):
    """EN 1993-1-8 table 7.13 (from memory): a plate on the face of a hollow section."""

    def test_yield_lines_by_hand(self):
        # beta 0.6, eta 0.8 on 5 mm of 248 MPa: f_y t^2/0.4 x (1.6 + 4 x 0.632)
        by_hand = 248 * 25 / 0.4 * (1.6 + 4 * 0.4**0.5) / 1.5
        self.assertAlmostEqual(wall_capacity_n(5.0, 150.0, 90.0, 120.0, 248.0), by_hand, places=6)

    def test_thin_walls_fail_first(self):
        op = made("bracket", out_n=30_000.0, place={"anchor_id": "rear-axle", "offset_mm": -900.0})
        thick = f.check_of(evaluate(f.with_operations(f.demo(), op)), "rail-wall:it:left")
        values = thick.why.values
        self.assertAlmostEqual(thick.value, (values["out"] + values["couple"]) / values["capacity"])
        self.assertGreater(wall_capacity_n(5, 150, 90, 120, 248), 2.7 * wall_capacity_n(3, 150, 90, 120, 248))
        bare = made("bracket", along_n=0.0, place={"anchor_id": "rear-axle", "offset_mm": -900.0})
        check = f.check_of(evaluate(f.with_operations(f.demo(), bare)), "rail-wall:it:left")
        self.assertEqual(check.verdict, "not computed")


class FrameCases(SimpleTestCase):
    """Braking and launch enter the frame where the design's links are, without typing them again."""

    def test_links_of_the_suspension_stand_in(self):
        inputs = suspended()
        bare = inputs.design.model_copy(update={"loads": inputs.design.loads.model_copy(update={"links": ()})})
        plan = plan_of(inputs.model_copy(update={"design": bare}))
        self.assertEqual([(own.axle, own.upper_x_mm, own.lower_z_mm) for own in plan.links], [("rear", 2150.0, -70.0)])
        result = evaluate(inputs.model_copy(update={"design": bare}))
        self.assertIsNotNone(f.check_of(result, "case-limit:rail-launch:left").value)
        alone = bare.model_copy(update={"suspensions": ()})
        result = evaluate(inputs.model_copy(update={"design": alone}))
        self.assertIsNone(f.check_of(result, "case-limit:rail-launch:both").value)

    def test_what_the_user_gave_comes_first(self):
        inputs = suspended()
        self.assertEqual(plan_of(inputs).links, inputs.design.loads.links)

    def test_links_without_height_between_them_say_nothing(self):
        flat = {"upper": link((2150, 330, -60), (0, 330, -40)), "lower": LAYOUTS["parallel"]["lower"], "lateral": BAR}
        inputs = suspended("parallel", layout=flat)
        bare = inputs.design.model_copy(update={"loads": inputs.design.loads.model_copy(update={"links": ()})})
        self.assertEqual(plan_of(inputs.model_copy(update={"design": bare})).links, ())
