"""Every operation designed from nothing, by what the screen says."""

import re

from playwright.sync_api import expect

from nodulant.frame.ops.union import operation_kinds
from nodulant_server.models import Job
from tests.browser.base import Bench


class FromNothing(Bench):
    """Steps, pockets and brackets are built by their forms and by hand on the sheet."""

    def cleared(self):
        """The Cut stage with nothing planned."""
        self.open("Cut")
        for _ in range(2):
            with self.evaluated():
                self.page.get_by_role("button", name="Take this out of the plan").click()

    def no_trouble(self):
        expect(self.page.get_by_role("alert").filter(has_text=re.compile("[a-z]"))).to_have_count(0)

    def add(self, name):
        with self.evaluated():
            self.add_work(name)

    def test_a_step_a_narrowed_front_and_a_raised_pocket(self):
        self.cleared()
        self.add("Z-step")
        with self.evaluated():
            self.type_in("Step", "75 mm")
        with self.evaluated():
            self.type_in("Cut, ahead of", "1010 mm")
        with self.evaluated():
            self.page.get_by_role("region", name="Outer side plate").get_by_role("button", name="Add it").click()
        self.margin("Inserted piece in bending").wait_for()
        along = self.page.get_by_role("region", name="Goes along")
        along.get_by_text("Tank").wait_for()
        expect(along.get_by_text("Engine and gearbox")).to_have_count(0)  # it stays where it is
        self.page.get_by_text("the rail is in two").first.wait_for()
        self.add("Narrowed stretch")
        with self.evaluated():
            self.type_in("Rear cut, behind", "560 mm")
        with self.evaluated():
            self.type_in("Each rail inward by", "30 mm")
        self.page.get_by_text("engine crossmember").first.wait_for()
        along.get_by_text("Engine and gearbox").wait_for()
        self.add("Raised pocket")
        with self.evaluated():
            self.page.get_by_label("from", exact=True).select_option("front-axle")
        with self.evaluated():
            self.type_in("Centre, ahead of", "0")
        with self.evaluated():
            self.type_in("Depth at the open side", "30 mm")
        self.page.get_by_text("Subframe and everything on it go up by").wait_for()
        self.no_trouble()
        self.kept()
        self.stage("Build")
        self.page.get_by_text("Tack the box on top first").first.wait_for()
        self.stage("Patterns")
        self.page.get_by_text("Pocket floor").first.wait_for()

    def test_an_open_frame_is_boxed_beside_its_step(self):
        """A front wheel's kerb strike twists the open rail beside a closed post: no post mends that, boxing does."""
        self.cleared()
        self.add("Z-step")
        found = self.page.get_by_role("region", name="Find the lightest metal")
        found.get_by_role("button", name="Find the lightest that holds").click()
        found.get_by_role("button", name="Use this set").first.wait_for(timeout=60_000)
        self.assertIn("boxed beside it", found.inner_text())
        with self.evaluated():
            found.get_by_role("button", name="Use this set").first.click()
        self.page.get_by_role("button", name="Boxing behind").first.wait_for()

    def test_the_step_is_dragged_up_and_along(self):
        self.cleared()
        self.add("Z-step")
        before = self.page.get_by_label("Step", exact=True).input_value()
        with self.evaluated():
            self.drag("z-step-1/rise_mm", 0, -20)
        self.assertNotEqual(self.page.get_by_label("Step", exact=True).input_value(), before)
        place = self.page.get_by_label("Cut, ahead of", exact=True).input_value()
        with self.evaluated():
            self.drag("z-step-1/place", 30, 0)
        self.assertNotEqual(self.page.get_by_label("Cut, ahead of", exact=True).input_value(), place)

    def test_a_narrowed_stretch_is_dragged_in_plan(self):
        self.cleared()
        self.add("Narrowed stretch")
        before = self.page.get_by_label("Each rail inward by", exact=True).input_value()
        self.page.wait_for_timeout(300)
        with self.evaluated():
            self.drag("narrow-1/inward@plan", 0, -12)
        self.assertNotEqual(self.page.get_by_label("Each rail inward by", exact=True).input_value(), before)

    def test_two_cuts_in_one_place_are_told_at_the_field(self):
        self.cleared()
        self.add("Z-step")
        self.add_work("Stretch or shorten")
        self.type_in("Cut, ahead of", "790 mm")
        self.page.get_by_role("alert").filter(has_text="overlap").first.wait_for()
        with self.evaluated():
            self.type_in("Cut, ahead of", "1200 mm")
        self.no_trouble()

    def test_every_kind_can_be_added_and_taken_out(self):
        self.cleared()
        for name in (k.adds.name for k in operation_kinds()):
            self.add_exactly(name)
            self.no_trouble()
            with self.evaluated():
                self.page.get_by_role("button", name=re.compile("^Take this")).click()

    def add_exactly(self, name):
        self.page.get_by_role("button", name="Add work to the rails").click()
        group = self.page.get_by_role("group", name="Work to add")
        with self.evaluated():
            group.get_by_text(name, exact=True).click()


