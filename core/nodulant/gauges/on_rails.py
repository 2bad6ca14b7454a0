"""Gauges of the rails: a rod through both, spreaders and legs where they are cut, spacers at a rise, pointers in holes."""

from collections.abc import Iterator

from nodulant.frame.model import Placed
from nodulant.frame.ops.hole import WebHole
from nodulant.frame.ops.subframes.subframe import Subframe
from nodulant.frame.ops.through.zstep import ZStep
from nodulant.frame.ops.union import Operation
from nodulant.gauges.draw import wedge
from nodulant.gauges.frame_here import RailsHere
from nodulant.gauges.gauge import Gauge
from nodulant.parts.sides import LEFT_RIGHT, Side, on_sides
from nodulant.patterns.hung import references
from nodulant.units.inline import as_length, as_place, as_thickness

OVERHANG_MM = 60.0
"""How far a rod stands out of both rails, to sight along and to hold."""
CLEAR_MM = 150.0
"""From a cut to what holds the rails there: clear of plates' bevels and the welder's hands (common practice)."""
SLACK_MM = 0.1
"""A plug is thinner than its hole by this."""
LEVEL_MM = 0.5
NEAR_MM = 300.0
BRACING = frozenset({"brace", "slide"})
"""Steps that ask for what keeps the rails apart."""
HEADS_MM = 25.0
"""Length of a pointer: a finger's hold behind the wall."""


def rods(here: RailsHere) -> Iterator[Gauge]:
    """One through each hole that is drilled in both rails: it lies straight, or the holes do not face each other."""
    for left, right in here.pairs():
        op = left.op
        if right is None or not isinstance(op, WebHole) or not op.drills:
            continue
        heights = [
            here.underside(side, p.centre_mm) + op.height_mm for side, p in zip(LEFT_RIGHT, (left, right), strict=True)
        ]
        apart = heights[1] - heights[0]
        tilt = (
            "It lies level."
            if abs(apart) < LEVEL_MM
            else f"It lies {as_length(abs(apart))} {'higher' if apart > 0 else 'lower'} on the right: the rails do."
        )
        yield Gauge(
            id=f"{op.id}/rod",
            kind="rod",
            name=f"{op.name}: dummy rod",
            says=f"Through the hole of one rail into that of the other before anything is welded; it turns by hand. {tilt}",
            operation=op.id,
            phase="mark",
            made_of="round bar, or pipe of that outside",
            long_mm=here.over(left.centre_mm) + 2 * OVERHANG_MM,
            across_mm=op.clear_mm - SLACK_MM,
        )


def spreaders(here: RailsHere) -> Iterator[Gauge]:
    """Ahead of each cut and behind it, as wide as the rails stand there when the work is done."""
    for left, right in here.pairs():
        if right is None:
            continue
        for x, where in beside_cuts(here, left):
            wide = here.between(x)
            moves = abs(wide - here.between_stock(x)) > LEVEL_MM
            yield Gauge(
                id=f"{left.op.id}/spreader/{where.partition(' ')[0]}",
                kind="spreader",
                name=f"{left.op.name}: spreader {where}",
                says=f"Between the rails' inner faces {as_length(CLEAR_MM)} {where}, {held(left)}.",
                operation=left.op.id,
                phase="tack" if moves else "brace",
                made_of="square tube",
                long_mm=wide,
            )


def held(placed: Placed) -> str:
    """How the braces beside a cut are held, and until when: nothing is tacked to a rail that is only bolted."""
    arc = any("welder" in step.tools for step in placed.op.steps("") if step.key in BRACING)
    return "tacked or clamped, until the welds are cold" if arc else "clamped or bolted, until every bolt is drawn"


def beside_cuts(here: RailsHere, placed: Placed) -> list[tuple[float, str]]:
    """Stock stations ahead of what is cut through and behind it, where there is rail."""
    if not any(step.key in BRACING for step in placed.op.steps("")):
        return []
    rail = here.survey.rails.left
    at = [(cut.start_mm - CLEAR_MM, "ahead of the cut") for cut in placed.cuts[:1]]
    at += [(cut.end_mm + CLEAR_MM, "behind the cut") for cut in placed.cuts[-1:]]
    return [(x, where) for x, where in at if rail.start_mm <= x <= rail.end_mm]


def spacers(here: RailsHere, block_mm: float | None) -> Iterator[Gauge]:
    """What is put under an end or subframe that rises: so many of the shop's own blocks, and shims to the rest."""
    for left, _ in here.pairs():
        op, rise = left.op, 0.0
        if isinstance(op, ZStep):
            rise = op.rise_mm
        elif isinstance(op, Subframe) and op.measured == "vehicle":
            rise = op.up_mm
        if rise <= 0:
            continue
        yield Gauge(
            id=f"{op.id}/spacer",
            kind="spacer",
            name=f"{op.name}: spacer",
            says=made_up(rise, block_mm),
            operation=op.id,
            phase="fit",
            count=2,
            made_of="the shop's own blocks, measured, and shims",
            long_mm=rise,
            missing="" if block_mm else "how high one of your blocks is, measured: a nominal size is not its height",
        )


