"""What a torch's middle follows, against shapely's buffer: every plate of the demo and of every kind of work."""

import math

from django.test import SimpleTestCase
from shapely import Polygon

from nodulant.base.errors import InputError
from nodulant.geometry import Outline, Vertex
from nodulant.geometry.offset import offset
from nodulant.geometry.outline import circle, line, polygon, rectangle
from nodulant.job.riding import in_place
from nodulant.stock.needs import plates_of
from tests import fixtures as f
from tests.core.test_operations import ALL, made
from tests.core.test_patterns_of_every_cut import FULL


def shape(outline):
    return Polygon(outline.points(0.002))


class AgainstShapely(SimpleTestCase):
    def test_every_plate_outward_and_inward(self):
        jobs = [in_place(f.job().inputs(o.id)) for o in f.job().options]
        jobs += [f.with_operations(f.demo(), made(kind, **FULL.get(kind, {}))) for kind in ALL]
        seen = 0
        for part in {p.id: p for inputs in jobs for p in plates_of(inputs)}.values():
            for by in (1.0, 0.15):
                with self.subTest(f"{part.id} {by}"):
                    moved, wanted = shape(offset(part.outline, by)), shape(part.outline).buffer(by, quad_segs=64)
                    self.assertTrue(moved.is_valid)
                    self.assertLess(moved.hausdorff_distance(wanted), 0.02)
                    self.assertAlmostEqual(moved.area / wanted.area, 1.0, delta=1e-4)
                    seen += 1
        self.assertGreater(seen, 60)

    def test_the_other_way_round_is_the_same(self):
        one = polygon([(0, 0), (100, 0), (100, 60), (40, 60), (40, 30), (0, 30)])
        two = polygon([(0, 30), (40, 30), (40, 60), (100, 60), (100, 0), (0, 0)])
        self.assertLess(shape(offset(one, 2.0)).symmetric_difference(shape(offset(two, 2.0))).area, 1e-6)

    def test_arcs_stay_arcs(self):
        arc = Outline(vertices=(Vertex(x=0, y=0), Vertex(x=80, y=0), Vertex(x=80, y=40, bulge=1.0), Vertex(x=0, y=40)))
        moved = offset(arc, 1.0)
        self.assertTrue([v for v in moved.vertices if abs(abs(v.bulge) - 1.0) < 1e-9])

    def test_a_hole_gets_smaller(self):
        moved = offset(circle(10.0, 20.0, 11.0), -1.0)
        self.assertAlmostEqual(moved.bounds()[2] - moved.bounds()[0], 9.0, places=9)
        self.assertAlmostEqual(abs(moved.area_mm2()), math.pi * 4.5**2, places=6)


class Refused(SimpleTestCase):
    def test_a_hole_smaller_than_the_cut(self):
        with self.assertRaises(InputError) as caught:
            offset(circle(0, 0, 2.0), -1.0)
        self.assertIn("thinner cut", caught.exception.acceptable)

    def test_an_open_line(self):
        with self.assertRaises(InputError):
            offset(line(0, 0, 10, 0), 1.0)

    def test_nothing_moved_is_the_same(self):
        self.assertAlmostEqual(offset(rectangle(0, 0, 10, 5), 0.0).area_mm2(), 50.0)
