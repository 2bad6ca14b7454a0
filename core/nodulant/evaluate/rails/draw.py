"""Columns and outlines that the screen draws; nothing here decides anything."""

from collections.abc import Mapping

import numpy as np

from nodulant.asbuilt.compare import as_built_state
from nodulant.base.arrays import Columns, significant
from nodulant.clearance.tube_to_rail import travel_until
from nodulant.drawn.dimension import Dimension, Span, dimension
from nodulant.evaluate.evaluation import (
    AxleDrawing,
    FlangePlate,
    RailDrawing,
    SectionAt,
    SectionDrawing,
    SectionFigure,
    SectionShape,
    SeenBlock,
    Strip,
)
from nodulant.evaluate.rails.axle import AxleSide, clearance_needed
from nodulant.evaluate.rails.measured import measured
from nodulant.frame.in_place import blocks_in_place, lying_in_place
from nodulant.frame.model import planned_state
from nodulant.frame.route import Route
from nodulant.frame.seen import cut_outlines, rail_seen
from nodulant.job.document import Inputs
from nodulant.loads.cases import SPACE_CASES, find_case
from nodulant.parts.sides import Side
from nodulant.parts.tyre import loaded_radius, parse_tyre
from nodulant.sections.pieces import Piece
from nodulant.sections.sectorial import sectorial
from nodulant.strength.compare import bending_stress
from nodulant.strength.rail import RailComparison
from nodulant.strength.rail_case import RailCase
from nodulant.strength.space import FrameComparison
from nodulant.units.inline import as_thickness


def rail_drawing(inputs: Inputs, side: Side, routes: Mapping[Side, Route], *, read: bool) -> RailDrawing:
    """The rail of ``side`` on its planned route at its surveyed stations and cuts, with its cut edges placed.

    What is marked off on it is given where it is to be ``read``.
    """
    route = routes[side]
    planned = planned_state(inputs.design.operations)
    built = as_built_state(inputs.design.operations, inputs.as_built.entries)
    rail = rail_seen(inputs.survey, side, route)

    def seen(*, rail_to_rail: bool) -> tuple[SeenBlock, ...]:
        rows = blocks_in_place(inputs.survey, inputs.design.operations, side, planned, route, rail_to_rail=rail_to_rail)
        return tuple(SeenBlock(operation=own, name=name, outline=outline) for own, name, outline in rows)

    flat = lying_in_place(inputs.survey, inputs.design.operations, side, planned, route)
    return RailDrawing(
        side=side,
        stock_x_mm=significant(rail.stock_x, 7),
        x_mm=significant(rail.x, 7),
        underside_z_mm=significant(rail.low),
        top_z_mm=significant(rail.high),
        web_y_mm=significant(rail.web),
        tip_y_mm=significant(rail.tip),
        cuts=cut_outlines(inputs.survey, inputs.design.operations, side, planned, route),
        built_cuts=cut_outlines(inputs.survey, inputs.design.operations, side, built, route) if built else (),
        flange_plates=tuple(FlangePlate(part=part, outline=outline) for part, outline in flat),
        crossings=seen(rail_to_rail=True),
        mounts=seen(rail_to_rail=False),
        measured=measured(inputs, side, planned, routes) if read else (),
    )


def axle_drawing(inputs: Inputs, axle: AxleSide, route: Route) -> AxleDrawing:
    """Pose table of the tube with its clearance, heights above the datum plane."""
    path, sweep, rear = axle.path, axle.sweep, inputs.survey.rear
    if path is None or sweep is None:
        raise ValueError("the axle of this side was not computed")
    along, up = route.shift_at(inputs.survey.wheelbase_mm or 0.0)
    base, needed = (axle.underside_z or 0.0) + up, clearance_needed(inputs)
    tyre = loaded_radius(parse_tyre(rear.tyre), rear.loaded_radius_mm) if rear.tyre else None
    ride = int(np.argmin(np.abs(path.travel)))
    return AxleDrawing(
        side=axle.side,
        diameter_mm=2 * path.radius,
        travel_mm=significant(path.travel),
        x_mm=significant(path.x + along),
        z_mm=significant(path.z + base),
        clearance_mm=significant(sweep.clearance),
        touch_mm=travel_until(sweep, 0.0),
        needed_mm=needed,
        tyre_radius_mm=parse_tyre(rear.tyre).free_diameter_mm / 2 if rear.tyre else None,
        ground_z_mm=float(path.z[ride]) + base - tyre.radius_mm if tyre else None,
    )


def strip(
    rail: RailComparison, case_id: str, frames: FrameComparison | None = None, life: Columns | None = None
) -> Strip:
    """Ratios, moment and use along a rail in the chosen case."""
    case, load = find_case(case_id), rail.loading
    plain = Strip(
        side=rail.side,
        state=rail.state.name,
        case=case.id,
        x_mm=significant(rail.route.x(rail.x)),
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
        use_stock=_scaled(load.use_stock.working, case.factor) if load else None,
        use=_scaled(load.use_state.working, case.factor) if load else None,
        life=None if life is None else _scaled(life, 1.0),
    )
    if case_id not in {c.id for c in SPACE_CASES}:
        return plain
    known = frames is not None and case_id in frames.planned.cases
    return _in_space(plain, rail, frames, case_id) if frames and known else plain.model_copy(update=_unknown(case_id))


