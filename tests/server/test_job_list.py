"""The list of jobs: told with when and by whom, renamed, copied, archived, thrown away and brought back."""

from nodulant_server.actions.log import inputs_of
from nodulant_server.models import Job, LogEntry
from tests.server.base import Shop


def changed_only_in_mark(inputs):
    entries = tuple(e.model_copy(update={"imported": "by ada from 'x'"}) for e in inputs.as_built.entries)
    return inputs.model_copy(update={"as_built": inputs.as_built.model_copy(update={"entries": entries})})


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

    def test_a_note_stays_with_the_job_and_leaves_with_its_file(self):
        self.send("patch", f"/jobs/{self.job.pk}", {"note": "left rail welded before"})
        self.assertEqual(self.rows()[self.job.pk]["note"], "left rail welded before")
        file = self.client.get(f"/api/jobs/{self.job.pk}/export")
        taken = self.client.post("/api/jobs/import", file.content, content_type="application/json")
        self.assertEqual(Job.objects.get(pk=taken.json()["id"]).note, "left rail welded before")

    def test_what_a_file_says_somebody_signed_is_told_as_imported(self):
        self.send("post", f"/jobs/{self.job.pk}/reasons", {"subject": "teardown", "reason": "read last week"})
        file = self.client.get(f"/api/jobs/{self.job.pk}/export").content.replace(b'"by":"ada"', b'"by":"inspector"')
        taken = self.client.post("/api/jobs/import", file, content_type="application/json").json()
        (entry, *_) = [e for e in taken["log"] if e["kind"] == "override"]
        self.assertEqual(entry["by"], "inspector")
        self.assertIn(f"by ada from '{self.job.name}'", entry["imported"])
        first = inputs_of(self.job, self.option.head().design())
        self.assertEqual(first.content_hash(), changed_only_in_mark(first).content_hash())

    def test_a_job_like_another_has_its_sizes_and_nothing_measured(self):
        self.send("patch", f"/jobs/{self.job.pk}", {"template": True})
        self.assertTrue(self.rows()[self.job.pk]["template"])
        path = f"/jobs/{self.job.pk}/like"
        self.refused(self.send("post", path, {"name": "Second", "vehicle": " "})[0], 422, "input")
        _, head = self.send("post", path, {"name": "Second", "vehicle": "Another van"})
        made, first = Job.objects.get(pk=head["id"]), self.job.survey_head().survey()
        survey = made.survey_head().survey()
        self.assertEqual((made.name, survey.vehicle, survey.rails), ("Second", "Another van", first.rails))
        self.assertGreater(len(survey.assumed), len(first.assumed))
        self.assertEqual(made.options.count(), self.job.live_options().count())
        self.assertFalse(made.template or LogEntry.objects.filter(job=made).exists())

    def test_the_library_holds_the_shop_s_own_jobs_and_no_example(self):
        tyre = self.job.survey_head().survey().rear.tyre
        rows = self.send("get", "/library")[1]
        self.assertIn(tyre, [r["name"] for r in rows if r["kind"] == "tyre"])
        self.assertFalse([r for r in rows if "[[" in r["name"]])
        Job.objects.update(example=True)
        self.assertEqual(self.send("get", "/library")[1], [])

    def test_who_only_looks_changes_nothing(self):
        self.client.force_login(self.people["inspector"])
        whole = f"/jobs/{self.job.pk}"
        named = {"name": "Second", "vehicle": "Another"}
        tried = (
            ("patch", whole, {"deleted": True}),
            ("post", f"{whole}/duplicate", {}),
            ("post", f"{whole}/like", named),
        )
        for method, path, body in tried:
            self.assertEqual(self.send(method, path, body)[0].status_code, 403)
        self.assertIn(self.job.pk, self.rows())

    def test_counts_say_what_is_worst_and_what_comes_next(self):
        rows = self.send("get", f"/jobs/{self.job.pk}/counts")[1]
        self.assertTrue(any(row["next_step"] for row in rows))
        for row in rows:
            self.assertEqual(bool(row["worst"]), bool(row["counts"].get("fails")))
