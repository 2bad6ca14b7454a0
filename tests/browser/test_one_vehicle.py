"""One vehicle: a subframe carries what rides with it, points are taped, what is bought is picked, stale answers are refused."""

from playwright.sync_api import expect

from tests.browser.base import Bench


class OneVehicle(Bench):
    def test_a_subframe_from_the_list_with_points_of_its_own(self):
        self.open("Cut")
        with self.evaluated():
            self.add_work("everything on it as one part")
        self.page.get_by_role("button", name="Subframe").filter(has_text="rail to rail").wait_for()
        points = self.page.get_by_role("region", name="Points on it")
        with self.evaluated():
            points.get_by_role("button", name="Add one").click()
        points.get_by_role("button", name="Take “point” out").wait_for()
        with self.evaluated():
            self.type_in("Goes up by", "2 in")
        self.margin("Subframe's face away from the rail").filter(has_text="fails").wait_for()
        self.kept()
        self.page.reload()
        self.page.get_by_label("Sheet: side elevation above plan").wait_for()
        self.stage("Cut")
        self.page.get_by_role("button", name="Subframe").filter(has_text="rail to rail").click()
        expect(self.page.get_by_label("Goes up by", exact=True)).to_have_value("2 in")
        self.stage("Build")
        for title in ("Marks that survive", "Lower it out", "Prove its points"):
            self.page.get_by_text(title).first.wait_for()

    def test_a_hole_saw_is_picked_from_the_list(self):
        self.open("Cut")
        with self.evaluated():
            self.add_work("Hole, plug or sleeve")
        with self.evaluated():
            self.page.get_by_label("Hole saw").select_option(label='2 1/2"')
        expect(self.page.get_by_label("Diameter", exact=True)).to_have_value('2 1/2"')
        self.page.get_by_label("What", exact=True).select_option("pass")
        with self.evaluated():
            self.page.get_by_label("Pipe", exact=True).select_option(label="NPS 3")
        expect(self.page.get_by_label("Diameter", exact=True)).to_have_value('3 1/2"')

    def test_a_link_s_end_goes_where_the_tape_says(self):
        self.open("Travel")
        with self.evaluated():
            layouts = self.page.get_by_role("group", name="Layouts")
            layouts.get_by_role("button").filter(has_text="Triangulated four-link").click()
        self.page.get_by_role("button", name="By tape or angle").first.click()
        asked = self.page.get_by_role("group", name="measured").first
        asked.get_by_label("Behind").fill("-20 in")
        asked.get_by_label("Behind").press("Enter")
        asked.get_by_label("Above").fill("1 in")
        asked.get_by_label("Above").press("Enter")
        with self.evaluated():
            asked.get_by_role("button", name="Put the point there").click()
        path = "/design/suspensions/0/layout/upper/frame"
        values = [self.page.locator(f'[data-field="{path}/{k}"]').input_value() for k in ("x_mm", "z_mm")]
        self.assertEqual(values, ['82 3/4"', '1"'], "2610 mm less 20 in, an inch over the rail's underside")

    def test_an_answer_about_an_older_draft_is_refused(self):
        """The core's answer is held back while the draft changes: it says so and lays nothing on it."""
        self.open("Cut")
        waiting = []
        self.page.route("**/api/operations/fresh", lambda route: waiting.append(route))
        self.page.get_by_role("button", name="Add work to the rails").click()
        group = self.page.get_by_role("group", name="Work to add")
        group.get_by_role("button").filter(has_text="Z-step").first.click()
        for _ in range(100):
            if waiting:
                break
            self.page.wait_for_timeout(50)
        with self.evaluated():
            self.type_in("Depth", "2 1/8 in")
        waiting[0].continue_()
        group.get_by_role("alert").filter(has_text="changed in the meantime").wait_for()
        self.assertEqual(self.page.get_by_role("button", name="Z-step", exact=True).count(), 0)
