"""The thin-walled network of every station, for torsion, warping and shear flow.

One network serves all stations and all kinds: web, top, closing and low wall, what flanges reach
beyond a plate that closes the rail inside them, a cap's three walls above and below, and lips. Absent
walls have zero thickness. A round tube has its own network in ``round_network``.
"""

from dataclasses import replace

import numpy as np

from nodulant.base.arrays import Columns, Mask
from nodulant.frame.additions import Plate, Role
from nodulant.frame.columns import RailColumns
from nodulant.frame.layout import Layout, own_closing
from nodulant.frame.shear import hole_height
from nodulant.sections.walls import Doubler, Network, Wall

_Point = tuple[Columns, Columns]
_Walls = tuple[dict[str, _Point], list[Wall]]


def network(layout: Layout) -> Network:
    """Nodes, walls and rounded corners of a rail with all its plates."""
    rail, wall, zero = layout.rail, layout.rail.wall, np.zeros_like(layout.cut)
    low_cut, top_cut = layout.cut > wall, layout.cut_top > wall
    lower = closing_wall(layout, "liner", low_cut, layout.patched("patch-bottom", wall, rail.width))
    upper = closing_wall(layout, "liner-top", top_cut, layout.patched("patch-top", _lid(rail), rail.width))
    low = np.where(low_cut, layout.cut - lower[0] / 2, wall / 2)
    top = np.where(top_cut, layout.crown + upper[0] / 2, rail.height - wall / 2 + _floor_lift(rail))
    closing, tip = _closing(layout)
    outer = _doubler(layout, "outer")
    web_y, tip = wall / 2 - _shift(outer, top - low), tip + _shift(closing.doubler, top - low)
    nodes = {"top-web": (web_y, top), "top-tip": (tip, top), "low-web": (web_y, low), "low-tip": (tip, low)}
    fy, left, tall = rail.yields[0], _left_by_holes(layout), layout.crown - layout.cut
    walls = [
        _holed(Wall("top-web", "low-web", layout.patched("patch", wall, tall), zero + 1.0, fy, outer), left),
        _across(layout, "top", upper, top_cut, "liner-top"),
        _holed(closing, left),
        _across(layout, "low", lower, low_cut, "liner"),
    ]
    for extra, own in (
        _overhangs(layout, tip, (low, top), (low_cut, top_cut)),
        _cap_walls(layout, "cap", "top", top, tip),
        _cap_walls(layout, "cap-below", "low", low, tip),
        _lips(rail, nodes, (low_cut, top_cut)),
    ):
        nodes |= extra
        walls += own
    return Network(
        {k: np.stack(v, axis=1) for k, v in nodes.items()}, tuple(walls), _rounding(layout, low_cut, top_cut)
    )


def _across(layout: Layout, stem: str, wall: _Point, is_cut: Mask, liner: Role) -> Wall:
    """The flange above or below, or the liner that takes its place."""
    weakest = min(layout.rail.yields[0], least_yield(layout, liner)) if is_cut.any() else layout.rail.yields[0]
    lying = _doubler(layout, "top" if stem == "top" else "bottom")
    return Wall(f"{stem}-web", f"{stem}-tip", *wall, weakest, lying, liner if layout.of(liner) else "")


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
    doubler = None if d is None else replace(d, thickness=d.thickness * left)
    return replace(wall, thickness=wall.thickness * left, doubler=doubler)


def _lid(rail: RailColumns) -> Columns:
    """Thickness of the rail's own top wall."""
    return np.full_like(rail.wall, rail.second) if rail.kind == "top-hat" else rail.wall


def _floor_lift(rail: RailColumns) -> Columns:
    return (rail.wall + rail.second) / 2 if rail.kind == "top-hat" and rail.second > 0 else 0 * rail.wall


def closing_wall(layout: Layout, role: Role, is_cut: Mask, own: Columns) -> _Point:
    """Thickness and closure of the wall above or below: the rail's own, or a liner, welded at its ends to what it replaces."""
    liner = thickest(layout.of(role), np.zeros_like(layout.cut))
    thick = np.where(is_cut, liner[0], own)
    return thick, np.where(is_cut, liner[1], 1.0)


def _rounding(layout: Layout, low_cut: Mask, top_cut: Mask) -> dict[str, Columns]:
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
    return np.asarray(doubler.closure * doubler.thickness / 2 * covered)


def thickest(plates: list[Plate], zero: Columns) -> _Point:
    """Thickness, mm, and closure of the plate of some that closes most; shapes (stations,)."""
    thick, closes = zero, zero
    for plate in plates:
        here = plate.closes > closes
        thick, closes = np.where(here, plate.thickness_mm, thick), np.where(here, plate.closes, closes)
    return thick, closes


