"""Does it fit, and does it go along: tuck, bought arms, both drop stacks, the lock before the cut."""

import re

from playwright.sync_api import expect

from nodulant_server.models import Job
from tests.browser.base import Bench


class Fits(Bench):
    """The van's raised and narrowed front."""

    def open(self, stage=None, page=None):
        super().open(None, page)
        self.choose_option("Step, narrowed front, raised pocket")
        if stage:
            self.stage(stage)

    def test_the_least_tuck_is_solved_three_ways_and_taken(self):
        self.open("Survey")
        with self.evaluated():
            self.type_in("Edge from the middle", "890 mm")
        self.stage("Clearance")
        self.page.get_by_role("button", name="Solve the least tuck").click()
        table = self.page.get_by_role("table", name="Ways to tuck")
        table.wait_for(timeout=60_000)
        expect(table.get_by_role("columnheader")).to_have_count(5)
        with self.evaluated():
            self.page.get_by_role("button", name=re.compile("^Take .* in$")).first.click()
        self.page.get_by_role("button", name="Solve the least tuck").click()
        table.wait_for(timeout=60_000)
        expect(self.page.get_by_role("button", name=re.compile("^Take .* in$"))).to_have_count(0)
        self.kept()

    def test_an_arch_inside_out_is_refused_and_stays_typed(self):
        self.open("Survey")
        field = self.type_in("Rear edge", "-600 mm")
        self.page.get_by_text("the rear edge of an arch lies behind its front edge").first.wait_for()
        self.assertEqual(field.input_value(), "-600 mm")

    def test_backspacing_and_offset_are_one_wheel(self):
        self.open("Survey")
        with self.evaluated():
            self.page.get_by_label("Its face is told by").first.select_option("backspacing")
        field = self.page.get_by_label("Backspacing", exact=True)
        # half of 6 in between the seats, half an inch of lip, 45 mm of offset
        self.assertEqual(field.input_value(), '5 1/4"')
        self.page.get_by_role("button", name="Undo").click()
        self.page.get_by_label("Offset, face outward", exact=True).wait_for()

    def test_what_is_taken_out_locks_the_cut_until_a_way_out_is_said(self):
        self.open("Clearance")
        self.page.get_by_role("button", name="Fuel tank").click()
        with self.evaluated():
            self.page.get_by_role("button", name="Take it out").click()
        self.stage("Cut")
        self.page.get_by_text("The cut is locked.").wait_for()
        row = self.page.get_by_role("button", name=re.compile("^Tank"))
        expect(row).to_contain_text("not computed")
        self.stage("Build")
        self.page.get_by_text("What goes along or is in the way clears: release the cut").first.wait_for()
        self.stage("Cut")
        self.page.get_by_role("button", name=re.compile("^Tank")).click()
        self.page.get_by_label("Tank: how it is settled").fill("a smaller tank behind the axle")
        with self.evaluated():
            self.page.get_by_role("button", name="This is the way out").click()
        self.page.get_by_text("The cut is released.").wait_for()
        expect(self.page.get_by_role("button", name=re.compile("^Tank"))).to_contain_text("a smaller tank")
        self.kept()

    def test_a_bought_arm_is_laid_over_and_its_mount_moved(self):
        self.open("Travel")
        self.page.get_by_role("button", name="Front axle", exact=True).first.click()
        self.page.get_by_role("button", name="Measure the arm that is here").click()
        self.type_in("Its pivots apart", "350 mm")
        self.type_in("Ball behind the front pivot", "170 mm")
        self.page.get_by_role("button", name="Lay it over").click()
        self.page.get_by_text("All curves stay.").first.wait_for()
        with self.evaluated():
            self.page.get_by_role("button", name="Put the mounts there").first.click()
        self.assertEqual(self.page.get_by_role("group", name="Lower arm, front pivot").get_by_label("back").count(), 0)
        self.kept()
        own = next(s for s in self.draft()["suspensions"] if s["axle"] == "front")
        self.assertAlmostEqual(own["layout"]["lower_front"]["x_mm"], -180.0, places=2)

    def draft(self):
        """The design as it is kept on the server."""
        option = Job.objects.get(pk=self.job.pk).options.get(name="Step, narrowed front, raised pocket")
        return self.stored(option.pk)

    def test_both_stacks_add_up_and_show_the_rake(self):
        self.open("Target")
        heights = self.page.get_by_role("table", name="Rails above the ground")
        expect(heights.get_by_role("row").filter(has_text="planned")).to_contain_text("nose up")
        self.page.get_by_label("Axle", exact=True).select_option("front")
        keeps = self.page.get_by_role("table", name="What the stack keeps")
        expect(keeps.get_by_role("row").filter(has_text="Camber")).to_contain_text("moved by Wishbones")
        with self.evaluated():
            self.type_in("Target drop at the front axle", "180 mm")
        self.margin("Drop stack against hubs and tyres, front").filter(has_text="fails").wait_for()

    def test_a_spring_stands_where_it_stands(self):
        self.open("Travel")
        self.page.get_by_role("button", name="Front axle", exact=True).first.click()
        choice = self.page.get_by_label("Lower end stands on")
        self.assertEqual(choice.input_value(), "upper-arm")
        stands = self.page.get_by_role("table", name="Where the axle stands as loaded")
        before = stands.inner_text()
        with self.evaluated():
            choice.select_option("upright")
        expect(stands).not_to_have_text(before)


class Laid(Bench):
    def test_a_drag_link_laid_parallel_does_not_steer_at_ride_height(self):
        self.job = Job.objects.get(name="Brackmoor on stilts")
        self.open("Steering")
        self.margin("Bump steer at ride height").filter(has_text="fails").wait_for()
        self.page.get_by_role("button", name="Try every cure").click()
        laid = self.page.get_by_role("group", name="Laid parallel")
        with self.evaluated():
            laid.get_by_role("button", name="Lay it so").first.click()
        self.margin(re.compile("Bump steer at ride height|Steer over the whole travel")).click()
        self.margin("Bump steer at ride height").filter(has_text=re.compile(r"0\.0\d deg an inch")).wait_for()
        self.stage("Build")
        self.page.get_by_text("Turn it right: the wheels turn right").first.wait_for()
        self.page.get_by_text("Steering: new hardware, torque, marks").first.wait_for()
