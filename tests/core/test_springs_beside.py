"""Springs that stand beside the rails twist them: force times its distance from the shear centre (statics)."""

import numpy as np
from django.test import SimpleTestCase

from nodulant.axles.points import HardPoint
from nodulant.evaluate import evaluate
from nodulant.evaluate.load_plan import plan_of
from nodulant.frame.ops.mounts.bracket import Bracket
from nodulant.frame.ops.mounts.pad import Pad
from nodulant.frame.ops.mounts.tabs import Tabs
from nodulant.frame.place import Place
from nodulant.job.document import Inputs
from nodulant.loads import case_loads
from nodulant.loads.carried import carried_by
from nodulant.loads.frame3d import rail_forces, solve_frame
from nodulant.loads.plan import CaseChange, Pull
from nodulant.loads.pulls import beside, put_on, twisted
from nodulant.remedies.patch import patched
from nodulant.sections.channel import shear_centre_offset_mm
from nodulant.survey.crossmember import Crossmember
from tests import fixtures as f
from tests.core.test_operations import made
from tests.core.test_remedies import remedies
from tests.core.test_space_cases import frame

AT, WEB, UP = 2517.0, 410.0, 1000.0
"""Station of the coil, outer face of the rails' webs, mm; a force, N."""
OUTSIDE = WEB - 2.5 + shear_centre_offset_mm(150.0, 60.0, 5.0)
"""Where the van's open rails do not twist, by the textbook's mid-line formula (e = 3 b2 / (h + 6 b))."""
TIE = Crossmember(id="tie", name="Tie", x_mm=AT, profile="tube", height_mm=60, width_mm=60, wall_mm=4, end="welded")


def pair(y: float, force=(0.0, 0.0, UP)):
    right = Pull((AT, y, 340.0), force)
    return right, right.mirrored()


def on_coils(y: float, foot: float | None = None, ties: tuple[Crossmember, ...] = (), **design) -> Inputs:
    """The van as it was on a rear axle with links and coils, their upper eyes ``y`` from the middle, their feet at ``foot``."""
    inputs, step = f.demo("arc"), f.demo("step")
    rear = next(own for own in step.design.suspensions if own.axle == "rear")
    up, low = rear.springs.upper, rear.springs.lower
    springs = rear.springs.model_copy(
        update={
            "upper": HardPoint(x_mm=AT, y_mm=y, z_mm=up.z_mm),
            "lower": HardPoint(x_mm=low.x_mm, y_mm=y if foot is None else foot, z_mm=low.z_mm),
        }
    )
    seats = tuple(s.model_copy(update={"x_mm": AT}) if s.axle == "rear" else s for s in inputs.design.seats)
    own = {
        "operations": (),
        "suspensions": (rear.model_copy(update={"springs": springs}),),
        "seats": seats,
        "crossmembers": ties,
    }
    return inputs.model_copy(update={"design": inputs.design.model_copy(update=own | design)})


def factor(inputs: Inputs, case: str) -> float | None:
    """Factor of safety of the right rail, also where the row is judged by how much harder than stock it is worked."""
    rows = [c for c in evaluate(inputs).checks if f":rail-{case}:right" in c.id]
    return rows[0].said.of["factor"].value if rows else None


class Torque(SimpleTestCase):
    """What comes onto an open channel."""

    def torque(self, pulls):
        loads = twisted(frame(), pulls)
        return loads[1::2, 3].sum(), loads[::2, 3].sum()

    def test_it_is_the_force_times_its_distance_from_the_shear_centre(self):
        for y in (WEB + 10, 500.0, 560.0, WEB - 60):
            right, left = self.torque(pair(y))
            self.assertAlmostEqual(right, UP * (y - OUTSIDE), delta=UP * 1.0, msg=f"y {y}")
            self.assertAlmostEqual(left, -right, delta=1e-6 * UP)

    def test_a_force_through_the_shear_centre_twists_nothing(self):
        right, _ = self.torque(pair(OUTSIDE))
        self.assertLess(abs(right), UP * 1.0)

    def test_a_leaning_spring_counts_by_its_line(self):
        """Its line passes the shear centre, 75 mm above the datum, 265 mm below its eye."""
        lean = (OUTSIDE - 500.0) / (75.0 - 340.0)
        right, _ = self.torque(pair(500.0, (0.0, lean * UP, UP)))
        self.assertLess(abs(right), UP * 1.5)

    def test_what_hangs_between_the_rails_twists_neither(self):
        self.assertEqual(beside(frame(), pair(250.0)), {})
        self.assertEqual(self.torque(pair(250.0)), (0.0, 0.0))

    def test_it_adds_nothing_up_or_along(self):
        loads = twisted(frame(), pair(500.0, (300.0, 100.0, UP)))
        self.assertEqual(np.abs(loads[:, [0, 2, 4, 5]]).max(), 0.0)

    def test_a_whole_force_twists_about_the_same_point(self):
        loads = put_on(frame(), pair(500.0))[0]
        self.assertAlmostEqual(loads[1::2, 3].sum(), UP * (500.0 - OUTSIDE), delta=UP)
        self.assertAlmostEqual(loads[:, 2].sum(), 2 * UP, delta=1e-6)