def made_up(rise_mm: float, block_mm: float | None) -> str:
    """A rise out of blocks of one measured height and shims: never over it."""
    if not block_mm:
        return f"{as_length(rise_mm)} under each side, blocks and shims together."
    blocks = int((rise_mm + 1e-9) // block_mm)
    rest = rise_mm - blocks * block_mm
    told = f"{blocks} of {as_length(block_mm)}" if blocks else "no block"
    shims = f" and {as_thickness(rest)} of shims" if rest > 0.05 else ""
    return f"{as_length(rise_mm)} under each side: {told}{shims}."


def legs(here: RailsHere) -> Iterator[Gauge]:
    """Under the end that a cut frees, near the cut and at the far end, at the height that it is welded at."""
    ground = here.survey.ground_z_mm()
    for placed_here, _ in here.pairs():
        op = placed_here.op
        if not op.saws_through or not placed_here.cuts:
            continue
        found: dict[tuple[str, float | None], Gauge] = {}
        for side in on_sides(op.side):
            placed = next(p for p in here.placed[side] if p.op.id == op.id)
            for x, where in _free_end(here, placed):
                high = None if ground is None else here.risen(side, x, _other_end(here, placed, x)) - ground
                key = (where, high and round(high, 1))
                own = found.get(key)
                found[key] = (
                    own.model_copy(update={"side": "both", "count": 2}) if own else _leg(op, side, x, where, high)
                )
        yield from found.values()


def _other_end(here: RailsHere, placed: Placed, x_mm: float) -> float:
    """A station of the part that stays on its wheels."""
    rail = here.survey.rails.left
    return rail.end_mm if x_mm <= placed.cuts[0].start_mm else rail.start_mm


def _leg(op: Operation, side: Side, x: float, where: str, high: float | None) -> Gauge:
    return Gauge(
        id=f"{op.id}/leg/{where.replace(' ', '-')}/{side}",
        kind="clip-leg",
        name=f"{op.name}: leg {where}",
        says=f"From the floor to the rail's underside {as_place(x)} the front axle line, wheels on the floor; as much longer as the frame stands higher. It keeps the height, rated stands carry.",
        operation=op.id,
        phase="cut",
        side=side,
        made_of="square tube with a foot",
        long_mm=high,
        missing="" if high is not None else "how high the frame stands: hubs and tyres of both axles",
    )


def _free_end(here: RailsHere, placed: Placed) -> list[tuple[float, str]]:
    """Two stock stations of the shorter end of the rail: near its cut, and near its own end."""
    rail, first, last = here.survey.rails.left, placed.cuts[0].start_mm, placed.cuts[-1].end_mm
    if first - rail.start_mm < rail.end_mm - last:
        near, far = first - CLEAR_MM, rail.start_mm + CLEAR_MM
    else:
        near, far = last + CLEAR_MM, rail.end_mm - CLEAR_MM
    return [
        (x, where) for x, where in ((near, "near the cut"), (far, "at the far end")) if rail.start_mm < x < rail.end_mm
    ]


def pointers(here: RailsHere) -> Iterator[Gauge]:
    """A turned plug with a point for each size of surveyed hole near work: it takes the hole's centre over."""
    sizes: dict[float, list[str]] = {}
    for side in LEFT_RIGHT:
        for r in references(here.survey, side):
            near = any(p.start_mm - NEAR_MM <= r.x_mm <= p.end_mm + NEAR_MM for p in here.placed[side])
            if r.height_mm is not None and near:
                sizes.setdefault(round(r.diameter_mm, 2), []).append(r.name)
    for across, names in sorted(sizes.items()):
        yield Gauge(
            id=f"pointer/{across:g}",
            kind="pointer",
            name=f"Pointer for {as_thickness(across)} holes",
            says=f"Fits {', '.join(dict.fromkeys(names))}; the point on its axis marks the centre on card or plate.",
            phase="mark",
            count=2,
            made_of="round bar, turned, with a point of 60 degrees",
            long_mm=HEADS_MM,
            across_mm=across - SLACK_MM,
        )


def blocks(here: RailsHere) -> Iterator[Gauge]:
    """The angle of an oblique cut and of a sloped riser."""
    for left, _ in here.pairs():
        op = left.op
        if not isinstance(op, ZStep):
            continue
        rows = [
            (
                "cut",
                "cut off upright",
                op.cut_angle_deg,
                "Its foot along a square that stands on the rail: the slope is the cut.",
            )
        ]
        if op.method == "riser":
            says = "Its foot along the rail's underside: the slope is the riser."
            rows.append(("riser", "slope of the riser", op.riser_angle_deg, says))
        for key, what, angle, says in rows:
            if angle:
                yield wedge(
                    f"{op.id}/angle/{key}",
                    f"{op.name}: {what}",
                    angle,
                    op.id,
                    "mark" if key == "cut" else "tack",
                    says,
                )
