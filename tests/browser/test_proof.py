"""Proof: a reading that cannot tell, repeats, live instruments on bench and phone, corrections, the record, practice."""

import re

from django.test import override_settings
from playwright.sync_api import expect

from nodulant.evaluate import evaluate
from nodulant.formats.jobfile import load_job
from nodulant_server.instruments.here import attached
from nodulant_server.instruments.serve import started
from nodulant_server.instruments.stand_in import scenario
from nodulant_server.models import LogEntry, PracticeRun
from tests import fixtures as f
from tests.browser.base import Bench
from tests.browser.test_phone import SMALL, WIDER

STEP = "Step, narrowed front, raised pocket"


class WithInstruments(Bench):
    def setUp(self):
        services = started(scenario(f.ROOT / "demo" / "instruments.json"))
        attached.cache_clear()
        mine = override_settings(INSTRUMENTS=" ".join(f"{name}={s.url}" for name, s in services.items()))
        mine.enable()
        self.addCleanup(attached.cache_clear)
        self.addCleanup(mine.disable)
        for service in services.values():
            self.addCleanup(service.server_close)
            self.addCleanup(service.shutdown)
        super().setUp()

    def readings(self):
        return [r.document for r in LogEntry.objects.filter(job=self.job, document__kind="reading").order_by("number")]


class OnTheBench(WithInstruments):
    def test_what_a_tape_cannot_tell_and_once_more(self):
        page = self.page
        self.open()
        self.choose_option(STEP)
        self.stage("Prove")
        self.type_in("Height of the step, underside to underside, left, measured", "76.2 mm")
        row = page.get_by_text(re.compile("tape cannot tell, one that is sure to .* would, such as a"))
        expect(row.first).to_be_visible()
        page.get_by_role("region", name="Rear step, 75 mm, readings").get_by_role(
            "button", name="read it once more"
        ).first.click()
        self.type_in("Height of the step, underside to underside, left, once more", "75.0 mm")
        expect(page.get_by_text(re.compile("holds, of 2"))).to_be_visible()
        self.assertEqual([r["again"] for r in self.readings()], [False, True])

    def test_what_is_planned_ahead_of_its_datum_is_told_and_typed_as_the_tape_reads(self):
        page = self.page
        self.open()
        self.choose_option(STEP)
        self.stage("Prove")
        rows = page.get_by_role("region", name="Rear step, 75 mm, readings")
        expect(rows.get_by_text('39 3/4" ahead')).to_be_visible()
        self.type_in("Cut line, left, measured", "39 13/16")
        expect(rows.get_by_text(re.compile(r"\+0\.049")).first).to_be_visible()
        read = self.readings()[-1]
        self.assertAlmostEqual(read["value"], -39.8125 * 25.4, delta=0.01)
        self.assertEqual(read["text"], "39 13/16 ahead")

    def test_links_are_read_solved_and_corrected(self):
        page = self.page
        self.open()
        self.choose_option(STEP)
        self.stage("Prove")
        expect(page.get_by_role("button", name="Solve what was read")).to_be_visible()
        self.type_in("Length of the rear lower link, left, measured", "674 mm")
        expect(page.get_by_text(re.compile("fails")).first).to_be_visible()
        page.get_by_role("button", name="Solve what was read").click()
        rear = page.get_by_role("group", name="As built: rear axle")
        expect(rear.get_by_text("thrust angle, to the right", exact=True)).to_be_visible()
        expect(rear.get_by_text(re.compile("lower link, left: shorter by 2 whole turns of one end"))).to_be_visible()
        expect(page.get_by_text("Does it matter?", exact=False)).to_be_visible()

    def test_an_angle_is_zeroed_settles_and_is_taken(self):
        page = self.page
        self.open()
        self.choose_option(STEP)
        self.stage("Prove")
        page.get_by_role("combobox", name="Rail").select_option(label="right rail")
        rear = page.get_by_role("region", name="Rear axle, readings", exact=True)
        rear.get_by_role("button", name="from the angle finder").click()
        expect(rear.get_by_role("alert").filter(has_text="zero it on the rail first")).to_be_visible()
        rear.get_by_role("button", name="Zero it on the rail").click()
        take = rear.get_by_role("button", name="Take it")
        expect(take).to_be_enabled()
        take.click()
        expect(rear.get_by_text(re.compile("holds"))).to_be_visible()
        self.assertEqual(self.readings()[-1]["unit"], "deg")
        self.assertAlmostEqual(self.readings()[-1]["value"], 4.1, delta=0.2)

    def test_hubs_levels_and_the_frame_each_time(self):
        page = self.page
        self.open("Prove")
        page.get_by_label("Measured", exact=True).select_option(label="after the tack")
        for side, mm in (("left", "10"), ("right", "10")):
            page.get_by_label("Level at").select_option(label=f"front axle line, {side}")
            self.type_in("Underside over the level line", f"{mm} mm")
            page.wait_for_timeout(300)
        for side, mm in (("left", "10"), ("right", "22")):
            page.get_by_label("Level at").select_option(label=f"rear axle line, {side}")
            self.type_in("Underside over the level line", f"{mm} mm")
            page.wait_for_timeout(300)
        table = page.get_by_role("table", name="The frame each time")
        expect(table.get_by_text("right up")).to_be_visible()
        page.get_by_label("From", exact=True).select_option(label="rear hub, left")
        self.type_in("Length", "nothing")
        expect(page.get_by_text("a number was expected here")).to_be_visible()

    def test_a_weld_is_written_down_and_nobody_passes_his_own(self):
        page = self.page
        self.open("Prove")
        group = page.get_by_role("region", name="Welds, bolts, paint")
        work = group.get_by_role("region").first
        work.get_by_role("button", name=re.compile(r"of \d+ done")).click()
        work.get_by_role("button", name="write").first.click()
        page.get_by_label("Looked at by somebody else").fill("ada")
        page.get_by_role("button", name="Write it down").first.click()
        expect(work.get_by_text(re.compile("looked at by ada"))).to_be_visible()
        expect(work.get_by_role("button", name=re.compile(r"^0 of \d+ done"))).to_be_visible()
        work.get_by_role("button", name="write").first.click()
        page.get_by_label("Looked at by somebody else").fill("bram")
        page.get_by_role("button", name="Write it down").first.click()
        expect(work.get_by_role("button", name=re.compile(r"^1 of \d+ done"))).to_be_visible()