class Frames(SimpleTestCase):
    """The frame under its own weight on such springs."""

    def test_the_torque_in_the_rail_steps_by_it_at_the_spring(self):
        fr, survey = frame(), f.demo().survey
        plan = plan_of(on_coils(500.0))
        load = carried_by(survey.masses, survey.seats, None, (), {}, plan.axles)
        without = carried_by(survey.masses, survey.seats)
        rows = np.stack([case_loads.standing(fr, own) for own in (load, without)])
        torque = rail_forces(fr, solve_frame(fr, rows))["right"].torque
        more = torque[0] - torque[1]
        step = abs(more[fr.at < AT - 20][-1] - more[fr.at > AT + 60][0])
        lift = load.axle_load("rear") * plan.axles["rear"].springs[0].force[2]
        self.assertAlmostEqual(step / (lift * (500.0 - OUTSIDE)), 1.0, delta=0.02)

    def test_springs_bear_what_the_axle_carries(self):
        for foot in (500.0, 420.0):
            pulls = plan_of(on_coils(500.0, foot)).axles["rear"].springs
            self.assertEqual(len(pulls), 2)
            self.assertAlmostEqual(sum(p.force[2] for p in pulls), 1.0, delta=0.06)
            self.assertAlmostEqual(sum(p.force[1] for p in pulls), 0.0, delta=1e-9)

    def test_it_is_told_only_where_springs_stand_beside_the_rails(self):
        self.assertIsNone(factor(on_coils(250.0), "bump-beside"))
        self.assertIsNotNone(factor(on_coils(500.0), "bump-beside"))
        self.assertIsNone(factor(f.demo("arc"), "bump-beside"), "nobody said where the arc's coilovers stand")

    def test_an_own_factor_of_the_bump_is_that_of_every_bump(self):
        inputs = on_coils(480.0)
        change = {"bump": CaseChange(factor=1.5, reason="a yard truck")}
        loads = inputs.design.loads.model_copy(update={"cases": change})
        gentle = inputs.model_copy(update={"design": inputs.design.model_copy(update={"loads": loads})})
        for case in ("bump", "bump-beside"):
            self.assertAlmostEqual(factor(gentle, case) / factor(inputs, case), 2.0, delta=0.1, msg=case)

    def test_further_out_is_worse_and_a_crossmember_there_carries_it(self):
        """Common practice: towers outside open rails are tied to each other."""
        near, out, far = (factor(on_coils(y), "bump-beside") for y in (OUTSIDE, 480.0, 520.0))
        self.assertGreater(near, 3.5)
        self.assertGreater(near, 2 * out)
        self.assertGreater(out, 1.3 * far)
        self.assertLess(far, 1.0, "an open channel with 85 mm of arm yields at 3 g")
        self.assertGreater(factor(on_coils(520.0, ties=(TIE,)), "bump-beside"), 1.5)

    def test_a_crossmember_a_hand_away_carries_it_as_its_bracket_reaches(self):
        """Common practice: the coil's bracket bolts to the crossmember beside it, not to the web between."""
        beside_it = TIE.model_copy(update={"x_mm": AT + 90})
        at, off = (factor(on_coils(500.0, ties=(tie,)), "bump-beside") for tie in (TIE, beside_it))
        self.assertGreater(off, 0.9 * at)
        too_far = TIE.model_copy(update={"x_mm": AT + 250})
        self.assertLess(factor(on_coils(500.0, ties=(too_far,)), "bump-beside"), 0.8 * at)

    def test_rails_boxed_from_crossmember_to_crossmember_carry_it(self):
        ends = {
            "start": {"anchor_id": "rear-axle", "offset_mm": -520},
            "end": {"anchor_id": "rear-axle", "offset_mm": 805},
        }
        box = made("boxing", **ends)
        self.assertGreater(factor(on_coils(520.0, operations=(box,)), "bump-beside"), 1.5)

    def test_one_press_ties_them(self):
        inputs = on_coils(480.0)
        group = next(
            g for g in evaluate(inputs).groups if any("bump-beside" in i for i in g.ids) and g.verdict == "fails"
        )
        found = remedies(inputs, group.key)
        self.assertIsNone(found.reason)
        tie = found.offered[0].patch.crossmembers[0]
        self.assertAlmostEqual(tie.x_mm, AT, delta=1.0)
        self.assertGreater(factor(patched(inputs, found.offered[0].patch), "bump-beside"), 1.5)

    def test_leaves_and_wheels_by_themselves_say_nothing_of_it(self):
        step = plan_of(f.demo("step"))
        self.assertEqual(step.axles["front"].springs, (), "wishbones: one piece with their crossmember")
        self.assertEqual(step.stock_axles["rear"].springs, (), "leaves hang on their hangers")


