"""Patterns, report and job file of every operation: what leaves the program must be what was computed."""

import io
import math

import ezdxf
from django.test import SimpleTestCase

from nodulant.evaluate import Want, evaluate
from nodulant.formats.dossier import dossier_pdf
from nodulant.formats.dxf import pattern_dxf
from nodulant.formats.jobfile import dump_job, load_job
from nodulant.formats.svg import pattern_svg
from nodulant.frame.model import placed_on, planned_state
from nodulant.frame.parts import added_parts
from nodulant.job.document import Design
from nodulant.materials.steel import DENSITY_KG_PER_MM3
from nodulant.patterns.collect import patterns_of
from nodulant.units.inline import told
from tests import fixtures as f
from tests.core.test_operations import ALL, made
from tests.pdf_text import text_of

FULL = {
    "z-step": {
        "outer_plate": {"thickness_mm": 5.0, "overlap_mm": 260.0},
        "gusset": {"leg_mm": 60.0, "thickness_mm": 5.0},
    },
    "stretch": {"inner_plate": {"thickness_mm": 5.0, "overlap_mm": 260.0}},
    "splice": {"outer_plate": {"thickness_mm": 5.0, "overlap_mm": 260.0}},
    "access-cut": {"outer_plate": {"thickness_mm": 5.0, "overlap_mm": 160.0}},
    "notch": {"liner": {"thickness_mm": 5.0}, "cap": {"height_mm": 40.0, "thickness_mm": 4.0, "overlap_mm": 200.0}},
    "bracket": {"gusset": {}},
}
PARTLESS = {"subframe", "hole", "crossmember"}
"""A crossmember is sawn off a bar: nobody cuts its wall from plate."""
ACROSS = {"spring-bridge", "truss", "crossmember"}
"""One piece from side to side, kept with the left."""


def drawn_area(data):
    """Area of the largest closed polyline on layer CUT of a DXF, mm2."""
    space = ezdxf.read(io.StringIO(data.decode())).modelspace()
    areas = []
    for line in space.query('LWPOLYLINE[layer=="CUT"]'):
        points = [(p.x, p.y) for p in ezdxf.path.make_path(line).flattening(0.01)]
        areas.append(
            abs(sum(x0 * y1 - x1 * y0 for (x0, y0), (x1, y1) in zip(points, points[1:] + points[:1], strict=True))) / 2
        )
    return max(areas)


class Patterns(SimpleTestCase):
    """A plate cut from a wrong pattern is scrap."""

    def each(self):
        survey = f.demo().survey
        for kind in ALL:
            op = made(kind, **FULL.get(kind, {}))
            yield kind, op, survey

    def test_every_part_has_its_pattern_on_both_sides(self):
        for kind, op, survey in self.each():
            with self.subTest(kind):
                patterns = patterns_of(survey, (op,))
                placed = placed_on(survey, (op,), "left", planned_state((op,)))
                ids = {p.id for p in added_parts(survey, "left", placed).parts if p.role != "tube"}
                self.assertEqual(bool(ids), kind not in PARTLESS)
                self.assertEqual({p.part_id for p in patterns if p.side == "left" and p.part_id}, ids)
                right = 0 if kind in ACROSS else len([p for p in patterns if p.side == "left"])
                self.assertEqual(len([p for p in patterns if p.side == "right"]), right)

    def test_the_dxf_has_the_part_s_area(self):
        for kind, op, survey in self.each():
            placed = placed_on(survey, (op,), "left", planned_state((op,)))
            parts = {p.id: p for p in added_parts(survey, "left", placed).parts}
            for pattern in patterns_of(survey, (op,)):
                if pattern.part_id in parts:
                    with self.subTest(pattern.id):
                        outline = abs(parts[pattern.part_id].outline.area_mm2())
                        self.assertAlmostEqual(drawn_area(pattern_dxf(pattern)) / outline, 1.0, delta=1e-3, msg=kind)

    def test_right_is_the_mirror_of_left(self):
        for kind, op, survey in self.each():
            patterns = patterns_of(survey, (op,))
            left = {p.id.removesuffix("/left"): p for p in patterns if p.side == "left"}
            right = {p.id.removesuffix("/right"): p for p in patterns if p.side == "right"}
            if kind in ACROSS:
                continue
            self.assertEqual(left.keys(), right.keys(), kind)
            for key, pattern in left.items():
                pair = [(p.bounds()[2] - p.bounds()[0], p.bounds()[3] - p.bounds()[1]) for p in (pattern, right[key])]
                for a, b in zip(*pair, strict=True):
                    self.assertAlmostEqual(a, b, delta=0.1, msg=key)

    def test_each_pattern_names_its_datum_and_can_be_written(self):
        for kind, op, survey in self.each():
            for pattern in patterns_of(survey, (op,)):
                with self.subTest(pattern.id):
                    self.assertRegex(
                        told(pattern.datum, "mm"), r"(at|behind|ahead of) (rear axle line|front hanger)", kind
                    )
                    self.assertIn(b"<svg", pattern_svg(pattern))

    def test_mass_is_outline_times_thickness_times_count(self):
        for kind, op, survey in self.each():
            placed = placed_on(survey, (op,), "left", planned_state((op,)))
            for part in added_parts(survey, "left", placed).parts:
                drilled = sum(math.pi / 4 * hole.diameter_mm**2 for hole in part.holes)
                area = abs(part.outline.area_mm2()) - drilled
                by_hand = part.count * area * part.thickness_mm * DENSITY_KG_PER_MM3
                self.assertAlmostEqual(part.mass_kg(), by_hand, msg=kind)

    def test_a_post_weighs_what_its_box_weighs(self):
        """A box 150 x 60 x 6 over 225 mm: perimeter x wall x length, corners counted once."""
        op = made("z-step", rise_mm=75.0, box={"wall_mm": 6.0})
        survey = f.demo().survey
        placed = placed_on(survey, (op,), "left", planned_state((op,)))
        mass = sum(p.mass_kg() for p in added_parts(survey, "left", placed).parts)
        by_hand = (2 * 150 + 2 * (60 - 12)) * 6 * 225 * DENSITY_KG_PER_MM3
        self.assertAlmostEqual(mass / by_hand, 1.0, delta=0.02)


