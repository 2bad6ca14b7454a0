"""Each press brings what it promised: the row it names within a hundredth, nothing new fails, and undo brings back the old."""

import numpy as np
import orjson
from django.test import SimpleTestCase

from nodulant.evaluate import evaluate
from nodulant.formats.jobfile import load_job
from nodulant.job.document import Inputs
from nodulant.remedies.patch import patched, words_of
from nodulant.remedies.tried import OFFERED, Remedies, find_remedies
from nodulant.units.said import tell
from tests import fixtures as f
from tests.core.test_operations import made


def remedies(inputs: Inputs, key: str) -> Remedies:
    """The search run to its end."""
    steps = find_remedies(inputs, key)
    while True:
        try:
            next(steps)
        except StopIteration as end:
            return end.value


def bad_groups(inputs, verdict="fails"):
    """Groups of the rails' work that fail as planned."""
    groups = evaluate(inputs).groups
    return [g for g in groups if g.verdict == verdict and g.stage == "cut" and g.state == "planned"]


def bare():
    """The demo's arc notch with nothing welded in, on an open rail."""
    notch = f.demo().design.operations[1]
    plain = notch.model_copy(update={"liner": None, "outer_plate": None, "inner_plate": None, "cap": None})
    return f.with_operations(f.demo(), plain)


def short_overlap():
    box, notch = f.demo().design.operations
    plate = notch.outer_plate.model_copy(update={"overlap_mm": 60.0})
    return f.with_operations(f.demo(), box, notch.model_copy(update={"outer_plate": plate}))


def small_leg():
    box, notch = f.demo().design.operations
    plate = notch.outer_plate.model_copy(update={"weld_leg_mm": 1.5})
    return f.with_operations(f.demo(), box, notch.model_copy(update={"outer_plate": plate}))


def sharp_corners():
    inputs = f.demo("straight")
    box, notch = inputs.design.operations
    shape = notch.shape.model_copy(update={"corner_radius_mm": 2.0})
    return f.with_operations(inputs, box, notch.model_copy(update={"shape": shape}))


def weak_bracket():
    place = {"anchor_id": "front-hanger", "offset_mm": -700.0}
    bracket = made("bracket", place=place, height_mm=75.0, along_n=20_000.0, thickness_mm=3.0, weld_leg_mm=2.0)
    return f.with_operations(f.demo(), bracket)


JOBS = {
    "bare notch": bare,
    "short overlap": short_overlap,
    "small leg": small_leg,
    "sharp corners": sharp_corners,
    "weak bracket": weak_bracket,
}


class Pressed(SimpleTestCase):
    def test_what_is_offered_is_what_comes(self):
        offered = 0
        for name, job in JOBS.items():
            inputs = job()
            groups = bad_groups(inputs)
            self.assertTrue(groups, name)
            for group in groups[:2]:
                found = remedies(inputs, group.key)
                self.assertTrue(found.offered or found.reason, (name, group.key))
                self.assertLessEqual(len(found.offered), OFFERED)
                for remedy in found.offered:
                    with self.subTest(f"{name}: {tell(words_of(remedy.patch), 'mm')}"):
                        self.pressed(inputs, group, remedy)
                    offered += remedy.mends
        self.assertGreaterEqual(offered, 6)

    def test_a_plate_too_short_is_made_longer(self):
        """As long as it needs its end would come too near the clip hole: a little longer clears both."""
        inputs = short_overlap()
        (group,) = (g for g in bad_groups(inputs) if g.key.startswith("overlap:"))
        found = remedies(inputs, group.key)
        self.assertTrue(found.offered and found.offered[0].mends)
        self.assertIn("plates past the cut", words_of(found.offered[0].patch).text)

    def pressed(self, inputs, group, remedy):
        orjson.dumps(remedy.model_dump())  # plain numbers only: a patch becomes a draft, and a draft is remembered
        before, after = evaluate(inputs), evaluate(patched(inputs, remedy.patch))
        failing = {c.id for c in before.checks if c.verdict == "fails"}
        new = {c.id for c in after.checks if c.verdict == "fails"} - failing
        self.assertEqual(new, set())
        rows = [c for c in after.checks if c.id in group.ids]
        if remedy.mends:
            self.assertFalse([c.id for c in rows if c.verdict == "fails"])
        promised = [c for c in rows if c.title == remedy.title and c.verdict == remedy.verdict]
        if promised and remedy.value:
            nearest = min(abs(c.value / remedy.value - 1) for c in promised if c.value is not None)
            self.assertLess(nearest, 0.01)
        kilograms = after.mass_added_kg - before.mass_added_kg
        if remedy.patch.crossmembers:
            # a tube 60 x 4: pi x 56 x 4 mm2 of steel, from lips or webs to those across
            across = inputs.survey.rails.left.web_y_mm + inputs.survey.rails.right.web_y_mm
            tubes = len(remedy.patch.crossmembers) * np.pi * 56 * 4 * across * 7.85e-6
            self.assertGreater(kilograms, 0.8 * tubes)
            self.assertGreater(remedy.minutes, 0)
        self.assertAlmostEqual(remedy.mass_kg, kilograms, delta=0.01 * max(1.0, abs(kilograms)))

    def test_the_cheapest_in_metal_comes_first(self):
        inputs = bare()
        found = remedies(inputs, bad_groups(inputs)[0].key)
        masses = [round(r.mass_kg, 2) for r in found.offered]
        self.assertEqual(masses, sorted(masses))

    def test_a_group_that_is_gone_and_one_that_nothing_bears_on_say_so(self):
        gone = remedies(f.demo(), "no such group")
        self.assertEqual((gone.offered, gone.tried), ((), 0))
        self.assertIn("Nothing is wrong here", gone.reason.text)

    def test_it_can_be_stopped(self):
        inputs = bare()
        steps = find_remedies(inputs, bad_groups(inputs)[0].key)
        rows = [next(steps) for _ in range(2)]
        self.assertLess(rows[0].done, rows[1].done)
        steps.close()


