"""The lightest metal for a cut, against brute force; what it says when nothing helps; what a gusset takes."""

from django.test import SimpleTestCase

from nodulant.base.errors import NotSolvable, UnknownReference
from nodulant.evaluate import evaluate
from nodulant.evaluate.finding import find_sets, judge_near
from nodulant.frame.parts import rail_here
from nodulant.parts.joint import Joint
from nodulant.search.cut_sets import legged
from nodulant.search.finder import ALTERNATIVES, FoundSets
from nodulant.search.plate_sets import Stock, overlapped, plates_volume_mm3, with_plates, with_room_for
from tests import fixtures as f
from tests.brute_force import SHORT, by_finder, compared, job_with
from tests.core.test_operations import made

SMALL = Stock(thicknesses_mm=(5.0, 6.0), cap_heights_mm=(50.0,))
FEW = Stock(thicknesses_mm=(6.0,), cap_heights_mm=(50.0,))


def find(inputs, operation="axle-notch", stock=SMALL) -> FoundSets:
    """The search run to its end."""
    steps = find_sets(inputs, operation, stock)
    while True:
        try:
            next(steps)
        except StopIteration as end:
            return end.value


def carried(inputs, choice):
    """Operations of the design with one set in it."""
    changed = {op.id: op for op in choice.changed}
    return (*(changed.get(op.id, op) for op in inputs.design.operations), *choice.added)


def stepped(**more):
    return f.with_operations(f.demo(), made("z-step", **more))


class AgainstBruteForce(SimpleTestCase):
    """'The lightest' is a promise, and its goal is the verdict itself."""

    def test_each_kind_of_work_in_a_job_that_asks_something_of_it(self):
        """A short rack; ``make harness`` has the long one."""
        found = {
            kind: compared(self, kind, SHORT, heavier, boxed)
            for kind, heavier, boxed in (
                ("arc", 1.6, False),
                ("trapezoid", 1.6, False),
                ("pocket", 1.0, True),
                ("step", 1.0, True),
                ("jog", 1.0, True),
            )
        }
        self.assertTrue(all(answer.judged >= 2 for answer in found.values()))
        self.assertTrue(any(answer.kg is not None for answer in found.values()))

    def test_where_no_set_passes_it_says_so(self):
        self.assertIsNone(compared(self, "trapezoid", SHORT, heavier=4.0).kg)

    def test_an_open_frame_is_boxed_beside_its_step(self):
        inputs, index = job_with("step")
        choice = by_finder(inputs, index, SHORT).choices[0]
        self.assertEqual([op.name for op in choice.added], ["Boxing ahead", "Boxing behind"])

    def test_what_is_found_fails_nowhere_near(self):
        inputs = f.demo("arc")
        for choice in find(inputs).choices:
            verdict = judge_near(inputs, "axle-notch")(carried(inputs, choice))
            self.assertEqual(verdict.fails, 0, choice.words.text)
            self.assertLess(choice.beyond, 1.0 + 1e-6)

    def test_mass_is_that_of_the_parts(self):
        inputs = f.demo("arc")
        choice = find(inputs).choices[0]
        result = evaluate(f.with_operations(inputs, *carried(inputs, choice)))
        own = {op.id for op in (*choice.changed, *choice.added)}
        mass = sum(p.mass_kg() for p in result.parts if p.side == "left" and p.operation in own)
        self.assertAlmostEqual(choice.mass_kg / mass, 1.0, delta=0.02)

    def test_closed_form_volume_is_that_of_the_flat_parts(self):
        inputs = f.demo("straight")
        box, notch = inputs.design.operations
        rail = rail_here(inputs.survey, "left", 2610, [])
        full = with_plates(notch, (6.0, 4.0, 4.0, 4.0, 60.0), rail, "mild")
        result = evaluate(f.with_operations(inputs, box, full))
        parts = sum(p.mass_kg() for p in result.parts if p.side == "left" and p.operation == "axle-notch") / 7.85e-6
        self.assertAlmostEqual(
            plates_volume_mm3(full, rail.height, rail.width, rail.width + box.thickness_mm) / parts, 1.0, places=6
        )


class Alternatives(SimpleTestCase):
    """The lightest set is not always the one that can be made: others are shown, with what governs them."""

    def test_lightest_first_each_of_other_kinds_of_metal(self):
        found = find(f.demo("arc"))
        masses = [c.mass_kg for c in found.choices]
        self.assertEqual(masses, sorted(masses))
        self.assertLessEqual(len(masses), ALTERNATIVES + 1)
        words = {c.words.text for c in found.choices}
        self.assertEqual(len(words), len(masses))
        self.assertTrue(all(c.worst for c in found.choices))

    def test_welds_fit_their_plates(self):
        """Sets that no weld can hold are never offered (AWS D1.1 table 5.7, from memory, by the thicker part)."""
        inputs = f.demo("arc")
        for choice in find(inputs).choices:
            result = evaluate(f.with_operations(inputs, *carried(inputs, choice)))
            rows = [c for c in result.checks if c.limit_id in {"leg-least", "leg-most", "overlap"}]
            self.assertTrue(rows)
            self.assertFalse([c.id for c in rows if c.verdict == "fails"])


