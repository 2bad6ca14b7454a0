"""What is marked off on the rail, and the sizes at a section: the same figures as the design's own."""

from django.test import SimpleTestCase

from nodulant.evaluate import SectionAt, Want, evaluate
from tests import fixtures as f

AT = Want(
    steps=False,
    frame=False,
    interim=False,
    travel=False,
    strip_side="left",
    section=SectionAt(side="left", x_mm=2610),
)


def marked(option, side="left"):
    result = evaluate(f.demo(option), AT)
    rail = next(r for r in result.rails if r.side == side)
    return {m.operation: {d.name: d for d in m.dimensions} for m in rail.measured}, result


class OnTheRail(SimpleTestCase):
    def test_a_notch_shows_its_depth_and_width(self):
        for option in ("arc", "straight"):
            own, _ = marked(option)
            notch = next(op for op in f.demo(option).design.operations if op.kind == "notch")
            self.assertAlmostEqual(own[notch.id]["depth of the cut"].value_mm, notch.depth_mm, delta=0.05)
            self.assertAlmostEqual(own[notch.id]["width of the cut"].value_mm, 2 * notch.half_mouth_mm, delta=0.05)

    def test_a_place_is_told_from_the_operations_own_datum(self):
        own, _ = marked("arc")
        box = next(op for op in f.demo("arc").design.operations if op.kind == "boxing")
        anchor = next(x for x in f.demo("arc").survey.features if x.id == box.anchor.anchor_id)
        self.assertIn(f"from {anchor.name}", own[box.id])

    def test_a_step_shows_how_far_the_rail_rises(self):
        own, _ = marked("step")
        step = next(op for op in f.demo("step").design.operations if op.kind == "z-step")
        self.assertAlmostEqual(own[step.id]["rise"].value_mm, step.rise_mm, delta=0.01)

    def test_left_and_right_are_marked_alike_where_the_work_is_alike(self):
        left, _ = marked("arc")
        right, _ = marked("arc", "right")
        self.assertEqual(
            {op: {n: d.value_mm for n, d in own.items()} for op, own in left.items()},
            {op: {n: d.value_mm for n, d in own.items()} for op, own in right.items()},
        )

    def test_what_hangs_on_the_axle_has_nothing_to_mark_on_the_rail(self):
        own, _ = marked("step")
        self.assertNotIn("rear-truss", own)


class FromAbove(SimpleTestCase):
    def plan(self, option, kind, side):
        result = evaluate(f.demo(option), AT)
        op = next(op for op in f.demo(option).design.operations if op.kind == kind)
        rail = next(r for r in result.rails if r.side == side)
        own = next(m for m in rail.measured if m.operation == op.id)
        return {d.name: d for d in own.plan}, result

    def test_the_rails_width_and_both_rails_from_outside_to_outside(self):
        for side in ("left", "right"):
            own, result = self.plan("arc", "notch", side)
            rails = f.demo("arc").survey.rails
            self.assertAlmostEqual(own["width of the rail"].value_mm, rails.of(side).stations[0].width_mm, delta=0.01)
            drawn = {r.side: r for r in result.rails}
            over = max(drawn["right"].web_y_mm) - min(drawn["left"].web_y_mm)
            self.assertAlmostEqual(own["over both rails"].value_mm, over, delta=0.05)
            self.assertNotIn("moved across", own)


class AtTheSection(SimpleTestCase):
    def test_what_is_left_of_the_rail_and_every_wall(self):
        _, result = marked("arc")
        notch = next(op for op in f.demo("arc").design.operations if op.kind == "notch")
        sizes = {d.name: d.value_mm for d in result.section.dimensions}
        self.assertAlmostEqual(sizes["height of the rail here"], 150 - notch.depth_mm, delta=0.3)
        self.assertAlmostEqual(sizes["width of the rail"], 60, delta=0.1)
        self.assertEqual(result.section.walls[0], "wall [[thickness:5.0000]]")
        self.assertIn("boxing [[thickness:5.0000]]", result.section.walls)
