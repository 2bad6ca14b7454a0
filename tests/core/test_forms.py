"""Every kind of operation is whole: form, fresh work, example, parts, steps; a new kind needs nothing else."""

from typing import Annotated, ClassVar, Literal, get_args

from django.test import SimpleTestCase

from nodulant.base.errors import InputError, UnknownReference
from nodulant.base.model import Size, Thickness
from nodulant.base.shown import Shown
from nodulant.evaluate import evaluate
from nodulant.frame.model import placed_on, planned_state
from nodulant.frame.ops.form import OWN, FieldKind, form_of, unlabelled
from nodulant.frame.ops.fresh import Setting
from nodulant.frame.ops.mounts.bolted import BoltGroup
from nodulant.frame.ops.mounts.pad import Pad
from nodulant.frame.ops.operation import Adds
from nodulant.frame.ops.ranged import Ranged
from nodulant.frame.ops.union import operation_kinds
from nodulant.frame.parts import added_parts
from nodulant.geometry.outline import rectangle
from nodulant.job.document import Design
from nodulant.job.fresh.work import fresh_operation, fresh_part
from nodulant.job.touched import touched_axle
from nodulant.parts.part import Part, part_id
from nodulant.parts.specs import StepSpec
from nodulant.patterns.collect import patterns_of
from nodulant.targets.drop import DropEntry, FrontTarget, Targets
from tests import fixtures as f
from tests.core.test_operations import KINDS

NEEDED = {"crossmember": {"target_id": "cab"}}
"""What a choice of another act asks for besides."""


def kind_of(operation):
    return operation.model_fields["kind"].default


def at_path(op, path):
    for key in path.split("."):
        op = getattr(op, key)
    return op


def changed(op, path, value):
    """The operation, built again, with the field at a path of another value."""
    data = op.model_dump(mode="json")
    *above, last = path.split(".")
    node = data
    for key in above:
        node = node[key]
    node[last] = value
    return type(op).model_validate({**data, **NEEDED.get(op.kind, {})})


