"""The trade's order of steps over random designs: each rule holds, and a planted wrong order is found by it."""

import random

from django.test import SimpleTestCase

from nodulant.asbuilt.log import OverrideEntry
from nodulant.base.errors import InputError
from nodulant.build.plan import build_plan, stretches_of
from nodulant.build.rules import RULES, broken, pairs
from nodulant.evaluate import evaluate
from nodulant.frame.place import Place
from nodulant.job.document import AsBuilt
from nodulant.parts.specs import PHASES
from tests import fixtures as f
from tests.core.test_operations import ALL, made

DESIGNS = 220
MORE = {
    "hole": [{}, {"work": "plug"}, {"work": "sleeve", "sleeve": {}}, {"weld_washers": True}],
    "bracket": [
        {},
        {"fixing": "bolted", "bolts": {"sleeves": True}},
        {"fixing": "bolted", "bolts": {"nuts": "captive"}},
    ],
    "z-step": [{}, {"method": "riser"}],
    "notch": [{}, {"liner": {"thickness_mm": 5.0}}],
    "crossmember": [{}, {"act": "remove", "target_id": "cab"}],
}


def designs():
    """Random work: kinds, sides and places drawn; places only shift stretches, so that some meet and others do not."""
    seed = random.Random(19)
    for _ in range(DESIGNS):
        ops = []
        for n in range(seed.randint(1, 6)):
            kind = seed.choice(ALL)
            fields = dict(seed.choice(MORE.get(kind, [{}])))
            op = made(kind, **fields)
            shift = seed.choice((0.0, 0.0, -400.0, 300.0))
            moved = {
                name: getattr(op, name).model_copy(update={"offset_mm": getattr(op, name).offset_mm + shift})
                for name in ("place", "start", "end")
                if isinstance(getattr(op, name, None), Place)
            }
            side = "both" if op.one_piece else seed.choice(("both", "both", "left", "right"))
            ops.append(op.model_copy(update={**moved, "id": f"op{n}", "name": f"Work {n}", "side": side}))
        yield tuple(ops), seed.random() < 0.5


def plan(ops, hangs=False, entries=()):
    return build_plan(f.demo().survey, ops, tuple(entries), {}, hangs=hangs)


def waits_for(steps):
    """All steps that each one waits for, near and far."""
    far = {}
    for step in steps:
        far[step.id] = set(step.needs).union(*(far[n] for n in step.needs))
    return far


class EveryRule(SimpleTestCase):
    def test_holds_in_the_order_and_in_what_waits_for_what(self):
        met = dict.fromkeys(RULES, 0)
        survey = f.demo().survey
        for ops, hangs in designs():
            steps, stretches = plan(ops, hangs), stretches_of(survey, ops)
            self.assertEqual(broken(steps, stretches), [])
            self.assertEqual([s.id for s in steps], list(dict.fromkeys(s.id for s in steps)))
            far = waits_for(steps)
            for i, j, rule in pairs(steps, stretches):
                self.assertIn(steps[i].id, far[steps[j].id], rule)
                met[rule] += 1
        self.assertTrue(all(met.values()), {r.why: n for r, n in met.items() if not n})

    def test_finds_a_planted_wrong_order(self):
        """Each step that a rule puts first is moved behind the other: just that is told."""
        planted = dict.fromkeys(RULES, 0)
        survey = f.demo().survey
        for ops, hangs in designs():
            steps, stretches = list(plan(ops, hangs)), stretches_of(survey, ops)
            for i, j, rule in pairs(steps, stretches):
                if planted[rule] >= 10:
                    continue
                wrong = [*steps[:i], *steps[i + 1 : j + 1], steps[i], *steps[j + 1 :]]
                told = broken(wrong, stretches)
                words = f"'{steps[i].spec.title}' comes after '{steps[j].spec.title}': {rule.why}"
                self.assertIn(words, told)
                planted[rule] += 1
        self.assertTrue(all(n > 0 for n in planted.values()))

    def test_what_comes_first_is_in_an_earlier_phase_or_earlier_in_its_own_work(self):
        """So that no two operations can wait for each other; what ties the rails is last in its phase."""
        phases = {k: n for n, k in enumerate(PHASES)}
        survey = f.demo().survey
        for ops, hangs in designs():
            steps, stretches = plan(ops, hangs), stretches_of(survey, ops)
            for i, j, rule in pairs(steps, stretches):
                one, two = steps[i], steps[j]
                sooner = phases[one.spec.phase] < phases[two.spec.phase]
                last = one.spec.phase == two.spec.phase and "ties" in set(two.spec.acts) - set(one.spec.acts)
                own = one.operation in {None, two.operation} and i < j
                self.assertTrue(sooner or own or last, (rule, one.id, two.id))


