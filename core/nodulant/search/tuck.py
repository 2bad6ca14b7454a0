"""How far the wheels have to go in, and by what: the least that clears wings and arches over the whole travel and lock.

Three ways for the same tuck. A wheel of more offset moves the tyre on its hub: the king pin stays
and the scrub radius with it moves in. Shorter arms move the upright: pivots and rack stay, toe
links shorten in step, curves change. A narrower frame moves everything in: the geometry stays to
the bit, and mounts, rack and engine room get narrower. Each way is solved for itself, since a
wheel turns about another line in each.
"""

from collections.abc import Callable
from typing import Annotated, Literal, NamedTuple

import numpy as np
from pydantic import Field

from nodulant.axles.layouts.independent import Steered
from nodulant.axles.points import HardPoint
from nodulant.axles.steering import CentreLink
from nodulant.axles.suspension import Suspension
from nodulant.base.errors import NodulantError, NotSolvable
from nodulant.base.model import Frozen
from nodulant.clearance.axle_bodies import axle_movers
from nodulant.clearance.moving import Mover, TyreBody
from nodulant.clearance.pair import Far, least
from nodulant.clearance.shapes import Standing
from nodulant.clearance.sweep import pairs_of
from nodulant.parts.wheel import Wheel
from nodulant.steering.study import bump_steer, lock, steer_study
from nodulant.survey.checklist import reading_missing
from nodulant.survey.vehicle import Seat, Survey
from nodulant.suspension import motion as of
from nodulant.suspension.study import LEVEL, Look, study, track_of, tyre_on_wheel, wheel_of

TuckWay = Literal["offset", "arms", "narrow"]
WORDS: dict[TuckWay, str] = {
    "offset": "hubs, arms and steering stay; the tyre comes nearer to what is inside it, and the scrub radius follows",
    "arms": "pivots and rack stay, toe links shorten in step; less room at ball joint and spring",
    "narrow": "the geometry stays as it is; rack, mounts and engine room get narrower, and the rails by as much in the Cut stage",
}
MARCHES, MOST_TRIES, FINE_MM = 4, 24, 0.05
WIDEST_MM = 100.0
"""The widest clearance that is tucked for."""
SEEN = Look(LEVEL.steps, LEVEL.rolls_deg, loaded=False, inputs=21)


class TuckWish(Frozen):
    """The most that a wheel may go in, and the clearance of the tyre to its wing, mm."""

    most_mm: Annotated[float, Field(ge=1, le=200)] = 80.0
    gap_mm: Annotated[float, Field(ge=0, le=WIDEST_MM)] = 10.0
    same_mm: Annotated[float, Field(ge=0, le=200)] | None = None
    """Every way by this much, to be compared; each solved for its own least where left out."""


class Tucked(Frozen):
    """One way: how far each wheel goes in, mm; ``clears`` False where even the most does not do, then figures are of the most."""

    way: TuckWay
    words: str
    tuck_mm: float
    clears: bool
    wing_gap_mm: float | None
    """Least of the tyres to wings and arches, over travel and lock; None where they stay far away."""
    inner_gap_mm: float | None
    """Least of the tyres to everything else."""
    inner_thing: str
    track_mm: float
    scrub_mm: float | None
    camber_deg: float | None
    """Camber change from ride height to full bump, degrees."""
    toe_deg: float | None
    """Span of toe over the whole travel."""
    lock_deg: float | None
    """Inner wheel at full lock, the smaller of both."""
    suspension: Suspension


class FoundTuck(Frozen):
    """What it is now, and each way with the least that clears; the wings that were looked at."""

    now: Tucked
    ways: tuple[Tucked, ...]
    wings: tuple[str, ...]


class AskedTuck(NamedTuple):
    """What is searched on: things that stand, wings among them."""

    survey: Survey
    suspension: Suspension
    seats: tuple[Seat, ...]
    towards_rail_mm: float
    things: tuple[Standing, ...]
    wish: TuckWish


def find_tuck(asked: AskedTuck) -> FoundTuck:
    """Solve every way that fits the layout, or compare them at one tuck; raises NotSolvable without a wing, a tyre or an axle that moves."""
    wings = tuple(t for t in asked.things if t.kind == "wing")
    if not wings:
        raise NotSolvable(
            "nothing to clear: no wing was placed and no wheel arch surveyed",
            field="/survey/front/arch",
            found="nothing",
            acceptable="a surveyed arch, or a thing of the kind wing",
        )
    ways: tuple[TuckWay, ...] = (
        ("offset", "arms", "narrow") if isinstance(asked.suspension.layout, Steered) else ("offset",)
    )
    now = _Tried(asked, "offset", 0.0)
    same, wanted = asked.wish.same_mm, asked.wish.gap_mm
    if same is None:
        found = tuple(_least(asked, way, now.wing_gap) for way in ways)
    else:
        tried = [_Tried(asked, way, same) for way in ways]
        found = tuple(_told(t, clears=t.wing_gap >= wanted) for t in tried)
    return FoundTuck(
        now=_told(now, clears=now.wing_gap >= asked.wish.gap_mm),
        ways=tuple(sorted(found, key=lambda t: (not t.clears, t.tuck_mm))),
        wings=tuple(w.name for w in wings),
    )


