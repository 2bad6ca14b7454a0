"""On a phone: nothing wider than it, nothing smaller than a thumb, one thing at a time."""

from tests.browser.base import Bench

WIDER = "() => document.documentElement.scrollWidth"
SMALL = """
() => [...document.querySelectorAll('button, select, a, input:not([type=range]):not([type=checkbox])')]
  .filter((e) => e.checkVisibility())
  .map((e) => [e.getBoundingClientRect(), e])
  .filter(([r]) => r.height < 43.5 || (r.width < 43.5 && r.width > 0))
  .map(([r, e]) => `${Math.round(r.width)}x${Math.round(r.height)} ${e.outerHTML.slice(0, 100)}`)
"""
LETTERS = """
() => [...document.querySelectorAll('select, input:not([type=range]):not([type=checkbox])')]
  .filter((e) => e.checkVisibility() && parseFloat(getComputedStyle(e).fontSize) < 16)
  .map((e) => e.outerHTML.slice(0, 100))
"""
STAGES = ("Survey", "Target", "Cut", "Travel", "Steering", "Patterns", "Build", "Prove")


class Phone(Bench):
    size = {"width": 390, "height": 844}
    touch = True

    def test_every_stage_fits_and_is_worked_by_a_thumb(self):
        self.page.goto(f"{self.live_server_url}/jobs/{self.job.pk}")
        self.page.get_by_label("Sheet: side elevation above plan").wait_for()
        found = {}
        for stage in STAGES:
            self.stage(stage)
            self.page.wait_for_timeout(600)
            wide = self.page.evaluate(WIDER)
            rows = self.page.evaluate(SMALL) + self.page.evaluate(LETTERS)
            if wide > 390 or rows:
                found[stage] = [wide, *rows]
        self.assertEqual(found, {})

    def test_the_jobs_page_fits_too(self):
        self.page.goto(self.live_server_url)
        self.page.get_by_role("img", name="left rail as planned").nth(2).wait_for()
        self.assertLessEqual(self.page.evaluate(WIDER), 390)
        self.assertEqual(self.page.evaluate(SMALL) + self.page.evaluate(LETTERS), [])

    def test_a_step_that_is_tapped_stands_before_the_eye(self):
        self.open("Build")
        self.page.get_by_role("heading", name="Always").wait_for()
        self.page.wait_for_load_state("networkidle")
        self.page.get_by_role("button", name="Everything that goes inside").first.click()
        card = self.page.get_by_role("heading", name="Everything that goes inside").first
        card.wait_for()
        self.page.wait_for_function(
            "(e) => { const r = e.getBoundingClientRect(); return r.top >= 0 && r.bottom < innerHeight; }",
            arg=card.element_handle(),
        )

    def test_a_full_survey_in_one_pass(self):
        """Six readings, then what the list still asks for, all on the phone."""
        page = self.page
        page.goto(self.live_server_url)
        page.get_by_label("New job").fill("Phone")
        page.get_by_label("Vehicle").fill("Home-built wagon")
        page.get_by_label("Lowered by").select_option("springs")
        for label, text in {
            "Wanted drop": "4",
            "A Rail height": "5 1/2",
            "B Rail width": "2 1/2",
            "C Wall": "3/16",
            "D Axle tube, diameter": "3 1/4",
            "E Tube to rail, standing": "4",
        }.items():
            page.get_by_label(label).fill(text)
        page.get_by_role("button", name="Begin").click()
        page.get_by_role("region", name="First answer").get_by_text("deep is planned").wait_for()
        typed = {"Wheelbase, hub to hub": "118", "Tube to rail, right": "4", "Pinion, nose up": "3"}
        for label, text in typed.items():
            self.type_in(label, text)
        for axle in ("Rear", "Front"):
            group = page.get_by_role("region", name=f"{axle} axle at ride height")
            for label, text in {
                "Tyre": "235/75R15",
                "Loaded radius": "13 1/2",
                "Hub height, left": "-6",
                "Hub height, right": "-6",
                "Track": "63",
            }.items():
                field = group.get_by_label(label, exact=True)
                field.fill(text)
                field.press("Enter")
        page.get_by_role("tab", name="Masses and seats").click()
        page.get_by_role("button", name="Add a mass").click()
        page.wait_for_timeout(800)
        self.assertLessEqual(page.evaluate(WIDER), 390)
        cut = page.get_by_role("group", name="The cut and its plates").or_(page.locator("details").first)
        self.assertRegex(cut.inner_text(), r"\d+ of \d+|all in")
