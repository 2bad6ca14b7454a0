"""When it is done: sessions typed, a due day, the bars, a painter."""

import re

from playwright.sync_api import expect

from tests.browser.base import Bench


class Time(Bench):
    def test_sessions_are_typed_and_the_schedule_follows(self):
        page = self.page
        self.open("Build")
        first = page.get_by_role("group", name="Session 1")
        first.get_by_label("Hours").fill("none")
        page.get_by_role("button", name="Keep these sessions").click()
        expect(page.get_by_text("'none' is no number of hours")).to_be_visible()
        first.get_by_label("Hours").fill("0")
        page.get_by_role("button", name="Keep these sessions").click()
        expect(page.get_by_text("nothing is done", exact=False)).to_be_visible()
        first.get_by_label("Hours").fill("4")
        page.get_by_role("button", name="Keep these sessions").click()
        expect(page.get_by_role("button", name="Keep these sessions")).to_have_count(0)
        self.job.refresh_from_db()
        self.assertEqual(self.job.shop["week"][0]["minutes"], 240)
        page.get_by_role("button", name="Work out when").click()
        expect(page.get_by_role("heading", name="When it is done")).to_be_visible()
        expect(page.get_by_text(re.compile("hours of hands are left"))).to_be_visible()
        page.get_by_label("To be done by").fill("2026-01-01")
        page.get_by_role("button", name="Work it out again").click()
        expect(page.get_by_text(re.compile(r"\d+ steps do not fit before"))).to_be_visible()

    def test_a_painter_takes_the_paint_and_gets_a_sheet(self):
        page = self.page
        self.open("Build")
        page.get_by_role("button", name="Work out when").click()
        page.get_by_role("button", name=re.compile("^Inspect, prime and paint: .*minutes")).click()
        page.get_by_label("Done by", exact=True).select_option("painter")
        page.get_by_label("Days", exact=True).fill("soon")
        page.get_by_role("button", name="Keep, and plan again").click()
        expect(page.get_by_text("'soon' is no number of days", exact=False)).to_be_visible()
        page.get_by_label("Days", exact=True).fill("12")
        page.get_by_role("button", name="Keep, and plan again").click()
        expect(page.get_by_role("button", name=re.compile("^Inspect, prime and paint: .* 0 minutes"))).to_be_visible()
        with page.expect_download() as given:
            page.get_by_role("button", name="Sheet to hand over, PDF").click()
        self.assertIn("handout", given.value.suggested_filename)
        with page.expect_download() as given:
            page.get_by_role("button", name="Calendar, ICS").click()
        self.assertTrue(given.value.suggested_filename.endswith(".ics"))

    def test_what_the_shop_welds_with_is_typed_and_heat_follows(self):
        page = self.page
        self.open("Build")
        page.get_by_label("Amperes").fill("a lot")
        page.get_by_role("button", name="Keep this setting").click()
        expect(page.get_by_text("'a lot' is no number of amperes")).to_be_visible()
        page.get_by_label("Amperes").fill("5000")
        page.get_by_role("button", name="Keep this setting").click()
        expect(page.get_by_role("alert").filter(has_text="500")).to_be_visible()
        page.get_by_label("Amperes").fill("120")
        page.get_by_label("Process").select_option("TIG")
        page.get_by_role("button", name="Keep this setting").click()
        expect(page.get_by_role("button", name="Keep this setting")).to_have_count(0)
        option = self.job.options.get(name="Arc notch and coilovers").pk
        plan = page.evaluate(f"fetch('/api/options/{option}/heat/axle-notch').then((r) => r.json())")
        self.assertEqual(plan["setting"], "TIG, 19 V, 120 A")
