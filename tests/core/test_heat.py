"""Beads in order, each where the metal is hand-warm, and what a design's welds bend."""

import subprocess
import tempfile
from itertools import pairwise
from unittest import TestCase

import numpy as np
from scipy.special import erf

from nodulant.assembly.sheet import assembly_sheets
from nodulant.formats.heat_pdf import heat_pdf
from nodulant.geometry.outline import line
from nodulant.heat.beads import BETWEEN_S, LONGEST_MM, ToWeld, beads_of, pieces_of
from nodulant.heat.cooling import (
    AIR_C,
    DIFFUSIVITY_MM2_S,
    FORGOTTEN_S,
    HEAT_J_MM3_K,
    LOSS_W_MM2_K,
    WARM_C,
    Hot,
    Laid,
    Line,
)
from nodulant.heat.plan import heat_plan, heat_plans
from nodulant.job.document import Design, Inputs
from nodulant.materials.process import Welding
from nodulant.materials.weld import bead_mm2
from nodulant.parts.part import Seam
from nodulant.units.show import show_length
from tests import fixtures as f

LIMIT_K = WARM_C - AIR_C


def seam(x0, x1, y=0.0, share=1.0, leg=5.0):
    return Seam(
        part_a="rail/left", part_b="op/p/left", kind="fillet", leg_mm=leg, path=line(x0, y, x1, y), welded_share=share
    )


def to_weld(own, number=1, side="left", turn=2):
    return ToWeld(number, side, own, turn, 7.5, -60.0, 210.0)


class Beads(TestCase):
    @classmethod
    def setUpClass(cls):
        cls.inputs = f.demo("step")
        cls.plans = heat_plans(cls.inputs)

    def test_they_are_short_and_make_up_the_seam(self):
        for own in (seam(0, 1000), seam(0, 730, share=0.5), seam(0, 20)):
            pieces = pieces_of(own)
            self.assertLessEqual(max(p.length_mm for p in pieces), LONGEST_MM + 1e-9)
            self.assertAlmostEqual(sum(p.length_mm for p in pieces), own.welded_mm, 6)

    def test_never_two_beside_one_another_where_there_is_room(self):
        beads = beads_of([to_weld(seam(0, 1000)), to_weld(seam(0, 1000), 1, "right")], Welding())
        self.assertEqual(len(beads), 40)
        for one, two in pairwise(beads[:20]):
            self.assertTrue(one.side != two.side or abs(one.x_mm - two.x_mm) > 75, (one, two))
        self.assertEqual({b.side for b in beads[:2]}, {"left", "right"})

    def test_each_place_is_hand_warm_when_its_turn_comes(self):
        """Followed by hand: the clock goes on by wait, arc and moving on, and the place is looked at."""
        beads = beads_of([to_weld(seam(0, 300))], Welding())
        now, laid = 0.0, []
        for b in beads:
            now += b.wait_s
            (a, c) = b.path.vertices
            rise = Hot(laid).rise_k(np.array([a.x, c.x]), np.array([a.y, c.y]), now).max()
            self.assertLessEqual(rise, LIMIT_K + 1.0)
            now += b.arc_s
            kj = Welding().heat_kj_per_mm(bead_mm2("fillet", 5.0)) * b.length_mm
            laid.append(Laid(Line(a.x, a.y, c.x, c.y), now, kj, 7.5, -60.0, 210.0))
            now += BETWEEN_S

    def test_what_is_too_far_to_be_felt_is_left_out_of_no_figure(self):
        """Bead by bead by the formula, nothing left out, against all at once at times of their own."""
        lines = [*pieces_of(seam(0, 900)), *pieces_of(seam(0, 900))]
        laid = [Laid(line, 40.0 * k, 20.0, 7.5, -60.0, 210.0) for k, line in enumerate(lines)]
        x, y = np.linspace(-50, 950, 23), np.linspace(-60, 210, 23)
        now = np.linspace(45.0, 2600.0, 23)

        def alone(b, px, py, at):
            s = at - b.ended_s
            if not 0 <= s < FORGOTTEN_S:
                return 0.0
            s, total = max(s, 1.0), 0.0
            for sign, edge in ((1, 0.0), (-1, -60.0), (-1, 210.0)):
                y0, y1 = (sign * v + (0 if sign > 0 else 2 * edge) for v in (b.line.y0, b.line.y1))
                along = np.array([b.line.x1 - b.line.x0, y1 - y0])
                long = np.hypot(*along)
                off = np.array([px - (b.line.x0 + b.line.x1) / 2, py - (y0 + y1) / 2])
                u, v = off @ along / long, (off[1] * along[0] - off[0] * along[1]) / long
                r = np.sqrt(4 * DIFFUSIVITY_MM2_S * s)
                part = (erf((u + long / 2) / r) - erf((u - long / 2) / r)) / 2
                gone = np.exp(-2 * LOSS_W_MM2_K * s / (HEAT_J_MM3_K * b.thickness_mm))
                total += part * np.exp(-((v / r) ** 2)) / np.sqrt(np.pi) / r / long * gone
            return total * b.heat_kj * 1000 / (b.thickness_mm * HEAT_J_MM3_K)

        by_hand = [sum(alone(b, *at) for b in laid) for at in zip(x, y, now, strict=True)]
        np.testing.assert_allclose(Hot(laid).rise_k(x, y, now), by_hand, rtol=1e-6, atol=1e-3)
        self.assertGreater(max(by_hand), LIMIT_K)

    def test_by_turns_takes_less_waiting_than_end_to_end(self):
        both = [to_weld(seam(0, 500)), to_weld(seam(0, 500), 1, "right")]
        ours = sum(b.wait_s for b in beads_of(both, Welding()))
        now, waits, laid = 0.0, 0.0, []
        for piece in pieces_of(seam(0, 500)):
            ready = Hot(laid).ready_s(piece, now, LIMIT_K)
            waits, now = waits + ready - now, ready + 12 + BETWEEN_S
            laid.append(Laid(piece, now - BETWEEN_S, 27.0, 7.5, -60.0, 210.0))
        self.assertLess(ours, 0.5 * 2 * waits)

    def test_upright_ones_go_upward(self):
        up = Seam(part_a="rail/left", part_b="op/p/left", kind="fillet", leg_mm=5.0, path=line(0, 150, 0, 0))
        for b in beads_of([to_weld(up)], Welding()):
            self.assertEqual(b.towards, "upward")
            self.assertGreater(b.path.vertices[1].y, b.path.vertices[0].y)

    def test_what_lies_over_the_rest_comes_last(self):
        """Side plates lie over butts that are ground: with a step of their own, their beads are the last ones."""
        plan = next(p for p in self.plans if p.operation == "rear-step")
        over = set(next(s for s in plan.steps if s.key == "plates").seams)
        last = [b.seam in over for b in plan.beads]
        self.assertTrue(any(last) and not all(last))
        self.assertEqual(last, sorted(last))

    def test_every_weld_of_the_sheet_has_its_beads(self):
        sheets = {s.operation: s for s in assembly_sheets(self.inputs)}
        for plan in self.plans:
            for row in sheets[plan.operation].welds:
                laid = sum(b.length_mm for b in plan.beads if b.seam == row.number)
                self.assertGreater(laid, 0.0)
                self.assertLess(laid, row.total_mm * 1.05 + 1.0)


