"""Figures of a suspension that do not change through travel."""

import math

import numpy as np

from nodulant.axles.layouts.live import TriangulatedFourLink
from nodulant.axles.leaf_work import leaf_change
from nodulant.axles.springs import Coilover, Damper, LeafPack, TorsionBar
from nodulant.base.arrays import Columns
from nodulant.checks.travel_rules import BIND_DEG
from nodulant.evaluate.suspensions.travel_drawing import Fact
from nodulant.linkage.sweep import stretches
from nodulant.suspension import motion as of
from nodulant.suspension.feet import Twisted, foot_of, moves
from nodulant.suspension.side_stiffness import side_stiffness, usual_stiffness
from nodulant.suspension.spring_motion import strung
from nodulant.suspension.study import Study
from nodulant.units.inline import as_amount, as_length, as_thickness

ROLL_DEG, NEARLY, LEAST_GIVE_MM = 3.0, 1e-6, 0.005


def facts(s: Study) -> tuple[Fact, ...]:
    """Side stiffness, what leaves were made to do, the spacing of dampers."""
    return (*_sideways(s), *_bars_in_roll(s), *_struck(s), *_leaves(s), *_bars(s), *_spacing(s), *_pair_in_roll(s))


def _bars_in_roll(s: Study) -> list[Fact]:
    """What each bar of a layout with one bar too many has to give in roll at ride height, and what it then carries."""
    m = s.motion
    if m is None or m.sweep.compiled.held + len(m.sweep.compiled.drives) <= m.sweep.compiled.mechanism.freedoms:
        return []
    c = m.sweep.compiled
    give = np.abs(stretches(m.sweep)).reshape(len(m.travel), len(m.sweep.roll), -1)[s.ride]
    degrees = np.abs(np.degrees(m.sweep.roll))
    most = {d: give[np.abs(degrees - d) < NEARLY].max(axis=0) for d in BIND_DEG if (np.abs(degrees - d) < NEARLY).any()}
    out = []
    for k, name in enumerate(c.mechanism.names):
        values = {d: float(rows[k]) for d, rows in most.items()}
        if max(values.values(), default=0.0) < LEAST_GIVE_MM:
            continue
        words = "; ".join(
            f"{d:.0f}°: {as_length(v)}, {as_amount('force', v * float(c.stiffness[k]))}" for d, v in values.items()
        )
        at = values.get(ROLL_DEG, max(values.values()))
        out.append(Fact(name=f"In {ROLL_DEG:.0f}° of roll gives, {name}", value=at, unit="mm", words=words))
    return out


def _pair_in_roll(s: Study) -> list[Fact]:
    """What both single wheels do as the body rolls by 3 degrees: the one goes up as the other goes down."""
    m = s.motion
    if m is None or not s.suspension.layout.independent:
        return []
    rise = m.setting.half_track_mm * math.tan(math.radians(ROLL_DEG))
    there = m.travel[m.there]
    if not there[0] <= -rise or not rise <= there[-1]:
        return []

    def at(values: Columns, travel: float) -> float:
        return float(np.interp(travel, there, values[m.there]))

    lean, toe = of.lean_deg(m), -of.steer_deg(m)
    out = []
    for name, travel, sign in (("loaded", rise, 1.0), ("other", -rise, -1.0)):
        words = (
            f"{as_length(abs(travel))} of {'bump' if travel > 0 else 'droop'}, toe changes by {at(toe, travel):.2f} deg"
        )
        # the body's own roll leans the loaded wheel outward and the other one inward
        camber = s.suspension.camber_deg + at(lean, travel) + sign * ROLL_DEG
        out.append(
            Fact(
                name=f"Camber to the road at {ROLL_DEG:.0f}° of roll, {name} wheel",
                value=camber,
                unit="deg",
                words=words,
            )
        )
    return out


def _sideways(s: Study) -> list[Fact]:
    if s.motion is None or s.setting is None or s.suspension.layout.independent:
        return []
    own, layout = side_stiffness(s.motion), s.suspension.layout
    if own is None or layout.kind == "leaf":
        return []
    words = "links, tubes and bushes at the hubs, at ride height; brackets and rails taken as rigid"
    out = [Fact(name="Side stiffness of the links", value=own, unit="N/mm", words=words)]
    usual = usual_stiffness(layout, s.setting) if isinstance(layout, TriangulatedFourLink) else None
    if usual:
        out.append(
            Fact(
                name="Of what upper links at 20° each would give",
                value=own / usual,
                unit="x",
                words="below 1: stiffness lost to links that run too near to fore and aft",
            )
        )
    return out


