"""Assemble the section at every station from the rail and what operations changed."""

from dataclasses import dataclass, fields, replace
from functools import cached_property

import numpy as np

from nodulant.base.arrays import Columns, Rows
from nodulant.frame.additions import Hole, Plate
from nodulant.frame.layout import Layout, own_closing
from nodulant.frame.network import network
from nodulant.frame.rail_pieces import rail_pieces
from nodulant.frame.round_network import round_network
from nodulant.frame.shear import shear
from nodulant.sections import pieces as shapes
from nodulant.sections.flow import Flows, edge_flows
from nodulant.sections.pieces import Piece
from nodulant.sections.properties import Properties, combine
from nodulant.sections.sectorial import Sectorial, sectorial
from nodulant.sections.torsion import Torsion, torsion
from nodulant.sections.walls import Network


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
    thinned: Sectorial | None = None
    """Shear centre and warping where the layout is left out."""
    network: Network | None = None

    @cached_property
    def walls(self) -> Network:
        """The thin-walled network of every station."""
        return self.network or walls_of(self.whole)

    @property
    def whole(self) -> Layout:
        """The layout; raises ValueError for thinned columns, which have none."""
        if self.layout is None:
            raise ValueError("thinned sections have no layout")
        return self.layout

    @cached_property
    def warping(self) -> Sectorial:
        """Shear centre and warping."""
        return self.thinned or sectorial(self.walls)

    @cached_property
    def edge_flows(self) -> Flows:
        """Flow at the long edges of plates that are walls, per N of shear upright and across."""
        return edge_flows(self.walls)

    def at_stations(self, which: Rows, layout: Layout) -> "SectionColumns":
        """These sections, each at every station where it is found, (stations,), with the layout of those stations."""
        pieces = tuple(piece.rows(which) for piece in self.pieces)
        return replace(self.rows(which), pieces=pieces, layout=layout)

    def rows(self, at: Rows) -> "SectionColumns":
        """The same at some of the stations, without the polygons."""
        p = self.properties
        properties = Properties(*(getattr(p, f.name)[at] for f in fields(p)))
        shear_ = self.shear_area[at], self.shear_capacity[at]
        return SectionColumns(properties, self.torsion.rows(at), *shear_, self.cut[at], (), None, self.warping.rows(at))


def walls_of(layout: Layout) -> Network:
    """The thin-walled network of a layout."""
    return round_network(layout) if layout.rail.round else network(layout)


def section_columns(layout: Layout) -> SectionColumns:
    """Properties, torsion and shear of every station."""
    area, capacity = shear(layout)
    pieces = section_pieces(layout)
    gone = layout.cut + layout.cut_top
    walls = walls_of(layout)
    parts = tuple(pieces)
    return SectionColumns(combine(pieces), torsion(walls), area, capacity, gone, parts, layout, network=walls)


def section_pieces(layout: Layout) -> list[Piece]:
    """The polygons of the section, rail first."""
    out = rail_pieces(layout.rail, layout.cut, layout.cut_top)
    out.extend(piece for hole in layout.holes for piece in _hole_pieces(layout, hole))
    for plate in sorted(layout.plates, key=lambda p: p.lie.box):
        out += _plate_pieces(layout, plate)
    return out


def _plate_pieces(layout: Layout, plate: Plate, sign: float = 1.0) -> list[Piece]:
    yields = (layout.plate_yield(plate), plate.steel.yield_mpa)
    strain = np.cos(plate.slope) ** 2 if plate.slope.any() else None
    out = [
        shapes.rectangle(plate.role, s.y0, s.y1, s.z0, s.z1, plate.share, plate.credit, yields, sign, strain)
        for s in layout.strips(plate)
    ]
    return [*out, *_taken_out(layout, plate, sign)] if plate.lie.let_in else out


def _taken_out(layout: Layout, plate: Plate, sign: float) -> list[Piece]:
    """The rail's own metal whose place a piece takes."""
    rail, (strip,) = layout.rail, layout.strips(plate)
    y0, y1, z0, z1 = strip.y0, strip.y1, strip.z0, strip.z1
    if plate.lie.on == "in-web":
        y1 = rail.wall
    elif strip.upright:
        y0 = y1 - own_closing(rail)
    else:
        y0, y1 = rail.wall, rail.width - (0.0 if rail.kind == "two-skin" else own_closing(rail))
        there, half = (z1 > z0).astype(float), (z0 + z1) / 2 < rail.height / 2
        z0, z1 = np.where(half, z0, z1 - rail.wall * there), np.where(half, z0 + rail.wall * there, z1)
    return [shapes.rectangle("hole", y0, y1, z0, z1, plate.share, plate.credit, rail.yields, -sign)]


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
        if plate.lie.upright and not plate.lie.box:
            held = replace(plate, low=np.maximum(low, plate.low), high=np.maximum(np.minimum(high, plate.high), low))
            out += _plate_pieces(layout, held, sign=-1.0)
    return out
