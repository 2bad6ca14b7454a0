"""Every load case of the frame in space balances by itself, and says what textbooks say."""

import numpy as np
from django.test import SimpleTestCase

from nodulant.evaluate import Want, evaluate
from nodulant.evaluate.load_plan import plan_of
from nodulant.frame.model import STOCK, planned_state, sections
from nodulant.frame.ties import planned_crossmembers
from nodulant.job.fresh.layouts import LAYOUTS
from nodulant.job.fresh.suspension import fresh_suspension
from nodulant.loads import case_loads, kerb
from nodulant.loads.beam import G
from nodulant.loads.carried import carried_by
from nodulant.loads.frame3d import build_frame, node_rows, rail_forces, solve_frame
from nodulant.loads.ladder import ladder_stations
from nodulant.loads.plan import AxleLinks, AxleOnFrame, JackPoint, LoadPlan, Pull, StopPads
from nodulant.loads.reach import levers
from nodulant.strength.rail import compare_rail
from nodulant.strength.space import Planned, compare_frames
from nodulant.suspension.on_frame import beyond_standing, push_along, pushed_sideways
from nodulant.suspension.study import study
from nodulant.targets.drop import towards_rail
from tests import fixtures as f
from tests.core.test_operations import made


def frame():
    survey = f.demo().survey
    x = ladder_stations(survey.rails, [s.x_mm for s in (*survey.seats, *survey.crossmembers)])
    cut = {side: sections(survey, (), side, x, STOCK) for side in ("left", "right")}
    rows = node_rows(x, [s.x_mm for s in (*survey.seats, *survey.crossmembers)], ())
    return build_frame(survey.rails, (x, rows), cut, survey.crossmembers)


def load(links=(), pushes=None, axles=None):
    survey = f.demo().survey
    return carried_by(survey.masses, survey.seats, survey.ground_z_mm(), links, pushes, axles)


def on_frame(kind):
    """What the van's rear axle puts on its frame on that layout, its springs not described."""
    inputs = f.demo("step")
    own = fresh_suspension(inputs, "rear", kind, before=True)
    across = pushed_sideways(study(inputs.survey, own, inputs.survey.seats, 0.0, 1.0))
    return {"rear": AxleOnFrame(sideways=across)}


def rear_push(kind="triangulated"):
    """What a rear axle of that layout puts on the van's frame; its springs are not described."""
    inputs = f.demo("step")
    own = fresh_suspension(inputs, "rear", kind, before=True)
    return {"rear": push_along(study(inputs.survey, own, inputs.survey.seats, 0.0, 1.0))}


WHEEL = kerb.StruckWheel(axle="rear", half_track_mm=810.0, hub_z_mm=-152.0, unsprung_kg=120.0)
LINKS = (AxleLinks(upper_x_mm=2160, upper_z_mm=60, lower_x_mm=1980, lower_z_mm=-70),)
SLOPING = (LINKS[0].model_copy(update={"upper_slope": 0.12, "lower_slope": -0.05}),)
CASES = {
    "standing": lambda fr: case_loads.standing(fr, load()),
    "twist": lambda fr: case_loads.unit_twist(fr, load()),
    "brake": lambda fr: case_loads.braking(fr, load(), 1.0),
    "brake through links": lambda fr: case_loads.braking(fr, load(LINKS), 1.0),
    "launch": lambda fr: case_loads.launching(fr, load(), 0.9),
    "launch through links": lambda fr: case_loads.launching(fr, load(LINKS), 0.9),
    "brake through sloping links": lambda fr: case_loads.braking(fr, load(SLOPING), 1.0),
    "launch through sloping links": lambda fr: case_loads.launching(fr, load(SLOPING), 0.9),
    "corner": lambda fr: case_loads.cornering(fr, load(), 1.0),
    "corner through a track bar": lambda fr: case_loads.cornering(fr, load(axles=on_frame("parallel")), 1.0),
    "corner through four links": lambda fr: case_loads.cornering(fr, load(axles=on_frame("triangulated")), 1.0),
    "jack": lambda fr: case_loads.jacked(fr, load(), JackPoint(x_mm=1840.0)),
    "stop": lambda fr: case_loads.stopped(fr, load(), StopPads(x_mm=2610.0), 3.0),
    "braking through a suspension": lambda fr: case_loads.braking(fr, load((), rear_push()), 1.0),
    "launching through a suspension": lambda fr: case_loads.launching(fr, load((), rear_push()), 1.0),
    "launching, the differential on the frame": lambda fr: case_loads.launching(
        fr, load((), rear_push("double-wishbone")), 1.0
    ),
    "kerb through a suspension": lambda fr: kerb.struck(
        fr, load((), rear_push("ladder")), kerb.by_seats(fr, load((), rear_push("ladder")), WHEEL)
    )[0],
    "kerb at the seats": lambda fr: kerb.struck(fr, load(), kerb.by_seats(fr, load(), WHEEL))[0],
    "kerb through links": lambda fr: kerb.struck(fr, load(LINKS), kerb.by_seats(fr, load(LINKS), WHEEL))[0],
    "kerb, a pull between the rails": lambda fr: kerb.struck(fr, load(), [Pull((2100, 60, 40), (900, -300, 500))])[0],
    "kerb, a pull beside a rail": lambda fr: kerb.struck(fr, load(), [Pull((2100, 350, -90), (900, -300, 500))])[0],
}


