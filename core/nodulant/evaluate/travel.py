"""Suspensions of the design: their checks, and what the screen draws of them."""

import numpy as np

from nodulant.axles.points import on_axle
from nodulant.axles.springs import LeafPack
from nodulant.base.arrays import Columns, Rows, significant
from nodulant.base.memo import remembered
from nodulant.base.model import Frozen
from nodulant.checks.check import Check, order
from nodulant.checks.driveline_rules import driveline_checks
from nodulant.checks.link_rules import length_of, link_checks, worst_of
from nodulant.checks.rail_rules import Changes
from nodulant.checks.room_rules import half_shaft_checks, room_checks
from nodulant.checks.spring_rules import spring_checks
from nodulant.checks.travel_rules import travel_checks
from nodulant.clearance.link_to_rail import RailBox
from nodulant.driveline.driveline import Driveline
from nodulant.evaluate.draw import rail_seen
from nodulant.evaluate.frame_brackets import frame_brackets
from nodulant.evaluate.shaft import shaft_curves, shaft_grips, shaft_members, shaft_of
from nodulant.evaluate.travel_drawing import AxleTravel, Curve, Grip, LinkForce, Member, StandsAt, Turning
from nodulant.evaluate.travel_parts import curve, point
from nodulant.frame.model import planned_state, route_on
from nodulant.job.document import Inputs
from nodulant.linkage.mechanism import End
from nodulant.linkage.rotation import rotation_vector
from nodulant.parts.sides import LEFT_RIGHT, Side
from nodulant.survey.vehicle import Survey
from nodulant.suspension import motion as of
from nodulant.suspension.forces import NAMES
from nodulant.suspension.half_shaft import half_shaft_motion
from nodulant.suspension.motion import Motion
from nodulant.suspension.roll import roll_stiffness
from nodulant.suspension.spring_motion import both_ends
from nodulant.suspension.study import Study, study
from nodulant.suspension.tube import critical_n
from nodulant.targets.drop import add_up


class Moved(Frozen):
    """What a moved link changes: checks of the stage and the suspensions themselves."""

    checks: tuple[Check, ...]
    travel: tuple[AxleTravel, ...]


def moved(inputs: Inputs, *, level: bool) -> Moved:
    """Only the suspensions, for a hand that drags a point; the rails stay as they were."""
    studies = suspension_studies(inputs, add_up(inputs.design.targets).towards_rail_mm)
    return Moved(
        checks=tuple(order(suspension_checks(inputs, studies))), travel=axle_travels(inputs, studies, level=level)
    )


def suspension_studies(inputs: Inputs, towards_rail_mm: float) -> list[Study]:
    """Every suspension of the design, studied."""
    d = inputs.design
    return [study(inputs.survey, own, d.seats, towards_rail_mm, d.loads.grip) for own in d.suspensions]


def stock_travels(inputs: Inputs) -> tuple[AxleTravel, ...]:
    """What held the axles before, at the surveyed ride height, with its own seats."""
    return _stock_travels(inputs.survey, inputs.design.loads.grip)


@remembered(4)
def _stock_travels(survey: Survey, grip: float) -> tuple[AxleTravel, ...]:
    studies = [study(survey, own, survey.seats, 0.0, grip) for own in survey.suspensions]
    return tuple(_axle_travel(index, s, None, True) for index, s in enumerate(studies))


def suspension_checks(inputs: Inputs, studies: list[Study]) -> list[Check]:
    """Checks of all of them and of the shaft, with pointers to their place in the design."""
    limits, out = inputs.design.limits, []
    boxes: dict[Side, RailBox] = {side: _box(inputs, side) for side in LEFT_RIGHT} if studies else {}
    for index, s in enumerate(studies):
        own = [*_by_itself(s, limits), *room_checks(s, boxes, limits)]
        at, to = f"/design/suspensions/{s.suspension.axle}", f"/design/suspensions/{index}"
        out += [
            c.model_copy(update={"missing": tuple(p.replace(at, to, 1) for p in c.missing)}) if c.missing else c
            for c in own
        ]
    if inputs.design.driveline is not None:
        rear = _rear(studies)
        out += driveline_checks(inputs.design.driveline, rear, shaft_of(inputs.design.driveline, rear), limits)
    return out