class Bow(TestCase):
    def test_two_edges_of_a_flush_plate_hold_each_other_up_and_down_but_not_sideways(self):
        inputs = Inputs(survey=f.survey_of(f.straight_rail()), design=Design(operations=(f.boxing(),)))
        plan = heat_plan(inputs, f.boxing().id)
        rows = {b.way: b for b in plan.bends if b.side == "left"}
        self.assertLess(rows["up and down"].by_turns_mm, 0.05)
        self.assertGreater(rows["up and down"].one_go_mm, 0.3)
        self.assertGreater(rows["in and out"].by_turns_mm, 0.3)
        self.assertEqual(rows["in and out"].towards, "outward", "the middle goes away from the side that shrinks")

    def test_a_butt_makes_the_rail_shorter(self):
        """0.10 A_w / t at each: 45.2 mm2 in a 5 mm wall is 0.9 mm for both, less than a millimetre a butt."""
        plan = heat_plan(f.demo("step"), "rear-step")
        each = 0.10 * bead_mm2("butt", 5.0) / 5.0
        self.assertEqual({round(s.shorter_mm, 9) for s in plan.shrinks}, {round(2 * each, 9)})


class OnPaper(TestCase):
    def test_every_bead_is_told_on_one_line(self):
        """Read back by a PDF tool: number, seam, rail, length, way and wait of each, in inches where the tape is."""
        inputs = f.demo("arc")
        plan = heat_plan(inputs, "axle-notch")
        with tempfile.NamedTemporaryFile(suffix=".pdf") as file:
            file.write(heat_pdf("job", "revision 1", [plan], "in16"))
            file.flush()
            done = subprocess.run(["pdftotext", "-layout", file.name, "-"], check=True, capture_output=True, text=True)
        words = " ".join(done.stdout.split()).replace("[ ]", "[]").replace("[] ", "[]")
        for b in plan.beads:
            wait = f", wait {b.wait_s / 60:.1f} min" if b.wait_s >= 5 else ""
            length = show_length(b.length_mm, "in16")
            self.assertIn(f"[]{b.number} seam {b.seam}, {b.side}, {length} {b.towards}{wait}", words)
        self.assertTrue(any(b.wait_s >= 5 for b in plan.beads))
        self.assertNotIn(" mm", words)
