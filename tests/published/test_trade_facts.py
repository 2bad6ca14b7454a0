"""Facts that the trade knows; each is common practice unless a source is named."""

from django.test import SimpleTestCase

from nodulant.evaluate import evaluate
from nodulant.frame.model import STOCK, planned_state, sections
from nodulant.materials.pipe import PIPES
from nodulant.parts.limits import find_limit
from nodulant.survey.before_teardown import readings_before_teardown
from nodulant.targets.drop import DropEntry
from tests import fixtures as f


def section(*operations, rail=None):
    state = planned_state(operations) if operations else STOCK
    return sections(f.survey_of(rail or f.straight_rail()), operations, "left", f.stations_at(1500.0), state)


class WhatBoxingBuys(SimpleTestCase):
    """Boxing buys torsion, hardly bending; people believe the opposite."""

    def test_torsion_by_hundreds_bending_by_a_third(self):
        stock, boxed = section(), section(f.boxing("flush"))
        self.assertGreater(boxed.torsion.j[0] / stock.torsion.j[0], 100)
        self.assertLess(boxed.properties.i_y[0] / stock.properties.i_y[0], 1.5)

    def test_side_plates_restore_area_and_shear_not_bending(self):
        """Depth is what counts in bending."""
        boxed = section(f.boxing("flush"))
        plates = {"outer_plate": f.side_plate(6.35), "inner_plate": f.side_plate(6.35)}
        plated = section(f.boxing("flush"), f.straight_notch(63.5, liner=f.liner(6.35), **plates))
        self.assertGreater(plated.shear_area[0] / boxed.shear_area[0], 1.0)
        self.assertLess(plated.properties.s_bottom[0] / boxed.properties.s_bottom[0], 0.95)

    def test_a_cap_brings_the_depth_back(self):
        bare = section(f.boxing("flush"), f.straight_notch(63.5, liner=f.liner(6.35)))
        capped = section(f.boxing("flush"), f.straight_notch(63.5, liner=f.liner(6.35), cap=f.cap(6.35, 50.8)))
        self.assertGreater(capped.properties.i_y[0] / bare.properties.i_y[0], 2)

    def test_a_straight_liner_works_where_a_half_pipe_does_not(self):
        arc = section(f.boxing("flush"), f.arc_notch(60, 60, liner=f.liner(6)))
        straight = section(f.boxing("flush"), f.straight_notch(60, liner=f.liner(6)))
        self.assertGreater(straight.properties.s_bottom[0], 1.15 * arc.properties.s_bottom[0])


class ANotchLowersNothing(SimpleTestCase):
    """Ride height comes from springs, spindles, pivots or a step; a notch buys travel."""

    def test_an_entry_that_claims_it_counts_zero_and_is_named(self):
        entries = (DropEntry(id="n", name="Notch", mechanism="notch", amount_mm=60.0),)
        result = evaluate(f.with_targets(f.demo(), entries=entries))
        self.assertEqual(result.drop.total_mm, 0.0)
        claim = f.check_of(result, "notch-lowers:rear:both")
        self.assertEqual(claim.verdict, "fails")
        self.assertIn("lowers nothing", claim.why.words)

    def test_a_deeper_notch_gives_travel_not_height(self):
        shallow, deep = evaluate(f.with_notch(f.demo(), depth_mm=50.0)), evaluate(f.with_notch(f.demo(), depth_mm=59.0))
        height = [next(x.value for x in r.figures if x.id == "ride-planned") for r in (shallow, deep)]
        travel = [f.check_of(r, "bump-travel:axle-tube:left").value for r in (shallow, deep)]
        self.assertEqual(height[0], height[1])
        self.assertGreater(travel[1], travel[0])


class Supports(SimpleTestCase):
    """From leaf hangers to one coilover seat at the axle line the moment over the axle reverses its sign."""

    def test_moment_over_the_axle_changes_sign(self):
        figures = {x.id: x.value for x in evaluate(f.demo()).figures}
        self.assertGreater(figures["moment-stock"], 0)
        self.assertLess(figures["moment-planned"], 0)


class Defaults(SimpleTestCase):
    """Limits that a fabricator would know without looking."""

    def test_values(self):
        known = {
            "metal-clearance": 12.7,  # half an inch all round
            "hole-distance": 1.5,  # edge distance 1.5 d
            "as-built": 1.5,  # points within 1.5 mm
            "corner-radius": 6.0,  # 12-13 mm drilled corners
        }
        for limit_id, value in known.items():
            with self.subTest(limit_id):
                limit, _ = find_limit(limit_id, {})
                self.assertEqual(limit.value, value)
                self.assertIn("common practice", limit.basis)

    def test_readings_that_teardown_destroys(self):
        """Wheelbase, hub heights, tyre, pinion angle: nobody can measure them afterwards."""
        names = " ".join(r.name.lower() for r in readings_before_teardown(f.demo().survey))
        for word in ("wheelbase", "hub height", "pinion angle", "tyre", "tube to rail", "wall"):
            self.assertIn(word, names)


class NominalIsNotActual(SimpleTestCase):
    """A nominal pipe is not its diameter; a plate of 5 mm is not 3/16 in (common practice)."""

    def test_nominal_pipe(self):
        for pipe, nominal_in in (("NPS 3", 3.0), ("NPS 4", 4.0)):
            found = next(p for p in PIPES if p.name == pipe)
            self.assertGreater(found.outside_mm, nominal_in * 25.4 + 10)
            self.assertNotAlmostEqual(2 * found.inside_radius_mm, nominal_in * 25.4, delta=0.5)

    def test_metric_plate_against_inch_plate(self):
        """The same notch with 5 mm and with 3/16 in side plates: 5 % of the plate, seen in the shear capacity."""
        capacity = [
            section(
                f.boxing("flush"), f.straight_notch(60, liner=f.liner(6), outer_plate=f.side_plate(t))
            ).shear_capacity[0]
            for t in (5.0, 3 / 16 * 25.4)
        ]
        self.assertGreater(capacity[0], 1.005 * capacity[1])
