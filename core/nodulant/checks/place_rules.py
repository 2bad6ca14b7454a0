"""Checks of what stands where the rail is cut."""

from nodulant.checks.check import Changes, Check, Governs, Subject, Why, judge
from nodulant.frame.ops.crossmember_change import CrossmemberChange
from nodulant.parts.sides import on_sides
from nodulant.strength.rail import RailComparison
from nodulant.survey.crossmember import Crossmember
from nodulant.survey.vehicle import Seat, Survey
from nodulant.units.inline import as_length


def in_the_cut_checks(
    survey: Survey, seats: tuple[Seat, ...], ties: tuple[Crossmember, ...], rail: RailComparison, changes: Changes
) -> list[Check]:
    """One check for every operation that takes a length of rail out: seats, crossmembers and mounts on it."""
    features = [
        (f.x_mm, f.name)
        for f in survey.features
        if f.kind in {"body-mount", "engine-mount", "steering"} and rail.side in on_sides(f.side)
    ]
    spots = (
        [(s.x_mm, s.name) for s in seats or survey.seats] + [(c.x_mm, f"{c.name} crossmember") for c in ties] + features
    )
    out = []
    for p in rail.placed:
        if isinstance(p.op, CrossmemberChange):
            continue
        for move in p.op.moves(p.span, rail.side):
            if move.gone_mm <= 0:
                continue
            hit = [name for x, name in spots if move.at_mm < x < move.at_mm + move.gone_mm]
            words = f"between station {as_length(move.at_mm)} and {as_length(move.at_mm + move.gone_mm)}: {', '.join(hit) or 'nothing'}"
            out.append(
                judge(
                    "in-the-cut",
                    Subject(subject=f"{p.op.id}-{move.at_mm:.0f}", side=rail.side),
                    float(len(hit)),
                    Why(formula="parts", values={"parts": float(len(hit))}, words=words),
                    changes,
                    governs=Governs(station_mm=move.at_mm),
                    detail=p.op.name,
                    same_as_stock=not hit,
                    remedy=f"Move the cut, or move first: {', '.join(hit)}.",
                )
            )
    return out
