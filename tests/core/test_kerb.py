"""The kerb strike under every input: what it lacks is named, and whatever strikes is met by the masses (statics, Newton)."""

import numpy as np
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from nodulant.evaluate import evaluate
from nodulant.job.document import Design
from nodulant.loads import kerb
from nodulant.loads.carried import carried_by
from nodulant.loads.plan import CaseChange, Pull
from tests import fixtures as f
from tests.core.test_space_cases import frame, load

QUICK = settings(deadline=None, derandomize=True, max_examples=40)
PLACES = st.tuples(st.floats(-500, 3300), st.floats(-700, 700), st.floats(-400, 600))
FORCES = st.tuples(*[st.floats(-3e4, 3e4)] * 3)


def kerb_checks(inputs):
    return [c for c in evaluate(inputs).checks if "rail-kerb" in c.id]


def with_masses(inputs, change):
    masses = tuple(m.model_copy(update=change(m)) for m in inputs.survey.masses)
    return f.with_survey(inputs, masses=masses)


def planned_for(inputs, **loads):
    d = inputs.design
    return inputs.model_copy(update={"design": d.model_copy(update={"loads": d.loads.model_copy(update=loads)})})


class Missing(SimpleTestCase):
    """'Not computed' with the pointer of what is not there, never a verdict."""

    def lacks(self, inputs, pointer):
        checks = kerb_checks(inputs)
        self.assertTrue(checks)
        for check in (c for c in checks if ":rail-kerb:" in c.id):
            self.assertEqual((check.verdict, check.value), ("not computed", None), msg=check.id)
            self.assertIn(pointer, check.missing, msg=check.id)

    def test_heights_of_the_masses(self):
        self.lacks(with_masses(f.demo(), lambda m: {"z_mm": None}), "/survey/masses/0/z_mm")

    def test_height_of_a_rear_hub(self):
        self.lacks(f.with_rear(f.demo(), hub_z_left_mm=None), "/survey/rear/hub_z_left_mm")

    def test_track(self):
        self.lacks(f.with_rear(f.demo(), track_mm=None), "/survey/rear/track_mm")

    def test_masses_that_all_lie_in_one_place_do_not_say_how_it_turns(self):
        self.lacks(with_masses(f.demo(), lambda _: {"x_mm": 1200.0, "to_x_mm": None}), "/survey/masses")

    def test_no_masses(self):
        self.lacks(f.with_survey(f.demo(), masses=()), "/survey/masses")

    def test_a_tyre_is_not_asked_for(self):
        """The strike comes in at the hub: where the ground is plays no part."""
        bare = f.with_rear(f.demo(), tyre=None, loaded_radius_mm=None)
        self.assertTrue(all(c.value is not None for c in kerb_checks(bare)))


class Told(SimpleTestCase):
    """What the check says of itself."""

    def test_it_is_an_accident_judged_against_yield_itself(self):
        check = next(c for c in kerb_checks(f.demo("step")) if c.id.startswith("accident-use:rail-kerb:"))
        self.assertEqual((check.unit, check.limit, check.governs.case), ("of safety", 1.0, "kerb"))
        self.assertIn("Nodulant default", check.why.words)

    def test_a_harder_strike_leaves_less_and_the_reason_is_its_basis(self):
        uses = []
        for factor in (0.5, 1.0, 2.0):
            change = {"kerb": CaseChange(factor=factor, reason="a lower kerb in our yard")}
            check = next(
                c
                for c in kerb_checks(planned_for(f.demo("step"), cases=change))
                if c.id.startswith("accident-use:rail-kerb:")
            )
            self.assertIn("a lower kerb in our yard", check.why.words)
            uses.append(check.value)
        self.assertGreater(uses[0], uses[1])
        self.assertGreater(uses[1], uses[2])

    def test_a_frame_that_is_left_as_it_is_uses_just_what_it_did(self):
        inputs = f.demo()
        bare = inputs.model_copy(update={"design": Design()})
        for check in kerb_checks(bare):
            self.assertNotEqual(check.verdict, "fails", msg=(check.id, check.value))


class Balance(SimpleTestCase):
    """Whatever comes in, the frame and its masses together are pushed by nothing."""

    @QUICK
    @given(st.lists(st.builds(Pull, PLACES, FORCES), min_size=1, max_size=8))
    def test_any_strike_is_met(self, pulls):
        fr, carried = frame(), load()
        for loads in kerb.struck(fr, carried, pulls, [p.mirrored() for p in pulls]):
            self.assertTrue(np.isfinite(loads).all())
            size = max(1.0, max(np.abs(p.force).max() for p in pulls)) * len(pulls)
            np.testing.assert_allclose(loads[:, :3].sum(axis=0), 0.0, atol=1e-7 * size)
            moment = loads[:, 3:].sum(axis=0) + np.cross(fr.nodes, loads[:, :3]).sum(axis=0)
            np.testing.assert_allclose(moment, 0.0, atol=0.02 * size * 1000.0)

    @QUICK
    @given(st.lists(st.builds(Pull, PLACES, FORCES), min_size=1, max_size=5))
    def test_a_mirrored_strike_is_the_mirror_image(self, pulls):
        fr, carried = frame(), load()
        one, other = kerb.struck(fr, carried, pulls, [p.mirrored() for p in pulls])
        turned = other.reshape(-1, 2, 6)[:, ::-1].reshape(-1, 6) * np.array([1, -1, 1, -1, 1, -1])
        size = max(1.0, np.abs(one).max())
        np.testing.assert_allclose(turned, one, atol=1e-3 * size)

    def test_a_dumbbell_struck_at_one_end_leaves_the_other_where_it_is(self):
        """Each of two point masses is the other's centre of percussion (textbook)."""
        survey = f.demo().survey
        ends = [m.model_copy(update={"to_x_mm": None, "z_mm": 40.0}) for m in survey.masses[:2]]
        masses = tuple(
            m.model_copy(update={"id": f"end-{i}", "x_mm": x, "mass_kg": 300.0})
            for i, (m, x) in enumerate(zip(ends, (200.0, 2400.0), strict=True))
        )
        fr, carried = frame(), carried_by(masses, survey.seats, survey.ground_z_mm())
        (loads,) = kerb.struck(fr, carried, [Pull((2400.0, 0.0, 40.0), (0.0, 0.0, 9000.0))])
        near = np.repeat(np.abs(fr.x - 200.0) < 400.0, 2)
        self.assertLess(np.abs(loads[near, 2]).max(), 9000.0 * 0.01)
        np.testing.assert_allclose(loads[:, 2], 0.0, atol=9000.0 * 0.01)
