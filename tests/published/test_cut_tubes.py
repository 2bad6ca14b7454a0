"""Round tubes that are cut, lined and capped, against the FE section library and against the tube's own geometry.

Polygons are drawn with shapely. 1 % everywhere, 5 % for J of open sections, 2 % for J of two cells.
"""

import math

from django.test import SimpleTestCase
from hypothesis import example, given, settings
from hypothesis import strategies as st
from shapely import Point, box, unary_union

from nodulant.base.errors import InputError
from nodulant.evaluate import evaluate
from nodulant.frame.here import RailHere
from nodulant.frame.model import placed_on, planned_state
from nodulant.frame.ops.notches.notch_shape import ArcShape
from nodulant.frame.ops.notches.tube_parts import saddle_outline, straddling_parts
from nodulant.frame.ops.plates.plate import Doubler
from nodulant.frame.ops.through.stretch import Stretch
from nodulant.frame.place import Place
from nodulant.materials import find_steel
from nodulant.patterns.collect import patterns_of
from nodulant.patterns.wrap import wrapped
from nodulant.search.cut_sets import cut_trials
from nodulant.search.plate_sets import Stock
from tests import fixtures as f
from tests.core.test_rail_kinds import rail
from tests.published import test_fe_sections as plain
from tests.published.test_fe_sections import ours

D, T, CUT = 90.0, 4.0, 32.0
RING = Point(45, 45).buffer(45, quad_segs=64) - Point(45, 45).buffer(41, quad_segs=64)
HALF_CHORD = math.sqrt(CUT * (D - CUT))
FLOOR = box(45 - HALF_CHORD, CUT - 4.0, 45 + HALF_CHORD, CUT)
CAP = box(-4.8, 45, 94.8, 120) - box(0.2, 44, 89.8, 115)
"""Set in by 0.2 mm, so that its legs meet the tube in more than a point."""
TUBE = rail("round-tube", D, D, T)
HERE = RailHere(1500.0, 0.0, D, D, T, D, round=True)
QUICK = settings(deadline=None, derandomize=True, max_examples=30)


def cut_of(depth=CUT, **plates):
    return f.straight_notch(depth, 96.0, 140.0, 4.0, **plates)


def liner_and_cap(**more):
    return cut_of(liner=f.liner(4.0), cap=f.cap(5.0, 30.0), **more)


class Sections(SimpleTestCase):
    """What is left of a tube decides what may hang on it."""

    def same(self, polygon, section, torsion, mesh=2.0):
        plain.AgainstFiniteElements.compare(self, polygon, section, torsion, mesh)

    def test_cut_open(self):
        self.same(RING - box(-1, -1, 91, CUT), ours(TUBE, (cut_of(),)), 0.05, 1.5)

    def test_cut_and_lined(self):
        lined = unary_union([RING - box(-1, -1, 91, CUT), FLOOR])
        self.same(lined, ours(TUBE, (cut_of(liner=f.liner(4.0)),)), 0.02)

    def test_a_cap_makes_a_second_cell(self):
        both = unary_union([RING - box(-1, -1, 91, CUT), FLOOR, CAP])
        self.same(both, ours(TUBE, (liner_and_cap(),)), 0.02)

    def test_a_cut_from_above_is_its_mirror_image(self):
        below, above = (ours(TUBE, (liner_and_cap(from_=edge),)) for edge in ("below", "above"))
        self.assertAlmostEqual(below.properties.s_top[0] / above.properties.s_bottom[0], 1.0, delta=1e-9)
        self.assertAlmostEqual(below.torsion.j[0] / above.torsion.j[0], 1.0, delta=1e-9)
        self.assertAlmostEqual(below.torsion.capacity[0] / above.torsion.capacity[0], 1.0, delta=1e-9)

    @QUICK
    @given(st.floats(40, 200), st.floats(2, 6), st.floats(0.1, 0.9))
    def test_area_left_is_that_of_two_circle_segments(self, d, t, share):
        depth = max(share * d, t + 1.0)
        section = ours(rail("round-tube", d, d, t), (f.straight_notch(depth, 90.0, 90.0, 0.0),))

        def above(radius):  # area of a disc above the cut, closed form
            u = depth - d / 2
            if abs(u) >= radius:
                return 0.0 if u > 0 else math.pi * radius**2
            return radius**2 * math.acos(u / radius) - u * math.sqrt(radius**2 - u * u)

        left = above(d / 2) - above(d / 2 - t)
        self.assertAlmostEqual(section.properties.area[0], left, delta=0.004 * math.pi * d * t)
        self.assertFalse(section.torsion.closed[0])
        self.assertAlmostEqual(section.shear_area[0], 2 * (d - t) * t * (d - depth) / d, places=6)


