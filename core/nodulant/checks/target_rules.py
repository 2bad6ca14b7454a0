"""Checks of the drop stack, the travel and the notch that they ask for."""

from collections.abc import Sequence

from nodulant.checks.check import Changes, Check, Governs, Subject, Why, judge, not_computed
from nodulant.clearance.tube_to_rail import RAIL, Clearances, travel_until
from nodulant.frame.model import Placed
from nodulant.frame.ops.notches.notch import Notch
from nodulant.parts.sides import AxleName, Side
from nodulant.targets.drop import CausedEntry, DropResult, Stack, Targets
from nodulant.targets.notch_needed import NotchNeeded
from nodulant.units.inline import as_length

STACK: dict[AxleName, Subject] = {
    "front": Subject(subject="front", stage="target"),
    "rear": Subject(subject="rear", stage="target"),
}


def _sum(targets: Stack, off: float, why: Why, changes: Changes, axle: AxleName) -> Check:
    """The sum against the target; what cuts alone make waits for a target that somebody gives."""
    by_cuts = targets.entries and all(isinstance(e, CausedEntry) for e in targets.entries)
    if by_cuts and targets.drop_mm == 0:
        at = "/design/targets/front/drop_mm" if axle == "front" else "/design/targets/drop_mm"
        return not_computed("drop-sum", STACK[axle], (at,), changes)
    return judge(
        "drop-sum",
        STACK[axle],
        off,
        why,
        changes,
        same_as_stock=off < 0.05,
        remedy="Change an amount, or leave one entry empty and it is solved.",
    )


def drop_checks(targets: Stack, drop: DropResult, changes: Changes, axle: AxleName = "rear") -> list[Check]:
    """The stack adds up, nothing counts twice, and no notch claims to lower."""
    off = abs(drop.total_mm - targets.drop_mm)
    sums = Why(
        formula="abs(total - target)",
        values={"total": drop.total_mm, "target": targets.drop_mm},
        words="entries of the stack against the target drop",
    )
    pairs = (
        "; ".join(f"{pair.one} and {pair.two}" for pair in drop.overlapping)
        or "no pair of mechanisms that move the same parts"
    )
    twice = Why(formula="pairs", values={"pairs": float(len(drop.overlapping))}, words=pairs)
    claim = Why(
        formula="claimed",
        values={"claimed": drop.claimed_by_notch_mm},
        words="A notch lowers nothing: it buys travel. Ride height comes from springs, spindles, pivots or a step.",
    )
    return [
        _sum(targets, off, sums, changes, axle),
        judge(
            "double-count",
            STACK[axle],
            float(len(drop.overlapping)),
            twice,
            changes,
            same_as_stock=not drop.overlapping,
            remedy="Count one of them, or raise the limit and say why both are real.",
        ),
        judge(
            "notch-lowers",
            STACK[axle],
            drop.claimed_by_notch_mm,
            claim,
            changes,
            same_as_stock=drop.claimed_by_notch_mm == 0,
            remedy="Remove this entry; give the drop to what makes it.",
        ),
    ]


def clearance_checks(
    side: Side, sweep: Clearances, targets: Targets, changes: Changes, needed_mm: float, state: str = "planned"
) -> list[Check]:
    """Least clearance over the wanted travel, and the travel that there is."""
    own = (
        Subject(subject="axle-tube", side=side, stage="prove", state="as-built")
        if state == "as-built"
        else Subject(subject="axle-tube", side=side, stage="target")
    )
    wanted = (sweep.travel >= -targets.droop_mm) & (sweep.travel <= targets.bump_mm)
    rows = [
        (float(c), float(t), float(x), k)
        for k, (c, t, x, ok) in enumerate(zip(sweep.clearance, sweep.travel, sweep.nearest_x, wanted, strict=True))
        if ok
    ]
    least, at, where, pose = min(rows)
    to = sweep.nearest_name(pose)
    why = Why(
        formula="clearance",
        values={"clearance": least},
        words=f"tube to {to}, nearest point over the whole travel",
    )
    checks = [
        judge(
            "metal-clearance",
            own,
            least,
            why,
            changes,
            governs=Governs(station_mm=where, pose_mm=at),
            detail="axle tube" if to == RAIL else f"axle tube to {to}",
            remedy="A deeper or wider notch, less bump travel, or a thinner liner."
            if to == RAIL
            else f"Move {to} along the rail, or less bump travel.",
        )
    ]
    until = travel_until(sweep, needed_mm)
    there = float(sweep.travel.max()) if until is None else until
    travel = Why(
        formula="travel / wanted",
        values={"travel": there, "wanted": targets.bump_mm},
        words="bump travel at which the clearance is used up"
        if until is not None
        else "at least this much; the sweep goes no further",
    )
    checks.append(
        judge(
            "bump-travel",
            own,
            there / targets.bump_mm,
            travel,
            changes,
            governs=Governs(pose_mm=there),
            same_as_stock=there >= targets.bump_mm - 0.05,
            remedy="Deepen the notch, or settle for less bump.",
        )
    )
    return checks


def notch_size_checks(needed: NotchNeeded, placed: Sequence[Placed], changes: Changes) -> list[Check]:
    """Depth and width of the notch over the axle against what the path needs."""
    cuts = [
        (p, p.op)
        for p in placed
        if isinstance(p.op, Notch) and not p.op.from_above and p.start_mm - 50 <= needed.centre_x_mm <= p.end_mm + 50
    ]
    if needed.depth_mm <= 0 or not cuts:
        return []
    checks = []
    cut, notch = cuts[0]
    rows = (
        ("notch-depth", notch.depth_mm, needed.depth_mm),
        ("notch-width", cut.end_mm - cut.start_mm, needed.width_mm),
    )
    for rule, have, need in rows:
        why = Why(
            formula="have / need",
            values={"have": have, "need": need},
            words="axle's path plus clearance, liner and weld",
        )
        subject = Subject(subject=notch.id, side=needed.side, stage="cut")
        checks.append(
            judge(
                rule,
                subject,
                have / need,
                why,
                changes,
                governs=Governs(station_mm=cut.centre_mm),
                same_as_stock=have / need >= 1 - 1e-6,
                remedy=f"Make it {as_length(need)}.",
            )
        )
    return checks
