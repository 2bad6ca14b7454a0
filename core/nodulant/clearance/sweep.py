"""Everything that moves against everything that it may touch: the list of clearances.

Moving bodies of one axle are set against the rails, against what the user placed, and against
each other where they do not hang together. Things that overlap already at ride height straight
ahead are told as such. Each pair's wish is the limit of its kind.
"""

from collections.abc import Generator, Iterable, Mapping
from dataclasses import dataclass, field, replace
from typing import Literal

import numpy as np

from nodulant.axles.layouts.independent import TOE_LINK
from nodulant.base.arrays import Columns
from nodulant.clearance.looks import Looking, in_step
from nodulant.clearance.mirror import FLIP, moves_alike, other_side, stands_alike
from nodulant.clearance.moving import Mover, RoundBar
from nodulant.clearance.pair import Far, Least, Other, along, gaps_at, look, reaches
from nodulant.clearance.shapes import Bars, Boxes, Standing
from nodulant.parts.sides import LoadState

Wish = Literal["metal-clearance", "tyre-sweep", "soft-clearance", "column-clear"]
JOINED_MM, SOFT, GEARS = 1.0, {"line"}, {"rack", "steering-box"}


@dataclass(frozen=True, eq=False)
class Pair:
    """A moving body and what it may touch, and the limit that they are held to."""

    mover: Mover
    other: Other
    wish: Wish

    @property
    def id(self) -> str:
        """'<axle>:<moving>:<other>' in names without blanks; what the user placed by its own id, as names may repeat."""
        placed = self.other.obstacle_id if isinstance(self.other, Standing) else ""
        parts = (self.mover.positions.axle, self.mover.name, placed or self.other.name)
        return ":".join(p.replace(", ", "-").replace(" ", "-") for p in parts)


@dataclass(frozen=True, eq=False)
class Cleared:
    """A pair worked out: ``least`` None where it stays further away than matters, then ``beyond_mm`` says how far at least."""

    pair: Pair
    least: Least | None
    beyond_mm: float | None
    at_rest_mm: float | None
    first_bump_mm: float | None
    """Travel at which they touch, straight ahead and level; None where they do not."""
    first_lock: float | None
    """Input at which they touch at ride height, the smaller of both ways."""
    stands_mm: dict[LoadState, float] = field(default_factory=dict)
    """Of a tyre: standing straight in each load state whose travel is known."""


def pairs_of(movers: tuple[Mover, ...], standing: tuple[Standing, ...]) -> list[Pair]:
    """Every pair that is worth a look."""
    out = [Pair(m, thing, _wish(m, thing.kind)) for m in movers for thing in standing if not _stands_alone(thing, m)]
    for i, one in enumerate(movers):
        for two in movers[i + 1 :]:
            if one.positions is two.positions and _may_meet(one, two):
                out.append(Pair(one, two, _wish(one, two.kind)))
    return out


def _stands_alone(thing: Standing, mover: Mover) -> bool:
    """Whether a pair says nothing: neither of them moves, or the one carries the other."""
    return mover.kind == "torsion-bar" or _carries(thing, mover) or _of_the_gear(thing, mover)


def _of_the_gear(thing: Standing, mover: Mover) -> bool:
    """Whether a body is joined to a steering gear: its input shaft, and what a rack moves from inside its tube."""
    if mover.kind == "shaft":
        return thing.kind in GEARS
    return thing.kind == "rack" and (mover.kind == "boot" or mover.name.startswith(TOE_LINK))


def _carries(thing: Standing, mover: Mover) -> bool:
    """Whether a body hangs on something that was added to the rails: its bracket, its tower, the mount of its gear."""
    if thing.kind not in {"work", "steering-box"} or mover.hangs_at is None:
        return False
    here = np.array(mover.hangs_at)
    if float(Boxes(here[None], here[None]).apart(thing.pack.boxes.whole)[0, 0]) >= HANGS_MM:
        return False
    points = np.broadcast_to(here, (len(thing.pack.boxes.low), 3))
    return float(thing.pack.distance(points).min()) < HANGS_MM


HANGS_MM = 60.0
"""A joint stands no further than this from the plates that hold it (common practice)."""


def _wish(mover: Mover, kind: str) -> Wish:
    if mover.kind == "tyre" or kind == "tyre":
        return "tyre-sweep"
    if "shaft" in {mover.kind, kind}:
        return "column-clear"
    return "soft-clearance" if kind in SOFT else "metal-clearance"


