"""What this program said of the demo before: a change here is meant, or it is a mistake."""

from django.test import SimpleTestCase

from nodulant.evaluate import evaluate
from tests import fixtures as f

ARC = {
    "modulus-bottom:rail:left": 0.5225,
    "modulus-top:rail:left": 0.673,
    "shear-area:rail:left": 1.685,
    "torsion-constant:rail:left": 239.9,
    "use-along:rail-bump:left": 1.559,
    "use-limit:rail-bump:left": 0.440,
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
        pair = [f.check_of(r, "modulus-bottom:rail:left").value for r in (arc, straight)]
        self.assertGreater(pair[1], 1.1 * pair[0])
