"""Drop stack, the axle's path, the notch it asks for, and clearance against brute force."""

import math
from itertools import pairwise

import numpy as np
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from nodulant.base.errors import InputError
from nodulant.clearance.tube_to_rail import Underneath, travel_until, tube_to_rail
from nodulant.evaluate import evaluate
from nodulant.frame.ops.notches.notch_shape import ArcShape
from nodulant.targets.axle_path import tube_path
from nodulant.targets.drop import ArcPath, DropEntry, StraightPath, Targets, add_up
from nodulant.targets.mechanisms import MECHANISMS
from nodulant.targets.notch_needed import notch_needed
from tests import fixtures as f

QUICK = settings(deadline=None, derandomize=True, max_examples=60)


def entry(id_, mechanism, amount, costs=False):
    return DropEntry(id=id_, name=id_, mechanism=mechanism, amount_mm=amount, costs_travel=costs)


class DropStack(SimpleTestCase):
    """Dropping the height 'on paper' is a stack, and two of its entries are often one movement."""

    def test_the_empty_amount_is_solved(self):
        targets = Targets(drop_mm=100, entries=(entry("a", "tyre", 12.0), entry("b", "springs", None, True)))
        drop = add_up(targets)
        self.assertEqual([(e.amount_mm, e.solved) for e in drop.entries], [(12.0, False), (88.0, True)])
        self.assertEqual((drop.total_mm, drop.towards_rail_mm), (100.0, 88.0))

    def test_two_unknowns_cannot_be_solved(self):
        targets = Targets(drop_mm=50, entries=(entry("a", "tyre", None), entry("b", "springs", None)))
        with self.assertRaises(InputError) as caught:
            add_up(targets)
        self.assertEqual(caught.exception.field, "/design/targets/entries/1/amount_mm")

    def test_a_notch_is_never_the_unknown(self):
        drop = add_up(Targets(drop_mm=50, entries=(entry("a", "notch", None), entry("b", "springs", None))))
        self.assertEqual([e.amount_mm for e in drop.entries], [0.0, 50.0])

    def test_a_raised_crossmember_and_its_raised_pivots_count_twice(self):
        drop = add_up(Targets(drop_mm=90, entries=(entry("a", "raise", 60.0), entry("b", "pivots-raised", 30.0))))
        self.assertEqual([(o.one, o.two) for o in drop.overlapping], [("a", "b")])

    def test_a_stack_that_does_not_add_up_fails(self):
        result = evaluate(f.with_targets(f.demo(), entries=(entry("a", "tyre", 10.0),)))
        self.assertEqual(f.check_of(result, "drop-sum:rear:both").verdict, "fails")

    def test_every_mechanism_has_a_default_and_the_notch_costs_nothing(self):
        self.assertEqual(len({m.mechanism for m in MECHANISMS}), len(MECHANISMS))
        step = next(m for m in MECHANISMS if m.mechanism == "z-step")
        self.assertTrue(step.keeps.camber and step.keeps.toe and step.keeps.anti_dive and not step.costs_travel)

    def test_what_moves_the_wheel_along_its_curves_keeps_nothing_and_costs_travel(self):
        """Arms stand at another angle after keys, springs or lowered seats (common practice); of something else nobody knows."""
        by = {m.mechanism: m for m in MECHANISMS}
        for name in ("springs", "torsion-keys", "drop-arms", "air", "other"):
            with self.subTest(name):
                keeps = by[name].keeps
                self.assertFalse(keeps.camber or keeps.toe or keeps.anti_dive)
                self.assertTrue(by[name].costs_travel)

    def test_keys_beside_shorter_springs_are_asked_about(self):
        targets = Targets(
            drop_mm=60, entries=(entry("a", "springs", 30.0, True), entry("b", "torsion-keys", 30.0, True))
        )
        self.assertEqual(len(add_up(targets).overlapping), 1)


class AxlePath(SimpleTestCase):
    def test_straight_goes_straight(self):
        path = tube_path(StraightPath(), 2500, 100, 80, np.array([-50.0, 0, 50]))
        np.testing.assert_allclose(path.x, 2500)
        np.testing.assert_allclose(path.z, [-190, -140, -90])

    def test_arc_keeps_its_radius_about_the_pivot(self):
        travel = np.linspace(-80, 120, 41)
        for pivot, sign in (("ahead", -1), ("behind", 1)):
            path = tube_path(ArcPath(radius_mm=600, pivot=pivot, pivot_above_mm=40), 2500, 100, 80, travel)
            reach = math.sqrt(600**2 - 40**2)
            distance = np.hypot(path.x - (2500 + sign * reach), path.z - (-140 + 40))
            np.testing.assert_allclose(distance, 600, atol=1e-9)

    def test_a_pivot_out_of_reach_is_refused(self):
        with self.assertRaisesRegex(ValueError, "too far above or below"):
            ArcPath(radius_mm=300, pivot_above_mm=290)


