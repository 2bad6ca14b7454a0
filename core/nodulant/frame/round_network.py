"""The thin-walled network of a round tube, cut or whole, for torsion.

What a cut leaves of the tube is two arcs, left (the web's side) and right, each from the cut
below to the cut above by way of half height. A liner closes them at a cut; a whole tube closes
on itself there. A cap straddles the tube: its legs stand on the tube's sides at half height.
Angles are radians round the tube's middle, 0 at its underside.
"""

from functools import partial

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.frame.additions import Role
from nodulant.frame.columns import RailColumns
from nodulant.frame.layout import Layout
from nodulant.frame.network import closing_wall, least_yield, thickest
from nodulant.sections.walls import Network, Wall

CHORDS = 11
"""Chords from a cut to half height; a whole tube then has 44, and J is 0.6 % low without the correction."""
FAIR = (np.pi / (4 * CHORDS) / np.sin(np.pi / (4 * CHORDS))) ** (1 / 3) / np.cos(np.pi / (4 * CHORDS)) ** (2 / 3)
"""How much the polygon's radius is larger than the tube's, so that both have the same 4 A^2/girth."""


def round_network(layout: Layout) -> Network:
    """Nodes and walls of a round tube with its liners and caps."""
    rail, one = layout.rail, np.ones_like(layout.cut)
    is_cut = {"liner": layout.cut > rail.wall, "liner-top": layout.cut_top > rail.wall}
    low, top = (closing_wall(layout, role, is_cut[role], rail.wall) for role in ("liner", "liner-top"))
    start = np.where(is_cut["liner"], _angle(rail, layout.cut - low[0] / 2), 0.0)
    end = np.where(is_cut["liner-top"], _angle(rail, layout.crown + top[0] / 2), np.pi)
    half = np.clip(np.pi / 2, start, end)
    turns = [start + (half - start) * i / CHORDS for i in range(CHORDS)]
    turns += [half + (end - half) * i / CHORDS for i in range(CHORDS + 1)]
    nodes: dict[str, Columns] = {}
    walls: list[Wall] = []
    fy, fairly = rail.yields[0], (rail.height - rail.wall) / 2 * FAIR
    for side, sense in (("left", -1.0), ("right", 1.0)):
        for i, turn in enumerate(turns):
            y, z = sense * fairly * np.sin(turn), -fairly * np.cos(turn)
            nodes[f"{side}-{i}"] = np.stack([rail.height / 2 + y, rail.height / 2 + z], axis=1)
        walls += [Wall(f"{side}-{i}", f"{side}-{i + 1}", rail.wall, one, fy) for i in range(len(turns) - 1)]
    weakest = partial(least_yield, layout)
    for at, wall, role in ((0, low, "liner"), (2 * CHORDS, top, "liner-top")):
        liner: Role = "liner" if role == "liner" else "liner-top"
        plate = role if layout.of(liner) else ""
        walls.append(Wall(f"left-{at}", f"right-{at}", *wall, min(fy, weakest(liner)), plate=plate))
    caps: tuple[Role, ...] = ("cap", "cap-below")
    for role in caps:
        if layout.of(role):
            lid, own = _straddling(layout, role)
            nodes |= lid
            walls += own
    smooth = frozenset(name for name in nodes if name.startswith(("left", "right")))
    return Network(nodes, tuple(walls), smooth=smooth)


def _angle(rail: RailColumns, level: Columns) -> Columns:
    """Angle at which the middle of the wall stands ``level`` mm above the underside."""
    out: Columns = np.arccos(np.clip((rail.height / 2 - level) / ((rail.height - rail.wall) / 2), -1.0, 1.0))
    return out


def _straddling(layout: Layout, role: Role) -> tuple[dict[str, Columns], list[Wall]]:
    """Nodes and walls of a cap over or under the tube; where there is none they fall on its sides."""
    zero = np.zeros_like(layout.cut)
    thick, share = thickest(layout.of(role), zero)
    reach = layout.rail.height / 2
    for plate in layout.of(role):
        reach = np.where(plate.closes > 0, plate.high if role == "cap" else plate.low, reach)
    middle = reach + (-thick / 2 if role == "cap" else thick / 2) * (thick > 0)
    across = {"left": -thick / 2, "right": layout.rail.width + thick / 2}
    nodes = {f"{role}-{side}": np.stack([y, middle], axis=1) for side, y in across.items()}
    nodes |= {f"{role}-foot-{side}": np.stack([y, layout.rail.height / 2], axis=1) for side, y in across.items()}
    fy, lid = least_yield(layout, role), (f"{role}-left", f"{role}-right")
    walls = [Wall(*lid, thick, share, fy, plate=role)]
    for side in across:
        foot = f"{role}-foot-{side}"
        # leg and tube are one where they touch
        walls.append(
            Wall(f"{side}-{CHORDS}", foot, np.where(thick > 0, thick + layout.rail.wall, 0.0), share, fy, plate=role)
        )
        walls.append(Wall(foot, f"{role}-{side}", thick, share, fy, plate=role))
    return nodes, walls
