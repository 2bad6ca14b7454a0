"""The frame as a whole in twist: its stiffness against stock, and its own angle with one wheel in a hole."""

from nodulant.checks.check import Changes, Check, Subject, Verdict, Why, judge, told
from nodulant.parts.limits import find_limit
from nodulant.strength.space import FrameComparison
from nodulant.units.said import said

ROUND_OFF = 1e-6


def frame_checks(frames: FrameComparison, changes: Changes) -> list[Check]:
    """Weaker where the planned frame is softer than 0.90 of stock; the angle is a note."""
    stock, planned = frames.stock, frames.planned
    before, after = stock.ladder.stiffness_nm_per_deg, planned.ladder.stiffness_nm_per_deg
    limit, change = find_limit("frame-stiffness", changes)
    ratio = after / before
    verdict: Verdict = "holds" if ratio >= limit.value - ROUND_OFF else "weaker"
    stiffness = told(
        limit,
        Subject(subject="frame", cause="frame in twist"),
        ratio,
        Why(formula="planned / stock", values={"planned": after, "stock": before}, words="N m/deg"),
        verdict,
        changed=change is not None,
        remedy="A crossmember, a firmer joint, or a closed rail." if verdict == "weaker" else "",
        said=said("{planned}, stock {stock}", planned=(after, "stiffness"), stock=(before, "stiffness")),
    )
    t = planned.twist
    bound = "what the hole's depth enforces" if t.bound == "hole" else "what lifts the wheel altogether"
    angle = judge(
        "twist-angle",
        Subject(subject="frame", cause="frame in twist"),
        t.angle_deg,
        Why(
            formula="couple / stiffness",
            values={"couple": t.couple_nmm / 1000.0, "stiffness": after},
            words=f"N m and N m/deg; the couple is {bound}",
        ),
        changes,
    )
    return [stiffness, angle.model_copy(update={"cause": "twist angle"})]


def twice_checks(pairs: tuple[tuple[str, str], ...], changes: Changes) -> list[Check]:
    """One row for every crossmember of the design that stands where a surveyed one does; it is counted once."""
    out = []
    for k, (name, other) in enumerate(pairs):
        why = Why(formula="twice", values={"twice": 1.0}, words="surveyed and added at one place: counted once")
        remedy = f"Take '{name}' out of the design, or give it its own place."
        row = judge("crossmember-twice", Subject(subject=f"crossmember-{k + 1}"), 1.0, why, changes, remedy=remedy)
        out.append(row.model_copy(update={"title": f"'{name}' stands where '{other}' stands: counted once"}))
    return out
