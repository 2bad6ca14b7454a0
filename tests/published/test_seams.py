"""Flow along the long welds of plates against worked examples."""

from dataclasses import replace

import numpy as np
from django.test import SimpleTestCase

from nodulant.evaluate import evaluate
from nodulant.frame.additions import Plate
from nodulant.frame.columns import rail_columns
from nodulant.frame.layout import Layout
from nodulant.frame.model import STOCK, planned_state, sections
from nodulant.materials import find_steel
from nodulant.strength.seams import moment_of_area
from tests import fixtures as f
from tests.core.test_operations import made


def layout_of(width, height, plate):
    rail = rail_columns(f.straight_rail(height=height, width=width), f.stations_at(1500.0))
    none = np.zeros(1)
    return Layout(rail, none, none, (plate,), ())


def plate(role, t, low, high):
    one = np.ones(1)
    return Plate(role, t, one, low * one, high * one, find_steel("mild"), one, 0 * one)


class BuiltUpBeam(SimpleTestCase):
    """V Q/I (Gere, Mechanics of Materials, 7th ed., example 5-16, from memory): a box beam of boards.

    Flanges 40 x 180 between two webs 15 x 280; V 10.5 kN, screws of 800 N: spacing 46.6 mm.
    """

    def test_spacing_of_the_screws(self):
        flange = plate("top", 40.0, 240.0, 280.0)
        rail = layout_of(180.0, 280.0, flange)
        properties = sections(f.survey_of(f.straight_rail()), (), "left", f.stations_at(1500.0), STOCK).properties
        one = np.ones(1)
        box = replace(properties, i_y=264.2e6 * one, centroid_z=140.0 * one)
        flow = 10_500 * moment_of_area(flange, rail, box)[0][0]
        self.assertAlmostEqual(800.0 / flow, 46.6, delta=0.1)

    def test_a_web_s_own_bending_goes_in_through_both_edges(self):
        """A plate that takes the share I_p/I of the moment takes dM/dx I_p/I as a couple of its two edges."""
        web = plate("outer", 6.0, 10.0, 140.0)
        rail = layout_of(60.0, 150.0, web)
        properties = sections(f.survey_of(f.straight_rail()), (), "left", f.stations_at(1500.0), STOCK).properties
        centred = replace(properties, centroid_z=75.0 * np.ones(1))
        flow = moment_of_area(web, rail, centred)[0][0]
        own = 6.0 * 130.0**3 / 12
        self.assertAlmostEqual(flow * 130.0, own / properties.i_y[0], places=12)


class RoundTheCell(SimpleTestCase):
    """Torque alone gives T/(2 A) (Bredt), which a rail boxed over its lips shows as its greatest flow."""

    def test_one_cell(self):
        survey = f.survey_of(f.straight_rail())
        box = f.boxing()
        torsion = sections(survey, (box,), "left", f.stations_at(1500.0), planned_state((box,))).torsion
        # flush: mid-lines 145 high, from 2.5 to 57.5 across
        self.assertAlmostEqual(torsion.flows["boxing"][0] * 2 * 145.0 * 55.0, 1.0, delta=0.02)

    def test_the_open_rail_has_none(self):
        torsion = sections(f.survey_of(f.straight_rail()), (), "left", f.stations_at(1500.0), STOCK).torsion
        self.assertEqual(max((float(flow[0]) for flow in torsion.flows.values()), default=0.0), 0.0)


class InTheJob(SimpleTestCase):
    """Every welded plate is judged on its own; a bolted one has no seam."""

    def test_a_small_leg_works_harder(self):
        long = {"start": {"anchor_id": "rear-axle", "offset_mm": -1400.0}}
        found = [
            f.check_of(
                evaluate(f.with_operations(f.demo(), made("plate", weld_leg_mm=leg, **long))),
                "seam:it-outer:left",
            )
            for leg in (3.0, 5.0)
        ]
        self.assertGreater(found[0].value, found[1].value)

    def test_without_masses_it_is_not_computed(self):
        inputs = f.with_survey(f.with_operations(f.demo(), made("plate")), masses=())
        check = f.check_of(evaluate(inputs), "seam:it-outer:left")
        self.assertEqual((check.verdict, check.value), ("not computed", None))

    def test_bolted_plates_have_no_seam(self):
        notch = made("notch", outer_plate={"thickness_mm": 6.0, "overlap_mm": 200.0}, bolts={}, liner=None)
        self.assertFalse([c for c in evaluate(f.with_operations(f.demo(), notch)).checks if c.limit_id == "seam"])
