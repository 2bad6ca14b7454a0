"""What the floor writes: signed late, sent twice, by a clock that jumps; photos made anew; a job that is stopped."""

import io
import uuid
from datetime import timedelta
from urllib.parse import urlencode

import segno
from django.utils import timezone
from PIL import ExifTags, Image
from reportlab.graphics.barcode.qr import QrCodeWidget

from nodulant.formats.labels_pdf import Label, labels_pdf
from nodulant_server.models import LogEntry
from tests.pdf_text import text_of
from tests.server.base import Shop

STEP = "teardown"


def picture(size=(3000, 2000), kind="JPEG", exif=True):
    """A photo with a place and a maker's note in it, lying on its side."""
    image, out = Image.new("RGB", size, (180, 60, 20)), io.BytesIO()
    data = Image.Exif()
    data[ExifTags.Base.Orientation] = 6
    data[ExifTags.Base.Make] = "somebody"
    data.get_ifd(ExifTags.IFD.GPSInfo)[ExifTags.GPS.GPSLatitude] = (51.0, 30.0, 0.0)
    image.save(out, kind, **({"exif": data} if exif else {}))
    return out.getvalue()


class Floor(Shop):
    def write(self, act, mark=None, done_at=""):
        body = {"act": act, "mark": mark or str(uuid.uuid4()), "done_at": done_at}
        return self.send("post", f"/options/{self.option.pk}/floor", body)

    def sheet(self):
        return self.send("get", f"/options/{self.option.pk}/floor")[1]

    def photo(self, content, **asked):
        asked = {"step": STEP, "mark": str(uuid.uuid4()), **asked}
        path = f"/api/options/{self.option.pk}/photos?{urlencode(asked)}"
        return self.client.post(path, content, content_type="image/jpeg")

    def override_all_before(self, id_):
        """Pass what a step waits for, so that it is open."""
        steps = {s["id"]: s for s in self.sheet()["steps"]}
        for need in steps[id_]["needs"]:
            if steps[need]["status"] in {"open", "waiting"}:
                self.override_all_before(need)
                self.write({"kind": "pass", "step": need, "reason": "test"})


class Signing(Floor):
    def open_step(self):
        return next(s for s in self.sheet()["steps"] if s["status"] == "open")

    def test_a_step_is_signed_once_however_often_it_is_sent(self):
        step, mark = self.open_step(), str(uuid.uuid4())
        act = {"kind": "sign", "step": step["id"], "minutes": 25, "note": "by two"}
        answers = [self.write(act, mark) for _ in range(3)]
        self.assertEqual([r.status_code for r, _ in answers], [200, 200, 200])
        self.assertEqual(LogEntry.objects.filter(document__step=step["id"], document__kind="sign-off").count(), 1)
        self.assertEqual({e["number"] for _, made in answers for e in made}, {answers[0][1][0]["number"]})
        entry = answers[0][1][0]
        self.assertEqual((entry["minutes"], entry["planned_minutes"]), (25, step["takes"]["minutes"]))

    def test_by_somebody_else_meanwhile_it_is_refused_and_told(self):
        step = self.open_step()
        self.become("bram")
        self.assertEqual(self.write({"kind": "sign", "step": step["id"]})[0].status_code, 200)
        self.become("ada")
        problem = self.refused(self.write({"kind": "sign", "step": step["id"]})[0], 422, "input")
        self.assertIn("signed already", problem["title"] + str(problem["problems"]))
        self.assertIn("bram", str(problem["problems"]))

    def test_a_hold_points_reading_comes_with_it_and_is_sent_twice_too(self):
        step = next(s for s in self.sheet()["steps"] if s.get("reading"))
        self.override_all_before(step["id"])
        mark = str(uuid.uuid4())
        self.refused(self.write({"kind": "sign", "step": step["id"]})[0], 422, "input")
        reading = {"value": 57.9, "text": "57.9", "instrument": "depth gauge", "resolution": 0.02}
        for _ in range(2):
            response, made = self.write({"kind": "sign", "step": step["id"], "reading": reading}, mark)
            self.assertEqual(response.status_code, 200)
            self.assertEqual({e["kind"] for e in made}, {"reading", "sign-off"})
        self.assertEqual(LogEntry.objects.filter(document__instrument="depth gauge").count(), 1)

    def test_what_is_done_on_both_sides_as_one_is_read_and_signed(self):
        """Its hold point is a reading of one side: sent as of both, no signature was ever taken."""
        self.option = self.job.options.get(key="step")
        both = [s for s in self.sheet()["steps"] if s["side"] == "both" and s.get("reading")]
        self.assertGreaterEqual(len(both), 2)
        for step in both[-2:]:
            self.override_all_before(step["id"])
            planned = step["reading"]["planned"]
            reading = {"value": planned, "text": "as planned", "instrument": "tape", "resolution": 0.5}
            response, made = self.write({"kind": "sign", "step": step["id"], "reading": reading})
            self.assertEqual(response.status_code, 200, (step["id"], response.content))
            self.assertIn(made[0]["side"], ("left", "right"))

    def test_when_it_was_done_is_kept_and_a_clock_that_cannot_be_is_said(self):
        now = timezone.now()
        for shift, clock in ((timedelta(0), ""), (timedelta(hours=3), "ahead"), (timedelta(days=-4000), "behind")):
            with self.subTest(clock or "right"):
                done = (now + shift).isoformat()
                entry = self.write({"kind": "note", "step": STEP, "text": "x"}, done_at=done)[1][0]
                self.assertEqual(entry.get("clock", ""), clock)
                self.assertEqual(entry["done_at"][:16], (now + shift).isoformat()[:16])
        for wrong in ("yesterday", "2026-13-40T00:00", "9" * 39):
            self.refused(self.write({"kind": "note", "step": STEP, "text": "x"}, done_at=wrong)[0], 422, "input")

    def test_a_reader_writes_nothing(self):
        self.become("inspector")
        self.refused(self.write({"kind": "note", "step": STEP, "text": "x"})[0], 403, "forbidden")
        self.assertEqual(self.photo(picture()).status_code, 403)


