"""Dimension lines on patterns: what a drawing says is what the part measures, read back by other libraries.

Witness lines, arrowheads and values over the line: ISO 129-1 (from memory).
"""

import io
import itertools
from xml.etree import ElementTree

import ezdxf
from django.test import SimpleTestCase
from ezdxf.path import make_path

from nodulant.drawn.dimension import Span, dimension, stacked
from nodulant.drawn.lines import TEXT_MM, drawn_dimensions, leader, text_width
from nodulant.formats.dxf import pattern_dxf
from nodulant.formats.pattern_pdf import TitleBlock, pattern_pdf
from nodulant.formats.svg import pattern_svg
from nodulant.patterns.collect import patterns_of
from nodulant.units.inline import told_in
from nodulant.units.parse import parse_quantity
from tests import fixtures as f

NEAR_MM = 0.15
TITLE = TitleBlock("A job", "an option, revision 1", "0123456789abcdef")


def every_pattern():
    for option in ("arc", "straight", "step"):
        inputs = f.demo(option)
        yield from patterns_of(inputs.survey, inputs.design.operations)


def cut_corners(drawing):
    """Every vertex of the cut lines of a DXF, arcs flattened."""
    lines = drawing.modelspace().query('LWPOLYLINE[layer=="CUT"]')
    return [(p.x, p.y) for line in lines for p in make_path(line).flattening(0.01)]


class InTheDrawing(SimpleTestCase):
    def test_a_dxf_dimension_measures_what_it_says_in_the_jobs_unit(self):
        for pattern in every_pattern():
            for style, finest in (("mm", 0.051), ("inch", 25.4 / 64 + 0.01)):
                told = told_in(pattern, style)
                drawing = ezdxf.read(io.StringIO(pattern_dxf(told).decode()))
                self.assertFalse(drawing.audit().has_errors)
                found = [d for d in drawing.modelspace().query("DIMENSION") if d.dimtype == 0]
                self.assertEqual(len(found), sum(d.span is not None for d in pattern.dimensions))
                for d in found:
                    with self.subTest(f"{pattern.id} {d.dxf.text}"):
                        self.assertEqual(d.dxf.layer, "DIM")
                        says = float(parse_quantity(d.dxf.text.split(" ±")[0]).value)
                        self.assertAlmostEqual(d.get_measurement(), says, delta=finest)

    def test_overall_size_is_the_cut_lines_own(self):
        for pattern in every_pattern():
            drawing = ezdxf.read(io.StringIO(pattern_dxf(pattern).decode()))
            xs, ys = zip(*cut_corners(drawing), strict=True)
            by_name = {d.name: d.value_mm for d in pattern.dimensions}
            for name, size in (("length", max(xs) - min(xs)), ("height", max(ys) - min(ys))):
                if name in by_name:
                    with self.subTest(f"{pattern.id} {name}"):
                        self.assertAlmostEqual(by_name[name], size, delta=NEAR_MM)

    def test_holes_and_corners_stand_where_their_witness_lines_begin(self):
        checked = 0
        for pattern in every_pattern():
            cut = [p for s in pattern.strokes if s.layer == "CUT" for p in s.outline.points(0.05)]
            centres = [
                ((b[0] + b[2]) / 2, (b[1] + b[3]) / 2)
                for b in (s.outline.bounds() for s in pattern.strokes if s.layer == "HOLE")
            ]
            for d in pattern.dimensions:
                if d.span is None or not d.name.startswith(("hole", "corner", "lower corner")):
                    continue
                flat = d.span.across_the_sheet
                point = (d.span.b, d.span.from_b) if flat else (d.span.from_b, d.span.b)
                known = centres if d.name.startswith("hole") else cut
                off = min(abs(point[0] - x) + abs(point[1] - y) for x, y in known)
                with self.subTest(f"{pattern.id} {d.name}"):
                    self.assertLess(off, NEAR_MM)
                    checked += 1
        self.assertGreater(checked, 40)

    def test_critical_dimensions_tell_their_tolerance(self):
        for pattern in every_pattern():
            for d in pattern.dimensions:
                self.assertEqual("±" in d.text, d.critical, f"{pattern.id} {d.name}")

    def test_a_right_hand_plate_measures_as_the_left_one(self):
        inputs = f.demo("step")
        by_id = {p.id: p for p in patterns_of(inputs.survey, inputs.design.operations)}
        left, right = by_id["rear-step/outer/left"], by_id["rear-step/outer/right"]
        for one, other in zip(left.dimensions, right.dimensions, strict=True):
            self.assertEqual((one.name, one.text), (other.name, other.text))
        low, _, high, _ = right.bounds()
        for d in right.dimensions:
            if d.span and d.span.across_the_sheet:
                self.assertTrue(low - 0.1 <= min(d.span.a, d.span.b) <= max(d.span.a, d.span.b) <= high + 0.1)


class Stacking(SimpleTestCase):
    def test_no_value_stands_over_another_of_its_edge(self):
        for pattern, style in itertools.product(every_pattern(), ("inch", "mm")):
            pattern = told_in(pattern, style)
            boxes = []
            for drawn in drawn_dimensions(pattern.dimensions, pattern.bounds()):
                (x, y), half = drawn.at, text_width(drawn.text) / 2
                wide, high = (TEXT_MM, half) if drawn.upright else (half, TEXT_MM)
                boxes.append((x - wide, y - (half if drawn.upright else 0), x + wide, y + high, drawn.text))
            for one, other in itertools.combinations(boxes, 2):
                apart = one[2] <= other[0] or other[2] <= one[0] or one[3] <= other[1] or other[3] <= one[1]
                self.assertTrue(apart, f"{pattern.id}: {one} over {other}")

    def test_the_shorter_line_lies_nearer_to_the_part(self):
        def across(a, b):
            return dimension(f"{a} to {b}", Span(edge="below", a=a, b=b, from_a=0, from_b=0), 1.0)

        rows = {
            d.value_mm: row for d, _, row in stacked([across(0, 400), across(0, 100), across(250, 400)], text_width)
        }
        self.assertEqual(rows, {400.0: 1, 100.0: 0, 150.0: 0})

    def test_a_callout_stays_on_the_side_that_has_room(self):
        for pattern in (told_in(p, "inch") for p in every_pattern()):
            x0, _, x1, _ = pattern.bounds()
            for callout in pattern.callouts:
                _, (x, _) = leader(callout, pattern.bounds())
                if x1 - x0 > 3 * text_width(callout.text):
                    self.assertTrue(x0 <= x and x + text_width(callout.text) <= x1 + 1, f"{pattern.id} {callout.text}")


class OnPaper(SimpleTestCase):
    def test_dimensions_take_no_more_paper_and_are_in_the_svg_in_a_group_of_their_own(self):
        pattern = next(p for p in every_pattern() if p.id == "axle-notch/outer/left")
        bare = pattern.model_copy(update={"dimensions": (), "callouts": ()})
        for paper in ("a4", "letter"):
            count = b"/Type /Page\n"
            self.assertEqual(
                pattern_pdf([pattern], paper, TITLE).count(count), pattern_pdf([bare], paper, TITLE).count(count)
            )
        root = ElementTree.fromstring(pattern_svg(told_in(pattern, "inch")))
        group = next(e for e in root.iter() if e.attrib.get("class") == "DIM")
        said = {"".join(e.itertext()) for e in group.iter() if e.tag.endswith("text")}
        self.assertTrue({d.text for d in told_in(pattern, "inch").dimensions if d.span} <= said)
