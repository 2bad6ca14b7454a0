"""The lightest plates from stock that bring every capacity and use of a notch to 1.00.

All combinations of liner, side plates and cap from the shop's stock, and of a boxing plate where
the rail is open there, are ranked by mass and screened at the stations inside the cut and beside
it, where the checks govern; the first that also passes the whole rail is the answer, and the
next ones that use other kinds of plates are its alternatives. Screening uses a subset of the stations, so it
drops no set that would pass. Overlaps are made as long as each plate needs, and the cut grows
or shrinks with the liner so that the opening that the axle needs stays clear.
"""

from collections.abc import Generator, Sequence
from dataclasses import dataclass

import numpy as np

from nodulant.base.arrays import Columns, Mask
from nodulant.base.errors import InputError, NotSolvable, UnknownReference
from nodulant.base.model import Frozen
from nodulant.frame.assembly import SectionColumns
from nodulant.frame.columns import rail_at
from nodulant.frame.model import STOCK, Placed, placed_on, planned_state, sections
from nodulant.frame.ops.boxing import Boxing
from nodulant.frame.ops.notch import Notch
from nodulant.frame.ops.notch_parts import notch_parts
from nodulant.frame.ops.union import Operation
from nodulant.frame.parts import added_parts, rail_here
from nodulant.frame.place import Place
from nodulant.frame.stations import stations
from nodulant.loads.beam import internal_forces
from nodulant.parts.sides import Side, on_sides
from nodulant.search.plate_sets import Row, Stock, can_be, candidates, plates_volume_mm3, with_plates
from nodulant.search.steps import Progress, to_the_end
from nodulant.strength.compare import HALF_OF_PEAK, ratios, use
from nodulant.strength.rail import missing_for_sections
from nodulant.survey.vehicle import Seat, Survey

ENOUGH = 1.0 - 1e-6
ALTERNATIVES = 4
MORE = 400
"""How many heavier sets are tried for alternatives once the lightest is found."""


class Candidate(Frozen):
    """A set of plates, mm; 0 means none."""

    liner_mm: float
    outer_mm: float
    inner_mm: float
    cap_mm: float
    cap_height_mm: float
    mass_kg: float
    boxing_mm: float = 0.0


class Choice(Frozen):
    """A set that passes, the notch and boxing plate that carry it, and what it is nearest to failing in."""

    set: Candidate
    notch: Notch
    boxing: Boxing | None
    least_ratio: float
    governs: str


class Found(Frozen):
    """The lightest set and the notch that carries it, or the reason why there is none."""

    notch: Notch | None
    best: Candidate | None
    tried: int
    reason: str
    least_ratio: float
    governs: str
    boxing: Boxing | None = None
    """The boxing plate that goes with the set, where the rail was open."""
    alternatives: tuple[Choice, ...] = ()
    """Heavier sets of other kinds of plates that pass too, lightest first."""


def find_reinforcement(
    survey: Survey, operations: tuple[Operation, ...], notch_id: str, stock: Stock, seats: tuple[Seat, ...] = ()
) -> Found:
    """Search the stock for ``notch_id`` to the end; raises UnknownReference."""
    return to_the_end(search_reinforcement(survey, operations, notch_id, stock, seats))


@dataclass(frozen=True)
class _Trial:
    """One set on its notch, with the boxing plate that goes with it."""

    row: Row
    notch: Notch
    boxing: Boxing | None

    @property
    def kinds(self) -> tuple[bool, ...]:
        """Which kinds of plates it uses."""
        return (*(mm > 0 for mm in self.row), self.boxing is not None)

    def among(self, operations: tuple[Operation, ...], index: int) -> tuple[Operation, ...]:
        """The design with this set in it."""
        added = () if self.boxing is None else (self.boxing,)
        return (*operations[:index], self.notch, *operations[index + 1 :], *added)


