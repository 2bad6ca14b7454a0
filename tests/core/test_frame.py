"""Places, sides and frame states: one road to a section for stock, plan and what was built."""

import numpy as np
from django.test import SimpleTestCase

from nodulant.base.errors import InputError, UnknownReference
from nodulant.frame.model import STOCK, placed_on, planned_state, sections
from nodulant.frame.parts import added_parts
from nodulant.frame.place import Place, resolve
from nodulant.frame.state import FrameState
from nodulant.frame.stations import GRID, stations
from nodulant.survey.rail import Rail, Station
from nodulant.survey.vehicle import Feature
from nodulant.units.inline import told
from tests import fixtures as f

BOX, CUT = f.boxing("flush"), f.straight_notch(60, liner=f.liner(6), cap=f.cap(6, 50))
OPERATIONS = (BOX, CUT)


def at(state, side="left", x=1500.0, operations=OPERATIONS):
    return sections(f.survey_of(f.straight_rail()), operations, side, f.stations_at(x), state)


class Places(SimpleTestCase):
    """Instructions that do not name their datum cause most of the rework."""

    def test_offset_from_a_feature(self):
        features = f.survey_of(f.straight_rail()).features
        self.assertEqual(resolve(Place(anchor_id="mid", offset_mm=-40), features), 1460)

    def test_unknown_feature_names_the_known_ones(self):
        with self.assertRaises(UnknownReference) as caught:
            resolve(Place(anchor_id="gone"), f.survey_of(f.straight_rail()).features, "/x")
        self.assertEqual((caught.exception.field, caught.exception.acceptable), ("/x/anchor_id", "one of mid"))

    def test_a_cut_follows_its_feature(self):
        """A hanger measured anew carries the notch that hangs on it."""
        survey = f.survey_of(f.straight_rail())
        moved = survey.model_copy(update={"features": (survey.features[0].model_copy(update={"x_mm": 1550.0}),)})
        before, after = (placed_on(s, OPERATIONS, "left", planned_state(OPERATIONS))[1] for s in (survey, moved))
        self.assertEqual(after.centre_mm - before.centre_mm, 50)


class Collisions(SimpleTestCase):
    """Bad orders and collisions are named at the field that makes them."""

    def refused(self, *operations):
        with self.assertRaises(InputError) as caught:
            placed_on(f.survey_of(f.straight_rail()), operations, "left", planned_state(operations))
        return caught.exception

    def test_two_cuts_in_one_place(self):
        other = f.arc_notch(40, 40, at=50).model_copy(update={"id": "other", "name": "other"})
        error = self.refused(f.arc_notch(), other)
        self.assertIn("overlap", error.message)
        self.assertEqual(error.field, "/design/operations/1/place/offset_mm")

    def test_plate_that_ends_inside_a_cut(self):
        short = BOX.model_copy(update={"end": Place(anchor_id="mid", offset_mm=10)})
        error = self.refused(short, CUT)
        self.assertIn("ends inside the cut", error.message)
        self.assertEqual(error.field, "/design/operations/0/end/offset_mm")

    def test_plate_that_ends_before_it_starts(self):
        self.assertIn("before it starts", self.refused(BOX.model_copy(update={"end": BOX.start})).message)

    def test_beyond_the_rail(self):
        error = self.refused(f.arc_notch(at=1490))
        self.assertIn("beyond the end of the rail", error.message)
        self.assertIn("station 0 mm to 3000 mm", told(error.acceptable, "mm"))

    def test_deeper_than_the_rail(self):
        error = self.refused(f.arc_notch(depth=149, radius=60))
        self.assertIn("as deep as the rail", error.message)
        self.assertTrue(error.field.endswith("/depth_mm"))


class States(SimpleTestCase):
    """Stock, planned, interim and as-built are one type; strength counts what is welded, never tacks."""

    def test_tacked_plates_count_for_nothing(self):
        planned = planned_state(OPERATIONS)
        tacked = planned.model_copy(update={"parts": dict.fromkeys(planned.parts, "tacked"), "name": "interim"})
        bare = planned.model_copy(update={"parts": {}, "name": "interim"})
        self.assertEqual(at(tacked).properties.i_y[0], at(bare).properties.i_y[0])
        self.assertLess(at(tacked).properties.i_y[0], at(planned).properties.i_y[0])

    def test_not_yet_cut_is_stock(self):
        none = FrameState(name="interim")
        self.assertEqual(at(none).properties.i_y[0], at(STOCK, operations=()).properties.i_y[0])

    def test_one_side_cut_leaves_the_other_whole(self):
        plates = {"side": "left", "liner": None, "outer_plate": None, "inner_plate": None, "cap": None}
        left = CUT.model_copy(update=plates)
        state = planned_state((left,))
        stock = at(STOCK, operations=()).properties.i_y[0]
        self.assertLess(at(state, "left", operations=(left,)).properties.i_y[0], stock)
        self.assertEqual(at(state, "right", operations=(left,)).properties.i_y[0], stock)

    def test_a_measured_depth_weakens_its_own_side_only(self):
        planned = planned_state(OPERATIONS)
        built = planned.model_copy(update={"name": "as-built", "measured": {"cut/depth/left": 66.0}})
        self.assertLess(at(built, "left").properties.s_bottom[0], at(planned, "left").properties.s_bottom[0])
        self.assertEqual(at(built, "right").properties.s_bottom[0], at(planned, "right").properties.s_bottom[0])

    def test_the_same_question_has_the_same_answer_to_the_bit(self):
        first = at(planned_state(OPERATIONS)).properties.i_y
        again = at(planned_state(OPERATIONS)).properties.i_y
        self.assertEqual(first.tobytes(), again.tobytes())

    def test_batch_size_changes_no_bit(self):
        survey, state = f.survey_of(f.straight_rail(radius=5)), planned_state(OPERATIONS)
        xs = np.linspace(1000, 2000, 41)
        many = sections(survey, OPERATIONS, "left", xs, state).properties.i_y
        one = [sections(survey, OPERATIONS, "left", f.stations_at(x), state).properties.i_y[0] for x in xs[18:23]]
        np.testing.assert_allclose(many[18:23], one, rtol=1e-12)


