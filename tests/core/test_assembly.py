"""Assembly sheets: every part once, every seam with its length; their sums are the added mass and the order's wire.

Lengths by hand; weld symbols as ISO 2553 and AWS A2.4 have them (both from memory); PDF read back with poppler.
"""

import subprocess
import tempfile
from pathlib import Path

from django.test import SimpleTestCase

from nodulant.assembly.sheet import STITCH_MM, WeldRow, assembly_sheets
from nodulant.evaluate import evaluate
from nodulant.formats.assembly_pdf import assembly_pdf
from nodulant.formats.pattern_pdf import TitleBlock
from nodulant.formats.tables_csv import parts_csv, welds_csv
from nodulant.formats.weld_symbol import usual_symbols, weld_texts
from nodulant.frame.model import placed_on, planned_state
from nodulant.frame.parts import added_parts
from nodulant.job.riding import in_place
from nodulant.stock.needs import needs_of, plates_of
from nodulant.units.inline import told_in
from tests import fixtures as f
from tests.core.test_operations import ALL, made
from tests.core.test_patterns_of_every_cut import FULL

TITLE = TitleBlock("A job", "an option, revision 1", "0123456789abcdef")


def alone(kind, **fields):
    return f.alone(f.demo(), made(kind, **fields))


def jobs():
    for option in f.job().options:
        yield option.id, in_place(f.job().inputs(option.id))
    for kind in ALL:
        yield kind, alone(kind, **FULL.get(kind, {}))


def text_of(data, first=None):
    with tempfile.TemporaryDirectory() as folder:
        source = Path(folder) / "p.pdf"
        source.write_bytes(data)
        pages = ["-f", str(first), "-l", str(first)] if first else []
        return subprocess.run(
            ["pdftotext", "-layout", *pages, str(source), "-"], check=True, capture_output=True, text=True
        ).stdout


def beads(inputs):
    return {(w.joins, w.kind, round(w.leg_mm, 2)): w for s in assembly_sheets(inputs) for w in s.welds}


class Sums(SimpleTestCase):
    def test_every_part_is_on_one_sheet_once_and_weighs_what_the_design_adds(self):
        for name, inputs in jobs():
            with self.subTest(name):
                sheets = assembly_sheets(inputs)
                state, ops = planned_state(inputs.design.operations), inputs.design.operations
                parts = [
                    p
                    for side in ("left", "right")
                    for p in added_parts(inputs.survey, side, placed_on(inputs.survey, ops, side, state)).parts
                ]
                count = sum(p.count for p in parts) + len(inputs.design.crossmembers)
                self.assertEqual(sum(row.count for s in sheets for row in s.parts), count)
                self.assertAlmostEqual(sum(s.mass_kg for s in sheets), evaluate(inputs).mass_added_kg, places=6)

    def test_the_weld_map_is_the_wire_list(self):
        for name, inputs in jobs():
            with self.subTest(name):
                on_sheets = sum(s.bead_mm for s in assembly_sheets(inputs))
                ordered = sum(w.length_mm for w in needs_of(inputs).welds)
                self.assertAlmostEqual(on_sheets, ordered, delta=0.01 * max(ordered, 1e-9))

    def test_whatever_is_welded_has_its_seam(self):
        for name, inputs in jobs():
            for sheet in assembly_sheets(inputs):
                named = {end for w in sheet.welds for end in w.joins}
                for part in sheet.parts:
                    if name == "steering-mount":
                        continue  # bolted: never welded
                    with self.subTest(f"{name} {part.name}"):
                        self.assertIn(f"{part.number} {part.name}", named)

    def test_numbers_are_in_order(self):
        for _, inputs in jobs():
            for sheet in assembly_sheets(inputs):
                self.assertEqual([p.number for p in sheet.parts], list(range(1, len(sheet.parts) + 1)))
                self.assertEqual([w.number for w in sheet.welds], list(range(1, len(sheet.welds) + 1)))


