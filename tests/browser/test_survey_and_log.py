"""The survey's tables, the drop stack, options, and the log that is never rewritten."""

import json

from playwright.sync_api import expect

from nodulant_server.models import LogEntry
from tests.browser.base import Bench


class Tables(Bench):
    def test_masses_move_the_use(self):
        self.open("Survey")
        self.page.get_by_role("tab", name="Masses and seats").click()
        before = self.margin("both wheels in a bump, 3 g").inner_text()
        with self.evaluated():
            self.type_in("Ovens, racks and bread, mass", "1 t")
        self.assertNotEqual(self.margin("both wheels in a bump, 3 g").inner_text(), before)
        self.page.get_by_text("Sprung load on the rear axle").wait_for()
        with self.evaluated():
            self.page.get_by_role("button", name="Add a mass").click()
        self.page.get_by_label("new mass, mass").wait_for()

    def test_planned_seats_and_shares(self):
        self.open("Survey")
        self.page.get_by_role("tab", name="Masses and seats").click()
        self.type_in("Coilover upper crossmember, share", "0.6")
        self.page.get_by_text("the shares of the rear seats do not add up to 1").first.wait_for()
        with self.evaluated():
            self.page.keyboard.press("Control+z")
        expect(self.page.get_by_text("the shares of the rear seats do not add up to 1")).to_have_count(0)

    def test_features_carry_what_hangs_on_them(self):
        self.open("Survey")
        self.page.get_by_role("tab", name="Features").click()
        with self.evaluated():
            self.page.get_by_role("button", name="Add a feature").click()
        self.page.get_by_label("new feature, station").wait_for()
        before = self.page.locator("[data-handle]").count()
        self.assertEqual(before, 0)
        with self.evaluated():
            self.type_in("rear axle line, station", "2620 mm")
        self.stage("Cut")
        self.page.get_by_text('section 20 1/2" on the tape').wait_for()

    def test_a_station_between_and_copy_to_the_other_rail(self):
        self.open("Survey")
        with self.evaluated():
            self.page.get_by_role("button", name="Add a station").click()
        self.page.get_by_text("left rail, 9 stations").wait_for()
        with self.evaluated():
            self.page.get_by_role("button", name="Copy to the right rail").click()
        self.page.get_by_label("Rail", exact=True).select_option("right")
        self.page.get_by_text("right rail, 9 stations").wait_for()

    def test_stations_out_of_order_point_at_their_field(self):
        self.open("Survey")
        field = self.type_in("Station 3, behind front axle", "40 ahead")
        self.page.get_by_role("alert").filter(has_text="does not lie behind station 2").first.wait_for()
        self.assertEqual(field.input_value(), '40" ahead')

    def test_an_unknown_tyre(self):
        self.open("Survey")
        self.page.get_by_label("Tyre").first.fill("big ones")
        self.page.get_by_label("Tyre").first.press("Enter")
        self.page.get_by_role("alert").filter(has_text="'big ones' is no tyre size").first.wait_for()
        self.assertEqual(self.page.get_by_label("Tyre").first.input_value(), "big ones")

    def test_a_survey_is_a_revision_of_its_own(self):
        self.open("Survey")
        with self.evaluated():
            self.type_in("Wheelbase, hub to hub", "2612 mm")
        self.stage("Target")
        self.page.get_by_role("status").filter(has_text="revision").wait_for()
        self.assertEqual(self.job.surveys.count(), 2)


class Stack(Bench):
    def test_entries_are_added_named_and_counted_once(self):
        self.open("Target")
        with self.evaluated():
            self.page.get_by_role("button", name="Add a contribution").click()
        with self.evaluated():
            self.page.get_by_label("Mechanism").nth(2).select_option("air")
        row = self.margin("Mechanisms counted twice")
        self.assertIn("fails", row.inner_text())
        self.page.get_by_role("button", name="More", exact=True).last.click()
        with self.evaluated():
            self.page.get_by_role("button", name="Take it out").click()
        self.assertIn("holds", self.margin("Mechanisms counted twice").inner_text())

    def test_two_empty_amounts(self):
        self.open("Target")
        field = self.page.get_by_label("Amount").nth(1)
        field.fill("")
        field.press("Enter")
        self.page.get_by_role("alert").filter(has_text="only one entry of the stack").first.wait_for()

    def test_an_arc_path_moves_the_notch(self):
        self.open("Target")
        with self.evaluated():
            self.page.get_by_label("The axle moves").select_option("arc")
        with self.evaluated():
            self.type_in("Arc radius", "16")
        self.page.get_by_role("region", name="Notch needed").get_by_text("left:").wait_for()
        self.type_in("Pivot above axle", "15")
        self.page.get_by_role("alert").filter(has_text="pivot lies too far").first.wait_for()


