"""The frame in twist: two rails and crossmembers in space, stock against planned."""

import numpy as np
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from nodulant.base.errors import NotSolvable
from nodulant.evaluate import Want, evaluate
from nodulant.frame.model import STOCK, planned_state, sections
from nodulant.loads.beam import G, internal_forces, reactions
from nodulant.loads.cases import SPACE_CASES
from nodulant.loads.ladder import ladder_stations, solve_ladder
from nodulant.loads.plan import LoadPlan
from nodulant.sections.profile import profile
from nodulant.strength.space import missing_for_space
from nodulant.survey.crossmember import END_FIXITY, Crossmember
from nodulant.units.inline import told
from tests import fixtures as f

QUICK = settings(deadline=None, derandomize=True, max_examples=25)


def tie(x, kind="tube", end="welded", size=70.0, wall=4.0):
    return Crossmember(
        id=f"t{int(x + 1000)}", name="t", x_mm=x, profile=kind, height_mm=size, width_mm=size, wall_mm=wall, end=end
    )


def solved(operations=(), ties=None, seats=None, rails=None):
    """The demo's frame as a ladder."""
    survey = f.demo().survey
    rails = rails or survey.rails
    ties = survey.crossmembers if ties is None else ties
    seats = seats or survey.seats
    x = ladder_stations(rails, [s.x_mm for s in seats] + [c.x_mm for c in ties])
    state = planned_state(operations) if operations else STOCK
    cut = {
        side: sections(survey.model_copy(update={"rails": rails}), operations, side, x, state)
        for side in ("left", "right")
    }
    return x, solve_ladder(rails, x, cut, ties, survey.masses, seats)


class Standing(SimpleTestCase):
    """The space frame must agree with the beam where the beam is exact."""

    def test_moments_at_1_g_are_those_of_the_determinate_beam(self):
        for seats in (f.demo().survey.seats, f.demo().design.seats):
            x, ladder = solved(seats=seats)
            beam = internal_forces(x, f.demo().survey.masses, seats).moment
            for side in ("left", "right"):
                np.testing.assert_allclose(ladder.standing[side].moment, beam, atol=2e-4 * np.abs(beam).max())

    def test_a_mass_beyond_the_rails_bends_them_as_it_does_the_beam(self):
        survey = f.demo().survey
        ahead = survey.masses[0].model_copy(update={"id": "ahead", "x_mm": -920.0, "mass_kg": 150.0})
        spread = ahead.model_copy(update={"id": "behind", "x_mm": 3300.0, "to_x_mm": 3900.0})
        masses = (*survey.masses, ahead, spread)
        x = ladder_stations(survey.rails, [s.x_mm for s in (*survey.seats, *survey.crossmembers)])
        cut = {side: sections(survey, (), side, x, STOCK) for side in ("left", "right")}
        ladder = solve_ladder(survey.rails, x, cut, survey.crossmembers, masses, survey.seats)
        beam = internal_forces(x, masses, survey.seats).moment
        self.assertGreater(abs(beam[0]), 1e4)
        np.testing.assert_allclose(ladder.standing["left"].moment, beam, atol=3e-4 * np.abs(beam).max())

    def test_equal_rails_do_not_twist_under_their_own_load(self):
        """The shear centre is taken on the rail's axis: see the methods for what that leaves out."""
        _, ladder = solved()
        self.assertLess(
            np.abs(ladder.standing["left"].torque).max(), 5e-3 * np.abs(ladder.standing["left"].moment).max()
        )

    def test_it_sags_between_its_seats(self):
        _, ladder = solved()
        self.assertLess(ladder.sag_mm["left"].min(), -0.5)
        np.testing.assert_allclose(ladder.sag_mm["left"], ladder.sag_mm["right"], atol=1e-3)


