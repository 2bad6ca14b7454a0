"""Drawings: both rails whole and at each cut, plan, sections, suspensions from the side and above, curves with axes."""

from collections.abc import Callable, Iterator, Sequence

from reportlab.graphics.shapes import Circle, Drawing, Line, Polygon, PolyLine, String
from reportlab.lib.colors import Color, black, white
from reportlab.lib.units import mm
from reportlab.platypus import Flowable, KeepTogether, Table

from nodulant.evaluate.curve import Curve
from nodulant.evaluate.evaluation import RailDrawing
from nodulant.evaluate.suspensions.travel_drawing import AxleTravel, BodyPoint
from nodulant.formats.dossier.contents import Contents, SectionOf
from nodulant.formats.dossier.cut_drawings import ADDED, elevation, elevation_scale, scale_in_words, section
from nodulant.formats.dossier.graph import graph
from nodulant.formats.dossier.parts import chapter, figure, gap, in_rows, length, part, small, table
from nodulant.frame.place import resolve
from nodulant.parts.sides import Side
from nodulant.units.show import MM_PER_INCH, Style, show_length

FAINT = Color(0.6, 0.6, 0.6)
AROUND_MM = 450.0
CURVES = (
    "camber",
    "toe",
    "caster",
    "pinion",
    "anti-squat",
    "anti-dive",
    "roll-centre",
    "motion-ratio",
    "ratio",
    "steer",
)
At = Callable[[float, float], tuple[float, float]]


def _rail(of: Contents, side: Side) -> RailDrawing:
    return next(r for r in of.result.rails if r.side == side)


def whole_rail(of: Contents, side: Side, wide: float) -> Drawing:
    """One rail from end to end with what is added, seen from its own side, front to the left."""
    rail = _rail(of, side)
    x0, x1 = min(rail.x_mm), max(rail.x_mm)
    blocks = [b.outline.bounds() for b in (*rail.crossings, *rail.mounts)]
    low = min(*rail.underside_z_mm, *(b[1] for b in blocks)) - 10
    high = max(*rail.top_z_mm, *(b[3] for b in blocks)) + 10
    k = wide / (x1 - x0)
    drawing = Drawing(wide, (high - low) * k + 14)

    def at(x: float, z: float) -> tuple[float, float]:
        return (x - x0) * k, (z - low) * k + 12

    _outline(drawing, rail, at)
    for p in of.result.parts:
        if p.side == side and p.face in {"outer", "inner"}:
            drawing.add(_polygon(p.outline.points(0.5), at, ADDED))
    for plate in rail.flange_plates:
        drawing.add(_polygon(plate.outline.points(0.5), at, ADDED, ADDED))
    for block in (*rail.crossings, *rail.mounts):
        drawing.add(_polygon(block.outline.points(0.5), at, black))
    for cut in rail.cuts:
        drawing.add(_polygon(cut.points(0.5), at, black, white))
    _ruler(drawing, x0, x1, k, of.style)
    return drawing


def _outline(drawing: Drawing, rail: RailDrawing, at: At) -> None:
    for edge in (rail.underside_z_mm, rail.top_z_mm):
        points = [c for x, z in zip(rail.x_mm, edge, strict=True) for c in at(x, z)]
        drawing.add(PolyLine(points, strokeWidth=0.8))
    for x, low, high in (
        (rail.x_mm[0], rail.underside_z_mm[0], rail.top_z_mm[0]),
        (rail.x_mm[-1], rail.underside_z_mm[-1], rail.top_z_mm[-1]),
    ):
        drawing.add(Line(*at(x, low), *at(x, high), strokeWidth=0.8))


def _polygon(points: Sequence[tuple[float, float]], at: At, stroke: Color, fill: Color | None = None) -> Polygon:
    return Polygon([c for x, z in points for c in at(x, z)], fillColor=fill, strokeColor=stroke, strokeWidth=0.5)


