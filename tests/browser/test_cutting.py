"""The cut by hand: every handle, both shapes, plates, boxing, splitting; and the finder."""

from playwright.sync_api import expect

from nodulant_server.models import Job
from tests.browser.base import Bench


class Handles(Bench):
    """Drag moves what it says, in tape marks, and nothing else."""

    ROWS = (
        ("axle-notch/centre", 30, 0, "Centre, behind"),
        ("axle-notch/radius", 12, 0, "Radius"),
        ("axle-notch/outer", -25, 0, "Overlap past the cut"),
    )

    def test_each_handle_moves_its_field(self):
        self.open("Cut")
        for handle, dx, dy, label in self.ROWS:
            field = self.page.get_by_label(label, exact=True).first
            before = field.input_value()
            with self.evaluated():
                self.drag(handle, dx, dy)
            self.assertNotEqual(field.input_value(), before, handle)
            self.assertRegex(field.input_value(), r'"$')
            with self.evaluated():
                self.page.keyboard.press("Control+z")
            expect(field).to_have_value(before)

    def test_boxing_ends(self):
        self.open("Cut")
        self.page.get_by_role("button", name="Boxing over the axle").first.click()
        front = self.page.get_by_label("Front end, ahead of", exact=True)
        before = front.input_value()
        with self.evaluated():
            self.drag("box-rear/start", 40, 0)
        self.assertNotEqual(front.input_value(), before)

    def test_the_sheet_follows(self):
        self.open("Cut")
        handle = self.page.locator('[data-handle="axle-notch/centre"]')
        before = handle.bounding_box()["x"]
        with self.evaluated():
            self.drag("axle-notch/centre", 60, 0)
        self.assertGreater(handle.bounding_box()["x"], before + 40)

    def test_too_deep_by_hand_is_told_and_escape_forgets(self):
        self.open("Cut")
        box = self.page.locator('[data-handle="axle-notch/depth"]').bounding_box()
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x, y - 200, steps=6)
        self.page.get_by_role("alert").filter(has_text="as deep as the rail").first.wait_for()
        self.page.keyboard.press("Escape")
        self.page.mouse.up()
        expect(self.page.get_by_label("Depth", exact=True)).to_have_value('2 5/16"')


class ShapesAndPlates(Bench):
    def test_arc_to_straight_sided_and_back(self):
        self.open("Cut")
        before = self.margin("Rail over the rear axle, bending, bottom fibre").inner_text()
        with self.evaluated():
            self.page.get_by_label("Shape", exact=True).select_option("trapezoid")
        self.page.get_by_label("Width at mouth").wait_for()
        self.assertNotEqual(self.margin("Rail over the rear axle, bending, bottom fibre").inner_text(), before)
        with self.evaluated():
            self.page.keyboard.press("Control+z")
        self.page.get_by_label("Radius", exact=True).wait_for()

    def test_plates_are_added_and_left_out(self):
        self.open("Cut")
        self.page.get_by_role("region", name="Inner side plate").get_by_role("button", name="Add it").click()
        self.page.get_by_label("Stages").get_by_text("8 plates").wait_for()
        cap = self.page.get_by_role("region", name="Cap box on the other edge")
        with self.evaluated():
            cap.get_by_role("button", name="Add it").click()
        self.page.locator('[data-handle="axle-notch/cap"]').wait_for()
        with self.evaluated():
            self.drag("axle-notch/cap", 0, -14)
        self.assertNotEqual(cap.get_by_label("Height", exact=True).input_value(), '1 15/16"')
        cap.get_by_role("button", name="Leave it out").click()
        expect(self.page.locator('[data-handle="axle-notch/cap"]')).to_have_count(0)

    def test_each_fit_of_the_boxing(self):
        self.open("Cut")
        self.page.get_by_role("button", name="Boxing over the axle").first.click()
        seen = set()
        for fit in ("flush", "inside", "over-lips"):
            with self.evaluated():
                self.page.get_by_label("Fit", exact=True).select_option(fit)
            seen.add(self.margin("Long welds of the plate, boxing").inner_text())
        self.assertEqual(len(seen), 3)

    def test_splitting_makes_a_pair_that_differs(self):
        self.open("Cut")
        with self.evaluated():
            self.page.get_by_role("button", name="Split").click()
        self.page.get_by_text("one of a pair").wait_for()
        with self.evaluated():
            self.type_in("Depth", "2")
        rows = (
            self.page.get_by_label("Margins")
            .get_by_role("button")
            .filter(has_text="Rail over the rear axle, bending, bottom fibre")
        )
        expect(rows).to_have_count(2)

    def test_a_removed_notch_takes_its_patterns_steps_and_readings_along(self):
        self.open("Cut")
        with self.evaluated():
            self.page.get_by_role("button", name="Take this out of the plan").click()
        stages = self.page.get_by_label("Stages")
        stages.get_by_text("2 plates").wait_for()
        stages.get_by_text("0 of 17 steps").wait_for()
        stages.get_by_text("0 of 2 read").wait_for()


