"""Linkages nobody drew: rods keep their lengths in every pose, velocities are the slopes of the places.

Lengths are measured anew from the points, slopes by central differences of places that were solved
apart from the velocities: none of it uses what it checks.
"""

from unittest import TestCase

import numpy as np
from hypothesis import HealthCheck, assume, given, settings
from hypothesis import strategies as st

from nodulant.axles.layouts.independent import DoubleWishbone, Strut
from nodulant.axles.points import HardPoint, Link, on_axle
from nodulant.base.errors import NodulantError
from nodulant.linkage.branch import on_one_branch
from nodulant.linkage.compiled import places
from nodulant.linkage.grid import steer_grid
from nodulant.linkage.rates import twist
from nodulant.linkage.rotation import rotated
from nodulant.linkage.solve import part, solve
from nodulant.linkage.sweep import sweep
from nodulant.suspension.motion import Setting, compiled

ANY = settings(deadline=None, derandomize=True, max_examples=30, suppress_health_check=list(HealthCheck))
SETTING = Setting((0.0, 0.0, -40.0), 780.0, 330.0)
TRAVEL = np.linspace(-60.0, 60.0, 25)
STEP_MM = 0.01


def near(x, y, z, spread=45.0):
    """A hard point about a place."""
    off = st.floats(-spread, spread)
    return st.builds(
        lambda a, b, c: HardPoint(x_mm=x + a, y_mm=y + b, z_mm=z + c),
        off,
        off,
        st.floats(-spread / 2, spread / 2),
    )


wishbones = st.builds(
    DoubleWishbone,
    upper_front=near(-130, 430, 180),
    upper_rear=near(130, 430, 185),
    upper_ball=near(12, 690, 225),
    lower_front=near(-160, 380, -110),
    lower_rear=near(170, 380, -105),
    lower_ball=near(-6, 720, -85),
    toe=st.builds(lambda a, b: Link(frame=a, axle=b), near(150, 400, 20), near(145, 690, 60)),
)
struts = st.builds(
    Strut,
    top=near(20, 560, 520),
    foot=near(5, 640, 90),
    lower_front=near(-160, 380, -110),
    lower_rear=near(170, 380, -105),
    lower_ball=near(-6, 720, -85),
    toe=st.builds(lambda a, b: Link(frame=a, axle=b), near(150, 400, -30), near(145, 690, -10)),
)


def toe_of(c):
    """Number of the rod that steers."""
    return next(i for i, r in enumerate(c.mechanism.rods) if r.name == "toe link")


def sideways(start, end, count):
    """Shifts of a rod's frame end across the vehicle, (count, 3)."""
    return np.stack([np.zeros(count), np.linspace(start, end, count), np.zeros(count)], axis=1)


def moved(layout):
    """The layout through travel, where it is one that moves."""
    try:
        found = sweep(compiled(layout, SETTING), TRAVEL)
    except NodulantError:
        assume(False)
    assume(found.there.all())
    return found


def rod_lengths(c, pose):
    """Lengths of all rods in every pose, from where their ends stand."""
    return np.linalg.norm(places(c, pose, c.a) - places(c, pose, c.b), axis=-1)


class Rods(TestCase):
    @ANY
    @given(wishbones | struts)
    def test_no_rod_gives_way(self, layout):
        found = moved(layout)
        long = rod_lengths(found.compiled, found.solved.pose)
        middle = int(np.argmin(np.abs(TRAVEL)))
        np.testing.assert_allclose(long, np.broadcast_to(long[middle], long.shape), atol=1e-7)

    @ANY
    @given(wishbones | struts)
    def test_the_wheel_is_where_its_travel_says(self, layout):
        found = moved(layout)
        pose, hub = found.solved.pose, np.array(SETTING.hub)
        centre = hub + np.array([0.0, SETTING.half_track_mm, 0.0])
        at = pose.origin + rotated(pose.rotation, (centre - hub)[None])[:, 0]
        np.testing.assert_allclose(at[:, 2] - centre[2], TRAVEL, atol=1e-7)

    @ANY
    @given(struts)
    def test_a_strut_stays_on_its_top_mount(self, layout):
        """The line from the foot along the strut passes the mount in every pose."""
        found = moved(layout)
        pose, hub = found.solved.pose, np.array(SETTING.hub)
        foot, top = np.array(on_axle(layout.foot, SETTING.hub)), np.array(layout.top.xyz())
        here, along = (
            pose.origin + rotated(pose.rotation, (foot - hub)[None])[:, 0],
            rotated(pose.rotation, (top - foot)[None])[:, 0],
        )
        off = np.cross(top - here, along / np.linalg.norm(along, axis=1, keepdims=True))
        np.testing.assert_allclose(off, 0.0, atol=1e-6)


