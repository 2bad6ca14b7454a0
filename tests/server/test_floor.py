"""A shop on its own network: certificates that browsers take, copies by themselves, what the page and a monitor see."""

import json
import shutil
import ssl
import subprocess
import tempfile
import threading
import urllib.request
from datetime import UTC, datetime, timedelta
from pathlib import Path
from unittest import mock

from cryptography import x509
from django.test import SimpleTestCase, override_settings
from django.utils import timezone

from nodulant_server.actions.transfer import import_job
from nodulant_server.actions.trash import empty_trash
from nodulant_server.floor import upkeep
from nodulant_server.floor.certificates import certificates, inside, own_addresses
from nodulant_server.floor.trust_page import FILE, trust_page
from nodulant_server.models import AuditEntry, DesignRevision, Job, LogEntry, Option, SurveyRevision, WorkerSeen
from tests import fixtures as f
from tests.server.base import Shop

NOW = datetime(2026, 6, 1, tzinfo=UTC)


class Certificates(SimpleTestCase):
    def setUp(self):
        self.folder = Path(self.enterContext(tempfile.TemporaryDirectory())) / "tls"

    def made(self, *addresses, now=None):
        return certificates(self.folder, addresses or ("192.168.1.5", "127.0.0.1"), now)

    def verified(self, made, address):
        """What another program says of the chain: openssl, with the address that a browser would ask for."""
        told = ["openssl", "verify", "-CAfile", made.authority, "-verify_ip", address, made.certificate]
        return subprocess.run([str(part) for part in told], capture_output=True, text=True)

    def test_openssl_takes_it_for_the_addresses_it_names_and_for_no_other(self):
        made = self.made()
        for address in ("192.168.1.5", "127.0.0.1"):
            self.assertEqual(self.verified(made, address).returncode, 0, self.verified(made, address).stderr)
        self.assertNotEqual(self.verified(made, "192.168.1.6").returncode, 0)

    def test_the_authority_cannot_vouch_for_a_place_outside(self):
        made = self.made("8.8.8.8")
        self.assertIn("permitted subtree violation", self.verified(made, "8.8.8.8").stderr)
        self.assertFalse(inside("8.8.8.8") or inside("nowhere"))
        self.assertTrue(all(inside(a) for a in own_addresses()))

    def test_it_lasts_no_longer_than_browsers_take(self):
        made = self.made(now=NOW)
        leaf = x509.load_pem_x509_certificate(made.certificate.read_bytes())
        self.assertLessEqual(leaf.not_valid_after_utc - leaf.not_valid_before_utc, timedelta(days=397))

    def test_it_is_renewed_when_it_runs_out_or_the_addresses_change_under_the_same_authority(self):
        first = self.made(now=NOW)
        trusted = first.authority.read_bytes()
        self.assertTrue(first.renewed)
        self.assertFalse(self.made(now=NOW + timedelta(days=300)).renewed)
        self.assertTrue(self.made(now=NOW + timedelta(days=370)).renewed)
        self.assertTrue(self.made("10.0.0.4", now=NOW + timedelta(days=371)).renewed)
        self.assertEqual(first.authority.read_bytes(), trusted)

    def test_an_authority_that_would_not_outlast_it_is_made_anew(self):
        trusted = self.made(now=NOW).authority.read_bytes()
        late = self.made(now=NOW + timedelta(days=9 * 365 + 300))
        self.assertTrue(late.renewed)
        self.assertNotEqual(late.authority.read_bytes(), trusted)

    def test_keys_are_for_the_server_alone_and_a_broken_one_is_replaced(self):
        made = self.made()
        self.assertEqual(made.key.stat().st_mode & 0o077, 0)
        made.key.write_text("rubbish")
        self.assertTrue(self.made().renewed)
        ssl.create_default_context(ssl.Purpose.CLIENT_AUTH).load_cert_chain(made.certificate, made.key)

    def test_the_plain_page_hands_out_the_authority_and_leads_on(self):
        made = self.made()
        server = trust_page("127.0.0.1", 0, made.authority, "https://127.0.0.1:9/", "ab:cd")
        threading.Thread(target=server.serve_forever, daemon=True).start()
        self.addCleanup(server.server_close)
        self.addCleanup(server.shutdown)
        at = f"http://127.0.0.1:{server.server_address[1]}"
        page = urllib.request.urlopen(f"{at}/").read().decode()
        self.assertIn("ab:cd", page)
        self.assertIn(f'href="{FILE}"', page)
        answer = urllib.request.urlopen(f"{at}{FILE}")
        self.assertEqual(answer.headers["Content-Type"], "application/x-x509-ca-cert")
        self.assertEqual(answer.read(), made.authority.read_bytes())
        self.assertNotIn(b"PRIVATE", made.authority.read_bytes())
        stay = mock.patch.object(urllib.request.HTTPRedirectHandler, "redirect_request", return_value=None)
        with stay, self.assertRaises(urllib.error.HTTPError) as led:
            urllib.request.urlopen(f"{at}/jobs/3")
        self.assertEqual(led.exception.headers["Location"], "https://127.0.0.1:9/")
        led.exception.close()