class WhatIsAskedFor(SimpleTestCase):
    def ids(self, *ops, **more):
        return {s.id for s in plan(ops, **more)}

    def test_braces_only_where_metal_goes_and_each_comes_off_again(self):
        for kind in ALL:
            op = made(kind)
            keys = {s.key for s in op.steps("")}
            cut = any("cuts" in s.acts for s in op.steps("")) and kind not in {"repair", "raise", "spring-pocket"}
            braced = bool(keys & {"brace", "slide"})
            with self.subTest(kind):
                self.assertEqual(braced, cut)
                self.assertEqual("unbrace" in keys, braced)
        self.assertFalse(any("brace" in id_ for id_ in self.ids(made("boxing"))))

    def test_boxed_rails_leave_the_springs_alone(self):
        self.assertNotIn("springs", self.ids(made("boxing")))
        self.assertIn("springs", self.ids(made("notch")))
        self.assertIn("springs", self.ids(made("bracket")))

    def test_mock_up_and_travel_are_asked_for_where_something_hangs(self):
        self.assertTrue({"mock-up", "by-hand", "joints-out"} <= self.ids(made("bracket")))
        self.assertFalse({"mock-up", "by-hand", "joints-out"} & self.ids(made("boxing")))
        self.assertIn("mock-up", self.ids(made("boxing"), hangs=True))

    def test_closed_cells_are_waxed_where_one_is_closed(self):
        self.assertIn("cavity", self.ids(made("boxing")))
        self.assertNotIn("cavity", self.ids(made("bracket")))

    def test_an_end_that_is_one_thing_moves_once_both_sides_are_cut(self):
        steps = {s.id: s for s in plan((made("z-step"),))}
        self.assertTrue({"it/cut/left", "it/cut/right"} <= set(steps["it/move/both"].needs))
        self.assertIn("Both sides are cut before anything moves", steps["it/cut/left"].spec.detail)
        one = {s.id: s for s in plan((made("z-step", side="left"),))}
        self.assertNotIn("it/move/left", one)
        self.assertIn("One side at a time", one["it/cut/left"].spec.detail)

    def test_a_plug_beside_the_boxing_waits_for_nothing_and_one_under_it_comes_first(self):
        box = made("boxing").model_copy(update={"id": "box"})
        near, far = (
            made("hole", work="plug", place={"anchor_id": "rear-axle", "offset_mm": x}).model_copy(update={"id": name})
            for name, x in (("near", -800.0), ("far", 200.0))
        )
        needs = next(s for s in plan((box, near, far)) if s.id == "box/fit/left").needs
        self.assertIn("near/plug/left", needs)
        self.assertNotIn("far/plug/left", needs)

    def test_bolted_work_drills_reams_and_torques(self):
        op = made("bracket", fixing="bolted", bolts={"nuts": "captive"})
        steps = [s for s in plan((op,)) if s.operation == "it" and s.side == "left"]
        self.assertEqual([s.spec.key for s in steps], ["place", "drill", "nuts", "bolt"])
        self.assertIn("reamed to size", steps[1].spec.detail)
        self.assertIn("countersunk screw", steps[2].spec.detail)
        self.assertFalse(
            any("welder" in s.spec.tools for s in steps if s.spec.key != "nuts"), "bolted work is not tacked"
        )

    def test_nothing_is_welded_to_a_cast_housing(self):
        """Its weld stays shut while the design reaches the casting, and opens once its feet stand on the tubes."""
        near = made("truss", housing="cast", housing_half_mm=300.0)
        clear = made("truss", housing="cast", housing_half_mm=200.0)
        for op, status in ((near, "waiting"), (clear, "open")):
            inputs = f.with_operations(f.demo(), op)
            steps = evaluate(inputs).steps
            before = [s.id for s in steps if s.id in waits_for(steps)["it/weld/both"]]
            entries = tuple(
                OverrideEntry(number=n, subject=id_, reason="looked at", at="2026-12-01T08:00:00+00:00", by="ada")
                for n, id_ in enumerate(before, 1)
            )
            done = inputs.model_copy(update={"as_built": AsBuilt(entries=entries)})
            self.assertEqual({s.id: s.status for s in evaluate(done).steps}["it/weld/both"], status)

    def test_a_truss_is_read_before_and_after(self):
        keys = [s.spec.key for s in plan((made("truss"),)) if s.operation == "it"]
        self.assertEqual(keys, ["fit", "runout", "weld", "runout-again"])

    def test_tacks_say_how_they_are_undone_and_up_to_when(self):
        for kind in ALL:
            op = made(kind)
            keys = {s.key for s in op.steps("")}
            for step in op.steps(""):
                if step.undo:
                    self.assertTrue(step.undo_until in keys or step.phase == "tack", (kind, step.key))

    def test_work_without_a_place_is_named(self):
        op = made("hole", place={"anchor_id": "nowhere", "offset_mm": 0.0})
        with self.assertRaises((InputError, LookupError)):
            plan((op,))
