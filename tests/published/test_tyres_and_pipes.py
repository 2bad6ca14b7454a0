"""Tyre sizes by their definition, and pipe by ASME B36.10M (from memory).

A metric size names section width, aspect ratio in per cent and rim in inches (ETRTO/TRA
definition): free diameter = rim + 2 x width x aspect. A flotation size names the overall
diameter itself.
"""

from django.test import SimpleTestCase

from nodulant.base.errors import InputError
from nodulant.materials.pipe import PIPES, pipe_that_clears
from nodulant.parts.tyre import LOADED_SHARE, loaded_radius, parse_tyre


class TyreArithmetic(SimpleTestCase):
    """Ride height starts at the tyre; a wrong radius is a wrong car."""

    def test_sizes_by_definition(self):
        cases = (
            ("265/70R17", 17 * 25.4 + 2 * 265 * 0.70, 265.0),
            ("215/75R16C", 16 * 25.4 + 2 * 215 * 0.75, 215.0),
            ("P205/55R16", 16 * 25.4 + 2 * 205 * 0.55, 205.0),
            ("31x10.50R15", 31 * 25.4, 10.5 * 25.4),
            ("37x12.50R17LT", 37 * 25.4, 12.5 * 25.4),
            ("7.50-16", 16 * 25.4 + 2 * 0.95 * 7.5 * 25.4, 7.5 * 25.4),
        )
        for text, diameter, width in cases:
            with self.subTest(text):
                tyre = parse_tyre(text)
                self.assertAlmostEqual(tyre.free_diameter_mm, diameter, places=6)
                self.assertAlmostEqual(tyre.section_width_mm, width, places=6)

    def test_known_diameter_of_a_common_size(self):
        """Makers' tables give about 803 mm for 265/70R17 (common practice)."""
        self.assertAlmostEqual(parse_tyre("265/70R17").free_diameter_mm, 803, delta=1)

    def test_loaded_radius_says_where_it_is_from(self):
        tyre = parse_tyre("215/75R16")
        self.assertEqual(loaded_radius(tyre, 341).origin, "measured")
        guess = loaded_radius(tyre, None)
        self.assertEqual(guess.origin, "estimated")
        self.assertAlmostEqual(guess.radius_mm, LOADED_SHARE * tyre.free_diameter_mm / 2)
        self.assertTrue(0.93 <= LOADED_SHARE <= 0.95, "static loaded radius is 0.93-0.95 of the free one")

    def test_unknown_strings_say_what_is_accepted(self):
        for text in ("", "big ones", "265/70", "265x70R17", "1e9/70R17", "-265/70R17", "31x10.50R45"):
            with self.subTest(text), self.assertRaises(InputError) as caught:
                parse_tyre(text)
            self.assertIn("215/75R16", caught.exception.acceptable)


class PipeSizes(SimpleTestCase):
    """Half a pipe is the usual arc liner; a nominal size is not a diameter."""

    TABLE_MM = {
        "NPS 2": (60.3, 3.91),
        "NPS 2-1/2": (73.0, 5.16),
        "NPS 3": (88.9, 5.49),
        "NPS 3-1/2": (101.6, 5.74),
        "NPS 4": (114.3, 6.02),
        "NPS 5": (141.3, 6.55),
        "NPS 6": (168.3, 7.11),
        "NPS 8": (219.1, 8.18),
    }

    def test_table(self):
        self.assertEqual({p.name for p in PIPES}, set(self.TABLE_MM))
        for pipe in PIPES:
            outside, wall = self.TABLE_MM[pipe.name]
            with self.subTest(pipe.name):
                self.assertAlmostEqual(pipe.outside_mm, outside, delta=0.05)
                self.assertAlmostEqual(pipe.wall_mm, wall, delta=0.01)

    def test_mass_of_nps_4(self):
        """Plain-end mass 0.0246615 (D - t) t = 16.07 kg/m (ASME B36.10M formula and table)."""
        pipe = next(p for p in PIPES if p.name == "NPS 4")
        self.assertAlmostEqual(0.0246615 * (pipe.outside_mm - pipe.wall_mm) * pipe.wall_mm, 16.07, delta=0.02)

    def test_the_smallest_that_clears(self):
        self.assertEqual(pipe_that_clears(50.7).name, "NPS 4")
        self.assertEqual(pipe_that_clears(51.2).name, "NPS 5")
        self.assertIsNone(pipe_that_clears(120))
