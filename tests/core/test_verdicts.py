"""What is red, what is weaker, what is stock's own: the classes by themselves, away from any frame."""

import numpy as np
from django.test import SimpleTestCase

from nodulant.checks.apart import told_apart
from nodulant.checks.case_rules import CLOSE_IN_A_HOLE, Factors, judge_factors
from nodulant.checks.check import FARTHEST, Subject, Why, beyond, judge, not_computed, order, told
from nodulant.checks.groups import counts, grouped
from nodulant.checks.rule import by_rule
from nodulant.evaluate import evaluate
from nodulant.parts.limit import LimitChange, StrengthRule
from nodulant.parts.limits import LIMITS, find_limit
from nodulant.parts.reads import MET, READS, reads
from nodulant.units.said import tell
from tests import fixtures as f

WHY = Why(formula="a", values={"a": 1.0})
X = np.array([0.0, 100.0, 200.0])


def case(own, stock=None, weakened=None, whole=None):
    """Factors of safety at three stations."""
    stock_at = None if stock is None else np.array(stock, dtype=float)
    known = stock_at if whole is None else np.array(whole, dtype=float)
    return Factors(X, np.array(own, dtype=float), stock_at, X, known, None if weakened is None else np.array(weakened))


def row(rule="seam", value=0.5, subject="thing", side="left", **more):
    return judge(rule, Subject(subject=subject, side=side, **more), value, WHY, {})


class Factor(SimpleTestCase):
    """A place fails where it is too weak and weaker than it was; not because it is not as strong as before."""

    def verdict(self, *args, limit=1.5, **more):
        judged = judge_factors(case(*args), limit, **more)
        return judged.verdict, judged.row

    def test_half_as_strong_and_strong_enough_holds(self):
        self.assertEqual(self.verdict((3.0, 2.0, 3.0), (4.0, 4.0, 4.0)), ("holds", 1))

    def test_too_weak_where_it_was_cut_fails_there(self):
        self.assertEqual(self.verdict((3.0, 1.2, 2.0), (4.0, 2.0, 4.0)), ("fails", 1))

    def test_as_weak_as_stock_is_stock_s_own(self):
        self.assertEqual(self.verdict((3.0, 1.2, 2.0), (4.0, 1.2, 4.0)), ("stock itself", 1))

    def test_what_stock_lacks_is_no_excuse_for_less(self):
        """Stock at 1.3 of 1.5 and the plan at 1.1: weaker than it was, and too weak."""
        self.assertEqual(self.verdict((3.0, 1.1, 2.0), (4.0, 1.3, 4.0)), ("fails", 1))

    def test_where_nothing_was_taken_a_tenth_is_no_fault(self):
        """A stiffer part draws more: 1.45 for 1.55 where the rail was not touched is close, where it was cut it fails."""
        self.assertEqual(self.verdict((3.0, 1.45, 3.0), (3.0, 1.55, 3.0), (False, False, False))[0], "close")
        self.assertEqual(self.verdict((3.0, 1.45, 3.0), (3.0, 1.55, 3.0), (False, True, False))[0], "fails")

    def test_within_the_solver_s_own_hundredth_it_is_close(self):
        self.assertEqual(self.verdict((3.0, 1.49, 3.0), (4.0, 3.0, 4.0))[0], "close")
        self.assertEqual(self.verdict((3.0, 1.48, 3.0), (4.0, 3.0, 4.0))[0], "fails")

    def test_without_stock_only_the_limit_judges(self):
        self.assertEqual(self.verdict((3.0, 1.2, 2.0)), ("fails", 1))
        self.assertEqual(self.verdict((3.0, 1.6, 2.0)), ("holds", 1))

    def test_the_worst_place_may_not_be_worked_a_tenth_harder_than_stock_s(self):
        """Stock's worst 2.6; 2.2 is 1.18 times as hard worked, 2.5 only 1.04; above 2.25 nobody minds."""
        stock = (2.6, 4.0, 4.0)
        self.assertEqual(self.verdict((3.0, 2.2, 3.0), stock, peak=1.1)[0], "fails")
        self.assertEqual(self.verdict((3.0, 2.5, 3.0), stock, peak=1.1)[0], "holds")
        self.assertEqual(self.verdict((3.0, 2.3, 3.0), stock, peak=1.1)[0], "holds")
        self.assertEqual(self.verdict((3.0, 2.2, 3.0), stock)[0], "holds", "accidents and holes compare no worst place")
        self.assertEqual(self.verdict((3.0, 2.2, 3.0), stock, peak=1.3)[0], "holds", "a limit of one's own counts")

    def test_in_a_hole_close_reaches_further(self):
        self.assertEqual(self.verdict((3.0, 1.1, 3.0), (4.0, 4.0, 4.0), limit=1.0, close=CLOSE_IN_A_HOLE)[0], "close")
        self.assertEqual(self.verdict((3.0, 1.3, 3.0), (4.0, 4.0, 4.0), limit=1.0, close=CLOSE_IN_A_HOLE)[0], "holds")


