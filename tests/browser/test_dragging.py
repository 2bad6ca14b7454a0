"""A hand that drags a rack's joint over a slow line: one question at a time, the newest wins, nothing is lost."""

from playwright.sync_api import expect

from tests.browser.base import Bench

JOINT = '[data-point="suspensions.1.layout.toe.frame@side"]'
HEIGHT = '[data-field="/design/suspensions/1/layout/toe/frame/z_mm"]'
OPTION = "Step, narrowed front, raised pocket"
RACK_UP_PX = 24


class Dragging(Bench):
    """The Wherry's narrowed front, its steering open."""

    def setUp(self):
        super().setUp()
        self.open()
        with self.evaluated():
            self.page.get_by_label("Option").select_option(label=OPTION)
        self.stage("Steering")
        self.point = self.page.locator(JOINT)
        self.point.wait_for()
        self.page.wait_for_timeout(400)

    def middle(self):
        box = self.point.bounding_box()
        return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2

    def take_hold(self):
        self.at = self.middle()
        self.page.mouse.move(*self.at)
        self.page.mouse.down()

    def pull(self, up):
        self.page.mouse.move(self.at[0], self.at[1] - up)

    def hold_back(self, which):
        """Questions that ``which`` picks are not answered until ``let_go``; all are written down."""
        self.asked, self.held, holding = [], [], {"on": True}

        def answer(route):
            body = route.request.post_data_json
            self.asked.append(body)
            if holding["on"] and which(body):
                self.held.append(route)
            else:
                route.continue_()

        def let_go():
            holding["on"] = False
            for route in self.held:
                route.continue_()

        self.page.route("**/api/travel", answer)
        return let_go

    def height_asked(self, body):
        return body["design"]["suspensions"][1]["layout"]["toe"]["frame"]["z_mm"]

    def field(self):
        return self.page.locator(HEIGHT)

    def test_one_question_at_a_time_and_the_newest_wins(self):
        let_go = self.hold_back(lambda body: body["glance"])
        before = self.field().input_value()
        self.take_hold()
        for k in range(1, 13):
            self.pull(RACK_UP_PX * k / 12)
        self.page.wait_for_timeout(100)
        # twelve moves, one question under way: those between are never asked
        self.assertEqual(len(self.asked), 1)
        with self.page.expect_response(lambda r: r.url.endswith("/api/travel") and r.ok):
            let_go()
        self.page.wait_for_timeout(600)
        heights = [self.height_asked(body) for body in self.asked if body["glance"]]
        self.assertEqual(len(heights), 2)
        self.assertEqual(self.asked[0]["design"]["obstacles"], [])
        self.assertLess(heights[0], heights[1])
        shown = self.field().input_value()
        self.assertNotEqual(shown, before)
        with self.evaluated():
            self.page.mouse.up()
        self.assertEqual(self.field().input_value(), shown)

    def test_what_is_let_go_is_what_is_evaluated_and_kept(self):
        self.take_hold()
        for k in range(1, 7):
            self.pull(4 * k)
        with self.page.expect_response(
            lambda r: r.url.endswith("/api/evaluate") and r.ok and not r.request.post_data_json["slim"]
        ) as whole:
            self.page.mouse.up()
        body = whole.value.request.post_data_json
        self.kept()
        kept = self.stored(self.option_id())
        self.assertAlmostEqual(kept["suspensions"][1]["layout"]["toe"]["frame"]["z_mm"], self.height_asked(body))

    def option_id(self):
        return self.job.options.get(name=OPTION).pk

    def test_escape_puts_it_back_and_leaves_no_step(self):
        before, place = self.field().input_value(), self.middle()
        undo = self.page.get_by_role("button", name="Undo")
        could = undo.is_enabled()
        self.take_hold()
        with self.page.expect_response("**/api/travel"):
            self.pull(18)
        expect(self.field()).not_to_have_value(before)
        with self.evaluated():
            self.page.keyboard.press("Escape")
        self.page.mouse.up()
        expect(self.field()).to_have_value(before)
        self.assertEqual(undo.is_enabled(), could)
        x, y = self.middle()
        self.assertAlmostEqual(x, place[0], delta=0.6)
        self.assertAlmostEqual(y, place[1], delta=0.6)

    def test_one_drag_is_one_step_back(self):
        before = self.field().input_value()
        self.take_hold()
        for k in range(1, 6):
            self.pull(4 * k)
            self.page.wait_for_timeout(30)
        with self.evaluated():
            self.page.mouse.up()
        self.assertNotEqual(self.field().input_value(), before)
        with self.evaluated():
            self.page.keyboard.press("Control+z")
        self.assertEqual(self.field().input_value(), before)

    def test_a_hand_at_rest_is_judged_and_margins_wait_until_then(self):
        margins = self.page.locator(".margins-list")
        let_go = self.hold_back(lambda body: not body["glance"])
        self.take_hold()
        with self.page.expect_response("**/api/travel"):
            self.pull(14)
        expect(margins).to_have_attribute("data-stale", "true")
        # the hand rests: the whole question is asked by itself
        for _ in range(100):
            if self.held:
                break
            self.page.wait_for_timeout(50)
        self.assertFalse(self.asked[-1]["glance"])
        expect(margins).to_have_attribute("data-stale", "true")
        let_go()
        expect(margins).to_have_attribute("data-stale", "false")
        with self.evaluated():
            self.page.mouse.up()

    def test_pulled_out_of_reach_it_says_so_and_comes_back(self):
        """So far that the rods reach their limit: told while the hand holds it, gone when it comes back."""
        self.take_hold()
        with self.page.expect_response("**/api/travel"):
            self.pull(-160)
        self.page.wait_for_timeout(300)
        self.assertNotIn("NaN", self.page.inner_text("main"))
        with self.page.expect_response("**/api/travel"):
            self.pull(6)
        expect(self.page.get_by_text("It does not move")).to_have_count(0)
        with self.evaluated():
            self.page.mouse.up()
        self.page.get_by_text("Turned right, the wheels turn right.").wait_for()

    def test_a_server_that_fails_in_the_middle_is_told_and_the_hand_goes_on(self):
        failing = {"now": True}

        def answer(route):
            if failing["now"]:
                problem = '{"type":"about:blank","title":"the shop is out","status":503,"code":"busy","problems":[]}'
                route.fulfill(status=503, content_type="application/problem+json", body=problem)
            else:
                route.continue_()

        self.page.route("**/api/travel", answer)
        before = self.field().input_value()
        self.take_hold()
        self.pull(10)
        self.page.get_by_label("Margins").get_by_role("alert").filter(has_text="the shop is out").wait_for()
        failing["now"] = False
        with self.page.expect_response(lambda r: r.url.endswith("/api/travel") and r.ok):
            self.pull(16)
        expect(self.page.get_by_label("Margins").get_by_role("alert")).to_have_count(0)
        with self.evaluated():
            self.page.mouse.up()
        self.assertNotEqual(self.field().input_value(), before)