@remembered(8)
def _by_itself(s: Study, limits: Changes) -> tuple[Check, ...]:
    """Checks that need nothing but the study."""
    own = travel_checks(s, limits) + spring_checks(s, limits) + link_checks(s, limits)
    return (*own, *half_shaft_checks(s, limits))


def _box(inputs: Inputs, side: Side) -> RailBox:
    """The planned rail of one side as a box along its stations, cuts not taken off."""
    route = route_on(inputs.survey, inputs.design.operations, side, planned_state(inputs.design.operations))
    seen = rail_seen(inputs, side, route)
    return RailBox(seen.x, seen.low, seen.high, seen.tip, seen.web)


def _rear(studies: list[Study]) -> Study | None:
    return next((s for s in studies if s.suspension.axle == "rear"), None)


def axle_travels(inputs: Inputs, studies: list[Study], *, level: bool = False) -> tuple[AxleTravel, ...]:
    """Drawings and curves of all of them, the shaft with the rear axle; ``level`` leaves the poses in roll out."""
    rear = _rear(studies)
    drawn = [_axle_travel(i, s, inputs.design.driveline if s is rear else None, level) for i, s in enumerate(studies)]
    return tuple(
        own.model_copy(update={"brackets": frame_brackets(inputs, s)}) for own, s in zip(drawn, studies, strict=True)
    )


@remembered(8)
def _axle_travel(index: int, s: Study, driveline: Driveline | None, level: bool) -> AxleTravel:
    own, m = s.suspension, s.motion
    head = {
        "axle": own.axle,
        "index": index,
        "name": own.name,
        "layout": own.layout.kind,
        "trouble": _trouble(s),
        "trouble_at": s.trouble.field if s.trouble else (s.missing[0] if s.missing else ""),
        "hub": list(s.setting.hub) if s.setting else None,
        "half_track_mm": s.setting.half_track_mm if s.setting else None,
        "radius_mm": s.setting.radius_mm if s.setting else None,
        "independent": own.layout.independent,
        "grips": _grips(s, index, driveline),
    }
    if m is None:
        none: list[float] = []
        rest = {"travel_mm": none, "there": [], "rolls_deg": none, "ends": (), "poses": [], "cranks": ()}
        return AxleTravel(**head, **rest, members=_members_at_rest(s), curves=(), forces=())
    return AxleTravel(
        **head,
        travel_mm=significant(m.travel),
        there=m.there.tolist(),
        rolls_deg=significant(np.degrees(m.sweep.roll[_shown(m, level)])),
        ends=m.sweep.ends,
        poses=_poses(m, level),
        cranks=_cranks(m, level),
        members=_members(s, m) + shaft_members(driveline, s),
        curves=_curves(s, m) + shaft_curves(s, m, shaft_of(driveline, s)),
        forces=_forces(s),
        stands=tuple(StandsAt(state=w.state, load_n=w.load_n, travel_mm=w.travel_mm) for w in s.stands),
    )


def _trouble(s: Study) -> str:
    if s.trouble is not None:
        return s.trouble.message
    return "a reading of the survey is missing" if s.missing else ""


def _shown(m: Motion, level: bool) -> Rows:
    """Columns of roll that the drawing gets: level alone, or all but one degree, since it interpolates."""
    if level:
        return np.array([m.middle])
    every = np.arange(len(m.sweep.roll))
    return every if len(every) < 5 else every[np.abs(np.abs(np.degrees(m.sweep.roll)) - 1.0) > 1e-6]


def _in_view(m: Motion, values: Columns, level: bool) -> Columns:
    """Rows (travels x rolls, ..) at the shown rolls, the reference where the linkage does not exist."""
    grid = values.reshape(len(m.travel), len(m.sweep.roll), -1)[:, _shown(m, level)]
    return grid.reshape(-1, grid.shape[-1])


def _poses(m: Motion, level: bool) -> list[list[float]]:
    pose, there = m.sweep.solved.pose, m.sweep.there.reshape(-1)
    rows = np.concatenate([pose.origin, rotation_vector(pose.rotation)], axis=1)
    rest = np.array([*m.setting.hub, 0.0, 0.0, 0.0])
    rounded: list[list[float]] = np.round(_in_view(m, np.where(there[:, None], rows, rest), level), 5).tolist()
    return rounded


