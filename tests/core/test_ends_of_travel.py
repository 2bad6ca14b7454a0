"""What ends the travel and in which order; dampers in pairs; straps; leaves that were worked on."""

import numpy as np
from django.test import SimpleTestCase
from pydantic import ValidationError

from nodulant.axles.leaf_work import leaf_change
from nodulant.axles.springs import LeafPack
from nodulant.evaluate import evaluate
from nodulant.suspension.contacts import contacts
from nodulant.suspension.study import study
from tests import fixtures as f
from tests.core.test_suspensions import AIR, BAR, COIL, ONLY, link, p, suspended, travel_checks

UPRIGHT = {**COIL, "lower": p(0, 300, -40), "upper": p(2610, 300, 340)}
DAMPER = {"lower": p(0, 300, -40), "upper": p(2610, 300, 340), "open_mm": 540.0, "closed_mm": 360.0}
STRAP = {"lower": p(0, 250, 0), "upper": p(2610, 250, 100)}


def studied(**more):
    job = suspended(**more)
    return study(job.survey, job.design.suspensions[0], job.design.seats, 75.0, 0.9)


def travels(s):
    return {c.key: c.travel_mm for c in contacts(s)}


class Order(SimpleTestCase):
    """Metal that meets before the rubber does breaks dampers on the first pothole."""

    def test_a_damper_closes_where_its_own_length_says(self):
        s = studied(springs=UPRIGHT)
        at = travels(s)
        length = s.springs.length
        self.assertAlmostEqual(float(np.interp(at["coilover-closed"], s.motion.travel, length)), 372.0, delta=1.0)
        inside = s.motion.travel[0] <= at["coilover-closed"] <= s.motion.travel[-1]
        if not inside:  # carried on with the last motion ratio
            missing = float(length[-1]) - 372.0
            self.assertAlmostEqual(at["coilover-closed"] - s.motion.travel[-1], missing / s.springs.ratio[-1], places=6)

    def test_bump_comes_in_order_and_then_droop(self):
        rows = contacts(studied(springs=UPRIGHT))
        bump = [c.travel_mm for c in rows if c.way == "bump"]
        droop = [c.travel_mm for c in rows if c.way == "droop"]
        self.assertEqual(bump, sorted(bump))
        self.assertEqual(droop, sorted(droop, reverse=True))
        self.assertEqual([c.way for c in rows], sorted(c.way for c in rows))
        self.assertLessEqual({"stop", "stop-full", "coilover-closed", "coil-block"}, {c.key for c in rows})

    def test_the_stop_has_to_come_before_metal(self):
        good = travel_checks(evaluate(suspended(springs=UPRIGHT, stop={"gap_mm": 40, "gives_mm": 10}), ONLY))
        self.assertEqual(good["bump-order:rear-stop:both"].verdict, "holds")
        short = {**UPRIGHT, "closed_mm": 440.0, "open_mm": 600.0}
        bad = travel_checks(evaluate(suspended(springs=short, stop={"gap_mm": 60, "gives_mm": 25}), ONLY))
        self.assertEqual(bad["bump-order:rear-stop:both"].verdict, "fails")
        self.assertIn("coilover's damper closed", bad["bump-order:rear-stop:both"].why.words)

    def test_a_strap_ends_the_droop_before_damper_and_bellows(self):
        for length, verdict in ((250.0, "holds"), (330.0, "fails")):
            with self.subTest(length):
                job = suspended(springs=AIR, damper=DAMPER, strap={**STRAP, "length_mm": length})
                self.assertEqual(travel_checks(evaluate(job, ONLY))["droop-order:rear-strap:both"].verdict, verdict)

    def test_a_strap_s_length_is_met_where_it_is_taut(self):
        s = studied(springs=AIR, strap={**STRAP, "length_mm": 200.0})
        at = travels(s)["strap"]
        self.assertAlmostEqual(float(np.interp(at, s.motion.travel, s.strap.length)), 200.0, delta=0.3)

    def test_a_linkage_that_locks_is_in_the_list(self):
        s = studied(springs=UPRIGHT, bump_mm=900.0)
        self.assertIn("locks-bump", travels(s))


class Dampers(SimpleTestCase):
    def test_one_beside_a_bellows_is_judged_by_its_stroke(self):
        checks = travel_checks(evaluate(suspended(springs=AIR, damper=DAMPER), ONLY))
        check = checks["damper-closed:rear-damper:both"]
        self.assertIsNotNone(check.value)
        self.assertNotIn("damper-closed:rear-damper:both", travel_checks(evaluate(suspended(springs=AIR), ONLY)))

    def test_two_coilovers_a_side_share_the_force(self):
        """Half the rate each, twice the number: the same wheel."""
        one = studied(springs=UPRIGHT)
        two = studied(springs={**UPRIGHT, "rate_n_per_mm": 16.0, "count": 2})
        np.testing.assert_allclose(two.springs.wheel_rate, one.springs.wheel_rate, rtol=1e-12)
        np.testing.assert_allclose(two.springs.force, one.springs.force, rtol=1e-12)

    def test_a_damper_without_stroke_is_refused(self):
        with self.assertRaisesRegex(ValidationError, "longer open than closed"):
            suspended(springs=AIR, damper={**DAMPER, "open_mm": 300.0})


