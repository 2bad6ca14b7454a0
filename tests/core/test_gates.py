"""Gates before metal is cut and before brackets are made: parts in hand, heights as planned; a word takes it back."""

from unittest import TestCase

from nodulant.asbuilt.log import DecisionEntry, OverrideEntry, PartEntry, ReadingEntry
from nodulant.build.general import MOCK_UP_STEP, PARTS_STEP
from nodulant.evaluate import evaluate
from nodulant.floor.sheet import floor_sheet
from nodulant.frame.columns import rail_at
from nodulant.job.document import Design, Inputs
from nodulant.job.timing import Handout, Timing
from nodulant.survey.vehicle import Feature
from tests import fixtures as f

AT = "2026-05-04T18:00:00+00:00"


def with_log(inputs, *entries):
    numbered = tuple(e.model_copy(update={"number": n}) for n, e in enumerate(entries, 1))
    return inputs.model_copy(update={"as_built": inputs.as_built.model_copy(update={"entries": numbered})})


def part(key, here=True):
    return PartEntry(number=1, at=AT, by="ada", part=key, here=here)


def passed(step):
    return OverrideEntry(number=1, at=AT, by="ada", subject=step, reason="r")


def height(operation, side, value, resolution=0.5):
    return ReadingEntry(
        number=1, at=AT, by="ada", operation=operation, key="hub-height", side=side, value=value,
        resolution=resolution,
    )  # fmt: skip


class PartsInHand(TestCase):
    def setUp(self):
        self.inputs = with_log(f.demo("step"))
        self.before = ("teardown", "loads-off", "supports", "springs")
        self.keys = [p.key for p in evaluate(self.inputs).parts_needed]

    def step(self, *entries):
        log = (*(passed(s) for s in self.before), *entries)
        return next(s for s in evaluate(with_log(self.inputs, *log)).steps if s.id == PARTS_STEP)

    def test_each_of_what_hangs_steers_and_drives_is_asked_for_with_its_sizes(self):
        for wanted in ("rear/coilover", "front/joints", "front/steering", "driveline/shaft", "front-subframe/subframe"):
            self.assertIn(wanted, self.keys)
        coilover = next(p for p in evaluate(self.inputs).parts_needed if p.key == "rear/coilover")
        spring = next(s.springs for s in self.inputs.design.suspensions if s.axle == "rear")
        self.assertIn(f"[[length:{spring.open_mm:.4f}]]", coilover.read)

    def test_no_cut_before_the_last_of_them_and_not_after_one_is_gone_again(self):
        every = [part(k) for k in self.keys]
        self.assertEqual(self.step().status, "waiting")
        self.assertEqual(self.step(*every[:-1]).status, "waiting")
        self.assertEqual(self.step(*every).status, "open")
        self.assertEqual(self.step(*every, part(self.keys[0], here=False)).status, "waiting")
        self.assertEqual(self.step(passed(PARTS_STEP)).status, "overridden")

    def test_every_cut_needs_it(self):
        steps = {s.id: s for s in evaluate(self.inputs).steps}
        for step in steps.values():
            if "cuts" in step.spec.acts:
                self.assertIn(PARTS_STEP, step.needs)

    def test_a_notch_alone_asks_for_no_part(self):
        found = evaluate(with_log(f.demo("arc")))
        self.assertEqual(found.parts_needed, ())
        self.assertNotIn(PARTS_STEP, {s.id for s in found.steps})


