"""Designs and surveys of many kinds of vehicle, bent, spoilt and levelled, at every route that works one out.

Thousands of what `tests.server.test_anything_sent` sends a few hundred of.
"""

import random
from collections import Counter

from tests.published.test_made_well_and_badly import BADLY, WELL
from tests.server.test_anything_sent import Anything, bent, document_of, levelled, spoilt

TIMES = 1_500
LOOKS = [
    "evaluate",
    "first-answer",
    "handcheck",
    "gauges",
    "supports",
    "supports/places",
    "order",
    "patterns",
    "mounts",
    "solids",
    "built",
    "record",
    "after",
]


class ManyKinds(Anything):
    """Every way of spoiling a document on every kind of job."""

    ROUTES = (*Anything.ROUTES, *((f"/{look}", {}) for look in LOOKS))

    def documents(self):
        yield from super().documents()
        for made in (*WELL.values(), *BADLY.values()):
            found = made() if callable(made) else made[0]()
            yield document_of(found)

    def test_every_way_of_spoiling(self):
        rng, documents, seen = random.Random(23), list(self.documents()), Counter()
        for time in range(TIMES):
            change = rng.choice((spoilt, bent, levelled, levelled))
            document, path = change(rng.choice(documents), rng)
            route, more = rng.choice(self.ROUTES)
            with self.subTest(route, at="/".join(map(str, path)), time=time):
                seen[self.ask(route, more, document)] += 1
        print(f"{TIMES} documents: {dict(sorted(seen.items()))}", flush=True)
