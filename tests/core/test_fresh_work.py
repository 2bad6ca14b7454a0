"""New work begins on rails that are there: on the side of its axle where the vehicle's middle is, at either axle."""

from django.test import SimpleTestCase

from nodulant.begin.start import Start, begun
from nodulant.evaluate import evaluate
from nodulant.frame.ops.union import operation_kinds
from nodulant.job.document import Inputs, Shop
from nodulant.job.fresh.work import fresh_operation

KINDS = sorted(str(kind.model_fields["kind"].default) for kind in operation_kinds())


def inputs_for(axle, *, short=False, style="in16", rail="rect-tube"):
    shop = Shop(name="a shop", style=style)
    start = Start(vehicle="a van", axle=axle, kind=rail, rail_height_mm=127, rail_width_mm=76.2, wall_mm=4.7625)
    survey, design = begun(start, shop)
    if short:
        survey = survey.model_copy(update={"rails": _cut_short(survey)})
    return Inputs(survey=survey, design=design, shop=shop)


def _cut_short(survey):
    """Rails that end 150 mm past each axle's line."""

    def rail(r):
        first, *between, last = r.stations
        ends = (
            first.model_copy(update={"x_mm": -150.0}),
            last.model_copy(update={"x_mm": survey.wheelbase_mm + 150.0}),
        )
        return r.model_copy(update={"stations": (ends[0], *between, ends[1])})

    return survey.rails.model_copy(update={"left": rail(survey.rails.left), "right": rail(survey.rails.right)})


class FreshWork(SimpleTestCase):
    def test_every_kind_stands_on_the_rails_of_either_axle(self):
        for axle in ("front", "rear"):
            for short in (False, True):
                for kind in KINDS:
                    with self.subTest(axle=axle, short=short, kind=kind):
                        open_rail = kind == "boxing"
                        inputs = inputs_for(axle, short=short, rail="channel" if open_rail else "rect-tube")
                        work = fresh_operation(inputs, kind)
                        if kind == "crossmember":  # one more where none was surveyed
                            work = work.model_copy(update={"action": "add"})
                        design = inputs.design.model_copy(update={"operations": (work,)})
                        self.assertTrue(evaluate(inputs.model_copy(update={"design": design})).checks)

    def test_it_begins_towards_the_middle_of_the_vehicle(self):
        for axle, way in (("front", 1), ("rear", -1)):
            inputs = inputs_for(axle)
            step = fresh_operation(inputs, "z-step")
            self.assertEqual(step.place.anchor_id, f"{axle}-axle")
            self.assertGreater(way * step.place.offset_mm, 500)
            self.assertEqual(step.rises, "ahead" if axle == "front" else "behind")
            jog = fresh_operation(inputs, "narrow")
            self.assertEqual((jog.start, jog.end.anchor_id), (None, "front-axle"))
            cut = fresh_operation(inputs, "access-cut")
            self.assertLess(cut.start.offset_mm, cut.end.offset_mm)

    def test_two_cuts_at_the_front_can_both_be(self):
        inputs = inputs_for("front")
        for kind in ("z-step", "narrow"):
            work = fresh_operation(inputs, kind)
            design = inputs.design.model_copy(update={"operations": (*inputs.design.operations, work)})
            inputs = inputs.model_copy(update={"design": design})
            self.assertTrue(evaluate(inputs).checks)
