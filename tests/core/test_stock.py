"""What a design takes and how it comes out of what is sold: blanks, bolts, weld metal, the cut plan of tube, the list."""

import csv
import io
import itertools
import math

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st
from openpyxl import load_workbook

from nodulant.base.errors import InputError
from nodulant.evaluate import evaluate
from nodulant.formats.order_tables import order_csv, order_xlsx
from nodulant.geometry.outline import polygon
from nodulant.job.rack import Offcut, Prices, RackTube, Sheet, corners_of
from nodulant.materials.steel import DENSITY_KG_PER_MM3
from nodulant.materials.weld import bead_mm2
from nodulant.parts.bought import BoltsNeeded
from nodulant.parts.part import Part
from nodulant.search.steps import to_the_end
from nodulant.stock.cutting import cut_plan
from nodulant.stock.needs import PlatePiece, blank_of, bolt_length_mm, needs_of
from nodulant.stock.nesting.plan import LeftOut, nest
from nodulant.stock.order import DEPOSITED, STRIP_MM, order_list, strips_of
from nodulant.units.inline import told
from tests import fixtures as f
from tests.core.test_operations import made

QUICK = settings(deadline=None, derandomize=True, max_examples=40)
ROLLS = {
    1380: 22, 1520: 25, 1560: 12, 1710: 14, 1820: 18, 1880: 18, 1930: 20,
    2000: 10, 2050: 12, 2100: 14, 2140: 16, 2150: 18, 2200: 20,
}  # fmt: skip


def fewest(lengths, stock, kerf):
    """Fewest equal bars by trying every way to part a few pieces into groups."""
    best = len(lengths)
    for homes in itertools.product(range(len(lengths)), repeat=len(lengths)):
        bars = [[x for x, h in zip(lengths, homes, strict=True) if h == k] for k in set(homes)]
        if all(sum(b) + kerf * (len(b) - 1) <= stock + 1e-9 for b in bars):
            best = min(best, len(bars))
    return best


class CutPlans(SimpleTestCase):
    def test_the_paper_mill_of_the_textbooks(self):
        """219 rolls from masters of 5600 mm take 73: the worked cutting-stock example of general encyclopedias (from memory)."""
        plan = cut_plan([w for w, n in ROLLS.items() for _ in range(n)], [5600], 0)
        self.assertEqual((len(plan.bars), plan.proven), (73, True))
        self.assertAlmostEqual(plan.bought_mm / sum(w * n for w, n in ROLLS.items()) - 1, 0.00403, places=4)

    @QUICK
    @given(st.lists(st.integers(200, 1500), min_size=1, max_size=6), st.sampled_from([0, 3]))
    def test_no_way_to_part_them_takes_fewer(self, lengths, kerf):
        plan = cut_plan(lengths, [2000], kerf)
        self.assertEqual(len(plan.bars), fewest(lengths, 2000, kerf))
        self.assertTrue(plan.proven)
        self.assertEqual(sorted(p for b in plan.bars for p in b.pieces_mm), sorted(lengths))
        for bar in plan.bars:
            self.assertLessEqual(sum(bar.pieces_mm) + kerf * (len(bar.pieces_mm) - 1), 2000)

    def test_the_least_length_is_bought_where_two_are_sold(self):
        plan = cut_plan([1000, 900, 700, 700, 450, 450, 300], [2000, 3000], 2)
        self.assertEqual((plan.bought_mm, plan.proven), (5000, True))

    def test_a_piece_as_long_as_the_bar_needs_no_cut(self):
        plan = cut_plan([3000, 1499, 1498], [3000], 3)
        self.assertEqual([b.pieces_mm for b in plan.bars], [(3000,), (1499, 1498)])

    def test_what_cannot_be_cut(self):
        for lengths, stock, kerf in (([6001], [6000], 3), ([100], [6000], -1), ([100], [], 3), ([0], [6000], 3)):
            with self.subTest(lengths=lengths, kerf=kerf), self.assertRaises(InputError):
                cut_plan(lengths, stock, kerf)
        self.assertEqual(cut_plan([], [6000], 3).bars, ())