class Velocities(TestCase):
    @ANY
    @given(wishbones | struts)
    def test_the_twist_is_the_slope_of_the_places(self, layout):
        """Any point of the upright: v + w x r per mm of travel against places a hundredth of a millimetre apart."""
        found = moved(layout)
        c = found.compiled
        rate = twist(c, found.solved, 0)
        fine = np.sort(np.concatenate([[0.0], TRAVEL - STEP_MM, TRAVEL + STEP_MM]))
        close = sweep(c, fine)
        assume(close.there.all())
        hub = np.array(SETTING.hub)
        for point in ((120.0, 640.0, 60.0), (-40.0, 780.0, -370.0)):
            arm = (np.array(point) - hub)[None]
            at = close.solved.pose.origin + rotated(close.solved.pose.rotation, arm)[:, 0]
            rows = [np.searchsorted(fine, TRAVEL + side) for side in (-STEP_MM, STEP_MM)]
            slope = (at[rows[1]] - at[rows[0]]) / (fine[rows[1]] - fine[rows[0]])[:, None]
            here = rotated(found.solved.pose.rotation, arm)[:, 0]
            velocity = rate[:, :3] + np.cross(rate[:, 3:6], here)
            np.testing.assert_allclose(velocity, slope, atol=2e-6)


class Grids(TestCase):
    @ANY
    @given(wishbones, st.floats(10.0, 45.0))
    def test_every_pose_of_a_steer_grid_keeps_its_rods(self, layout, stroke):
        found = moved(layout)
        c = found.compiled
        rod = toe_of(c)
        shifts = sideways(-stroke, stroke, 9)
        grid = steer_grid(found, rod, shifts)
        there = grid.there.reshape(-1)
        own = np.zeros((len(there), len(c.mechanism.rods), 3))
        own[:, rod] = np.tile(shifts, (len(TRAVEL), 1))
        ends = places(c, grid.solved.pose, c.a) - places(c, grid.solved.pose, c.b, own)
        long = np.linalg.norm(ends, axis=-1)[there]
        np.testing.assert_allclose(long, np.broadcast_to(c.length, long.shape), atol=1e-7)
        # straight ahead it is the travel's own motion, to the last digits
        ahead = grid.solved.pose.origin.reshape(len(TRAVEL), 9, 3)[:, 4]
        kept = grid.there[:, 4]
        np.testing.assert_allclose(ahead[kept], found.solved.pose.origin[kept], atol=1e-7)

    @ANY
    @given(wishbones)
    def test_a_stroke_out_of_reach_ends_with_the_rods_name(self, layout):
        """Twice the rod's own length is never reached: the grid ends, says so, and holds no numbers past it."""
        found = moved(layout)
        c = found.compiled
        rod = toe_of(c)
        shifts = sideways(-1.0, 1.0, 15) * 2.2 * c.length[rod]
        grid = steer_grid(found, rod, shifts)
        self.assertFalse(grid.there[:, [0, -1]].any())
        self.assertTrue(grid.there[np.argmin(np.abs(TRAVEL)), 7])
        self.assertTrue(all(words for words in grid.ends))
        # what is reached hangs together with straight ahead
        for row in grid.there:
            self.assertLessEqual(int(np.abs(np.diff(row.astype(int))).sum()), 2)

    @ANY
    @given(wishbones, st.floats(20.0, 110.0))
    def test_straight_to_the_lock_ends_where_a_march_does(self, layout, stroke):
        """With few columns every pose is solved from straight ahead: no pose lands on another branch than by small steps."""
        found = moved(layout)
        c = found.compiled
        rod = toe_of(c)
        own = {}
        for steers in (7, 61):
            shifts = sideways(-stroke, stroke, steers)
            grid = steer_grid(found, rod, shifts)
            own[steers] = (
                grid.there[:, :: (steers - 1) // 6],
                grid.solved.pose.origin.reshape(len(TRAVEL), steers, 3)[:, :: (steers - 1) // 6],
            )
        both = own[7][0] & own[61][0]
        self.assertGreater(both.sum(), len(TRAVEL))
        np.testing.assert_allclose(own[7][1][both], own[61][1][both], atol=1e-6)


class Batches(TestCase):
    @ANY
    @given(wishbones, st.integers(0, 1000))
    def test_each_pose_comes_out_as_it_does_alone(self, layout, seed):
        """Also beside poses that are out of reach, and those that are there from the start: not a bit changes."""
        found = moved(layout)
        c, rng = found.compiled, np.random.default_rng(seed)
        targets = np.concatenate([rng.uniform(-70.0, 70.0, (9, 1)), [[0.0], [4000.0], [-900.0]]])
        rng.shuffle(targets)
        start = found.solved.pose.rows(np.full(len(targets), int(np.argmin(np.abs(TRAVEL)))))
        whole = solve(c, targets, start)
        self.assertFalse(whole.found[np.abs(targets[:, 0]) > 800.0].any())
        self.assertTrue(whole.found[targets[:, 0] == 0.0].all())
        for k in range(len(targets)):
            row = np.array([k])
            alone = solve(c, targets[row], start.rows(row))
            self.assertEqual(bool(alone.found[0]), bool(whole.found[k]))
            np.testing.assert_array_equal(alone.pose.origin[0], whole.pose.origin[k])
            np.testing.assert_array_equal(alone.pose.rotation[0], whole.pose.rotation[k])
            np.testing.assert_array_equal(alone.error[0], whole.error[k])
            np.testing.assert_array_equal(alone.jacobian[0], whole.jacobian[k])


class Branches(TestCase):
    """A pose counts only where a motion leads to it: against a march in steps of 0.6 mm."""

    TRAVEL = np.linspace(-150.0, 150.0, 21)

    def setUp(self):
        rng = np.random.default_rng(4)
        self.near = lambda *at: HardPoint(
            **dict(zip(("x_mm", "y_mm", "z_mm"), np.array(at) + rng.uniform(-1, 1, 3) * (110, 110, 55), strict=True))
        )

    def layout(self, k):
        """Hard points far from where anyone would put them, so that many lock."""
        near = self.near
        lower = {
            "lower_front": near(-160, 380, -110),
            "lower_rear": near(170, 380, -105),
            "lower_ball": near(-6, 720, -85),
        }
        if k % 2:
            return Strut(
                top=near(20, 560, 520),
                foot=near(5, 640, 90),
                toe=Link(frame=near(150, 400, -30), axle=near(145, 690, -10)),
                **lower,
            )
        upper = {
            "upper_front": near(-130, 430, 180),
            "upper_rear": near(130, 430, 185),
            "upper_ball": near(12, 690, 225),
        }
        return DoubleWishbone(toe=Link(frame=near(150, 400, 20), axle=near(145, 690, 60)), **upper, **lower)

    def marched(self, c, found, way):
        """Origins by row, as far as small steps lead; one much longer than the one before has leapt."""
        ride = int(np.argmin(np.abs(self.TRAVEL)))
        pose, turn, at, out = found.solved.pose.rows(np.array([ride])), found.solved.turn[ride], 0.0, {}
        most = np.inf
        for k in range(ride + way, len(self.TRAVEL) if way > 0 else -1, way):
            for z in np.linspace(at, self.TRAVEL[k], 26)[1:]:
                here = solve(c, np.array([[z]]), pose)
                far = np.abs(places(c, here.pose, c.a) - places(c, pose, c.a)).max()
                if not here.found[0] or here.turn[0] != turn or far > most:
                    return out
                pose, most = here.pose, 3.0 * far + 0.5
            at = self.TRAVEL[k]
            out[k] = pose.origin[0]
        return out

    def test_what_counts_is_what_small_steps_reach(self):
        same = other = locks = 0
        for k in range(40):
            try:
                c = compiled(self.layout(k), SETTING)
                found = sweep(c, self.TRAVEL)
            except NodulantError:
                continue
            true = {**self.marched(c, found, 1), **self.marched(c, found, -1)}
            locks += not found.there.all()
            for row in np.flatnonzero(self.TRAVEL != 0.0):
                if found.there[row, 0] and row in true:
                    # never on another branch
                    np.testing.assert_allclose(found.solved.pose.origin[row], true[row], atol=1e-5)
                    same += 1
                other += bool(found.there[row, 0]) != (row in true)
        self.assertGreater(locks, 12)
        self.assertGreater(same, 500)
        # at the very edge of a dead point small steps and large ones may part
        self.assertLessEqual(other, 2)

    def test_a_wheel_is_told_to_turn_no_further_than_small_steps_turn_it(self):
        """At ride height, the rod's frame end moved 85 mm either way: many flip over before."""
        same = missing = short = 0
        shifts = sideways(-85.0, 85.0, 21)
        for k in range(40):
            try:
                c = compiled(self.layout(k), SETTING)
                level = sweep(c, np.linspace(-20.0, 20.0, 5))
            except NodulantError:
                continue
            rod = toe_of(c)
            grid = steer_grid(level, rod, shifts)
            at = grid.solved.pose.origin.reshape(5, 21, 3)[2]
            true = {**self.turned(c, level, rod, shifts, 1), **self.turned(c, level, rod, shifts, -1)}
            there = set(np.flatnonzero(grid.there[2]).tolist()) - {10}
            self.assertLessEqual(there, set(true))
            for column in there:
                np.testing.assert_allclose(at[column], true[column], atol=1e-5)
            same, missing, short = same + len(there), missing + len(set(true) - there), short + (len(there) < 20)
        self.assertGreater(short, 8)
        self.assertGreater(same, 350)
        # from far out a pose may not be found that small steps lead to: it is told to end too early
        self.assertLess(missing, same / 50)

    def turned(self, c, level, rod, shifts, way):
        """Origins by column, as far as small steps turn the wheel."""
        row, moved = np.array([2]), np.zeros((1, len(c.mechanism.rods), 3))
        pose, turn, at, out, most = level.solved.pose.rows(row), level.solved.turn[2], 0.0, {}, np.inf
        for k in range(10 + way, 21 if way > 0 else -1, way):
            for y in np.linspace(at, shifts[k, 1], 18)[1:]:
                moved[0, rod, 1] = y
                here = solve(c, np.zeros((1, len(c.drives))), pose, moved)
                far = np.abs(places(c, here.pose, c.a) - places(c, pose, c.a)).max()
                if not here.found[0] or here.turn[0] != turn or far > most:
                    return out
                pose, most = here.pose, 3.0 * far + 0.5
            at = shifts[k, 1]
            out[k] = pose.origin[0]
        return out

    def test_poses_of_elsewhere_are_followed_again(self):
        """A column with poses of other places put in comes out as it was."""
        layout = self.layout(0)
        c = compiled(layout, SETTING)
        found = sweep(c, TRAVEL)
        assert found.there.all()
        for swapped in ((20, 3), (1, 20), (13, 24)):
            order = np.arange(len(TRAVEL))
            order[swapped[0]] = swapped[1]
            mended = on_one_branch(c, part(found.solved, order), TRAVEL)
            with self.subTest(swapped):
                np.testing.assert_allclose(mended.pose.origin, found.solved.pose.origin, atol=1e-8)
                self.assertTrue(mended.found.all())

    def test_a_column_of_one_motion_is_left_as_it_is(self):
        c = compiled(self.layout(0), SETTING)
        found = sweep(c, TRAVEL)
        self.assertIs(on_one_branch(c, found.solved, TRAVEL), found.solved)
