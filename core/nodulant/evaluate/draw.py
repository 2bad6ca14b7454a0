"""Columns and outlines that the screen draws; nothing here decides anything."""

import numpy as np

from nodulant.asbuilt.compare import as_built_state
from nodulant.base.arrays import Columns, significant
from nodulant.base.errors import InputError
from nodulant.checks.twist_rules import CASE as TWIST_CASE
from nodulant.clearance.tube_to_rail import travel_until
from nodulant.evaluate.axle import AxleSide, clearance_needed
from nodulant.evaluate.evaluation import (
    AxleDrawing,
    RailDrawing,
    SectionAt,
    SectionDrawing,
    SectionFigure,
    SectionShape,
    Strip,
)
from nodulant.frame.columns import rail_at
from nodulant.frame.model import placed_on, planned_state
from nodulant.frame.state import FrameState
from nodulant.geometry import Outline
from nodulant.job.document import Inputs
from nodulant.loads.cases import find_case
from nodulant.parts.sides import Side
from nodulant.sections.channel import shear_centre_offset_mm
from nodulant.sections.pieces import Piece
from nodulant.strength.compare import bending_stress
from nodulant.strength.rail import RailComparison
from nodulant.strength.twist import RailTwist, TwistComparison
from nodulant.survey.tyre import loaded_radius, parse_tyre


def rail_drawing(inputs: Inputs, side: Side) -> RailDrawing:
    """The rail of ``side`` at its surveyed stations with its cut edges placed."""
    survey = inputs.survey
    rail = survey.rails.of(side)
    sign = -1.0 if side == "left" else 1.0
    inward = -1.0 if rail.opens == "inward" else 1.0
    planned = planned_state(inputs.design.operations)
    built = as_built_state(inputs.design.operations, inputs.as_built.entries)
    return RailDrawing(
        side=side,
        x_mm=[s.x_mm for s in rail.stations],
        underside_z_mm=[s.underside_z_mm for s in rail.stations],
        top_z_mm=[s.underside_z_mm + s.height_mm for s in rail.stations],
        web_y_mm=[sign * rail.web_y_mm for _ in rail.stations],
        tip_y_mm=[sign * (rail.web_y_mm + inward * s.width_mm) for s in rail.stations],
        cuts=_cuts(inputs, side, planned),
        built_cuts=_cuts(inputs, side, built) if built else (),
    )


def _cuts(inputs: Inputs, side: Side, state: FrameState) -> tuple[Outline, ...]:
    """Edges of the cuts in their places; none where the readings do not make a cut."""
    try:
        placed = placed_on(inputs.survey, inputs.design.operations, side, state)
    except InputError:
        return ()
    rail = inputs.survey.rails.of(side)
    at, under = [s.x_mm for s in rail.stations], [s.underside_z_mm for s in rail.stations]
    edges = [(p.centre_mm, p.op.cut_edge()) for p in placed]
    return tuple(edge.moved(x, float(np.interp(x, at, under))) for x, edge in edges if edge is not None)


def axle_drawing(inputs: Inputs, axle: AxleSide) -> AxleDrawing:
    """Pose table of the tube with its clearance, heights above the datum plane."""
    path, sweep, rear = axle.path, axle.sweep, inputs.survey.rear
    if path is None or sweep is None:
        raise ValueError("the axle of this side was not computed")
    base, needed = axle.underside_z or 0.0, clearance_needed(inputs)
    tyre = loaded_radius(parse_tyre(rear.tyre), rear.loaded_radius_mm) if rear.tyre else None
    ride = int(np.argmin(np.abs(path.travel)))
    return AxleDrawing(
        side=axle.side,
        diameter_mm=2 * path.radius,
        travel_mm=significant(path.travel),
        x_mm=significant(path.x),
        z_mm=significant(path.z + base),
        clearance_mm=significant(sweep.clearance),
        touch_mm=travel_until(sweep, 0.0),
        needed_mm=needed,
        tyre_radius_mm=parse_tyre(rear.tyre).free_diameter_mm / 2 if rear.tyre else None,
        ground_z_mm=float(path.z[ride]) + base - tyre.radius_mm if tyre else None,
    )


