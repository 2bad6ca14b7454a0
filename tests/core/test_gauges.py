"""All nine kinds of gauges against the model that they are made for: each within a tenth of a millimetre.

What is cut flat is measured in its DXF, read back with ezdxf; places come from parts, sections and Travel, not from
the gauges' own code.
"""

import io
import math
import re

import ezdxf
import numpy as np
from django.test import SimpleTestCase

from nodulant.evaluate import evaluate
from nodulant.evaluate.suspensions.travel import suspension_studies
from nodulant.formats.dxf import pattern_dxf
from nodulant.frame.columns import rail_at, slope_at
from nodulant.frame.model import placed_on, planned_state, route_on
from nodulant.frame.parts import added_parts
from nodulant.gauges.collect import gauges_of
from nodulant.gauges.gauge import GAUGE_NAMES
from nodulant.gauges.on_rails import CLEAR_MM, OVERHANG_MM, made_up
from nodulant.job.riding import in_place
from nodulant.units.inline import told
from tests import fixtures as f
from tests.core.test_operations import made

TENTH = 0.1


def step():
    return in_place(f.job().inputs("step"))


def of_kind(inputs, kind):
    return [g for g in gauges_of(inputs) if g.kind == kind]


def alone(kind, **fields):
    return f.with_operations(f.demo(), made(kind, **fields))


def circles(pattern):
    space = ezdxf.read(io.StringIO(pattern_dxf(pattern).decode())).modelspace()
    out = []
    for own in space.query('LWPOLYLINE[layer=="HOLE"]'):
        points = own.get_points("xy")
        (x0, y0), (x1, y1) = points
        out.append(((x0 + x1) / 2, (y0 + y1) / 2, math.hypot(x1 - x0, y1 - y0)))
    return out


def bounds(pattern):
    space = ezdxf.read(io.StringIO(pattern_dxf(pattern).decode())).modelspace()
    points = [p for own in space.query('LWPOLYLINE[layer=="CUT"]') for p in own.get_points("xy")]
    return max(x for x, _ in points) - min(x for x, _ in points), max(y for _, y in points) - min(y for _, y in points)


def inner_y(inputs, side, x):
    """From the section drawings: the inner face's distance from the centre plane."""
    rail = inputs.survey.rails.of(side)
    ops = inputs.design.operations
    moved = float(route_on(inputs.survey, ops, side, planned_state(ops)).shift(np.array([x])).inward[0])
    return rail.web_y_mm - rail_at(rail, x)[2] - moved


