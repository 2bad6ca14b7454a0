"""The finder against every set of a rack of three thicknesses and two cap heights, in light and in heavy jobs."""

from django.test import SimpleTestCase

from tests.brute_force import RACK, WORK, compared

JOBS = ((1.0, True), (1.6, False), (2.2, True))
"""Times the demo's masses, and whether its boxing stays."""


class AgainstEverySet(SimpleTestCase):
    """Within 2 % of the least mass; where no set passes it says what none of them meets."""

    def test_every_kind_of_work(self):
        for kind in WORK:
            for heavier, boxed in JOBS:
                with self.subTest(kind, heavier=heavier, boxed=boxed):
                    compared(self, kind, RACK, heavier, boxed)
