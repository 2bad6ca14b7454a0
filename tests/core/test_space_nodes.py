"""Nodes of the space frame stand apart, and nothing that lies between two of them is lost."""

import numpy as np
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from nodulant.frame.model import STOCK, sections
from nodulant.loads.carried import carried_by
from nodulant.loads.frame3d import LEAST_MM, MARKS_APART_MM, build_frame, node_rows
from nodulant.loads.ladder import ladder_stations, solve_ladder
from nodulant.loads.reach import levers, on_masses, reach
from tests import fixtures as f

QUICK = settings(deadline=None, derandomize=True, max_examples=40)
SURVEY = f.demo().survey
ENDS = [c.x_mm for c in SURVEY.crossmembers]


def built(extra, marks=()):
    x = ladder_stations(SURVEY.rails, [*extra, *marks, *ENDS])
    cut = {side: sections(SURVEY, (), side, x, STOCK) for side in ("left", "right")}
    return x, cut, build_frame(SURVEY.rails, (x, node_rows(x, [*marks, *ENDS], ())), cut, SURVEY.crossmembers)


class Apart(SimpleTestCase):
    """Short spans are so stiff that they cost the solution its digits."""

    @QUICK
    @given(st.lists(st.floats(-500, 3300), min_size=1, max_size=40))
    def test_no_two_nodes_nearer_than_they_may_be(self, extra):
        x, _, frame = built(extra)
        gaps = np.diff(frame.x)
        ties = np.isin(np.round(frame.x, 3), np.round(ENDS, 3))
        least = np.where(ties[:-1] & ties[1:], MARKS_APART_MM, LEAST_MM)
        inner = slice(1, -1)
        self.assertTrue(np.all(gaps[inner] >= least[inner] - 1e-9))
        self.assertTrue(np.isin(frame.x, x).all())
        self.assertEqual((frame.x[0], frame.x[-1]), (x[0], x[-1]))

    def test_loads_and_crossmembers_have_nodes_of_their_own(self):
        marks = [1000.0, 1003.0, 2000.5]
        _, _, frame = built([999.2, 1001.7, 2000.0, 2001.0], marks)
        for place in (*marks, *ENDS):
            self.assertLess(np.abs(frame.x - place).min(), 1.0 + 1e-9, msg=place)

    def test_more_stations_between_the_nodes_change_nothing_of_a_plain_frame(self):
        """A ladder of tapering rails bends alike however finely it is looked at."""
        stiff = []
        for extra in ((), [700.0 + 0.5 * k for k in range(40)]):
            x, cut, _ = built(extra, [s.x_mm for s in SURVEY.seats])
            ladder = solve_ladder(SURVEY.rails, x, cut, SURVEY.crossmembers, SURVEY.masses, SURVEY.seats)
            stiff.append(ladder.stiffness_nm_per_deg)
        self.assertAlmostEqual(stiff[0] / stiff[1], 1.0, delta=2e-4)

    def test_a_span_has_the_mean_flexibility_of_what_lies_in_it(self):
        """1/EI averaged over its length: springs in a row (textbook)."""
        x, cut, frame = built([1200.0, 1202.0, 1204.0, 1206.0])
        inertia = cut["left"].properties.i_y
        k = int(np.searchsorted(frame.x, 1203.0)) - 1
        rows = (x >= frame.x[k]) & (x <= frame.x[k + 1])
        mean = np.trapezoid(1.0 / inertia[rows], x[rows]) / (frame.x[k + 1] - frame.x[k])
        self.assertAlmostEqual(frame.members.i_y[2 * k] * mean, 1.0, places=9)


class Sharing(SimpleTestCase):
    """A force between two nodes is shared by lever: sum and first moment stay (statics)."""

    @QUICK
    @given(st.lists(st.tuples(st.floats(-600, 3300), st.floats(-9e3, 9e3)), min_size=1, max_size=20))
    def test_sum_and_moment_stay(self, rows):
        _, _, frame = built([])
        at, force = np.clip(np.array([r[0] for r in rows]), frame.x[0], frame.x[-1]), np.array([r[1] for r in rows])
        spread = levers(frame, at).spread(force)
        self.assertAlmostEqual(spread.sum(), force.sum(), delta=1e-6)
        self.assertAlmostEqual(float(spread @ frame.x), float(force @ at), delta=1e-3)
        many = levers(frame, at).spread(np.array([[force, -2 * force], [0 * force, force]]))
        np.testing.assert_allclose(many[0, 1], -2 * spread, atol=1e-9)
        np.testing.assert_allclose(many[1], [0 * spread, spread], atol=1e-9)

    @QUICK
    @given(st.lists(st.tuples(st.floats(-900, 3900), st.floats(-9e3, 9e3)), min_size=1, max_size=12))
    def test_what_hangs_out_beyond_an_end_comes_with_its_moment(self, rows):
        """Force and moment about any axis are those of the forces where they act (statics)."""
        _, _, frame = built([])
        at, force = np.array([r[0] for r in rows]), np.array([r[1] for r in rows])
        one_by_one = reach(frame, at, np.eye(len(at)))
        loads = one_by_one.up(force)
        up, pitch = loads[:, 2], loads[:, 4]
        self.assertAlmostEqual(up.sum(), force.sum(), delta=1e-6)
        about_y = float(pitch.sum() - up @ np.repeat(frame.x, 2))
        self.assertAlmostEqual(about_y, -float(force @ at), delta=1e-3)
        np.testing.assert_allclose(loads[::2], loads[1::2])
        together = reach(frame, at, force[None])
        np.testing.assert_allclose(together.up(np.ones(1)), loads, atol=1e-6)

    @QUICK
    @given(st.lists(st.tuples(st.floats(0, 2900), st.floats(-9e6, 9e6)), min_size=1, max_size=12))
    def test_couples_roll_the_frame_and_lift_nothing(self, rows):
        _, _, frame = built([])
        at, couple = np.array([r[0] for r in rows]), np.array([r[1] for r in rows])
        loads = reach(frame, at, np.eye(len(at))).rolled(frame, couple)
        self.assertAlmostEqual(loads[:, 2].sum(), 0.0, delta=1e-6)
        self.assertAlmostEqual(float(loads[1::2, 2] @ frame.widths), couple.sum(), delta=1e-3)


class Masses(SimpleTestCase):
    """What all cases take of the masses, against the point masses one by one."""

    def test_weight_centre_and_second_moment(self):
        _, _, frame = built([])
        load = carried_by(SURVEY.masses, SURVEY.seats)
        where, kg, z = load.spread
        masses = on_masses(frame, load)
        self.assertAlmostEqual(masses.kg, sum(m.mass_kg for m in SURVEY.masses), places=6)
        self.assertAlmostEqual(masses.centre_x, float(np.average(where, weights=kg)), places=6)
        self.assertAlmostEqual(
            masses.second, sum(m * (x - masses.centre_x) ** 2 for m, x in zip(kg, where, strict=True)), delta=1.0
        )
        for row, each in zip(masses.at.rows, (kg, kg * z, kg * where), strict=True):
            self.assertAlmostEqual(row.sum(), float(each.sum()), delta=1e-6 * abs(float(each.sum())) + 1e-6)
