"""As built: the axle where its links put it, levels and shape of the frame, and corrections that are put in and solved again."""

import math

import numpy as np
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from nodulant.asbuilt.axle import beam_as_built, joints_of, wheel_as_built
from nodulant.asbuilt.corrections import Aim, Lever, corrections
from nodulant.asbuilt.levels import levelled
from nodulant.asbuilt.log import LengthEntry, LevelEntry, ReadingEntry
from nodulant.base.errors import NotSolvable
from nodulant.evaluate import evaluate
from nodulant.evaluate.suspensions.travel import suspension_studies
from nodulant.job.document import AsBuilt
from nodulant.parts.limit import LimitChange
from nodulant.proof.built import TURN_MM
from nodulant.proof.found import built
from tests import fixtures as f

WHEN = {"at": "2026-11-20T10:00:00+00:00", "by": "ada"}
SOME = settings(deadline=None, derandomize=True, max_examples=25)


def studies():
    return {s.suspension.axle: s for s in suspension_studies(f.demo("step"))}


def read(*rows, option="step"):
    """The demo's job with readings so far off their plan."""
    return read_of(f.job().inputs(option), *rows)


def read_of(inputs, *rows):
    """Any job with readings so far off their plan."""
    plan = {r.id: r.spec for r in evaluate(inputs).readings}
    out = []
    for number, (id_, off) in enumerate(rows, start=1):
        operation, key, side = id_.split("/")
        told = {"operation": operation, "key": key, "side": side, "unit": plan[id_].unit}
        out.append(ReadingEntry(**WHEN, **told, number=number, value=plan[id_].planned + off, resolution=0.02))
    return inputs.model_copy(update={"as_built": AsBuilt(entries=tuple(out))})


class Beam(SimpleTestCase):
    def setUp(self):
        own = studies()["rear"]
        self.layout, self.setting = own.suspension.layout, own.setting

    def solved(self, **moved):
        rows = {tuple(k.split("|")): v for k, v in moved.items()}
        return beam_as_built(self.layout, self.setting, rows)

    def test_as_planned_it_stands_as_planned(self):
        sat = self.solved()
        self.assertLess(max(abs(v) for v in (sat.rear_mm, sat.right_mm, sat.thrust_deg, sat.pinion_deg)), 1e-9)

    def test_every_joint_back_by_5_takes_the_axle_back_by_5(self):
        rows = {(j.key, j.side, "along"): 5.0 for j in joints_of(self.layout, self.setting)}
        sat = beam_as_built(self.layout, self.setting, rows)
        self.assertAlmostEqual(sat.rear_mm, 5.0, places=6)
        self.assertLess(max(abs(sat.thrust_deg), abs(sat.pinion_deg), abs(sat.right_mm)), 1e-6)

    def test_the_left_mirrors_the_right(self):
        one, other = (self.solved(**{f"lower-link|{side}|length": 3.0}) for side in ("right", "left"))
        self.assertAlmostEqual(one.thrust_deg, -other.thrust_deg, places=9)
        self.assertAlmostEqual(one.pinion_deg, other.pinion_deg, places=9)
        self.assertGreater(one.thrust_deg, 0.1, "a longer right link sends the right hub back: it points right")

    def test_longer_upper_links_lift_the_pinion_by_hand(self):
        """Both uppers 3 mm longer, lowers fixed: about 3 cos(plan) over the height between the axle's joints."""
        sat = self.solved(**{"upper-link|right|length": 3.0, "upper-link|left|length": 3.0})
        upper, lower = self.layout.upper, self.layout.lower
        run = math.dist((upper.frame.x_mm, upper.frame.y_mm), (self.setting.hub[0] + upper.axle.x_mm, upper.axle.y_mm))
        share = (self.setting.hub[0] + upper.axle.x_mm - upper.frame.x_mm) / run
        by_hand = math.degrees(3.0 / share / (upper.axle.z_mm - lower.axle.z_mm))
        self.assertAlmostEqual(sat.pinion_deg, by_hand, delta=0.12 * by_hand)

    def test_links_that_do_not_reach_say_so(self):
        with self.assertRaises(NotSolvable):
            self.solved(**{"lower-link|left|length": -400.0, "upper-link|left|length": 300.0})