class Brackmoor(Bench):
    """The wagon on boxed rails: brackets, bolts, sleeves and a repair."""

    def setUp(self):
        super().setUp()
        self.job = Job.objects.get(name="Brackmoor on stilts")

    def test_a_bracket_without_a_force_is_not_computed_and_with_one_it_is(self):
        self.open("Cut")
        with self.evaluated():
            self.add_work("Bracket")
        row = self.margin(re.compile("(Bracket|Tab|Link's bolt|Rail's wall)")).filter(has_text="not computed")
        row.wait_for()
        with self.evaluated():
            self.type_in("Force along, rearward", "12 kN")
        with self.evaluated():
            self.page.get_by_label("Fixed by").select_option("welded-and-bolted")
        self.margin("Sleeves or walls of a closed rail").filter(has_text="fails").wait_for()
        bolts = self.page.get_by_role("region", name="Bolts of the foot")
        with self.evaluated():
            bolts.get_by_role("button", name="Add it").click()
        with self.evaluated():
            bolts.get_by_label("Crush sleeves welded through").click()
        self.page.get_by_text("Torque, M12 10.9, dry").first.wait_for()

    def test_a_grade_of_the_other_thread_is_told(self):
        self.open("Cut")
        with self.evaluated():
            self.page.get_by_role("button", name="Front lower link bracket").first.click()
            self.page.get_by_label("Foot, thick").fill("7 mm")
            self.page.get_by_label("Foot, thick").press("Enter")
        self.page.get_by_label("Its grade").select_option("grade 8")
        self.page.get_by_role("alert").filter(has_text="is not made in 'grade 8'").first.wait_for()

    def test_bolted_brackets_beside_welded_ones(self):
        self.open()
        self.page.get_by_role("button", name="More", exact=True).click()
        self.page.get_by_role("button", name="Options side by side").click()
        self.page.get_by_role("table", name="Options compared").wait_for()
        heads = self.page.get_by_role("columnheader").all_inner_texts()
        self.assertEqual(heads[1:], ["Welded notch", "Bolted link brackets"])
        self.assertEqual(self.page.get_by_role("row").filter(has_text="Cost").count(), 0)
        for label, value in (("An hour", "60"), ("A kilogram of plate", "2.2"), ("A metre of weld", "4")):
            self.type_in(label, value)
        self.page.get_by_role("button", name="Keep the rates").click()
        self.page.get_by_role("row").filter(has_text="Cost").wait_for()
        self.page.get_by_label("Bolted link brackets").click()
        self.page.get_by_text("Choose two options or more.").wait_for()

    def test_rust_and_section_kind_in_the_survey(self):
        self.open("Survey")
        self.assertEqual(self.page.get_by_role("combobox", name="Section", exact=True).input_value(), "rect-tube")
        with self.evaluated():
            self.type_in("Station 6, lost to rust", "0")
        with self.evaluated():
            self.page.get_by_role("combobox", name="Section", exact=True).select_option("two-skin")
        self.page.get_by_label("Second skin").wait_for()

    def test_the_steel_s_analysis_decides_the_preheat(self):
        self.open("Survey")
        with self.evaluated():
            self.page.get_by_role("button", name="Give the analysis").click()
        with self.evaluated():
            self.type_in("C", "0.5")
        self.margin("Carbon equivalent").filter(has_text="fails").wait_for()

    def test_a_section_from_a_drawing(self):
        self.open("Survey")
        ring = "0,0 80,0 80,-140 0,-140", "4,-4 76,-4 76,-136 4,-136"
        text = "<svg>" + "".join(f"<polygon points='{points}'/>" for points in ring) + "</svg>"
        file = {"name": "rail.svg", "mimeType": "image/svg+xml", "buffer": text.encode()}
        with self.evaluated():
            self.page.get_by_label("Rail section as DXF or SVG").set_input_files(file)
        self.page.get_by_text("Taken for a rect tube").wait_for()
        self.assertEqual(self.page.get_by_label("Station 1, height", exact=True).input_value(), "140 mm")
        bad = {**file, "buffer": b"<svg></svg>"}
        self.page.get_by_label("Rail outline as DXF or SVG").set_input_files(bad)
        self.page.get_by_text("there is no closed shape in this drawing").wait_for()

    def test_own_factor_with_its_reason(self):
        self.open("Survey")
        self.page.get_by_role("tab", name="Masses and seats").click()
        with self.evaluated():
            self.page.get_by_role("button", name="Own factor").nth(2).click()
        with self.evaluated():
            self.type_in("One wheel in a hole, factor", "2")
        self.type_in("Because", "rock crawling")
        self.stage("Cut")
        self.page.get_by_label("Load case").select_option("twist")
        self.page.get_by_role("button", name="Bent shape").click()
        self.page.locator('[data-part="deflected"]').wait_for()


