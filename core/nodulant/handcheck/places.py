"""The governing places of the rails with every step of their stress, in N, mm and MPa and in lbf, in and psi.

Strength at a place is the fibre's yield moment, so that plates of other steels, with their shares and
slopes, are in it; S is that moment over the rail's yield. The last line is what the check says.
"""

import re
from dataclasses import dataclass

import numpy as np

from nodulant.base.model import Frozen
from nodulant.checks.check import Check
from nodulant.evaluate.rails.both_sides import bump_of
from nodulant.evaluate.rails.solved import SolvedInputs
from nodulant.frame.assembly import SectionColumns
from nodulant.frame.columns import rail_at
from nodulant.loads.cases import CASES, SPACE_CASES, in_force
from nodulant.materials import find_steel
from nodulant.parts.sides import LEFT_RIGHT, Side
from nodulant.sections.properties import Properties
from nodulant.sections.torsion import SHEAR_YIELD
from nodulant.strength.rail import RailComparison
from nodulant.strength.rail_case import MOST
from nodulant.units.inline import as_amount
from nodulant.units.said import MPA_PER_KSI, N_PER_LBF, significant_text
from nodulant.units.show import MM_PER_INCH

PLACES, APART_MM = 3, 150.0
NOTHING = 1e-6
WORD = re.compile(r"[A-Za-z_]+")
RULES = frozenset({"use-limit", "use-peak", "case-limit", "twist-limit", "accident-use"})
LEAST, TOLD = 1e-9, 5e-4
"""What stands for nothing below a line, and the least share of yield that has a line of its own."""


class InInches(Frozen):
    """The same step in lbf, in and psi: the formula with its numbers, what comes out, and its unit."""

    worked: str
    value: float
    unit: str


class Line(Frozen):
    """One step in N, mm and MPa: what it is, its formula, the numbers in it, and what comes out."""

    name: str
    formula: str
    values: dict[str, float]
    worked: str
    """The formula with its numbers."""
    value: float
    unit: str
    inch: InInches


class Reckoned(Frozen):
    """One frame at the place: lines from the forces to the factor of safety."""

    lines: tuple[Line, ...]
    factor: float


class Plated(Frozen):
    """A plate in the section: its role, thickness and how far it is brought in, 0 to 1."""

    role: str
    thickness_mm: float
    share: float


class GoverningPlace(Frozen):
    """A place of one rail in one case, as planned and as stock."""

    check_id: str
    title: str
    case: str
    basis: str
    side: Side
    x_mm: float
    height_mm: float
    width_mm: float
    wall_mm: float
    steel: str
    plates: tuple[Plated, ...]
    planned: Reckoned
    stock: Reckoned | None
    told: float
    """What the check says."""


@dataclass(frozen=True)
class _Forces:
    """Magnitudes at the place, N and N mm."""

    moment: float
    side_moment: float = 0.0
    axial: float = 0.0
    shear: float = 0.0
    torque: float = 0.0
    strip_torque: float = 0.0
    bimoment: float = 0.0


def governing_places(checks: tuple[Check, ...], solved: SolvedInputs) -> tuple[GoverningPlace, ...]:
    """The places that come nearest to their limits, each at least 150 mm from the others."""
    rows = [c for c in checks if c.limit_id in RULES and c.beyond is not None and c.state == "planned"]
    out: list[GoverningPlace] = []
    for check in sorted(rows, key=lambda c: -(c.beyond or 0.0)):
        x = check.governs.station_mm
        if x is None or any(abs(x - p.x_mm) < APART_MM for p in out):
            continue
        place = _place(check, x, solved)
        if place is not None:
            out.append(place)
        if len(out) == PLACES:
            break
    return tuple(out)


def _place(check: Check, x: float, solved: SolvedInputs) -> GoverningPlace | None:
    side: Side = "left" if check.id.split(":")[2] == LEFT_RIGHT[0] else "right"
    rail, survey = solved.rails[side], solved.inputs.survey
    case = next(c for c in in_force((*CASES, *SPACE_CASES), solved.plan) if c.id == check.governs.case)
    planned, stock = (_forces(solved, rail, check, x, name) for name in ("planned", "stock"))
    if planned is None:
        return None
    own = rail.built.rows(np.array([_row(rail, x)]))
    before = rail.stock.rows(np.array([_row(rail, x)]))
    _, height, width, wall = rail_at(survey.rails.of(side), x)
    steel = find_steel(survey.rails.of(side).steel_id)
    plates, row = rail.built.whole.plates, _row(rail, x)
    return GoverningPlace(
        check_id=check.id,
        title=check.title,
        case=case.name,
        basis=case.basis,
        side=side,
        x_mm=x,
        height_mm=height,
        width_mm=width,
        wall_mm=wall,
        steel=f"{steel.name}, yield {as_amount('stress', steel.yield_mpa)}",
        plates=tuple(
            Plated(role=p.role, thickness_mm=p.thickness_mm, share=float(p.share[row]))
            for p in plates
            if p.share[row] > 0
        ),
        planned=_reckoned(planned, own, steel.yield_mpa, case.accident),
        stock=None if stock is None else _reckoned(stock, before, steel.yield_mpa, case.accident),
        told=_factor_told(check),
    )


