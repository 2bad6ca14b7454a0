"""What rides with what: a step, a pocket or a narrowing moves every kind of point by its own amount, or leaves it."""

import json
from typing import get_args

import numpy as np
from django.test import SimpleTestCase

from nodulant.axles.layouts.union import AnyLayout
from nodulant.axles.points import HardPoint, Link
from nodulant.axles.riding import _on_frame, frame_points
from nodulant.axles.suspension import Suspension
from nodulant.base.annotations import members_of
from nodulant.base.errors import UnknownReference
from nodulant.base.model import Frozen
from nodulant.driveline.driveline import Driveline
from nodulant.evaluate import InvalidInputs, evaluate
from nodulant.evaluate.brackets.mount_follows import brought_up_to_date
from nodulant.evaluate.clearances.solids import frame_solids
from nodulant.evaluate.clearances.sweep import scene
from nodulant.evaluate.suspensions.fitted import fitted
from nodulant.evaluate.suspensions.hung import hung
from nodulant.evaluate.suspensions.travel import moved, suspension_studies
from nodulant.formats.jobfile import load_job
from nodulant.job.riding import in_place, plan_of, re_hung
from nodulant.search.fit_coilover import CoilWish
from nodulant.targets.drop import DropEntry, Targets
from tests import fixtures as f

ON_AXLE = {"axle", "lower", "seat", "drop", "outer", "pin", "upper_ball", "lower_ball", "foot", "knuckle", "wheel"}
ON_AXLE |= {"tie_rod", "pinion", "upper", "pad"}
"""Fields that hold points on axle or upright; ``upper`` is a king pin's, all others of that name stand on the frame."""


def stored(option="step"):
    """The demo's van as its document gives it."""
    return f.job().inputs(option)


def with_design(inputs, **change):
    return inputs.model_copy(update={"design": inputs.design.model_copy(update=change)})


def with_operation(inputs, op_id, **change):
    ops = tuple(o.model_copy(update=change) if o.id == op_id else o for o in inputs.design.operations)
    return with_design(inputs, operations=ops)


def models_in(model, seen):
    """Every model that a model's fields may hold."""
    if model in seen:
        return seen
    seen.add(model)
    for info in model.model_fields.values():
        for part in _parts(info.annotation):
            if isinstance(part, type) and issubclass(part, Frozen) and part is not HardPoint:
                models_in(part, seen)
    return seen


def _parts(annotation):
    for member in members_of(annotation):
        yield member
        for inner in get_args(member):
            yield from _parts(inner)


class Marked(SimpleTestCase):
    """A point that nobody has said anything of would be left behind by every step."""

    def test_every_hard_point_is_on_the_frame_or_on_the_axle(self):
        found = 0
        for model in models_in(Suspension, set()) | models_in(Driveline, set()):
            for name, info in model.model_fields.items():
                if HardPoint not in set(_parts(info.annotation)):
                    continue
                found += 1
                on_frame = name in _on_frame(model)
                with self.subTest(f"{model.__name__}.{name}"):
                    self.assertTrue(on_frame or name in ON_AXLE)
        self.assertGreater(found, 40)

    def test_the_marks_agree_with_what_layouts_say(self):
        for layout in members_of(AnyLayout):
            whole = {n for n in layout.model_fields if HardPoint in set(_parts(layout.model_fields[n].annotation))}
            made = layout.model_construct(**{n: HardPoint(x_mm=1, y_mm=1, z_mm=1) for n in whole})
            try:
                rows = made.points()
            except AttributeError:
                continue  # with a lateral locator, whose own marks the first test reads
            for path, (where, _) in rows.items():
                self.assertEqual(path in _on_frame(layout), where == "frame", f"{layout.__name__}.{path}")
        self.assertEqual(_on_frame(Link), {"frame"})


