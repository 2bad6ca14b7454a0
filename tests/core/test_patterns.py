"""Patterns: every part has one, each lies on the frame by a named feature, text and marks stay on the plate."""

import math

from django.test import SimpleTestCase
from shapely.geometry import LineString, Point, Polygon, box

from nodulant.evaluate import evaluate
from nodulant.formats.dxf import pattern_dxf
from nodulant.frame.ops.notches.notch import Cap
from nodulant.patterns.collect import patterns_of
from nodulant.patterns.text_inside import block_mm
from nodulant.units.inline import as_length, told, told_in
from tests import fixtures as f

FULL = {
    "inner_plate": f.side_plate(4.0, 200.0, inset=6.0, end="taper"),
    "cap": Cap(height_mm=60, thickness_mm=4, overlap_mm=230),
}


def patterns(inputs):
    return patterns_of(inputs.survey, inputs.design.operations)


def met(stroke, block):
    """Whether a line or hole touches a block of text."""
    points = stroke.outline.points(0.1)
    return (Polygon(points) if stroke.outline.closed else LineString(points)).intersects(block)


class EveryPart(SimpleTestCase):
    def test_one_pattern_a_part_and_one_template_a_cut_and_side(self):
        for option in ("arc", "straight"):
            inputs = f.with_notch(f.demo(option), **FULL)
            made, parts = patterns(inputs), evaluate(inputs).parts
            self.assertEqual({p.part_id for p in made if p.part_id}, {p.id for p in parts})
            templates = [p for p in made if p.part_id is None]
            self.assertEqual([p.side for p in templates], ["left", "right"])
            self.assertEqual(len({p.id for p in made}), len(made))

    def test_no_operations_no_patterns(self):
        self.assertEqual(patterns(f.with_operations(f.demo())), ())

    def test_one_side_only(self):
        left = f.with_notch(f.demo(), side="left")
        self.assertEqual([p.side for p in patterns(left) if p.id.startswith("axle-notch")], ["left"] * 3)

    def test_area_of_a_pattern_is_the_parts(self):
        inputs = f.with_notch(f.demo(), **FULL)
        parts = {p.id: p for p in evaluate(inputs).parts}
        for pattern in patterns(inputs):
            if pattern.part_id:
                with self.subTest(pattern.id):
                    part = parts[pattern.part_id]
                    flat = abs(pattern.strokes[0].outline.area_mm2())
                    self.assertAlmostEqual(flat * part.thickness_mm * 7.85e-6, part.mass_kg(), places=9)


class OnTheFrame(SimpleTestCase):
    """So that it can be placed on the frame without measuring again."""

    def test_each_names_its_datum(self):
        for pattern in patterns(f.with_notch(f.demo(), **FULL)):
            self.assertRegex(told(pattern.datum, "mm"), r"(at|[\d.]+ mm (behind|ahead of)) rear axle line")

    def test_the_datum_follows_the_anchor(self):
        inputs = f.demo()
        place = inputs.design.operations[1].place.model_copy(update={"anchor_id": "front-hanger", "offset_mm": 520.0})
        moved = f.with_notch(inputs, place=place)
        datum = next(p.datum for p in patterns(moved) if p.id == "axle-notch/liner/left")
        self.assertEqual(told(datum, "mm"), "520 mm behind front hanger bolt, rear spring")

    def test_the_alignment_line_is_where_the_centre_is(self):
        """Left: front to the left, so the centre lies right of the front edge by half the plate."""
        pattern = next(p for p in patterns(f.demo()) if p.id == "axle-notch/outer/left")
        line = next(s for s in pattern.strokes if s.layer == "ETCH").outline.vertices
        notch = f.demo().design.operations[1]
        self.assertAlmostEqual(line[0].x, notch.half_mouth_mm + notch.outer_plate.overlap_mm, delta=0.1)
        self.assertEqual(line[0].x, line[1].x)

    def test_text_starts_on_the_plate(self):
        for pattern in patterns(f.with_notch(f.demo("straight"), **FULL)):
            with self.subTest(pattern.id):
                plate = Polygon(pattern.strokes[0].outline.points(0.1)).buffer(1.0)
                self.assertTrue(all(plate.contains(Point(t.x, t.y)) for t in pattern.labels))

    def test_text_stands_in_the_metal_off_holes_and_lines(self):
        """Every plate and template of the demo's options that has room for its rows, both sides; few have none."""
        crowded = []
        for option in ("arc", "straight", "step"):
            for pattern in patterns(f.demo(option)):
                wide, high = block_mm([t.text for t in pattern.labels], pattern.labels[0].height_mm)
                first, last = pattern.labels[0], pattern.labels[-1]
                block = box(first.x, last.y, first.x + wide, first.y + first.height_mm)
                self.assertAlmostEqual(first.y + first.height_mm - last.y, high, delta=2.0)
                cut = max((s.outline for s in pattern.strokes if s.layer == "CUT"), key=lambda o: abs(o.area_mm2()))
                inside = Polygon(cut.points(0.1)).covers(block)
                crossed = [s for s in pattern.strokes if s.outline is not cut and met(s, block)]
                if not inside or crossed:
                    crowded.append(pattern.id)
        self.assertLessEqual(len(crowded), 4, crowded)

    def test_critical_and_free_dimensions(self):
        template = next(p for p in patterns(f.demo()) if p.id.endswith("cut-template/left"))
        rows = {d.name: d for d in template.dimensions}
        self.assertTrue(rows["depth"].critical)
        self.assertFalse(rows["rail height"].critical)
        self.assertAlmostEqual(rows["depth"].value_mm, 58.0)
        self.assertTrue(all(d.tolerance_mm > 0 for d in template.dimensions))


