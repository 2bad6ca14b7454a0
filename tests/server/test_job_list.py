"""The list of jobs: told with when and by whom, renamed, copied, archived, thrown away and brought back."""

from nodulant_server.models import Job, LogEntry
from tests.server.base import Shop


class JobList(Shop):
    def rows(self):
        return {row["id"]: row for row in self.send("get", "/jobs")[1]}

    def test_each_job_says_when_it_was_stored_and_by_whom(self):
        row = self.rows()[self.job.pk]
        self.assertEqual(row["name"], self.job.name)
        self.assertTrue(row["by"])
        self.assertIn("T", row["at"])
        self.assertFalse(row["archived"] or row["example"])

    def test_renamed_and_archived_and_taken_out_again(self):
        path = f"/jobs/{self.job.pk}"
        self.assertEqual(self.send("patch", path, {"name": "Other"})[1]["name"], "Other")
        self.assertTrue(self.send("patch", path, {"archived": True})[1]["archived"])
        self.assertEqual(self.rows()[self.job.pk]["name"], "Other", "archiving leaves the name")
        self.assertFalse(self.send("patch", path, {"archived": False})[1]["archived"])
        self.refused(self.send("patch", path, {"name": "  "})[0], 422, "input")

    def test_deleted_it_is_listed_nowhere_and_undo_brings_it_back_whole(self):
        path = f"/jobs/{self.job.pk}"
        self.send("patch", path, {"deleted": True})
        self.assertNotIn(self.job.pk, self.rows())
        self.assertTrue(Job.objects.filter(pk=self.job.pk).exists())
        self.send("patch", path, {"deleted": False})
        self.assertIn(self.job.pk, self.rows())

    def test_a_copy_begins_where_the_job_stands_and_has_no_log(self):
        _, copy = self.send("post", f"/jobs/{self.job.pk}/duplicate", {})
        made = Job.objects.get(pk=copy["id"])
        self.assertIn("(copy)", made.name)
        self.assertEqual(made.survey_head().document, self.job.survey_head().document)
        own = {o.key: o.head().document for o in made.options.all()}
        self.assertEqual(own, {o.key: o.head().document for o in self.job.options.all()})
        self.assertFalse(LogEntry.objects.filter(job=made).exists())

    def test_who_only_looks_changes_nothing(self):
        self.client.force_login(self.people["inspector"])
        for method, path in (("patch", f"/jobs/{self.job.pk}"), ("post", f"/jobs/{self.job.pk}/duplicate")):
            self.assertEqual(self.send(method, path, {"deleted": True})[0].status_code, 403)
        self.assertIn(self.job.pk, self.rows())

    def test_counts_say_what_is_worst_and_what_comes_next(self):
        rows = self.send("get", f"/jobs/{self.job.pk}/counts")[1]
        self.assertTrue(any(row["next_step"] for row in rows))
        for row in rows:
            self.assertEqual(bool(row["worst"]), bool(row["counts"].get("fails")))
