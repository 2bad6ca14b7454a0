"""Assemble the section at every station from the rail and what operations changed.

One network serves all stations: web, top flange, closing wall, lower wall (bottom flange or
liner) and the cap's three walls. Absent walls have zero thickness.
"""

from collections.abc import Sequence
from dataclasses import dataclass, fields

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.frame.additions import Additions, Plate, Role
from nodulant.frame.columns import RailColumns
from nodulant.sections import pieces as shapes
from nodulant.sections.pieces import Piece
from nodulant.sections.properties import Properties, combine
from nodulant.sections.torsion import Doubler, Network, Rows, Torsion, Wall, torsion


@dataclass(frozen=True)
class SectionColumns:
    """Everything known of a rail's sections; shapes (stations,)."""

    properties: Properties
    torsion: Torsion
    shear_area: Columns
    shear_capacity: Columns
    """Web area times shear yield, N."""
    cut: Columns
    pieces: tuple[Piece, ...]

    def rows(self, at: Rows) -> "SectionColumns":
        """The same at some of the stations, without the polygons."""
        p, t = self.properties, self.torsion
        properties = Properties(*(getattr(p, f.name)[at] for f in fields(p)))
        torsion = Torsion(*(getattr(t, f.name)[at] for f in fields(t)))
        return SectionColumns(properties, torsion, self.shear_area[at], self.shear_capacity[at], self.cut[at], ())


@dataclass(frozen=True)
class Hole:
    """A round hole in the web: station and height of its centre above the underside, diameter, mm."""

    x: float
    height: float
    diameter: float


@dataclass(frozen=True)
class Layout:
    """A rail with everything done to it, ready to be sectioned."""

    rail: RailColumns
    cut: Columns
    plates: tuple[Plate, ...]
    holes: tuple[Hole, ...]

    def of(self, role: Role) -> list[Plate]:
        """Plates of one role."""
        return [plate for plate in self.plates if plate.role == role]


def lay_out(rail: RailColumns, additions: Sequence[Additions], holes: tuple[Hole, ...]) -> Layout:
    """Compose operations: the deepest cut governs, plates add up."""
    cut = np.zeros_like(rail.x)
    for addition in additions:
        cut = np.maximum(cut, addition.cut)
    return Layout(rail, np.minimum(cut, rail.height), tuple(p for a in additions for p in a.plates), holes)


def section_columns(layout: Layout) -> SectionColumns:
    """Properties, torsion and shear of every station."""
    area, capacity = _shear(layout)
    pieces = section_pieces(layout)
    return SectionColumns(combine(pieces), torsion(_network(layout)), area, capacity, layout.cut, tuple(pieces))


def section_pieces(layout: Layout) -> list[Piece]:
    """The polygons of the section, rail first."""
    rail = layout.rail
    out = [shapes.channel(rail.height, rail.width, rail.wall, rail.inside_radius, layout.cut, rail.yields)]
    out.extend(_hole_piece(layout, hole) for hole in layout.holes)
    out.extend(_plate_piece(layout, plate) for plate in layout.plates if plate.role != "cap")
    for cap in layout.of("cap"):
        out.extend(_cap_pieces(layout, cap))
    return out


def _hole_piece(layout: Layout, hole: Hole) -> Piece:
    rail, one = layout.rail, np.ones_like(layout.cut)
    half = np.sqrt(np.maximum((hole.diameter / 2) ** 2 - (rail.x - hole.x) ** 2, 0.0))
    low = np.maximum(hole.height - half, layout.cut)
    return shapes.rectangle(
        "hole", 0 * one, rail.wall, low, np.maximum(hole.height + half, low), one, one, rail.yields, sign=-1.0
    )


def closing_plane(layout: Layout) -> tuple[Columns, Columns]:
    """Outer face of the closing plate and its thickness per station, mm (thickness 0 where open)."""
    face, thick = layout.rail.width.copy(), np.zeros_like(layout.cut)
    for plate in layout.of("boxing"):
        here = plate.share > 0
        face = np.where(here, layout.rail.width - plate.set_in_mm, face)
        thick = np.where(here, plate.thickness_mm, thick)
    return face, thick


def _plate_piece(layout: Layout, plate: Plate) -> Piece:
    face, _ = closing_plane(layout)
    thick = np.full_like(layout.cut, plate.thickness_mm)
    yields = (plate.steel.yield_reference_mpa, plate.steel.yield_mpa)
    if plate.role == "outer":
        y0, y1 = -thick, 0 * thick
    elif plate.role == "boxing":
        y0, y1 = face - thick, face
    elif plate.role == "inner":
        y0, y1 = face, face + thick
    else:
        y0, y1 = 0 * thick, np.maximum(face, layout.rail.width)
    low = np.maximum(plate.low, layout.cut) if plate.role != "liner" else plate.low
    return shapes.rectangle(plate.role, y0, y1, low, plate.high, plate.share, plate.credit, yields)


def _cap_pieces(layout: Layout, cap: Plate) -> list[Piece]:
    width, t = layout.rail.width, np.full_like(layout.cut, cap.thickness_mm)
    yields = (cap.steel.yield_reference_mpa, cap.steel.yield_mpa)
    rows = (
        (0 * t, t, cap.low, cap.high),
        (width - t, width, cap.low, cap.high),
        (t, width - t, cap.high - t, cap.high),
    )
    return [shapes.rectangle("cap", *row, cap.share, cap.credit, yields) for row in rows]


