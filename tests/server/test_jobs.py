"""Jobs, options and immutable revisions; two tablets never silently overwrite each other."""

import json

from django.contrib.auth.models import User
from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management import call_command
from django.db import connection
from django.http.request import RawPostDataException
from django.test import RequestFactory

from nodulant.formats.jobfile import load_job
from nodulant_server.api.problems import answer
from nodulant_server.models import Draft, ImmutableError, Job, Member, Option
from tests import fixtures as f
from tests.server.base import Shop, of_sqlite


class Revisions(Shop):
    def path(self, tail=""):
        return f"/options/{self.option.pk}{tail}"

    def deeper(self, depth):
        design = self.design()
        design["operations"][1]["depth_mm"] = depth
        return design

    def test_saving_makes_the_next_number_and_keeps_the_old(self):
        response, data = self.send(
            "post", self.path("/revisions"), {"base": 1, "design": self.deeper(55.0), "note": "less"}
        )
        self.assertEqual((response.status_code, data["number"]), (200, 2))
        rows = self.option.revisions.order_by("number")
        self.assertEqual([r.number for r in rows], [1, 2])
        self.assertEqual([r.design().operations[1].depth_mm for r in rows], [58.0, 55.0])
        self.assertEqual((rows[1].by, rows[1].note), ("ada", "less"))

    def test_a_stale_save_is_refused_and_kept_as_an_option(self):
        self.send("post", self.path("/revisions"), {"base": 1, "design": self.deeper(55.0)})
        response, _ = self.send("post", self.path("/revisions"), {"base": 1, "design": self.deeper(61.0)})
        data = self.refused(response, 409, "stale")
        self.assertEqual(data["head"], 2)
        kept = Option.objects.get(pk=data["kept"]["id"])
        self.assertEqual(kept.head().design().operations[1].depth_mm, 61.0)
        self.assertEqual(self.option.head().design().operations[1].depth_mm, 55.0)
        self.assertIn("ada", kept.name)

    def test_two_devices_of_one_person_keep_their_own_work(self):
        path = self.path("/draft")
        for device, depth in (("tablet.a", 50.0), ("bench.b", 51.0)):
            self.send("put", path, {"base": 1, "design": self.deeper(depth), "device": device, "survey_base": 1})
        self.assertEqual(Draft.objects.count(), 2)
        _, own = self.send("get", self.path("?device=tablet.a"))
        self.assertEqual((own["draft"]["operations"][1]["depth_mm"], own["draft_survey_base"]), (50.0, 1))
        (other,) = own["others"]
        self.assertEqual((other["device"], other["base"]), ("bench.b", 1))
        # a revision saved on one leaves the other's work where it is
        self.send("post", self.path("/revisions"), {"base": 1, "design": self.deeper(50.0), "device": "tablet.a"})
        self.assertEqual([d.device for d in Draft.objects.all()], ["bench.b"])
        _, kept = self.send("post", self.path(f"/drafts/{other['id']}/keep"), {})
        self.assertEqual(Option.objects.get(pk=kept["id"]).head().design().operations[1].depth_mm, 51.0)
        self.assertEqual(Draft.objects.count(), 0)

    def test_work_of_a_tab_that_is_gone_is_taken_over_and_not_doubled(self):
        self.send("put", self.path("/draft"), {"base": 1, "design": self.deeper(50.0), "device": "b.old"})
        body = {"base": 1, "design": self.deeper(52.0), "device": "b.new", "replaces": "b.old"}
        self.send("put", self.path("/draft"), body)
        self.assertEqual([(d.device, d.base) for d in Draft.objects.all()], [("b.new", 1)])

    def test_overtaken_work_is_not_replaced_by_what_the_device_does_next(self):
        """A draft on revision 1 lies on the server while its device goes on from revision 2."""
        path = self.path("/draft")
        self.send("put", path, {"base": 1, "design": self.deeper(50.0), "device": "t"})
        self.send("post", self.path("/revisions"), {"base": 1, "design": self.deeper(55.0), "device": "other"})
        old = Draft.objects.get()
        self.send("put", path, {"base": 2, "design": self.deeper(57.0), "device": "t", "replaces": "t.gone"})
        self.send("post", self.path("/revisions"), {"base": 2, "design": self.deeper(57.0), "device": "t"})
        _, kept = self.send("post", self.path(f"/drafts/{old.pk}/keep"), {})
        self.assertEqual(Option.objects.get(pk=kept["id"]).head().design().operations[1].depth_mm, 50.0)

    def test_nobody_touches_another_person_s_draft(self):
        self.send("put", self.path("/draft"), {"base": 1, "design": self.deeper(50.0), "device": "a"})
        draft = Draft.objects.get()
        self.become("bram")
        self.assertEqual(self.send("post", self.path(f"/drafts/{draft.pk}/keep"), {})[0].status_code, 404)
        self.assertEqual(self.client.delete(f"/api/options/{self.option.pk}/drafts/{draft.pk}").status_code, 404)
        self.assertTrue(Draft.objects.filter(pk=draft.pk).exists())

    def test_revisions_that_cannot_be_are_refused(self):
        for base in (-1, 0, 2**63, "x"):
            with self.subTest(base):
                response, _ = self.send("put", self.path("/draft"), {"base": base, "design": self.design()})
                self.assertEqual(response.status_code, 422)

    def test_stale_saves_cannot_fill_a_job_and_lose_nothing(self):
        """Every stored job can leave: the fifty-first stale save is kept as a draft, which is offered."""
        self.send("post", self.path("/revisions"), {"base": 1, "design": self.deeper(55.0)})
        for k in range(52):
            self.send("post", self.path("/revisions"), {"base": 1, "design": self.deeper(40.0 + k / 4)})
        self.assertEqual(self.job.live_options().count(), 50)
        self.assertEqual(Draft.objects.count(), 52 - (50 - len(f.job().options)))
        exported = self.client.get(f"/api/jobs/{self.job.pk}/export")
        self.assertEqual(len(load_job(exported.content).options), 50)
        response, _ = self.send("post", self.path("/branch"), {"name": "One more", "design": self.design()})
        self.assertIn("no more than 50 options", self.refused(response, 422, "input")["title"])

    def test_a_note_longer_than_a_file_holds_is_refused(self):
        body = {"base": 1, "design": self.deeper(55.0), "note": "x" * 4001}
        self.refused(self.send("post", self.path("/revisions"), body)[0], 422, "input")
        self.refused(self.send("patch", f"/jobs/{self.job.pk}", {"note": "x" * 4001})[0], 422, "input")

    def test_two_surveys_become_one(self):
        survey = self.job.survey_head().document
        mine, theirs = json.loads(json.dumps(survey)), json.loads(json.dumps(survey))
        mine["rails"]["left"]["stations"][1]["height_mm"] += 1
        theirs["wheelbase_mm"] += 2
        path = f"/jobs/{self.job.pk}/survey"
        self.send("post", path, {"base": 1, "survey": theirs})
        self.assertEqual(self.send("post", path, {"base": 1, "survey": mine})[0].status_code, 409)
        _, both = self.send("post", f"{path}/merge", {"base": 1, "survey": mine})
        self.assertEqual((both["head"], both["both"]), (2, []))
        self.assertEqual(both["survey"]["wheelbase_mm"], theirs["wheelbase_mm"])
        self.assertEqual(self.send("post", path, {"base": both["head"], "survey": both["survey"]})[0].status_code, 200)

    def test_revisions_and_log_cannot_be_changed_or_deleted(self):
        head = self.option.head()
        for act in (head.save, head.delete, self.job.survey_head().save, self.job.survey_head().delete):
            with self.assertRaises(ImmutableError):
                act()

    def test_a_draft_is_kept_for_each_person_and_goes_when_saved(self):
        self.send("put", self.path("/draft"), {"base": 1, "design": self.deeper(50.0)})
        self.send("put", self.path("/draft"), {"base": 1, "design": self.deeper(51.0)})
        self.assertEqual(Draft.objects.count(), 1)
        self.assertEqual(self.send("get", self.path())[1]["draft"]["operations"][1]["depth_mm"], 51.0)
        self.become("bram")
        self.assertIsNone(self.send("get", self.path())[1]["draft"])
        self.become("ada")
        self.send("post", self.path("/revisions"), {"base": 1, "design": self.deeper(51.0)})
        self.assertEqual(Draft.objects.count(), 0)

    def test_a_survey_has_its_own_numbers(self):
        survey = self.send("get", f"/jobs/{self.job.pk}")[1]["survey"]
        survey["wheelbase_mm"] = 2615
        response, data = self.send("post", f"/jobs/{self.job.pk}/survey", {"base": 1, "survey": survey})
        self.assertEqual((response.status_code, data["number"]), (200, 2))
        self.refused(self.send("post", f"/jobs/{self.job.pk}/survey", {"base": 1, "survey": survey})[0], 409, "stale")

    def test_branching_copies_the_design(self):
        _, made = self.send("post", self.path("/branch"), {"name": "Z 75!", "design": self.deeper(40.0)})
        self.assertEqual((made["name"], made["key"], made["head"]), ("Z 75!", "z-75", 1))
        _, again = self.send("post", self.path("/branch"), {"name": "Z 75!", "design": self.deeper(40.0)})
        self.assertEqual(again["key"], "z-75-2")