class Log(Bench):
    def test_a_wrong_reading_is_taken_back_not_erased(self):
        self.open("Prove")
        with self.evaluated():
            self.type_in("Depth of the cut, left, measured", "3")
        self.page.get_by_text('read Depth of the cut, left: 3"').wait_for()
        self.page.get_by_role("button", name="Take back").click()
        self.page.get_by_label("Because", exact=True).fill("read the wrong line")
        with self.evaluated():
            self.page.get_by_role("button", name="Take entry 1 back").click()
        self.page.get_by_text("took back entry 1: read the wrong line").wait_for()
        self.assertEqual(LogEntry.objects.count(), 2)
        expect(self.page.get_by_label("Depth of the cut, left, measured")).to_have_value("")

    def test_rework_is_decided_with_a_reason(self):
        self.open("Prove")
        with self.evaluated():
            self.type_in("Width at the underside, left, measured", "5 1/4")
        self.page.get_by_label("Reason", exact=True).fill("weld it up and cut again")
        with self.evaluated():
            self.page.get_by_role("button", name="Rework").click()
        self.page.get_by_text("to be reworked").wait_for()

    def test_a_hold_point_with_its_reading(self):
        self.open("Build")
        for _ in range(6):
            with self.evaluated():
                self.page.get_by_role("button", name="Sign the hold point").or_(
                    self.page.get_by_role("button", name="Done, sign")
                ).click()
        sign = self.page.get_by_role("button", name="Sign the hold point")
        expect(sign).to_be_disabled()
        self.page.get_by_label("Reading, planned", exact=False).fill("1/16")
        self.page.get_by_label("Reading, planned", exact=False).press("Enter")
        with self.evaluated():
            sign.click()
        self.page.get_by_text("7 of 34 steps done").wait_for()
        self.stage("Prove")
        expect(self.page.get_by_label("Centre of the cut, left, measured")).to_have_value('1/16"')

    def test_a_step_passed_unsigned_keeps_its_reason(self):
        self.open("Build")
        self.page.get_by_label("Pass it unsigned, because").fill("survey was on paper")
        with self.evaluated():
            self.page.get_by_role("button", name="Pass and log the reason").click()
        self.page.get_by_role("button", name="Survey complete: release teardown").click()
        self.page.get_by_text("survey was on paper").first.wait_for()


class Options(Bench):
    def test_a_new_option_starts_from_this_one(self):
        self.open("Cut")
        with self.evaluated():
            self.type_in("Depth", "2")
        self.page.get_by_role("button", name="More", exact=True).click()
        self.page.get_by_role("button", name="New option from this").click()
        expect(self.page.get_by_label("Option").locator("option:checked")).to_contain_text("again")
        expect(self.page.get_by_label("Depth", exact=True)).to_have_value("2")
        self.page.get_by_label("Option").select_option(label="Straight-sided notch")
        self.page.get_by_label("Width at mouth").wait_for()

    def test_the_job_file_holds_what_is_on_the_bench(self):
        self.open("Cut")
        with self.evaluated():
            self.type_in("Depth", "2 1/8")
        self.page.get_by_role("button", name="More", exact=True).click()
        with self.page.expect_download() as given:
            self.page.get_by_role("button", name="Job file").click()
        document = json.loads(given.value.path().read_text())
        newest = document["options"][0]["revisions"][-1]["design"]
        self.assertAlmostEqual(newest["operations"][1]["depth_mm"], 53.975)
        self.assertEqual(newest["typed"]["axle-notch.depth_mm"]["text"], "2 1/8")


class Crossmembers(Bench):
    def test_without_a_tie_the_twist_is_not_computed_and_the_way_there_is_shown(self):
        self.open("Survey")
        self.page.get_by_role("tab", name="Crossmembers").click()
        table = self.page.get_by_role("group", name="Crossmembers as surveyed")
        self.page.get_by_text("Torsional stiffness").first.wait_for()
        for left in (5, 4, 3, 2, 1, 0):
            with self.evaluated():
                table.get_by_role("button", name="×").first.click()
            expect(table.get_by_role("button", name="×")).to_have_count(left)
        self.page.get_by_role("tab", name="Features").click()
        rows = self.page.get_by_label("Margins").get_by_role("button").filter(has_text="not computed and")
        rows.filter(has_text="Rail").first.click()
        self.page.get_by_label("Margins").get_by_role("button", name="crossmembers").first.click()
        with self.evaluated():
            self.page.get_by_role("button", name="Add a crossmember").first.click()
        self.page.get_by_label("Margins").get_by_text("one wheel in a hole").first.wait_for()

    def test_twist_on_the_strip(self):
        self.open("Cut")
        with self.evaluated():
            self.page.get_by_label("Load case").select_option("twist")
        self.page.get_by_label("Strength strip").get_by_text("worked by torque").wait_for()
        self.page.get_by_label("Stages").get_by_text("Torsional stiffness").wait_for()


class ReadWith(Bench):
    def test_how_finely_an_instrument_is_read_is_logged_with_what_was_read(self):
        self.open("Prove")
        self.page.get_by_label("Lengths read with").select_option("depth-gauge")
        with self.evaluated():
            self.type_in("Depth of the cut, left, measured", "2 5/16")
        with self.evaluated():
            self.type_in("Liner thickness, left, measured", "0.236")
        rows = {e.document["key"]: e.document for e in LogEntry.objects.filter(document__kind="reading")}
        self.assertEqual(rows["depth"]["instrument"], "depth gauge")
        self.assertAlmostEqual(rows["depth"]["resolution"], 0.0254)
        self.assertEqual(rows["liner-thickness"]["instrument"], "calliper")
