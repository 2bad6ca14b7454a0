"""Outlines with true arcs, and the clipping of section pieces, against shapely."""

import math

import numpy as np
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon, box

from nodulant.geometry import Outline, Vertex
from nodulant.geometry.outline import polygon, rectangle
from nodulant.sections import pieces
from nodulant.sections.pieces import Piece, integrate

QUICK = settings(deadline=None, derandomize=True, max_examples=80)
ONE = np.ones(1)


class Outlines(SimpleTestCase):
    def test_circle_of_two_arcs(self):
        circle = Outline(vertices=(Vertex(x=-5, y=0, bulge=1), Vertex(x=5, y=0, bulge=1)))
        self.assertAlmostEqual(circle.area_mm2(), math.pi * 25, places=9)
        self.assertAlmostEqual(circle.length_mm(), math.pi * 10, places=9)
        self.assertTrue(all(abs(math.hypot(x, y) - 5) < 1e-9 for x, y in circle.points()))

    def test_quarter_fillet(self):
        """A square with one rounded corner loses (1 - pi/4) r^2."""
        b = math.tan(math.pi / 8)
        corner = (Vertex(x=0, y=0), Vertex(x=10, y=0), Vertex(x=10, y=7, bulge=b), Vertex(x=7, y=10), Vertex(x=0, y=10))
        self.assertAlmostEqual(Outline(vertices=corner).area_mm2(), 100 - (1 - math.pi / 4) * 9, places=9)

    def test_flattening_keeps_its_promise(self):
        arc = Outline(vertices=(Vertex(x=-80, y=0, bulge=-0.6), Vertex(x=80, y=0)), closed=False)
        exact, rough = arc.points(0.001), arc.points(0.5)
        self.assertLess(len(rough), len(exact))
        self.assertLess(Polygon(exact).hausdorff_distance(Polygon(rough)), 0.55)

    @QUICK
    @given(st.floats(-3, 3), st.floats(-500, 500), st.floats(-500, 500))
    def test_mirrored_and_moved_keep_area_and_length(self, bulge, dx, dy):
        shape = Outline(
            vertices=(Vertex(x=0, y=0), Vertex(x=60, y=0, bulge=bulge), Vertex(x=60, y=40), Vertex(x=0, y=40))
        )
        other = shape.mirrored().moved(dx, dy)
        self.assertAlmostEqual(abs(shape.area_mm2()), abs(other.area_mm2()), places=5)
        self.assertAlmostEqual(shape.length_mm(), other.length_mm(), places=6)

    def test_rectangle_runs_counter_clockwise(self):
        self.assertEqual(rectangle(0, 0, 4, 3).area_mm2(), 12)
        self.assertEqual(polygon([(0, 0), (0, 3), (4, 3)]).area_mm2(), -6)


def second_moments(shape):
    """Second moments about the axes from the corners (textbook: sums of triangles from the origin)."""
    totals = {"i_y": 0.0, "i_z": 0.0, "i_yz": 0.0}
    for part in getattr(shape, "geoms", [shape]):
        if part.geom_type != "Polygon" or part.is_empty:
            continue
        y, z = np.array(part.exterior.coords).T
        y0, y1, z0, z1 = y[:-1], y[1:], z[:-1], z[1:]
        twice = y0 * z1 - y1 * z0
        totals["i_y"] += float((twice * (z0 * z0 + z0 * z1 + z1 * z1)).sum() / 12)
        totals["i_z"] += float((twice * (y0 * y0 + y0 * y1 + y1 * y1)).sum() / 12)
        totals["i_yz"] += float((twice * (y0 * z1 + 2 * y0 * z0 + 2 * y1 * z1 + y1 * z0)).sum() / 24)
    return totals


class Clipping(SimpleTestCase):
    """A cut rail is its polygon above the cut: the clip must be exact or every margin is off."""

    @QUICK
    @given(
        st.lists(st.tuples(st.floats(1, 60), st.floats(0, 2 * math.pi)), min_size=3, max_size=9),
        st.floats(-70, 60),
        st.floats(0.5, 80),
    )
    def test_band_against_shapely(self, polar, low, band):
        ring = sorted(polar, key=lambda p: p[1])
        points = [(r * math.cos(a), r * math.sin(a)) for r, a in ring]
        shape = Polygon(points)
        if not shape.is_valid or shape.area < 1.0:
            return
        y, z = np.array([[p[0] for p in points]]), np.array([[p[1] for p in points]])
        piece = Piece("p", y, z, low * ONE, (low + band) * ONE, ONE, ONE, 250.0, 250.0)
        clipped = shape & box(-200, low, 200, low + band)
        found = integrate(piece)
        self.assertAlmostEqual(abs(found.area[0]), clipped.area, delta=1e-6 * shape.area)
        if clipped.area > 1.0:
            self.assertAlmostEqual(found.q_y[0] / found.area[0], clipped.centroid.y, places=5)
            self.assertAlmostEqual(found.q_z[0] / found.area[0], clipped.centroid.x, places=5)
        for name, exact in second_moments(clipped).items():
            self.assertAlmostEqual(abs(getattr(found, name)[0]), abs(exact), delta=1e-6 * shape.area * 3600.0)

    def test_rectangle_shortcut_equals_the_general_way(self):
        args = ("r", 3 * ONE, 11 * ONE, 2 * ONE, 40 * ONE, ONE, ONE, (250.0, 250.0))
        quick = pieces.rectangle(*args)
        slow = Piece("r", quick.y, quick.z, quick.low, quick.high, ONE, ONE, 250.0, 250.0)
        for name in ("area", "q_y", "q_z", "i_y", "i_z", "i_yz"):
            self.assertAlmostEqual(getattr(integrate(quick), name)[0], getattr(integrate(slow), name)[0], places=6)