class OnThePhone(WithInstruments):
    size = {"width": 390, "height": 844}
    touch = True

    def test_a_reading_by_instrument_and_one_by_thumb(self):
        page = self.page
        own = self.job.options.get(name=STEP)
        page.goto(f"{self.live_server_url}/jobs/{self.job.pk}/floor?option={own.pk}")
        page.get_by_role("button", name="More").click()
        page.get_by_role("button", name="Readings").click()
        page.get_by_role("button", name=re.compile("^Whole vehicle")).click()
        page.get_by_role("button", name="Read it").first.click()
        page.get_by_role("button", name="laser tape").click()
        over = page.get_by_role("button", name="Take it over")
        expect(over).to_be_enabled()
        over.click()
        page.get_by_role("button", name="Take this reading").click()
        expect(page.get_by_text(re.compile("read .*: (holds|cannot tell)"))).to_be_visible()
        page.get_by_role("button", name="Back").click()
        page.get_by_role("button", name=re.compile("^Front wheel")).click()
        page.get_by_text(re.compile("Front camber, top outward, left")).locator("..").get_by_role(
            "button", name="Read it"
        ).click()
        for key in ("-", "0", ".", "5"):
            page.get_by_role("button", name=key, exact=True).click()
        page.get_by_role("button", name="Take this reading").click()
        expect(page.get_by_text(re.compile("camber.*read -0.5: (holds|cannot tell)"))).to_be_visible()
        page.get_by_role("button", name="Back").click()
        page.get_by_role("button", name="Frame by tape and level").click()
        page.get_by_role("button", name="after the tack").click()
        page.get_by_role("button", name="A length").click()
        page.get_by_role("button", name="front axle line, left").click()
        page.get_by_role("button", name="front axle line, right").click()
        for key in ("7", "6", "0"):
            page.get_by_role("button", name=key, exact=True).click()
        page.get_by_role("button", name="Take this reading").click()
        page.get_by_role("button", name="A level").wait_for()
        taped = LogEntry.objects.filter(job=self.job, document__kind="length")
        for _ in range(40):
            if taped.exists():
                break
            page.wait_for_timeout(250)
        self.assertEqual([r.document["when"] for r in taped], ["tacked"])
        kinds = {(r["unit"], r["instrument"]) for r in self.readings()}
        self.assertIn(("mm", "laser tape"), kinds)
        self.assertTrue(any(unit == "deg" for unit, _ in kinds))


