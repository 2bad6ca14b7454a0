"""Suspensions in a whole evaluation: any points give figures or a reason, never a crash or a NaN."""

import numpy as np
from django.test import SimpleTestCase
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from nodulant.axles.suspension import Suspension
from nodulant.base.errors import NodulantError
from nodulant.evaluate import InvalidInputs, Want, evaluate
from nodulant.evaluate.suspensions.travel import moved
from nodulant.suspension.motion import Setting, moved_through
from tests import fixtures as f
from tests.core.test_operations import worth
from tests.fixtures import finite

FUZZ = settings(deadline=None, derandomize=True, max_examples=40, suppress_health_check=list(HealthCheck))
ONLY = Want(strips=False, parts=False, steps=False, readings=False, frame=False, interim=False)


def p(x, y, z):
    return {"x_mm": float(x), "y_mm": float(y), "z_mm": float(z)}


def link(frame, axle, **more):
    return {"frame": p(*frame), "axle": p(*axle), **more}


BAR = {"kind": "track-bar", "bar": link((2750, 400, -40), (140, -400, 60))}
WATTS = {"kind": "watts", "pin": p(0, 0, 0), "upper": p(2610, -430, -10), "lower": p(2610, 430, -175)}
LOWER = link((1950, 330, -70), (0, 400, -75))
LAYOUTS = {
    "triangulated": {"upper": link((2150, 350, 60), (-10, 90, 130)), "lower": LOWER},
    "parallel": {
        "upper": link((2130, 380, 70), (0, 380, 130)),
        "lower": link((1990, 380, -72), (0, 380, -75)),
        "lateral": BAR,
    },
    "three-link": {"upper": link((2130, 60, 60), (-10, 60, 130)), "lower": LOWER, "lateral": WATTS},
    "ladder": {"pivot": p(1810, 330, -30), "lateral": BAR},
    "torque-arm": {"lower": LOWER, "front": p(1610, 0, 0), "lateral": BAR},
    "leaf": {"eye": p(2010, 450, -70), "seat": p(0, 450, -60)},
    "trailing": {"inner": p(2130, 330, -60), "outer": p(2100, 660, -60)},
    "double-wishbone": {
        "upper_front": p(2500, 420, 20),
        "upper_rear": p(2720, 420, 10),
        "upper_ball": p(10, 680, 130),
        "lower_front": p(2460, 360, -180),
        "lower_rear": p(2760, 360, -180),
        "lower_ball": p(0, 700, -95),
        "toe": link((2740, 372, -150), (120, 690, -62)),
    },
    "multi-link": {
        "rods": [
            link((2550, 360, 15), (-40, 690, 120)),
            link((2710, 360, 20), (60, 690, 120)),
            link((2500, 360, -190), (-60, 690, -95)),
            link((2720, 360, -185), (70, 690, -95)),
            link((2090, 630, -100), (-60, 690, 0)),
        ]
    },
}
COIL = {
    "kind": "coilover",
    "lower": p(-30, 300, -40),
    "upper": p(2590, 280, 340),
    "rate_n_per_mm": 32.0,
    "free_mm": 360.0,
    "block_mm": 110.0,
    "open_mm": 562.0,
    "closed_mm": 372.0,
}
AIR = {
    "kind": "air",
    "lower": p(0, 330, 20),
    "upper": p(2610, 330, 125),
    "ride_mm": 200.0,
    "least_mm": 85.0,
    "most_mm": 310.0,
    "area_mm2": 12_000.0,
    "volume_mm3": 2.4e6,
}


def suspended(kind="triangulated", springs=COIL, inputs=None, layout=None, **more):
    """Inputs with one rear suspension."""
    inputs = inputs or f.demo("step")
    fields = {"axle": "rear", "layout": {"kind": kind, **(layout or LAYOUTS[kind])}, "springs": springs, **more}
    own = Suspension.model_validate({"stop": {"gap_mm": 60, "gives_mm": 25}, "unsprung_kg": 145.0, **fields})
    return inputs.model_copy(update={"design": inputs.design.model_copy(update={"suspensions": (own,)})})


def travel_checks(result):
    return {c.id: c for c in result.checks if c.stage == "travel"}


