"""What holds the pieces together: bolts, brackets, joints and the steel they are made of, by hand where it can be reckoned."""

import math

from django.test import SimpleTestCase

from nodulant.asbuilt.compare import as_built_state
from nodulant.asbuilt.log import ReadingEntry
from nodulant.evaluate import InvalidInputs, evaluate
from nodulant.evaluate.side_by_side import side_by_side
from nodulant.frame.model import planned_state
from nodulant.frame.ops.mounts.bolted import BoltGroup
from nodulant.frame.ties import planned_crossmembers
from nodulant.job.document import AsBuilt
from nodulant.materials import find_steel, line_capacity
from nodulant.materials.bolts import find_bolt, hole_n
from nodulant.materials.carbon import Analysis
from nodulant.parts.specs import PHASES
from nodulant.sections.profile import profile
from nodulant.strength.rail import compare_rail
from tests import fixtures as f
from tests.core.test_each_operation import MID, at, tube
from tests.core.test_operations import made


class Bolted(SimpleTestCase):
    """A bolted plate carries what its bolts clamp, and never closes a cell."""

    def test_a_bolted_notch_is_planned_as_bolted_work(self):
        """Its bracket is made over the cut, drilled through, welded on the bench, bolted last; every step has its own name."""
        bolted = f.straight_notch(40.0, liner=f.liner(6), outer_plate=f.side_plate(6), bolts=BoltGroup())
        steps = bolted.steps("")
        keys = [s.key for s in steps]
        self.assertEqual(len(keys), len(set(keys)))
        order = ["brace", "cut", "bracket", "bolt-holes", "clear", "weld", "bolt", "unbrace"]
        self.assertEqual([k for k in keys if k in order], order)
        self.assertEqual([PHASES.index(s.phase) for s in steps], sorted(PHASES.index(s.phase) for s in steps))
        with_welder = {s.key for s in steps if "welder" in s.tools}
        self.assertEqual(with_welder, {"bracket", "weld"}, "only the bracket itself is welded")
        self.assertFalse([s.title for s in steps if "tacks cut" in s.detail])

    def test_share_by_hand(self):
        group = BoltGroup(size="M12", grade="10.9", per_end=6)
        bolt = find_bolt("M12", "10.9")
        one = min(bolt.shear_n(), hole_n(bolt, 25.0, 8.0, find_steel("mild").ultimate_mpa))
        self.assertAlmostEqual(group.share(150.0 * 8.0, 8.0, "mild"), 6 * one / (1200.0 * 248.0 / 1.5), delta=0.02)
        self.assertEqual(BoltGroup(per_end=20).share(100.0, 8.0, "mild"), 1.0)

    def test_it_is_weaker_than_the_welded_one(self):
        plates = {"liner": f.liner(6.0), "outer_plate": f.side_plate(6.0), "inner_plate": f.side_plate(6.0)}
        welded, bolted = f.straight_notch(40.0, **plates), f.straight_notch(40.0, **plates, bolts=BoltGroup())
        pair = [at(tube(), (op,), 1500.0) for op in (welded, bolted)]
        self.assertGreater(pair[0].properties.reference_bottom[0], pair[1].properties.reference_bottom[0])
        self.assertGreater(pair[0].torsion.j[0], pair[1].torsion.j[0])

    def test_more_bolts_more_share(self):
        plates = {"liner": f.liner(8.0), "outer_plate": f.side_plate(8.0), "inner_plate": f.side_plate(8.0)}
        rows = [
            at(tube(), (f.straight_notch(40.0, **plates, bolts=BoltGroup(per_end=n)),), 1500.0).properties.i_y[0]
            for n in (2, 6, 12)
        ]
        self.assertEqual(rows, sorted(rows))

    def test_a_closed_rail_needs_sleeves(self):
        for sleeves, verdict in ((False, "fails"), (True, "holds")):
            op = made("notch", place=MID, depth_mm=30.0, liner={"thickness_mm": 5.0}, bolts={"sleeves": sleeves})
            inputs = f.demo().model_copy(update={"survey": f.survey_of(tube())})
            result = evaluate(
                f.with_operations(
                    inputs.model_copy(
                        update={"design": inputs.design.model_copy(update={"seats": (), "crossmembers": ()})}
                    ),
                    op,
                )
            )
            self.assertEqual(f.check_of(result, "sleeve-there:it-bolts:left").verdict, verdict)

    def slip(self, **bolts):
        plates = {"liner": f.liner(6.0), "outer_plate": f.side_plate(6.0), "inner_plate": f.side_plate(6.0)}
        op = f.straight_notch(40.0, **plates, bolts=BoltGroup(**bolts))
        inputs = f.demo()
        place = inputs.design.operations[-1].place
        result = evaluate(f.with_operations(inputs, op.model_copy(update={"place": place})))
        return f.check_of(result, "no-slip:cut:left")

    def test_friction_holds_it_in_service_or_it_works_loose(self):
        """Axial force and moment of the plate on its bolts by the elastic vector method, reckoned again here."""
        places = tuple({"along_mm": x, "up_mm": y} for x in (40.0, 100.0, 160.0) for y in (-40.0, 40.0))
        row = self.slip(size="M12", grade="10.9", per_end=6, positions=places)
        values, bolt = row.why.values, find_bolt("M12", "10.9")
        polar = 6 * 40.0**2 + 4 * 60.0**2 + 6 * (0.65 * 12) ** 2
        corner = math.hypot(values["axial"] / 6 + values["moment"] * 40 / polar, values["moment"] * 60 / polar)
        self.assertAlmostEqual(values["force"], corner, delta=1e-6 * corner)
        self.assertAlmostEqual(row.value, bolt.slip_n() / corner, places=6)
        self.assertAlmostEqual(bolt.slip_n(), 0.2 * 0.75 * bolt.grade.proof(12) * bolt.size.stress_area_mm2)
        self.assertEqual(row.verdict, "holds")

    def test_without_loads_it_is_not_computed(self):
        plates = {"liner": f.liner(6.0), "outer_plate": f.side_plate(6.0)}
        op = f.straight_notch(40.0, **plates, bolts=BoltGroup())
        inputs = f.with_survey(f.demo(), masses=())
        placed = op.model_copy(update={"place": inputs.design.operations[-1].place})
        row = f.check_of(evaluate(f.with_operations(inputs, placed)), "no-slip:cut:left")
        self.assertEqual((row.verdict, row.missing), ("not computed", ("/survey/masses",)))

    def test_one_small_bolt_slips(self):
        self.assertEqual(self.slip(size="M8", grade="8.8", per_end=1).verdict, "fails")

    def test_a_cap_cannot_be_bolted(self):
        with self.assertRaises(ValueError):
            made("notch", bolts={}, cap={"height_mm": 50.0, "thickness_mm": 4.0, "overlap_mm": 200.0})