class ToOrder(Bench):
    def test_what_to_buy_follows_the_cut_and_is_a_file(self):
        self.open("Patterns")
        group = self.page.get_by_role("region", name="To order")
        group.get_by_text("lines").click()
        group.get_by_text("solid wire").wait_for()
        before = group.inner_text()
        self.assertIn("strip", before)
        with self.page.expect_download() as got:
            group.get_by_role("button", name="With cut lists, XLSX").click()
        self.assertTrue(got.value.suggested_filename.endswith(".xlsx"))
        self.stage("Cut")
        with self.evaluated():
            self.type_in("Depth", '2 1/2"')
        self.stage("Patterns")
        group.get_by_text("lines").click()
        group.get_by_text("solid wire").wait_for()
        self.page.wait_for_timeout(500)
        self.assertNotEqual(group.inner_text(), before)


class Sheets(Bench):
    def group(self):
        self.open("Patterns")
        return self.page.get_by_role("region", name="Sheets")

    def test_plates_are_laid_out_on_an_offcut_and_on_sheets(self):
        group = self.group()
        group.get_by_role("button", name="Add an offcut").click()
        group.get_by_label("Offcut", exact=True).fill("door job")
        group.get_by_label("Its thickness").fill("6 mm")
        group.get_by_label("Length x width, or corners").fill("0, 0; 10, 0; 10, 5; 4, 5; 4, 10; 0, 10")
        group.get_by_role("button", name="Put it in the rack").click()
        group.get_by_role("button", name="Gone").wait_for()
        group.get_by_role("button", name="Lay the plates out").click()
        files = group.get_by_role("button", name="Sheets as DXF, zipped")
        files.wait_for(timeout=60_000)
        self.assertIn("6 of 6 plates", group.inner_text())
        self.page.get_by_role("img", name="plates as they lie").wait_for()
        with self.page.expect_download() as got:
            files.click()
        self.assertTrue(got.value.suggested_filename.endswith(".zip"))
        group.get_by_role("button", name="Cut: keep what is left").click()
        group.get_by_text("The rack holds what is left").wait_for()
        group.get_by_text("left of sheet 1").first.wait_for()

    def test_wrong_words_are_named_and_stay(self):
        group = self.group()
        sheets = group.get_by_label("Sheets, length x width at price")
        for typed, words in (("96 x 48 at abc", "price 'abc'"), ("96", "its length x its width"), ("96 x q", "'q'")):
            sheets.fill(typed)
            group.get_by_role("button", name="Keep these sheets").click()
            group.get_by_role("alert").filter(has_text=words).first.wait_for()
            self.assertEqual(sheets.input_value(), typed)
        sheets.fill("96 x 48 at 120")
        group.get_by_role("button", name="Keep these sheets").click()
        group.get_by_role("button", name="Keep these sheets").wait_for(state="detached")
        self.assertIn("at 120", sheets.input_value())


class OnPaper(Bench):
    def test_the_pages_are_told_before_they_are_printed(self):
        self.open("Patterns")
        told = self.page.get_by_text(re.compile(r"^\d+ pages? to print$"))
        told.wait_for()
        before = int(told.inner_text().split()[0])
        self.page.get_by_label("Mirrored pairs once, to turn over").check()
        self.page.wait_for_function(
            "n => [...document.querySelectorAll('p')].some(p => / pages? to print$/.test(p.innerText)"
            " && parseInt(p.innerText) < n)",
            arg=before,
        )
        self.page.get_by_label("Paper").select_option("a3")
        with self.page.expect_download() as got:
            self.page.get_by_role("button", name="PDF 1:1, all").click()
        self.assertTrue(got.value.suggested_filename.endswith("a3.pdf"))