def _unknown(case_id: str) -> dict[str, object]:
    names = ("moment_stock_nm", "moment_nm", "stress_stock_mpa", "stress_mpa", "use_stock", "use")
    return {"case": case_id, **dict.fromkeys(names)}


def _in_space(plain: Strip, rail: RailComparison, frames: FrameComparison, case_id: str) -> Strip:
    """The strip with moment, use and torque of a case of the frame in space at its own stations."""
    before, after = frames.stock.cases.get(case_id, {}).get(rail.side), frames.planned.cases[case_id][rail.side]

    def at(row: RailCase, values: Columns, factor: float = 1.0) -> list[float]:
        return _scaled(np.interp(rail.x, row.x, values), factor)

    columns = {
        "case": case_id,
        "moment_stock_nm": at(before, before.forces.moment, 1e-3) if before else None,
        "moment_nm": at(after, after.forces.moment, 1e-3),
        "stress_stock_mpa": None,
        "stress_mpa": None,
        "use_stock": at(before, before.use) if before else None,
        "use": at(after, after.use),
        "torque_nm": at(after, after.forces.torque, 1e-3),
        "use_torque": at(after, after.torsion + after.warping),
    }
    return plain.model_copy(update=columns)


def _scaled(values: Columns, factor: float) -> list[float]:
    return significant(values * factor, 4)


CORNERS = 4
SIZE_MM = 1.0
_FIGURES = (("A", "mm²", "area"), ("I", "mm⁴", "i_y"), ("S top", "mm³", "s_top"), ("S bottom", "mm³", "s_bottom"))


def section_drawing(inputs: Inputs, at: SectionAt, rail: RailComparison | None) -> SectionDrawing | None:
    """Section before and after at one station of an evaluated rail; None where a wall was not measured."""
    if rail is None:
        return None
    row = int(np.argmin(np.abs(rail.x - rail.route.stock_x(at.x_mm))))
    before, after = rail.stock, rail.built
    rows = (
        *((name, unit, getattr(before.properties, f), getattr(after.properties, f)) for name, unit, f in _FIGURES),
        ("web area", "mm²", before.shear_area, after.shear_area),
        ("J", "mm⁴", before.torsion.j, after.torsion.j),
    )
    shapes = _shapes(after.pieces, row)
    return SectionDrawing(
        side=at.side,
        x_mm=rail.route.x_at(float(rail.x[row])),
        before=_shapes(before.pieces, row),
        after=shapes,
        figures=tuple(SectionFigure(name=n, unit=u, stock=float(a[row]), planned=float(b[row])) for n, u, a, b in rows),
        shear_centre_mm=_shear_centre(rail, row),
        dimensions=_sizes(shapes),
        walls=_walls(shapes, float(rail.built.whole.rail.wall[row])),
    )


def _sizes(shapes: tuple[SectionShape, ...]) -> tuple[Dimension, ...]:
    """Height and width of what is left of the rail, from its own corners."""
    own = [s for s in shapes if s.name == "rail"]
    if not own:
        return ()
    y, z = [v for s in own for v in s.y_mm], [v for s in own for v in s.z_mm]
    upright = Span(edge="left", a=min(z), b=max(z), from_a=min(y), from_b=min(y))
    flat = Span(edge="below", a=min(y), b=max(y), from_a=min(z), from_b=min(z))
    return dimension("height of the rail here", upright, SIZE_MM), dimension("width of the rail", flat, SIZE_MM)


def _walls(shapes: tuple[SectionShape, ...], wall_mm: float) -> tuple[str, ...]:
    """The rail's wall, and each kind of plate with its thickness: the short side of its rectangle."""
    plates = {
        f"{s.name} {as_thickness(min(max(s.y_mm) - min(s.y_mm), max(s.z_mm) - min(s.z_mm)))}"
        for s in shapes
        if len(s.y_mm) == CORNERS and s.name not in {"rail", "void"}
    }
    return (f"wall {as_thickness(wall_mm)}", *sorted(plates))


def _shear_centre(rail: RailComparison, row: int) -> float:
    """How far the planned section's shear centre lies outside the web's middle, mm; negative inside the section."""
    own = rail.built.walls.rows(np.array([row]))
    return float(rail.built.whole.rail.wall[row] / 2 - sectorial(own).y[0])


def _shapes(pieces: tuple[Piece, ...], row: int) -> tuple[SectionShape, ...]:
    shapes = []
    for piece in pieces:
        low, high = float(piece.low[row]), float(piece.high[row])
        if high - low < 1e-6 or float(piece.share[row]) <= 0:
            continue
        y, z = significant(piece.y[row]), significant(np.clip(piece.z[row], low, high))
        name = piece.name if piece.sign > 0 else "void"
        shapes.append(SectionShape(name=name, y_mm=y, z_mm=z, share=float(piece.share[row])))
    return tuple(shapes)
