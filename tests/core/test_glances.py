"""While a hand drags, a glance is shown: what it says is what the whole look says, wherever both look."""

from unittest import TestCase

import numpy as np

from nodulant.axles.points import HardPoint
from nodulant.base.memo import forget_all
from nodulant.evaluate.suspensions.travel import moved
from nodulant.linkage.grid import steer_grid
from nodulant.linkage.sweep import sweep
from nodulant.suspension.motion import level_at
from nodulant.suspension.study import study
from tests import fixtures as f
from tests.core.test_steering import front, job, with_front

SLOPES = {"turned-ratio"}
"""Figures by differences between neighbouring travels: further apart at a glance."""
NAMES = ("wherry", "brackmoor", "ostrand")


def every_option():
    """Every option of the demo shop whose design holds an axle."""
    for name in NAMES:
        for option in f.job(name).options:
            inputs = f.job(name).inputs(option.id)
            if inputs.design.suspensions:
                yield f"{name}, {option.name}", inputs


def at(along, values, place):
    """A curve's value where both looks have one."""
    return values[int(np.argmin(np.abs(np.array(along) - place)))]


class Alike(TestCase):
    def pairs(self):
        for name, inputs in every_option():
            quick, whole = moved(inputs, glance=True).travel, moved(inputs, glance=False).travel
            self.assertEqual(len(quick), len(whole))
            for one, two in zip(quick, whole, strict=True):
                yield f"{name}, {one.axle}", one, two

    def test_curves_through_travel(self):
        looked = 0
        for name, quick, whole in self.pairs():
            self.assertEqual([c.id for c in quick.curves], [c.id for c in whole.curves], name)
            common = sorted(set(quick.travel_mm) & set(whole.travel_mm))
            self.assertGreaterEqual(len(common), 3, name)
            for one, two in zip(quick.curves, whole.curves, strict=True):
                spread = max((abs(v) for v in two.values if v is not None), default=0.0)
                for place in common:
                    a, b = at(quick.travel_mm, one.values, place), at(whole.travel_mm, two.values, place)
                    with self.subTest(f"{name}, {one.id} at {place}"):
                        self.assertEqual(a is None, b is None)
                        if a is not None:
                            self.assertAlmostEqual(a, b, delta=0.01 * spread + 1e-6)
                            looked += 1
        self.assertGreater(looked, 250)

    def test_where_everything_stands(self):
        for name, quick, whole in self.pairs():
            with self.subTest(name):
                self.assertEqual((quick.hub, quick.half_track_mm, quick.radius_mm), (whole.hub, *self.sizes(whole)))
                self.assertEqual(quick.grips, whole.grips)
                self.assertEqual(quick.members, whole.members)
                self.assertEqual((quick.trouble, quick.trouble_at), (whole.trouble, whole.trouble_at))

    def sizes(self, whole):
        return whole.half_track_mm, whole.radius_mm

    def test_poses_at_the_same_travels(self):
        for name, quick, whole in self.pairs():
            level = whole.rolls_deg.index(0.0)
            rows = len(whole.rolls_deg)
            for k, place in enumerate(quick.travel_mm):
                if place in whole.travel_mm and quick.there[k]:
                    theirs = whole.poses[whole.travel_mm.index(place) * rows + level]
                    np.testing.assert_allclose(quick.poses[k], theirs, atol=2e-5, err_msg=name)

    def test_the_steering_at_its_stops_and_ahead(self):
        looked = 0
        for name, quick, whole in self.pairs():
            if quick.steer is None:
                self.assertIsNone(whole.steer)
                continue
            one, two = quick.steer, whole.steer
            self.assertEqual((one.sense, one.wheel_deg, one.trouble), (two.sense, two.wheel_deg, two.trouble))
            self.assertEqual([c.id for c in one.curves], [c.id for c in two.curves])
            for a, b in zip(one.curves, two.curves, strict=True):
                spread = max((abs(v) for v in b.values if v is not None), default=0.0)
                share = 0.05 if a.id in SLOPES else 0.01
                for place in (-1.0, 0.0, 1.0):
                    here, there = at(one.inputs, a.values, place), at(two.inputs, b.values, place)
                    with self.subTest(f"{name}, {a.id} at {place}"):
                        self.assertEqual(here is None, there is None)
                        if here is not None:
                            self.assertAlmostEqual(here, there, delta=share * spread + 1e-6)
                            looked += 1
        self.assertGreater(looked, 60)

    def test_nothing_is_judged(self):
        for name, inputs in every_option():
            found = moved(inputs, glance=True)
            self.assertEqual(found.checks, (), name)
            self.assertTrue(all(t.forces == () and t.facts == () and t.mounts == () for t in found.travel), name)