def _cranks(m: Motion, level: bool) -> tuple[Turning, ...]:
    there = m.sweep.there.reshape(-1)
    return tuple(
        Turning(
            parent=piece.parent,
            point=list(piece.point),
            axis=list(piece.axis),
            angle=np.round(
                _in_view(m, np.where(there, m.sweep.solved.pose.turned[:, k], 0.0), level)[:, 0], 6
            ).tolist(),
        )
        for k, piece in enumerate(m.sweep.compiled.mechanism.pieces)
    )


def _members(s: Study, m: Motion) -> tuple[Member, ...]:
    links = {n.name: n for n in s.suspension.layout.links()}
    out = []
    for rod in m.sweep.compiled.mechanism.rods:
        named = links.get(rod.name)
        out.append(
            Member(
                name=rod.name,
                kind="link" if named else "rod",
                path=named.path if named else "",
                a=point(rod.a),
                b=point(rod.b),
                diameter_mm=named.link.tube.od_mm if named else 24.0,
            )
        )
    out += _cranks_drawn(m)
    springs = s.suspension.springs
    if springs is not None and not isinstance(springs, LeafPack):
        width = springs.body_mm if springs.kind == "coilover" else springs.diameter_mm
        for side, (low, up) in zip(("right", "left"), both_ends(springs, m), strict=False):
            ends = {"a": point(End(0, low)), "b": point(End(-1, up))}
            out.append(Member(name=f"spring, {side}", kind="spring", path="springs", **ends, diameter_mm=width))
    return tuple(out)


def _cranks_drawn(m: Motion) -> list[Member]:
    """Every crank between the first and the last rod that ends on it."""
    out = []
    for k, piece in enumerate(m.sweep.compiled.mechanism.pieces, start=1):
        ends = [end for rod in m.sweep.compiled.mechanism.rods for end in (rod.a, rod.b) if end.body == k]
        if len(ends) > 1:
            out.append(
                Member(name=piece.name, kind="crank", path="", a=point(ends[0]), b=point(ends[-1]), diameter_mm=40.0)
            )
    return out


def _members_at_rest(s: Study) -> tuple[Member, ...]:
    """Links where they were put, though the linkage does not move."""
    if s.setting is None:
        return ()
    return tuple(
        Member(
            name=n.name,
            kind="link",
            path=n.path,
            a=point(End(0, on_axle(n.link.axle, s.setting.hub))),
            b=point(End(-1, n.link.frame.xyz())),
            diameter_mm=n.link.tube.od_mm,
        )
        for n in s.suspension.layout.links()
    )


def _grips(s: Study, index: int, driveline: Driveline | None) -> tuple[Grip, ...]:
    """Every hard point once, of a pair the right one, by its path in the design."""
    if s.setting is None:
        return ()
    hub = s.setting.hub
    rows: dict[str, tuple[str, End]] = {}
    for n in s.suspension.layout.links():
        rows.setdefault(f"layout.{n.path}.axle", (n.name, End(0, on_axle(n.link.axle, hub))))
        rows.setdefault(f"layout.{n.path}.frame", (n.name, End(-1, n.link.frame.xyz())))
    for path, (where, own_point) in s.suspension.layout.points().items():
        end = End(-1, own_point.xyz()) if where == "frame" else End(0, on_axle(own_point, hub))
        rows[f"layout.{path}"] = (path.replace("_", " ").replace(".", " "), end)
    springs = s.suspension.springs
    if springs is not None and not isinstance(springs, LeafPack):
        rows["springs.lower"] = ("spring, axle end", End(0, on_axle(springs.lower, hub)))
        rows["springs.upper"] = ("spring, frame end", End(-1, springs.upper.xyz()))
    own = {f"suspensions.{index}.{path}": row for path, row in rows.items()} | shaft_grips(driveline, hub)
    return tuple(Grip(path=path, name=name, at=point(end)) for path, (name, end) in own.items())


