"""What must not depend on where the origin lies, how large a thing is, or which side it is built on.

No formula is needed for these: a linkage moved, enlarged or seen in a mirror has figures that follow
from the first one's alone (similarity of figures, school geometry). One error of sign or of datum shows.
"""

from unittest import TestCase

import numpy as np

from nodulant.axles.points import HardPoint
from nodulant.base.model import Frozen
from nodulant.clearance.distance import Ring, bar_to_bar, bar_to_convex, ring_to_bar, ring_to_convex
from nodulant.clearance.shapes import Bars, Blocks
from nodulant.linkage.rotation import exponential
from nodulant.steering.measures import measures
from nodulant.steering.study import bump_steer, lock, steer_study
from nodulant.steering.wheels import steered_wheels
from nodulant.suspension import motion as of
from nodulant.suspension.motion import Setting, moved_through
from nodulant.suspension.study import study, travel_of
from tests.core.test_steering import front, job

RNG = np.random.default_rng(11)
FLIP = np.array([1.0, -1.0, 1.0])
INPUTS = np.linspace(-1.0, 1.0, 9)


def mapped(model, change):
    """A model with every hard point in it changed."""
    if isinstance(model, HardPoint):
        x, y, z = change(model.xyz())
        return HardPoint(x_mm=x, y_mm=y, z_mm=z)
    if isinstance(model, tuple):
        return tuple(mapped(part, change) for part in model)
    if isinstance(model, Frozen):
        return model.model_copy(
            update={name: mapped(getattr(model, name), change) for name in type(model).model_fields}
        )
    return model


class Enlarged(TestCase):
    """Everything half as large again: angles stay, lengths grow by half."""

    BY = 1.5

    def looked(self, own, setting, travel):
        m = moved_through(own.layout, setting, travel)
        wheels = steered_wheels(own, setting, m, travel, INPUTS)
        return m, measures(wheels.right, 1.0, setting.radius_mm), measures(wheels.left, -1.0, setting.radius_mm)

    def test_wishbones_on_a_rack(self):
        inputs = job("wherry", "step")
        own = front(inputs)
        setting = study(inputs.survey, own, inputs.design.seats, 0.0, 1.0).setting
        travel = travel_of(own, 16)
        large = mapped(own, lambda p: tuple(self.BY * v for v in p))
        gear = own.steering.gear.model_copy(update={"stroke_mm": own.steering.gear.stroke_mm * self.BY})
        large = large.model_copy(update={"steering": own.steering.model_copy(update={"gear": gear})})
        grown = Setting(
            tuple(self.BY * v for v in setting.hub), setting.half_track_mm * self.BY, setting.radius_mm * self.BY
        )
        m, *sides = self.looked(own, setting, travel)
        n, *others = self.looked(large, grown, travel * self.BY)
        for here, there in zip(sides, others, strict=True):
            for name in ("camber_deg", "toe_deg", "steer_deg", "caster_deg", "inclination_deg"):
                np.testing.assert_allclose(getattr(there, name), getattr(here, name), atol=1e-7, err_msg=name)
            for name in ("scrub_mm", "trail_mm", "patch"):
                np.testing.assert_allclose(getattr(there, name), self.BY * getattr(here, name), atol=1e-6, err_msg=name)
        np.testing.assert_allclose(of.roll_centre(n), self.BY * of.roll_centre(m), atol=1e-5)
        np.testing.assert_allclose(of.torque_slope(n, braking=True), of.torque_slope(m, braking=True), atol=1e-9)