class WithoutTheRails(TestCase):
    def test_work_on_the_rails_has_no_part_in_it(self):
        """The browser asks for a glance without obstacles: the answer is the same to the last figure."""
        for name, inputs in every_option():
            bare = inputs.design.model_copy(update={"obstacles": ()})
            with self.subTest(name):
                shown = moved(inputs.model_copy(update={"design": bare}), glance=True)
                self.assertEqual(shown, moved(inputs, glance=True))


class OnlyOne(TestCase):
    def test_the_moved_axle_alone(self):
        inputs = job("wherry", "step")
        both = {t.index: t for t in moved(inputs, glance=True).travel}
        self.assertEqual(set(both), {0, 1})
        for index, whole in both.items():
            (alone,) = moved(inputs, glance=True, only=index).travel
            self.assertEqual(alone, whole)

    def test_an_axle_that_is_not_there(self):
        inputs = job("wherry", "step")
        one = inputs.model_copy(
            update={"design": inputs.design.model_copy(update={"suspensions": inputs.design.suspensions[:1]})}
        )
        self.assertEqual(moved(one, glance=True, only=1).travel, ())


class NoMemory(TestCase):
    """A drag's answers do not depend on what was dragged before: the same point gives the same bits."""

    def glance(self, up):
        own = front(job("wherry", "step"))
        toe = own.layout.toe
        frame = HardPoint(x_mm=toe.frame.x_mm, y_mm=toe.frame.y_mm, z_mm=toe.frame.z_mm + up)
        layout = own.layout.model_copy(update={"toe": toe.model_copy(update={"frame": frame})})
        return moved(with_front(job("wherry", "step"), own.model_copy(update={"layout": layout})), glance=True)

    def test_there_and_back(self):
        first = self.glance(0.0)
        for up in (3.0, -12.5, 40.0, 250.0):
            self.glance(up)
        self.assertEqual(self.glance(0.0), first)
        forget_all()
        self.assertEqual(self.glance(0.0), first)


class Grids(TestCase):
    """A steer grid is the same whether its travels come from the motion or are solved anew."""

    def upright(self):
        inputs = job("wherry", "step")
        own = front(inputs)
        return own, study(inputs.survey, own, inputs.design.seats, 0.0, 1.0).motion

    def test_travels_of_the_motion_are_taken_from_it(self):
        _, m = self.upright()
        rows = np.array([0, 10, 30, 45, 60])
        level = level_at(m, m.travel[rows])
        self.assertIs(level.compiled, m.sweep.compiled)
        np.testing.assert_array_equal(level.solved.pose.origin, m.level.pose.origin[rows])

    def test_other_travels_are_solved(self):
        _, m = self.upright()
        travel = np.array([-31.7, 0.0, 12.3])
        level = level_at(m, travel)
        np.testing.assert_array_equal(level.travel, travel)
        np.testing.assert_array_equal(level.solved.pose.origin, sweep(m.sweep.compiled, travel).solved.pose.origin)

    def test_beyond_the_motion_too(self):
        _, m = self.upright()
        travel = np.array([0.0, m.travel[-1] + 5.0])
        self.assertEqual(level_at(m, travel).travel[-1], m.travel[-1] + 5.0)

    def test_finer_grids_agree_where_they_meet(self):
        own, m = self.upright()
        rod = next(i for i, r in enumerate(m.sweep.compiled.mechanism.rods) if r.name.startswith("toe"))
        found = {}
        for steers in (7, 21, 41):
            shifts = np.zeros((steers, 3))
            shifts[:, 1] = np.linspace(-1.0, 1.0, steers) * own.steering.gear.stroke_mm
            grid = steer_grid(level_at(m, m.travel), rod, shifts)
            self.assertTrue(grid.there.all())
            found[steers] = grid.solved.pose.origin.reshape(len(m.travel), steers, 3)[:, [0, steers // 2, -1]]
        for steers in (7, 21):
            np.testing.assert_allclose(found[steers], found[41], atol=1e-8)