def search_reinforcement(
    survey: Survey, operations: tuple[Operation, ...], notch_id: str, stock: Stock, seats: tuple[Seat, ...] = ()
) -> Generator[Progress, None, Found]:
    """Search step by step: yields progress now and then, returns what was found; stop it at will."""
    index, notch = _notch_named(operations, notch_id)
    for each in on_sides(notch.side):
        if missing := missing_for_sections(survey, each):
            raise NotSolvable(
                "a wall of the rail was not measured", field=missing[0], found="nothing", acceptable="a thickness"
            )
    side = on_sides(notch.side)[0]
    trials = _by_mass(survey, operations, index, notch, side, stock)
    best: tuple[float, str] = (0.0, "")
    choices: list[Choice] = []
    kinds: set[tuple[bool, ...]] = set()
    first = 0
    for done, trial in enumerate(trials):
        if done % 40 == 0:
            yield done, len(trials)
        if choices and (done - first > MORE or len(choices) > ALTERNATIVES):
            break
        if trial.kinds in kinds:
            continue
        design = trial.among(operations, index)
        screened = least_ratio(survey, design, side, screen=True, seats=seats)
        best = max(best, screened)
        if screened[0] < ENOUGH:
            continue
        whole = min(least_ratio(survey, design, s, screen=False, seats=seats) for s in on_sides(notch.side))
        best = max(best, whole)
        if whole[0] >= ENOUGH:
            first = first or done + 1
            kinds.add(trial.kinds)
            choices.append(_choice(survey, trial, design, side, screened))
    if not choices:
        reason = _reason(operations, best)
        return Found(notch=None, best=None, tried=len(trials), reason=reason, least_ratio=best[0], governs=best[1])
    top = choices[0]
    return Found(
        notch=top.notch,
        best=top.set,
        tried=first,
        reason="",
        least_ratio=top.least_ratio,
        governs=top.governs,
        boxing=top.boxing,
        alternatives=tuple(choices[1:]),
    )


def _choice(
    survey: Survey, trial: _Trial, design: tuple[Operation, ...], side: Side, screened: tuple[float, str]
) -> Choice:
    liner, outer, inner, cap, height = trial.row
    own = {trial.notch.id} | ({trial.boxing.id} if trial.boxing else set())
    chosen = Candidate(
        liner_mm=liner,
        outer_mm=outer,
        inner_mm=inner,
        cap_mm=cap,
        cap_height_mm=height,
        mass_kg=_mass(survey, design, side, own),
        boxing_mm=trial.boxing.thickness_mm if trial.boxing else 0.0,
    )
    return Choice(set=chosen, notch=trial.notch, boxing=trial.boxing, least_ratio=screened[0], governs=screened[1])


def _notch_named(operations: tuple[Operation, ...], notch_id: str) -> tuple[int, Notch]:
    for index, op in enumerate(operations):
        if op.id == notch_id and isinstance(op, Notch):
            return index, op
    names = ", ".join(op.id for op in operations if isinstance(op, Notch)) or "none in this design"
    raise UnknownReference(f"there is no notch '{notch_id}'", field="/notch_id", found=notch_id, acceptable=names)


def _by_mass(
    survey: Survey, operations: tuple[Operation, ...], index: int, notch: Notch, side: Side, stock: Stock
) -> list[_Trial]:
    placed = placed_on(survey, operations, side, planned_state(operations))
    centre = next(p.centre_mm for p in placed if p.op.id == notch.id)
    here = rail_here(survey, side, centre, placed)
    height, width, closed = here.height, here.width, here.closed_width
    sets = candidates(stock, flat_sides=not here.round)
    every = [(row, with_plates(notch, row, here, stock.steel_id)) for row in sets]
    made = [(row, trial) for row, trial in every if can_be(trial)]
    trials = [_Trial(row, trial, None) for row, trial in made]
    if here.round:
        weight: list[float] = [sum(p.mass_kg() for p in notch_parts(t.notch, side, here)) for t in trials]
    else:
        weight = [plates_volume_mm3(t.notch, height, width, closed) for t in trials]
    if box := _boxing(survey, operations, notch, placed, side, stock):
        plate = box.thickness_mm * height * (box.end.offset_mm - box.start.offset_mm)
        trials += [_Trial(row, trial, box) for row, trial in made]
        weight += [plates_volume_mm3(n, height, width, width + box.thickness_mm) + plate for _, n in made]
    order = np.argsort(np.array(weight), kind="stable")
    return [trials[i] for i in order]


