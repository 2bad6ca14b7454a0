"""Practice over the API: nothing tells what is planted before it is over; each has one's own."""

from datetime import timedelta

from django.db import connection
from django.utils import timezone

from nodulant.practice.job import FAULTS
from nodulant_server.actions import practise
from nodulant_server.actions.trash import empty_trash
from nodulant_server.models import PracticeRun
from nodulant_server.roles import acting_as
from tests.server.base import Shop


class Practice(Shop):
    def begun(self, fault="short-damper"):
        user = self.people["ada"]
        return practise.begin(acting_as(user), user, fault, 7)

    def test_one_begins_a_job_and_finds_it(self):
        response, row = self.send("post", "/practice", {})
        self.assertEqual(response.status_code, 200, response.content[:300])
        run = PracticeRun.objects.get(job=row["job_id"])
        self.assertNotIn(run.fault.encode(), response.content)
        self.assertNotIn(FAULTS[run.fault].name.encode(), response.content)
        wrong = next(id_ for id_ in FAULTS if id_ != run.fault)
        path = f"/practice/{row['job_id']}"
        self.assertFalse(self.send("post", f"{path}/accuse", {"fault": wrong})[1]["over"])
        self.assertEqual(len(self.send("post", f"{path}/hint", {})[1]["hints"]), 1)
        done = self.send("post", f"{path}/accuse", {"fault": run.fault})[1]
        self.assertEqual((done["over"], done["score"]["points"]), (True, 100 - 20 - 15))
        self.assertIn(run.spot, done["truth"])
        page = self.send("get", "/practice")[1]
        self.assertEqual((page["found"], page["over"], page["points"], page["met"]), (1, 1, 65, 1))

    def test_kinds_that_were_not_met_come_first(self):
        user = self.people["ada"]
        for k in range(len(FAULTS)):
            practise.begin(acting_as(user), user, None, k)
        self.assertEqual(PracticeRun.objects.values("fault").distinct().count(), len(FAULTS))

    def test_over_is_over(self):
        run = self.begun()
        path = f"/practice/{run.job_id}"
        self.assertIn("opens", self.send("post", f"{path}/give-up", {})[1]["truth"] + " opens")
        self.assertEqual(self.send("post", f"{path}/accuse", {"fault": run.fault})[0].status_code, 422)
        self.assertEqual(self.send("get", "/practice")[1]["points"], 0)

    def test_hints_end(self):
        path = f"/practice/{self.begun().job_id}"
        for _ in range(4):
            self.assertEqual(self.send("post", f"{path}/hint", {})[0].status_code, 200)
        self.assertEqual(self.send("post", f"{path}/hint", {})[0].status_code, 422)

    def test_an_accusation_of_nothing_known_is_refused_and_costs_nothing(self):
        run = self.begun()
        self.assertEqual(self.send("post", f"/practice/{run.job_id}/accuse", {"fault": "gremlins"})[0].status_code, 422)
        self.assertEqual(PracticeRun.objects.get(pk=run.pk).accused, [])

    def test_somebody_else_s_is_not_there(self):
        run = self.begun()
        self.become("bram")
        self.assertEqual(self.send("post", f"/practice/{run.job_id}/hint", {})[0].status_code, 404)
        self.assertEqual(self.send("get", "/practice")[1]["rows"], [])

    def test_it_goes_with_the_trash(self):
        run = self.begun()
        run.job.deleted_at = timezone.now() - timedelta(days=40)
        run.job.save()
        self.assertEqual(self.send("get", "/practice")[1]["rows"], [])
        empty_trash(timezone.now() - timedelta(days=30))
        connection.check_constraints()
        self.assertFalse(PracticeRun.objects.filter(pk=run.pk).exists())

    def test_it_is_marked_as_an_example(self):
        self.assertTrue(self.begun().job.example)