class Wheel(SimpleTestCase):
    def test_shims_under_both_upper_bolts_by_hand(self):
        """3 mm out at the pivots: about 3 mm over the king pin's height at the ball joint."""
        s = studies()["front"]
        rows = {(f"upper-wishbone-{leg}-leg", "left", "across"): 3.0 for leg in ("front", "rear")}
        stood = wheel_as_built(s.suspension, s.setting, rows, "left")
        layout = s.suspension.layout
        by_hand = math.degrees(3.0 / (layout.upper_ball.z_mm - layout.lower_ball.z_mm))
        self.assertAlmostEqual(stood.camber_deg, by_hand, delta=0.1 * by_hand)
        self.assertLess(abs(stood.caster_deg), 0.02)

    def test_each_side_is_its_own(self):
        s = studies()["front"]
        rows = {("toe-link", "left", "length"): 2.0}
        self.assertNotAlmostEqual(wheel_as_built(s.suspension, s.setting, rows, "left").toe_deg, 0.0, places=2)
        self.assertAlmostEqual(wheel_as_built(s.suspension, s.setting, rows, "right").toe_deg, 0.0, places=9)


class Corrected(SimpleTestCase):
    LINKS = tuple(f"{name}-link|{side}" for name in ("lower", "upper") for side in ("left", "right"))

    @SOME
    @given(st.lists(st.floats(-6.0, 6.0), min_size=4, max_size=4))
    def test_put_in_and_solved_again_it_lies_within_tolerance(self, offs):
        """Any four link lengths: what is told as inside is inside when those turns are put into the model."""
        ids = [f"rear-links/{name}-length/{side}" for name in ("lower", "upper") for side in ("left", "right")]
        found = built(read(*zip(ids, offs, strict=True))).axles[0]
        s = studies()["rear"]
        for c in (c for c in found.corrections if c.inside):
            rows = {(*link.split("|"), "length"): off for link, off in zip(self.LINKS, offs, strict=True)}
            for move in c.moves:
                name, side = move.name.split(", ")
                rows[name.replace(" ", "-"), side, "length"] += move.steps * TURN_MM
            sat = beam_as_built(s.suspension.layout, s.setting, rows)
            for outcome, value in zip(c.left, (sat.thrust_deg, sat.right_mm, sat.rear_mm, sat.pinion_deg), strict=True):
                self.assertAlmostEqual(outcome.off, value, places=6)
                self.assertLessEqual(abs(value), outcome.allowed)
        outside = any(abs(o.off) > o.allowed for o in found.outcomes)
        self.assertEqual(bool(found.words) and not found.corrections, not outside, found)

    def test_against_every_choice_of_a_small_problem(self):
        """Two levers of 4 steps each way: nothing that moves less brings it inside (brute force)."""
        levers = [Lever("a", "a", 4), Lever("b", "b", 4)]
        slopes = np.array([[0.3, -0.1], [0.05, 0.4]])
        rng = np.random.default_rng(4)
        for _ in range(60):
            off = rng.uniform(-1.0, 1.0, 2)

            def effect(steps, off=off):
                return off + slopes @ np.array([steps.get("a", 0), steps.get("b", 0)])

            found = corrections(levers, [Aim("x", off[0], 0.2), Aim("y", off[1], 0.2)], effect)
            every = [(i, k) for i in range(-4, 5) for k in range(-4, 5)]
            can = any(np.abs(effect({"a": i, "b": k})).max() <= 0.2 for i, k in every)
            if np.abs(off).max() > 0.2:
                self.assertEqual(bool(found) and found[0].inside, can, off)

    def test_a_shimmed_front_is_found_back(self):
        rows = [(f"front-joints/upper-wishbone-{leg}-leg-across/left", 4.0) for leg in ("front", "rear")]
        best = built(read(*rows)).axles[0].corrections[0]
        self.assertTrue(best.inside)
        self.assertEqual([m.steps for m in best.moves], [-4])

    def test_where_nothing_can_it_says_why(self):
        rows = [("front-wheel/caster/left", 9.0), ("front-wheel/camber/left", 6.0)]
        found = built(read(*rows)).axles[0]
        self.assertFalse(any(c.inside for c in found.corrections))
        self.assertIn("stays", found.words)

    def test_wheels_and_links_that_do_not_go_together_are_named(self):
        rows = [
            ("vehicle/wheelbase/left", 0.0),
            ("vehicle/wheelbase/right", 8.0),
            ("rear-links/lower-length/left", 5.0),
        ]
        self.assertIn("misread", built(read(*rows)).axles[0].words)

    def test_a_tolerance_of_nothing_is_no_crash(self):
        own = read(("rear-links/lower-length/left", 3.0))
        changed = own.design.model_copy(update={"limits": {"thrust": LimitChange(value=0.0, reason="race shop")}})
        found = built(own.model_copy(update={"design": changed})).axles[0]
        self.assertTrue(f.finite(found.model_dump()))
        self.assertFalse(any(c.inside for c in found.corrections))

    def test_nothing_read_nothing_told(self):
        found = built(f.job().inputs("step"))
        self.assertEqual((found.axles, found.leaning, found.worse), ((), (), ()))