class Balance(SimpleTestCase):
    """Loads that do not balance would be carried by the props that only stop the frame from drifting."""

    def test_forces_and_moments_add_up_to_nothing(self):
        fr = frame()
        weight = load().weight_n
        for name, make in CASES.items():
            with self.subTest(name):
                loads = make(fr)
                force = loads[:, :3].sum(axis=0)
                moment = loads[:, 3:].sum(axis=0) + np.cross(fr.nodes, loads[:, :3]).sum(axis=0)
                np.testing.assert_allclose(force, 0.0, atol=1e-6 * weight)
                # nodes stand at sections' centroids, whose heights vary by a few millimetres along the rail
                np.testing.assert_allclose(moment, 0.0, atol=5e-3 * weight * 1000)

    def test_the_props_carry_nothing(self):
        fr = frame()
        solved = solve_frame(fr, np.stack([make(fr) for make in CASES.values()]))
        for k, name in enumerate(CASES):
            with self.subTest(name):
                for side in ("left", "right"):
                    forces = rail_forces(fr, solved)[side].case(k)
                    peak = np.abs(forces.moment).max()
                    self.assertLess(max(abs(forces.moment[0]), abs(forces.moment[-1])), 0.02 * peak + 1.0)


class Textbook(SimpleTestCase):
    """Figures that anyone can reckon by hand."""

    def test_transfer_in_braking(self):
        """DN = m a h / L (Gillespie, Fundamentals of Vehicle Dynamics, ch. 1, from memory)."""
        carried = load()
        rise = carried.centre_z() - carried.ground_z
        moved = carried.weight_n * rise / carried.wheelbase
        loads = case_loads.braking(frame(), carried, 1.0)
        up = loads[:, 2]
        x = np.repeat(frame().x, 2)
        # front and rear halves: what the axles add by the transfer
        self.assertAlmostEqual(up[x < 1300].sum() / moved, 1.0, delta=0.02)
        self.assertAlmostEqual(up[x > 1300].sum() / -moved, 1.0, delta=0.02)

    def test_launch_at_the_limit_of_a_rear_axle(self):
        """N_r = W_r / (1 - mu h / L) for rear drive (Gillespie, ch. 2, from memory)."""
        carried = load()
        lever = (carried.centre_z() - carried.ground_z) / carried.wheelbase
        rear = carried.held.rear / (1 - 0.9 * lever)
        loads = case_loads.launching(frame(), carried, 0.9)
        pushed = -loads[loads[:, 0] < 0, 0].sum()
        # what pushes forward is grip x rear load, less the inertia of masses that share its nodes
        self.assertLess(pushed, 0.9 * rear + 1e-6)
        inertia = loads[loads[:, 0] > 0, 0].sum()
        self.assertAlmostEqual(pushed, inertia, delta=1e-6 * pushed)

    def test_what_sloping_links_lift_is_the_anti_squat(self):
        """Links lift force x (height of the instant centre over its distance): Gillespie, ch. 7, from memory."""
        fr, carried = frame(), load(SLOPING)
        level = case_loads.launching(fr, load(LINKS), 0.9)
        loads = case_loads.launching(fr, carried, 0.9)
        seats = [s for s in carried.seats if s.axle == "rear"]
        axle = sum(s.share * s.x_mm for s in seats) / sum(s.share for s in seats)
        own = SLOPING[0]
        # where the two links' lines cross
        high = own.upper_z_mm - own.upper_slope * (own.upper_x_mm - axle)
        low = own.lower_z_mm - own.lower_slope * (own.lower_x_mm - axle)
        back = (high - low) / (own.lower_slope - own.upper_slope)
        centre = high + own.upper_slope * back - carried.ground_z
        lever = (carried.centre_z() - carried.ground_z) / carried.wheelbase
        lifted = 0.9 * carried.held.rear / (1 - 0.9 * lever)
        lifted *= centre / -back
        near = (np.repeat(fr.x, 2) > 1900) & (np.repeat(fr.x, 2) < 2240)
        by_links = (loads - level)[near, 2].sum()
        hanger = sum(s.share for s in seats if 1900 < s.x_mm < 2240)  # its load went down by what the links took
        self.assertAlmostEqual(by_links / lifted, 1.0 - hanger, delta=0.01)
        self.assertAlmostEqual((loads - level)[:, 2].sum(), 0.0, delta=1e-6 * carried.weight_n)

    def test_jack_takes_half_of_what_two_points_would(self):
        """Jack and far wheel share alike, since the front rolls freely (statics)."""
        carried, fr = load(), frame()
        loads, weights = (
            case_loads.jacked(fr, carried, JackPoint(x_mm=carried.held.rear_x, side=side)) for side in ("left", "right")
        )
        left, right = loads[0::2, 2].sum(), loads[1::2, 2].sum()
        self.assertAlmostEqual(left, right, delta=1e-6 * carried.weight_n)
        np.testing.assert_allclose(loads[0::2], weights[1::2], atol=1e-6)

    def test_the_ground_is_hub_less_loaded_radius(self):
        survey = f.demo().survey
        front, rear = (-158 - 157) / 2 - 343, (-153 - 152.5) / 2 - 341
        self.assertAlmostEqual(survey.ground_z_mm(), (front + rear) / 2)