def _boxing(
    survey: Survey, operations: tuple[Operation, ...], notch: Notch, placed: Sequence[Placed], side: Side, stock: Stock
) -> Boxing | None:
    """A boxing plate over the cut, where nothing closes the rail there yet."""
    rail, own = survey.rails.of(side), next(p for p in placed if p.op.id == notch.id)
    closed = any(p.op.closes is not None and p.start_mm < own.end_mm and own.start_mm < p.end_mm for p in placed)
    if closed or rail.closed or rail.kind == "top-hat":
        return None
    _, height, _, wall = rail_at(rail, own.centre_mm)
    thick = min((t for t in stock.thicknesses_mm if t >= wall - 1e-6), default=max(stock.thicknesses_mm))
    reach = own.end_mm - own.centre_mm + 2.5 * height
    anchor, offset = notch.place.anchor_id, notch.place.offset_mm
    taken = {op.id for op in operations}
    name = next(f"boxing-{n}" for n in range(1, 99) if f"boxing-{n}" not in taken)
    return Boxing(
        id=name,
        name="Boxing over the notch",
        side=notch.side,
        start=Place(anchor_id=anchor, offset_mm=offset - reach),
        end=Place(anchor_id=anchor, offset_mm=offset + reach),
        thickness_mm=thick,
        steel_id=stock.steel_id,
    )


def least_ratio(
    survey: Survey, operations: tuple[Operation, ...], side: Side, screen: bool, seats: tuple[Seat, ...] = ()
) -> tuple[float, str]:
    """The least of capacity over stock and allowed use over use on ``side``, and what it is.

    At all stations or inside the cuts only; use is judged in and beside the cuts, where plates can
    mend it. A set that cannot be placed (a cut as deep as the rail, say) has ratio 0 and its reason.
    """
    state = planned_state(operations)
    try:
        placed = placed_on(survey, operations, side, state)
    except InputError as error:
        return 0.0, error.message
    rail = survey.rails.of(side)
    x = stations(rail.start_mm, rail.end_mm, placed, [])
    near = _beside_cuts(x, placed)
    if screen:
        x, near = x[near], near[near]
    stock, built = sections(survey, (), side, x, STOCK), sections(survey, operations, side, x, state)
    found = ratios(stock, built)
    rows = [
        (found.modulus_top, "bending capacity, top fibre"),
        (found.modulus_bottom, "bending capacity, bottom fibre"),
        (found.shear_area, "web shear capacity"),
        (found.torsion_constant, "torsion constant"),
        (found.torsion_capacity, "torsion capacity"),
    ]
    if survey.masses and survey.seats:
        rows.append((np.where(near, _room(survey, side, x, stock, built, seats), np.inf), "use along the rail"))
    return min(
        (float(values.min()), f"{name} at station {x[int(values.argmin())]:.0f} mm, {side}") for values, name in rows
    )


def _room(
    survey: Survey, side: Side, x: Columns, stock: SectionColumns, built: SectionColumns, seats: tuple[Seat, ...]
) -> Columns:
    """Allowed use over use at 1 g, each frame on its own seats: the stock use there, or half of the stock's peak."""
    rail = survey.rails.of(side)
    before = use(stock.properties, internal_forces(x, survey.masses, survey.seats).moment).reference
    after = use(built.properties, internal_forces(x, survey.masses, seats or survey.seats).moment).reference
    grid = np.linspace(rail.start_mm, rail.end_mm, 61)
    whole = use(
        sections(survey, (), side, grid, STOCK).properties, internal_forces(grid, survey.masses, survey.seats).moment
    )
    allowed = np.maximum(before, HALF_OF_PEAK * float(whole.reference.max()))
    room: Columns = allowed / np.maximum(after, 1e-9)
    return room


def _beside_cuts(x: Columns, placed: Sequence[Placed]) -> Mask:
    """Which stations lie in a cut or just beside it."""
    cuts = [p for p in placed if p.op.opens]
    near: Mask = np.zeros(len(x), dtype=bool)
    for p in cuts:
        near = near | ((x >= p.start_mm - 1) & (x <= p.end_mm + 1))
    return near


def _mass(survey: Survey, operations: tuple[Operation, ...], side: Side, own: set[str]) -> float:
    placed = placed_on(survey, operations, side, planned_state(operations))
    return sum(part.mass_kg() for part in added_parts(survey, side, placed).parts if part.operation in own)


def _reason(operations: tuple[Operation, ...], best: tuple[float, str]) -> str:
    boxed = any(op.kind == "boxing" for op in operations)
    hint = (
        ""
        if boxed
        else " The rail is not boxed here: a liner held by one web is not counted as a flange, and the cell stays open."
    )
    return f"No set from this stock reaches stock strength: the best of it leaves the {best[1]} at {best[0]:.2f} of stock.{hint} Add thicker plate or a higher cap to the stock, make the notch shallower, or use a straight-sided cut."