class NewJobs(Shop):
    def test_a_job_begins_with_nothing_measured(self):
        _, job = self.send("post", "/jobs", {"name": "Mine", "start": {"vehicle": "My own"}})
        self.assertEqual(job["survey"]["vehicle"], "My own")
        self.assertIn("/wheelbase_mm", job["survey"]["assumed"])
        self.assertTrue(all(s["wall_mm"] is None for s in job["survey"]["rails"]["left"]["stations"]))
        option = self.send("get", f"/options/{job['options'][0]['id']}")[1]
        _, result = self.send("post", "/evaluate", {"job_id": job["id"], "design": option["design"]})
        verdicts = {c["verdict"] for c in result["checks"] if c["limit_id"].startswith(("modulus", "use", "metal"))}
        self.assertEqual(verdicts, {"not computed"})
        self.assertTrue(result["teardown_locked"])

    def test_a_name_is_needed(self):
        data = self.refused(self.send("post", "/jobs", {"name": " ", "start": {"vehicle": "x"}})[0], 422, "input")
        self.assertEqual(data["problems"][0]["pointer"], "/name")

    def test_stock_of_the_shop(self):
        body = {**f.demo().shop.model_dump(mode="json"), "plate_stock_mm": [2.0, 4.5]}
        path = f"/jobs/{self.job.pk}/shop"
        self.assertEqual(self.send("put", path, {"base": 1, "shop": body})[1]["number"], 2)
        self.assertEqual(Job.objects.get(pk=self.job.pk).shop_model().plate_stock_mm, (2.0, 4.5))
        bad = {**body, "plate_stock_mm": [-1]}
        self.refused(self.send("put", path, {"base": 2, "shop": bad})[0], 422, "input")
        late = {**body, "plate_stock_mm": [3.0]}
        self.assertEqual(self.refused(self.send("put", path, {"base": 1, "shop": late})[0], 409, "stale")["head"], 2)
        self.assertEqual(Job.objects.get(pk=self.job.pk).shop_model().plate_stock_mm, (2.0, 4.5))


