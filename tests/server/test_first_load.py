"""What a phone in the shop has to fetch before the jobs page stands there."""

import gzip
import re

from django.test import SimpleTestCase

from tests.fixtures import ROOT

DIST = ROOT / "web" / "dist"
MOST_BYTES = 200_000


class FirstLoad(SimpleTestCase):
    def test_scripts_and_styles_of_the_first_page_stay_small(self):
        page = (DIST / "index.html").read_text()
        named = re.findall(r'(?:src|href)="[^"]*?(assets/[^"]+\.(?:js|css))"', page)
        self.assertGreater(len(named), 2)
        sizes = {name: len(gzip.compress((DIST / name).read_bytes(), 9)) for name in named}
        self.assertLess(sum(sizes.values()), MOST_BYTES, sizes)