def _factor_told(check: Check) -> float:
    """The factor of safety in a check's own words: a worst place harder worked than stock's is told by its ratio."""
    if check.limit_id == "use-peak" and check.why is not None:
        return 1.0 / check.why.values["own"]
    return check.value or 0.0


def _row(rail: RailComparison, x: float) -> int:
    return int(np.argmin(np.abs(rail.x - x)))


def _forces(solved: SolvedInputs, rail: RailComparison, check: Check, x: float, frame: str) -> _Forces | None:
    case_id = check.governs.case or ""
    if case_id == "bump":
        if rail.loading is None:
            return None
        loads = rail.loading.stock if frame == "stock" else rail.loading.state
        return _Forces(bump_of(solved.inputs).factor * abs(float(loads.moment[_row(rail, x)])))
    if solved.frames is None:
        return None
    own = solved.frames.stock if frame == "stock" else solved.frames.planned
    case = own.cases.get(case_id, {}).get(rail.side)
    if case is None:
        return None
    k, f = int(np.argmin(np.abs(case.x - x))), case.forces
    columns = (f.moment, f.side_moment, f.axial, f.shear, f.torque, f.strip_torque, f.bimoment)
    return _Forces(*(float(column[k]) for column in columns))


def _reckoned(f: _Forces, section: SectionColumns, yield_mpa: float, accident: bool) -> Reckoned:
    p = section.properties
    top, bottom = float(p.working_top[0]), float(p.working_bottom[0])
    strength = max(min(top, bottom), LEAST)
    own_yield = min(top / max(float(p.s_top[0]), LEAST), yield_mpa)
    softer = max(min(top / max(float(p.reference_top[0]), LEAST), 1.0), LEAST)
    modulus = strength / yield_mpa
    first = (
        _line(
            "section modulus that counts",
            "strength / steel",
            "mm³",
            modulus,
            strength=(strength, "N mm"),
            steel=(yield_mpa, "MPa"),
        ),
        _line(
            "stress from upright bending",
            "moment / S",
            "MPa",
            f.moment / modulus,
            moment=(f.moment, "N mm"),
            S=(modulus, "mm³"),
        ),
    )
    along, warping = _along(f, p, strength, own_yield), _warping(f, section, own_yield)
    across = _across(f, section, softer, own_yield)
    pulled, sheared = sum(row.value for row in along), sum(row.value for row in across)
    whole = float(np.hypot(pulled + warping.value, sheared))
    sums = {"along": (pulled + warping.value, ""), "shear": (sheared, "")}
    together = _line("together, von Mises", "(along ** 2 + shear ** 2) ** 0.5", "of yield", whole, **sums)
    shown = [row for row in (*along, warping, *across) if row.value > TOLD]
    last = _last(float(np.hypot(pulled, sheared)), whole, accident and warping.value > 0)
    return Reckoned(lines=(*first, *shown, together, last), factor=last.value)


def _along(f: _Forces, p: Properties, strength: float, own_yield: float) -> list[Line]:
    """Shares of yield along the rail: bending upright and across, pull."""
    product, i_z = abs(float(p.i_yz[0])), max(float(p.i_z[0]), LEAST)
    left = max(1.0 - product**2 / (max(float(p.i_y[0]), LEAST) * i_z), 0.05)
    side, area = max(float(p.working_side[0]), LEAST), max(float(p.area[0]), LEAST)
    upright = {
        "moment": (f.moment, "N mm"),
        "across": (f.side_moment, "N mm"),
        "product": (product, "mm⁴"),
        "I_z": (i_z, "mm⁴"),
    }
    return [
        _line(
            "upright bending",
            "(moment + across * product / I_z) / left / strength",
            "of yield",
            (f.moment + f.side_moment * product / i_z) / left / strength,
            **upright,
            left=(left, ""),
            strength=(strength, "N mm"),
        ),
        _line(
            "bending across",
            "across / left / strength",
            "of yield",
            f.side_moment / left / side,
            across=(f.side_moment, "N mm"),
            left=(left, ""),
            strength=(side, "N mm"),
        ),
        _line(
            "pull or push",
            "axial / (area * steel)",
            "of yield",
            f.axial / (area * own_yield),
            axial=(f.axial, "N"),
            area=(area, "mm²"),
            steel=(own_yield, "MPa"),
        ),
    ]


