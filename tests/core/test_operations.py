"""Every operation: placed anywhere with any sizes it either works whole or says what would be acceptable."""

import ast
import operator

from django.test import SimpleTestCase
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from pydantic import TypeAdapter, ValidationError

from nodulant.base.errors import NodulantError
from nodulant.evaluate import InvalidInputs, Want, evaluate
from nodulant.frame.model import placed_on, planned_state
from nodulant.frame.ops.union import Operation
from nodulant.frame.parts import added_parts
from nodulant.patterns.collect import patterns_of
from tests import fixtures as f
from tests.fixtures import finite

FUZZ = settings(deadline=None, derandomize=True, max_examples=30, suppress_health_check=list(HealthCheck))
OPERATION = TypeAdapter(Operation)
ANCHORS = ("front-axle", "front-hanger", "rear-axle")

sizes = st.floats(1, 260, allow_nan=False)
walls = st.floats(1.5, 12, allow_nan=False)
places = st.fixed_dictionaries({"anchor_id": st.sampled_from(ANCHORS), "offset_mm": st.floats(-1500, 900)})
plates = st.none() | st.fixed_dictionaries({"thickness_mm": walls, "overlap_mm": sizes})
butts = st.sampled_from(["one-sided", "one-sided-backed", "two-sided", "two-sided-ground"])
boxes = st.fixed_dictionaries(
    {"profile": st.sampled_from(["box", "channel"]), "depth_mm": st.just(0.0) | sizes, "wall_mm": walls}
)
through = {"place": places, "weld": butts, "outer_plate": plates, "inner_plate": plates}
between = {"start": places, "end": places}
forces = st.floats(-40_000, 40_000)
on_axle = {
    "place": places,
    "x_mm": st.floats(-200, 200),
    "y_mm": st.floats(-600, 600),
    "z_mm": st.floats(-200, 300),
    "tube_mm": st.floats(40, 120),
    "housing": st.sampled_from(["steel", "cast", "not known"]),
    "housing_half_mm": st.none() | sizes,
    "along_n": forces,
    "out_n": forces,
    "up_n": forces,
}
KINDS = {
    "z-step": {
        **through,
        "rise_mm": sizes,
        "rises": st.sampled_from(["behind", "ahead"]),
        "method": st.sampled_from(["post", "riser", "set-on"]),
        "box": boxes,
        "cut_angle_deg": st.floats(-30, 30),
        "riser_angle_deg": st.floats(20, 80),
        "overlap_mm": sizes,
        "gusset": st.none() | st.fixed_dictionaries({"leg_mm": sizes, "thickness_mm": walls}),
    },
    "raise": {
        "place": places,
        "length_mm": sizes,
        "depth_mm": st.floats(8, 120),
        "inner_depth_mm": st.none() | st.floats(8, 120),
        "floor_mm": walls,
        "overlap_mm": sizes,
    },
    "subframe": {
        "place": places,
        "measured": st.sampled_from(["vehicle", "bench"]),
        "height_mm": st.floats(-200, 200),
        "up_mm": st.floats(-200, 200),
        "back_mm": st.floats(-300, 300),
        "narrower_mm": st.floats(0, 100),
        "nose_up_deg": st.floats(-20, 20),
        "nose_right_deg": st.floats(-20, 20),
        "mounted": st.sampled_from(["rubber", "solid"]),
        "points": st.just([{}, {"what": "ear", "name": "ear"}]),
        "beams": st.lists(st.fixed_dictionaries({"x_mm": st.floats(0, 3000), "half_mm": sizes}), max_size=2),
        "weight": st.none() | st.just({}),
    },
    "narrow": {
        "start": st.none() | places,
        "end": st.none() | places,
        "inward_mm": st.floats(-80, 80),
        "jog": st.sampled_from(["butt", "angled", "plated"]),
        "run_mm": sizes,
        "box": boxes,
    },
    "stretch": {**through, "length_mm": st.floats(-600, 600), "box": boxes},
    "splice": {
        **through,
        "style": st.sampled_from(["square", "scarf", "stepped"]),
        "donor": st.none()
        | st.fixed_dictionaries({"height_mm": st.floats(60, 200), "width_mm": st.floats(40, 90), "wall_mm": walls}),
    },
    "plate": {
        **between,
        "face": st.sampled_from(["outer", "inner", "top", "bottom"]),
        "thickness_mm": walls,
        "low_mm": sizes,
        "ends": st.sampled_from(["square", "taper", "diamond"]),
    },
    "hole": {
        "place": places,
        "height_mm": sizes,
        "diameter_mm": st.floats(3, 60),
        "work": st.sampled_from(["drill", "plug", "sleeve"]),
        "inspected": st.booleans(),
        "sleeve": st.none() | st.just({}),
    },
    "crossmember": {
        "act": st.sampled_from(["add", "remove", "move", "replace"]),
        "target_id": st.sampled_from([None, "cab", "tail", "nobody"]),
        "place": places,
        "height_mm": sizes,
        "width_mm": sizes,
        "wall_mm": walls,
    },
    "access-cut": {**between, "height_mm": sizes, "outer_plate": plates, "inner_plate": plates, "weld": butts},
    "repair": {**between, "thickness_mm": walls, "weld": butts},
    "bracket": {
        "place": places,
        "height_mm": sizes,
        "width_mm": sizes,
        "tall_mm": sizes,
        "thickness_mm": walls,
        "fixing": st.sampled_from(["welded", "bolted", "welded-and-bolted"]),
        "along_n": st.floats(-40_000, 40_000),
        "up_n": st.floats(-40_000, 40_000),
        "out_n": st.floats(-40_000, 40_000),
        "gusset": st.none() | st.just({}),
    },
    "spring-bridge": {
        "place": places,
        "form": st.sampled_from(["straight", "hoop"]),
        "height_mm": sizes,
        "y_mm": sizes,
        "od_mm": st.floats(16, 120),
        "wall_mm": walls,
        "gusset_mm": st.just(0.0) | sizes,
        "spring_n": st.floats(0, 60_000),
        "across_n": st.floats(0, 20_000),
    },
    "spring-pocket": {
        "place": places,
        "length_mm": sizes,
        "depth_mm": st.floats(1, 60),
        "bolt_up_mm": st.floats(30, 400),
        "line_from": st.sampled_from(["inner", "outer"]),
        "line_mm": st.just(0.0) | st.floats(1, 60),
        "plate_mm": st.just(0.0) | walls,
        "spring_n": st.floats(0, 60_000),
        "across_n": st.floats(0, 60_000),
    },
    "pad": {
        "place": places,
        "holds": st.sampled_from(["air-spring", "bump-stop"]),
        "long_mm": sizes,
        "across_mm": sizes,
        "out_mm": st.floats(-200, 200),
        "drop_mm": st.just(0.0) | sizes,
        "force_n": st.floats(0, 60_000),
    },
    "axle-bracket": {
        **on_axle,
        "holds": st.sampled_from(["link", "coilover", "damper", "strap"]),
        "stands_on": st.sampled_from(["tube", "truss"]),
        "base_mm": sizes,
        "tabs": st.fixed_dictionaries(
            {
                "holes_above": st.integers(0, 3),
                "holes_below": st.integers(0, 3),
                "single": st.booleans(),
                "room_mm": st.none() | sizes,
                "width_mm": sizes,
            }
        ),
    },
    "truss": {**on_axle, "foot_from_mm": sizes, "foot_to_mm": sizes, "tall_mm": sizes, "clear_mm": sizes},
    "axle-pad": {**on_axle, "long_mm": sizes, "across_mm": sizes, "tilt_deg": st.floats(-20, 20)},
    "steering-mount": {
        "place": places,
        "holds": st.sampled_from(["box", "rack"]),
        "face": st.sampled_from(["outer", "inner"]),
        "height_mm": sizes,
        "long_mm": st.floats(80, 240),
        "tall_mm": st.floats(70, 140),
        "thickness_mm": walls,
        "bolts": st.fixed_dictionaries(
            {"per_end": st.integers(1, 4), "edge_mm": st.floats(8, 28), "sleeves": st.booleans()}
        ),
        "pad": st.fixed_dictionaries(
            {"long_mm": st.floats(20, 70), "tall_mm": st.floats(20, 55), "corners": st.integers(2, 4)}
        ),
        "standoff_mm": st.floats(0, 200),
        "lift_mm": st.floats(-200, 200),
        "along_n": st.floats(-40_000, 40_000),
        "up_n": st.floats(-40_000, 40_000),
        "out_n": st.floats(-40_000, 40_000),
    },
    "notch": {
        "place": places,
        "from_": st.sampled_from(["below", "above"]),
        "depth_mm": sizes,
        "shape": st.fixed_dictionaries({"kind": st.just("arc"), "radius_mm": sizes}),
        "liner": st.none() | st.fixed_dictionaries({"thickness_mm": walls}),
        "outer_plate": plates,
        "inner_plate": plates,
        "bolts": st.none() | st.just({}),
    },
}
OPS = {
    ast.Add: operator.add,
    ast.Sub: operator.sub,
    ast.Mult: operator.mul,
    ast.Div: operator.truediv,
    ast.Pow: operator.pow,
}


