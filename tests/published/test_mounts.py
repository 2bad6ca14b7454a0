"""Brackets, trusses, crossmembers and plates of a suspension against hand calculations and the shapes they must have."""

import math
from typing import ClassVar

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.spatial import ConvexHull

from nodulant.base.errors import InputError
from nodulant.evaluate import InvalidInputs, evaluate
from nodulant.frame.model import placed_on, planned_state, sections
from nodulant.frame.ops.mounts.tabs import Tabs, carry_checks, fit_checks
from nodulant.frame.parts import added_parts
from nodulant.frame.place import resolve
from nodulant.frame.ties import planned_crossmembers
from nodulant.geometry.hull import around, hull
from nodulant.materials.bolts import find_bolt
from nodulant.units.inline import told
from tests import fixtures as f
from tests.core.test_operations import made
from tests.core.test_suspensions import AIR, COIL, ONLY, suspended

QUICK = settings(deadline=None, derandomize=True, max_examples=60)
WHERE = {"anchor_id": "rear-axle", "offset_mm": -900.0}


def check(op, rule, side="left"):
    result = evaluate(f.with_operations(f.demo(), op))
    return next(
        c for c in result.checks if c.limit_id == rule and c.id.startswith(f"{rule}:it") and c.id.endswith(side)
    )


def parts(op, side="left"):
    survey = f.demo().survey
    return {p.role: p for p in added_parts(survey, side, placed_on(survey, (op,), side, planned_state((op,)))).parts}


class Hulls(SimpleTestCase):
    @QUICK
    @given(st.lists(st.tuples(st.floats(-100, 100), st.floats(-100, 100)), min_size=5, max_size=30, unique=True))
    def test_the_same_corners_as_a_reference_library(self, points):
        rounded = sorted({(round(x, 1), round(y, 1)) for x, y in points})
        ours = hull(rounded)
        area = abs(sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(ours, ours[1:] + ours[:1], strict=True))) / 2
        if area < 1.0:  # all on one line: the reference has no hull
            return
        self.assertAlmostEqual(area, ConvexHull(rounded).volume, places=6)

    def test_a_polygon_around_a_circle_stays_outside_it(self):
        ring = around((3.0, -2.0), 10.0)
        for (x0, y0), (x1, y1) in zip(ring, ring[1:] + ring[:1], strict=True):
            self.assertGreaterEqual(math.hypot((x0 + x1) / 2 - 3, (y0 + y1) / 2 + 2), 10.0 - 1e-9)


class TabShapes(SimpleTestCase):
    """A tab is cut once: its saddle has to fit the tube and its holes need metal round them."""

    @QUICK
    @given(st.floats(-120, 120), st.floats(85, 160), st.floats(60, 100), st.integers(0, 2))
    def test_the_saddle_lies_on_the_tube_and_every_hole_has_its_edge(self, x, z, tube, more):
        tabs = {"holes_above": more, "edge_mm": 28.0, "width_mm": 50.0}
        op = made("axle-bracket", x_mm=x, z_mm=z, tube_mm=tube, tabs=tabs)
        part = parts(op)["axle-tabs"]
        centre = f.demo().survey.wheelbase_mm - 900.0
        points = [(px - centre, py) for px, py in part.outline.points(0.1)]
        on_tube = [p for p in points if abs(math.hypot(*p) - tube / 2) < 1e-6]
        self.assertGreaterEqual(len(on_tube), 2)
        self.assertTrue(all(math.hypot(*p) >= tube / 2 - 1e-6 for p in points))
        self.assertEqual(len(part.holes), 1 + more)
        for hole in part.holes:
            at = (hole.x_mm - centre, hole.y_mm)
            for a, b in zip(points, points[1:] + points[:1], strict=True):
                along = math.hypot(b[0] - a[0], b[1] - a[1])
                if along < 1e-9 or (a in on_tube and b in on_tube):
                    continue
                t = max(0.0, min(1.0, ((at[0] - a[0]) * (b[0] - a[0]) + (at[1] - a[1]) * (b[1] - a[1])) / along**2))
                away = math.hypot(a[0] + t * (b[0] - a[0]) - at[0], a[1] + t * (b[1] - a[1]) - at[1])
                self.assertGreaterEqual(away, 28.0 - 1e-6)

    def test_two_tabs_are_cut_from_one_pattern_and_a_stud_needs_one(self):
        self.assertEqual(parts(made("axle-bracket"))["axle-tabs"].count, 2)
        single = parts(made("axle-bracket", tabs={"single": True}))
        self.assertEqual((single["axle-tabs"].count, "axle-brace" in single), (1, False))