def _ruler(drawing: Drawing, x0: float, x1: float, k: float, style: Style) -> None:
    step = 500.0 if style == "mm" else 20 * MM_PER_INCH
    for i in range(int(x0 // step) + 1, int(x1 // step) + 1):
        x = (i * step - x0) * k
        drawing.add(Line(x, 0, x, 5, strokeWidth=0.4))
        drawing.add(String(x + 1.5, 1, show_length(i * step, style), fontSize=5.5))


def plan(of: Contents, wide: float) -> Drawing:
    """Both rails from above, front to the left, right side up."""
    rails = of.result.rails
    x0, x1 = min(min(r.x_mm) for r in rails), max(max(r.x_mm) for r in rails)
    reach = max(max(abs(y) for y in (*r.web_y_mm, *r.tip_y_mm)) for r in rails)
    reach = max([reach, *(a.half_track_mm or 0.0 for a in of.result.travel)]) + 20
    k = wide / (x1 - x0)
    drawing = Drawing(wide, 2 * reach * k + 12)

    def at(x: float, y: float) -> tuple[float, float]:
        return (x - x0) * k, (y + reach) * k + 12

    for rail in rails:
        for edge in (rail.web_y_mm, rail.tip_y_mm):
            points = [c for x, y in zip(rail.x_mm, edge, strict=True) for c in at(x, y)]
            drawing.add(PolyLine(points, strokeWidth=0.8))
    drawing.add(Line(*at(x0, 0), *at(x1, 0), strokeWidth=0.3, strokeDashArray=[8, 3, 1, 3], strokeColor=FAINT))
    for axle in of.result.travel:
        if axle.hub is not None and axle.half_track_mm is not None:
            drawing.add(
                Line(*at(axle.hub[0], -axle.half_track_mm), *at(axle.hub[0], axle.half_track_mm), strokeWidth=0.4)
            )
    _ruler(drawing, x0, x1, k, of.style)
    return drawing


def frame(of: Contents, wide: float, *, whole: bool = True) -> list[Flowable]:
    """Both sides, the plan, and each cut larger."""
    out: list[Flowable] = [chapter("Drawings of the frame"), _bar(of.style)]
    for side in of.sides if whole else ("right",):
        out.append(
            KeepTogether([whole_rail(of, side, wide), small(f"{side.capitalize()} rail, front to the left."), gap(2)])
        )
    out.append(
        KeepTogether([plan(of, wide), small("Both rails from above, front to the left, right side up."), gap(2)])
    )
    for name, side, x in _cuts(of) if whole else list(_cuts(of))[:1]:
        drawn = elevation(of.result, side, wide, x, AROUND_MM, of.inputs.design.targets.bump_mm, of.style)
        told = f"{name}, {side} rail, {scale_in_words(elevation_scale(wide, AROUND_MM))}; tube at ride height, dashed in bump."
        out.append(KeepTogether([drawn, small(told), gap(2)]))
    return out


def _bar(style: Style) -> Drawing:
    """By which the scale of a print is measured."""
    long_mm = 100.0 if style == "mm" else 4 * MM_PER_INCH
    drawing = Drawing(long_mm * mm + 140, 12)
    drawing.add(Line(0, 4, long_mm * mm, 4, strokeWidth=1.2))
    told = f"{show_length(long_mm, style)} on paper: measure it before a scale is believed"
    drawing.add(String(long_mm * mm + 6, 1.5, told, fontSize=6))
    return drawing


def _cuts(of: Contents) -> Iterator[tuple[str, Side, float]]:
    """Cuts over an axle, both rails, where the planned rail has them."""
    rails = {r.side: r for r in of.result.rails}
    for op in of.inputs.design.operations:
        if op.kind not in {"notch", "z-step", "zstep", "raise"}:
            continue
        stock = resolve(op.anchor, of.inputs.survey.features)
        for side in ("left", "right") if op.kind == "notch" else ("left",):
            rail = rails["right" if side == "right" else "left"]
            k = min(range(len(rail.stock_x_mm)), key=lambda i: abs(rail.stock_x_mm[i] - stock))
            yield op.name, rail.side, rail.x_mm[k] + stock - rail.stock_x_mm[k]


def sections(of: Contents, wide: float) -> list[Flowable]:
    """One at every operation, before and after, with its figures."""
    if not of.sections:
        return []
    cells: list[Flowable | list[Flowable]] = [_section(s, of.style, wide / 3 - 8) for s in of.sections]
    return [chapter("Sections, stock and planned"), in_rows(cells, 3, wide)]


def _section(s: SectionOf, style: Style, wide: float) -> list[Flowable]:
    ratio = ", ".join(f"{f.name} {f.planned / f.stock:.2f}" for f in s.drawn.figures if f.stock)
    return [
        part(s.name),
        section(s.drawn, wide * 0.95),
        small(f"{s.side}, station {length(s.x_mm, style)}; of stock: {ratio}."),
    ]


def suspensions(of: Contents, wide: float) -> list[Flowable]:
    """Each axle's links from the side and from above, its figures, its curves."""
    out: list[Flowable] = []
    for axle in of.result.travel:
        if axle.hub is None:
            continue
        own: list[Flowable] = [part(f"{axle.name}, {axle.axle}: {axle.layout}")]
        side, above = _members(axle, wide / 2 - 6, up=True), _members(axle, wide / 2 - 6, up=False)
        own.append(Table([[side, above]], colWidths=[wide / 2] * 2, style=[("VALIGN", (0, 0), (-1, -1), "BOTTOM")]))
        own.append(small("From the right side and from above, front to the left; hubs as circles."))
        out.append(KeepTogether(own if out else [chapter("Suspension and steering"), *own]))
        if axle.links:
            rows = [["link", "joint to joint", "side view", "plan"]]
            rows += [
                [n.name, length(n.length_mm, of.style), f"{n.side_deg:.1f} deg", f"{n.plan_deg:.1f} deg"]
                for n in axle.links
            ]
            out.append(table(rows, (80, 40, 30, 30)))
        if axle.facts:
            told = "; ".join(f"{f.name}: {figure(f.value, f.unit, of.style)}" for f in axle.facts)
            out.append(small(f"{told}."))
        graphs = [_over_travel(c, axle, wide / 3 - 6, of.style) for c in _chosen(axle)]
        if graphs:
            out.append(in_rows(graphs, 3, wide))
    return out


def _chosen(axle: AxleTravel) -> list[Curve]:
    wanted = [c for c in axle.curves if any(c.id.startswith(name) for name in CURVES)]
    return (wanted or list(axle.curves))[:6]


def _members(axle: AxleTravel, wide: float, *, up: bool) -> Drawing:
    def seen(e: BodyPoint) -> tuple[float, float]:
        return e.x_mm, e.z_mm if up else e.y_mm

    ends = [(m.diameter_mm, seen(m.a), seen(m.b)) for m in axle.members]
    hub = axle.hub or [0.0, 0.0, 0.0]
    half = axle.half_track_mm or 0.0
    hubs = [(hub[0], hub[2])] if up else [(hub[0], half), (hub[0], -half)]
    xs = [p[0] for _, a, b in ends for p in (a, b)] + [p[0] for p in hubs]
    ys = [p[1] for _, a, b in ends for p in (a, b)] + [p[1] for p in hubs]
    x0, y0 = min(xs) - 40, min(ys) - 40
    k = min(wide / (max(xs) + 40 - x0), 55 * mm / (max(ys) + 40 - y0))
    drawing = Drawing(wide, (max(ys) + 40 - y0) * k)

    def at(p: tuple[float, float]) -> tuple[float, float]:
        return (p[0] - x0) * k, (p[1] - y0) * k

    for size, a, b in ends:
        drawing.add(Line(*at(a), *at(b), strokeWidth=max(0.6, min(size * k, 5)), strokeColor=FAINT))
        drawing.add(Line(*at(a), *at(b), strokeWidth=0.4))
    for p in hubs:
        drawing.add(Circle(*at(p), 3, fillColor=None, strokeWidth=1))
    return drawing


def _over_travel(curve: Curve, axle: AxleTravel, wide: float, style: Style) -> Drawing:
    ends = axle.travel_mm[0], 0.0, axle.travel_mm[-1]
    named = show_length(ends[0], style), show_length(0.0, style), show_length(ends[2], style)
    return graph(curve, axle.travel_mm, wide, style, named)
