"""Plates made of lengths, nuts welded inside, what lies on the shelf, plates of one work on one sheet."""

import math

from django.test import SimpleTestCase

from nodulant.assembly.sheet import assembly_sheets
from nodulant.evaluate import evaluate
from nodulant.frame.model import placed_on, planned_state
from nodulant.frame.parts import added_parts
from nodulant.geometry.halved import halved
from nodulant.geometry.outline import circle, rectangle
from nodulant.job.rack import OnShelf, Sheet
from nodulant.patterns.collect import patterns_of
from nodulant.search.steps import to_the_end
from nodulant.stock.nesting.plan import nest
from nodulant.stock.order import order_list
from nodulant.units.inline import told
from tests import fixtures as f
from tests.core.test_operations import made

OVER = {
    "start": {"anchor_id": "rear-axle", "offset_mm": -1500.0},
    "end": {"anchor_id": "rear-axle", "offset_mm": 300.0},
}


def boxed(*more, **fields):
    return f.with_operations(f.demo(), *more, made("boxing", **OVER, **fields).model_copy(update={"id": "box"}))


def parts(inputs, side="left"):
    ops = inputs.design.operations
    return added_parts(inputs.survey, side, placed_on(inputs.survey, ops, side, planned_state(ops)))


def with_rack(inputs, **rack):
    own = inputs.shop.rack.model_copy(update=rack)
    return inputs.model_copy(update={"shop": inputs.shop.model_copy(update={"rack": own})})


class Halves(SimpleTestCase):
    def test_a_rectangle_and_what_cannot_be_parted(self):
        one, two = halved(rectangle(0, 0, 100, 40), 30)
        self.assertAlmostEqual(abs(one.area_mm2()), 1200.0)
        self.assertAlmostEqual(abs(two.area_mm2()), 2800.0)
        self.assertIsNone(halved(rectangle(0, 0, 100, 40), 120))
        self.assertIsNone(halved(circle(0, 0, 50), 10))


class Lengths(SimpleTestCase):
    def test_two_lengths_are_the_plate_and_keep_the_cut_s_arc(self):
        notch = f.demo("arc").design.operations[1]
        whole, two = boxed(notch), boxed(notch, lengths=2)
        own = [p for p in parts(two).parts if p.operation == "box"]
        (before,) = [p for p in parts(whole).parts if p.operation == "box"]
        self.assertEqual([p.name for p in own], ["Boxing plate, 1 of 2", "Boxing plate, 2 of 2"])
        self.assertAlmostEqual(sum(abs(p.outline.area_mm2()) for p in own), abs(before.outline.area_mm2()), delta=0.01)
        self.assertTrue(any(abs(v.bulge) > 0.1 for p in own for v in p.outline.vertices))
        self.assertAlmostEqual(evaluate(whole).mass_added_kg, evaluate(two).mass_added_kg, delta=1e-6)

    def test_butts_are_staggered_and_clear_of_the_cut(self):
        """Common practice: 100 mm from a cut's mouth, and not opposite each other."""
        notch = f.demo("arc").design.operations[1]
        inputs = boxed(notch, lengths=3)
        at = {}
        for side in ("left", "right"):
            own = [p for p in parts(inputs, side).parts if p.operation == "box"]
            at[side] = [p.outline.bounds()[2] for p in own[:-1]]
            (cut,) = [
                p
                for p in placed_on(
                    inputs.survey, inputs.design.operations, side, planned_state(inputs.design.operations)
                )
                if p.op.id == notch.id
            ]
            for x in at[side]:
                self.assertFalse(cut.start_mm - 99 < x < cut.end_mm + 99, (x, cut.start_mm, cut.end_mm))
        for one, two in zip(at["left"], at["right"], strict=True):
            self.assertGreaterEqual(abs(one - two), 99.0)

    def test_their_butts_are_welds_and_the_seam_to_the_rail_stays_as_long(self):
        whole, two = boxed(), boxed(lengths=2)

        def beads(inputs, kind):
            return [w for w in assembly_sheets(inputs)[0].welds if w.kind == kind]

        self.assertEqual(beads(whole, "butt"), [])
        butts = beads(two, "butt")
        self.assertTrue(all(w.ground for w in butts))
        high = parts(two).parts[0].outline.bounds()
        self.assertAlmostEqual(sum(w.bead_mm for w in butts) / len(butts), high[3] - high[1], delta=5.0)
        self.assertAlmostEqual(
            sum(w.total_mm for w in beads(two, "fillet")), sum(w.total_mm for w in beads(whole, "fillet")), delta=1.0
        )

    def test_what_no_sheet_holds_goes_on_sheets_in_two(self):
        rack = {"sheets": (Sheet(long_mm=1250.0, wide_mm=700.0),), "offcuts": ()}
        plan = to_the_end(nest(with_rack(boxed(), **rack), 1.0))
        self.assertEqual({one.name for one in plan.left_out}, {"Boxing plate"})
        self.assertIn("Made of lengths", plan.left_out[0].words)
        plan = to_the_end(nest(with_rack(boxed(lengths=2), **rack), 1.0))
        self.assertEqual(plan.left_out, ())


