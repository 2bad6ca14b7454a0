"""The floor on a phone: a thumb in a glove, no network, a clock that jumps, somebody else who was first."""

import io
import re

from PIL import Image
from playwright.sync_api import expect

from nodulant_server.actions.log import append
from nodulant_server.models import Attachment, LogEntry
from nodulant_server.roles import acting_as
from tests.browser.base import Bench
from tests.browser.test_axe import AXE, RUN
from tests.browser.test_phone import SMALL, WIDER

READ = """
() => [...document.querySelectorAll('.floor p, .floor dt, .floor dd, .floor summary, .floor button')]
  .filter((e) => e.checkVisibility() && parseFloat(getComputedStyle(e).fontSize) < 20 && e.innerText.trim())
  .filter((e) => !e.closest('header'))
  .map((e) => e.outerHTML.slice(0, 90))
"""


def entries(kind):
    return [row.document for row in LogEntry.objects.filter(document__kind=kind).order_by("number")]


class Floor(Bench):
    size = {"width": 390, "height": 844}
    touch = True
    option = "Arc notch and coilovers"

    def floor(self, step=""):
        self.own = self.job.options.get(name=self.option)
        at = f"{self.live_server_url}/jobs/{self.job.pk}/floor?option={self.own.pk}"
        self.page.goto(f"{at}&step={step}" if step else at)
        self.page.get_by_role("article").wait_for()

    def pass_before(self, step):
        """What comes before a step is behind us, by reasons in the log."""
        steps = self.page.evaluate(f"fetch('/api/options/{self.own.pk}/floor').then((r) => r.json())")["steps"]
        ada = acting_as(self.job.owner, self.job.workshop_id)
        for s in steps[: [s["id"] for s in steps].index(step)]:
            append(ada, self.job, {"kind": "override", "subject": s["id"], "reason": "test"})

    def button(self, name):
        return self.page.get_by_role("button", name=name, exact=True)

    def title(self):
        return self.page.get_by_role("article").get_by_role("heading").inner_text()


class OneStep(Floor):
    def test_it_fits_a_phone_is_read_at_arms_length_and_worked_by_a_thumb(self):
        self.floor("axle-notch/cut/left")
        expect(self.page.get_by_text("depth of the cut", exact=True)).to_be_visible()
        expect(self.page.get_by_role("img", name=re.compile("from the side"))).to_be_visible()
        for sheet in (None, "All steps", "More", "Photo"):
            if sheet:
                self.button(sheet).click()
                self.page.get_by_role("dialog").wait_for()
            self.assertLessEqual(self.page.evaluate(WIDER), 390)
            self.assertEqual(self.page.evaluate(SMALL), [])
            self.assertEqual(self.page.evaluate(READ), [])
            if sheet:
                self.button("Back").click()

    def test_axe_finds_nothing_on_it(self):
        self.floor("axle-notch/cut/left")
        for sheet in (None, "All steps", "More", "Photo"):
            if sheet:
                self.button(sheet).click()
                self.page.get_by_role("dialog").wait_for()
            self.page.evaluate(f"() => {{ {AXE.read_text()}; }}")
            self.assertEqual(self.page.evaluate(RUN), [], sheet)
            if sheet:
                self.button("Back").click()

    def test_a_step_is_timed_and_signed_and_the_next_one_comes(self):
        self.floor()
        first = self.title()
        self.button("Start").click()
        self.page.wait_for_timeout(2200)
        expect(self.page.get_by_text(re.compile(r": 0:0[1-9]")).first).to_be_visible()
        self.button("Done").or_(self.button("Read and sign")).click()
        expect(self.page.get_by_text("It took 1 minute")).to_be_visible()
        self.button("plus 15 minutes").click()
        self.page.get_by_role("button", name=re.compile(": sign$")).click()
        expect(self.page.get_by_role("article").get_by_role("heading")).not_to_have_text(first)
        self.page.wait_for_function("() => !document.body.innerText.includes('sending')")
        self.assertEqual(entries("sign-off")[-1]["minutes"], 16)

    def test_a_reading_is_typed_with_fractions_and_an_instrument(self):
        self.floor()
        wanted = next(
            s["id"]
            for s in self.page.evaluate(f"fetch('/api/options/{self.own.pk}/floor').then((r) => r.json())")["steps"]
            if s.get("reading")
        )
        self.pass_before(wanted)
        self.floor(wanted)
        self.button("Read and sign").click()
        for key in ("2", "space", "5", "-"):
            self.button(key).click()
        self.button("Take this reading").click()
        expect(self.page.get_by_role("alert").filter(has_text=re.compile(r"\w"))).to_be_visible()
        self.button("delete").click()
        for key in ("/", "1", "6"):
            self.button(key).click()
        expect(self.page.get_by_text("against the plan")).to_be_visible()
        self.button("depth gauge").click()
        self.button("Take this reading").click()
        self.page.get_by_role("button", name=re.compile(": sign$")).click()
        self.page.wait_for_function("() => !document.body.innerText.includes('sending')")
        read = entries("reading")[-1]
        self.assertEqual((read["text"], read["instrument"]), ("2 5/16", "depth gauge"))
        self.assertAlmostEqual(read["value"], 58.7375, 3)


