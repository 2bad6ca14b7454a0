"""Wheels, tyres on them and arches against the trade's own arithmetic."""

import numpy as np
from django.test import SimpleTestCase
from pydantic import ValidationError

from nodulant.clearance.arches import EDGE_MM, arch_of
from nodulant.parts.tyre import parse_tyre
from nodulant.parts.wheel import Wheel, measuring_rim_mm, section_on
from nodulant.survey.arch import Arch
from nodulant.survey.vehicle import Axle

INCH = 25.4


class Faces(SimpleTestCase):
    def test_backspacing_of_a_wheel_without_offset(self):
        """Eight inches between the seats, nine over the lips: 4.5 in of backspacing is offset 0 (common practice)."""
        wheel = Wheel(rim_width_mm=8 * INCH, backspacing_mm=4.5 * INCH, lip_mm=INCH / 2)
        self.assertAlmostEqual(wheel.face_mm, 0.0, places=9)

    def test_each_follows_from_the_other(self):
        for face in (-38.0, 0.0, 45.0):
            by_offset = Wheel(rim_width_mm=165.1, offset_mm=face)
            back = Wheel(rim_width_mm=165.1, backspacing_mm=by_offset.back_mm)
            self.assertAlmostEqual(back.face_mm, face, places=9)

    def test_going_in_is_more_backspacing(self):
        wheel = Wheel(rim_width_mm=165.1, backspacing_mm=120.0)
        self.assertAlmostEqual(wheel.moved_in(12.0).back_mm, 132.0)

    def test_both_or_neither_are_refused(self):
        for own in ({}, {"offset_mm": 10.0, "backspacing_mm": 100.0}):
            with self.assertRaises(ValidationError):
                Wheel(rim_width_mm=165.1, **own)


class Sections(SimpleTestCase):
    def test_measuring_rims(self):
        """Rims that tables of sizes give the section on, inches (from memory)."""
        rows = {
            "205/65R15": 6.0,
            "205/55R16": 6.5,
            "225/45R17": 7.5,
            "245/40R18": 8.5,
            "215/75R16": 6.0,
            "265/70R17": 8.0,
        }
        for size, rim in rows.items():
            with self.subTest(size):
                self.assertAlmostEqual(measuring_rim_mm(parse_tyre(size)) / INCH, rim, places=6)

    def test_half_an_inch_of_rim_is_five_millimetres(self):
        """From memory, common practice."""
        tyre = parse_tyre("205/65R15")
        for wider in (-1, 0, 2):
            wheel = Wheel(rim_width_mm=(6.0 + wider / 2) * INCH, offset_mm=40)
            self.assertAlmostEqual(section_on(tyre, wheel), 205 + 5 * wider)
        self.assertEqual(section_on(tyre, None), 205)


class Arches(SimpleTestCase):
    AXLE = Axle(
        hub_z_left_mm=-150, hub_z_right_mm=-150, arch=Arch(front_x_mm=-400, rear_x_mm=420, top_z_mm=300, edge_y_mm=900)
    )

    def test_the_edge_passes_its_three_points_on_both_sides(self):
        bars = arch_of("front", self.AXLE).pack
        for side in (1.0, -1.0):
            for point in ((-400, 900, -150), (420, 900, -150), (10, 900, 300)):
                place = np.array([[point[0], side * point[1], point[2]]], dtype=float)
                gaps = [float(bars.some(np.array([k])).distance(place)[0]) for k in range(len(bars.a))]
                self.assertAlmostEqual(min(gaps), -EDGE_MM, places=6)

    def test_without_hubs_there_is_none(self):
        self.assertIsNone(
            arch_of("front", self.AXLE.model_copy(update={"hub_z_left_mm": None, "hub_z_right_mm": None}))
        )

    def test_an_arch_inside_out_is_refused(self):
        with self.assertRaises(ValidationError) as caught:
            Arch(front_x_mm=400, rear_x_mm=-400, top_z_mm=300, edge_y_mm=900)
        self.assertIn("behind its front edge", str(caught.exception))
