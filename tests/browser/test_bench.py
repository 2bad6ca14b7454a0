"""The bench itself: travel, margins, undo, keeping work, light, and smaller screens."""

from playwright.sync_api import expect

from nodulant_server.models import DesignRevision, Draft, Job
from tests.browser.base import Bench


class Travel(Bench):
    def test_the_bar_moves_the_axle_and_tells_the_clearance(self):
        self.open("Cut")
        bar = self.page.get_by_label("Axle travel")
        tube = self.page.locator('[data-part="axle-tube"] circle').last
        before = float(tube.get_attribute("cy"))
        for _ in range(4):
            self.page.keyboard.press("}")
        self.assertEqual(bar.input_value(), "40")
        self.assertLess(float(tube.get_attribute("cy")), before)
        self.page.get_by_text('1 9/16" bump').first.wait_for()
        self.page.keyboard.press("[")
        self.assertEqual(bar.input_value(), "38")
        self.page.get_by_text("touches").wait_for()

    def test_no_request_while_scrubbing(self):
        self.open("Cut")
        asked = []
        self.page.on("request", lambda r: asked.append(r.url))
        for _ in range(10):
            self.page.keyboard.press("]")
        self.page.wait_for_timeout(300)
        self.assertEqual([u for u in asked if "/evaluate" in u], [])


class Margins(Bench):
    def test_a_row_opens_to_its_why_and_goes_to_its_place(self):
        self.open("Cut")
        row = self.margin("Rail over the rear axle, bending, bottom fibre")
        row.click()
        why = (
            self.page.get_by_label("Margins")
            .locator("li")
            .filter(has_text="Rail over the rear axle, bending, bottom fibre")
            .first
        )
        why.get_by_text("state / stock =").wait_for()
        text = why.inner_text()
        for word in (
            "with state =",
            "Governs:",
            "behind the front axle",
            "section against stock's",
            "A thicker or straight liner",
        ):
            self.assertIn(word, text)

    def test_the_strip_shows_the_load_case_of_the_row_that_was_opened(self):
        self.open("Cut")
        chosen, strip = self.page.get_by_label("Load case", exact=True), self.page.get_by_label("Strength strip")
        self.assertEqual(chosen.input_value(), "bump")
        for title, case in (("braking, 1 g", "brake"), ("kerb strike, front wheel", "kerb-front")):
            self.margin(title).click()
            expect(chosen).to_have_value(case)
            expect(strip.get_by_text("worked, of yield/1.5")).to_be_visible()
        # a row that is worst in no case leaves it as it was
        self.margin("Rail over the rear axle, bending, bottom fibre").click()
        expect(chosen).to_have_value("kerb-front")

    def test_a_limit_is_changed_with_a_reason_only(self):
        self.open("Target")
        row = self.margin("Moving metal to fixed metal")
        row.click()
        item = self.page.get_by_label("Margins").locator("li").filter(has_text="Moving metal to fixed metal").first
        item.get_by_role("button", name="Change this limit").click()
        use = item.get_by_role("button", name="Use it")
        self.assertTrue(use.is_disabled())
        field = item.get_by_label("Your limit", exact=True)
        field.fill("30 mm")
        field.press("Enter")
        item.get_by_label("Reason").fill("rubber stop in the way")
        with self.evaluated():
            use.click()
        expect(self.margin("Moving metal to fixed metal")).to_contain_text("fails")
        self.page.get_by_text("rubber stop in the way").first.wait_for()

    def test_filter_by_stage_and_change_marks(self):
        self.open("Cut")
        with self.evaluated():
            self.type_in("Depth", "2 3/4")
        expect(self.margin("Rail over the rear axle, bending, bottom fibre")).to_contain_text("worse")
        self.page.get_by_label("Checks of").select_option("target")
        self.assertEqual(self.page.get_by_label("Margins").get_by_text("bending, bottom fibre").count(), 0)