class EveryLayout(SimpleTestCase):
    """Each is one class and works without the others knowing."""

    def test_it_moves_and_says_what_it_does(self):
        for kind in LAYOUTS:
            with self.subTest(kind):
                result = evaluate(suspended(kind), ONLY)
                (axle,) = result.travel
                self.assertEqual(axle.trouble, "")
                self.assertTrue(all(axle.there), axle.ends)
                self.assertTrue(finite(result.model_dump()))
                ids = [c.id for c in axle.curves]
                self.assertIn("roll-centre", ids)
                self.assertEqual("roll-steer" in ids, not axle.independent)
                self.assertEqual(len(axle.poses), len(axle.travel_mm) * len(axle.rolls_deg))
                for check in travel_checks(result).values():
                    if check.why and check.value is not None:
                        self.assertAlmostEqual(
                            worth(check.why.formula, check.why.values),
                            check.value,
                            delta=1e-6 * max(1.0, abs(check.value)),
                            msg=check.id,
                        )

    def test_forces_need_springs_and_masses(self):
        result = travel_checks(evaluate(suspended(springs=None), ONLY))
        check = result["link-buckling:rear-lower-link:right"]
        self.assertEqual((check.verdict, check.missing), ("not computed", ("/design/suspensions/0/springs",)))
        bare = f.with_survey(f.demo("step"), masses=())
        result = travel_checks(evaluate(suspended(inputs=bare), ONLY))
        self.assertEqual(result["link-buckling:rear-lower-link:right"].verdict, "not computed")
        self.assertEqual(result["frequency-least:rear-springs:both"].verdict, "not computed")
        self.assertEqual(result["anti-squat-least:rear:both"].verdict, "not computed")

    def test_without_hubs_nothing_is_computed(self):
        bare = f.with_rear(f.demo("step"), hub_z_left_mm=None, hub_z_right_mm=None)
        (axle,) = evaluate(suspended(inputs=bare), ONLY).travel
        self.assertEqual((axle.hub, axle.curves), (None, ()))
        self.assertIn("missing", axle.trouble)


class Verdicts(SimpleTestCase):
    """The rules say what builders say."""

    def test_parallel_bars_bind_and_three_do_not(self):
        bind = travel_checks(evaluate(suspended("parallel"), ONLY))["bind:rear:both"]
        self.assertEqual(bind.verdict, "fails")
        self.assertGreater(bind.why.values["at_5_deg"], bind.why.values["at_1_deg"])
        self.assertNotIn("bind:rear:both", travel_checks(evaluate(suspended("three-link"), ONLY)))

    def test_an_air_spring_below_its_least_height(self):
        low = {**AIR, "upper": p(2610, 330, 20)}
        result = travel_checks(evaluate(suspended(springs=low), ONLY))
        self.assertEqual(result["air-least:rear-air:both"].verdict, "fails")

    def test_a_leaf_s_anti_squat_is_told_and_not_judged(self):
        """Nobody chooses it: the eye is where the hanger is."""
        rows = [
            c for c in travel_checks(evaluate(suspended("leaf"), ONLY)).values() if c.limit_id.startswith("anti-squat")
        ]
        self.assertEqual({c.verdict for c in rows} - {"not computed"}, {"note"})

    def test_a_damper_that_closes_before_full_bump(self):
        result = travel_checks(evaluate(suspended(springs={**COIL, "closed_mm": 420.0}), ONLY))
        check = result["damper-closed:rear-coilover:both"]
        self.assertEqual((check.verdict, check.governs.pose_mm), ("fails", 90.0))

    def test_a_thin_link_buckles(self):
        thin = {**LAYOUTS["triangulated"], "lower": {**LOWER, "tube": {"od_mm": 14.0, "wall_mm": 1.5}}}
        result = travel_checks(evaluate(suspended(layout=thin), ONLY))
        self.assertEqual(result["link-buckling:rear-lower-link:right"].verdict, "fails")

    def test_joints_tilt_less_when_bolts_lie_square(self):
        across = {"joints": {"frame_bolt": "across", "axle_bolt": "across"}}
        upper = LAYOUTS["triangulated"]["upper"]
        layout = {**LAYOUTS["triangulated"], "upper": {**upper, **across}}
        square, askew = (
            travel_checks(evaluate(suspended(layout=own), ONLY))["joint-swing:rear-upper-link:right"]
            for own in (LAYOUTS["triangulated"], layout)
        )
        self.assertGreater(askew.value, 1.0)
        self.assertLess(square.value, 0.2)

    def test_two_suspensions_of_one_axle_are_refused(self):
        inputs = suspended()
        both = inputs.design.suspensions * 2
        with self.assertRaises(InvalidInputs) as caught:
            evaluate(inputs.model_copy(update={"design": inputs.design.model_copy(update={"suspensions": both})}))
        self.assertEqual(caught.exception.field, "/design/suspensions/1/axle")