class Steps(SimpleTestCase):
    """The van's rear step: the datum stands behind it, so the front goes down by what is added."""

    def setUp(self):
        self.before = stored()
        self.after = with_operation(self.before, "rear-step", rise_mm=150.0)
        op = next(o for o in self.before.design.operations if o.kind == "z-step")
        self.assertEqual((op.id, op.rise_mm), ("rear-step", 75.0))

    def down(self, was, now, by=75.0):
        self.assertAlmostEqual(was - now, by, places=9)

    def test_every_frame_point_of_the_front_and_none_of_the_rear(self):
        old, new = in_place(self.before).design, in_place(self.after).design
        for was, now in zip(old.suspensions, new.suspensions, strict=True):
            points, there = frame_points(was), frame_points(now)
            self.assertGreater(len(points), 2)
            for path, point in points.items():
                self.down(point.z_mm, there[path].z_mm, 75.0 if was.axle == "front" else 0.0)
                self.assertEqual((point.x_mm, point.y_mm), (there[path].x_mm, there[path].y_mm))

    def test_in_travel_the_hubs_and_the_grips(self):
        one, two = (moved(i, glance=True).travel for i in (self.before, self.after))
        for was, now in zip(one, two, strict=True):
            by = 75.0 if was.axle == "front" else 0.0
            self.down(was.hub[2], now.hub[2], by)
            for a, b in zip(was.grips, now.grips, strict=True):
                if a.path.startswith("driveline"):
                    continue
                self.down(a.at.z_mm, b.at.z_mm, by)
                if a.at.body < 0:
                    self.down(a.shift[2], b.shift[2], by)

    def test_in_the_sweep_things_arches_and_rails(self):
        one, two = (scene(i).standing for i in (self.before, self.after))
        for was, now in zip(one, two, strict=True):
            with self.subTest(was.name):
                if hasattr(was.pack, "corners"):
                    continue
                drops = np.unique(np.round(ends_of(was.pack) - ends_of(now.pack), 6))
                self.assertEqual(drops.tolist(), [75.0])
        self.assertLessEqual({"front wheel arch", "Fuel tank", "Cab floor", "Sump"}, {s.name for s in one})
        solids = [frame_solids(i) for i in (self.before, self.after)]
        for was, now in zip(solids[0].things, solids[1].things, strict=True):
            body = was.body.middle if was.body.shape == "box" else was.body.a
            other = now.body.middle if now.body.shape == "box" else now.body.a
            self.down(body.z_mm, other.z_mm)

    def test_the_shaft_s_gearbox_and_what_it_clears(self):
        old, new = in_place(self.before).design.driveline, in_place(self.after).design.driveline
        self.down(old.gearbox.z_mm, new.gearbox.z_mm)
        self.assertEqual(old.near, new.near, "the hanger crossmember lies behind the step")
        self.assertEqual(old.pinion, new.pinion)

    def test_a_point_with_a_carrier_of_its_own(self):
        own = self.before.design.suspensions
        k = next(k for k, s in enumerate(own) if s.axle == "rear")
        but = own[k].model_copy(update={"rides_but": {"layout.lower.frame": "body"}})
        held = with_design(self.before, suspensions=tuple(but if i == k else s for i, s in enumerate(own)))
        points = frame_points(in_place(held).design.suspensions[k])
        self.assertAlmostEqual(points["layout.lower.frame"].z_mm, own[k].layout.lower.frame.z_mm - 75.0)
        self.assertAlmostEqual(points["layout.upper.frame"].z_mm, own[k].layout.upper.frame.z_mm)


def ends_of(pack):
    """Heights of everything in a pack of bars or boxes."""
    for name in ("a", "starts", "middle", "middles", "centre"):
        if hasattr(pack, name):
            return np.asarray(getattr(pack, name))[..., 2]
    raise AssertionError(f"{type(pack).__name__} tells no places")


class Lines(SimpleTestCase):
    """Stretches, narrowings and pockets by hand."""

    def test_a_stretch_moves_the_axle_behind_it_and_its_links_by_one_length(self):
        inputs = stored()
        anchor = {"anchor_id": "front-axle", "offset_mm": 1300.0}
        op = f.operation({"kind": "stretch", "id": "longer", "name": "longer", "place": anchor, "length_mm": 200.0})
        datum = inputs.survey.datum.model_copy(update={"feature_id": "cab-crossmember"})
        inputs = inputs.model_copy(update={"survey": inputs.survey.model_copy(update={"datum": datum})})
        planned = in_place(
            with_design(inputs, operations=(op,), suspensions=(hung_rear(inputs),), obstacles=())
        ).design.suspensions[0]
        self.assertAlmostEqual(planned.hub_x_mm, 2610.0 + 200.0)
        self.assertAlmostEqual(planned.layout.lower.frame.x_mm, hung_rear(inputs).layout.lower.frame.x_mm + 200.0)
        travel = evaluate(with_design(inputs, operations=(op,), suspensions=(hung_rear(inputs),), obstacles=())).travel[
            0
        ]
        self.assertAlmostEqual(travel.hub[0], 2810.0)
        self.assertAlmostEqual(planned.wheelbase_mm, 2810.0)

    def test_the_pocket_takes_its_subframe_up_and_the_jog_inward(self):
        """Front pocket 54 mm net up, step 75 mm down, 30 mm in: as the operations say."""
        plan = plan_of(stored().survey, stored().design.operations)
        self.assertEqual(plan.shift("front-pocket", (0.0, 300.0, 0.0), ""), (0.0, -30.0, 54.0 - 75.0))
        self.assertEqual(plan.shift("front-pocket", (0.0, -300.0, 0.0), ""), (0.0, 30.0, 54.0 - 75.0))
        self.assertEqual(plan.shift("rail", (0.0, 300.0, 0.0), ""), (0.0, -30.0, -75.0))
        self.assertEqual(plan.shift("body", (2610.0, 300.0, 0.0), ""), (0.0, 0.0, -75.0))
        self.assertEqual(plan.shift("rail", (2610.0, 300.0, 0.0), ""), (0.0, 0.0, 0.0))
        self.assertEqual(plan.shift("placed", (0.0, 300.0, 0.0), ""), (0.0, 0.0, 0.0))

    def test_a_cab_arch_is_lowered_over_its_wheel_and_a_bed_s_is_not(self):
        """Common practice: a stepped frame lowers the body over the wheels, so tyre and arch come nearer by the step."""
        survey = stored().survey
        now = in_place(stored()).survey
        self.assertAlmostEqual(now.front.arch.top_z_mm, survey.front.arch.top_z_mm - 75.0)
        bed = survey.front.model_copy(
            update={"arch": survey.rear.arch or survey.front.arch.model_copy(update={"rides": "rail"})}
        )
        again = in_place(stored().model_copy(update={"survey": survey.model_copy(update={"front": bed})}))
        self.assertAlmostEqual(again.survey.front.arch.top_z_mm, bed.arch.top_z_mm - 75.0, msg="its rails go down too")


