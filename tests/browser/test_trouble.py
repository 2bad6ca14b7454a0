"""When the shop's network fails, a session ends, or a finger drags: nothing is lost, and it says so."""

from django.contrib.sessions.models import Session
from playwright.sync_api import expect

from nodulant_server.models import DesignRevision, Draft
from tests.browser.base import Bench


class Offline(Bench):
    def test_work_goes_on_is_kept_here_and_is_saved_when_the_server_is_back(self):
        self.open("Cut")
        handle = self.page.locator('[data-handle="axle-notch/depth"]')
        handle.focus()
        self.context.set_offline(True)
        self.page.keyboard.press("ArrowUp")
        self.page.get_by_role("status").filter(
            has_text="the server cannot be reached; your work is kept here"
        ).wait_for()
        expect(self.page.get_by_label("Depth", exact=True)).to_have_value('2 3/8"')
        self.assertEqual(Draft.objects.count(), 0)
        self.context.set_offline(False)
        with self.evaluated():
            self.page.keyboard.press("ArrowUp")
        self.kept()
        self.assertEqual(Draft.objects.count(), 1)
        expect(self.page.get_by_label("Depth", exact=True)).to_have_value('2 7/16"')

    def test_what_this_browser_kept_comes_back_after_a_reload(self):
        self.open("Cut")
        handle = self.page.locator('[data-handle="axle-notch/depth"]')
        handle.focus()
        self.context.set_offline(True)
        self.page.keyboard.press("Shift+ArrowDown")
        self.page.get_by_role("status").filter(has_text="kept here").wait_for()
        self.context.set_offline(False)
        self.open("Cut")
        expect(self.page.get_by_label("Depth", exact=True)).to_have_value('1 13/16"')

    def test_typed_without_the_server_it_is_judged_and_sent_when_the_network_is_back(self):
        self.open("Cut")
        self.context.set_offline(True)
        field = self.type_in("Depth", "2 1/4")
        self.page.get_by_role("alert").filter(has_text="the server cannot be reached").first.wait_for()
        self.page.get_by_role("status").filter(has_text="kept here").wait_for()
        self.assertEqual(field.input_value(), "2 1/4")
        with self.evaluated():
            self.context.set_offline(False)
        self.kept()
        self.assertEqual(Draft.objects.count(), 1)
        expect(field).to_have_value("2 1/4")

    def test_an_answer_that_breaks_in_the_middle_is_none_and_the_next_change_is_judged(self):
        self.open("Cut")
        broken = []

        def answer(route):
            broken.append(route.request)
            if len(broken) == 1:
                route.fulfill(status=200, content_type="application/json", body='{"checks": [')
            else:
                route.continue_()

        self.page.route("**/api/evaluate", answer)
        self.type_in("Depth", "2 1/4")
        self.page.get_by_role("alert").filter(has_text="the server cannot be reached").first.wait_for()
        with self.evaluated():
            self.type_in("Depth", "2 1/2")
        expect(self.page.get_by_role("alert").filter(has_text="cannot be reached")).to_have_count(0)
        expect(self.page.get_by_label("Depth", exact=True)).to_have_value("2 1/2")


class Ended(Bench):
    def test_a_session_that_ended_says_sign_in_and_keeps_the_work(self):
        self.open("Cut")
        with self.settings(DEMO=False):
            Session.objects.all().delete()
            self.context.clear_cookies()
            handle = self.page.locator('[data-handle="axle-notch/depth"]')
            handle.focus()
            self.page.keyboard.press("ArrowUp")
            self.page.get_by_role("status").filter(has_text="not kept").wait_for()
            expect(self.page.get_by_label("Depth", exact=True)).to_have_value('2 3/8"')
        self.open("Cut")
        expect(self.page.get_by_label("Depth", exact=True)).to_have_value('2 3/8"')
        self.assertEqual(DesignRevision.objects.filter(option__key="arc").count(), 1)


class Unknown(Bench):
    def test_a_job_that_is_not_there(self):
        self.page.goto(f"{self.live_server_url}/jobs/4711")
        self.page.get_by_text("there is no such thing").wait_for()

    def test_an_option_that_is_not_there_opens_the_first(self):
        self.page.goto(f"{self.live_server_url}/jobs/{self.job.pk}?option=4711")
        self.page.get_by_label("Sheet: side elevation above plan").wait_for()
        expect(self.page.get_by_label("Option").locator("option:checked")).to_have_text("Arc notch and coilovers")


class Touch(Bench):
    """Gloves half on: a finger drags a handle on a tablet."""

    size = {"width": 1024, "height": 768}
    touch = True

    def test_a_finger_moves_the_notch(self):
        self.open("Cut")
        box = self.page.locator('[data-handle="axle-notch/depth"]').bounding_box()
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        self.assertGreaterEqual(min(box["width"], box["height"]), 43.9, "a target for a finger")
        devtools = self.context.new_cdp_session(self.page)
        point = [{"x": x, "y": y}]
        devtools.send("Input.dispatchTouchEvent", {"type": "touchStart", "touchPoints": point})
        for i in range(1, 7):
            devtools.send("Input.dispatchTouchEvent", {"type": "touchMove", "touchPoints": [{"x": x, "y": y - 3 * i}]})
        with self.evaluated():
            devtools.send("Input.dispatchTouchEvent", {"type": "touchEnd", "touchPoints": []})
        self.assertNotEqual(self.page.get_by_label("Depth", exact=True).input_value(), '2 5/16"')

    def test_two_fingers_pinch_and_one_pans(self):
        self.open("Cut")
        handle = self.page.locator('[data-handle="axle-notch/outer"]')
        centre = self.page.locator('[data-handle="axle-notch/centre"]')
        sheet = self.page.get_by_label("Sheet: side elevation above plan").bounding_box()
        y, x = sheet["y"] + sheet["height"] - 40, sheet["x"] + sheet["width"] / 2
        devtools = self.context.new_cdp_session(self.page)

        def touch(kind, *places):
            points = [{"x": place, "y": y, "id": i} for i, place in enumerate(places)]
            devtools.send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": points})

        def reach():
            return handle.bounding_box()["x"] - centre.bounding_box()["x"]

        before = reach()
        touch("touchStart", x - 40, x + 40)
        for i in range(1, 6):
            touch("touchMove", x - 40 - 8 * i, x + 40 + 8 * i)
        touch("touchEnd")
        self.page.wait_for_timeout(200)
        self.assertGreater(reach(), 1.5 * before)
        place = centre.bounding_box()["x"]
        touch("touchStart", x)
        for i in range(1, 6):
            touch("touchMove", x - 10 * i)
        touch("touchEnd")
        self.page.wait_for_timeout(200)
        self.assertAlmostEqual(centre.bounding_box()["x"], place - 50, delta=12)
