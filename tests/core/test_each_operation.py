"""What each operation does to the rail, by hand where it can be reckoned."""

import numpy as np
from django.test import SimpleTestCase

from nodulant.evaluate import InvalidInputs, evaluate
from nodulant.frame.model import STOCK, placed_on, planned_state, sections
from nodulant.frame.ops.plates.boxing_plan import boxing_development
from nodulant.frame.parts import on_rail
from nodulant.loads.beam import internal_forces
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


def on_plain_channel(op):
    survey = f.survey_of(f.straight_rail())
    placed = placed_on(survey, (op,), "left", planned_state((op,)))
    return on_rail(survey, "left", placed[0], placed)


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

    def test_the_gap_between_stitches_has_a_limit(self):
        """EN 1993-1-8, 4.3.2.2, from memory: 12 x 5 mm = 60 mm clear."""
        for pitch, verdict in ((90.0, "holds"), (120.0, "fails")):
            op = made("boxing", seam="stitch", bead_mm=40.0, pitch_mm=pitch)
            row = f.check_of(evaluate(f.with_operations(f.demo(), op)), "stitch-gap:it-seam:left")
            self.assertAlmostEqual(row.value, (pitch - 40.0) / 60.0)
            self.assertEqual(row.verdict, verdict)

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

    def test_open_its_floor_is_an_outstand(self):
        """On one web a floor counts to its class 3 width (EN 1993-1-1 table 5.2); between two it counts whole."""
        op = made("raise", depth_mm=40.0, length_mm=200.0, place=MID)
        held, hung = (at(f.straight_rail(), ops, 1500.0).properties for ops in ((f.boxing(), op), (op,)))
        self.assertLess(hung.reference_bottom[0], held.reference_bottom[0])

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

    def test_pieces_in_every_wall_make_the_rail_of_their_thickness(self):
        """Area, moments and J of a channel and of a tube that are 5 mm all round, by the same sections without a repair."""
        op = made("repair", **span(200.0), thickness_mm=5.0)
        for rusty, whole in ((f.straight_rail(wall=3.0), f.straight_rail(wall=5.0)), (tube(), tube(t=5.0))):
            with self.subTest(rusty.kind):
                mine, other = at(rusty, (op,), 1500.0), at(whole, (), 1500.0)
                for name in ("area", "i_y", "i_z", "s_top", "s_bottom"):
                    a, b = getattr(mine.properties, name)[0], getattr(other.properties, name)[0]
                    self.assertAlmostEqual(a / b, 1.0, delta=1e-9, msg=name)
                self.assertAlmostEqual(mine.shear_area[0], other.shear_area[0])
                self.assertAlmostEqual(mine.torsion.j[0] / other.torsion.j[0], 1.0, delta=0.06)

    def test_a_web_strip_leaves_the_flanges_as_rust_left_them(self):
        """150 x 60 x 3 channel, 5 mm strip from 30 to 120 of the web: A = 3 (150 + 2 x 57) + 2 x 90, I by Steiner; by hand."""
        alone = {"top": False, "bottom": False, "far": False, "low_mm": 30.0, "high_mm": 30.0}
        op = made("repair", **span(200.0), thickness_mm=5.0, **alone)
        bare, mended = (at(f.straight_rail(wall=3.0), ops, 1500.0) for ops in ((), (op,)))
        self.assertAlmostEqual(mended.properties.area[0], 3 * (150 + 2 * 57) + 2 * 90)
        self.assertAlmostEqual(mended.properties.i_y[0] - bare.properties.i_y[0], 2 * 90**3 / 12)
        self.assertAlmostEqual(mended.shear_area[0], 3 * 150 + 2 * 90)
        roles = {p.role for p in op.parts(on_plain_channel(op))}
        self.assertEqual(roles, {"patch"})

    def test_every_wall_that_is_counted_has_its_pattern(self):
        op = made("repair", **span(200.0), thickness_mm=5.0)
        parts = {p.role: p for p in op.parts(on_plain_channel(op))}
        self.assertEqual(set(parts), {"patch", "patch-top", "patch-bottom"}, "an open rail has no far wall")
        self.assertAlmostEqual(abs(parts["patch-top"].outline.area_mm2()), 400.0 * 60.0)

    def test_a_patch_of_weaker_steel_counts_by_its_yield(self):
        rail = tube().model_copy(update={"steel_id": "s355"})
        op = made("repair", **span(200.0), thickness_mm=3.5, steel_id="mild")
        pair = [at(rail, ops, 1500.0).shear_capacity[0] for ops in ((), (op,))]
        self.assertAlmostEqual(pair[1] / pair[0], 248.0 / 355.0)

    def test_a_strip_without_height_is_refused(self):
        inputs = f.with_operations(f.demo(), made("repair", low_mm=80.0, high_mm=80.0))
        with self.assertRaises(InvalidInputs) as caught:
            evaluate(inputs)
        self.assertIn("/low_mm", str([p.field for p in caught.exception.problems]))

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