class Carried(TestCase):
    """The same front axle elsewhere on the frame: nothing but its place changes."""

    def test_wishbones_further_back_and_higher(self):
        inputs = job("wherry", "step")
        own = front(inputs)
        s = study(inputs.survey, own, inputs.design.seats, 0.0, 1.0)
        by = np.array([731.0, 0.0, -113.0])
        # points on the frame go along; those on the axle count from the hub line, which goes along by itself
        on_frame = {
            path: HardPoint(**dict(zip(("x_mm", "y_mm", "z_mm"), np.array(p.xyz()) + by, strict=True)))
            for path, (where, p) in own.layout.points().items()
            if where == "frame"
        }
        toe = own.layout.toe
        inner = np.array(toe.frame.xyz()) + by
        moved_toe = toe.model_copy(update={"frame": HardPoint(x_mm=inner[0], y_mm=inner[1], z_mm=inner[2])})
        there = own.layout.model_copy(update={**on_frame, "toe": moved_toe})
        hub = tuple(float(v) for v in np.array(s.setting.hub) + by)
        setting = Setting(hub, s.setting.half_track_mm, s.setting.radius_mm)
        travel = s.motion.travel
        m, n = moved_through(own.layout, s.setting, travel), moved_through(there, setting, travel)
        np.testing.assert_allclose(n.level.pose.rotation, m.level.pose.rotation, atol=1e-11)
        np.testing.assert_allclose(n.level.pose.origin, m.level.pose.origin + by, atol=1e-8)
        one, two = (
            steered_wheels(own.model_copy(update={"layout": layout}), at, motion, travel, INPUTS)
            for layout, at, motion in ((own.layout, s.setting, m), (there, setting, n))
        )
        np.testing.assert_allclose(two.right.spin, one.right.spin, atol=1e-10)
        np.testing.assert_allclose(two.right.centre, one.right.centre + by, atol=1e-8)
        self.assertEqual(two.ends, one.ends)


class Mirrored(TestCase):
    """A beam axle with box, drag link and track bar built for the other side of the road."""

    def sides(self):
        inputs = job("brackmoor", "welded")
        own = front(inputs)
        flip = lambda model: mapped(model, lambda p: (p[0], -p[1], p[2]))  # noqa: E731
        # lower arms stand on both sides alike; the one upper arm and the track bar change sides
        update = {name: flip(getattr(own.layout, name)) for name in ("upper", "lateral")}
        gear = own.steering.gear
        box = flip(gear.box).model_copy(update={"tilt_deg": -gear.box.tilt_deg})
        mirrored = gear.model_copy(update={"box": box, "knuckle": flip(gear.knuckle)})
        there = own.model_copy(
            update={
                "layout": own.layout.model_copy(update=update),
                "steering": own.steering.model_copy(update={"gear": mirrored}),
            }
        )
        return [study(inputs.survey, each, inputs.design.seats, 0.0, 1.0) for each in (own, there)]

    def test_steer_through_travel_turns_its_sign(self):
        one, two = (steer_study(s) for s in self.sides())
        straight = one.right.steer_deg[one.ride, one.ahead]
        self.assertAlmostEqual(two.left.steer_deg[two.ride, two.ahead], -straight, places=6)
        np.testing.assert_allclose(bump_steer(two), -bump_steer(one), atol=1e-6)
        self.assertGreater(np.nanmax(np.abs(bump_steer(one))), 0.05)

    def test_each_wheel_does_what_the_other_did_at_the_opposite_lock(self):
        one, two = (steer_study(s) for s in self.sides())
        there = one.wheels.right.there
        np.testing.assert_array_equal(two.wheels.left.there, there[:, ::-1])
        for here, mirror in ((one.right, two.left), (one.left, two.right)):
            for name, sign in (("camber_deg", 1.0), ("toe_deg", 1.0), ("steer_deg", -1.0), ("scrub_mm", 1.0)):
                a, b = getattr(here, name), getattr(mirror, name)[:, ::-1]
                np.testing.assert_allclose(b[there], sign * a[there], atol=1e-6, err_msg=name)

    def test_locks_change_sides(self):
        one, two = (steer_study(s) for s in self.sides())
        for way in (1, -1):
            here, there = lock(one, way), lock(two, -way)
            self.assertAlmostEqual(here.inner_deg, there.inner_deg, places=6)
            self.assertAlmostEqual(here.outer_deg, there.outer_deg, places=6)
            self.assertAlmostEqual(here.reached, there.reached, places=9)

    def test_the_axle_goes_sideways_the_other_way(self):
        one, two = self.sides()
        aside = of.hub_place(one.motion)[:, 1]
        np.testing.assert_allclose(of.hub_place(two.motion)[:, 1], -aside, atol=1e-7)
        np.testing.assert_allclose(of.roll_centre(two.motion), of.roll_centre(one.motion), atol=1e-4)