def _closing(layout: Layout) -> tuple[Wall, Columns]:
    """What closes the rail's open side, and the place across of its middle."""
    rail, zero = layout.rail, np.zeros_like(layout.cut)
    face, boxed = layout.closing_plane
    box, inner = thickest(layout.of("boxing"), zero), thickest(layout.of("inner"), zero)
    own = layout.patched("patch-far", own_closing(rail), layout.crown - layout.cut)
    has_own, has_box = own > 0, boxed > 0
    held = has_own | has_box
    thick = np.where(has_own, own, np.where(has_box, box[0], inner[0]))
    closes = np.where(has_own, 1.0, np.where(has_box, box[1], inner[1]))
    doubler = _doubler(layout, "inner")
    if doubler is not None:
        doubler = replace(doubler, closure=np.where(held, doubler.closure, 0.0))
    middle = np.where(held, -thick / 2, thick / 2)
    edge = rail.width - (rail.wall / 2 if rail.kind == "lipped-channel" else 0.0)
    tip = np.where(thick > 0, face + middle, edge)
    weakest = min(least_yield(layout, "boxing"), least_yield(layout, "inner"))
    plate = "" if rail.closed else "boxing" if layout.of("boxing") else "inner"
    return Wall("low-tip", "top-tip", thick, closes, rail.yields[0] if rail.closed else weakest, doubler, plate), tip


def _overhangs(layout: Layout, tip: Columns, levels: _Point, cuts: tuple[Mask, Mask]) -> _Walls:
    """What the flanges reach beyond the middle of a plate that closes the rail flush or inside them."""
    rail = layout.rail
    boxes = layout.of("boxing")
    if not boxes or min(p.set_in_mm for p in boxes) < 0:
        return {}, []
    beyond = np.maximum(rail.width, tip)
    nodes, walls = {}, []
    for stem, at, cut in zip(("low", "top"), levels, cuts, strict=True):
        nodes[f"{stem}-end"] = (beyond, at)
        thick = np.where(cut | (beyond - tip < 1e-6), 0.0, rail.wall)
        walls.append(Wall(f"{stem}-tip", f"{stem}-end", thick, np.ones_like(tip), rail.yields[0]))
    return nodes, walls


def least_yield(layout: Layout, role: Role) -> float:
    """Reference yield of the weakest plate of a role, MPa; the rail's own where there is none."""
    return min((layout.plate_yield(plate) for plate in layout.of(role)), default=layout.rail.yields[0])


def _doubler(layout: Layout, role: Role) -> Doubler | None:
    plates = layout.of(role)
    if not plates:
        return None
    thick, closes = thickest(plates, np.zeros_like(layout.cut))
    strip = layout.strips(plates[0])[0]
    return Doubler(strip.height if strip.upright else strip.y1 - strip.y0, thick, closes, role)


def _cap_walls(layout: Layout, role: Role, stem: str, at: Columns, tip: Columns) -> _Walls:
    """Nodes and walls of a cap above or below; where there is none they fall on the flange."""
    rail, zero = layout.rail, np.zeros_like(layout.cut)
    plates = layout.of(role)
    if not plates:
        return {}, []
    thick, closes = thickest(plates, zero)
    reach = zero
    for plate in plates:
        reach = np.where(plate.closes > 0, plate.high if role == "cap" else plate.low, reach)
    inward = -thick / 2 if role == "cap" else thick / 2
    there = thick > 0
    web, far = f"{role}-web", f"{role}-tip"
    nodes = {
        web: (np.where(there, thick / 2, rail.wall / 2), np.where(there, reach + inward, at)),
        far: (np.where(there, rail.width - thick / 2, tip), np.where(there, reach + inward, at)),
    }
    fy = least_yield(layout, role)
    ends = ((f"{stem}-web", web), (web, far), (far, f"{stem}-tip"))
    return nodes, [Wall(a, b, thick, closes, fy, plate=role) for a, b in ends]


def _lips(rail: RailColumns, nodes: dict[str, _Point], cuts: tuple[Mask, Mask]) -> _Walls:
    """Lips of a channel, turned towards each other or apart, and of a top-hat, turned outward."""
    if rail.lip <= 0:
        return {}, []
    one, fy = np.ones_like(rail.wall), rail.yields[0]
    reach = rail.lip - rail.wall / 2
    if rail.kind == "top-hat":
        level = rail.height - rail.wall / 2
        ends = {"web": nodes["top-web"][0] - reach - rail.wall, "tip": nodes["top-tip"][0] + reach + rail.wall}
        thick = np.where(cuts[1], 0.0, rail.wall)
        extra = {f"lip-{end}": (y, level) for end, y in ends.items()}
        return extra, [Wall(f"top-{end}", f"lip-{end}", thick, one, fy) for end in ends]
    turned = 1.0 if rail.lips == "inward" else -1.0
    extra, walls = {}, []
    for stem, cut, up in (("low", cuts[0], turned), ("top", cuts[1], -turned)):
        y, z = nodes[f"{stem}-tip"]
        extra[f"lip-{stem}"] = (y, z + up * reach)
        walls.append(Wall(f"{stem}-tip", f"lip-{stem}", np.where(cut, 0.0, rail.wall), one, fy))
    return extra, walls
