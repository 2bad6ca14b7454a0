"""Welds by AISC allowable stress design, curved flanges by Bleich, bends by geometry.

AISC *Steel Construction Manual*, allowable stress: 0.3 F_EXX on the throat, 0.4 f_y on the
base metal in shear. F. Bleich, *Der Stahlbau* 1933 (after von Karman), effective width of
curved flanges, from memory.
"""

import math

import numpy as np
from django.test import SimpleTestCase

from nodulant.materials.weld import WELD_STRENGTH_MPA, line_capacity
from nodulant.sections.development import Reach, development
from nodulant.sections.liner import effective_share_clamped, effective_share_simple, sloping_share
from tests import fixtures as f


class FilletWelds(SimpleTestCase):
    """An overlap too short tears before the plate works."""

    def test_allowable_on_the_throat(self):
        """70 ksi wire: 0.3 x 482.6 = 145 MPa (AISC)."""
        self.assertAlmostEqual(0.3 * WELD_STRENGTH_MPA, 144.8, delta=0.1)
        self.assertAlmostEqual(line_capacity(5, 100, 250), 0.707 * 5 * 144.78, delta=0.1)

    def test_thin_metal_governs(self):
        """A 5 mm leg on a 3 mm wall of 250 MPa carries 300 N/mm, not 512 (0.4 f_y t)."""
        self.assertAlmostEqual(line_capacity(5, 3, 250), 300.0)

    def test_development_length(self):
        """Half the depth where both long edges are welded; or the length that brings in the plate's own strength."""
        grown = development(120, 5, 250, 2, 300)
        self.assertEqual(grown.spread_mm, 60)
        self.assertAlmostEqual(grown.weld_mm, 120 * 5 * 250 / 1.5 / 600)
        self.assertEqual(grown.length_mm, grown.weld_mm)
        self.assertEqual(development(120, 5, 250, 2, 300, both_edges=False).spread_mm, 120)

    def test_share_rises_from_the_end(self):
        share = Reach(10, 990, 100, 50).share(np.array([0.0, 10, 60, 500, 990, 1000]))
        np.testing.assert_allclose(share, [0, 0, 0.5, 1, 0, 0])


class CurvedFlange(SimpleTestCase):
    """A half pipe is not a flat flange: counting it whole would pass a rail that is too weak."""

    def test_flat_flange_works_whole(self):
        self.assertAlmostEqual(effective_share_simple(50, 1e9, 6), 1.0, places=6)
        self.assertAlmostEqual(effective_share_clamped(50, 1e9, 6), 1.0, places=6)

    def test_wide_flange_works_near_its_webs_only(self):
        """For large x the simple share tends to 1/x, the clamped one to 2/x."""
        x = 1.285 * 400 / math.sqrt(60 * 3)
        self.assertAlmostEqual(effective_share_simple(400, 60, 3) * x, 1.0, delta=1e-3)
        self.assertAlmostEqual(effective_share_clamped(400, 60, 3) * x, 2.0, delta=1e-3)

    def test_clamped_is_the_upper_bound(self):
        for width in (20, 50, 100, 200):
            for radius in (40, 60, 120):
                simple, clamped = effective_share_simple(width, radius, 5), effective_share_clamped(width, radius, 5)
                self.assertTrue(0 < simple <= clamped <= 1.06, (width, radius, simple, clamped))

    def test_a_steep_flange_carries_cos_cubed(self):
        np.testing.assert_allclose(sloping_share(np.radians([0, 60, 90])), [1, 0.125, 0], atol=1e-12)


class LinerDevelopment(SimpleTestCase):
    """A liner cut too short leaves a gap that weld must bridge."""

    def test_half_pipe_unrolls_at_mid_thickness(self):
        notch = f.arc_notch(depth=60, radius=60)
        self.assertAlmostEqual(notch.shape.unrolled_mm(60, 6), math.pi * 57)

    def test_upright_legs_below_a_half_circle(self):
        notch = f.arc_notch(depth=80, radius=60)
        self.assertAlmostEqual(notch.shape.unrolled_mm(80, 6), math.pi * 57 + 40)

    def test_shallow_arc(self):
        """Chord and sagitta: half mouth^2 = 2 r d - d^2; arc = r x 2 acos((r - d)/r)."""
        notch = f.arc_notch(depth=20, radius=60)
        self.assertAlmostEqual(notch.half_mouth_mm, math.sqrt(2 * 60 * 20 - 400))
        self.assertAlmostEqual(notch.shape.unrolled_mm(20, 4), 58 * 2 * math.acos(40 / 60))

    def test_rectangular_cut_with_bends(self):
        """Two right-angled bends of inside radius r - t: legs and flat to the tangents, arcs at mid-thickness."""
        notch = f.straight_notch(depth=60, top=100, mouth=100, corner=12)
        exact = 2 * (60 - 12) + (100 - 24) + math.pi * (12 - 2)
        self.assertAlmostEqual(notch.shape.unrolled_mm(60, 4), exact, places=6)