class _Tried:
    """One way by one amount, moved through travel and lock."""

    def __init__(self, asked: AskedTuck, way: TuckWay, by_mm: float) -> None:
        self.asked, self.way, self.by_mm = asked, way, by_mm
        self.own = tucked(asked.suspension, asked.survey, way, by_mm)
        self.study = study(asked.survey, self.own, asked.seats, asked.towards_rail_mm, 0.8, SEEN)
        if self.study.motion is None:
            raise self.study.trouble or NotSolvable(
                reading_missing(self.study.missing),
                field=self.study.missing[0],
                found="nothing",
                acceptable="a reading",
            )
        tyre = tyre_on_wheel(self.own, asked.survey)
        if tyre is None:
            raise NotSolvable("the tyre is not known", field="tyre", found="nothing", acceptable="a size string")
        self.movers = axle_movers(self.study, tyre, None)
        self.tyres = tuple(m for m in self.movers if m.kind == "tyre")
        self.alike = _alike(self.tyres)
        self.wing_gap = self._gap(lambda t: t.kind == "wing")[0]

    def _gap(self, which: Callable[[Standing], bool]) -> tuple[float, str]:
        things = tuple(t for t in self.asked.things if which(t))
        rows = [(m, t) for t in things for m in (self.tyres[:1] if self.alike and _mirrored(t) else self.tyres)]
        return min(((self._least(m, t), t.name) for m, t in rows), default=NOWHERE)

    def _least(self, mover: Mover, other: Standing | Mover) -> float:
        found = least(mover, other, self.asked.wish.gap_mm)
        return float(np.inf) if found is None or isinstance(found, Far) else found.gap_mm

    def inner(self) -> tuple[float, str]:
        """Least of the tyres to what is no wing: things, rails, and what moves with them."""
        stands = self._gap(lambda t: t.kind not in {"wing", "rail"})
        # a narrower frame takes its rails along: they stay as far from the tyre as they are
        beside = _Tried(self.asked, self.way, 0.0) if self.way == "narrow" and self.by_mm else self
        rails = beside._gap(lambda t: t.kind == "rail")
        moving = [
            (self._least(p.mover, p.other), (p.other if p.mover.kind == "tyre" else p.mover).name)
            for p in pairs_of(self.movers, ())
            if isinstance(p.other, Mover) and "tyre" in {p.mover.kind, p.other.kind}
        ]
        nearest = min([stands, rails, *moving])
        return nearest if np.isfinite(nearest[0]) else NOWHERE


NOWHERE = (float(np.inf), "")
"""No thing comes near."""
MIRROR = np.array([1.0, -1.0, 1.0])


def _alike(tyres: tuple[Mover, ...]) -> bool:
    """Whether the left tyre does what the right one does at the opposite lock and roll."""
    bodies = [m.body for m in tyres if isinstance(m.body, TyreBody)]
    if len(bodies) != 2:
        return False
    pairs = ((bodies[0].centre, bodies[1].centre), (bodies[0].spin, bodies[1].spin))
    return all(np.allclose(one, two[:, ::-1, ::-1] * MIRROR, atol=1e-6) for one, two in pairs)


def _mirrored(thing: Standing) -> bool:
    """Whether a thing stands alike on both sides, as far as the boxes round its bodies say."""
    boxes = thing.pack.boxes
    rows = np.round(np.concatenate([boxes.low, boxes.high], axis=1), 3) + 0.0
    flipped = (
        np.round(np.concatenate([boxes.low * MIRROR, boxes.high * MIRROR], axis=1), 3)[:, [0, 4, 2, 3, 1, 5]] + 0.0
    )
    return bool(np.array_equal(rows[np.lexsort(rows.T)], flipped[np.lexsort(flipped.T)]))


def _least(asked: AskedTuck, way: TuckWay, gap_now: float) -> Tucked:
    """March in until it clears, then close in on where it just does."""
    wanted, most = asked.wish.gap_mm, asked.wish.most_mm
    if gap_now >= wanted:
        return _told(_Tried(asked, way, 0.0), clears=True)
    low, high = (0.0, gap_now - wanted), None
    last = None
    for at in np.linspace(0.0, most, MARCHES + 1)[1:]:
        try:
            last = _Tried(asked, way, float(at))
        except NodulantError:
            break
        if last.wing_gap >= wanted:
            high = last
            break
        low = (last.by_mm, last.wing_gap - wanted)
    if high is None:
        return _told(last or _Tried(asked, way, 0.0), clears=False)
    return _told(_closed_in(asked, way, low, high), clears=True)


