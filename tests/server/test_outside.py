"""The cutting table and the steel yard that ship with the application: what they take, what they refuse, in words."""

import io

import ezdxf
from django.test import SimpleTestCase
from ezdxf import units

from nodulant.formats.dxf import pattern_dxf
from nodulant.formats.nest_files import sheet_pattern
from nodulant.geometry.outline import circle, rectangle
from nodulant.patterns.pattern import Label, Pattern, Stroke
from nodulant.patterns.torch import for_torch
from nodulant.search.steps import to_the_end
from nodulant.stock.nesting.plan import nest
from nodulant.stock.order import order_list
from nodulant.units.inline import told
from nodulant_server.outside.here import TABLE, YARD
from tests import fixtures as f
from tests.server.base import Shop


def drawing(*shapes, unit=units.MM, closed=True, layer="CUT"):
    document = ezdxf.new("R2010", units=unit)
    for points in shapes:
        document.modelspace().add_lwpolyline(points, close=closed, dxfattribs={"layer": layer})
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue().encode()


SQUARE = [(0, 0), (100, 0), (100, 60), (0, 60)]


def plate(*holes):
    strokes = (
        Stroke(layer="CUT", outline=rectangle(0, 0, 200, 100)),
        *(Stroke(layer="HOLE", outline=h) for h in holes),
    )
    return Pattern(
        id="own",
        title="own",
        side="left",
        part_id="own",
        thickness_mm=6.0,
        steel="mild",
        strokes=strokes,
        labels=(),
        dimensions=(),
        datum="",
    )


class Table(SimpleTestCase):
    def test_contours_length_and_time_by_hand(self):
        answer = TABLE.look("a", drawing(SQUARE), 6.0)
        self.assertTrue(answer.taken)
        self.assertEqual((answer.contours, answer.pierces), (1, 1))
        self.assertAlmostEqual(answer.cut_mm, 320.0, places=6)
        self.assertAlmostEqual(answer.minutes, 320 * 6 / 7500 + 1.0 / 60, places=6)

    def test_inches_are_read_as_inches(self):
        self.assertAlmostEqual(
            TABLE.look("a", drawing([(0, 0), (1, 0), (1, 1), (0, 1)], unit=units.IN), 6.0).cut_mm, 101.6
        )

    def test_a_plate_and_its_holes_with_their_arcs(self):
        answer = TABLE.look("a", pattern_dxf(plate(circle(50, 50, 20))), 6.0)
        self.assertTrue(answer.taken, answer.refused)
        self.assertEqual(answer.pierces, 2)
        self.assertAlmostEqual(answer.cut_mm, 600 + 62.83, delta=0.2)

    def test_refusals_say_what_and_where(self):
        rows = (
            (drawing(SQUARE, closed=False), "open by"),
            (drawing([(0, 0), (4000, 0), (4000, 60), (0, 60)]), "the bed"),
            (drawing([(0, 0), (100, 60), (100, 0), (0, 60)]), "crosses itself"),
            (pattern_dxf(plate(circle(12, 50, 20))), "burns through"),
            (pattern_dxf(plate(circle(50, 50, 20), circle(71, 50, 20))), "burns through"),
            (drawing(SQUARE, layer="ETCH"), "nothing to cut"),
            (drawing(SQUARE, unit=0), "its unit"),
            (b"no drawing at all", "no drawing"),
            (b"\xff\xfe\x00", "no drawing"),
        )
        for data, words in rows:
            with self.subTest(words):
                answer = TABLE.look("a", data, 6.0)
                self.assertFalse(answer.taken)
                self.assertIn(words, answer.refused)
        self.assertIn("the torch cuts up to", TABLE.look("a", drawing(SQUARE), 25.0).refused)

    def test_laid_out_sheets_are_taken_to_size_and_for_the_torch(self):
        plan = to_the_end(nest(f.demo()))
        for sheet in plan.sheets:
            for kerf in (0.0, 2.0):
                answer = TABLE.look(sheet.name, pattern_dxf(sheet_pattern(sheet), kerf_mm=kerf), sheet.thickness_mm)
                self.assertTrue(answer.taken, answer.refused)
                self.assertEqual(answer.pierces, sum(1 + len(p.holes) for p in sheet.pieces))


