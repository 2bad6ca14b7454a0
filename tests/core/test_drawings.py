"""What the screen and the report draw comes from the same numbers that are judged."""

import numpy as np
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon

from nodulant.base.arrays import significant
from nodulant.evaluate import SectionAt, Want, evaluate, sections_at
from nodulant.evaluate.curve import curves_of
from tests import fixtures as f

QUICK = settings(deadline=None, derandomize=True, max_examples=120)


def section(inputs, x=2610.0, side="left"):
    return evaluate(inputs, Want(section=SectionAt(side=side, x_mm=x))).section


class Sections(SimpleTestCase):
    """The drawn section is the computed one, polygon by polygon."""

    def test_drawn_area_is_the_computed_area(self):
        for x in (1000.0, 2300.0, 2610.0):
            drawn = section(f.demo("straight"), x)
            figures = {row.name: row for row in drawn.figures}
            for shapes, area in ((drawn.before, figures["A"].stock), (drawn.after, figures["A"].planned)):
                total = sum(Polygon(zip(s.y_mm, s.z_mm, strict=True)).area * s.share for s in shapes)
                with self.subTest(f"{x} {area}"):
                    self.assertAlmostEqual(total / area, 1.0, delta=2e-3)

    def test_several_at_once_are_each_what_is_drawn_alone(self):
        """The paper draws all in one go: the same figures as on the screen, also where operations differ left and right."""
        for inputs in (f.demo("arc"), f.demo("step"), f.job("brackmoor").inputs("welded")):
            places = [
                SectionAt(side=side, x_mm=x) for side, x in (("left", 700.0), ("right", 2311.0), ("left", 2610.0))
            ]
            for at, drawn in zip(places, sections_at(inputs, places), strict=True):
                alone = evaluate(inputs, Want(section=at)).section
                self.assertEqual(drawn.figures, alone.figures)
                self.assertEqual(drawn.after, alone.after)

    def test_stock_is_stock_everywhere(self):
        before = [section(f.demo(), x).figures for x in (1500.0, 2610.0)]
        self.assertEqual([r.stock for r in before[0]], [r.stock for r in before[1]])

    def test_a_station_beyond_the_rail_is_its_end(self):
        self.assertAlmostEqual(section(f.demo(), 99_999.0).x_mm, 3480.0)
        self.assertAlmostEqual(section(f.demo(), -99_999.0).x_mm, -620.0)

    def test_an_undeveloped_plate_is_drawn_with_its_share(self):
        near = section(f.demo(), 2610 - 420 + 30)
        box = next(s for s in near.after if s.name == "boxing")
        self.assertTrue(0 < box.share < 1)

    def test_the_figures_are_those_of_the_strip(self):
        result = evaluate(f.demo(), Want(section=SectionAt(side="left", x_mm=2610), strip_side="left"))
        strip = result.strips[0]
        at = strip.x_mm.index(2610.0)
        figures = {row.name: row for row in result.section.figures}
        for name, column in (("A", strip.area), ("I", strip.inertia), ("web area", strip.shear_area)):
            self.assertAlmostEqual(figures[name].planned / figures[name].stock, column[at], delta=6e-4 * column[at])


class Axle(SimpleTestCase):
    """Bodies are sent once with a pose table; figures come from its rows."""

    def test_ride_height_and_full_bump_are_rows(self):
        for bump in (90.0, 88.9, 101.6):
            axle = evaluate(f.with_targets(f.demo(), bump_mm=bump)).axle[0]
            self.assertIn(0.0, axle.travel_mm)
            self.assertIn(bump, axle.travel_mm)
            self.assertEqual(axle.travel_mm, sorted(axle.travel_mm))

    def test_least_clearance_of_the_table_is_the_check(self):
        result = evaluate(f.demo())
        for axle in result.axle:
            wanted = [c for c, t in zip(axle.clearance_mm, axle.travel_mm, strict=True) if -80 <= t <= 90]
            check = f.check_of(result, f"metal-clearance:axle-tube:{axle.side}")
            self.assertAlmostEqual(min(wanted), check.value, delta=1e-3)

    def test_the_tube_hangs_where_it_was_measured_less_the_drop(self):
        result = evaluate(f.demo())
        axle = next(a for a in result.axle if a.side == "left")
        ride = axle.travel_mm.index(0.0)
        self.assertAlmostEqual(axle.z_mm[ride], -115 + 60.325 - 76 / 2, places=3)
        self.assertAlmostEqual(axle.ground_z_mm, axle.z_mm[ride] - 341, places=3)

    def test_first_touch_is_beyond_the_clearance(self):
        axle = evaluate(f.demo()).axle[0]
        i = next(i for i, c in enumerate(axle.clearance_mm) if c < 0)
        self.assertTrue(axle.travel_mm[i - 1] <= axle.touch_mm <= axle.travel_mm[i])


