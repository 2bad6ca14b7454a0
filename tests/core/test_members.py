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
from nodulant.parts.sides import LEFT_RIGHT
from nodulant.patterns.collect import patterns_of
from nodulant.stock.needs import needs_of
from nodulant.stock.order import order_list
from nodulant.survey.crossmember import Crossmember
from nodulant.units.inline import as_length, told
from tests import fixtures as f
from tests.core.test_operations import made


def alone(kind, inputs=None, **fields):
    return f.alone(inputs or f.demo(), made(kind, **fields))


def inner_faces(inputs):
    """From inner face to inner face by the survey's own sizes: web less width where a channel opens inward, mm."""
    rails = inputs.survey.rails
    return sum(r.web_y_mm - (r.stations[0].width_mm if r.opens == "inward" else 0.0) for r in (rails.left, rails.right))


class Crossmembers(SimpleTestCase):
    def test_a_new_one_is_bought_cut_and_welded(self):
        inputs = alone("crossmember", profile="box", height_mm=60.0, width_mm=40.0, wall_mm=4.0)
        (tube,) = needs_of(inputs).tubes
        # 60 between the flanges of an open rail of 150: it runs to the webs
        rails = inputs.survey.rails
        webs = sum(r.web_y_mm - r.stations[0].wall_mm for r in (rails.left, rails.right))
        self.assertAlmostEqual(tube.long_mm, webs, delta=0.5)
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


class Reach(SimpleTestCase):
    """Where a member ends, against the survey's sizes by hand: a channel of 150 x 60 x 5 that opens inward."""

    def long_mm(self, *more, **fields):
        member = made(
            "crossmember", **({"profile": "box", "height_mm": 60.0, "width_mm": 60.0, "wall_mm": 4.0} | fields)
        )
        member = member.model_copy(update={"id": "member"})
        return next(t for t in needs_of(f.alone(f.demo(), member, *more)).tubes if t.name == member.name).long_mm

    def test_between_the_flanges_of_an_open_rail_it_runs_to_the_webs(self):
        self.assertEqual(self.long_mm(up_mm=75.0), 2 * (410 - 5))

    def test_where_it_does_not_fit_between_them_it_ends_at_the_lips(self):
        for fields in ({"up_mm": 120.0}, {"up_mm": 20.0}, {"up_mm": 75.0, "height_mm": 145.0}):
            self.assertEqual(self.long_mm(**fields), 2 * (410 - 60), fields)

    def test_a_boxed_rail_has_its_plate_in_the_way(self):
        """A plate over the lips stands as much nearer as it is thick; one between the flanges leaves the lips ahead of it."""
        where = made("crossmember").place
        ends = {
            name: where.model_copy(update={"offset_mm": where.offset_mm + by})
            for name, by in (("start", -300), ("end", 300))
        }
        for fit, inner in (("over-lips", 410 - 60 - 5), ("inside", 410 - 60)):
            plate = made("boxing", fit=fit, thickness_mm=5.0, **ends)
            self.assertAlmostEqual(self.long_mm(plate, up_mm=75.0), 2 * inner, msg=fit)

    def test_over_the_rails_or_under_them_it_lies_on_both(self):
        for up in (180.0, -30.0):
            self.assertEqual(self.long_mm(up_mm=up), 2 * 410)

    def test_between_narrowed_rails_it_is_as_much_shorter(self):
        narrow = made("narrow")
        where = made("crossmember").place
        there = {
            "place": where.model_copy(
                update={
                    "anchor_id": narrow.start.anchor_id,
                    "offset_mm": (narrow.start.offset_mm + narrow.end.offset_mm) / 2,
                }
            )
        }
        self.assertAlmostEqual(
            self.long_mm(up_mm=75.0, **there) - self.long_mm(narrow, up_mm=75.0, **there), 2 * narrow.inward_mm
        )


