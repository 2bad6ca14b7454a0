"""Section kinds against closed forms, over random sizes; and cuts that leave what they should."""

import math

import numpy as np
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from nodulant.frame.model import STOCK, planned_state, sections
from nodulant.survey.rail import Rail, Station
from tests import fixtures as f

QUICK = settings(deadline=None, derandomize=True, max_examples=50)
heights, widths = st.floats(60, 250), st.floats(40, 120)
walls = st.floats(2, 6)


def rail(kind, h, b, t, **more):
    rows = tuple(Station(x_mm=x, underside_z_mm=0, height_mm=h, width_mm=b, wall_mm=t) for x in (0.0, 3000.0))
    return Rail(kind=kind, stations=rows, steel_id="mild", **more)


def of(made, operations=(), x=1500.0):
    survey = f.survey_of(made)
    state = planned_state(operations) if operations else STOCK
    return sections(survey, operations, "left", f.stations_at(x), state)


class ClosedForms(SimpleTestCase):
    """Area, inertia and torsion of whole sections (Roark, tables of sections; Bredt)."""

    @QUICK
    @given(heights, widths, walls)
    def test_rectangular_tube(self, h, b, t):
        s = of(rail("rect-tube", h, b, t))
        self.assertAlmostEqual(s.properties.area[0], b * h - (b - 2 * t) * (h - 2 * t), places=6)
        self.assertAlmostEqual(s.properties.i_y[0] / ((b * h**3 - (b - 2 * t) * (h - 2 * t) ** 3) / 12), 1.0, places=9)
        self.assertAlmostEqual(s.properties.centroid_y[0], b / 2, places=9)
        bredt = 4 * ((h - t) * (b - t)) ** 2 * t / (2 * (h + b - 2 * t))
        # the flow's short way round the corners and the open walls' own share are a few per cent on top
        self.assertGreater(s.torsion.j[0], bredt)
        self.assertLess(s.torsion.j[0] / bredt, 1.0 + 4.0 * t / min(h, b))
        self.assertAlmostEqual(s.shear_area[0], 2 * t * h, places=6)

    @QUICK
    @given(st.floats(40, 200), walls)
    def test_round_tube(self, d, t):
        s = of(rail("round-tube", d, d, t))
        inner = d - 2 * t
        self.assertAlmostEqual(s.properties.area[0] / (math.pi * (d**2 - inner**2) / 4), 1.0, delta=1e-9)
        self.assertAlmostEqual(s.properties.i_y[0] / (math.pi * (d**4 - inner**4) / 64), 1.0, delta=4e-3)
        self.assertAlmostEqual(s.properties.i_y[0] / s.properties.i_z[0], 1.0, delta=1e-9)
        exact = math.pi * (d**4 - inner**4) / 32
        # thin-wall theory leaves out (t/d)^2 of a thick tube
        self.assertAlmostEqual(s.torsion.j[0] / exact, 1.0, delta=0.005 + (t / d) ** 2)
        self.assertAlmostEqual(s.shear_area[0] / (2 * s.properties.area[0] / math.pi), 1.0, delta=1e-9)

    @QUICK
    @given(heights, widths, walls, st.floats(8, 30))
    def test_open_kinds_have_the_torsion_of_their_strip(self, h, b, t, lip):
        """J = sum(s t^3)/3 of an open section (Timoshenko): the channel, and what its lips add."""
        plain, lipped = of(rail("channel", h, b, t)), of(rail("lipped-channel", h, b, t, lip_mm=lip))
        self.assertFalse(plain.torsion.closed[0] or lipped.torsion.closed[0])
        strip = h - t + 2 * (b - t / 2)
        self.assertAlmostEqual(plain.torsion.j[0] / (strip * t**3 / 3), 1.0, delta=0.02)
        self.assertAlmostEqual((lipped.torsion.j[0] - plain.torsion.j[0]) / (2 * (lip - t) * t**3 / 3), 1.0, delta=0.02)

    @QUICK
    @given(heights, widths, walls, st.floats(12, 30))
    def test_lips_raise_the_inertia_and_move_the_centroid_outward(self, h, b, t, lip):
        plain = of(rail("channel", h, b, t)).properties
        inward = of(rail("lipped-channel", h, b, t, lip_mm=lip)).properties
        apart = of(rail("lipped-channel", h, b, t, lip_mm=lip, lips="outward")).properties
        self.assertAlmostEqual(inward.area[0] - plain.area[0], 2 * t * (lip - t), places=6)
        self.assertAlmostEqual(apart.area[0], inward.area[0], places=6)
        self.assertGreater(inward.i_y[0], plain.i_y[0])
        self.assertGreater(apart.i_y[0], inward.i_y[0])
        self.assertGreater(inward.centroid_y[0], plain.centroid_y[0])

    @QUICK
    @given(heights, widths, walls, st.floats(1, 4))
    def test_a_second_skin_closes_the_channel(self, h, b, t, second):
        s = of(rail("two-skin", h, b, t, second_wall_mm=second))
        plain = of(rail("channel", h, b, t))
        self.assertTrue(s.torsion.closed[0])
        self.assertAlmostEqual(s.properties.area[0] - plain.properties.area[0], second * h, places=6)
        self.assertAlmostEqual(s.shear_area[0], (t + second) * h, places=6)
        self.assertGreater(s.torsion.j[0], 20 * plain.torsion.j[0])

    def test_a_hat_is_closed_by_its_floor_only(self):
        bare, floored = (of(rail("top-hat", 100.0, 70.0, 3.0, lip_mm=20.0, second_wall_mm=w)) for w in (None, 1.5))
        self.assertEqual((bare.torsion.closed[0], floored.torsion.closed[0]), (False, True))
        self.assertGreater(floored.properties.centroid_z[0], bare.properties.centroid_z[0])

    def test_kinds_say_what_they_lack(self):
        for kind, field in (("two-skin", "second skin"), ("lipped-channel", "lips"), ("top-hat", "lips")):
            with self.assertRaisesRegex(ValueError, field):
                rail(kind, 100.0, 60.0, 3.0)