class BarsInRoll(SimpleTestCase):
    """A parallel four-link binds: what every bar gives and carries is said, not only the worst one."""

    def facts(self, **more):
        return {fact.name: fact for fact in evaluate(suspended(**more), ONLY).travel[0].facts}

    def test_each_bar_says_what_it_gives(self):
        bars = {name: fact for name, fact in self.facts(kind="parallel").items() if name.startswith("In 3° of roll")}
        self.assertGreaterEqual(len(bars), 2)
        self.assertTrue(all("[[force:" in fact.words for fact in bars.values()))
        self.assertFalse(any(name.startswith("In 3°") for name in self.facts()))

    def test_soft_bushes_take_the_force_out_of_it(self):
        """The give is the linkage's own; what a bar carries is give times stiffness, so rubber lowers it."""

        def carried(**joints):
            layout = {
                "upper": link((2130, 380, 110), (0, 380, 130), joints=joints),
                "lower": link((1990, 380, -72), (0, 380, -75), joints=joints),
                "lateral": BAR,
            }
            bars = self.facts(kind="parallel", layout=layout)
            return max(
                float(fact.words.split("3°: ")[1].split("[[force:")[1].split("]]")[0])
                for name, fact in bars.items()
                if name.startswith("In 3°") and "bar" in name
            )

        self.assertLess(carried(bush_n_per_mm=4000.0), 0.1 * carried())


class Leaves(SimpleTestCase):
    """Drop by leaf work (common practice: tube + pack + pads for a flip; n equal leaves share alike)."""

    def pack(self, **more):
        return LeafPack(seat={"x_mm": 0, "y_mm": 450, "z_mm": -60}, rate_n_per_mm=40.0, **more)

    def test_a_flip_lowers_by_tube_pack_and_pads_and_back_lifts(self):
        flipped = leaf_change(self.pack(flipped=True, pack_mm=45.0, pads_mm=5.0), 76.0, 4000.0)
        self.assertAlmostEqual(flipped.lowers_mm, 76 + 45 + 5)
        back = leaf_change(self.pack(flipped=True, pack_mm=45.0, pads_mm=5.0, axle_was="over"), 76.0, 4000.0)
        self.assertAlmostEqual(back.lowers_mm, -(76 + 45 + 5))

    def test_a_block_lowers_above_the_spring_and_lifts_below_it(self):
        self.assertEqual(leaf_change(self.pack(block_mm=50.0), 76.0, 0.0).lowers_mm, -50.0)
        self.assertEqual(leaf_change(self.pack(block_mm=50.0, axle_was="over"), 76.0, 0.0).lowers_mm, 50.0)

    def test_one_leaf_of_four(self):
        change = leaf_change(self.pack(removed=1), 76.0, 4000.0)
        self.assertAlmostEqual(change.rate_n_per_mm, 30.0)
        self.assertAlmostEqual(change.stress, 4 / 3)
        self.assertAlmostEqual(change.removed_mm, 4000 / 30 - 4000 / 40)

    def test_the_rating_goes_with_the_leaves(self):
        pack = {"kind": "leaf", "seat": p(0, 450, -60), "rate_n_per_mm": 40.0, "removed": 1}
        open_ = travel_checks(evaluate(suspended("leaf", springs=pack), ONLY))["leaf-load:rear-leaves:both"]
        self.assertEqual((open_.verdict, open_.missing), ("not computed", ("/design/suspensions/0/springs/rated_n",)))
        s = studied(kind="leaf", springs={**pack, "rated_n": 9000.0})
        check = travel_checks(evaluate(suspended("leaf", springs={**pack, "rated_n": 9000.0}), ONLY))
        value = check["leaf-load:rear-leaves:both"].value
        self.assertAlmostEqual(value, s.vehicle.axle_n / 2 * 4 / 3 / 9000.0)
        soft = evaluate(suspended("leaf", springs={**pack, "flipped": True}), ONLY).travel[0]
        self.assertIn("Work on the leaves lowers the axle's end by", [fact.name for fact in soft.facts])

    def test_a_leaf_has_to_stay(self):
        with self.assertRaisesRegex(ValidationError, "one leaf has to stay"):
            self.pack(removed=4)

    def test_unknown_tube_says_nothing_of_the_flip(self):
        pack = {"kind": "leaf", "seat": p(0, 450, -60), "rate_n_per_mm": 40.0, "flipped": True}
        job = suspended("leaf", springs=pack, inputs=f.with_rear(f.demo("step"), tube_diameter_mm=None))
        names = [fact.name for fact in evaluate(job, ONLY).travel[0].facts]
        self.assertFalse(any("leaves" in name.lower() for name in names), names)