class Complete(SimpleTestCase):
    """One completeness over the union: who adds a kind and forgets a part of it is told here."""

    def test_every_kind_has_an_example_for_the_fuzz(self):
        self.assertEqual({kind_of(k) for k in operation_kinds()}, set(KINDS) | {"boxing", "notch"} - set(KINDS))

    def test_every_field_has_words(self):
        for kind in operation_kinds():
            with self.subTest(kind.__name__):
                self.assertEqual(unlabelled(kind), [])

    def test_a_field_without_words_would_be_found(self):
        class Bare(Pad):
            loose_mm: Size = 3.0

        self.assertEqual(unlabelled(Bare), ["loose_mm"])

    def test_fresh_work_is_taken_as_it_stands_and_its_form_names_its_fields(self):
        """Adding work never begins with an error."""
        for kind in operation_kinds():
            with self.subTest(kind.__name__):
                op = fresh_operation(f.with_operations(f.demo()), kind_of(kind))
                inputs = f.with_operations(f.demo(), op)
                result = evaluate(inputs)
                self.assertTrue([s for s in result.steps if s.id.startswith(f"{op.id}/")])
                own = {p.id for p in result.parts if p.operation == op.id}
                plates = {p.id for p in result.parts if p.id in own and p.from_plate}
                drawn = {p.id for p in patterns_of(inputs.survey, inputs.design.operations)}
                self.assertEqual(plates, own & drawn)
                self.assertTrue(own or not op.roles() or kind_of(kind) == "access-cut")
                for field in form_of(kind).fields:
                    if field.when and field.when[0].endswith(".kind"):
                        continue  # of a shape that this one has not; tried below
                    at_path(op, field.at)

    def test_every_optional_part_can_be_put_in(self):
        for kind in operation_kinds():
            form = form_of(kind)
            for part in form.parts:
                with self.subTest(f"{form.kind}.{part.at}"):
                    op = fresh_operation(f.with_operations(f.demo()), form.kind)
                    if part.when:
                        op = changed(op, part.when[0], part.when[1])
                    inputs = f.with_operations(f.demo(), op)
                    asked = part.optional or part.many
                    piece = fresh_part(inputs, op.id, part.at, "") if asked else getattr(op, part.at)
                    value = piece.model_dump(mode="json")
                    filled = changed(op, part.at, [value] if part.many else value)
                    self.assertTrue(evaluate(f.with_operations(f.demo(), filled)).checks)
                    for field in part.fields:
                        at_path(getattr(filled, part.at)[0] if part.many else filled, field.at)

    def test_choices_are_those_that_the_model_takes(self):
        seen = 0
        for kind in operation_kinds():
            op = fresh_operation(f.with_operations(f.demo()), kind_of(kind))
            for field in form_of(kind).fields:
                for choice in field.choices if field.kind == "choice" else ():
                    seen += 1
                    base = changed(op, "rise_mm", 160.0) if choice.value == "set-on" else op
                    self.assertEqual(at_path(changed(base, field.at, choice.value), field.at), choice.value)
        self.assertGreater(seen, 60)

    def test_conditions_name_a_field_and_values_of_it(self):
        for kind in operation_kinds():
            form = form_of(kind)
            known = {x.at: {c.value for c in x.choices} for x in form.fields}
            for field in (*form.fields, *form.parts):
                if field.when:
                    at, *values = field.when
                    offered = known[at.removesuffix(".kind")]
                    self.assertLessEqual(set(values), offered, f"{form.kind}.{field.at}")

    def test_kinds_of_fields(self):
        """By hand: a wall is told as sheet, an angle in degrees, a steel is chosen."""
        rows = {x.at: x for x in form_of(next(k for k in operation_kinds() if kind_of(k) == "z-step")).fields}
        told = {at: rows[at].kind for at in ("rise_mm", "weld_leg_mm", "cut_angle_deg", "place", "method", "ground")}
        self.assertEqual(list(told.values()), ["length", "thickness", "angle", "place", "choice", "tick"])
        self.assertEqual(rows["overlap_mm"].when, ("method", "set-on"))
        self.assertTrue({x.kind for x in rows.values()} <= set(get_args(FieldKind)))

    def test_another_shape_is_about_as_wide(self):
        inputs = f.demo()
        notch = next(op for op in inputs.design.operations if op.kind == "notch")
        other = fresh_part(inputs, notch.id, "shape", "trapezoid")
        self.assertAlmostEqual(other.mouth_width_mm, 1.15 * 2 * notch.shape.radius_mm, delta=3.2)  # on the tape
        swapped = notch.model_copy(update={"shape": other})
        back = fresh_part(f.with_operations(inputs, swapped), notch.id, "shape", "arc")
        self.assertAlmostEqual(back.radius_mm, other.mouth_width_mm / 2, delta=0.8)


class Fresh(SimpleTestCase):
    """Where new work begins."""

    def test_a_second_one_has_its_own_id_and_name(self):
        first = fresh_operation(f.with_operations(f.demo()), "z-step")
        second = fresh_operation(f.with_operations(f.demo(), first), "z-step")
        self.assertEqual((first.id, second.id), ("z-step-1", "z-step-2"))
        self.assertEqual((first.name, second.name), ("Z-step", "Z-step 2"))

    def test_it_begins_at_the_axle_that_the_job_touches(self):
        bare = f.demo().model_copy(update={"design": Design()})
        drop = DropEntry(id="s", name="Springs", mechanism="springs", amount_mm=40.0)
        front = Design(targets=Targets(front=FrontTarget(drop_mm=40.0, entries=(drop,))))
        both = front.model_copy(update={"targets": front.targets.model_copy(update={"drop_mm": 50.0})})
        self.assertEqual([touched_axle(bare.survey, d) for d in (Design(), front, both)], ["rear", "front", "rear"])
        for design, anchor in ((Design(), "rear-axle"), (front, "front-axle")):
            op = fresh_operation(bare.model_copy(update={"design": design}), "notch")
            self.assertEqual(op.place.anchor_id, anchor)

    def test_plates_are_of_the_shop_s_stock(self):
        inputs = f.with_operations(f.demo(), fresh_operation(f.with_operations(f.demo()), "z-step"))
        thin = inputs.model_copy(update={"shop": inputs.shop.model_copy(update={"plate_stock_mm": (3.2, 6.4)})})
        self.assertEqual(fresh_part(thin, "z-step-1", "outer_plate", "").thickness_mm, 6.4)
        self.assertAlmostEqual(fresh_part(inputs, "z-step-1", "outer_plate", "").overlap_mm, 260.0, delta=3.2)

    def test_what_is_not_there_is_named(self):
        inputs = f.demo()
        with self.assertRaises(UnknownReference) as told:
            fresh_operation(inputs, "wings")
        self.assertIn("z-step", told.exception.acceptable)
        with self.assertRaises(UnknownReference):
            fresh_part(inputs, "nobody", "liner", "")
        for at, choice in (("depth_mm", ""), ("nothing", ""), ("liner", "gold")):
            with self.assertRaises(InputError):
                fresh_part(inputs, inputs.design.operations[0].id, at, choice)


