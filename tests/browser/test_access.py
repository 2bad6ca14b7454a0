"""Names, contrast and figures that do not need a mouse or good light."""

import re

from nodulant_server.models import Job
from tests.browser.base import Bench
from tests.fixtures import ROOT

NAMELESS = """
() => [...document.querySelectorAll('button, input, select, a, [role=slider], [role=tab]')]
  .filter((e) => e.checkVisibility())
  .filter((e) => !(e.getAttribute('aria-label') || e.textContent.trim() || e.labels?.length))
  .map((e) => e.outerHTML.slice(0, 120))
"""
SMALL_TEXT = """
() => [...document.querySelectorAll('body *')]
  .filter((e) => e.checkVisibility() && [...e.childNodes].some((n) => n.nodeType === 3 && n.textContent.trim()))
  .filter((e) => parseFloat(getComputedStyle(e).fontSize) < 12)
  .map((e) => e.outerHTML.slice(0, 80))
"""


def luminance(colour):
    """Relative luminance, WCAG 2.2."""
    parts = [int(colour[i : i + 2], 16) / 255 for i in (1, 3, 5)]
    linear = [p / 12.92 if p <= 0.04045 else ((p + 0.055) / 1.055) ** 2.4 for p in parts]
    return 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]


def contrast(one, two):
    """Contrast ratio, WCAG 2.2."""
    high, low = sorted((luminance(one), luminance(two)), reverse=True)
    return (high + 0.05) / (low + 0.05)


class Names(Bench):
    def test_everything_that_can_be_worked_has_a_name(self):
        self.open()
        found = {}
        for stage in ("Survey", "Target", "Cut", "Patterns", "Build", "Prove"):
            self.stage(stage)
            self.page.wait_for_timeout(300)
            found[stage] = self.page.evaluate(NAMELESS) + self.page.evaluate(SMALL_TEXT)
        self.assertEqual({stage: rows for stage, rows in found.items() if rows}, {})

    def test_handles_say_name_and_value(self):
        self.open("Cut")
        depth = self.page.get_by_role("slider", name="Arc notch over the axle, depth")
        self.assertEqual(depth.get_attribute("aria-valuetext"), '2 5/16"')
        names = [h.get_attribute("aria-label") for h in self.page.locator("[data-handle]").all()]
        self.assertEqual(len(set(names)), len(names))

    def test_the_strip_has_a_table(self):
        self.open("Cut")
        self.page.get_by_role("button", name="Table").click()
        table = self.page.get_by_label("Strength by station")
        self.assertGreaterEqual(table.locator("tbody tr").count(), 120)

    def test_the_worst_margin_is_spoken_after_a_pause(self):
        self.open("Cut")
        live = self.page.locator("[aria-live=polite]")
        live.filter(has_text="not computed").wait_for(state="attached")


class Contrast(Bench):
    def test_text_on_its_grounds_in_both_lights(self):
        source = (ROOT / "web/src/app/theme.ts").read_text()
        pairs = dict(re.findall(r'(\w+): pair\("(#[0-9a-f]{6})", "#[0-9a-f]{6}"\)', source))
        dark = dict(re.findall(r'(\w+): pair\("#[0-9a-f]{6}", "(#[0-9a-f]{6})"\)', source))
        self.assertGreater(len(pairs), 8)
        for light, colours in (("paper", pairs), ("dye", dark)):
            for text in ("ink", "faint", "added", "removed", "touch", "chalk"):
                for ground in ("sheet", "panel"):
                    with self.subTest(f"{light}: {text} on {ground}"):
                        self.assertGreaterEqual(contrast(colours[text], colours[ground]), 4.5)
            self.assertGreaterEqual(contrast(colours["onchalk"], colours["chalk"]), 4.5)

    def test_the_light_can_be_changed_and_is_remembered(self):
        self.open()
        self.page.get_by_role("button", name="More", exact=True).click()
        self.page.get_by_role("button", name="Layout dye (dark)").click()
        self.page.reload()
        self.page.get_by_label("Sheet: side elevation above plan").wait_for()
        self.assertIn("dark", self.page.evaluate("document.documentElement.className"))


class Tape(Bench):
    def test_the_zero_hooks_on_any_feature(self):
        self.open("Cut")
        self.page.get_by_text('section 20 1/2" on the tape').wait_for()
        self.page.get_by_label("Tape hooked on").select_option("rear-axle")
        self.page.get_by_text('section 0" on the tape').wait_for()
        self.page.get_by_label("Tape reads").select_option("mm")
        self.page.get_by_text("section 0 mm on the tape").wait_for()
        self.assertEqual(self.page.get_by_label("Depth", exact=True).input_value(), "58 mm")
        self.assertEqual(Job.objects.count(), 3)