def strip(rail: RailComparison, case_id: str, twist: TwistComparison | None = None) -> Strip:
    """Ratios, moment and use along a rail in the chosen case."""
    case, load = find_case(case_id), rail.loading
    plain = Strip(
        side=rail.side,
        state=rail.state.name,
        case=case.id,
        x_mm=significant(rail.x),
        area=significant(rail.ratios.area, 4),
        inertia=significant(rail.ratios.inertia, 4),
        modulus_top=significant(rail.ratios.modulus_top, 4),
        modulus_bottom=significant(rail.ratios.modulus_bottom, 4),
        shear_area=significant(rail.ratios.shear_area, 4),
        torsion_constant=significant(rail.ratios.torsion_constant, 4),
        moment_stock_nm=_scaled(load.stock.moment, case.factor / 1000) if load else None,
        moment_nm=_scaled(load.state.moment, case.factor / 1000) if load else None,
        stress_stock_mpa=_scaled(bending_stress(rail.stock, load.stock.moment), case.factor) if load else None,
        stress_mpa=_scaled(bending_stress(rail.built, load.state.moment), case.factor) if load else None,
        use_stock=_scaled(load.use_stock.reference, case.factor) if load else None,
        use=_scaled(load.use_state.reference, case.factor) if load else None,
    )
    if case_id != TWIST_CASE:
        return plain
    return _twisted(plain, rail, twist) if twist else plain.model_copy(update=_UNKNOWN)


_UNKNOWN: dict[str, object] = {
    "case": TWIST_CASE,
    **dict.fromkeys(("moment_stock_nm", "moment_nm", "stress_stock_mpa", "stress_mpa", "use_stock", "use")),
}


def _twisted(plain: Strip, rail: RailComparison, twist: TwistComparison) -> Strip:
    """The strip with moment, use and torque of the twist case at its own stations."""
    before, after = twist.stock.rails[rail.side], twist.planned.rails[rail.side]

    def at(row: RailTwist, values: Columns, factor: float = 1.0) -> list[float]:
        return _scaled(np.interp(rail.x, row.x, values), factor)

    worked = np.interp(rail.x, after.x, after.use_torque)
    columns = {
        "case": TWIST_CASE,
        "moment_stock_nm": at(before, before.moment, 1e-3),
        "moment_nm": at(after, after.moment, 1e-3),
        "stress_stock_mpa": None,
        "stress_mpa": None,
        "use_stock": at(before, before.use_bending),
        "use": at(after, after.use_bending),
        "torque_nm": at(after, after.torque, 1e-3),
        "use_torque": _scaled(np.where(rail.built.torsion.closed, worked, 0.0), 1.0),
    }
    return plain.model_copy(update=columns)


def _scaled(values: Columns, factor: float) -> list[float]:
    return significant(values * factor, 4)


_FIGURES = (("A", "mm²", "area"), ("I", "mm⁴", "i_y"), ("S top", "mm³", "s_top"), ("S bottom", "mm³", "s_bottom"))


def section_drawing(inputs: Inputs, at: SectionAt, rail: RailComparison | None) -> SectionDrawing | None:
    """Section before and after at one station of an evaluated rail; None where a wall was not measured."""
    if rail is None:
        return None
    row = int(np.argmin(np.abs(rail.x - at.x_mm)))
    before, after = rail.stock, rail.built
    rows = (
        *((name, unit, getattr(before.properties, f), getattr(after.properties, f)) for name, unit, f in _FIGURES),
        ("web area", "mm²", before.shear_area, after.shear_area),
        ("J", "mm⁴", before.torsion.j, after.torsion.j),
    )
    _, height, width, wall = rail_at(inputs.survey.rails.of(at.side), float(rail.x[row]))
    return SectionDrawing(
        side=at.side,
        x_mm=float(rail.x[row]),
        before=_shapes(before.pieces, row),
        after=_shapes(after.pieces, row),
        figures=tuple(SectionFigure(name=n, unit=u, stock=float(a[row]), planned=float(b[row])) for n, u, a, b in rows),
        shear_centre_mm=shear_centre_offset_mm(height, width, wall),
    )


def _shapes(pieces: tuple[Piece, ...], row: int) -> tuple[SectionShape, ...]:
    shapes = []
    for piece in pieces:
        low, high = float(piece.low[row]), float(piece.high[row])
        if piece.sign < 0 or high - low < 1e-6 or float(piece.share[row]) <= 0:
            continue
        y, z = significant(piece.y[row]), significant(np.clip(piece.z[row], low, high))
        shapes.append(SectionShape(name=piece.name, y_mm=y, z_mm=z, share=float(piece.share[row])))
    return tuple(shapes)
