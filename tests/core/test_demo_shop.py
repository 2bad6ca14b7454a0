"""The demo shop carries what it is there to show; a job that lost its work on the way would teach nothing."""

from django.test import SimpleTestCase

from nodulant.evaluate import evaluate
from nodulant.evaluate.clearances.sweep import whole_sweep
from nodulant.formats.jobfile import load_job
from tests import fixtures as f


def kinds(name, option):
    design = load_job((f.ROOT / "demo" / f"{name}.nodulant.json").read_bytes()).inputs(option).design
    return {op.kind for op in design.operations}, design


OPENING = {"damper-open:front-damper:both", "droop-order:front-strap:both"}
BUMP_STEER = {"bump-steer:front-steering:both", "bump-steer-all:front-steering:both"}
"""Shocks open before the straps; drag link and track bar of different lengths."""
BEARING = {"joint-angle:shaft-bearing:both", "joint-angle:shaft-gearbox:both"}
"""The carrier bearing stands too high: the joints ahead of it and behind it are both bent."""
TAPED = {"tape-fits:tape:both@as-built"}
"""One length between frame points, 12 mm short; the frame is taped once for all options."""


class Carried(SimpleTestCase):
    def test_the_van_is_stepped_notched_narrowed_and_pocketed_and_carries_its_mounts(self):
        found, design = kinds("wherry", "step")
        cut = {"z-step", "boxing", "notch", "narrow", "raise"}
        self.assertLessEqual(cut | {"bracket", "truss", "axle-bracket", "spring-bridge", "pad"}, found)
        self.assertEqual(design.suspensions[0].layout.kind, "triangulated")
        self.assertIsNotNone(design.driveline)
        front = next(s for s in design.suspensions if s.axle == "front")
        self.assertEqual((front.layout.kind, front.steering.gear.kind), ("double-wishbone", "rack"))

    def test_the_wagon_is_bracketed_sleeved_and_repaired_both_ways(self):
        for option, bolted in (("welded", False), ("bolt-in", True)):
            found, design = kinds("brackmoor", option)
            self.assertLessEqual({"bracket", "hole", "repair", "notch"}, found)
            bracket = next(op for op in design.operations if op.kind == "bracket")
            self.assertEqual(bracket.fixing == "bolted", bolted)
            front = next(s for s in design.suspensions if s.axle == "front")
            self.assertEqual((front.layout.kind, front.steering.gear.kind), ("three-link", "drag-link"))

    def test_the_estate_has_both_suspensions(self):
        layouts = {option: kinds("ostrand", option)[1].suspensions[0].layout.kind for option in ("watts", "parallel")}
        self.assertEqual(layouts, {"watts": "three-link", "parallel": "parallel"})

    def test_each_job_shows_the_faults_that_it_is_there_for_and_nothing_else(self):
        """A newcomer who sees another red row would learn to overlook red rows; swept, there is none more."""
        planted = {
            ("wherry", "arc"): TAPED,
            ("wherry", "straight"): TAPED,
            ("wherry", "step"): TAPED,
            ("brackmoor", "welded"): OPENING | BUMP_STEER | BEARING,
            ("brackmoor", "bolt-in"): OPENING | BUMP_STEER | BEARING,
            ("ostrand", "watts"): {"survey-complete:vehicle:both"},
            ("ostrand", "parallel"): {"survey-complete:vehicle:both", "bind:rear:both"},
        }
        for (name, option), faults in planted.items():
            job = load_job((f.ROOT / "demo" / f"{name}.nodulant.json").read_bytes())
            inputs = job.inputs(option)
            looked_at = (*evaluate(inputs).checks, *whole_sweep(inputs).checks)
            failing = {c.id for c in looked_at if c.verdict == "fails"}
            with self.subTest((name, option)):
                self.assertEqual(failing, faults)

    def test_the_van_is_being_built(self):
        """Rear cut and tacked, half of what is read is in, one of them wrong by 12 mm."""
        job = load_job((f.ROOT / "demo" / "wherry.nodulant.json").read_bytes())
        result = evaluate(job.inputs("step"))
        done = {s.id for s in result.steps if s.status == "done"}
        self.assertLessEqual({f"rear-step/{s}/{side}" for s in ("cut", "tack") for side in ("left", "right")}, done)
        on_rails = {op.id for op in job.inputs("step").design.operations if not op.one_piece}
        asked = [
            r
            for r in result.readings
            if r.operation in on_rails and not r.spec.extra and not r.spec.limit_id.endswith("angle")
        ]
        taken = [r for r in asked if r.value is not None]
        self.assertAlmostEqual(len(taken) / len(asked), 0.5, delta=0.1)
        self.assertGreaterEqual(len(result.taped.lengths), 16)
        wrong = next(row for row in result.taped.lengths if row.entry == result.taped.left_out)
        self.assertAlmostEqual(wrong.planned_mm - wrong.measured_mm, 12.0, delta=1.5)

    def test_no_two_checks_share_an_id(self):
        """Rows are told apart by their id: two of one id would stand for each other on the screen."""
        for path in sorted((f.ROOT / "demo").glob("*.nodulant.json")):
            job = load_job(path.read_bytes())
            for option in job.options:
                inputs = job.inputs(option.id)
                ids = [c.id for c in (*evaluate(inputs).checks, *whole_sweep(inputs).checks)]
                twice = {i for i in ids if ids.count(i) > 1}
                with self.subTest((path.name, option.id)):
                    self.assertEqual(twice, set())