class FromTheRack(SimpleTestCase):
    def test_what_stands_in_the_rack_is_cut_first_and_each_length_once(self):
        plan = cut_plan([900, 900, 400], [6000], 3, have_mm=[1000, 1000, 450])
        self.assertEqual((plan.bought_mm, plan.proven), (0.0, True))
        self.assertEqual(
            sorted((b.stock_mm, b.pieces_mm) for b in plan.bars), [(450, (400,)), (1000, (900,)), (1000, (900,))]
        )
        one = cut_plan([5500, 900], [6000], 3, have_mm=[1000])
        self.assertEqual([(b.stock_mm, b.in_rack) for b in one.bars], [(1000, True), (6000, False)])

    def test_a_short_length_before_a_long_one(self):
        plan = cut_plan([400], [6000], 3, have_mm=[3000, 450])
        self.assertEqual([(b.stock_mm, b.in_rack) for b in plan.bars], [(450, True)])

    def test_one_that_is_too_short_for_anything_stays(self):
        plan = cut_plan([900], [2000], 3, have_mm=[500])
        self.assertEqual([(b.stock_mm, b.in_rack) for b in plan.bars], [(2000, False)])

    @QUICK
    @given(st.lists(st.integers(200, 1500), min_size=1, max_size=5), st.lists(st.integers(300, 1600), max_size=3))
    def test_every_piece_is_cut_once_whatever_the_rack_holds(self, lengths, have):
        plan = cut_plan(lengths, [2000], 3, have_mm=have)
        self.assertEqual(sorted(p for b in plan.bars for p in b.pieces_mm), sorted(lengths))
        own = sorted(b.stock_mm for b in plan.bars if b.in_rack)
        for size in own:
            self.assertLessEqual(own.count(size), have.count(size))
        self.assertLessEqual(plan.bought_mm, 2000 * fewest(lengths, 2000, 3))

    def test_the_order_buys_no_tube_that_the_rack_has(self):
        inputs = f.job().inputs("step")
        before = next(t for t in order_list(inputs).tubes if t.pieces[0].profile == "tube")
        have = tuple(
            RackTube(od_mm=before.od_mm, wall_mm=before.wall_mm, long_mm=p.long_mm + 5, steel_id=p.steel_id)
            for p in before.pieces
            for _ in range(p.count)
        )
        rack = inputs.shop.rack.model_copy(update={"tubes": have})
        stocked = inputs.model_copy(update={"shop": inputs.shop.model_copy(update={"rack": rack})})
        self.assertEqual(inputs.content_hash(), stocked.content_hash())
        row = next(
            r for r in order_list(stocked).rows if r.section == "tube" and r.size_mm == (before.od_mm, before.wall_mm)
        )
        self.assertEqual((row.quantity, row.in_rack), (0, True))
        self.assertIn("of the rack first", row.words)


class TubeLeft(SimpleTestCase):
    def test_what_is_left_stands_in_the_rack_and_what_was_used_is_gone(self):
        """Bar by bar: used lengths gone, rests of 100 mm and more kept; nothing is made of nothing."""
        inputs = f.job().inputs("step")
        first = next(t for t in order_list(inputs).tubes if t.pieces[0].profile == "tube")
        size = {"od_mm": first.od_mm, "wall_mm": first.wall_mm, "steel_id": first.pieces[0].steel_id}
        have = (
            RackTube(**size, long_mm=first.pieces[0].long_mm + 250),
            RackTube(od_mm=90.0, wall_mm=3.0, long_mm=400.0),
        )
        rack = inputs.shop.rack.model_copy(update={"tubes": have})
        order = order_list(inputs.model_copy(update={"shop": inputs.shop.model_copy(update={"rack": rack})}))
        self.assertIn(have[1], order.rack_after)
        self.assertNotIn(have[0], order.rack_after)
        round_ = [t for t in order.tubes if t.pieces[0].profile == "tube"]
        kept = [math.floor(b.left_mm) for t in round_ for b in t.plan.bars if b.left_mm >= 100]
        self.assertEqual(sorted(t.long_mm for t in order.rack_after), sorted([*kept, 400.0]))


