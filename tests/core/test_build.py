"""Build steps: generated, ordered, gated; and what as-built readings do."""

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from nodulant.asbuilt.compare import Known, as_built_state, asked_readings
from nodulant.asbuilt.log import (
    DecisionEntry,
    OverrideEntry,
    ReadingEntry,
    SignOffEntry,
    WithdrawalEntry,
)
from nodulant.asbuilt.taken import taken_readings
from nodulant.axles.points import HardPoint
from nodulant.build.general import TEARDOWN
from nodulant.build.plan import build_plan
from nodulant.clearance.obstacle import BarShape, Obstacle
from nodulant.evaluate import evaluate
from nodulant.frame.ops.mounts.bolted import BoltGroup
from nodulant.job.document import AsBuilt
from nodulant.parts.specs import PHASES
from nodulant.units.inline import told
from tests import fixtures as f
from tests.core.test_operations import ALL, made

QUICK = settings(deadline=None, derandomize=True, max_examples=60)
WHEN = {"at": "2026-10-05T10:00:00+00:00", "by": "bram"}


def sign(number, step):
    return SignOffEntry(number=number, step=step, evaluated="hash", **WHEN)


def reading(number, key, side, value):
    return ReadingEntry(number=number, operation="axle-notch", key=key, side=side, value=value, **WHEN)


def plan(entries=(), operations=None, locked=False):
    inputs = f.demo()
    locks = {TEARDOWN: "readings are missing"} if locked else {}
    return build_plan(inputs.survey, operations or inputs.design.operations, tuple(entries), locks)


class Order(SimpleTestCase):
    """A vehicle tipping, a nut you can no longer reach: all from steps in the wrong order."""

    def test_prerequisites_come_before(self):
        seen = set()
        for step in plan():
            self.assertTrue(set(step.needs) <= seen, step.id)
            seen.add(step.id)

    def test_shop_order(self):
        ids = [s.id for s in plan()]
        order = (
            "teardown",
            "loads-off",
            "supports",
            "springs",
            "axle-notch/brace/both",
            "axle-notch/mark/left",
            "axle-notch/drill/left",
            "axle-notch/cut/left",
            "box-rear/inside/left",
            "axle-notch/liner/left",
            "axle-notch/clear/left",
            "axle-notch/weld/left",
            "axle-notch/plates/left",
            "paint",
            "prove",
        )
        self.assertEqual(sorted(order, key=ids.index), list(order))

    @QUICK
    @given(st.data())
    def test_any_order_of_signing_what_is_open_ends_with_all_done(self, data):
        entries = []
        for _ in range(60):
            steps = plan(entries)
            open_ = [s for s in steps if s.status == "open"]
            if not open_:
                break
            chosen = data.draw(st.sampled_from(open_))
            rank = PHASES.index(chosen.spec.phase)
            waiting = [s for s in steps if s.status in {"open", "waiting"} and s.id in chosen.needs]
            self.assertEqual(waiting, [], "an open step waits for nothing")
            self.assertGreaterEqual(rank, 0)
            entries.append(sign(len(entries) + 1, chosen.id))
        self.assertTrue(all(s.status == "done" for s in plan(entries)))

    def test_what_an_older_log_signed_on_the_left_counts_for_a_thing_in_one_piece(self):
        """A truss had a left and a right step once; what was signed then is not asked for again."""
        ops = tuple(o for o in f.job().inputs("step").design.operations if o.kind == "truss")
        bare, older = (plan(e, ops) for e in ((), [sign(1, "rear-truss/fit/left"), sign(2, "rear-truss/fit/right")]))
        rows = [{s.id: s.status for s in steps if s.operation == "rear-truss"} for steps in (bare, older)]
        self.assertTrue({"rear-truss/fit/both", "rear-truss/weld/both"} <= set(rows[0]))
        self.assertEqual((rows[0]["rear-truss/fit/both"], rows[1]["rear-truss/fit/both"]), ("waiting", "done"))

    def test_removing_an_operation_removes_its_steps(self):
        box = f.demo().design.operations[:1]
        self.assertFalse([s for s in plan(operations=box) if s.operation == "axle-notch"])
        self.assertTrue([s for s in plan(operations=box) if s.operation == "box-rear"])

    def test_inside_before_closed(self):
        """Captive nuts and drain holes go in before the section is boxed."""
        steps = {s.id: s for s in plan()}
        self.assertIn("box-rear/inside/left", steps["box-rear/fit/left"].needs)

    def test_cautions_stand_where_they_apply(self):
        steps = {s.id: s for s in plan()}
        self.assertTrue(any("never only a jack" in c for c in steps["supports"].spec.cautions))
        self.assertTrue(any("Fire watch" in c for c in steps["axle-notch/weld/left"].spec.cautions))
        self.assertTrue(any("kick" in c for c in steps["axle-notch/cut/left"].spec.cautions))


