"""Welding heat against outside: cooling, heat input, bow.

Line and point sources in a plate (Carslaw and Jaeger, *Conduction of Heat in Solids*, from memory) and a
finite-difference plate; heat input by ISO/TR 17671-1 (from memory); bow by Blodgett, *Design of Welded Structures*
(from memory).
"""

import math
from unittest import TestCase

import numpy as np

from nodulant.heat.bend import bow_mm
from nodulant.heat.cooling import (
    AIR_C,
    DIFFUSIVITY_MM2_S,
    HEAT_J_MM3_K,
    LOSS_W_MM2_K,
    WARM_C,
    Hot,
    Laid,
    Line,
)
from nodulant.materials.process import Welding
from nodulant.materials.weld import bead_mm2

FAR = 1e6
LIMIT_K = WARM_C - AIR_C


def bead(x0=0.0, x1=50.0, y=0.0, kj=27.0, t=5.0, low=-FAR, high=FAR, ended=0.0):
    return Laid(Line(x0, y, x1, y), ended, kj, t, low, high)


def plate_in_differences(length, kj, t, until_s, low, high, wide=500.0, step=5.0):
    """The same bead in an explicit finite-difference plate with insulated edges; rise at its middle over time."""
    xs = np.arange(-wide / 2, wide / 2 + step / 2, step)
    ys = np.arange(low, high + step / 2, step)
    rise = np.zeros((len(xs), len(ys)))
    on = np.abs(xs) <= length / 2 - step / 4
    middle = int(np.argmin(np.abs(ys)))
    weight = np.ones(len(ys))
    weight[[0, -1]] = 0.5  # cells on an edge are half as wide
    rise[on, middle] = kj * 1000 / (on.sum() * step * step * weight[middle] * t * HEAT_J_MM3_K)
    dt = 0.2 * step**2 / DIFFUSIVITY_MM2_S
    told = []
    for n in range(int(until_s / dt)):
        padded = np.pad(rise, 1, mode="reflect")
        laplace = (padded[2:, 1:-1] + padded[:-2, 1:-1] + padded[1:-1, 2:] + padded[1:-1, :-2] - 4 * rise) / step**2
        rise = rise + dt * (DIFFUSIVITY_MM2_S * laplace - 2 * LOSS_W_MM2_K / (HEAT_J_MM3_K * t) * rise)
        told.append(((n + 1) * dt, rise[len(xs) // 2, middle]))
    return np.array(told)


class Cooling(TestCase):
    def at(self, laid, s, x=25.0, y=0.0):
        return float(Hot([laid]).rise_k(np.array([x]), np.array([y]), s)[0])

    def test_a_long_bead_in_a_wide_plate_is_the_line_source_of_the_textbook(self):
        """T = q / (rho c t sqrt(4 pi a s)) without loss (Carslaw and Jaeger, from memory); loss by exp(-b s)."""
        for s in (30.0, 120.0, 400.0):
            q = 0.54 * 1000  # J/mm
            closed = q / (5 * HEAT_J_MM3_K * math.sqrt(4 * math.pi * DIFFUSIVITY_MM2_S * s))
            closed *= math.exp(-2 * LOSS_W_MM2_K * s / (HEAT_J_MM3_K * 5))
            self.assertAlmostEqual(self.at(bead(-5000, 5050, kj=0.54 * 10050), s) / closed, 1.0, 6)

    def test_late_a_short_bead_is_a_point(self):
        """T = Q / (4 pi a s rho c t) for a point in a plate (same source)."""
        s = 1200.0
        closed = 27_000 / (4 * math.pi * DIFFUSIVITY_MM2_S * s * HEAT_J_MM3_K * 5)
        closed *= math.exp(-2 * LOSS_W_MM2_K * s / (HEAT_J_MM3_K * 5))
        self.assertAlmostEqual(self.at(bead(), s) / closed, 1.0, 1)

    def test_against_a_plate_in_finite_differences(self):
        """Time to hand-warm within 15 %: wide plate, strip of an unfolded rail, bead beside an edge."""
        for low, high, kj in (
            (-300.0, 300.0, 27.0),
            (-140.0, 140.0, 27.0),
            (-20.0, 260.0, 27.0),
            (-140.0, 140.0, 60.0),
        ):
            with self.subTest((low, high, kj)):
                told = plate_in_differences(50.0, kj, 5.0, 600.0, low, high)
                own = Hot([bead(-25, 25, kj=kj, low=low, high=high)])
                hand_warm = told[told[:, 1] > LIMIT_K][-1, 0]
                middle = Line(-1.0, 0.0, 1.0, 0.0)
                self.assertAlmostEqual(own.ready_s(middle, 0.0, LIMIT_K) / hand_warm, 1.0, delta=0.15)

    def test_heat_is_neither_made_nor_lost_without_loss(self):
        """Over a wide plate the rise adds up to what the bead put in, less what left its faces."""
        xs = np.arange(-900, 901, 10.0)
        grid = np.array([(x, y) for x in xs for y in xs])
        s = 300.0
        total = Hot([bead(-25, 25)]).rise_k(grid[:, 0], grid[:, 1], s).sum() * 100 * 5 * HEAT_J_MM3_K
        left = 27_000 * math.exp(-2 * LOSS_W_MM2_K * s / (HEAT_J_MM3_K * 5))
        self.assertAlmostEqual(total / left, 1.0, 3)

    def test_before_it_was_laid_a_bead_is_cold(self):
        self.assertEqual(self.at(bead(ended=100.0), 50.0), 0.0)


class HeatInput(TestCase):
    def test_by_the_formula_with_speed_from_what_the_current_lays_down(self):
        """5 mm fillet at 150 A, 1.6 kg/h: 13.75 mm2 of steel at 247 mm/min; 60 x 19 x 150 x 0.8 / 247 000 kJ/mm, by hand."""
        own = Welding()
        speed = 1.6 / 60 / 7.85e-6 / 13.75
        self.assertAlmostEqual(own.speed_mm_per_min(bead_mm2("fillet", 5.0)), speed, 3)
        self.assertAlmostEqual(own.heat_kj_per_mm(bead_mm2("fillet", 5.0)), 60 * 19 * 150 * 0.8 / (1000 * speed), 6)

    def test_less_of_it_goes_in_with_tungsten(self):
        tig, mag = Welding(process="TIG"), Welding()
        at = bead_mm2("fillet", 3.0)
        per_mm3 = [w.heat_kj_per_mm(at) * w.speed_mm_per_min(at) / w.amps / w.volts for w in (tig, mag)]
        self.assertAlmostEqual(per_mm3[0] / per_mm3[1], 0.75, 6)


class Bow(TestCase):
    def test_by_blodgetts_formula_and_by_beam_theory(self):
        """0.005 A d L2 / I is a curvature of 0.04 A d / I held over L: an arc's sagitta, k L2 / 8 (identity)."""
        area, lever, run, inertia = 13.75, 75.0, 2000.0, 4.12e6
        curvature = 0.04 * area * lever / inertia
        self.assertAlmostEqual(bow_mm(area, lever, run, inertia), curvature * run**2 / 8, 9)
