"""Pointers lead somewhere: every missing input and every problem names a field that is there to be filled."""

from django.test import SimpleTestCase

from nodulant.asbuilt.log import OverrideEntry, ReadingEntry, WithdrawalEntry, overridden, standing
from nodulant.base.errors import InputError, NodulantError, NotSolvable, UnknownReference
from nodulant.evaluate import evaluate
from nodulant.materials import STEELS, find_steel
from nodulant.materials.steel import DENSITY_KG_PER_MM3, ELASTIC_MODULUS_MPA, SHEAR_MODULUS_MPA
from nodulant.parts.limits import LIMITS, LimitChange, find_limit
from nodulant.survey.before_teardown import readings_before_teardown
from nodulant.survey.vehicle import Axle
from tests import fixtures as f

WHEN = {"at": "2026-10-05T10:00:00+00:00", "by": "bram"}


def resolve(inputs, pointer):
    """The value at a JSON pointer of the inputs; fails where the path does not exist."""
    node = inputs.model_dump(mode="json")
    for part in pointer.strip("/").split("/"):
        node = node[int(part)] if isinstance(node, list) else node[part]
    return node


class Pointers(SimpleTestCase):
    def test_every_reading_before_teardown_points_at_its_field(self):
        for reading in readings_before_teardown(f.demo().survey):
            self.assertIsNotNone(resolve(f.demo(), reading.pointer), reading.pointer)
            self.assertTrue(reading.why)

    def test_what_is_missing_is_really_missing(self):
        bare = f.with_survey(f.demo(), rear=Axle(), masses=(), crossmembers=(), wheelbase_mm=None)
        seen = set()
        for check in evaluate(bare).checks:
            for pointer in check.missing:
                seen.add(pointer)
                if check.limit_id == "place-wanted":
                    continue  # points at a list that wants one more
                self.assertFalse(resolve(bare, pointer), f"{check.id} points at {pointer}, which is there")
        self.assertTrue({"/survey/wheelbase_mm", "/survey/masses", "/survey/rear/tube_diameter_mm"} <= seen)

    def test_a_check_without_a_value_never_holds(self):
        bare = f.with_survey(f.demo(), rear=Axle(), masses=(), crossmembers=(), wheelbase_mm=None)
        for check in evaluate(bare).checks:
            self.assertEqual(check.value is None, check.verdict == "not computed", check.id)
            self.assertEqual(check.margin is None, check.value is None)
            self.assertEqual(bool(check.missing), check.value is None, check.id)

    def test_ids_are_unique(self):
        ids = [c.id for c in evaluate(f.with_readings(f.demo(), ("depth", "left", 60.0))).checks]
        self.assertEqual(len(set(ids)), len(ids))


class Errors(SimpleTestCase):
    """One root, doubled with the standard exception that each specialises."""

    def test_family(self):
        for kind, standard in (
            (InputError, ValueError),
            (UnknownReference, LookupError),
            (NotSolvable, ArithmeticError),
        ):
            error = kind("words", field="/x", found="1", acceptable="2")
            self.assertIsInstance(error, NodulantError)
            self.assertIsInstance(error, standard)
            self.assertEqual((error.message, error.field, error.found, error.acceptable), ("words", "/x", "1", "2"))
            self.assertTrue(kind.code)


class Metals(SimpleTestCase):
    """Values that every table has; from memory of the standards named beside them."""

    def test_structural_steel(self):
        self.assertAlmostEqual(find_steel("mild").yield_mpa, 36_000 * 0.00689476, delta=0.5)  # ASTM A36: 36 ksi
        self.assertEqual(find_steel("s355").yield_mpa, 355)  # EN 10025-2
        self.assertAlmostEqual(ELASTIC_MODULUS_MPA / (2 * SHEAR_MODULUS_MPA) - 1, 0.3, delta=0.01)  # Poisson
        self.assertAlmostEqual(DENSITY_KG_PER_MM3 * 1e9, 7850)

    def test_unknown_names_are_answered_with_the_known(self):
        with self.assertRaises(UnknownReference) as caught:
            find_steel("unobtainium")
        for steel in STEELS:
            self.assertIn(steel.id, caught.exception.acceptable)
            self.assertTrue(steel.source)

    def test_limits_have_unique_ids_and_a_change_wins(self):
        self.assertEqual(len({x.id for x in LIMITS}), len(LIMITS))
        limit, change = find_limit("use-limit", {"use-limit": LimitChange(value=0.8, reason="rental fleet")})
        self.assertEqual((limit.value, change.reason), (0.8, "rental fleet"))
        self.assertIsNone(find_limit("use-limit", {})[1])


class TheLog(SimpleTestCase):
    """Nothing is changed or deleted; a wrong entry is withdrawn by a counter-entry."""

    def entries(self):
        reading = ReadingEntry(number=1, operation="cut", key="depth", side="left", value=60, **WHEN)
        passed = OverrideEntry(number=2, subject="teardown", reason="a", **WHEN)
        again = OverrideEntry(number=3, subject="teardown", reason="b", **WHEN)
        return reading, passed, again

    def test_the_newest_override_speaks(self):
        self.assertEqual(overridden(self.entries(), "teardown").reason, "b")
        self.assertIsNone(overridden(self.entries(), "brace"))

    def test_withdrawn_entries_do_not_stand_and_withdrawals_are_no_entries(self):
        back = WithdrawalEntry(number=4, entry=3, reason="wrong", **WHEN)
        left = standing((*self.entries(), back))
        self.assertEqual([e.number for e in left], [1, 2])
        self.assertEqual(overridden((*self.entries(), back), "teardown").reason, "a")
