"""Finders and sweeps at their edges: what cannot be found says why, and what is missing is named."""

from unittest import TestCase

import numpy as np

from nodulant.axles.layouts.independent import TrailingArm
from nodulant.axles.points import HardPoint, Link
from nodulant.axles.steering import CentreLink, Rack, SteeringShaft
from nodulant.base.errors import InputError, NodulantError, NotSolvable
from nodulant.clearance.axle_bodies import axle_movers
from nodulant.clearance.sweep import pairs_of
from nodulant.evaluate import Want, evaluate
from nodulant.evaluate.clearances.sweep import whole_sweep
from nodulant.parts.tyre import parse_tyre
from nodulant.search.bump_steer import AskedSteer, SteerWish, find_bump_steer
from nodulant.search.fit_coilover import CoilWish, fit_coilover
from nodulant.search.tuck import find_tuck, tucked
from nodulant.steering.study import (
    ackermann_percent,
    circle_mm,
    lock,
    pins_apart_mm,
    ratio,
    sense,
    slope_per_inch,
    steer_study,
)
from nodulant.steering.wheels import gear_moves, steered_wheels
from nodulant.suspension.study import study
from tests.core.test_steering import front, job, with_front
from tests.core.test_suspensions import suspended
from tests.core.test_tuck import asked as asked_tuck
from tests.core.test_tuck import wall

ONLY = Want(strips=False, parts=False, readings=False, frame=False, interim=False)


def with_survey(inputs, **change):
    return inputs.model_copy(update={"survey": inputs.survey.model_copy(update=change)})


def studied(inputs, own=None, **survey):
    shown = with_survey(inputs, **survey) if survey else inputs
    return study(shown.survey, own or front(inputs), inputs.design.seats, 0.0, 1.0)


def gear_of(own, **change):
    gear = own.steering.gear.model_copy(update=change)
    return own.model_copy(update={"steering": own.steering.model_copy(update={"gear": gear})})


def trailing():
    """A single wheel on a trailing arm, which nothing steers."""
    return TrailingArm(
        inner=HardPoint(x_mm=-420.0, y_mm=300.0, z_mm=-60.0), outer=HardPoint(x_mm=-420.0, y_mm=560.0, z_mm=-60.0)
    )


class Steers(TestCase):
    """Figures of a steering that cannot be told are nothing, not zero."""

    def test_without_a_wheelbase_neither_circle_nor_ackermann(self):
        q = steer_study(studied(job("wherry", "step"), wheelbase_mm=None))
        for way in (1, -1):
            self.assertIsNone(circle_mm(q, way, 215.0))
            self.assertIsNone(ackermann_percent(q, 20.0, way))
        self.assertIsNotNone(lock(q, 1))

    def test_an_angle_beyond_the_lock_has_no_ackermann(self):
        q = steer_study(studied(job("wherry", "step")))
        most = max(lock(q, way).inner_deg for way in (1, -1))
        self.assertIsNotNone(ackermann_percent(q, most - 5.0, 1))
        self.assertIsNone(ackermann_percent(q, most + 5.0, 1))

    def test_a_lock_of_next_to_nothing_has_no_circle(self):
        inputs = job("wherry", "step")
        own = gear_of(front(inputs), stroke_mm=1.0)
        q = steer_study(studied(inputs, own))
        self.assertLess(lock(q, 1).outer_deg, 1.0)
        self.assertIsNone(circle_mm(q, 1, 215.0))
        self.assertEqual(sense(q), 1.0)

    def test_a_steering_in_trouble_tells_no_figure(self):
        inputs = job("wherry", "step")
        own = gear_of(front(inputs), stroke_mm=60.0)
        q = steer_study(studied(inputs, own.model_copy(update={"layout": trailing(), "springs": None, "damper": None})))
        self.assertIn("toe link", q.trouble.message)
        self.assertEqual(
            (sense(q), ratio(q), lock(q, 1), pins_apart_mm(q), circle_mm(q, 1, 215.0), ackermann_percent(q, 20.0, 1)),
            (None,) * 6,
        )
        self.assertIsNone(slope_per_inch(q, None))

    def test_what_is_not_steered_is_refused_by_name(self):
        inputs = job("wherry", "step")
        own = front(inputs)
        s = studied(inputs)
        at = (s.setting, s.motion, s.motion.travel, np.linspace(-1, 1, 3))
        with self.assertRaises(InputError) as none:
            steered_wheels(own.model_copy(update={"steering": None}), *at)
        self.assertEqual(none.exception.acceptable, "a steering gear")
        with self.assertRaises(InputError) as none:
            gear_moves(own.model_copy(update={"steering": None}), np.zeros(1))
        self.assertEqual(none.exception.found, "nothing")
        with self.assertRaises(InputError) as arm:
            steered_wheels(own.model_copy(update={"layout": trailing()}), *at)
        self.assertEqual(arm.exception.found, "trailing")
        beam = front(job("brackmoor", "welded"))
        rack = beam.steering.model_copy(update={"gear": front(inputs).steering.gear})
        with self.assertRaises(InputError) as wrong:
            gear_moves(beam.model_copy(update={"steering": rack}), np.zeros(1))
        self.assertEqual((wrong.exception.found, wrong.exception.acceptable), ("rack", "drag-link"))
        self.assertIsInstance(front(inputs).steering.gear, Rack)


