"""What each operation does to the rail, by hand where it can be reckoned."""

import math

import numpy as np
from django.test import SimpleTestCase

from nodulant.asbuilt.log import ReadingEntry
from nodulant.evaluate import InvalidInputs, evaluate
from nodulant.evaluate.side_by_side import side_by_side
from nodulant.frame.model import STOCK, planned_state, sections
from nodulant.frame.ops.bolted import BoltGroup
from nodulant.frame.ops.boxing_plan import boxing_development
from nodulant.frame.ties import planned_crossmembers
from nodulant.job.document import AsBuilt
from nodulant.loads.beam import internal_forces
from nodulant.materials import find_steel, line_capacity
from nodulant.materials.bolts import find_bolt
from nodulant.materials.carbon import Analysis
from nodulant.sections.profile import profile
from nodulant.survey.rail import Rail, Station
from tests import fixtures as f
from tests.core.test_operations import made

MID = {"anchor_id": "mid", "offset_mm": 0.0}


def span(half):
    return {"start": {"anchor_id": "mid", "offset_mm": -half}, "end": {"anchor_id": "mid", "offset_mm": half}}


def tube(h=110.0, b=70.0, t=3.5, lost=0.0):
    rows = tuple(
        Station(x_mm=x, underside_z_mm=0, height_mm=h, width_mm=b, wall_mm=t, rust_loss_mm=lost) for x in (0.0, 3000.0)
    )
    return Rail(kind="rect-tube", stations=rows, steel_id="mild")


def at(rail, operations, *x, state=None):
    survey = f.survey_of(rail)
    state = state or (planned_state(operations) if operations else STOCK)
    return sections(survey, operations, "left", f.stations_at(*x), state)


class Plates(SimpleTestCase):
    """A doubler adds what the parallel-axis theorem says, once its welds have brought it in."""

    def test_top_plate_by_hand(self):
        h, b, t, plate = 150.0, 60.0, 5.0, 6.0
        op = made("plate", **span(700.0), face="top", thickness_mm=plate, ends="square")
        bare, plated = at(f.straight_rail(), (), 1500.0), at(f.straight_rail(), (op,), 1500.0)
        area, inertia = bare.properties.area[0], bare.properties.i_y[0]
        added = b * plate
        centre = (area * h / 2 + added * (h + plate / 2)) / (area + added)
        by_hand = inertia + area * (centre - h / 2) ** 2 + b * plate**3 / 12 + added * (h + plate / 2 - centre) ** 2
        self.assertAlmostEqual(plated.properties.i_y[0] / by_hand, 1.0, places=9)
        self.assertAlmostEqual(
            plated.shear_area[0], bare.shear_area[0], places=9, msg="a flange plate carries no shear"
        )
        self.assertAlmostEqual(h * t, bare.shear_area[0])

    def test_nothing_at_its_very_end_and_all_of_it_in_the_middle(self):
        op = made("plate", **span(700.0), ends="square", thickness_mm=6.0, low_mm=0.0, high_mm=0.0)
        ends = at(f.straight_rail(), (op,), 800.5, 1500.0)
        bare = at(f.straight_rail(), (), 800.5)
        self.assertAlmostEqual(ends.properties.area[0], bare.properties.area[0], delta=0.02 * bare.properties.area[0])
        self.assertAlmostEqual(ends.properties.area[1] - bare.properties.area[0], 150.0 * 6.0, places=6)

    def test_a_plate_too_short_to_carry_is_told(self):
        result = evaluate(
            f.with_operations(f.demo(), made("plate", end={"anchor_id": "rear-axle", "offset_mm": -840.0}))
        )
        self.assertEqual(f.check_of(result, "plate-length:it:left").verdict, "fails")

    def test_no_height_left(self):
        with self.assertRaisesRegex(InvalidInputs, "no height"):
            evaluate(f.with_operations(f.demo(), made("plate", low_mm=80.0, high_mm=80.0)))

    def test_weld_legs_have_bounds(self):
        small, big = (evaluate(f.with_operations(f.demo(), made("plate", weld_leg_mm=leg))) for leg in (3.0, 9.0))
        self.assertEqual(f.check_of(small, "leg-least:it:left").verdict, "fails")
        self.assertEqual(f.check_of(big, "leg-most:it:left").verdict, "fails")


