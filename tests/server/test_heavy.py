"""Heavy work behind the queue: followed, called off, bounded, and begun again where its worker was killed.

Workers are processes of their own on the test's database file, as in a shop.
"""

import json
import os
import subprocess
import sys
import time
from pathlib import Path
from unittest import mock

from django.conf import settings
from django.contrib.auth.models import User
from django.db import connection
from django.test import TransactionTestCase, override_settings
from ninja.errors import HttpError

from nodulant_server.actions.transfer import import_job
from nodulant_server.heavy import kinds, queue, worker
from nodulant_server.models import HeavyLines, HeavyWork, Member, Workshop
from nodulant_server.roles import acting_as
from tests import fixtures as f

MANAGE = Path(settings.ROOT) / "manage.py"


class Queued(TransactionTestCase):
    def setUp(self):
        shop = Workshop.objects.create(name="Test shop")
        user = User.objects.create_user("ada", password="ada-secret")
        Member.objects.create(workshop=shop, user=user, role="owner")
        self.own = acting_as(user)
        self.job = import_job(self.own, f.job())
        self.client.force_login(user)
        self.inputs = f.job().inputs("arc")
        self.enterContext(override_settings(WORKERS=2))

    def worker(self, number=0):
        """A worker process on this test's database, ended with the test."""
        own = {
            "DJANGO_SETTINGS_MODULE": "tests.settings",
            "NODULANT_WORKERS": "2",
            "PYTHONPATH": os.pathsep.join(sys.path),
        }
        environment = {**os.environ, **own, "NODULANT_TEST_DATABASE": str(connection.settings_dict["NAME"])}
        process = subprocess.Popen([sys.executable, str(MANAGE), "worker", "--queue", str(number)], env=environment)
        self.addCleanup(process.wait)
        self.addCleanup(process.kill)
        return process

    def asked(self, kind="sets", **more):
        extra = {"operation_id": "axle-notch"} if kind == "sets" else {}
        return queue.ask(kind, self.own, self.job.pk, {"inputs": self.inputs.model_dump(mode="json"), **extra, **more})

    def step(self):
        return self.job.options.get(key="step").head().design().model_dump(mode="json")

    def swept(self):
        body = json.dumps({"job_id": self.job.pk, "design": self.step()})
        response = self.client.post("/api/sweep", body, content_type="application/json")
        return [json.loads(line) for line in b"".join(response.streaming_content).splitlines()]

    def test_a_worker_answers_as_the_process_itself_would(self):
        for n in range(2):
            self.worker(n)
        lines = self.swept()
        with override_settings(WORKERS=0):
            here = self.swept()
        self.assertEqual(lines[-1], here[-1])
        self.assertEqual(
            len([line for line in lines if "pair" in line]), len([line for line in here if "pair" in line])
        )

    def test_a_worker_killed_in_the_middle_is_told_and_the_work_begun_again(self):
        workers = [self.worker(n) for n in range(2)]
        killed, lines = False, []
        body = json.dumps({"job_id": self.job.pk, "design": self.step()})
        response = self.client.post("/api/sweep", body, content_type="application/json")
        began = time.monotonic()
        for portion in response.streaming_content:
            lines += [json.loads(line) for line in portion.splitlines()]
            if not killed and any("pair" in line for line in lines):
                killed = True
                workers[int(HeavyWork.objects.get(state="running").queue.removeprefix("warm-"))].kill()
        self.assertTrue(killed)
        self.assertIn("the worker stopped: begun again", [line.get("told") for line in lines])
        self.assertIn("swept", lines[-1])
        self.assertLess(time.monotonic() - began, 60.0)

    def test_going_away_calls_it_off(self):
        self.worker(0)
        self.worker(1)
        lines = queue.follow(self.asked("sweep", option_id=None, person=None, inputs=self.sweepable()))
        next(line for line in lines if b"pair" in line)
        lines.close()
        work = HeavyWork.objects.get()
        self.assertTrue(work.cancel)
        for _ in range(100):
            work.refresh_from_db()
            if work.state == "over":
                break
            time.sleep(0.1)
        self.assertEqual(work.state, "over")
        self.assertFalse(any(b"swept" in bytes(row.content) for row in HeavyLines.objects.all()))

    def sweepable(self):
        return f.job().inputs("step").model_dump(mode="json")

    def test_two_at_a_time_for_one_person(self):
        self.asked()
        self.asked()
        body = json.dumps({"job_id": self.job.pk, "design": self.step()})
        response = self.client.post("/api/sweep", body, content_type="application/json")
        self.assertEqual(response.status_code, 429)
        self.assertIn("under way", response.json()["title"])
        HeavyWork.objects.update(cancel=True)
        self.asked()

    def test_who_waits_is_told_how_many_are_before(self):
        first = self.asked()
        second = self.asked()
        HeavyWork.objects.filter(pk=second.pk).update(queue=first.queue)
        with mock.patch.object(queue, "TELL_S", 0.0):
            lines = queue.follow(second)
            self.assertEqual(json.loads(next(lines)), {"told": "1 before this one"})
            lines.close()

    def test_a_job_stays_where_it_is_warm_and_goes_on_where_nobody_waits(self):
        one = self.asked()
        HeavyWork.objects.update(state="over")
        self.assertEqual(self.asked().queue, one.queue)
        busy = self.asked()
        self.assertNotEqual(busy.queue, one.queue)

    def test_given_up_after_the_second_worker(self):
        work = self.asked()
        past = "2020-01-01T00:00:00+00:00"
        HeavyWork.objects.update(state="running", leased_until=past, tries=2)
        with mock.patch.object(queue, "TELL_S", 0.0):
            lines = b"".join(queue.follow(work))
        self.assertIn(b"stopped twice", lines)

    def test_what_breaks_in_a_worker_is_told_and_ends(self):
        work = self.asked()

        def broken(asked):
            raise RuntimeError("unforeseen")

        with mock.patch.dict(kinds.KINDS, {"sets": broken}):
            worker.run_work.func(work.pk)
        self.assertIn(b"something went wrong", b"".join(queue.follow(work)))

    def test_a_paper_that_was_not_made_is_a_refusal_and_no_file(self):
        work = self.asked("report", option_id=0, revision="x")
        worker.run_work.func(work.pk)
        with self.assertRaises(HttpError) as refused:
            queue.in_whole(work)
        self.assertEqual(refused.exception.status_code, 503)
        self.assertIn("something went wrong", refused.exception.message)

    def test_at_the_limit_of_time_what_was_found_stands(self):
        work = self.asked()
        with mock.patch.object(kinds, "LIMIT_S", 0.0), mock.patch.object(worker, "WRITE_S", 0.0):
            worker.run_work.func(work.pk)
        lines = b"".join(queue.follow(work))
        self.assertIn(b"stopped at the limit", lines)
        self.assertNotIn(b'"sets"', lines)

    def test_a_paper_comes_whole(self):
        self.worker(0)
        self.worker(1)
        option = self.job.options.get(key="arc")
        response = self.client.get(f"/api/options/{option.pk}/report.pdf")
        self.assertTrue(response.content.startswith(b"%PDF"))
        self.assertTrue(response.content.rstrip().endswith(b"%%EOF"))

    def test_work_taken_twice_is_done_once(self):
        work = self.asked()
        HeavyWork.objects.update(state="running")
        worker.run_work.func(work.pk)
        self.assertFalse(HeavyLines.objects.exists())