class Report(SimpleTestCase):
    """What the inspector gets must hold every operation and say what it is not."""

    def text(self, job, option):
        inputs = load_job((f.ROOT / "demo" / f"{job}.nodulant.json").read_bytes()).inputs(option)
        return text_of(dossier_pdf(f.dossier_of(inputs, "job", "revision 1")))

    def test_of_the_largest_demo_options(self):
        for job, option, words in (
            (
                "wherry",
                "step",
                ("Inserted piece in bending", "Braking, 1 g", "Torsional stiffness, planned"),
            ),
            ("brackmoor", "welded", ("Bracket's weld", "Crush sleeve under preload", "Patch against")),
            ("brackmoor", "bolt-in", ("Bolt hole against the bolt's friction", "Torque, M12 10.9, dry")),
        ):
            text = self.text(job, option)
            for word in (*words, "planning figures", "licensed engineer"):
                with self.subTest(f"{job} {option} {word}"):
                    self.assertIn(word, text)


class Stored(SimpleTestCase):
    """An operation that does not survive its file is lost work."""

    def test_every_operation_goes_through_the_job_file(self):
        operations = tuple(made(kind, id=f"op{i}", **FULL.get(kind, {})) for i, kind in enumerate(ALL))
        job = f.job()
        revision = job.options[0].revisions[0].model_copy(update={"design": Design(operations=operations)})
        option = job.options[0].model_copy(update={"revisions": (revision,)})
        read = load_job(dump_job(job.model_copy(update={"options": (option,)})))
        self.assertEqual(read.options[0].revisions[0].design.operations, operations)

    def test_demo_files_are_what_their_builders_write(self):
        for name in ("wherry", "brackmoor"):
            data = (f.ROOT / "demo" / f"{name}.nodulant.json").read_bytes()
            self.assertEqual(dump_job(load_job(data)).strip(), dump_job(load_job(dump_job(load_job(data)))).strip())


class Strips(SimpleTestCase):
    """Columns of one strip are of one length, in every case."""

    def test_every_case(self):
        for case in ("static", "bump", "twist", "brake", "corner", "launch", "stop"):
            for strip in evaluate(f.demo("step"), Want(case=case)).strips:
                lengths = {len(v) for v in strip.model_dump().values() if isinstance(v, list)}
                self.assertEqual(lengths, {len(strip.x_mm)}, case)
                self.assertEqual(strip.case, case)
                self.assertEqual(strip.x_mm, sorted(strip.x_mm))

    def test_life_is_stock_s_where_nothing_is_done(self):
        bare = f.with_operations(f.demo())
        bare = bare.model_copy(update={"design": bare.design.model_copy(update={"seats": ()})})
        life = evaluate(bare).strips[0].life
        self.assertGreaterEqual(min(life), 1.0 - 1e-9)

    def test_a_step_with_a_blind_butt_shows_a_dip(self):
        strip = evaluate(f.with_operations(f.demo(), made("z-step", weld="one-sided"))).strips[0]
        dip = min(life for x, life in zip(strip.x_mm, strip.life, strict=True) if 1600 < x < 1900)
        self.assertLess(dip, 0.5)
