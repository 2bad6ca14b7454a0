"""Torsion bars along an arm's hinge, against the textbook's bar, energy by the arm's angle, and statics.

Bar: k = G J / l, J = pi d^4 / 32, tau = 16 T / (pi d^3) (any textbook of machine elements; G 79.3 GPa for spring steel).
"""

import math

import numpy as np
from django.test import SimpleTestCase
from pydantic import ValidationError

from nodulant.axles.springs import TorsionBar
from nodulant.axles.suspension import Suspension
from nodulant.base.errors import NodulantError
from nodulant.evaluate import evaluate
from nodulant.evaluate.clearances.sweep import scene
from nodulant.evaluate.suspensions.travel_members import members
from nodulant.job.fresh.suspension import fresh_suspension, fresh_suspension_part
from nodulant.suspension.feet import stands
from nodulant.suspension.forces import tyre_forces
from nodulant.suspension.on_frame import beyond_standing
from nodulant.suspension.pivots import forces_on_frame
from nodulant.suspension.spring_motion import strung
from tests import fixtures as f
from tests.core.test_arm_pivots import front, studied
from tests.core.test_fresh_suspension import hung, job

BAR = TorsionBar(diameter_mm=26.0, length_mm=1100.0)


def barred(kind="double-wishbone", bar=BAR):
    return studied(front(kind, springs=bar))


def facts(inputs):
    return {fact.name: fact for fact in evaluate(inputs).travel[0].facts}


class Bar(SimpleTestCase):
    def test_rate_and_shear_of_a_round_bar(self):
        """D 25, l 1000: J = 38 350 mm4, k = 3.041e6 N mm/rad = 53.1 N m/deg; 1000 N m: 16e6 / (pi 15 625) = 326 MPa."""
        bar = TorsionBar(diameter_mm=25.0, length_mm=1000.0)
        self.assertAlmostEqual(bar.twist_rate / 1e6, 3.041, places=3)
        self.assertAlmostEqual(math.radians(bar.twist_rate / 1000), 53.1, places=1)
        self.assertAlmostEqual(bar.shear_mpa(1e6), 325.9, places=1)

    def test_thinner_than_a_bar_can_be_is_refused(self):
        for wrong in ({"diameter_mm": 0.0}, {"length_mm": 0.0}, {"on": "upright"}):
            with self.subTest(wrong), self.assertRaises(ValidationError):
                TorsionBar.model_validate({"diameter_mm": 26.0, "length_mm": 1100.0, **wrong})


class Motion(SimpleTestCase):
    def test_wheel_rate_is_the_second_derivative_of_the_bar_s_energy(self):
        """U(z) = k (phi0 + phi(z))^2 / 2 with the arm's angle from its ball joint's own heights; U' at ride carries the corner."""
        for kind in ("double-wishbone", "strut"):
            s = barred(kind)
            arm = strung(BAR, s.motion).arm
            rows = np.flatnonzero(s.motion.there)
            front_, rear = np.array(arm.front), np.array(arm.rear)
            u = (rear - front_) / np.linalg.norm(rear - front_)
            ball = stands(strung(BAR, s.motion).foot, s.motion)
            square = (ball - front_) - ((ball - front_) @ u)[:, None] * u
            level = np.cross(u, [0.0, 0.0, 1.0]) / np.linalg.norm(np.cross(u, [0.0, 0.0, 1.0]))
            level = level * np.sign(square[s.ride] @ level)
            up = np.cross(u, level) * np.sign(np.cross(u, level)[2])
            phi = np.arctan2(square @ up, square @ level)
            phi = phi - phi[s.ride]
            z = s.motion.travel
            slope = np.gradient(phi[rows], z[rows])[list(rows).index(s.ride)]
            corner = s.vehicle.axle_n / 2
            phi0 = corner / (BAR.twist_rate * slope)
            energy = BAR.twist_rate * (phi0 + phi) ** 2 / 2
            pushed = np.gradient(energy[rows], z[rows])
            rate = np.gradient(pushed, z[rows])
            inside = slice(3, len(rows) - 3)
            with self.subTest(kind):
                np.testing.assert_allclose(s.springs.wheel_rate[rows][inside], rate[inside], rtol=0.01)
                np.testing.assert_allclose(
                    (s.springs.force * s.springs.ratio)[rows][inside], pushed[inside], rtol=0.005
                )

    def test_a_thicker_bar_is_stiffer_by_the_fourth_power(self):
        thin, thick = barred(), barred(bar=BAR.model_copy(update={"diameter_mm": 26.0 * 2**0.25}))
        ratio = thick.springs.own_rate[thick.ride] / thin.springs.own_rate[thin.ride]
        self.assertAlmostEqual(float(ratio), 2.0, places=9)


