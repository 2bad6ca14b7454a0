"""A clearance proved with nothing aboard is not proved: what is aboard, and where the axle stands then."""

import numpy as np
from django.test import SimpleTestCase

from nodulant.evaluate import Want, evaluate
from nodulant.loads.beam import reactions
from nodulant.survey.states import LOAD_STATES, aboard, in_state
from nodulant.suspension.study import study
from tests import fixtures as f
from tests.core.test_suspensions import ONLY, suspended


class Aboard(SimpleTestCase):
    def test_each_state_carries_what_the_one_before_it_does(self):
        masses = f.demo("step").survey.masses
        totals = [sum(m.mass_kg for m in aboard(masses, state)) for state in LOAD_STATES]
        self.assertEqual(totals, sorted(totals))
        self.assertEqual(totals[-1], sum(m.mass_kg for m in masses))
        self.assertEqual(len(set(totals)), 4)

    def test_places_stay_so_that_pointers_do(self):
        survey = f.demo("step").survey
        self.assertEqual([m.id for m in in_state(survey, "bare").masses], [m.id for m in survey.masses])
        self.assertIs(in_state(survey, "laden"), survey)

    def test_nothing_aboard_is_not_computed(self):
        survey = f.demo("step").survey
        later = tuple(m.model_copy(update={"aboard": "driver"}) for m in survey.masses)
        inputs = f.with_survey(f.demo("step"), masses=later)
        result = evaluate(inputs, Want(load_state="bare"))
        check = f.check_of(result, "use-limit:rail-bump:left")
        self.assertEqual((check.verdict, check.value), ("not computed", None))


class Judged(SimpleTestCase):
    """The frame is judged as loaded; the document it belongs to stays the same."""

    def test_less_aboard_is_less_use(self):
        inputs = f.demo("step")
        rows = {state: evaluate(inputs, Want(load_state=state)) for state in ("empty", "laden")}
        uses = [f.check_of(r, "use-limit:rail-bump:left").value for r in rows.values()]
        self.assertGreater(uses[0], uses[1], "a factor of safety: more is better")
        self.assertEqual(rows["empty"].content_hash, rows["laden"].content_hash)
        self.assertEqual(evaluate(inputs), rows["laden"])

    def test_teardown_asks_for_the_same_readings(self):
        bare, laden = (evaluate(f.demo("step"), Want(load_state=state)) for state in ("bare", "laden"))
        self.assertEqual(bare.before_teardown, laden.before_teardown)


class Stands(SimpleTestCase):
    """Where the springs carry the axle: ride height in the state it was set for, droop with less aboard."""

    def test_at_ride_height_in_its_own_state(self):
        for state in ("driver", "laden"):
            (axle,) = evaluate(suspended(rides_in=state), ONLY).travel
            stands = {s.state: s.travel_mm for s in axle.stands}
            self.assertAlmostEqual(stands[state], 0.0, places=3)
        self.assertGreater(stands["laden"], stands["empty"])

    def test_spring_and_load_balance_there(self):
        inputs = suspended(rides_in="driver")
        d = inputs.design
        s = study(inputs.survey, d.suspensions[0], d.seats, 60.0, 1.0)
        for stand in s.stands:
            held = reactions(in_state(inputs.survey, stand.state).masses, d.seats or inputs.survey.seats)
            self.assertAlmostEqual(stand.load_n, held.rear)
            if stand.travel_mm is not None:
                carried = 2 * np.interp(stand.travel_mm, s.motion.travel, s.springs.force * s.springs.ratio)
                self.assertAlmostEqual(carried / held.rear, 1.0, delta=1e-3)

    def test_too_soft_a_spring_stands_on_its_stops(self):
        soft = {**suspended().design.suspensions[0].springs.model_dump(), "rate_n_per_mm": 4.0}
        (axle,) = evaluate(suspended(springs=soft, rides_in="empty"), ONLY).travel
        self.assertIsNone(next(s for s in axle.stands if s.state == "laden").travel_mm)
