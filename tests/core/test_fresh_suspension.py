"""A suspension never begins where there is no frame, and it begins by moving."""

from django.test import SimpleTestCase

from nodulant.axles.layouts.union import AnyLayout
from nodulant.axles.riding import frame_points
from nodulant.base.annotations import members_of
from nodulant.base.errors import UnknownReference
from nodulant.evaluate import evaluate
from nodulant.evaluate.suspensions.travel import suspension_studies
from nodulant.job.fresh.layouts import LAYOUTS
from nodulant.job.fresh.springing import springs_of
from nodulant.job.fresh.stand import END_MM, Stand, stand_of
from nodulant.job.fresh.steering import gears_for
from nodulant.job.fresh.suspension import fresh_driveline_part, fresh_suspension, fresh_suspension_part
from nodulant.job.riding import in_place
from nodulant.survey.vehicle import Rails
from tests import fixtures as f

AXLES = ("front", "rear")
ON_BODY = {"layout.top", "half_shaft.inner", "steering.shaft.column"}
"""Points that hang on the body or a differential, not on a rail."""


def job(nose=None, tail=None):
    """The demo's van with nothing designed, its rails cut off ahead or behind."""
    inputs = f.demo()
    rail = inputs.survey.rails.right
    rows = tuple(s for s in rail.stations if (nose is None or s.x_mm >= nose) and (tail is None or s.x_mm <= tail))
    ends = [(nose, rail.stations[0]), (tail, rail.stations[-1])]
    made = [s.model_copy(update={"x_mm": x}) for x, s in ends if x is not None]
    short = rail.model_copy(update={"stations": tuple(sorted((*rows, *made), key=lambda s: s.x_mm))})
    features = inputs.survey.features
    survey = inputs.survey.model_copy(
        update={"rails": Rails(left=short, right=short), "crossmembers": (), "features": features, "seats": ()}
    )
    design = inputs.design.model_copy(
        update={
            "operations": (),
            "suspensions": (),
            "obstacles": (),
            "driveline": None,
            "crossmembers": (),
            "seats": (),
        }
    )
    return inputs.model_copy(update={"survey": survey, "design": design})


def hung(inputs, *suspensions):
    return inputs.model_copy(update={"design": inputs.design.model_copy(update={"suspensions": suspensions})})


class Layouts(SimpleTestCase):
    def test_every_layout_of_the_union_begins(self):
        kinds = {m.model_fields["kind"].default for m in members_of(AnyLayout)}
        self.assertEqual(set(LAYOUTS), kinds)
        self.assertGreater(len(kinds), 8)

    def test_it_moves_through_its_whole_travel_on_either_axle(self):
        for axle in AXLES:
            for kind in LAYOUTS:
                inputs = job()
                inputs = hung(inputs, fresh_suspension(inputs, axle, kind, before=False))
                (study,) = suspension_studies(in_place(inputs))
                with self.subTest(f"{axle} {kind}"):
                    self.assertIsNotNone(study.motion, study.trouble)
                    self.assertTrue(study.motion.there.all(), "it locks within the travel that is wanted")

    def test_its_frame_ends_lie_where_there_is_frame(self):
        """Also where the nose or the tail is cut short beside the axle."""
        for nose, tail in ((None, None), (-250.0, None), (None, 2900.0), (-120.0, 2750.0)):
            inputs = job(nose, tail)
            rail = inputs.survey.rails.right
            for axle in AXLES:
                for kind in LAYOUTS:
                    own = fresh_suspension(inputs, axle, kind, before=False)
                    for path, point in frame_points(own).items():
                        if path in ON_BODY:
                            continue
                        with self.subTest(f"{axle} {kind} {path} {nose} {tail}"):
                            self.assertGreaterEqual(point.x_mm, rail.start_mm)
                            self.assertLessEqual(point.x_mm, rail.end_mm)

    def test_links_of_a_front_axle_run_rearward_and_of_a_rear_one_forward(self):
        """Common practice: a link is pulled by the wheel that drives and trails the way it goes."""
        inputs = job()
        for axle, line in (("front", 0.0), ("rear", 2610.0)):
            own = fresh_suspension(inputs, axle, "triangulated", before=False)
            way = own.layout.lower.frame.x_mm - line
            self.assertEqual(way > 0, axle == "front")

    def test_a_short_frame_turns_links_round(self):
        stand = Stand(axle="rear", x=1000.0, z=0.0, half=700.0, inner=300.0, web=410.0, from_mm=900.0, to_mm=3000.0)
        self.assertGreater(stand.along(660.0), 1000.0, "100 mm ahead are none: behind there is room")
        self.assertEqual(Stand("rear", 1000.0, 0, 700, 300, 410, 600.0, 3000.0).along(660.0), 600.0 + END_MM)

    def test_as_it_was_it_stands_on_the_surveyed_hubs(self):
        inputs = job()
        before, after = (stand_of(inputs, "rear", before=b) for b in (True, False))
        self.assertNotEqual(before.z, after.z)
        self.assertEqual(fresh_suspension(inputs, "rear", "leaf", before=True).rides, "placed")

    def test_a_layout_that_is_not_there(self):
        with self.assertRaises(UnknownReference) as told:
            fresh_suspension(job(), "rear", "hoverpad", before=False)
        self.assertIn("triangulated", told.exception.acceptable)


