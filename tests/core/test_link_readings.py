"""Links as built: one that is longer on one side makes the axle steer on a straight road."""

from django.test import SimpleTestCase

from nodulant.asbuilt.log import ReadingEntry
from nodulant.evaluate import evaluate
from nodulant.job.document import AsBuilt
from tests.core.test_suspensions import ONLY, suspended

WANT = ONLY.model_copy(update={"readings": True})


def built(job, *rows):
    entries = tuple(
        ReadingEntry(
            number=i,
            at="2026-11-20T10:00:00+00:00",
            by="bram",
            operation="rear-links",
            key=key,
            side=side,
            value=value,
            resolution=0.5,
        )
        for i, (key, side, value) in enumerate(rows, start=1)
    )
    return job.model_copy(update={"as_built": AsBuilt(entries=entries)})


class Lengths(SimpleTestCase):
    def asked(self, job):
        return {r.id: r for r in evaluate(job, WANT).readings if r.operation == "rear-links"}

    def test_every_link_is_asked_for_with_its_planned_length(self):
        job = suspended()
        rows = self.asked(job)
        self.assertEqual(len(rows), 4)
        forces = {row.name: row.length_mm for row in evaluate(job, WANT).travel[0].forces}
        self.assertAlmostEqual(rows["rear-links/lower-length/left"].spec.planned, forces["lower link, left"], places=6)

    def test_a_single_link_is_asked_for_once(self):
        ids = set(self.asked(suspended("parallel")))
        self.assertIn("rear-links/lateral-bar-length/right", ids)
        self.assertNotIn("rear-links/lateral-bar-length/left", ids)

    def test_left_against_right(self):
        job = suspended()
        plan = self.asked(job)["rear-links/upper-length/left"].spec.planned
        for off, verdict in ((0.0, "holds"), (1.4, "not computed"), (4.0, "fails")):
            rows = (("upper-length", "left", plan + off), ("upper-length", "right", plan))
            checks = {c.id: c for c in evaluate(built(job, *rows), WANT).checks}
            check = checks["links-equal:rear-links-upper-length:both@as-built"]
            self.assertEqual(check.verdict, verdict)
            self.assertTrue(check.value is None or abs(check.value - off) < 1e-6)

    def test_one_side_alone_says_nothing_of_both(self):
        job = suspended()
        checks = evaluate(built(job, ("upper-length", "left", 500.0)), WANT).checks
        self.assertFalse(any(c.limit_id == "links-equal" for c in checks))
        self.assertTrue(any(c.id.startswith("as-built-link:rear-links-upper-length:left") for c in checks))
