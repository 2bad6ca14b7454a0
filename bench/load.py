"""Several people on one server: how long each waits while others drag, evaluate and sweep."""

import copy
import http.client
import json
import re
import threading
import time
from urllib.parse import urlsplit

import numpy as np

from bench.drag_latency import served
from bench.measure import Figure

PAUSE_S = 0.1
"""A hand's pause between two asks; the page asks about ten times a second."""

DRAGGED = {
    **dict.fromkeys(("frame", "interim", "along", "travel", "steps", "readings"), False),
    "strip_side": "left",
    "section": {"side": "left", "x_mm": 2610.0},
}
"""What the page asks for while a hand drags."""


class Person:
    """Somebody's browser: one connection, kept open."""

    def __init__(self, address: str) -> None:
        parts = urlsplit(address)
        self.line = http.client.HTTPConnection(parts.hostname, parts.port, timeout=120)
        self.cookies: dict[str, str] = {}
        self.ask("GET", "/")
        self.ask("GET", "/api/session")

    def ask(self, method: str, path: str, body: object = None) -> bytes:
        """The whole answer."""
        headers = {"Cookie": "; ".join(f"{k}={v}" for k, v in self.cookies.items())}
        headers["X-CSRFToken"] = self.cookies.get("csrftoken", "")
        headers["Content-Type"] = "application/json"
        self.line.request(method, path, None if body is None else json.dumps(body), headers)
        answer = self.line.getresponse()
        content = answer.read()
        for given in answer.headers.get_all("Set-Cookie") or []:
            name, value = re.match(r"([^=]+)=([^;]*)", given).groups()
            self.cookies[name] = value
        if answer.status >= 400:
            raise RuntimeError(f"{answer.status} at {path}: {content[:200]!r}")
        return content

    def get(self, path: str) -> object:
        """The answer's data."""
        return json.loads(self.ask("GET", path))


def together(count: int, act, rounds: int) -> float:
    """The 95th percentile of what each of ``count`` people waits, ms; ``act(k)`` gives a call for round ``i``."""
    waited: list[float] = []

    def one(call) -> None:
        for i in range(rounds):
            began = time.perf_counter()
            call(i)
            waited.append((time.perf_counter() - began) * 1000)
            time.sleep(PAUSE_S)

    people = [threading.Thread(target=one, args=(act(k),)) for k in range(count)]
    for thread in people:
        thread.start()
    for thread in people:
        thread.join()
    return float(np.percentile(waited, 95))


def load() -> list[Figure]:
    """Drags of eight, evaluations of four, and a small request while four sweep."""
    with served() as address:
        first = Person(address)
        job = next(j for j in first.get("/api/jobs") if "Wherry" in j["name"])["id"]
        head = first.get(f"/api/jobs/{job}")

        def draft_of(key: str) -> dict:
            option = next(o["id"] for o in head["options"] if o["key"] == key)
            design = first.get(f"/api/options/{option}")["design"]
            return {"job_id": job, "design": design, "survey": head["survey"]}

        arc, step = draft_of("arc"), draft_of("step")

        def drags(k: int):
            """A link's end on the step, dragged."""
            person, bodies = Person(address), []
            for i in range(40):
                body = {**copy.deepcopy(step), "glance": True, "only": 0}
                body["design"]["suspensions"][0]["layout"]["lower"]["frame"]["z_mm"] += 0.1 * (40 * k + i)
                bodies.append(body)
            return lambda i: person.ask("POST", "/api/travel", bodies[i])

        def evaluates(k: int):
            """The notch's depth, dragged."""
            person, bodies = Person(address), []
            for i in range(20):
                body = {**copy.deepcopy(arc), "slim": True, "sequence": i, "want": DRAGGED}
                notch = next(op for op in body["design"]["operations"] if op["kind"] == "notch")
                notch["depth_mm"] -= 0.05 * (20 * k + i)
                bodies.append(body)
            return lambda i: person.ask("POST", "/api/evaluate", bodies[i])

        for warm in (drags, evaluates):
            together(2, warm, 10)
        figures = [
            Figure("travel drags of 8 people at once, p95", together(8, drags, 40), "ms", budget="250 ms"),
            Figure("slim evaluations of 4 people at once, p95", together(4, evaluates, 20), "ms", budget="350 ms"),
        ]
        sweeping = [threading.Thread(target=_sweeps, args=(address, step, name)) for name in ("ada", "bram") * 2]
        for thread in sweeping:
            thread.start()
        time.sleep(0.5)
        fifth, waited = Person(address), []
        while any(thread.is_alive() for thread in sweeping):
            began = time.perf_counter()
            fifth.ask("GET", "/api/session")
            waited.append((time.perf_counter() - began) * 1000)
            time.sleep(PAUSE_S)
        p95 = float(np.percentile(waited, 95))
        return [*figures, Figure("session of a fifth person while four sweep, p95", p95, "ms", budget="200 ms")]


def _sweeps(address: str, draft: dict, name: str) -> None:
    person = Person(address)
    person.ask("POST", "/api/session/switch", {"name": name})
    lines = person.ask("POST", "/api/sweep", draft).splitlines()
    if not lines[-1].startswith(b'{"swept"'):
        raise RuntimeError(f"a sweep ended otherwise: {lines[-1][:200]!r}")
