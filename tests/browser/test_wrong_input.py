"""Wrong input in the browser: an error at the field, nothing lost."""

import json

from tests import fixtures as f
from tests.browser.base import Bench


class AtTheField(Bench):
    def test_unreadable_text_stays_with_the_place_of_the_error(self):
        self.open("Target")
        field = self.type_in("Target drop at the rear axle", "2 1/2 furlongs")
        self.page.get_by_text("'furlongs' is no unit of length").wait_for()
        self.assertEqual(field.get_attribute("aria-invalid"), "true")
        self.assertIn("3 7/16", self.page.get_by_role("alert").filter(has_text="furlongs").inner_text())
        self.stage("Cut")
        self.stage("Target")
        self.assertEqual(self.page.get_by_label("Target drop at the rear axle").input_value(), "2 1/2 furlongs")
        self.page.get_by_label("Target drop at the rear axle").press("Escape")
        self.assertEqual(self.page.get_by_label("Target drop at the rear axle").input_value(), '2 3/8"')

    def test_values_that_cannot_be(self):
        self.open("Cut")
        rows = (
            ("Depth", "-3 in", "more than 0"),
            ("Depth", "0", "more than 0"),
            ("Depth", "149 mm", "as deep as the rail"),
            ("Radius", "4 mm", "at least"),
            ("Depth", "9000 mm", '196.85" or less'),
        )
        for label, text, word in rows:
            with self.subTest(f"{label} {text}"):
                self.type_in(label, text)
                if word != "at least":
                    self.page.get_by_role("alert").filter(has_text=word).first.wait_for()
                else:
                    self.page.get_by_role("alert").filter(has_text="thicker than the notch").first.wait_for()
                self.assertEqual(self.page.get_by_label(label, exact=True).input_value(), text)
                with self.evaluated():
                    self.page.keyboard.press("Control+z")

    def test_a_factor_of_a_load_case_that_cannot_be(self):
        self.open("Survey")
        self.page.get_by_role("tab", name="Masses and seats").click()
        row = self.page.get_by_role("region", name="Load cases of this option")
        with self.evaluated():
            row.get_by_role("button", name="Own factor").nth(11).click()
        label = "Kerb strike, front wheel, factor"
        self.page.get_by_label(label, exact=True).wait_for()
        for text, word in (("-3", "more than 0"), ("0", "more than 0"), ("11", "10 or less")):
            with self.subTest(text):
                self.type_in(label, text)
                self.page.get_by_role("alert").filter(has_text=word).first.wait_for()
                self.assertEqual(self.page.get_by_label(label, exact=True).input_value(), text)
                with self.evaluated():
                    self.page.keyboard.press("Control+z")
        self.type_in(label, "two and a bit")
        self.page.get_by_role("alert").filter(has_text="a number was expected here").first.wait_for()
        self.assertEqual(self.page.get_by_label(label, exact=True).input_value(), "two and a bit")
        self.page.get_by_label(label, exact=True).press("Escape")
        before = self.margin("kerb strike, front wheel").inner_text()
        with self.evaluated():
            self.type_in(label, "2")
        self.assertNotEqual(self.margin("kerb strike, front wheel").inner_text(), before)

    def test_a_refusal_names_its_place_from_every_stage(self):
        self.open("Survey")
        self.type_in("Tube diameter", "5 mm")
        told = self.page.get_by_label("Margins").get_by_role("alert").filter(has_text="rear, tube diameter: ")
        told.filter(has_text='give 0.787" or more').wait_for()
        self.stage("Target")
        told.wait_for()

    def test_figures_stay_while_the_design_is_refused(self):
        self.open("Cut")
        before = self.margin("Rail over the rear axle, bending, bottom fibre").inner_text()
        self.type_in("Depth", "149 mm")
        self.page.get_by_text("The figures below are those before this.").wait_for()
        self.assertEqual(self.margin("Rail over the rear axle, bending, bottom fibre").inner_text(), before)
        self.assertNotIn("NaN", self.page.inner_text("body"))

    def test_a_liner_that_does_not_fit_is_kept_in_this_browser(self):
        """The server refuses such a draft; the work must survive a reload all the same."""
        self.open("Cut")
        self.type_in("Radius", "4 mm")
        self.page.get_by_role("alert").filter(has_text="thicker than the notch").first.wait_for()
        self.page.wait_for_timeout(1500)
        self.page.reload()
        self.page.get_by_label("Radius", exact=True).wait_for()
        self.assertEqual(self.page.get_by_label("Radius", exact=True).input_value(), "4 mm")

    def test_a_file_of_a_refused_design_is_told_and_the_bench_stays(self):
        self.open("Cut")
        self.type_in("Depth", "149 mm")
        self.page.get_by_role("alert").filter(has_text="as deep as the rail").first.wait_for()
        self.page.get_by_role("button", name="More", exact=True).click()
        self.page.get_by_role("button", name="Dossier, PDF").click()
        self.page.get_by_role("status").filter(has_text="Dossier, PDF: the notch is as deep as the rail").wait_for()
        self.assertEqual(self.page.get_by_label("Depth", exact=True).input_value(), "149 mm")

    def test_a_notch_cannot_lower(self):
        self.open("Target")
        with self.evaluated():
            self.page.get_by_label("Mechanism").nth(1).select_option("notch")
        self.page.get_by_text("A notch lowers nothing: it buys travel. This entry counts as zero").wait_for()

    def test_readings(self):
        self.open("Prove")
        self.type_in("Depth of the cut, left, measured", "two and a half")
        self.page.get_by_text("a number was expected here").wait_for()
        self.type_in("Depth of the cut, left, measured", "-2 in")
        self.page.get_by_text("a measured size is more than nothing").wait_for()


class Csv(Bench):
    GOOD = "x mm,underside mm,height mm,width mm,wall mm\n-600,0,150,60,5\n1000,0,150,60,5\n3400,0,150,60,5\n"

    def give(self, text):
        file = {"name": "rail.csv", "mimeType": "text/csv", "buffer": text.encode()}
        self.page.get_by_label("Stations as CSV").set_input_files(file)

    def test_errors_name_their_lines_and_nothing_is_taken(self):
        self.open("Survey")
        self.give(self.GOOD.replace("1000", "about there"))
        self.page.get_by_text("line 3:").wait_for()
        self.page.get_by_text("The stations are as they were.").wait_for()
        self.page.get_by_text("left rail, 8 stations").wait_for()
        with self.evaluated():
            self.give(self.GOOD)
        self.page.get_by_text("left rail, 3 stations").wait_for()


class JobFiles(Bench):
    def give(self, data):
        file = {"name": "job.nodulant.json", "mimeType": "application/json", "buffer": data}
        self.page.get_by_label("Job file").set_input_files(file)

    def test_refused_in_words_then_taken(self):
        self.page.goto(self.live_server_url)
        self.page.get_by_text("Wherry low-floor").wait_for()
        self.give(f.DEMO.read_bytes()[:4000])
        self.page.get_by_text("Nothing was written.").wait_for()
        document = json.loads(f.DEMO.read_text())
        document["options"][0]["revisions"][0]["design"]["operations"][1]["depth_mm"] = -2
        self.give(json.dumps(document).encode())
        self.page.get_by_text("options 1 revisions 1 design operations 2 depth:").wait_for()
        document["options"][0]["revisions"][0]["design"]["operations"][1]["depth_mm"] = 44
        document["name"] = "Another van"
        self.give(json.dumps(document).encode())
        self.page.get_by_label("Sheet: side elevation above plan").wait_for()
        self.page.get_by_text("Another van").wait_for()