class Sweeps(TestCase):
    """What takes part in a sweep where an axle is not the demo's."""

    def names(self, s, tyre="215/65R16"):
        return {m.name for m in axle_movers(s, parse_tyre(tyre), None)}

    def test_single_wheels_that_nothing_steers(self):
        inputs = job("wherry", "step")
        own = front(inputs).model_copy(
            update={"layout": trailing(), "springs": None, "damper": None, "steering": None, "hoses": ()}
        )
        s = studied(inputs, own)
        self.assertIsNotNone(s.motion, s.trouble)
        found = self.names(s)
        self.assertLessEqual({"tyre, right", "tyre, left"}, found)
        self.assertFalse(any("toe" in name or "boot" in name for name in found))
        movers = axle_movers(s, parse_tyre("215/65R16"), None)
        self.assertEqual({len(m.positions.input) for m in movers}, {1})

    def test_wishbones_without_their_steering_hold_the_toe_link_still(self):
        inputs = job("wherry", "step")
        found = self.names(studied(inputs, front(inputs).model_copy(update={"steering": None})))
        self.assertIn("toe link, right", found)
        self.assertNotIn("boot, right", found)

    def test_the_steering_shaft_stands_in_the_way_of_the_rods(self):
        inputs = job("wherry", "step")
        own = front(inputs)
        points = [HardPoint(x_mm=x, y_mm=y, z_mm=z) for x, y, z in ((300, 350, 900), (150, 330, 420), (40, 300, 120))]
        shaft = SteeringShaft(column=points[0], joints=tuple(points[1:]), gear=HardPoint(x_mm=20, y_mm=290, z_mm=20))
        held = own.model_copy(update={"steering": own.steering.model_copy(update={"shaft": shaft})})
        s = studied(inputs, held)
        movers = axle_movers(s, parse_tyre("215/65R16"), None)
        shafts = [m for m in movers if m.kind == "shaft"]
        self.assertEqual([m.name for m in shafts], ["steering column", "steering shaft 1", "box's input shaft"])
        for m in shafts:
            self.assertEqual(float(np.ptp(m.body.a, axis=(0, 1, 2)).max()), 0.0)
        wishes = {p.wish for p in pairs_of(movers, ()) if "shaft" in {p.mover.kind, p.other.kind}}
        self.assertIn("column-clear", wishes)
        self.assertLessEqual(wishes, {"column-clear", "tyre-sweep"})
        swept = whole_sweep(with_front(inputs, held))
        self.assertTrue(any(c.limit_id == "column-clear" for c in swept.checks))

    def test_an_axle_that_does_not_move_has_no_bodies(self):
        inputs = job("wherry", "step")
        own = front(inputs)
        lying = own.layout.model_copy(
            update=dict.fromkeys(("upper_ball",), own.layout.lower_ball)
            | {"upper_front": own.layout.lower_front, "upper_rear": own.layout.lower_rear}
        )
        s = studied(inputs, own.model_copy(update={"layout": lying, "springs": None, "damper": None}))
        self.assertIsNone(s.motion)
        self.assertEqual(axle_movers(s, parse_tyre("215/65R16"), None), ())

    def test_a_spring_that_stands_on_an_arm_is_not_held_against_it(self):
        inputs = job("wherry", "step")
        own = front(inputs)
        movers = {m.name: m for m in axle_movers(studied(inputs), parse_tyre("215/65R16"), None)}
        on = own.springs.on
        spring = movers["spring, right"]
        pairs = [p for p in pairs_of(tuple(movers.values()), ()) if spring in (p.mover, p.other)]
        others = {(p.other if p.mover is spring else p.mover).name for p in pairs}
        self.assertEqual(on, "upper-arm")
        self.assertEqual(spring.stands_on, "upper wishbone")
        self.assertFalse(any(name.startswith("upper wishbone") for name in others), others)
        self.assertIn("tyre, right", others)


