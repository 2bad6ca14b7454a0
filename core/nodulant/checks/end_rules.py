"""Checks of what ends the travel, in which order, and of leaves that were worked on."""

from nodulant.axles.leaf_work import leaf_change
from nodulant.axles.springs import LeafPack
from nodulant.checks.check import Changes, Check, Governs, Why, judge, not_computed
from nodulant.checks.travel_rules import in_droop, subject_of
from nodulant.suspension.contacts import contacts, first_unmeant
from nodulant.suspension.study import Study
from nodulant.units.inline import as_length


def end_checks(s: Study, changes: Changes) -> list[Check]:
    """Whether stop and strap come first; nothing where the linkage does not move."""
    if s.motion is None:
        return []
    found, out = contacts(s), []
    bump, droop = first_unmeant(found, "bump"), first_unmeant(found, "droop")
    stop = s.suspension.stop
    if stop is not None and bump is not None:
        full = stop.gap_mm + stop.gives_mm
        out.append(
            judge(
                "bump-order",
                subject_of(s, "stop"),
                bump.travel_mm - full,
                Why(
                    formula="next - stop",
                    values={"next": bump.travel_mm, "stop": full},
                    words=f"wheel travel, mm: the stop holds 3 g; next comes: {bump.name}",
                ),
                changes,
                governs=Governs(pose_mm=bump.travel_mm),
                remedy=f"A taller or stiffer stop, or more room before: {bump.name}.",
            )
        )
    out += _met(s, changes)
    strap = next((c for c in found if c.key == "strap"), None)
    if strap is not None and droop is not None:
        out.append(
            judge(
                "droop-order",
                in_droop(s, "strap"),
                strap.travel_mm - droop.travel_mm,
                Why(
                    formula="strap - next",
                    values={"strap": strap.travel_mm, "next": droop.travel_mm},
                    words=f"wheel travel, mm, droop negative: the strap is taut; next comes: {droop.name}",
                ),
                changes,
                governs=Governs(pose_mm=strap.travel_mm),
                remedy=f"A shorter strap, or more room before: {droop.name}.",
            )
        )
    return out


def _met(s: Study, changes: Changes) -> list[Check]:
    """How square and how central a stop that is placed on the frame is met."""
    strike = s.strike
    if strike is None or strike.off_square_deg is None or strike.aside_mm is None:
        return []
    rows = (
        (
            "stop-square",
            Why(
                formula="angle",
                values={"angle": strike.off_square_deg},
                words=f"between its axis and the way of what strikes it, the worst from {as_length(20)} of travel before it touches to the end",
            ),
            strike.off_square_deg,
            "Lean or rake the stop along the arm's arc, or move it where the arc is straighter.",
        ),
        (
            "stop-aside",
            Why(
                formula="off",
                values={"off": strike.aside_mm},
                words="middle of what strikes it from its axis as it touches",
            ),
            strike.aside_mm,
            "Move the stop's base, or what strikes it, over the other.",
        ),
    )
    return [
        judge(rule, subject_of(s, "stop"), value, why, changes, governs=Governs(pose_mm=strike.gap_mm), remedy=remedy)
        for rule, why, value, remedy in rows
    ]


def leaf_checks(s: Study, changes: Changes) -> list[Check]:
    """Load on what is left of a leaf pack against its share of the rating; nothing where no leaf was taken out."""
    pack = s.suspension.springs
    if not isinstance(pack, LeafPack) or pack.removed == 0:
        return []
    subject, at = subject_of(s, "leaves"), f"/design/suspensions/{s.suspension.axle}/springs/rated_n"
    if pack.rated_n is None:
        return [not_computed("leaf-load", subject, (at,), changes)]
    if s.vehicle.axle_n is None:
        return [not_computed("leaf-load", subject, s.vehicle.weight_missing, changes)]
    load = s.vehicle.axle_n / 2
    stress = leaf_change(pack, s.vehicle.tube_mm or 0.0, load).stress
    return [
        judge(
            "leaf-load",
            subject,
            load * stress / pack.rated_n,
            Why(
                formula="load * before / left / rated",
                values={"load": load, "before": pack.leaves, "left": pack.leaves_left, "rated": pack.rated_n},
                words="load on one spring, N; each leaf that stays carries its own share and that of those taken out",
            ),
            changes,
            remedy="Leave the leaves in, or carry less: what lowers the car takes the rating with it.",
        )
    ]
