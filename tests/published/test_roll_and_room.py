"""Anti-roll bars by torsion, half shafts by geometry, room beside the rail by hand."""

import math

import numpy as np
from django.test import SimpleTestCase
from scipy.optimize import brentq

from nodulant.axles.layouts.independent import TrailingArm
from nodulant.axles.layouts.live import LeafSprings
from nodulant.axles.points import on_axle
from nodulant.axles.springs import AntiRollBar, BarRun, HalfShaft
from nodulant.clearance.link_to_rail import RailBox, link_to_rail, swept
from nodulant.evaluate import evaluate
from nodulant.suspension.anti_roll import bar_arm
from nodulant.suspension.feet import stands_in
from nodulant.suspension.half_shaft import half_shaft_motion
from nodulant.suspension.motion import hub_place, moved_through, roll_centre, roll_steer
from nodulant.suspension.roll import bar_rate, roll_stiffness
from nodulant.suspension.spring_motion import spring_motion, strung
from tests.core.test_suspensions import LAYOUTS, ONLY, p, suspended, travel_checks
from tests.published.test_link_forces import RIDE, UPRIGHT
from tests.published.test_linkages import AXLE, HUB, TRAVEL, point, ride, triangulated


class Arm(SimpleTestCase):
    """The arm's angle by a bracketing root finder (scipy) on the link's length in space, the other way round."""

    def test_against_a_root_finder_both_ways_and_sideways(self):
        rest = (2670.0, 420.0, 360.0)
        for bend, hangs, way in (
            ((2450.0, 450.0, 480.0), "down", 1),
            ((2890.0, 450.0, 480.0), "down", -1),
            ((2450.0, 450.0, 240.0), "up", -1),
            ((2890.0, 450.0, 240.0), "up", 1),
        ):
            bar = AntiRollBar(arm_mm=210.0, drop=point(60, 420, -40))
            run = BarRun(bend=point(*bend), link_mm=125.0, link_hangs=hangs)
            joints = np.array([rest]) + np.array([[0, 0, 0], [4, -6, 60], [-3, 5, -55], [8, 12, 30]], dtype=float)
            found = bar_arm(bar, run, rest, joints)
            self.assertTrue(found.reaches.all())
            for joint, eye in zip(joints, found.eye, strict=True):
                towards = math.atan2(joint[2] - bend[2], joint[0] - bend[0])

                def off(angle, joint=joint, bend=bend):
                    x, z = bend[0] + 210 * math.cos(angle), bend[2] + 210 * math.sin(angle)
                    return math.dist((x, rest[1], z), joint) - 125.0

                angle = brentq(off, towards, towards + way * math.pi, xtol=1e-13)
                by_root = (bend[0] + 210 * math.cos(angle), rest[1], bend[2] + 210 * math.sin(angle))
                self.assertLess(math.dist(by_root, eye), 1e-7)

    def test_a_joint_out_of_reach_is_said_and_the_arm_points_at_it(self):
        bar, run = AntiRollBar(arm_mm=200.0, drop=point(0, 420, 0)), BarRun(bend=point(0, 450, 0), link_mm=50.0)
        found = bar_arm(bar, run, (220.0, 420.0, 0.0), np.array([[300.0, 420.0, 0.0]]))
        self.assertFalse(found.reaches[0])
        self.assertLess(math.dist(found.eye[0], (200.0, 420.0, 0.0)), 1e-9)


