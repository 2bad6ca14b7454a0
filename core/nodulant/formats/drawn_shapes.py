"""Closed shapes from a user's DXF or SVG, as polygons in mm.

DXF: lines, polylines, arcs, circles and splines of the model space, joined where their ends
meet within 0.05 mm; the file's own unit holds, millimetres where it names none. SVG: polygon,
polyline, rect, circle and path; user units are taken as the unit that is asked for, y is turned
upward. Curves are flattened within 0.05 mm.
"""

import io
import math
from collections.abc import Iterable
from itertools import islice
from xml.etree import ElementTree

import ezdxf
from ezdxf import units as dxf_units
from ezdxf.path import make_path
from fontTools.pens.recordingPen import RecordingPen
from fontTools.svgLib.path import parse_path
from shapely.geometry import LineString, Polygon
from shapely.ops import polygonize, unary_union

from nodulant.base.errors import InputError

FLAT_MM = 0.05
MM = {"mm": 1.0, "in": 25.4}
MOST_BYTES = 4_000_000
MOST_MM, MOST_POINTS, MOST_CROSSING = 50_000.0, 100_000, 300
"""A drawing of a frame is within 50 m; so many points are read, and so many loose lines looked through for crossings."""
Point = tuple[float, float]


def read_shapes(text: str, unit: str = "mm") -> list[Polygon]:
    """Every closed shape, largest first, holes cut out; raises InputError where there is none."""
    if len(text) > MOST_BYTES:
        raise InputError("the drawing is too large", found=f"{len(text)} bytes", acceptable=f"{MOST_BYTES} at most")
    lines = _svg(text, MM[unit]) if "<svg" in text[:4000].lower() else _dxf(text)
    _refuse_boundless(lines)
    rings = (Polygon(ring).simplify(FLAT_MM / 2) for ring in _rings(lines) if len(ring) >= 4)
    closed = [ring.buffer(0) for ring in rings]
    areas = sorted((p for p in closed if p.area > 1.0), key=lambda p: -p.area)
    if not areas:
        raise InputError(
            "there is no closed shape in this drawing",
            found=f"{len(lines)} lines",
            acceptable="a closed outline in DXF or SVG",
        )
    return areas


def outer_with_holes(shapes: list[Polygon]) -> Polygon:
    """The largest shape with every shape inside it cut out."""
    outer = shapes[0]
    inside = [s for s in shapes[1:] if outer.contains(s.representative_point()) and s.area < 0.999 * outer.area]
    whole = outer.difference(unary_union(inside)) if inside else outer
    return whole if isinstance(whole, Polygon) else max(whole.geoms, key=lambda g: g.area)


def _rings(lines: list[list[Point]]) -> list[list[Point]]:
    rings, loose = [], []
    for line in lines:
        if len(line) > 3 and math.dist(line[0], line[-1]) < FLAT_MM:
            rings.append(line)
        elif len(line) > 1:
            loose.append(LineString([_rounded(p) for p in line]))
    # many lines are joined at their ends alone: looking for crossings goes with the square of their number
    joined = unary_union(loose) if len(loose) <= MOST_CROSSING else loose
    return rings + [list(p.exterior.coords) for p in polygonize(joined)] if loose else rings


def _refuse_boundless(lines: list[list[Point]]) -> None:
    """Raises InputError for numbers that are none, and for drawings that no frame fills."""
    far = max((abs(v) for line in lines for p in line for v in p), default=0.0)
    if not all(math.isfinite(v) for line in lines for p in line for v in p) or far > MOST_MM:
        raise InputError(
            "this drawing goes beyond any frame", found=f"a coordinate of {far:g}", acceptable=f"within {MOST_MM:g} mm"
        )


def _rounded(p: Point) -> Point:
    return round(p[0] / FLAT_MM) * FLAT_MM, round(p[1] / FLAT_MM) * FLAT_MM


