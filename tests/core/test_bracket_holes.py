"""The map of bracket holes against studying every combination by itself."""

import itertools
import math

import numpy as np
from django.test import SimpleTestCase

from nodulant.base.errors import NotSolvable
from nodulant.evaluate.suspensions.holes_there import holes_there
from nodulant.search.bracket_holes import Asked, HoleRow, Holes, Wanted, find_holes, moved
from nodulant.suspension import motion
from nodulant.suspension.study import study
from tests import fixtures as f
from tests.core.test_suspensions import suspended

TWO, THREE = HoleRow(above=1, pitch_mm=25.0), HoleRow(above=1, below=1, pitch_mm=25.0)
FEW = Holes(frame_upper=TWO, frame_lower=THREE, axle_upper=TWO, axle_lower=TWO)


def asked(kind="triangulated", holes=FEW, wanted=None, inputs=None):
    inputs = inputs or suspended(kind)
    d = inputs.design
    return Asked(inputs.survey, d.suspensions[0], d.seats, 60.0, d.loads.grip, holes, wanted or Wanted())


def alone(a, row):
    """One combination studied by itself: anti-squat, roll steer, most pinion turn, and its score."""
    s = study(a.survey, moved(a.suspension, np.array(row)), a.seats, a.towards_rail_mm, a.grip)
    lever = 100 * s.vehicle.wheelbase_mm / s.centre_above_ground_mm
    squat = lever * motion.torque_slope(s.motion, braking=False)[s.ride]
    steer = motion.roll_steer(s.motion)[s.ride]
    pitch = motion.pitch_deg(s.motion)
    turn = np.abs(pitch - pitch[s.ride]).max()
    w = a.wanted
    score = math.sqrt(
        ((squat - w.anti_squat) / w.anti_squat_off) ** 2
        + ((steer - w.roll_steer) / w.roll_steer_off) ** 2
        + (turn / w.pinion_off_deg) ** 2
    )
    return squat, steer, turn, score


class AgainstTryingAll(SimpleTestCase):
    """The best hole is a promise too."""

    def test_every_combination_alone(self):
        for kind in ("triangulated", "parallel", "three-link"):
            with self.subTest(kind):
                a = asked(kind)
                found = find_holes(a)
                rows = itertools.product((0.0, 25.0), (-25.0, 0.0, 25.0), (0.0, 25.0), (0.0, 25.0))
                by_hand = {row: alone(a, row) for row in rows}
                self.assertEqual(found.tried, len(by_hand))
                for choice in found.choices:
                    row = (choice.frame_upper_mm, choice.frame_lower_mm, choice.axle_upper_mm, choice.axle_lower_mm)
                    squat, steer, turn, score = by_hand[row]
                    self.assertAlmostEqual(choice.anti_squat, squat, delta=0.05 if kind == "parallel" else 1e-5)
                    # the shares of five bars follow their lengths, which the map takes as they were
                    self.assertAlmostEqual(choice.roll_steer, steer, delta=1e-3 if kind == "parallel" else 1e-7)
                    self.assertAlmostEqual(choice.pinion_deg, turn, delta=0.02 + 0.02 * turn)
                    self.assertAlmostEqual(choice.score, score, delta=0.05)
                least = min(v[3] for v in by_hand.values())
                self.assertAlmostEqual(found.choices[0].score, least, delta=0.05)
                self.assertEqual([c.score for c in found.choices], sorted(c.score for c in found.choices))

    def test_the_map_has_the_best_of_every_pair(self):
        found = find_holes(asked())
        self.assertEqual((len(found.upper_mm), len(found.lower_mm)), (2, 3))
        flat = [v for row in found.score for v in row]
        self.assertAlmostEqual(min(flat), found.choices[0].score)

    def test_each_cell_says_whose_it_is(self):
        """The pair of frame holes in a cell with the axle's holes that it names gives what it says."""
        a = asked()
        found = find_holes(a)
        for i, upper in enumerate(found.upper_mm):
            for k, lower in enumerate(found.lower_mm):
                squat, _, _, score = alone(a, (upper, lower, *found.axle[i][k]))
                self.assertAlmostEqual(found.anti_squat[i][k], squat, delta=1e-5)
                self.assertAlmostEqual(found.score[i][k], score, delta=0.05)

    def test_a_bracket_with_one_hole_is_held_fixed(self):
        one = Holes(frame_upper=TWO, frame_lower=HoleRow(), axle_upper=HoleRow(), axle_lower=HoleRow())
        found = find_holes(asked(holes=one))
        self.assertEqual(found.tried, 2)
        for choice in found.choices:
            self.assertEqual((choice.frame_lower_mm, choice.axle_upper_mm, choice.axle_lower_mm), (0.0, 0.0, 0.0))

    def test_it_starts_from_the_holes_that_the_brackets_have(self):
        rear = f.job().inputs("step").design.operations
        holes = holes_there(rear, "rear")
        self.assertEqual(
            [(r.above, r.below) for r in holes.rows], [(0, 0)] * 4, "the van's brackets have one hole each"
        )
        bored = tuple(
            o.model_copy(
                update={"tabs": o.tabs.model_copy(update={"holes_above": 3, "holes_below": 1, "pitch_mm": 30.0})}
            )
            if o.id == "rear-upper-link-bracket"
            else o
            for o in rear
        )
        self.assertEqual(holes_there(bored, "rear").frame_upper, HoleRow(above=3, below=1, pitch_mm=30.0))
        self.assertEqual(holes_there((), "rear"), Holes(), "nothing is there yet: a usual row")

    def test_other_wishes_rank_otherwise(self):
        low, high = (find_holes(asked(wanted=Wanted(anti_squat=v, roll_steer_off=1.0))) for v in (40.0, 120.0))
        self.assertLess(low.choices[0].anti_squat, high.choices[0].anti_squat)


class Refused(SimpleTestCase):
    def test_a_layout_without_links(self):
        with self.assertRaises(NotSolvable):
            find_holes(asked("leaf"))

    def test_no_combination_reaches(self):
        inputs = suspended("triangulated")
        short = inputs.design.suspensions[0]
        link = short.layout.lower
        near = link.model_copy(update={"frame": link.frame.model_copy(update={"x_mm": 2600.0, "y_mm": 400.0})})
        own = short.model_copy(update={"layout": short.layout.model_copy(update={"lower": near}), "bump_mm": 300.0})
        a = asked(inputs=inputs)._replace(suspension=own)
        found = find_holes(a)
        self.assertTrue(found.reason or not any(c.reaches for c in found.choices))
