"""What is kept survives: two writers, a real WAL file, the built page."""

import os
import subprocess
import sys
import tempfile
import threading
from pathlib import Path

from django.db import connections
from django.test import SimpleTestCase, TransactionTestCase, override_settings

from nodulant.job.document import Design
from nodulant_server.actions.log import append
from nodulant_server.actions.save import Stale, save_design
from nodulant_server.actions.transfer import import_job
from nodulant_server.database_url import database
from nodulant_server.models import Attachment, ImmutableError
from nodulant_server.roles import acting_as
from tests import fixtures as f
from tests.fixtures import ROOT
from tests.server.base import Shop


class TwoAtOnce(TransactionTestCase):
    """Two tablets in one shop press at the same moment."""

    def setUp(self):
        Shop.setUpTestData.__func__(self)

    def race(self, act, count=6):
        """Run ``act`` in threads at once; returns what they raised."""
        raised = []

        def one(i):
            try:
                act(i)
            except Exception as error:
                raised.append(error)
            finally:
                connections.close_all()

        threads = [threading.Thread(target=one, args=(i,)) for i in range(count)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        return raised

    def test_log_numbers_are_unique_and_without_gaps(self):
        user, job = acting_as(self.people["bram"]), self.job
        raised = self.race(lambda i: append(user, job, {"kind": "sign-off", "step": f"s{i}", "evaluated": "h"}))
        self.assertEqual(raised, [])
        self.assertEqual(list(job.log.values_list("number", flat=True)), [1, 2, 3, 4, 5, 6])

    def test_one_save_wins_and_every_other_is_kept_as_an_option(self):
        design, before = self.option.head().design(), self.job.options.count()

        def save(i):
            save_design(self.owner, self.option, 1, design.model_copy(update={"seats": design.seats[:i]}))

        raised = self.race(save, 4)
        self.assertTrue(all(isinstance(e, Stale) for e in raised), raised)
        self.assertEqual(len(raised), 3)
        self.assertEqual(self.option.revisions.count(), 2)
        self.assertEqual(self.job.options.count(), before + 3)


class Stored(Shop):
    def test_attachments_are_written_once(self):
        row = Attachment(
            job=self.job,
            sha256="0" * 64,
            name="p.jpg",
            content_type="image/jpeg",
            content=b"x",
            at=self.job.created_at,
            by="ada",
        )
        row.save()
        with self.assertRaises(ImmutableError):
            row.save()

    def test_a_survey_in_a_draft_is_evaluated_and_patterned(self):
        survey = self.send("get", f"/jobs/{self.job.pk}")[1]["survey"]
        survey["features"][3]["height_mm"] = 61.0
        design = self.design()
        self.send("put", f"/options/{self.option.pk}/draft", {"base": 1, "design": design, "survey": survey})
        kept = self.send("get", f"/options/{self.option.pk}")[1]
        self.assertEqual(kept["draft_survey"]["features"][3]["height_mm"], 61.0)
        self.assertEqual(self.client.get(f"/api/options/{self.option.pk}/report.pdf").status_code, 200)

    def test_times_without_an_offset_and_nonsense_times_are_taken(self):
        job = f.job()
        option = job.options[0]
        for at in ("2026-01-02T03:04:05", "last Tuesday", ""):
            revision = option.revisions[0].model_copy(update={"at": at})
            changed = job.model_copy(update={"options": (option.model_copy(update={"revisions": (revision,)}),)})
            stored = import_job(self.owner, changed)
            self.assertEqual(stored.options.get().head().design(), Design.model_validate(revision.design.model_dump()))


class Databases(SimpleTestCase):
    def test_sqlite_by_default_with_wal_and_foreign_keys(self):
        with tempfile.TemporaryDirectory() as folder:
            found = database("", Path(folder))
            self.assertIn("journal_mode=WAL", found["OPTIONS"]["init_command"])
            self.assertIn("synchronous=FULL", found["OPTIONS"]["init_command"])
            self.assertIn("foreign_keys=ON", found["OPTIONS"]["init_command"])

    def test_another_database_by_url(self):
        found = database("postgres://nell:p%40ss@db:5433/shop", Path("/nowhere"))
        self.assertEqual(
            (found["ENGINE"], found["USER"], found["PASSWORD"], found["PORT"], found["NAME"]),
            ("django.db.backends.postgresql", "nell", "p@ss", 5433, "shop"),
        )
        with self.assertRaises(ValueError):
            database("oracle://x", Path("/nowhere"))

    def test_a_fresh_file_is_in_wal_mode(self):
        """The shop's own database, made by migrate in a process of its own."""
        with tempfile.TemporaryDirectory() as folder:
            environment = {**os.environ, "NODULANT_DATA": folder, "DJANGO_SETTINGS_MODULE": "nodulant_server.settings"}
            environment.pop("NODULANT_SECRET", None)
            code = (
                "import manage, django; django.setup(); from django.core.management import call_command as c; "
                "c('migrate', verbosity=0); from django.db import connection as k; "
                "print(k.cursor().execute('PRAGMA journal_mode').fetchone()[0])"
            )
            done = subprocess.run(
                [sys.executable, "-c", code], cwd=ROOT, env=environment, capture_output=True, text=True
            )
            self.assertEqual(done.stdout.strip(), "wal", done.stderr)
            self.assertEqual((Path(folder) / "secret").stat().st_mode & 0o777, 0o600)


class Page(Shop):
    def test_every_address_is_the_one_page_with_a_csrf_cookie(self):
        for path in ("/", "/jobs/1", "/jobs/1?option=3"):
            response = self.client.get(path)
            self.assertEqual(response.status_code, 200, path)
            self.assertIn("csrftoken", response.cookies)
            self.assertIn(b'<div id="root">', response.content)

    def test_a_missing_build_says_what_to_do(self):
        with override_settings(WEB_DIST=Path("/nowhere")):
            response = self.client.get("/")
        self.assertEqual(response.status_code, 503)
        self.assertIn(b"make build", response.content)

    def test_the_page_loads_nothing_from_elsewhere(self):
        html = (ROOT / "web" / "dist" / "index.html").read_text()
        self.assertNotIn("http://", html.replace("http://www.w3.org", ""))
        self.assertNotIn("https://", html)
        for sheet in (ROOT / "web" / "dist" / "assets").glob("*.css"):
            self.assertNotIn("https://", sheet.read_text())
