"""Checks of the sweep: every pair against the limit of its kind."""

import numpy as np

from nodulant.checks.check import Changes, Check, Governs, Subject, Why, judge
from nodulant.clearance.pair import Least
from nodulant.clearance.shapes import Standing
from nodulant.clearance.sweep import Cleared, Pair
from nodulant.clearance.under import Under
from nodulant.units.inline import as_length

AXES = (("rearward", "forward"), ("to the right", "to the left"), ("up", "down"))


def way_of(found: Least) -> tuple[float, float, float]:
    """Unit vector from the moving body to the other: the way that the other has to go to make room."""
    d = found.other - found.mine
    size = float(np.linalg.norm(d))
    if size < 1e-9:
        return (0.0, 0.0, 0.0)
    sign = 1.0 if found.gap_mm >= 0 else -1.0
    x, y, z = (float(v) for v in sign * d / size)
    return (x, y, z)


def way_in_words(way: tuple[float, float, float]) -> str:
    """The main direction of a way, and a second one where it counts as much as half of it."""
    order = sorted(range(3), key=lambda k: -abs(way[k]))
    named = [AXES[k][0 if way[k] > 0 else 1] for k in order if abs(way[k]) > 0.5 * abs(way[order[0]]) and way[k] != 0.0]
    return " and ".join(named[:2])


def about(cleared: Cleared, state: str = "") -> Subject:
    """Each pair is a subject of its own."""
    return Subject(subject=cleared.pair.id.replace(":", "_") + state, side=cleared.pair.mover.side, stage="sweep")


def sweep_checks(cleared: Cleared, changes: Changes) -> list[Check]:
    """The least clearance of a pair, and of a tyre also at rest; none where it stays far away."""
    found, pair = cleared.least, cleared.pair
    if found is None:
        return []
    out = []
    names = f"{pair.mover.name} to {pair.other.name}"
    move = way_in_words(way_of(found))
    at_rest = cleared.at_rest_mm is not None and cleared.at_rest_mm < 0.0
    words = (
        "they overlap at ride height straight ahead already: placed so, or cut out for it, not a contact of the sweep"
        if at_rest
        else f"least over the whole motion, mm: at {as_length(found.travel_mm)} of travel, {found.roll_deg:+.1f} degrees of roll, {found.input:+.0%} of the lock"
    )
    out.append(
        judge(
            pair.wish,
            about(cleared),
            found.gap_mm,
            Why(formula="gap", values={"gap": found.gap_mm}, words=words),
            changes,
            detail=names,
            governs=Governs(station_mm=float(found.other[0]), pose_mm=found.travel_mm),
            remedy=_remedy(pair, move),
        )
    )
    if pair.wish == "tyre-sweep" and cleared.at_rest_mm is not None and not at_rest:
        # the worst of ride height and every load state
        rows: list[tuple[str, float]] = [("ride height", cleared.at_rest_mm), *cleared.stands_mm.items()]
        stands = min(rows, key=lambda row: row[1])
        out.append(
            judge(
                "tyre-static",
                about(cleared, "_rest"),
                stands[1],
                Why(
                    formula="gap",
                    values={"gap": stands[1]},
                    words=f"standing straight ahead, the worst of ride height and the load states: {stands[0]}, mm",
                ),
                changes,
                detail=names,
                governs=Governs(pose_mm=0.0),
                remedy="More offset inward, a narrower tyre, or room.",
            )
        )
    return out


def _remedy(pair: Pair, move: str) -> str:
    if isinstance(pair.other, Standing) and pair.other.kind == "rail":
        return "Move it away from the rail, or take the cut for it from the sweep."
    return f"Move the {pair.other.name} {move}." if move else "Move one of them away from the other."


def inside_check(thing: Standing, rail: str, depth_mm: float, changes: Changes) -> Check:
    """A thing that the user placed in a rail."""
    subject = Subject(subject=f"{thing.obstacle_id}_{rail.replace(' ', '-')}", stage="sweep")
    return judge(
        "inside-at-rest",
        subject,
        depth_mm,
        Why(formula="depth", values={"depth": depth_mm}, words="mm that it stands inside the rail, at rest"),
        changes,
        detail=f"{thing.name} in the {rail}",
        remedy="Its place or its size is wrong, or the rail is to be cut there.",
    )


def scrub_checks(axle: str, under: Under, changes: Changes) -> list[Check]:
    """Both scrub checks of an axle."""
    rows = (
        ("scrub-line", under.one_flat, "from the flat tyre's rim to the other tyre's foot"),
        ("scrub-plane", under.both_flat, "the plane through both rims' lowest edges"),
    )
    return [
        judge(
            rule,
            Subject(subject=axle, stage="sweep"),
            scrub.over_mm,
            Why(
                formula="over",
                values={"over": scrub.over_mm},
                words=f"mm from the underside of the {scrub.part} to {line}, at ride height through the whole lock",
            ),
            changes,
            detail=f"{axle} axle, {scrub.part}",
            governs=Governs(station_mm=float(scrub.at[0]), pose_mm=0.0),
            remedy=f"Raise the {scrub.part}: a flat tyre would let it strike the road.",
        )
        for rule, scrub, line in rows
    ]
