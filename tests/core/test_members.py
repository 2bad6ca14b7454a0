"""Members from rail to rail: cut length, section, ends; against sizes by hand and two cylinders in space."""

import math

from django.test import SimpleTestCase
from shapely import Polygon

from nodulant.assembly.sheet import assembly_sheets
from nodulant.evaluate import evaluate
from nodulant.frame.columns import rail_at
from nodulant.frame.place import resolve
from nodulant.gauges.collect import gauges_of
from nodulant.materials.steel import DENSITY_KG_PER_MM3
from nodulant.parts.bought import girth_mm
from nodulant.patterns.collect import patterns_of
from nodulant.stock.needs import needs_of
from nodulant.stock.order import order_list
from nodulant.units.inline import as_length, told
from tests import fixtures as f
from tests.core.test_operations import made


def alone(kind, inputs=None, **fields):
    return f.with_operations(inputs or f.demo(), made(kind, **fields))


def inner_faces(inputs):
    """From inner face to inner face by the survey's own sizes: web less width where a channel opens inward, mm."""
    rails = inputs.survey.rails
    return sum(r.web_y_mm - (r.stations[0].width_mm if r.opens == "inward" else 0.0) for r in (rails.left, rails.right))


class Crossmembers(SimpleTestCase):
    def test_a_new_one_is_bought_cut_and_welded(self):
        inputs = alone("crossmember", profile="box", height_mm=60.0, width_mm=40.0, wall_mm=4.0)
        (tube,) = needs_of(inputs).tubes
        self.assertAlmostEqual(tube.long_mm, inner_faces(inputs), delta=0.5)
        # area by hand: outside less inside
        area = 60 * 40 - 52 * 32
        self.assertAlmostEqual(girth_mm("box", 60, 40, 4) * 4, area)
        order = order_list(inputs)
        row = next(r for r in order.rows if r.section == "tube")
        self.assertIn("mild steel box, 60 mm x 40 mm x 4 mm", told(row.what, "mm").lower())
        kg = area * tube.long_mm * DENSITY_KG_PER_MM3
        welds = sum(w.volume_mm3 for w in order.welds) * DENSITY_KG_PER_MM3
        self.assertAlmostEqual(order.added_kg - welds, kg, delta=kg * 0.001)
        (weld,) = assembly_sheets(inputs)[0].welds
        self.assertAlmostEqual(weld.bead_mm, 2 * 2 * (60 + 40), delta=0.1)

    def test_profiles_have_their_section_s_area(self):
        self.assertAlmostEqual(girth_mm("tube", 48, 0, 5) * 5, math.pi / 4 * (48**2 - 38**2))
        self.assertAlmostEqual(girth_mm("channel", 80, 40, 5) * 5, 80 * 40 - 70 * 35)

    def test_one_that_goes_or_moves_buys_nothing(self):
        target = f.demo().survey.crossmembers[0].id
        for act in ("remove", "move"):
            self.assertEqual(needs_of(alone("crossmember", act=act, target_id=target)).tubes, ())

    def test_a_riveted_one_has_no_weld(self):
        self.assertEqual(needs_of(alone("crossmember", end="riveted")).welds, ())


class OnRoundRails(SimpleTestCase):
    def test_the_tube_reaches_into_both_saddles_and_has_its_wrap(self):
        """The longest line lies at the branch's sides; a square cut through its wall ends where the bore does, sqrt(R2 - ri2) off the axis."""
        base = f.on_tubes(f.demo())
        place = made("spring-bridge").place
        high = rail_at(base.survey.rails.left, resolve(place, base.survey.features))[1]
        inputs = f.with_operations(base, made("spring-bridge", height_mm=high / 2, od_mm=48.3, wall_mm=5.0))
        tube = next(t for t in needs_of(inputs).tubes if t.coped)
        axes = sum(r.web_y_mm - high / 2 for r in (base.survey.rails.left, base.survey.rails.right))
        longest = axes - 2 * math.sqrt((high / 2) ** 2 - 19.15**2)
        self.assertAlmostEqual(tube.long_mm, longest, delta=0.1)
        self.assertGreater(tube.long_mm, axes - high)
        (wrap,) = [p for p in patterns_of(inputs.survey, inputs.design.operations) if "/cope-" in p.id]
        self.assertEqual(wrap.count, 2)
        self.assertAlmostEqual(wrap.bounds()[2], math.pi * 48.3, delta=0.1)
        self.assertEqual(tube.ends, "ends coped")

    def test_a_thicker_tube_than_the_rail_is_told_square(self):
        base = f.on_tubes(f.demo())
        inputs = f.with_operations(base, made("spring-bridge", height_mm=40.0, od_mm=140.0, wall_mm=8.0))
        tube = next(t for t in needs_of(inputs).tubes if "crossmember" in t.name)
        self.assertEqual((tube.coped, tube.ends), (None, "ends square"))


