"""A walk through all screens of an inch job finds no millimetre, newton or kilogram."""

import re

from tests.browser.base import Bench

SEEN = """
() => [...document.querySelectorAll('body *')]
  .filter((e) => e.checkVisibility() && [...e.childNodes].some((n) => n.nodeType === 3 && n.textContent.trim()))
  .map((e) => e.textContent.trim())
  .concat([...document.querySelectorAll('input, select')]
    .filter((e) => e.checkVisibility())
    .map((e) => `${e.dataset.field ?? e.ariaLabel ?? ''}: ${e.tagName === 'SELECT' ? e.selectedOptions[0]?.textContent : e.value}`))
"""
FOREIGN = re.compile(
    r"(?<![\w.])\d[\d.,]*[ \u00a0]?(mm|N|kN|MPa|kg|N m|kN m|N/mm|bar|N m/deg)\b|\b(N m|N/mm|MPa|mm²|mm³|mm⁴|kN)\b"
)
OWN_WORDS = ("Rear step, 75 mm", "front rails narrowed 30 mm")
"""What somebody typed stays as it was typed."""
STAGES = ("Survey", "Target", "Cut", "Travel", "Steering", "Clearance", "Patterns", "Build", "Prove")


class InInches(Bench):
    logged = True

    def foreign(self):
        texts = {re.sub("|".join(map(re.escape, OWN_WORDS)), "", t) for t in self.page.evaluate(SEEN) if len(t) < 400}
        return sorted(t for t in texts if FOREIGN.search(t))

    def walked(self, option):
        self.page.set_viewport_size({"width": 1280, "height": 2400})
        self.open("Cut")
        self.page.get_by_role("combobox", name="Option").select_option(label=option)
        self.page.wait_for_timeout(1500)
        found = {}
        for stage in STAGES:
            self.stage(stage)
            self.page.wait_for_timeout(900)
            found[stage] = self.foreign()
        self.page.get_by_role("button", name="Reckon the sheet").click()
        self.page.get_by_role("region", name="Hand-check sheet").wait_for()
        found["hand-check sheet"] = self.foreign()
        self.stage("Survey")
        for tab in ("Features", "Crossmembers", "Masses and seats"):
            self.page.get_by_role("tab", name=tab).click()
            self.page.wait_for_timeout(200)
            found[tab] = self.foreign()
        self.stage("Cut")
        self.page.get_by_role("button", name="Table").click()
        self.page.get_by_label("Strength by station").wait_for()
        found["table"] = self.foreign()
        for row in self.page.locator(".margins-list .row-head").all()[:25]:
            row.click()
        found["why"] = self.foreign()
        self.assertEqual({place: rows for place, rows in found.items() if rows}, {})

    def test_the_notch(self):
        self.walked("Arc notch and coilovers")

    def test_the_step(self):
        self.walked("Step, narrowed front, raised pocket")

    def test_options_side_by_side_and_what_the_shop_reckons_with(self):
        self.page.goto(f"{self.live_server_url}/jobs/{self.job.pk}/compare")
        self.page.get_by_role("table", name="Options compared").wait_for()
        self.page.get_by_label("A pound of plate").wait_for()
        self.type_in("A pound of plate", "1")
        self.assertEqual(self.page.get_by_label("A pound of plate").input_value(), "1")
        with self.page.expect_response(lambda r: r.url.endswith("/shop") and r.ok):
            self.page.get_by_role("button", name="Keep the rates").click()
        self.job.refresh_from_db()
        self.assertAlmostEqual(self.job.shop_model().rates.plate_kg, 1 / 0.45359237, places=6)
        self.assertEqual(self.foreign(), [])
