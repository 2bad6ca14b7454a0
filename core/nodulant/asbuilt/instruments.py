"""What is read with: by which name it is logged, how finely it is read, and how far a good one may be out.

``at_most`` and ``share`` are the largest error of the instrument itself, fixed and per unit of what is
read; ``by_hand`` is the spread of how well a person sets it on the mark. Sources: tapes, class II of
Directive 2014/32/EU, annex X: 0.3 mm and 0.2 mm a metre; callipers, ISO 13385-1: 0.03 mm; torque wrenches,
ISO 6789-1: 4 % of the reading (all from memory); the others common practice.
"""

from functools import lru_cache

from nodulant.base.model import Frozen
from nodulant.parts.measure import Measure
from nodulant.units.figure import N_M_PER_LBF_FT
from nodulant.units.said import KG_PER_LB
from nodulant.units.show import MM_PER_INCH, Style


class Instrument(Frozen):
    """An instrument; how finely it is read in a metric and in an inch job, in the reading's unit."""

    id: str
    name: str
    metric: float
    inch: float
    at_most: float
    share: float = 0.0
    by_hand: float = 0.0
    unit: Measure = "mm"
    reach: float = 20_000.0
    """The most that it reads."""
    suits: tuple[str, ...] = ()
    """Limits whose readings it can take, where it takes no others of its unit."""
    zeroed: bool = False
    """It is zeroed on the rail before it is read."""

    def resolution(self, style: Style) -> float:
        """How finely it is read where the job's tape is of this style."""
        return self.metric if style == "mm" else self.inch


INSTRUMENTS: tuple[Instrument, ...] = (
    Instrument(id="tape", name="tape", metric=0.5, inch=MM_PER_INCH / 32, at_most=0.3, share=0.0002, by_hand=0.3),
    Instrument(
        id="rule", name="steel rule", metric=0.5, inch=MM_PER_INCH / 64, at_most=0.1, by_hand=0.15, reach=1000.0
    ),
    Instrument(
        id="calliper", name="calliper", metric=0.02, inch=MM_PER_INCH / 1000, at_most=0.03, by_hand=0.02, reach=150.0
    ),
    Instrument(
        id="depth-gauge",
        name="depth gauge",
        metric=0.02,
        inch=MM_PER_INCH / 1000,
        at_most=0.03,
        by_hand=0.03,
        reach=150.0,
    ),
    Instrument(id="laser", name="laser tape", metric=1.0, inch=1.0, at_most=1.5, by_hand=0.3),
    Instrument(
        id="level",
        name="levels from one line",
        metric=0.5,
        inch=MM_PER_INCH / 32,
        suits=("frame-twist",),
        at_most=0.5,
        by_hand=0.3,
    ),
    Instrument(
        id="wall-gauge",
        name="wall gauge",
        metric=0.01,
        inch=MM_PER_INCH / 1000,
        suits=("as-built-plate",),
        at_most=0.1,
        by_hand=0.02,
        reach=50.0,
    ),
    Instrument(
        id="dial",
        name="dial indicator",
        metric=0.01,
        inch=MM_PER_INCH / 1000,
        suits=("as-built-runout",),
        at_most=0.015,
        by_hand=0.01,
        reach=10.0,
    ),
    Instrument(
        id="angle-finder",
        name="angle finder",
        metric=0.1,
        inch=0.1,
        at_most=0.1,
        by_hand=0.03,
        unit="deg",
        zeroed=True,
    ),
    Instrument(id="protractor", name="protractor", metric=0.5, inch=0.5, at_most=0.25, by_hand=0.1, unit="deg"),
    Instrument(
        id="wheel-gauge",
        name="camber, caster and toe gauge",
        metric=0.01,
        inch=0.01,
        at_most=0.02,
        by_hand=0.01,
        suits=("as-built-camber", "as-built-caster", "as-built-toe"),
        unit="deg",
    ),
    Instrument(
        id="scales", name="corner scales", metric=0.5, inch=KG_PER_LB, at_most=0.5, share=0.001, by_hand=0.5, unit="kg"
    ),
    Instrument(
        id="torque-wrench", name="torque wrench", metric=1.0, inch=N_M_PER_LBF_FT, at_most=0.0, share=0.04, unit="N m"
    ),
    Instrument(
        id="turns",
        name="turns by a mark on the wheel",
        metric=0.05,
        inch=0.05,
        at_most=0.02,
        by_hand=0.02,
        unit="turns",
    ),
)


BETWEEN_MARKS, AT_A_MARK = ("tape", "laser"), ("level", "laser")
"""Ids of what a length between two marks is taken with, and a level; the usual one first."""


@lru_cache(maxsize=64)
def of_unit(unit: Measure) -> tuple[Instrument, ...]:
    """The instruments that read this."""
    return tuple(i for i in INSTRUMENTS if i.unit == unit)


def suiting(unit: Measure, limit: str, value: float) -> tuple[Instrument, ...]:
    """The instruments that read this and reach so far: those that are made for the limit first, none that are made for others."""
    fit = [i for i in of_unit(unit) if abs(value) <= i.reach and (not i.suits or limit in i.suits)]
    return tuple(sorted(fit, key=lambda i: limit not in i.suits))


def named(name: str) -> Instrument | None:
    """The instrument of that name; None for one that is not known."""
    return next((i for i in INSTRUMENTS if i.name == name), None)