def _struck(s: Study) -> list[Fact]:
    """How far the axle or arm has turned where its stop is struck: the pads are to be square there."""
    m, stop = s.motion, s.suspension.stop
    if m is None or stop is None:
        return []
    if s.strike is not None:
        words = f"gives {as_thickness(stop.gives_mm)} at the wheel to 3 g"
        if s.strike.gap_mm < 0:
            words = "it is struck before ride height: it is too tall, or too low"
        return [Fact(name="Bump stop strikes after", value=s.strike.gap_mm, unit="mm", words=words)]
    there = m.travel[m.there]
    if stop.gap_mm > there[-1]:
        return []
    pitch, lean = (float(np.interp(stop.gap_mm, there, v[m.there])) for v in (of.pitch_deg(m), of.lean_deg(m)))
    words = f"pitch {pitch:.1f}, lean {lean:.1f}; set the pads square to each other there, not at ride height"
    turned = math.hypot(pitch, lean)
    return [Fact(name="Where the stop strikes, it has turned by", value=turned, unit="deg", words=words)]


def _leaves(s: Study) -> list[Fact]:
    pack = s.suspension.springs
    if not isinstance(pack, LeafPack) or not (pack.flipped or pack.removed or pack.block_mm):
        return []
    if s.vehicle.tube_mm is None or s.vehicle.axle_n is None:
        return []
    change = leaf_change(pack, s.vehicle.tube_mm, s.vehicle.axle_n / 2)
    parts = f"flip {change.flip_mm:.1f}, block {change.block_mm:.1f}, leaves {as_length(change.removed_mm)}"
    return [
        Fact(
            name="Work on the leaves lowers the axle's end by",
            value=change.lowers_mm,
            unit="mm",
            words=f"{parts}; enter it in the drop stack",
        ),
        Fact(name="Rate that is left", value=change.rate_n_per_mm, unit="N/mm", words="of one spring"),
        Fact(
            name="Stress in the leaves that stay", value=change.stress, unit="x before", words="n/(n - k), equal leaves"
        ),
    ]


def _bars(s: Study) -> list[Fact]:
    """How far a torsion bar is twisted, how hard it is worked, and what a turn of its key does."""
    bar, sm, m = s.suspension.springs, s.springs, s.motion
    if not isinstance(bar, TorsionBar) or sm is None or sm.force is None or m is None:
        return []
    own = strung(bar, m)
    if not isinstance(own, Twisted):
        return []
    torque = sm.force * own.reach_mm
    ride, full = float(torque[s.ride]), float(torque[m.there][-1])
    return [
        Fact(
            name="Torsion bar is twisted at ride height by",
            value=math.degrees(ride / bar.twist_rate),
            unit="deg",
            words="its key stands that far from where it hangs free",
        ),
        Fact(name="Reach of the arm that twists it", value=own.reach_mm, unit="mm", words="hinge to ball joint"),
        Fact(
            name="Wheel's way for one degree of its key",
            value=math.radians(own.reach_mm) / float(sm.ratio[s.ride]),
            unit="mm",
            words="the rate of the bar stays, the arms stand at another angle: enter the drop in the stack",
        ),
        Fact(
            name="Shear in the torsion bar at full bump",
            value=bar.shear_mpa(full),
            unit="MPa",
            words=f"16 T / (pi d3); {bar.shear_mpa(ride):.0f} at ride height; hold it against what the bar's maker gives",
        ),
    ]


def _plane(s: Study, own: Coilover | Damper) -> list[Fact]:
    """How far a damper leans fore or aft of the way its lower eye goes: within 1 degree its eyes do not twist (common practice)."""
    m = s.motion
    if m is None or s.setting is None:
        return []
    foot = foot_of(own.lower, own.on, m)
    a, b, v = np.array(foot.at), np.array(own.upper.xyz()), moves(foot, m)[s.ride]
    lean = math.degrees(math.atan2(b[0] - a[0], b[2] - a[2]) - math.atan2(v[0], v[2]))
    words = "side view, at ride height; within 1 degree eyes and bushes do not twist (common practice)"
    return [Fact(name="Damper leans out of the plane of the axle's motion by", value=lean, unit="deg", words=words)]


def _spacing(s: Study) -> list[Fact]:
    """From one damper to the other at the frame: a good thing to measure when it is built."""
    springs, damper = s.suspension.springs, s.suspension.damper
    own = springs if isinstance(springs, Coilover) else damper
    if own is None:
        return []
    return [
        *_plane(s, own),
        Fact(
            name="Upper mounts, left to right",
            value=2 * abs(own.upper.y_mm),
            unit="mm",
            words="middle to middle at the frame: measure it as built, both sides from the centre line",
        ),
    ]