class Boxing(SimpleTestCase):
    """Stitches bring a plate in by their share."""

    def test_half_the_weld_doubles_the_length(self):
        full, half = made("boxing"), made("boxing", seam="stitch", bead_mm=40.0, pitch_mm=80.0)
        lengths = [boxing_development(op, 150.0, 5.0).weld_mm for op in (full, half)]
        self.assertAlmostEqual(lengths[1], 2 * lengths[0])
        self.assertEqual((full.welded_share, half.welded_share), (1.0, 0.5))

    def test_a_stitch_longer_than_its_pitch(self):
        with self.assertRaises(ValueError):
            made("boxing", seam="stitch", bead_mm=120.0, pitch_mm=100.0)

    def test_stitches_are_judged_under_the_frame_s_forces(self):
        near, far = (
            f.check_of(
                evaluate(f.with_operations(f.demo(), made("boxing", seam="stitch", bead_mm=20.0, pitch_mm=pitch))),
                "seam:it-boxing:left",
            )
            for pitch in (40.0, 400.0)
        )
        for check in (near, far):
            values = check.why.values
            by_hand = (values["upright"] + values["across"] + values["torque"]) / values["line"]
            self.assertAlmostEqual(check.value, by_hand)
        self.assertAlmostEqual(near.why.values["line"] / far.why.values["line"], 10.0)
        self.assertGreater(far.value, 1.5 * near.value, "sparser stitches work harder, though they bring less in")
        self.assertEqual(near.verdict, "holds")

    def test_a_closed_rail_cannot_be_boxed(self):
        inputs = f.demo().model_copy(update={"survey": f.survey_of(tube())})
        box = made("boxing", **span(300.0))
        with self.assertRaisesRegex(InvalidInputs, "no open side to box"):
            evaluate(f.with_operations(inputs, box))


class Pocket(SimpleTestCase):
    """A raised pocket is a cut below and a box of its depth on top."""

    def test_the_deeper_wall_governs_and_the_box_is_as_high(self):
        flat = made("raise", depth_mm=30.0, inner_depth_mm=45.0, place=MID)
        even = made("raise", depth_mm=45.0, place=MID)
        for op in (flat, even):
            self.assertEqual(op.as_notch().depth_mm, 45.0)
            self.assertEqual(op.as_notch().cap.height_mm, 45.0)
        pair = [at(f.straight_rail(), (f.boxing(), op), 1500.0).properties.i_y[0] for op in (flat, even)]
        self.assertEqual(*pair)

    def test_boxed_it_keeps_its_bending(self):
        """Depth is given back on top (common practice): with the floor held by two webs bending holds."""
        op = made("raise", depth_mm=40.0, length_mm=200.0, place=MID, box_mm=6.0, floor_mm=6.0, overlap_mm=300.0)
        stock = at(f.straight_rail(), (), 1500.0).properties
        built = at(f.straight_rail(), (f.boxing(), op), 1500.0).properties
        self.assertGreater(built.reference_top[0] / stock.reference_top[0], 1.0)
        self.assertGreater(built.reference_bottom[0] / stock.reference_bottom[0], 1.0)

    def test_open_its_floor_is_no_flange(self):
        op = made("raise", depth_mm=40.0, length_mm=200.0, place=MID)
        stock, built = (at(f.straight_rail(), ops, 1500.0).properties for ops in ((), (op,)))
        self.assertLess(built.reference_bottom[0], stock.reference_bottom[0])

    def test_corners_that_do_not_fit(self):
        with self.assertRaises(ValueError):
            made("raise", length_mm=20.0, corner_radius_mm=15.0)

    def test_the_step_list_puts_the_box_first(self):
        keys = [s.key for s in made("raise").steps("it")]
        self.assertLess(keys.index("box"), keys.index("cut"))


