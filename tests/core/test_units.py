"""Quantities as people type and read them. The same tables test the browser's formatter."""

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from nodulant.base.errors import NodulantError, UnreadableQuantity
from nodulant.units import parse_quantity, show_length
from nodulant.units.figure import show_deviation, show_figure
from nodulant.units.said import said, tell
from tests.tables import FIGURES, READ, REFUSED, SHOWN, TAPE, TOLD

QUICK = settings(deadline=None, derandomize=True, max_examples=200)


class Reading(SimpleTestCase):
    """A misread fraction is a wrong cut."""

    def test_table(self):
        for text, kind, unit, value, typed_unit in (*READ, *TAPE):
            with self.subTest(text):
                found = parse_quantity(text, kind, unit)
                self.assertAlmostEqual(found.value, value, places=9)
                self.assertEqual(found.unit, typed_unit)
                self.assertEqual(found.text, text.strip())

    def test_refusals_point_at_the_place(self):
        for text, kind, position, word in REFUSED:
            with self.subTest(text), self.assertRaises(UnreadableQuantity) as caught:
                parse_quantity(text, kind, "in")
            self.assertEqual(caught.exception.position, position, text)
            self.assertIn(word, caught.exception.message)
            self.assertTrue(caught.exception.acceptable)

    @QUICK
    @given(st.text(max_size=80))
    def test_any_text_is_read_or_refused_in_words(self, text):
        for kind in ("length", "angle", "mass", "number"):
            try:
                parse_quantity(text, kind, {"length": "mm", "angle": "deg", "mass": "kg", "number": ""}[kind])
            except NodulantError as error:
                self.assertTrue(0 <= error.position <= len(text))

    @QUICK
    @given(st.integers(0, 4000), st.integers(0, 31))
    def test_a_fraction_reads_back(self, whole, part):
        text = f"{whole} {part}/32" if part else str(whole)
        self.assertAlmostEqual(parse_quantity(text).value, (whole + part / 32) * 25.4, places=6)


class Showing(SimpleTestCase):
    """A tape is read in sixteenths."""

    def test_table(self):
        for value, style, text in SHOWN:
            with self.subTest(text):
                self.assertEqual(show_length(value, style), text)

    @QUICK
    @given(st.floats(-9000, 9000))
    def test_what_is_shown_reads_back_within_half_a_mark(self, value):
        for style, half in (("in16", 25.4 / 32), ("in32", 25.4 / 64), ("in", 0.0127), ("mm", 0.05)):
            back = parse_quantity(show_length(value, style)).value
            self.assertLessEqual(abs(back - value), half * (1 + 1e-9) + 1e-9, style)


class Told(SimpleTestCase):
    """A sentence carries its quantities and is told in the job's own unit, here and in the browser alike."""

    def test_every_kind(self):
        for value, kind, style, text in TOLD:
            with self.subTest(f"{value} {kind} {style}"):
                self.assertEqual(tell(said("so {a}, and {a}", a=(value, kind)), style), f"so {text}, and {text}")

    def test_names_that_are_not_given_stay_as_they_are(self):
        self.assertEqual(tell(said("{b} stays"), "mm"), "{b} stays")


class Figures(SimpleTestCase):
    def test_figures_stand_in_the_jobs_unit_system(self):
        for value, unit, style, text in FIGURES:
            with self.subTest(text):
                self.assertEqual(show_figure(value, unit, style), text)

    def test_a_deviation_is_never_told_as_none(self):
        self.assertEqual(show_deviation(0.19, "in16"), '+0.007"')
        self.assertEqual(show_deviation(-0.19, "mm"), "-0.19 mm")