class Bends(SimpleTestCase):
    def bends(self, inputs):
        """Places of bend marks along a liner from its middle, mm, and its texts."""
        liner = next(p for p in patterns(inputs) if p.id == "axle-notch/liner/left")
        x0, _, x1, _ = liner.bounds()
        at = sorted(s.outline.vertices[0].x - (x0 + x1) / 2 for s in liner.strokes if s.layer == "BEND")
        return at, " ".join(t.text for t in liner.labels)

    def notch_of(self, depth, **shape):
        return f.with_notch(f.demo("straight"), depth_mm=depth, shape=shape, liner={"thickness_mm": 6.0})

    def test_a_straight_liner_is_marked_where_each_bend_begins_and_ends(self):
        """Between the marks lies the bend's arc at mid-thickness: (R - t/2) x angle (textbook)."""
        shape = {"kind": "trapezoid", "top_width_mm": 100.0, "mouth_width_mm": 140.0, "corner_radius_mm": 15.0}
        at, words = self.bends(self.notch_of(50.0, **shape))
        angle = math.atan2(50.0, 20.0)
        flat = 50.0 - 15.0 * math.tan(angle / 2)
        arc = (15.0 - 3.0) * angle
        for found, expected in zip(at, (-flat - arc, -flat, flat, flat + arc), strict=True):
            self.assertAlmostEqual(found, expected, delta=0.01)
        self.assertIn("bend 68 degrees each", words)
        self.assertIn("marks on the side that meets the cut", words)

    def test_a_rolled_liner_tells_its_inside_radius_and_where_straight_legs_begin(self):
        at, words = self.bends(self.notch_of(40.0, kind="arc", radius_mm=60.0))
        self.assertEqual(at, [])
        self.assertIn(f"roll to {as_length(54.0)} inside, 141 degrees", words)
        at, words = self.bends(self.notch_of(80.0, kind="arc", radius_mm=60.0))
        self.assertEqual([round(x, 2) for x in at], [round(s * 57.0 * math.pi / 2, 2) for s in (-1, 1)])
        self.assertIn(f"180 degrees, straight legs of {as_length(20.0)}", words)

    def test_how_it_is_formed_stands_on_the_drawing_s_note_too(self):
        liner = next(p for p in patterns(f.demo("straight")) if p.id == "axle-notch/liner/left")
        self.assertIn("bend", liner.formed)
        self.assertIn("bend 6", pattern_dxf(told_in(liner, "mm")).decode())

    def test_the_boxing_plate_carries_the_cut(self):
        box = next(p for p in patterns(f.demo()) if p.id == "box-rear/boxing/left")
        self.assertTrue(any(abs(v.bulge) > 0.1 for v in box.strokes[0].outline.vertices))

    def test_a_wavy_rail_makes_a_wavy_plate(self):
        """Heights by station: the plate follows the measured rail, not the nominal one."""
        survey = f.demo().survey
        bumped = tuple(
            s.model_copy(update={"height_mm": 156.0}) if s.x_mm == 2610 else s for s in survey.rails.left.stations
        )
        rails = survey.rails.model_copy(update={"left": survey.rails.left.model_copy(update={"stations": bumped})})
        flat = {p.id: p for p in patterns(f.demo())}
        wavy = {p.id: p for p in patterns(f.with_survey(f.demo(), rails=rails))}
        name = "box-rear/boxing/left"
        self.assertAlmostEqual(wavy[name].bounds()[3] - flat[name].bounds()[3], 6.0, delta=0.01)
        self.assertEqual(wavy["box-rear/boxing/right"].bounds(), flat["box-rear/boxing/right"].bounds())