class Holes(SimpleTestCase):
    """A hole weakens until it is plugged and looked at."""

    def hole_survey(self):
        hole = {"id": "old", "name": "old", "kind": "hole", "x_mm": 1500.0, "height_mm": 75.0, "diameter_mm": 30.0}
        survey = f.survey_of(f.straight_rail())
        return type(survey).model_validate(
            {**survey.model_dump(), "features": [*survey.model_dump()["features"], hole]}
        )

    def area(self, *operations):
        survey = self.hole_survey()
        state = planned_state(operations) if operations else STOCK
        return sections(survey, operations, "left", f.stations_at(1500.0), state).shear_area[0]

    def test_a_plug_counts_only_when_it_was_inspected(self):
        place = {"anchor_id": "old", "offset_mm": 0.0}
        plug = {"place": place, "height_mm": 75.0, "diameter_mm": 30.0, "work": "plug"}
        self.assertAlmostEqual(self.area(), 5.0 * 120.0)
        self.assertAlmostEqual(self.area(made("hole", **plug)), 5.0 * 120.0)
        self.assertAlmostEqual(self.area(made("hole", **plug, inspected=True)), 5.0 * 150.0)

    def test_how_it_is_plugged_goes_with_its_size(self):
        words = [made("hole", work="plug", diameter_mm=d).steps("it")[0].detail for d in (5.0, 14.0, 40.0)]
        self.assertIn("copper backing", words[0])
        self.assertIn("round bar", words[1])
        self.assertIn("disc from a hole saw", words[2])

    def test_too_near_the_edge(self):
        result = evaluate(f.with_operations(f.demo(), made("hole", height_mm=15.0)))
        self.assertAlmostEqual(f.check_of(result, "hole-edge:it:left").value, 15.0 / 14.0)
        self.assertEqual(f.check_of(result, "hole-edge:it:left").verdict, "fails")

    def test_a_sleeve_too_thin_or_too_tight(self):
        thin = made("hole", work="sleeve", sleeve={"outside_mm": 18.0, "wall_mm": 2.0})
        tight = made("hole", work="sleeve", sleeve={"outside_mm": 30.0, "wall_mm": 10.0})
        good = made("hole", work="sleeve", sleeve={"outside_mm": 26.0, "wall_mm": 6.0})
        verdicts = [
            f.check_of(evaluate(f.with_operations(f.demo(), op)), "sleeve:it:left") for op in (thin, tight, good)
        ]
        self.assertEqual([v.verdict for v in verdicts], ["fails", "fails", "holds"])
        self.assertIn("preload", verdicts[0].why.values)
        self.assertIn("bore", verdicts[1].why.values)


