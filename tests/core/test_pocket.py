"""A raised pocket that is cut deeper in one wall than in the other: both walls, floor, box, what goes up."""

import math

from django.test import SimpleTestCase

from nodulant.evaluate import InvalidInputs, evaluate
from nodulant.patterns.collect import patterns_of
from tests import fixtures as f


def pocket(**more):
    place = {"anchor_id": "rear-axle", "offset_mm": -600.0}
    fields = {"kind": "raise", "id": "up", "name": "Pocket", "place": place, "length_mm": 160.0, "depth_mm": 50.0}
    return f.with_operations(f.demo(), f.operation({**fields, "floor_mm": 6.0, "corner_radius_mm": 10.0, **more}))


def drawn(inputs):
    return {p.id: p for p in patterns_of(inputs.survey, inputs.design.operations)}


def depth_of(template):
    return next(d.value_mm for d in template.dimensions if d.name == "depth")


class Tapered(SimpleTestCase):
    def test_each_wall_has_its_own_template(self):
        both = drawn(pocket(inner_depth_mm=32.0))
        self.assertAlmostEqual(depth_of(both["up/cut-template-web/left"]), 50.0)
        self.assertAlmostEqual(depth_of(both["up/cut-template-open-side/left"]), 32.0)
        self.assertTrue(both["up/cut-template-web/left"].title.endswith("web"))
        self.assertIn("up/cut-template/left", drawn(pocket()))

    def test_the_floor_unrolls_to_a_trapezium(self):
        """Upright sides: each wall's edge is shorter by twice what its depth is less; the floor is askew between them."""
        flat, askew = (evaluate(pocket(**m)) for m in ({}, {"inner_depth_mm": 32.0}))
        one, two = (next(p for p in r.parts if p.id == "up/liner/left") for r in (flat, askew))
        xs = sorted(v.x for v in two.outline.vertices)
        at_web, at_open = xs[3] - xs[0], xs[2] - xs[1]
        whole = one.outline.bounds()[2] - one.outline.bounds()[0]
        self.assertAlmostEqual(at_web, whole)
        self.assertAlmostEqual(whole - at_open, 2 * (50.0 - 32.0))
        wide = one.outline.bounds()[3] - one.outline.bounds()[1]
        self.assertAlmostEqual(two.outline.bounds()[3] - two.outline.bounds()[1], math.hypot(wide, 18.0))
        self.assertIn("long edge at the web", two.name)

    def test_what_goes_up_is_told_at_the_web_and_has_one_value(self):
        result = evaluate(pocket(inner_depth_mm=32.0))
        figure = next(x for x in result.figures if x.id == "goes-up-up")
        self.assertAlmostEqual(figure.value, 50.0 - 6.0)
        up = {t.up_mm for t in result.taken_along if t.kind == "mass"}
        self.assertLessEqual(up, {44.0})
        self.assertEqual(sum(e.amount_mm for e in result.drop.entries if e.caused), 44.0)

    def test_a_floor_that_fills_the_pocket_is_refused_at_the_shallow_wall(self):
        with self.assertRaisesRegex(InvalidInputs, "nothing goes up") as told:
            evaluate(pocket(inner_depth_mm=4.0, corner_radius_mm=2.0))
        self.assertEqual(told.exception.problems[0].field, "/design/operations/0/inner_depth_mm")

    def test_both_depths_are_read_and_change_the_rail_as_built(self):
        names = {r.spec.key for r in evaluate(pocket(inner_depth_mm=32.0)).readings}
        self.assertLessEqual({"depth", "inner-depth"}, names)
        self.assertNotIn("inner-depth", {r.spec.key for r in evaluate(pocket()).readings})

    def test_the_box_is_as_high_as_it_is_said(self):
        for more, high in (({}, 50.0), ({"box_height_mm": 75.0}, 75.0)):
            part = next(p for p in evaluate(pocket(**more)).parts if p.id == "up/cap-side-outer/left")
            _, low, _, top = part.outline.bounds()
            self.assertAlmostEqual(top - low, high)

    def test_two_pockets_are_told_apart(self):
        inputs = pocket()
        two = inputs.design.operations[0].model_copy(
            update={
                "id": "bush",
                "name": "Rear bushings",
                "place": inputs.design.operations[0].place.model_copy(update={"offset_mm": -1400.0}),
            }
        )
        result = evaluate(f.with_operations(f.demo(), *inputs.design.operations, two))
        titles = {s.spec.title for s in result.steps if s.operation == "bush"}
        self.assertTrue(all("Rear bushings" in t for t in titles), titles)


class Several(SimpleTestCase):
    """Two pockets for one subframe: it comes down once, and each piece says whose it is."""

    def two(self, deeper=56.0):
        one = pocket(name="Front pocket").design.operations[-1]
        two = one.model_copy(
            update={
                "id": "rear-bushing",
                "name": "Pocket for the bushings",
                "depth_mm": deeper,
                "inner_depth_mm": 30.0,
                "place": one.place.model_copy(update={"offset_mm": -250.0}),
            }
        )
        return f.with_operations(f.demo(), one, two)

    def test_the_vehicle_comes_down_by_the_pocket_that_is_nearest_to_the_axle(self):
        inputs = self.two()
        bare = inputs.design.model_copy(
            update={"targets": inputs.design.targets.model_copy(update={"entries": (), "drop_mm": 50.0})}
        )
        made = [e for e in evaluate(inputs.model_copy(update={"design": bare})).drop.entries if e.caused]
        self.assertEqual([(e.name, round(e.amount_mm, 6)) for e in made], [("Pocket for the bushings", 50.0)])

    def test_a_floor_says_whose_it_is_also_where_one_is_tapered(self):
        titles = [p.title for p in drawn(self.two()).values() if p.title.startswith("Pocket floor")]
        self.assertTrue(
            titles and all(t.endswith((": Front pocket", ": Pocket for the bushings")) for t in titles), titles
        )
