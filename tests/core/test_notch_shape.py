"""The cut's edge: path, height, slope and unrolled length agree with each other and refuse what cannot be."""

import math

import numpy as np
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from nodulant.frame.ops.notches.notch_shape import ArcShape, TrapezoidShape
from tests import fixtures as f

QUICK = settings(deadline=None, derandomize=True, max_examples=120)
depths, radii = st.floats(2, 140), st.floats(10, 150)


@st.composite
def trapezoids(draw):
    depth = draw(st.floats(10, 140))
    top = draw(st.floats(20, 200))
    shape = TrapezoidShape(top_width_mm=top, mouth_width_mm=top + draw(st.floats(0, 120)), corner_radius_mm=0)
    phi = shape.side_angle(depth)
    room = min(top / 2 / math.tan(phi / 2), depth / max(1 - math.cos(phi), 1e-9))
    return shape.model_copy(update={"corner_radius_mm": draw(st.floats(0, 0.95)) * min(room, 40)}), depth


class EdgeAndPath(SimpleTestCase):
    """The template, the section and the clearance must speak of the same cut."""

    def agree(self, shape, depth):
        points = np.array(shape.path(depth).points(0.005))
        inside = np.abs(points[:, 0]) < shape.half_mouth_mm(depth) - 0.05
        height, _ = shape.edge(points[:, 0], depth)
        np.testing.assert_allclose(height[inside], points[inside, 1], atol=0.02 + 1e-3 * depth)

    @QUICK
    @given(depths, radii)
    def test_arc(self, depth, radius):
        shape = ArcShape(radius_mm=radius)
        if depth <= radius:  # upright legs have no single height
            self.agree(shape, depth)
        top = max(y for _, y in shape.path(depth).points(0.01))
        self.assertAlmostEqual(top, depth, delta=0.02)

    @QUICK
    @given(trapezoids())
    def test_trapezoid(self, made):
        shape, depth = made
        if shape.mouth_width_mm - shape.top_width_mm > 2:
            self.agree(shape, depth)
        self.assertAlmostEqual(max(y for _, y in shape.path(depth).points(0.01)), depth, delta=1e-6)

    @QUICK
    @given(depths, radii, st.floats(0, 1))
    def test_the_part_above_a_level_starts_and_ends_there(self, depth, radius, share):
        level = share * depth * 0.99
        above = ArcShape(radius_mm=radius).path_above(depth, level)
        self.assertAlmostEqual(above[0].y, level)
        self.assertAlmostEqual(above[-1].y, level)
        self.assertAlmostEqual(above[0].x, -above[-1].x)

    def test_nothing_is_above_the_crown(self):
        self.assertEqual(ArcShape(radius_mm=60).path_above(40, 40), ())

    @QUICK
    @given(depths, radii)
    def test_a_thin_liner_unrolls_to_the_edge_itself(self, depth, radius):
        shape = ArcShape(radius_mm=radius)
        self.assertAlmostEqual(shape.unrolled_mm(depth, 1e-9), shape.path(depth).length_mm(), places=4)


class Refusals(SimpleTestCase):
    """What cannot be cut is refused at the field, with what would be accepted."""

    def refused(self, word, make):
        with self.assertRaises(ValidationError) as caught:
            make()
        own = caught.exception.errors()[0]["ctx"]["error"]
        self.assertIn(word, own.message)
        self.assertTrue(own.acceptable)
        return own

    def test_liner_thicker_than_the_radius(self):
        own = self.refused("thicker than the notch's radius", lambda: f.arc_notch(5, 6, liner=f.liner(6)))
        self.assertEqual(own.field, "liner/thickness_mm")

    def test_liner_that_fills_the_cut(self):
        self.refused("fills the notch", lambda: f.straight_notch(60, 20, 60, 5, liner=f.liner(10)))

    def test_corner_radius_that_does_not_fit(self):
        own = self.refused("does not fit", lambda: f.straight_notch(30, 60, 60, 40))
        self.assertIn("at most", own.acceptable)

    def test_mouth_narrower_than_the_top(self):
        self.refused("narrower", lambda: TrapezoidShape(top_width_mm=100, mouth_width_mm=90))

    def test_numbers_that_are_none(self):
        for value in (float("nan"), float("inf"), -1, 0, 1e9):
            with self.subTest(value), self.assertRaises(ValidationError):
                ArcShape(radius_mm=value)
