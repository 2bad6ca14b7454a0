"""A job at the front axle alone asks for nothing at the rear; one at the rear asks what it did."""

from django.test import SimpleTestCase

from nodulant.begin.start import Start, begun
from nodulant.evaluate import evaluate
from nodulant.job.document import Shop
from nodulant.job.touched import touched_axle, touched_axles
from nodulant.survey.vehicle import Axle
from nodulant.targets.drop import Targets
from tests import fixtures as f

FRONT = {"narrow-front", "box-front", "front-pocket", "front-subframe"}


def front_only():
    """The van with its front work alone, its rear axle never measured."""
    inputs = f.job().inputs("step")
    d = inputs.design
    design = d.model_copy(
        update={
            "operations": tuple(o for o in d.operations if o.id in FRONT),
            "suspensions": tuple(s for s in d.suspensions if s.axle == "front"),
            "targets": Targets(front=d.targets.front),
            "driveline": None,
        }
    )
    return inputs.model_copy(update={"design": design, "survey": inputs.survey.model_copy(update={"rear": Axle()})})


class FrontOnly(SimpleTestCase):
    def test_it_touches_the_front_alone(self):
        inputs = front_only()
        self.assertEqual(touched_axles(inputs.survey, inputs.design), {"front"})
        self.assertEqual(evaluate(inputs).touched, ("front",))
        whole = f.job().inputs("step")
        self.assertEqual(touched_axles(whole.survey, whole.design), {"front", "rear"})
        arc = f.job().inputs("arc")
        self.assertEqual(touched_axles(arc.survey, arc.design), {"rear"})

    def test_nothing_of_the_rear_is_asked(self):
        result = evaluate(front_only())
        self.assertFalse([r.name for r in result.before_teardown if "rear" in r.pointer])
        self.assertFalse(result.teardown_locked)
        asked = {p for c in result.checks if c.verdict == "not computed" for p in c.missing}
        self.assertFalse({p for p in asked if p.startswith("/survey/rear")}, asked)
        self.assertFalse([c.id for c in result.checks if c.id.endswith(":rear") and c.limit_id == "place-wanted"])

    def test_the_frame_is_computed_with_the_front_s_track_and_says_so(self):
        result = evaluate(front_only())
        self.assertTrue(any(c.limit_id == "case-limit" and c.value is not None for c in result.checks))
        figure = next(x for x in result.figures if x.id == "assumed-rear-track")
        self.assertEqual(figure.value, front_only().survey.front.track_mm)
        self.assertFalse([x for x in evaluate(f.demo()).figures if x.id == "assumed-rear-track"])

    def test_a_rear_job_still_asks_for_its_own(self):
        inputs = f.demo()
        bare = inputs.model_copy(update={"survey": inputs.survey.model_copy(update={"rear": Axle()})})
        result = evaluate(bare)
        self.assertTrue(result.teardown_locked)
        self.assertIn("metal-clearance:axle-tube:left", {c.id for c in result.checks if c.verdict == "not computed"})


class SaidAtTheStart(SimpleTestCase):
    """A job says which axle it is about before anything is planned."""

    def touched(self, axle):
        survey, design = begun(Start(vehicle="x", axle=axle), Shop())
        return touched_axles(survey, design), touched_axle(survey, design)

    def test_readings_and_new_work_follow_what_was_said(self):
        self.assertEqual(self.touched("front"), ({"front"}, "front"))
        self.assertEqual(self.touched("rear"), ({"rear"}, "rear"))
        self.assertEqual(self.touched("both")[0], {"front", "rear"})

    def test_what_is_planned_adds_to_it(self):
        survey, design = begun(Start(vehicle="x", axle="front", wheelbase_mm=2900.0), Shop())
        low = design.model_copy(update={"targets": design.targets.model_copy(update={"drop_mm": 50.0})})
        self.assertEqual(touched_axles(survey, low), {"front", "rear"})
