"""Commands as people run them: the demo loaded once, documents up to date, a server that answers on its own port."""

import gc
import io
import json
import os
import socket
import subprocess
import sys
import tempfile
import time
import urllib.request
from pathlib import Path
from unittest import mock

from django.conf import settings
from django.contrib.auth.models import User
from django.core.management import call_command
from django.test import SimpleTestCase, TestCase

from nodulant.parts.limits import LIMITS
from nodulant_server.actions import people
from nodulant_server.actions.transfer import import_job
from nodulant_server.management.commands import serve
from nodulant_server.models import Job, Member
from nodulant_server.roles import acting_as
from nodulant_server.shops import shop_named
from tests import fixtures as f

ROOT = Path(settings.ROOT)


class LoadDemo(TestCase):
    def load(self):
        out = io.StringIO()
        call_command("load_demo", stdout=out)
        return out.getvalue()

    def test_its_people_and_jobs_once(self):
        first = self.load()
        self.assertEqual(first.count("loaded"), 3)
        jobs, people = set(Job.objects.values_list("pk", "name")), set(User.objects.values_list("username", flat=True))
        self.assertEqual({name for _, name in jobs} & {"Wherry low-floor"}, {"Wherry low-floor"})
        self.assertEqual(people, {"ada", "bram", "inspector"})
        self.assertEqual(self.load(), "")
        self.assertEqual(set(Job.objects.values_list("pk", "name")), jobs)

    def test_nobody_has_a_password(self):
        self.load()
        self.assertFalse(any(user.has_usable_password() for user in User.objects.all()))
        self.assertEqual(
            {m.user.username: m.role for m in Member.objects.filter(workshop__name="Demo shop")},
            {"ada": "owner", "bram": "helper", "inspector": "reader"},
        )

    def test_where_jobs_are_already_none_is_added(self):
        import_job(acting_as(people.add_member(shop_named("Mine"), "ada", None, "owner")), f.job("ostrand"))
        self.assertEqual(self.load(), "")
        self.assertEqual(Job.objects.count(), 1)


class Schemas(SimpleTestCase):
    def test_what_is_committed_is_what_the_models_say(self):
        call_command("write_schemas", check=True)

    def test_every_limit_stands_on_its_page(self):
        page = (ROOT / "docs/limits.md").read_text()
        for limit in LIMITS:
            self.assertIn(f"| {limit.name} |", page)

    def test_what_differs_is_named(self):
        with tempfile.TemporaryDirectory() as folder, self.settings(ROOT=folder):
            with self.assertRaises(SystemExit) as stale:
                call_command("write_schemas", check=True)
            self.assertIn("web/openapi.json", str(stale.exception))
            (Path(folder) / "web").mkdir()
            call_command("write_schemas")
            call_command("write_schemas", check=True)
            written = json.loads((Path(folder) / "web/openapi.json").read_text())
            self.assertIn("/api/sweep", written["paths"])


class Settled(TestCase):
    def test_what_answers_is_left_out_of_the_collectors_rounds(self):
        with (
            mock.patch.object(serve.Web, "run", autospec=True) as started,
            mock.patch.object(serve.connections, "close_all"),
            self.settings(WORKERS=0),
        ):
            call_command("serve", port=1234, workers_elsewhere=True, stdout=io.StringIO())
        told = started.call_args.args[0].cfg.settings
        self.assertEqual(told["bind"].get(), ["127.0.0.1:1234"])
        self.assertEqual(told["forwarded_allow_ips"].get(), [])
        self.assertGreater(gc.get_freeze_count(), 10_000)
        gc.unfreeze()