class Cut(SimpleTestCase):
    """What a cut leaves of each kind."""

    @QUICK
    @given(heights, widths, walls, st.floats(0.1, 0.6), st.sampled_from(["below", "above"]))
    def test_a_cut_box_is_a_channel_on_its_side(self, h, b, t, share, edge):
        depth = max(share * h, t + 1.0)
        s = of(rail("rect-tube", h, b, t), (f.straight_notch(depth, 90.0, 140.0, 4.0, from_=edge),))
        left = h - depth
        self.assertAlmostEqual(
            s.properties.area[0], b * h - (b - 2 * t) * (h - 2 * t) - (b * t + 2 * t * (depth - t)), places=6
        )
        self.assertAlmostEqual(s.shear_area[0], 2 * t * left, places=6)
        self.assertFalse(s.torsion.closed[0])
        high = s.properties.centroid_z[0]
        self.assertTrue(depth < high < h if edge == "below" else 0 < high < left)

    def test_left_and_right_may_differ(self):
        survey = f.survey_of(rail("channel", 150.0, 60.0, 5.0))
        other = survey.rails.model_copy(update={"right": rail("rect-tube", 120.0, 70.0, 4.0)})
        survey = survey.model_copy(update={"rails": other})
        areas = [
            sections(survey, (), side, f.stations_at(1500.0), STOCK).properties.area[0] for side in ("left", "right")
        ]
        self.assertAlmostEqual(areas[0], 150 * 5 + 2 * 55 * 5)
        self.assertAlmostEqual(areas[1], 120 * 70 - 112 * 62)

    def test_a_wall_that_tapers_along_the_rail(self):
        rows = tuple(
            Station(x_mm=x, underside_z_mm=0, height_mm=h, width_mm=70, wall_mm=t)
            for x, h, t in ((0.0, 100.0, 3.0), (1000.0, 140.0, 5.0))
        )
        s = of(Rail(kind="rect-tube", stations=rows, steel_id="mild"), x=500.0)
        self.assertAlmostEqual(s.shear_area[0], 2 * 4.0 * 120.0)

    def test_capacity_across_the_rail_by_hand(self):
        s = of(rail("rect-tube", 120.0, 70.0, 4.0)).properties
        i_z = (120 * 70**3 - 112 * 62**3) / 12
        self.assertAlmostEqual(s.reference_side[0], i_z / 35.0 * 248.0, places=3)

    def test_the_mirror_of_a_channel_opening_outward_is_the_same_section(self):
        made = rail("channel", 150.0, 60.0, 5.0)
        pair = [of(made.model_copy(update={"opens": way})).properties.i_y[0] for way in ("inward", "outward")]
        self.assertEqual(*pair)
        self.assertTrue(np.isfinite(pair).all())