class Bolts(SimpleTestCase):
    def test_a_stud_in_single_shear_bends(self):
        """Sigma = 32 M/(pi d^3), M = F (t + b)/2 on the thread's core, with shear (Shigley, from memory)."""
        tabs = Tabs(single=True, thickness_mm=6, joint_mm=30, bolt_size="M14")
        row = next(c for c in carry_checks(tabs, "mild", 4000.0, 0.0, 0.0) if c.limit_id == "link-bolt")
        bolt = find_bolt("M14", "10.9")
        core = math.sqrt(4 * bolt.size.stress_area_mm2 / math.pi)
        bending = 32 * 4000 * 18 / (math.pi * core**3)
        shear = 4000 / (0.6 * 1040 * bolt.size.stress_area_mm2 / 2)
        self.assertAlmostEqual(row.value, math.hypot(bending / (830 / 1.5), shear))
        double = next(
            c for c in carry_checks(Tabs(bolt_size="M14"), "mild", 4000.0, 0.0, 0.0) if c.limit_id == "link-bolt"
        )
        self.assertGreater(row.value, 3 * double.value)

    def test_room_for_socket_and_bolt(self):
        """A socket is about 2.2 diameters wide; a bolt needs joint + tabs + nut (common practice)."""
        rows = {
            c.limit_id: c for c in fit_checks(Tabs(standoff_mm=30.0, room_mm=60.0, holes_above=1, pitch_mm=36.0), 0.0)
        }
        self.assertAlmostEqual(rows["wrench-room"].value, 30 - 2.2 * 16 / 2)
        self.assertAlmostEqual(rows["bolt-out"].value, 60 / (60 + 12 + 1.3 * 16))
        self.assertAlmostEqual(rows["hole-pitch"].value, 36 / 16)
        self.assertNotIn("bolt-out", {c.limit_id for c in fit_checks(Tabs(), 0.0)})


class CastHousings(SimpleTestCase):
    """A weld on a cast housing cracks; the application says so before the arc is struck."""

    def verdict(self, **more):
        found = check(made("axle-bracket", y_mm=260.0, z_mm=90.0, **more), "cast-clear")
        return found.verdict, found.missing

    def test_unknown_is_not_computed(self):
        self.assertEqual(self.verdict(), ("not computed", ("/design/operations/0/housing",)))
        self.assertEqual(self.verdict(housing="cast"), ("not computed", ("/design/operations/0/housing_half_mm",)))

    def test_cast_steel_and_clear(self):
        self.assertEqual(self.verdict(housing="steel")[0], "holds")
        self.assertEqual(self.verdict(housing="cast", housing_half_mm=250.0)[0], "fails")
        self.assertEqual(self.verdict(housing="cast", housing_half_mm=180.0)[0], "holds")

    def test_a_truss_stands_on_the_tubes_only(self):
        for half, verdict in ((150.0, "holds"), (225.0, "fails")):
            found = check(made("truss", housing="cast", housing_half_mm=half, foot_from_mm=230.0), "cast-clear")
            self.assertEqual(found.verdict, verdict)

    def test_a_truss_without_feet_fails_by_name(self):
        self.assertEqual(check(made("truss", foot_from_mm=300.0, foot_to_mm=250.0), "truss-feet").verdict, "fails")