class EachKind(SimpleTestCase):
    def test_a_rod_reaches_through_both_rails_and_fits_the_holes(self):
        for width in (0.0, 25.0):
            inputs = alone("hole", work="sleeve" if width else "drill", diameter_mm=30.0)
            (rod,) = of_kind(inputs, "rod")
            x = placed_on(inputs.survey, inputs.design.operations, "left", planned_state(inputs.design.operations))[
                0
            ].centre_mm
            outer = sum(inputs.survey.rails.of(s).web_y_mm for s in ("left", "right"))
            self.assertAlmostEqual(rod.long_mm, outer + 2 * OVERHANG_MM, delta=TENTH, msg=x)
            self.assertAlmostEqual(rod.across_mm, 30.0, delta=TENTH + 1e-9)
            self.assertLess(rod.across_mm, 30.0)

    def test_a_rod_says_where_the_rails_do_not_face_each_other(self):
        inputs = alone("hole")
        right = inputs.survey.rails.right
        lower = right.model_copy(
            update={
                "stations": tuple(
                    s.model_copy(update={"underside_z_mm": s.underside_z_mm - 4.0}) for s in right.stations
                )
            }
        )
        bent = f.with_survey(inputs, rails=inputs.survey.rails.model_copy(update={"right": lower}))
        self.assertIn("4 mm lower on the right", told(of_kind(bent, "rod")[0].says, "mm"))
        self.assertIn("level", of_kind(inputs, "rod")[0].says)

    def test_one_rail_alone_needs_no_rod(self):
        self.assertEqual(of_kind(alone("hole", side="left"), "rod"), [])

    def test_a_strut_is_as_long_as_travel_has_it_at_ride(self):
        inputs = step()
        studies = {s.suspension.axle: s for s in suspension_studies(inputs)}
        for strut in of_kind(inputs, "strut"):
            axle = strut.id.split("/")[0]
            own = next(s for s in inputs.design.suspensions if s.axle == axle)
            length = float(studies[axle].springs.length[studies[axle].ride])
            self.assertAlmostEqual(strut.long_mm, length, delta=TENTH)
            (x0, y0, _), (x1, y1, _) = circles(strut.pattern)
            self.assertAlmostEqual(math.hypot(x1 - x0, y1 - y0), length, delta=TENTH)
            self.assertEqual(strut.count, 2 * own.springs.count)

    def test_a_spreader_is_as_wide_as_the_rails_stand_apart(self):
        for kind, fields in (("z-step", {}), ("narrow", {"inward_mm": 30.0}), ("stretch", {})):
            inputs = alone(kind, **fields)
            ops = inputs.design.operations
            (own,) = placed_on(inputs.survey, ops, "left", planned_state(ops))
            ahead, behind = sorted(of_kind(inputs, "spreader"), key=lambda g: "behind" in g.id)
            for gauge, x in ((ahead, own.cuts[0].start_mm - CLEAR_MM), (behind, own.cuts[-1].end_mm + CLEAR_MM)):
                wide = sum(inner_y(inputs, side, x) for side in ("left", "right"))
                self.assertAlmostEqual(gauge.long_mm, wide, delta=TENTH)

    def test_a_narrowed_stretch_is_measured_inside_where_it_is_narrow(self):
        inputs = step()
        wide = {g.name: g.long_mm for g in of_kind(inputs, "spreader")}
        self.assertAlmostEqual(
            wide["Narrowed front: spreader behind the cut"] - wide["Narrowed front: spreader ahead of the cut"],
            60.0,
            delta=TENTH,
        )

    def test_a_spreader_of_another_width_goes_in_once_the_rails_are_there(self):
        phases = {g.name: g.phase for g in of_kind(step(), "spreader")}
        self.assertEqual(phases["Narrowed front: spreader ahead of the cut"], "tack")
        self.assertEqual(phases["Narrowed front: spreader behind the cut"], "brace")

    def test_beside_a_bolted_notch_nothing_is_tacked(self):
        """What holds the rails is said as its own step says it: with an arc, or without one."""
        for fields, words, never in (
            ({}, "until the welds are cold", "bolt"),
            ({"bolts": {"size": "M12", "grade": "10.9", "per_end": 4}}, "until every bolt is drawn", "tack"),
        ):
            inputs = f.with_notch(f.demo(), **fields)
            held = [*of_kind(inputs, "spreader"), *of_kind(inputs, "brace")]
            self.assertGreater(len(held), 2)
            for gauge in held:
                self.assertIn(words, gauge.says)
                self.assertNotIn(never, gauge.says)

    def test_a_drill_guide_has_the_plates_holes(self):
        inputs = alone("bracket", fixing="bolted")
        (guide,) = of_kind(inputs, "drill-guide")
        part = next(
            p
            for p in added_parts(
                inputs.survey,
                "left",
                placed_on(inputs.survey, inputs.design.operations, "left", planned_state(inputs.design.operations)),
            ).parts
            if p.role == "foot"
        )
        found = sorted(circles(guide.pattern))
        wanted = sorted((h.x_mm, h.y_mm) for h in part.holes)
        self.assertEqual(len(found), len(wanted))
        for (x, y, d), (wx, wy) in zip(found, wanted, strict=True):
            self.assertAlmostEqual(x - found[0][0], wx - wanted[0][0], delta=TENTH)
            self.assertAlmostEqual(y - found[0][1], wy - wanted[0][1], delta=TENTH)
            self.assertAlmostEqual(d, 3.175, delta=TENTH)
        self.assertEqual(guide.side, "both")

    def test_spacers_are_of_the_measured_height_and_the_rest_is_shims(self):
        inputs = alone("z-step", rise_mm=75.0)
        (asked,) = of_kind(inputs, "spacer")
        self.assertIn("measured", asked.missing)
        shop = inputs.shop.model_copy(update={"rack": inputs.shop.rack.model_copy(update={"block_mm": 37.2})})
        (told_,) = of_kind(inputs.model_copy(update={"shop": shop}), "spacer")
        self.assertEqual(told_.missing, "")
        self.assertAlmostEqual(told_.long_mm, 75.0, delta=TENTH)
        self.assertIn("2 of 37.2 mm and 0.6 mm of shims", told(told_.says, "mm"))

    def test_blocks_never_stand_over_the_rise(self):
        for rise, block in ((75.0, 38.0), (38.0, 38.0), (20.0, 38.0), (76.04, 38.0)):
            words = told(made_up(rise, block), "mm")
            blocks = int(words.split(": ")[1].split(" of")[0]) if " of " in words.split(": ")[1].split(" and")[0] else 0
            self.assertLessEqual(blocks * block, rise + 1e-9)
            self.assertLess(rise - blocks * block, block)

    def test_a_pivot_dummy_is_the_joint_and_its_bolt(self):
        inputs = alone("bracket", tabs={"joint_mm": 66.5, "bolt_size": "M14"})
        (dummy,) = of_kind(inputs, "pivot-dummy")
        self.assertAlmostEqual(dummy.long_mm, 66.5, delta=TENTH)
        self.assertTrue(14.0 <= dummy.bore_mm <= 16.0)
        self.assertGreater(dummy.across_mm, dummy.bore_mm + 2)
        self.assertEqual(dummy.count, 2)

    def test_a_pointer_fits_the_surveyed_hole(self):
        (pointer,) = of_kind(f.demo(), "pointer")
        self.assertAlmostEqual(pointer.across_mm, 11.0, delta=TENTH + 1e-9)
        self.assertLess(pointer.across_mm, 11.0)

    def test_legs_stand_from_the_floor_to_the_rail_where_it_is_welded(self):
        inputs = alone("z-step", rise_mm=75.0)
        for axle in ("front", "rear"):
            self.assertIsNotNone(getattr(inputs.survey, axle).ground_z_mm())
        ground = inputs.survey.ground_z_mm()
        ops = inputs.design.operations
        (own,) = placed_on(inputs.survey, ops, "left", planned_state(ops))
        near = next(g for g in of_kind(inputs, "clip-leg") if "near" in g.id)
        x = own.cuts[-1].end_mm + CLEAR_MM
        self.assertAlmostEqual(near.long_mm, rail_at(inputs.survey.rails.left, x)[0] + 75.0 - ground, delta=TENTH)
        self.assertEqual(near.count, 2)
        bare = f.with_rear(inputs, hub_z_left_mm=None)
        self.assertTrue(all(g.long_mm is None and "hubs" in g.missing for g in of_kind(bare, "clip-leg")))

    def test_the_shorter_end_is_the_one_that_comes_free(self):
        ahead = {"anchor_id": "front-axle", "offset_mm": 350.0}
        inputs = alone("z-step", place=ahead, rises="ahead")
        legs = of_kind(inputs, "clip-leg")
        self.assertTrue(legs)
        for leg in legs:
            mm, way = re.search(
                r"underside ([\d.]+) mm (ahead of|behind) the front axle", told(leg.says, "mm")
            ).groups()
            self.assertTrue(way == "ahead of" or float(mm) < 350.0, leg.says)

    def test_an_angle_block_has_its_angle(self):
        oblique = alone("z-step", cut_angle_deg=12.5)
        riser = alone("z-step", method="riser", riser_angle_deg=40.0)
        pinion = step()
        for inputs, wanted in ((oblique, 12.5), (riser, 40.0), (pinion, abs(pinion.design.suspensions[0].pinion_deg))):
            angles = of_kind(inputs, "angle-block")
            self.assertTrue(angles)
            block = min(angles, key=lambda g: abs(g.angle_deg - wanted))
            wide, high = bounds(block.pattern)
            self.assertAlmostEqual(wide * math.tan(math.radians(wanted)), high, delta=TENTH)

    def test_the_slope_under_a_bracket(self):
        inputs = alone("bracket")
        rails = inputs.survey.rails
        sloped = {}
        for side in ("left", "right"):
            rail = rails.of(side)
            sloped[side] = rail.model_copy(
                update={"stations": tuple(s.model_copy(update={"underside_z_mm": 0.1 * s.x_mm}) for s in rail.stations)}
            )
        inputs = f.with_survey(inputs, rails=rails.model_copy(update=sloped))
        (block,) = of_kind(inputs, "angle-block")
        self.assertAlmostEqual(math.tan(math.radians(block.angle_deg)), slope_at(sloped["left"], 1700.0), places=6)


class Together(SimpleTestCase):
    def test_all_nine_kinds_are_made_somewhere(self):
        jobs = [step(), alone("bracket", fixing="bolted"), alone("z-step", cut_angle_deg=10.0), alone("hole")]
        self.assertEqual({g.kind for inputs in jobs for g in gauges_of(inputs)}, set(GAUGE_NAMES))

    def test_ids_are_their_own_and_each_belongs_to_a_step(self):
        inputs = step()
        steps = evaluate(inputs).steps
        found = gauges_of(inputs)
        self.assertEqual(len({g.id for g in found}), len(found))
        for gauge in found:
            phases = {s.spec.phase for s in steps if s.operation == gauge.operation or gauge.operation is None}
            self.assertIn(gauge.phase, phases, gauge.id)

    def test_nothing_is_asked_for_where_nothing_is_built(self):
        self.assertEqual(gauges_of(f.with_operations(f.demo())), ())