class Ratio(SimpleTestCase):
    """One scale for every row: 1 at its limit, 2 where it is twice as bad."""

    def test_both_directions(self):
        self.assertAlmostEqual(beyond(2.0, find_limit("seam", {})[0]), 2.0)
        self.assertAlmostEqual(beyond(0.75, find_limit("use-limit", {})[0]), 2.0)
        self.assertAlmostEqual(beyond(3.0, find_limit("use-limit", {})[0]), 0.5)

    def test_never_without_bounds(self):
        for limit in LIMITS:
            for value in (-1e9, -1.0, 0.0, 1e-12, 1.0, 1e12):
                with self.subTest(f"{limit.id} {value}"):
                    ratio = beyond(value, limit)
                    self.assertTrue(1 / FARTHEST <= ratio <= FARTHEST)

    def test_what_is_met_or_not_has_no_room_to_spare(self):
        """'All of the readings taken' is not at its limit: it cannot be better, and it stands below what can fail."""
        for rule, met, missed in (("survey-complete", 1.0, 0.9), ("end-shape", 1.0, 0.0), ("double-count", 0.0, 1.0)):
            rows = [judge(rule, Subject(subject="x"), v, WHY, {}, same_as_stock=v == met) for v in (met, missed)]
            self.assertEqual((rows[0].verdict, rows[0].beyond), ("holds", None), rule)
            self.assertEqual(rows[1].verdict, "fails", rule)
            self.assertGreater(rows[1].beyond, 1.0, rule)
        rows = order([row("seam", 0.8), judge("end-shape", Subject(subject="plate"), 1.0, WHY, {}, same_as_stock=True)])
        self.assertEqual([c.limit_id for c in rows], ["seam", "end-shape"])
        self.assertTrue(rows[1].yes_no)


class Groups(SimpleTestCase):
    """One fault is one group, counted once, wherever it is counted."""

    def test_left_and_right_and_rows_of_one_cause(self):
        rows = [row(side="left", value=2.0), row(side="right", value=1.2), row("slender", 0.4, cause="seams thing")]
        (both, other) = grouped(rows)
        self.assertEqual((both.verdict, both.ids), ("fails", ("seam:thing:left", "seam:thing:right")))
        self.assertEqual((other.key, other.verdict), ("seams thing@planned", "holds"))

    def test_the_worst_is_the_head_and_notes_are_not_counted(self):
        rows = [row(value=0.9, cause="one"), row("slender", 3.0, cause="one"), row("twist-angle", 9.0, subject="frame")]
        groups = grouped(rows)
        self.assertEqual((groups[0].title, groups[0].verdict), (rows[1].title, "fails"))
        self.assertEqual(counts(groups), {"fails": 1, "not computed": 0, "weaker": 0, "close": 0, "holds": 0})

    def test_what_lacks_one_input_is_one_group(self):
        rows = [not_computed(rule, Subject(subject=rule), ("/survey/masses",), {}) for rule in ("seam", "slender")]
        self.assertEqual([(g.verdict, len(g.ids)) for g in grouped(rows)], [("not computed", 2)])

    def test_as_built_is_a_group_of_its_own(self):
        rows = [row(), row(state="as-built")]
        self.assertEqual(len(grouped(rows)), 2)


