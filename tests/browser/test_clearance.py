"""The sweep on the bench: the list, the map, what stands around, and the hole that the rods need."""

import re

from playwright.sync_api import expect

from tests.browser.base import Bench


class Clearance(Bench):
    """The van's raised and narrowed front, its rods through the rails."""

    def open(self, stage=None, page=None):
        super().open(None, page)
        self.choose_option("Step, narrowed front, raised pocket")
        if stage:
            self.stage(stage)

    def sweep(self):
        self.page.get_by_role("button", name=re.compile("^Sweep")).click()
        self.page.get_by_text(re.compile(r"^\d+ pairs over")).wait_for(timeout=40_000)
        return self.page.get_by_role("list", name="Clearances")

    def test_the_rods_hole_comes_from_the_sweep_and_clears(self):
        self.open("Cut")
        self.page.get_by_role("button", name="Hole for the rack").first.click()
        with self.evaluated():
            self.page.get_by_role("button", name="Take this out of the plan").click()
        self.stage("Clearance")
        listed = self.sweep()
        listed.get_by_role("button").filter(has_text="front toe link, right to right rail").click()
        self.page.get_by_text("They stand in one place").wait_for()
        self.page.get_by_role("button", name="The cut that it needs").click()
        self.page.get_by_role("img", name="Swept outline on the rail").wait_for()
        with self.evaluated():
            self.page.get_by_role("button", name="Place it in both rails").first.click()
        self.page.get_by_text("The design has changed since: sweep again.").wait_for()
        listed = self.sweep()
        expect(listed.get_by_text("front toe link, right to right rail")).to_have_count(1)
        row = listed.get_by_role("button").filter(has_text="front boot, right to right rail")
        expect(row).not_to_contain_text("overlaps")
        self.kept()
        self.stage("Cut")
        self.page.get_by_role("button", name="Hole for the toe link").first.wait_for()
        self.stage("Build")
        self.page.get_by_text("Open the rail for the rod").first.wait_for()

    def test_a_pair_moves_the_bench_to_its_worst_place_and_has_a_map(self):
        self.open("Clearance")
        listed = self.sweep()
        listed.get_by_role("button").filter(has_text="front upper wishbone, rear leg, left to left rail").click()
        self.assertEqual(self.page.get_by_label("Wheel travel").input_value(), "-55")
        self.page.get_by_role("img", name="Map of the clearance over travel and steer").wait_for()
        self.page.get_by_role("button", name="Table").click()
        self.page.get_by_role("table", name="Clearance over travel and steer").wait_for()
        self.margin("Moving metal to fixed metal, upper wishbone, rear leg, left to left rail").filter(
            has_text="holds"
        ).wait_for()

    def test_a_thing_is_placed_and_found(self):
        self.open("Clearance")
        with self.evaluated():
            self.page.get_by_role("button", name="Add a box").click()
        with self.evaluated():
            self.type_in("Name of the thing", "Battery tray")
        for label, text in (("back", "0"), ("right", "790 mm"), ("up", "300 mm")):
            self.type_in(label, text)
        listed = self.sweep()
        row = listed.get_by_role("button").filter(has_text="front tyre, right to Battery tray")
        row.wait_for()
        row.click()
        self.page.get_by_role("button", name="Undo").click()
        self.page.get_by_text("The design has changed since: sweep again.").wait_for()

    def test_a_thing_of_no_size_is_refused_and_stays_typed(self):
        self.open("Clearance")
        with self.evaluated():
            self.page.get_by_role("button", name="Add a bar").click()
        self.type_in("Diameter", "0")
        self.page.get_by_role("alert").filter(has_text="more than 0").first.wait_for()
        expect(self.page.get_by_label("Diameter")).to_have_value("0")

    def test_everything_is_drawn_in_space(self):
        self.open("Clearance")
        canvas = self.page.get_by_label(re.compile("in space: drag to turn"))
        canvas.wait_for()
        self.page.wait_for_timeout(2500)
        colours = "c => { const k = document.createElement('canvas'); k.width = k.height = 64; const x = k.getContext('2d'); x.drawImage(c, 0, 0, 64, 64); return new Set(Array.from(new Uint32Array(x.getImageData(0, 0, 64, 64).data.buffer))).size; }"
        self.assertGreater(canvas.evaluate(colours), 20)
        before = canvas.evaluate("c => c.toDataURL()")
        self.page.get_by_label("Steer", exact=True).fill("0.8")
        self.page.wait_for_timeout(400)
        self.assertNotEqual(canvas.evaluate("c => c.toDataURL()"), before)
        self.stage("Travel")
        self.page.get_by_role("button", name="Space", exact=True).click()
        self.page.get_by_label(re.compile("in space: drag to turn")).wait_for()
        self.page.get_by_role("button", name="Views", exact=True).click()
        self.page.get_by_label("Suspension: side view, plan and end view").wait_for()