class Twisting(SimpleTestCase):
    def test_both_rails_carry_the_couple_in_opposite_bending(self):
        _, ladder = solved()
        left, right = ladder.twisted["left"], ladder.twisted["right"]
        np.testing.assert_allclose(left.moment, -right.moment, atol=1e-3 * np.abs(left.moment).max())
        np.testing.assert_allclose(left.torque, right.torque, atol=1e-3 * np.abs(left.torque).max() + 1e-9)

    def test_boxing_the_whole_ladder_stiffens_it_several_times(self):
        """Boxing buys torsion (common practice); a ladder gains less than its rails alone, since crossmembers share."""
        whole = f.boxing("flush", 5.0)
        start, end = (
            whole.start.model_copy(update={"anchor_id": "front-axle", "offset_mm": x}) for x in (-619.0, 3479.0)
        )
        boxed = whole.model_copy(update={"start": start, "end": end})
        ties = tuple(tie(x) for x in (-560, 640, 2090, 3415))
        open_, closed = solved(ties=ties)[1], solved((boxed,), ties)[1]
        gain = closed.stiffness_nm_per_deg / open_.stiffness_nm_per_deg
        self.assertGreater(gain, 3)
        self.assertLess(gain, 100)

    def test_at_a_crossmember_the_greater_side_is_told(self):
        """The moment jumps there: it may not fall below both neighbours' line, nor hide between two signs."""
        at = 310.0
        near = [at - 1, at, at + 1]
        survey = f.demo().survey
        x = ladder_stations(survey.rails, [*near, *(s.x_mm for s in (*survey.seats, *survey.crossmembers))])
        cut = {side: sections(survey, (), side, x, STOCK) for side in ("left", "right")}
        ladder = solve_ladder(survey.rails, x, cut, survey.crossmembers, survey.masses, survey.seats)
        before, here, after = (abs(ladder.twisted["left"].moment[np.searchsorted(x, place)]) for place in near)
        self.assertGreater(abs(before - after), 0.3 * here)
        self.assertAlmostEqual(here / max(before, after), 1.0, delta=0.01)

    def test_firmer_ends_and_more_ties_stiffen(self):
        few = tuple(tie(x, "channel", "riveted") for x in (-560, 3415))
        welded = tuple(c.model_copy(update={"end": "gusseted"}) for c in few)
        more = (*few, tie(1400))
        base = solved(ties=few)[1].stiffness_nm_per_deg
        self.assertGreater(solved(ties=welded)[1].stiffness_nm_per_deg, base)
        self.assertGreater(solved(ties=more)[1].stiffness_nm_per_deg, base)
        self.assertLess(END_FIXITY["riveted"], END_FIXITY["welded"])

    def test_nothing_that_ties_the_rails_is_named(self):
        with self.assertRaises(NotSolvable) as caught:
            solved(ties=())
        self.assertEqual(caught.exception.field, "/survey/crossmembers")
        self.assertIn("nothing ties the left rail to the right one", caught.exception.message)

    @QUICK
    @given(
        st.lists(st.floats(-600, 3400), min_size=1, max_size=6, unique=True),
        st.sampled_from(["tube", "box", "channel"]),
    )
    def test_any_crossmembers_give_finite_figures(self, places, kind):
        _, ladder = solved(ties=tuple(tie(x, kind).model_copy(update={"id": f"t{i}"}) for i, x in enumerate(places)))
        self.assertTrue(np.isfinite(ladder.stiffness_nm_per_deg) and ladder.stiffness_nm_per_deg > 0)
        for rail in (*ladder.standing.values(), *ladder.twisted.values()):
            self.assertTrue(np.isfinite(rail.moment).all() and np.isfinite(rail.torque).all())