class WeldsAndBolts(Floor):
    def open_joints(self, step):
        self.floor(step)
        self.button("More").click()
        self.button("Welds and bolts").click()
        self.page.get_by_role("dialog").get_by_text("not written down").first.wait_for()

    def test_a_weld_is_written_down_by_who_made_it_and_passed_by_another(self):
        self.open_joints("axle-notch/cut/left")
        self.assertLessEqual(self.page.evaluate(WIDER), 390)
        self.assertEqual(self.page.evaluate(SMALL), [])
        self.button("Write it down").first.click()
        self.button("TIG").click()
        self.page.get_by_label("Wire or rod").fill("1.6 rod")
        # nobody passes his own weld
        expect(self.page.get_by_text("Somebody else looks at it")).to_be_visible()
        self.assertEqual(self.page.get_by_role("button", name=re.compile("looked at it$")).count(), 0)
        self.page.evaluate(f"() => {{ {AXE.read_text()}; }}")
        self.assertEqual(self.page.evaluate(RUN), [])
        self.page.get_by_label("Welded by").fill("Bram")
        self.page.get_by_role("button", name=re.compile("looked at it$")).click()
        self.page.get_by_role("dialog").get_by_role("button", name="Write it down", exact=True).last.click()
        self.page.get_by_text(re.compile("TIG, 1.6 rod, by Bram")).first.wait_for()
        told = entries("weld")[-1]
        self.assertEqual((told["process"], told["operator"], told["defect"]), ("TIG", "Bram", ""))
        self.assertTrue(told["looked_by"])

    def test_it_is_written_down_without_a_network_too(self):
        self.open_joints("axle-notch/cut/left")
        self.page.context.set_offline(True)
        self.button("Write it down").first.click()
        self.page.get_by_label("Found").fill("undercut at the toe")
        self.page.get_by_role("dialog").get_by_role("button", name="Write it down", exact=True).last.click()
        self.page.get_by_text("written here, on its way").first.wait_for()
        self.page.context.set_offline(False)
        self.page.get_by_text(re.compile("undercut at the toe: to repair")).first.wait_for()
        self.assertEqual(entries("weld")[-1]["defect"], "undercut at the toe")


class WithoutANetwork(Floor):
    def test_what_is_done_offline_is_kept_over_a_reload_of_nothing_and_sent_in_its_order(self):
        self.floor()
        self.context.set_offline(True)
        for _ in range(2):
            self.button("Done").click()
            self.page.get_by_role("button", name=re.compile(": sign$")).click()
        self.button("More").click()
        self.button("Note").click()
        self.page.get_by_label("One line").fill("rust under the hanger")
        self.button("Keep the note").click()
        expect(self.button("offline, 3 kept")).to_be_visible()
        self.assertEqual(entries("sign-off"), [])
        self.context.set_offline(False)
        self.page.wait_for_function("() => !/kept|sending/.test(document.querySelector('header').innerText)")
        signed, note = entries("sign-off"), entries("note")
        self.assertEqual((len(signed), len(note)), (2, 1))
        self.assertLessEqual(signed[0]["done_at"], note[0]["done_at"])
        self.assertLess(signed[1]["number"], note[0]["number"])

    def test_what_waits_is_there_after_the_page_was_shut(self):
        self.floor()
        self.page.route(
            "**/floor", lambda route: route.abort() if route.request.method == "POST" else route.continue_()
        )
        self.button("Done").click()
        self.page.get_by_role("button", name=re.compile(": sign$")).click()
        expect(self.button("offline, 1 kept")).to_be_visible()
        self.page.unroute("**/floor")
        self.page.close()
        self.page = self.watch(self.context.new_page())
        self.floor()
        self.page.wait_for_function("() => !/kept|sending/.test(document.querySelector('header').innerText)")
        self.assertEqual(len(entries("sign-off")), 1)

    def test_a_conflict_is_shown_and_nothing_typed_is_lost(self):
        self.floor()
        self.context.set_offline(True)
        self.button("Done").click()
        self.page.get_by_label("Note, if any").fill("done by me")
        self.page.get_by_role("button", name=re.compile(": sign$")).click()
        bram = acting_as(self.job.workshop.members.get(user__username="bram").user, self.job.workshop_id)
        append(bram, self.job, {"kind": "sign-off", "step": "teardown", "evaluated": "x"})
        self.context.set_offline(False)
        self.button("1 not taken").click()
        expect(self.page.get_by_text("signed already", exact=False)).to_be_visible()
        expect(self.page.get_by_text("done by me")).to_be_visible()
        self.button("Leave it out").click()
        expect(self.page.get_by_text("Everything is with the server.")).to_be_visible()