class Brackets(SimpleTestCase):
    """Foot, tabs and bolts under the force that is given."""

    def check(self, rule, **fields):
        result = evaluate(f.with_operations(f.demo(), made("bracket", **fields)))
        return next(c for c in result.checks if c.limit_id == rule and c.id.endswith(":left"))

    def test_no_force_is_not_computed(self):
        for rule in ("weld-group", "link-bolt", "tab-hole", "tab-bending"):
            check = self.check(rule, along_n=0.0)
            self.assertEqual((check.verdict, check.missing), ("not computed", ("/design/operations/0/along_n",)), rule)

    def test_the_link_s_bolt_by_hand(self):
        bolt = find_bolt("M16", "10.9")
        one = self.check("link-bolt", along_n=20_000.0, tabs={"stiff": False}).value
        two = self.check("link-bolt", along_n=20_000.0).value
        self.assertAlmostEqual(one, 20_000 / (0.6 * 1040 * bolt.size.stress_area_mm2 / 2))
        self.assertAlmostEqual(two, one / 2)

    def test_the_weld_under_a_force_across_is_direct_and_bending(self):
        value = self.check("weld-group", along_n=10_000.0).value
        length, arm = 2 * (120 + 90), 55.0
        polar = 90 * 120**2 / 2 + 2 * 120**3 / 12
        direct, bending = 10_000 / length, 10_000 * arm * 60 / polar
        capacity = line_capacity(5.0, 5.0, find_steel("mild").near_weld_mpa)
        self.assertAlmostEqual(value, math.hypot(direct, bending) / capacity, places=6)

    def test_a_gusset_shortens_the_tabs_lever(self):
        bare, braced = (self.check("tab-bending", along_n=15_000.0, gusset=g).value for g in (None, {"leg_mm": 40.0}))
        self.assertAlmostEqual(braced / bare, 15.0 / 55.0)

    def test_more_bolts_less_use(self):
        rows = [
            self.check("bolt-group", along_n=30_000.0, fixing="bolted", bolts={"per_end": n}).value for n in (1, 2, 3)
        ]
        self.assertEqual(rows, sorted(rows, reverse=True))