class HeightOfTheWheels(TestCase):
    def setUp(self):
        self.inputs = with_log(f.demo("step"))
        found = evaluate(self.inputs)
        self.asked = [r for r in found.readings if r.operation.endswith("-height")]
        ids = [s.id for s in found.steps]
        self.before = ids[: ids.index(MOCK_UP_STEP)]

    def status(self, *entries):
        log = (*(passed(s) for s in self.before), *entries)
        return next(s for s in evaluate(with_log(self.inputs, *log)).steps if s.id == MOCK_UP_STEP).status

    def test_it_is_the_rails_top_over_the_hub_line_as_planned(self):
        """By hand: rail and axle behind the step rise together, so that what is read is as before it but for the drop."""
        rail = self.inputs.survey.rails.left
        underside, high, _, _ = rail_at(rail, self.inputs.survey.wheelbase_mm)
        planned = next(r.spec.planned for r in self.asked if r.operation == "rear-height" and r.side == "left")
        hub = self.inputs.survey.rear.hubs_z_mm() + evaluate(self.inputs).drop.towards_rail_mm
        self.assertAlmostEqual(planned, underside + high - hub, 6)

    def test_a_hub_line_that_moves_is_read_under_the_rail_that_is_there(self):
        """By hand on the surveyed rails, which rise behind their front end: nothing cut, the front hubs 500 further ahead."""
        front = next(s for s in self.inputs.design.suspensions if s.axle == "front")
        moved = front.model_copy(update={"hub_x_mm": -500.0, "hub_z_mm": -40.0})
        design = self.inputs.design.model_copy(update={"suspensions": (moved,), "operations": ()})
        found = evaluate(self.inputs.model_copy(update={"design": design})).readings
        planned = next(r.spec.planned for r in found if r.operation == "front-height" and r.side == "left")
        underside, high, _, _ = rail_at(self.inputs.survey.rails.left, -500.0)
        stock = sum(rail_at(self.inputs.survey.rails.left, 0.0)[:2])
        self.assertNotAlmostEqual(underside + high, stock, 0)
        self.assertAlmostEqual(planned, underside + high + 40.0, 6)

    def test_brackets_wait_for_all_of_them_as_planned(self):
        good = [height(r.operation, r.side, r.spec.planned + 1.0) for r in self.asked]
        self.assertEqual(len(good), 4)
        self.assertEqual(self.status(), "waiting")
        self.assertEqual(self.status(*good[:3]), "waiting")
        self.assertEqual(self.status(*good), "open")
        low = height(self.asked[3].operation, self.asked[3].side, self.asked[3].spec.planned + 6.0)
        self.assertEqual(self.status(*good[:3], low), "waiting")
        unsure = height(self.asked[3].operation, self.asked[3].side, self.asked[3].spec.planned + 2.9, 0.5)
        self.assertEqual(self.status(*good[:3], unsure), "waiting", "what its own check fails opens no gate")
        taken = DecisionEntry(number=1, at=AT, by="ada", subject=self.asked[3].id, choice="accept", reason="r")
        self.assertEqual(self.status(*good[:3], unsure, taken), "open")

    def test_every_bracket_waits_for_the_mock_up(self):
        for step in evaluate(self.inputs).steps:
            if "mocks-up" in step.spec.acts:
                self.assertIn(MOCK_UP_STEP, step.needs, step.id)


class WhatHangs(TestCase):
    """Steps that come from what the design removes, turns or passes."""

    def titles(self, **leaf):
        inputs = f.demo("step")
        rear = next(s for s in inputs.design.suspensions if s.axle == "rear")
        seat = {"x_mm": 0.0, "y_mm": 400.0, "z_mm": 60.0}
        springs = {"kind": "leaf", "seat": seat, "rate_n_per_mm": 30.0, "leaves": 5, **leaf}
        data = rear.model_dump(mode="json") | {"springs": springs}
        design = inputs.design.model_copy(update={"suspensions": (type(rear).model_validate(data),)})
        return {s.id: s.spec for s in evaluate(inputs.model_copy(update={"design": design})).steps}

    def test_leaves_taken_out_and_u_bolts_used_once(self):
        steps = self.titles(removed=2)
        self.assertIn("Take 2 leaves out", steps["rear-leaves-out"].title)
        self.assertIn("3 of 5 stay", steps["rear-leaves-out"].detail)
        self.assertIn("New U-bolts", steps["rear-u-bolts"].title)
        self.assertNotIn("rear-flip", steps)

    def test_an_axle_put_to_the_other_side_gets_pads_at_mock_up_height(self):
        steps = self.titles(flipped=True, axle_was="under")
        self.assertIn("over its springs", steps["rear-flip"].title)
        self.assertIn("mocks-up", steps["rear-flip"].acts)
        self.assertNotIn("rear-leaves-out", steps)
        order = list(steps)
        self.assertLess(order.index(MOCK_UP_STEP), order.index("rear-flip"), "pads are tacked at ride height")
        self.assertLess(order.index("by-hand"), order.index("rear-flip-weld"), "and welded once the axle moved by hand")

    def test_hoses_stops_and_the_last_torque(self):
        steps = {s.id: s.spec for s in evaluate(f.demo("step")).steps}
        hose = next(s for s in f.demo("step").design.suspensions if s.axle == "rear").hoses[0]
        self.assertIn(f"[[length:{hose.length_mm:.4f}]]", steps["rear-hoses"].detail)
        for key in ("rear-stops", "rear-hang", "front-hang"):
            self.assertIsNotNone(steps[key].hold)