class Matters(SimpleTestCase):
    def test_a_step_a_quarter_inch_low_on_one_side(self):
        """1/4 in over the width between the webs: a twisted frame, the body leaning by that angle."""
        found = built(read(("rear-step/rise/left", -6.35), ("rear-step/rise/right", 0.0))).leaning[0]
        apart = 2 * f.demo("step").survey.rails.left.web_y_mm
        self.assertAlmostEqual(found.lean_deg, math.degrees(math.atan2(6.35, apart)), places=6)
        self.assertTrue(found.matters)
        self.assertIn("left rail", found.words)
        self.assertIn("twisted", found.words)
        self.assertIn("to the right", found.words, "a step that is less lowers its own side of the body by less")
        self.assertIn("the right spring's seat", found.corrections[1])

    def test_a_wheel_s_centre_nearer_to_the_rail_says_a_low_rail_and_a_deeper_cut_is_on_its_own_side(self):
        low = built(read(("rear-height/hub-height/left", -6.0), ("rear-height/hub-height/right", 0.0))).leaning[0]
        self.assertIn("left rail", low.words)
        self.assertIn("left strut", low.corrections[0])
        deep = built(read(("axle-notch/depth/left", 4.0), ("axle-notch/depth/right", 0.0))).leaning[0]
        self.assertIn("deeper on the left", deep.words)

    def test_a_joint_too_high_changes_what_its_side_asks(self):
        worse = built(read(("rear-joints/upper-link-up/left", 25.0))).worse
        self.assertTrue(worse)
        self.assertEqual({w.side for w in worse}, {"left"})
        self.assertTrue(any("anti-squat" in w.id or "Anti-squat" in w.title for w in worse), [w.title for w in worse])


class Thrust(SimpleTestCase):
    def test_by_hand_from_both_wheelbases(self):
        """5 mm longer on the right over 1620 mm between the hubs: 0.177 deg, to the right."""
        result = evaluate(read(("vehicle/wheelbase/left", 0.0), ("vehicle/wheelbase/right", 5.0)))
        check = f.check_of(result, "thrust:rear-axle:both@as-built")
        self.assertAlmostEqual(check.value, math.degrees(math.atan2(5.0, 1620.0)), places=6)
        self.assertEqual(check.verdict, "fails")
        self.assertIn("right", check.said.text)

    def test_one_side_says_nothing(self):
        result = evaluate(read(("vehicle/wheelbase/left", 3.0)))
        self.assertFalse([c for c in result.checks if c.limit_id == "thrust"])


class Shape(SimpleTestCase):
    PLACES = {f"{n}/{s}": (x, y, 10.0 * k) for k, (n, x) in enumerate((("a", 0.0), ("b", 1000.0), ("c", 3000.0)))
              for s, y in (("left", -400.0), ("right", 400.0))}  # fmt: skip

    def test_a_leaning_vehicle_is_neither_twisted_nor_sagging(self):
        read_ = {id_: z + 0.01 * x + 0.02 * y + 77.0 for id_, (x, y, z) in self.PLACES.items()}
        own = levelled(self.PLACES, read_, 0.5)
        self.assertLess(max(abs(own.twist_mm), abs(own.sag_mm)), 1e-9)

    def test_twist_and_sag_by_hand(self):
        """Last right point 6 mm up: twisted by 6 mm over its width; the middle pair 4 mm down sags by 4, less a third of 3."""
        off = {"c/right": 6.0, "b/left": -4.0, "b/right": -4.0}
        own = levelled(self.PLACES, {id_: z + off.get(id_, 0.0) for id_, (_, _, z) in self.PLACES.items()}, 0.5)
        self.assertAlmostEqual(own.twist_mm, 6.0, places=9)
        self.assertAlmostEqual(own.twist_deg, math.degrees(6.0 / 800.0), places=9)
        self.assertAlmostEqual(own.sag_mm, 4.0 + 3.0 / 3, places=9)
        self.assertEqual(own.sag_at, "b")

    def test_one_pair_says_nothing(self):
        self.assertIsNone(levelled(self.PLACES, {"a/left": 0.0, "a/right": 1.0}, 0.5))

    def test_the_twist_s_uncertainty_by_simulation(self):
        rng = np.random.default_rng(2)
        rows = [
            levelled(self.PLACES, {id_: z + rng.normal(0, 0.5) for id_, (_, _, z) in self.PLACES.items()}, 0.5)
            for _ in range(2000)
        ]
        inside = np.mean([abs(r.twist_mm) <= r.twist_sure_mm for r in rows])
        self.assertTrue(0.93 <= inside <= 0.97, inside)