class Lengths(SimpleTestCase):
    """By hand on the demo's rail, an open channel 150 high and 60 wide at the cut."""

    def test_a_butt_runs_round_web_and_flanges_of_an_open_rail(self):
        (row,) = [w for w in beads(alone("splice")).values() if w.kind == "butt"]
        self.assertAlmostEqual(row.bead_mm, 150 + 2 * 60, delta=0.5)
        self.assertEqual(row.joins, ("the rail", "the rail behind"))
        self.assertEqual(row.side, "both")
        self.assertAlmostEqual(row.total_mm, 2 * row.bead_mm)

    def test_and_all_round_a_boxed_one(self):
        base = alone("splice")
        over = {
            "start": {"anchor_id": "rear-axle", "offset_mm": -1200.0},
            "end": {"anchor_id": "rear-axle", "offset_mm": -300.0},
        }
        box = made("boxing", **over).model_copy(update={"id": "box"})
        inputs = f.with_operations(base, *base.design.operations, box)
        (row,) = [w for w in beads(inputs).values() if w.kind == "butt"]
        self.assertAlmostEqual(row.bead_mm, 2 * (150 + 60), delta=12.0)
        self.assertGreater(row.bead_mm, 400)

    def test_a_post_has_two_butts_and_four_corners(self):
        sheets = assembly_sheets(alone("z-step", rise_mm=75.0))
        (sheet,) = sheets
        self.assertEqual([w.kind for w in sheet.welds if "plate" not in w.joins[1]], ["fillet", "butt", "butt"])
        self.assertAlmostEqual(sheet.welds[0].bead_mm, 4 * (150 + 75), delta=0.5)

    def test_tabs_are_welded_on_both_their_sides(self):
        sheet = assembly_sheets(alone("bracket", tabs={"width_mm": 50.0}))[0]
        tabs = next(w for w in sheet.welds if "tab" in w.joins[1])
        self.assertAlmostEqual(tabs.bead_mm, 2 * 2 * 50.0)
        self.assertEqual(tabs.number, 1)

    def test_a_bolted_bracket_has_no_weld_on_the_rail_and_its_bolts(self):
        sheet = assembly_sheets(alone("bracket", fixing="bolted"))[0]
        self.assertFalse([w for w in sheet.welds if "the rail" in w.joins])
        self.assertTrue(sheet.bolts)

    def test_a_bolted_notch_bracket_is_welded_to_itself_only(self):
        inputs = f.with_notch(f.demo(), bolts={"size": "M12", "grade": "10.9", "per_end": 4})
        sheet = next(s for s in assembly_sheets(inputs) if s.bolts)
        self.assertFalse([w for w in sheet.welds if "the rail" in w.joins])
        liner = next(p for p in plates_of(inputs) if p.role == "liner")
        x0, _, x1, _ = liner.outline.bounds()
        self.assertAlmostEqual(sum(w.bead_mm for w in sheet.welds), x1 - x0)

    def test_left_and_right_that_differ_have_rows_of_their_own(self):
        inputs = alone("bracket")
        right = inputs.survey.rails.right
        self.assertEqual({p.side for s in assembly_sheets(inputs) for p in s.parts}, {"both"})
        wide = right.model_copy(
            update={"stations": tuple(s.model_copy(update={"height_mm": s.height_mm + 20}) for s in right.stations)}
        )
        other = alone("plate")
        other = f.with_survey(other, rails=other.survey.rails.model_copy(update={"right": wide}))
        self.assertEqual({p.side for s in assembly_sheets(other) for p in s.parts}, {"left", "right"})


