"""A tablet on another address: it trusts the shop's authority, signs in over https, goes offline, works, comes back.

Chromium's own certificate store, no flag that lets errors pass.
"""

import json
import os
import re
import shutil
import socket
import ssl
import subprocess
import sys
import tempfile
import time
import urllib.request
from pathlib import Path

from django.conf import settings
from django.test import SimpleTestCase

from tests.browser.base import FLAGS, PATIENCE_MS, playwright

MANAGE, WORD = str(Path(settings.ROOT) / "manage.py"), "a-word-nobody-guesses"
ADDRESS = "127.0.0.2"
"""Another address than the one that browsers take for safe without a certificate."""


def free_port():
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        return free.getsockname()[1]


class OnTheFloor(SimpleTestCase):
    databases = "__all__"  # it has a shop and a database of its own

    def setUp(self):
        self.folder = Path(self.enterContext(tempfile.TemporaryDirectory(ignore_cleanup_errors=True)))
        own = {name: value for name, value in os.environ.items() if not name.startswith(("DJANGO_", "NODULANT_"))}
        self.environment = {**own, "NODULANT_DATA": str(self.folder / "data"), "DJANGO_SETTINGS_MODULE": ""}
        del self.environment["DJANGO_SETTINGS_MODULE"]
        self.port, self.trust = free_port(), free_port()
        self.url = f"https://{ADDRESS}:{self.port}"
        command = ["shop", "--address", ADDRESS, "--port", str(self.port), "--trust-port", str(self.trust)]
        self.said = (self.folder / "said").open("w+")
        self.addCleanup(self.said.close)
        self.process = subprocess.Popen(
            [sys.executable, MANAGE, *command, "--processes", "2"],
            env=self.environment,
            stdout=self.said,
            stderr=subprocess.STDOUT,
        )
        self.addCleanup(self.process.wait)
        self.addCleanup(self.process.terminate)

    def wait(self):
        """Until it answers, asked as the authority's file that it hands out allows."""
        for _ in range(300):
            try:
                page = urllib.request.urlopen(f"http://{ADDRESS}:{self.trust}/nodulant-shop.crt", timeout=5).read()
                context = ssl.create_default_context(cadata=page.decode())
                urllib.request.urlopen(f"{self.url}/", context=context, timeout=10).read()
                return page
            except OSError:
                self.assertIsNone(self.process.poll(), "the shop ended")
                time.sleep(0.3)
        return self.fail("the shop did not answer")

    def trusting(self, authority, name):
        """A Chromium with a home of its own, whose store holds the authority."""
        home = self.folder / name
        store = home / ".pki" / "nssdb"
        store.mkdir(parents=True)
        (home / "authority.crt").write_bytes(authority)
        certutil = ["certutil", "-d", f"sql:{store}"]
        subprocess.run([*certutil, "-N", "--empty-password"], check=True)
        told = ["-A", "-t", "C,,", "-n", "shop", "-i", str(home / "authority.crt")]
        subprocess.run([*certutil, *told], check=True)
        return self.chromium(home)

    def chromium(self, home):
        context = playwright().chromium.launch_persistent_context(
            str(home / "profile"),
            executable_path=shutil.which("chromium"),
            args=list(FLAGS),
            env={**os.environ, "HOME": str(home)},
            viewport={"width": 1024, "height": 768},
            has_touch=True,
        )
        self.addCleanup(context.close)
        page = context.pages[0]
        page.set_default_timeout(PATIENCE_MS)
        page.on("dialog", lambda asked: asked.accept())
        return context, page

    def test_who_does_not_trust_it_gets_no_further(self):
        self.wait()
        home = self.folder / "stranger"
        home.mkdir()
        _, page = self.chromium(home)
        with self.assertRaisesRegex(Exception, "ERR_CERT_AUTHORITY_INVALID"):
            page.goto(self.url)

    def test_signs_in_goes_offline_works_and_comes_back(self):
        authority = self.wait()
        self.said.flush()
        link = re.search(r"https://\S+/join/\S+", (self.folder / "said").read_text()).group(0)
        context, page = self.trusting(authority, "tablet")
        page.goto(link)
        page.get_by_label("Your name here").fill("nell")
        page.get_by_label("Password, eight or more").fill(WORD)
        page.get_by_role("button", name="Join").click()
        page.get_by_text("nell, owner").wait_for()
        self.assertTrue(next(c for c in context.cookies() if c["name"] == "sessionid")["secure"])
        self.begin(page)
        page.evaluate("navigator.serviceWorker.ready.then(() => true)")
        page.reload()  # from now on the worker sees what is asked
        page.locator("button.stage-head").filter(has_text="Survey").click()
        field = page.get_by_label("Wheelbase, hub to hub", exact=True)
        field.wait_for()
        page.wait_for_timeout(3000)  # parts of the bench are fetched ahead
        context.set_offline(True)
        field.fill("101 1/2")
        field.press("Enter")
        page.get_by_role("status").filter(has_text="cannot be reached").first.wait_for()
        page.reload()  # with no network at all
        field.wait_for()
        self.assertEqual(field.input_value(), "101 1/2")
        # meanwhile somebody else takes another reading
        _, other = self.trusting(authority, "laptop")
        other.goto(f"{self.url}/")
        other.get_by_label("Name", exact=True).fill("nell")
        other.get_by_label("Password", exact=True).fill(WORD)
        other.get_by_role("button", name="Sign in").click()
        other.get_by_role("heading", name="Barn find").click()
        other.locator("button.stage-head").filter(has_text="Survey").click()
        other.get_by_label("Inside radius", exact=True).fill("1/4")
        other.get_by_label("Inside radius", exact=True).press("Enter")
        other.locator("button.stage-head").filter(has_text="Target").click()
        other.get_by_role("status").filter(has_text="revision").first.wait_for()
        context.set_offline(False)
        page.locator("button.stage-head").filter(has_text="Target").click()
        save = page.get_by_role("button", name="Save revision")
        for _ in range(200):
            if save.is_enabled():  # 'their readings and yours are both here. Save again.'
                save.click()
            survey = self.survey(page)
            if survey["wheelbase_mm"] == 101.5 * 25.4 and survey["rails"]["left"]["inside_radius_mm"] == 6.35:
                break
            page.wait_for_timeout(300)
        self.assertAlmostEqual(survey["wheelbase_mm"], 101.5 * 25.4, places=3)
        self.assertAlmostEqual(survey["rails"]["left"]["inside_radius_mm"], 6.35)

    def test_signs_a_step_on_the_floor_with_no_network_and_a_page_that_is_opened_again(self):
        authority = self.wait()
        self.said.flush()
        link = re.search(r"https://\S+/join/\S+", (self.folder / "said").read_text()).group(0)
        context, page = self.trusting(authority, "phone")
        page.goto(link)
        page.get_by_label("Your name here").fill("nell")
        page.get_by_label("Password, eight or more").fill(WORD)
        page.get_by_role("button", name="Join").click()
        page.get_by_text("nell, owner").wait_for()
        self.begin(page)
        page.evaluate("navigator.serviceWorker.ready.then(() => true)")
        page.goto(f"{self.url}/jobs/1/floor?option=1")
        page.get_by_role("article").wait_for()
        page.reload()  # from now on the worker sees what is asked
        page.get_by_role("button", name="More").click()
        page.get_by_role("button", name="Pass it unsigned, with a reason").click()
        page.get_by_label("Because").fill("nothing is taken apart yet")
        page.get_by_role("button", name="Pass and log the reason").click()
        page.get_by_role("button", name="Done", exact=True).wait_for()
        page.wait_for_function("() => !/kept|sending/.test(document.querySelector('header').innerText)")
        page.wait_for_timeout(1500)
        context.set_offline(True)
        page.get_by_role("button", name="Done", exact=True).click()
        page.get_by_role("button", name="Done: sign").click()
        page.get_by_role("button", name="offline, 1 kept").wait_for()
        page.reload()  # with no network at all
        page.get_by_role("button", name="offline, 1 kept").wait_for()
        context.set_offline(False)
        page.wait_for_function("() => !/kept|sending|offline/.test(document.querySelector('header').innerText)")
        log = json.loads(page.evaluate("fetch('/api/jobs/1/log').then((r) => r.text())"))
        self.assertEqual([e["kind"] for e in log], ["override", "sign-off"])

    def survey(self, page):
        answer = page.evaluate("fetch('/api/jobs/1').then((r) => r.text())")
        return json.loads(answer)["survey"]

    def begin(self, page):
        page.get_by_label("New job").fill("Barn find")
        page.get_by_label("Vehicle").fill("Barn find")
        page.get_by_role("button", name="Begin", exact=True).click()
        page.get_by_label("Sheet: side elevation above plan").wait_for()