class Served(SimpleTestCase):
    """One process on a data folder of its own, asked over a real socket."""

    def setUp(self):
        self.folder = tempfile.TemporaryDirectory()
        self.addCleanup(self.folder.cleanup)
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            self.port = free.getsockname()[1]
        own = {name: value for name, value in os.environ.items() if not name.startswith(("DJANGO_", "NODULANT_"))}
        self.process = subprocess.Popen(
            [sys.executable, str(ROOT / "manage.py"), "demo", "--port", str(self.port)],
            env={**own, "NODULANT_DATA": self.folder.name, "NODULANT_DEMO": "1"},
            stdout=subprocess.PIPE,
            stderr=subprocess.STDOUT,
            text=True,
        )
        self.addCleanup(self.end)

    def end(self):
        self.process.terminate()
        self.process.wait(30)
        self.process.stdout.close()

    def ask(self, path):
        with urllib.request.urlopen(f"http://127.0.0.1:{self.port}{path}", timeout=30) as answer:
            return answer.status, answer.headers, answer.read()

    def wait(self):
        for _ in range(300):
            if self.process.poll() is not None:
                self.fail(self.process.stdout.read())
            try:
                return self.ask("/api/session")
            except OSError:
                time.sleep(0.2)
        return self.fail("it did not answer within a minute")

    def test_one_command_brings_the_demo_up(self):
        status, headers, body = self.wait()
        self.assertEqual(status, 200)
        session = json.loads(body)
        self.assertTrue(session["demo"])
        self.assertEqual([person["name"] for person in session["people"]], ["ada", "bram", "inspector"])
        self.assertIn("default-src 'self'", headers["Content-Security-Policy"])
        self.assertTrue(list(Path(self.folder.name).glob("*.sqlite3")))
        status, _, page = self.ask("/")
        self.assertEqual(status, 200)
        self.assertIn(b"<title>", page)
        # nothing of the page is fetched from elsewhere
        self.assertNotIn(b'src="http', page)
        self.assertNotIn(b'href="http', page)

    def test_requests_sent_by_halves_hold_up_nobody_and_end(self):
        self.wait()
        halves = [socket.create_connection(("127.0.0.1", self.port), 60) for _ in range(12)]
        for half in halves:
            half.sendall(b"GET /api/session HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Half")
        for _ in range(20):
            self.assertEqual(self.ask("/api/session")[0], 200)
        for half in halves:
            half.settimeout(60)
            half.recv(4096)  # a refusal, or nothing: it is closed
            half.close()

    def test_workers_that_end_are_started_again_and_end_with_the_server(self):
        self.wait()

        def workers(loaded_by=False):
            """Processes that take work; or the one that loads what they need and parts into them."""
            told = subprocess.run(["ps", "-eo", "pid,ppid,stat,args"], capture_output=True, text=True).stdout
            rows = [line.split(maxsplit=3) for line in told.splitlines()[1:]]
            own = str(self.process.pid)
            mine = [r for r in rows if f"workers --parent {own} " in r[3] and "Z" not in r[2]]
            return {int(r[0]) for r in mine if (r[1] == own) is loaded_by}

        def until(held):
            for _ in range(300):
                if held():
                    return
                time.sleep(0.1)
            self.fail("not within half a minute")

        until(workers)
        for killed in (workers(), workers(loaded_by=True)):
            first = workers()
            for pid in killed:
                os.kill(pid, 9)
            until(lambda first=first: len(workers()) == len(first) and not workers() & first)
        self.process.kill()
        for _ in range(100):
            left = subprocess.run(["ps", "-eo", "args"], capture_output=True, text=True).stdout
            if f"--parent {self.process.pid} " not in left:
                break
            time.sleep(0.2)
        self.assertNotIn(f"--parent {self.process.pid} ", left)


class NoFetching(SimpleTestCase):
    def test_built_files_name_no_other_place(self):
        """Styles ask for their fonts beside themselves; scripts may name a place in words, but load none."""
        dist = ROOT / "web/dist"
        styles = list(dist.rglob("*.css"))
        self.assertTrue(styles)
        for style in styles:
            text = style.read_text()
            self.assertNotRegex(text, r"url\(\s*['\"]?(https?:)?//", style.name)
            self.assertNotIn("@import", text)
        page = (dist / "index.html").read_text()
        self.assertNotRegex(page, r"(src|href)=['\"](https?:)?//")