class View(SimpleTestCase):
    def test_the_rail_is_open_where_it_was_cut_through(self):
        (sheet,) = assembly_sheets(alone("z-step", rise_mm=75.0))
        self.assertEqual(len(sheet.view.rail), 2)
        ahead, behind = sorted(sheet.view.rail, key=lambda o: o.bounds()[0])
        self.assertAlmostEqual(behind.bounds()[0] - ahead.bounds()[2], 150.0, delta=0.5)
        self.assertAlmostEqual(behind.bounds()[1] - ahead.bounds()[1], 75.0, delta=1.0)

    def test_the_side_plate_covers_both_ends_in_its_place(self):
        inputs = alone("z-step", **FULL["z-step"])
        (sheet,) = assembly_sheets(inputs)
        plate = next(p for p in sheet.parts if p.name == "Outer side plate")
        seen = next(p for p in sheet.view.parts if p.number == plate.number)
        low = min(o.bounds()[1] for o in sheet.view.rail)
        high = max(o.bounds()[3] for o in sheet.view.rail)
        self.assertTrue(seen.in_place)
        self.assertTrue(low - 1 <= seen.outline.bounds()[1] and seen.outline.bounds()[3] <= high + 1)


class Symbols(SimpleTestCase):
    @staticmethod
    def row(**fields):
        return WeldRow(
            **{
                "number": 1,
                "joins": ("a", "b"),
                "side": "left",
                "kind": "fillet",
                "leg_mm": 6.35,
                "seam_mm": 400.0,
                "bead_mm": 400.0,
                **fields,
            }
        )

    def test_a_running_fillet(self):
        self.assertEqual(weld_texts(self.row(), "iso", "mm"), ("z6.35 mm", "400 mm"))
        self.assertEqual(weld_texts(self.row(bead_mm=406.4), "aws", "in16"), ('1/4"', '16"'))

    def test_all_round_needs_no_length(self):
        self.assertEqual(weld_texts(self.row(all_round=True), "aws", "in16"), ('1/4"', ""))

    def test_beads_and_their_pitch(self):
        stitched = self.row(bead_mm=200.0, stitch_mm=STITCH_MM, pitch_mm=2 * STITCH_MM)
        self.assertEqual(weld_texts(stitched, "iso", "mm"), ("z6.35 mm", "5 × 40 mm (40 mm)"))
        self.assertEqual(weld_texts(stitched, "aws", "mm"), ("6.35 mm", "40 mm-80 mm"))

    def test_what_nobody_chose_follows_the_unit_system(self):
        self.assertEqual([usual_symbols(s) for s in ("mm", "in16", "in32")], ["iso", "aws", "aws"])


class OnPaper(SimpleTestCase):
    def test_every_part_and_weld_is_on_it(self):
        inputs = in_place(f.job().inputs("step"))
        sheets = [told_in(s, "mm") for s in assembly_sheets(inputs)]
        for paper in ("a4", "letter"):
            text = text_of(assembly_pdf(sheets, paper, TITLE, "mm", "iso"))
            self.assertEqual(text.count("\f"), int(text.split("page 1 of ")[1].split()[0]))
            for sheet in sheets:
                self.assertIn(sheet.name, text)
                for part in sheet.parts:
                    self.assertIn(part.name[:14], text)
            self.assertIn("ISO 2553", text)
            self.assertIn("0123456789ab", text)

    def test_a_long_list_goes_on_to_the_next_page(self):
        (sheet,) = assembly_sheets(alone("bracket"))
        long = sheet.model_copy(
            update={"welds": tuple(sheet.welds[0].model_copy(update={"number": n}) for n in range(1, 31))}
        )
        text = text_of(assembly_pdf([long], "a4", TITLE, "in16", "aws"))
        self.assertIn("continued", text)
        for n in range(1, 31):
            self.assertIn(f"W{n} ", text)

    def test_lists_end_with_what_they_sum_to(self):
        inputs = f.demo()
        sheets = assembly_sheets(inputs)
        parts = parts_csv(sheets, "mm").decode("utf-8-sig").splitlines()
        self.assertIn("in all", parts[-1])
        self.assertIn("19.7 kg", parts[-1])
        self.assertEqual(len(welds_csv(sheets, "mm").decode().splitlines()), 1 + sum(len(s.welds) for s in sheets))