class Crossmembers(SimpleTestCase):
    """What ties the rails afterwards."""

    def after(self, **fields):
        survey = f.demo().survey
        return {c.id: c for c in planned_crossmembers(survey, (made("crossmember", **fields),), ())}

    def test_add_remove_move_replace(self):
        before = {c.id: c for c in f.demo().survey.crossmembers}
        self.assertEqual(set(self.after()) - set(before), {"it"})
        self.assertEqual(set(before) - set(self.after(act="remove", target_id="cab")), {"cab"})
        moved = self.after(act="move", target_id="cab")
        self.assertEqual((moved["cab"].x_mm, moved["cab"].height_mm), (1710.0, before["cab"].height_mm))
        swapped = self.after(act="replace", target_id="cab", profile="box", height_mm=80.0)
        self.assertEqual((swapped["it"].x_mm, swapped["it"].profile), (before["cab"].x_mm, "box"))
        self.assertEqual(
            self.after(removable=True)["it"].end, "riveted", "a bolted end is no stiffer than a riveted one"
        )

    def test_unknown_target(self):
        with self.assertRaises(InvalidInputs) as caught:
            evaluate(f.with_operations(f.demo(), made("crossmember", act="remove", target_id="nobody")))
        self.assertEqual(caught.exception.field, "/design/operations/0/target_id")

    def test_one_more_tie_stiffens_the_frame(self):
        rows = [
            next(x.value for x in evaluate(f.with_operations(f.demo(), *ops)).figures if x.id == "twist-planned")
            for ops in ((), (made("crossmember", profile="box", height_mm=80.0, width_mm=80.0),))
        ]
        self.assertGreater(rows[1], rows[0])


