"""Stands on the plan, what lies on the shelf, and the sheet as a picture."""

import io
import re

from PIL import Image
from playwright.sync_api import expect

from tests.browser.base import Bench


class Stands(Bench):
    def test_places_are_found_and_a_stand_that_is_dragged_away_shuts_the_cut(self):
        page = self.page
        self.open()
        with self.evaluated():
            self.choose_option("Step, narrowed front, raised pocket")
        self.stage("Build")
        page.get_by_text("Not looked at: no stand is placed.").wait_for()
        with self.evaluated():
            page.get_by_role("button", name="Find places").click()
        page.get_by_text("Every part stands, before each cut and after it.").wait_for()
        page.get_by_role("radio", name=re.compile("Rear step")).check()
        drawn = page.get_by_role("img", name="Frame on its stands, from above")
        ahead = drawn.locator("rect").nth(6)
        box = ahead.bounding_box()
        page.mouse.move(box["x"] + 9, box["y"] + 9)
        page.mouse.down()
        page.mouse.move(box["x"] - 80, box["y"] + 5, steps=8)
        page.get_by_text("The part behind the cut tips", exact=False).wait_for()
        with self.evaluated():
            page.mouse.up()
        page.get_by_text("the cuts that make them are shut", exact=False).wait_for()
        self.kept()
        page.get_by_role("button", name="Back to the steps").click()
        page.get_by_role("heading", name="Survey complete: release teardown").wait_for()

    def test_a_stand_is_typed_and_wrong_input_is_named(self):
        page = self.page
        self.open("Build")
        page.get_by_role("button", name="Stands on the plan").click()
        with self.evaluated():
            page.get_by_role("button", name="Add a stand").click()
        page.get_by_text("stands on a line", exact=False).first.wait_for()
        with self.evaluated():
            self.type_in("Behind the front axle", "24 1/2")
        self.type_in("Rated for", "heavy")
        page.get_by_role("alert").filter(has_text="heavy").or_(page.get_by_text("not a", exact=False)).first.wait_for()


class Lifts(Bench):
    def test_a_lift_is_told_with_its_crane_and_gets_a_step(self):
        page = self.page
        self.open()
        with self.evaluated():
            self.choose_option("Step, narrowed front, raised pocket")
        self.stage("Build")
        page.get_by_role("button", name="Stands on the plan").click()
        with self.evaluated():
            page.get_by_role("button", name="Add a lift").click()
        page.get_by_text("on the crane:", exact=False).wait_for()
        with self.evaluated():
            self.type_in("Crane lifts at this reach", "90")
        page.get_by_text("more than the crane may lift at this reach", exact=False).first.wait_for()
        page.get_by_role("button", name="Back to the steps").click()
        page.get_by_role("button", name=re.compile("Rig and lift: .*waiting")).wait_for()


class Shelf(Bench):
    def test_what_lies_on_the_shelf_is_not_bought(self):
        page = self.page
        self.open("Patterns")
        page.locator("summary").filter(has_text="What to buy").click()
        field = page.get_by_label("On the shelf: solid wire")
        field.fill("100 lb")
        field.press("Enter")
        page.get_by_text("what is on the shelf taken off", exact=False).first.wait_for()
        field = page.get_by_label(re.compile("On the shelf, ft³: shielding gas"))
        field.fill("much")
        field.press("Enter")
        expect(field).to_have_value("much")

    def test_what_is_left_of_tube_stands_in_the_rack_once_it_is_cut(self):
        page = self.page
        self.open()
        with self.evaluated():
            self.choose_option("Step, narrowed front, raised pocket")
        self.stage("Patterns")
        page.get_by_role("button", name="Tube is cut: keep what is left").click()
        page.locator("summary").filter(has_text="Tube in the rack, and prices").click()
        expect(page.get_by_label("Tube, outside x wall x length; next")).not_to_have_value("")


class Picture(Bench):
    def test_the_sheet_leaves_as_it_is_seen(self):
        page = self.page
        self.open("Cut")
        page.get_by_role("button", name="More", exact=True).click()
        with page.expect_download() as saved:
            page.get_by_role("button", name="Sheet as seen, PNG").click()
        picture = Image.open(io.BytesIO(saved.value.path().read_bytes())).convert("RGB")
        self.assertGreater(picture.width, 1000)
        self.assertGreater(len(picture.getcolors(maxcolors=1_000_000)), 20)
        with page.expect_download() as saved:
            page.get_by_role("button", name="Sheet as seen, SVG").click()
        self.assertIn(b"<svg", saved.value.path().read_bytes()[:200])
