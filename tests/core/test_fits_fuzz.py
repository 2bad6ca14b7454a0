"""Wheels, arches, hoses and things of any size: figures or a reason, never a crash or a NaN."""

from django.test import SimpleTestCase
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from nodulant.axles.hose import Hose
from nodulant.base.errors import NodulantError
from nodulant.clearance.obstacle import Obstacle
from nodulant.evaluate import Want, evaluate
from nodulant.evaluate.suspensions.tuck import least_tuck
from nodulant.parts.wheel import Wheel
from nodulant.survey.arch import Arch
from tests.core.test_steering import front, job, with_front
from tests.fixtures import finite

FUZZ = settings(deadline=None, derandomize=True, max_examples=25, suppress_health_check=list(HealthCheck))
FEW = settings(FUZZ, max_examples=6)
ONLY = Want(strips=False, parts=False, readings=False, frame=False, interim=False)
far = st.floats(-3000, 3000)
size = st.floats(0.5, 3000)
points = st.fixed_dictionaries({"x_mm": far, "y_mm": far, "z_mm": far})
boxes = st.fixed_dictionaries(
    {"shape": st.just("box"), "middle": points, "long_mm": size, "wide_mm": size, "high_mm": size}
)
bars = st.fixed_dictionaries({"shape": st.just("bar"), "a": points, "b": points, "diameter_mm": st.floats(1, 400)})
kinds = st.sampled_from(["engine", "tank", "exhaust", "line", "wing", "column", "steering-box", "other"])


class Any(SimpleTestCase):
    def finite(self, result):
        self.assertTrue(finite(result.model_dump(mode="json")))

    @FUZZ
    @given(boxes | bars, kinds, st.booleans(), st.sampled_from(["placed", "rail", "body", "front-pocket"]))
    def test_things_anywhere(self, body, kind, mirrored, along):
        try:
            thing = Obstacle.model_validate(
                {"id": "it", "name": "it", "kind": kind, "body": body, "mirrored": mirrored, "rides": along}
            )
        except ValidationError:
            return
        inputs = job("wherry", "step")
        design = inputs.design.model_copy(update={"obstacles": (*inputs.design.obstacles, thing)})
        result = evaluate(inputs.model_copy(update={"design": design}), ONLY)
        self.finite(result)
        self.assertEqual(len(result.along), 8)

    @FUZZ
    @given(points, points, st.floats(1, 4000))
    def test_hoses_anywhere(self, frame, wheel, length):
        hose = Hose.model_validate({"frame": frame, "wheel": wheel, "length_mm": length})
        for name, option in (("wherry", "step"), ("brackmoor", "welded")):
            inputs = job(name, option)
            own = front(inputs).model_copy(update={"hoses": (hose,)})
            result = evaluate(with_front(inputs, own), ONLY)
            self.finite(result)
            self.assertTrue(any(c.limit_id == "hose-slack" for c in result.checks))

    @FUZZ
    @given(
        st.floats(20, 500), st.floats(-250, 250), st.floats(0, 60), far, st.floats(60, 2500), far, st.floats(50, 2000)
    )
    def test_wheels_and_arches_of_any_size(self, rim, face, lip, x, long, top, edge):
        inputs = job("wherry", "step")
        wheel = Wheel(rim_width_mm=rim, offset_mm=face, lip_mm=lip)
        arch = Arch(front_x_mm=x, rear_x_mm=x + long, top_z_mm=top, edge_y_mm=edge)
        axle = inputs.survey.front.model_copy(update={"arch": arch})
        inputs = inputs.model_copy(update={"survey": inputs.survey.model_copy(update={"front": axle})})
        own = front(inputs).model_copy(update={"wheel": wheel, "track_mm": None})
        try:
            self.finite(evaluate(with_front(inputs, own), ONLY))
        except NodulantError as error:
            self.assertTrue(error.acceptable)

    @FEW
    @given(st.floats(600, 1300), st.floats(100, 1200))
    def test_a_tuck_from_any_arch_ends(self, edge, top):
        inputs = job("wherry", "step")
        arch = Arch(front_x_mm=-450, rear_x_mm=450, top_z_mm=top, edge_y_mm=edge)
        axle = inputs.survey.front.model_copy(update={"arch": arch})
        inputs = inputs.model_copy(update={"survey": inputs.survey.model_copy(update={"front": axle})})
        at = next(k for k, s in enumerate(inputs.design.suspensions) if s.axle == "front")
        found = least_tuck(inputs, at, 30.0)
        self.finite(found)
        self.assertTrue(all(w.clears == (w.wing_gap_mm is None or w.wing_gap_mm >= 10.0) for w in found.ways))
