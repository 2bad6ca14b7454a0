"""Numbers that are shown beside the checks: heights, depth share, liner, hangers against seat."""

import numpy as np

from nodulant.base.errors import NodulantError
from nodulant.evaluate.evaluation import Figure
from nodulant.evaluate.rails.axle import AxleSide
from nodulant.frame.ops.notches.notch import Notch
from nodulant.frame.ops.notches.notch_sections import liner_effective_share
from nodulant.frame.parts import rail_here
from nodulant.job.document import Inputs
from nodulant.loads.beam import G, reactions
from nodulant.materials.pipe import pipe_that_clears
from nodulant.parts.sides import Side
from nodulant.parts.tyre import loaded_radius, parse_tyre
from nodulant.sections.liner import effective_share_clamped
from nodulant.strength.rail import RailComparison
from nodulant.units.inline import as_length, as_thickness

STEP_REACH_MM = 250.0


def figures(inputs: Inputs, rails: list[RailComparison], axle: dict[Side, AxleSide]) -> tuple[Figure, ...]:
    """All figures that the inputs allow."""
    out = _heights(inputs) + _loads(inputs) + _half_pipe(axle)
    for rail in rails:
        there = {figure.id for figure in out}
        out += _notches(inputs, rail) + _operations(rail, there) + _over_axle(inputs, rail)
    return tuple({figure.id: figure for figure in reversed(out)}.values())[::-1]


def _operations(rail: RailComparison, there: set[str]) -> list[Figure]:
    """What the operations say of themselves, and how much stiffer each makes the rail where it is, less what is ``there``."""
    out = []
    for p, work in zip(rail.placed, rail.work, strict=True):
        for spec in work.figures:
            if f"{spec.key}-{p.op.id}" in there:
                continue
            out.append(
                Figure(id=f"{spec.key}-{p.op.id}", name=spec.name, value=spec.value, unit=spec.unit, basis=spec.basis)
            )
        beside = rail.between(p.start_mm - STEP_REACH_MM, p.end_mm + STEP_REACH_MM)
        step = float(rail.ratios.inertia[beside].max(initial=0.0))
        if step > 1.01:
            basis = "EI beside its ends jumps by this over their development; a step above about 2 gathers stress there"
            out.append(
                Figure(
                    id=f"stiffness-{p.op.id}",
                    name="Stiffness at most, planned over stock",
                    value=step,
                    unit="x",
                    basis=basis,
                )
            )
    return out


def _half_pipe(axle: dict[Side, AxleSide]) -> list[Figure]:
    """The pipe that split in half would line the notch over the axle."""
    clear = max((a.needed.clear_radius_mm for a in axle.values() if a.needed), default=0.0)
    pipe = pipe_that_clears(clear) if clear > 0 else None
    if pipe is None:
        return []
    name = f"Half pipe that lines it: {pipe.name} schedule 40, wall {as_thickness(pipe.wall_mm)}, outside diameter"
    basis = f"bore of radius {pipe.inside_radius_mm:.1f} holds {as_length(clear)}; ASME B36.10M, from memory"
    return [Figure(id="half-pipe", name=name, value=pipe.outside_mm, unit="mm", basis=basis)]


def _heights(inputs: Inputs) -> list[Figure]:
    rear = inputs.survey.rear
    if rear.tyre is None:
        return []
    tyre = parse_tyre(rear.tyre)
    radius = loaded_radius(tyre, rear.loaded_radius_mm)
    said = (
        "measured" if radius.origin == "measured" else "estimated as 0.94 of the free radius, from memory: measure it"
    )
    rows = [
        Figure(
            id="tyre-free",
            name="Rear tyre, free diameter",
            value=tyre.free_diameter_mm,
            unit="mm",
            basis="size string, by definition",
        ),
        Figure(id="tyre-loaded", name="Rear tyre, loaded radius", value=radius.radius_mm, unit="mm", basis=said),
    ]
    hubs = [rear.hub_z_left_mm, rear.hub_z_right_mm]
    known = [h for h in hubs if h is not None]
    if len(known) == 2:
        stock = radius.radius_mm - sum(known) / 2
        rows.append(
            Figure(
                id="ride-stock",
                name="Datum plane above ground at the rear axle, stock",
                value=stock,
                unit="mm",
                basis=f"hub heights and loaded radius ({said})",
            )
        )
        rows.append(
            Figure(
                id="ride-planned",
                name="Datum plane above ground at the rear axle, planned",
                value=stock - inputs.design.targets.drop_mm,
                unit="mm",
                basis="stock height less the target drop",
            )
        )
    return rows


