"""Standing and tipping against statics by a second method: equations of equilibrium, by linear programming over the floor.

Three supports: two moments and a sum. Four: the most that one can carry while none pulls.
"""

import random

import numpy as np
from django.test import SimpleTestCase
from scipy.optimize import linprog

from nodulant.build.plan import build_plan
from nodulant.evaluate import evaluate
from nodulant.evaluate.run import shut_by_design
from nodulant.materials.steel import DENSITY_KG_PER_MM3
from nodulant.supports.bodies import Body, situations
from nodulant.supports.look import look
from nodulant.supports.places import places
from nodulant.supports.support import Support
from nodulant.supports.tipping import LEAST_MM, stands_on
from nodulant.survey.vehicle import Mass
from tests import fixtures as f
from tests.core.test_operations import made


def stand(x, y, kg=1500.0, **more):
    return Support(id=f"s{x:g}-{y:g}".replace(".", "-"), name=f"at {x:g}", x_mm=x, y_mm=y, rating_kg=kg, **more)


def body(x, y=0.0, kg=900.0, start=-600.0, end=3500.0):
    return Body(name="the vehicle", start_mm=start, end_mm=end, mass_kg=kg, x_mm=x, y_mm=y)


FOUR = (stand(500, -400), stand(500, 400), stand(2500, -400), stand(2500, 400))


def most_by_statics(own, k, supports):
    """Most that support ``k`` carries over all ways to share the load without pulling, by a linear programme."""
    columns = np.array([[1.0, s.x_mm / 1000, s.y_mm / 1000] for s in supports]).T
    right = own.mass_kg * np.array([1.0, own.x_mm / 1000, own.y_mm / 1000])
    cost = np.zeros(len(supports))
    cost[k] = -1.0
    found = linprog(cost, A_eq=columns, b_eq=right, bounds=[(0, None)] * len(supports))
    return None if found.status != 0 else -found.fun


class Statics(SimpleTestCase):
    def test_three_supports_carry_by_equilibrium(self):
        three = FOUR[:3]
        own = body(1200.0, -60.0)
        matrix = np.array([[1.0] * 3, [s.x_mm for s in three], [s.y_mm for s in three]])
        expected = np.linalg.solve(matrix, own.mass_kg * np.array([1.0, own.x_mm, own.y_mm]))
        rows = {r.support: r.load_kg for r in stands_on(own, three).loads}
        for s, kg in zip(three, expected, strict=True):
            self.assertAlmostEqual(rows[s.id], kg, places=6)

    def test_four_and_more_are_sized_for_their_most(self):
        """Extreme shares lie at three supports each: the same as the linear programme finds over all ways to share."""
        seed = random.Random(7)
        tipped = 0
        for _ in range(120):
            supports = [stand(seed.uniform(0, 3000), seed.uniform(-500, 500)) for _ in range(seed.randint(3, 6))]
            own = body(seed.uniform(0, 3000), seed.uniform(-300, 300))
            found = stands_on(own, supports)
            rows = {r.support: r.load_kg for r in found.loads}
            for k, s in enumerate(supports):
                most = most_by_statics(own, k, supports)
                if most is None:
                    self.assertEqual(found.loads, ())
                    self.assertLess(found.margin_mm, 1e-6)
                    tipped += 1
                else:
                    self.assertAlmostEqual(rows[s.id], most, delta=1e-5 * own.mass_kg)
        self.assertGreater(tipped, 10)

    def test_margin_by_hand(self):
        """A rectangle 2000 by 800: from its nearest end 300 and 15 % of its length; from its side 400 and 15 % of its width."""
        found = stands_on(body(800.0), FOUR)
        self.assertAlmostEqual(found.margin_mm, 300.0)
        self.assertAlmostEqual(found.needed_mm, 0.15 * 2000)
        self.assertTrue(found.holds)
        found = stands_on(body(1500.0, 100.0), FOUR)
        self.assertAlmostEqual(found.margin_mm, 300.0)
        self.assertAlmostEqual(found.needed_mm, 0.15 * 800)
        near = stands_on(body(700.0), FOUR)
        self.assertEqual((near.holds, near.words), (False, "the vehicle stands too near to its edge"))
        over = stands_on(body(400.0), FOUR)
        self.assertAlmostEqual(over.margin_mm, -100.0)
        self.assertEqual((over.holds, over.words, over.loads), (False, "the vehicle tips", ()))

    def test_nothing_a_line_and_an_overload_are_named(self):
        self.assertEqual(stands_on(body(0.0), ()).words, "nothing is under the vehicle")
        self.assertIn("on a line", stands_on(body(1000.0), FOUR[::2]).words)
        weak = tuple(s.model_copy(update={"rating_kg": 200.0}) for s in FOUR)
        found = stands_on(body(1500.0), weak)
        self.assertEqual((found.holds, found.words), (False, "a stand under the vehicle carries more than its rating"))

    def test_a_stand_outside_of_every_body_holds_nothing(self):
        found = stands_on(body(1500.0, start=0.0, end=3000.0), (*FOUR[:2], stand(3400, 0)))
        self.assertFalse(found.holds)

    def test_a_tie_holds_down_what_stands_near_its_edge_and_carries_nothing(self):
        tied = stands_on(body(620.0), (*FOUR, stand(3000, 0, kind="tie-down")))
        self.assertTrue(tied.holds)
        self.assertLess(tied.margin_mm, tied.needed_mm)
        self.assertEqual(len(tied.loads), 4)


