"""The reinforcement finder against brute force, and what it says when nothing helps."""

from django.test import SimpleTestCase

from nodulant.base.errors import NotSolvable, UnknownReference
from nodulant.evaluate import evaluate
from nodulant.frame.here import RailHere
from nodulant.frame.parts import rail_here
from nodulant.search.plate_sets import Stock, candidates, plates_volume_mm3, with_plates, with_room_for
from nodulant.search.reinforcement import ENOUGH, find_reinforcement, least_ratio, search_reinforcement
from tests import fixtures as f

SMALL = Stock(thicknesses_mm=(4.0, 6.0), cap_heights_mm=(40.0, 60.0, 80.0))


def find(inputs, stock=SMALL):
    return find_reinforcement(inputs.survey, inputs.design.operations, "axle-notch", stock)


def brute(inputs, stock):
    """Every set of the stock, whole rail, both sides: the lightest that passes."""
    box, notch = inputs.design.operations
    rail = rail_here(inputs.survey, "left", 2610, [])
    best = None
    for row in candidates(stock):
        trial = (box, with_plates(notch, row, rail, stock.steel_id))
        if min(least_ratio(inputs.survey, trial, side, screen=False)[0] for side in ("left", "right")) < ENOUGH:
            continue
        volume = plates_volume_mm3(trial[1], rail.height, rail.width, rail.width + box.thickness_mm)
        best = min(best or (volume, row), (volume, row))
    return best


class AgainstBruteForce(SimpleTestCase):
    """'The lightest' is a promise."""

    def test_same_set_as_trying_all(self):
        for option in ("arc", "straight"):
            with self.subTest(option):
                inputs = f.demo(option)
                found, expected = find(inputs), brute(inputs, SMALL)
                row = found.best
                self.assertEqual((row.liner_mm, row.outer_mm, row.inner_mm, row.cap_mm, row.cap_height_mm), expected[1])

    def test_what_is_found_passes_every_capacity_check(self):
        inputs = f.demo("arc")
        found = find(inputs)
        result = evaluate(f.with_operations(inputs, inputs.design.operations[0], found.notch))
        for check in result.checks:
            if check.limit_id in {
                "modulus-top",
                "modulus-bottom",
                "shear-area",
                "torsion-constant",
                "torsion-capacity",
            }:
                self.assertNotEqual(check.verdict, "fails", check.id)
            if check.limit_id == "overlap":
                self.assertNotEqual(check.verdict, "fails", check.id)

    def test_mass_is_that_of_the_parts(self):
        inputs = f.demo("arc")
        found = find(inputs)
        result = evaluate(f.with_operations(inputs, inputs.design.operations[0], found.notch))
        plates = sum(p.mass_kg() for p in result.parts if p.side == "left" and p.operation == "axle-notch")
        self.assertAlmostEqual(found.best.mass_kg, plates, places=9)

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


class ClearOpening(SimpleTestCase):
    """A thicker liner must not eat the room that the axle needs."""

    def test_the_axle_keeps_its_clearance_with_what_is_found(self):
        for option in ("arc", "straight"):
            inputs = f.demo(option)
            found = find(inputs, Stock(thicknesses_mm=(3.0, 8.0), cap_heights_mm=(60.0,)))
            before = evaluate(inputs)
            after = evaluate(f.with_operations(inputs, inputs.design.operations[0], found.notch))
            for side in ("left", "right"):
                pair = [f.check_of(r, f"metal-clearance:axle-tube:{side}").value for r in (before, after)]
                self.assertAlmostEqual(pair[0], pair[1], delta=0.05)

    def test_room_grows_with_the_liner(self):
        arc, straight = (f.demo(option).design.operations[1] for option in ("arc", "straight"))
        grown = with_room_for(arc, 8.0)
        self.assertEqual((grown.depth_mm, grown.shape.radius_mm), (60.0, 62.0))
        wide = with_room_for(straight, 3.0)
        self.assertEqual((wide.depth_mm, wide.shape.top_width_mm, wide.shape.corner_radius_mm), (55.0, 90.0, 11.0))


