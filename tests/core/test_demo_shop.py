"""The demo shop carries what it is there to show; a job that lost its work on the way would teach nothing."""

from django.test import SimpleTestCase

from nodulant.evaluate import evaluate
from nodulant.evaluate.sweep import whole_sweep
from nodulant.formats.jobfile import load_job
from tests import fixtures as f


def kinds(name, option):
    design = load_job((f.ROOT / "demo" / f"{name}.nodulant.json").read_bytes()).inputs(option).design
    return {op.kind for op in design.operations}, design


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
            notch = next(op for op in design.operations if op.kind == "notch")
            self.assertEqual(notch.bolts is not None, bolted)
            front = next(s for s in design.suspensions if s.axle == "front")
            self.assertEqual((front.layout.kind, front.steering.gear.kind), ("three-link", "drag-link"))

    def test_the_estate_has_both_suspensions(self):
        layouts = {option: kinds("ostrand", option)[1].suspensions[0].layout.kind for option in ("watts", "parallel")}
        self.assertEqual(layouts, {"watts": "three-link", "parallel": "parallel"})

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
