"""Warping torsion in closed form, and warping constants against an FE section library.

V. Z. Vlasov, *Thin-walled Elastic Beams*, and Timoshenko and Gere, *Theory of Elastic Stability* ch. 5 (from
memory): E I_w phi'''' - G J phi'' = m. Polygons are drawn with shapely; mid-line theory against a solid mesh:
3 % for I_w of walls a twentieth of the section.
"""

import math

import numpy as np
from django.test import SimpleTestCase
from sectionproperties.analysis import Section
from sectionproperties.pre import Geometry
from shapely import box, unary_union

from nodulant.frame.model import STOCK, sections
from nodulant.loads.space_frame import Held, Members, solve
from nodulant.materials.steel import ELASTIC_MODULUS_MPA, SHEAR_MODULUS_MPA
from tests import fixtures as f
from tests.core.test_rail_kinds import rail

H, B, T = 150.0, 60.0, 3.0
J, I_W, LONG = 2.0e3, 8.0e8, 2000.0


def against_fe(polygon, stock_rail):
    """Ours over the FE library's warping constant, and both shear centres from the centroid across, mm."""
    own = sections(f.survey_of(stock_rail), (), "left", f.stations_at(1500.0), STOCK)
    mesh = Section(Geometry(polygon).create_mesh(mesh_sizes=2.0))
    mesh.calculate_geometric_properties()
    mesh.calculate_warping_properties()
    theirs_y = mesh.get_sc()[0] - mesh.get_c()[0]
    ours_y = float(own.warping.y[0] - own.properties.centroid_y[0])
    return float(own.warping.i_w[0]) / mesh.get_gamma(), ours_y, theirs_y


class Constants(SimpleTestCase):
    """An open rail's stiffness against twist hangs on I_w, and its own torque on the shear centre."""

    def same(self, polygon, stock_rail, within=0.03):
        ratio, ours, theirs = against_fe(polygon, stock_rail)
        self.assertAlmostEqual(ratio, 1.0, delta=within)
        self.assertAlmostEqual(ours, theirs, delta=1.0)

    def test_channel(self):
        self.same(box(0, 0, B, H) - box(T, T, B + 1, H - T), rail("channel", H, B, T))

    def test_channel_in_closed_form(self):
        """I_w = t b^3 h^2 (3 b + 2 h) / (12 (6 b + h)), mid-line sizes, flange and web alike (Timoshenko)."""
        h, b = H - T, B - T / 2
        exact = T * b**3 * h**2 * (3 * b + 2 * h) / (12 * (6 * b + h))
        own = sections(f.survey_of(rail("channel", H, B, T)), (), "left", f.stations_at(1500.0), STOCK)
        self.assertAlmostEqual(own.warping.i_w[0] / exact, 1.0, delta=1e-3)

    def test_lipped_channel(self):
        lipped = box(0, 0, B, H) - box(T, T, B - T, H - T) - box(B - T - 1, 20, B + 1, H - 20)
        self.same(lipped, rail("lipped-channel", H, B, T, lip_mm=20.0))

    def test_top_hat(self):
        hat = unary_union(
            [box(0, 0, B, T), box(0, 0, T, H), box(B - T, 0, B, H), box(-20, H - T, 0, H), box(B, H - T, B + 20, H)]
        )
        self.same(hat, rail("top-hat", H, B, T, lip_mm=20.0), within=0.04)


class HeldEnds(SimpleTestCase):
    """A bar twisted at its free end, held against warping at one end or at both."""

    def turned(self, free_far):
        """Angle at the far end, radians, and bimoment at the held one, per N mm of torque."""
        n = 20
        nodes = np.zeros((n + 1, 3))
        nodes[:, 0] = np.linspace(0, LONG, n + 1)
        first, one = np.arange(n), np.ones(n)
        members = Members(first, first + 1, 1e3 * one, 1e6 * one, 1e6 * one, J * one, one, I_W * one)
        warping = np.zeros(n + 1)
        warping[0] = np.inf
        if not free_far:
            warping[-1] = np.inf
        held = Held((0,) * 6, tuple(range(6)), warping)
        loads = np.zeros((1, n + 1, 6))
        loads[0, -1, 3] = 1.0
        solved = solve(nodes, members, held, loads)
        return abs(solved.displacements[0, -1, 3]), abs(solved.bimoments[0, 0, 0])

    def test_one_end_held(self):
        """Phi = T/(G J) (L - tanh(k L)/k), B = T tanh(k L)/k with k^2 = G J/(E I_w)."""
        k = math.sqrt(SHEAR_MODULUS_MPA * J / (ELASTIC_MODULUS_MPA * I_W))
        angle, bimoment = self.turned(free_far=True)
        self.assertAlmostEqual(angle * SHEAR_MODULUS_MPA * J / (LONG - math.tanh(k * LONG) / k), 1.0, delta=1e-6)
        self.assertAlmostEqual(bimoment / (math.tanh(k * LONG) / k), 1.0, delta=1e-6)

    def test_both_ends_held(self):
        """Phi = T/(G J) (L - 2 tanh(k L/2)/k), B = T tanh(k L/2)/k."""
        k = math.sqrt(SHEAR_MODULUS_MPA * J / (ELASTIC_MODULUS_MPA * I_W))
        angle, bimoment = self.turned(free_far=False)
        exact = LONG - 2 * math.tanh(k * LONG / 2) / k
        self.assertAlmostEqual(angle * SHEAR_MODULUS_MPA * J / exact, 1.0, delta=1e-6)
        self.assertAlmostEqual(bimoment / (math.tanh(k * LONG / 2) / k), 1.0, delta=1e-6)
