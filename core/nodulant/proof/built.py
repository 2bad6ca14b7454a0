"""As built: where measured joints, links and wheels put each axle, what of it is outside, and what corrects it.

An adjuster is taken as a 5/8-18 thread: 25.4/18 = 1.411 mm a turn of one end; a link whose middle is turned between
a right- and a left-hand end changes by twice that, so that what is told is of one end and its length. Shims are stock ones, 1 mm steps at a wishbone's pivot, both of its
bolts alike for camber, one of them for caster.
"""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from nodulant.asbuilt.axle import Joint, Measured, beam_as_built, joints_of, wheel_as_built
from nodulant.asbuilt.compare import AskedReading
from nodulant.asbuilt.corrections import Aim, Lever, Tried, corrections
from nodulant.asbuilt.said_of import amount_off
from nodulant.axles.layouts.independent import Steered
from nodulant.base.errors import NotSolvable
from nodulant.base.model import Frozen
from nodulant.checks.check import Changes
from nodulant.evaluate.readings.thrust import pointing_deg
from nodulant.parts.limits import find_limit
from nodulant.parts.measure import Measure
from nodulant.parts.sides import LEFT_RIGHT, AxleName, Side
from nodulant.suspension.motion import Setting
from nodulant.suspension.study import Study
from nodulant.units.inline import as_deviation, as_thickness

TURN_MM = 25.4 / 18
SHIM_MM = 1.0
MOST_TURNS, MOST_SHIMS = 8, 6
LEAST = 1e-6
"""Somebody may allow nothing at all: no turn brings that, and nothing is divided by it."""
NOTHING = 0.005
"""Millimetres or degrees that are told as 0, and so without a sign."""
MOVES = ("along", "up", "across")
WAYS = {"along": ("rearward", "forward"), "up": ("up", "down"), "across": ("outward", "inward")}
SLOTTED = (
    ("strut-top", "across", "strut's top"),
    ("strut-top", "along", "strut's top"),
    ("outer-pivot", "along", "outer pivot"),
    ("outer-pivot", "up", "outer pivot"),
)
"""Mounts that are bolted through slots, where they have them, and the ways they go (common practice)."""
MOST_SLOT, MOST_TACK, MOST_TACKED = 8, 25, 2
"""Millimetres either way in a slot and of a bracket, and how many moves of brackets are put together."""


class Outcome(Frozen):
    """One thing that the axle or wheel does as built, less what is planned; mm or degrees."""

    name: str
    off: float
    allowed: float
    unit: Measure
    measured: bool
    """Read at the wheels themselves; else it follows from joints and links."""
    words: str


class Adjusted(Frozen):
    """One thing to move: by how many whole turns, or how many millimetres of shims."""

    name: str
    steps: int
    words: str


class Correction(Frozen):
    """What to move, and what is left then."""

    moves: tuple[Adjusted, ...]
    left: tuple[Outcome, ...]
    inside: bool
    words: str


class AxleAsBuilt(Frozen):
    """One axle, or one wheel of it, as it was built."""

    axle: AxleName
    name: str
    side: Side | None
    read: int
    """How many readings of joints, links and wheels it follows from."""
    outcomes: tuple[Outcome, ...]
    corrections: tuple[Correction, ...]
    words: str
    """Why nothing corrects it, or that nothing has to; empty where something does."""


def axles_as_built(asked: list[AskedReading], studies: list[Study], changes: Changes) -> tuple[AxleAsBuilt, ...]:
    """Every axle of which something was read."""
    out = []
    for s in studies:
        if s.setting is None:
            continue
        sides: tuple[Side | None, ...] = LEFT_RIGHT if s.suspension.layout.independent else (None,)
        for side in sides:
            found = _Axle(s, s.setting, asked, side, changes)
            if found.read:
                out.append(found.told())
    return tuple(out)