class Whole(SimpleTestCase):
    """Access cut, repair and splice: the rail itself changes."""

    def test_an_access_cut_is_open_only_while_its_piece_is_out(self):
        op = made("access-cut", **span(80.0), height_mm=60.0)
        closed = at(f.straight_rail(), (op,), 1500.0)
        out = planned_state((op,)).model_copy(update={"parts": {}, "name": "interim"})
        opened = at(f.straight_rail(), (op,), 1500.0, state=out)
        self.assertAlmostEqual(closed.shear_area[0], 5.0 * 150.0)
        self.assertAlmostEqual(opened.shear_area[0], 5.0 * 90.0)

    def test_a_repair_gives_back_what_rust_took(self):
        op = made("repair", **span(200.0), thickness_mm=3.5)
        rusty = at(
            tube(lost=1.5),
            (
                made(
                    "plate",
                    id="far",
                    start={"anchor_id": "mid", "offset_mm": 900.0},
                    end={"anchor_id": "mid", "offset_mm": 1300.0},
                ),
            ),
            1500.0,
        )
        mended = at(tube(lost=1.5), (op,), 1500.0, 1000.0)
        stock = at(tube(lost=1.5), (), 1500.0)
        self.assertAlmostEqual(mended.shear_area[0], stock.shear_area[0])
        self.assertAlmostEqual(mended.shear_area[1], rusty.shear_area[0])
        self.assertAlmostEqual(rusty.shear_area[0] / stock.shear_area[0], 2.0 / 3.5)

    def test_a_patch_of_weaker_steel_counts_by_its_yield(self):
        rail = tube().model_copy(update={"steel_id": "s355"})
        op = made("repair", **span(200.0), thickness_mm=3.5, steel_id="mild")
        pair = [at(rail, ops, 1500.0).shear_area[0] for ops in ((), (op,))]
        self.assertAlmostEqual(pair[1] / pair[0], 248.0 / 355.0)

    def test_more_rust_than_wall(self):
        with self.assertRaisesRegex(ValueError, "more than the wall"):
            Station(x_mm=0, underside_z_mm=0, height_mm=100, width_mm=60, wall_mm=3, rust_loss_mm=3)

    def test_a_thin_patch_fails(self):
        result = evaluate(f.with_operations(f.demo(), made("repair", thickness_mm=3.0)))
        self.assertAlmostEqual(f.check_of(result, "patch:it:left").value, 0.6)

    def test_a_splice_is_the_donor_behind_and_the_old_rail_ahead(self):
        op = made("splice", place=MID, donor={"height_mm": 120.0, "width_mm": 60.0, "wall_mm": 4.0})
        both = at(f.straight_rail(), (op,), 1400.0, 1600.0)
        self.assertAlmostEqual(both.shear_area[0], 5.0 * 150.0)
        self.assertAlmostEqual(both.shear_area[1], 4.0 * 120.0)

    def test_identity_must_be_settled(self):
        rows = [
            f.check_of(
                evaluate(f.with_operations(f.demo(), made("splice", identity_stays=who))), "identity:it:left"
            ).verdict
            for who in ("not known", "front")
        ]
        self.assertEqual(rows, ["fails", "holds"])

    def test_a_stretch_moves_the_moment_as_the_longer_beam_says(self):
        inputs = f.with_operations(
            f.demo(), made("stretch", length_mm=300.0, place={"anchor_id": "front-axle", "offset_mm": 1300.0})
        )
        inputs = inputs.model_copy(update={"design": inputs.design.model_copy(update={"seats": ()})})
        result = evaluate(inputs)
        survey = inputs.survey
        moved = tuple(
            m.model_copy(update={"x_mm": m.x_mm + 300.0 * (m.x_mm > 1300), "to_x_mm": m.to_x_mm and m.to_x_mm + 300.0})
            for m in survey.masses
        )
        seats = tuple(s.model_copy(update={"x_mm": s.x_mm + 300.0 * (s.x_mm > 1300)}) for s in survey.seats)
        x = f.stations_at(-200.0, 1000.0, 2600.0)
        longer = internal_forces(x, moved, seats).moment / 1000.0 * 3
        strip = next(s for s in result.strips if s.side == "left" and s.state == "planned")
        # the datum, a hanger behind the cut, stays: what is ahead of it went forward by the stretch
        mine = np.interp(x - 300.0, strip.x_mm, strip.moment_nm)
        np.testing.assert_allclose(mine, longer, rtol=2e-2, atol=15.0)

    def test_nothing_in_and_nothing_out(self):
        with self.assertRaises(ValueError):
            made("stretch", length_mm=0.0)

    def test_a_narrowed_stretch_without_a_cut(self):
        with self.assertRaises(ValueError):
            made("narrow", start=None, end=None)


