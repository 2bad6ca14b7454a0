"""Every set of a small rack judged whole, one after the other: what the finder's answer is held against."""

import time
from dataclasses import dataclass

from nodulant.evaluate.finding import find_sets, joined_trials, judge_near
from nodulant.frame.model import placed_on, planned_state
from nodulant.frame.ops.notches.notch import Notch
from nodulant.frame.ops.pockets.raise_into import Raise
from nodulant.frame.parts import on_rail
from nodulant.search.cut_sets import cut_trials, stiffer_cut
from nodulant.search.finder import FoundSets
from nodulant.search.plate_sets import Stock
from tests import fixtures as f
from tests.core.test_operations import made

RACK = Stock(thicknesses_mm=(3.0, 5.0, 8.0), cap_heights_mm=(40.0, 70.0))
SHORT = Stock(thicknesses_mm=(6.0,), cap_heights_mm=(60.0,))
OVER = {"anchor_id": "rear-axle", "offset_mm": 0.0}
AHEAD = {"anchor_id": "rear-axle", "offset_mm": -700.0}
WORK = {
    "arc": None,
    "trapezoid": None,
    "pocket": ("raise", {"place": AHEAD}),
    "step": ("z-step", {}),
    "jog": ("narrow", {}),
}
"""Operations that are judged on the demo's frame; its own cut where there is none."""


@dataclass(frozen=True)
class Answer:
    """The lightest set that passes, kg a side, None where none does; sets judged and seconds."""

    kg: float | None
    judged: int
    seconds: float


def job_with(kind: str, heavier: float = 1.0, boxed: bool = True):
    """The demo's frame with one piece of work and so many times its masses, and that operation's index."""
    inputs, index = _job(kind)
    if not boxed:
        inputs, index = f.with_operations(inputs, inputs.design.operations[index]), 0
    masses = tuple(m.model_copy(update={"mass_kg": m.mass_kg * heavier}) for m in inputs.survey.masses)
    return f.with_survey(inputs, masses=masses), index


def _job(kind: str):
    if WORK[kind] is None:
        inputs = f.demo("arc" if kind == "arc" else "straight")
        return inputs, next(i for i, op in enumerate(inputs.design.operations) if isinstance(op, Notch))
    name, fields = WORK[kind]
    return f.with_operations(f.demo(), made(name, **fields)), 0


def by_brute_force(inputs, index: int, stock: Stock) -> Answer:
    """Judge every set, with the welds it asks for and with the largest that its plates allow."""
    began, operations = time.monotonic(), inputs.design.operations
    op, judge = operations[index], judge_near(inputs, operations[index].id)
    placed = placed_on(inputs.survey, operations, "left", planned_state(operations))
    own = next(p for p in placed if p.index == index)
    on = on_rail(inputs.survey, "left", own, placed)
    is_cut = isinstance(op, Notch | Raise)
    trials = (
        cut_trials(inputs.survey, operations, index, "left", stock)
        if is_cut
        else joined_trials(inputs, index, op, stock)[0]
    )
    passing = []
    for trial in trials:
        tries = [trial]
        if is_cut and (stronger := stiffer_cut(on.here, index)(trial)) is not None:
            tries.append(stronger)
        if any(not judge(t.operations).fails for t in tries):
            passing.append(trial.mass_kg)
    return Answer(min(passing, default=None), len(trials), time.monotonic() - began)


def by_finder(inputs, index: int, stock: Stock) -> FoundSets:
    """The finder, run to its end."""
    steps = find_sets(inputs, inputs.design.operations[index].id, stock)
    while True:
        try:
            next(steps)
        except StopIteration as end:
            return end.value


def compared(case, kind: str, stock: Stock, heavier: float = 1.0, boxed: bool = True) -> Answer:
    """Assert that the finder is within 2 % of the lightest set, or names what no set meets."""
    inputs, index = job_with(kind, heavier, boxed)
    every, found = by_brute_force(inputs, index, stock), by_finder(inputs, index, stock)
    if every.kg is None:
        case.assertEqual(found.choices, ())
        case.assertIn("still fails in", found.reason.text)
    else:
        case.assertTrue(found.choices, f"a set of {every.kg:.2f} kg passes")
        case.assertLessEqual(found.choices[0].mass_kg, 1.02 * every.kg)
        case.assertGreaterEqual(found.choices[0].mass_kg, every.kg - 1e-9)
    return every