class Crossmembers(SimpleTestCase):
    """M = P a of a beam under two forces; clamped ends P a (L - a)/L; ring weld (Blodgett 7.4, from memory)."""

    def test_tube_and_ring_by_hand(self):
        op = made("spring-bridge", spring_n=8000.0, y_mm=200.0, od_mm=48.3, wall_mm=5.0)
        rail = f.demo().survey.rails.left
        width = rail.stations[0].width_mm
        half = rail.web_y_mm - width
        a, inner = half - 200.0, 48.3 - 10
        modulus = math.pi * (48.3**4 - inner**4) / (32 * 48.3)
        self.assertAlmostEqual(check(op, "bridge-bending").value, 8000 * a / modulus / (248 / 1.5), places=6)
        clamped = 8000 * a * (2 * half - a) / (2 * half)
        load = math.hypot(8000 / (math.pi * 48.3), clamped / (math.pi * 48.3**2 / 4))
        self.assertAlmostEqual(check(op, "bridge-weld").why.values["load"], load, places=6)

    def test_a_straight_one_ties_the_rails_and_a_hoop_does_not(self):
        survey = f.demo().survey
        for form, more in (("straight", 1), ("hoop", 0)):
            ties = planned_crossmembers(survey, (made("spring-bridge", form=form),), ())
            self.assertEqual(len(ties) - len(survey.crossmembers), more)

    def test_no_force_no_verdict(self):
        found = check(made("spring-bridge", spring_n=0.0), "bridge-bending")
        self.assertEqual((found.verdict, found.missing), ("not computed", ("/design/operations/0/spring_n",)))

    def test_a_wall_thicker_than_the_tube_is_refused(self):
        with self.assertRaisesRegex(ValueError, "thicker than the tube"):
            made("spring-bridge", od_mm=20.0, wall_mm=12.0)


class Pockets(SimpleTestCase):
    def test_a_slot_is_a_cut_without_a_liner(self):
        """The section at the slot is that of the same cut as a notch with two plates."""
        op = made("spring-pocket", depth_mm=20.0, plate_mm=5.0)
        survey, x = f.demo().survey, f.stations_at(f.demo().survey.wheelbase_mm - 900.0)
        own = sections(survey, (op,), "left", x, planned_state((op,)))
        notch = op.as_notch()
        same = sections(survey, (notch,), "left", x, planned_state((notch,)))
        self.assertEqual(own.properties.i_y[0], same.properties.i_y[0])
        self.assertFalse(own.torsion.closed[0])

    def test_the_bolt_has_to_lie_in_the_wall_or_within_reach_above_it(self):
        for up in (10.0, 480.0):
            op = made("spring-pocket", bolt_up_mm=up)
            with self.assertRaises(InputError) as caught:
                placed_on(f.demo().survey, (op,), "left", planned_state((op,)))
            self.assertEqual(caught.exception.field, "/design/operations/0/bolt_up_mm")


