"""What a crane lifts: mass and middle by hand, crane and strap, what stands there afterwards, and its step."""

from django.test import SimpleTestCase

from nodulant.build.lift_steps import rigging_step
from nodulant.evaluate import evaluate
from nodulant.supports.bodies import situations
from nodulant.supports.lift import Lift, fresh_lift, lifted
from nodulant.supports.look import look
from nodulant.survey.vehicle import Mass
from tests import fixtures as f


def lift(**more):
    return Lift(**({"id": "engine-out", "name": "Engine", "hook_x_mm": 0.0, "masses": ("engine",)} | more))


def vehicle():
    survey = f.survey_of(f.straight_rail())
    masses = (
        Mass(id="engine", name="Engine", mass_kg=240.0, x_mm=100.0),
        Mass(id="box", name="Gearbox", mass_kg=80.0, x_mm=600.0, to_x_mm=1000.0),
        Mass(id="cab", name="Cab", mass_kg=400.0, x_mm=1200.0),
    )
    return survey.model_copy(update={"masses": masses})


class OnTheHook(SimpleTestCase):
    def test_its_middle_is_that_of_what_hangs_there(self):
        """Engine 240 kg at 100 and gearbox 80 kg about 800: 320 kg at 275."""
        found = lifted(vehicle(), lift(masses=("engine", "box"), hook_x_mm=200.0))
        self.assertEqual((found.mass_kg, found.x_mm), (320.0, 275.0))
        self.assertAlmostEqual(found.off_mm, 75.0)
        self.assertTrue(found.holds)
        self.assertEqual(found.words, "hangs level")

    def test_more_than_the_crane_may_lift_at_this_reach(self):
        found = lifted(vehicle(), lift(crane_kg=200.0))
        self.assertAlmostEqual(found.use, 1.2)
        self.assertEqual((found.holds, found.words), (False, "more than the crane may lift at this reach"))

    def test_a_hook_that_the_strap_does_not_bring_over_the_middle(self):
        self.assertIn("tail down", lifted(vehicle(), lift(hook_x_mm=-100.0)).words)
        self.assertIn("nose down", lifted(vehicle(), lift(hook_x_mm=300.0)).words)
        self.assertTrue(lifted(vehicle(), lift(hook_x_mm=-100.0, strap_mm=200.0)).holds)

    def test_nothing_known_is_not_called_level(self):
        found = lifted(vehicle(), lift(masses=()))
        self.assertEqual((found.holds, found.x_mm), (False, None))
        self.assertIn("not known", found.words)


class AnotherOne(SimpleTestCase):
    def test_it_begins_with_the_heaviest_thing_that_is_still_on(self):
        first = fresh_lift(vehicle(), ())
        self.assertEqual((first.masses, first.hook_x_mm), (("cab",), 1200.0))
        second = fresh_lift(vehicle(), (first,))
        self.assertEqual((second.masses, second.id), (("engine",), "lift-2"))
        self.assertTrue(lifted(vehicle(), second).holds)
        self.assertEqual(fresh_lift(f.survey_of(f.straight_rail()), ()).masses, ())


class Afterwards(SimpleTestCase):
    def test_the_rest_stands_without_it(self):
        before = situations(vehicle(), ())[-1].bodies[0]
        after = next(s for s in situations(vehicle(), (), (lift(),)) if s.key == "lift/engine-out").bodies[0]
        self.assertAlmostEqual(before.mass_kg - after.mass_kg, 240.0)
        moment = (before.mass_kg * before.x_mm - 240.0 * 100.0) / after.mass_kg
        self.assertAlmostEqual(after.x_mm, moment, 6)

    def test_every_cut_finds_it_gone_as_its_step_comes_before_any(self):
        inputs = f.job().inputs("step")
        heavy = max(inputs.survey.masses, key=lambda m: m.mass_kg if m.aboard == "bare" else 0.0)
        ops = inputs.design.operations
        cuts = [f"cut/{op.id}" for op in ops if op.saws_through and op.side == "both"]
        plain, off = (
            {s.key: sum(b.mass_kg for b in s.bodies) for s in situations(inputs.survey, ops, lifts)}
            for lifts in ((), (lift(masses=(heavy.id,)),))
        )
        self.assertGreater(len(cuts), 1)
        for cut in cuts:
            self.assertAlmostEqual(plain[cut] - off[cut], heavy.mass_kg, delta=0.02 * heavy.mass_kg + 0.1)

    def test_it_is_looked_at_with_the_stands(self):
        found = look(vehicle(), (), (), (lift(),))
        self.assertEqual([one.name for one in found.lifts], ["Engine"])
        self.assertIn("with 'Engine' off", [m.name for m in found.moments])


class ItsStep(SimpleTestCase):
    def steps(self, own):
        inputs = f.demo("arc")
        design = inputs.design.model_copy(update={"lifts": (own,)})
        survey = inputs.survey.model_copy(update={"masses": vehicle().masses})
        changed = inputs.model_copy(update={"design": design, "survey": survey})
        return {s.id: s for s in evaluate(changed).steps}

    def test_a_lift_has_a_rigging_step_before_any_cut_and_one_that_does_not_hold_is_shut(self):
        steps = self.steps(lift())
        self.assertFalse(steps["lift-engine-out"].held)
        for step in steps.values():
            if "cuts" in step.spec.acts:
                self.assertIn("lift-engine-out", step.needs)
        self.assertTrue(self.steps(lift(crane_kg=100.0))["lift-engine-out"].held)

    def test_above_25_kg_nobody_lifts_alone(self):
        self.assertEqual(rigging_step(lifted(vehicle(), lift())).people, 2)
        light = lift(masses=(), more_kg=20.0)
        self.assertEqual(rigging_step(lifted(vehicle(), light)).people, 1)