class FrameEachTime(SimpleTestCase):
    def taped(self, rear_right_mm=0.0, beside_mm=0.0, when="done"):
        """All lengths between four pairs of the planned frame and the rear hubs, one hub back, both beside."""
        inputs = f.demo("step")
        found = evaluate(inputs)
        names = ("front-axle", "cab-crossmember", "front-hanger", "rear-axle")
        rails = {r.side: r for r in found.rails}
        at = {}
        for n in names:
            x = next(q.x_mm for q in inputs.survey.features if q.id == n)
            for side, sign in (("left", -1), ("right", 1)):
                rail = rails[side]
                there = float(np.interp(x, rail.stock_x_mm, rail.x_mm))
                web = float(np.interp(x, rail.stock_x_mm, rail.web_y_mm))
                at[n, side] = (there, sign * abs(web))
        s = studies()["rear"]
        for side, sign in (("left", -1), ("right", 1)):
            back = rear_right_mm if side == "right" else 0.0
            at["hub-rear", side] = (s.setting.hub[0] + back, sign * s.setting.half_track_mm + beside_mm)
        points = list(at)
        pairs = [(a, b) for i, a in enumerate(points) for b in points[i + 1 :]]
        entries = []
        for number, (a, b) in enumerate(pairs, start=1):
            ends = [{"feature_id": n, "side": side} for n, side in (a, b)]
            told = {"number": number, "start": ends[0], "end": ends[1], "when": when}
            entries.append(LengthEntry(**WHEN, **told, value=math.dist(at[a], at[b])))
        return inputs.model_copy(update={"as_built": AsBuilt(entries=tuple(entries))})

    def test_an_axle_that_points_and_stands_beside_by_hand(self):
        axle = evaluate(self.taped(rear_right_mm=6.0, beside_mm=4.0)).frame_times[-1].axles[0]
        self.assertAlmostEqual(axle.thrust_deg, math.degrees(math.atan2(6.0, 1620.0)), delta=0.01)
        self.assertAlmostEqual(axle.right_mm, 4.0, delta=0.1)
        self.assertAlmostEqual(axle.apart_mm, math.hypot(6.0, 1620.0), delta=0.01)

    def test_each_time_has_its_own_column_and_the_newest_is_judged(self):
        before, after = self.taped(when="before"), self.taped(rear_right_mm=12.0, when="tacked")
        n = len(before.as_built.entries)
        later = tuple(e.model_copy(update={"number": e.number + n}) for e in after.as_built.entries)
        both = before.model_copy(update={"as_built": AsBuilt(entries=(*before.as_built.entries, *later))})
        result = evaluate(both)
        self.assertEqual([t.when for t in result.frame_times], ["before", "tacked"])
        self.assertEqual(f.check_of(result, "thrust:rear-axle-taped:both@as-built").verdict, "fails")

    def test_an_axle_that_points_is_not_mended_with_heat_and_marks_are_told_by_name(self):
        result = evaluate(self.taped(rear_right_mm=12.0))
        self.assertIn("Solve what was read", f.check_of(result, "thrust:rear-axle-taped:both@as-built").remedy)
        sway = f.check_of(result, "frame-sway:tape:both@as-built")
        names = {q.name for q in f.demo("step").survey.features}
        self.assertTrue(any(name in sway.said.text for name in names), sway.said.text)
        self.assertFalse([c.id for c in result.checks if c.id.startswith("thrust:front")])

    def test_levels_alone_are_told(self):
        inputs = f.demo("step")
        rows = [
            LevelEntry(**WHEN, number=k, point={"feature_id": n, "side": side}, value=v)
            for k, (n, side, v) in enumerate(
                (("front-axle", "left", 0.0), ("front-axle", "right", 0.0), ("rear-axle", "left", 0.0), ("rear-axle", "right", 9.0)),
                start=1,
            )
        ]  # fmt: skip
        result = evaluate(inputs.model_copy(update={"as_built": AsBuilt(entries=tuple(rows))}))
        self.assertEqual(f.check_of(result, "frame-twist:levels:both@as-built").verdict, "fails")