class Upkeep(Shop):
    """Copies themselves are tried in test_backup; here is when one is made, and what is remembered."""

    def setUp(self):
        super().setUp()
        self.folder = Path(self.enterContext(tempfile.TemporaryDirectory()))
        self.enterContext(override_settings(DATA=self.folder))

    def copied(self):
        with mock.patch.object(upkeep, "backup", return_value=(self.folder / "nodulant-1.sqlite3", 0)):
            return upkeep.backed_up()

    def test_a_copy_is_due_at_first_and_hourly_while_something_changes(self):
        self.assertTrue(upkeep.due())
        self.copied()
        now = datetime.now(UTC)
        self.assertFalse(upkeep.due(now + timedelta(minutes=59)))
        self.assertFalse(upkeep.due(now + timedelta(hours=2)))
        self.assertTrue(upkeep.due(now + timedelta(hours=25)))
        self.send("post", f"/options/{self.option.pk}/revisions", {"base": 1, "design": self.design()})
        self.assertTrue(upkeep.due(now + timedelta(hours=2)))

    def test_a_copy_that_failed_is_told_and_tried_again(self):
        self.copied()
        with mock.patch.object(upkeep, "backup", side_effect=OSError("no space left")), self.assertLogs(upkeep.log):
            upkeep.backed_up()
        self.assertTrue(upkeep.due())
        state = self.send("get", "/server")[1]
        self.assertIn("no space", state["backup_trouble"])
        self.assertIsNotNone(state["backup_at"])

    def test_fewer_revisions_than_before_are_said(self):
        self.copied()
        self.assertEqual(upkeep.missing(), "")
        DesignRevision.objects.filter(option=self.option)._raw_delete("default")
        self.assertIn("1 stored revisions are missing", upkeep.missing())
        self.assertIn("missing", self.send("get", "/server")[1]["missing"])
        self.assertEqual(self.client.get("/api/health").status_code, 503)

    def test_what_is_remembered_and_broken_is_as_if_it_were_not(self):
        (self.folder / "upkeep.json").write_text("{")
        self.assertEqual(upkeep.kept(), upkeep.Kept())

    def test_the_trash_is_emptied_after_its_time_and_nothing_else(self):
        other = import_job(self.owner, f.job("ostrand"))
        old, young = timezone.now() - timedelta(days=31), timezone.now() - timedelta(days=29)
        Job.objects.filter(pk=other.pk).update(deleted_at=old)
        Option.objects.filter(pk=self.option.pk).update(deleted_at=old)
        kept = self.job.options.exclude(pk=self.option.pk)[0]
        Option.objects.filter(pk=kept.pk).update(deleted_at=young)
        self.copied()
        self.assertEqual(upkeep.emptied(), 2)
        self.assertFalse(Job.objects.filter(pk=other.pk).exists())
        self.assertFalse(SurveyRevision.objects.filter(job=other.pk).exists())
        self.assertFalse(Option.objects.filter(pk=self.option.pk).exists())
        self.assertTrue(Option.objects.filter(pk=kept.pk).exists())
        self.assertEqual(upkeep.missing(), "")
        told = AuditEntry.objects.filter(what="trash emptied").values_list("subject", flat=True)
        self.assertEqual(len(told), 2)

    def test_a_job_with_a_log_and_drafts_goes_whole(self):
        self.send("post", f"/jobs/{self.job.pk}/reasons", {"subject": "teardown", "reason": "because"})
        self.send("put", f"/options/{self.option.pk}/draft", {"base": 1, "design": self.design()})
        Job.objects.update(deleted_at=timezone.now() - timedelta(days=40))
        self.assertEqual(empty_trash(timezone.now() - timedelta(days=30)), 1)
        self.assertFalse(LogEntry.objects.exists() or DesignRevision.objects.exists())


class HowItIs(Shop):
    def setUp(self):
        super().setUp()
        self.folder = Path(self.enterContext(tempfile.TemporaryDirectory()))
        self.enterContext(override_settings(DATA=self.folder))

    def health(self):
        self.client.logout()
        response = self.client.get("/api/health")
        return response.status_code, json.loads(response.content)

    def test_a_monitor_sees_that_it_works_without_signing_in(self):
        self.assertEqual(self.health(), (200, {"ok": True, "wrong": []}))

    @override_settings(WORKERS=2)
    def test_a_missing_worker_is_seen(self):
        WorkerSeen.objects.create(queue="warm-0", at=timezone.now())
        WorkerSeen.objects.create(queue="warm-1", at=timezone.now() - timedelta(minutes=2))
        self.assertEqual([w["there"] for w in self.send("get", "/server")[1]["workers"]], [True, False])
        status, told = self.health()
        self.assertEqual(status, 503)
        self.assertIn("a worker is missing", told["wrong"][0])

    def test_a_full_disk_is_seen(self):
        usage = mock.Mock(free=10_000_000)
        with mock.patch.object(shutil, "disk_usage", return_value=usage):
            self.assertIn("nearly full", self.health()[1]["wrong"][0])

    def test_only_an_owner_sees_the_server_and_makes_copies(self):
        for name in ("bram", "inspector"):
            self.become(name)
            self.refused(self.send("get", "/server")[0], 403, "forbidden")
            self.refused(self.send("post", "/server/backup", {})[0], 403, "forbidden")