class Keys(SimpleTestCase):
    def test_every_step_of_an_operation_has_a_key_of_its_own_bolted_too(self):
        """Two steps of one key would be signed together."""
        for kind in ALL:
            op = made(kind, id="it", name="x")
            groups = (BoltGroup(), BoltGroup(sleeves=True), BoltGroup(nuts="captive"))
            own = groups if "bolts" in type(op).model_fields else ()
            for one in (op, *(op.model_copy(update={"bolts": group}) for group in own)):
                keys = [s.key for s in one.steps("")]
                self.assertEqual(sorted(set(keys)), sorted(keys), kind)


class AsATapeReads(SimpleTestCase):
    def test_no_step_tells_a_length_with_a_minus(self):
        for job, option in (("wherry", "step"), ("wherry", "arc"), ("brackmoor", "welded"), ("ostrand", "watts")):
            for step in evaluate(f.job(job).inputs(option)).steps:
                words = told(f"{step.spec.title}. {step.spec.detail}", "in16")
                self.assertNotRegex(words, r'(?<![\d/\w])-\d[\d /]*"', step.id)


class BesideTheHeat(SimpleTestCase):
    def told(self, y_mm, x_mm=2610.0):
        inputs = f.demo("arc")
        run = BarShape(
            a=HardPoint(x_mm=x_mm - 200, y_mm=y_mm, z_mm=60), b=HardPoint(x_mm=x_mm, y_mm=y_mm, z_mm=60), diameter_mm=5
        )
        line = Obstacle(id="pipe", name="brake pipe", kind="line", body=run)
        design = inputs.design.model_copy(update={"obstacles": (line,)})
        steps = evaluate(inputs.model_copy(update={"design": design})).steps
        return [next(s for s in steps if s.id == key).spec.detail for key in ("loads-off", "lines-back")]

    def test_a_line_along_the_cut_is_named_off_and_back_with_the_work_that_it_passes(self):
        for detail in self.told(380.0):
            self.assertIn("pass: brake pipe (Boxing over the axle, Arc notch over the axle)", detail)

    def test_one_that_runs_in_the_middle_or_far_ahead_is_not(self):
        for detail in (*self.told(0.0), *self.told(380.0, x_mm=900.0)):
            self.assertNotIn("brake pipe", detail)


class Locks(SimpleTestCase):
    def test_the_lock_keeps_teardown_and_all_after_it_waiting(self):
        self.assertEqual({s.status for s in plan(locked=True)}, {"waiting"})
        self.assertEqual(plan()[0].status, "open")

    def test_an_override_opens_the_next_and_keeps_its_reason(self):
        passed = OverrideEntry(number=1, subject="teardown", reason="gauge is on loan", **WHEN)
        steps = plan([passed])
        self.assertEqual((steps[0].status, steps[0].reason), ("overridden", "gauge is on loan"))
        self.assertEqual(steps[1].status, "open")

    def test_a_withdrawn_signature_closes_again(self):
        entries = [sign(1, "teardown"), WithdrawalEntry(number=2, entry=1, reason="wrong van", **WHEN)]
        self.assertEqual(plan(entries)[0].status, "open")


