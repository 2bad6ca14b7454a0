"""Figures computed apart from this program, with two methods that agree; a second opinion, no outside source."""

from django.test import SimpleTestCase

from nodulant.frame.model import STOCK, planned_state, sections
from nodulant.sections.liner import effective_share_clamped, effective_share_simple
from tests import fixtures as f

RAIL = (152.4, 57.15, 4.763)


def ratios_to_boxed(*operations):
    """A, I, least S and J of a built-up rail over the boxed one."""
    survey, box = f.survey_of(f.straight_rail(*RAIL)), f.boxing("flush", RAIL[2])

    def at(ops):
        return sections(survey, ops, "left", f.stations_at(1500.0), planned_state(ops))

    boxed, built = at((box,)), at((box, *operations))
    least = [min(s.properties.s_top[0], s.properties.s_bottom[0]) for s in (built, boxed)]
    return (
        built.properties.area[0] / boxed.properties.area[0],
        built.properties.i_y[0] / boxed.properties.i_y[0],
        least[0] / least[1],
        built.torsion.j[0] / boxed.torsion.j[0],
    )


class BoxedRail(SimpleTestCase):
    """152.4 x 57.15 x 4.763 channel, boxed flush."""

    def test_before_and_after_boxing(self):
        survey, box = f.survey_of(f.straight_rail(*RAIL)), f.boxing("flush", RAIL[2])
        stock = sections(survey, (), "left", f.stations_at(1500.0), STOCK)
        boxed = sections(survey, (box,), "left", f.stations_at(1500.0), planned_state((box,)))
        self.assertAlmostEqual(stock.properties.i_y[0] / 4.125e6, 1.0, delta=0.005)
        self.assertAlmostEqual(boxed.properties.i_y[0] / 5.283e6, 1.0, delta=0.005)
        self.assertAlmostEqual(stock.torsion.j[0] / 9.23e3, 1.0, delta=0.03)
        self.assertAlmostEqual(boxed.torsion.j[0] / 2.918e6, 1.0, delta=0.01)

    def test_lower_part_gone_and_brought_back(self):
        """A, I, least S, J over the boxed rail, its lower 63.5 mm gone; flat liner, full-depth side plates, cap of 4.763."""
        plates = {"outer_plate": f.side_plate(6.35), "inner_plate": f.side_plate(6.35)}
        rows = (
            ("bare", {}, (0.56, 0.17, 0.24, 0.003)),
            ("liner", {"liner": f.liner(6.35)}, (0.75, 0.33, 0.50, 0.55)),
            ("liner and side plates", {"liner": f.liner(6.35), **plates}, (1.35, 0.47, 0.76, 1.06)),
            ("liner and cap", {"liner": f.liner(6.35), "cap": f.cap(4.763, 50.8)}, (1.13, 0.98, 1.02, 0.98)),
        )
        for name, parts, expected in rows:
            found = ratios_to_boxed(f.straight_notch(63.5, **parts))
            for what, mine, theirs in zip(("A", "I", "S", "J"), found, expected, strict=True):
                with self.subTest(f"{name}: {what}"):
                    # two figures were given: half a unit of the second, and 4 % for J by thin-wall cells
                    self.assertAlmostEqual(mine, theirs, delta=max(0.006, 0.04 * theirs if what == "J" else 0.0))


class CurvedLiner(SimpleTestCase):
    def test_share_of_a_half_pipe(self):
        """B 52.4, t 6.35, R 60: 0.30 held simply to 0.63 clamped."""
        self.assertAlmostEqual(effective_share_simple(52.4, 60.0, 6.35), 0.30, delta=0.005)
        self.assertAlmostEqual(effective_share_clamped(52.4, 60.0, 6.35), 0.63, delta=0.005)