class Bolted(SimpleTestCase):
    """A bolted plate carries what its bolts clamp, and never closes a cell."""

    def test_share_by_hand(self):
        group = BoltGroup(size="M12", grade="10.9", per_end=6)
        clamp = 0.75 * 830.0 * find_bolt("M12", "10.9").size.stress_area_mm2
        self.assertAlmostEqual(group.share(150.0 * 8.0, "mild"), 6 * 0.2 * clamp / (1200.0 * 248.0 / 1.5))
        self.assertEqual(BoltGroup(per_end=20).share(100.0, "mild"), 1.0)

    def test_it_is_weaker_than_the_welded_one(self):
        plates = {"liner": f.liner(6.0), "outer_plate": f.side_plate(6.0), "inner_plate": f.side_plate(6.0)}
        welded, bolted = f.straight_notch(40.0, **plates), f.straight_notch(40.0, **plates, bolts=BoltGroup())
        pair = [at(tube(), (op,), 1500.0) for op in (welded, bolted)]
        self.assertGreater(pair[0].properties.reference_bottom[0], pair[1].properties.reference_bottom[0])
        self.assertGreater(pair[0].torsion.j[0], pair[1].torsion.j[0])

    def test_more_bolts_more_share(self):
        plates = {"liner": f.liner(8.0), "outer_plate": f.side_plate(8.0), "inner_plate": f.side_plate(8.0)}
        rows = [
            at(tube(), (f.straight_notch(40.0, **plates, bolts=BoltGroup(per_end=n)),), 1500.0).properties.i_y[0]
            for n in (2, 6, 12)
        ]
        self.assertEqual(rows, sorted(rows))

    def test_a_closed_rail_needs_sleeves(self):
        for sleeves, verdict in ((False, "fails"), (True, "holds")):
            op = made("notch", place=MID, depth_mm=30.0, liner={"thickness_mm": 5.0}, bolts={"sleeves": sleeves})
            inputs = f.demo().model_copy(update={"survey": f.survey_of(tube())})
            result = evaluate(
                f.with_operations(
                    inputs.model_copy(
                        update={"design": inputs.design.model_copy(update={"seats": (), "crossmembers": ()})}
                    ),
                    op,
                )
            )
            self.assertEqual(f.check_of(result, "sleeve-there:it-bolts:left").verdict, verdict)

    def test_a_cap_cannot_be_bolted(self):
        with self.assertRaises(ValueError):
            made("notch", bolts={}, cap={"height_mm": 50.0, "thickness_mm": 4.0, "overlap_mm": 200.0})


class Brackets(SimpleTestCase):
    """Foot, tabs and bolts under the force that is given."""

    def check(self, rule, **fields):
        result = evaluate(f.with_operations(f.demo(), made("bracket", **fields)))
        return next(c for c in result.checks if c.limit_id == rule and c.id.endswith(":left"))

    def test_no_force_is_not_computed(self):
        for rule in ("weld-group", "link-bolt", "tab-hole", "tab-bending"):
            check = self.check(rule, along_n=0.0)
            self.assertEqual((check.verdict, check.missing), ("not computed", ("/design/operations/0/along_n",)), rule)

    def test_the_link_s_bolt_by_hand(self):
        bolt = find_bolt("M16", "10.9")
        one = self.check("link-bolt", along_n=20_000.0, tabs={"stiff": False}).value
        two = self.check("link-bolt", along_n=20_000.0).value
        self.assertAlmostEqual(one, 20_000 / (0.6 * 1040 * bolt.size.stress_area_mm2 / 2))
        self.assertAlmostEqual(two, one / 2)

    def test_the_weld_under_a_force_across_is_direct_and_bending(self):
        value = self.check("weld-group", along_n=10_000.0).value
        length, arm = 2 * (120 + 90), 55.0
        polar = 90 * 120**2 / 2 + 2 * 120**3 / 12
        direct, bending = 10_000 / length, 10_000 * arm * 60 / polar
        capacity = line_capacity(5.0, 5.0, find_steel("mild").near_weld_mpa)
        self.assertAlmostEqual(value, math.hypot(direct, bending) / capacity, places=6)

    def test_a_gusset_shortens_the_tabs_lever(self):
        bare, braced = (self.check("tab-bending", along_n=15_000.0, gusset=g).value for g in (None, {"leg_mm": 40.0}))
        self.assertAlmostEqual(braced / bare, 15.0 / 55.0)

    def test_more_bolts_less_use(self):
        rows = [
            self.check("bolt-group", along_n=30_000.0, fixing="bolted", bolts={"per_end": n}).value for n in (1, 2, 4)
        ]
        self.assertEqual(rows, sorted(rows, reverse=True))


