"""The first hour: a table typed by halves, work typed without the network, the main job by keyboard alone."""

import io
import zipfile

import ezdxf
from playwright.sync_api import expect

from tests.browser.base import Bench


class FirstHour(Bench):
    def test_one_seat_typed_says_what_is_missing_and_offers_the_usual_answer(self):
        self.open("Survey")
        self.page.get_by_role("tab", name="Masses and seats").click()
        seats = self.page.get_by_role("region", name="Seats as surveyed")
        rows = seats.get_by_label("Axle", exact=True)
        rear = [k for k in range(rows.count()) if rows.nth(k).input_value() == "rear"]
        for k in reversed(rear[1:]):
            seats.get_by_title("Take this row out").nth(k).click()
        share = seats.get_by_label(", share").nth(rear[0])
        share.fill("0.5")
        share.press("Enter")
        seats.get_by_text("The rear shares add up to 0.50, and make 1.").wait_for()
        self.page.get_by_text("The figures below are those before this.").wait_for()
        with self.evaluated():
            seats.get_by_role("button", name="Two equal halves").click()
        seats.get_by_text("add up to").wait_for(state="detached")
        self.assertEqual(seats.get_by_label("other end, share").input_value(), "0.5")

    def test_typed_without_the_network_it_is_there_after_a_reload(self):
        self.open("Cut")
        self.context.set_offline(True)
        self.type_in("Depth", "2 1/2")
        self.page.wait_for_timeout(1500)
        self.assertEqual(self.page.get_by_label("Depth", exact=True).input_value(), "2 1/2")
        self.context.set_offline(False)
        self.page.reload()
        depth = self.page.get_by_label("Depth", exact=True)
        depth.wait_for()
        self.assertIn(depth.input_value(), ("2 1/2", '2 1/2"'))

    def test_a_hub_height_from_the_floor_is_caught_and_told_from_the_datum(self):
        self.open("Survey")
        rear = self.page.get_by_role("region", name="Rear axle at ride height")
        for end in ("left", "right"):
            field = rear.get_by_label(f"Hub height, {end}", exact=True)
            field.fill("13 1/2")
            field.press("Enter")
        rear.get_by_text("That reads like a height from the floor").wait_for()
        rear.get_by_role("button", name="Read from the floor").click()
        with self.evaluated():
            plane = rear.get_by_label("Datum plane above the floor")
            plane.fill("19 1/2")
            plane.press("Enter")
        self.assertEqual(rear.get_by_label("Hub height, left", exact=True).input_value(), '-6"')
        self.assertEqual(rear.get_by_label("Hub above the floor, left").input_value(), '13 1/2"')
        rear.get_by_text("That reads like").wait_for(state="detached")

    def test_every_dxf_in_one_zip_in_inches(self):
        self.open("Patterns")
        self.page.get_by_label("DXF drawn in").select_option("in")
        with self.page.expect_download() as download:
            self.page.get_by_role("button", name="Every DXF, zipped").click()
        archive = zipfile.ZipFile(io.BytesIO(download.value.path().read_bytes()))
        self.assertEqual(len(archive.namelist()), len(set(archive.namelist())))
        name = next(n for n in archive.namelist() if "Outer-side-plate-L-" in n)
        drawing = ezdxf.read(io.StringIO(archive.read(name).decode()))
        self.assertEqual(drawing.units, ezdxf.units.IN)
        points = [p for line in drawing.modelspace().query('LWPOLYLINE[layer=="CUT"]') for p in line.get_points("xy")]
        self.assertAlmostEqual(max(x for x, _ in points), 500 / 25.4, delta=0.01)

    def test_the_main_job_by_keyboard_alone(self):
        """From the list of jobs to a deeper notch, a saved revision and its pattern, without a mouse."""
        page, keys = self.page, self.page.keyboard
        page.goto(self.live_server_url)
        link = page.get_by_role("link", name="Wherry")
        link.wait_for()
        for _ in range(40):
            keys.press("Tab")
            if link.evaluate("(e) => e === document.activeElement"):
                break
        keys.press("Enter")
        page.get_by_label("Sheet: side elevation above plan").wait_for()
        keys.press("Control+k")
        page.get_by_placeholder("a stage, a field").wait_for()
        keys.type("depth arc notch")
        page.locator("[cmdk-item][data-selected=true]").filter(has_text="Depth").wait_for()
        keys.press("Enter")
        page.wait_for_function("() => document.activeElement?.dataset.field?.endsWith('/depth_mm')")
        keys.press("Control+a")
        with self.evaluated():
            keys.type("2 1/2")
            keys.press("Enter")
        keys.press("Control+s")
        page.get_by_role("status").filter(has_text="revision 2").wait_for()
        keys.press("Control+k")
        page.get_by_placeholder("a stage, a field").wait_for()
        keys.type("patterns")
        page.locator("[cmdk-item][data-selected=true]").filter(has_text="Patterns").wait_for()
        keys.press("Enter")
        page.get_by_role("region", name="Patterns", exact=True).wait_for()


