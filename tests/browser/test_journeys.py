"""What a newcomer does, from the target to the proof, by mouse and by keyboard."""

import ezdxf

from nodulant_server.models import DesignRevision, LogEntry
from tests.browser.base import Bench


class Newcomer(Bench):
    """The whole way once; every later issue must leave it walkable."""

    def test_from_target_to_proof(self):
        page = self.page
        self.open("Target")
        with self.evaluated():
            self.type_in("Target drop at the rear axle", "2 1/2")
        self.assertEqual(page.get_by_label("Target drop at the rear axle").input_value(), "2 1/2")
        page.get_by_text('2 1/2" in all').wait_for()
        with self.evaluated():
            page.get_by_role("button", name="Cut it so").click()
        depth = page.get_by_label("Depth", exact=True)
        before = depth.input_value()
        with self.evaluated():
            self.drag("axle-notch/depth", 0, -9)
        self.assertNotEqual(depth.input_value(), before)
        page.get_by_role("button", name="Find the lightest that holds").click()
        page.get_by_role("button", name="Use this set").wait_for(timeout=90_000)
        with self.evaluated():
            page.get_by_role("button", name="Use this set").click()
        self.margin("Rail over the rear axle, bending, bottom fibre").wait_for()
        self.assertNotIn("fails", self.margin("Rail over the rear axle, bending, bottom fibre").inner_text())

        self.stage("Patterns")
        with page.expect_download() as pdf:
            page.get_by_role("button", name="PDF 1:1, all").click()
        with open(pdf.value.path(), "rb") as file:
            self.assertEqual(file.read(4), b"%PDF")
        with page.expect_download() as dxf:
            page.get_by_role("button", name="DXF", exact=True).click()
        self.assertTrue(dxf.value.suggested_filename.endswith(".dxf"))
        self.assertEqual(ezdxf.readfile(dxf.value.path()).units, ezdxf.units.MM)

        self.stage("Build")
        with self.evaluated():
            page.get_by_role("button", name="Sign the hold point").click()
        page.get_by_text("1 of", exact=False).first.wait_for()
        self.assertEqual(LogEntry.objects.get(number=1).document["by"], "ada")

        self.stage("Prove")
        planned = DesignRevision.objects.order_by("-number")[0].design().operations[1].depth_mm
        with self.evaluated():
            self.type_in("Depth of the cut, left, measured", f"{planned + 3} mm")
        cost = page.get_by_role("region", name="What it costs")
        cost.get_by_text("left").first.wait_for()
        self.assertNotIn("right", cost.inner_text())
        self.assertIn("bending, bottom fibre", cost.inner_text())
        with self.evaluated():
            page.get_by_label("Reason", exact=True).fill("margin is still there")
            page.get_by_role("button", name="Accept").click()
        page.get_by_text("accepted with a reason").wait_for()
        with page.expect_download() as report:
            page.get_by_role("button", name="Dossier, PDF").click()
        self.assertTrue(report.value.suggested_filename.startswith("dossier-"))

    def test_by_keyboard_alone(self):
        page = self.page
        self.open()
        page.keyboard.press("2")
        page.get_by_role("region", name="Target").wait_for()
        page.get_by_label("Target drop at the rear axle").focus()
        page.keyboard.press("Control+a")
        with self.evaluated():
            page.keyboard.type("2 1/2")
            page.keyboard.press("Enter")
        page.get_by_role("button", name="Cut it so").focus()
        with self.evaluated():
            page.keyboard.press("Enter")
        handle = page.locator('[data-handle="axle-notch/depth"]')
        handle.focus()
        before = float(handle.get_attribute("aria-valuenow"))
        with self.evaluated():
            page.keyboard.press("ArrowUp")
        self.assertAlmostEqual(float(handle.get_attribute("aria-valuenow")) - before, 25.4 / 16, places=4)
        with self.evaluated():
            page.keyboard.press("Shift+ArrowDown")
        self.assertAlmostEqual(float(handle.get_attribute("aria-valuenow")) - before, -7 * 25.4 / 16, places=4)
        page.keyboard.press("Enter")
        self.assertEqual(page.evaluate("document.activeElement.dataset.field"), "/design/operations/1/depth_mm")
        page.get_by_role("button", name="Find the lightest that holds").focus()
        page.keyboard.press("Enter")
        use = page.get_by_role("button", name="Use this set")
        use.wait_for(timeout=60_000)
        use.focus()
        with self.evaluated():
            page.keyboard.press("Enter")
        page.keyboard.press("Escape")
        page.get_by_label("Stages").get_by_role("button", name="Build").focus()
        page.keyboard.press("Enter")
        page.get_by_role("button", name="Sign the hold point").focus()
        with self.evaluated():
            page.keyboard.press("Enter")
        self.assertEqual(LogEntry.objects.count(), 1)
        page.get_by_label("Stages").get_by_role("button", name="Prove").focus()
        page.keyboard.press("Enter")
        page.get_by_label("Depth of the cut, left, measured").focus()
        with self.evaluated():
            page.keyboard.type("2 1/2")
            page.keyboard.press("Enter")
        self.assertEqual(LogEntry.objects.count(), 2)


