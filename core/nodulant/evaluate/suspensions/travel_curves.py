"""Figures of a suspension through travel, as curves."""

import numpy as np

from nodulant.axles.springs import AirSpring, Coilover, TorsionBar
from nodulant.evaluate.curve import Band, Curve, Figure, curves_of
from nodulant.evaluate.steering.steer_facts import straight_curves
from nodulant.steering.study import SteerStudy
from nodulant.suspension import motion as of
from nodulant.suspension.half_shaft import half_shaft_motion
from nodulant.suspension.motion import Motion
from nodulant.suspension.roll import roll_stiffness
from nodulant.suspension.study import Study


def curves(s: Study, m: Motion, q: SteerStudy | None) -> tuple[Curve, ...]:
    """Every figure that its inputs allow, one value a travel."""
    hub, live = of.hub_place(m), not m.layout.independent
    spin = of.spin_at_rest(s.suspension.camber_deg, s.suspension.toe_deg)
    rows: list[Figure] = []
    if live and s.suspension.axle == "rear":
        base = s.suspension.pinion_deg or 0.0
        rows.append(("pinion", "Pinion angle", "deg", base + of.pitch_deg(m), "nose up positive, to the rail datum"))
    rows += _torque_curves(s, m)
    x, z = of.instant_centre(m)
    rows.append(("ic-x", "Instant centre, station", "mm", x, "side view; nothing where the carrier does not turn"))
    rows.append(("ic-z", "Instant centre, above datum", "mm", z, "side view"))
    rows.append(("roll-centre", "Roll centre above ground", "mm", of.roll_centre(m, spin), "at the hubs' plane"))
    steer = of.roll_steer(m)
    if steer is not None:
        words = "deg of axle steer per deg of roll; positive understeers at the rear"
        rows.append(("roll-steer", "Roll steer", "deg/deg", steer, words))
    elif q is None or q.straight is None:
        rows.append(("camber", "Camber change", "deg", of.lean_deg(m), "top outward positive"))
        rows.append(("toe", "Toe change", "deg", -of.steer_deg(m), "toe-in positive, right wheel"))
    if q is not None:
        rows += straight_curves(q)
    base_change = hub[:, 0] - m.setting.hub[0]
    rows.append(("wheelbase", "Hub moves rearward", "mm", base_change, "from its place at ride height"))
    rows.append(("shift", "Hub moves to the right", "mm", hub[:, 1] - hub[s.ride, 1], "a track bar's arc"))
    rows += _spring_curves(s)
    stiff = roll_stiffness(m, s.springs, s.suspension.anti_roll)
    if stiff is not None:
        rows.append(("roll-stiffness", "Roll stiffness", "N m/deg", stiff, "springs and anti-roll bar of this axle"))
    if isinstance(s.suspension.springs, AirSpring):
        plate = s.suspension.springs.plate_deg + of.pitch_deg(m)
        rows.append(("air-plates", "Air spring's plates against each other", "deg", plate, "nose up positive"))
    if s.suspension.half_shaft is not None:
        h = half_shaft_motion(s.suspension.half_shaft, m)
        rows.append(
            ("half-shaft", "Half shaft, larger angle", "deg", np.maximum(h.inner_deg, h.outer_deg), "both joints")
        )
        rows.append(("plunge", "Half shaft gets longer by", "mm", h.length - h.length[s.ride], "joint to joint"))
    return curves_of(rows, m.there, s.ride, _allowed(s))


def _allowed(s: Study) -> dict[str, Band]:
    """Ends that the parts set: the damper's or the bellows' lengths, the half shaft's joints."""
    own, out = s.suspension, {}
    if isinstance(own.springs, Coilover):
        out["spring-length"] = Band(least=own.springs.closed_mm, most=own.springs.open_mm)
    if isinstance(own.springs, AirSpring):
        out["spring-length"] = Band(least=own.springs.least_mm, most=own.springs.most_mm)
    if own.half_shaft is not None:
        out["half-shaft"] = Band(most=own.half_shaft.joint_deg)
    return out


def _torque_curves(s: Study, m: Motion) -> list[Figure]:
    high, base = s.centre_above_ground_mm, s.vehicle.wheelbase_mm
    if high is None or base is None or high <= 0:
        return []
    sign, share = (1.0 if s.suspension.axle == "rear" else -1.0), s.suspension.brake_share
    spin = of.spin_at_rest(s.suspension.camber_deg, s.suspension.toe_deg)
    out = []
    current = base + (of.hub_place(m)[:, 0] - m.setting.hub[0]) * sign
    # the sprung mass stands lower over the ground as the wheel rises
    height = np.maximum(high - m.travel, 1.0)
    if s.suspension.driven:
        name = "Anti-squat" if s.suspension.axle == "rear" else "Anti-lift, driving"
        value = 100 * sign * of.torque_slope(m, braking=False) * current / height
        out.append(("anti-squat", name, "%", value, "all of the drive on this axle"))
    name = "Anti-lift, braking" if s.suspension.axle == "rear" else "Anti-dive"
    value = 100 * sign * share * of.torque_slope(m, braking=True, spin=spin) * current / height
    out.append(("anti-brake", name, "%", value, f"with {share:.0%} of the braking on this axle"))
    return out


def _spring_curves(s: Study) -> list[Figure]:
    sm = s.springs
    if sm is None:
        return []
    bar = isinstance(s.suspension.springs, TorsionBar)
    shortening = "way of the arm's ball joint" if bar else "spring's shortening"
    out = [] if bar else [("spring-length", "Spring, end to end", "mm", sm.length, "one side")]
    out.append(("motion-ratio", "Motion ratio", "x", sm.ratio, f"{shortening} per mm of wheel travel"))
    if sm.roll_ratio is not None:
        out.append(("roll-ratio", "Motion ratio in roll", "x", sm.roll_ratio, "springs inboard lose roll stiffness"))
    if sm.wheel_rate is not None and sm.frequency_hz is not None and sm.force is not None:
        out.append(("wheel-rate", "Wheel rate", "N/mm", sm.wheel_rate, "k MR^2 + F dMR/dz"))
        out.append(("frequency", "Ride frequency", "Hz", sm.frequency_hz, "this corner on its tyre held still"))
        out.append(("spring-force", "Spring's force", "N", sm.force, "at the arm's ball joint" if bar else "one side"))
    return out