class Beginning(Bench):
    def test_a_first_reading_that_cannot_be_is_told_at_its_field_in_the_tape_s_unit(self):
        page = self.page
        page.goto(self.live_server_url)
        for label, text in (("New job", ""), ("Vehicle", "van"), ("C Wall", "3"), ("A Rail height", "abc")):
            page.get_by_label(label, exact=False).first.fill(text)
        page.get_by_label("Wanted drop").fill("4")
        begin = page.get_by_role("button", name="Begin", exact=True)
        begin.click()
        height = page.get_by_label("A Rail height")
        expect(height).to_be_focused()  # nothing is begun without what was typed
        height.fill("5")
        begin.click()
        page.get_by_text('this is too large: 3". Give 1.575" or less.').wait_for()
        page.get_by_text("this text is too short").wait_for()
        self.assertNotIn("/start/", page.inner_text("body"))
        page.get_by_label("C Wall").fill("3/16")
        page.get_by_label("New job").fill("Blue van")
        begin.click()
        page.get_by_role("heading", name="Survey").wait_for()
        self.assertEqual(page.get_by_label("Station 1, height", exact=True).input_value(), '5"')

    def test_a_job_about_the_front_offers_the_front_everywhere(self):
        page = self.page
        page.goto(self.live_server_url)
        page.get_by_label("New job").fill("Front")
        page.get_by_label("Vehicle").fill("van")
        page.get_by_label("Work on the axle").select_option(label="front")
        page.get_by_role("button", name="Begin", exact=True).click()
        page.get_by_role("heading", name="Survey").wait_for()
        expect(page.get_by_label("Work on the axle")).to_have_value("front")
        for stage in ("Target", "Travel"):
            self.stage(stage)
            expect(page.get_by_label("Axle", exact=True)).to_have_value("front")
        page.get_by_role("button", name="Double wishbone").click()
        page.get_by_text("a reading of the survey is missing: front hub height, left").first.wait_for()


class ForcedColours(Bench):
    def test_what_is_open_keeps_a_mark_of_its_own(self):
        self.page.emulate_media(forced_colors="active")
        self.open("Cut")
        style = "(e) => getComputedStyle(e).outlineStyle"
        self.assertEqual(self.page.locator(".stage-head[aria-expanded=true]").evaluate(style), "solid")
        self.assertEqual(self.page.locator(".stage-head[aria-expanded=false]").first.evaluate(style), "none")


CUT_CHOICES = """
() => {
  const pen = document.createElement('canvas').getContext('2d');
  return [...document.querySelectorAll('select')].filter((s) => s.checkVisibility()).flatMap((s) => {
    const style = getComputedStyle(s);
    pen.font = `${style.fontWeight} ${style.fontSize} ${style.fontFamily}`;
    const text = s.selectedOptions[0]?.textContent ?? '';
    const room = s.clientWidth - parseFloat(style.paddingLeft) - parseFloat(style.paddingRight);
    return pen.measureText(text).width > room + 1 ? [`${s.ariaLabel ?? s.id}: ${text}`] : [];
  });
}
"""


class ChoicesWhole(Bench):
    """What is chosen can be read to its end at 1280 pixels."""

    def test_no_choice_on_any_stage_is_cut(self):
        self.open("Survey")
        cut = {}
        for stage in ("Survey", "Target", "Cut", "Travel", "Steering", "Clearance", "Patterns", "Build", "Prove"):
            self.stage(stage)
            self.page.wait_for_timeout(400)
            if rows := self.page.evaluate(CUT_CHOICES):
                cut[stage] = rows
        self.assertEqual(cut, {})