class Kerb(SimpleTestCase):
    """A rear wheel strikes a kerb: the frame flies free for its length."""

    def test_the_strike_is_three_up_and_two_back_of_the_wheels_own_load(self):
        fr, carried = frame(), load()
        each = (carried.held.rear + 120.0 * G) / 2
        pulls = kerb.by_seats(fr, carried, WHEEL)
        total = np.sum([p.force for p in pulls], axis=0)
        np.testing.assert_allclose(total, [2 * each, 0, 2 * each], rtol=1e-9)
        # and about the frame's own axes as one force at the struck hub
        moment = np.sum([np.cross(p.at, p.force) for p in pulls], axis=0)
        axle = sum(s.share * s.x_mm for s in carried.seats if s.axle == "rear")
        np.testing.assert_allclose(moment, np.cross((axle, 810.0, -152.0), total), rtol=0.01)

    def test_the_near_spring_takes_more_than_the_strike(self):
        """A beam on two supports that stands over one: 1/2 + t/(2 s) of the load on the near one (statics)."""
        fr, carried = frame(), load()
        pulls = kerb.by_seats(fr, carried, WHEEL)
        near = sum(p.force[2] for p in pulls if p.at[1] > 0) / sum(p.force[2] for p in pulls)
        half = float(np.interp(2300.0, fr.x, fr.nodes[1::2, 1]))
        self.assertAlmostEqual(near, 0.5 + 810.0 / (2 * half), delta=0.01)

    def test_a_central_push_at_the_centre_of_mass_only_speeds_it_up(self):
        """Every mass answers with the same share of its weight (Newton)."""
        fr, carried = frame(), load()
        where, kg, z = carried.spread
        centre = [float((kg * v).sum() / kg.sum()) for v in (np.clip(where, fr.x[0], fr.x[-1]), 0 * z, z)]
        (loads,) = kerb.struck(fr, carried, [Pull(tuple(centre), (5000.0, 0.0, 0.0))])
        answer = -0.5 * 5000.0 * kg / kg.sum()
        spread = levers(fr, where).spread(answer)
        placed = levers(fr, np.array([centre[0]])).spread(2500.0)
        np.testing.assert_allclose(loads[::2, 0], spread + placed, atol=1.0)

    def test_links_put_on_the_frame_what_the_tyres_put_on_them(self):
        """Sum and moment of links and springs are those of the strike (statics of axle and wheels)."""
        inputs = f.demo("step")
        own = next(s for s in inputs.design.suspensions if s.axle == "rear")
        s = study(inputs.survey, own, inputs.design.seats, 75.0, 1.0)
        pulls = beyond_standing(s, "kerb")
        total = np.sum([p.force for p in pulls], axis=0)
        wheel = s.loads.standing_n / 2
        np.testing.assert_allclose(total, [2 * wheel, 0, 2 * wheel], atol=1e-6 * wheel)
        moment = np.sum([np.cross(p.at, p.force) for p in pulls], axis=0)
        hub = np.array(s.setting.hub) + np.array((0, s.setting.half_track_mm, 0))
        np.testing.assert_allclose(moment, np.cross(hub, total), atol=1e-3 * abs(moment).max())

    def test_both_sides_are_struck_alike(self):
        checks = {c.id: c for c in evaluate(f.demo("step")).checks}
        for case in ("kerb", "kerb-front"):
            left, right = (checks[f"accident-use:rail-{case}:{side}"].value for side in ("left", "right"))
            self.assertAlmostEqual(left / right, 1.0, delta=1e-5)

    def test_an_axle_on_one_seat_without_links_is_not_computed(self):
        inputs = f.demo("arc")
        d = inputs.design
        loads = d.loads.model_copy(update={"links": ()})
        bare = inputs.model_copy(update={"design": d.model_copy(update={"loads": loads})})
        check = next(c for c in evaluate(bare).checks if c.id.startswith("accident-use:rail-kerb:"))
        self.assertEqual((check.verdict, check.missing), ("not computed", ("/design/loads/links",)))


