"""Rules of one notch: radius, overlap, ends, holes, rail ends, steel; and the survey that checks itself."""

from django.test import SimpleTestCase

from nodulant.evaluate import evaluate
from nodulant.frame.ops.notches.notch import Cap, SidePlate
from nodulant.frame.ops.plates.plate_welds import cap_development, needed_overlap, plate_development, taper_mm
from nodulant.survey.vehicle import Feature
from nodulant.units.inline import told
from tests import fixtures as f

PLATE = SidePlate(thickness_mm=5, overlap_mm=200, inset_mm=5, end="diamond")


def verdict(inputs, check_id):
    return f.check_of(evaluate(inputs), check_id).verdict


class Overlap(SimpleTestCase):
    """A plate too short past the cut is a crack starter with paint on it."""

    def test_the_largest_of_rail_height_development_and_weld_length(self):
        needed, reasons = needed_overlap(PLATE, 150, 60, 5)
        depth = 150 - 2 * 5
        q = min(0.707 * 5 * 0.3 * 482.6, 0.4 * 248 * 5)
        self.assertAlmostEqual(reasons["rail height"], 150)
        self.assertAlmostEqual(reasons["development"], depth / 2 + depth / 2)
        self.assertAlmostEqual(reasons["weld length"], depth / 2 + depth * 5 * (248 / 1.5) / (2 * q), places=3)
        self.assertEqual(needed, max(reasons.values()))

    def test_a_thinner_weld_asks_for_a_longer_plate(self):
        thin = PLATE.model_copy(update={"weld_leg_mm": 2.0})
        self.assertGreater(plate_development(thin, 140, 5).weld_mm, plate_development(PLATE, 140, 5).weld_mm)

    def test_a_cap_brings_in_its_whole_girth(self):
        cap = Cap(height_mm=50, thickness_mm=4, overlap_mm=200)
        self.assertAlmostEqual(cap_development(cap, 60, 5).spread_mm, (2 * 50 + 60 - 8) / 2)

    def test_tapers_grow_at_45_degrees(self):
        self.assertEqual([taper_mm(100, e) for e in ("square", "taper", "diamond")], [0, 100, 50])

    def test_too_short_fails_and_says_how_long(self):
        inputs = f.with_notch(f.demo(), outer_plate=PLATE.model_copy(update={"overlap_mm": 90.0}))
        check = f.check_of(evaluate(inputs), "overlap:axle-notch-outer:left")
        self.assertEqual(check.verdict, "fails")
        self.assertRegex(told(check.remedy, "mm"), r"Overlap the cut by [\d.]+ mm or more")
        self.assertIn("governs", check.why.words)


class Ends(SimpleTestCase):
    """No weld straight across a tension flange (common practice); the envelope says which flange that is."""

    def with_end(self, end):
        return f.with_notch(f.demo(), outer_plate=PLATE.model_copy(update={"end": end, "overlap_mm": 230.0}))

    def test_square_side_plates_fail_tapered_and_diamond_hold(self):
        id_ = "end-shape:axle-notch-outer:left"
        self.assertEqual(verdict(self.with_end("square"), id_), "fails")
        self.assertEqual(verdict(self.with_end("taper"), id_), "holds")
        self.assertEqual(verdict(self.with_end("diamond"), id_), "holds")

    def cap(self, end):
        return f.with_notch(f.demo(), cap=Cap(height_mm=50, thickness_mm=4, overlap_mm=245, end=end))

    def test_a_square_cap_matters_only_where_the_top_is_in_tension(self):
        """The coilover seat reverses the moment over the axle: the top flange, where the cap ends, is pulled."""
        planned = self.cap("square")
        self.assertEqual(verdict(planned, "end-shape:axle-notch-cap:left"), "fails")
        design = planned.design.model_copy(update={"seats": ()})
        on_leaves = planned.model_copy(update={"design": design})
        self.assertEqual(verdict(on_leaves, "end-shape:axle-notch-cap:left"), "holds")

    def test_without_loads_the_tension_flange_is_not_known(self):
        inputs = f.with_survey(self.cap("square"), masses=())
        self.assertEqual(verdict(inputs, "end-shape:axle-notch-cap:left"), "not computed")


class HolesAndRailEnds(SimpleTestCase):
    def with_hole(self, x, height=30.0, diameter=12.0):
        hole = Feature(id="hole", name="hole", kind="hole", x_mm=x, height_mm=height, diameter_mm=diameter)
        return f.with_survey(f.demo(), features=(*f.demo().survey.features, hole))

    def test_a_hole_beside_the_cut(self):
        """Edge distance 1.5 d (common practice), to the nearest point of the cut's edge."""
        near = f.check_of(evaluate(self.with_hole(2610 + 60 + 5)), "hole-distance:axle-notch-hole:left")
        self.assertEqual(near.verdict, "fails")
        self.assertEqual(verdict(self.with_hole(2610 + 60 + 60), "hole-distance:axle-notch-hole:left"), "holds")

    def test_a_hole_on_one_rail_is_checked_on_that_rail(self):
        inputs = self.with_hole(2680)
        features = (*inputs.survey.features[:-1], inputs.survey.features[-1].model_copy(update={"side": "right"}))
        ids = [c.id for c in evaluate(f.with_survey(inputs, features=features)).checks]
        self.assertIn("hole-distance:axle-notch-hole:right", ids)
        self.assertNotIn("hole-distance:axle-notch-hole:left", ids)

    def test_plates_past_the_end_of_the_rail(self):
        long = f.with_notch(f.demo(), outer_plate=PLATE.model_copy(update={"overlap_mm": 900.0}))
        self.assertEqual(verdict(long, "end-distance:axle-notch:left"), "fails")