def hung_rear(inputs):
    return next(s for s in inputs.design.suspensions if s.axle == "rear")


class Back(SimpleTestCase):
    """What is found in the plan is laid on the frame that the document speaks of."""

    def test_it_stands_in_the_plan_where_it_was_found(self):
        inputs = stored()
        for k, own in enumerate(inputs.design.suspensions):
            h = hung(inputs, k)
            found = fitted(inputs, k, CoilWish())
            if found.suspension is None:
                continue
            self.assertEqual(found.suspension.rides, own.rides)
            again = in_place(
                with_design(
                    inputs,
                    suspensions=(*inputs.design.suspensions[:k], found.suspension, *inputs.design.suspensions[k + 1 :]),
                )
            ).design.suspensions[k]
            self.assertEqual(again.layout, h.own.layout)
            planned = fitted(h.planned, k, CoilWish()).suspension
            for path, point in frame_points(planned).items():
                other = frame_points(again)[path]
                self.assertAlmostEqual(point.z_mm, other.z_mm)
                self.assertAlmostEqual(point.y_mm, other.y_mm)
            self.assertEqual(planned.hub_z_mm is None, again.hub_z_mm is None)

    def test_another_carrier_leaves_it_where_it_stands(self):
        inputs = stored()
        before = in_place(inputs).design.suspensions
        for k in range(len(before)):
            for rides in ("placed", "rail", "body", "front-pocket", "front-subframe"):
                own = re_hung(inputs, k, rides)
                self.assertEqual(own.rides, rides)
                design = tuple(own if i == k else s for i, s in enumerate(inputs.design.suspensions))
                now = in_place(with_design(inputs, suspensions=design)).design.suspensions[k]
                for path, point in frame_points(before[k]).items():
                    for axis in ("x_mm", "y_mm", "z_mm"):
                        self.assertAlmostEqual(getattr(frame_points(now)[path], axis), getattr(point, axis))
                hubs = [moved(with_design(inputs, suspensions=d), glance=True).travel[k].hub for d in (design, before)]
                np.testing.assert_allclose(*hubs, atol=1e-9)

    def test_one_end_alone(self):
        inputs = stored()
        k = next(k for k, s in enumerate(inputs.design.suspensions) if s.axle == "rear")
        own = re_hung(inputs, k, "body", "layout.lower.frame")
        self.assertEqual(own.rides_but, {"layout.lower.frame": "body"})
        self.assertAlmostEqual(own.layout.lower.frame.z_mm, inputs.design.suspensions[k].layout.lower.frame.z_mm + 75.0)
        back = re_hung(with_design(inputs, suspensions=(own,)), 0, "rail", "layout.lower.frame")
        self.assertEqual(back.rides_but, {})
        with self.assertRaises(UnknownReference) as told:
            re_hung(inputs, k, "body", "layout.nothing")
        self.assertIn("layout.lower.frame", told.exception.acceptable)