class Bar(SimpleTestCase):
    """T = G J theta/L (Gere, Mechanics of Materials, torsion of circular bars, from memory)."""

    bar = AntiRollBar(diameter_mm=22.0, length_mm=900.0, arm_mm=220.0, drop=point(0, 420, -40))

    def test_rate_at_the_drop_links(self):
        polar = math.pi * 22**4 / 32
        move = 5.0  # one end up, the other down
        twist = 2 * move / 220
        torque = 79_000 * polar * twist / 900
        self.assertAlmostEqual(bar_rate(self.bar) * move / (torque / 220), 1.0, delta=0.03)

    def test_roll_stiffness_of_upright_springs(self):
        """K = 2 k (base/2)^2 a radian; 1 N/mm at 1 m base is 8.7 N m a degree."""
        m = moved_through(triangulated(), AXLE, TRAVEL)
        far = UPRIGHT.model_copy(update={"upper": point(2610, 350, 19_000)})
        sm = spring_motion(far, m, 4000.0, RIDE)
        by_hand = 2 * 30 * 350**2 / 1000 * math.radians(1)
        self.assertAlmostEqual(ride(roll_stiffness(m, sm, None)) / by_hand, 1.0, delta=0.02)
        self.assertGreater(ride(roll_stiffness(m, sm, self.bar)), 1.2 * by_hand)
        self.assertIsNone(roll_stiffness(m, None, None))

    def test_a_measured_bar_by_its_energy(self):
        """E = G J (right - left)^2/(2 L) over fine rolls, each arm where its link holds it: K = E'' (virtual work, textbook)."""
        fine = (-0.2, -0.1, 0.0, 0.1, 0.2)
        m = moved_through(triangulated(), AXLE, TRAVEL, fine)
        hub = m.setting.hub
        for ahead, up, link in ((-230.0, 60.0, 150.0), (-150.0, 200.0, 120.0), (180.0, 120.0, 190.0)):
            run = BarRun(bend=point(hub[0] + 60 + ahead, 450, hub[2] - 40 + up), link_mm=link, link_hangs="down")
            bar = self.bar.model_copy(update={"runs": run})
            rest = on_axle(bar.drop, hub)
            pose = m.sweep.solved.pose
            joints = pose.origin + pose.rotation @ (np.array(rest) - np.array(hub))
            arm = bar_arm(bar, run, rest, joints)
            reaches = arm.reaches.reshape(len(m.travel), len(fine))
            x, z = arm.eye[:, 0] - run.bend.xyz()[0], arm.eye[:, 2] - run.bend.xyz()[2]
            angle = np.arctan2(z, x).reshape(len(m.travel), len(fine))
            twist = angle - angle[:, ::-1]
            energy = 79_000 * math.pi * 22**4 / 32 / 900 * twist**2 / 2
            step = math.radians(0.1)
            curved = (energy[:, 1] - 2 * energy[:, 2] + energy[:, 3]) / step**2 / 1000 * math.radians(1)
            ours, looked = roll_stiffness(m, None, bar), 0
            for k in np.flatnonzero(reaches.all(axis=1))[::5]:
                self.assertAlmostEqual(ours[k] / curved[k], 1.0, delta=0.03)
                looked += 1
            self.assertGreater(looked, 1)
            self.assertTrue(np.isfinite(ours).all())

    def test_a_level_arm_under_an_upright_link_is_the_textbooks(self):
        m = moved_through(triangulated(), AXLE, TRAVEL)
        rest = on_axle(self.bar.drop, m.setting.hub)
        run = BarRun(bend=point(rest[0] - 220, 450, rest[2] + 140), link_mm=140.0, link_hangs="down")
        measured = self.bar.model_copy(update={"runs": run})
        self.assertAlmostEqual(
            ride(roll_stiffness(m, None, measured)) / ride(roll_stiffness(m, None, self.bar)), 1.0, delta=0.01
        )

    def test_leaning_springs_under_load_by_their_energy(self):
        """E = F0 c + k c2/2 of both springs over fine rolls: K = E'' (virtual work, textbook); the preload softens a leaning pair."""
        fine = (-0.2, -0.1, 0.0, 0.1, 0.2)
        m = moved_through(triangulated(), AXLE, TRAVEL, fine)
        leaning = UPRIGHT.model_copy(update={"upper": point(2610, 200, 380)})
        corner = 6000.0
        sm = spring_motion(leaning, moved_through(triangulated(), AXLE, TRAVEL), corner, RIDE)
        foot = strung(leaning, m)
        at = stands_in(foot.foot, m.setting.hub, m.sweep.solved.pose) - np.array(foot.upper)
        length = np.linalg.norm(at, axis=1).reshape(len(m.travel), len(fine))[RIDE]
        force, rate = sm.force[RIDE], 30.0
        short = length[2] - length
        energy = sum(force * c + rate * c**2 / 2 for c in (short, short[::-1]))
        step = math.radians(0.1)
        by_energy = (energy[3] - 2 * energy[2] + energy[1]) / step**2 / 1000 * math.radians(1)
        mine = ride(roll_stiffness(m, sm, None))
        self.assertAlmostEqual(mine / by_energy, 1.0, delta=0.01)
        alone = 2 * rate * sm.roll_ratio[RIDE] ** 2 * m.setting.half_track_mm**2 / 1000 * math.radians(1)
        self.assertGreater(abs(mine / alone - 1), 0.02, "the preload counts")

    def test_leaf_springs_on_the_line_of_their_eyes(self):
        """Hotchkiss: at the hub's station on the line from eye to eye; over the ground, through travel, by subtraction."""
        leaf = LeafSprings(eye=point(2010, 450, 20), seat=point(0, 450, -60), rear_eye=point(3210, 450, 80))
        m = moved_through(leaf, AXLE, TRAVEL)
        line = 20 + (AXLE.hub[0] - 2010) / 1200 * 60
        ground = hub_place(m)[:, 2] - AXLE.radius_mm
        np.testing.assert_allclose(roll_centre(m), line - ground, atol=1e-9)
        flipped = leaf.model_copy(update={"seat": point(0, 450, 60)})
        np.testing.assert_allclose(roll_centre(moved_through(flipped, AXLE, TRAVEL)), roll_centre(m), atol=1e-6)

    def test_an_axle_on_leaf_springs_rolls_about_that_line_and_steers_by_its_front_halves(self):
        """Its poses roll where its roll centre is; roll steer is the front half's slope, a quarter cut off (textbook)."""
        leaf = LeafSprings(eye=point(2010, 450, 20), seat=point(0, 450, -60), rear_eye=point(3210, 450, 80))
        m = moved_through(leaf, AXLE, TRAVEL)
        at = int(np.argmin(abs(TRAVEL)))
        over_ground = AXLE.radius_mm + m.roll[at, 1] / m.roll[at, 3]
        self.assertAlmostEqual(over_ground, roll_centre(m)[at], places=6)
        arm = 0.75 * (AXLE.hub[0] - 2010)
        slope = (AXLE.hub[2] - 60 - 20) / arm
        self.assertAlmostEqual(abs(roll_steer(m)[at]), abs(slope), delta=0.01 * abs(slope))

    def test_a_coil_that_hangs_loose_holds_nothing_up(self):
        """Light corner, stiff spring: 1000 N/(60 N/mm) is 17 mm of wheel travel; below that no force and no rate."""
        m = moved_through(triangulated(), AXLE, TRAVEL)
        stiff = UPRIGHT.model_copy(update={"rate_n_per_mm": 60.0})
        sm = spring_motion(stiff, m, 1000.0, RIDE)
        loose = sm.force <= 0
        self.assertTrue(loose.any())
        np.testing.assert_array_equal(sm.wheel_rate[loose], 0.0)
        np.testing.assert_array_equal(sm.frequency_hz[loose], 0.0)