class AsItCame(SimpleTestCase):
    """A rail as it came is sectioned once for every different section; the same state under another name is not."""

    def test_every_station_is_what_it_is_by_itself(self):
        station = f.straight_rail().stations[0]
        rows = [(0.0, 120.0, 5.0), (400.0, 150.0, 5.0), (2200.0, 150.0, 6.0), (3000.0, 138.0, 4.0)]
        tapered = f.straight_rail().model_copy(
            update={
                "stations": tuple(
                    station.model_copy(update={"x_mm": x, "height_mm": h, "wall_mm": t}) for x, h, t in rows
                )
            }
        )
        hole = Feature(id="h", name="hole", x_mm=1200.0, kind="hole", height_mm=60.0, diameter_mm=40.0)
        for rail in (tapered, f.straight_rail(), f.straight_rail().model_copy(update={"kind": "rect-tube"})):
            survey = f.survey_of(rail)
            survey = survey.model_copy(update={"features": (*survey.features, hole)})
            x = np.unique(np.concatenate([np.linspace(0, 3000, 61), 1200 + np.linspace(-19, 19, 7)]))
            quick = sections(survey, (), "left", x, STOCK)
            plain = sections(survey, (), "left", x, FrameState(name="stock"))
            for name in ("area", "i_y", "i_z", "s_top", "working_bottom"):
                np.testing.assert_array_equal(getattr(quick.properties, name), getattr(plain.properties, name), name)
            np.testing.assert_allclose(quick.torsion.j, plain.torsion.j, rtol=1e-12)
            np.testing.assert_allclose(quick.warping.i_w, plain.warping.i_w, rtol=1e-9, atol=1e-3)
            np.testing.assert_array_equal(quick.whole.rail.x, x)
            self.assertEqual([p.y.shape for p in quick.pieces], [p.y.shape for p in plain.pieces])
            self.assertLess(quick.properties.area[np.argmin(abs(x - 1200))], quick.properties.area[30] + 300)


class Stations(SimpleTestCase):
    def test_at_least_120_and_both_sides_of_every_jump(self):
        survey = f.survey_of(f.straight_rail())
        placed = placed_on(survey, OPERATIONS, "left", planned_state(OPERATIONS))
        x = stations(0, 3000, placed, [])
        self.assertGreaterEqual(len(x), GRID)
        self.assertTrue((np.diff(x) > 0).all())
        for p in placed:
            for edge in (p.start_mm, p.end_mm):
                self.assertTrue(((x > edge - 1) & (x < edge)).any() and ((x > edge) & (x < edge + 1)).any())

    def test_a_tapered_rail_is_interpolated(self):
        ends = (Station(x_mm=0, underside_z_mm=0, height_mm=100, width_mm=50, wall_mm=4),)
        rail = Rail(stations=(*ends, Station(x_mm=1000, underside_z_mm=0, height_mm=200, width_mm=50, wall_mm=4)))
        section = sections(f.survey_of(rail), (), "left", f.stations_at(500.0), STOCK)
        self.assertAlmostEqual(section.shear_area[0], 4 * 150)


class Parts(SimpleTestCase):
    """Patterns, steps, readings and mass refer to parts by their ids."""

    def test_ids_and_seams(self):
        placed = placed_on(f.survey_of(f.straight_rail()), OPERATIONS, "right", planned_state(OPERATIONS))
        added = added_parts(f.survey_of(f.straight_rail()), "right", placed)
        ids = [part.id for part in added.parts]
        self.assertEqual(len(set(ids)), len(ids))
        self.assertIn("cut/liner/right", ids)
        self.assertIn("box/boxing/right", ids)
        self.assertEqual({seam.part_b for seam in added.seams}, set(ids))

    def test_mass_of_a_rectangle(self):
        """7850 kg/m3: a plate of 1800 x 150 x 5 weighs 10.6 kg."""
        survey = f.survey_of(f.straight_rail())
        over = f.boxing("over-lips", 5.0, half=900.0)
        part = added_parts(survey, "left", placed_on(survey, (over,), "left", planned_state((over,)))).parts[0]
        self.assertAlmostEqual(part.mass_kg(), 1.8 * 0.15 * 0.005 * 7850, places=6)

    def test_boxing_plate_is_cut_where_the_rail_is(self):
        survey = f.survey_of(f.straight_rail())
        both = (f.boxing("over-lips"), f.arc_notch(60, 60))
        placed = placed_on(survey, both, "left", planned_state(both))
        whole = 1800 * 150
        part = added_parts(survey, "left", placed).parts[0]
        self.assertAlmostEqual(part.outline.area_mm2(), whole - np.pi * 60**2 / 2, places=3)