class Strip(Ranged):
    """A kind that nobody knows: a flat strip on the web's outside."""

    adds: ClassVar[Adds] = Adds("Rubbing strip", "a flat strip that keeps a hose off the rail")
    kind: Literal["rubbing-strip"] = "rubbing-strip"
    thickness_mm: Annotated[Thickness, Shown("Thickness")] = 3.0
    tall_mm: Annotated[Size, Shown("High")] = 30.0
    bolts: Annotated[BoltGroup | None, Shown("Bolts")] = None

    @classmethod
    def fresh_values(cls, on):
        return on.between(400, 200)

    def roles(self):
        return ("strip",)

    def parts(self, on):
        outline = rectangle(on.span.start_mm, 0.0, on.span.end_mm, self.tall_mm)
        return [
            Part(
                id=part_id(self.id, "strip", on.side),
                operation=self.id,
                role="strip",
                side=on.side,
                name="Strip",
                face="outer",
                outline=outline,
                thickness_mm=self.thickness_mm,
                steel_id="mild",
            )
        ]

    def steps(self, datum):
        return [StepSpec(key="fit", phase="fit", title="Fit the strip", detail=f"From {datum}.", minutes=10)]


class ANewKind(SimpleTestCase):
    """A plain new operation is one class: all else finds it by what it says of itself."""

    def test_its_form_default_parts_and_step(self):
        form = form_of(Strip)
        self.assertEqual((form.kind, form.name), ("rubbing-strip", "Rubbing strip"))
        self.assertEqual([x.at for x in form.fields], ["name", "start", "end", "thickness_mm", "tall_mm"])
        self.assertEqual([(p.at, p.optional) for p in form.parts], [("bolts", True)])
        self.assertTrue(OWN.isdisjoint(x.at for x in form.fields))
        survey = f.demo().survey
        op = Strip.fresh(Setting(survey), ())
        self.assertEqual(op.fresh_piece("bolts", "", Setting(survey)), BoltGroup())
        placed = placed_on(survey, (op,), "left", planned_state((op,)))
        parts = added_parts(survey, "left", placed).parts
        self.assertEqual([p.id for p in parts], ["rubbing-strip-1/strip/left"])
        self.assertEqual(parts[0].outline.bounds()[2] - parts[0].outline.bounds()[0], 200.0)
        self.assertEqual(op.steps("the axle")[0].title, "Fit the strip")


class NamedApart(SimpleTestCase):
    """Two of a kind are told apart on steps, readings and patterns; one alone keeps its short title."""

    def test_two_plates_under_the_rail(self):
        bare = f.with_operations(f.demo())
        one = fresh_operation(bare, "pad")
        one = one.model_copy(update={"place": one.place.model_copy(update={"offset_mm": -900.0})})
        two = fresh_operation(f.with_operations(f.demo(), one), "pad")
        for ops, named in (((one,), False), ((one, two), True)):
            inputs = f.with_operations(f.demo(), *ops)
            result = evaluate(inputs)
            own = [s.spec.title for s in result.steps if s.operation == one.id]
            read = [r.spec.name for r in result.readings if r.operation == one.id]
            drawn = [
                p.title for p in patterns_of(inputs.survey, inputs.design.operations) if p.id.startswith(f"{one.id}/")
            ]
            for title in (*own, *read, *drawn):
                self.assertEqual(title.endswith(f": {one.name}"), named, title)
            self.assertTrue(own and read and drawn)
