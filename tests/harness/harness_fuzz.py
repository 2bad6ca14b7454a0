"""Twenty thousand requests that nobody would send: every route, good bodies spoilt, wrong paths, wrong kinds of content.

An answer is what was asked or a refusal in words: never a 500, never a page of the framework's own.
"""

import json
import random
import re
from collections import Counter

from nodulant_server.api.root import api
from tests.server.base import Shop
from tests.server.test_anything_sent import WRONG, places, spoilt

REQUESTS = 20_000
RAW = (
    b"",
    b"{",
    b"[]",
    b"null",
    b'"x"',
    b"\xff\xfe",
    b'{"a": NaN}',
    b'{"\\u0000": 1}',
    b"[" * 2000,
    b'{"design": 1e999}',
)
HEAVY = ("/sweep", "/find/", "/remedies", "/report.pdf", "/patterns", "/handcheck", "/compare", "/backup")
"""Of these one in two hundred is sent."""


class Fuzz(Shop):
    def test_no_answer_is_a_failure_of_ours(self):
        rng, told, seen = random.Random(17), api.get_openapi_schema(), Counter()
        self.client.raise_request_exception = False
        head = self.send("get", f"/jobs/{self.job.pk}")[1]
        good = {
            "base": 1, "design": self.design(), "survey": head["survey"], "job_id": self.job.pk, "shop": head["shop"],
            "option_id": self.option.pk, "option_ids": [self.option.pk, self.option.pk + 1], "name": "x", "suspension": 0,
            "operation_id": "axle-notch", "operation": "axle-notch", "key": "depth", "side": "left", "value": 58.0,
            "subject": "teardown", "reason": "because", "step": "teardown", "entry": 1, "kind": "notch", "style": "mm",
            "start": {"vehicle": "x"}, "text": "x,underside,height,width,wall\n0,0,100,50,4\n", "unit": "mm", "role": "reader",
            "label": "x", "days": 3, "password": "a-word-nobody-guesses", "old": "x", "new": "y", "axle": "rear",
        }  # fmt: skip
        routes = [(path, method, how) for path, ways in told["paths"].items() for method, how in ways.items()]
        while sum(seen.values()) < REQUESTS:
            path, method, how = rng.choice(routes)
            if any(part in path for part in HEAVY) and rng.random() > 0.005:
                continue
            if path.endswith(("/password", "/switch", "/sign-out", "/health", "/server/backup")):
                continue
            ids = {"job_id": self.job.pk, "option_id": self.option.pk}
            url = re.sub(
                r"\{(\w+)\}",
                lambda m, ids=ids: str(rng.choice((ids.get(m[1], 1), 1, 0, -1, 10**20, "x", "%00", "é"))),
                path,
            )
            sent = how.get("requestBody", {}).get("content", {}).get("application/json", {}).get("schema", {})
            known = told["components"]["schemas"].get(sent.get("$ref", "").rsplit("/", 1)[-1], {}).get("properties", {})
            body = {k: v for k, v in good.items() if k in known}
            data = json.dumps(self.worse(body, rng)).encode() if rng.random() < 0.85 else rng.choice(RAW)
            kind = "application/json" if rng.random() < 0.95 else rng.choice(("text/plain", "multipart/form-data", ""))
            response = self.client.generic(method.upper(), url, b"" if method == "get" else data, content_type=kind)
            answer = b"".join(response.streaming_content) if response.streaming else response.content
            seen[response.status_code] += 1
            self.assertLess(response.status_code, 500, f"{method} {url} {data[:2000]!r} {answer[:500]!r}")
            if response.status_code >= 400:
                self.assertIn("json", response.headers.get("Content-Type", ""), f"{method} {url}")
        print(f"{sum(seen.values())} requests: {dict(sorted(seen.items()))}", flush=True)

    def worse(self, body, rng):
        """The body, one to three things in it spoilt."""
        for _ in range(rng.choice((0, 1, 1, 1, 2, 3))):
            if not any(places(body)):
                return rng.choice(WRONG)
            body, _ = spoilt(body, rng)
        return body