class TheWherryByPhone(WithInstruments):
    size = {"width": 390, "height": 844}
    touch = True
    logged = True

    def test_the_wrong_length_is_found_and_taped_and_a_long_link_is_corrected(self):
        page = self.page
        own = self.job.options.get(name=STEP)
        page.goto(f"{self.live_server_url}/jobs/{self.job.pk}/floor?option={own.pk}")
        page.get_by_role("button", name="More").click()
        page.get_by_role("button", name="Readings", exact=True).click()
        page.get_by_role("button", name="Frame by tape and level").click()
        wrong = page.get_by_text(re.compile("too short: tape it again"))
        expect(wrong).to_be_visible()
        wrong.locator("..").get_by_role("button", name="Tape it").click()
        demo = evaluate(load_job(f.DEMO.read_bytes()).inputs("step"))
        self.take(next(r.planned_mm for r in demo.taped.lengths if r.entry == demo.taped.left_out))
        expect(page.get_by_text(re.compile("did not fit and was taped again"))).to_be_visible()
        expect(page.get_by_text(re.compile("tape it again"))).to_have_count(0)
        self.page.get_by_role("button", name="Back").click()
        link = next(r for r in demo.readings if r.id == "rear-links/lower-length/left")
        page.get_by_role("button", name=re.compile(f"^{link.about}")).click()
        page.get_by_text(re.compile(f"^{link.spec.name}, left")).locator("..").get_by_role("button").first.click()
        self.take(link.spec.planned + 3.0)
        expect(page.get_by_text(re.compile(f"^{link.spec.name}, left.*read .*: fails"))).to_be_visible()
        page.get_by_role("button", name="Back").click()
        page.get_by_role("button", name="What corrects it").click()
        rear = page.get_by_role("group", name="rear axle")
        expect(rear.get_by_text(re.compile("lower link, left: shorter by 2 whole turns of one end"))).to_be_visible()
        self.assertLessEqual(page.evaluate(WIDER), 390)
        self.assertEqual(page.evaluate(SMALL), [])

    def take(self, mm):
        for key in f"{mm / 25.4:.2f}":
            self.page.get_by_role("button", name=key, exact=True).click()
        self.page.get_by_role("button", name="Take this reading").click()


class Practice(Bench):
    def test_a_job_is_begun_helped_with_and_found(self):
        page = self.page
        page.goto(self.live_server_url)
        page.get_by_role("link", name="Practice", exact=True).click()
        page.get_by_role("button", name="A new practice job").click()
        own = page.get_by_role("region", name="Practice 1")
        own.get_by_role("button", name=re.compile("a hint")).click()
        expect(own.get_by_text("Hint 1:", exact=False)).to_be_visible()
        run = PracticeRun.objects.get()
        own.get_by_label("What is wrong").select_option(value=run.fault)
        own.get_by_role("button", name="That is it").click()
        expect(own.get_by_text("found, 85 points")).to_be_visible()
        own.get_by_role("link", name="Practice 1").click()
        page.get_by_label("Sheet: side elevation above plan").wait_for()
