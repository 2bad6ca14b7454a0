"""Checks of the survey: complete before teardown, and consistent with itself."""

from collections.abc import Sequence

from nodulant.checks.check import Changes, Check, Subject, Why, judge, not_computed
from nodulant.parts.sides import Side
from nodulant.parts.tyre import parse_tyre
from nodulant.survey.before_teardown import Reading
from nodulant.survey.vehicle import Survey
from nodulant.units.said import said


def survey_checks(
    survey: Survey,
    readings: Sequence[Reading],
    underside_z: dict[Side, float | None],
    changes: Changes,
    *,
    rear_touched: bool = True,
    assumed: Sequence[str] = (),
) -> list[Check]:
    """Share of readings taken, what is assumed, and hub height against tube and gap on each side."""
    taken, total = sum(r.taken for r in readings), len(readings)
    missing = ", ".join(r.name for r in readings if not r.taken) or "nothing"
    why = Why(
        formula="taken / total", values={"taken": float(taken), "total": float(total)}, words=f"missing: {missing}"
    )
    subject = Subject(subject="vehicle", stage="survey")
    complete = judge(
        "survey-complete",
        subject,
        taken / total,
        why,
        changes,
        same_as_stock=taken == total,
        remedy="Take the missing readings while the vehicle stands.",
    )
    words = said("{taken} of {total} taken", taken=(float(taken), "count"), total=(float(total), "count"))
    checks = [complete.model_copy(update={"said": words}), *assumed_check(assumed, changes)]
    sides: tuple[Side, Side] = ("left", "right")
    # an axle that nobody touches is not asked for: its hubs are compared where they were measured
    asked = rear_touched or survey.rear.tube_diameter_mm is not None
    checks += _tyres(survey, changes)
    return checks + ([_hub(survey, side, underside_z.get(side), changes) for side in sides] if asked else [])


def _tyres(survey: Survey, changes: Changes) -> list[Check]:
    """Whether a radius that was measured carried its wheel."""
    out = []
    for name, axle in (("front", survey.front), ("rear", survey.rear)):
        if axle.loaded_radius_mm is None or axle.tyre is None:
            continue
        free = parse_tyre(axle.tyre).free_diameter_mm / 2
        values = {"loaded": axle.loaded_radius_mm, "free": free}
        out.append(
            judge(
                "loaded-radius",
                Subject(subject=name, stage="survey"),
                axle.loaded_radius_mm / free,
                Why(formula="loaded / free", values=values, words="free radius by the size string"),
                changes,
                detail=name,
                same_as_stock=True,
                remedy="Measure from the hub's middle to level ground, the tyre at its pressure and the vehicle on it.",
            )
        )
    return out


def assumed_check(assumed: Sequence[str], changes: Changes) -> list[Check]:
    """What nobody measured and is drawn and reckoned with all the same; none where nothing is."""
    names = list(dict.fromkeys(assumed))
    if not names:
        return []
    words = f"assumed and to be measured: {', '.join(names)}; whatever rests on them is assumed too"
    why = Why(formula="values", values={"values": float(len(names))}, words=words)
    row = judge(
        "assumed-values",
        Subject(subject="vehicle", stage="survey"),
        float(len(names)),
        why,
        changes,
        remedy="Measure them.",
    )
    told = said("{n} values are assumed, not measured", n=(float(len(names)), "count"))
    return [row.model_copy(update={"said": told})]


def _hub(survey: Survey, side: Side, underside_z: float | None, changes: Changes) -> Check:
    subject = Subject(subject="rear-hub", side=side, stage="survey")
    rear = survey.rear
    need = {
        f"/survey/rear/hub_z_{side}_mm": rear.hub_z_mm(side),
        f"/survey/rear/tube_gap_{side}_mm": rear.tube_gap_mm(side),
        "/survey/rear/tube_diameter_mm": rear.tube_diameter_mm,
        "/survey/wheelbase_mm": underside_z,
    }
    missing = tuple(pointer for pointer, value in need.items() if value is None)
    if missing:
        return not_computed("hub-agrees", subject, missing, changes)
    hub, gap, tube, under = (float(v) for v in need.values() if v is not None)
    expected = under - gap - tube / 2
    why = Why(
        formula="abs(hub - (underside - gap - tube / 2))",
        values={"hub": hub, "underside": under, "gap": gap, "tube": tube},
        words="the tube's centre is the hub's centre on a straight axle",
    )
    return judge(
        "hub-agrees",
        subject,
        abs(hub - expected),
        why,
        changes,
        same_as_stock=abs(hub - expected) < 2.0,
        remedy="Measure again: one of the three is off.",
    )