class Wrong(SimpleTestCase):
    def test_a_point_that_rides_with_a_removed_operation_is_named(self):
        inputs = stored()
        without = tuple(o for o in inputs.design.operations if o.id != "front-subframe")
        with self.assertRaises(InvalidInputs) as told:
            evaluate(with_design(inputs, operations=without))
        (problem,) = told.exception.problems
        self.assertTrue(problem.field.endswith("/rides"), problem.field)
        self.assertEqual(problem.found, "front-subframe")
        self.assertIn("rail", problem.acceptable)

    def test_nothing_that_moves_changes_nothing(self):
        inputs = with_design(stored(), operations=(), obstacles=())
        plain = tuple(s.model_copy(update={"rides": "rail"}) for s in inputs.design.suspensions)
        now = in_place(with_design(inputs, suspensions=plain)).design
        self.assertEqual([frame_points(s) for s in now.suspensions], [frame_points(s) for s in plain])
        self.assertTrue(all(s.hub_x_mm is None for s in now.suspensions))


class Older(SimpleTestCase):
    """Version 3: a thing that went along now names its pocket, or its rail; suspensions stay as they were placed."""

    def test_upgraded(self):
        document = json.loads(f.DEMO.read_text())
        document["version"] = 3
        for option in document["options"]:
            for revision in option["revisions"]:
                design = revision["design"]
                for thing in design.get("obstacles", []):
                    thing.pop("rides")
                    thing["goes_along"] = thing["id"] in {"engine", "tank"}
                for own in design.get("suspensions", []):
                    own.pop("rides")
                    own.pop("rides_but", None)
        for survey in document["surveys"]:
            survey["survey"]["front"]["arch"].pop("rides", None)
        job = load_job(json.dumps(document).encode())
        design = job.inputs("step").design
        carriers = {o.id: o.rides for o in design.obstacles}
        self.assertEqual((carriers["engine"], carriers["tank"], carriers["sump"]), ("front-pocket", "rail", "placed"))
        self.assertEqual({s.rides for s in design.suspensions}, {"placed"})


class Caused(SimpleTestCase):
    """A step and a pocket enter the stacks by themselves, as much as they are cut."""

    def stacks(self, inputs):
        result = evaluate(inputs)
        rows = {e.id: (e.amount_mm, e.caused) for d in (result.drop, result.drop_front) for e in d.entries}
        return rows, {c.id: c.verdict for c in result.checks}

    def test_they_follow_the_cut(self):
        rows, verdicts = self.stacks(stored())
        self.assertEqual(rows["cut-rear-step"], (75.0, True))
        self.assertEqual(rows["cut-front-subframe"], (54.0, True))
        self.assertEqual(verdicts["drop-sum:rear:both"], "holds")
        rows, verdicts = self.stacks(with_operation(stored(), "rear-step", rise_mm=90.0))
        self.assertEqual(rows["cut-rear-step"], (90.0, True))
        self.assertEqual(verdicts["drop-sum:rear:both"], "fails", "135 mm were wanted, 150 are made")

    def test_what_was_typed_stands_for_its_mechanism_and_is_compared(self):
        inputs = stored()
        typed = DropEntry(id="step", name="Step", mechanism="z-step", amount_mm=60.0)
        targets = inputs.design.targets
        told = with_design(inputs, targets=targets.model_copy(update={"entries": (*targets.entries, typed)}))
        rows, verdicts = self.stacks(told)
        self.assertNotIn("cut-rear-step", rows)
        self.assertEqual(verdicts["stack-cut:rear-step:both"], "fails")

    def test_without_a_target_nothing_fails(self):
        inputs = with_design(stored(), targets=Targets(), suspensions=(), obstacles=())
        _, verdicts = self.stacks(inputs)
        self.assertEqual(verdicts["drop-sum:rear:both"], "not computed")

    def test_the_solved_entry_takes_what_the_cuts_leave(self):
        inputs = stored()
        first = inputs.design.targets.entries[0].model_copy(update={"amount_mm": None})
        open_ = with_design(inputs, targets=inputs.design.targets.model_copy(update={"entries": (first,)}))
        rows, _ = self.stacks(open_)
        self.assertAlmostEqual(rows[first.id][0], 135.0 - 75.0)


