"""Dragging the notch in headless Chromium: from pointer event to redrawn figures, over 200 moves."""

import os
import socket
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import numpy as np
from django.core.management import call_command
from tests.browser.base import browser

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
    """The demo behind a server of its own, as people run it, on a free port."""
    with tempfile.TemporaryFile("w") as sink:
        call_command("migrate", verbosity=0, stdout=sink)
        call_command("load_demo", verbosity=0, stdout=sink)
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    manage = Path(__file__).resolve().parents[1] / "manage.py"
    server = subprocess.Popen([sys.executable, str(manage), "serve", "--port", str(port)], stdout=subprocess.DEVNULL)
    try:
        while True:
            try:
                socket.create_connection(("127.0.0.1", port), 1.0).close()
                break
            except OSError:
                if server.poll() is not None:
                    raise
                time.sleep(0.2)
        yield f"http://127.0.0.1:{port}"
    finally:
        server.terminate()
        server.wait()


def drag() -> list[Figure]:
    """Dragging the depth of a notch, a link's frame end, a rack's joint with the wheels' lock."""
    with served() as address:
        notch = _dragged(address, '[data-handle="axle-notch/depth"]', None)
        link = _dragged(
            address, '[data-point="suspensions.0.layout.lower.frame@side"]', "Step, narrowed front, raised pocket"
        )
        rack = _dragged(
            address,
            '[data-point="suspensions.1.layout.toe.frame@side"]',
            "Step, narrowed front, raised pocket",
            "Steering",
        )
    return [
        Figure("drag: pointer to redrawn figures, median", float(np.median(notch[0])), "ms"),
        Figure("drag: pointer to redrawn figures, p95", float(np.percentile(notch[0], 95)), "ms", budget="100 ms"),
        Figure("drag: updates of the figures", notch[1], "a second", budget="10 a second"),
        Figure("drag of a link point: median", float(np.median(link[0])), "ms"),
        Figure("drag of a link point: p95", float(np.percentile(link[0], 95)), "ms", budget="80 ms"),
        Figure("drag of a rack point: median", float(np.median(rack[0])), "ms"),
        Figure("drag of a rack point: p95", float(np.percentile(rack[0], 95)), "ms", budget="80 ms"),
    ]


def _dragged(address: str, handle: str, option: str | None, stage: str = "Travel") -> tuple[np.ndarray, float]:
    """Milliseconds from every move to its paint, and updates a second."""
    page = browser().new_page(viewport={"width": 1280, "height": 800})
    page.goto(address)
    page.get_by_text("Wherry low-floor").click()
    if option:
        page.get_by_label("Option").select_option(label=option)
        page.locator("button.stage-head").filter(has_text=stage).click()
    point = page.locator(handle)
    point.wait_for()
    page.wait_for_timeout(500)
    spot = point.bounding_box()
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
    return times, len(times) / spent


def load() -> str:
    """The machine's cores and load while measuring."""
    return f"{os.cpu_count()} cores, load {os.getloadavg()[0]:.1f}"
