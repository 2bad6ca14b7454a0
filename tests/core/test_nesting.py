"""Plates laid out: apart by the cut, inside the margin, each once; what no sheet holds is named."""

import io
import random
import zipfile

import ezdxf
from django.test import SimpleTestCase
from shapely import Polygon, box
from shapely.affinity import scale, translate

from nodulant.formats.nest_files import nest_zip
from nodulant.geometry.outline import polygon, rectangle
from nodulant.job.document import Shop
from nodulant.job.rack import Corner, MetalRack, Offcut, Sheet, corners_of
from nodulant.search.steps import to_the_end
from nodulant.stock.needs import needs_of
from nodulant.stock.nesting.no_fit import bottom_left, convex_parts, no_fit
from nodulant.stock.nesting.piece import NestPiece, nest_pieces
from nodulant.stock.nesting.plan import nest, nest_all, outline_of
from nodulant.units.inline import told
from tests import fixtures as f

ELL = ((0, 0), (600, 0), (600, 200), (200, 200), (200, 800), (0, 800))
STILL_MM = 0.02
"""What chords of arcs may hide."""


def offcut(corners=ELL, thickness=6.0, name="L-shaped"):
    points = tuple(Corner(along_mm=x, across_mm=y) for x, y in corners)
    return Offcut(id="ell", name=name, thickness_mm=thickness, corners=points)


def squares(side, count, thickness=6.0):
    return (
        NestPiece(
            id="q", name="square", side="left", thickness_mm=thickness, steel_id="mild", count=count,
            outline=rectangle(0, 0, side, side),
        ),
    )  # fmt: skip


def laid_out(pieces, seconds=1.0, **rack):
    return to_the_end(nest_all(pieces, MetalRack(**rack), seconds))


class NoFit(SimpleTestCase):
    def test_two_squares_by_hand(self):
        """Minkowski sum of a square of 100 and one of 40 turned about: a square of 140 from (-40, -40)."""
        lying, body = box(0, 0, 100, 100), box(0, 0, 40, 40)
        found = no_fit(convex_parts(lying), convex_parts(scale(body, -1, -1, origin=(0, 0))))
        self.assertAlmostEqual(found.symmetric_difference(box(-40, -40, 100, 100)).area, 0.0, places=6)

    def test_against_laying_one_over_the_other(self):
        """At 400 random places two outlines overlap just where the no-fit polygon says so."""
        seed = random.Random(4)
        lying = Polygon(ELL)
        body = Polygon([(0, 0), (150, 0), (150, 60), (90, 60), (90, 160), (30, 160), (30, 60), (0, 60)])
        found = no_fit(convex_parts(lying), convex_parts(scale(body, -1, -1, origin=(0, 0))))
        met = 0
        for _ in range(400):
            x, y = seed.uniform(-200, 700), seed.uniform(-200, 900)
            over = translate(body, x, y).intersection(lying).area > 1e-6
            self.assertEqual(found.covers(translate(box(0, 0, 1e-9, 1e-9), x, y)), over, (x, y))
            met += over
        self.assertTrue(50 < met < 350, met)

    def test_a_room_is_filled_from_its_corner(self):
        """Four squares of 100 with cuts of 2 between fill a room of 202; a fifth finds no place."""
        spots = bottom_left([box(0, 0, 100, 100)] * 5, box(0, 0, 202.1, 202.1), 2.0, 20, grain=False)
        self.assertEqual(len(spots), 4)
        small = bottom_left([box(0, 0, 100, 100)] * 5, box(0, 0, 201, 201), 2.0, 20, grain=False)
        self.assertEqual(len(small), 1)