class MountsFollow(SimpleTestCase):
    """A bracket belongs to the joint that it carries."""

    def offs(self, inputs):
        rows = {c.id.split(":")[1]: c for c in evaluate(inputs).checks if c.limit_id == "mount-follows"}
        return {k: (round(c.value, 6), c.verdict) for k, c in rows.items()}, rows

    def moved_link(self, inputs, **by):
        own = inputs.design.suspensions
        k = next(k for k, s in enumerate(own) if s.axle == "rear")
        frame = own[k].layout.lower.frame
        frame = frame.model_copy(update={key: getattr(frame, key) + mm for key, mm in by.items()})
        layout = own[k].layout.model_copy(update={"lower": own[k].layout.lower.model_copy(update={"frame": frame})})
        changed = tuple(s.model_copy(update={"layout": layout}) if i == k else s for i, s in enumerate(own))
        return with_design(inputs, suspensions=changed)

    def test_a_moved_link_leaves_its_bracket_and_is_told_by_how_much(self):
        before, _ = self.offs(stored())
        self.assertGreaterEqual(len(before), 6)
        self.assertEqual(set(before.values()), {(0.0, "holds")})
        after, rows = self.offs(self.moved_link(stored(), x_mm=12.0, z_mm=-5.0))
        self.assertEqual(after.pop("rear-lower-link-bracket"), (13.0, "fails"))
        self.assertEqual(set(after.values()), {(0.0, "holds")})
        values = rows["rear-lower-link-bracket"].why.values
        self.assertAlmostEqual(values["along"], -12.0)
        self.assertAlmostEqual(values["up"], 5.0)

    def test_a_step_moves_both_and_parts_nothing(self):
        after, _ = self.offs(with_operation(stored(), "rear-step", rise_mm=100.0))
        self.assertEqual(set(after.values()), {(0.0, "holds")})

    def test_a_mount_is_asked_for_where_the_rail_is_whatever_the_step(self):
        """The front coilovers' bridge lies on rails that go down by the step: its height over them stays."""
        heights = []
        for rise in (75.0, 140.0):
            result = evaluate(with_operation(stored(), "rear-step", rise_mm=rise))
            heights += [m.height_mm for t in result.travel for m in t.mounts if m.id == "front-coilover-bridge"]
        self.assertEqual(len(heights), 2)
        self.assertAlmostEqual(*heights)


class Towers(SimpleTestCase):
    """A pocket's bolt is the coilover's upper eye: one point, told where they part."""

    def with_pocket(self, up=0.0, back=0.0):
        inputs = stored()
        own = hung_rear(inputs).springs.upper
        place = {"anchor_id": "rear-axle", "offset_mm": own.x_mm - 2610.0 + back}
        fields = {"kind": "spring-pocket", "id": "tower", "name": "Tower", "place": place, "bolt_up_mm": 90.0 + up}
        low = hung_rear(inputs)
        springs = low.springs.model_copy(update={"upper": own.model_copy(update={"z_mm": 90.0})})
        rear = low.model_copy(update={"springs": springs})
        others = tuple(s for s in inputs.design.suspensions if s.axle != "rear")
        kept = tuple(
            o
            for o in inputs.design.operations
            if o.id not in {"rear-coilover-bridge", "axle-notch", "rear-bump-stop-plate"}
        )
        return with_design(inputs, operations=(*kept, f.operation(fields)), suspensions=(rear, *others))

    def row(self, inputs):
        return {c.id.split(":")[1]: c for c in evaluate(inputs).checks if c.limit_id == "mount-follows"}["tower"]

    def test_one_point(self):
        self.assertEqual((self.row(self.with_pocket()).value, self.row(self.with_pocket()).verdict), (0.0, "holds"))
        off = self.row(self.with_pocket(up=8.0, back=-6.0))
        self.assertAlmostEqual(off.value, 10.0)
        self.assertEqual(off.verdict, "fails")

    def test_it_is_worked_with_its_coilover_s_own_force(self):
        """Travel's force at full bump, not a typed one beside it."""
        result = evaluate(self.with_pocket())
        row = next(c for c in result.checks if c.limit_id == "link-bolt" and ":tower" in c.id)
        asked = next(m for t in result.travel for m in t.mounts if m.id == "tower")
        self.assertGreater(asked.spring_n, 3000.0)
        self.assertAlmostEqual(row.why.values["force"], asked.spring_n)

    def test_it_takes_the_place_of_a_crossmember(self):
        asked = {m.id for t in evaluate(self.with_pocket()).travel for m in t.mounts}
        self.assertNotIn("rear-coilover-bridge", asked)
        self.assertIn("rear-coilover-bridge", {m.id for t in evaluate(stored()).travel for m in t.mounts})

    def test_brought_up_to_date_it_stands_at_the_eye(self):
        inputs = in_place(self.with_pocket(up=8.0, back=-6.0))
        ops = brought_up_to_date(inputs, suspension_studies(inputs), all_asked=False)
        tower = next(o for o in ops if o.id == "tower")
        self.assertAlmostEqual(tower.bolt_up_mm, 90.0)
        self.assertEqual(self.row(with_design(inputs, operations=ops)).value, 0.0)
