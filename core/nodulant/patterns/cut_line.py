"""A card for cuts that no plate's edge follows: saw lines through a rail and windows in its side, as slots to scribe in.

Two scribed lines stay on the rail on both sides of the cut: after the weld they say how far the ends moved.
"""

import math

import numpy as np

from nodulant.drawn.dimension import Span as Measured
from nodulant.drawn.dimension import dimension
from nodulant.frame.here import OnRail
from nodulant.frame.model import Placed
from nodulant.frame.route import Route
from nodulant.geometry import Outline
from nodulant.geometry.outline import arc_centre, circle, is_straight, line, polygon, rectangle
from nodulant.patterns.draw import FRONT, datum_tick, finish, labels
from nodulant.patterns.hung import Reference, hung_template, reach
from nodulant.patterns.pattern import Pattern, Stroke
from nodulant.survey.vehicle import Feature
from nodulant.units.inline import as_length, as_place

SCRIBED_MM = 100.0
"""From a cut to the line that outlives it: clear of its heat and its plates' bevel (common practice)."""
BEYOND_MM = 15.0
LEVEL_MM = 0.05
SLOT_MM, BRIDGE_MM = 1.2, 8.0
"""A scriber's slot, and the card that holds at both its ends."""


def cut_line_templates(
    placed: Placed, lines: tuple[Outline, ...], on: OnRail, anchor: Feature, near: tuple[Reference, ...], route: Route
) -> list[Pattern]:
    """A card for every place where the rail is cut; cuts whose scribed lines would meet share one."""
    groups: list[list[Outline]] = []
    for cut in sorted(lines, key=lambda cut: cut.bounds()[0]):
        if groups and cut.bounds()[0] - groups[-1][-1].bounds()[2] <= 2 * SCRIBED_MM:
            groups[-1].append(cut)
        else:
            groups.append([cut])
    return [_card(placed, own, number, on, anchor, near, route) for number, own in enumerate(groups, 1)]


def _card(
    placed: Placed,
    lines: list[Outline],
    number: int,
    on: OnRail,
    anchor: Feature,
    near: tuple[Reference, ...],
    route: Route,
) -> Pattern:
    """The rail's side with a slot along every straight cut, scribed lines ahead and behind, and what it hangs on."""
    op, height = placed.op, on.here.height
    feet_at = [v.x for cut in lines for v in cut.vertices if v.y <= 0.0]
    zero, last = min(feet_at), max(feet_at)
    ahead, behind = reach(near, zero, last, SCRIBED_MM + BEYOND_MM)
    left, right = -ahead, last - zero + behind
    marks = (-SCRIBED_MM, last - zero + SCRIBED_MM)
    own = [cut.moved(-zero, 0.0) for cut in lines]
    hung = hung_template(near, zero, rectangle(left, 0.0, right, height), height)
    strokes = [
        Stroke(layer="CUT", outline=rectangle(left, 0.0, right, height)),
        *(Stroke(layer="HOLE", outline=shape) for cut in own for shape in _scribable(cut)),
        *(Stroke(layer="ETCH", outline=line(x, 0.0, x, height)) for x in marks),
        datum_tick(marks[0], 7 * height / 8, zero - SCRIBED_MM - anchor.x_mm),
        *hung.strokes,
    ]
    datum = f"{as_place(zero - anchor.x_mm)} {anchor.name}"
    moved = after(route, zero, last)
    rows = (
        f"{op.name} · cut lines · {on.side[0].upper()}",
        f"first cut {datum}",
        f"top edge = rail top · {FRONT}",
        moved,
        hung.words,
    )
    feet = sorted({x for cut in own for x in (cut.bounds()[0], cut.bounds()[2])})
    tops = {round(y, 2): x for cut in own for x, y in cut.points(0.1) if 0 < y < height}
    dimensions = (
        *(
            dimension(
                f"cut {k} from the first",
                Measured(edge="below", a=0.0, b=x, from_a=0.0, from_b=0.0),
                1.0,
                critical=True,
            )
            for k, x in enumerate(feet, 1)
            if abs(x) > SLOT_MM
        ),
        *(
            dimension(
                "height of the piece", Measured(edge="right", a=0.0, b=y, from_a=right, from_b=x), 1.0, critical=True
            )
            for y, x in [max(tops.items(), default=(0.0, 0.0))]
            if y > 0
        ),
        *(
            dimension(
                f"scribed line {where} the cut",
                Measured(edge="above", a=a, b=b, from_a=height, from_b=height),
                0.5,
                critical=True,
            )
            for where, a, b in (("ahead of", marks[0], 0.0), ("behind", marks[1] - SCRIBED_MM, marks[1]))
        ),
        dimension("rail height", Measured(edge="left", a=0.0, b=height, from_a=left, from_b=left), 1.0),
        *hung.dimensions,
    )
    card = finish(
        f"{op.id}/cut-lines{'' if number == 1 else f'-{number}'}/{on.side}",
        f"{op.name}: cut line template{'' if number == 1 else f' {number}'}",
        on.side,
        None,
        strokes,
        labels(left, height, rows),
        dimensions,
        datum,
        hung.callouts,
        hung,
    )
    return card.model_copy(update={"after": moved})


def after(route: Route, first_mm: float, last_mm: float) -> str:
    """How the scribed lines beside cuts at two stock stations lie to each other once the rail is joined again."""
    x = np.array([first_mm - SCRIBED_MM, last_mm + SCRIBED_MM])
    shift = route.shift(x)
    apart, up, inward = (float(v[1] - v[0]) for v in (x + shift.dx, shift.dz, shift.inward))
    words = f"after the weld: scribed lines {as_length(apart)} apart"
    if abs(up) >= LEVEL_MM:
        words += f" · the rear one {as_length(abs(up))} {'higher' if up > 0 else 'lower'}"
    if abs(inward) >= LEVEL_MM:
        words += f" · the rear one {as_length(abs(inward))} further {'in' if inward > 0 else 'out'}"
    return words


def _scribable(cut: Outline) -> list[Outline]:
    """A slot along each straight part, and a point to drill at the middle of each round corner."""
    out = []
    for a, b in cut.segments():
        if not is_straight(a.bulge):
            out.append(circle(*arc_centre(a, b)[:2], 2.0))
            continue
        long = math.hypot(b.x - a.x, b.y - a.y)
        if long <= 2 * BRIDGE_MM or max(a.y, b.y) <= 0.0:
            continue
        ux, uy = (b.x - a.x) / long, (b.y - a.y) / long
        nx, ny = -uy * SLOT_MM / 2, ux * SLOT_MM / 2
        p, q = (a.x + ux * BRIDGE_MM, a.y + uy * BRIDGE_MM), (b.x - ux * BRIDGE_MM, b.y - uy * BRIDGE_MM)
        out.append(
            polygon([(p[0] + nx, p[1] + ny), (q[0] + nx, q[1] + ny), (q[0] - nx, q[1] - ny), (p[0] - nx, p[1] - ny)])
        )
    return out