def worth(formula, values):
    """A why's formula worked out with its own values."""

    def of(node):
        if isinstance(node, ast.Expression):
            return of(node.body)
        if isinstance(node, ast.BinOp):
            return OPS[type(node.op)](of(node.left), of(node.right))
        if isinstance(node, ast.Call):
            return abs(of(node.args[0]))
        return values[node.id] if isinstance(node, ast.Name) else node.value

    return of(ast.parse(formula, mode="eval"))


class Tried(SimpleTestCase):
    """Works whole, or is refused with what would be acceptable."""

    def job(self):
        return f.demo()

    def try_one(self, kind, fields):
        try:
            op = OPERATION.validate_python({"kind": kind, "id": "it", "name": "it", **fields})
        except (ValidationError, NodulantError):
            return False
        inputs = f.with_operations(self.job(), op)
        try:
            result = evaluate(inputs, Want(case="brake"))
        except InvalidInputs as error:
            for problem in error.problems:
                self.assertTrue(problem.message and problem.acceptable, (kind, fields))
                self.assertTrue(problem.field.startswith("/design"), problem.field)
            return False
        self.assertTrue(finite(result.model_dump()), (kind, fields))
        for check in result.checks:
            if check.why and check.value is not None:
                self.assertAlmostEqual(
                    worth(check.why.formula, check.why.values),
                    check.value,
                    delta=1e-6 * max(1.0, abs(check.value)),
                    msg=check.id,
                )
        for part in result.parts:
            self.assertGreater(abs(part.outline.area_mm2()), 0.0, part.id)
            self.assertGreater(part.mass_kg(), 0.0)
        self.assertTrue(all(p.bounds()[2] > 0 for p in patterns_of(inputs.survey, (op,))))
        return True


