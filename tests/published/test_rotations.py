"""Rotations of many poses at once against a general-purpose library's (SciPy), and to the last bit among themselves."""

import numpy as np
from django.test import SimpleTestCase
from scipy.linalg import expm
from scipy.spatial.transform import Rotation

from nodulant.base.arrays import cross, dot
from nodulant.linkage.rotation import angles, exponential, rotated, rotation_vector, screw

RNG = np.random.default_rng(20261126)
VECTORS = RNG.normal(size=(200, 3))
POINTS = RNG.normal(size=(200, 3)) * 300.0
VECTORS *= RNG.uniform(0.0, 3.1, (200, 1)) / np.linalg.norm(VECTORS, axis=1, keepdims=True)


class AgainstSciPy(SimpleTestCase):
    def test_the_exponential_of_a_vector(self):
        np.testing.assert_allclose(exponential(VECTORS), Rotation.from_rotvec(VECTORS).as_matrix(), atol=1e-14)

    def test_the_vector_of_a_rotation(self):
        matrices = Rotation.from_rotvec(VECTORS).as_matrix()
        np.testing.assert_allclose(rotation_vector(matrices), VECTORS, atol=1e-8)

    def test_the_three_angles_of_a_pose(self):
        """Psi about z, then phi about x, then theta about y, each in the axes already turned (intrinsic ZXY)."""
        given = RNG.uniform(-1.2, 1.2, (100, 3))
        psi, phi, theta = angles(Rotation.from_euler("ZXY", given).as_matrix())
        np.testing.assert_allclose(np.stack([psi, phi, theta], axis=1), given, atol=1e-12)

    def test_points_carried_along(self):
        turn = Rotation.from_rotvec(VECTORS)
        points = RNG.normal(size=(7, 3)) * 300.0
        theirs = np.stack([turn.apply(p) for p in points], axis=1)
        np.testing.assert_allclose(rotated(turn.as_matrix(), points), theirs, atol=1e-10)

    def test_points_of_each_poses_own(self):
        turn = Rotation.from_rotvec(VECTORS)
        points = RNG.normal(size=(len(VECTORS), 4, 3)) * 300.0
        theirs = np.stack([turn.apply(points[:, k]) for k in range(4)], axis=1)
        np.testing.assert_allclose(rotated(turn.as_matrix(), points), theirs, atol=1e-10)

    def test_turning_twice(self):
        one, two = VECTORS[:100], VECTORS[100:]
        theirs = (Rotation.from_rotvec(one) * Rotation.from_rotvec(two)).as_matrix()
        np.testing.assert_allclose(exponential(one) @ exponential(two), theirs, atol=1e-14)


class Screws(SimpleTestCase):
    """A rigid motion is the exponential of its 4 x 4 twist; SciPy's own works by Pade approximants."""

    def test_as_the_exponential_of_the_twist(self):
        speeds = RNG.normal(size=VECTORS.shape) * 400.0
        shift, turn = screw(speeds, VECTORS)
        for v, omega, own, turned in zip(speeds, VECTORS, shift, turn, strict=True):
            whole = np.zeros((4, 4))
            x, y, z = omega
            whole[:3] = [[0.0, -z, y, v[0]], [z, 0.0, -x, v[1]], [-y, x, 0.0, v[2]]]
            theirs = expm(whole)
            np.testing.assert_allclose(turned, theirs[:3, :3], atol=1e-13)
            np.testing.assert_allclose(own, theirs[:3, 3], atol=1e-10)

    def test_about_an_axis_that_stands_still(self):
        """A body turned about a pin keeps the pin: its origin goes round it on a circle."""
        pin, axis, angle = np.array([300.0, 0.0, 40.0]), np.array([0.0, 0.0, 1.0]), np.radians(90.0)
        omega = (axis * angle)[None]
        shift, turn = screw(np.cross(omega, -pin), omega)
        np.testing.assert_allclose(shift[0] + turn[0] @ pin, pin, atol=1e-12)
        np.testing.assert_allclose(shift[0], [300.0, -300.0, 0.0], atol=1e-12)

    def test_the_smallest_keep_every_digit(self):
        """V + w x v / 2 + w x (w x v) / 6, the rest below round-off."""
        v = np.array([[120.0, -70.0, 15.0]])
        for size in (0.0, 1e-300, 1e-13, 1e-9, 1e-6, 1e-4):
            with self.subTest(size):
                omega = np.array([[0.6, -0.64, 0.48]]) * size
                once = np.cross(omega, v)
                told = v + once / 2 + np.cross(omega, once) / 6
                np.testing.assert_allclose(screw(v, omega)[0], told, rtol=0.0, atol=max(140.0 * size**3, 6e-14))


class Small(SimpleTestCase):
    def test_nothing_turns_by_nothing(self):
        self.assertTrue((exponential(np.zeros((3, 3))) == np.eye(3)).all())

    def test_the_smallest_turns_keep_every_digit(self):
        """1 - cos a loses all digits below 1e-8; half angles do not: R - I - K is K K / 2 to first order."""
        for size in (1e-3, 1e-6, 1e-9, 1e-13, 1e-300):
            with self.subTest(size):
                omega = np.array([[0.6, -0.8, 0.0]]) * size
                k = np.array([[0.0, 0.0, -0.8], [0.0, 0.0, -0.6], [0.8, 0.6, 0.0]]) * size
                first = exponential(omega)[0] - np.eye(3)
                np.testing.assert_allclose(first, k + k @ k / 2, atol=max(size**3, 2e-16))

    def test_half_a_turn(self):
        for axis in np.eye(3):
            turn = exponential(np.pi * axis[None])[0]
            np.testing.assert_allclose(turn, 2 * np.outer(axis, axis) - np.eye(3), atol=1e-15)

    def test_they_stay_rotations(self):
        turn = exponential(VECTORS * 10.0)
        np.testing.assert_allclose(turn @ turn.transpose(0, 2, 1), np.tile(np.eye(3), (len(turn), 1, 1)), atol=1e-13)
        np.testing.assert_allclose(np.linalg.det(turn), 1.0, atol=1e-13)


class SizeOfTheBatch(SimpleTestCase):
    """A pose's bits do not depend on how many others are worked out with it: drags and whole looks then agree."""

    def test_no_bit_changes(self):
        points = RNG.normal(size=(5, 3))
        whole, turn = exponential(VECTORS), exponential(VECTORS[::-1].copy())
        both, carried, gone = whole @ turn, rotated(whole, points), screw(POINTS, VECTORS)[0]
        for count in (1, 2, 3, 17):
            for start in range(0, len(VECTORS) - count, 13):
                rows = slice(start, start + count)
                self.assertTrue((exponential(VECTORS[rows]) == whole[rows]).all())
                self.assertTrue((screw(POINTS[rows], VECTORS[rows])[0] == gone[rows]).all())
                self.assertTrue((whole[rows] @ turn[rows] == both[rows]).all())
                self.assertTrue((rotated(whole[rows], points) == carried[rows]).all())


class Products(SimpleTestCase):
    def test_cross_and_dot_as_numpy_has_them(self):
        for a, b in (((40, 3), (40, 3)), ((3,), (40, 3)), ((5, 1, 3), (1, 6, 3)), ((3,), (3,))):
            with self.subTest(f"{a} {b}"):
                one, two = RNG.normal(size=a), RNG.normal(size=b)
                np.testing.assert_allclose(cross(one, two), np.cross(one, two), atol=1e-15)
                np.testing.assert_allclose(dot(one, two), (one * two).sum(axis=-1), atol=1e-15)