class RaisedPockets(SimpleTestCase):
    """A mount that rises above its rail: two cheeks on the walls hold its bolt."""

    SIZES: ClassVar[dict[str, object]] = {
        "bolt_up_mm": 240.0,
        "spring_n": 12_000.0,
        "across_n": 1_500.0,
        "gusset_mm": 40.0,
        "cheek_mm": 6.0,
        "length_mm": 110.0,
    }

    def test_cheeks_carry_the_bolt_s_hole_where_the_bolt_is(self):
        op = made("spring-pocket", **self.SIZES)
        own = parts(op)
        for role in ("cheek-outer", "cheek-inner"):
            (hole,) = own[role].holes
            self.assertAlmostEqual(hole.y_mm, 240.0)
            x0, z0, _, z1 = own[role].outline.bounds()
            self.assertLess(x0, hole.x_mm - 55.0)
            self.assertAlmostEqual(z1 - hole.y_mm, 1.5 * 14.0)
            self.assertAlmostEqual(z0, 150.0 - 80.0)
        within = parts(made("spring-pocket", bolt_up_mm=90.0))
        self.assertFalse(within.keys() & {"cheek-outer", "cheek-inner"})

    def test_a_cheek_bends_about_the_gusset_s_top(self):
        """M = F/2 a, W = b t^2/6 (textbook), a from the bolt to the gusset's top."""
        found = check(made("spring-pocket", **self.SIZES), "tab-bending")
        by_hand = 1_500 / 2 * (240 - 150 - 40) / ((110 + 80) * 6**2 / 6) / (248 / 1.5)
        self.assertAlmostEqual(found.value, by_hand, places=6)

    def test_a_cheek_s_welds_as_lines(self):
        """Upward half on three lines, and the lean's couple about their middle (elastic method, Blodgett)."""
        found = check(made("spring-pocket", **{**self.SIZES, "across_n": 0.0}), "weld-group")
        self.assertAlmostEqual(found.why.values["load"], 6_000 / (190 + 2 * 80), places=6)
        leaning = check(made("spring-pocket", **self.SIZES), "weld-group")
        length, middle = 190 + 160, -(190 * 80 + 2 * 80 * 40) / 350
        second = 190 * (80 + middle) ** 2 + 2 * (80**3 / 12 + 80 * (40 + middle) ** 2)
        out = 750 / length + 750 * (90 - middle) * max(80 + middle, -middle) / second
        up = math.sqrt(12_000**2 - 1_500**2) / 2 / length
        self.assertAlmostEqual(leaning.why.values["load"], math.hypot(out, up), places=4)

    def test_the_slot_opens_the_top_flange_too(self):
        low, high = (made("spring-pocket", plate_mm=0.0, bolt_up_mm=up) for up in (90.0, 240.0))
        survey, x = f.demo().survey, f.stations_at(f.demo().survey.wheelbase_mm - 900.0)
        own = [sections(survey, (op,), "left", x, planned_state((op,))).properties.i_y[0] for op in (low, high)]
        self.assertLess(own[1], 0.75 * own[0])

    def test_a_cut_line_leaves_one_wall_and_says_which(self):
        op = made("spring-pocket", line_from="inner", line_mm=12.0, body_mm=40.0)
        ((wall, _),) = op.cut_templates()
        self.assertEqual(wall, "outer wall")
        result = evaluate(f.with_operations(f.demo(), op))
        across = next(c for c in result.checks if c.limit_id == "pocket-room" and "width" in c.why.values)
        self.assertAlmostEqual(across.value, 60.0 - 12.0 - 5.0 - 40.0)
        step = next(s for s in op.steps("the hanger") if s.key == "slot")
        self.assertIn("12 mm from the inner face", told(step.detail, "mm"))


class Pads(SimpleTestCase):
    def test_an_overhang_bends_as_a_cantilever(self):
        """M = p w o^2/2 (textbook), with p = F/(w d)."""
        op = made("pad", force_n=9000.0, long_mm=100.0, across_mm=120.0, thickness_mm=8.0)
        width = f.demo().survey.rails.left.stations[0].width_mm
        over = 60.0 - width / 2
        by_hand = 9000 / (100 * 120) * 100 * over**2 / 2 / (100 * 8**2 / 6) / (248 / 1.5)
        self.assertAlmostEqual(check(op, "pad-bending").value, by_hand, places=6)

    def test_flush_over_the_rail_it_does_not_bend(self):
        self.assertEqual(check(made("pad", force_n=9000.0, across_mm=40.0), "pad-bending").value, 0.0)