def _fuzz(kind, without=()):
    tried = []
    fields = {name: values for name, values in KINDS[kind].items() if name not in without}

    @FUZZ
    @given(st.fixed_dictionaries(fields))
    def every(self, fields):
        tried.append(self.try_one(kind, fields))

    def test(self):
        every(self)
        # a fuzz whose cases are all refused tests nothing
        self.assertGreaterEqual(sum(tried), 3, f"{sum(tried)} of {len(tried)} were whole")

    test.__name__ = f"test_{kind.replace('-', '_')}"
    return test


class Fuzzed(Tried):
    """A crash or a NaN on some size would cost a person's afternoon of typing."""


class FuzzedOnTubes(Tried):
    """The same on rails of round tube."""

    def job(self):
        return f.on_tubes(f.demo())


for _kind in ("notch", "raise", "z-step", "bracket", "hole", "access-cut"):
    setattr(FuzzedOnTubes, f"test_{_kind.replace('-', '_')}", _fuzz(_kind, without=("outer_plate", "inner_plate")))
for _kind in KINDS:
    setattr(Fuzzed, f"test_{_kind.replace('-', '_')}", _fuzz(_kind))


def made(kind, **fields):
    """An operation at the rear axle that the demo's frame can take."""
    where = {"anchor_id": "rear-axle", "offset_mm": -900.0}
    span = {
        "start": {"anchor_id": "rear-axle", "offset_mm": -900.0},
        "end": {"anchor_id": "rear-axle", "offset_mm": -650.0},
    }
    own = {
        "z-step": {"place": where, "rise_mm": 75.0},
        "raise": {"place": where, "length_mm": 160.0, "depth_mm": 40.0},
        "subframe": {"place": where, "points": [{"name": "mount"}], "beams": [{"x_mm": 1700.0}]},
        "narrow": {**span, "inward_mm": 20.0, "run_mm": 80.0},
        "stretch": {"place": where, "length_mm": 150.0},
        "splice": {"place": where},
        "plate": {**span, "thickness_mm": 5.0},
        "hole": {"place": where, "height_mm": 75.0, "diameter_mm": 14.0},
        "crossmember": {"place": where},
        "access-cut": {**span, "height_mm": 60.0},
        "repair": {**span, "thickness_mm": 5.0},
        "bracket": {"place": where, "height_mm": 75.0, "along_n": 9000.0},
        "spring-bridge": {"place": where, "spring_n": 9000.0},
        "spring-pocket": {"place": where, "spring_n": 9000.0},
        "pad": {"place": where, "force_n": 9000.0},
        "axle-bracket": {"place": where, "y_mm": 400.0, "z_mm": 120.0, "along_n": 9000.0},
        "truss": {"place": where, "y_mm": 90.0, "along_n": 9000.0},
        "steering-mount": {"place": where, "height_mm": 75.0, "along_n": 6000.0, "out_n": 2000.0},
        "axle-pad": {"place": where, "y_mm": 330.0, "z_mm": 90.0, "up_n": -9000.0},
        "notch": {"place": where, "depth_mm": 40.0, "shape": {"kind": "arc", "radius_mm": 50.0}},
        "boxing": {**span, "thickness_mm": 5.0},
    }[kind]
    return OPERATION.validate_python({"kind": kind, "id": "it", "name": "it", **own, **fields})