class Listed(SimpleTestCase):
    """A crossmember of the design's list is work as one that an operation adds."""

    def listed(self, inputs=None, **fields):
        own = {
            "id": "own",
            "name": "Own tie",
            "x_mm": 1000.0,
            "profile": "channel",
            "height_mm": 80.0,
            "width_mm": 40.0,
        }
        tie = Crossmember.model_validate({"wall_mm": 4.0, "end": "welded", **own, **fields})
        inputs = inputs or f.alone(f.demo(), made("boxing"))
        return inputs.model_copy(update={"design": inputs.design.model_copy(update={"crossmembers": (tie,)})})

    def test_it_is_fitted_and_welded_as_steps_of_the_plan(self):
        steps = [s for s in evaluate(self.listed()).steps if s.operation == "own"]
        self.assertEqual([(s.spec.phase, s.side) for s in steps], [("tack", "both"), ("weld", "both")])
        self.assertTrue(all(s.spec.minutes > 0 for s in steps))
        self.assertIn("own/in/both", steps[1].needs)
        riveted = [s for s in evaluate(self.listed(end="riveted")).steps if s.operation == "own"]
        self.assertEqual([s.spec.key for s in riveted], ["in"])
        self.assertNotIn("welder", riveted[0].spec.tools)

    def test_it_waits_for_the_cut_and_the_plate_that_it_ends_on(self):
        """The listed one over the demo's notch; a boxing plate that lies elsewhere holds nothing up."""
        needs = {s.id: set(s.needs) for s in evaluate(f.demo()).steps}["upper/in/both"]
        self.assertLessEqual({f"{k}/{side}" for k in ("axle-notch/cut", "box-rear/fit") for side in LEFT_RIGHT}, needs)
        needs = {s.id: set(s.needs) for s in evaluate(f.demo()).steps}["axle-notch/clear/left"]
        self.assertIn("upper/in/both", needs, "the axle goes through its travel with it in place")
        away = next(s for s in evaluate(self.listed()).steps if s.operation == "own")
        self.assertFalse([n for n in away.needs if n.startswith("it/")])

    def test_it_is_bought_weighed_and_welded(self):
        """80 x 40 x 4 mm from web to web: 608 mm2 by 810 mm of steel, welded round three sides at both ends."""
        inputs = self.listed()
        bare = f.alone(f.demo(), made("boxing"))
        tube = next(t for t in needs_of(inputs).tubes if t.name == "Own tie")
        self.assertEqual((tube.profile, tube.long_mm), ("channel", 2 * (410 - 5)))
        kg = (80 * 40 - 72 * 36) * 810 * DENSITY_KG_PER_MM3
        found, before = evaluate(inputs), evaluate(bare)
        self.assertAlmostEqual(found.mass_added_kg - before.mass_added_kg, kg, delta=1e-6)
        sheet = next(s for s in assembly_sheets(inputs) if s.operation == "own")
        self.assertAlmostEqual(found.weld_mm - before.weld_mm, sheet.bead_mm, delta=1e-6)
        self.assertAlmostEqual(sheet.bead_mm, 2 * (80 + 2 * 40), delta=1e-6)

    def test_its_step_says_how_long_it_is_sawn_and_how_high_it_stands(self):
        step = next(s for s in evaluate(self.listed(up_mm=75.0)).steps if s.id == "own/in/both")
        words = told(step.spec.detail, "mm")
        self.assertIn("810 mm long, ends square", words)
        self.assertIn("middle 75 mm above the underside", words)
        unknown = next(s for s in evaluate(self.listed()).steps if s.id == "own/in/both")
        self.assertIn("half way up the rail: its height is not given", unknown.spec.detail)

    def test_what_stands_partly_over_the_rail_is_welded_where_it_meets_it_and_says_so(self):
        """80 x 40 on a rail of 150. Its middle at the top: 40 of the web and the lower flange, 80 mm an end; a box has a second side; half round a tube; two beads across a rail of 60."""
        tube = math.pi / 2 * 80
        for profile, up, bead in (
            ("channel", 150.0, 40 + 40), ("box", 150.0, 80 + 40), ("tube", 150.0, tube), ("tube", 75.0, 2 * tube),
            ("channel", 200.0, 2 * 60), ("channel", 40.0, 160), ("box", 75.0, 240),
        ):  # fmt: skip
            inputs = self.listed(profile=profile, up_mm=up)
            sheet = next(s for s in assembly_sheets(inputs) if s.operation == "own")
            self.assertAlmostEqual(sheet.bead_mm, 2 * bead, places=6, msg=(profile, up))
            step = next(s for s in evaluate(inputs).steps if s.id == "own/in/both")
            self.assertEqual("Only 40 mm of its height meets" in told(step.spec.detail, "mm"), up == 150.0)

    def test_beyond_the_rails_it_is_no_work_and_a_long_id_is_no_error(self):
        for x in (-19_999.0, 9_000.0, 20_000.0):
            inputs = self.listed(x_mm=x)
            self.assertFalse([s for s in evaluate(inputs).steps if s.operation == "own"])
            self.assertFalse([t for t in needs_of(inputs).tubes if t.name == "Own tie"])
        long = "a" * 40
        inputs = self.listed(f.alone(f.demo(), made("boxing", id=long)), id=long)
        self.assertEqual({s.operation for s in evaluate(inputs).steps}, {None, long, "a" * 36 + "-tie"})

    def test_its_sheet_shows_its_end_where_it_meets_the_rail(self):
        """80 high and 40 wide, its middle 75 over the underside, welded round; and no pattern of its wall to cut from plate."""
        inputs = self.listed(up_mm=75.0)
        view = next(s for s in assembly_sheets(inputs) if s.operation == "own").view
        (part,) = view.parts
        low = rail_at(inputs.survey.rails.left, 1000.0)[0]
        self.assertEqual(part.outline.bounds(), (980.0, low + 35.0, 1020.0, low + 115.0))
        self.assertTrue(part.in_place)
        self.assertEqual([w.path.bounds() for w in view.welds], [part.outline.bounds()])
        added = alone("crossmember")
        self.assertEqual(patterns_of(added.survey, added.design.operations), ())

    def test_it_takes_what_the_operation_takes(self):
        listed = self.listed(f.alone(f.demo()), up_mm=75.0)
        rear = next(x.x_mm for x in listed.survey.features if x.id == "rear-axle")
        place = {"anchor_id": "rear-axle", "offset_mm": 1000.0 - rear}
        sizes = {"profile": "channel", "height_mm": 80.0, "width_mm": 40.0, "wall_mm": 4.0, "up_mm": 75.0}
        added = f.alone(f.demo(), made("crossmember", id="own", name="Own tie", place=place, **sizes))
        self.assertEqual(needs_of(listed).tubes, needs_of(added).tubes)
        self.assertEqual(needs_of(listed).welds, needs_of(added).welds)
        one, two = evaluate(listed), evaluate(added)
        self.assertEqual([s.id for s in one.steps], [s.id for s in two.steps])
        self.assertAlmostEqual(one.mass_added_kg, two.mass_added_kg)

    def test_one_that_stands_there_already_is_no_work(self):
        there = f.demo().survey.crossmembers[1].x_mm
        self.assertFalse([s for s in evaluate(self.listed(x_mm=there)).steps if s.operation == "own"])

    def test_its_id_may_be_that_of_an_operation(self):
        steps = evaluate(self.listed(id="it")).steps
        self.assertEqual({s.operation for s in steps}, {None, "it", "it-tie"})


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