class Asked(SimpleTestCase):
    """What a suspension asks for comes with its place and its force, so that nobody types them wrongly."""

    def mounts(self, **more):
        (axle,) = evaluate(suspended(**more), ONLY).travel
        return axle, {m.id: m for m in axle.mounts}

    def test_both_ends_of_a_link_feel_the_same_force_the_other_way_round(self):
        _, found = self.mounts()
        frame, axle = found["rear-lower-link-bracket"], found["rear-lower-link-on-axle"]
        self.assertAlmostEqual(frame.along_n, -axle.along_n, delta=0.2)
        self.assertAlmostEqual(frame.up_n, -axle.up_n, delta=0.2)
        self.assertEqual((axle.x_mm, axle.y_mm, axle.z_mm), (0.0, 400.0, -75.0))

    def test_upper_links_near_a_cast_middle_stand_on_a_truss(self):
        _, cast = self.mounts(housing="cast", housing_half_mm=190.0)
        self.assertEqual(cast["rear-upper-link-on-axle"].stands_on, "truss")
        self.assertEqual(cast["rear-truss"].foot_from_mm, 210.0)
        _, steel = self.mounts(housing="steel", housing_half_mm=190.0)
        self.assertNotIn("rear-truss", steel)
        self.assertEqual(steel["rear-upper-link-on-axle"].stands_on, "tube")

    def test_a_coilover_gets_its_crossmember_under_its_greatest_force(self):
        axle, found = self.mounts()
        force = max(v for v in next(c for c in axle.curves if c.id == "spring-force").values if v is not None)
        self.assertAlmostEqual(found["rear-coilover-bridge"].spring_n, force, delta=0.2)
        self.assertEqual(found["rear-coilover-bridge"].y_mm, COIL["upper"]["y_mm"])

    def test_a_pair_gets_two_mounts_with_half_the_force_each(self):
        _, one = self.mounts()
        _, two = self.mounts(springs={**COIL, "rate_n_per_mm": 16.0, "count": 2, "apart_mm": 140.0})
        whole = one["rear-coilover-bridge"]
        front, rear = two["rear-coilover-front-bridge"], two["rear-coilover-rear-bridge"]
        self.assertAlmostEqual(front.spring_n, whole.spring_n / 2, delta=0.2)
        survey = f.demo("step").survey
        at = [resolve(m.place, survey.features) for m in (front, rear)]
        self.assertAlmostEqual(at[1] - at[0], 140.0)
        self.assertNotIn("rear-coilover-bridge", two)

    def test_air_springs_get_both_plates(self):
        _, found = self.mounts(springs=AIR)
        self.assertEqual(
            {found[k].kind for k in ("rear-air-spring-plate", "rear-air-spring-on-axle")}, {"pad", "axle-pad"}
        )

    def test_an_independent_wheel_has_no_axle_to_weld_on(self):
        _, found = self.mounts(kind="double-wishbone")
        self.assertEqual([m for m in found.values() if m.kind in {"axle-bracket", "axle-pad", "truss"}], [])

    def test_put_into_the_design_they_are_parts_steps_readings_and_checks(self):
        job = suspended(housing="cast", housing_half_mm=190.0)
        (axle,) = evaluate(job, ONLY).travel
        operations = tuple(m for m in axle.mounts if m.kind != "bracket")
        result = evaluate(job.model_copy(update={"design": job.design.model_copy(update={"operations": operations})}))
        for m in operations:
            with self.subTest(m.id):
                self.assertTrue(any(p.operation == m.id for p in result.parts))
                self.assertTrue(any(s.operation == m.id for s in result.steps))
                self.assertTrue(any(c.id.split(":")[1].startswith(m.id) for c in result.checks))
        self.assertTrue(result.travel[0].solids)

    def test_work_on_the_axle_may_lie_under_a_notch_and_a_bracket_may_not(self):
        notch = made("notch", id="cut", name="cut")
        evaluate(f.with_operations(f.demo(), notch, made("axle-bracket")))
        with self.assertRaises(InvalidInputs):
            evaluate(f.with_operations(f.demo(), notch, made("bracket", width_mm=60.0)))
