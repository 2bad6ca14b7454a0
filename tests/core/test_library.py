"""What was typed before is offered again, and a job like another one has everything still to be measured."""

from django.test import SimpleTestCase

from nodulant.begin.like import like
from nodulant.begin.start import Start, begun
from nodulant.job.document import Shop
from nodulant.library.typed_before import typed_before
from nodulant.survey.checklist import checklist
from tests import fixtures as f


def of_kind(rows, kind):
    return [row for row in rows if row.kind == kind]


class TypedBefore(SimpleTestCase):
    def rows(self):
        return typed_before([(f.demo().survey, [f.demo(o).design for o in ("arc", "step")])])

    def test_rails_axles_tyres_springs_and_racks_of_a_job(self):
        rows, survey = self.rows(), f.demo().survey
        rail = of_kind(rows, "rail")[0]
        self.assertIn(
            (rail.values["rail_height_mm"], rail.values["wall_mm"]),
            {(s.height_mm, s.wall_mm) for s in survey.rails.left.stations},
        )
        self.assertEqual(of_kind(rows, "tyre")[0].name, survey.rear.tyre)
        self.assertEqual(of_kind(rows, "axle")[0].values, {"tube_diameter_mm": survey.rear.tube_diameter_mm})
        self.assertTrue(of_kind(rows, "coilover"))
        self.assertTrue(all(row.of == survey.vehicle for row in rows))

    def test_where_a_spring_stands_is_not_taken_along(self):
        for row in of_kind(self.rows(), "coilover"):
            self.assertFalse({"lower", "upper", "on"} & set(row.values))
            self.assertIn("rate_n_per_mm", row.values)

    def test_the_same_thing_is_there_once(self):
        job = (f.demo().survey, [f.demo("step").design])
        self.assertEqual(typed_before([job, job]), typed_before([job]))

    def test_what_was_only_assumed_is_no_part_of_it(self):
        survey, design = begun(Start(vehicle="A van", rail_height_mm=120.0, wall_mm=4.0), Shop())
        self.assertEqual(of_kind(typed_before([(survey, [design])]), "rail"), [])


class Like(SimpleTestCase):
    def test_every_reading_of_the_other_vehicle_counts_as_not_taken(self):
        taken = [i for g in checklist(f.demo().survey) for i in g.items if i.taken]
        self.assertGreater(len(taken), 20)
        new = like(f.demo().survey, "Another van")
        self.assertEqual(new.vehicle, "Another van")
        left = [i.name for g in checklist(new) for i in g.items if i.taken]
        self.assertEqual(left, [])
        self.assertEqual(new.rails, f.demo().survey.rails)
