"""Assemble the section at every station from the rail and what operations changed."""

from dataclasses import dataclass, fields, replace

import numpy as np

from nodulant.base.arrays import Columns, Mask, Rows
from nodulant.frame.additions import Hole, Plate
from nodulant.frame.layout import CAPS, FLANGES, LINERS, Layout, closing_plane, own_closing
from nodulant.frame.network import network
from nodulant.frame.rail_pieces import rail_pieces
from nodulant.frame.round_network import TUBE_WALLS, round_network
from nodulant.frame.shear import shear
from nodulant.sections import pieces as shapes
from nodulant.sections.gaps import bridged
from nodulant.sections.pieces import Piece
from nodulant.sections.properties import Properties, combine
from nodulant.sections.torsion import Network, Torsion, torsion

SIDES_APART = 2 / np.pi
"""How far apart the middles of a round tube's two sides lie, of its diameter (a half ring's centroid)."""


@dataclass(frozen=True)
class SectionColumns:
    """Everything known of a rail's sections; shapes (stations,)."""

    properties: Properties
    torsion: Torsion
    shear_area: Columns
    shear_capacity: Columns
    """Web area times shear yield, N."""
    cut: Columns
    """Height of metal gone from below and from above together, mm."""
    pieces: tuple[Piece, ...]
    layout: Layout | None = None

    def rows(self, at: Rows) -> "SectionColumns":
        """The same at some of the stations, without the polygons."""
        p, t = self.properties, self.torsion
        properties = Properties(*(getattr(p, f.name)[at] for f in fields(p)))
        torsion = Torsion(*(getattr(t, f.name)[at] for f in fields(t)))
        return SectionColumns(properties, torsion, self.shear_area[at], self.shear_capacity[at], self.cut[at], ())


def section_columns(layout: Layout) -> SectionColumns:
    """Properties, torsion and shear of every station."""
    area, capacity = shear(layout)
    pieces = section_pieces(layout)
    gone = layout.cut + layout.cut_top
    return SectionColumns(combine(pieces), _torsion(layout), area, capacity, gone, tuple(pieces), layout)


def _torsion(layout: Layout) -> Torsion:
    """Saint-Venant's torsion, with short gaps between closed stretches bridged by the webs."""
    rail, deep = layout.rail, layout.crown - layout.cut
    if rail.round:
        walls = round_network(layout)
        apart = SIDES_APART * (rail.width - rail.wall)
        return bridged(
            rail.x, torsion(walls), _whole(walls, TUBE_WALLS), (rail.wall, rail.wall), (deep, apart), rail.yields[0]
        )
    walls, face = network(layout), closing_plane(layout)
    own = rail.wall if rail.kind in {"rect-tube", "top-hat"} else np.full_like(rail.wall, rail.second)
    outer = sum((p.thickness_mm * p.share for p in layout.of("outer")), rail.wall)
    inner = sum((p.thickness_mm * p.share for p in (*layout.of("boxing"), *layout.of("inner"))), own)
    webs = (outer, np.asarray(inner))
    return bridged(rail.x, torsion(walls), _whole(walls, 4), webs, (deep, face[0] - rail.wall), rail.yields[0])


def _whole(walls: Network, own: int) -> Mask:
    """Where the cell of the rail's own walls, the first ``own`` of them, is closed."""
    out: Mask = np.all([(w.thickness > 1e-9) & (w.share >= 1 - 1e-9) for w in walls.walls[:own]], axis=0)
    return out


def section_pieces(layout: Layout) -> list[Piece]:
    """The polygons of the section, rail first."""
    out = rail_pieces(layout.rail, layout.cut, layout.cut_top)
    out.extend(piece for hole in layout.holes for piece in _hole_pieces(layout, hole))
    out.extend(_plate_piece(layout, plate) for plate in layout.plates if plate.role not in CAPS)
    for role in CAPS:
        for cap in layout.of(role):
            out.extend(_cap_pieces(layout, cap))
    return out


def _hole_pieces(layout: Layout, hole: Hole) -> list[Piece]:
    """What a hole takes from the web and, where it goes through, from everything else that stands upright there."""
    rail, one = layout.rail, np.ones_like(layout.cut)
    half = hole.half(rail.x)
    low = np.clip(hole.height - half, layout.cut, layout.crown)
    high = np.clip(hole.height + half, low, np.maximum(layout.crown, low))
    edge = (rail.width - rail.width_at(np.full_like(one, hole.height))) / 2
    out = [shapes.rectangle("hole", edge, edge + rail.wall, low, high, one, one, rail.yields, sign=-1.0)]
    if not hole.through:
        return out
    own = own_closing(rail)
    if own.any():
        far = rail.width - edge
        out.append(shapes.rectangle("hole", far - own, far, low, high, one, one, rail.yields, sign=-1.0))
    for plate in layout.plates:
        if plate.role in UPRIGHT:
            held = replace(plate, low=np.maximum(low, plate.low), high=np.maximum(np.minimum(high, plate.high), low))
            out.append(replace(_plate_piece(layout, held), sign=-1.0))
    return out


UPRIGHT = ("outer", "boxing", "inner")
"""Plates that a hole through the rail goes through."""


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
        middle, half = np.maximum(face, layout.rail.width) / 2, _reach(layout, plate) / 2
        y0, y1 = middle - half, middle + half
    low, high = plate.low, plate.high
    if plate.role not in (*LINERS, *FLANGES):
        low, high = np.maximum(low, layout.cut), np.minimum(high, np.where(layout.cut_top > 0, layout.crown, high))
    return shapes.rectangle(plate.role, y0, y1, low, high, plate.share, plate.credit, yields)


def _reach(layout: Layout, plate: Plate) -> Columns:
    """Width of a plate that lies across the rail: a liner in a round tube is as wide as the cut's edge there."""
    if layout.rail.round:
        return layout.rail.width_at(layout.cut if plate.role == "liner" else layout.crown)
    return np.maximum(closing_plane(layout)[0], layout.rail.width)


def _cap_pieces(layout: Layout, cap: Plate) -> list[Piece]:
    width, t = layout.rail.width, np.full_like(layout.cut, cap.thickness_mm)
    yields = (cap.steel.yield_reference_mpa, cap.steel.yield_mpa)
    lid = (cap.high - t, cap.high) if cap.role == "cap" else (cap.low, cap.low + t)
    out = t if layout.rail.round else 0 * t  # a cap straddles a round tube
    rows = (
        (-out, t - out, cap.low, cap.high),
        (width - t + out, width + out, cap.low, cap.high),
        (t - out, width - t + out, *lid),
    )
    return [shapes.rectangle(cap.role, *row, cap.share, cap.credit, yields) for row in rows]
