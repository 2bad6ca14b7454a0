"""Patterns read back with other people's tools and measured.

DXF with ezdxf's own reader and its arc mathematics, PDF rasterised with poppler at 254 dpi
(10 pixels a millimetre), SVG as XML. A pattern that is not to size ruins plate and rail.
"""

import io
import math
import re
import subprocess
import tempfile
from itertools import pairwise
from pathlib import Path
from xml.etree import ElementTree

import ezdxf
import numpy as np
from django.test import SimpleTestCase
from ezdxf.math import bulge_to_arc
from ezdxf.path import make_path
from PIL import Image
from shapely.geometry import Polygon

from nodulant.formats.dxf import pattern_dxf
from nodulant.formats.paper import page_size_mm, pages_of, tile_size_mm
from nodulant.formats.pattern_pdf import TitleBlock, pattern_pdf
from nodulant.formats.svg import pattern_svg
from nodulant.patterns.collect import patterns_of
from tests import fixtures as f

PIXELS_PER_MM = 10.0
TITLE = TitleBlock("A job", "an option, revision 1", "0123456789abcdef")


def demo_patterns(option="arc"):
    inputs = f.demo(option)
    return {p.id: p for p in patterns_of(inputs.survey, inputs.design.operations)}


def read_dxf(pattern):
    return ezdxf.read(io.StringIO(pattern_dxf(pattern).decode()))


def page(data, number=1):
    """A page of a PDF as an array of grey values, not anti-aliased."""
    with tempfile.TemporaryDirectory() as folder:
        source, out = Path(folder) / "p.pdf", Path(folder) / "out"
        source.write_bytes(data)
        command = ["pdftoppm", "-r", "254", "-gray", "-singlefile", "-f", str(number), "-aa", "no", "-aaVector", "no"]
        subprocess.run([*command, "-png", str(source), str(out)], check=True)
        return np.array(Image.open(out.with_suffix(".png")).convert("L"))


def runs(row):
    """Lengths of black runs in a row of pixels."""
    dark = np.concatenate([[0], (row < 128).astype(int), [0]])
    edges = np.flatnonzero(np.diff(dark))
    return edges[1::2] - edges[::2]


class Dxf(SimpleTestCase):
    """A plasma table cuts what the file says, in the file's unit."""

    def test_unit_version_and_layers(self):
        drawing = read_dxf(demo_patterns()["axle-notch/cut-template/left"])
        self.assertEqual(drawing.units, ezdxf.units.MM)
        self.assertEqual(drawing.dxfversion, "AC1024")  # R2010
        self.assertTrue({"CUT", "HOLE", "BEND", "ETCH"} <= {layer.dxf.name for layer in drawing.layers})

    def test_arc_of_the_cut_is_a_true_arc_of_its_radius(self):
        lines = read_dxf(demo_patterns()["axle-notch/cut-template/left"]).modelspace().query('LWPOLYLINE[layer=="CUT"]')
        points = list(lines[0].get_points("xyb"))
        arcs = [(a, b) for a, b in pairwise(points) if abs(a[2]) > 1e-9]
        self.assertEqual(len(arcs), 1)
        (x0, y0, bulge), (x1, y1, _) = arcs[0]
        centre, _, _, radius = bulge_to_arc((x0, y0), (x1, y1), bulge)
        self.assertAlmostEqual(radius, 60.0, places=6)
        notch = f.demo().design.operations[1]
        self.assertAlmostEqual(abs(x1 - x0), 2 * notch.half_mouth_mm, places=6)
        self.assertAlmostEqual(centre.y + radius - y0, notch.depth_mm, places=6)

    def test_every_outline_comes_back_within_a_tenth(self):
        for option in ("arc", "straight"):
            for id_, pattern in demo_patterns(option).items():
                with self.subTest(id_):
                    entity = read_dxf(pattern).modelspace().query('LWPOLYLINE[layer=="CUT"]')[0]
                    self.assertTrue(entity.closed)
                    flat = [(v.x, v.y) for v in make_path(entity).flattening(0.01)]
                    mine = abs(pattern.strokes[0].outline.area_mm2())
                    self.assertAlmostEqual(Polygon(flat).area / mine, 1.0, delta=2e-4)
                    box = pattern.strokes[0].outline.bounds()
                    for a, b in zip(Polygon(flat).bounds, box, strict=True):
                        self.assertAlmostEqual(a, b, delta=0.1)

    def test_right_is_the_mirror_of_left_and_says_so(self):
        found = demo_patterns()
        left, right = found["axle-notch/outer/left"], found["axle-notch/outer/right"]
        mirrored = left.strokes[0].outline.mirrored()
        x0, y0, _, _ = mirrored.bounds()
        for a, b in zip(mirrored.moved(-x0, -y0).vertices, right.strokes[0].outline.vertices, strict=True):
            self.assertAlmostEqual(a.x, b.x, delta=0.05)
            self.assertAlmostEqual(a.y, b.y, delta=0.05)
        self.assertIn("· L ·", left.labels[0].text)
        self.assertIn("· R ·", right.labels[0].text)
        self.assertIn("FRONT to the right", right.labels[1].text)


