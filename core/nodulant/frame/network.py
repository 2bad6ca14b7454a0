"""The thin-walled network of every station, for torsion.

One network serves all stations and all kinds: web, top, closing and low wall, a cap's three
walls above and below, and lips. Absent walls have zero thickness. A round tube has its own
network in ``round_network``.
"""

from dataclasses import replace

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.frame.additions import Plate, Role
from nodulant.frame.columns import RailColumns
from nodulant.frame.layout import Layout, closing_plane, own_closing
from nodulant.frame.shear import hole_height
from nodulant.sections.torsion import Doubler, Network, Wall


def network(layout: Layout) -> Network:
    """Nodes, walls and rounded corners of a rail with all its plates."""
    rail, wall, zero = layout.rail, layout.rail.wall, np.zeros_like(layout.cut)
    one = np.ones_like(zero)
    low_cut, top_cut = layout.cut > wall, layout.cut_top > wall
    lower, upper = closing_wall(layout, "liner", low_cut, wall), closing_wall(layout, "liner-top", top_cut, _lid(rail))
    low = np.where(low_cut, layout.cut - lower[0] / 2, wall / 2)
    top = np.where(top_cut, layout.crown + upper[0] / 2, rail.height - wall / 2 + _floor_lift(rail))
    closing, tip = _closing(layout)
    outer = _doubler(layout, "outer")
    web_y, tip = wall / 2 - _shift(outer, top - low), tip + _shift(closing.doubler, top - low)
    fy = rail.yields[0]
    nodes = {"top-web": (web_y, top), "top-tip": (tip, top), "low-web": (web_y, low), "low-tip": (tip, low)}
    walls = [
        Wall("top-web", "low-web", wall, one, fy, outer),
        Wall(
            "top-web", "top-tip", upper[0], upper[1], min(fy, least_yield(layout, "liner-top")), _doubler(layout, "top")
        ),
        closing,
        Wall(
            "low-web", "low-tip", lower[0], lower[1], min(fy, least_yield(layout, "liner")), _doubler(layout, "bottom")
        ),
    ]
    for role, stem, at in (("cap", "top", top), ("cap-below", "low", low)):
        extra, own = _cap_walls(layout, "cap" if role == "cap" else "cap-below", stem, at, tip)
        nodes |= extra
        walls += own
    if rail.lip > 0:
        lip_y = {"top": tip, "low": tip}
        for stem, at in (("top", top), ("low", low)):
            nodes[f"lip-{stem}"] = (lip_y[stem] + rail.lip, at)
            there = np.where(top_cut if stem == "top" else low_cut, 0.0, wall)
            walls.append(Wall(f"{stem}-tip", f"lip-{stem}", there, one, fy))
    left = _left_by_holes(layout)
    for k in (0, 2):
        walls[k] = _holed(walls[k], left)
    return Network({k: _node(*v) for k, v in nodes.items()}, tuple(walls), _rounding(layout, low_cut, top_cut))


def _left_by_holes(layout: Layout) -> Columns:
    """Share of the upright walls' height that holes through the whole rail leave; its pipe is not counted (safe side)."""
    gone = np.zeros_like(layout.cut)
    for hole in layout.holes:
        if hole.through:
            gone = gone + hole_height(layout, hole)
    return np.clip(1.0 - gone / np.maximum(layout.crown - layout.cut, 1e-9), 0.0, 1.0)


def _holed(wall: Wall, left: Columns) -> Wall:
    """A wall as thick, over its whole height, as what a hole leaves of it would be if spread."""
    d = wall.doubler
    doubler = None if d is None else Doubler(d.length, d.thickness * left, d.share)
    return replace(wall, thickness=wall.thickness * left, doubler=doubler)


_Point = tuple[Columns, Columns]


def _node(y: Columns, z: Columns) -> Columns:
    return np.stack([y, z], axis=1)


def _lid(rail: RailColumns) -> Columns:
    """Thickness of the rail's own top wall."""
    return np.full_like(rail.wall, rail.second) if rail.kind == "top-hat" else rail.wall


def _floor_lift(rail: RailColumns) -> Columns:
    return (rail.wall + rail.second) / 2 if rail.kind == "top-hat" and rail.second > 0 else 0 * rail.wall


def closing_wall(
    layout: Layout, role: Role, is_cut: np.ndarray[tuple[int], np.dtype[np.bool_]], own: Columns
) -> _Point:
    """Thickness and share of the wall that closes the section below or above: the rail's own, or a liner."""
    liner = thickest(layout.of(role), np.zeros_like(layout.cut))
    thick = np.where(is_cut, liner[0], own)
    return thick, np.where(thick > 0, np.where(is_cut, liner[1], 1.0), 0.0)