class UsedUp(SimpleTestCase):
    """Discs and drills by hand."""

    def rows(self, inputs):
        return {r.what: r for r in order_list(inputs).rows if r.section == "tools"}

    def test_a_cut_through_an_open_rail_parts_its_web_and_flanges(self):
        inputs = f.with_operations(f.demo(), made("splice"))
        row = self.rows(inputs)["thin cutting discs"]
        # web 150 and two flanges of 60, on both rails; 2700 mm2 with its wall of 5
        self.assertIn("540 mm of cut", told(row.words, "mm"))
        self.assertEqual(row.quantity, 1)

    def test_every_hole_has_its_chain(self):
        inputs = f.with_operations(
            f.demo(), made("bracket", fixing="bolted"), made("hole", diameter_mm=40.0).model_copy(update={"id": "own"})
        )
        rows = {told(what, "mm"): row for what, row in self.rows(inputs).items()}
        self.assertIn("hole saw, 40 mm", rows)
        self.assertTrue(rows["hole saw, 40 mm"].words.startswith("2 holes"))
        self.assertTrue(any(what.startswith("pilot drill, 3.1") for what in rows))

    def test_nothing_is_used_up_where_nothing_is_done(self):
        self.assertEqual(self.rows(f.with_operations(f.demo())), {})


class Priced(SimpleTestCase):
    def test_what_has_a_price_is_summed_and_the_rest_is_counted(self):
        inputs = f.job().inputs("step")
        plain = order_list(inputs)
        self.assertEqual((plain.price, plain.unpriced), (0.0, len(plain.rows)))
        prices = Prices(tube_kg=3.0, wire_kg=10.0, disc=2.0)
        shop = inputs.shop.model_copy(
            update={
                "rack": inputs.shop.rack.model_copy(update={"prices": prices}),
                "rates": inputs.shop.rates.model_copy(update={"plate_kg": 2.0}),
            }
        )
        order = order_list(inputs.model_copy(update={"shop": shop}))
        wire = next(r for r in order.rows if r.what == "solid wire")
        plates = [r for r in order.rows if r.section == "plate"]
        self.assertAlmostEqual(wire.price, 10 * wire.quantity, delta=0.01)
        for row in plates:
            self.assertAlmostEqual(row.price, 2 * row.mass_kg, delta=0.01)
        self.assertAlmostEqual(order.price, sum(r.price for r in order.rows if r.price is not None), delta=0.01)
        self.assertEqual(order.unpriced, sum(r.price is None for r in order.rows))


class OnSheets(SimpleTestCase):
    def test_laid_out_plates_are_bought_by_the_sheet_and_offcuts_are_not_bought(self):
        inputs = f.demo()
        offcut = Offcut(id="own", name="own", thickness_mm=6.0, corners=corners_of(400.0, 200.0))
        sheets = (Sheet(long_mm=2500.0, wide_mm=1250.0, price=90.0),)
        rack = inputs.shop.rack.model_copy(update={"offcuts": (offcut,), "sheets": sheets})
        inputs = inputs.model_copy(update={"shop": inputs.shop.model_copy(update={"rack": rack})})
        plan = to_the_end(nest(inputs, 3.0))
        rows = [r for r in order_list(inputs, plan=plan).rows if r.section == "plate"]
        self.assertEqual(sum(r.quantity for r in rows), sum(s.offcut_id is None for s in plan.sheets))
        own = next(r for r in rows if r.in_rack)
        self.assertEqual((own.quantity, own.price, own.mass_kg), (0, 0.0, 0.0))
        for row in rows:
            if not row.in_rack:
                self.assertAlmostEqual(row.price, 90.0 * row.quantity)
                self.assertAlmostEqual(row.mass_kg, 2.5 * 1.25 * row.size_mm[0] * 7.85 * row.quantity, places=3)

    def test_where_a_plate_is_left_out_the_list_stays_by_strips(self):
        inputs = f.demo()
        plan = to_the_end(nest(inputs, 3.0))
        left = plan.model_copy(update={"left_out": (LeftOut(name="a", side="left", words="no sheet"),)})
        self.assertEqual(order_list(inputs, plan=left).rows, order_list(inputs).rows)


def section_mm2(tube):
    """Outside less inside, by hand."""
    od, wide, wall = tube.od_mm, tube.wide_mm, tube.wall_mm
    if tube.profile == "tube":
        return math.pi / 4 * (od**2 - (od - 2 * wall) ** 2)
    return od * wide - (od - 2 * wall) * (wide - (wall if tube.profile == "channel" else 2 * wall))