class Braces(SimpleTestCase):
    def test_a_diagonal_closes_the_triangle(self):
        """Length and angle by Pythagoras from the rails' inner faces and the stations that it names."""
        inputs = alone("splice")
        wide = inner_faces(inputs)
        rows = [g for g in gauges_of(inputs) if g.kind == "brace"]
        self.assertEqual(len(rows), 2)
        for row in rows:
            run = math.sqrt(row.long_mm**2 - wide**2)
            self.assertAlmostEqual(math.tan(math.radians(row.angle_deg)), run / wide, delta=0.002)
            self.assertIn("degrees off square", row.size)
        behind = next(g for g in rows if g.id.endswith("behind"))
        self.assertIn("until the welds are cold", behind.says)

    def test_bolted_work_and_a_hole_ask_for_none(self):
        for kind in ("hole", "bracket", "plate"):
            self.assertEqual([g for g in gauges_of(alone(kind)) if g.kind == "brace"], [])

    def test_what_they_are_cut_from_is_on_the_order(self):
        inputs = alone("splice")
        row = next(r for r in order_list(inputs).rows if r.key == "square tube")
        own = [g for g in gauges_of(inputs) if g.made_of.startswith("square tube") and g.long_mm is not None]
        self.assertAlmostEqual(row.quantity, sum(g.long_mm * g.count for g in own))
        self.assertGreater(len(own), 3)


class Trusses(SimpleTestCase):
    def parts(self, **fields):
        sheet = assembly_sheets(alone("truss", **fields))[0]
        patterns = {p.part_id.split("/")[1]: p for p in patterns_of(*self.of(**fields)) if p.part_id}
        return sheet, patterns

    def of(self, **fields):
        inputs = alone("truss", **fields)
        return inputs.survey, inputs.design.operations

    def test_feet_reach_the_tube_where_the_plates_stand(self):
        """A plate 30 from the middle of a tube of 76 meets it 38 - sqrt(38^2 - 30^2) below its top."""
        _, patterns = self.parts(deep_mm=72.0, thickness_mm=6.0, tube_mm=76.0, tall_mm=90.0)
        _, y0, _, y1 = patterns["truss-plates"].bounds()
        self.assertAlmostEqual(y1 - y0, 90.0 + 38.0 - math.sqrt(38.0**2 - 30.0**2), delta=0.01)

    def test_ribs_fill_the_room_between_plates_tube_and_cover(self):
        sheet, patterns = self.parts(deep_mm=72.0, thickness_mm=6.0, tube_mm=76.0, tall_mm=90.0, ribs=2)
        rib = next(r for r in sheet.parts if r.name == "Truss rib")
        self.assertEqual(rib.count, 4)
        outline = patterns["truss-ribs"].strokes[0].outline
        sink = 38.0 - math.sqrt(38.0**2 - 30.0**2)
        segment = 38.0**2 * math.asin(30 / 38) - 30 * (38.0 - sink)
        self.assertAlmostEqual(abs(outline.area_mm2()), 60 * (84 + sink) - segment, delta=1.0)
        self.assertTrue(any(v.bulge for v in outline.vertices))

    def test_the_vent_s_hose_goes_through_the_cover(self):
        _, patterns = self.parts(vent_mm=120.0)
        (hole,) = [s.outline for s in patterns["truss-cover"].strokes if s.layer == "HOLE"]
        x0, _, x1, _ = patterns["truss-cover"].bounds()
        centre = Polygon(hole.points(0.05)).centroid
        self.assertAlmostEqual(centre.x - (x0 + x1) / 2, 120.0, delta=0.1)
        _, without = self.parts()
        self.assertFalse([s for s in without["truss-cover"].strokes if s.layer == "HOLE"])

    def test_plates_beside_the_tube_are_told(self):
        inputs = alone("truss", deep_mm=120.0, tube_mm=76.0)
        check = next(c for c in evaluate(inputs).checks if c.limit_id == "truss-feet")
        self.assertEqual(check.verdict, "fails")
        self.assertIn(as_length(88.0), check.remedy)
