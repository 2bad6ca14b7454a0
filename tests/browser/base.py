"""A real Chromium on the real server, with the demo shop loaded."""

import io
import os
import shutil
from contextlib import contextmanager

from django.core.cache import cache
from django.core.management import call_command
from django.test import LiveServerTestCase, override_settings
from playwright.sync_api import Error as PlaywrightError
from playwright.sync_api import Page, expect, sync_playwright

from nodulant_server.models import Draft, Job, LogEntry, Option

FLAGS = (
    "--no-sandbox",
    "--disable-gpu",
    "--enable-unsafe-swiftshader",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--no-first-run",
    "--disable-quic",
)
PATIENCE_MS = 45_000
"""A shared machine stands still now and then; what is waited for comes all the same."""
expect.set_options(timeout=PATIENCE_MS)
_started: dict[int, tuple[object, object]] = {}


def playwright():
    """One driver a process, started when first asked for and never before a fork."""
    return _both()[0]


def browser():
    """One Chromium a process."""
    return _both()[1]


def _both():
    if os.getpid() not in _started:
        path = shutil.which("chromium")
        if path is None:
            raise RuntimeError("Chromium is not installed: run bin/ensure-chromium (apt-get install chromium)")
        play = sync_playwright().start()
        _started[os.getpid()] = (play, play.chromium.launch(executable_path=path, args=list(FLAGS)))
    return _started[os.getpid()]


@override_settings(DEMO=True)
class Bench(LiveServerTestCase):
    """One page on the demo job's bench; a console error or a request that leaves the machine fails the test."""

    size = {"width": 1280, "height": 800}
    scheme = "light"
    touch = False
    logged = False
    """Whether the demo's own log is there."""

    def setUp(self):
        cache.clear()
        call_command("load_demo", verbosity=0, stdout=io.StringIO())
        if not self.logged:
            LogEntry.objects.all()._raw_delete("default")  # entries cannot be deleted; a test may begin before them
        self.job = Job.objects.get(name="Wherry low-floor")
        self.errors = []
        self.context = browser().new_context(
            viewport=self.size, color_scheme=self.scheme, accept_downloads=True, has_touch=self.touch
        )
        self.addCleanup(self.context.close)
        self.page = self.watch(self.context.new_page())

    def watch(self, page: Page) -> Page:
        page.set_default_timeout(PATIENCE_MS)
        page.on("pageerror", lambda error: self.errors.append(f"page: {error}"))
        page.on("request", self._stays_here)
        page.on("dialog", lambda asked: asked.accept())  # leaving with unsent work is asked about
        return page

    def add_work(self, name: str, page: Page | None = None) -> None:
        """Add an operation from the list of the Cut stage."""
        page = page or self.page
        page.get_by_role("button", name="Add work to the rails").click()
        group = page.get_by_role("group", name="Work to add")
        group.get_by_role("button").filter(has_text=name).first.click()
        group.wait_for(state="hidden")

    def __getstate__(self):
        """A failed subtest travels between processes by its names; pages do not."""
        left_here = {"page", "context", "job", "_outcome"}
        return {**{k: v for k, v in self.__dict__.items() if k not in left_here}, "_cleanups": []}

    def _callTestMethod(self, method):
        """Playwright's errors hold its event loop, which cannot travel between test processes: keep their words."""
        try:
            method()
        except PlaywrightError as error:
            raise AssertionError(str(error)).with_traceback(error.__traceback__) from None

    def _stays_here(self, request):
        if not request.url.startswith((self.live_server_url, "data:", "blob:")):
            self.errors.append(f"left the machine: {request.url}")

    def tearDown(self):
        self.assertEqual(self.errors, [])

    def open(self, stage=None, page=None):
        """Open the demo job's bench, at a stage."""
        page = page or self.page
        page.goto(f"{self.live_server_url}/jobs/{self.job.pk}")
        page.get_by_label("Sheet: side elevation above plan").wait_for()
        if stage:
            self.stage(stage, page)

    def stage(self, name, page=None):
        """Unfold a stage."""
        page = page or self.page
        page.locator("button.stage-head").filter(has_text=name).click()
        page.get_by_role("region", name=name, exact=True).wait_for()

    def type_in(self, label, text, page=None):
        """Type into a labelled field and leave it with Enter."""
        field = (page or self.page).get_by_label(label, exact=True)
        field.fill(text)
        field.press("Enter")
        return field

    def choose_option(self, name):
        """Lay another option on the bench, and wait until it lies there."""
        pk = self.job.options.get(name=name).pk
        with self.page.expect_response(lambda r: f"/api/options/{pk}?" in r.url and r.ok):
            self.page.get_by_role("combobox", name="Option").select_option(label=name)
        self.page.wait_for_timeout(400)

    def stored(self, option_id):
        """What the server has of an option: the newest unsaved work, else the newest revision."""
        draft = Draft.objects.filter(option=option_id).order_by("-at").first()
        return draft.document if draft else Option.objects.get(pk=option_id).head().document

    @contextmanager
    def evaluated(self, page=None):
        """Wait for the evaluation that an act inside causes."""
        with (page or self.page).expect_response(lambda r: r.url.endswith("/api/evaluate") and r.ok) as waited:
            yield
        waited.value.finished()
        (page or self.page).wait_for_timeout(200)

    def margin(self, title):
        """The row of the margin column that starts with ``title``."""
        return self.page.get_by_label("Margins").get_by_role("button").filter(has_text=title).first

    def drag(self, handle, dx, dy, steps=8):
        """Drag a handle of the sheet by so many pixels."""
        box = self.standing(handle)
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        for i in range(1, steps + 1):
            self.page.mouse.move(x + dx * i / steps, y + dy * i / steps)
        self.page.mouse.up()

    def standing(self, handle):
        """Where a handle is once the sheet has come to rest: a fresh evaluation may still move it."""
        mark = self.page.locator(f'[data-handle="{handle}"]')
        box = mark.bounding_box()
        for _ in range(50):
            self.page.wait_for_timeout(80)
            before, box = box, mark.bounding_box()
            if before == box:
                break
        return box

    def kept(self):
        """Wait until the autosave says that everything is kept."""
        self.page.get_by_role("status").filter(has_text="kept").filter(has_not_text="not kept").first.wait_for()