class Pdf(SimpleTestCase):
    """A print at 97 % is the classic way to lose a rail."""

    def test_check_bars_measure_100_mm_and_4_in(self):
        for paper in ("a4", "letter"):
            with self.subTest(paper):
                image = page(pattern_pdf([demo_patterns()["axle-notch/liner/left"]], paper, TITLE))
                bars = [int(r) for row in image[-130:] for r in runs(row) if r > 900]
                self.assertTrue(any(abs(b - 100 * PIXELS_PER_MM) <= 1 for b in bars), set(bars))
                self.assertTrue(any(abs(b - 101.6 * PIXELS_PER_MM) <= 1 for b in bars), set(bars))

    def test_the_upright_bar_measures_100_mm_too(self):
        """A printer may shrink one way only."""
        for paper in ("a3", "legal"):
            image = page(pattern_pdf([demo_patterns()["axle-notch/liner/left"]], paper, TITLE))
            bars = [int(r) for row in image[:, 40:80].T for r in runs(row) if r > 900]
            self.assertTrue(any(abs(b - 100 * PIXELS_PER_MM) <= 1 for b in bars), set(bars))

    def test_an_arc_notch_takes_at_most_half_the_paper_of_a_page_each(self):
        """Both rails' plates and templates; a page or more for each pattern was the layout before."""
        patterns = list(demo_patterns().values())
        each = sum(len(pages_of([p], "a4")) for p in patterns)
        boxing = [p for p in patterns if "boxing" in p.id]
        rest = [p for p in patterns if "boxing" not in p.id]
        self.assertLessEqual(len(pages_of(rest, "a4", once=True)), sum(len(pages_of([p], "a4")) for p in rest) / 2)
        self.assertLess(len(pages_of(patterns, "a4", once=True)), 0.6 * each)
        self.assertTrue(all(p.turned for p in pages_of(boxing, "a4")), "a long plate runs over pages on their side")

    def test_nothing_on_a_page_lies_over_another_or_past_its_edge(self):
        """Of the demo's largest option, with the room that dimensions take; every pattern is there once."""
        patterns = list(demo_patterns("step").values())
        for paper in ("a4", "a3", "letter", "legal"):
            pages = pages_of(patterns, paper)
            put = [u.pattern.id for p in pages for u in p.puts if (p.column, p.row) == (0, 0)]
            self.assertEqual(sorted(put), sorted(p.id for p in patterns))
            for sheet in (p for p in pages if p.across * p.up == 1):
                wide, high = tile_size_mm(paper, turned=sheet.turned)
                boxes = []
                for u in sheet.puts:
                    _, _, w, h = u.pattern.bounds()
                    boxes.append(Polygon([(u.x, u.y), (u.x + w, u.y), (u.x + w, u.y + h), (u.x, u.y + h)]))
                    self.assertTrue(
                        u.x >= 0 and u.x + w <= wide + 0.1 and u.y >= 0 and u.y + h <= high + 0.1, u.pattern.id
                    )
                for i, one in enumerate(boxes):
                    self.assertFalse([1 for two in boxes[i + 1 :] if one.intersection(two).area > 0.1])
        self.assertEqual(page_size_mm("a4", turned=True), page_size_mm("a4")[::-1])

    def test_a_pair_is_printed_once_and_says_so(self):
        patterns = demo_patterns()
        pair = [patterns[f"axle-notch/liner/{side}"] for side in ("left", "right")]
        (sheet,) = pages_of(pair, "a4", once=True)
        self.assertEqual([(u.pattern.side, u.both) for u in sheet.puts], [("left", True)])
        thick = pair[1].model_copy(update={"thickness_mm": 9.0})
        self.assertEqual(len([u for p in pages_of([pair[0], thick], "a4", once=True) for u in p.puts]), 2)
        other = pair[1].model_copy(update={"strokes": pair[1].strokes[:1], "id": "other/liner/right"})
        self.assertEqual(len([u for p in pages_of([pair[0], other], "a4", once=True) for u in p.puts]), 2)
        text = self.words(pattern_pdf(pair, "a4", TITLE, once=True))
        self.assertIn("turned over it is R", text)

    def test_edges_that_meet_carry_the_same_letter(self):
        """Each letter of a plate over several pages stands on two of them."""
        text = self.words(pattern_pdf([demo_patterns()["box-rear/boxing/left"]], "letter", TITLE))
        letters = re.findall(r"^([A-Z])$", text.replace("\f", "\n"), re.MULTILINE)
        self.assertTrue(letters)
        self.assertEqual({letters.count(letter) for letter in letters}, {2})

    def words(self, data):
        with tempfile.NamedTemporaryFile(suffix=".pdf") as file:
            file.write(data)
            file.flush()
            done = subprocess.run(["pdftotext", file.name, "-"], check=True, capture_output=True, text=True)
        return done.stdout

    def test_liner_measures_its_developed_length_on_paper(self):
        pattern = demo_patterns()["axle-notch/liner/left"]
        image = page(pattern_pdf([pattern], "a4", TITLE))
        _, _, width, height = pattern.bounds()
        dark = np.argwhere(image[: -int(25 * PIXELS_PER_MM)] < 128)
        longest = max(int(max(runs(row), default=0)) for row in image[: -int(25 * PIXELS_PER_MM)])
        self.assertAlmostEqual(longest / PIXELS_PER_MM, width, delta=0.5)
        self.assertGreater((dark[:, 0].max() - dark[:, 0].min()) / PIXELS_PER_MM, height)

    def test_long_plates_go_on_several_sheets_that_overlap(self):
        pattern = demo_patterns()["box-rear/boxing/left"]
        wide = max(tile_size_mm("a4", turned=turned)[0] for turned in (False, True))
        sheets = pattern_pdf([pattern], "a4", TITLE).count(b"/Type /Page\n")
        self.assertGreaterEqual(sheets, math.ceil(pattern.bounds()[2] / wide))

    def test_every_page_says_measure_before_you_cut(self):
        data = pattern_pdf([demo_patterns()["box-rear/boxing/left"]], "letter", TITLE)
        with tempfile.NamedTemporaryFile(suffix=".pdf") as file:
            file.write(data)
            file.flush()
            text = subprocess.run(["pdftotext", file.name, "-"], check=True, capture_output=True, text=True).stdout
        pages = [p for p in text.split("\f") if p.strip()]
        self.assertTrue(pages)
        for sheet in pages:
            self.assertIn("Measure the bars before you cut", sheet)
            self.assertIn("A job: an option, revision 1", sheet)
            self.assertIn("scale 1:1", sheet)