class Joints(SimpleTestCase):
    """What is put in where a rail was cut through."""

    def of(self, result, rule, kind="riser"):
        return f.check_of(result, f"{rule}:it-{kind}:left")

    def test_a_post_against_the_rail_by_hand(self):
        op = made("z-step", box={"depth_mm": 100.0, "wall_mm": 6.0})
        result = evaluate(f.with_operations(f.demo(), op))
        p = profile("box", 100.0, 60.0, 6.0)
        check = self.of(result, "joint-bending")
        self.assertAlmostEqual(check.why.values["piece"], p.i_y / 50.0 * 248.0, places=3)
        self.assertAlmostEqual(check.value, check.why.values["piece"] / check.why.values["rail"])

    def test_side_plates_deepen_the_post(self):
        plate = {"thickness_mm": 6.0, "overlap_mm": 280.0}
        bare, plated = (evaluate(f.with_operations(f.demo(), made("z-step", outer_plate=p))) for p in (None, plate))
        self.assertGreater(self.of(plated, "joint-bending").value, self.of(bare, "joint-bending").value)
        self.assertLess(self.of(plated, "joint-panel").value, self.of(bare, "joint-panel").value)

    def test_a_short_overlap_works_its_welds_harder(self):
        rows = [
            self.of(
                evaluate(f.with_operations(f.demo(), made("z-step", method="set-on", rise_mm=155.0, overlap_mm=mm))),
                "joint-overlap",
                "overlap",
            ).value
            for mm in (120.0, 400.0)
        ]
        self.assertGreater(rows[0], 2.0 * rows[1])

    def test_a_rail_set_on_top_rises_by_its_height_at_least(self):
        with self.assertRaisesRegex(InvalidInputs, "rises by its own height"):
            evaluate(f.with_operations(f.demo(), made("z-step", method="set-on", rise_mm=100.0)))

    def test_without_loads_the_use_is_not_computed_but_the_capacity_is(self):
        result = evaluate(f.with_survey(f.with_operations(f.demo(), made("z-step")), masses=()))
        self.assertEqual(self.of(result, "joint-use").verdict, "not computed")
        self.assertIsNotNone(self.of(result, "joint-bending").value)

    def test_a_hanger_on_metal_that_comes_out(self):
        op = made("z-step", place={"anchor_id": "front-hanger", "offset_mm": -60.0})
        inputs = f.with_operations(f.demo(), op)
        inputs = inputs.model_copy(update={"design": inputs.design.model_copy(update={"seats": ()})})
        check = next(c for c in evaluate(inputs).checks if c.limit_id == "in-the-cut" and c.id.endswith(":left"))
        self.assertEqual(check.verdict, "fails")
        self.assertIn("Rear spring, front hanger", check.remedy)

    def test_the_root_of_the_butt(self):
        def throat(**fields):
            result = evaluate(f.with_operations(f.demo(), made("splice", **fields)))
            return f.check_of(result, "throat:it:left")

        self.assertEqual(throat(root_gap_mm=2.5).verdict, "holds")
        self.assertAlmostEqual(throat(root_gap_mm=1.0).value, 0.4)
        self.assertIn("filler piece", throat(root_gap_mm=6.0).remedy)
        self.assertEqual(throat(root_gap_mm=0.0, weld="two-sided").verdict, "holds")

    def test_a_butted_jog_wider_than_half_the_rail(self):
        result = evaluate(f.with_operations(f.demo(), made("narrow", jog="butt", inward_mm=45.0)))
        self.assertAlmostEqual(f.check_of(result, "jog-lap:it:left").value, 0.25)
        self.assertEqual(f.check_of(result, "jog-lap:it:left").verdict, "fails")


class SteelOfTheRail(SimpleTestCase):
    """Welding what must not be welded, or what nobody knows."""

    def with_steel(self, steel, **more):
        left = f.demo().survey.rails.left.model_copy(update={"steel_id": steel, **more})
        rails = f.demo().survey.rails.model_copy(update={"left": left})
        return {c.id: c for c in evaluate(f.with_survey(f.demo(), rails=rails)).checks}

    def test_heat_treated_and_cast_stop(self):
        for steel in ("heat-treated", "cast"):
            self.assertEqual(self.with_steel(steel)["weldable:rail:left"].verdict, "fails", steel)

    def test_unknown_is_not_computed_in_preheat_and_says_what_to_do(self):
        check = self.with_steel("unknown")["preheat:rail:left"]
        self.assertEqual(check.verdict, "not computed")
        self.assertIn("hardness", check.remedy)

    def test_chromium_steel_asks_for_preheat_and_an_analysis_overrules(self):
        self.assertEqual(self.with_steel("4130")["preheat:rail:left"].verdict, "fails")
        known = self.with_steel("unknown", analysis=Analysis(c=0.12, mn=0.6))["preheat:rail:left"]
        self.assertAlmostEqual(known.value, 0.22)
        self.assertEqual(known.verdict, "holds")


