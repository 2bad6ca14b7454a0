"""From a red row to a green one by presses alone, what the engineer is given, and one count everywhere."""

import re

from playwright.sync_api import expect

from nodulant_server.models import Job
from tests.browser.base import Bench

OVERLAP = "Overlap past the cut, outer plate"


class Mending(Bench):
    def test_a_red_row_is_mended_by_a_press_and_comes_back_by_one(self):
        self.open("Cut")
        with self.evaluated():
            self.page.get_by_role("region", name="Outer side plate").get_by_label("Overlap past the cut").fill("60 mm")
            self.page.get_by_role("region", name="Outer side plate").get_by_label("Overlap past the cut").press("Enter")
        self.margin(OVERLAP).filter(has_text="fails").click()
        self.page.get_by_role("button", name="What mends it?").click()
        offered = self.page.get_by_role("status", name="What mends it")
        offered.wait_for()
        with self.evaluated():
            offered.get_by_role("button", name="Do this").first.click()
        expect(self.page.get_by_label("Margins").locator("li").filter(has_text=OVERLAP).first).not_to_contain_text(
            "fails"
        )
        with self.evaluated():
            self.page.keyboard.press("Control+z")
        self.margin(OVERLAP).filter(has_text="fails").wait_for()

    def test_what_was_tried_on_an_older_draft_is_not_laid_on(self):
        self.open("Cut")
        plate = self.page.get_by_role("region", name="Outer side plate").get_by_label("Overlap past the cut")
        with self.evaluated():
            plate.fill("60 mm")
            plate.press("Enter")
        self.margin(OVERLAP).filter(has_text="fails").click()
        self.page.get_by_role("button", name="What mends it?").click()
        offered = self.page.get_by_role("status", name="What mends it")
        offered.wait_for()
        with self.evaluated():
            plate.fill("70 mm")
            plate.press("Enter")
        offered.get_by_role("button", name="Do this").first.click()
        self.page.get_by_text("The design has changed since: ask again.").wait_for()


class Sheet(Bench):
    def test_the_hand_check_sheet_has_its_places_and_where_each_input_comes_from(self):
        self.open("Prove")
        self.page.get_by_role("button", name="Reckon the sheet").click()
        self.page.get_by_role("button", name="Reckon again").wait_for()
        sheet = self.page.get_by_label("Hand-check sheet").last
        for words in ("section modulus that counts", "together, von Mises", "Wall of the left rail", "(measured)"):
            expect(sheet).to_contain_text(words)
        self.assertEqual(sheet.get_by_role("row").count(), 6)

    def test_a_wall_that_was_not_measured_is_named(self):
        self.open("Survey")
        with self.evaluated():
            self.type_in("Station 1, wall", "")
        self.stage("Prove")
        self.page.get_by_role("button", name="Reckon the sheet").click()
        self.page.get_by_role("alert").filter(has_text="a wall of the rail was not measured").wait_for()


class Counts(Bench):
    def test_the_list_of_jobs_counts_as_the_margins_do(self):
        self.page.goto(self.live_server_url)
        card = self.page.get_by_role("listitem").filter(has_text="Brackmoor on stilts")
        told = card.get_by_text(re.compile(r"^Welded notch: \d+ fail"))
        told.wait_for()
        words = told.inner_text().partition(": ")[2].partition("; ")[0]
        self.job = Job.objects.get(name="Brackmoor on stilts")
        self.open("Cut")
        expect(self.page.get_by_label("Margins").locator("p").first).to_have_text(words)