class Transfer(Shop):
    """Export followed by import gives an equal job."""

    def export(self, pk):
        return self.client.get(f"/api/jobs/{pk}/export")

    def test_round_trip_through_the_api(self):
        self.send("post", f"/options/{self.option.pk}/sign", {"step": "teardown"})
        reading = {"operation": "axle-notch", "key": "depth", "side": "left", "value": 59.0, "text": "2 5/16"}
        self.send("post", f"/options/{self.option.pk}/readings", reading)
        first = self.export(self.job.pk)
        self.assertIn("attachment", first.headers["Content-Disposition"])
        response = self.client.post("/api/jobs/import", first.content, content_type="application/json")
        second = self.export(response.json()["id"])
        came = load_job(second.content)
        self.assertTrue(all(e.imported for e in came.log), "what came by a file says so")
        told_apart = tuple(e.model_copy(update={"imported": ""}) for e in came.log)
        self.assertEqual(load_job(first.content), came.model_copy(update={"log": told_apart}))
        self.assertEqual(len(load_job(first.content).log), 2)

    def test_a_form_where_a_file_is_wanted_is_refused_in_words(self):
        """A check of the form's token has read it by then; what is left cannot be read again."""
        form = {"file": SimpleUploadedFile("job.json", b"{}", content_type="application/json")}
        request = RequestFactory().post("/api/jobs/import", form)
        self.assertIn("file", request.FILES)
        with self.assertRaises(RawPostDataException) as caught:
            _ = request.body
        told = self.refused(answer(request, caught.exception), 415, "content")
        self.assertIn("send the file itself", told["title"])

    def test_the_demo_file_comes_back_equal(self):
        self.assertEqual(load_job(self.export(self.job.pk).content).inputs(), f.job().inputs())

    def test_a_refused_file_writes_nothing(self):
        before = Job.objects.count()
        cases = (
            (b"{", "job-file-refused"),
            (b"", "job-file-refused"),
            (f.DEMO.read_bytes()[:5000], "job-file-refused"),
            (json.dumps({"format": "nodulant-job", "version": 2, "name": "x"}).encode(), "job-file-refused"),
            (f.DEMO.read_bytes().replace(b'"depth_mm": 58', b'"depth_mm": -58'), "job-file-refused"),
        )
        for data, code in cases:
            with self.subTest(data[:12]):
                response = self.client.post("/api/jobs/import", data, content_type="application/json")
                problem = self.refused(response, 422, code)
                self.assertTrue(problem["problems"][0]["message"])
        self.assertEqual(Job.objects.count(), before)

    def test_a_huge_file_is_refused_in_words(self):
        response = self.client.post("/api/jobs/import", b" " * (10 * 1024 * 1024 + 9), content_type="application/json")
        self.assertIn("too large", self.refused(response, 422, "job-file-refused")["title"])
        response = self.client.post("/api/jobs/import", b" " * (12 * 1024 * 1024), content_type="application/json")
        self.refused(response, 413, "too-large")


class DemoShop(Shop):
    def test_loading_twice_loads_once(self):
        User.objects.filter(username="bram").update(is_active=True)
        call_command("load_demo", verbosity=0)
        self.assertEqual(Job.objects.count(), 1)
        self.assertEqual(Member.objects.filter(user__username="bram").count(), 1)

    @of_sqlite
    def test_foreign_keys_are_kept_by_the_database(self):
        with connection.cursor() as cursor:
            cursor.execute("PRAGMA foreign_keys")
            self.assertEqual(cursor.fetchone()[0], 1)
            cursor.execute("PRAGMA busy_timeout")
            self.assertGreaterEqual(cursor.fetchone()[0], 5000)
