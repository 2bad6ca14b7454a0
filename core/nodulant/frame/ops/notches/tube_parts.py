"""Plates of a notch in a round tube: the saddle that lines the cut, and a cap that straddles the tube.

Flat side plates have no seat on a round tube, so there are none. A cap's sides stand on the
tube at half height; its ends are plates cut out to the tube (the plane of an end cuts the tube
in an ellipse).
"""

import math
from itertools import pairwise

from nodulant.base.errors import InputError
from nodulant.frame.here import RailHere
from nodulant.frame.ops.notches.notch_plan import Cap, NotchPlan
from nodulant.frame.ops.operation import RailOperation
from nodulant.frame.ops.plates.plate_welds import taper_mm
from nodulant.geometry import Outline
from nodulant.geometry.outline import polygon, rectangle
from nodulant.parts.part import Face
from nodulant.units.inline import as_length

STEP_MM = 1.0
"""Length of the straight pieces that stand for a curved edge."""
FLAT = ("outer", "inner", "top", "bottom")
"""Roles of flat plates."""


def refuse_flat_plates(op: RailOperation, field: str) -> None:
    """Raise InputError for a flat plate of ``op``, which has no seat on a round tube."""
    for role in FLAT:
        if role in op.roles():
            name = f"{role}_plate"
            raise InputError(
                f"a flat plate ({role}) has no seat on a round tube",
                field=f"{field}/{name}" if hasattr(op, name) else f"{field}/face",
                found="round tube",
                acceptable="none; a notch takes a liner and a cap that straddles the tube, a butt a backing slug",
            )


def refuse_on_tube(notch: NotchPlan, diameter_mm: float, field: str) -> None:
    """Raise InputError for what a notch cannot have in a round tube."""
    if notch.bolts is not None:
        raise InputError(
            "a bolted bracket needs flat sides to bolt to",
            field=f"{field}/bolts",
            found="round tube",
            acceptable="a welded liner and cap",
        )
    if notch.cap is not None and notch.depth_mm > diameter_mm / 2:
        raise InputError(
            "a cap stands on the tube's sides at half height, and this cut takes them away",
            field=f"{field}/depth_mm",
            found=as_length(notch.depth_mm),
            acceptable=f"at most {as_length(diameter_mm / 2)}, or no cap",
        )


def along_edge(edge: Outline) -> list[tuple[float, float]]:
    """Points of a cut's edge no farther apart than ``STEP_MM``, front to rear, mm."""
    out = edge.points(0.01)[:1]
    for (x0, z0), (x1, z1) in pairwise(edge.points(0.01)):
        pieces = max(math.ceil(math.hypot(x1 - x0, z1 - z0) / STEP_MM), 1)
        out += [(x0 + (x1 - x0) * i / pieces, z0 + (z1 - z0) * i / pieces) for i in range(1, pieces + 1)]
    return out


def saddle_outline(notch: NotchPlan, liner_mm: float, rail: RailHere) -> Outline:
    """The liner unrolled: as wide at every point as the tube is at that height; station and width, mm."""
    points = along_edge(notch.shape.path(notch.depth_mm))
    gone = [0.0]
    for (x0, z0), (x1, z1) in pairwise(points):
        gone.append(gone[-1] + math.hypot(x1 - x0, z1 - z0))
    scale = notch.shape.unrolled_mm(notch.depth_mm, liner_mm) / gone[-1]
    rows = [
        (rail.centre + (s - gone[-1] / 2) * scale, rail.width_at(z) / 2) for s, (_, z) in zip(gone, points, strict=True)
    ]
    middle = rail.height / 2
    low, high = [(x, middle - half) for x, half in rows], [(x, middle + half) for x, half in rows]
    return polygon([*low, *reversed(high[1:-1])])


def straddling_parts(notch: NotchPlan, cap: Cap, rail: RailHere) -> list[tuple[str, str, Face, Outline]]:
    """Role, name, face and outline of a cap's five plates on a round tube."""
    end, tall, t = notch.half_mouth_mm + cap.overlap_mm, cap.height_mm + rail.height / 2, cap.thickness_mm
    taper = taper_mm(tall, cap.end)
    side = polygon([(-end, 0), (end, 0), (end - taper, tall), (-end + taper, tall)]).moved(
        rail.centre, rail.underside + rail.height / 2
    )
    top = rectangle(rail.centre - end + taper, t, rail.centre + end - taper, t + rail.height)
    slant = math.hypot(tall, taper)
    cut_out = _end(slant, tall, rail.height, t)
    return [
        ("cap", "Cap top", "top", top),
        ("cap-side-outer", "Cap side, outer", "outer", side),
        ("cap-side-inner", "Cap side, inner", "inner", side),
        ("cap-end-front", "Cap end, front", "top", cut_out.moved(rail.centre - end, 0)),
        ("cap-end-rear", "Cap end, rear", "top", cut_out.moved(rail.centre + end - slant, 0)),
    ]


def _end(slant_mm: float, tall_mm: float, diameter_mm: float, inset_mm: float) -> Outline:
    """An end plate: a rectangle less the half ellipse in which its plane cuts the tube, mm."""
    r, steps = diameter_mm / 2, 24
    half = [math.pi * i / steps for i in range(steps + 1)]
    ellipse = [(r * math.sin(turn) * slant_mm / tall_mm, inset_mm + r - r * math.cos(turn)) for turn in half]
    return polygon([(slant_mm, inset_mm), (slant_mm, inset_mm + diameter_mm), *reversed(ellipse)])
