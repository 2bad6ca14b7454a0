"""Jobs written by an older version open whole, and come to the verdict that an engineer reckons by hand.

The rail is a 150 x 60 x 5 mm channel; its rows' reckonings stand beside them. Rules of the trade are common practice.
"""

import json
from functools import cache
from pathlib import Path

from django.test import SimpleTestCase

from nodulant.evaluate import Evaluation, evaluate
from nodulant.formats.jobfile import dump_job, load_job
from nodulant.job.document import VERSION, JobFile

JOBS = Path(__file__).parent.parent / "older_jobs"
LEFT_OUT = ("survey-", "readings", "before-teardown")
"""Readings before teardown, which these files leave out."""

WELL = {
    "nothing-wagon": "stock is as strong as stock",
    "boxing-only": "metal added, none taken away",
    "bolt-in-good": "8 M12 10.9 an end, flat liner, outer plate; between the hangers where the rail carries least",
    "leaf-notch-trap-good": "flat liner fully effective, boxing, both side plates, cap",
    "coil-notch-full-good": "closed box 163 mm high; 0.76 kN m a rail at 1 g on more than 60 cm3: factor at 3 g above 3",
    "step-good": "post of 200 mm against a rail of 150 mm, plates both sides, all welds two-sided",
    "hole-good": "22 mm on the neutral axis",
    "bracket-good": "12 kN at 50 mm: couple 0.6 kN m over 160 mm is 3.8 kN",
    "splice-good": "butt of the rail's own wall and two 5 mm plates on top",
}
BADLY = {
    "bolt-in-one-bolt": "edge 14 mm < 1.5 d = 18 mm, 42 % of the web gone and nothing that brings it back",
    "leaf-notch-tiny-plates": "overlap 40 mm against a rail height of 150 mm: nothing is developed",
    "leaf-notch-sharp-corners": "radius 1 mm; 12 mm drilled corners are the rule",
    "coil-notch-bare": "75 of 150 mm left open, S about a tenth of 41 cm3, 0.76 kN m at 1 g: above yield at 3 g",
    "step-butt-only": "one-sided butts without gap, ground flush: the panel carries a fraction of the rail",
    "hole-near-edge": "its edge is 3 mm from the flange's outside: it cuts the bend",
    "bracket-flimsy": "25 kN at 90 mm over 60 mm: 37 kN on a 3.5 mm wall",
}


@cache
def opened(key: str) -> JobFile:
    return load_job((JOBS / f"{key}.nodulant.json").read_bytes())


@cache
def judged(key: str) -> Evaluation:
    job = opened(key)
    return evaluate(job.inputs(job.options[0].id))


def failing(key: str) -> list[str]:
    rows = judged(key).checks
    return [c.limit_id for c in rows if c.verdict == "fails" and not c.limit_id.startswith(LEFT_OUT)]


class OlderJobs(SimpleTestCase):
    def test_every_file_has_its_reckoning(self):
        names = {p.name.removesuffix(".nodulant.json") for p in JOBS.glob("*.nodulant.json")}
        self.assertEqual(names, WELL.keys() | BADLY.keys())

    def test_each_opens_whole_and_is_written_as_today(self):
        for key in WELL | BADLY:
            with self.subTest(key):
                was = json.loads((JOBS / f"{key}.nodulant.json").read_text())
                now = json.loads(dump_job(opened(key)))
                self.assertLess(was["version"], VERSION)
                self.assertEqual(now["version"], VERSION)
                for old, new in zip(was["options"], now["options"], strict=True):
                    for one, two in zip(old["revisions"], new["revisions"], strict=True):
                        kept = [[(op["id"], op["kind"]) for op in r["design"]["operations"]] for r in (one, two)]
                        self.assertEqual(*kept)
                rails = [d["surveys"][0]["survey"]["rails"]["left"]["stations"] for d in (was, now)]
                self.assertEqual(*[[(s["x_mm"], s["wall_mm"]) for s in r] for r in rails])

    def test_well_made_work_does_not_fail(self):
        for key, why in WELL.items():
            with self.subTest(key, by_hand=why):
                self.assertEqual(failing(key), [])

    def test_bad_work_fails(self):
        for key, why in BADLY.items():
            with self.subTest(key, by_hand=why):
                self.assertTrue(failing(key))
