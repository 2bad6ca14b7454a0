"""Rails apart beside every cut, and how a bump stop is met: read against the plan and against the design's own rule."""

from django.test import SimpleTestCase

from nodulant.asbuilt.log import ReadingEntry
from nodulant.axles.points import HardPoint
from nodulant.axles.springs import BumpStop, StopOnFrame
from nodulant.build.general import PARTS_STEP
from nodulant.evaluate import evaluate
from nodulant.evaluate.readings.kit_readings import misfits
from nodulant.job.document import AsBuilt
from tests import fixtures as f
from tests.core.test_suspensions import ONLY, suspended

WANT = ONLY.model_copy(update={"readings": True})


def read(job, operation, key, side, value, unit="mm", instrument="tape", resolution=0.5):
    entry = ReadingEntry(
        number=1,
        at="2026-11-20T10:00:00+00:00",
        by="bram",
        operation=operation,
        key=key,
        side=side,
        value=value,
        unit=unit,
        instrument=instrument,
        resolution=resolution,
    )
    return job.model_copy(update={"as_built": AsBuilt(entries=(entry,))})


class Width(SimpleTestCase):
    def rows(self, inputs):
        return {r.id: r for r in evaluate(inputs).readings if r.spec.key.startswith("apart-")}

    def test_a_narrowed_frame_is_as_wide_as_it_was_behind_and_narrower_ahead(self):
        inputs = f.job().inputs("step")
        rows = self.rows(inputs)
        wide = 2 * inputs.survey.rails.left.web_y_mm
        narrow = next(op for op in inputs.design.operations if op.id == "narrow-front")
        self.assertAlmostEqual(rows["narrow-front/apart-behind/right"].spec.planned, wide, places=6)
        ahead = rows["narrow-front/apart-ahead/right"].spec.planned
        self.assertAlmostEqual(wide - ahead, 2 * narrow.inward_mm, places=6)

    def test_work_on_one_rail_asks_for_no_width(self):
        inputs = f.job().inputs("arc")
        one = tuple(op.model_copy(update={"side": "left"}) for op in inputs.design.operations)
        design = inputs.design.model_copy(update={"operations": one})
        self.assertEqual(self.rows(inputs.model_copy(update={"design": design})), {})

    def test_rails_that_were_pulled_together_fail(self):
        inputs = f.job().inputs("arc")
        plan = self.rows(inputs)["axle-notch/apart-ahead/right"].spec.planned
        for off, verdict in ((0.0, "holds"), (-6.0, "fails")):
            built = read(inputs, "axle-notch", "apart-ahead", "right", plan + off)
            check = f.check_of(evaluate(built), "as-built:axle-notch-apart-ahead:right@as-built")
            self.assertEqual(check.verdict, verdict)


class Stop(SimpleTestCase):
    def job(self):
        job = suspended("trailing")
        own = job.design.suspensions[0]
        base = HardPoint(x_mm=2610.0, y_mm=380.0, z_mm=500.0)
        pad = HardPoint(x_mm=0.0, y_mm=380.0, z_mm=60.0)
        stop = BumpStop(gap_mm=30.0, gives_mm=20.0, place=StopOnFrame(base=base, pad=pad))
        own = own.model_copy(update={"stop": stop})
        return job.model_copy(update={"design": job.design.model_copy(update={"suspensions": (own,)})})

    def test_both_sides_are_asked_for_and_held_to_the_design_s_own_rule(self):
        job = self.job()
        rows = {r.id: r for r in evaluate(job, WANT).readings if r.operation == "rear-stop"}
        self.assertEqual(len(rows), 4)
        self.assertEqual(rows["rear-stop/square/left"].spec.limit_id, "stop-square")
        built = read(job, "rear-stop", "square", "left", 22.0, "deg", "angle finder", 0.1)
        found = evaluate(built, WANT)
        row = next(r for r in found.readings if r.id == "rear-stop/square/left")
        self.assertEqual(row.answer, "fails")
        self.assertTrue(any(c.id == "stop-square:rear-stop-square:left@as-built" for c in found.checks))


class InHand(SimpleTestCase):
    """A kit's plate is laid over the rail before anything is cut."""

    def rows(self, inputs):
        return {r.id: r for r in evaluate(inputs).readings if r.spec.limit_id == "kit-plate"}

    def step(self, inputs):
        return next(s for s in evaluate(inputs).steps if s.spec.key == PARTS_STEP)

    def test_plates_on_the_rail_s_sides_are_asked_for_once_where_both_sides_are_alike(self):
        inputs = f.job("brackmoor").inputs("welded")
        rows = self.rows(inputs)
        parts = {p.id: p for p in evaluate(inputs).parts}
        for face in ("outer", "inner"):
            own = [r for r in rows.values() if r.operation == "rear-notch" and f"-{face}-" in r.id]
            self.assertEqual({r.side for r in own}, {"left"})
            x0, y0, x1, y1 = parts[f"rear-notch/{face}/left"].outline.bounds()
            self.assertEqual([round(r.spec.planned, 6) for r in own], [round(x1 - x0, 6), round(y1 - y0, 6)])

    def test_a_short_one_holds_the_gate_shut_by_its_name_and_changes_no_strength(self):
        inputs = f.job("brackmoor").inputs("welded")
        plan = self.rows(inputs)["rear-notch/kit-outer-long/left"].spec.planned
        rails = [c for c in evaluate(inputs).checks if c.state == "as-built"]
        built = read(inputs, "rear-notch", "kit-outer-long", "left", plan - 24.0)
        found = evaluate(built)
        self.assertEqual(f.check_of(found, "kit-plate:rear-notch-kit-outer-long:left@as-built").verdict, "fails")
        more = {c.limit_id for c in found.checks if c.state == "as-built"} - {c.limit_id for c in rails}
        self.assertEqual(more, {"kit-plate"}, "a tape over a plate is no rail as built")
        self.assertEqual(misfits(found.readings), ["Outer side plate in hand: length"])

    def test_the_gate_says_so_once_all_else_is_here(self):
        inputs = f.job("brackmoor").inputs("welded")
        self.assertIn("not in hand", self.step(inputs).held)
        bare = inputs.model_copy(
            update={"design": inputs.design.model_copy(update={"suspensions": (), "driveline": None})}
        )
        plan = self.rows(bare)["rear-notch/kit-outer-long/left"].spec.planned
        for off, held in ((-24.0, "does not fit"), (-1.0, "")):
            built = read(bare, "rear-notch", "kit-outer-long", "left", plan + off)
            steps = [s for s in evaluate(built).steps if s.spec.key == PARTS_STEP]
            self.assertEqual([held in s.held for s in steps], [True] * len(steps))
            self.assertEqual(bool(steps), bool(held), "nothing else of this job sets a size")