class Stopped(Floor):
    def test_nobody_signs_until_somebody_who_decides_lets_it_go_on(self):
        self.become("bram")
        stop = self.write({"kind": "stop", "step": STEP, "reason": "a stand sinks in"})[1][0]
        self.assertEqual(self.sheet()["stop"]["reason"], "a stand sinks in")
        step = next(s for s in self.sheet()["steps"] if s["status"] == "open")
        problem = self.refused(self.write({"kind": "sign", "step": step["id"]})[0], 422, "input")
        self.assertIn("a stand sinks in (bram)", str(problem["problems"]))
        self.become("ada")
        self.refused(self.write({"kind": "pass", "step": step["id"], "reason": "x"})[0], 422, "input")
        before = (timezone.datetime.fromisoformat(stop["at"]) - timedelta(minutes=2)).isoformat()
        late = self.write({"kind": "sign", "step": step["id"]}, done_at=before)[0]
        self.assertEqual(late.status_code, 200, "it was done before the stop")
        self.assertEqual(self.write({"kind": "go-on", "reason": "on a plate now"})[0].status_code, 200)
        self.assertIsNone(self.sheet().get("stop"))
        self.refused(self.write({"kind": "go-on", "reason": "again"})[0], 422, "input")

    def test_nor_is_a_step_passed_on_the_bench(self):
        self.write({"kind": "stop", "step": STEP, "reason": "smoke"})
        body = {"subject": STEP, "reason": "never mind"}
        self.refused(self.send("post", f"/jobs/{self.job.pk}/reasons", body)[0], 422, "input")

    def test_a_helper_lets_on_only_what_they_stopped_themselves(self):
        self.write({"kind": "stop", "step": STEP, "reason": "ada's"})
        self.become("bram")
        self.refused(self.write({"kind": "go-on", "reason": "mine"})[0], 403, "forbidden")

    def test_it_changes_no_figure(self):
        before = self.send("get", f"/options/{self.option.pk}/floor")[1]
        mark = self.design()
        hashed = self.send("post", "/evaluate", {"job_id": self.job.pk, "design": mark})[1]["content_hash"]
        self.write({"kind": "stop", "step": STEP, "reason": "x"})
        self.photo(picture())
        self.assertEqual(
            self.send("post", "/evaluate", {"job_id": self.job.pk, "design": mark})[1]["content_hash"], hashed
        )
        self.assertEqual(len(before["steps"]), len(self.sheet()["steps"]))


class Photos(Floor):
    def test_only_pixels_stay_upright_and_no_larger_than_a_screen_needs(self):
        mark = str(uuid.uuid4())
        for _ in range(2):
            self.assertEqual(self.photo(picture(), mark=mark, text="the root").status_code, 200)
        entries = [e for e in self.sheet()["log"] if e["kind"] == "photo"]
        self.assertEqual([e["text"] for e in entries], ["the root"])
        response = self.client.get(f"/api/jobs/{self.job.pk}/photos/{entries[0]['sha256']}")
        self.assertEqual(response["Content-Type"], "image/jpeg")
        kept = Image.open(io.BytesIO(response.content))
        self.assertEqual(max(kept.size), 1600)
        self.assertLess(kept.width, kept.height, "turned as it was held")
        self.assertEqual(dict(kept.getexif()), {})
        self.assertNotIn(b"somebody", response.content)

    def test_what_is_no_picture_is_named_and_nothing_is_kept(self):
        for content in (b"", b"not a picture", picture()[:400], b"<svg xmlns='http://www.w3.org/2000/svg'/>"):
            with self.subTest(content[:12]):
                problem = self.refused(self.photo(content), 422, "input")
                self.assertTrue(problem["problems"])
        self.assertEqual(self.job.attachments.count(), 0)

    def test_a_trap_of_pixels_and_a_file_of_60_mb(self):
        self.refused(self.photo(picture((9000, 8000), "PNG", exif=False)), 422, "input")
        self.refused(self.photo(b"\xff" * 60_000_000), 413, "too-large")

    def test_it_leaves_with_the_job_and_comes_back(self):
        self.photo(picture())
        bundle = self.client.get(f"/api/jobs/{self.job.pk}/export")
        content = b"".join(bundle.streaming_content)
        response = self.client.post("/api/jobs/import", content, content_type="application/zip")
        again = response.json()
        photo = next(e for e in again["log"] if e["kind"] == "photo")
        self.assertEqual(self.client.get(f"/api/jobs/{again['id']}/photos/{photo['sha256']}").status_code, 200)