class Needed(SimpleTestCase):
    def test_plates_and_tubes_weigh_what_the_evaluation_says_was_added(self):
        for option in ("arc", "straight", "step"):
            inputs = f.job().inputs(option)
            result, needs = evaluate(inputs), needs_of(inputs)
            plates = sum(p.mass_kg * p.count for p in needs.plates)
            # a member's wall counts there as a sheet of its middle girth, its exact section here
            members = [t for t in needs.tubes if "joint to joint" not in t.name]
            self.assertTrue(members)
            kg = sum(section_mm2(t) * t.long_mm * t.count * DENSITY_KG_PER_MM3 for t in members)
            self.assertAlmostEqual(plates + kg, result.mass_added_kg, delta=1e-6 * result.mass_added_kg)
            self.assertAlmostEqual(sum(w.length_mm for w in needs.welds), result.weld_mm, delta=1e-3)

    def test_links_are_as_long_as_their_readings(self):
        inputs = f.job().inputs("step")
        planned = {round(r.spec.planned, 2) for r in evaluate(inputs).readings if r.spec.key.endswith("-length")}
        tubes = [t for t in needs_of(inputs).tubes if "joint to joint" in t.name]
        self.assertEqual({round(t.long_mm, 2) for t in tubes}, planned)
        self.assertEqual(sum(t.count for t in tubes), sum(len(s.layout.links()) for s in inputs.design.suspensions))

    def test_a_turned_plate_has_the_blank_of_the_plate_that_is_not(self):
        turn = math.radians(33)
        corners = [(0, 0), (300, 0), (300, 80), (0, 80)]
        turned = [
            (x * math.cos(turn) - y * math.sin(turn), x * math.sin(turn) + y * math.cos(turn)) for x, y in corners
        ]
        part = Part(
            id="a/b/left", operation="a", role="b", side="left", name="b", face="outer", outline=polygon(turned),
            thickness_mm=6.0, steel_id="mild",
        )  # fmt: skip
        long, wide = blank_of(part.outline)
        self.assertAlmostEqual(long, 300, places=6)
        self.assertAlmostEqual(wide, 80, places=6)

    def test_a_bolt_is_long_enough_and_of_a_length_that_is_sold(self):
        """M12 through 30 mm: two washers of 2.4, a nut of 10.8, two threads of 1.75: 49.1, sold as 50."""
        row = BoltsNeeded(name="x", size="M12", grade="10.9", grip_mm=30.0, count=1)
        self.assertEqual(bolt_length_mm(row), 50.0)
        inch = BoltsNeeded(name="x", size="1/2 UNC", grade="grade 8", grip_mm=25.4, count=1)
        self.assertAlmostEqual(bolt_length_mm(inch) / 25.4, 2.0)

    def test_a_bolted_notch_asks_for_its_bolts_and_crush_sleeves(self):
        inputs = f.job().inputs("arc")
        bare = needs_of(inputs)
        self.assertEqual(bare.bolts, ())
        notch = next(op for op in inputs.design.operations if op.kind == "notch")
        bolts = notch.model_fields["bolts"].annotation.__args__[0](size="M12", grade="10.9", per_end=3)
        bolted = notch.model_copy(update={"bolts": bolts, "cap": None})
        ops = tuple(bolted if op is notch else op for op in inputs.design.operations)
        design = inputs.design.model_copy(update={"operations": ops})
        needs = needs_of(inputs.model_copy(update={"design": design}))
        holes = sum(
            len(p.holes) for p in evaluate(inputs.model_copy(update={"design": design})).parts if p.role == "outer"
        )
        self.assertEqual(sum(b.count for b in needs.bolts), holes)
        self.assertEqual(holes, 12)  # three at both ends of both rails' plates
        # through the plate, the rail and what boxes it over its lips
        box = next(op for op in ops if op.kind == "boxing")
        wide = inputs.survey.rails.left.stations[0].width_mm + (box.thickness_mm if box.fit == "over-lips" else 0.0)
        self.assertAlmostEqual(needs.bolts[0].grip_mm, notch.outer_plate.thickness_mm + wide)
        one_wall = bolted.model_copy(update={"bolts": bolts.model_copy(update={"nuts": "captive"})})
        ops = tuple(one_wall if op is bolted else op for op in ops)
        captive = needs_of(inputs.model_copy(update={"design": design.model_copy(update={"operations": ops})}))
        wall = inputs.survey.rails.left.stations[0].wall_mm
        self.assertAlmostEqual(captive.bolts[0].grip_mm, notch.outer_plate.thickness_mm + wall)

    def test_a_fillet_of_5_weighs_108_grams_a_metre(self):
        """Triangle of 12.5 mm2 with a tenth of crown, 7.85 g/cm3: 108 g/m."""
        self.assertAlmostEqual(bead_mm2("fillet", 5.0) * 1000 * DENSITY_KG_PER_MM3, 0.1079, places=3)


