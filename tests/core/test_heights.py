"""Heights of both axles: stacks against hubs and cuts, rake, load states, rails over the ground; by hand."""

import math
from itertools import pairwise
from unittest import TestCase

from nodulant.evaluate import InvalidInputs, evaluate
from nodulant.frame.ops.plates.plate import Doubler
from nodulant.frame.place import Place
from nodulant.suspension.study import hub_height
from nodulant.targets.drop import DropEntry, FrontTarget, Keeps, Stack, add_up, towards_rail
from tests import fixtures as f
from tests.core.test_steering import ONLY, front, job, with_front


def of(inputs):
    return evaluate(inputs, ONLY)


def checks(inputs):
    return {c.id: c for c in of(inputs).checks}


def with_targets(inputs, **update):
    targets = inputs.design.targets.model_copy(update=update)
    return inputs.model_copy(update={"design": inputs.design.model_copy(update={"targets": targets})})


def entry(id_, mechanism, amount, **more):
    return DropEntry(id=id_, name=id_, mechanism=mechanism, amount_mm=amount, **more)


class Stacks(TestCase):
    def test_a_step_behind_the_datum_counts_on_both_ways(self):
        """Wherry: the rear segment holds the datum, 75 of step and 60 of springs are 135 of load floor."""
        own = checks(job("wherry", "step"))["stack-stands:rear:both"]
        self.assertAlmostEqual(own.why.values["stands"], 135.0, places=6)
        self.assertEqual(own.verdict, "holds")

    def test_counted_twice_is_found_by_hubs_and_tyres(self):
        """A pocket that is entered as raised pivots too: the stack claims more than the hubs give."""
        inputs = job("wherry", "step")
        stack = inputs.design.targets.front
        both = FrontTarget(
            drop_mm=189.0, entries=(*stack.entries, entry("pivots", "pivots-raised", 54.0, costs_travel=False))
        )
        found = checks(with_targets(inputs, front=both))
        self.assertEqual(found["stack-stands:front:both"].verdict, "fails")
        self.assertAlmostEqual(found["stack-stands:front:both"].value, 54.5, places=6)
        self.assertEqual(found["double-count:front:both"].verdict, "fails")

    def test_a_pocket_that_is_cut_counts_by_itself(self):
        inputs = job("wherry", "step")
        left_out = FrontTarget(drop_mm=135.0, entries=(entry("all", "other", 135.0),))
        found = checks(with_targets(inputs, front=left_out))["drop-sum:front:both"]
        self.assertEqual((found.verdict, found.value), ("fails", 54.0))

    def test_a_step_of_the_stack_that_nobody_cuts_is_found(self):
        inputs = job("brackmoor", "welded")
        stack = (entry("step", "z-step", 50.0),)
        found = checks(with_targets(inputs, drop_mm=50.0, entries=stack))["stack-cut:rear-step:both"]
        self.assertEqual((found.verdict, found.value), ("fails", 50.0))

    def test_each_thing_is_kept_or_lost_by_itself(self):
        stack = Stack(
            drop_mm=60,
            entries=(
                entry("springs", "springs", 20.0, keeps=Keeps(camber=False, toe=False, anti_dive=False)),
                entry("spindle", "spindle", 40.0, keeps=Keeps(toe=False)),
                entry("tyre", "tyre", 0.0, keeps=Keeps(camber=False)),
            ),
        )
        drop = add_up(stack)
        self.assertEqual(drop.camber_lost_to, ("springs",))
        self.assertEqual(drop.toe_lost_to, ("springs", "spindle"))
        self.assertEqual(drop.anti_dive_lost_to, ("springs",))

    def test_two_unknown_at_the_front_are_told_at_their_place(self):
        inputs = job("wherry", "step")
        two = FrontTarget(drop_mm=100, entries=(entry("a", "other", None), entry("b", "springs", None)))
        with self.assertRaises(InvalidInputs) as caught:
            of(with_targets(inputs, front=two))
        self.assertEqual(caught.exception.problems[0].field, "/design/targets/front/entries/1/amount_mm")

    def test_hubs_of_the_front_follow_its_own_stack(self):
        inputs = with_targets(
            job("wherry", "step"),
            front=FrontTarget(drop_mm=40, entries=(entry("s", "springs", 40.0, costs_travel=True),)),
        )
        own = front(inputs).model_copy(update={"hub_z_mm": None})
        towards = towards_rail(inputs.design.targets, "front")
        self.assertEqual(towards, 40.0)
        self.assertAlmostEqual(hub_height(inputs.survey, own, towards), -157.5 + 40.0)
        self.assertEqual(towards_rail(inputs.design.targets, "rear"), 60.0)


