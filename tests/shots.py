"""``make shots``: one current picture of each main view into docs/screenshots, from the demo data."""

import re

from playwright.sync_api import expect

from nodulant_server.models import Job
from tests.browser.base import Bench
from tests.fixtures import ROOT

FOLDER = ROOT / "docs" / "screenshots"


class Shots(Bench):
    """Walks the demo and takes the pictures on the way."""

    scheme = "dark"

    def shot(self, name):
        self.page.wait_for_timeout(500)
        self.page.screenshot(path=FOLDER / f"{name}.png")

    def test_pictures(self):
        page = self.page
        page.goto(self.live_server_url)
        page.get_by_text("Wherry low-floor").wait_for()
        page.get_by_text(re.compile(r"\d+ hold")).nth(2).wait_for()
        expect(page.get_by_text("is being worked out")).to_have_count(0)
        self.shot("jobs")
        page.goto(f"{self.live_server_url}/shop")
        page.get_by_role("button", name="Make an invitation").click()
        page.get_by_text("Links that are out").wait_for()
        self.shot("shop")
        self.open("Survey")
        page.get_by_role("button", name="Whole", exact=True).click()
        self.shot("survey")
        self.stage("Target")
        page.get_by_role("button", name="Axle", exact=True).click()
        with self.evaluated():
            self.type_in("Target drop at the rear axle", "2 1/2")
        for _ in range(9):
            page.keyboard.press("Escape")
        page.get_by_label("Axle travel").fill("90")
        self.shot("target")
        page.get_by_label("Axle travel").fill("0")
        self.stage("Cut")
        self.margin("Rail over the rear axle, bending, bottom fibre").click()
        self.shot("cut-before")
        self.margin("Rail over the rear axle, bending, bottom fibre").click()
        self.stage("Target")
        with self.evaluated():
            page.get_by_role("button", name="Cut it so").click()
        page.get_by_role("button", name="Find the lightest that holds").click()
        page.get_by_role("button", name="Use this set").wait_for(timeout=90_000)
        with self.evaluated():
            page.get_by_role("button", name="Use this set").click()
        self.shot("cut-after")
        page.get_by_role("button", name="More", exact=True).click()
        page.get_by_role("button", name="Bright paper").click()
        page.keyboard.press("Escape")
        self.stage("Patterns")
        page.locator("button").filter(has_text=re.compile(r"^L\s*Liner$")).first.click()
        self.shot("patterns")
        page.get_by_role("button", name="Lay the plates out").click()
        page.get_by_role("button", name="Sheets as DXF, zipped").wait_for(timeout=90_000)
        self.shot("sheets")
        self.stage("Build")
        for _ in range(4):
            with self.evaluated():
                page.get_by_role("button", name="Done, sign").or_(
                    page.get_by_role("button", name="Sign the hold point")
                ).click()
        self.shot("build")
        page.get_by_role("button", name="Work out when").click()
        page.get_by_role("heading", name="When it is done").wait_for()
        self.shot("schedule")
        page.get_by_role("button", name="Back to the steps").first.click()
        self.stage("Prove")
        with self.evaluated():
            self.type_in("Depth of the cut, left, measured", "2 5/8")
        self.shot("prove")
        page.get_by_role("button", name="More", exact=True).click()
        page.get_by_role("button", name="Options side by side").click()
        page.get_by_role("table", name="Options compared").wait_for()
        self.shot("compare")
        self.open("Cut")
        page.get_by_label("Option").select_option(label="Step, narrowed front, raised pocket")
        page.get_by_role("button", name="Rear step, 75 mm").first.wait_for()
        page.get_by_role("button", name="Rear step, 75 mm").first.click()
        page.get_by_role("button", name="Whole", exact=True).click()
        page.get_by_label("Load case").select_option("brake")
        page.get_by_role("button", name="Bent shape").click()
        self.shot("cut-step")
        self.stage("Travel")
        page.get_by_label("Wheel travel").fill("60")
        page.get_by_label("Roll", exact=True).fill("4")
        page.get_by_label("Checks of").select_option("travel")
        self.shot("travel")
        page.get_by_label("Roll", exact=True).fill("0")
        page.get_by_label("Wheel travel").fill("0")
        page.get_by_label("Checks of").select_option("")
        self.stage("Clearance")
        page.get_by_role("button", name="Sweep everything").click()
        page.get_by_text("pairs over").wait_for(timeout=60_000)
        page.get_by_role("button", name="front upper wishbone, rear leg, right to right rail").click()
        page.get_by_role("img", name="Map of the clearance over travel and steer").wait_for()
        self.shot("clearance")
        self.stage("Cut")
        page.get_by_label("Option").select_option(index=0)
        page.get_by_role("button", name="Boxing over the axle").first.wait_for()
        page.set_viewport_size({"width": 1024, "height": 768})
        self.stage("Cut")
        self.shot("tablet")
        page.set_viewport_size({"width": 390, "height": 844})
        own = self.job.options.get(name="Arc notch and coilovers").pk
        page.goto(f"{self.live_server_url}/jobs/{self.job.pk}/floor?option={own}&step=axle-notch/cut/left")
        page.get_by_role("article").wait_for()
        self.shot("floor")

    def test_the_bind(self):
        """A parallel four-link in roll, from behind."""
        self.job = Job.objects.get(name="Ostrand on air")
        self.open("Travel")
        self.page.get_by_label("Option").select_option(label="Parallel four-link and track bar")
        self.page.get_by_label("Checks of").select_option("travel")
        self.margin("Links bind").click()
        self.page.get_by_label("Roll", exact=True).fill("3")
        self.page.get_by_role("button", name="from behind: larger").click()
        self.shot("travel-bind")

    def test_the_steering(self):
        """The wagon's drag link at full lock, and what cures its bump steer."""
        self.job = Job.objects.get(name="Brackmoor on stilts")
        self.open("Steering")
        self.page.get_by_label("Checks of").select_option("steer")
        self.page.get_by_role("button", name="Try every cure").click()
        found = self.page.get_by_role("status").filter(has_text="is left")
        found.wait_for()
        found.scroll_into_view_if_needed()
        self.page.get_by_label("Steer", exact=True).fill("0.7")
        self.shot("steering")
