"""The survey's checklist: everything to measure, by what it is good for; an assumed value is not measured."""

import subprocess
import tempfile
from pathlib import Path

from django.test import SimpleTestCase

from nodulant.begin.start import Start, begun
from nodulant.evaluate import evaluate
from nodulant.formats.checklist_pdf import checklist_pdf
from nodulant.glossary.terms import TERMS
from nodulant.job.document import Inputs, Shop
from nodulant.job.fresh.suspension import fresh_suspension
from nodulant.survey.before_teardown import readings_before_teardown
from nodulant.survey.checklist import checklist, reading_name
from tests import fixtures as f


def left(survey, touched=frozenset({"front", "rear"})):
    return {group.id: [i.pointer for i in group.items if not i.taken] for group in checklist(survey, touched)}


class Checklist(SimpleTestCase):
    def test_the_demo_lacks_only_what_it_says(self):
        missing = left(f.demo("arc").survey)
        self.assertEqual(missing["cut"], [])
        self.assertEqual(missing["heights"], ["/survey/rear/wheel", "/survey/rear/arch"])
        self.assertEqual(missing["strength"], ["/survey/stops"])

    def test_every_reading_that_teardown_destroys_is_on_it(self):
        survey = f.demo("arc").survey
        listed = {i.pointer for group in checklist(survey) for i in group.items}
        for reading in readings_before_teardown(survey):
            with self.subTest(reading.pointer):
                self.assertTrue(any(at.startswith(reading.pointer) for at in listed))

    def test_a_new_job_counts_what_was_measured_and_not_what_is_assumed(self):
        start = Start(
            vehicle="wagon",
            axle="rear",
            by="springs",
            drop_mm=100,
            rail_height_mm=140,
            rail_width_mm=60,
            wall_mm=4.8,
            tube_diameter_mm=82,
            tube_gap_mm=100,
        )
        missing = left(begun(start, Shop())[0])
        self.assertIn("/survey/wheelbase_mm", missing["cut"])
        self.assertNotIn("/survey/rear/tube_diameter_mm", missing["cut"])
        self.assertEqual(missing["marks"], ["/survey/features"])

    def test_a_front_job_asks_for_no_rear_tube(self):
        asked = [i.pointer for group in checklist(f.demo("arc").survey, frozenset({"front"})) for i in group.items]
        self.assertFalse([at for at in asked if at.startswith("/survey/rear")])

    def test_every_item_has_its_word(self):
        known = {t.id for t in TERMS}
        self.assertEqual([i.term for g in checklist(f.demo("arc").survey) for i in g.items if i.term not in known], [])

    def test_on_paper_every_item_stands_with_from_where_to_where(self):
        inputs = f.demo("arc")
        text = self.on_paper(inputs)
        for group in checklist(inputs.survey):
            self.assertIn(group.title, text)
            for item in group.items:
                if not item.pointer.startswith("/survey/rails"):
                    self.assertIn(item.name.split(",")[0], text)
        self.assertIn("Stations from: the front axle line", text)
        self.assertIn('24 7/16" A', text, "what lies ahead of the front axle line is told so, with no minus")
        self.assertIn("Write in inches", text)

    def on_paper(self, inputs: Inputs) -> str:
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "c.pdf"
            path.write_bytes(checklist_pdf("Wherry", inputs))
            done = subprocess.run(["pdftotext", str(path), "-"], check=True, capture_output=True, text=True)
        return " ".join(done.stdout.split())


class Deep(SimpleTestCase):
    def test_an_axle_that_comes_far_up_asks_for_its_arch_before_teardown(self):
        inputs = f.demo("arc")
        for drop, asked in ((149.0, False), (150.0, True), (406.4, True)):
            targets = inputs.design.targets.model_copy(update={"drop_mm": drop, "entries": ()})
            low = inputs.model_copy(update={"design": inputs.design.model_copy(update={"targets": targets})})
            result = evaluate(low)
            names = {r.name: r.taken for r in result.before_teardown}
            self.assertEqual("Rear wheel arch" in names, asked, drop)
            self.assertNotIn("Front wheel arch", names)
            marked = {i.pointer for g in result.checklist for i in g.items if i.before_teardown}
            self.assertEqual("/survey/rear/arch" in marked, asked)


class Named(SimpleTestCase):
    def test_a_motion_that_waits_says_for_which_reading(self):
        survey, design = begun(Start(vehicle="x", axle="front", wheelbase_mm=2900.0), Shop())
        bare = Inputs(survey=survey, design=design, shop=Shop())
        own = fresh_suspension(bare, "front", "double-wishbone", False)
        hung = bare.model_copy(update={"design": design.model_copy(update={"suspensions": (own,)})})
        (found,) = evaluate(hung).travel
        self.assertEqual(
            found.trouble,
            "a reading of the survey is missing: front hub height, left, front track, front tyre size",
        )
        for pointer, words in (
            ("/survey/rear/hub_z_left_mm", "rear hub height, left"),
            ("/survey/front/tyre", "front tyre size"),
            ("/survey/wheelbase_mm", "wheelbase"),
        ):
            self.assertEqual(reading_name(pointer), words)