ALL = (*KINDS, "boxing")


class EachOne(SimpleTestCase):
    """What every operation owes the layers above it."""

    def test_it_works_and_brings_steps_that_go_with_it(self):
        for kind in ALL:
            with self.subTest(kind):
                result = evaluate(f.alone(f.demo(), made(kind)))
                own = {s.id for s in result.steps if s.operation}
                self.assertTrue(own)
                self.assertEqual({s.operation for s in result.steps}, {None, "it"})
                self.assertTrue(any(r.operation == "it" for r in result.readings) or kind == "crossmember")

    def test_no_step_comes_before_what_it_needs(self):
        everything = [made(k, id=f"op{n}") for n, k in enumerate(("hole", "bracket", "crossmember", "boxing"))]
        steps = evaluate(f.with_operations(f.demo(), *everything)).steps
        seen = set()
        for step in steps:
            self.assertLessEqual(set(step.needs), seen)
            seen.add(step.id)

    def test_one_side_only_touches_that_side(self):
        for kind in ALL:
            if kind == "crossmember":
                continue
            with self.subTest(kind):
                survey = f.demo().survey
                op = made(kind, side="left")
                rows = {s: placed_on(survey, (op,), s, planned_state((op,))) for s in ("left", "right")}
                self.assertEqual((len(rows["left"]), len(rows["right"])), (1, 0))
                self.assertTrue(all(p.side == "left" for p in added_parts(survey, "left", rows["left"]).parts))

    def test_readings_of_the_plan_change_nothing(self):
        for kind in ALL:
            with self.subTest(kind):
                op = made(kind)
                plan = {r.key: r.planned for r in op.readings("it")}
                self.assertEqual(op.as_measured(plan), op)

    def test_collisions_are_named(self):
        for one, two in (("z-step", "notch"), ("stretch", "raise"), ("access-cut", "notch")):
            with self.subTest(f"{one} and {two}"), self.assertRaises(InvalidInputs) as caught:
                evaluate(f.with_operations(f.demo(), made(one, id="one", name="one"), made(two, id="two", name="two")))
            self.assertIn("'two' and 'one' overlap", str(caught.exception))

    def test_a_plate_that_ends_in_a_cut_is_named(self):
        plate = made("plate", id="plate", name="plate", end={"anchor_id": "rear-axle", "offset_mm": -890.0})
        plate = plate.model_copy(update={"start": plate.start.model_copy(update={"offset_mm": -1200.0})})
        with self.assertRaisesRegex(InvalidInputs, "'plate' ends inside the cut 'step'"):
            evaluate(f.with_operations(f.demo(), made("z-step", id="step", name="step"), plate))
