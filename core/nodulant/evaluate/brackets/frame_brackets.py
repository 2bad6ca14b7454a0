"""Brackets that a suspension's links ask for on the rails, with the force of each link's worst case."""

import numpy as np

from nodulant.axles.layouts.layout import NamedLink
from nodulant.axles.points import HardPoint, on_axle
from nodulant.frame.columns import rail_at
from nodulant.frame.ops.mounts.bracket import Bracket, BracketGusset
from nodulant.frame.ops.mounts.tabs import Tabs
from nodulant.frame.place import Place
from nodulant.job.document import Inputs
from nodulant.job.riding import on_rails
from nodulant.parts.sides import AxleName
from nodulant.suspension.study import Study

REACH_MM = 220.0
"""A link that ends this far inside the rail's web hangs on a crossmember, not on the rail."""
TALL_MM = 90.0
LEAST_STANDOFF_MM = 30.0
ROOM_MM = 10.0


def frame_brackets(inputs: Inputs, s: Study) -> tuple[Bracket, ...]:
    """One bracket for every pair of links that ends near the rails, both sides alike; none without forces."""
    if not s.forces or s.motion is None or s.setting is None:
        return ()
    out, seen = [], set()
    for named in s.suspension.layout.links():
        point = on_rails(inputs, named.link.frame)
        if named.path in seen or not named.name.endswith(", right") or not reached(inputs, point):
            continue
        seen.add(named.path)
        along, across, up = worst_on_frame(s, named)
        stem = named.name.removesuffix(", right")
        side = 1.0 if named.link.frame.y_mm >= 0 else -1.0
        force = (along, across * side, up)
        out.append(bracket_at(inputs, s.suspension.axle, stem.replace(" ", "-"), stem, point, force))
    return tuple(bracket for bracket in out if bracket is not None)


FARTHEST_MM, MOST_N = 400.0, 500_000.0
"""A bracket that hangs further below or above the rail, or carries more, is no bracket any more."""


def reached(inputs: Inputs, point: HardPoint) -> bool:
    """Whether a point of the surveyed frame lies near enough to a rail to hang on it."""
    rail = inputs.survey.rails.right
    near = abs(abs(point.y_mm) - rail.web_y_mm) < REACH_MM
    return near and rail.start_mm + ROOM_MM < point.x_mm < rail.end_mm - ROOM_MM


def bracket_at(
    inputs: Inputs, axle: AxleName, key: str, name: str, point: HardPoint, force: tuple[float, float, float]
) -> Bracket | None:
    """The bracket of a joint at ``point`` of the surveyed rail under a force, N: rearward, to the right, up; None for one beyond reason."""
    rail = inputs.survey.rails.right
    underside, height, width, _ = rail_at(rail, point.x_mm)
    tall = min(TALL_MM, height - ROOM_MM)
    middle = float(np.clip(point.z_mm - underside, tall / 2, height - tall / 2))
    outer = abs(point.y_mm) > rail.web_y_mm
    off = abs(point.y_mm) - rail.web_y_mm if outer else rail.web_y_mm - width - abs(point.y_mm)
    anchor = min(inputs.survey.features, key=lambda f: abs(f.x_mm - point.x_mm))
    along, right, up = force
    across = right if point.y_mm >= 0 else -right
    lift = point.z_mm - underside - middle
    if abs(lift) > FARTHEST_MM or max(abs(v) for v in force) > MOST_N:
        return None
    return Bracket(
        id=f"{axle}-{key}-bracket",
        name=f"Bracket of the {axle} {name}",
        place=Place(anchor_id=anchor.id, offset_mm=point.x_mm - anchor.x_mm),
        face="outer" if outer else "inner",
        height_mm=middle,
        width_mm=120.0,
        tall_mm=tall,
        tabs=Tabs(width_mm=80.0, standoff_mm=max(off, LEAST_STANDOFF_MM), lift_mm=lift),
        gusset=BracketGusset(),
        along_n=round(along, 1),
        up_n=round(up, 1),
        out_n=round(across if outer else -across, 1),
    )


def worst_on_frame(s: Study, named: NamedLink) -> tuple[float, float, float]:
    """Force on the frame's bracket in the link's worst case of either side, N: rearward, outward from the centre, up."""
    if s.motion is None or s.setting is None:
        raise ValueError("a study with forces has its motion")
    names, stem = s.motion.sweep.compiled.mechanism.names, named.name.removesuffix(", right")
    rows = [i for i, name in enumerate(names) if name.startswith(stem)]
    most = max((float(f.tension[i]) for f in s.forces.values() for i in rows), key=abs)
    a, b = np.array(on_axle(named.link.axle, s.setting.hub)), np.array(named.link.frame.xyz())
    pull = most * (a - b) / np.linalg.norm(a - b)
    return float(pull[0]), float(pull[1] * np.sign(named.link.frame.y_mm or 1.0)), float(pull[2])
