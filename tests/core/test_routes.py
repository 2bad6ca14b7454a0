"""Where the planned frame runs: what moves, what stays, and that nothing is lost on the way."""

import math

import numpy as np
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from nodulant.evaluate import evaluate
from nodulant.frame.model import planned_state
from nodulant.frame.route import FRONT, Move, route_of
from nodulant.geometry import Outline
from nodulant.loads.beam import internal_forces
from nodulant.loads.ladder import STANDING
from nodulant.loads.plan import PlanInForce
from nodulant.strength.rail import compare_rail, joints_of
from nodulant.strength.space import Planned, compare_frames
from tests import fixtures as f
from tests.core.test_operations import made

QUICK = settings(deadline=None, derandomize=True, max_examples=60)
X = np.linspace(-600.0, 3400.0, 41)


class Routes(SimpleTestCase):
    """A wrong map would send a plate to the wrong place on the rail."""

    def test_a_step_lifts_what_is_behind_it_and_the_datum_stays(self):
        ahead = route_of([Move(1600.0, dz_mm=75.0, gone_mm=100.0)], datum_mm=0.0)
        np.testing.assert_array_equal(ahead.shift(X).dz, np.where(X >= 1700, 75.0, 0.0))
        behind = route_of([Move(1600.0, dz_mm=75.0, gone_mm=100.0)], datum_mm=2600.0)
        np.testing.assert_array_equal(behind.shift(X).dz, np.where(X >= 1700, 0.0, -75.0))

    def test_a_stretch_does_not_move_what_is_anchored_behind_it_against_its_anchor(self):
        route = route_of([Move(900.0, dx_mm=300.0, gone_mm=1.0)], datum_mm=0.0)
        self.assertEqual(route.x_at(2610.0) - route.x_at(2090.0), 2610.0 - 2090.0)
        self.assertEqual(route.x_at(2610.0), 2910.0)

    def test_narrowing_moves_inward_only_between_its_cuts_wherever_the_datum_is(self):
        for datum in (-100.0, 300.0, 2000.0):
            route = route_of([Move(FRONT, inward_mm=30.0), Move(450.0, inward_mm=-30.0, gone_mm=110.0)], datum)
            np.testing.assert_array_equal(route.shift(X).inward, np.where(X < 560, 30.0, 0.0))

    def test_a_cut_itself_belongs_to_what_is_ahead_of_it(self):
        route = route_of([Move(900.0, dx_mm=300.0, gone_mm=1.0)], datum_mm=0.0)
        np.testing.assert_array_equal(route.x(np.array([900.0, 901.0])), [900.0, 1201.0])
        self.assertFalse(route.exists(np.array([900.5]))[0])

    @QUICK
    @given(
        st.lists(st.tuples(st.floats(0, 3000), st.floats(-80, 200), st.floats(0, 90)), max_size=4),
        st.floats(-500, 3300),
        st.floats(0, 3000),
    )
    def test_there_and_back(self, rows, x, datum):
        moves = [Move(500.0 * i + 200.0 * a / 3000, dx_mm=dx, gone_mm=gone) for i, (a, dx, gone) in enumerate(rows)]
        route = route_of(moves, datum)
        if route.exists(np.array([x]))[0] and all(dx + gone > 0 for _, dx, gone in rows):
            self.assertAlmostEqual(route.stock_x(route.x_at(x)), x, places=6)


class Drawn(SimpleTestCase):
    """What is on the sheet is what is computed."""

    def test_angled_cut_shifts_by_rise_times_tan(self):
        """Trade fact of the Z: an angled cut carries the clip along as it rises (common practice)."""
        op = made("z-step", rise_mm=75.0, cut_angle_deg=20.0)
        result = evaluate(f.with_operations(f.demo(), op))
        shift = next(x.value for x in result.figures if x.id == "angle-shift-it")
        self.assertAlmostEqual(shift, 75.0 * math.tan(math.radians(20.0)), places=9)
        rail = result.rails[0]
        moved = dict(zip(rail.stock_x_mm, rail.x_mm, strict=True))
        # the datum, a hanger at 2090, lies behind the cut: the front goes the other way
        self.assertAlmostEqual(
            moved[0.0 if 0.0 in moved else -620.0], (0.0 if 0.0 in moved else -620.0) - shift, delta=1e-3
        )

    def test_a_set_on_step_shows_its_spacer(self):
        result = evaluate(f.with_operations(f.demo(), made("z-step", rise_mm=163.0, method="set-on")))
        spacer = next(x.value for x in result.figures if x.id == "spacer-it")
        self.assertAlmostEqual(spacer, 13.0, places=9)

    def test_plates_of_a_step_cover_both_ends(self):
        plate = {"thickness_mm": 5.0, "overlap_mm": 200.0, "end": "square", "inset_mm": 0.0}
        op = made("z-step", rise_mm=75.0, outer_plate=plate)
        result = evaluate(f.with_operations(f.demo(), op))
        part = next(p for p in result.parts if p.id == "it/outer/left")
        x0, z0, x1, z1 = part.outline.bounds()
        self.assertAlmostEqual(x1 - x0, 150.0 + 2 * 200.0, places=6)
        self.assertAlmostEqual(z1 - z0, 150.0 + 75.0, places=6)
        # two rails' ends of 200 x 150, and the piece between them of 150 x 225
        self.assertAlmostEqual(part.outline.area_mm2(), 2 * 200 * 150 + 150 * 225, places=3)

    def test_everything_that_moves_is_listed(self):
        rows = evaluate(f.with_operations(f.demo(), made("z-step"))).taken_along
        self.assertIn("Engine and gearbox", [r.name for r in rows])
        self.assertTrue(all(r.up_mm == -75.0 for r in rows), "the datum lies behind: the front goes down")
        narrowed = evaluate(f.with_operations(f.demo(), made("narrow"))).taken_along
        self.assertEqual(narrowed, (), "nothing stands on that stretch")

    def test_a_crossmember_in_a_narrowed_stretch_loses_twice_the_offset(self):
        op = made("narrow", start=None, end={"anchor_id": "front-axle", "offset_mm": 520.0}, inward_mm=30.0)
        rows = {r.name: r for r in evaluate(f.with_operations(f.demo(), op)).taken_along}
        self.assertEqual(rows["engine crossmember"].narrower_mm, 60.0)
        self.assertNotIn("Engine and gearbox", rows)

    def test_a_subframe_under_narrowed_rails_says_that_it_is_narrowed_too(self):
        narrow = made("narrow", start=None, end={"anchor_id": "front-axle", "offset_mm": 520.0}, inward_mm=30.0)
        under = made("subframe", id="sub", name="Front subframe", place={"anchor_id": "front-axle", "offset_mm": 0.0})
        rows = {r.name: r for r in evaluate(f.with_operations(f.demo(), narrow, under)).taken_along}
        self.assertEqual(rows["Front subframe"].narrower_mm, 60.0)
        self.assertIn("go in with their rails", rows["Front subframe"].words)