class Coil(TestCase):
    def wish(self, inputs, **wish):
        d = inputs.design
        return fit_coilover(inputs.survey, d.suspensions[0], d.seats, 60.0, CoilWish(**wish))

    def test_no_coilover_no_weight_no_linkage(self):
        with self.assertRaises(NotSolvable) as bare:
            self.wish(suspended(springs=None))
        self.assertEqual(bare.exception.field, "springs")
        with self.assertRaises(NotSolvable) as light:
            self.wish(with_survey(suspended(), masses=()))
        self.assertIn("weight", light.exception.message)
        inputs = suspended()
        own = inputs.design.suspensions[0]
        flat = own.model_copy(update={"layout": own.layout.model_copy(update={"upper": own.layout.lower})})
        still = inputs.model_copy(update={"design": inputs.design.model_copy(update={"suspensions": (flat,)})})
        with self.assertRaises(NotSolvable) as stuck:
            self.wish(still)
        self.assertIn("does not move", stuck.exception.message)


class Bump(TestCase):
    def ask(self, inputs, own, **wish):
        return find_bump_steer(AskedSteer(inputs.survey, own, inputs.design.seats, 0.0, SteerWish(**wish)))

    def test_it_needs_a_steering_that_moves(self):
        inputs = job("wherry", "step")
        own = front(inputs)
        for held in (
            own.model_copy(update={"steering": None}),
            own.model_copy(update={"layout": trailing(), "springs": None, "damper": None}),
        ):
            with self.assertRaises(NodulantError) as none:
                self.ask(inputs, held)
            self.assertTrue(none.exception.acceptable)

    def test_choices_come_best_first_and_stay_within_reach(self):
        inputs = job("wherry", "step")
        for reach in (5.0, 25.0):
            found = self.ask(inputs, front(inputs), reach_mm=reach)
            spans = [c.span_deg for c in found.choices]
            self.assertEqual(spans, sorted(spans))
            for choice in found.choices:
                self.assertLessEqual(max(abs(choice.up_mm), abs(choice.out_mm)), reach + 1e-9)
                self.assertEqual(choice.at_the_end, max(abs(choice.up_mm), abs(choice.out_mm)) > reach - 0.26)