class Evaluated(SimpleTestCase):
    def figure(self, result, id_):
        return next(x for x in result.figures if x.id == id_)

    def test_the_couple_of_the_case(self):
        """Lighter axle's load x half its track x 1.3 (body-engineering textbooks, from memory)."""
        survey = f.demo().survey
        held = reactions(survey.masses, survey.seats)
        self.assertLess(held.rear, held.front)
        lifted = 1.3 * held.rear * survey.rear.track_mm / 2
        deep = f.demo().model_copy(
            update={"design": f.demo().design.model_copy(update={"loads": LoadPlan(hole_mm=1000.0)})}
        )
        shallow, rigid = (self.figure(evaluate(i), "twist-couple").value * 1e6 for i in (f.demo(), deep))
        self.assertLess(shallow, rigid)
        self.assertLessEqual(rigid, lifted * (1 + 1e-9))
        self.assertAlmostEqual(rigid / shallow, 5.0, places=6)  # the frame and its springs in series are linear
        self.assertEqual((SPACE_CASES[0].factor, round(G, 5)), (1.3, 9.80665))

    def test_stiffness_of_both_frames_is_told_with_what_it_leaves_out(self):
        result = evaluate(f.demo())
        stock, planned = (self.figure(result, f"twist-{n}") for n in ("stock", "planned"))
        self.assertIn("warp", stock.basis)
        self.assertAlmostEqual(self.figure(result, "twist-ratio").value, planned.value / stock.value)

    def test_a_part_beyond_the_rails_is_named_and_not_moved_to_their_end(self):
        inputs = f.demo()
        away = tie(9000.0)
        for part in ("survey", "design"):
            owner = getattr(inputs, part)
            changed = owner.model_copy(update={"crossmembers": (*owner.crossmembers, away)})
            result = evaluate(inputs.model_copy(update={part: changed}))
            check = f.check_of(result, "case-limit:rail-twist:both")
            self.assertEqual((check.verdict, check.missing), ("not computed", (f"/{part}/crossmembers",)))
            words = told(check.remedy, "mm")
            self.assertIn("x = 9000 mm lies beyond the rails; both are there from -620 mm to 3480 mm", words)

    def test_a_bare_design_equals_stock(self):
        bare = f.with_operations(f.demo())
        bare = bare.model_copy(update={"design": bare.design.model_copy(update={"seats": (), "crossmembers": ()})})
        result = evaluate(bare)
        self.assertAlmostEqual(self.figure(result, "twist-ratio").value, 1.0, delta=2e-3)
        self.assertIn(f.check_of(result, "case-limit:rail-twist:left").verdict, {"holds", "stock itself"})

    def test_a_crossmember_that_the_design_adds_stiffens_the_planned_frame_only(self):
        inputs = f.demo()
        bare = inputs.model_copy(update={"design": inputs.design.model_copy(update={"crossmembers": ()})})
        rows = [[self.figure(evaluate(i), f"twist-{n}").value for n in ("stock", "planned")] for i in (bare, inputs)]
        self.assertEqual(rows[0][0], rows[1][0])
        self.assertGreater(rows[1][1], rows[0][1])

    def test_a_crossmember_given_twice_is_named_and_counted_once(self):
        inputs = f.demo()
        double = inputs.survey.crossmembers[2].model_copy(update={"id": "again", "name": "again"})
        ties = (*inputs.design.crossmembers, double)
        twice = inputs.model_copy(update={"design": inputs.design.model_copy(update={"crossmembers": ties})})
        one, two = evaluate(inputs), evaluate(twice)
        self.assertEqual(self.figure(one, "twist-planned").value, self.figure(two, "twist-planned").value)
        row = next(c for c in two.checks if c.limit_id == "crossmember-twice")
        self.assertEqual(row.verdict, "fails")
        self.assertIn("'again' stands where", row.title)
        self.assertFalse([c for c in one.checks if c.limit_id == "crossmember-twice"])

    def test_open_rails_carry_torque_by_warping(self):
        """An open rail's fibres are pulled by the bimoment (Vlasov): its stress counts, and it is told."""
        check = f.check_of(evaluate(f.with_operations(f.demo())), "case-limit:rail-twist:left")
        self.assertIsNotNone(check.value)
        self.assertIn("bimoment", check.why.words)

    def test_each_missing_input_is_pointed_at(self):
        front = f.demo().survey.front.model_copy(update={"track_mm": None})
        for change, pointer in (
            ({"crossmembers": ()}, "/survey/crossmembers"),
            ({"front": front}, "/survey/front/track_mm"),
        ):
            inputs = f.with_survey(f.demo(), **change)
            self.assertEqual(missing_for_space(inputs.survey), (pointer,))
            check = f.check_of(evaluate(inputs), "case-limit:rail-twist:both")
            self.assertEqual((check.verdict, check.missing), ("not computed", (pointer,)))

    def test_the_strip_shows_the_case_or_nothing(self):
        strip = evaluate(f.demo(), Want(case="twist", strip_side="left")).strips[0]
        self.assertEqual(strip.case, "twist")
        self.assertEqual(len(strip.torque_nm), len(strip.x_mm))
        bump = evaluate(f.demo(), Want(case="static", strip_side="left")).strips[0]
        self.assertGreater(max(strip.moment_nm), max(bump.moment_nm))
        unknown = evaluate(f.with_survey(f.demo(), crossmembers=()), Want(case="twist", strip_side="left")).strips[0]
        self.assertIsNone(unknown.use)

    def test_left_out_while_a_hand_drags(self):
        ids = [c.id for c in evaluate(f.demo(), Want(frame=False)).checks]
        self.assertFalse([i for i in ids if i.startswith("twist")])


class Profiles(SimpleTestCase):
    """Crossmember profiles against closed forms (Roark, tables of sections)."""

    def test_tube(self):
        p = profile("tube", 70.0, 70.0, 4.0)
        self.assertAlmostEqual(p.area, np.pi * (35**2 - 31**2), places=6)
        self.assertAlmostEqual(p.i_y, np.pi * (70**4 - 62**4) / 64, places=4)
        self.assertAlmostEqual(p.j, 2 * p.i_y)

    def test_box_and_channel(self):
        box = profile("box", 80.0, 60.0, 4.0)
        self.assertAlmostEqual(box.i_y, (60 * 80**3 - 52 * 72**3) / 12, places=4)
        self.assertAlmostEqual(
            box.j, 4 * (76 * 56) ** 2 * 4 / (2 * (76 + 56)), delta=0.05 * box.j
        )  # Bredt; the walls' own strips besides
        channel = profile("channel", 110.0, 50.0, 4.0)
        self.assertAlmostEqual(channel.i_y, (50 * 110**3 - 46 * 102**3) / 12, places=4)
        self.assertAlmostEqual(channel.area, 110 * 4 + 2 * 46 * 4)
        self.assertLess(channel.j, box.j / 50)

    def test_a_wall_that_fills_it(self):
        with self.assertRaisesRegex(ValueError, "fills the crossmember"):
            tie(0, "tube", size=8.0, wall=4.0)
