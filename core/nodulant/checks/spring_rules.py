"""Checks of springs, dampers and stops through travel."""

import math

import numpy as np

from nodulant.axles.points import on_axle
from nodulant.axles.springs import AirSpring, Coilover, Damper
from nodulant.base.arrays import Columns
from nodulant.checks.check import Changes, Check, Governs, Why, judge, not_computed
from nodulant.checks.travel_rules import in_droop, subject_of
from nodulant.suspension.spring_motion import SpringMotion, coil_seat, ride_pressure_bar, tilt_deg
from nodulant.suspension.study import Study


def spring_checks(s: Study, changes: Changes) -> list[Check]:
    """Everything about the springs; nothing where none were chosen or the linkage does not move."""
    sm, springs = s.springs, s.suspension.springs
    if springs is None or sm is None or s.motion is None:
        return []
    out = _frequency(s, sm, changes) + _stop(s, changes)
    if s.suspension.damper is not None and s.damper is not None:
        out += _damper(s, s.suspension.damper, s.damper.length, changes)
    if isinstance(springs, Coilover):
        out += _damper(s, springs, sm.length, changes) + _coil(s, springs, sm, changes)
        out.append(_lean(s, springs, changes))
    elif isinstance(springs, AirSpring):
        out += _bellows(s, springs, sm, changes)
    return out


def _frequency(s: Study, sm: SpringMotion, changes: Changes) -> list[Check]:
    rules = ("frequency-least", "frequency-most")
    if sm.frequency_hz is None or sm.wheel_rate is None or s.vehicle.axle_n is None:
        return [not_computed(rule, subject_of(s, "springs"), s.vehicle.weight_missing, changes) for rule in rules]
    if not np.isfinite(sm.wheel_rate[s.ride]):
        still = (f"/design/suspensions/{s.suspension.axle}/layout",)
        rows = [not_computed(rule, subject_of(s, "springs"), still, changes) for rule in rules]
        return [row.model_copy(update={"remedy": "The linkage does not move."}) for row in rows]
    mass = s.vehicle.axle_n / 2 / 9.80665
    why = Why(
        formula="(1000 * rate / mass) ** 0.5 / 6.283185307179586",
        values={"rate": float(sm.wheel_rate[s.ride]), "mass": mass},
        words="rate at the wheel, N/mm, k MR^2 + F dMR/dz; sprung mass on this corner, kg",
    )
    remedies = ("A stiffer spring.", "A softer spring.")
    value = math.sqrt(max(1000 * float(sm.wheel_rate[s.ride]) / mass, 0.0)) / (2 * math.pi)
    return [
        judge(rule, subject_of(s, "springs"), value, why, changes, governs=Governs(pose_mm=0.0), remedy=remedy)
        for rule, remedy in zip(rules, remedies, strict=True)
    ]


def _stop(s: Study, changes: Changes) -> list[Check]:
    stop, bump = s.suspension.stop, s.suspension.bump_mm
    there = 0.0 if stop is None else 1.0
    out = [
        judge(
            "stop-there",
            subject_of(s, "stop"),
            there,
            Why(
                formula="stops",
                values={"stops": there},
                words="a bracket or pocket in the stock stop's place removes it",
            ),
            changes,
            same_as_stock=stop is not None,
            remedy="Put a bump stop back, and say its gap at ride height.",
        )
    ]
    if stop is not None:
        out.append(
            judge(
                "stop-first",
                subject_of(s, "stop"),
                (stop.gap_mm + stop.gives_mm) / bump,
                Why(
                    formula="(gap + gives) / bump",
                    values={"gap": stop.gap_mm, "gives": stop.gives_mm, "bump": bump},
                    words="wheel travel to the stop and what it gives at 3 g, against full bump",
                ),
                changes,
                same_as_stock=stop.gap_mm + stop.gives_mm <= bump + 1e-9,
                remedy="A taller or stiffer stop, or more bump travel.",
            )
        )
    return out


def _damper(s: Study, c: Coilover | Damper, length: Columns, changes: Changes) -> list[Check]:
    travel = s.motion.travel if s.motion else np.zeros(1)
    own_name = "coilover" if isinstance(c, Coilover) else "damper"
    shut, wide = int(np.nanargmin(length)), int(np.nanargmax(length))
    stroke = c.open_mm - c.closed_mm
    used = 100 * (c.open_mm - float(length[s.ride])) / stroke if stroke > 0 else 0.0
    rows = (
        ("damper-closed", float(length[shut]) - c.closed_mm, "length - closed", "closed", c.closed_mm, shut),
        ("damper-open", c.open_mm - float(length[wide]), "open - length", "open", c.open_mm, wide),
    )
    remedies = {
        "damper-closed": "A shorter damper, a higher upper mount, or a stop that strikes sooner.",
        "damper-open": "A longer damper, a lower upper mount, or a limit strap.",
    }
    out = [
        judge(
            rule,
            in_droop(s, own_name) if rule == "damper-open" else subject_of(s, own_name),
            value,
            Why(formula=formula, values={name: own, "length": float(length[i])}, words="eye to eye, mm"),
            changes,
            detail=own_name,
            governs=Governs(pose_mm=float(travel[i])),
            remedy=remedies[rule],
        )
        for rule, value, formula, name, own, i in rows
    ]
    why = Why(
        formula="100 * (open - length) / (open - closed)",
        values={"open": c.open_mm, "closed": c.closed_mm, "length": float(length[s.ride])},
        words="of its own stroke at ride height",
    )
    if stroke <= 0:
        return out
    for rule, remedy in (
        ("ride-used", "Lower the upper mount or take a longer damper: too little droop is left."),
        ("ride-used-most", "Raise the upper mount or take a shorter damper: too little bump is left."),
    ):
        out.append(
            judge(
                rule,
                subject_of(s, own_name),
                used,
                why,
                changes,
                detail=own_name,
                governs=Governs(pose_mm=0.0),
                remedy=remedy,
            )
        )
    return out


