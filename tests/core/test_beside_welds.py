"""What welding, an unsymmetric section and two cuts at once take from a rail."""

import numpy as np
from django.test import SimpleTestCase

from nodulant.evaluate import evaluate
from nodulant.frame.model import STOCK, planned_state, sections
from nodulant.loads.frame3d import RailForces
from nodulant.materials import find_steel
from nodulant.strength.space import rail_case
from tests import fixtures as f
from tests.core.test_operations import made


def tube(steel):
    rail = f.straight_rail(steel=steel)
    return rail.model_copy(update={"kind": "rect-tube"})


def yields(steel, op, x):
    """Reference yield of the rail's top fibre at stations ``x``, MPa, as a share of the uncut steel's."""
    survey, at = f.survey_of(tube(steel)), f.stations_at(*x)
    planned = sections(survey, (op,), "left", at, planned_state((op,))).properties
    return planned.reference_top / planned.s_top / find_steel(steel).yield_reference_mpa


class BesideWelds(SimpleTestCase):
    """A cold-drawn tube is sold by a yield that a weld takes away (common practice: within 25 mm)."""

    bracket = {"place": {"anchor_id": "mid", "offset_mm": 0.0}, "height_mm": 75.0, "width_mm": 80.0}

    def test_cold_work_is_gone_within_an_inch_of_the_foot(self):
        share = yields("dom", made("bracket", **self.bracket), (1430.0, 1440.0, 1500.0, 1560.0, 1570.0))
        dom = find_steel("dom")
        np.testing.assert_allclose(share[[1, 3]], dom.near_weld_mpa / dom.yield_reference_mpa, rtol=1e-9)
        np.testing.assert_allclose(share[[0, 4]], 1.0, rtol=1e-9)

    def test_a_bolted_foot_and_mild_steel_lose_nothing(self):
        bolted = yields("dom", made("bracket", fixing="bolted", **self.bracket), (1440.0, 1560.0))
        np.testing.assert_allclose(bolted, 1.0, rtol=1e-9)
        np.testing.assert_allclose(yields("mild", made("bracket", **self.bracket), (1440.0, 1560.0)), 1.0, rtol=1e-9)


class Unsymmetric(SimpleTestCase):
    """A channel with half of one flange rusted away, or lined on one side, has no upright principal axis."""

    def test_stress_is_that_about_the_principal_axes(self):
        """Bending resolved on principal axes (Young and Budynas, Roark's Formulas, 7th ed., 8.2, from memory)."""
        cut = f.arc_notch()
        survey = f.survey_of(f.straight_rail())
        section = sections(survey, (cut,), "left", f.stations_at(1500.0), planned_state((cut,)))
        p = section.properties
        tensor = np.array([[p.i_y[0], p.i_yz[0]], [p.i_yz[0], p.i_z[0]]])
        self.assertGreater(abs(p.i_yz[0]), 0.05 * min(p.i_y[0], p.i_z[0]))
        moment = 1e6
        forces = RailForces(np.array([1500.0]), np.array([[moment], *[[0.0]] * 7]))
        self.assertEqual((forces.moment[0], forces.side_moment[0]), (moment, 0.0))
        use = rail_case(forces, section).use[0]
        # sigma = [z y] I^-1 [M 0]; at the fibre on the neutral axis' far side of height, on the web's plane of bending
        curvature = np.linalg.solve(tensor, [moment, 0.0])
        upright = curvature[0] * p.i_y[0] / min(p.reference_top[0], p.reference_bottom[0])
        self.assertAlmostEqual(use / (1.5 * abs(upright)), 1.0, places=9)

    def test_a_symmetric_section_is_left_alone(self):
        survey = f.survey_of(tube("mild"))
        p = sections(survey, (), "left", f.stations_at(1500.0), STOCK).properties
        self.assertAlmostEqual(p.i_yz[0] / p.i_z[0], 0.0, places=9)


class EveryCutOpen(SimpleTestCase):
    """Two cuts on one rail, both left open over a week, carry no more than the weaker of them."""

    def test_the_frame_with_all_cuts_is_a_state_of_its_own(self):
        notch = {"depth_mm": 80.0, "shape": {"kind": "arc", "radius_mm": 80.0}}
        rows = evaluate(
            f.with_operations(
                f.demo(),
                made("notch", **notch, place={"anchor_id": "front-hanger", "offset_mm": -700.0}),
                made(
                    "notch", **notch, id="second", side="left", place={"anchor_id": "front-hanger", "offset_mm": -300.0}
                ),
            )
        ).interim
        left = {r.operation: r.use for r in rows if r.side == "left"}
        self.assertEqual(len(left), 3)
        self.assertAlmostEqual(left["all-cuts"], max(left["it"], left["second"]), places=6)
        self.assertNotIn("all-cuts", [r.operation for r in rows if r.side == "right"])