class Distances(TestCase):
    """Bodies turned and carried together stay as far apart; enlarged, they are that much further."""

    COUNT = 40

    def bars(self):
        return RNG.uniform(-400.0, 400.0, (4, self.COUNT, 3))

    def test_turned_and_carried(self):
        a, b, c, d = self.bars()
        turn = exponential(np.array([[0.4, -0.9, 0.3]]))[0]
        by = np.array([120.0, -80.0, 33.0])
        place = lambda p: p @ turn.T + by  # noqa: E731
        before = bar_to_bar(a, b, 9.0, c, d, 14.0)
        after = bar_to_bar(place(a), place(b), 9.0, place(c), place(d), 14.0)
        np.testing.assert_allclose(after.gap, before.gap, atol=1e-9)
        np.testing.assert_allclose(after.mine, place(before.mine), atol=1e-6)
        half = RNG.uniform(20.0, 90.0, (self.COUNT, 3))
        axes = exponential(RNG.normal(size=(self.COUNT, 3)))
        block, moved = Blocks(c, half, axes), Blocks(place(c), half, turn @ axes)
        near, far = bar_to_convex(a, b, 9.0, block), bar_to_convex(place(a), place(b), 9.0, moved)
        np.testing.assert_allclose(far.gap, near.gap, atol=1e-5)
        spin = RNG.normal(size=(self.COUNT, 3))
        spin /= np.linalg.norm(spin, axis=1, keepdims=True)
        shape = (330.0, 200.0, 210.0, 30.0)
        ring, turned_ring = Ring(d * 2, spin, *shape), Ring(place(d * 2), spin @ turn.T, *shape)
        for one, two in (
            (ring_to_bar(ring, a, b, 9.0), ring_to_bar(turned_ring, place(a), place(b), 9.0)),
            (ring_to_convex(ring, block), ring_to_convex(turned_ring, moved)),
        ):
            apart = one.gap > 0.0
            np.testing.assert_allclose(two.gap[apart], one.gap[apart], atol=2e-3)

    def test_enlarged(self):
        a, b, c, d = self.bars()
        bars, large = Bars(c, d, np.full(self.COUNT, 12.0)), Bars(3 * c, 3 * d, np.full(self.COUNT, 36.0))
        near, far = bar_to_convex(a, b, 9.0, bars), bar_to_convex(3 * a, 3 * b, 27.0, large)
        np.testing.assert_allclose(far.gap, 3 * near.gap, atol=1e-5)

    def test_either_may_be_first(self):
        a, b, c, d = self.bars()
        one, two = bar_to_bar(a, b, 9.0, c, d, 14.0), bar_to_bar(c, d, 14.0, a, b, 9.0)
        np.testing.assert_allclose(two.gap, one.gap, atol=1e-10)
        np.testing.assert_allclose(two.mine, one.other, atol=1e-6)

    def test_in_the_mirror(self):
        a, b, c, d = self.bars()
        one = bar_to_bar(a, b, 9.0, c, d, 14.0)
        two = bar_to_bar(a * FLIP, b * FLIP, 9.0, c * FLIP, d * FLIP, 14.0)
        np.testing.assert_array_equal(two.gap, one.gap)
        np.testing.assert_array_equal(two.mine, one.mine * FLIP)