def _closed_in(asked: AskedTuck, way: TuckWay, low: tuple[float, float], high: "_Tried") -> "_Tried":
    """Regula falsi with the Illinois halving (textbook), until it clears by next to nothing."""
    wanted, weight = asked.wish.gap_mm, 1.0
    (at, below), above = low, min(high.wing_gap - wanted, asked.wish.most_mm)
    for _ in range(MOST_TRIES):
        if high.wing_gap - wanted < FINE_MM or high.by_mm - at < FINE_MM:
            break
        share = min(max(-below / (above - below), 0.02), 0.98)
        tried = _Tried(asked, way, at + share * (high.by_mm - at))
        if tried.wing_gap >= wanted:
            high, above, below = tried, min(tried.wing_gap - wanted, asked.wish.most_mm), below * weight
        else:
            at, below, above = tried.by_mm, tried.wing_gap - wanted, above * weight
        weight = 0.5
    return high


def tucked(own: Suspension, survey: Survey, way: TuckWay, by_mm: float) -> Suspension:
    """A suspension with its wheels ``by_mm`` further in, each."""
    axle = survey.front if own.axle == "front" else survey.rear
    track = track_of(own, axle)
    if track is None:
        raise NotSolvable(
            "the track is not known", field=f"/survey/{own.axle}/track_mm", found="nothing", acceptable="a measurement"
        )
    update: dict[str, object] = {"track_mm": track - 2 * by_mm}
    if way == "offset":
        wheel: Wheel | None = wheel_of(own, survey)
        if wheel is not None and by_mm:
            update["wheel"] = wheel.moved_in(by_mm)
        return own.model_copy(update=update)
    if not isinstance(own.layout, Steered):
        raise NotSolvable(
            "only wishbones and struts are narrowed", field="layout/kind", found=own.layout.kind, acceptable="wishbones"
        )
    on_frame = way == "narrow"
    points = {
        path: _in(point, by_mm) for path, (where, point) in own.layout.points().items() if where == "axle" or on_frame
    }
    toe = own.layout.toe
    ends = {"axle": _in(toe.axle, by_mm)} | ({"frame": _in(toe.frame, by_mm)} if on_frame else {})
    update["layout"] = own.layout.model_copy(update={**points, "toe": toe.model_copy(update=ends)})
    return _sprung(
        _geared(own.model_copy(update=update), by_mm) if on_frame else own.model_copy(update=update), way, by_mm
    )


def _geared(own: Suspension, by_mm: float) -> Suspension:
    """Box and idler of a centre link go in with the rails that they are bolted to."""
    if own.steering is None or not isinstance(own.steering.gear, CentreLink):
        return own
    gear = own.steering.gear
    box = gear.box.model_copy(update={"shaft": _in(gear.box.shaft, by_mm), "arm_end": _in(gear.box.arm_end, by_mm)})
    moved: dict[str, object] = {"box": box}
    for name in ("idler", "idler_end"):
        point = getattr(gear, name)
        if point is not None:
            moved[name] = _in(point, by_mm)
    return own.model_copy(update={"steering": own.steering.model_copy(update={"gear": gear.model_copy(update=moved)})})


def _sprung(own: Suspension, way: TuckWay, by_mm: float) -> Suspension:
    """Springs and dampers: lower ends go with what they stand on, upper ones with the frame."""
    update: dict[str, object] = {}
    for name in ("springs", "damper"):
        part = getattr(own, name)
        if part is None or not hasattr(part, "lower"):
            continue
        ends: dict[str, HardPoint] = {}
        if way == "narrow" or part.on == "upright":
            ends["lower"] = _in(part.lower, by_mm)
        if way == "narrow":
            ends["upper"] = _in(part.upper, by_mm)
        update[name] = part.model_copy(update=ends)
    return own.model_copy(update=update)


def _in(p: HardPoint, by_mm: float) -> HardPoint:
    """Towards the centre plane, and not past it."""
    return p.model_copy(update={"y_mm": float(np.sign(p.y_mm)) * max(abs(p.y_mm) - by_mm, 0.0)})


def _told(t: _Tried, *, clears: bool) -> Tucked:
    inner, thing = t.inner()
    s, m = t.study, t.study.motion
    steer = steer_study(s)
    scrub = toe = locked = None
    if steer is not None and steer.right is not None:
        scrub = float(steer.right.scrub_mm[steer.ride, steer.ahead])
        held = bump_steer(steer)
        toe = None if held is None else float(np.nanmax(held) - np.nanmin(held))
        ends = [end.inner_deg for way in (1, -1) if (end := lock(steer, way)) is not None]
        locked = min(ends, default=None)
    lean = None if m is None else of.lean_deg(m)
    return Tucked(
        way=t.way,
        words=WORDS[t.way],
        tuck_mm=round(t.by_mm, 2),
        clears=clears,
        wing_gap_mm=_known(t.wing_gap),
        inner_gap_mm=_known(inner),
        inner_thing=thing,
        track_mm=2 * s.setting.half_track_mm if s.setting else 0.0,
        scrub_mm=scrub,
        camber_deg=None if lean is None or m is None else float(lean[m.there][-1]),
        toe_deg=toe,
        lock_deg=locked,
        suspension=t.own,
    )


def _known(value: float) -> float | None:
    return round(value, 2) if np.isfinite(value) else None