class Tuck(TestCase):
    def test_nothing_to_clear_is_told(self):
        with self.assertRaises(NotSolvable) as none:
            find_tuck(asked_tuck(()))
        self.assertEqual(none.exception.field, "/survey/front/arch")

    def test_no_tyre_no_tuck(self):
        ask = asked_tuck((wall(1045.0),), front(job("wherry", "step")).model_copy(update={"tyre": None}))
        bald = ask.survey.model_copy(update={"front": ask.survey.front.model_copy(update={"tyre": None})})
        with self.assertRaises(NodulantError) as none:
            find_tuck(type(ask)(bald, ask.suspension, ask.seats, 0.0, ask.things, ask.wish))
        self.assertTrue(none.exception.acceptable)

    def test_no_track_no_tuck(self):
        inputs = job("wherry", "step")
        own = front(inputs).model_copy(update={"track_mm": None, "wheel": None})
        survey = inputs.survey.model_copy(
            update={"front": inputs.survey.front.model_copy(update={"track_mm": None, "wheel": None})}
        )
        with self.assertRaises(NotSolvable) as none:
            tucked(own, survey, "offset", 10.0)
        self.assertEqual(none.exception.field, "/survey/front/track_mm")

    def test_only_wishbones_and_struts_are_narrowed(self):
        inputs = job("wherry", "step")
        own = front(inputs).model_copy(update={"layout": trailing()})
        for way in ("arms", "narrow"):
            with self.assertRaises(NotSolvable) as none:
                tucked(own, inputs.survey, way, 10.0)
            self.assertEqual(none.exception.found, "trailing")
        self.assertEqual(tucked(own, inputs.survey, "offset", 0.0).layout, own.layout)

    def test_box_and_idler_go_in_with_the_rails(self):
        inputs = job("wherry", "step")
        own = front(inputs)
        box = front(job("brackmoor", "welded")).steering.gear.box
        inner = own.layout.toe.frame
        gear = CentreLink(
            box=box.model_copy(
                update={
                    "shaft": HardPoint(x_mm=150, y_mm=-320, z_mm=60),
                    "arm_end": HardPoint(x_mm=inner.x_mm, y_mm=-320, z_mm=inner.z_mm),
                }
            ),
            idler=HardPoint(x_mm=150, y_mm=320, z_mm=60),
            idler_end=HardPoint(x_mm=inner.x_mm, y_mm=320, z_mm=inner.z_mm),
        )
        linked = own.model_copy(update={"steering": own.steering.model_copy(update={"gear": gear})})
        moved = tucked(linked, inputs.survey, "narrow", 25.0).steering.gear
        self.assertEqual((moved.box.shaft.y_mm, moved.box.arm_end.y_mm), (-295.0, -295.0))
        self.assertEqual((moved.idler.y_mm, moved.idler_end.y_mm), (295.0, 295.0))
        kept = tucked(linked, inputs.survey, "arms", 25.0).steering.gear
        self.assertEqual(kept, gear)

    def test_springs_go_in_with_what_they_stand_on(self):
        inputs = job("wherry", "step")
        own = front(inputs)
        before = own.springs
        narrow = tucked(own, inputs.survey, "narrow", 20.0).springs
        self.assertAlmostEqual(before.lower.y_mm - narrow.lower.y_mm, 20.0)
        self.assertAlmostEqual(before.upper.y_mm - narrow.upper.y_mm, 20.0)
        arms = tucked(own, inputs.survey, "arms", 20.0).springs
        self.assertEqual(arms.upper, before.upper)
        self.assertEqual(arms.lower == before.lower, before.on != "upright")


class Evaluated(TestCase):
    """The same through the whole evaluation: rows that are not computed name what is missing."""

    def rows(self, inputs, rule):
        return [c for c in evaluate(inputs, ONLY).checks if c.limit_id == rule]

    def test_a_gear_that_does_not_fit_its_axle(self):
        inputs = job("wherry", "step")
        own = front(inputs)
        drag = front(job("brackmoor", "welded")).steering
        found = self.rows(with_front(inputs, own.model_copy(update={"steering": drag})), "steer-sense")
        self.assertEqual([c.verdict for c in found], ["not computed"])
        self.assertIn("rack or a centre link", found[0].remedy)

    def test_a_link_of_no_length_is_named_at_its_field(self):
        inputs = suspended()
        own = inputs.design.suspensions[0]
        point = HardPoint(x_mm=0.0, y_mm=0.0, z_mm=0.0)
        hub = study(inputs.survey, own, inputs.design.seats, 60.0, 1.0).setting.hub
        same = Link(frame=HardPoint(x_mm=hub[0], y_mm=hub[1], z_mm=hub[2]), axle=point)
        broken = own.model_copy(update={"layout": own.layout.model_copy(update={"upper": same})})
        whole = inputs.model_copy(update={"design": inputs.design.model_copy(update={"suspensions": (broken,)})})
        result = evaluate(whole, ONLY)
        (axle,) = result.travel
        self.assertTrue(axle.trouble)
        self.assertTrue(axle.trouble_at)