class NotchNeeded(SimpleTestCase):
    """Cut once for looks, cut again because it hits."""

    def needed(self, travel, gap=100.0, tube=80.0, path=None, liner=6.0, weld=2.0, share=1.0):
        poses = tube_path(path or StraightPath(), 2500, gap, tube, np.linspace(-80, travel, 81))
        return notch_needed("left", poses, 12.7, liner, weld, share)

    def test_depth_is_tube_top_plus_clearance_plus_liner_and_weld(self):
        n = self.needed(130)
        self.assertAlmostEqual(n.clear_depth_mm, 30 + 12.7)
        self.assertAlmostEqual(n.depth_mm, 30 + 12.7 + 8)

    def test_width_of_a_tube_half_way_in(self):
        """Centre above the underside: the mouth must take the whole tube and its clearance."""
        n = self.needed(150)
        self.assertAlmostEqual(n.width_mm, 2 * (40 + 12.7 + 8))
        self.assertAlmostEqual(n.radius_mm, 40 + 12.7 + 8)

    def test_none_needed_where_the_tube_stays_clear(self):
        self.assertEqual(self.needed(80).depth_mm, 0)

    def test_an_arc_needs_more_width_and_another_centre(self):
        straight, arc = self.needed(150), self.needed(150, path=ArcPath(radius_mm=300))
        self.assertGreater(arc.width_mm, straight.width_mm)
        self.assertNotAlmostEqual(arc.centre_x_mm, 2500, delta=1)

    def test_one_wheel_in_bump_rises_less_at_the_rail(self):
        n = self.needed(130, share=0.75)
        self.assertAlmostEqual(n.tube_top_mm - n.one_wheel_top_mm, 130 * 0.25)

    @QUICK
    @given(st.floats(85, 180), st.floats(200, 2000), st.sampled_from(["ahead", "behind"]))
    def test_the_needed_arc_clears_the_path(self, travel, radius, pivot):
        """The notch that is asked for leaves its clearance everywhere: checked by the clearance sweep."""
        path = ArcPath(radius_mm=radius, pivot=pivot)
        n = self.needed(travel, path=path)
        if n.depth_mm < 5:
            return
        notch = f.arc_notch(depth=n.arc_depth_mm, radius=n.radius_mm, liner=f.liner(6.0))
        poses = tube_path(path, 2500, 100, 80, np.linspace(-80, travel, 161))
        sweep = tube_to_rail(poses, [(notch, n.centre_x_mm)], 2500)
        self.assertGreaterEqual(sweep.clearance.min(), 12.7 - 0.2)


class Clearance(SimpleTestCase):
    """What touches what, in bump."""

    def brute(self, notch, centre, poses, liner):
        """Distance from each tube to a fine cloud of points on the metal's edge."""
        edge = np.array([(centre + x, z) for x, z in notch.shape.path(notch.depth_mm).points(0.001)])
        dense = []
        for a, b in pairwise(edge):
            dense.append(a + (b - a) * np.linspace(0, 1, 60)[:, None])
        cut = np.concatenate(dense)
        under = np.concatenate([np.linspace(2000, edge[0][0], 4000), np.linspace(edge[-1][0], 3000, 4000)])
        out = []
        for x, z in zip(poses.x, poses.z, strict=True):
            to_cut = np.hypot(*(cut - (x, z)).T).min() - liner
            to_under = np.hypot(under - x, z).min()
            out.append(min(to_cut, to_under) - poses.radius)
        return np.array(out)

    def test_against_brute_force_while_free(self):
        for notch in (
            f.arc_notch(58, 60, liner=f.liner(6)),
            f.straight_notch(58, liner=f.liner(6)),
            f.arc_notch(80, 60),
        ):
            poses = tube_path(ArcPath(radius_mm=500), 2500, 100, 76, np.linspace(-60, 105, 34))
            mine = tube_to_rail(poses, [(notch, 2500.0)], 2500).clearance
            other = self.brute(notch, 2500.0, poses, notch.liner.thickness_mm if notch.liner else 0.0)
            free = other > 0
            np.testing.assert_allclose(mine[free], other[free], atol=0.1)

    def test_in_metal_is_negative(self):
        poses = tube_path(StraightPath(), 2500, 100, 80, np.array([180.0, 240.0]))
        sweep = tube_to_rail(poses, [(f.arc_notch(40, 60), 2500.0)], 2500)
        self.assertTrue((sweep.clearance < 0).all())

    def test_first_touch_between_poses(self):
        poses = tube_path(StraightPath(), 2500, 100, 80, np.arange(-80.0, 140, 2))
        sweep = tube_to_rail(poses, [], 2500)
        self.assertAlmostEqual(travel_until(sweep, 0.0), 100.0, places=6)
        self.assertAlmostEqual(travel_until(sweep, 12.7), 87.3, places=6)
        self.assertIsNone(travel_until(sweep, -1000))

    def test_a_liner_takes_its_thickness(self):
        poses = tube_path(StraightPath(), 2500, 100, 76, np.array([100.0]))
        bare, lined = (
            tube_to_rail(poses, [(n, 2500.0)], 2500)
            for n in (f.arc_notch(58, 60), f.arc_notch(58, 60, liner=f.liner(6)))
        )
        self.assertAlmostEqual(bare.clearance[0] - lined.clearance[0], 6.0, places=6)

    def test_a_plate_across_the_mouth_is_met_first(self):
        """Against points all over the plate's rectangle, ahead of it, under it and in it."""
        notch = f.arc_notch(58, 60)
        poses = tube_path(ArcPath(radius_mm=500), 2500, 100, 76, np.linspace(-60, 150, 43))
        plate = Underneath(2400.0, 2700.0, 6.0)
        mine = tube_to_rail(poses, [(notch, 2500.0)], 2500, [plate]).clearance
        grid = np.stack(np.meshgrid(np.linspace(2400, 2700, 3001), np.linspace(-6, 0, 61)), axis=-1).reshape(-1, 2)
        other = [np.hypot(*(grid - (x, z)).T).min() - poses.radius for x, z in zip(poses.x, poses.z, strict=True)]
        free = np.array(other) > 0
        self.assertGreater(free.sum(), 10)
        np.testing.assert_allclose(mine[free], np.array(other)[free], atol=0.06)
        self.assertLess(mine[-1], -poses.radius, "the tube's centre is in the plate or past it: deeper than its radius")

    def test_a_wider_arc_is_no_notch_of_the_wrong_shape(self):
        self.assertEqual(ArcShape(radius_mm=70).half_mouth_mm(90), 70)