def piece(long, wide, count=1):
    return PlatePiece(
        name="x", operation="x", sides="left", thickness_mm=6.0, steel_id="mild", long_mm=max(long, wide),
        wide_mm=min(long, wide), area_mm2=long * wide, mass_kg=1.0, count=count,
    )  # fmt: skip


class Strips(SimpleTestCase):
    @QUICK
    @given(st.lists(st.tuples(st.integers(20, 900), st.integers(20, 400), st.integers(1, 4)), min_size=1, max_size=12))
    def test_every_blank_finds_room_and_no_strip_is_longer_than_is_sold(self, rows):
        pieces = [piece(*row) for row in rows]
        wide, lengths = strips_of(pieces, 3.0)
        self.assertGreaterEqual(wide * sum(lengths), sum(p.long_mm * p.wide_mm * p.count for p in pieces))
        self.assertGreaterEqual(wide, max(p.wide_mm for p in pieces))
        self.assertLessEqual(max(lengths), STRIP_MM)

    def test_alike_blanks_lie_end_to_end(self):
        self.assertEqual(strips_of([piece(500, 100, 4)], 3.0), (113.0, [4 * 503.0 + 10.0]))

    def test_small_blanks_share_a_shelf(self):
        """A strip as wide as the large plate: three of the small ones fit across it, one shelf for all three."""
        wide, lengths = strips_of([piece(400, 160), piece(60, 45, 3)], 3.0)
        self.assertEqual((wide, lengths), (173.0, [403.0 + 48.0 + 48.0 + 10.0]))

    def test_a_blank_longer_than_any_strip_stands_alone(self):
        _, lengths = strips_of([piece(3500, 100), piece(500, 100)], 3.0)
        self.assertEqual(lengths, [3513.0, 513.0])


class Lists(SimpleTestCase):
    def test_the_list_weighs_its_plates_tubes_and_beads(self):
        inputs = f.job().inputs("step")
        order, needs = order_list(inputs), needs_of(inputs)
        laid = sum(w.volume_mm3 for w in needs.welds) * DENSITY_KG_PER_MM3
        wire = next(r for r in order.rows if r.what == "solid wire")
        self.assertAlmostEqual(wire.quantity, laid / DEPOSITED)
        plates = sum(p.mass_kg * p.count for p in order.plates)
        self.assertGreater(order.added_kg, plates + laid)
        bought = sum(r.mass_kg for r in order.rows if r.section == "plate")
        self.assertGreater(bought, plates)

    def test_plate_that_is_not_in_the_rack_is_told(self):
        inputs = f.job().inputs("arc")
        shop = inputs.shop.model_copy(update={"plate_stock_mm": (5.0,)})
        rows = [r for r in order_list(inputs.model_copy(update={"shop": shop})).rows if r.section == "plate"]
        self.assertEqual([r.in_rack for r in rows], [False, True, False])

    def test_a_tube_longer_than_a_bar_is_refused_by_name(self):
        with self.assertRaisesRegex(InputError, "longer than any bar"):
            order_list(f.job().inputs("step"), bar_mm=500.0)

    def test_the_workbook_reads_back_and_has_no_foreign_unit(self):
        order = order_list(f.job().inputs("step"))
        for style, foreign in (("mm", '"'), ("in16", " mm")):
            book = load_workbook(io.BytesIO(order_xlsx(order, style)))
            self.assertEqual(book.sheetnames, ["Order", "Plates", "Tube", "Welds"])
            cells = [str(c.value) for sheet in book for row in sheet.iter_rows() for c in row if c.value is not None]
            typed = {op.name for op in f.job().inputs("step").design.operations}  # stays as it was typed
            self.assertEqual([c for c in cells if (foreign in c or "[[" in c) and c not in typed], [])
            self.assertEqual(sum(row[3] for row in book["Plates"].iter_rows(min_row=2, values_only=True)),
                             sum(p.count for p in order.plates))  # fmt: skip
            rows = list(csv.reader(io.StringIO(order_csv(order, style).decode("utf-8-sig"))))
            self.assertEqual(len(rows), len(order.rows) + 1)