class Roll(SimpleTestCase):
    """A couple that goes through such springs: their force is it over their distance, and turns each rail by its arm."""

    def twisting(self, y: float, ties: tuple[Crossmember, ...] = ()):
        fr, survey = frame(), f.demo().survey
        plan = plan_of(on_coils(y, ties=ties))
        return fr, case_loads.unit_twist(fr, carried_by(survey.masses, survey.seats, None, (), {}, plan.axles))

    def test_each_rail_gets_its_torque_and_the_couple_stays_what_it_is(self):
        for y in (500.0, 560.0, WEB - 60):
            fr, loads = self.twisting(y)
            rear = np.repeat(fr.x > AT - 500, 2)
            for side in (0, 1):
                torque = loads[side::2, 3].sum()
                self.assertAlmostEqual(torque * 2 * y / (y - OUTSIDE), 1.0, delta=0.03, msg=f"y {y}")
            whole = loads[:, 3] + fr.nodes[:, 1] * loads[:, 2] - fr.nodes[:, 2] * loads[:, 1]
            self.assertAlmostEqual(whole[rear].sum(), 1.0, delta=1e-9)
            self.assertAlmostEqual(whole[~rear].sum(), -1.0, delta=1e-9)
            np.testing.assert_allclose(loads[:, :3].sum(axis=0), 0, atol=1e-12)

    def test_springs_over_or_between_the_rails_turn_neither(self):
        a_millimetre_of_arm = 1.0 / (2 * OUTSIDE)
        self.assertLess(np.abs(self.twisting(OUTSIDE)[1][:, 3]).max(), a_millimetre_of_arm)
        self.assertEqual(np.abs(self.twisting(250.0)[1][:, 3]).max(), 0.0)

    def test_a_twisted_frame_has_it_in_the_rail_at_the_spring(self):
        """The torque in the rail steps by M / 2y times the arm, beside what the same couple at the seats makes there."""
        fr, survey, y = frame(), f.demo().survey, 500.0
        axles = plan_of(on_coils(y)).axles
        loads = [carried_by(survey.masses, survey.seats, None, (), {}, own) for own in (axles, {})]
        rows = np.stack([case_loads.unit_twist(fr, load) for load in loads])
        with_springs, without = rail_forces(fr, solve_frame(fr, rows))["right"].torque
        more = with_springs - without
        step = abs(more[fr.at < AT - 20][-1] - more[fr.at > AT + 60][0])
        self.assertAlmostEqual(step * 2 * y / (y - OUTSIDE), 1.0, delta=0.05)


TOWER = Bracket(
    id="tower",
    name="Tower",
    place=Place(anchor_id="rear-axle", offset_mm=AT - 2610.0),
    height_mm=75.0,
    width_mm=150.0,
    tall_mm=120.0,
    up_n=12_000.0,
)
BAG = Pad(id="bag", name="Bag plate", place=TOWER.place, holds="air-spring", across_mm=120.0, force_n=12_000.0)