class Locked(SimpleTestCase):
    """A linkage that cannot move says which part is in the way, and its curves end there."""

    def result(self, **changed):
        return evaluate(suspended("three-link", layout={**LAYOUTS["three-link"], **changed}), ONLY)

    def test_short_links_end_the_travel(self):
        result = self.result(lower=link((2560, 330, -160), (0, 400, -75)))
        (axle,) = result.travel
        self.assertFalse(all(axle.there))
        curve = axle.curves[0]
        self.assertEqual([v is not None for v in curve.values], axle.there)
        self.assertTrue(any("cannot reach" in end or "dead point" in end for end in axle.ends))
        failed = [c for c in result.checks if c.limit_id == "travel-reached" and c.verdict == "fails"]
        self.assertTrue(failed and failed[0].remedy)

    def test_coincident_points(self):
        (axle,) = self.result(lower=link((2610, 400, -168), (0, 400, -75.25))).travel
        self.assertIn("", axle.trouble)

    def test_an_upright_track_bar_locates_nothing(self):
        bar = {"kind": "track-bar", "bar": link((2750, -400, 600), (140, -400, 60))}
        (axle,) = self.result(lateral=bar).travel
        self.assertTrue("sideways" in axle.trouble or not all(axle.there), axle.trouble)

    def test_lower_arms_alone_let_the_housing_turn(self):
        both = link((1950, 60, -70), (0, 60, -75))
        (axle,) = self.result(upper=both).travel
        self.assertIn("housing", axle.trouble)


points = st.fixed_dictionaries({k: st.floats(-400, 400) for k in ("x_mm", "y_mm", "z_mm")})


class Fuzzed(SimpleTestCase):
    """Points moved anywhere."""

    @FUZZ
    @given(st.sampled_from(sorted(LAYOUTS)), st.lists(st.floats(-700, 700), min_size=60, max_size=60))
    def test_any_points(self, kind, noise):
        moved = iter(noise)

        def shaken(node):
            if isinstance(node, dict):
                if set(node) == {"x_mm", "y_mm", "z_mm"}:
                    return {k: v + next(moved) for k, v in node.items()}
                return {k: shaken(v) for k, v in node.items()}
            return [shaken(v) for v in node] if isinstance(node, list) else node

        try:
            inputs = suspended(kind, layout=shaken(LAYOUTS[kind]), springs=shaken(COIL))
        except (ValidationError, NodulantError):
            return
        result = evaluate(inputs, ONLY)
        self.assertTrue(finite(result.model_dump()))
        (axle,) = result.travel
        self.assertTrue(axle.trouble or any(axle.there))


class AsTheyStand(SimpleTestCase):
    def test_ride_height_is_among_the_poses_to_the_bit(self):
        (axle,) = evaluate(suspended(bump_mm=73.3, droop_mm=41.7), ONLY).travel
        self.assertIn(0.0, axle.travel_mm)
        self.assertEqual((axle.travel_mm[0], axle.travel_mm[-1]), (-41.7, 73.3))
        self.assertTrue(np.all(np.diff(axle.travel_mm) > 0))


class WhileDragging(SimpleTestCase):
    """A hand that drags a link is answered by the same figures, without the rest of the job."""

    def test_the_same_checks_and_curves_as_the_whole_evaluation(self):
        inputs = suspended("three-link", springs=AIR)
        whole, moving = evaluate(inputs, ONLY), moved(inputs, glance=False)
        self.assertEqual([c.id for c in moving.checks], [c.id for c in whole.checks if c.stage == "travel"])
        self.assertEqual(moving.travel, whole.travel)

    def test_a_glance_gives_the_same_figures_at_fewer_travels_and_judges_nothing(self):
        inputs = suspended("three-link", springs=AIR)
        (whole,), glance = evaluate(inputs, ONLY).travel, moved(inputs, glance=True)
        (quick,) = glance.travel
        self.assertEqual((glance.checks, quick.rolls_deg, quick.forces), ((), [0.0], ()))
        self.assertEqual(len(quick.poses), len(quick.travel_mm))
        self.assertLess(len(quick.travel_mm), len(whole.travel_mm) / 2)
        self.assertEqual([c.id for c in quick.curves], [c.id for c in whole.curves])
        for travel in (whole.travel_mm[0], 0.0, whole.travel_mm[-1]):
            for one, other in zip(
                quick.curves, whole.curves, strict=True
            ):  # the wheel rate is a difference over the travels
                there, here = (c.values[a.travel_mm.index(travel)] for c, a in ((other, whole), (one, quick)))
                if there is not None:
                    self.assertAlmostEqual(here, there, delta=2e-3 * max(1.0, abs(there)), msg=one.id)


