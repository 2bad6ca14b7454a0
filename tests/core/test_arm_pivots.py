"""What arms put on the frame balances what the tyre puts on the wheel, force and moment, in every case."""

import numpy as np
from django.test import SimpleTestCase

from nodulant.evaluate import evaluate
from nodulant.evaluate.suspensions.travel import suspension_studies
from nodulant.frame.ops.subframes.subframe import Subframe
from nodulant.frame.place import Place
from nodulant.job.fresh.suspension import fresh_suspension, fresh_suspension_part
from nodulant.job.riding import in_place
from nodulant.suspension.feet import stands_in
from nodulant.suspension.forces import tyre_forces
from nodulant.suspension.pivots import forces_on_frame, pivot_forces
from nodulant.suspension.spring_motion import strung
from tests import fixtures as f
from tests.core.test_fresh_suspension import hung, job


def front(kind="double-wishbone", **more):
    """A fresh front suspension on coilovers, with the van's masses and seats, so that there are forces."""
    inputs = job()
    van = f.job().inputs("step")
    inputs = inputs.model_copy(
        update={"survey": inputs.survey.model_copy(update={"seats": van.survey.seats, "masses": van.survey.masses})}
    )
    own = fresh_suspension(inputs, "front", kind, before=False)
    spring = fresh_suspension_part(hung(inputs, own), 0, "springs", "coilover", before=False)
    return hung(inputs, own.model_copy(update={"springs": spring, **more}))


def studied(inputs):
    return suspension_studies(in_place(inputs))[0]


class Balance(SimpleTestCase):
    def test_pivots_spring_and_toe_link_carry_the_wheel(self):
        """Newton: what four pivots, the spring's top and the toe link put on the frame is the tyre's force and moment."""
        s = studied(front())
        self.assertGreaterEqual(len(s.forces), 3)
        m = s.motion
        names = m.sweep.compiled.mechanism.names
        right = strung(s.suspension.springs, m)
        for case, forces in s.forces.items():
            row = int(np.flatnonzero(m.there)[-1]) if case == "bump" else s.ride
            rotation, origin = m.level.pose.rotation[row], m.level.pose.origin[row]
            layout = s.suspension.layout
            rows = [(np.array(getattr(layout, key).xyz()), force) for key, force in forces_on_frame(s, case).items()]
            self.assertEqual(len(rows), 4)
            foot = stands_in(right.foot, m.setting.hub, m.level.pose)[row]
            top = np.array(right.upper)
            rows.append((top, float(forces.springs[0]) * (top - foot) / np.linalg.norm(top - foot)))
            toe = layout.toe
            outer = origin + rotation @ (np.array(toe.axle.xyz()))
            inner = np.array(toe.frame.xyz())
            pull = float(forces.tension[names.index("toe link")])
            rows.append((inner, pull * (outer - inner) / np.linalg.norm(outer - inner)))
            wheel = [(np.array(at) + origin, np.array(push)) for push, at in tyre_forces(case, s.loads, m)]
            got, want = (np.sum([v for _, v in side], axis=0) for side in (rows, wheel))
            with self.subTest(case):
                np.testing.assert_allclose(got, want, atol=0.02 * np.linalg.norm(want))
                turned = [np.sum([np.cross(p, v) for p, v in side], axis=0) for side in (rows, wheel)]
                np.testing.assert_allclose(*turned, atol=0.02 * np.linalg.norm(want) * 800)

    def test_a_spring_on_the_arm_loads_its_pivots(self):
        """The same axle with the coil on the upright: the lower pivots then carry no upright force to speak of."""
        arm = studied(front())
        spring = arm.suspension.springs
        ball = arm.suspension.layout.lower_ball
        on_upright = spring.model_copy(
            update={"on": "upright", "lower": ball.model_copy(update={"z_mm": ball.z_mm + 30})}
        )
        upright = studied(front(springs=on_upright))
        shared = [case for case in arm.forces if case in upright.forces and case != "bump"]
        self.assertTrue(shared)
        for case in shared:
            forces = [forces_on_frame(s, case) for s in (arm, upright)]
            ups = [abs(one["lower_front"][2] + one["lower_rear"][2]) for one in forces]
            with self.subTest(case):
                self.assertGreater(ups[0], 2.0 * ups[1])


class Brackets(SimpleTestCase):
    def asked(self, inputs):
        return {m.id: m for m in evaluate(inputs).travel[0].mounts}

    def test_every_pivot_near_a_rail_gets_its_bracket_with_its_worst_force(self):
        inputs = front()
        mounts = self.asked(inputs)
        own = {i for i in mounts if "-arm-" in i}
        self.assertEqual(own, {f"front-{a}-arm-{e}-bracket" for a in ("upper", "lower") for e in ("front", "rear")})
        worst = pivot_forces(studied(inputs))
        bracket = mounts["front-lower-arm-front-bracket"]
        x, y, z = worst["lower_front"].force
        self.assertAlmostEqual(bracket.along_n, x, delta=0.1)
        self.assertAlmostEqual(bracket.up_n, z, delta=0.1)
        self.assertAlmostEqual(abs(bracket.out_n), abs(y), delta=0.1)

    def test_a_strut_has_two(self):
        own = {i for i in self.asked(front("strut")) if "-arm-" in i}
        self.assertEqual(own, {"front-lower-arm-front-bracket", "front-lower-arm-rear-bracket"})

    def test_on_a_subframe_they_are_the_subframe_s(self):
        inputs = front()
        under = Subframe(id="sub", name="Subframe", place=Place(anchor_id="front-axle"))
        held = inputs.model_copy(update={"design": inputs.design.model_copy(update={"operations": (under,)})})
        self.assertFalse([i for i in self.asked(held) if "-arm-" in i])
