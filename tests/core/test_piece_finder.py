"""What goes between two ends of a cut rail: found against trying all, and what a gusset takes."""

from django.test import SimpleTestCase

from nodulant.base.errors import NotSolvable, UnknownReference
from nodulant.evaluate import evaluate
from nodulant.frame.model import placed_on, planned_state
from nodulant.frame.parts import on_rail
from nodulant.parts.joint import Joint
from nodulant.search.piece import PASSES, Whole, find_piece
from nodulant.search.piece_sets import piece_rows, with_piece
from nodulant.search.plate_sets import Stock
from tests import fixtures as f
from tests.core.test_operations import made

SMALL = Stock(thicknesses_mm=(3.0, 5.0), cap_heights_mm=(50.0,))


def whole(inputs):
    d = inputs.design
    return Whole(inputs.survey, d.operations, d.seats, d.crossmembers, d.loads, d.limits, d.targets.drop_mm)


def stepped(**more):
    return f.with_operations(f.demo(), made("z-step", **more))


def worst(inputs, op):
    """Least margin of the piece's checks in a whole evaluation, and the piece's mass a side."""
    result = evaluate(f.with_operations(inputs, op))
    own = [
        c for c in result.checks if c.id.split(":")[1].startswith("it") and c.limit_id.startswith(("joint-", "seam"))
    ]
    mass = sum(p.mass_kg() for p in result.parts if p.side == "left" and p.operation == "it")
    return min(c.margin for c in own), mass


class AgainstTryingAll(SimpleTestCase):
    """'The lightest' is a promise."""

    def test_no_lighter_set_passes(self):
        inputs = stepped()
        found = find_piece(whole(inputs), "it", SMALL)
        best = found.choices[0]
        self.assertEqual([c.mass_kg for c in found.choices], sorted(c.mass_kg for c in found.choices))
        on = self.place(inputs)
        tried = 0
        for row in piece_rows(inputs.design.operations[0], SMALL, on.here.height):
            margin, mass = worst(inputs, with_piece(inputs.design.operations[0], row, on, "mild"))
            tried += 1
            if mass < best.mass_kg - 1e-9:
                self.assertLess(margin, PASSES, row)
        self.assertEqual(tried, found.tried)

    def place(self, inputs):
        placed = placed_on(inputs.survey, inputs.design.operations, "left", planned_state(inputs.design.operations))
        return on_rail(inputs.survey, "left", placed[0], placed)

    def test_every_choice_passes_in_a_whole_evaluation(self):
        inputs = stepped(method="riser")
        found = find_piece(whole(inputs), "it", SMALL)
        self.assertTrue(found.choices)
        for choice in found.choices:
            margin, mass = worst(inputs, choice.operation)
            self.assertGreaterEqual(margin, PASSES)
            self.assertAlmostEqual(margin, choice.least_margin, places=6)
            self.assertAlmostEqual(mass, choice.mass_kg, places=9)

    def test_a_set_on_rail_gets_its_overlap(self):
        found = find_piece(whole(stepped(method="set-on", rise_mm=170.0)), "it", SMALL)
        for choice in found.choices:
            self.assertEqual(choice.operation.overlap_mm, choice.overlap_mm)

    def test_none_in_thin_stock_and_its_reason(self):
        found = find_piece(whole(stepped()), "it", Stock(thicknesses_mm=(1.0,), cap_heights_mm=(50.0,)))
        self.assertFalse(found.choices)
        self.assertIn("no set of the stock passes", found.reason)

    def test_wrong_asking(self):
        with self.assertRaises(UnknownReference):
            find_piece(whole(f.demo()), "axle-notch", SMALL)
        untied = f.with_survey(stepped(), crossmembers=())
        with self.assertRaises(NotSolvable):
            find_piece(whole(untied), "it", SMALL)


class Gussets(SimpleTestCase):
    """A gusset takes what its strip carries, and no more than its lever gives."""

    def joint(self, **more):
        fields = {"operation": "it", "side": "left", "kind": "riser", "at_mm": 0.0, "behind_mm": 1.0, "area": 1.0}
        # 2 i_y / s_y = 150 mm deep
        return Joint(
            **fields, i_y=7.5e6, i_z=1e6, j=1e6, s_y=1e5, s_z=1e4, yield_reference_mpa=250, yield_mpa=250, **more
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