class OnOneSeat(SimpleTestCase):
    """A stock axle on one coil a side, as most that get coilovers are: no couple between seats can take its push (statics)."""

    def stock_coil(self, at=(2600.0,), **survey):
        inputs = f.demo("arc")
        own = inputs.survey.seats
        rear = tuple(
            own[2].model_copy(update={"id": f"coil-{i}", "x_mm": x, "share": 1 / len(at)}) for i, x in enumerate(at)
        )
        return f.with_survey(inputs, seats=(*(s for s in own if s.axle == "front"), *rear), **survey)

    def frames(self, inputs, drop_mm=75.0):
        plan, planned = plan_of(inputs), {}
        state = planned_state(inputs.design.operations)
        for side in ("left", "right"):
            planned[side] = compare_rail(inputs.survey, inputs.design.operations, inputs.design.seats, side, state)
        ties = planned_crossmembers(inputs.survey, inputs.design.operations, inputs.design.crossmembers)
        return compare_frames(inputs.survey, Planned(inputs.design.seats, ties, (), plan, drop_mm), planned)

    def test_the_plan_is_judged_by_itself_where_stock_cannot_be_known(self):
        for at in ((2600.0,), (2600.0, 2640.0)):
            inputs = self.stock_coil(at, suspensions=())
            checks = {c.id: c for c in evaluate(inputs).checks}
            for case in ("case-limit:rail-brake:left", "case-limit:rail-launch:right", "accident-use:rail-kerb:left"):
                self.assertIsNotNone(checks[case].value, case)
                self.assertIsNone(checks[case].stock, case)

    def test_a_surveyed_suspension_says_how_stock_is_pushed(self):
        rear = f.demo("step").design.suspensions[0]
        self.assertEqual(rear.axle, "rear")
        frames = self.frames(self.stock_coil(suspensions=(rear,)))
        self.assertLessEqual({"brake", "launch", "kerb", "bump-brake"}, set(frames.stock.cases))
        bare = set(self.frames(self.stock_coil(suspensions=())).stock.cases)
        self.assertTrue(bare.isdisjoint({"brake", "launch", "kerb", "bump-brake"}), bare)

    def test_an_axle_that_the_design_leaves_alone_pushes_as_it_was_surveyed(self):
        rear = f.demo("step").design.suspensions[0]
        inputs = self.stock_coil(suspensions=(rear,))
        design = inputs.design.model_copy(update={"suspensions": (), "seats": (), "loads": LoadPlan()})
        untouched = inputs.model_copy(update={"design": design})
        self.assertEqual(set(plan_of(untouched).axles), {"rear"})
        self.assertFalse([c.id for c in evaluate(untouched).checks if "/design/loads/links" in c.missing])
        leaf = f.with_survey(untouched, seats=f.demo("arc").survey.seats)
        rear = plan_of(leaf).axles["rear"]
        self.assertEqual((rear.push, rear.struck), (None, ()), "hangers a metre apart take the push themselves")

    def test_links_typed_for_an_axle_that_stays_are_stocks_links_too(self):
        """Else whoever says how an untouched axle pushes has a stock that cannot be known to be judged beside."""
        inputs = self.stock_coil(suspensions=())
        design = inputs.design.model_copy(
            update={
                "operations": (),
                "suspensions": (),
                "seats": (),
                "crossmembers": (),
                "loads": LoadPlan(links=LINKS),
            }
        )
        untouched = inputs.model_copy(update={"design": design})
        frames = self.frames(untouched, drop_mm=0.0)
        self.assertLessEqual({"brake", "launch", "kerb"}, set(frames.stock.cases))
        for case in ("brake", "launch", "kerb"):
            for side in ("left", "right"):
                stock, planned = (own.cases[case][side].forces.columns for own in (frames.stock, frames.planned))
                np.testing.assert_allclose(planned, stock, rtol=1e-9, atol=1e-3)
        moved = inputs.model_copy(update={"design": inputs.design.model_copy(update={"suspensions": ()})})
        self.assertEqual(
            plan_of(moved).stock_links, (), "the arc's coilovers stand elsewhere: its links are not stock's"
        )

    def test_wheels_on_wishbones_with_one_coil_each_are_braked(self):
        inputs = f.demo("step")
        seats = tuple(s for s in inputs.design.seats if s.id != "subframe-rear")
        tower = tuple(
            s.model_copy(update={"x_mm": 0.0, "share": 1.0}) if s.id == "subframe-front" else s for s in seats
        )
        design = inputs.design.model_copy(update={"seats": tower})
        self.assertTrue(next(s for s in design.suspensions if s.axle == "front").layout.independent)
        checks = {c.id: c for c in evaluate(inputs.model_copy(update={"design": design})).checks}
        self.assertIsNotNone(checks["case-limit:rail-brake:left"].value)
        alone = design.model_copy(update={"suspensions": design.suspensions[:1]})
        checks = {c.id: c for c in evaluate(inputs.model_copy(update={"design": alone})).checks}
        row = checks["case-limit:rail-brake:both"]
        self.assertEqual(row.missing, ("/design/loads/links",))
        self.assertIn("front axle", row.remedy)
        self.assertNotIn("rear", row.remedy)