class Mounts(SimpleTestCase):
    """Mounts with a typed force, of springs that nobody described."""

    def van(self, *operations, **own) -> Inputs:
        inputs = f.demo("arc")
        own = {"operations": operations, "suspensions": (), "crossmembers": (), **own}
        return inputs.model_copy(update={"design": inputs.design.model_copy(update=own)})

    def tower(self, standoff_mm: float, **own) -> Bracket:
        return TOWER.model_copy(update={"tabs": Tabs(standoff_mm=standoff_mm), **own})

    def bump(self, *operations, **own) -> float | None:
        return factor(self.van(*operations, **own), "bump-beside")

    def test_the_further_out_a_bracket_carries_the_less_an_open_rail_has_left(self):
        near, far = (self.bump(self.tower(out)) for out in (20.0, 100.0))
        self.assertGreater(near, 1.5 * far)
        words = next(c.why.words for c in evaluate(self.van(self.tower(100.0))).checks if "rail-bump-beside:" in c.id)
        self.assertIn("the torque of the force typed for 'Tower'", words)
        self.assertLess(far, 1.0, "12 kN 80 mm beyond the shear centre of an open channel: it yields")

    def test_as_a_described_coil_at_the_same_place_with_the_same_force(self):
        """The typed force that makes the same torque asks the same of the rail."""
        described = on_coils(500.0)
        load = carried_by(described.survey.masses, described.design.seats, None, (), {}, plan_of(described).axles)
        up = 3 * max(pull.force[2] for pull in load.spring_pulls)
        eye = described.design.suspensions[0].springs.upper
        # its bolt where the coil's eye is: 410 mm to the web's outside, the underside on the datum plane
        typed = self.tower(500.0 - WEB, up_n=up)
        seats = {"seats": described.design.seats}
        self.assertAlmostEqual(
            self.bump(typed, **seats) / factor(described, "bump-beside"), 1.0, delta=0.06, msg=f"eye at {eye}"
        )

    def test_what_carries_it_and_what_does_not_count(self):
        out = self.tower(100.0)
        self.assertGreater(self.bump(out, crossmembers=(TIE,)), 2.0, "a crossmember at it")
        self.assertIsNone(self.bump(self.tower(100.0, up_n=0.0, along_n=12_000.0)), "a link that pushes along")
        self.assertIsNone(self.bump(self.tower(100.0, up_n=0.0)), "no force")
        self.assertIsNone(self.bump(BAG), "under the rail: its web stands over it")
        over, beyond = (self.bump(BAG.model_copy(update={"out_mm": out})) for out in (50.0, 140.0))
        self.assertGreater(over, 2 * beyond)
        self.assertLess(beyond, 1.0)

    def test_one_press_puts_a_crossmember_at_it_or_beside_it(self):
        """Also where a rail is worked hardest at the next crossmember, which takes the warping."""
        inputs = self.van(self.tower(90.0))
        row = next(c for c in evaluate(inputs).checks if ":rail-bump-beside:right" in c.id)
        self.assertGreater(abs(row.governs.station_mm - AT), 300.0)
        group = next(g for g in evaluate(inputs).groups if row.id in g.ids)
        self.assertEqual(group.verdict, "fails")
        found = remedies(inputs, group.key)
        self.assertIsNone(found.reason)
        patch = found.offered[0].patch
        self.assertGreater(found.offered[0].mass_kg, 3.0, "a welded-in tube is metal")
        # tacked in by two in an hour, welded by one in three quarters of one
        self.assertEqual(found.offered[0].minutes, 2 * 60 + 45)
        self.assertLessEqual(abs(patch.crossmembers[0].x_mm - AT), 120.0)
        self.assertGreater(factor(patched(inputs, patch), "bump-beside"), 1.5)

    def test_travel_knows_better_than_what_was_typed(self):
        plain = on_coils(OUTSIDE)
        both = plain.model_copy(update={"design": plain.design.model_copy(update={"operations": (self.tower(100.0),)})})
        self.assertAlmostEqual(factor(both, "bump-beside") / factor(plain, "bump-beside"), 1.0, delta=0.02)
