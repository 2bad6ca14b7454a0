"""What this program said of the demo before: a change here is meant, or it is a mistake."""

from django.test import SimpleTestCase

from nodulant.evaluate import evaluate
from tests import fixtures as f

ARC = {
    "modulus-bottom:axle-notch:left": 0.5221,
    "modulus-top:axle-notch:left": 0.6727,
    "shear-area:axle-notch:left": 1.685,
    "use-limit:rail-bump:left": 3.416,
    "case-limit:rail-brake:left": 3.772,
    "case-limit:rail-twist:left": 2.475,
    "accident-use:rail-kerb:left": 1.333,
    "frame-stiffness:frame:both": 1.226,
    "metal-clearance:axle-tube:left": 16.00,
    "bump-travel:axle-tube:right": 1.033,
    "overlap:axle-notch-outer:left": 1.033,
}


class DemoFigures(SimpleTestCase):
    def test_checks_of_the_arc_notch(self):
        result = evaluate(f.demo("arc"))
        for check_id, value in ARC.items():
            with self.subTest(check_id):
                self.assertAlmostEqual(f.check_of(result, check_id).value / value, 1.0, delta=4e-3)

    def test_the_straight_sided_notch_is_stronger_below(self):
        arc, straight = evaluate(f.demo("arc")), evaluate(f.demo("straight"))
        pair = [f.check_of(r, "modulus-bottom:axle-notch:left").value for r in (arc, straight)]
        self.assertGreater(pair[1], 1.05 * pair[0])