class OnTheStep(Floor):
    def test_a_photo_with_an_arrow_leaves_no_place_in_it(self):
        out, exif = io.BytesIO(), Image.Exif()
        exif[271] = "somebody"
        Image.new("RGB", (1200, 900), (40, 90, 140)).save(out, "JPEG", exif=exif)
        self.floor()
        self.button("Photo").click()
        chooser = self.page.get_by_label("Camera or file", exact=True).last
        chooser.set_input_files({"name": "n.txt", "mimeType": "text/plain", "buffer": b"no picture"})
        expect(self.page.get_by_text("is no picture that can be read")).to_be_visible()
        chooser.set_input_files({"name": "p.jpg", "mimeType": "image/jpeg", "buffer": out.getvalue()})
        canvas = self.page.get_by_label("The picture, to draw arrows on")
        canvas.scroll_into_view_if_needed()
        box = canvas.bounding_box()
        self.page.mouse.move(box["x"] + 40, box["y"] + 40)
        self.page.mouse.down()
        self.page.mouse.move(box["x"] + 200, box["y"] + 120, steps=5)
        self.page.mouse.up()
        self.page.get_by_label("What it shows").fill("the root")
        self.button("Keep the picture").click()
        expect(self.page.get_by_role("img", name="the root")).to_be_visible()
        kept = Image.open(io.BytesIO(bytes(Attachment.objects.get(job=self.job).content)))
        self.assertEqual((kept.size, dict(kept.getexif())), ((1200, 900), {}))
        red = sum(1 for r, g, b in kept.resize((300, 225)).getdata() if r > 180 and g < 110 and b < 90)
        self.assertGreater(red, 60, "the arrow is in it")

    def test_whoever_sees_a_danger_stops_the_job(self):
        self.floor()
        self.button("Stop").click()
        expect(self.button("Stop: nobody signs")).to_be_disabled()
        self.page.get_by_label("Why").fill("a stand sinks in")
        self.button("Stop: nobody signs").click()
        expect(self.page.get_by_text("The job is stopped:")).to_be_visible()
        expect(self.button("Done")).to_have_count(0)
        self.button("Go on").first.click()
        self.page.get_by_label("Why it may").fill("plate under it")
        self.button("It goes on").click()
        expect(self.button("Done")).to_be_visible()

    def test_one_leaves_off_and_the_next_begins_there(self):
        self.floor()
        self.button("More").click()
        self.button("End of the session: left off here").click()
        self.page.get_by_label("What the next one has to know").fill("jack under the pinion")
        self.button("Left off here").click()
        self.page.wait_for_function("() => !document.body.innerText.includes('sending')")
        self.floor()
        expect(self.page.get_by_text("jack under the pinion")).to_be_visible()

    def test_a_clock_that_is_put_forward_moves_no_timer(self):
        self.floor()
        self.button("Start").click()
        self.page.wait_for_timeout(1200)
        self.page.evaluate("() => { const now = Date.now; Date.now = () => now() + 5 * 3600 * 1000; }")
        self.page.wait_for_timeout(2300)
        expect(self.page.get_by_text(re.compile(r": 0:0\d")).first).to_be_visible()
