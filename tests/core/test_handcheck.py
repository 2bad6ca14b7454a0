"""The engineer's sheet: its arithmetic gives what the checks say, its list is honest, its order is that of what matters."""

from itertools import pairwise

from django.test import SimpleTestCase

from nodulant.base.errors import NotSolvable
from nodulant.evaluate import evaluate
from nodulant.evaluate.rails.solved import solved_inputs
from nodulant.handcheck.assumptions import assumptions
from nodulant.handcheck.places import APART_MM, governing_places
from nodulant.handcheck.sensitive import sensitivities
from nodulant.handcheck.sheet import hand_check
from nodulant.job.document import Design
from nodulant.parts.limit import LimitChange
from tests import fixtures as f


def worked(line):
    """A line's formula with its own numbers."""
    return eval(line.formula, {"__builtins__": {}}, {**line.values, "min": min})


def places(inputs):
    return governing_places(evaluate(inputs).checks, solved_inputs(inputs))


class Places(SimpleTestCase):
    def test_every_line_gives_its_value_and_the_last_is_what_the_check_says(self):
        for option in ("arc", "straight", "step"):
            for place in places(f.demo(option)):
                with self.subTest(place.check_id):
                    for line in (*place.planned.lines, *(place.stock.lines if place.stock else ())):
                        self.assertAlmostEqual(worked(line), line.value, delta=1e-9 * max(1.0, abs(line.value)))
                    self.assertAlmostEqual(place.planned.factor / place.told, 1.0, delta=1e-4)

    def test_in_inches_every_formula_holds_with_its_own_numbers(self):
        """lbf, in and psi are coherent: the printed line, reckoned again, gives what stands behind it."""
        for place in places(f.demo("step")):
            for line in place.planned.lines:
                with self.subTest(line.name):
                    again = eval(line.inch.worked.replace(" ", ""), {"__builtins__": {}}, {"min": min})
                    self.assertAlmostEqual(again, line.inch.value, delta=2e-3 * max(abs(again), 1e-3))
        stress = next(x for p in places(f.demo()) for x in p.planned.lines if x.unit == "MPa")
        self.assertEqual(stress.inch.unit, "psi")
        self.assertAlmostEqual(stress.inch.value, stress.value * 145.0377, delta=stress.value * 0.01)

    def test_bending_of_a_plain_channel_by_hand(self):
        """I of a channel is the outer rectangle less the hollow (Roark), S = I/(h/2)."""
        inputs = f.demo().model_copy(update={"design": Design()})
        place = next(p for p in places(inputs) if p.case.startswith("Both wheels"))
        line = next(x for x in place.planned.lines if x.name == "section modulus that counts")
        h, b, t = place.height_mm, place.width_mm, place.wall_mm
        by_hand = (b * h**3 - (b - t) * (h - 2 * t) ** 3) / 6 / h
        self.assertAlmostEqual(line.value / by_hand, 1.0, delta=0.05)  # the demo's rail has rounded corners

    def test_places_lie_apart_and_the_nearest_to_its_limit_comes_first(self):
        result = evaluate(f.demo())
        found = places(f.demo())
        x = sorted(p.x_mm for p in found)
        self.assertTrue(all(b - a >= APART_MM for a, b in pairwise(x)))
        beyond = [f.check_of(result, p.check_id).beyond for p in found]
        self.assertEqual(beyond, sorted(beyond, reverse=True))

    def test_plates_in_the_section_are_named(self):
        over = next(p for p in places(f.demo()) if abs(p.x_mm - 2610) < 200)
        self.assertIn("liner", {p.role for p in over.plates})

    def test_an_unmeasured_wall_is_refused_at_its_field(self):
        left = f.demo().survey.rails.left
        bare = left.model_copy(
            update={"stations": tuple(s.model_copy(update={"wall_mm": None}) for s in left.stations)}
        )
        rails = f.demo().survey.rails.model_copy(update={"left": bare})
        with self.assertRaises(NotSolvable) as caught:
            hand_check(f.with_survey(f.demo(), rails=rails))
        self.assertEqual(caught.exception.field, "/survey/rails/left/stations/0/wall_mm")


class Assumed(SimpleTestCase):
    def rows(self, inputs):
        return {a.about: a for a in assumptions(solved_inputs(inputs))}

    def test_sources_follow_the_inputs(self):
        rows = self.rows(f.demo())
        self.assertEqual(rows["Wall of the left rail"].source, "measured")
        self.assertEqual(rows["Steel of the left rail"].source, "catalogue")
        self.assertEqual(rows["Depth of the hole"].source, "default")
        self.assertEqual(rows["Roll stiffness, rear axle"].source, "guess")
        loads = f.demo().design.loads.model_copy(update={"hole_mm": 300.0})
        own = f.demo().design.model_copy(
            update={"loads": loads, "limits": {"use-limit": LimitChange(value=2.0, reason="club rules")}}
        )
        changed = self.rows(f.demo().model_copy(update={"design": own}))
        self.assertEqual(changed["Depth of the hole"].source, "typed")
        self.assertTrue(any(a.source == "own value" and "club rules" in a.says.text for a in changed.values()))

    def test_unknown_steel_is_a_guess(self):
        left = f.demo().survey.rails.left.model_copy(update={"steel_id": "unknown"})
        rails = f.demo().survey.rails.model_copy(update={"left": left})
        self.assertEqual(self.rows(f.with_survey(f.demo(), rails=rails))["Steel of the left rail"].source, "guess")


class Sensitivity(SimpleTestCase):
    def test_five_the_greatest_first_and_a_thicker_wall_helps(self):
        rows = sensitivities(f.demo())
        self.assertEqual(len(rows), 5)
        spans = [r.span for r in rows]
        self.assertEqual(spans, sorted(spans, reverse=True))
        wall = next(r for r in rows if r.name == "Wall of the rails")
        self.assertLess(wall.less, wall.now)
        self.assertGreater(wall.more, wall.now)

    def test_without_loads_there_is_none(self):
        self.assertEqual(sensitivities(f.with_survey(f.demo(), masses=())), ())