class TravelBar(Bench):
    """The bar over the views keeps its words and its stops while a hand drags."""

    def test_which_axle_how_far_and_how_much_it_turns(self):
        self.open()
        with self.evaluated():
            self.page.get_by_label("Option").select_option(label=OPTION)
        self.stage("Steering")
        self.page.locator(JOINT).wait_for()
        steer = self.page.get_by_label("Steer", exact=True)
        travel = self.page.get_by_label("Wheel travel")
        expect(steer).to_have_attribute("aria-valuetext", "steering wheel 0 degrees to the right")
        self.page.get_by_role("button", name="Full right").click()
        degrees = int(steer.get_attribute("aria-valuetext").split()[2])
        self.assertGreater(degrees, 180)
        self.page.get_by_role("button", name="Full left").click()
        expect(steer).to_have_attribute("aria-valuetext", f"steering wheel {-degrees} degrees to the right")
        travel.fill("20")
        expect(travel).to_have_attribute("aria-valuetext", '13/16" bump')
        self.page.get_by_role("button", name="Ride", exact=True).click()
        expect(travel).to_have_attribute("aria-valuetext", "ride height")
        expect(steer).to_have_attribute("aria-valuetext", "steering wheel 0 degrees to the right")
        self.stage("Travel")
        self.page.get_by_label("Suspension", exact=True).select_option(label="rear axle")
        expect(steer).to_have_count(0)
        expect(self.page.get_by_label("Roll", exact=True)).to_be_visible()
        self.assertGreater(float(self.page.get_by_label("Roll", exact=True).get_attribute("max")), 2.0)