class Torch(SimpleTestCase):
    def test_lines_stand_half_a_cut_outside_and_holes_inside(self):
        def bounds(kerf, layer):
            space = ezdxf.read(io.StringIO(pattern_dxf(plate(circle(50, 50, 20)), kerf_mm=kerf).decode())).modelspace()
            points = [p for own in space.query(f'LWPOLYLINE[layer=="{layer}"]') for p in own.get_points("xy")]
            return max(x for x, _ in points) - min(x for x, _ in points)

        self.assertAlmostEqual(bounds(2.0, "CUT") - bounds(0.0, "CUT"), 2.0)
        self.assertAlmostEqual(bounds(2.0, "HOLE") - bounds(0.0, "HOLE"), -2.0)

    def test_what_is_smaller_than_the_cut_is_said_and_left(self):
        data = pattern_dxf(plate(circle(50, 50, 1.5)), kerf_mm=2.0).decode()
        self.assertIn("1 is smaller than it and left to size: drill", data)
        self.assertIn("the middle of a 2 mm cut", data)
        inches = pattern_dxf(plate(), kerf_mm=25.4 / 16, style="in16").decode()
        self.assertIn('the middle of a 1/16" cut', inches)

    def test_a_machine_gets_texts_as_single_strokes_that_stay_in_the_plate(self):
        named = plate().model_copy(update={"labels": (Label(text='Outer · L · 1/4"', x=20.0, y=30.0, height_mm=5.0),)})
        for kerf, texts in ((0.0, 1), (2.0, 0)):
            space = ezdxf.read(io.StringIO(pattern_dxf(named, kerf_mm=kerf).decode())).modelspace()
            self.assertEqual(len(space.query('TEXT[layer=="ETCH"]')), texts)
            lines = space.query('LWPOLYLINE[layer=="ETCH"]')
            self.assertEqual(bool(lines), not texts)
            for line in lines:
                self.assertFalse(line.closed)
                for x, y in line.get_points("xy"):
                    self.assertTrue(20 <= x <= 20 + 16 * 0.9 * 5 and 28 <= y <= 36.5, (x, y))

    def test_card_to_scribe_by_stays_to_size(self):
        card = plate().model_copy(update={"thickness_mm": None})
        self.assertEqual(for_torch(card, 2.0), (card, ""))


class Yard(SimpleTestCase):
    def test_every_line_is_answered_and_the_total_is_their_sum(self):
        order = order_list(f.job().inputs("step"))
        answer = YARD.take(order, "units")
        self.assertEqual(len(answer.lines), len(order.rows))
        self.assertAlmostEqual(answer.total, sum(line.price or 0 for line in answer.lines), places=2)
        self.assertEqual(answer.days, max(line.days for line in answer.lines))
        self.assertEqual(answer.number, YARD.take(order, "units").number)

    def test_a_thickness_it_does_not_have_comes_later(self):
        inputs = f.with_notch(f.demo(), outer_plate=f.side_plate(4.3))
        order = order_list(f.alone(inputs, *inputs.design.operations))
        late = [line for line in YARD.take(order, "units").lines if not line.there]
        self.assertEqual(len(late), 1)
        self.assertIn("4.3 mm", told(late[0].what, "mm"))
        self.assertIn("not in the yard", late[0].words)

    def test_nothing_to_buy_is_an_answer_too(self):
        answer = YARD.take(order_list(f.alone(f.demo())), "units")
        self.assertEqual((answer.lines, answer.total, answer.days), ((), 0.0, 0))


class Asked(Shop):
    def test_the_yard_answers_a_draft_in_its_unit(self):
        response, answer = self.send("post", "/yard/order", {"job_id": self.job.pk, "design": self.design()})
        self.assertEqual(response.status_code, 200)
        self.assertTrue(answer["lines"])
        self.assertNotIn("[[", str(answer))
        self.assertEqual(self.send("get", "/yard")[0].status_code, 200)

    def test_the_table_looks_at_a_plan(self):
        plan = to_the_end(nest(f.demo())).model_dump(mode="json")
        response, answers = self.send(
            "post", f"/options/{self.option.pk}/table", {"plan": plan, "unit": "in", "torch": True}
        )
        self.assertEqual(response.status_code, 200)
        self.assertTrue(answers and all(a["taken"] for a in answers), answers)