def _shear(layout: Layout) -> tuple[Columns, Columns]:
    rail = layout.rail
    area = rail.wall * (rail.height - layout.cut)
    for hole in layout.holes:
        half = np.sqrt(np.maximum((hole.diameter / 2) ** 2 - (rail.x - hole.x) ** 2, 0.0))
        area = area - rail.wall * np.maximum(hole.height + half - np.maximum(hole.height - half, layout.cut), 0.0)
    capacity = area * rail.yields[0]
    for plate in layout.plates:
        if plate.role == "liner":
            continue
        low = plate.low if plate.role == "cap" else np.maximum(plate.low, layout.cut)
        count = 2 if plate.role == "cap" else 1
        added = count * plate.thickness_mm * plate.share * np.maximum(plate.high - low, 0.0)
        area, capacity = area + added, capacity + added * plate.steel.yield_reference_mpa
    return area, 0.577 * capacity


def _network(layout: Layout) -> Network:
    rail, cut = layout.rail, layout.cut
    wall, zero, one = rail.wall, np.zeros_like(cut), np.ones_like(cut)
    face, boxed = closing_plane(layout)
    closing = _closing(layout, boxed)
    is_cut = cut > wall
    liner = _first(layout.of("liner"), zero)
    lower_t, lower_share = np.where(is_cut, liner[0], wall), np.where(is_cut, liner[1], one)
    tip = np.where(closing.thickness > 0, face + np.where(boxed > 0, -boxed / 2, closing.thickness / 2), rail.width)
    low = np.where(is_cut, cut - np.where(liner[0] > 0, liner[0] / 2, 0.0), wall / 2)
    top = rail.height - wall / 2
    cap_t, cap_share, cap_top = _cap(layout)
    reach = np.where(cap_t > 0, cap_top - cap_t / 2, top)
    outer, inner = _doubler(layout, "outer"), closing.doubler
    web_y, tip = wall / 2 - _shift(outer, top - low), tip + _shift(inner, top - low)
    nodes = {
        "top-web": _node(web_y, top),
        "top-tip": _node(tip, top),
        "low-web": _node(web_y, low),
        "low-tip": _node(tip, low),
        "cap-web": _node(np.where(cap_t > 0, cap_t / 2, wall / 2), reach),
        "cap-tip": _node(np.where(cap_t > 0, rail.width - cap_t / 2, tip), reach),
    }
    fy = rail.yields[0]
    cap_fy, liner_fy = _yield(layout, "cap"), _yield(layout, "liner")
    walls = (
        Wall("top-web", "low-web", wall, one, fy, outer),
        Wall("top-web", "top-tip", wall, one, fy),
        closing,
        Wall("low-web", "low-tip", lower_t, np.where(lower_t > 0, lower_share, 0.0), min(fy, liner_fy)),
        Wall("top-web", "cap-web", cap_t, cap_share, cap_fy),
        Wall("cap-web", "cap-tip", cap_t, cap_share, cap_fy),
        Wall("cap-tip", "top-tip", cap_t, cap_share, cap_fy),
    )
    middle = np.full_like(cut, rail.inside_radius) + wall / 2 if rail.inside_radius > 0 else zero
    rounding = {"top-web": middle, "low-web": np.where(is_cut, 0.0, middle)} if rail.inside_radius > 0 else {}
    return Network(nodes, walls, rounding)


def _shift(doubler: Doubler | None, length: Columns) -> Columns:
    """How far a plate that lies on a wall moves their common middle, mm, by the depth it covers."""
    if doubler is None:
        return np.zeros_like(length)
    covered = np.minimum(doubler.length / np.maximum(length, 1e-9), 1.0)
    return np.where(doubler.share >= 1 - 1e-9, doubler.thickness / 2 * covered, 0.0)


def _node(y: Columns, z: Columns) -> Columns:
    return np.stack([y, z], axis=1)


def _first(plates: list[Plate], zero: Columns) -> tuple[Columns, Columns]:
    thick, share = zero, zero
    for plate in plates:
        here = plate.share > share
        thick, share = np.where(here, plate.thickness_mm, thick), np.where(here, plate.share, share)
    return thick, share


def _closing(layout: Layout, boxed: Columns) -> Wall:
    zero = np.zeros_like(layout.cut)
    box, inner = _first(layout.of("boxing"), zero), _first(layout.of("inner"), zero)
    has_box = boxed > 0
    thick = np.where(has_box, box[0], inner[0])
    share = np.where(has_box, box[1], inner[1])
    doubler = _doubler(layout, "inner")
    if doubler is not None:
        doubler = Doubler(doubler.length, doubler.thickness, np.where(has_box, doubler.share, 0.0))
    return Wall("low-tip", "top-tip", thick, share, min(_yield(layout, "boxing"), _yield(layout, "inner")), doubler)


def _yield(layout: Layout, role: Role) -> float:
    own = [plate.steel.yield_reference_mpa for plate in layout.of(role)]
    return min(own, default=layout.rail.yields[0])


def _doubler(layout: Layout, role: Role) -> Doubler | None:
    plates = layout.of(role)
    if not plates:
        return None
    zero = np.zeros_like(layout.cut)
    thick, share = _first(plates, zero)
    depth = np.maximum(plates[0].high - np.maximum(plates[0].low, layout.cut), 0.0)
    return Doubler(depth, thick, share)


def _cap(layout: Layout) -> tuple[Columns, Columns, Columns]:
    zero = np.zeros_like(layout.cut)
    thick, share = _first(layout.of("cap"), zero)
    top = layout.rail.height.copy()
    for plate in layout.of("cap"):
        top = np.where(plate.share > 0, plate.high, top)
    return thick, share, top