class Crossmembers(SimpleTestCase):
    """What ties the rails afterwards."""

    def after(self, **fields):
        survey = f.demo().survey
        return {c.id: c for c in planned_crossmembers(survey, (made("crossmember", **fields),), ())}

    def test_add_remove_move_replace(self):
        before = {c.id: c for c in f.demo().survey.crossmembers}
        self.assertEqual(set(self.after()) - set(before), {"it"})
        self.assertEqual(set(before) - set(self.after(act="remove", target_id="cab")), {"cab"})
        moved = self.after(act="move", target_id="cab")
        self.assertEqual((moved["cab"].x_mm, moved["cab"].height_mm), (1710.0, before["cab"].height_mm))
        swapped = self.after(act="replace", target_id="cab", profile="box", height_mm=80.0)
        self.assertEqual((swapped["it"].x_mm, swapped["it"].profile), (before["cab"].x_mm, "box"))
        self.assertEqual(
            self.after(removable=True)["it"].end, "riveted", "a bolted end is no stiffer than a riveted one"
        )

    def test_unknown_target(self):
        with self.assertRaises(InvalidInputs) as caught:
            evaluate(f.with_operations(f.demo(), made("crossmember", act="remove", target_id="nobody")))
        self.assertEqual(caught.exception.field, "/design/operations/0/target_id")

    def test_one_more_tie_stiffens_the_frame(self):
        rows = [
            next(x.value for x in evaluate(f.with_operations(f.demo(), *ops)).figures if x.id == "twist-planned")
            for ops in ((), (made("crossmember", profile="box", height_mm=80.0, width_mm=80.0),))
        ]
        self.assertGreater(rows[1], rows[0])


class Joints(SimpleTestCase):
    """What is put in where a rail was cut through."""

    def of(self, result, rule, kind="riser"):
        return f.check_of(result, f"{rule}:it-{kind}:left")

    def test_a_post_against_the_rail_by_hand(self):
        op = made("z-step", box={"depth_mm": 100.0, "wall_mm": 6.0})
        result = evaluate(f.with_operations(f.demo(), op))
        p = profile("box", 100.0, 60.0, 6.0)
        check = self.of(result, "joint-bending")
        self.assertAlmostEqual(check.why.values["piece"], p.i_y / 50.0 * 248.0, places=3)
        self.assertAlmostEqual(check.value, check.why.values["piece"] / check.why.values["rail"])

    def test_side_plates_deepen_the_post(self):
        plate = {"thickness_mm": 6.0, "overlap_mm": 280.0}
        bare, plated = (evaluate(f.with_operations(f.demo(), made("z-step", outer_plate=p))) for p in (None, plate))
        self.assertGreater(self.of(plated, "joint-bending").value, self.of(bare, "joint-bending").value)
        self.assertLess(self.of(plated, "joint-panel").value, self.of(bare, "joint-panel").value)

    def test_a_short_overlap_works_its_welds_harder(self):
        rows = [
            self.of(
                evaluate(f.with_operations(f.demo(), made("z-step", method="set-on", rise_mm=155.0, overlap_mm=mm))),
                "joint-overlap",
                "overlap",
            ).value
            for mm in (120.0, 400.0)
        ]
        self.assertGreater(rows[0], 2.0 * rows[1])

    def test_a_rail_set_on_top_rises_by_its_height_at_least(self):
        with self.assertRaisesRegex(InvalidInputs, "rises by its own height"):
            evaluate(f.with_operations(f.demo(), made("z-step", method="set-on", rise_mm=100.0)))

    def test_without_loads_the_use_is_not_computed_but_the_capacity_is(self):
        result = evaluate(f.with_survey(f.with_operations(f.demo(), made("z-step")), masses=()))
        self.assertEqual(self.of(result, "joint-use").verdict, "not computed")
        self.assertIsNotNone(self.of(result, "joint-bending").value)

    def test_a_hanger_on_metal_that_comes_out(self):
        op = made("z-step", place={"anchor_id": "front-hanger", "offset_mm": -60.0})
        inputs = f.with_operations(f.demo(), op)
        inputs = inputs.model_copy(update={"design": inputs.design.model_copy(update={"seats": ()})})
        check = next(c for c in evaluate(inputs).checks if c.limit_id == "in-the-cut" and c.id.endswith(":left"))
        self.assertEqual(check.verdict, "fails")
        self.assertIn("Rear spring, front hanger", check.remedy)

    def test_the_root_of_the_butt(self):
        def throat(**fields):
            result = evaluate(f.with_operations(f.demo(), made("splice", **fields)))
            return f.check_of(result, "throat:it:left")

        self.assertEqual(throat(root_gap_mm=2.5).verdict, "holds")
        self.assertAlmostEqual(throat(root_gap_mm=1.0).value, 0.4)
        self.assertIn("filler piece", throat(root_gap_mm=6.0).remedy)
        self.assertEqual(throat(root_gap_mm=0.0, weld="two-sided").verdict, "holds")

    def test_a_butted_jog_wider_than_half_the_rail(self):
        result = evaluate(f.with_operations(f.demo(), made("narrow", jog="butt", inward_mm=45.0)))
        self.assertAlmostEqual(f.check_of(result, "jog-lap:it:left").value, 0.25)
        self.assertEqual(f.check_of(result, "jog-lap:it:left").verdict, "fails")