class ThroughTheStep(SimpleTestCase):
    """Forces where the rail steps or jogs: what a flat beam would never show."""

    def frame(self, *operations):
        inputs = f.with_operations(f.demo(), *operations)
        state = planned_state(operations)
        rails = {side: compare_rail(inputs.survey, operations, (), side, state, ()) for side in ("left", "right")}
        joints = joints_of(rails)
        survey = inputs.survey
        loads = PlanInForce(links=inputs.design.loads.links)
        plan = Planned((), survey.crossmembers, joints, loads, 0.0)
        return inputs, compare_frames(survey, plan, rails)

    def test_a_step_adds_no_moment_under_vertical_load(self):
        """The frame is free to slide at one end, so a post only hands the moment up (statics)."""
        inputs, frames = self.frame(made("z-step"))
        forces = frames.planned.ladder.forces(STANDING, "left")
        beam = internal_forces(forces.x, inputs.survey.masses, inputs.survey.seats).moment
        np.testing.assert_allclose(forces.moment, beam, atol=1e-3 * np.abs(beam).max())

    def test_braking_pushes_the_step_over_by_force_times_height(self):
        """Longitudinal force in the rail x the step's height is the difference of moment across it (statics)."""
        _, frames = self.frame(made("z-step", rise_mm=75.0))
        ladder = frames.planned.ladder
        forces = ladder.forces("brake", "left")
        k = int(np.searchsorted(forces.x, 1710.0 + 1e-4)) - 1
        axial = (forces.axial[k] + forces.axial[k + 1]) / 2
        jump = forces.moment[k + 1] - forces.moment[k]
        shear = forces.shear[k] * (forces.x[k + 1] - forces.x[k])
        self.assertAlmostEqual(abs(jump), abs(axial) * 75.0, delta=abs(shear) + 0.05 * abs(axial) * 75.0)
        self.assertGreater(abs(axial), 100.0)

    def test_a_jog_puts_shear_times_offset_into_the_rail_as_torque(self):
        """V dy, statics of a jog; the crossmembers share it, so the rails see it as a change across the jog."""
        _, frames = self.frame(made("narrow", inward_mm=60.0, run_mm=60.0))
        bent = frames.planned.ladder.forces(STANDING, "left")
        flat = self.frame()[1].planned.ladder.forces(STANDING, "left")
        at = 1900.0
        change = float(np.interp(at, bent.x, bent.torque)) - float(np.interp(at, flat.x, flat.torque))
        self.assertGreater(abs(change), 1e3)

    def test_equal_rails_have_equal_uses_to_six_digits(self):
        """A mirrored frame under a mirrored load: what differs is what the solution lost (statics, no other source)."""
        uses = {c.id: c.value for c in evaluate(f.demo("arc")).checks if c.limit_id in {"case-limit", "accident-use"}}
        left = {id_: value for id_, value in uses.items() if id_.endswith(":left")}
        self.assertGreater(len(left), 5)
        for id_, value in left.items():
            self.assertAlmostEqual(value / uses[id_.removesuffix("left") + "right"], 1.0, delta=2e-6, msg=id_)

    def test_an_outline_turned_over_twice_is_itself(self):
        outline = Outline.model_validate(
            {"vertices": [{"x": 0, "y": 1, "bulge": 0.4}, {"x": 3, "y": 2}, {"x": 5, "y": 7}]}
        )
        self.assertEqual(outline.upside_down().upside_down(), outline)
        self.assertAlmostEqual(outline.upside_down().area_mm2(), -outline.area_mm2())
