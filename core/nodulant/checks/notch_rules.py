"""Checks of one notch and its plates."""

import math
from dataclasses import replace

import numpy as np

from nodulant.checks.check import Changes, Check, Governs, Subject, Why, judge, not_computed
from nodulant.frame.here import RailHere
from nodulant.frame.model import Placed
from nodulant.frame.ops.notches.notch import Cap, Notch, SidePlate
from nodulant.frame.ops.plates.plate_welds import needed_overlap
from nodulant.parts.sides import Side, on_sides
from nodulant.strength.rail import RailComparison
from nodulant.survey.vehicle import Feature, Survey
from nodulant.units.inline import as_length, as_thickness


def notch_checks(
    notch: Notch,
    rail: RailHere,
    side: Side,
    placed: Placed,
    survey: Survey,
    comparison: RailComparison,
    changes: Changes,
) -> list[Check]:
    """Radius, overlaps, end shapes, holes and ends of one notch on one side."""
    subject = Subject(
        subject=notch.id,
        side=side,
        state=comparison.state.name,
        stage="prove" if comparison.state.name == "as-built" else "cut",
    )
    here = Governs(station_mm=placed.centre_mm)
    radius = notch.shape.least_radius_mm()
    checks = [
        judge(
            "corner-radius",
            subject,
            radius,
            Why(formula="radius", values={"radius": radius}),
            changes,
            governs=here,
            remedy=f"Drill {as_thickness(12.7)} holes in the corners and cut to their centres.",
        )
    ]
    crown = notch.shape.crown_radius_mm()
    if notch.liner and crown is not None:
        values = {"radius": crown, "thickness": notch.liner.thickness_mm}
        checks.append(
            judge(
                "liner-bend",
                subject,
                crown / notch.liner.thickness_mm,
                Why(formula="radius / thickness", values=values),
                changes,
                governs=here,
                remedy="A thinner liner, or half of a pipe.",
            )
        )
    plates: tuple[tuple[str, SidePlate | Cap | None], ...] = (
        ("outer", notch.outer_plate),
        ("inner", notch.inner_plate),
        ("cap", notch.cap),
    )
    for role, plate in plates:
        if plate is not None and notch.bolts is None:
            checks += _plate_checks(notch, role, plate, rail, subject, comparison, changes)
    checks += _hole_checks(notch, rail, side, placed, survey.features, subject, changes)
    checks.append(_end_check(notch, placed, survey, side, subject, changes))
    return checks


def _plate_checks(
    notch: Notch,
    role: str,
    plate: SidePlate | Cap,
    rail: RailHere,
    subject: Subject,
    comparison: RailComparison,
    changes: Changes,
) -> list[Check]:
    own = replace(subject, subject=f"{notch.id}-{role}")
    needed, reasons = needed_overlap(plate, rail.height, rail.width, rail.wall, rail.foot)
    leading = max(reasons, key=lambda name: reasons[name])
    words = f"needed: the largest of {', '.join(f'{name} {as_length(value)}' for name, value in reasons.items())}; {leading} governs"
    reach = notch.half_mouth_mm + plate.overlap_mm
    at = Governs(station_mm=rail.centre - reach)
    values = {"overlap": plate.overlap_mm, "needed": needed}
    remedy = f"Overlap the cut by {as_length(needed)} or more at each end."
    checks = [
        judge(
            "overlap",
            own,
            plate.overlap_mm / needed,
            Why(formula="overlap / needed", values=values, words=words),
            changes,
            governs=at,
            detail=f"{role} plate",
            remedy=remedy,
        )
    ]
    checks.append(_end_shape(plate, role, rail, reach, own, comparison, changes))
    return checks


