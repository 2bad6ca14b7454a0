"""Whatever is sent, the answer is figures or a refusal that names its place; never a 500, never a NaN."""

import copy
import json
import random
import re

from tests import fixtures as f
from tests.fixtures import finite
from tests.server.base import Shop

WRONG = (None, "", "x", -1, 0, 1e9, 1e-12, 1e300, [], {}, True, "9" * 400, "front", "{gt:g} {0} {}")
BEND = (-1.0, 0.0, 0.3, 0.5, 0.9, 1.1, 2.0, 30.0)


def places(value, path=()):
    """Every place in a document, as the keys that lead to it."""
    if path:
        yield path
    inner = value.items() if isinstance(value, dict) else enumerate(value) if isinstance(value, list) else ()
    for key, part in inner:
        yield from places(part, (*path, key))


def at(document, path):
    """What stands there."""
    for key in path:
        document = document[key]
    return document


def document_of(inputs):
    """Survey and design as the browser sends them."""
    return {name: json.loads(getattr(inputs, name).model_dump_json()) for name in ("survey", "design")}


def spoilt(document, rng):
    """The document with one thing missing, doubled, or something else altogether."""
    out = copy.deepcopy(document)
    path = rng.choice(list(places(out)))
    home, key = at(out, path[:-1]), path[-1]
    way = rng.random()
    if way < 0.15:
        del home[key]
    elif way < 0.25 and isinstance(home, list):
        home.append(copy.deepcopy(home[key]))
    else:
        home[key] = rng.choice(WRONG)
    return out, path


def bent(document, rng):
    """The document with three of its numbers other ones."""
    out = copy.deepcopy(document)
    numbers = [p for p in places(out) if isinstance(at(out, p), float)]
    for path in rng.sample(numbers, 3):
        at(out, path[:-1])[path[-1]] = at(out, path) * rng.choice(BEND) + rng.choice((-60.0, 0.0, 0.0, 8.0))
    return out, path


def levelled(document, rng):
    """The document with one of its numbers the same as another of its name: two places that are one, two sizes alike."""
    out = copy.deepcopy(document)
    numbers = [p for p in places(out) if isinstance(at(out, p), float)]
    path = rng.choice(numbers)
    others = [p for p in numbers if p[-1] == path[-1] and at(out, p) != at(out, path)]
    if others:
        at(out, path[:-1])[path[-1]] = at(out, rng.choice(others)) + rng.choice((0.0, 0.0, 0.5, -0.5, 1e-6))
    return out, path


class Anything(Shop):
    """Bodies of the routes that compute, spoilt one at a time by a die that always falls alike."""

    ROUTES = (
        ("/travel", {"glance": True}),
        ("/travel", {"glance": True, "only": 1}),
        ("/evaluate", {"slim": True}),
        ("/evaluate", {}),
        ("/solids", {}),
        ("/patterns", {}),
    )

    def documents(self):
        """The demo's own designs with their surveys."""
        for name in ("wherry", "brackmoor"):
            for option in f.job(name).options:
                yield document_of(f.job(name).inputs(option.id))

    def ask(self, route, more, document):
        body = {"job_id": self.job.pk, **more, **document}
        response, data = self.send("post", route, body)
        if response.status_code == 200:
            self.assertTrue(finite(data))
            return 200
        self.assertIn(response.status_code, (404, 422), response.content[:300])
        self.assertEqual(response.headers["Content-Type"], "application/problem+json")
        for row in data["problems"]:
            self.assertTrue(row["message"], row)
            self.assertTrue(row["pointer"] == "" or row["pointer"].startswith("/"), row)
        return response.status_code

    def throw(self, change, seed, times):
        rng, seen = random.Random(seed), set()
        documents = list(self.documents())
        for _ in range(times):
            document, path = change(rng.choice(documents), rng)
            route, more = rng.choice(self.ROUTES)
            with self.subTest(route, at="/".join(map(str, path))):
                seen.add(self.ask(route, more, document))
        # a die whose cases all end alike tests nothing
        self.assertLessEqual({200, 422}, seen)

    def test_documents_with_a_part_spoilt(self):
        self.throw(spoilt, 5, 160)

    def test_documents_with_numbers_bent(self):
        self.throw(bent, 11, 60)

    def test_documents_with_numbers_levelled(self):
        self.throw(levelled, 7, 90)

    def test_braces_in_what_is_sent_are_only_quoted(self):
        document = next(self.documents())
        for tag in ({}, {"a": 1}, "{0}", "{gt:g}"):
            spoilt_one = copy.deepcopy(document)
            spoilt_one["design"]["operations"][0]["kind"] = tag
            response, data = self.send("post", "/travel", {"job_id": self.job.pk, "glance": True, **spoilt_one})
            self.refused(response, 422, "input")
            self.assertTrue(any("operations/0" in row["pointer"] for row in data["problems"]), data)

    def test_what_is_no_json_at_all(self):
        for text in ("", "{", "[1, 2", "\x00", "nonsense", "{'design': 1}", '{"job_id": NaN}'):
            with self.subTest(text):
                response = self.client.post("/api/evaluate", text, content_type="application/json")
                self.assertIn(response.status_code, (400, 422))
                self.assertEqual(response.headers["Content-Type"], "application/problem+json")

    def test_numbers_that_json_has_no_word_for(self):
        document = json.dumps(next(self.documents()))
        for word in ("NaN", "Infinity", "-Infinity"):
            body = re.sub(r'"wheelbase_mm": [0-9.]+', f'"wheelbase_mm": {word}', document, count=1)
            self.assertIn(word, body)
            response = self.client.post(
                "/api/travel", f'{{"job_id": {self.job.pk}, {body[1:]}', content_type="application/json"
            )
            self.assertEqual(response.status_code, 422, word)


class Sweeps(Shop):
    """The sweep streams: what goes wrong under way is a line of its own."""

    def test_bent_designs_sweep_to_an_end(self):
        rng, ended = random.Random(3), 0
        whole = document_of(f.demo("step"))
        for _ in range(14):
            document, _path = bent(whole, rng)
            body = json.dumps({"job_id": self.job.pk, **document})
            response = self.client.post("/api/sweep", body, content_type="application/json")
            if response.status_code != 200:
                self.assertEqual(response.status_code, 422)
                continue
            lines = [json.loads(line) for line in b"".join(response.streaming_content).splitlines()]
            self.assertTrue(all(finite(line) for line in lines))
            self.assertTrue(lines[-1].get("swept") or lines[-1].get("problem"))
            ended += 1
        self.assertGreater(ended, 0)