class Svg(SimpleTestCase):
    """SVG in millimetres: one user unit is one millimetre."""

    def test_size_in_mm_and_arc_radius(self):
        pattern = demo_patterns()["axle-notch/cut-template/left"]
        root = ElementTree.fromstring(pattern_svg(pattern))
        width, view = root.attrib["width"], [float(v) for v in root.attrib["viewBox"].split()]
        self.assertTrue(width.endswith("mm"))
        self.assertAlmostEqual(float(width[:-2]), view[2], places=3)
        data = next(e for e in root.iter() if e.attrib.get("class") == "CUT").attrib["d"]
        radii = [float(r) for r in re.findall(r"A([\d.]+) ", data)]
        self.assertEqual(radii, [60.0])


class DrillPoints(SimpleTestCase):
    """A straight-sided cut is drilled at its corners first (common practice: 12-13 mm, radius from the hole)."""

    def test_corner_marks_at_the_radius_centres(self):
        pattern = demo_patterns("straight")["axle-notch/cut-template/left"]
        holes = [s for s in pattern.strokes if s.layer == "HOLE" and s.outline.bounds()[2] - s.outline.bounds()[0] < 3]
        shape = f.demo("straight").design.operations[1].shape
        self.assertEqual(len(holes), 2)
        xs = sorted((h.outline.vertices[0].x + h.outline.vertices[1].x) / 2 for h in holes)
        phi = shape.side_angle(58)
        self.assertAlmostEqual(
            xs[1] - xs[0], shape.top_width_mm - 2 * shape.corner_radius_mm * math.tan(phi / 2), places=6
        )