def _coil(s: Study, c: Coilover, sm: SpringMotion, changes: Changes) -> list[Check]:
    seat = coil_seat(c, sm, s.ride)
    if seat is None or sm.force is None:
        return [
            not_computed(rule, subject_of(s, "coil"), s.vehicle.weight_missing, changes)
            for rule in ("coil-block", "coil-seated")
        ]
    travel = s.motion.travel if s.motion else np.zeros(1)
    i, wide = int(np.nanargmin(seat.left_to_block)), int(np.nanargmax(sm.length))
    squeezed = seat.compressed - float(sm.length[wide] - sm.length[s.ride])
    return [
        judge(
            "coil-block",
            subject_of(s, "coil"),
            float(seat.left_to_block[i]),
            Why(
                formula="free - squeezed - shorter - block",
                values={
                    "free": c.free_mm,
                    "squeezed": seat.compressed,
                    "shorter": float(sm.length[s.ride] - sm.length[i]),
                    "block": c.block_mm,
                },
                words="squeezed at ride height by the corner's weight over motion ratio and rate; mm",
            ),
            changes,
            governs=Governs(pose_mm=float(travel[i])),
            remedy="A longer coil of the same rate, or a stiffer one.",
        ),
        judge(
            "coil-seated",
            in_droop(s, "coil"),
            squeezed,
            Why(
                formula="squeezed - longer",
                values={"squeezed": seat.compressed, "longer": float(sm.length[wide] - sm.length[s.ride])},
                words="squeeze at ride height less what the damper opens in droop; mm",
            ),
            changes,
            governs=Governs(pose_mm=float(travel[wide])),
            remedy="A softer coil that is squeezed further, a helper spring, or less droop.",
        ),
    ]


def _lean(s: Study, c: Coilover, changes: Changes) -> Check:
    hub = s.setting.hub if s.setting else (0.0, 0.0, 0.0)
    lean = tilt_deg(c.lower, c.upper, hub)
    return judge(
        "spring-lean",
        subject_of(s, "coil"),
        lean,
        Why(formula="lean", values={"lean": lean}, words="against upright, degrees; the same left and right"),
        changes,
        remedy="Stand it more upright, or move both mounts outward.",
    )


def _bellows(s: Study, a: AirSpring, sm: SpringMotion, changes: Changes) -> list[Check]:
    travel = s.motion.travel if s.motion else np.zeros(1)
    hub = s.setting.hub if s.setting else (0.0, 0.0, 0.0)
    low, up = on_axle(a.lower, hub), a.upper.xyz()
    offset, tilt = math.hypot(up[0] - low[0], up[1] - low[1]), tilt_deg(a.lower, a.upper, hub)
    shut, wide = int(np.nanargmin(sm.length)), int(np.nanargmax(sm.length))
    name = subject_of(s, "air")
    out = [
        judge(
            "air-least",
            name,
            float(sm.length[shut]) - a.least_mm,
            Why(formula="height - least", values={"height": float(sm.length[shut]), "least": a.least_mm}, words="mm"),
            changes,
            governs=Governs(pose_mm=float(travel[shut])),
            remedy="A shorter bellows, plates further apart, or a stop that strikes sooner.",
        ),
        judge(
            "air-most",
            name,
            a.most_mm - float(sm.length[wide]),
            Why(formula="most - height", values={"height": float(sm.length[wide]), "most": a.most_mm}, words="mm"),
            changes,
            governs=Governs(pose_mm=float(travel[wide])),
            remedy="A limit strap, or a taller bellows.",
        ),
        judge(
            "air-tilt",
            name,
            max(tilt, abs(a.plate_deg)),
            Why(
                formula="worse",
                values={"worse": max(tilt, abs(a.plate_deg)), "line": tilt, "plate": abs(a.plate_deg)},
                words="degrees: the line of its plates' middles against upright, or the lower plate against the upper one",
            ),
            changes,
            remedy="Tilt the lower plate so that it stands square at ride height, and bring the plates over each other.",
        ),
        judge(
            "air-offset",
            name,
            offset,
            Why(formula="offset", values={"offset": offset}, words="plates' middles in plan, mm"),
            changes,
            remedy="Move one plate over the other.",
        ),
    ]
    return [*out, *_pressure(s, a, sm, changes)]


def _pressure(s: Study, a: AirSpring, sm: SpringMotion, changes: Changes) -> list[Check]:
    """Its pressure at ride height, of the most it may have."""
    name = subject_of(s, "air")
    rules = ("air-pressure-least", "air-pressure-most")
    if sm.force is None:
        return [not_computed(rule, name, s.vehicle.weight_missing, changes) for rule in rules]
    bar = ride_pressure_bar(a, float(sm.force[s.ride]))
    why = Why(
        formula="100 * bar / most",
        values={"bar": bar, "most": a.most_bar},
        words="load on it over its effective area at ride height",
    )
    remedies = ("A smaller bellows.", "A larger bellows.")
    return [
        judge(rule, name, 100 * bar / a.most_bar, why, changes, remedy=remedy)
        for rule, remedy in zip(rules, remedies, strict=True)
    ]