def _rounding(
    layout: Layout,
    low_cut: np.ndarray[tuple[int], np.dtype[np.bool_]],
    top_cut: np.ndarray[tuple[int], np.dtype[np.bool_]],
) -> dict[str, Columns]:
    rail = layout.rail
    if rail.inside_radius <= 0:
        return {}
    middle = np.full_like(rail.wall, rail.inside_radius) + rail.wall / 2
    ends = ("web", "tip") if rail.kind == "rect-tube" else ("web",)
    levels = (("low", low_cut), ("top", top_cut))
    return {f"{level}-{end}": np.where(cut, 0.0, middle) for level, cut in levels for end in ends}


def _shift(doubler: Doubler | None, length: Columns) -> Columns:
    """How far a plate that lies on a wall moves their common middle, mm, by the depth it covers."""
    if doubler is None:
        return np.zeros_like(length)
    covered = np.minimum(doubler.length / np.maximum(length, 1e-9), 1.0)
    return np.where(doubler.share >= 1 - 1e-9, doubler.thickness / 2 * covered, 0.0)


def thickest(plates: list[Plate], zero: Columns) -> tuple[Columns, Columns]:
    """Thickness, mm, and share of the most developed of some plates; shapes (stations,)."""
    thick, share = zero, zero
    for plate in plates:
        here = plate.share > share
        thick, share = np.where(here, plate.thickness_mm, thick), np.where(here, plate.share, share)
    return thick, share


def _closing(layout: Layout) -> tuple[Wall, Columns]:
    """What closes the rail's open side, and the place across of its middle."""
    rail, zero = layout.rail, np.zeros_like(layout.cut)
    face, boxed = closing_plane(layout)
    box, inner = thickest(layout.of("boxing"), zero), thickest(layout.of("inner"), zero)
    own = own_closing(rail)
    has_own, has_box = own > 0, boxed > 0
    held = has_own | has_box
    thick = np.where(has_own, own, np.where(has_box, box[0], inner[0]))
    share = np.where(has_own, 1.0, np.where(has_box, box[1], inner[1]))
    doubler = _doubler(layout, "inner")
    if doubler is not None:
        doubler = Doubler(doubler.length, doubler.thickness, np.where(held, doubler.share, 0.0))
    middle = np.where(held, -thick / 2, thick / 2)
    tip = np.where(thick > 0, face + middle, rail.width)
    weakest = min(least_yield(layout, "boxing"), least_yield(layout, "inner"))
    return Wall("low-tip", "top-tip", thick, share, rail.yields[0] if rail.closed else weakest, doubler), tip


def least_yield(layout: Layout, role: Role) -> float:
    """Reference yield of the weakest plate of a role, MPa; the rail's own where there is none."""
    own = [plate.steel.yield_reference_mpa for plate in layout.of(role)]
    return min(own, default=layout.rail.yields[0])


def _doubler(layout: Layout, role: Role) -> Doubler | None:
    plates = layout.of(role)
    if not plates:
        return None
    zero = np.zeros_like(layout.cut)
    thick, share = thickest(plates, zero)
    if role in {"top", "bottom"}:
        return Doubler(layout.rail.width, thick, share)
    crown = np.where(layout.cut_top > 0, np.minimum(plates[0].high, layout.crown), plates[0].high)
    return Doubler(np.maximum(crown - np.maximum(plates[0].low, layout.cut), 0.0), thick, share)


def _cap_walls(
    layout: Layout, role: Role, stem: str, at: Columns, tip: Columns
) -> tuple[dict[str, _Point], list[Wall]]:
    """Nodes and walls of a cap above or below; where there is none they fall on the flange."""
    rail, zero = layout.rail, np.zeros_like(layout.cut)
    plates = layout.of(role)
    if not plates:
        return {}, []
    thick, share = thickest(plates, zero)
    reach = zero
    for plate in plates:
        reach = np.where(plate.share > 0, plate.high if role == "cap" else plate.low, reach)
    inward = -thick / 2 if role == "cap" else thick / 2
    there = thick > 0
    web, far = f"{role}-web", f"{role}-tip"
    nodes = {
        web: (np.where(there, thick / 2, rail.wall / 2), np.where(there, reach + inward, at)),
        far: (np.where(there, rail.width - thick / 2, tip), np.where(there, reach + inward, at)),
    }
    fy = least_yield(layout, role)
    ends = ((f"{stem}-web", web), (web, far), (far, f"{stem}-tip"))
    return nodes, [Wall(a, b, thick, share, fy) for a, b in ends]
