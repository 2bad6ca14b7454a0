"""An axle on links of measured lengths against a general solver (scipy.optimize.root on the link equations alone)."""

import math

import numpy as np
from django.test import SimpleTestCase
from scipy.optimize import root
from scipy.spatial.transform import Rotation

from nodulant.asbuilt.axle import beam_as_built, joints_of
from nodulant.evaluate.suspensions.travel import suspension_studies
from tests import fixtures as f


class AgainstAGeneralSolver(SimpleTestCase):
    def test_twenty_axles_with_every_joint_and_length_off(self):
        s = next(s for s in suspension_studies(f.demo("step")) if s.suspension.axle == "rear")
        layout, setting = s.suspension.layout, s.setting
        joints, hub = joints_of(layout, setting), np.array(setting.hub)
        rods = layout.mechanism(setting.hub).rods
        rng = np.random.default_rng(8)
        for _ in range(20):
            rows = {
                (j.key, j.side, way): float(rng.uniform(-6, 6))
                for j in joints
                for way in ("along", "up", "across", "length", "axle-along", "axle-up")
            }
            ends, lengths = [], []
            for j in joints:
                along, up, out, longer = (rows[j.key, j.side, w] for w in ("along", "up", "across", "length"))
                sign = -1.0 if j.at[1] < 0 else 1.0
                ends.append(np.array(j.at) + np.array((along, sign * out, up)))
                lengths.append(math.dist(rods[j.rod].a.point, rods[j.rod].b.point) + longer)
            feet = [(rows[j.key, j.side, "axle-along"], 0.0, rows[j.key, j.side, "axle-up"]) for j in joints]
            axle = np.array([rods[j.rod].a.point for j in joints]) + np.array(feet) - hub

            def off(v, axle=axle, ends=ends, lengths=lengths):
                turn = Rotation.from_rotvec(v[3:]).as_matrix()
                at = hub + v[:3] + axle @ turn.T
                links = [np.linalg.norm(a - e) - n for a, e, n in zip(at, ends, lengths, strict=True)]
                return [*links, v[2], 1000 * (turn @ [0.0, 1.0, 0.0])[2]]  # middle and both ends keep their height

            other = root(off, np.zeros(6), tol=1e-13)
            turn = Rotation.from_rotvec(other.x[3:]).as_matrix()
            mine = beam_as_built(layout, setting, rows)
            self.assertAlmostEqual(mine.rear_mm, other.x[0], places=6)
            self.assertAlmostEqual(mine.right_mm, other.x[1], places=6)
            self.assertAlmostEqual(mine.thrust_deg, math.degrees(math.atan2(turn[0, 1], turn[1, 1])), places=7)
            self.assertAlmostEqual(mine.pinion_deg, math.degrees(math.atan2(-turn[2, 0], turn[2, 2])), places=7)
