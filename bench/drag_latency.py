"""Dragging the notch in headless Chromium: from pointer event to redrawn figures, over 200 moves."""

import os
import tempfile
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager

import numpy as np
from django.core.management import call_command
from tests.browser.base import browser
from waitress.server import create_server

from bench.measure import Figure

WATCH = """() => {
  window.times = [];
  const sheet = document.querySelector('svg[data-shown-at]');
  new MutationObserver(() => {
    const at = Number(sheet.dataset.shownAt);
    if (!at) return;
    const after = new MessageChannel();  // its message comes after the frame's paint
    after.port1.onmessage = () => times.push(performance.now() - at);
    requestAnimationFrame(() => after.port2.postMessage(0));
  }).observe(sheet, { attributes: true, attributeFilter: ['data-shown-at'] });
}"""
MOVES = 200


@contextmanager
def served() -> Iterator[str]:
    """The demo behind waitress on a free port."""
    from nodulant_server.wsgi import application  # noqa: PLC0415 (needs Django set up first)

    with tempfile.TemporaryFile("w") as sink:
        call_command("migrate", verbosity=0, stdout=sink)
        call_command("load_demo", verbosity=0, stdout=sink)
    server = create_server(application, host="127.0.0.1", port=0, threads=4)
    threading.Thread(target=server.run, daemon=True).start()
    yield f"http://127.0.0.1:{server.effective_port}"
    server.close()


def drag() -> list[Figure]:
    """p50 and p95 of pointer to paint, and updates a second while the pointer moves."""
    with served() as address:
        page = browser().new_page(viewport={"width": 1280, "height": 800})
        page.goto(address)
        page.get_by_text("Wherry low-floor").click()
        handle = page.locator('[data-handle="axle-notch/depth"]')
        handle.wait_for()
        spot = handle.bounding_box()
        x, y = spot["x"] + spot["width"] / 2, spot["y"] + spot["height"] / 2
        page.evaluate(WATCH)
        page.mouse.move(x, y)
        page.mouse.down()
        start = time.perf_counter()
        for i in range(MOVES):
            page.mouse.move(x, y - 24 * abs(np.sin(i / 12)))
            page.wait_for_timeout(16)
        spent = time.perf_counter() - start
        page.mouse.up()
        page.wait_for_timeout(400)
        times = np.array(page.evaluate("times"))
        page.close()
    return [
        Figure("drag: pointer to redrawn figures, median", float(np.median(times)), "ms"),
        Figure("drag: pointer to redrawn figures, p95", float(np.percentile(times, 95)), "ms", budget="100 ms"),
        Figure("drag: updates of the figures", len(times) / spent, "a second", budget="10 a second"),
    ]


def load() -> str:
    """The machine's cores and load while measuring."""
    return f"{os.cpu_count()} cores, load {os.getloadavg()[0]:.1f}"