class Shapes(SimpleTestCase):
    """A pattern that does not wrap to the cut is scrap."""

    def test_the_saddle_ends_in_points_and_is_as_wide_as_the_tube_at_the_crown(self):
        notch = f.arc_notch(40.0, 60.0, liner=f.liner(4.0))
        flat = saddle_outline(notch, 4.0, HERE)
        x0, y0, x1, y1 = flat.bounds()
        self.assertAlmostEqual(x1 - x0, notch.shape.unrolled_mm(40.0, 4.0), places=6)
        self.assertAlmostEqual(y1 - y0, 2 * math.sqrt(40.0 * 50.0), delta=0.02)
        by_hand, steps, r, run = 0.0, 20000, 60.0, (x1 - x0)
        turn = 2 * math.acos((r - 40.0) / r)
        for i in range(steps):  # the chord at the height of each step along the arc
            at = turn * ((i + 0.5) / steps - 0.5)
            z = 40.0 - r * (1 - math.cos(at))
            by_hand += 2 * math.sqrt(z * (D - z)) * run / steps
        self.assertAlmostEqual(abs(flat.area_mm2()) / by_hand, 1.0, delta=2e-3)

    @QUICK
    @given(st.floats(10, 44), st.floats(45, 90))
    @example(43.0, 45.0)
    def test_a_template_wrapped_round_the_tube_lies_on_the_cut(self, depth, radius):
        """Every point, rolled back onto the cylinder, stands at the height of the notch's arc."""
        shape = ArcShape(radius_mm=radius)
        for x, girth in wrapped(shape.path(depth), D).points(0.1):
            z = D / 2 - D / 2 * math.cos(girth / (D / 2))
            expected = depth - radius + math.sqrt(max(radius**2 - x * x, 0.0))
            on_paper = D / 2 * math.acos(1 - max(expected, 0.0) / (D / 2))
            off = min(abs(abs(girth) - on_paper), abs(z - expected))  # the cut is steep at its mouth, flat at its crown
            self.assertLess(off, 0.25)  # chords

    def test_a_capped_end_is_cut_out_to_the_tube(self):
        """A square end is a rectangle less half a disc; a slanted one less half an ellipse."""
        for end in ("square", "taper"):
            notch = cut_of(liner=f.liner(4.0), cap=f.cap(5.0, 30.0).model_copy(update={"end": end}))
            rows = {role: outline for role, _, _, outline in straddling_parts(notch, notch.cap, HERE)}
            slant = 75.0 if end == "square" else math.hypot(75.0, 75.0)
            expected = slant * D - math.pi * (D / 2) * (D / 2 * slant / 75.0) / 2
            self.assertAlmostEqual(abs(rows["cap-end-front"].area_mm2()) / expected, 1.0, delta=3e-3)

    def test_templates_and_plates_come_out_of_the_job(self):
        job = f.with_operations(f.on_tubes(f.demo()), tube_notch())
        result = evaluate(job)
        roles = {p.role for p in result.parts if p.side == "left"}
        self.assertEqual(roles, {"liner", "cap", "cap-side-outer", "cap-side-inner", "cap-end-front", "cap-end-rear"})
        self.assertEqual(
            {p.title for p in patterns_of(job.survey, job.design.operations) if p.part_id is None},
            {"Arc notch over the axle: rail cut template"},
        )

    def test_a_slender_tube_is_judged_as_a_tube(self):
        """EN 1993-1-1 table 5.2 (from memory): class 3 to d/t of 90 (235/f_y)."""
        bare = f.on_tubes(f.demo(), 1.5)
        check = f.check_of(evaluate(f.with_operations(bare)), "slender:rail:left")
        station = bare.survey.rails.left.stations[0]
        f_y = find_steel(bare.survey.rails.left.steel_id).yield_mpa
        self.assertAlmostEqual(
            check.value, max(s.height_mm for s in bare.survey.rails.left.stations) / 1.5 / (90 * 235 / f_y)
        )
        self.assertEqual(station.wall_mm, 1.5)


def tube_notch(**update):
    notch = f.demo("arc").design.operations[1]
    bare = {"outer_plate": None, "inner_plate": None, "liner": f.liner(5.0), "cap": f.cap(5.0, 60.0)}
    return notch.model_copy(update={**bare, **update})


class Refused(SimpleTestCase):
    """What has no seat on a tube is named at its field."""

    def refused(self, *operations):
        job = f.with_operations(f.on_tubes(f.demo()), *operations)
        with self.assertRaises(InputError) as caught:
            placed_on(job.survey, operations, "left", planned_state(operations))
        return caught.exception.field

    def test_flat_plates(self):
        place = Place(anchor_id=f.demo().survey.datum.feature_id, offset_mm=900.0)
        plated = tube_notch(outer_plate=f.side_plate())
        stretched = Stretch(id="s", name="s", place=place, length_mm=100.0, outer_plate=f.side_plate())
        doubled = Doubler(
            id="d", name="d", start=place, end=place.model_copy(update={"offset_mm": 1300.0}), thickness_mm=5
        )
        self.assertEqual(self.refused(plated), "/design/operations/0/outer_plate")
        self.assertEqual(self.refused(stretched), "/design/operations/0/outer_plate")
        self.assertEqual(self.refused(doubled), "/design/operations/0/face")

    def test_a_cap_over_a_cut_past_half_height(self):
        self.assertEqual(self.refused(tube_notch(depth_mm=90.0)), "/design/operations/0/depth_mm")


class Finder(SimpleTestCase):
    """The finder knows that a tube takes no side plates."""

    def test_its_sets_are_a_liner_with_a_cap(self):
        survey, notch = f.survey_of(rail("round-tube", 110.0, 110.0, 4.0)), f.arc_notch(25.0, 120.0)
        stock = Stock(thicknesses_mm=(4.0, 6.0, 8.0), cap_heights_mm=(40.0, 80.0))
        job = f.with_operations(f.demo().model_copy(update={"survey": survey}), notch)
        trials = cut_trials(survey, (notch,), 0, "left", stock)
        self.assertTrue(trials)
        for trial in trials:
            self.assertEqual((trial.changed[0].outer_plate, trial.changed[0].inner_plate), (None, None))
        lightest = min((t for t in trials if t.changed[0].cap), key=lambda t: t.mass_kg)
        rules = {"capacity-least", "overlap"}
        judged = [c for c in evaluate(f.with_operations(job, *lightest.operations)).checks if c.limit_id in rules]
        self.assertEqual({c.limit_id for c in judged}, rules)
        for check in judged:
            self.assertNotEqual(check.verdict, "fails", check.id)
