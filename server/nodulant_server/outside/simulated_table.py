"""A stand-in for a plasma table: reads a DXF's CUT and HOLE layers as such a table does, and answers or refuses.

Its bed, speeds and bridges are a plausible small shop's, not any machine's.
"""

import io

import ezdxf
from ezdxf.entities import LWPolyline
from ezdxf.path import make_path
from shapely import LineString, Point, Polygon

from nodulant.units.inline import as_length, as_thickness
from nodulant_server.outside.port import TableAnswer

BED_MM = (3050.0, 1525.0)
CUT_LAYERS = frozenset({"CUT", "HOLE"})
OPEN_MM, CHORD_MM = 0.1, 0.05
LEAST_BRIDGE_MM, BRIDGE_PER_MM = 1.5, 0.5
"""Metal between two cuts: less burns through."""
SPEED = 7500.0
"""mm a minute through a millimetre; through t it is this over t."""
PIERCE_S, PIERCE_S_PER_MM, MOVE_MM_MIN = 0.4, 0.1, 9000.0
THICKEST_MM = 20.0
MM = {1: 25.4, 4: 1.0}
"""Drawing units by DXF's $INSUNITS."""


class SimulatedTable:
    """Looks at drawings as the table's own computer would."""

    def look(self, name: str, drawing: bytes, thickness_mm: float) -> TableAnswer:
        """Contours, pierces, length and time of a drawing, or the first reason why it is refused."""
        try:
            document = ezdxf.read(io.StringIO(drawing.decode("utf-8", "strict")))
        except (UnicodeDecodeError, ezdxf.DXFError, OSError, ValueError):
            return TableAnswer(
                drawing=name, taken=False, refused="this is no drawing that the table reads: DXF, please"
            )
        scale = MM.get(document.header.get("$INSUNITS", 0))
        if scale is None:
            return TableAnswer(drawing=name, taken=False, refused="the drawing does not say its unit")
        own = [e for e in document.modelspace().query("LWPOLYLINE") if e.dxf.layer in CUT_LAYERS]
        refused, rings = _rings([e for e in own if isinstance(e, LWPolyline)], scale)
        refused = refused or _refused(rings, thickness_mm)
        if refused:
            return TableAnswer(drawing=name, taken=False, contours=len(rings), refused=refused)
        cut = sum(ring.exterior.length for ring in rings)
        return TableAnswer(
            drawing=name,
            taken=True,
            contours=len(rings),
            pierces=len(rings),
            cut_mm=cut,
            minutes=_minutes(rings, cut, thickness_mm),
        )


def _rings(own: list[LWPolyline], scale: float) -> tuple[str, list[Polygon]]:
    rings: list[Polygon] = []
    for line in own:
        points = [(p.x * scale, p.y * scale) for p in make_path(line).flattening(CHORD_MM / scale)]
        gap = Point(points[0]).distance(Point(points[-1]))
        if not line.closed and gap > OPEN_MM:
            x, y = points[-1]
            return f"a contour is open by {as_length(gap)} at {as_length(x)}, {as_length(y)}", rings
        if len(points) > 2:
            rings.append(Polygon(points))
    return "", rings


def _refused(rings: list[Polygon], thickness_mm: float) -> str:
    """The first thing that cannot be cut."""
    if not rings:
        return "there is nothing to cut on its layers CUT and HOLE"
    if thickness_mm > THICKEST_MM:
        return f"the torch cuts up to {as_thickness(THICKEST_MM)}, this is {as_thickness(thickness_mm)}"
    if any(not ring.is_valid for ring in rings):
        return "a contour crosses itself"
    x0, y0 = min(r.bounds[0] for r in rings), min(r.bounds[1] for r in rings)
    wide, high = max(r.bounds[2] for r in rings) - x0, max(r.bounds[3] for r in rings) - y0
    if max(wide, high) > BED_MM[0] or min(wide, high) > BED_MM[1]:
        return f"it is {as_length(wide)} x {as_length(high)}, the bed {as_length(BED_MM[0])} x {as_length(BED_MM[1])}"
    least = max(LEAST_BRIDGE_MM, BRIDGE_PER_MM * thickness_mm)
    lines, around = [LineString(ring.exterior.coords) for ring in rings], _around(rings)
    for i, line in enumerate(lines):
        for j in range(i):
            # metal between two contours is a part's own where one lies in the other or both lie in one plate
            if not (around[i] == j or around[j] == i or (around[i] is not None and around[i] == around[j])):
                continue
            apart = line.distance(lines[j])
            if apart < least:
                near = lines[j].interpolate(lines[j].project(Point(rings[i].centroid)))
                return f"a bridge of {as_thickness(apart)} near {as_length(near.x)}, {as_length(near.y)} burns through: {as_thickness(least)} at least"
    return ""


def _around(rings: list[Polygon]) -> list[int | None]:
    """For every contour the smallest that it lies in."""
    out: list[int | None] = []
    for i, ring in enumerate(rings):
        outer = [j for j, other in enumerate(rings) if j != i and other.area > ring.area and other.intersects(ring)]
        out.append(min(outer, key=lambda j: rings[j].area, default=None))
    return out


def _minutes(rings: list[Polygon], cut_mm: float, thickness_mm: float) -> float:
    way, here = 0.0, Point(0.0, 0.0)
    for ring in rings:
        start = Point(ring.exterior.coords[0])
        way, here = way + here.distance(start), start
    pierce = len(rings) * (PIERCE_S + PIERCE_S_PER_MM * thickness_mm) / 60
    return cut_mm * thickness_mm / SPEED + pierce + way / MOVE_MM_MIN
