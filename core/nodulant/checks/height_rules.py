"""Checks of how high the vehicle stands: stacks against hubs, tyres and cuts, rails against the ground."""

from nodulant.checks.check import Changes, Check, Governs, Subject, Why, judge, not_computed
from nodulant.parts.sides import AxleName
from nodulant.units.inline import as_length


def _about(subject: str) -> Subject:
    return Subject(subject=subject, stage="target")


def stands_check(axle: AxleName, stack_mm: float, stands_mm: float, changes: Changes) -> Check:
    """The stack's drop against the drop that hubs and tyres of the planned suspension give."""
    off = abs(stack_mm - stands_mm)
    return judge(
        "stack-stands",
        _about(axle),
        off,
        Why(
            formula="abs(stack - stands)",
            values={"stack": stack_mm, "stands": stands_mm},
            words="mm that the rails' straight part goes down: by the stack, and by the planned hubs and tyre",
        ),
        changes,
        detail=axle,
        remedy="Something is counted twice or left out: change an entry, the planned hubs or the tyre.",
    )


def wheelbase_check(surveyed_mm: float, planned_mm: float, changes: Changes) -> Check:
    """What cuts and hubs make of the wheelbase: an overlap shortens it unasked."""
    more = planned_mm - surveyed_mm
    said = f"{as_length(abs(more))} {'longer' if more > 0 else 'shorter'} than surveyed"
    return judge(
        "wheelbase-kept",
        _about("vehicle"),
        abs(more),
        Why(
            formula="abs(planned - surveyed)",
            values={"planned": planned_mm, "surveyed": surveyed_mm},
            words=f"mm between the hubs as planned, {said}",
        ),
        changes,
        remedy="Where it is to stay: put in or take out as much elsewhere, or move the hubs on their links.",
    )


def cut_check(axle: AxleName, words: str, stack_mm: float, cut_mm: float, changes: Changes) -> Check:
    """Steps or pockets of the stack against those that are cut."""
    off = abs(stack_mm - cut_mm)
    return judge(
        "stack-cut",
        _about(f"{axle}-{words.replace(' ', '-')}"),
        off,
        Why(
            formula="abs(stack - cut)",
            values={"stack": stack_mm, "cut": cut_mm},
            words=f"mm of {words} in the stack, and as the operations cut it at this axle",
        ),
        changes,
        detail=f"{axle}, {words}",
        remedy=f"Make the stack's {words} {as_length(cut_mm)}, or cut it as the stack says.",
    )


def ground_checks(
    static: tuple[float, float] | None, bump: tuple[float, float] | None, missing: tuple[str, ...], changes: Changes
) -> list[Check]:
    """Rails against the ground, each (mm, station): standing as planned, and with both axles at full bump."""
    rows = (
        ("rail-ground", static, "lowest place of both rails, standing as planned", 0.0),
        ("rail-ground-bump", bump, "lowest place of both rails with both axles at full bump", None),
    )
    out = []
    for rule, found, words, pose in rows:
        if found is None:
            out.append(not_computed(rule, _about("rails"), missing, changes))
            continue
        gap, at = found
        why = Why(formula="gap", values={"gap": gap}, words=f"mm, {words}")
        remedy = "Less drop or less bump, or a step where the rail hangs lowest."
        out.append(
            judge(rule, _about("rails"), gap, why, changes, governs=Governs(station_mm=at, pose_mm=pose), remedy=remedy)
        )
    return out