class Shaft(SimpleTestCase):
    """A wheel on a trailing arm moves on a circle: angle and plunge follow from two triangles."""

    def test_against_plain_geometry(self):
        arm = TrailingArm(inner=point(2100, 300, HUB[2]), outer=point(2100, 700, HUB[2]))
        m = moved_through(arm, AXLE, TRAVEL)
        shaft = HalfShaft(inner=point(2610, 150, HUB[2]), outer=point(0, 650, 0))
        found = half_shaft_motion(shaft, m)
        for i in (0, 20, 45):
            up = TRAVEL[i]
            back = math.sqrt(510**2 - up**2) - 510
            length = math.sqrt(500**2 + up**2 + back**2)
            self.assertAlmostEqual(found.length[i], length, places=6)
            self.assertAlmostEqual(found.inner_deg[i], math.degrees(math.acos(500 / length)), places=6)

    def test_judged_in_the_job(self):
        own = {"inner": p(2610, 170, -60), "outer": p(0, 690, 0)}
        checks = travel_checks(evaluate(suspended("trailing", half_shaft=own), ONLY))
        self.assertIn(checks["half-shaft-angle:rear-half-shaft:both"].verdict, ("holds", "close"))
        steep = {**own, "inner": p(2610, 550, 40)}
        checks = travel_checks(evaluate(suspended("trailing", half_shaft=steep), ONLY))
        self.assertEqual(checks["half-shaft-angle:rear-half-shaft:both"].verdict, "fails")
        checks = travel_checks(evaluate(suspended("trailing"), ONLY))
        self.assertEqual(checks["half-shaft-angle:rear-half-shaft:both"].verdict, "not computed")


class Room(SimpleTestCase):
    """Half an inch all round is common practice; a bar that rubs the rail is found before it is welded."""

    rail = RailBox(*(np.array(v, dtype=float) for v in ((0, 3000), (0, 0), (150, 150), (350, 350), (410, 410))))

    def gap(self, a, b, radius=20.0, spare=0.0):
        there = np.ones(1, dtype=bool)
        member = swept(np.array([a], dtype=float), np.array([b], dtype=float), there, spare)
        return link_to_rail(member, radius, self.rail)

    def test_beside_below_and_through(self):
        self.assertAlmostEqual(self.gap((1000, 300, 60), (2000, 300, 60)).gap_mm, 30.0)
        self.assertAlmostEqual(self.gap((1000, 380, -50), (2000, 380, -50)).gap_mm, 30.0)
        self.assertAlmostEqual(self.gap((1000, 310, -30), (2000, 310, -30)).gap_mm, 50.0 - 20.0)
        self.assertLess(self.gap((1000, 380, 60), (2000, 380, 60)).gap_mm, -20.0)

    def test_its_own_bracket_and_beyond_the_rail(self):
        self.assertIsNone(self.gap((3500, 380, 60), (4000, 380, 60)))
        self.assertGreater(self.gap((1000, 200, 60), (1600, 380, 60), spare=400.0).gap_mm, 0.0)

    def test_a_spring_in_the_rail_is_named(self):
        wide = {**LAYOUTS["triangulated"]}
        inputs = suspended(layout=wide)
        coil = inputs.design.suspensions[0].springs
        own = coil.model_copy(update={"lower": point(-30, 360, -40), "upper": point(2590, 360, 340)})
        changed = inputs.design.suspensions[0].model_copy(update={"springs": own})
        design = inputs.design.model_copy(update={"suspensions": (changed,)})
        checks = travel_checks(evaluate(inputs.model_copy(update={"design": design}), ONLY))
        check = checks["link-room:rear-spring:right"]
        self.assertEqual(check.verdict, "fails")
        self.assertIsNotNone(check.governs.station_mm)