def _curves(s: Study, m: Motion) -> tuple[Curve, ...]:
    hub, live = of.hub_place(m), not m.layout.independent
    rows: list[tuple[str, str, str, Columns, str]] = []
    if live and s.suspension.axle == "rear":
        base = s.suspension.pinion_deg or 0.0
        rows.append(("pinion", "Pinion angle", "deg", base + of.pitch_deg(m), "nose up positive, to the rail datum"))
    rows += _torque_curves(s, m)
    x, z = of.instant_centre(m)
    rows.append(("ic-x", "Instant centre, station", "mm", x, "side view; nothing where the carrier does not turn"))
    rows.append(("ic-z", "Instant centre, above datum", "mm", z, "side view"))
    rows.append(("roll-centre", "Roll centre above ground", "mm", of.roll_centre(m), "at the hubs' plane"))
    steer = of.roll_steer(m)
    if steer is not None:
        words = "deg of axle steer per deg of roll; positive understeers at the rear"
        rows.append(("roll-steer", "Roll steer", "deg/deg", steer, words))
    else:
        rows.append(("camber", "Camber change", "deg", of.lean_deg(m), "top outward positive"))
        rows.append(("toe", "Toe change", "deg", -of.steer_deg(m), "toe-in positive, right wheel"))
    base_change = hub[:, 0] - m.setting.hub[0]
    rows.append(("wheelbase", "Hub moves rearward", "mm", base_change, "from its place at ride height"))
    rows.append(("shift", "Hub moves to the right", "mm", hub[:, 1] - hub[s.ride, 1], "a track bar's arc"))
    rows += _spring_curves(s)
    stiff = roll_stiffness(m, s.springs, s.suspension.anti_roll)
    if stiff is not None:
        rows.append(("roll-stiffness", "Roll stiffness", "N m/deg", stiff, "springs and anti-roll bar of this axle"))
    if s.suspension.half_shaft is not None:
        h = half_shaft_motion(s.suspension.half_shaft, m)
        rows.append(
            ("half-shaft", "Half shaft, larger angle", "deg", np.maximum(h.inner_deg, h.outer_deg), "both joints")
        )
        rows.append(("plunge", "Half shaft gets longer by", "mm", h.length - h.length[s.ride], "joint to joint"))
    return tuple(curve(m, s.ride, *row) for row in rows)


def _torque_curves(s: Study, m: Motion) -> list[tuple[str, str, str, Columns, str]]:
    high, base = s.centre_above_ground_mm, s.vehicle.wheelbase_mm
    if high is None or base is None or high <= 0:
        return []
    sign, share = (1.0 if s.suspension.axle == "rear" else -1.0), s.suspension.brake_share
    out = []
    current = base + (of.hub_place(m)[:, 0] - m.setting.hub[0]) * sign
    # the sprung mass stands lower over the ground as the wheel rises
    height = np.maximum(high - m.travel, 1.0)
    if s.suspension.driven:
        name = "Anti-squat" if s.suspension.axle == "rear" else "Anti-lift, driving"
        value = 100 * sign * of.torque_slope(m, braking=False) * current / height
        out.append(("anti-squat", name, "%", value, "all of the drive on this axle"))
    name = "Anti-lift, braking" if s.suspension.axle == "rear" else "Anti-dive"
    value = 100 * sign * share * of.torque_slope(m, braking=True) * current / height
    out.append(("anti-brake", name, "%", value, f"with {share:.0%} of the braking on this axle"))
    return out


def _spring_curves(s: Study) -> list[tuple[str, str, str, Columns, str]]:
    sm = s.springs
    if sm is None:
        return []
    out = [
        ("spring-length", "Spring, end to end", "mm", sm.length, "one side"),
        ("motion-ratio", "Motion ratio", "x", sm.ratio, "spring's shortening per mm of wheel travel"),
    ]
    if sm.roll_ratio is not None:
        out.append(("roll-ratio", "Motion ratio in roll", "x", sm.roll_ratio, "springs inboard lose roll stiffness"))
    if sm.wheel_rate is not None and sm.frequency_hz is not None and sm.force is not None:
        out.append(("wheel-rate", "Wheel rate", "N/mm", sm.wheel_rate, "k MR^2 + F dMR/dz"))
        out.append(("frequency", "Ride frequency", "Hz", sm.frequency_hz, "this corner on its tyre held still"))
        out.append(("spring-force", "Spring's force", "N", sm.force, "one side"))
    return out


def _forces(s: Study) -> tuple[LinkForce, ...]:
    if not s.forces or s.motion is None:
        return ()
    names, out = s.motion.sweep.compiled.mechanism.names, []
    for named in s.suspension.layout.links():
        row, length = names.index(named.name), length_of(s, named)
        out.append(
            LinkForce(
                name=named.name,
                length_mm=length,
                cases={NAMES[case]: float(f.tension[row]) for case, f in s.forces.items()},
                buckles_n=critical_n(named.link.tube, length),
                worst=NAMES[worst_of(s, named.name)["most"][0]],
            )
        )
    return tuple(out)
