"""Two web machines and a worker's on one PostgreSQL: separate data folders, nothing shared but the database."""

import http.cookiejar
import json
import os
import socket
import subprocess
import sys
import tempfile
import time
import urllib.error
import urllib.request
from pathlib import Path
from unittest import skipUnless

from django.conf import settings
from django.db import connection
from django.test import TransactionTestCase

from nodulant.formats.jobfile import dump_job
from tests import fixtures as f

MANAGE, WORD = str(Path(settings.ROOT) / "manage.py"), "a-word-nobody-guesses"
PHOTO = b"\x89PNG\r\n\x1a\n" + bytes(range(256)) * 40


def free_port():
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        return free.getsockname()[1]


@skipUnless(connection.vendor == "postgresql", "several machines need a database of their own")
class SeveralMachines(TransactionTestCase):
    def setUp(self):
        self.folder = Path(self.enterContext(tempfile.TemporaryDirectory(ignore_cleanup_errors=True)))
        own = connection.settings_dict
        url = f"postgres://{own['USER']}@{own['HOST']}:{own['PORT']}/{own['NAME']}"
        kept = {name: value for name, value in os.environ.items() if not name.startswith(("DJANGO_", "NODULANT_"))}
        self.environment = {
            **kept,
            "DATABASE_URL": url,
            "NODULANT_SECRET": "the same on all of them",
            "NODULANT_WORKERS": "1",
        }
        self.run_at("desk", "add_person", "nell", "owner", "--password", WORD)
        self.jar = http.cookiejar.CookieJar()
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))
        self.desk, self.floor = self.web("desk"), self.web("floor")

    def at(self, machine):
        return {**self.environment, "NODULANT_DATA": str(self.folder / machine)}

    def run_at(self, machine, *command):
        subprocess.run([sys.executable, MANAGE, *command], env=self.at(machine), check=True, stdout=subprocess.DEVNULL)

    def start(self, machine, *command):
        process = subprocess.Popen(
            [sys.executable, MANAGE, *command],
            env=self.at(machine),
            stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
        )
        self.addCleanup(process.wait)
        self.addCleanup(process.kill if command[0] == "worker" else process.terminate)

    def web(self, machine):
        """A machine that answers and has no workers; its address."""
        port = free_port()
        self.start(machine, "serve", "--port", str(port), "--processes", "1", "--workers-elsewhere")
        address = f"http://127.0.0.1:{port}"
        for _ in range(300):
            try:
                self.opener.open(f"{address}/api/session")
                return address
            except OSError:
                time.sleep(0.2)
        self.fail(f"{machine} does not answer")

    def ask(self, machine, path, body=None, kind="application/json"):
        data = body if isinstance(body, bytes | None) else json.dumps(body).encode()
        token = next((c.value for c in self.jar if c.name == "csrftoken"), "")
        told = {"Content-Type": kind, "X-CSRFToken": token}
        try:
            answer = self.opener.open(urllib.request.Request(f"{machine}/api{path}", data, told))
        except urllib.error.HTTPError as refused:
            answer = refused
        with answer:
            return answer.status, answer.read()

    def test_one_shop_whichever_machine_answers(self):
        self.opener.open(self.desk)
        status, told = self.ask(self.desk, "/session/sign-in", {"name": "nell", "password": WORD})
        self.assertEqual(status, 200, told)
        status, told = self.ask(self.desk, "/jobs/import", dump_job(f.job()))
        self.assertEqual(status, 200, told)
        job = json.loads(told)
        # signed in at the desk is signed in on the floor; what the desk stored is there, files too
        self.assertEqual(json.loads(self.ask(self.floor, "/session")[1])["user"], "nell")
        sha = json.loads(self.ask(self.desk, f"/jobs/{job['id']}/attachments?name=a.png", PHOTO, "image/png")[1])
        self.assertEqual(self.ask(self.floor, f"/jobs/{job['id']}/attachments/{sha['sha256']}"), (200, PHOTO))
        # what rests on an older revision is refused by the other machine too
        option = json.loads(self.ask(self.floor, f"/options/{job['options'][-1]['id']}")[1])
        saved = {"base": option["head"], "design": {**option["design"], "stock_spares": "fit"}, "note": ""}
        first = self.ask(self.desk, f"/options/{option['id']}/revisions", saved)
        second = self.ask(self.floor, f"/options/{option['id']}/revisions", saved)
        self.assertEqual((first[0], second[0]), (200, 409), (first[1][:300], second[1][:300]))
        # heavy work asked of one machine is done by a worker on a third
        self.start("bench", "worker", "--queue", "0")
        status, told = self.ask(self.floor, "/sweep", {"job_id": job["id"], "design": option["design"]})
        lines = [json.loads(line) for line in told.splitlines()]
        self.assertEqual(status, 200)
        self.assertIn({"told": "waits for a worker"}, lines[:1], "nobody on these two machines could have begun it")
        self.assertGreater(lines[-1]["swept"]["positions"], 0, lines[-1])