class Keeping(Bench):
    """Nothing is lost."""

    def depth(self):
        return self.page.get_by_label("Depth", exact=True)

    def test_undo_redo_and_a_reload(self):
        self.open("Cut")
        for text in ("2 1/8", "2"):
            with self.evaluated():
                self.type_in("Depth", text)
        with self.evaluated():
            self.page.get_by_role("button", name="Undo").click()
        self.assertEqual(self.depth().input_value(), "2 1/8")
        with self.evaluated():
            self.page.get_by_role("button", name="Redo").click()
        self.assertEqual(self.depth().input_value(), "2")
        self.kept()
        self.page.reload()
        self.depth().wait_for()
        self.assertEqual(self.depth().input_value(), "2")
        self.assertEqual(Draft.objects.count(), 1)
        self.assertEqual(DesignRevision.objects.filter(option__key="arc").count(), 1)

    def test_a_drag_is_one_undo_and_escape_puts_it_back(self):
        self.open("Cut")
        before = self.depth().input_value()
        with self.evaluated():
            self.drag("axle-notch/depth", 0, -12)
        self.assertNotEqual(self.depth().input_value(), before)
        with self.evaluated():
            self.page.keyboard.press("Control+z")
        self.assertEqual(self.depth().input_value(), before)

    def test_leaving_a_stage_cuts_a_revision(self):
        self.open("Cut")
        with self.evaluated():
            self.type_in("Depth", "2")
        self.stage("Target")
        self.page.get_by_role("status").filter(has_text="revision 2").wait_for()
        self.assertEqual(DesignRevision.objects.filter(option__key="arc").count(), 2)

    def test_two_tablets_on_one_job(self):
        """The slower one keeps its work as an option and is told."""
        self.open("Cut")
        other = self.watch(self.context.new_page())
        self.open("Cut", other)
        with self.evaluated():
            self.type_in("Depth", "2")
        with self.evaluated(other):
            self.type_in("Depth", "1 3/4", other)
        self.page.get_by_role("button", name="Save revision").click()
        self.page.get_by_role("status").filter(has_text="revision 2").wait_for()
        other.get_by_role("button", name="Save revision").click()
        other.get_by_role("status").filter(has_text="Someone saved before you").wait_for()
        other.get_by_label("Depth", exact=True).wait_for()
        expect(other.get_by_label("Option").locator("option")).to_have_count(4)
        expect(other.get_by_label("Option").locator("option:checked")).to_contain_text("copy")
        self.assertEqual(self.job.surveys.count(), 1, "nobody touched the survey")
        self.assertEqual(other.get_by_label("Depth", exact=True).input_value(), "1 3/4")


class People(Bench):
    def become(self, name):
        self.page.get_by_label("Person").select_option(name)
        expect(self.page.get_by_label("Person")).to_have_value(name)

    def test_a_helper_signs_but_does_not_design(self):
        self.open()
        self.become("bram")
        self.stage("Cut")
        self.assertFalse(self.page.get_by_label("Depth", exact=True).is_editable())
        self.assertEqual(self.page.get_by_role("button", name="Save revision").count(), 0)
        self.stage("Build")
        with self.evaluated():
            self.page.get_by_role("button", name="Sign the hold point").click()
        self.page.get_by_text("1 of 34 steps done").wait_for()

    def test_a_reader_looks(self):
        self.open()
        self.become("inspector")
        self.stage("Build")
        self.page.get_by_text("A reader looks").wait_for()
        self.stage("Prove")
        self.assertEqual(self.page.get_by_role("textbox").count(), 0)

    def test_signing_out_asks_to_sign_in(self):
        self.open()
        self.page.get_by_label("Person").select_option("")
        self.page.get_by_role("heading", name="Nodulant").wait_for()
        self.page.get_by_role("button", name="ada, owner").click()
        self.page.get_by_label("Sheet: side elevation above plan").wait_for()


class Locked(Bench):
    def test_a_missing_reading_locks_teardown_until_a_reason_is_given(self):
        self.open("Survey")
        with self.evaluated():
            self.type_in("Pinion, nose up", "")
        self.page.get_by_text("Teardown is locked.").first.wait_for()
        self.margin("Readings taken before teardown").wait_for()
        self.page.get_by_label("Release all the same, because").fill("axle is already out")
        with self.evaluated():
            self.page.get_by_role("button", name="Release and log the reason").click()
        self.page.get_by_text("Released with a reason.").wait_for()

    def test_not_computed_points_at_the_missing_input(self):
        self.open("Survey")
        with self.evaluated():
            self.type_in("Tube to rail, left", "")
        rows = self.page.get_by_label("Margins").get_by_role("button").filter(has_text="not computed")
        rows.filter(has_text="left").first.click()
        self.page.get_by_role("button", name="rear, tube gap left").first.click()
        expect(self.page.locator('[data-field="/survey/rear/tube_gap_left_mm"]')).to_be_focused()

    def test_every_missing_input_leads_to_its_own_field(self):
        """Rails that nobody measured, a steel that nobody knows, masses that are not there: each by its name."""
        self.job = Job.objects.get(name__startswith="Ostrand")
        self.open("Travel")
        margins = self.page.get_by_label("Margins")
        for row, name, field in (
            ("Kerb strike", "masses on the frame", "/survey/masses"),
            ("Carbon equivalent (right)", "right rail, steel", "/survey/rails/right/steel_id"),
            ("strengths (right)", "right rail, station 2, wall", "/survey/rails/right/stations/1/wall_mm"),
            ("pressure at ride height", "seats of the springs", "/survey/seats"),
        ):
            self.stage("Travel")
            head = margins.get_by_role("button").filter(has_text="not computed").filter(has_text=row).first
            if head.get_attribute("aria-expanded") == "false":
                head.click()
            margins.get_by_role("button", name=name, exact=True).first.click()
            expect(self.page.locator(f'[data-field="{field}"]').first).to_be_focused()
            head.click()

    def test_what_waits_for_an_axles_push_leads_to_where_links_are_said(self):
        self.open("Survey")
        self.page.get_by_role("tab", name="Masses and seats").click()
        links = self.page.get_by_role("region", name="Links that push on the rails")
        with self.evaluated():
            links.get_by_role("button", name="Leave it out").click()
        self.page.get_by_role("tab", name="Features").click()
        margins = self.page.get_by_label("Margins")
        margins.get_by_role("button").filter(has_text="Kerb strike").filter(has_text="not computed").first.click()
        expect(margins).to_contain_text("The rear axle stands on one seat a side")
        margins.get_by_role("button", name="where links push on the rails").first.click()
        expect(links).to_be_focused()
        for there in (links.get_by_role("button", name="Add links"), self.page.get_by_role("button", name="Undo")):
            expect(there).to_be_in_viewport()
        with self.evaluated():
            links.get_by_role("button", name="Add links").click()
        links.get_by_role("button", name="Add links").click()
        self.assertEqual([a.input_value() for a in links.get_by_label("Axle", exact=True).all()], ["rear", "front"])


