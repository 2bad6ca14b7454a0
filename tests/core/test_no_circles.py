"""Every arrow points down: no module of the core or the server is imported by what it imports, late imports included."""

from bench.figures import import_loops
from django.test import SimpleTestCase


class Arrows(SimpleTestCase):
    def test_no_module_is_imported_by_what_it_imports(self):
        self.assertEqual(import_loops(), 0)