class Apart(SimpleTestCase):
    def held(self, plan):
        """Apart by the cut, inside by the margin, as checked by a geometry library."""
        for sheet in plan.sheets:
            room = outline_of(sheet).buffer(-plan.margin_mm + STILL_MM, join_style="mitre")
            shapes = [p.shape() for p in sheet.pieces]
            self.assertTrue(shapes)
            for k, shape in enumerate(shapes):
                self.assertTrue(room.covers(shape), (sheet.name, shape.bounds))
                for other in shapes[k + 1 :]:
                    self.assertGreater(shape.distance(other), plan.kerf_mm - STILL_MM)

    def test_the_demo_on_an_offcut_and_sheets(self):
        inputs = f.job().inputs("step")
        rack = MetalRack(offcuts=(offcut(),), sheets=(Sheet(long_mm=1400, wide_mm=700, price=90.0),))
        plan = to_the_end(nest(inputs.model_copy(update={"shop": inputs.shop.model_copy(update={"rack": rack})}), 5.0))
        self.held(plan)
        needs = needs_of(inputs)
        self.assertEqual(plan.pieces, sum(p.count for p in needs.plates))
        self.assertEqual(sum(len(s.pieces) for s in plan.sheets), plan.pieces)
        self.assertFalse(plan.left_out)
        used = next(s for s in plan.sheets if s.offcut_id == "ell")
        self.assertEqual(used.thickness_mm, 6.0)
        self.assertLessEqual(len(used.pieces), 20)
        bought = [s for s in plan.sheets if s.offcut_id is None]
        self.assertAlmostEqual(plan.price, 90.0 * len(bought))
        area = sum(p.shape().area for p in nest_pieces(inputs) for _ in range(p.count))
        laid = sum(p.shape().area for s in plan.sheets for p in s.pieces)
        self.assertAlmostEqual(laid, area, delta=area * 1e-6)

    def test_by_outlines_takes_less_than_by_rectangles(self):
        """Triangles lie head to tail: two in the rectangle of one, and a cut's width."""
        outline = rectangle(0, 0, 300, 100)
        half = outline.model_copy(update={"vertices": outline.vertices[:3]})
        piece = squares(1, 12)[0].model_copy(update={"outline": half, "count": 12})
        plan = laid_out((piece,), sheets=(Sheet(long_mm=2000, wide_mm=320),))
        self.held(plan)
        self.assertEqual(len(plan.sheets[0].pieces), 12)
        self.assertLess(plan.sheets[0].used_long_mm * 320, 12 * 300 * 100 * 0.85)

    def test_sheets_one_by_one(self):
        plan = laid_out(squares(300, 10), sheets=(Sheet(long_mm=1000, wide_mm=650),))
        self.held(plan)
        self.assertEqual([len(s.pieces) for s in plan.sheets], [6, 4])

    def test_a_plate_as_large_as_its_sheet_allows(self):
        whole = squares(1, 2)[0].model_copy(update={"outline": rectangle(0, 0, 638, 988)})
        plan = laid_out((whole,), sheets=(Sheet(long_mm=1000, wide_mm=650),))
        self.held(plan)
        self.assertEqual([len(s.pieces) for s in plan.sheets], [1, 1])
        self.assertEqual({s.left for s in plan.sheets}, {None})

    def test_each_plate_waits_for_a_sheet_that_holds_it(self):
        """A square that no narrow sheet holds, and a strip that no short one does."""
        strip = squares(1, 1)[0].model_copy(update={"id": "strip", "outline": rectangle(0, 0, 1900, 90)})
        corner = Polygon([(0, 0), (470, 0), (470, 20), (20, 20), (20, 470), (0, 470)])
        frame = strip.model_copy(update={"id": "frame", "outline": polygon(corner.exterior.coords[:-1])})
        sheets = (Sheet(long_mm=500, wide_mm=500), Sheet(long_mm=2000, wide_mm=300))
        plan = laid_out((*squares(440, 1), strip, frame), sheets=sheets)
        self.held(plan)
        self.assertEqual(sum(len(s.pieces) for s in plan.sheets), 3)

    def test_the_wider_end_of_a_necked_offcut(self):
        necked = ((0, 0), (300, 0), (300, 145), (500, 145), (500, 0), (700, 0), (700, 300), (500, 300))
        waist = (*necked, (500, 155), (300, 155), (300, 300), (0, 300))
        plan = laid_out(squares(100, 3), offcuts=(offcut(waist),))
        self.held(plan)
        self.assertEqual([(s.offcut_id, len(s.pieces)) for s in plan.sheets], [("ell", 3)])

    def test_what_is_left_is_used_next_time(self):
        first = laid_out(squares(200, 2), sheets=(Sheet(long_mm=1000, wide_mm=450),))
        left = first.sheets[0].left
        self.assertAlmostEqual(left.shape().bounds[2], 1000 - first.sheets[0].used_long_mm, delta=1.0)
        second = laid_out(squares(200, 2), sheets=(Sheet(long_mm=1000, wide_mm=450),), offcuts=(left,))
        self.assertEqual([s.offcut_id for s in second.sheets], [left.id])

    def test_the_grain_keeps_lengths_along(self):
        long = squares(1, 6)[0].model_copy(update={"outline": rectangle(0, 0, 400, 90)})
        plan = laid_out((long,), grain=True, sheets=(Sheet(long_mm=900, wide_mm=650),))
        self.assertLessEqual({p.turned_deg % 360 for s in plan.sheets for p in s.pieces}, {0.0, 180.0})