class CaptiveNuts(SimpleTestCase):
    def bracket(self, **bolts):
        own = made("bracket", fixing="bolted", bolts={"size": "M12", "grade": "10.9", "per_end": 2, **bolts})
        return boxed(own)

    def order(self, **bolts):
        return order_list(self.bracket(**bolts)).rows

    def test_nuts_put_on_inside_a_closed_rail_take_a_socket_s_hole(self):
        """2.2 x 12 + 3 = 29.4, up to 30 (common practice)."""
        rows = {told(r.what, "mm"): r for r in self.order(nuts="socket")}
        self.assertEqual(rows["hole saw, 30 mm"].words, "8 holes")
        bolts = next(
            r for what, r in rows.items() if what.startswith("M12") and "grade 10.9" in what and "foot" in r.words
        )
        self.assertIn("a socket's hole of 30 mm opposite each", told(bolts.words, "mm"))

    def test_captive_ones_take_screws_to_centre_them_and_no_socket(self):
        rows = self.order(nuts="captive")
        screws = next(r for r in rows if "countersunk" in r.what)
        self.assertEqual((screws.what, screws.quantity), ("M12 countersunk screws", 2))
        self.assertTrue(any("8 weld nuts, 8 hardened washers" in r.words for r in rows))
        self.assertFalse(any("30 mm" in told(r.what, "mm") for r in rows))

    def test_bolts_through_both_walls_are_as_long_as_the_rail_is_wide(self):
        """Foot 6, rail 60 and the boxing plate of 5 over its lips: M12 grips 71."""
        row = next(r for r in self.order() if r.what.startswith("M12") and "foot" in r.words)
        self.assertIn("grip 71 mm", told(row.words, "mm"))
        row = next(r for r in self.order(nuts="captive") if r.what.startswith("M12") and "foot" in r.words)
        self.assertIn("grip 11 mm", told(row.words, "mm"))

    def test_a_socket_s_hole_weakens_the_rail_and_a_captive_nut_s_does_not(self):
        """Web area out over both walls: bolt 13.5 and socket 30 loose, 13.5 in one wall captive."""
        checks = {c.limit_id for c in evaluate(self.bracket(nuts="captive")).checks}
        self.assertNotIn("sleeve-there", checks)
        self.assertNotIn("sleeve-there", {c.limit_id for c in evaluate(self.bracket(nuts="socket")).checks})
        self.assertIn("sleeve-there", {c.limit_id for c in evaluate(self.bracket()).checks})
        holes = {}
        for name, bolts in (("loose", {"nuts": "socket"}), ("captive", {"nuts": "captive"})):
            op = self.bracket(**bolts).design.operations[0]
            holes[name] = op.bolts.holes_at([(0.0, 75.0)], True)[0]
        self.assertAlmostEqual(holes["loose"].diameter, (13.5 + 30.0) / 2, delta=0.3)
        self.assertTrue(holes["loose"].through)
        self.assertFalse(holes["captive"].through)