class FromRedToGreen(SimpleTestCase):
    """A bare notch on frames of other sizes: one press after the other, the first that is offered, until nothing fails."""

    def failing(self, inputs):
        return [g.title for g in evaluate(inputs).groups if g.verdict == "fails" and g.stage != "survey"]

    def pressed(self, inputs):
        for _ in range(6):
            failing = [g for g in evaluate(inputs).groups if g.verdict == "fails" and g.stage != "survey"]
            if not failing:
                return inputs
            for group in failing:
                offered = remedies(inputs, group.key).offered
                if offered:
                    inputs = patched(inputs, offered[0].patch)
                    break
            else:
                self.fail(f"nothing is offered for {[g.title for g in failing]}")
        return inputs

    def job(self, size, closed, heavier, depth):
        base, (height, width, wall) = f.demo("arc"), size
        rails = {}
        for side in ("left", "right"):
            rail = base.survey.rails.of(side)
            sized = {"height_mm": height, "width_mm": width, "wall_mm": wall}
            stations = tuple(s.model_copy(update=sized) for s in rail.stations)
            kind = "rect-tube" if closed else "channel"
            rails[side] = rail.model_copy(update={"stations": stations, "kind": kind, "inside_radius_mm": 0.0})
        masses = tuple(m.model_copy(update={"mass_kg": m.mass_kg * heavier}) for m in base.survey.masses)
        inputs = f.with_survey(base, rails=base.survey.rails.model_copy(update=rails), masses=masses)
        shape = {"kind": "trapezoid", "top_width_mm": 100.0, "mouth_width_mm": 150.0, "corner_radius_mm": 12.0}
        over = {"anchor_id": "rear-axle", "offset_mm": 0.0}
        return f.with_operations(inputs, made("notch", place=over, depth_mm=depth, shape=shape))

    def test_frames_of_other_sizes(self):
        for size, closed, heavier, depth in (
            ((120.0, 60.0, 4.0), False, 0.8, 50.0),
            ((100.0, 50.0, 4.0), False, 0.6, 45.0),
            ((120.0, 70.0, 3.0), True, 0.8, 50.0),
        ):
            with self.subTest(size):
                job = self.job(size, closed, heavier, depth)
                self.assertTrue(any(g.verdict == "fails" for g in evaluate(job).groups), "it begins red")
                ended = evaluate(self.pressed(job))
                self.assertEqual([g.title for g in ended.groups if g.verdict == "fails"], [])

    def test_stock_s_own_slender_flange_is_not_this_job_s(self):
        job = self.job((120.0, 60.0, 4.0), False, 0.8, 50.0)
        self.assertEqual(f.check_of(evaluate(job), "slender:rail:left").verdict, "stock itself")

    def test_a_boxing_plate_that_ends_in_the_wrong_place_is_carried_on(self):
        """What closes a thin rail at the axle makes its open part ahead warp: carried to a crossmember, both hold."""
        job = load_job((f.ROOT / "tests" / "older_jobs" / "coil-notch-bare.nodulant.json").read_bytes())
        base = job.inputs(job.options[0].id)
        rails = {}
        for side in ("left", "right"):
            rail = base.survey.rails.of(side)
            thin = tuple(s.model_copy(update={"height_mm": 140.0, "wall_mm": 4.0}) for s in rail.stations)
            rails[side] = rail.model_copy(update={"stations": thin})
        thin_job = f.with_survey(base, rails=base.survey.rails.model_copy(update=rails))
        (notch,) = thin_job.design.operations
        red = f.with_operations(thin_job, notch.model_copy(update={"depth_mm": 65.0}))
        self.assertTrue(self.failing(red), "it begins red")
        ended = self.pressed(red)
        self.assertEqual(self.failing(ended), [])
        self.assertTrue(any(op.kind == "boxing" for op in ended.design.operations))
        self.assertEqual(ended.design.seats, red.design.seats)
