"""Frame points by tape, against a general least-squares library, by simulation and by hand.

Data snooping after Baarda (1968) with one false alarm in a thousand; two degrees of freedom at 95 %: 5.991
(chi-square tables).
"""

import math
from itertools import pairwise

import numpy as np
from django.test import SimpleTestCase
from scipy.optimize import least_squares

from nodulant.asbuilt.network import Taped, adjust

STATIONS = (0.0, 1000.0, 2090.0, 3130.0)
PLAN = {f"{i}{s}": (x, y) for i, x in enumerate(STATIONS) for s, y in (("L", -410.0), ("R", 410.0))}
BAYS = [(f"{i}L", f"{i}R") for i in range(4)] + [
    pair
    for i, k in pairwise(range(4))
    for pair in ((f"{i}L", f"{k}L"), (f"{i}R", f"{k}R"), (f"{i}L", f"{k}R"), (f"{i}R", f"{k}L"))
]
LONG = [("0L", "2R"), ("0R", "2L"), ("1L", "3R"), ("1R", "3L")]


def taped(pairs, rng=None, wrong=None, plan=PLAN):
    """Lengths of a plan, with a spread of 1 mm where a generator is given, and one wrong by 12 mm."""
    out = []
    for k, (a, b) in enumerate(pairs):
        length = math.dist(plan[a], plan[b]) + (rng.normal() if rng else 0.0)
        out.append(Taped(a, b, length + (12.0 if k == wrong else 0.0), 1.0))
    return tuple(out)


class AgainstALibrary(SimpleTestCase):
    def test_distances_and_covariance(self):
        """Distances between fitted points, and the spread of one of them, are free of the datum: compared with scipy's."""
        rows = taped([*BAYS, *LONG], np.random.default_rng(3))
        mine = adjust(PLAN, rows)
        names = sorted(PLAN)
        held = {(0, 0), (0, 1), (1, 0)}  # two points hold the datum in the library's problem
        free = [(k, axis) for k in range(8) for axis in (0, 1) if (k, axis) not in held]

        def place(values):
            out = np.array([PLAN[n] for n in names])
            for (k, axis), v in zip(free, values, strict=True):
                out[k, axis] = v
            return out

        def off(values):
            at = place(values)
            return [math.dist(at[names.index(t.a)], at[names.index(t.b)]) - t.length_mm for t in rows]

        other = least_squares(off, [PLAN[names[k]][axis] for k, axis in free], xtol=1e-14, ftol=1e-14, gtol=1e-14)
        at, own = place(other.x), {p.id: (p.x_mm, p.y_mm) for p in mine.points}
        for a, b in (("0L", "3R"), ("1R", "2L"), ("0R", "3R")):
            theirs = math.dist(at[names.index(a)], at[names.index(b)])
            self.assertAlmostEqual(math.dist(own[a], own[b]), theirs, places=5)
        # redundancy numbers from the library's own Jacobian: 1 - J (J'J)^-1 J'
        hat = other.jac @ np.linalg.inv(other.jac.T @ other.jac) @ other.jac.T
        np.testing.assert_allclose([fit.control for fit in mine.lengths], 1 - np.diag(hat), atol=1e-5)
        self.assertEqual(mine.redundancy, 20 - 13)

    def test_a_perfect_frame_is_found_as_planned(self):
        found = adjust(PLAN, taped(BAYS))
        self.assertLess(max(p.moved_mm for p in found.points), 1e-6)
        self.assertEqual(found.suspects, ())


class Simulated(SimpleTestCase):
    def test_a_blunder_of_12_mm_is_named_first(self):
        rng, pairs = np.random.default_rng(11), [*BAYS, *LONG]
        named = 0
        for k in range(200):
            wrong = k % len(pairs)
            found = adjust(PLAN, taped(pairs, rng, wrong))
            named += found.suspects[:1] == (wrong,)
            fit = found.lengths[wrong]
            self.assertAlmostEqual(fit.blunder_mm, 12.0, delta=5.0 / math.sqrt(fit.control))
        self.assertGreaterEqual(named, 190)

    def test_the_95_percent_ellipse_holds_the_truth(self):
        rng, inside = np.random.default_rng(5), 0
        for _ in range(200):
            for p in adjust(PLAN, taped([*BAYS, *LONG], rng)).points:
                turn = math.radians(p.turn_deg)
                dx, dy = p.x_mm - PLAN[p.id][0], p.y_mm - PLAN[p.id][1]
                along, across = dx * math.cos(turn) + dy * math.sin(turn), dy * math.cos(turn) - dx * math.sin(turn)
                inside += (along / p.major_mm) ** 2 + (across / p.minor_mm) ** 2 < 5.991
        self.assertTrue(0.90 <= inside / 1600 <= 0.99, inside / 1600)

    def test_sides_and_diagonals_alone_cannot_tell_which(self):
        """16 lengths on 8 points: 3 more than needed; a length over two bays is asked for."""
        found = adjust(PLAN, taped(BAYS))
        self.assertEqual(found.redundancy, 3)
        self.assertTrue(found.uncontrolled or found.helps)
        a, b = (int(name[0]) for name in found.helps)
        self.assertGreaterEqual(abs(a - b), 2)
        self.assertEqual(adjust(PLAN, taped([*BAYS, *LONG])).helps, ())


class Repeated(SimpleTestCase):
    def test_a_length_taken_twice_keeps_both_its_places(self):
        """The same reading again is a reading of its own: two rows, two indices, and control of each other."""
        rows = taped([*BAYS, BAYS[4]])
        found = adjust(PLAN, rows)
        self.assertEqual([fit.index for fit in found.lengths], list(range(len(rows))))
        self.assertGreater(found.lengths[4].control, 0.4)


class Loose(SimpleTestCase):
    def test_a_point_on_one_length(self):
        triangle = [("0L", "0R"), ("0L", "1L"), ("0R", "1L")]
        self.assertEqual(adjust(PLAN, taped([*triangle, ("1L", "2L")])).loose, ("2L",))
        self.assertEqual(adjust(PLAN, taped(triangle)).loose, ())

    def test_nothing_to_fit(self):
        self.assertIsNone(adjust(PLAN, ()))
        self.assertIsNone(adjust(PLAN, (Taped("0L", "elsewhere", 5.0, 1.0),)))
        alone = adjust(PLAN, (Taped("0L", "0R", 821.0, 1.0),))
        self.assertEqual((alone.redundancy, alone.suspects), (0, ()))

    def test_points_in_one_line_are_loose_sideways_or_not_but_never_an_error(self):
        line = {name: (x, 0.0) for name, x in zip("abcd", (0.0, 700.0, 1500.0, 2600.0), strict=True)}
        found = adjust(line, taped([("a", "b"), ("b", "c"), ("c", "d"), ("a", "d"), ("a", "c")], plan=line))
        self.assertTrue(all(math.isfinite(v) for p in found.points for v in (p.x_mm, p.y_mm, p.major_mm, p.minor_mm)))