class OnTheShelf(SimpleTestCase):
    def test_what_is_there_is_not_bought(self):
        inputs = f.job().inputs("step")
        before = {r.key: r for r in order_list(inputs).rows if r.key}
        wire, bolt = before["wire"], next(r for k, r in before.items() if k.startswith("bolt "))
        shelf = (OnShelf(key="wire", quantity=wire.quantity / 4), OnShelf(key=bolt.key, quantity=bolt.quantity - 1))
        stocked = with_rack(inputs, shelf=shelf)
        after = {r.key: r for r in order_list(stocked).rows if r.key}
        self.assertAlmostEqual(after["wire"].quantity, 0.75 * wire.quantity)
        self.assertAlmostEqual(after["wire"].mass_kg, 0.75 * wire.mass_kg)
        self.assertEqual((after[bolt.key].quantity, after[bolt.key].amount), (1, "1 bolt"))
        self.assertIn("on the shelf taken off", after["wire"].words)
        self.assertEqual(inputs.content_hash(), stocked.content_hash())

    def test_enough_of_it_is_none_to_buy_and_costs_nothing(self):
        inputs = f.job().inputs("step")
        prices = inputs.shop.rack.prices.model_copy(update={"wire_kg": 4.0})
        stocked = with_rack(inputs, prices=prices, shelf=(OnShelf(key="wire", quantity=1000.0),))
        row = next(r for r in order_list(stocked).rows if r.key == "wire")
        self.assertEqual((row.quantity, row.price, row.in_rack), (0.0, 0.0, True))

    def test_keys_name_one_thing_each(self):
        for option in ("arc", "straight", "step"):
            keys = [(r.key, told(r.what, "mm")) for r in order_list(f.job().inputs(option)).rows if r.key]
            self.assertEqual(len({k for k, _ in keys}), len({w for _, w in keys}))


class Together(SimpleTestCase):
    RACK = {"sheets": (Sheet(long_mm=1400, wide_mm=700),), "offcuts": ()}

    def test_the_plates_of_one_work_lie_on_one_sheet(self):
        inputs = f.job().inputs("step")
        plan = to_the_end(nest(with_rack(inputs, together=True, **self.RACK), 4.0))
        self.assertFalse(plan.left_out)
        self.assertEqual(sum(len(s.pieces) for s in plan.sheets), plan.pieces)
        lies = {}
        for k, sheet in enumerate(plan.sheets):
            for p in sheet.pieces:
                lies.setdefault((sheet.thickness_mm, p.operation), set()).add(k)
        apart = {name for (_, name), sheets in lies.items() if len(sheets) > 1}
        self.assertEqual(apart, set(plan.apart))
        loose = to_the_end(nest(with_rack(inputs, **self.RACK), 4.0))
        scattered = {}
        for k, sheet in enumerate(loose.sheets):
            for p in sheet.pieces:
                scattered.setdefault((sheet.thickness_mm, p.operation), set()).add(k)
        self.assertLess(len(apart), sum(len(s) > 1 for s in scattered.values()))


class DatumTicks(SimpleTestCase):
    def test_an_arrow_beside_the_line_points_to_the_datum(self):
        """From a datum behind it the arrow of a left card points rearward, from one ahead forward."""
        for offset in (-900.0, 100.0):
            op = made("notch", place={"anchor_id": "rear-axle", "offset_mm": offset}, depth_mm=40.0)
            inputs = f.with_operations(f.demo(), op)
            for side, way in (("left", 1.0), ("right", -1.0)):
                card = next(
                    p for p in patterns_of(inputs.survey, inputs.design.operations) if p.id == f"it/cut-template/{side}"
                )
                (arrow,) = [s.outline for s in card.strokes if s.layer == "ETCH" and len(s.outline.vertices) == 5]
                pointing = math.copysign(1.0, arrow.vertices[1].x - arrow.vertices[0].x)
                self.assertEqual(pointing, math.copysign(1.0, -offset) * way)


class MarkCards(SimpleTestCase):
    def test_a_raised_subframe_has_its_marks_before_and_after(self):
        op = made("subframe", height_mm=20.0, up_mm=50.0, back_mm=12.0)
        inputs = f.with_operations(f.demo(), op)
        cards = [p for p in patterns_of(inputs.survey, (op,)) if p.id.startswith("it/marks/")]
        self.assertEqual([c.side for c in cards], ["left", "right"])
        sizes = {d.name: d.value_mm for d in cards[0].dimensions}
        self.assertAlmostEqual(sizes["gauge block before, from the rail's underside"], 20.0)
        self.assertAlmostEqual(sizes["gauge block after, from the rail's underside"], 70.0)
        self.assertAlmostEqual(sizes["scribed line moves along"], 12.0)
        crosses = [s.outline.bounds() for s in cards[0].strokes if s.layer == "ETCH"]
        ups = sorted({round((y0 + y1) / 2, 2) for _, y0, _, y1 in crosses})
        self.assertEqual([round(u - ups[0], 2) for u in ups], [0.0, 20.0, 70.0])

    def test_a_donor_s_has_no_place_to_be_found_again(self):
        op = made("subframe", measured="bench")
        self.assertEqual([p for p in patterns_of(f.demo().survey, (op,)) if "/marks/" in p.id], [])