class Learning(Floor):
    def test_what_steps_took_on_another_job_is_known_here(self):
        other = self.send("post", f"/jobs/{self.job.pk}/duplicate", {})[1]
        option = self.send("get", f"/jobs/{other['id']}")[1]["options"][0]["id"]
        path = f"/options/{option}/floor"
        first = next(s for s in self.send("get", path)[1]["steps"] if s["status"] == "open")
        planned = first["takes"]["minutes"]
        act = {"kind": "sign", "step": first["id"], "minutes": planned * 3}
        self.assertEqual(self.send("post", path, {"act": act})[0].status_code, 200)
        takes = next(s for s in self.sheet()["steps"] if s["id"] == first["id"])["takes"]
        self.assertEqual(takes["steps"], 1)
        self.assertGreater(takes["minutes"], planned)
        self.assertLess(takes["minutes"], planned * 1.6, "one slow evening is no rule")


class SameAsTheBench(Floor):
    def test_every_step_stands_as_it_does_there(self):
        """Locks that other layers hold (a design that steers the wrong way, a stand, a part) are the floor's too."""
        for option in self.job.options.all():
            self.option = option
            found = self.send("post", "/evaluate", {"job_id": self.job.pk, "design": self.design()})[1]
            bench = {s["id"]: s["status"] for s in found["steps"]}
            self.assertEqual({s["id"]: s["status"] for s in self.sheet()["steps"]}, bench)


class Labels(Floor):
    def test_every_step_that_is_left_and_every_part_has_a_code(self):
        left = [s for s in self.sheet()["steps"] if s["status"] in {"open", "waiting"}]
        steps = self.client.get(f"/api/options/{self.option.pk}/labels.pdf?of=steps")
        words = text_of(steps.content)
        self.assertIn(left[0]["title"], words)
        self.assertEqual(words.count(self.job.name), len(left))
        parts = text_of(self.client.get(f"/api/options/{self.option.pk}/labels.pdf?of=parts").content)
        self.assertIn("liner", parts.lower())
        self.assertEqual(self.client.get(f"/api/options/{self.option.pk}/labels.pdf?of=x").status_code, 422)

    def test_a_code_opens_its_step(self):
        """Drawn by ReportLab from the address; read back from its modules by the count that such an address needs."""
        address = "http://shop/jobs/1/floor?option=2&step=axle-notch/cut/left"
        made = labels_pdf("Barn find", [Label("Cut", (), address)], "mm")
        self.assertIn("Cut", text_of(made))
        widget = QrCodeWidget(address, barLevel="M")
        widget.qr.make()
        self.assertEqual(
            widget.qr.getModuleCount(), segno.make(address, error="m", boost_error=False).symbol_size(border=0)[0]
        )


class FrameByTape(Floor):
    """Lengths and levels from the phone, once however often they are sent, and refused by name where no point is."""

    def length(self, **more):
        ends = {
            "start": {"feature_id": "front-axle", "side": "left"},
            "end": {"feature_id": "hub-rear", "side": "right"},
        }
        reading = {"value": 2750.0, "text": "2750", "instrument": "tape", "resolution": 1.0}
        return {"kind": "length", "when": "tacked", **ends, "reading": reading, **more}

    def test_a_length_is_taken_once(self):
        mark = str(uuid.uuid4())
        answers = [self.write(self.length(), mark, "2026-11-20T10:00:00+00:00") for _ in range(2)]
        self.assertEqual([r.status_code for r, _ in answers], [200, 200])
        rows = LogEntry.objects.filter(document__kind="length")
        self.assertEqual([(r.document["when"], r.document["value"]) for r in rows], [("tacked", 2750.0)])

    def test_a_level_and_where_there_is_none(self):
        reading = {"value": -3.0, "text": "-3", "instrument": "levels from one line", "resolution": 0.5}
        good = {"kind": "level", "point": {"feature_id": "front-axle", "side": "left"}, "reading": reading}
        self.assertEqual(self.write(good)[0].status_code, 200)
        for point in ("hub-rear", "nowhere"):
            bad = {**good, "point": {"feature_id": point, "side": "left"}}
            self.refused(self.write(bad)[0], 422, "input")
        gone = self.length(start={"feature_id": "nowhere", "side": "left"})
        self.assertEqual(self.write(gone)[0].status_code, 422)