class LeftOut(SimpleTestCase):
    def test_larger_than_any_sheet(self):
        plan = laid_out(squares(700, 1) + squares(50, 2, 8.0), sheets=(Sheet(long_mm=1000, wide_mm=650),))
        (out,) = plan.left_out
        self.assertIn("700 x 700 is larger than any sheet", told(out.words, "mm").replace(" mm", ""))
        self.assertIn("Made of lengths", out.words)
        self.assertEqual(sum(len(s.pieces) for s in plan.sheets), 2)

    def test_no_sheet_of_its_thickness(self):
        plan = laid_out(squares(100, 1), sheets=(Sheet(long_mm=1000, wide_mm=650, thickness_mm=4.0),))
        self.assertIn("no sheet 6", told(plan.left_out[0].words, "mm"))
        self.assertFalse(plan.sheets)

    def test_a_rack_that_cannot_be(self):
        crossing = ((0, 0), (100, 100), (100, 0), (0, 100))
        with self.assertRaisesRegex(ValueError, "lines cross"):
            offcut(crossing)
        for kerf in (0.0, 20.0):
            with self.assertRaises(ValueError):
                MetalRack(kerf_mm=kerf)
        thin = laid_out(squares(100, 1), offcuts=(offcut(((0, 0), (10, 0), (10, 300))),))
        self.assertEqual([s.offcut_id for s in thin.sheets], [None])

    def test_nothing_to_lay_out(self):
        plan = laid_out(())
        self.assertEqual((plan.sheets, plan.left_out, plan.price), ((), (), None))

    def test_the_rack_changes_no_result(self):
        inputs = f.demo()
        shop = inputs.shop.model_copy(update={"rack": MetalRack(kerf_mm=1.0)})
        self.assertEqual(inputs.content_hash(), inputs.model_copy(update={"shop": shop}).content_hash())
        self.assertAlmostEqual(Shop.reading("in16").rack.sheets[0].long_mm, 2438.4)
        self.assertEqual(corners_of(3, 2)[2], Corner(along_mm=3, across_mm=2))


class Files(SimpleTestCase):
    def test_every_sheet_is_read_back_with_its_arcs(self):
        plan = to_the_end(nest(f.demo(), 2.0))
        with zipfile.ZipFile(io.BytesIO(nest_zip(plan, "in16", "mm"))) as files:
            names = [n for n in files.namelist() if n.endswith(".dxf")]
            self.assertEqual(len(names), len(plan.sheets))
            arcs = 0
            for name, sheet in zip(names, plan.sheets, strict=True):
                drawing = ezdxf.read(io.StringIO(files.read(name).decode()))
                self.assertFalse(drawing.audit().errors)
                cut = drawing.modelspace().query('LWPOLYLINE[layer=="CUT"]')
                self.assertEqual(len(cut), len(sheet.pieces))
                arcs += sum(1 for line in cut for *_, bulge in line.get_points("xyb") if bulge)
            self.assertGreater(arcs, 0)
            rows = files.read("sheets.csv").decode("utf-8-sig").splitlines()
            self.assertEqual(len(rows), 1 + plan.pieces)
