"""Steering drawings: wheels and rods from above at both locks and straight ahead, its figures and its curves."""

import numpy as np
from reportlab.graphics.shapes import Drawing, Line, Polygon
from reportlab.lib.colors import Color
from reportlab.lib.units import mm
from reportlab.platypus import Flowable, KeepTogether

from nodulant.clearance.moving import Mover, RoundBar, TyreBody
from nodulant.evaluate.curve import Curve
from nodulant.evaluate.suspensions.travel_drawing import AxleTravel
from nodulant.formats.dossier.contents import Contents
from nodulant.formats.dossier.graph import graph
from nodulant.formats.dossier.parts import figure, in_rows, part, small

FAINT = Color(0.6, 0.6, 0.6)
TALL = 52 * mm
LOCKS = (("full left", 0), ("straight ahead", None), ("full right", -1))
RODS = {"rod", "arm", "axle", "boot"}
Flat = tuple[float, float]


def steering(of: Contents, wide: float) -> list[Flowable]:
    """Of every axle that steers; nothing where none does."""
    out: list[Flowable] = []
    for axle in of.result.travel:
        own = [m for m in of.movers if m.positions.axle == axle.axle]
        if axle.steer is None or not own or len(own[0].positions.input) < 2:
            continue
        told = "; ".join(f"{f.name}: {figure(f.value, f.unit, of.style)}" for f in axle.steer_facts)
        plans: list[Flowable | list[Flowable]] = [
            [_plan(own, at, wide / 3 - 8), small(name.capitalize() + ".")] for name, at in LOCKS
        ]
        out.append(
            KeepTogether(
                [
                    part(f"Steering, {axle.axle}, from above: front to the left, right side up"),
                    in_rows(plans, 3, wide),
                    small(f"{told}."),
                ]
            )
        )
        curves: list[Flowable | list[Flowable]] = [
            graph(c, axle.steer.inputs, wide / 3 - 6, of.style, ("full left", "", "full right")) for c in _chosen(axle)
        ]
        if curves:
            out.append(in_rows(curves, 3, wide))
    return out


def _chosen(axle: AxleTravel) -> tuple[Curve, ...]:
    return axle.steer.curves[:6] if axle.steer else ()


def _plan(movers: list[Mover], lock: int | None, wide: float) -> Drawing:
    """Front to the left, right side up, at ride height; ``lock`` is the row of the input, None the middle."""
    t, r, middle = movers[0].positions.ride()
    at = (t, r, middle if lock is None else lock)
    bars = [
        (m.body.radius, _flat(m.body.a[at]), _flat(m.body.b[at]))
        for m in movers
        if isinstance(m.body, RoundBar) and m.kind in RODS
    ]
    tyres = [_tyre(m.body, at) for m in movers if isinstance(m.body, TyreBody)]
    points = [p for _, a, b in bars for p in (a, b)] + [p for tyre in tyres for p in tyre]
    x0, y0 = min(p[0] for p in points) - 20, min(p[1] for p in points) - 20
    spans = max(p[0] for p in points) + 20 - x0, max(p[1] for p in points) + 20 - y0
    k = min(wide / spans[0], TALL / spans[1])
    drawing = Drawing(wide, spans[1] * k)

    def on(p: Flat) -> Flat:
        return (p[0] - x0) * k, (p[1] - y0) * k

    for radius, a, b in bars:
        drawing.add(Line(*on(a), *on(b), strokeWidth=max(0.8, min(2 * radius * k, 5)), strokeColor=FAINT))
        drawing.add(Line(*on(a), *on(b), strokeWidth=0.4))
    for tyre in tyres:
        drawing.add(Polygon([c for p in tyre for c in on(p)], fillColor=None, strokeWidth=0.8))
    return drawing


def _tyre(body: TyreBody, at: tuple[int, int, int]) -> list[Flat]:
    """A tyre's outline from above: as long as it is across, turned with its axle."""
    centre, spin = body.centre[at][:2], body.spin[at][:2]
    across = spin / max(float(np.hypot(*spin)), 1e-9)
    along = np.array([-across[1], across[0]])
    corners = [
        (s * along * body.outside + u * across * body.width / 2) for s, u in ((-1, -1), (1, -1), (1, 1), (-1, 1))
    ]
    return [_flat(centre + c) for c in corners]


def _flat(point: np.ndarray) -> Flat:
    return float(point[0]), float(point[1])