def measured_joints(s: Study, asked: list[AskedReading]) -> Measured:
    """How far off the plan every joint and link of a suspension was read; empty where nothing was."""
    if s.setting is None:
        return {}
    taken = {r.id: r for r in asked if r.value is not None}
    return dict(_joints_read(s, joints_of(s.suspension.layout, s.setting), taken))


def _joints_read(
    s: Study, joints: Iterable[Joint], taken: dict[str, AskedReading]
) -> Iterator[tuple[tuple[str, Side, str], float]]:
    axle = s.suspension.axle
    for j in joints:
        rows = {way: f"{axle}-joints/{j.key}-{way}/{j.side}" for way in MOVES}
        rows["length"] = f"{axle}-links/{_link_key(s, j)}-length/{j.side}"
        for way in ("along", "up"):
            rows[f"axle-{way}"] = f"{axle}-{j.key}-on-axle/joint-{way}/{j.side}"
        for way, id_ in rows.items():
            found = taken.get(id_)
            if found is not None and found.value is not None:
                yield (j.key, j.side, way), found.value - found.spec.planned


def _link_key(s: Study, joint: Joint) -> str:
    """By which a link's length is read; empty for an arm, which has none."""
    named = next((n for n in s.suspension.layout.links() if n.name.split(",")[0] == joint.name), None)
    return "" if named is None else named.path.replace(".", "-").replace("_", "-")


@dataclass(frozen=True)
class _Kind:
    name: str
    limit: str
    unit: Measure


_BEAM = (
    _Kind("thrust angle, to the right", "thrust", "deg"),
    _Kind("beside the centre plane, to the right", "axle-offset", "mm"),
    _Kind("behind its place", "as-built-arch", "mm"),
    _Kind("pinion, nose up", "as-built-pinion", "deg"),
)
_WHEEL = (
    _Kind("camber, top outward", "as-built-camber", "deg"),
    _Kind("toe-in", "as-built-toe", "deg"),
    _Kind("caster, top rearward", "as-built-caster", "deg"),
    _Kind("behind its place", "as-built-arch", "mm"),
)