class Finder(Bench):
    def test_it_can_be_cancelled_and_says_why_nothing_helps(self):
        self.open("Cut")
        self.page.get_by_label("Plate in the rack").fill("1 mm")
        self.page.get_by_label("Cap heights to try").fill("10 mm")
        self.page.get_by_role("button", name="Keep this stock").click()
        expect(self.page.get_by_role("button", name="Keep this stock")).to_have_count(0)
        self.assertEqual(Job.objects.get(pk=self.job.pk).shop_model().plate_stock_mm, (1.0,))
        self.page.get_by_role("button", name="Find the lightest that holds").click()
        self.page.get_by_text("No set from this stock passes").wait_for()

    def test_nonsense_in_the_rack_is_refused(self):
        self.open("Cut")
        self.page.get_by_label("Plate in the rack").fill("3 mm; 1/4; -5 mm")
        self.page.get_by_role("button", name="Keep this stock").click()
        self.page.get_by_role("alert").filter(has_text='0.004" or more').wait_for()
        self.assertEqual(len(Job.objects.get(pk=self.job.pk).shop_model().plate_stock_mm), 5)

    def test_what_is_found_says_what_it_does(self):
        self.open("Cut")
        self.page.get_by_role("button", name="Find the lightest that holds").click()
        found = self.page.get_by_role("status").filter(has_text="sets tried")
        found.wait_for(timeout=60_000)
        for word in ("liner", "lb a side", "Least room", "judged whole"):
            self.assertIn(word, found.inner_text())


class Views(Bench):
    def test_zoom_pan_and_section_by_keys_and_wheel(self):
        self.open("Cut")
        tape = self.page.get_by_text('section 20 1/2" on the tape')
        tape.wait_for()
        with self.evaluated():
            self.page.keyboard.press(".")
        self.page.get_by_text('section 20 7/8" on the tape').wait_for()
        handle = self.page.locator('[data-handle="axle-notch/outer"]')
        before = handle.bounding_box()["x"]
        self.page.keyboard.press("+")
        self.assertGreater(handle.bounding_box()["x"], before)
        self.page.keyboard.press("-")
        sheet = self.page.get_by_label("Sheet: side elevation above plan").bounding_box()
        self.page.mouse.move(sheet["x"] + 200, sheet["y"] + 60)
        self.page.mouse.wheel(0, -400)
        self.page.wait_for_timeout(100)
        self.assertNotEqual(handle.bounding_box()["x"], before)
        self.page.get_by_role("button", name="Axle", exact=True).click()
        self.assertAlmostEqual(handle.bounding_box()["x"], before, delta=2)

    def test_the_other_rail(self):
        self.open("Cut")
        with self.evaluated():
            self.page.keyboard.press("l")
        self.page.get_by_text("right rail, seen from the left").wait_for()
        self.page.get_by_text("Strength, right rail").wait_for()
        self.page.get_by_text("Section A-A, right").wait_for()

    def test_loaded_as(self):
        """What is aboard changes the use of the rails."""
        self.open("Cut")
        lane = self.page.get_by_label("Strength strip")
        lane.wait_for()
        before = lane.text_content()
        with self.evaluated():
            self.page.get_by_label("Loaded as").select_option("empty")
        self.assertNotEqual(lane.text_content(), before)

    def test_load_case(self):
        self.open("Cut")
        lane = self.page.get_by_label("Strength strip").locator("text").filter(has_text="worked")
        before = lane.text_content()
        with self.evaluated():
            self.page.get_by_label("Load case").select_option("static")
        expect(lane).not_to_have_text(before)