class SteelOfTheRail(SimpleTestCase):
    """Welding what must not be welded, or what nobody knows."""

    def with_steel(self, steel, **more):
        left = f.demo().survey.rails.left.model_copy(update={"steel_id": steel, **more})
        rails = f.demo().survey.rails.model_copy(update={"left": left})
        return {c.id: c for c in evaluate(f.with_survey(f.demo(), rails=rails)).checks}

    def test_heat_treated_and_cast_stop(self):
        for steel in ("heat-treated", "cast"):
            self.assertEqual(self.with_steel(steel)["weldable:rail:left"].verdict, "fails", steel)

    def test_unknown_is_not_computed_in_preheat_and_says_what_to_do(self):
        check = self.with_steel("unknown")["preheat:rail:left"]
        self.assertEqual(check.verdict, "not computed")
        self.assertIn("hardness", check.remedy)

    def test_chromium_steel_asks_for_preheat_and_an_analysis_overrules(self):
        self.assertEqual(self.with_steel("4130")["preheat:rail:left"].verdict, "fails")
        known = self.with_steel("unknown", analysis=Analysis(c=0.12, mn=0.6))["preheat:rail:left"]
        self.assertAlmostEqual(known.value, 0.22)
        self.assertEqual(known.verdict, "holds")


class Measured(SimpleTestCase):
    """A reading changes the margins of its own side, through the same road as a plan."""

    def test_a_thin_patch_and_a_thin_plate(self):
        for kind, key, rule in (
            ("repair", "patch-thickness", "shear-area"),
            ("plate", "outer-thickness", "shear-area"),
        ):
            with self.subTest(kind):
                op = made(kind, thickness_mm=6.0)
                inputs = f.with_operations(f.demo(), op)
                entry = {
                    "number": 1,
                    "at": "2026-10-05T10:00:00+00:00",
                    "by": "bram",
                    "operation": "it",
                    "key": key,
                    "side": "left",
                    "value_mm": 3.0,
                }
                inputs = inputs.model_copy(update={"as_built": AsBuilt(entries=(ReadingEntry(**entry),))})
                result = evaluate(inputs)
                built = {side: f.check_of(result, f"{rule}:rail:{side}@as-built").value for side in ("left", "right")}
                planned = f.check_of(result, f"{rule}:rail:left").value
                self.assertLessEqual(built["left"], planned + 1e-12)
                self.assertAlmostEqual(built["right"], f.check_of(result, f"{rule}:rail:right").value)

    def test_each_reading_moves_what_it_measures(self):
        rows = (
            ("z-step", "rise", 70.0, "rise_mm"),
            ("raise", "depth", 33.0, "depth_mm"),
            ("narrow", "inward", 18.0, "inward_mm"),
            ("stretch", "length", 140.0, "length_mm"),
            ("bracket", "height", 71.0, "height_mm"),
            ("repair", "patch-thickness", 4.4, "thickness_mm"),
        )
        for kind, key, value, field in rows:
            self.assertEqual(getattr(made(kind).as_measured({key: value}), field), value, kind)
        shorter = made("stretch", length_mm=-150.0).as_measured({"length": 149.0, "position": -905.0})
        self.assertEqual((shorter.length_mm, shorter.place.offset_mm), (-149.0, -905.0))