class Readings(SimpleTestCase):
    """As-built closes the loop, on its own side, through the same road as the plan."""

    def test_three_mm_too_deep_costs_margin_on_its_own_side_only(self):
        inputs = f.demo()
        depth = inputs.design.operations[1].depth_mm + 3
        result = evaluate(f.with_readings(inputs, ("depth", "left", depth)))
        planned, built = (f.check_of(result, f"modulus-bottom:axle-notch:left{tail}") for tail in ("", "@as-built"))
        self.assertLess(built.value, planned.value)
        right = [f.check_of(result, f"modulus-bottom:axle-notch:right{tail}").value for tail in ("", "@as-built")]
        self.assertEqual(right[0], right[1])
        off = f.check_of(result, "as-built:axle-notch-depth:left@as-built")
        self.assertEqual(off.verdict, "fails")
        self.assertAlmostEqual(off.value, 3.0)

    def test_the_newest_standing_reading_counts(self):
        entries = (reading(1, "depth", "left", 60.0), reading(2, "depth", "left", 58.2))
        self.assertEqual(taken_readings(entries)["axle-notch/depth/left"].value, 58.2)
        taken_back = (*entries, WithdrawalEntry(number=3, entry=2, reason="misread", **WHEN))
        self.assertEqual(taken_readings(taken_back)["axle-notch/depth/left"].value, 60.0)

    def test_nothing_measured_is_no_as_built(self):
        self.assertIsNone(as_built_state(f.demo().design.operations, ()))

    def test_decisions_are_shown_beside_their_reading(self):
        decided = DecisionEntry(
            number=2, subject="axle-notch/depth/left", choice="accept", reason="margin is there", **WHEN
        )
        entries = (reading(1, "depth", "left", 61.0), decided)
        inputs = f.demo()
        asked = {r.id: r for r in asked_readings(inputs.design.operations, inputs.survey, Known(entries, {}, "mm"))}
        self.assertEqual(asked["axle-notch/depth/left"].decision, "accept")
        self.assertIsNone(asked["axle-notch/depth/right"].value)

    def test_every_plate_asks_for_its_thickness_on_both_sides(self):
        inputs = f.demo()
        asked = {r.id for r in asked_readings(inputs.design.operations, inputs.survey, Known((), {}, "mm"))}
        for id_ in (
            "axle-notch/position",
            "axle-notch/width",
            "axle-notch/liner-thickness",
            "axle-notch/outer-overlap",
        ):
            self.assertTrue({f"{id_}/left", f"{id_}/right"} <= asked, id_)

    def test_a_thinner_liner_as_built_is_weaker(self):
        result = evaluate(f.with_readings(f.demo("straight"), ("liner-thickness", "left", 4.0)))
        pair = [f.check_of(result, f"modulus-bottom:axle-notch:left{tail}").value for tail in ("", "@as-built")]
        self.assertLess(pair[1], pair[0])

    def test_readings_that_do_not_go_together_are_not_computed_and_say_so(self):
        """A wrong reading must not take the whole job down."""
        result = evaluate(f.with_readings(f.demo(), ("depth", "left", 400.0)))
        check = f.check_of(result, "capacity-least:rail:left@as-built")
        self.assertEqual(check.verdict, "not computed")
        self.assertIn("as deep as the rail", check.remedy)
        self.assertEqual(f.check_of(result, "modulus-top:axle-notch:right@as-built").verdict, "weaker")
        thick = evaluate(f.with_readings(f.demo(), ("liner-thickness", "left", 39.0), ("width", "left", 40.0)))
        self.assertIn("readings", f.check_of(thick, "capacity-least:rail:left@as-built").remedy)

    def test_sizes_are_more_than_nothing(self):
        for value in (0.0, -3.0, float("nan"), 1e9):
            with self.subTest(value), self.assertRaises(ValueError):
                reading(1, "depth", "left", value)
        self.assertEqual(reading(1, "position", "left", -3.0).value, -3.0)

    def test_log_is_part_of_what_is_hashed(self):
        inputs = f.demo()
        signed = inputs.model_copy(update={"as_built": AsBuilt(entries=(sign(1, "teardown"),))})
        self.assertNotEqual(signed.content_hash(), inputs.content_hash())


class Words(SimpleTestCase):
    """A class's name on a screen or a pattern tells a fabricator nothing."""

    def test_no_name_is_a_program_s(self):
        for option in ("arc", "straight", "step"):
            result = evaluate(f.demo(option))
            said = (
                [p.name for p in result.parts]
                + [r.spec.name for r in result.readings]
                + [s.spec.title for s in result.steps]
            )
            for name in said:
                self.assertNotRegex(name, r"[a-z][A-Z]")