class ClearOpening(SimpleTestCase):
    """A thicker liner must not eat the room that the axle needs."""

    def test_the_axle_keeps_its_clearance_with_what_is_found(self):
        inputs = f.demo("arc")
        choice, before = find(inputs).choices[0], evaluate(inputs)
        after = evaluate(f.with_operations(inputs, *carried(inputs, choice)))
        for side in ("left", "right"):
            pair = [f.check_of(r, f"metal-clearance:axle-tube:{side}").value for r in (before, after)]
            self.assertAlmostEqual(pair[0], pair[1], delta=0.05)

    def test_room_grows_with_the_liner(self):
        arc, straight = (f.demo(option).design.operations[1] for option in ("arc", "straight"))
        grown = with_room_for(arc, 8.0)
        self.assertEqual((grown.depth_mm, grown.shape.radius_mm), (60.0, 62.0))
        wide = with_room_for(straight, 3.0)
        self.assertEqual((wide.depth_mm, wide.shape.top_width_mm, wide.shape.corner_radius_mm), (55.0, 90.0, 11.0))

    def test_overlaps_and_legs_follow_the_plates(self):
        inputs = f.demo("arc")
        rail = rail_here(inputs.survey, "left", 2610, [])
        notch = with_plates(inputs.design.operations[1], (6.0, 6.0, 0.0, 6.0, 50.0), rail, "mild")
        small, large = (overlapped(legged(notch, rail.wall, most=most), rail) for most in (False, True))
        self.assertLess(small.outer_plate.weld_leg_mm, large.outer_plate.weld_leg_mm)
        self.assertGreaterEqual(small.outer_plate.overlap_mm, large.outer_plate.overlap_mm)


class NoneHelps(SimpleTestCase):
    """An infeasible case gives its reason, and what to change."""

    def test_too_thin_a_stock_names_what_falls_short(self):
        found = find(f.demo("arc"), stock=Stock(thicknesses_mm=(1.0,), cap_heights_mm=(10.0,)))
        self.assertFalse(found.choices)
        self.assertIn("No set from this stock passes", found.reason.text)
        self.assertIn("thicker plate", found.reason.text)

    def test_unknown_operation(self):
        with self.assertRaises(UnknownReference) as caught:
            find(f.demo("arc"), "box-rear")
        self.assertEqual(caught.exception.acceptable, "axle-notch")

    def test_missing_wall(self):
        inputs = f.demo("arc")
        left = inputs.survey.rails.left
        bare = tuple(s.model_copy(update={"wall_mm": None}) for s in left.stations)
        rails = inputs.survey.rails.model_copy(update={"left": left.model_copy(update={"stations": bare})})
        with self.assertRaises(NotSolvable):
            find(f.with_survey(inputs, rails=rails))

    def test_a_piece_needs_a_frame_that_is_tied(self):
        with self.assertRaises(NotSolvable):
            find(f.with_survey(stepped(), crossmembers=()), "it")

    def test_progress_counts_up_and_it_can_be_stopped(self):
        steps = find_sets(f.demo("arc"), "axle-notch", SMALL)
        rows = [next(steps) for _ in range(3)]
        self.assertEqual([r.done for r in rows], sorted(r.done for r in rows))
        self.assertEqual(len({r.total for r in rows}), 1)
        steps.close()


class Gussets(SimpleTestCase):
    """A gusset takes what its strip carries, and no more than its lever gives."""

    def joint(self, **more):
        fields = {"operation": "it", "side": "left", "kind": "riser", "at_mm": 0.0, "behind_mm": 1.0, "area": 1.0}
        # 2 i_y / s_y = 150 mm deep
        return Joint(
            **fields,
            i_y=7.5e6,
            i_z=1e6,
            j=1e6,
            s_y=1e5,
            s_z=1e4,
            w_t=1e4,
            yield_reference_mpa=250,
            yield_mpa=250,
            **more,
        )

    def test_by_hand(self):
        self.assertEqual(self.joint().panel_force_n(3e6), (20_000.0, 0.0))
        # lever 150 + 30: 20 000 - 16 667
        _, relief = self.joint(gusset_mm=60.0, gusset_n=1e9).panel_force_n(3e6)
        self.assertAlmostEqual(relief, 20_000 - 3e6 / 180, places=6)
        # 1.2 mm of 60 mm at 250 MPa: 1.2 x 60 x 250 / 6
        self.assertEqual(self.joint(gusset_mm=60.0, gusset_n=3000.0).panel_force_n(3e6)[1], 3000.0)

    def test_in_the_job(self):
        bare, held = (
            f.check_of(evaluate(stepped(gusset=g)), "joint-panel:it-riser:left")
            for g in (None, {"leg_mm": 60.0, "thickness_mm": 5.0})
        )
        self.assertLess(held.value, bare.value)
        self.assertEqual(bare.why.values["relief"], 0.0)