class _Axle:
    """One axle or wheel: its readings, the model that they go into, and what may be moved."""

    def __init__(
        self, s: Study, setting: Setting, asked: list[AskedReading], side: Side | None, changes: Changes
    ) -> None:
        self.s, self.setting, self.side, self.changes = s, setting, side, changes
        self.axle: AxleName = s.suspension.axle
        taken = {r.id: r for r in asked if r.value is not None}
        self.joints = [j for j in joints_of(s.suspension.layout, setting) if side in (None, j.side)]
        self.measured = dict(_joints_read(s, self.joints, taken))
        self.direct = dict(self._at_the_wheels(taken))
        self.read = len(self.measured) + len(self.direct)
        pins = isinstance(s.suspension.layout, Steered)
        self.kinds = _BEAM if side is None else tuple(k for k in _WHEEL if pins or k.limit != "as-built-caster")

    def _at_the_wheels(self, taken: dict[str, AskedReading]) -> Iterator[tuple[str, float]]:
        """What was read at the wheels themselves, by the outcome that it is; it counts before what follows from links."""

        def off(id_: str) -> float | None:
            found = taken.get(id_)
            return None if found is None or found.value is None else found.value - found.spec.planned

        if self.side is None:
            one, other = (taken.get(f"vehicle/wheelbase/{side}") for side in LEFT_RIGHT)
            if self.axle == "rear" and one and other and one.value is not None and other.value is not None:
                yield "thrust", pointing_deg(one.value, other.value, 2 * self.setting.half_track_mm)
                yield "as-built-arch", (one.value + other.value) / 2 - one.spec.planned
            if (pinion := off(f"{self.axle}-axle/pinion/right")) is not None:
                yield "as-built-pinion", pinion
            return
        for key in ("camber", "toe", "caster"):
            if (value := off(f"{self.axle}-wheel/{key}/{self.side}")) is not None:
                yield f"as-built-{key}", value

    def solved(self, steps: dict[str, int]) -> tuple[float, ...]:
        """Every outcome by the model after so many steps; NaN never, raises NotSolvable instead."""
        moved: dict[tuple[str, Side, str], float] = dict(self.measured)
        for key, n in steps.items():
            for at, size in self._lever_moves(key, n):
                moved[at] = moved.get(at, 0.0) + size
        return self._by_model(moved)

    def _by_model(self, moved: Measured) -> tuple[float, ...]:
        if self.side is None:
            sat = beam_as_built(self.s.suspension.layout, self.setting, moved)
            return sat.thrust_deg, sat.right_mm, sat.rear_mm, sat.pinion_deg
        stood = wheel_as_built(self.s.suspension, self.setting, moved, self.side)
        if stood.caster_deg is None:
            return stood.camber_deg, stood.toe_deg, stood.rear_mm
        return stood.camber_deg, stood.toe_deg, stood.caster_deg, stood.rear_mm

    def levers(self) -> list[Lever]:
        """Links by whole turns; a double wishbone's upper pivots by shims; a strut's top and a trailing arm's outer pivot in their slots."""
        out = []
        for j in self.joints:
            side = f", {j.side}" if self.side is None else ""
            if _link_key(self.s, j):
                out.append(Lever(f"{j.key}|{j.side}|length", f"{j.name}{side}", MOST_TURNS))
        if self.side is not None and any(j.key == "upper-wishbone-front-leg" for j in self.joints):
            for key, name in (("both", "upper wishbone, both bolts"), ("front", "front bolt"), ("rear", "rear bolt")):
                out.append(Lever(f"shim|{self.side}|{key}", name, MOST_SHIMS))
        if self.side is not None:
            for joint, way, name in SLOTTED:
                if any(j.key == joint for j in self.joints):
                    out.append(Lever(f"slot|{self.side}|{joint}/{way}", name, MOST_SLOT))
        return out

    def tacks(self) -> list[Lever]:
        """Every bracket of a joint on the frame, moved along, up and out by whole millimetres."""
        return [
            Lever(
                f"tack|{j.side}|{j.key}/{way}",
                f"{j.name}'s bracket{f', {j.side}' if self.side is None else ''}",
                MOST_TACK,
            )
            for j in self.joints
            for way in MOVES
        ]

    def _lever_moves(self, key: str, n: int) -> Iterator[tuple[tuple[str, Side, str], float]]:
        what, told, way = key.split("|")
        side: Side = "left" if told == "left" else "right"
        if what in {"slot", "tack"}:
            joint, _, which = way.partition("/")
            yield (joint, side, which), float(n)
            return
        if what != "shim":
            yield (what, side, "length"), n * TURN_MM
            return
        for leg in ("front", "rear"):
            if way in ("both", leg):
                yield (f"upper-wishbone-{leg}-leg", side, "across"), n * SHIM_MM

    def told(self) -> AxleAsBuilt:
        """Outcomes and what corrects them."""
        words = ""
        try:
            plain = self.solved({})
        except NotSolvable as trouble:
            return self._row((), (), f"{trouble.message}: {trouble.found}")
        base = [self.direct.get(k.limit, v) for k, v in zip(self.kinds, plain, strict=True)]
        shift = [b - v for b, v in zip(base, plain, strict=True)]
        limits = [max(find_limit(k.limit, self.changes)[0].value, LEAST) for k in self.kinds]
        outcomes = self._outcomes(base, limits)
        apart = self._disagree(base, plain, limits)
        if all(abs(o.off) <= o.allowed for o in outcomes):
            return self._row(
                outcomes, (), apart or "Everything that was read is inside its tolerance: nothing is moved."
            )

        def effect(steps: dict[str, int]) -> list[float]:
            return [v + d for v, d in zip(self.solved(steps), shift, strict=True)]

        aims = [Aim(k.name, b, a) for k, b, a in zip(self.kinds, base, limits, strict=True)]
        found = corrections(self.levers(), aims, effect)
        if not found or not found[0].inside:
            again = corrections(self.tacks(), aims, effect, MOST_TACKED)
            if not found:
                words = "Nothing here has an adjuster, shims or slots that would help."
            else:
                worst = max(zip(found[0].left, limits, self.kinds, strict=True), key=lambda r: abs(r[0]) / r[1])
                words = f"No whole turns, stock shims and slots bring all of it inside: {worst[2].name} stays {amount_off(worst[0], worst[2].unit)} off."
            words += (
                " While it is only tacked, a bracket is cut loose, moved and tacked again."
                if again and again[0].inside
                else " Nor does a bracket that is tacked again: measure it all once more before anything is cut."
            )
            found = (*found, *(t for t in again if t.inside))
        return self._row(
            outcomes, tuple(self._correction(t, limits) for t in found), " ".join(w for w in (apart, words) if w)
        )

    def _disagree(self, read: list[float], solved: tuple[float, ...], limits: list[float]) -> str:
        """What was read at the wheels against what joints and links give, where both were read and do not go together."""
        if not self.measured:
            return ""
        for k, r, v, allowed in zip(self.kinds, read, solved, limits, strict=True):
            if k.limit in self.direct and abs(r - v) > 2 * allowed:
                return f"{k.name.capitalize()} was read as {_signed(r, k.unit)}, joints and links give {_signed(v, k.unit)}: one of them was misread, or a bracket on the axle is off its place."
        return ""

    def _outcomes(self, values: list[float], limits: list[float]) -> tuple[Outcome, ...]:
        return tuple(
            Outcome(
                name=k.name,
                off=v + 0.0,
                allowed=a,
                unit=k.unit,
                measured=k.limit in self.direct,
                words=f"{_signed(v, k.unit)} of {amount_off(a, k.unit)} allowed",
            )
            for k, v, a in zip(self.kinds, values, limits, strict=True)
        )

    def _correction(self, tried: Tried, limits: list[float]) -> Correction:
        moves = tuple(Adjusted(name=lever.name, steps=n, words=_move_words(lever, n)) for lever, n in tried.steps)
        return Correction(
            moves=moves,
            left=self._outcomes(list(tried.left), limits),
            inside=tried.inside,
            words="; ".join(m.words for m in moves),
        )

    def _row(self, outcomes: tuple[Outcome, ...], found: tuple[Correction, ...], words: str) -> AxleAsBuilt:
        name = f"{self.axle} axle" if self.side is None else f"{self.axle} wheel, {self.side}"
        return AxleAsBuilt(
            axle=self.axle,
            name=name,
            side=self.side,
            read=self.read,
            outcomes=outcomes,
            corrections=found,
            words=words,
        )


def _signed(value: float, unit: Measure) -> str:
    return f"{'-' if value < -NOTHING else ''}{amount_off(value, unit)}"


def _move_words(lever: Lever, n: int) -> str:
    size, what = abs(n), lever.key.partition("|")[0]
    if what in {"slot", "tack"}:
        ways = WAYS[lever.key.rpartition("/")[2]]
        again = "tacked again" if what == "tack" else "in its slots"
        return f"{lever.name} {again}: {as_deviation(size)} {ways[n < 0]}"
    if lever.key.startswith("shim"):
        way = "more" if n > 0 else "less"
        return (
            f"{lever.name}: {as_thickness(size * SHIM_MM)} of shims {way}, its pivot {'outward' if n > 0 else 'inward'}"
        )
    turns = "turn" if size == 1 else "turns"
    way = "longer" if n > 0 else "shorter"
    return (
        f"{lever.name}: {way} by {size} whole {turns} of one end, {as_deviation(size * TURN_MM)} with a 5/8-18 thread"
    )