class Small(Bench):
    size = {"width": 1024, "height": 768}
    scheme = "dark"

    def test_on_a_tablet_the_margins_are_a_drawer(self):
        self.open("Cut")
        self.assertFalse(self.page.get_by_label("Margins", exact=True).is_visible())
        self.page.get_by_role("button", name="Margins:").click()
        self.page.get_by_label("Margins", exact=True).wait_for()
        self.assertTrue(self.page.evaluate("document.documentElement.scrollWidth <= innerWidth"))


class Phone(Bench):
    size = {"width": 390, "height": 844}

    def test_steps_and_readings_can_be_worked_on_a_phone(self):
        self.open("Build")
        with self.evaluated():
            self.page.get_by_role("button", name="Sign the hold point").click()
        self.stage("Prove")
        with self.evaluated():
            self.type_in("Depth of the cut, left, measured", "58 mm")
        self.assertTrue(self.page.evaluate("document.documentElement.scrollWidth <= innerWidth + 1"))


OVERLAPS = """
() => {
  const out = [];
  for (const svg of document.querySelectorAll('svg')) {
    const frame = svg.getBoundingClientRect();
    if (frame.width < 150) continue;
    const texts = [...svg.querySelectorAll('text')]
      .filter((e) => e.checkVisibility() && e.textContent.trim())
      .map((e) => [e.textContent.trim(), e.getBoundingClientRect()])
      .filter(([, r]) => r.right > frame.left && r.left < frame.right && r.bottom > frame.top && r.top < frame.bottom);
    texts.forEach(([one, a], i) => texts.slice(i + 1).forEach(([other, b]) => {
      const wide = Math.min(a.right, b.right) - Math.max(a.left, b.left);
      const high = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top);
      if (wide > 1 && high > 3) out.push(`${one} | ${other}`);
    }));
    // bolts and cut lines: no point of their edge lies inside a name
    for (const line of svg.querySelectorAll('[data-line=CUT], [data-line=HOLE]')) {
      const on = line.getScreenCTM(), length = line.getTotalLength();
      if (!length) continue;
      const steps = Math.min(Math.ceil(length), 1500);
      const points = Array.from({length: steps + 1}, (_, i) => line.getPointAtLength(length * i / steps).matrixTransform(on));
      for (const [one, r] of texts)
        if (points.some((p) => p.x > r.left + 1 && p.x < r.right - 1 && p.y > r.top + 3 && p.y < r.bottom - 3))
          out.push(`${one} | ${line.dataset.line.toLowerCase()} line`);
    }
  }
  return out;
}
"""


class Labels(Bench):
    """Names on drawings stay clear of each other, whatever is open."""

    def no_overlaps(self, width, height):
        self.page.set_viewport_size({"width": width, "height": height})
        found = {}
        for option in ("Arc notch and coilovers", "Step, narrowed front, raised pocket"):
            self.page.get_by_role("combobox", name="Option").select_option(label=option)
            for stage in ("Survey", "Cut", "Travel", "Steering", "Patterns", "Prove"):
                self.stage(stage)
                self.page.wait_for_timeout(900)
                found[f"{option}, {stage}"] = self.page.evaluate(OVERLAPS)
        self.assertEqual({place: rows for place, rows in found.items() if rows}, {})

    def test_no_name_lies_over_another_at_1280(self):
        self.open("Cut")
        self.no_overlaps(1280, 800)

    def test_no_name_lies_over_another_at_1024(self):
        self.open("Cut")
        self.no_overlaps(1024, 768)

    def test_what_is_marked_off_is_drawn_with_its_dimensions(self):
        self.open("Cut")
        depth = self.page.locator("[data-dimensions] text").filter(has_text='2 5/16" ±')
        depth.wait_for()
        self.page.get_by_role("button", name="Patterns").click()
        self.page.locator("[data-dimensions] text").filter(has_text="R 2 3/8").wait_for()