class Parts(SimpleTestCase):
    def with_one(self, kind="triangulated", axle="rear"):
        inputs = job()
        return hung(inputs, fresh_suspension(inputs, axle, kind, before=False))

    def test_every_part_is_taken_as_it_stands(self):
        rows = [
            *(("springs", k) for k in ("coilover", "air", "leaf")),
            *((p, "") for p in ("damper", "stop", "strap", "anti_roll", "hose")),
            *(("lateral", k) for k in ("track-bar", "watts")),
        ]
        for part, kind in rows:
            layout = "parallel" if part == "lateral" else "triangulated"
            inputs = self.with_one(layout)
            piece = fresh_suspension_part(inputs, 0, part, kind, before=False)
            own = inputs.design.suspensions[0]
            if part == "hose":
                changed = own.model_copy(update={"hoses": (piece,)})
            elif part == "lateral":
                changed = own.model_copy(update={"layout": own.layout.model_copy(update={"lateral": piece})})
            else:
                changed = own.model_copy(update={part: piece})
            result = evaluate(hung(inputs, type(own).model_validate(changed.model_dump())))
            with self.subTest(f"{part} {kind}"):
                self.assertTrue(result.travel[0].there)

    def test_a_coilover_stands_on_its_arm(self):
        for kind, on in (("double-wishbone", "lower-arm"), ("strut", "upright"), ("triangulated", "upright")):
            inputs = self.with_one(kind, "front" if kind != "triangulated" else "rear")
            spring = fresh_suspension_part(inputs, 0, "springs", "coilover", before=False)
            self.assertEqual(spring.on, on)

    def test_steering_suits_its_layout_and_steers(self):
        for kind in ("double-wishbone", "strut", "triangulated"):
            inputs = self.with_one(kind, "front")
            own = inputs.design.suspensions[0]
            for gear in gears_for(own):
                steering = fresh_suspension_part(inputs, 0, "steering", "", before=False)
                made = fresh_suspension_part(inputs, 0, "gear", gear, before=False)
                steered = own.model_copy(update={"steering": steering.model_copy(update={"gear": made})})
                result = evaluate(hung(inputs, steered))
                with self.subTest(f"{kind} {gear}"):
                    sense = [c for c in result.checks if c.limit_id == "steer-sense"]
                    self.assertEqual([c.verdict for c in sense], ["holds"])
        trailing = self.with_one("trailing", "rear")
        with self.assertRaises(UnknownReference):
            fresh_suspension_part(trailing, 0, "steering", "", before=False)

    def test_a_column_needs_steering_and_an_eye_its_leaves(self):
        inputs = self.with_one()
        for part in ("column", "rear_eye", "nothing"):
            with self.subTest(part), self.assertRaises(UnknownReference) as told:
                fresh_suspension_part(inputs, 0, part, "", before=False)
            self.assertIn("damper", told.exception.acceptable)
        leaves = self.with_one("leaf")
        eye = fresh_suspension_part(leaves, 0, "rear_eye", "", before=False)
        layout = leaves.design.suspensions[0].layout
        self.assertAlmostEqual(eye.x_mm - 2610.0, 2610.0 - layout.eye.x_mm, places=6)

    def test_a_suspension_that_is_not_there(self):
        with self.assertRaises(UnknownReference) as told:
            fresh_suspension_part(job(), 0, "damper", "", before=False)
        self.assertEqual(told.exception.field, "/suspension")

    def test_springs_that_are_not_there(self):
        inputs = self.with_one()
        with self.assertRaises(UnknownReference):
            springs_of("balloon", stand_of(inputs, "rear", before=False), inputs.design.suspensions[0])

    def test_the_shaft_and_its_bearing(self):
        inputs = job()
        line = fresh_driveline_part(inputs, "driveline")
        self.assertLess(line.gearbox.x_mm, 2610.0)
        with self.assertRaises(UnknownReference):
            fresh_driveline_part(inputs, "bearing")
        design = inputs.design.model_copy(update={"driveline": line})
        bearing = fresh_driveline_part(inputs.model_copy(update={"design": design}), "bearing")
        self.assertAlmostEqual(bearing.x_mm, (line.gearbox.x_mm + 2610.0) / 2)