class Rails(SimpleTestCase):
    def test_left_and_right_lie_on_their_sides(self):
        left, right = evaluate(f.demo()).rails
        self.assertEqual((left.side, right.side), ("left", "right"))
        self.assertTrue(all(y < 0 for y in left.web_y_mm) and all(y > 0 for y in right.web_y_mm))
        self.assertTrue(all(abs(t) < abs(w) for t, w in zip(left.tip_y_mm, left.web_y_mm, strict=True)), "opens inward")

    def test_the_cut_is_drawn_in_its_place_and_as_built_beside_it(self):
        result = evaluate(f.with_readings(f.demo(), ("position", "left", 4.0), ("depth", "left", 60.0)))
        left, right = result.rails
        planned, built = left.cuts[0].bounds(), left.built_cuts[0].bounds()
        self.assertAlmostEqual(planned[3], 58.0, delta=0.05)
        self.assertAlmostEqual(built[3], 60.0, delta=0.05)
        self.assertAlmostEqual((built[0] + built[2]) / 2 - (planned[0] + planned[2]) / 2, 4.0, delta=0.05)
        self.assertEqual(right.built_cuts[0].bounds(), right.cuts[0].bounds())

    def test_nothing_measured_nothing_drawn_as_built(self):
        self.assertEqual(evaluate(f.demo()).rails[0].built_cuts, ())


class Digits(SimpleTestCase):
    """Replies are rounded to significant digits, never to decimals."""

    @QUICK
    @given(st.lists(st.floats(-1e12, 1e12), min_size=1, max_size=8), st.integers(2, 8))
    def test_relative_error_stays_below_half_a_unit(self, values, digits):
        for value, rounded in zip(values, significant(np.array(values), digits), strict=True):
            self.assertLessEqual(abs(rounded - value), 0.5000001 * 10.0 ** (1 - digits) * abs(value) + 1e-200)

    def test_nothing_and_almost_nothing(self):
        self.assertEqual(significant(np.array([0.0, 5e-324, -1e-250])), [0.0, 0.0, 0.0])


class Curves(SimpleTestCase):
    """Figures through travel as the screen gets them: what does not exist is None, never a number."""

    PLACES = np.array([True, True, True, False])

    def curve(self, values, unit="mm"):
        return curves_of([("id", "Name", unit, np.array(values), "words")], self.PLACES, 1)[0]

    def test_places_that_the_linkage_does_not_reach(self):
        self.assertEqual(self.curve([1.0, 2.0, 3.0, 4.0]).values, [1.0, 2.0, 3.0, None])

    def test_what_is_no_number_or_at_infinity(self):
        self.assertEqual(self.curve([np.nan, np.inf, -np.inf, 0.0], "deg").values, [None] * 4)
        self.assertIsNone(self.curve([1.0, np.nan, 1.0, 1.0]).at_ride)

    def test_a_centre_twelve_metres_off_is_not_drawn_but_a_force_that_large_is(self):
        self.assertEqual(self.curve([1.0, 12_500.0, -11_900.0, 0.0]).values, [1.0, None, -11_900.0, None])
        self.assertEqual(self.curve([1.0, 12_500.0, 2.0, 0.0], "N").at_ride, 12_500.0)

    def test_round_off_is_nothing(self):
        self.assertEqual(self.curve([3e-13, -8e-10, 2e-9, 0.0]).values, [0.0, 0.0, 2e-9, None])

    def test_figures_of_many_sizes_keep_their_own_digits(self):
        one, two = curves_of(
            [
                ("a", "A", "N", np.array([123456.78, 1.0, 1.0, 1.0]), ""),
                ("b", "B", "deg", np.array([0.00012345678, 1.0, 1.0, 1.0]), ""),
            ],
            self.PLACES,
            1,
        )
        self.assertEqual((one.values[0], two.values[0]), (123457.0, 0.000123457))

    def test_no_figures_no_curves(self):
        self.assertEqual(curves_of([], self.PLACES, 1), ())