class OnTheFrame(SimpleTestCase):
    def test_pivots_key_and_toe_link_carry_the_wheel(self):
        """Newton: force and moment on the frame are those of the tyre; the key takes the torque about the hinge."""
        s = barred()
        m, layout = s.motion, s.suspension.layout
        own = strung(BAR, m)
        for case, forces in s.forces.items():
            if case == "bump":
                continue
            rows = [(np.array(getattr(layout, key).xyz()), force) for key, force in forces_on_frame(s, case).items()]
            place = stands(own.foot, m)[s.ride]
            key = own.on_frame(place, float(forces.springs[0]))
            np.testing.assert_allclose(sum(force for _, force in key), np.zeros(3), atol=1e-6)
            rows += [(np.array(at), force) for at, force in key]
            names = m.sweep.compiled.mechanism.names
            inner = np.array(layout.toe.frame.xyz())
            origin = m.level.pose.origin[s.ride]
            outer = origin + m.level.pose.rotation[s.ride] @ np.array(layout.toe.axle.xyz())
            pull = float(forces.tension[names.index("toe link")])
            rows.append((inner, pull * (outer - inner) / np.linalg.norm(outer - inner)))
            wheel = [(np.array(at) + origin, np.array(push)) for push, at in tyre_forces(case, s.loads, m)]
            with self.subTest(case):
                got, want = (np.sum([v for _, v in side], axis=0) for side in (rows, wheel))
                np.testing.assert_allclose(got, want, atol=0.02 * np.linalg.norm(want))
                got, want_m = (np.sum([np.cross(p, v) for p, v in side], axis=0) for side in (rows, wheel))
                np.testing.assert_allclose(got, want_m, atol=0.02 * np.linalg.norm(want) * 800)

    def test_the_frame_s_own_cases_stay_balanced(self):
        """What a bump adds to the frame is what it adds at the tyre: the key's couple adds no force."""
        s = barred()
        pulls = beyond_standing(s, "bump")
        up = sum(p.force[2] for p in pulls)
        self.assertAlmostEqual(up, s.loads.standing_n, delta=0.01 * s.loads.standing_n)


class InTheJob(SimpleTestCase):
    def test_facts_tell_twist_key_and_shear(self):
        inputs = front(springs=BAR)
        s, told = studied(inputs), facts(inputs)
        torque = float(s.springs.force[s.ride]) * strung(BAR, s.motion).reach_mm
        twist = told["Torsion bar is twisted at ride height by"].value
        self.assertAlmostEqual(twist, math.degrees(torque * 1100 * 32 / (79_300 * math.pi * 26**4)), places=3)
        shear = told["Shear in the torsion bar at full bump"].value
        self.assertGreater(shear, 16 * torque / (math.pi * 26**3))
        self.assertLess(shear, 1500)
        way = told["Wheel's way for one degree of its key"].value
        # the ball joint goes reach x pi / 180; the wheel goes further by the motion ratio
        arm = told["Reach of the arm that twists it"].value
        self.assertAlmostEqual(way * float(s.springs.ratio[s.ride]), arm * math.pi / 180, places=6)

    def test_it_is_drawn_from_the_arm_to_its_key_and_swept_there(self):
        inputs = front(springs=BAR)
        s = studied(inputs)
        (drawn,) = (m for m in members(s, s.motion) if m.name.startswith("torsion bar"))
        long = math.dist(*((p.x_mm, p.y_mm, p.z_mm) for p in (drawn.a, drawn.b)))
        self.assertAlmostEqual(long, 1100.0, places=1)
        (body,) = (m.body for m in scene(inputs).movers if m.name == "torsion bar, right")
        for end, point in ((body.a, drawn.a), (body.b, drawn.b)):
            self.assertLess(math.dist(end.reshape(-1, 3)[0], (point.x_mm, point.y_mm, point.z_mm)), 0.1)

    def test_it_begins_where_an_arm_twists_it_and_is_refused_elsewhere(self):
        inputs = job()
        for kind, fits in (("double-wishbone", True), ("strut", True), ("leaf", False)):
            own = hung(inputs, fresh_suspension(inputs, "front", kind, before=False))
            with self.subTest(kind):
                if fits:
                    self.assertEqual(fresh_suspension_part(own, 0, "springs", "torsion", before=False).kind, "torsion")
                else:
                    with self.assertRaises(NodulantError):
                        fresh_suspension_part(own, 0, "springs", "torsion", before=False)

    def test_on_a_beam_it_is_an_error_that_says_so_and_the_job_is_kept(self):
        inputs = f.job().inputs("step")
        rear = tuple(
            s.model_copy(update={"springs": BAR}) if s.axle == "rear" else s for s in inputs.design.suspensions
        )
        shown = evaluate(inputs.model_copy(update={"design": inputs.design.model_copy(update={"suspensions": rear})}))
        self.assertTrue(shown.checks)

    def test_it_survives_the_file(self):
        own = front(springs=BAR).design.suspensions[0]
        self.assertEqual(Suspension.model_validate_json(own.model_dump_json()), own)