class Pushes(SimpleTestCase):
    """What an axle's links and springs put on the frame for a rearward force (statics)."""

    def push(self, axle):
        inputs = f.demo("step")
        own = next(s for s in inputs.design.suspensions if s.axle == axle)
        s = study(inputs.survey, own, inputs.design.seats, 75.0, 1.0)
        return push_along(s), s

    def test_force_and_moment_are_those_on_the_wheels(self):
        for axle in ("front", "rear"):
            push, s = self.push(axle)
            for z in (s.setting.hub[2], s.setting.hub[2] - s.setting.radius_mm, 300.0):
                pulls = push.pulls(5000.0, z)
                np.testing.assert_allclose(np.sum([p.force for p in pulls], axis=0), (5000.0, 0, 0), atol=1e-5)
                moment = np.sum([np.cross(p.at, p.force) for p in pulls], axis=0)
                np.testing.assert_allclose(moment, (0.0, 5000.0 * z, 0.0), atol=1e-3 * 5000 * 400)

    def test_every_layout_says_it_without_its_springs(self):
        inputs = f.demo("step")
        for axle in ("front", "rear"):
            for kind in LAYOUTS:
                own = fresh_suspension(inputs, axle, kind, before=True).model_copy(update={"springs": None})
                push = push_along(study(inputs.survey, own, inputs.survey.seats, 0.0, 1.0))
                with self.subTest(f"{axle} {kind}"):
                    pulls = push.pulls(5000.0, -500.0)
                    np.testing.assert_allclose(np.sum([p.force for p in pulls], axis=0), (5000.0, 0, 0), atol=50.0)
                    moment = np.sum([np.cross(p.at, p.force) for p in pulls], axis=0)
                    np.testing.assert_allclose(moment, (0.0, -500.0 * 5000.0, 0.0), atol=0.02 * 500 * 5000)

    def test_a_strike_that_a_suspension_takes_is_that_of_the_wheel(self):
        """Three times the wheel's load up, less the one that stands on it, and twice rearward at the hub."""
        fr, carried = frame(), load((), rear_push("ladder"))
        pulls = kerb.by_seats(fr, carried, WHEEL)
        wheel = (carried.axle_load("rear") + WHEEL.unsprung_kg * G) / 2
        np.testing.assert_allclose(np.sum([p.force for p in pulls], axis=0)[[0, 2]], (2 * wheel, 2 * wheel), rtol=2e-2)

    def test_four_links_push_as_their_lines_say(self):
        """Two ways to one answer, springs over the axle: virtual work on the whole linkage, the side view's two lines by lever."""
        inputs = f.demo("step")
        rear = inputs.design.suspensions[0]
        springs = rear.springs.model_copy(
            update={
                "lower": rear.springs.lower.model_copy(update={"x_mm": 0.0}),
                "upper": rear.springs.upper.model_copy(update={"x_mm": inputs.survey.wheelbase_mm}),
            }
        )
        over = rear.model_copy(update={"springs": springs})
        lowered = towards_rail(inputs.design.targets, "rear")
        push = push_along(study(inputs.survey, over, inputs.design.seats, lowered, 1.0))
        own = inputs.model_copy(update={"design": inputs.design.model_copy(update={"loads": LoadPlan()})})
        links = next(own for own in plan_of(own).links if own.axle == "rear")
        layout = rear.layout
        carried = load((links,))
        for z in (-152.0, -500.0):
            upper, lower = case_loads.pushes(carried, links, 5000.0, z)
            pulls = push.pulls(5000.0, z)
            for point, (_, _, along, lift) in ((layout.upper.frame, upper), (layout.lower.frame, lower)):
                ends = [
                    p.force
                    for p in pulls
                    if np.allclose((p.at[0], abs(p.at[1]), p.at[2]), (point.x_mm, abs(point.y_mm), point.z_mm))
                ]
                self.assertEqual(len(ends), 2)
                found = np.sum(ends, axis=0)
                np.testing.assert_allclose((found[0], found[2]), (along, lift), atol=0.002 * 5000)