class Measured(SimpleTestCase):
    """A reading changes the margins of its own side, through the same road as a plan."""

    def test_a_thin_patch_and_a_thin_plate(self):
        for kind, key in (("repair", "patch-thickness"), ("plate", "outer-thickness")):
            with self.subTest(kind):
                op = made(kind, thickness_mm=6.0)
                inputs = f.with_operations(f.demo(), op)
                entry = {
                    "number": 1,
                    "at": "2026-10-05T10:00:00+00:00",
                    "by": "bram",
                    "operation": "it",
                    "key": key,
                    "side": "left",
                    "value": 3.0,
                }
                inputs = inputs.model_copy(update={"as_built": AsBuilt(entries=(ReadingEntry(**entry),))})
                state = as_built_state(inputs.design.operations, inputs.as_built.entries)
                own = inputs.survey, inputs.design.operations, inputs.design.seats
                shear = {
                    side: [compare_rail(*own, side, s).built.shear_capacity for s in (state, planned_state(own[1]))]
                    for side in ("left", "right")
                }
                self.assertTrue((shear["left"][0] <= shear["left"][1] * (1 + 1e-9)).all())
                self.assertTrue((shear["left"][0] < shear["left"][1] * 0.999).any())
                self.assertTrue((shear["right"][0] == shear["right"][1]).all())

    def test_each_reading_moves_what_it_measures(self):
        rows = (
            ("z-step", "rise", 70.0, "rise_mm"),
            ("raise", "depth", 33.0, "depth_mm"),
            ("narrow", "inward", 18.0, "inward_mm"),
            ("stretch", "length", 140.0, "length_mm"),
            ("bracket", "height", 71.0, "height_mm"),
            ("repair", "patch-thickness", 4.4, "thickness_mm"),
        )
        for kind, key, value, field in rows:
            self.assertEqual(getattr(made(kind).as_measured({key: value}), field), value, kind)
        shorter = made("stretch", length_mm=-150.0).as_measured({"length": 149.0, "position": -905.0})
        self.assertEqual((shorter.length_mm, shorter.place.offset_mm), (-149.0, -905.0))


class Schools(SimpleTestCase):
    """Where practitioners differ, both ways are open, and each changes what it should."""

    def stiffness(self, *operations):
        figures = evaluate(f.with_operations(f.demo(), *operations)).figures
        return next(x.value for x in figures if x.id == "twist-planned")

    def test_a_subframe_welded_in_is_counted(self):
        bolted, known, unknown = (
            made("raise", subframe=how, tie=tie)
            for how, tie in (("bolted", {}), ("welded", {"height_mm": 90.0}), ("welded", None))
        )
        rows = [self.stiffness(op) for op in (bolted, known, unknown)]
        self.assertGreater(rows[1], rows[0])
        self.assertAlmostEqual(rows[2], rows[0], msg="without its section it is not guessed")

    def test_a_hole_saw_takes_its_setting_up(self):
        minutes = {
            tool: next(s for s in made("notch", tool=tool).steps("it") if s.key == "cut").minutes
            for tool in ("template", "hole-saw")
        }
        self.assertGreater(minutes["hole-saw"], 2 * minutes["template"])
        words = [next(s for s in made("notch", tool=t).steps("it") if s.key == "cut").detail for t in minutes]
        self.assertTrue(all("minutes" in w for w in words), "the plan shows both times")

    def test_a_bracket_welded_at_once_is_welded_with_the_tacks(self):
        phases = [
            next(s for s in made("bracket", weld_when=w).steps("it") if s.key == "weld").phase
            for w in ("after-all-checks", "at-once")
        ]
        self.assertEqual(phases, ["weld", "tack"])

    def test_plugs_need_a_hole_that_reaches_the_root(self):
        small, good = (
            f.check_of(
                evaluate(f.with_operations(f.demo(), made("plate", plugs={"count": 6, "hole_mm": d}))),
                "plug-hole:it:left",
            )
            for d in (9.0, 14.0)
        )
        self.assertEqual((small.verdict, good.verdict), ("fails", "holds"))
        figures = evaluate(f.with_operations(f.demo(), made("plate", plugs={"count": 6, "hole_mm": 16.0}))).figures
        carried = next(x.value for x in figures if x.id == "plugs-it")
        self.assertAlmostEqual(carried, 6 * math.pi / 4 * 256 * 0.3 * 482.6 / 1000)

    def test_weld_washers_have_their_step(self):
        keys = [s.key for s in made("hole", weld_washers=True).steps("it")]
        self.assertIn("washers", keys)
        self.assertNotIn("washers", [s.key for s in made("hole").steps("it")])

    def test_bracing_one_side_or_both(self):
        details = [made("splice", brace=b).steps("it")[0].detail for b in ("both", "open-side")]
        self.assertNotIn("open side", details[0])
        self.assertIn("open side only", details[1])

    def test_spares_are_told_beside_the_option(self):
        inputs = f.demo()
        changed = inputs.model_copy(update={"design": inputs.design.model_copy(update={"stock_spares": "fit"})})
        both = side_by_side([("1", "one", inputs), ("2", "two", changed)])
        self.assertEqual([o.stock_spares for o in both.options], ["not said", "fit"])