def _dxf(text: str) -> list[list[Point]]:
    try:
        drawing = ezdxf.read(io.StringIO(text))
    except (ezdxf.DXFError, ValueError, KeyError, IndexError) as error:
        raise InputError("this is no DXF and no SVG", found=text[:30], acceptable="an ASCII DXF or an SVG") from error
    # a file without a header gets one on reading, which names a unit of its own
    unit = drawing.header.get("$INSUNITS", 4) if "$INSUNITS" in text else 4
    factor = dxf_units.conversion_factor(unit, dxf_units.MM) if unit else 1.0
    out, count = [], 0
    for entity in drawing.modelspace().query("LINE LWPOLYLINE POLYLINE ARC CIRCLE ELLIPSE SPLINE"):
        radius = abs(float(entity.dxf.radius)) * factor if entity.dxftype() in {"CIRCLE", "ARC"} else 0.0
        if not radius <= MOST_MM:
            raise InputError("this circle goes beyond any frame", found=f"a radius of {radius:g} mm", acceptable="less")
        flat = make_path(entity).flattening(FLAT_MM / factor)
        points = [(v.x * factor, v.y * factor) for v in islice(flat, MOST_POINTS - count + 1)]
        count += len(points)
        if count > MOST_POINTS:
            raise InputError("the drawing has too many points", found="more", acceptable=f"{MOST_POINTS} at most")
        if len(points) > 1:
            out.append(points)
    return out


def _svg(text: str, factor: float) -> list[list[Point]]:
    if "<!ENTITY" in text or "<!DOCTYPE" in text:
        raise InputError("this SVG declares entities", found="a document type", acceptable="a plain SVG")
    try:
        root = ElementTree.fromstring(text)
    except ElementTree.ParseError as error:
        raise InputError("this SVG is not well-formed", found=str(error), acceptable="a plain SVG") from error
    out: list[list[Point]] = []
    for node in root.iter():
        out.extend(_svg_node(node.tag.rsplit("}", 1)[-1], node.attrib))
    return [[(x * factor, -y * factor) for x, y in line] for line in out]


def _svg_node(tag: str, own: dict[str, str]) -> Iterable[list[Point]]:
    try:
        if tag in {"polygon", "polyline"}:
            flat = [float(v) for v in own.get("points", "").replace(",", " ").split()]
            points = list(zip(flat[::2], flat[1::2], strict=False))
            return [[*points, points[0]] if tag == "polygon" and points else points]
        if tag == "rect":
            x, y, w, h = (float(own.get(k, 0)) for k in ("x", "y", "width", "height"))
            return [[(x, y), (x + w, y), (x + w, y + h), (x, y + h), (x, y)]]
        if tag == "circle":
            x, y, r = (float(own.get(k, 0)) for k in ("cx", "cy", "r"))
            turns = [2 * math.pi * i / 96 for i in range(97)]
            return [[(x + r * math.cos(t), y + r * math.sin(t)) for t in turns]]
        if tag == "path":
            return _path(own.get("d", ""))
    except (ValueError, IndexError, TypeError) as error:
        raise InputError(f"a {tag} of this SVG cannot be read", found=str(error)[:60], acceptable="numbers") from error
    return []


def _path(data: str) -> list[list[Point]]:
    pen = RecordingPen()
    parse_path(data, pen)
    lines: list[list[Point]] = []
    for name, args in pen.value:
        if name == "moveTo":
            lines.append([args[0]])
        elif name == "lineTo":
            lines[-1].append(args[0])
        elif name == "curveTo":
            lines[-1].extend(_cubic(lines[-1][-1], *args))
        elif name == "qCurveTo":
            a, (c, b) = lines[-1][-1], args
            one = (a[0] + 2 / 3 * (c[0] - a[0]), a[1] + 2 / 3 * (c[1] - a[1]))
            two = (b[0] + 2 / 3 * (c[0] - b[0]), b[1] + 2 / 3 * (c[1] - b[1]))
            lines[-1].extend(_cubic(a, one, two, b))
        elif name == "closePath":
            lines[-1].append(lines[-1][0])
    return lines


def _cubic(a: Point, b: Point, c: Point, d: Point, steps: int = 24) -> list[Point]:
    out = []
    for i in range(1, steps + 1):
        t, u = i / steps, 1 - i / steps
        k = (u**3, 3 * u * u * t, 3 * u * t * t, t**3)
        out.append(
            (
                sum(w * p[0] for w, p in zip(k, (a, b, c, d), strict=True)),
                sum(w * p[1] for w, p in zip(k, (a, b, c, d), strict=True)),
            )
        )
    return out
