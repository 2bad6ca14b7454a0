"""One drawing of a part: side view, space, sweep and pattern show the same plate, bolt and tab, to 0.1 mm."""

import numpy as np
from django.test import SimpleTestCase

from nodulant.clearance.work_bodies import work_bodies
from nodulant.evaluate import evaluate
from nodulant.evaluate.clearances.solids import frame_solids
from nodulant.patterns.collect import patterns_of
from tests import fixtures as f

NEAR_MM = 0.1
OPTIONS = ("arc", "straight", "step")


def box(points):
    at = np.array(points)
    return np.array([*at.min(axis=0), *at.max(axis=0)])


def of_prisms(rows):
    corners = np.array([row[:8] for row in rows]).reshape(-1, 2)
    return box(corners)


def bracket_middle(rail, operation):
    corners = [v.x for m in rail.mounts if m.operation == operation for v in m.outline.vertices]
    return (min(corners) + max(corners)) / 2


class Views(SimpleTestCase):
    def drawn(self, option):
        inputs = f.demo(option)
        return inputs, evaluate(inputs)

    def test_a_plate_on_the_web_is_cut_as_it_is_drawn(self):
        """Every corner and hole of the pattern lies where the side view has it, the right side turned over."""
        for option in OPTIONS:
            inputs, result = self.drawn(option)
            patterns = {p.part_id: p for p in patterns_of(inputs.survey, inputs.design.operations) if p.part_id}
            for part in result.parts:
                if part.side != "left" or part.face not in {"inner", "outer"} or part.id not in patterns:
                    continue
                cut = next(s.outline for s in patterns[part.id].strokes if s.layer == "CUT")
                with self.subTest(part.id):
                    one, two = (np.array([(v.x, v.y) for v in o.vertices]) for o in (part.outline, cut))
                    np.testing.assert_allclose(one - one.min(axis=0), two - two.min(axis=0), atol=NEAR_MM)
                    self.assertEqual([v.bulge for v in part.outline.vertices], [v.bulge for v in cut.vertices])

    def test_a_plate_fills_in_space_what_the_side_view_shows(self):
        for option in OPTIONS:
            inputs, result = self.drawn(option)
            bodies = {w.name: of_prisms(w.prisms) for w in frame_solids(inputs).work}
            names = {op.id: op.name for op in inputs.design.operations}
            for rail in result.rails:
                parts = [p for p in result.parts if p.side == rail.side and p.face in {"inner", "outer"}]
                for own in {p.operation for p in parts} - {m.operation for m in rail.mounts}:
                    seen = box([xy for p in parts if p.operation == own for xy in p.outline.points(0.02)])
                    with self.subTest(f"{option} {own} {rail.side}"):
                        np.testing.assert_allclose(bodies[f"{names[own]}, {rail.side}"], seen, atol=NEAR_MM)

    def test_a_bracket_is_one_thing_in_the_side_view_in_space_and_in_the_sweep(self):
        inputs, result = self.drawn("step")
        in_space = {w.name: of_prisms(w.prisms) for w in frame_solids(inputs).work}
        names = {op.id: op.name for op in inputs.design.operations}
        for rail in result.rails:
            swept = {s.name: s.pack for s in work_bodies(inputs.survey, inputs.design.operations, rail.side)}
            for own in {m.operation for m in rail.mounts}:
                seen = box([(v.x, v.y) for m in rail.mounts if m.operation == own for v in m.outline.vertices])
                name = f"{names[own]}, {rail.side}"
                with self.subTest(name):
                    np.testing.assert_allclose(in_space[name], seen, atol=NEAR_MM)
                    np.testing.assert_allclose(box(swept[name].corners.reshape(-1, 2)), seen, atol=NEAR_MM)

    def test_the_joint_s_bolt_lies_in_the_tab_that_is_drawn(self):
        """A link whose bolt hangs 85 mm below its bracket's middle has its tab drawn down there, not inside the rail."""
        inputs, result = self.drawn("step")
        bracket = next(op for op in inputs.design.operations if op.id == "rear-lower-link-bracket")
        rail = next(r for r in result.rails if r.side == "right")
        lowest = min(v.y for m in rail.mounts if m.operation == bracket.id for v in m.outline.vertices)
        path = "suspensions.0.layout.lower.frame"
        link = next(grip.at for axle in result.travel for grip in axle.grips if grip.path == path)
        self.assertAlmostEqual(link.x_mm, bracket_middle(rail, bracket.id), delta=NEAR_MM)
        edge = bracket.tabs.width_mm / 2
        self.assertAlmostEqual(lowest, link.z_mm - edge, delta=NEAR_MM)

    def test_a_post_stands_as_wide_as_its_pattern_and_as_high_as_the_rails_ends(self):
        inputs, result = self.drawn("step")
        step = next(op for op in inputs.design.operations if op.kind == "z-step")
        post = next(p for p in result.parts if p.operation == step.id and p.role == "post" and p.side == "left")
        x0, z0, x1, z1 = post.outline.bounds()
        rail = next(r for r in result.rails if r.side == "left")
        ahead = [h for x, h in zip(rail.x_mm, rail.top_z_mm, strict=True) if x <= x0 + NEAR_MM][-1]
        behind = next(h for x, h in zip(rail.x_mm, rail.top_z_mm, strict=True) if x >= x1 - NEAR_MM)
        self.assertAlmostEqual(z1, max(ahead, behind), delta=NEAR_MM)
        cut = next(p for p in patterns_of(inputs.survey, inputs.design.operations) if p.part_id == post.id)
        wide, high = cut.bounds()[2] - cut.bounds()[0], cut.bounds()[3] - cut.bounds()[1]
        self.assertAlmostEqual(wide, x1 - x0, delta=NEAR_MM)
        self.assertAlmostEqual(high, z1 - z0, delta=NEAR_MM)