class Schools(SimpleTestCase):
    """Where practitioners differ, both ways are open, and each changes what it should."""

    def stiffness(self, *operations):
        figures = evaluate(f.with_operations(f.demo(), *operations)).figures
        return next(x.value for x in figures if x.id == "twist-planned")

    def test_a_subframe_welded_in_is_counted(self):
        bolted, known, unknown = (
            made("raise", subframe=how, tie=tie)
            for how, tie in (("bolted", {}), ("welded", {"height_mm": 90.0}), ("welded", None))
        )
        rows = [self.stiffness(op) for op in (bolted, known, unknown)]
        self.assertGreater(rows[1], rows[0])
        self.assertAlmostEqual(rows[2], rows[0], msg="without its section it is not guessed")

    def test_a_hole_saw_takes_its_setting_up(self):
        minutes = {
            tool: next(s for s in made("notch", tool=tool).steps("it") if s.key == "cut").minutes
            for tool in ("template", "hole-saw")
        }
        self.assertGreater(minutes["hole-saw"], 2 * minutes["template"])
        words = [next(s for s in made("notch", tool=t).steps("it") if s.key == "cut").detail for t in minutes]
        self.assertTrue(all("minutes" in w for w in words), "the plan shows both times")

    def test_a_bracket_welded_at_once_is_welded_with_the_tacks(self):
        phases = [
            next(s for s in made("bracket", weld_when=w).steps("it") if s.key == "weld").phase
            for w in ("after-all-checks", "at-once")
        ]
        self.assertEqual(phases, ["weld", "tack"])

    def test_plugs_need_a_hole_that_reaches_the_root(self):
        small, good = (
            f.check_of(
                evaluate(f.with_operations(f.demo(), made("plate", plugs={"count": 6, "hole_mm": d}))),
                "plug-hole:it:left",
            )
            for d in (9.0, 14.0)
        )
        self.assertEqual((small.verdict, good.verdict), ("fails", "holds"))
        figures = evaluate(f.with_operations(f.demo(), made("plate", plugs={"count": 6, "hole_mm": 16.0}))).figures
        carried = next(x.value for x in figures if x.id == "plugs-it")
        self.assertAlmostEqual(carried, 6 * math.pi / 4 * 256 * 0.3 * 482.6 / 1000)

    def test_weld_washers_have_their_step(self):
        keys = [s.key for s in made("hole", weld_washers=True).steps("it")]
        self.assertIn("washers", keys)
        self.assertNotIn("washers", [s.key for s in made("hole").steps("it")])

    def test_bracing_one_side_or_both(self):
        titles = [made("splice", brace=b).steps("it")[0].title for b in ("both", "open-side")]
        self.assertIn("both sides", titles[0])
        self.assertIn("open side", titles[1])

    def test_spares_are_told_beside_the_option(self):
        inputs = f.demo()
        changed = inputs.model_copy(update={"design": inputs.design.model_copy(update={"stock_spares": "fit"})})
        both = side_by_side([("1", "one", inputs), ("2", "two", changed)])
        self.assertEqual([o.stock_spares for o in both.options], ["not said", "fit"])