class WhyItIsShut(TestCase):
    def test_each_shut_step_says_why_with_names(self):
        found = {s.id: s for s in evaluate(with_log(f.demo("step"))).steps}
        self.assertIn("rear axle and hubs", found[PARTS_STEP].held)
        self.assertIn("and 7 more", found[PARTS_STEP].held)
        self.assertIn("was not read", found[MOCK_UP_STEP].held)
        self.assertEqual(found["paint"].held, "")

    def test_what_teardown_destroys_is_named(self):
        inputs = with_log(f.with_survey(f.demo("arc"), wheelbase_mm=None))
        held = next(s.held for s in evaluate(inputs).steps if s.id == "teardown")
        self.assertIn("readings that teardown destroys are missing: ", held)
        self.assertIn("heelbase", held)


class TheEnd(TestCase):
    def test_the_road_test_comes_after_everything_is_proved_and_aligned(self):
        for option in ("arc", "step"):
            steps = evaluate(f.demo(option)).steps
            self.assertEqual(steps[-1].id, "retorque")
            self.assertGreaterEqual(
                set(steps[-1].needs), {s.id for s in steps if s.spec.phase == "prove" and not s.operation}
            )


class NothingToWeld(TestCase):
    def test_a_notch_without_plates_is_not_welded(self):
        inputs = Inputs(survey=f.survey_of(f.straight_rail()), design=Design(operations=(f.arc_notch(),)))
        titles = [s.spec.title for s in evaluate(inputs).steps]
        self.assertIn("Axle through its travel", titles)
        self.assertFalse([t for t in titles if "Weld" in t or "tacked" in t], titles)
        sheet = floor_sheet(inputs, "Job", "Option")
        self.assertEqual([p.operation for p in sheet.pictures], [f.arc_notch().id])
        self.assertEqual({s.meanwhile for s in sheet.steps}, {""})


class ToldByTheDesign(TestCase):
    def steps(self, inputs):
        return {s.id: s for s in evaluate(inputs).steps}

    def test_bolts_that_come_later_are_told_before_the_rail_closes(self):
        """A bolted notch's bracket over a boxed stretch: its bolts stand, with their place, where pads still go in."""
        inputs = f.demo("arc")
        steps = self.steps(f.with_notch(inputs, bolts={"size": "M12", "grade": "10.9", "per_end": 4}))
        inside = [s.spec.detail for s in steps.values() if s.spec.key == "inside" and s.operation == "box-rear"]
        self.assertTrue(inside)
        for detail in inside:
            self.assertIn("For what is bolted here later", detail)
        plain = [s.spec.detail for s in self.steps(inputs).values() if s.spec.key == "inside"]
        self.assertFalse([d for d in plain if "For what is bolted" in d])

    def test_a_joint_in_a_bracket_or_on_the_axle_is_no_bolt_in_the_rail(self):
        """The demo's step option has link and coilover joints over its boxing, and none of them passes the rail."""
        inside = [s.spec.detail for s in self.steps(f.demo("step")).values() if s.spec.key == "inside"]
        self.assertTrue(inside)
        self.assertFalse([d for d in inside if "joint" in d])

    def test_clips_in_what_is_cut_are_named_and_lines_go_back_at_the_end(self):
        inputs = f.demo("arc")
        hole = Feature(id="clip", name="vent clip hole", kind="hole", x_mm=inputs.survey.wheelbase_mm, diameter_mm=6.0)
        far = hole.model_copy(update={"id": "far", "name": "far clip hole", "x_mm": 400.0})
        steps = self.steps(f.with_survey(inputs, features=(*inputs.survey.features, hole, far)))
        for key in ("loads-off", "lines-back"):
            self.assertIn("vent clip hole", steps[key].spec.detail)
            self.assertNotIn("far clip hole", steps[key].spec.detail)
        self.assertIn("paint", steps["lines-back"].needs)

    def test_work_that_was_handed_out_is_taken_back_by_what_was_asked(self):
        inputs = f.demo("arc")
        timing = Timing(handouts=(Handout(step="paint", to="painter", days=7),))
        design = inputs.design.model_copy(update={"timing": timing})
        hold = self.steps(inputs.model_copy(update={"design": design}))["paint"].spec.hold
        self.assertIn("Taken back from the painter", hold.ask)
        self.assertIn("Drain holes open", hold.ask)
        self.assertNotIn("Taken back", self.steps(inputs)["paint"].spec.hold.ask)

    def test_a_long_weld_has_a_string_line_before_and_after(self):
        steps = self.steps(f.demo("arc"))
        self.assertIn("String line", steps["box-rear/fit/left"].spec.hold.ask)
        self.assertIn("string line read again", steps["box-rear/weld/left"].spec.hold.ask)