class AsItWas(SimpleTestCase):
    """Stock is compared with, never judged."""

    def test_stock_springs_give_curves_and_no_checks(self):
        inputs = f.demo("step")
        result = evaluate(inputs, ONLY)
        (stock,) = result.stock_travel
        self.assertEqual((stock.layout, stock.trouble), ("leaf", ""))
        # at the surveyed height, not lowered
        self.assertAlmostEqual(stock.hub[2], -152.75)
        self.assertIn("roll-centre", [c.id for c in stock.curves])
        bare = f.with_survey(inputs, suspensions=())
        self.assertEqual([c.id for c in evaluate(bare, ONLY).checks], [c.id for c in result.checks])


class Grips(SimpleTestCase):
    """A point that is dragged must be the one that is written: every path leads to the point that is drawn."""

    def test_every_path_holds_the_point(self):
        for kind in LAYOUTS:
            inputs = suspended(kind)
            (axle,) = evaluate(inputs, ONLY).travel
            document = inputs.design.model_dump(mode="json")
            self.assertTrue(axle.grips)
            for grip in axle.grips:
                with self.subTest((kind, grip.path)):
                    node = document
                    for key in grip.path.split("."):
                        node = node[int(key) if key.isdigit() else key]
                    base = axle.hub if grip.at.body == 0 else (0.0, 0.0, 0.0)
                    at = (grip.at.x_mm, grip.at.y_mm, grip.at.z_mm)
                    for value, origin, key in zip(at, base, ("x_mm", "y_mm", "z_mm"), strict=True):
                        self.assertAlmostEqual(value - origin, node[key], places=6)

    def test_every_point_of_a_layout_can_be_dragged(self):
        """Counted from the document itself, so that a new layout cannot forget one."""

        def points(node):
            if isinstance(node, dict):
                if set(node) == {"x_mm", "y_mm", "z_mm"}:
                    return 1
                return sum(points(v) for v in node.values())
            return sum(points(v) for v in node) if isinstance(node, list) else 0

        for kind in LAYOUTS:
            inputs = suspended(kind)
            (axle,) = evaluate(inputs, ONLY).travel
            own = inputs.design.suspensions[0].model_dump(mode="json")
            grips = [g for g in axle.grips if g.path.startswith("suspensions.")]
            self.assertEqual(len(grips), points(own["layout"]) + points(own["springs"]), kind)


class Mirrored(SimpleTestCase):
    """Left is right's mirror: a symmetrical axle in opposite roll gives mirrored forces and poses."""

    def test_opposite_rolls_mirror(self):
        inputs = suspended("triangulated")
        own = inputs.design.suspensions[0].layout
        (axle,) = evaluate(inputs, ONLY).travel
        m = moved_through(own, Setting(tuple(axle.hub), axle.half_track_mm, axle.radius_mm), np.linspace(-60, 60, 7))
        origin = m.sweep.solved.pose.origin.reshape(7, -1, 3)
        np.testing.assert_allclose(origin[:, 0] * (1, -1, 1), origin[:, -1], atol=1e-7)

    def test_kerb_on_one_side_only(self):
        (axle,) = evaluate(suspended("triangulated"), ONLY).travel
        forces = {row.name: row.cases for row in axle.forces}
        kerb = next(name for name in forces["lower link, right"] if name.startswith("Kerb"))
        right, left = forces["lower link, right"][kerb], forces["lower link, left"][kerb]
        self.assertGreater(abs(right), 2 * abs(left))
        for case, value in forces["lower link, right"].items():
            if case != kerb:
                self.assertAlmostEqual(value, forces["lower link, left"][case], delta=1.0)
