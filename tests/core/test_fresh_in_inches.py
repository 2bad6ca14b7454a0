"""New work in an inch shop begins on marks of its tape, and is as buildable as it is in mm."""

from django.test import SimpleTestCase

from nodulant.evaluate import InvalidInputs, evaluate
from nodulant.evaluate.finding import QUICK
from nodulant.frame.ops.union import operation_kinds
from nodulant.job.document import Design, Shop
from nodulant.job.fresh.work import PLACES, fresh_operation, on_the_tape
from nodulant.units.show import MM_PER_INCH
from tests import fixtures as f

KINDS = [str(k.model_fields["kind"].default) for k in operation_kinds()]
BOUGHT = {"od_mm", "shim_mm"}
"""Pipe and shims come in sizes of their own."""


def shop_of(style):
    return f.demo().model_copy(update={"shop": Shop.reading(style), "design": Design()})


def sizes(value, name=""):
    if isinstance(value, dict):
        for key, inner in value.items():
            yield from sizes(inner, key)
    elif isinstance(value, list):
        for inner in value:
            yield from sizes(inner, name)
    elif isinstance(value, float) and name.endswith("_mm"):
        yield name, value


class Fresh(SimpleTestCase):
    def test_every_size_of_new_work_is_a_fraction(self):
        for kind in KINDS:
            if kind == "subframe":  # its points and beams are those of the survey
                continue
            op = fresh_operation(shop_of("in16"), kind)
            for name, value in sizes(op.model_dump(mode="json")):
                if name not in PLACES | BOUGHT:
                    with self.subTest(f"{kind} {name}"):
                        parts = value / MM_PER_INCH * 32
                        self.assertAlmostEqual(parts, round(parts), delta=1e-3)

    def test_a_metric_shop_keeps_its_round_numbers(self):
        notch = fresh_operation(shop_of("mm"), "notch")
        self.assertEqual(notch.depth_mm, 40.0)
        self.assertIs(on_the_tape(notch, shop_of("mm").shop), notch)

    def test_what_can_be_built_in_mm_can_be_built_in_inches(self):
        def troubles(style, kind):
            inputs = shop_of(style)
            op = fresh_operation(inputs, kind)
            try:
                evaluate(inputs.model_copy(update={"design": Design(operations=(op,))}), QUICK)
            except InvalidInputs as error:
                return {p.field for p in error.problems}
            return set()

        for kind in KINDS:
            with self.subTest(kind):
                self.assertEqual(troubles("in16", kind), troubles("mm", kind))

    def test_a_root_gap_is_never_tighter_than_the_metric_one(self):
        gaps = [fresh_operation(shop_of(style), "z-step").root_gap_mm for style in ("mm", "in16")]
        self.assertGreaterEqual(gaps[1], gaps[0])