def _end_shape(
    plate: SidePlate | Cap,
    role: str,
    rail: RailHere,
    reach: float,
    subject: Subject,
    comparison: RailComparison,
    changes: Changes,
) -> Check:
    if comparison.loading is None:
        return not_computed("end-shape", subject, ("/survey/masses",), changes, f"{role} plate")
    near = np.abs(np.abs(comparison.x - rail.centre) - reach) <= 30
    top_in_tension = bool((comparison.loading.state.moment[near] < 0).any())
    matters = role != "cap" or top_in_tension
    tapered = 1.0 if plate.end != "square" or not matters else 0.0
    flange = "top" if top_in_tension else "bottom"
    why = Why(
        formula="tapered",
        values={"tapered": tapered},
        words=f"the {flange} flange is in tension at the plate's end; square end: {'yes' if plate.end == 'square' else 'no'}",
    )
    return judge(
        "end-shape",
        subject,
        tapered,
        why,
        changes,
        governs=Governs(station_mm=rail.centre - reach),
        detail=f"{role} plate",
        same_as_stock=tapered == 1.0,
        remedy="Taper the end at 45 degrees or less, or make it a diamond.",
    )


def _hole_checks(
    notch: Notch,
    rail: RailHere,
    side: Side,
    placed: Placed,
    features: tuple[Feature, ...],
    subject: Subject,
    changes: Changes,
) -> list[Check]:
    checks = []
    path = [(placed.centre_mm + x, z) for x, z in notch.shape.path(notch.depth_mm).points(0.2)]
    ends = [
        rail.centre + sign * (notch.half_mouth_mm + plate.overlap_mm)
        for plate in (notch.outer_plate, notch.inner_plate)
        if plate
        for sign in (-1, 1)
    ]
    for hole in features:
        if hole.kind != "hole" or side not in on_sides(hole.side):
            continue
        own = replace(subject, subject=f"{notch.id}-{hole.id}")
        if hole.height_mm is None or hole.diameter_mm is None:
            checks.append(
                not_computed("hole-distance", own, (f"/survey/features/{features.index(hole)}",), changes, hole.name)
            )
            continue
        to_cut = min(math.hypot(hole.x_mm - x, hole.height_mm - z) for x, z in path)
        nearest = min([to_cut, *(abs(hole.x_mm - x) for x in ends)])
        why = Why(
            formula="distance / diameter",
            values={"distance": nearest, "diameter": hole.diameter_mm},
            words=f"centre of {hole.name} to the nearest cut edge or plate end",
        )
        checks.append(
            judge(
                "hole-distance",
                own,
                nearest / hole.diameter_mm,
                why,
                changes,
                governs=Governs(station_mm=hole.x_mm),
                detail=hole.name,
                remedy="Move the plate's end or plug the hole first.",
            )
        )
    return checks


def _end_check(notch: Notch, placed: Placed, survey: Survey, side: Side, subject: Subject, changes: Changes) -> Check:
    rail = survey.rails.of(side)
    longest = max([0.0, *(p.overlap_mm for p in (notch.outer_plate, notch.inner_plate, notch.cap) if p)])
    room = min(placed.start_mm - longest - rail.start_mm, rail.end_mm - placed.end_mm - longest)
    why = Why(formula="room", values={"room": room}, words="from the longest plate's end to the rail's nearer end")
    return judge(
        "end-distance",
        subject,
        room,
        why,
        changes,
        governs=Governs(station_mm=placed.centre_mm),
        remedy="Shorten the plates or move the cut.",
    ).model_copy(update={"scale": 100.0, "margin": room / 100.0})


def weldable_check(steel_id: str, weldable: bool, side: Side, changes: Changes) -> Check:
    """A heat-treated rail stops everything that is welded to it."""
    value = 1.0 if weldable else 0.0
    why = Why(formula="weldable", values={"weldable": value}, words=f"rail steel: {steel_id}")
    return judge(
        "weldable",
        Subject(subject="rail", side=side),
        value,
        why,
        changes,
        same_as_stock=weldable,
        remedy="Do not weld, cut or drill flanges of this rail: bolt on, or replace the rail.",
    )