def _may_meet(one: Mover, two: Mover) -> bool:
    """Two bodies of one axle that share no joint, do not ride on each other, and lie on one side."""
    if (
        {one.side, two.side} == {"left", "right"}
        or one.kind == two.kind == "tyre"
        or {one.kind, two.kind} == {"boot", "rod"}
        or _piece_of(one) == _piece_of(two)
    ):
        return False
    if any(a.stands_on and b.name.startswith(a.stands_on) for a, b in ((one, two), (two, one))):
        return False
    if {one.name, two.name} in ({"pitman arm", "pitman arm's nut"}, {"drag link", "pitman arm's nut"}):
        return False
    brackets = [m for m in (one, two) if m.kind == "bracket"]
    if brackets and not _stands_free(one, two, brackets[0]):
        return False
    tyre = one if one.kind == "tyre" else two if two.kind == "tyre" else None
    if tyre is not None and {one.kind, two.kind} == {"tyre", "axle"}:
        return False
    bars = [m.body for m in (one, two) if isinstance(m.body, RoundBar)]
    if len(bars) < 2:
        return True
    if "axle" in {one.kind, two.kind} and not {one.name, two.name} & {"drag link", "tie rod"}:
        return False  # what is bracketed on the axle's tube stands off it by its bracket
    ends = [(a, b) for a in (bars[0].a, bars[0].b) for b in (bars[1].a, bars[1].b)]
    return all(float(np.linalg.norm(a - b, axis=-1).min()) > JOINED_MM for a, b in ends)


def _piece_of(mover: Mover) -> tuple[str, str]:
    """The body that a bar is a piece of, and its side."""
    return mover.name.partition(",")[0].partition(" (")[0], mover.side


def _stands_free(one: Mover, two: Mover, bracket: Mover) -> bool:
    """Whether a body neither is of the axle itself, as the bracket is, nor hangs on it: a joint stands in its bracket."""
    other = two if bracket is one else one
    if other.kind in {"bracket", "axle"} or (other.kind == "tyre" and len(other.positions.input) == 1):
        return False
    if isinstance(other.body, RoundBar) and isinstance(bracket.body, RoundBar):
        at = bracket.positions.ride()
        own = Bars(bracket.body.a[at][None], bracket.body.b[at][None], np.array([bracket.body.radius]))
        ends = np.array([other.body.a[at], other.body.b[at]])
        return float(own.some(np.zeros(2, dtype=np.int64)).distance(ends).min()) > HANGS_MM
    return True


NOTHING_ASKED: Mapping[Wish, float] = {}
Stood = dict[str, dict[LoadState, float]]
"""Wheel travel in each load state, mm, by axle."""


def swept(
    pairs: Iterable[Pair], stood: Stood | None = None, needed: Mapping[Wish, float] = NOTHING_ASKED
) -> Generator[Cleared, None, None]:
    """Work out pair after pair, closely where they come as near as is ``needed``, mm; tyres also where they stand as loaded."""
    done: dict[tuple[str, str], int] = {}
    twins, all_pairs, found = _Twins(), list(pairs), dict[int, Cleared]()
    for start in range(0, len(all_pairs), AT_ONCE):
        twin_of: dict[int, int] = {}
        looks: dict[int, Looking[Cleared]] = {}
        some = range(start, min(start + AT_ONCE, len(all_pairs)))
        reach = reaches([(all_pairs[k].mover, all_pairs[k].other) for k in some])
        for k in some:
            pair = all_pairs[k]
            twin = done.get((other_side(pair.mover.name), _twin_of(pair.other)))
            if twin is not None and twins.alike(all_pairs[twin], pair):
                twin_of[k] = twin
            else:
                states = (stood or {}).get(pair.mover.positions.axle, {})
                looks[k] = _cleared(pair, needed.get(pair.wish, 0.0), states, reach[k - start])
            done[pair.mover.name, _called(pair.other)] = k
        found.update(zip(looks, in_step(list(looks.values())), strict=True))
        for k in some:
            if k in twin_of:
                found[k] = _reflected(found[twin_of[k]], all_pairs[k])
            yield found[k]


AT_ONCE = 400
"""Pairs that are looked at in step."""


def _called(other: Other) -> str:
    """What a pair's other is told from others by."""
    return (other.obstacle_id or other.name) if isinstance(other, Standing) else other.name


