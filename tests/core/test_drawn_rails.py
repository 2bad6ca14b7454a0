"""A rail's outline and section from a user's own drawing."""

import io
import itertools
from itertools import pairwise

import ezdxf
import numpy as np
from django.test import SimpleTestCase
from shapely import Point, box, unary_union

from nodulant.base.errors import InputError
from nodulant.formats.drawn_shapes import read_shapes
from nodulant.formats.rail_drawn import section_from_drawing, stations_from_outline
from nodulant.survey.rail import Station

LIKE = Station(x_mm=0, underside_z_mm=0, height_mm=100, width_mm=60, wall_mm=4)
H, B, T = 120.0, 70.0, 4.0
CHANNEL = box(0, 0, B, H) - box(T, T, B + 1, H - T)


def svg(*polygons):
    rows = []
    for p in polygons:
        for ring in (p.exterior, *p.interiors):
            rows.append("<polygon points='" + " ".join(f"{x},{-y}" for x, y in ring.coords[:-1]) + "'/>")
    return "<svg xmlns='http://www.w3.org/2000/svg'>" + "".join(rows) + "</svg>"


def dxf(*polygons, unit=4, loose=False):
    drawing = ezdxf.new("R2010", units=unit)
    space = drawing.modelspace()
    for p in polygons:
        for ring in (p.exterior, *p.interiors):
            points = list(ring.coords)
            if loose:
                for a, b in itertools.pairwise(points):
                    space.add_line(a, b)
            else:
                space.add_lwpolyline(points[:-1], close=True)
    stream = io.StringIO()
    drawing.write(stream)
    return stream.getvalue()


class Sections(SimpleTestCase):
    """A section read wrong is a rail computed wrong."""

    def same(self, polygon, kind, **sizes):
        for name, text in (("svg", svg(polygon)), ("dxf", dxf(polygon)), ("loose lines", dxf(polygon, loose=True))):
            with self.subTest(name):
                found = section_from_drawing(text, "mm")
                self.assertEqual(found.kind, kind)
                for key, value in sizes.items():
                    self.assertAlmostEqual(getattr(found, key), value, delta=0.12, msg=key)
                self.assertLess(abs(found.inertia_off), 0.01)

    def test_channel(self):
        self.same(CHANNEL, "channel", height_mm=H, width_mm=B, wall_mm=T)

    def test_channel_with_lips_both_ways(self):
        turned_in = unary_union([CHANNEL, box(B - T, T, B, 20), box(B - T, H - 20, B, H - T)])
        self.same(turned_in, "lipped-channel", lip_mm=20.0, height_mm=H)
        apart = unary_union([CHANNEL, box(B - T, T - 20, B, 0), box(B - T, H, B, H + 20 - T)])
        self.same(apart, "lipped-channel", lip_mm=20.0, height_mm=H)

    def test_tubes(self):
        self.same(box(0, 0, B, H) - box(T, T, B - T, H - T), "rect-tube", height_mm=H, width_mm=B, wall_mm=T)
        ring = Point(45, 45).buffer(45, quad_segs=64) - Point(45, 45).buffer(41, quad_segs=64)
        for text in (svg(ring), dxf(ring)):
            found = section_from_drawing(text, "mm")
            self.assertEqual(found.kind, "round-tube")
            self.assertAlmostEqual(found.wall_mm, 4.0, delta=0.1)

    def test_top_hat(self):
        hat = unary_union(
            [box(0, 0, B, T), box(0, 0, T, H), box(B - T, 0, B, H), box(-20, H - T, 0, H), box(B, H - T, B + 20, H)]
        )
        self.same(hat, "top-hat", height_mm=H, width_mm=B, lip_mm=20.0)

    def test_inches(self):
        found = section_from_drawing(svg(box(0, 0, 3, 5) - box(0.2, 0.2, 2.8, 4.8)), "in")
        self.assertAlmostEqual(found.height_mm, 127.0, delta=0.05)
        tube = box(0, 0, 3, 5) - box(0.2, 0.2, 2.8, 4.8)
        self.assertAlmostEqual(section_from_drawing(dxf(tube, unit=1), "mm").height_mm, 127.0, delta=0.05)

    def test_what_is_none_of_these_is_refused_with_what_is_nearest(self):
        with self.assertRaises(InputError) as caught:
            section_from_drawing(svg(box(0, 0, 60, 120)), "mm")
        self.assertIn("none of the kinds", str(caught.exception))
        self.assertIn("channel", caught.exception.acceptable)