class Asked(SimpleTestCase):
    """A case that lacks an input says which; one without its place is not asked for."""

    def with_plan(self, **plan):
        inputs = f.demo()
        return inputs.model_copy(update={"design": inputs.design.model_copy(update={"loads": LoadPlan(**plan)})})

    def ids(self, inputs):
        return {
            c.id: c for c in evaluate(inputs).checks if c.limit_id in {"case-limit", "accident-use", "place-wanted"}
        }

    def test_jack_and_stops_only_where_their_place_is_given(self):
        links = f.demo().design.loads.links
        bare = self.ids(self.with_plan(links=links))
        for wanted in ("jack:rear", "stop:rear"):
            self.assertEqual(bare[f"place-wanted:{wanted}"].verdict, "not computed")
        # nothing is done at the front of this option: nobody asks where a jack or a stop acts there
        self.assertFalse([id_ for id_ in bare if id_.endswith(":front") and id_.startswith("place-wanted")])
        full = self.ids(self.with_plan(links=links, jacks=(JackPoint(x_mm=1800),), stops=(StopPads(x_mm=2610),)))
        self.assertIsNotNone(full["case-limit:rail-jack:left"].value)
        self.assertIsNotNone(full["case-limit:rail-stop:right"].value)
        self.assertNotIn("place-wanted:jack:rear", full)

    def test_an_axle_on_one_seat_needs_its_links(self):
        check = self.ids(self.with_plan())["case-limit:rail-launch:both"]
        self.assertEqual((check.verdict, check.missing), ("not computed", ("/design/loads/links",)))

    def test_heights_of_masses_are_pointed_at(self):
        masses = tuple(m.model_copy(update={"z_mm": None}) if m.id == "tank" else m for m in f.demo().survey.masses)
        check = self.ids(f.with_survey(f.demo(), masses=masses))["case-limit:rail-corner:both"]
        self.assertEqual(check.missing, ("/survey/masses/3/z_mm",))

    def test_an_own_factor_is_used_and_its_reason_shown(self):
        def plan(factor):
            return {"cases": {"twist": {"factor": factor, "reason": "rock crawling"}}}

        normal, doubled = (evaluate(self.with_plan(**plan(factor))) for factor in (0.04, 0.08))
        couple = [next(x for x in r.figures if x.id == "twist-couple") for r in (normal, doubled)]
        self.assertAlmostEqual(couple[1].value, 2 * couple[0].value)
        checks = [f.check_of(r, "case-limit:rail-twist:left") for r in (normal, doubled)]
        self.assertIn("rock crawling", checks[0].why.words)
        self.assertLess(checks[1].value, checks[0].value)

    def test_bending_shape_goes_with_the_case(self):
        for case in ("static", "brake", "twist"):
            rows = evaluate(f.demo(), Want(case=case)).deflection
            self.assertEqual([r.side for r in rows], ["left", "right"])
            self.assertEqual(len(rows[0].x_mm), len(rows[0].up_mm))
            self.assertAlmostEqual(rows[0].up_mm[0], 0.0, places=6)
        down = evaluate(f.demo(), Want(case="static")).deflection[0]
        middle = down.up_mm[int(np.argmin(np.abs(np.array(down.x_mm) - 1300)))]
        self.assertLess(middle, 0.0, "a standing frame sags between its axles")

    def test_removing_what_ties_the_rails_names_it(self):
        survey = f.demo().survey
        inputs = f.with_survey(f.demo(), crossmembers=survey.crossmembers[:1])
        inputs = inputs.model_copy(update={"design": inputs.design.model_copy(update={"crossmembers": ()})})
        gone = made("crossmember", act="remove", target_id="nose")
        check = f.check_of(evaluate(f.with_operations(inputs, gone)), "case-limit:rail-twist:both")
        self.assertEqual(check.verdict, "not computed")
        self.assertIn("nothing ties the left rail to the right one", check.remedy)

    def test_weight_is_in_newtons(self):
        kg = sum(m.mass_kg for m in f.demo().survey.masses)
        self.assertAlmostEqual(load().weight_n, kg * G)