def _twin_of(other: Other) -> str:
    return other.obstacle_id or other_side(other.name) if isinstance(other, Standing) else other_side(other.name)


class _Twins:
    """Which bodies were proved to be mirror images of which, each looked at once."""

    def __init__(self) -> None:
        self.proved: dict[tuple[int, int], bool] = {}

    def alike(self, one: Pair, two: Pair) -> bool:
        """Whether two pairs of one axle are mirror images."""
        if one.mover.positions is not two.mover.positions or one.wish != two.wish or one.mover is two.mover:
            return False
        return self._bodies(one.other, two.other) and self._bodies(one.mover, two.mover)

    def _bodies(self, one: Other, two: Other) -> bool:
        key = (id(one), id(two))
        if key not in self.proved:
            still = isinstance(one, Standing) and isinstance(two, Standing) and stands_alike(one, two)
            moves = isinstance(one, Mover) and isinstance(two, Mover) and moves_alike(one, two)
            self.proved[key] = still or moves
        return self.proved[key]


def _reflected(twin: Cleared, pair: Pair) -> Cleared:
    """What was found of the twin, seen in the mirror."""
    best = twin.least
    if best is not None:
        best = replace(best, roll_deg=-best.roll_deg, input=-best.input, mine=best.mine * FLIP, other=best.other * FLIP)
    lock = None if twin.first_lock is None else -twin.first_lock
    return replace(twin, pair=pair, least=best, first_lock=lock)


def _cleared(pair: Pair, needed_mm: float, states: Mapping[LoadState, float], reach: Columns) -> Looking[Cleared]:
    found = yield from look(pair.mover, pair.other, needed_mm, reach)
    if isinstance(found, Far):
        return Cleared(pair, None, found.beyond_mm, None, None, None)
    if found is None:
        return Cleared(pair, None, None, None, None, None)
    rest, bump, lock = yield from _lines(pair, found)
    low, high = pair.mover.positions.travel[0], pair.mover.positions.travel[-1]
    reached = {state: t for state, t in states.items() if low <= t <= high} if pair.wish == "tyre-sweep" else {}
    stands: dict[LoadState, float] = {}
    if reached:
        gaps = yield from gaps_at(pair.mover, pair.other, np.array(list(reached.values())))
        stands = {state: float(g) for state, g in zip(reached, gaps, strict=True)}
    return Cleared(pair, found, None, rest, bump, lock, stands)


def _lines(pair: Pair, found: Least) -> Looking[tuple[float | None, float | None, float | None]]:
    """Clearance at rest, and where they first touch: straight ahead through travel, and at ride height through lock."""
    mover, positions = pair.mover, pair.mover.positions
    grid = np.arange(positions.count).reshape(positions.shape)
    t, r, s = positions.ride()
    rest = found.at_rest_mm
    if found.gap_mm > 0:
        return rest, None, None
    if rest < 0:
        return rest, 0.0, 0.0
    down = yield from along(mover, pair.other, grid[t:, r, s])
    bump, ways = _crossing(positions.travel[t:], down), []
    for rows, columns in ((grid[t, r, s:], positions.input[s:]), (grid[t, r, s::-1], positions.input[s::-1])):
        turned = yield from along(mover, pair.other, rows)
        at = _crossing(columns, turned)
        ways += [] if at is None else [at]
    return rest, bump, min(ways, key=abs) if ways else None


def _crossing(columns: Columns, gap: Columns) -> float | None:
    """Where a clearance first falls to nothing, between its rows; None where it does not."""
    inside = np.flatnonzero(gap <= 0.0)
    if len(inside) == 0:
        return None
    k = int(inside[0])
    if k == 0:
        return float(columns[0])
    share = gap[k - 1] / (gap[k - 1] - gap[k])
    return float(columns[k - 1] + share * (columns[k] - columns[k - 1]))


def clearance_map(pair: Pair) -> Columns:
    """Clearance over travel and input, the worst of roll, (travels, inputs); NaN where the motion does not reach."""
    mover, other = pair.mover, pair.other
    there = mover.there if isinstance(other, Standing) else mover.there & other.there
    gap = in_step([along(mover, other, np.arange(mover.positions.count))])[0].reshape(mover.positions.shape)
    gap = np.where(there, gap, np.inf).min(axis=1)
    return np.where(np.isfinite(gap), gap, np.nan)