class Outlines(SimpleTestCase):
    """Stations from the side view: heights as drawn, corners as stations."""

    def test_corners_become_stations(self):
        rail = unary_union([box(0, 0, 1000, 120), box(1000, 0, 2000, 120)]).union(box(1990, 40, 2600, 120))
        stations = stations_from_outline(svg(rail), "mm", -400.0, LIKE)
        self.assertEqual((stations[0].x_mm, stations[-1].x_mm), (-400.0, 2200.0))
        self.assertAlmostEqual(stations[0].height_mm, 120.0, delta=0.05)
        self.assertAlmostEqual(stations[-1].underside_z_mm, 40.0, delta=0.05)
        self.assertTrue(all(s.wall_mm == 4 and s.width_mm == 60 for s in stations))

    def test_a_path_with_an_arc(self):
        path = "<svg><path d='M0 0 H1500 V-100 H600 A200 200 0 0 0 300 -120 H0 Z'/></svg>"
        self.assertGreater(len(stations_from_outline(path, "mm", 0.0, LIKE)), 3)

    def test_refusals(self):
        for text in (
            "nonsense",
            "<svg><path d='M0 0 L10'/></svg>",
            "<svg></svg>",
            "<svg><rect width='a'/></svg>",
            "<!DOCTYPE x><svg/>",
        ):
            with self.subTest(text), self.assertRaises(InputError):
                stations_from_outline(text, "mm", 0.0, LIKE)


class Bounded(SimpleTestCase):
    """A small drawing is answered at once, whatever it holds."""

    def entities(self, *rows):
        body = "".join(f"  0\n{row}\n" for row in rows)
        return f"  0\nSECTION\n  2\nENTITIES\n{body}  0\nENDSEC\n  0\nEOF\n"

    def circle(self, radius):
        return self.entities(f"CIRCLE\n 10\n0\n 20\n0\n 40\n{radius}")

    def test_a_large_circle_has_no_more_points_than_it_needs(self):
        """A chord lies within 0.05 mm of a circle of 1 m where it spans 1.15 degrees: some 320 of them."""
        (shape,) = read_shapes(self.circle(1000))
        self.assertLess(len(shape.exterior.coords), 700)
        self.assertAlmostEqual(shape.area / (np.pi * 1000**2), 1.0, delta=1e-3)  # drawn by Bezier curves

    def test_what_no_frame_fills_is_refused(self):
        for radius in ("1e9", "inf", "nan", "1e300"):
            with self.subTest(radius), self.assertRaises(InputError):
                read_shapes(self.circle(radius))
        with self.assertRaises(InputError):
            read_shapes('<svg><polygon points="0,0 nan,5 10,10"/></svg>')

    def test_thousands_of_crossing_lines_are_joined_at_their_ends_alone(self):
        lines = [f"LINE\n 10\n{i}\n 20\n0\n 11\n{4000 - i}\n 21\n500" for i in range(4000)]
        rail = [(0, 0), (3000, 0), (3000, 120), (0, 120)]
        edges = [f"LINE\n 10\n{a[0]}\n 20\n{a[1]}\n 11\n{b[0]}\n 21\n{b[1]}" for a, b in pairwise([*rail, rail[0]])]
        (shape, *_) = read_shapes(self.entities(*lines, *edges))
        self.assertAlmostEqual(shape.area, 3000 * 120, delta=1.0)
