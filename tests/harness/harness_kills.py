"""A hundred kills while two people save: whatever was acknowledged is there afterwards.

Web processes are killed without warning ninety times and the whole server ten times; drafts, revisions, readings and
shop settings are written all along and compared with what each answer promised.
"""

import copy
import hashlib
import json
import os
import random
import signal
import subprocess
import sys
import tempfile
import threading
import time
from http.client import HTTPException
from pathlib import Path

from bench.load import Person
from django.conf import settings
from django.test import SimpleTestCase

from tests.server.test_behind_nginx import free_port

MANAGE = str(Path(settings.ROOT) / "manage.py")
KILLS, WHOLE = 100, 10


class Kills(SimpleTestCase):
    databases = "__all__"  # it has a server and a database of its own

    def setUp(self):
        self.folder = self.enterContext(tempfile.TemporaryDirectory(ignore_cleanup_errors=True))
        own = {name: value for name, value in os.environ.items() if not name.startswith(("DJANGO_", "NODULANT_"))}
        self.environment = {**own, "NODULANT_DATA": self.folder, "NODULANT_DEMO": "1"}
        self.port = free_port()
        self.addCleanup(lambda: self.process.kill())
        self.start()

    def start(self):
        self.process = subprocess.Popen(
            [sys.executable, MANAGE, "demo", "--port", str(self.port)],
            env=self.environment,
            stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
        )

    def web(self):
        """Processes that answer: children of the server that are no workers."""
        rows = subprocess.run(["ps", "-eo", "pid,ppid,args"], capture_output=True, text=True).stdout.splitlines()
        told = (row.split(maxsplit=2) for row in rows[1:])
        return [int(p) for p, parent, args in told if int(parent) == self.process.pid and "worker" not in args]

    def person(self):
        for _ in range(600):
            try:
                return Person(f"http://127.0.0.1:{self.port}")
            except (OSError, RuntimeError, AttributeError, HTTPException):
                time.sleep(0.2)
        return self.fail("the server did not come back")

    def test_what_was_acknowledged_is_there(self):
        first = self.person()
        job = next(j for j in first.get("/api/jobs") if "Wherry" in j["name"])["id"]
        head = first.get(f"/api/jobs/{job}")
        options = [o["id"] for o in head["options"][:2]]
        promised = {"revisions": {o: first.get(f"/api/options/{o}")["head"] for o in options}, "shop": head["shop_number"],
                    "drafts": {}, "files": set(), "log": len(head["log"])}  # fmt: skip
        over, acknowledged = threading.Event(), [0]
        writers = [threading.Thread(target=self.write, args=(job, o, promised, over, acknowledged)) for o in options]
        for writer in writers:
            writer.start()
        chance = random.Random(11)
        for n in range(KILLS):
            time.sleep(chance.uniform(0.1, 1.0))
            if n % (KILLS // WHOLE) == 0:
                self.process.send_signal(signal.SIGKILL)
                self.process.wait()
                self.start()
                self.person()
            elif found := self.web():
                os.kill(chance.choice(found), signal.SIGKILL)
        over.set()
        for writer in writers:
            writer.join()
        last = self.person()
        now = last.get(f"/api/jobs/{job}")
        self.assertGreaterEqual(now["shop_number"], promised["shop"])
        self.assertGreaterEqual(len(now["log"]), promised["log"])
        self.assertEqual([e["number"] for e in now["log"]], list(range(1, len(now["log"]) + 1)))
        for option in options:
            stored = last.get(f"/api/options/{option}?device=kills")
            self.assertGreaterEqual(stored["head"], promised["revisions"][option])
            wanted = promised["drafts"].get(option)
            if wanted and stored["draft"]:
                self.assertGreaterEqual(stored["draft"]["targets"]["drop_mm"], wanted)
        kept = {row["sha256"] for row in last.get(f"/api/jobs/{job}/attachments")}
        self.assertLessEqual(promised["files"], kept)
        self.assertTrue(promised["files"])
        for sha256 in promised["files"]:
            content = last.ask("GET", f"/api/jobs/{job}/attachments/{sha256}")
            self.assertEqual(hashlib.sha256(content).hexdigest(), sha256)
        print(f"{KILLS} kills, {acknowledged[0]} acknowledged writes, none lost", flush=True)
        self.assertGreater(acknowledged[0], 100)

    def write(self, job, option, promised, over, acknowledged):
        """Save one thing after the other; what is answered with yes is promised."""
        person, n = self.person(), 0
        while not over.is_set():
            n += 1
            try:
                stored = person.get(f"/api/options/{option}?device=kills")
                design = copy.deepcopy(stored["draft"] or stored["design"])
                design["targets"]["drop_mm"] = float(n)
                draft = {"base": stored["head"], "design": design, "device": "kills"}
                person.ask("PUT", f"/api/options/{option}/draft", draft)
                promised["drafts"][option] = float(n)
                if n % 3 == 0:
                    body = {**draft, "note": f"kill {n}"}
                    saved = json.loads(person.ask("POST", f"/api/options/{option}/revisions", body))
                    promised["revisions"][option] = saved["number"]
                    promised["drafts"].pop(option)
                if n % 4 == 0:
                    body = {"subject": "teardown", "reason": "kept through a kill"}
                    person.ask("POST", f"/api/jobs/{job}/reasons", body)
                    promised["log"] = max(promised["log"], len(person.get(f"/api/jobs/{job}/log")))
                if n % 2 == 0:
                    path = f"/api/jobs/{job}/attachments"
                    row = json.loads(person.ask("POST", f"{path}?name=photo-{option}-{n}", {"photo": [option, n]}))
                    promised["files"].add(row["sha256"])
                if n % 5 == 0:
                    head = person.get(f"/api/jobs/{job}")
                    body = {"base": head["shop_number"], "shop": head["shop"]}
                    promised["shop"] = max(
                        promised["shop"], json.loads(person.ask("PUT", f"/api/jobs/{job}/shop", body))["number"]
                    )
                acknowledged[0] += 1
            except (OSError, RuntimeError, ValueError, AttributeError, HTTPException):
                person = self.person()