class PlatesUnderTheRail(TestCase):
    """A plate on the lower flange hangs in the axle's way and nearer to the ground; by subtraction."""

    def plated(self, thickness=6.0, **more):
        own = job("wherry", "arc")
        axle = own.design.operations[-1].place.anchor_id
        start, end = (Place(anchor_id=axle, offset_mm=x) for x in (-500, 500))
        fields = {"id": "under", "name": "Under", "start": start, "end": end, "face": "bottom", **more}
        return own, f.with_operations(own, *own.design.operations, Doubler(**fields, thickness_mm=thickness))

    def test_it_bridges_the_notch_and_the_tube_meets_it(self):
        bare, plated = (checks(i)["metal-clearance:axle-tube:left"] for i in self.plated())
        self.assertEqual((bare.verdict, plated.verdict), ("holds", "fails"))

    def test_it_is_the_lowest_place_of_the_rail_and_drawn_there(self):
        bare, plated = (of(i) for i in self.plated(thickness=10.0))
        thicker = of(self.plated(thickness=20.0)[1])
        self.assertLess(plated.heights.rail_mm, bare.heights.rail_mm)
        self.assertAlmostEqual(plated.heights.rail_mm - thicker.heights.rail_mm, 10.0, places=6)
        self.assertEqual(bare.rails[0].flange_plates, ())
        drawn = plated.rails[0].flange_plates[0]
        z = [v.y for v in drawn.outline.vertices]
        self.assertAlmostEqual(max(z) - min(z), 10.0, delta=3.0)
        self.assertEqual(drawn.part, "under/bottom/left")


class Ground(TestCase):
    def test_rake_is_the_difference_over_the_wheelbase(self):
        found = of(job("wherry", "step")).heights
        self.assertAlmostEqual(found.stock.front_mm, 500.5)
        self.assertAlmostEqual(found.stock.rear_mm, 341 + 152.75)
        by_hand = math.degrees(math.atan((found.planned.rear_mm - found.planned.front_mm) / 2610))
        self.assertAlmostEqual(found.planned.rake_deg, by_hand, places=9)

    def test_level_rails_at_full_bump_by_hand(self):
        """Straight rails from axle to axle: the line between both feet rises by each axle's bump."""
        inputs = job("brackmoor", "welded")
        found = of(inputs).heights
        own, targets = front(inputs), inputs.design.targets
        wheelbase = inputs.survey.wheelbase_mm
        lowest = min(
            under + planned
            for rail in (inputs.survey.rails.left, inputs.survey.rails.right)
            for under, planned in (
                (
                    s.underside_z_mm,
                    found.planned.front_mm
                    - own.bump_mm
                    + (found.planned.rear_mm - targets.bump_mm - found.planned.front_mm + own.bump_mm)
                    * s.x_mm
                    / wheelbase,
                )
                for s in rail.stations
            )
        )
        self.assertAlmostEqual(found.rail_bump_mm, lowest, places=6)

    def test_without_a_front_suspension_full_bump_is_not_computed(self):
        unsaid = with_targets(job("wherry", "arc"), front=FrontTarget())
        found = checks(unsaid)["rail-ground-bump:rails:both"]
        self.assertEqual(found.verdict, "not computed")
        self.assertEqual(found.missing, ("/design/targets/front/bump_mm",))
        given = with_targets(job("wherry", "arc"), front=FrontTarget(bump_mm=70.0))
        self.assertEqual(checks(given)["rail-ground-bump:rails:both"].verdict, "holds")

    def test_without_a_tyre_nothing_is_invented(self):
        inputs = job("wherry", "arc")
        bare = inputs.survey.front.model_copy(update={"tyre": None, "loaded_radius_mm": None})
        inputs = inputs.model_copy(update={"survey": inputs.survey.model_copy(update={"front": bare})})
        result = of(inputs)
        self.assertIsNone(result.heights.stock.front_mm)
        self.assertIsNone(result.heights.planned.rake_deg)
        own = next(c for c in result.checks if c.limit_id == "rail-ground")
        self.assertEqual((own.verdict, own.missing), ("not computed", ("/survey/front/hub_z_left_mm",)))


class Loaded(TestCase):
    def test_unloading_raises_by_what_the_springs_say(self):
        inputs = job("wherry", "step")
        result = of(inputs)
        rows = {s.state: s for s in result.heights.states}
        for axle in ("front", "rear"):
            travel = next(t for t in result.travel if t.axle == axle)
            for stand in travel.stands:
                if stand.travel_mm is None:
                    continue
                planned = getattr(result.heights.planned, f"{axle}_mm")
                with self.subTest(axle, state=stand.state):
                    self.assertAlmostEqual(
                        getattr(rows[stand.state], f"{axle}_mm"), planned - stand.travel_mm, places=2
                    )
                    self.assertAlmostEqual(stand.bump_left_mm, travel_bump(inputs, axle) - stand.travel_mm, places=2)

    def test_a_lighter_body_rides_harder(self):
        """F = sqrt(k/m)/2 pi: with rising loads the frequency falls where the rate hardly changes (textbook)."""
        stands = next(t for t in of(job("brackmoor", "welded")).travel if t.axle == "front").stands
        known = [(s.load_n, s.frequency_hz) for s in stands if s.frequency_hz]
        known.sort()
        self.assertGreater(len(known), 2)
        for (light, fast), (heavy, slow) in pairwise(known):
            if heavy > 1.02 * light:
                self.assertGreater(fast, slow)

    def test_without_springs_no_state_is_told(self):
        inputs = job("wherry", "step")
        own = front(inputs).model_copy(update={"springs": None})
        rows = {s.state: s for s in of(with_front(inputs, own)).heights.states}
        self.assertTrue(all(s.front_mm is None and s.rake_deg is None for s in rows.values()))


def travel_bump(inputs, axle):
    return next(s.bump_mm for s in inputs.design.suspensions if s.axle == axle)