class Rule(SimpleTestCase):
    """'As strong as stock' makes what is weaker fail, and says who asks for it."""

    weaker = told(find_limit("modulus-top", {})[0], Subject(subject="cut"), 0.7, WHY, "weaker")

    def test_both_rules(self):
        (kept,) = by_rule([self.weaker], StrengthRule())
        self.assertEqual(kept.verdict, "weaker")
        (failed,) = by_rule([self.weaker], StrengthRule(kind="as strong as stock", reason="inspector's letter"))
        self.assertEqual(failed.verdict, "fails")
        self.assertIn("inspector's letter", failed.basis)

    def test_in_a_job(self):
        inputs = f.demo()
        strict = StrengthRule(kind="as strong as stock", reason="club rules")
        asked = inputs.model_copy(update={"design": inputs.design.model_copy(update={"rule": strict})})
        row_ = f.check_of(evaluate(asked), "modulus-bottom:axle-notch:left")
        self.assertEqual(row_.verdict, "fails")
        self.assertEqual(f.check_of(evaluate(inputs), row_.id).verdict, "weaker")

    def test_a_rule_without_its_reason_is_refused(self):
        with self.assertRaises(ValueError):
            StrengthRule(kind="as strong as stock")


class Apart(SimpleTestCase):
    """Two rows of one title say which work they are about; a lone one stays short."""

    def test_only_where_titles_clash(self):
        box, notch = f.demo().design.operations
        twins = [row("leg-least", 1.0, subject=op.id) for op in (box, notch)]
        names = [c.title for c in told_apart([*twins, row()], (box, notch))]
        self.assertEqual(names[:2], [f"{twins[0].title}: {box.name}", f"{twins[1].title}: {notch.name}"])
        self.assertEqual(names[2], row().title)

    def test_left_and_right_do_not_clash(self):
        notch = f.demo().design.operations[1]
        pair = [row("leg-least", 1.0, subject=notch.id, side=side) for side in ("left", "right")]
        self.assertEqual([c.title for c in told_apart(pair, (notch,))], [pair[0].title] * 2)


class Reads(SimpleTestCase):
    """Every limit reads as a sentence, and its value with it."""

    def test_each_limit_has_its_words(self):
        for limit in LIMITS:
            with self.subTest(limit.id):
                self.assertTrue((limit.unit in READS) != (limit.id in MET), "one of both, not neither and not both")
                words = tell(reads(limit, limit.value), "in16")
                self.assertNotIn("{", words)
                self.assertNotIn(" mm", words)

    def test_as_a_person_says_it(self):
        by_id = {limit.id: limit for limit in LIMITS}
        rows = (
            ("overlap", 1.033, "103 % of what it needs"),
            ("hole-distance", 1.815, "1.81 diameters"),
            ("corner-radius", 12.7, '1/2"'),
            ("end-shape", 0.0, "Straight across a flange in tension."),
            ("weldable", 1.0, "This steel may be welded."),
        )
        for rule, value, words in rows:
            self.assertEqual(tell(reads(by_id[rule], value), "in16"), words)

    def test_a_limit_finer_than_a_tape_never_reads_nothing(self):
        """0.3 mm of plate is no 0\", 1 mm no 1/16\": in decimals below a sixteenth; nothing stays nothing."""
        for limit in (limit for limit in LIMITS if limit.unit == "mm"):
            for value in (limit.value, 0.3, 1.0, -0.5, 12.7):
                words = tell(reads(limit, value), "in16")
                told = float(words.rstrip('"')) if "/" not in words else None
                if abs(value) < 1.6 and told is not None:
                    self.assertAlmostEqual(told, value / 25.4, delta=0.0006, msg=f"{limit.id} {value}")
        plate = next(limit for limit in LIMITS if limit.id == "as-built-plate")
        self.assertEqual(tell(reads(plate, 0.3), "in16"), '0.012"')
        self.assertEqual(tell(reads(plate, 0.0), "in16"), '0"')


class Limits(SimpleTestCase):
    """A limit of one's own decides, with its reason beside it."""

    def test_of_the_least_that_may_be_left(self):
        inputs = f.demo()
        for least, verdict in ((0.4, "holds"), (0.51, "close"), (0.6, "fails")):
            change = {"capacity-least": LimitChange(value=least, reason="our own habit")}
            asked = inputs.model_copy(update={"design": inputs.design.model_copy(update={"limits": change})})
            row_ = f.check_of(evaluate(asked), "capacity-least:axle-notch:left")
            with self.subTest(least):
                self.assertEqual(row_.verdict, verdict)
                self.assertIn("our own habit", row_.basis)

    def test_what_is_from_memory_is_said_in_the_list_and_not_in_the_row(self):
        limit = find_limit("leg-least", {})[0]
        self.assertIn("from memory", limit.basis)
        self.assertNotIn("from memory", row("leg-least", 1.2).basis)
