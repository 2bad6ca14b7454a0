"""One unit system: no text of the core carries a quantity that an edge cannot tell in the job's own unit."""

import json
import re

from django.test import SimpleTestCase

from nodulant.evaluate import InvalidInputs, evaluate
from nodulant.evaluate.clearances.sweep import whole_sweep
from nodulant.formats.jobfile import load_job
from nodulant.parts.limits import LIMITS
from nodulant.patterns.collect import patterns_of
from nodulant.units.inline import (
    MARK,
    as_amount,
    as_length,
    as_place,
    as_thickness,
    told,
    told_json,
)
from tests import fixtures as f
from tests.core.test_jobs_from_nothing import at, begun, new

UNTYPED = re.compile(r"\d ?(mm|N m|kN|MPa|kg|bar)\b(?!²|³|⁴)")
OLDER = sorted((f.ROOT / "tests" / "older_jobs").glob("*.nodulant.json"))
TYPED_BY_PEOPLE = {"text"}
"""What a person typed as a reading stands as it was typed."""


def texts(node, path=()):
    if isinstance(node, dict):
        for key, value in node.items():
            if key not in TYPED_BY_PEOPLE:
                yield from texts(value, (*path, key))
    elif isinstance(node, list):
        for value in node:
            yield from texts(value, path)
    elif isinstance(node, str):
        yield path, node


def everything(inputs):
    """Every model that screen and paper are made of."""
    yield evaluate(inputs)
    yield from patterns_of(inputs.survey, inputs.design.operations)


class Texts(SimpleTestCase):
    def none_untyped(self, model, names, about):
        for path, text in texts(json.loads(model.model_dump_json())):
            bare = MARK.sub("", text)
            for name in names:
                bare = bare.replace(name, "")
            self.assertIsNone(UNTYPED.search(bare), f"{about} {'/'.join(path)}: {text}")

    def test_the_demo_jobs_say_no_quantity_without_its_type(self):
        for job_name in ("wherry", "brackmoor", "ostrand"):
            job = f.job(job_name)
            for option in job.options:
                inputs = job.inputs(option.id)
                names = sorted({op.name for op in inputs.design.operations}, key=len, reverse=True)
                for model in (*everything(inputs), whole_sweep(inputs)):
                    self.none_untyped(model, names, f"{job_name} {option.id}")

    def test_nor_do_other_jobs(self):
        self.assertGreater(len(OLDER), 10)
        for path in OLDER:
            job = load_job(path.read_bytes())
            inputs = job.inputs(job.options[0].id)
            names = [op.name for op in inputs.design.operations]
            for model in everything(inputs):
                self.none_untyped(model, names, path.name)

    def test_nor_do_limits_and_refusals(self):
        for limit in LIMITS:
            self.assertIsNone(UNTYPED.search(MARK.sub("", limit.basis)), limit.id)
        step = new("z-step", place=at("rear-axle", -500), rise_mm=60.0, method="set-on")
        overlapping = new("narrow", end=at("front-axle", 800), inward_mm=50.0)
        cut = new("z-step", place=at("front-axle", 700), rise_mm=50.0, rises="ahead")
        for operations in ((step,), (cut, overlapping), (new("notch", depth_mm=139.0),)):
            with self.assertRaises(InvalidInputs) as caught:
                evaluate(begun(*operations))
            for error in caught.exception.problems:
                for text in (error.message, error.found, error.acceptable):
                    self.assertIsNone(UNTYPED.search(MARK.sub("", text)), text)

    def test_told_in_inches_no_mark_is_left_and_millimetres_only_for_metric_plate(self):
        raw = evaluate(f.demo()).model_dump_json()
        self.assertTrue(MARK.search(raw))
        for style in ("in16", "in", "mm"):
            self.assertFalse(MARK.search(told_json(raw, style)))
            json.loads(told_json(raw, style))


class Told(SimpleTestCase):
    def test_each_kind_reads_as_its_trade_reads_it(self):
        """By hand: 25.4 mm to the inch, 4.448 N to the pound, 1.356 N m to the foot pound, 6.895 MPa to the ksi."""
        for text, inch, metric in (
            (as_length(279.4), '11"', "279.4 mm"),
            (as_thickness(5.0), '0.197"', "5 mm"),
            (as_thickness(4.7625), '3/16"', "4.76 mm"),
            (as_place(279.4), '11" behind', "279.4 mm behind"),
            (as_place(-50.8), '2" ahead of', "50.8 mm ahead of"),
            (as_place(0.0), "at", "at"),
            (as_amount("force", 4448.2216), "1 000 lbf", "4.45 kN"),
            (as_amount("torque", 135.58), "100 lbf ft", "136 N m"),
            (as_amount("stress", 248.0), "36 ksi", "248 MPa"),
            (as_amount("mass", 45.359), "100 lb", "45.4 kg"),
        ):
            self.assertEqual((told(text, "in16"), told(text, "mm")), (inch, metric))

    def test_what_a_person_typed_is_left_alone(self):
        self.assertEqual(told("Rear step, 75 mm", "in16"), "Rear step, 75 mm")

    def test_in_json_an_inch_mark_is_escaped(self):
        text = json.dumps({"words": f"{as_length(25.4)} deep"})
        self.assertEqual(json.loads(told_json(text, "in16")), {"words": '1" deep'})