class OwnJob(Bench):
    """A job of one's own, from nothing."""

    def test_a_blank_job_is_honest_and_grows(self):
        page = self.page
        page.goto(self.live_server_url)
        page.get_by_label("New job").fill("My wagon")
        page.get_by_label("Vehicle").fill("Home-built wagon")
        page.get_by_role("button", name="Begin").click()
        page.get_by_label("Sheet: side elevation above plan").wait_for()
        self.stage("Survey")
        page.get_by_text("Teardown is locked.").wait_for()
        self.assertIn("not computed", self.margin("Least of the rail's strengths").inner_text())
        self.assertEqual(
            page.get_by_label("Margins").get_by_text("holds,").count(),
            page.get_by_label("Margins").get_by_text("holds, ").count(),
        )
        for station in ("1", "2", "3"):
            with self.evaluated():
                self.type_in(f"Station {station}, wall", "3/16")
        with self.evaluated():
            self.type_in("Wheelbase, hub to hub", "98 1/2")
        self.stage("Cut")
        with self.evaluated():
            self.add_work("Notch")
        self.page.get_by_label("Margins").get_by_role("button").filter(has_text="not computed").first.wait_for()
        self.kept()
        page.reload()
        page.get_by_label("Sheet: side elevation above plan").wait_for()
        self.stage("Cut")
        self.assertEqual(page.get_by_label("Depth", exact=True).input_value(), '1 9/16"')

    def test_six_readings_give_a_first_answer_with_templates(self):
        """Fourteen fields and choices at most, from an empty page to paper."""
        page = self.page
        page.goto(self.live_server_url)
        page.get_by_label("New job").fill("First look")
        page.get_by_label("Vehicle").fill("Home-built wagon")
        page.get_by_label("Lowered by").select_option("springs")
        readings = {
            "Wanted drop": "4",
            "A Rail height": "5 1/2",
            "B Rail width": "2 1/2",
            "C Wall": "3/16",
            "D Axle tube, diameter": "3 1/4",
            "E Tube to rail, standing": "4",
        }
        for label, text in readings.items():
            page.get_by_label(label).fill(text)
        page.get_by_role("button", name="Begin").click()
        answer = page.get_by_role("region", name="First answer")
        answer.get_by_text("deep is planned over the axle, as the travel asks.").wait_for()
        self.assertIn("assumed values", answer.inner_text())
        page.get_by_label("Survey", exact=True).get_by_text("measure: Wheelbase, hub to hub").wait_for()
        # an assumed value stands in slanted ink until it is typed; the axle's line goes with it
        wheelbase = page.get_by_label("Wheelbase, hub to hub")
        self.assertEqual(wheelbase.get_attribute("aria-description"), "assumed, not measured")
        with self.evaluated():
            self.type_in("Wheelbase, hub to hub", "118")
        self.assertIsNone(wheelbase.get_attribute("aria-description"))
        page.get_by_role("tab", name="Features").click()
        self.assertEqual(page.get_by_label("rear axle line, station").input_value(), '118"')
        answer.get_by_role("button", name="Print the templates").click()
        page.get_by_text("PDF 1:1, all").wait_for()

    def test_a_job_is_renamed_thrown_away_and_brought_back_from_the_list(self):
        page = self.page
        page.goto(self.live_server_url)
        menu = page.get_by_role("button", name="Ostrand on air: rename, copy, archive")
        menu.click()
        page.get_by_role("menuitem", name="Rename").click()
        page.get_by_label("Job's name").fill("Ostrand on springs")
        page.get_by_role("button", name="Rename", exact=True).click()
        page.get_by_role("heading", name="Ostrand on springs").wait_for()
        page.get_by_role("button", name="Ostrand on springs: rename, copy, archive").click()
        page.get_by_role("menuitem", name="Delete").click()
        page.get_by_text("'Ostrand on springs' is in the trash.").wait_for()
        self.assertEqual(page.get_by_role("heading", name="Ostrand on springs").count(), 0)
        page.get_by_role("button", name="Undo").click()
        page.get_by_role("heading", name="Ostrand on springs").wait_for()