class Bodies(SimpleTestCase):
    def test_masses_go_with_their_part_and_nothing_is_lost(self):
        """Before and after every cut the parts weigh what the bare frame does, less the stretch that comes out."""
        inputs = f.job().inputs("step")
        found = situations(inputs.survey, inputs.design.operations)
        bare = next(s for s in found if s.key == "off").bodies[0]
        for s in found:
            if s.operation:
                kg = sum(b.mass_kg for b in s.bodies)
                self.assertAlmostEqual(kg, bare.mass_kg, delta=0.02 * bare.mass_kg)
                x = sum(b.mass_kg * b.x_mm for b in s.bodies) / kg
                self.assertAlmostEqual(x, bare.x_mm, delta=30.0)

    def test_the_rails_own_steel_by_hand(self):
        survey = f.survey_of(f.straight_rail(height=150.0, width=60.0, wall=5.0), crossmembers=())
        mass = Mass(id="engine", name="Engine", mass_kg=100.0, x_mm=500.0)
        survey = survey.model_copy(update={"masses": (mass,)})
        whole = next(s for s in situations(survey, ()) if s.key == "off").bodies[0]
        rails = 2 * (150 * 60 - 140 * 55) * 3000 * DENSITY_KG_PER_MM3
        self.assertAlmostEqual(whole.mass_kg, 100.0 + rails, delta=0.1)
        self.assertAlmostEqual(whole.x_mm, (100 * 500 + rails * 1500) / (100 + rails), delta=1.0)

    def test_a_front_cut_off_moves_the_rest_rearward(self):
        """Why stands near the middle become a see-saw (common practice)."""
        inputs = f.with_operations(f.demo(), made("splice", place={"anchor_id": "rear-axle", "offset_mm": -1600.0}))
        whole, cut = situations(inputs.survey, inputs.design.operations)[1:]
        rear = next(b for b in cut.bodies if b.name == "the part behind the cut")
        self.assertGreater(rear.x_mm, whole.bodies[0].x_mm)

    def test_one_sided_work_and_notches_part_nothing(self):
        for op in (made("splice", side="left"), made("notch"), made("boxing")):
            found = situations(f.demo().survey, (op,))
            self.assertEqual([s.key for s in found], ["on", "off"])

    def test_a_stand_under_nothing_is_named(self):
        beyond = stand(9000, 0)
        found = look(f.demo().survey, (), (*FOUR, beyond))
        self.assertEqual(found.idle, (beyond.name,))
        self.assertEqual(look(f.demo().survey, (), FOUR).idle, ())

    def test_no_mass_is_not_computed(self):
        survey = f.demo().survey.model_copy(update={"masses": ()})
        found = look(survey, (made("splice"),), FOUR)
        self.assertEqual(found.moments, ())
        self.assertIn("no masses", found.missing)


