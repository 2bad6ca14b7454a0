"""The build plan on paper: every step once, hold points with room to sign, each caution once, in the job's unit."""

from django.test import SimpleTestCase

from nodulant.asbuilt.log import SignOffEntry
from nodulant.evaluate import evaluate
from nodulant.formats.steps_pdf import steps_pdf
from nodulant.gauges.collect import gauges_of
from nodulant.job.document import AsBuilt
from nodulant.units.inline import told
from tests import fixtures as f
from tests.pdf_text import text_of


class Printed(SimpleTestCase):
    def sheet(self, sheet, option="step", style="in16", signed=()):
        inputs = f.job().inputs(option)
        when = {"at": "2026-12-01T08:00:00+00:00", "by": "bram", "evaluated": "hash"}
        entries = tuple(SignOffEntry(number=n, step=step, **when) for n, step in enumerate(signed, 1))
        inputs = inputs.model_copy(update={"as_built": AsBuilt(entries=entries)})
        self.steps = evaluate(inputs).steps
        names = {op.id: op.name for op in inputs.design.operations}
        return text_of(steps_pdf("Wherry", "revision 3", self.steps, gauges_of(inputs), names, style, sheet))

    def test_the_whole_plan_has_every_step_in_order(self):
        text, at = self.sheet("plan"), 0
        for step in self.steps:
            title = told(step.spec.title, "in16").split(":")[0]
            found = text.find(title.split(",")[0], at)
            self.assertGreaterEqual(found, at, title)
            at = found
        self.assertIn("0 of 134 steps done", text)
        self.assertIn("diagonal brace ahead of the cut", text)
        self.assertIn("licensed engineer", text)
        self.assertNotIn("[[", text)

    def test_in_the_unit_of_the_job(self):
        self.assertIn("12.7 mm", self.sheet("plan", "arc", "mm"))
        self.assertNotIn(" mm", self.sheet("plan", "arc", "in16"))

    def test_what_is_open_is_only_that(self):
        text = self.sheet("now", signed=("teardown",))
        self.assertIn("Loads and fluids off", text)
        self.assertNotIn("Frame on stands", text)
        self.assertNotIn("Survey complete", text)

    def test_hold_points_have_a_row_each_and_who_signed(self):
        text = self.sheet("holds", "arc", signed=("teardown",))
        asked = [s for s in self.steps if s.spec.hold]
        self.assertGreater(len(asked), 5)
        for step in asked:
            self.assertIn(step.spec.hold.ask.split(",")[0][:20], text)
        self.assertIn("bram 2026-12-01", text)

    def test_each_caution_stands_once_with_its_steps(self):
        text = self.sheet("cautions")
        for caution in {c for s in self.steps for c in s.spec.cautions}:
            self.assertEqual(text.count(" ".join(told(caution, "in16").split())), 1, caution)