class RadiusAndBend(SimpleTestCase):
    def test_sharp_corners_fail(self):
        shape = f.straight_notch(58, corner=2.0).shape
        sharp = f.with_notch(f.demo("straight"), shape=shape)
        check = f.check_of(evaluate(sharp), "corner-radius:axle-notch:left")
        self.assertEqual((check.verdict, check.value), ("fails", 2.0))
        self.assertIn('Drill 1/2" holes', told(check.remedy, "in16"))

    def test_a_thick_liner_cannot_be_bent_so_tight(self):
        self.assertEqual(verdict(f.with_notch(f.demo(), liner=f.liner(25.0)), "liner-bend:axle-notch:left"), "fails")


class Steel(SimpleTestCase):
    def with_steel(self, steel):
        rails = f.demo().survey.rails
        new = rails.model_copy(update={"left": rails.left.model_copy(update={"steel_id": steel})})
        return f.with_survey(f.demo(), rails=new)

    def test_a_heat_treated_rail_stops_everything(self):
        """Marked by its maker: do not weld, cut or drill flanges (common practice)."""
        check = f.check_of(evaluate(self.with_steel("heat-treated")), "weldable:rail:left")
        self.assertEqual(check.verdict, "fails")
        self.assertIn("Do not weld", check.remedy)

    def test_unknown_steel_is_the_weakest_of_its_kind_before_and_after(self):
        """What nobody knows is the same steel in both frames: it may not fail a job by itself."""
        mild, unknown = evaluate(self.with_steel("mild")), evaluate(self.with_steel("unknown"))
        ratio = [f.check_of(r, "modulus-bottom:axle-notch:left").value for r in (mild, unknown)]
        limit = [f.check_of(r, "use-limit:rail-bump:left").value for r in (mild, unknown)]
        self.assertAlmostEqual(ratio[1] / ratio[0], 1.0, delta=0.08)
        self.assertLess(limit[1], limit[0])

    def test_mild_plates_on_a_stronger_rail_do_not_reach_it(self):
        """Equal size is not equal strength: yield is in the capacity."""
        result = evaluate(self.with_steel("hsla-340"))
        self.assertLess(
            f.check_of(result, "modulus-bottom:axle-notch:left").value,
            f.check_of(result, "modulus-bottom:axle-notch:right").value,
        )


class SurveyChecksItself(SimpleTestCase):
    def test_hub_height_against_tube_and_gap(self):
        """The tube's centre is the hub's centre on a straight axle: a tape that was read wrong shows."""
        self.assertEqual(verdict(f.demo(), "hub-agrees:rear-hub:left"), "holds")
        wrong = f.with_rear(f.demo(), hub_z_left_mm=-153 + 25.4)
        check = f.check_of(evaluate(wrong), "hub-agrees:rear-hub:left")
        self.assertEqual(check.verdict, "fails")
        self.assertAlmostEqual(check.value, 25.4)
        self.assertEqual(verdict(f.with_rear(f.demo(), hub_z_left_mm=None), "hub-agrees:rear-hub:left"), "not computed")

    def test_figures_say_measured_or_estimated(self):
        said = {x.id: x.basis for x in evaluate(f.demo()).figures}
        self.assertIn("measured", said["tyre-loaded"])
        guess = {x.id: x.basis for x in evaluate(f.with_rear(f.demo(), loaded_radius_mm=None)).figures}
        self.assertIn("estimated", guess["tyre-loaded"])
        self.assertIn("estimated", guess["ride-stock"])

    def test_figures_of_a_notch_on_the_right_only(self):
        right = f.with_notch(f.demo(), side="right")
        self.assertIn("depth-share-axle-notch", {x.id for x in evaluate(right).figures})

    def test_half_pipe_is_offered(self):
        pipe = next(x for x in evaluate(f.demo()).figures if x.id == "half-pipe")
        self.assertIn("NPS 4", pipe.name)
        self.assertIn("ASME B36.10M", pipe.basis)


class NotchSize(SimpleTestCase):
    def test_shallow_and_narrow(self):
        small = evaluate(f.with_notch(f.demo(), depth_mm=40.0, shape=f.arc_notch(40, 45).shape))
        for rule in ("notch-depth", "notch-width"):
            check = f.check_of(small, f"{rule}:axle-notch:left")
            self.assertEqual(check.verdict, "fails", rule)
            self.assertRegex(told(check.remedy, "mm"), r"Make it [\d.]+ mm")

    def test_clearance_and_travel_speak_with_one_voice(self):
        """Travel runs out just where the clearance falls to its limit."""
        result = evaluate(f.with_notch(f.demo(), depth_mm=50.0))
        travel = f.check_of(result, "bump-travel:axle-tube:left")
        again = evaluate(
            f.with_targets(f.with_notch(f.demo(), depth_mm=50.0), bump_mm=round(travel.governs.pose_mm, 3))
        )
        self.assertAlmostEqual(f.check_of(again, "metal-clearance:axle-tube:left").value, 12.7, delta=0.1)
