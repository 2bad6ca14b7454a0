"""Fronts and their steering, designed on the bench from nothing; faults found and cured."""

import re

from playwright.sync_api import expect

from nodulant_server.models import Job
from tests.browser.base import Bench


class Fronts(Bench):
    """The van's front from nothing."""

    def begin(self, layout):
        """A front suspension on the option that has none, then the Steering stage."""
        self.open("Travel")
        self.page.get_by_label("Axle", exact=True).select_option("front")
        with self.evaluated():
            self.page.get_by_role("group", name="Layouts").get_by_role("button").filter(has_text=layout).first.click()
        self.stage("Steering")
        with self.evaluated():
            self.page.get_by_role("button", name="Give the steering").click()

    def sense(self):
        return self.page.get_by_text(re.compile("^Turned right, the wheels turn (right|left)"))

    def test_wishbones_on_a_rack_from_nothing(self):
        self.begin("Double wishbone")
        expect(self.sense()).to_have_text("Turned right, the wheels turn right.")
        self.page.get_by_role("table", name="Full lock").get_by_text("Inner wheel").wait_for()
        self.page.get_by_role("button", name="Full left").click()
        self.assertEqual(self.page.get_by_label("Steer", exact=True).input_value(), "-1")
        with self.evaluated():
            self.page.get_by_label("Turned right, the rack moves").select_option("right")
        expect(self.sense()).to_have_text("Turned right, the wheels turn left: reversed.")
        self.margin("Wheels turn the way the steering wheel does").filter(has_text="fails").wait_for()

    def test_inner_and_outer_joints_are_typed_where_it_steers(self):
        self.begin("Double wishbone")
        inner = self.page.get_by_role("group", name=re.compile("^Inner joint, at the gear"))
        outer = self.page.get_by_role("group", name=re.compile("^Outer joint, on the arm"))
        toe = self.page.get_by_role("img", name="Toe, right wheel through travel").locator(
            'polyline[stroke-width="1.8"]'
        )
        for joint, text in ((inner, "30 mm"), (outer, "95 mm")):
            before = toe.get_attribute("points")
            field = joint.get_by_label("up", exact=True)
            field.fill(text)
            with self.evaluated():
                field.press("Enter")
            expect(field).to_have_value(text)
            expect(toe).not_to_have_attribute("points", before)
        # a mark on the sheet leads to its fields
        self.page.locator('[data-point="suspensions.0.layout.toe.frame@side"]').focus()
        self.page.keyboard.press("Enter")
        expect(inner.get_by_label("back", exact=True)).to_be_focused()
        field = inner.get_by_label("right", exact=True)
        field.fill("half a fathom")
        field.press("Enter")
        inner.get_by_role("alert").wait_for()
        expect(field).to_have_value("half a fathom")

    def test_a_strut_on_a_centre_link(self):
        self.begin("Strut and lower arm")
        with self.evaluated():
            self.page.get_by_label("Kind of gear").select_option("centre-link")
        expect(self.sense()).to_have_text("Turned right, the wheels turn right.")
        with self.evaluated():
            self.page.get_by_label("Idler arm", exact=True).select_option("own")
        self.page.get_by_text("Idler's pivot").wait_for()
        self.page.get_by_role("img", name="Right wheel from lock to lock", exact=True).wait_for()

    def test_a_beam_axle_with_box_and_drag_link(self):
        self.begin("Leaf springs")
        expect(self.sense()).to_have_text("Turned right, the wheels turn right.")
        self.page.get_by_role("img", name="Wheels steer by themselves through travel").wait_for()
        self.page.get_by_role("button", name="Table").click()
        row = self.page.get_by_role("table", name="Figures from lock to lock").get_by_role("row")
        row.filter(has=self.page.get_by_text("Left wheel", exact=True)).filter(has_text=" deg").wait_for()

    def test_four_ways_down_side_by_side(self):
        self.begin("Double wishbone")
        self.type_in("Lower than planned here by", "40 mm")
        self.page.get_by_role("button", name="Compare", exact=True).click()
        kept = self.page.get_by_role("table", name="What each way keeps")
        raised = kept.get_by_role("row").filter(has_text="Raised into the frame")
        expect(raised.get_by_text("kept")).to_have_count(3)
        expect(kept.get_by_role("row").filter(has_text="Lower springs").get_by_text("lost").first).to_be_visible()
        self.page.get_by_role("img", name="Camber, all ways").wait_for()

    def test_a_layout_that_does_not_steer_says_so(self):
        self.open("Travel")
        self.page.get_by_label("Axle", exact=True).select_option("front")
        with self.evaluated():
            self.page.get_by_role("group", name="Layouts").get_by_role("button").filter(
                has_text="Five rods"
            ).first.click()
        self.stage("Steering")
        self.page.get_by_text("no upright that steers").wait_for()

    def test_without_a_front_the_stage_shows_the_way(self):
        self.open("Steering")
        self.page.get_by_role("button", name="To the suspension").click()
        self.page.get_by_role("group", name="Layouts").wait_for()

    def test_keys_turn_the_wheels(self):
        self.begin("Double wishbone")
        self.page.get_by_role("button", name="Ride", exact=True).click()
        for key in ("'", "'", ";"):
            self.page.keyboard.press(key)
        self.assertEqual(float(self.page.get_by_label("Steer", exact=True).input_value()), 0.05)

    def test_wrong_input_stays_and_is_told(self):
        self.begin("Double wishbone")
        self.type_in("Stroke, middle to end", "-5")
        self.page.get_by_role("alert").filter(has_text="more than 0").first.wait_for()
        expect(self.page.get_by_label("Stroke, middle to end")).to_have_value("-5")
        with self.evaluated():
            self.type_in("Stroke, middle to end", "240 mm")
        self.margin("Steering reaches its lock").filter(has_text="fails").wait_for()
        with self.evaluated():
            self.type_in("Stroke, middle to end", "65 mm")
        self.stage("Travel")
        self.type_in("Tyre, as on its wall", "big")
        self.page.get_by_role("alert").filter(has_text="is no tyre size").first.wait_for()


class Brackmoor(Bench):
    """The wagon whose drag link does not run with its track bar."""

    def setUp(self):
        super().setUp()
        self.job = Job.objects.get(name="Brackmoor on stilts")

    def test_its_bump_steer_is_cured_with_the_finder(self):
        self.open("Steering")
        row = self.margin("Bump steer at ride height")
        row.filter(has_text="fails").wait_for()
        self.page.get_by_role("button", name="Try every cure").click()
        found = self.page.get_by_role("status").filter(has_text="over the whole travel")
        found.get_by_text("Pitman arm's end").wait_for()
        with self.evaluated():
            found.get_by_role("button", name="Use it").first.click()
        told = re.compile("Bump steer at ride height|Steer over the whole travel")
        self.margin(told).filter(has_text="holds").wait_for()
        self.kept()

    def test_a_pitman_arm_is_nudged_on_the_sheet(self):
        self.open("Steering")
        field = self.page.get_by_label("up", exact=True).nth(1)
        before = field.input_value()
        point = self.page.locator('[data-point="suspensions.0.steering.gear.box.arm_end@side"]')
        point.focus()
        with self.evaluated():
            point.press("ArrowUp")
        expect(field).not_to_have_value(before)