def _loads(inputs: Inputs) -> list[Figure]:
    try:
        held = reactions(inputs.survey.masses, inputs.design.seats or inputs.survey.seats)
    except NodulantError:
        return []
    rows = (("front", held.front), ("rear", held.rear))
    return [
        Figure(
            id=f"load-{name}",
            name=f"Sprung load on the {name} axle",
            value=force / G,
            unit="kg",
            basis="equilibrium of the masses on the two axles",
        )
        for name, force in rows
    ]


def _notches(inputs: Inputs, rail: RailComparison) -> list[Figure]:
    out = []
    for p in rail.placed:
        if not isinstance(p.op, Notch):
            continue
        here = rail_here(inputs.survey, rail.side, p.centre_mm, rail.placed)
        height, wall, width = here.height, here.wall, here.width_at(p.op.depth_mm)
        out.append(
            Figure(
                id=f"depth-share-{p.op.id}",
                name="Notch depth of rail height",
                value=p.op.depth_mm / height,
                unit="share",
                basis="shown, not limited: the sections decide",
            )
        )
        crown = p.op.shape.crown_radius_mm()
        if p.op.liner is None:
            out.append(_concentration(p.op, height))
        if p.op.liner:
            basis = (
                "flat crown: the whole width works"
                if crown is None
                else "curved flange, webs hold it simply (Bleich, from memory)"
            )
            out.append(
                Figure(
                    id=f"liner-share-{p.op.id}",
                    name="Liner width that works as a flange",
                    value=liner_effective_share(p.op, width - wall),
                    unit="share",
                    basis=basis,
                )
            )
        if p.op.liner and crown is not None:
            t = p.op.liner.thickness_mm
            out.append(
                Figure(
                    id=f"liner-clamped-{p.op.id}",
                    name="The same with clamped edges, upper bound",
                    value=effective_share_clamped(width - wall, crown - t / 2, t),
                    unit="share",
                    basis="Bleich, from memory; a straight-sided cut would give 1",
                )
            )
    return out


def _concentration(notch: Notch, height_mm: float) -> Figure:
    """Stress concentration at an unwelded edge: Peterson's semicircular edge notch, or the elliptical bound."""
    share, radius = notch.depth_mm / height_mm, notch.shape.least_radius_mm()
    if notch.shape.crown_radius_mm() is not None and notch.depth_mm <= radius:
        value = 3.065 - 3.472 * share + 1.009 * share**2 + 0.405 * share**3
        basis = (
            "semicircular edge notch on net-section stress (Peterson, from memory); for the fatigue of the bare edge"
        )
    else:
        value = 1 + 2 * float(np.sqrt(notch.depth_mm / max(radius, 0.1)))
        basis = "1 + 2 sqrt(depth / radius), upper bound (Inglis, from memory); for the fatigue of the bare edge"
    return Figure(id=f"kt-{notch.id}", name="Stress concentration at the bare edge", value=value, unit="x", basis=basis)


def _over_axle(inputs: Inputs, rail: RailComparison) -> list[Figure]:
    if rail.loading is None or inputs.survey.wheelbase_mm is None:
        return []
    x, at = rail.x, inputs.survey.wheelbase_mm
    stock, planned = (float(np.interp(at, x, m)) / 1e6 for m in (rail.loading.stock.moment, rail.loading.state.moment))
    basis = "one rail, 1 g; positive puts the bottom fibre in tension"
    return [
        Figure(id="moment-stock", name="Moment over the axle, stock seats", value=stock, unit="kN m", basis=basis),
        Figure(
            id="moment-planned", name="Moment over the axle, planned seats", value=planned, unit="kN m", basis=basis
        ),
    ]
