"""Two tablets at one vehicle: what either measured is in the survey afterwards, and what both measured is named."""

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from nodulant.job.merged import merged
from nodulant.survey.vehicle import Feature
from tests import fixtures as f

BASE = f.demo().survey


def station(survey, side, index, **fields):
    rail = survey.rails.of(side)
    rows = list(rail.stations)
    rows[index] = rows[index].model_copy(update=fields)
    rail = rail.model_copy(update={"stations": tuple(rows)})
    return survey.model_copy(update={"rails": survey.rails.model_copy(update={side: rail})})


class Merged(SimpleTestCase):
    def test_readings_of_both_are_in_it(self):
        mine = station(BASE, "left", 2, height_mm=151.0)
        theirs = station(BASE, "right", 3, wall_mm=4.9).model_copy(update={"wheelbase_mm": 2615.0})
        found = merged(BASE, mine, theirs)
        self.assertEqual(found.survey.rails.left.stations[2].height_mm, 151.0)
        self.assertEqual(found.survey.rails.right.stations[3].wall_mm, 4.9)
        self.assertEqual((found.survey.wheelbase_mm, found.both), (2615.0, ()))

    def test_what_both_changed_is_named_and_mine_stands(self):
        mine, theirs = (BASE.model_copy(update={"wheelbase_mm": v}) for v in (2601.0, 2602.0))
        found = merged(BASE, mine, theirs)
        self.assertEqual((found.survey.wheelbase_mm, found.both), (2601.0, ("/wheelbase_mm",)))

    def test_a_feature_of_each_and_one_taken_out(self):
        def hole(name, x):
            return Feature(id=name, name=name, kind="hole", x_mm=x, height_mm=60.0, diameter_mm=10.0)

        mine = BASE.model_copy(update={"features": (*BASE.features, hole("mine", 700.0))})
        gone = next(x.id for x in BASE.features if x.kind == "hole")
        theirs = BASE.model_copy(
            update={"features": (*(x for x in BASE.features if x.id != gone), hole("theirs", 900.0))}
        )
        ids = [x.id for x in merged(BASE, mine, theirs).survey.features]
        self.assertTrue({"mine", "theirs"} <= set(ids))
        self.assertNotIn(gone, ids)
        self.assertEqual(len(ids), len(set(ids)))

    @settings(deadline=None, derandomize=True)
    @given(st.floats(100, 200), st.floats(100, 200))
    def test_who_changed_nothing_takes_the_other_s(self, one, two):
        changed = station(station(BASE, "left", 1, height_mm=one), "right", 4, height_mm=two)
        self.assertEqual(merged(BASE, BASE, changed).survey, changed)
        self.assertEqual(merged(BASE, changed, BASE).survey, changed)
