"""A hole through the whole rail, for a rod: what it takes from bending, shear and torsion, by hand."""

import numpy as np
from django.test import SimpleTestCase

from nodulant.base.errors import InputError
from nodulant.frame.ops.hole import WebHole
from nodulant.frame.ops.plates.boxing import Boxing
from nodulant.frame.place import Place
from tests import fixtures as f
from tests.core.test_rail_kinds import of, rail

H, B, T, D = 150.0, 60.0, 5.0, 60.0


def hole(**change):
    own = {
        "id": "pass",
        "name": "Pass",
        "place": Place(anchor_id=f.survey_of(rail("channel", H, B, T)).features[0].id, offset_mm=0.0),
        "height_mm": 75.0,
        "diameter_mm": D,
        "work": "pass",
        **change,
    }
    made = WebHole(**own)
    middle = f.survey_of(rail("channel", H, B, T)).features[0].x_mm
    return made.model_copy(update={"place": Place(anchor_id=made.place.anchor_id, offset_mm=1500.0 - middle)})


class ByHand(SimpleTestCase):
    def test_a_box_loses_both_its_upright_walls(self):
        whole, holed = of(rail("rect-tube", H, B, T)), of(rail("rect-tube", H, B, T), (hole(),))
        self.assertAlmostEqual(whole.properties.area[0] - holed.properties.area[0], 2 * T * D, places=6)
        # about the middle, where the hole is: two rectangles t d^3/12
        self.assertAlmostEqual(whole.properties.i_y[0] - holed.properties.i_y[0], 2 * T * D**3 / 12, places=3)
        self.assertAlmostEqual(whole.shear_area[0] - holed.shear_area[0], 2 * T * D, places=6)

    def test_a_bolt_hole_takes_the_web_alone(self):
        whole, holed = (
            of(rail("rect-tube", H, B, T)),
            of(rail("rect-tube", H, B, T), (hole(work="drill", diameter_mm=14.0),)),
        )
        self.assertAlmostEqual(whole.properties.area[0] - holed.properties.area[0], T * 14.0, places=6)

    def test_an_oblong_takes_its_whole_height_in_the_middle(self):
        holed = of(rail("rect-tube", H, B, T), (hole(tall_mm=30.0),))
        whole = of(rail("rect-tube", H, B, T))
        self.assertAlmostEqual(whole.properties.area[0] - holed.properties.area[0], 2 * T * (D + 30.0), places=6)

    def test_torsion_is_bredt_s_with_upright_walls_spread_thin(self):
        """J = 4 A^2 / sum(s/t), upright walls as thick as what the hole leaves of them over their height (safe side)."""
        holed, whole = of(rail("rect-tube", H, B, T), (hole(),)), of(rail("rect-tube", H, B, T))
        area, up, flat = (H - T) * (B - T), H - T, B - T
        left = 1 - D / H
        whole_j = 4 * area**2 / (2 * up / T + 2 * flat / T)
        holed_j = 4 * area**2 / (2 * up / (T * left) + 2 * flat / T)
        self.assertAlmostEqual(holed.torsion.j[0] / whole.torsion.j[0], holed_j / whole_j, delta=0.01)

    def test_a_boxing_plate_is_cut_as_well(self):
        anchor = hole().place
        plate = Boxing(
            id="box",
            name="Boxing",
            start=anchor.model_copy(update={"offset_mm": anchor.offset_mm - 700}),
            end=anchor.model_copy(update={"offset_mm": anchor.offset_mm + 700}),
            thickness_mm=4.0,
        )
        boxed, holed = (of(rail("channel", H, B, T), ops) for ops in ((plate,), (plate, hole())))
        self.assertAlmostEqual(boxed.properties.area[0] - holed.properties.area[0], (T + 4.0) * D, places=4)
        self.assertAlmostEqual(boxed.shear_area[0] - holed.shear_area[0], (T + 4.0) * D, places=4)

    def test_beside_the_hole_nothing_is_gone(self):
        whole, holed = (of(rail("rect-tube", H, B, T), ops, x=1500.0 + D / 2 + 1.0) for ops in ((), (hole(),)))
        np.testing.assert_allclose(whole.properties.area[0], holed.properties.area[0])
        self.assertAlmostEqual(whole.torsion.j[0], holed.torsion.j[0], places=3)


class Refused(SimpleTestCase):
    def test_out_of_the_web_and_a_liner_that_fills_it(self):
        for change, word in (
            ({"height_mm": 20.0}, "runs out"),
            ({"height_mm": 135.0}, "runs out"),
            ({"liner_mm": 30.0}, "fills"),
        ):
            with self.subTest(change), self.assertRaises(InputError) as caught:
                of(rail("rect-tube", H, B, T), (hole(**change),))
            self.assertIn(word, caught.exception.message)
            self.assertTrue(caught.exception.acceptable)

    def test_its_steps_say_both_walls_and_the_look_through(self):
        steps = hole(liner_mm=4.0).steps("the front axle")
        self.assertEqual([s.key for s in steps], ["open", "line"])
        self.assertIn("both locks", steps[1].detail)
        self.assertEqual([s.key for s in hole().steps("x")], ["open"])