class Alternatives(SimpleTestCase):
    """The lightest set is not always the one that can be made: others are shown, with what governs them."""

    def test_they_pass_are_heavier_and_use_other_kinds_of_plates(self):
        inputs = f.demo("arc")
        found = find(inputs, Stock(thicknesses_mm=(3.0, 5.0, 8.0), cap_heights_mm=(50.0, 75.0)))
        self.assertTrue(found.alternatives)
        kinds, mass = set(), found.best.mass_kg
        for choice in (found, *found.alternatives):
            own = choice.best if choice is found else choice.set
            kind = tuple(mm > 0 for mm in (own.outer_mm, own.inner_mm, own.cap_mm, own.boxing_mm))
            self.assertNotIn(kind, kinds)
            kinds.add(kind)
            self.assertGreaterEqual(own.mass_kg, 0.97 * mass)
            operations = (inputs.design.operations[0], choice.notch)
            worst = min(least_ratio(inputs.survey, operations, side, screen=False)[0] for side in ("left", "right"))
            self.assertGreaterEqual(worst, ENOUGH)

    def test_an_open_rail_may_be_boxed(self):
        inputs = f.demo("arc")
        found = find_reinforcement(inputs.survey, inputs.design.operations[1:], "axle-notch", SMALL)
        every = [(found.best.boxing_mm, found.boxing), *((c.set.boxing_mm, c.boxing) for c in found.alternatives)]
        for thickness, plate in every:
            self.assertEqual(thickness > 0, plate is not None)

    def test_use_under_load_counts(self):
        """Seats moved over the axle work the cut harder: what was enough on hangers is not."""
        inputs = f.demo("arc")
        bare = with_plates(
            inputs.design.operations[1],
            (6.0, 0.0, 0.0, 4.0, 60.0),
            RailHere(2610.0, 0.0, 150.0, 60.0, 5.0, 65.0),
            "mild",
        )
        operations = (inputs.design.operations[0], bare)
        hung = least_ratio(inputs.survey, operations, "left", screen=True)
        seated = least_ratio(inputs.survey, operations, "left", screen=True, seats=inputs.design.seats)
        self.assertLessEqual(seated[0], hung[0])


class NoneHelps(SimpleTestCase):
    """An infeasible case gives its reason."""

    def test_too_thin_a_stock_names_what_falls_short(self):
        found = find(f.demo("arc"), Stock(thicknesses_mm=(1.0,), cap_heights_mm=(10.0,)))
        self.assertIsNone(found.best)
        self.assertIn("bending capacity", found.reason)
        self.assertIn("Add thicker plate or a higher cap", found.reason)
        self.assertLess(found.least_ratio, 1)

    def test_an_open_rail_is_told_to_be_boxed(self):
        inputs = f.demo("arc")
        found = find_reinforcement(inputs.survey, inputs.design.operations[1:], "axle-notch", SMALL)
        if found.best is None:
            self.assertIn("not boxed", found.reason)
        else:
            self.assertGreater(found.best.inner_mm, 0)

    def test_unknown_notch(self):
        inputs = f.demo("arc")
        with self.assertRaises(UnknownReference) as caught:
            find_reinforcement(inputs.survey, inputs.design.operations, "box-rear", SMALL)
        self.assertEqual(caught.exception.acceptable, "axle-notch")

    def test_missing_wall(self):
        inputs = f.demo("arc")
        left = inputs.survey.rails.left
        bare = tuple(s.model_copy(update={"wall_mm": None}) for s in left.stations)
        rails = inputs.survey.rails.model_copy(update={"left": left.model_copy(update={"stations": bare})})
        with self.assertRaises(NotSolvable):
            find(f.with_survey(inputs, rails=rails))

    def test_progress_counts_up_and_it_can_be_stopped(self):
        inputs = f.demo("arc")
        many = Stock(thicknesses_mm=(1.0, 1.5, 2.0, 3.0), cap_heights_mm=(20.0, 30.0))
        search = search_reinforcement(inputs.survey, inputs.design.operations, "axle-notch", many)
        first, second = next(search), next(search)
        self.assertLess(first[0], second[0])
        self.assertEqual(first[1], second[1])
        search.close()