class Places(SimpleTestCase):
    def test_what_it_finds_holds_every_moment_of_the_demo(self):
        for option in ("arc", "straight"):
            inputs = f.job().inputs(option)
            ops = inputs.design.operations
            put = places(inputs.survey, situations(inputs.survey, ops))
            self.assertEqual(len(put), 4)
            for moment in look(inputs.survey, ops, put).moments:
                self.assertTrue(moment.holds, [s.words for s in moment.stands])

    def test_each_part_of_a_cut_frame_gets_its_own(self):
        op = made("z-step", place={"anchor_id": "rear-axle", "offset_mm": -1500.0})
        inputs = f.with_operations(f.demo(), op)
        put = places(inputs.survey, situations(inputs.survey, (op,)))
        self.assertEqual(len(put), 8)
        found = look(inputs.survey, (op,), put)
        for moment in found.moments:
            for s in moment.stands:
                self.assertGreaterEqual(s.margin_mm, LEAST_MM, s.words)
        cut = next(m for m in found.moments if m.operation == "it")
        edge = cut.stands[0].body.end_mm
        self.assertTrue(all(abs(s.x_mm - edge) >= 140 for s in put))

    def test_no_better_pair_exists_by_brute_force(self):
        """Over every pair of stations on a 50 mm grid no rectangle leaves more room than what is asked for, where one does."""
        inputs = f.demo()
        found = situations(inputs.survey, inputs.design.operations)
        put = places(inputs.survey, found)
        xs = sorted({s.x_mm for s in put})
        centres = [b.x_mm for s in found for b in s.bodies]
        room = min(min(c - xs[0], xs[-1] - c) for c in centres)
        self.assertGreaterEqual(room, 1.4 * max(LEAST_MM, 0.15 * (xs[-1] - xs[0])))


class Gate(SimpleTestCase):
    """A cut whose after-state tips is a locked step."""

    def inputs(self, supports):
        op = made("splice", place={"anchor_id": "rear-axle", "offset_mm": -1600.0})
        inputs = f.with_operations(f.demo(), op)
        design = inputs.design.model_copy(update={"supports": tuple(supports)})
        return inputs.model_copy(update={"design": design})

    def cut_is_shut(self, supports):
        inputs = self.inputs(supports)
        shut = shut_by_design(inputs, [])
        steps = build_plan(inputs.survey, inputs.design.operations, (), {}, shut=shut)
        self.assertTrue(any("cuts" in s.spec.acts for s in steps))
        return ("it", "cuts") in shut

    def test_stands_near_the_middle_become_a_see_saw(self):
        self.assertTrue(self.cut_is_shut(FOUR))

    def test_stands_under_both_parts_open_it(self):
        inputs = self.inputs(())
        put = places(inputs.survey, situations(inputs.survey, inputs.design.operations))
        self.assertFalse(self.cut_is_shut(put))

    def test_stands_change_nothing_else_and_none_hash_as_ever(self):
        bare, stood = self.inputs(()), self.inputs(FOUR)
        self.assertNotEqual(bare.content_hash(), stood.content_hash())
        own = [c for c in evaluate(stood).checks if c.limit_id not in {"stand-margin", "stand-load"}]
        self.assertEqual(list(evaluate(bare).checks), own)

    def test_stands_that_tip_are_a_red_row_and_stands_that_hold_a_green_one(self):
        inputs = self.inputs(())
        put = places(inputs.survey, situations(inputs.survey, inputs.design.operations))
        for supports, verdict in ((FOUR, "fails"), (put, "holds")):
            checks = {c.limit_id: c for c in evaluate(self.inputs(supports)).checks}
            row = checks["stand-margin"]
            self.assertEqual((row.verdict, row.stage), (verdict, "build"), row.title)
            self.assertEqual(bool(row.remedy), verdict == "fails")
        self.assertNotIn("stand-margin", {c.limit_id for c in evaluate(inputs).checks})

    def test_the_margin_s_row_is_the_worst_moment_s_own(self):
        inputs = self.inputs(FOUR)
        found = look(inputs.survey, inputs.design.operations, inputs.design.supports)
        worst = min(s.margin_mm / s.needed_mm for m in found.moments for s in m.stands if s.margin_mm is not None)
        row = next(c for c in evaluate(inputs).checks if c.limit_id == "stand-margin")
        self.assertAlmostEqual(row.value, min(worst, 1.0) if worst < 1 else worst, places=9)

    def test_a_stand_that_is_too_weak_is_told_with_what_it_carries(self):
        weak = tuple(s.model_copy(update={"rating_kg": 100.0}) for s in FOUR)
        row = next(c for c in evaluate(self.inputs(weak)).checks if c.limit_id == "stand-load")
        self.assertEqual(row.verdict, "fails")
        self.assertAlmostEqual(row.why.values["carries"] / 100.0, row.value, places=9)