def _warping(f: _Forces, section: SectionColumns, own_yield: float) -> Line:
    most, i_w = float(section.warping.w_most[0]), max(float(section.warping.i_w[0]), LEAST)
    values = {
        "bimoment": (f.bimoment, "N mm²"),
        "w": (most, "mm²"),
        "I_w": (i_w, "mm⁶"),
        "steel": (own_yield, "MPa"),
    }
    value = f.bimoment * most / (i_w * own_yield)
    return _line("warping of an open rail", "bimoment * w / (I_w * steel)", "of yield", value, **values)


def _across(f: _Forces, section: SectionColumns, softer: float, own_yield: float) -> list[Line]:
    """Shares of shear yield: shear, torque round the cell, torque in open walls."""
    t, web = section.torsion, max(float(section.shear_capacity[0]) * softer, LEAST)
    cell = float(t.cell_capacity[0]) * softer
    torque, closed, cell = (f.torque if cell > 0 else 0.0), float(t.closure[0]), max(cell, LEAST)
    thick, j, tau = float(section.warping.thickest[0]), max(float(t.j[0]), LEAST), SHEAR_YIELD * own_yield
    unit = "of shear yield"
    return [
        _line("shear", "shear / strength", unit, f.shear / web, shear=(f.shear, "N"), strength=(web, "N")),
        _line(
            "torque round the cell",
            "torque * closed / strength",
            unit,
            torque * closed / cell,
            torque=(torque, "N mm"),
            closed=(closed, ""),
            strength=(cell, "N mm"),
        ),
        _line(
            "torque in open walls",
            "torque * t / (J * shear_yield)",
            unit,
            f.strip_torque * thick / (j * tau),
            torque=(f.strip_torque, "N mm"),
            t=(thick, "mm"),
            J=(j, "mm⁴"),
            shear_yield=(tau, "MPa"),
        ),
    ]


def _last(primary: float, together: float, secondary: bool) -> Line:
    primary, together = max(primary, 1 / MOST), max(together, 1 / MOST)
    if not secondary:
        return _line("factor of safety", "1 / together", "of safety", 1 / together, together=(together, ""))
    return _line(
        "factor of safety, warping as secondary stress",
        "min(1 / primary, 2 / together)",
        "of safety",
        min(1 / primary, 2 / together),
        primary=(primary, ""),
        together=(together, ""),
    )


_IN: dict[str, tuple[str, float]] = {
    "": ("", 1.0),
    "N": ("lbf", N_PER_LBF),
    "N mm": ("lbf in", N_PER_LBF * MM_PER_INCH),
    "N mm²": ("lbf in²", N_PER_LBF * MM_PER_INCH**2),
    "MPa": ("psi", MPA_PER_KSI / 1000),
    "mm": ("in", MM_PER_INCH),
    "mm²": ("in²", MM_PER_INCH**2),
    "mm³": ("in³", MM_PER_INCH**3),
    "mm⁴": ("in⁴", MM_PER_INCH**4),
    "mm⁶": ("in⁶", MM_PER_INCH**6),
}
"""Both systems are coherent, so that every formula holds in either (exact conversions)."""


def _line(name: str, formula: str, unit: str, value: float, **values: tuple[float, str]) -> Line:
    metric = {key: v for key, (v, _) in values.items()}
    inch = {key: v / _IN[of][1] for key, (v, of) in values.items()}
    own, per = _IN.get(unit, (unit, 1.0))
    return Line(
        name=name,
        formula=formula,
        values=metric,
        worked=_worked(formula, metric),
        value=value,
        unit=unit,
        inch=InInches(worked=_worked(formula, inch), value=value / per, unit=own),
    )


def _worked(formula: str, values: dict[str, float]) -> str:
    """The formula with four digits in place of each name."""
    shown = {name: significant_text(v if abs(v) > NOTHING else 0.0, 4) for name, v in values.items()}
    return WORD.sub(lambda m: shown.get(m[0], m[0]), formula)
