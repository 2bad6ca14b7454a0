"""Every combination of bracket holes of a four- or three-link, ranked against what the user wants.

Each of the four brackets has a row of holes, one above the other. All combinations are solved in
one batch at a few poses and ranked; the best are then studied over their whole travel, so that
what is shown of them is what the bench will say.
"""

import itertools
from collections.abc import Generator
from typing import Annotated, NamedTuple, Protocol

import numpy as np
from pydantic import Field

from nodulant.axles.layouts.layout import Layout
from nodulant.axles.layouts.live import ParallelFourLink, ThreeLink, TriangulatedFourLink
from nodulant.axles.points import HardPoint, Link
from nodulant.axles.suspension import Suspension
from nodulant.base.arrays import Columns
from nodulant.base.errors import NodulantError, NotSolvable
from nodulant.base.model import Frozen
from nodulant.linkage.compiled import Pose, reference, with_own_rods
from nodulant.linkage.rates import twist
from nodulant.linkage.rotation import angles
from nodulant.linkage.solve import part, solve
from nodulant.search.steps import Progress, to_the_end
from nodulant.survey.vehicle import Seat, Survey
from nodulant.suspension.motion import Setting, compiled
from nodulant.suspension.study import Study, study

POSES = 9
BEST = 20
CHUNK = 512
Layouts = TriangulatedFourLink | ParallelFourLink | ThreeLink


Count = Annotated[int, Field(ge=0, le=7)]


class HoleRow(Frozen):
    """The holes of one bracket besides the one that is used: above and below it, and their pitch, mm; none holds it fixed."""

    above: Count = 0
    below: Count = 0
    pitch_mm: Annotated[float, Field(gt=0, le=100)] = 20.0

    @property
    def offsets(self) -> list[float]:
        """How far up each hole is from the one that is used, mm, from the lowest."""
        return [k * self.pitch_mm for k in range(-self.below, self.above + 1)]


class Holes(Frozen):
    """The holes of the four brackets."""

    frame_upper: HoleRow = HoleRow(above=2, below=1)
    frame_lower: HoleRow = HoleRow(above=2, below=1)
    axle_upper: HoleRow = HoleRow(above=2, below=1)
    axle_lower: HoleRow = HoleRow(above=2, below=1)

    @property
    def rows(self) -> tuple[HoleRow, ...]:
        """In the order of a combination."""
        return (self.frame_upper, self.frame_lower, self.axle_upper, self.axle_lower)


class Wanted(Frozen):
    """What the holes are ranked by: each figure's wish, and how much it may miss before it counts one."""

    anti_squat: Annotated[float, Field(ge=-100, le=300)] = 80.0
    anti_squat_off: Annotated[float, Field(gt=0, le=200)] = 10.0
    roll_steer: Annotated[float, Field(ge=-1, le=1)] = 0.0
    roll_steer_off: Annotated[float, Field(gt=0, le=1)] = 0.05
    pinion_off_deg: Annotated[float, Field(gt=0, le=20)] = 2.0
    """How far the pinion may turn over the travel before that counts one."""


class HoleChoice(Frozen):
    """One combination: how far each point moves up, mm, what it gives, and its score (0 is all wishes met)."""

    frame_upper_mm: float
    frame_lower_mm: float
    axle_upper_mm: float
    axle_lower_mm: float
    anti_squat: float
    roll_steer: float
    pinion_deg: float
    """Most that the pinion turns from ride height within the travel."""
    roll_centre_mm: float
    score: float
    reaches: bool
    suspension: Suspension
    fails: tuple[str, ...] = ()
    """What fails with it in the whole design and did not before: such a place is not offered."""


class FoundHoles(Frozen):
    """The best, best first; and per pair of frame holes the best score of all axle holes, with its anti-squat."""

    choices: tuple[HoleChoice, ...]
    tried: int
    upper_mm: list[float]
    lower_mm: list[float]
    score: list[list[float | None]]
    """Rows by ``upper_mm``, columns by ``lower_mm``; None where nothing moves."""
    anti_squat: list[list[float | None]]
    axle: list[list[list[float] | None]]
    """Which holes of the axle's brackets, upper and lower, mm up, each of them is of."""
    reason: str = ""


class Place(Protocol):
    """What a search says of the vehicle around the suspension."""

    @property
    def survey(self) -> Survey:
        """The survey."""

    @property
    def seats(self) -> tuple[Seat, ...]:
        """Planned seats."""

    @property
    def towards_rail_mm(self) -> float:
        """How far the drop stack moves the axle."""

    @property
    def grip(self) -> float:
        """Of the tyres."""


class Asked(NamedTuple):
    """Where and what is searched."""

    survey: Survey
    suspension: Suspension
    seats: tuple[Seat, ...]
    towards_rail_mm: float
    grip: float
    holes: Holes
    wanted: Wanted


def find_holes(asked: Asked) -> FoundHoles:
    """Search to the end; raises NotSolvable where the layout has no four brackets or its height is not known."""
    return to_the_end(search_holes(asked))


def search_holes(asked: Asked) -> Generator[Progress, None, FoundHoles]:
    """Rank all combinations, then study the best; yields progress."""
    base = studied(asked, asked.suspension)
    setting, layout = base.setting, asked.suspension.layout
    if not isinstance(layout, Layouts):
        raise NotSolvable(
            "this layout has no upper and lower links",
            field="layout",
            found=layout.kind,
            acceptable="four or three links",
        )
    if setting is None:
        raise NotSolvable("the hubs are not known", field=base.missing[0], found="nothing", acceptable="a reading")
    rows = np.array(list(itertools.product(*(row.offsets for row in asked.holes.rows))))
    figures = np.full((len(rows), 4), np.nan)
    for first in range(0, len(rows), CHUNK):
        yield first, len(rows)
        some = rows[first : first + CHUNK]
        figures[first : first + CHUNK] = figures_of(asked.suspension, layout, setting, _shifts(layout, some))
    lever = lever_of(base)
    figures[:, 0] *= lever
    score = score_of(figures, asked.wanted)
    order = np.argsort(np.where(np.isfinite(score), score, np.inf), kind="stable")
    choices = []
    for k, i in enumerate(order[:BEST]):
        if not np.isfinite(score[i]):
            break
        if k % 4 == 0:
            yield len(rows), len(rows)
        choices.append(_choice(asked, rows[i], figures[i], float(score[i])))
    maps = _maps(rows, score, figures[:, 0])
    reason = "" if choices else "no combination of these holes gives a linkage that moves"
    return FoundHoles(choices=tuple(choices), tried=len(rows), reason=reason, **maps._asdict())


def studied(asked: Place, suspension: Suspension) -> Study:
    """A variant of the suspension, studied where it is searched."""
    return study(asked.survey, suspension, asked.seats, asked.towards_rail_mm, asked.grip)


def lever_of(s: Study) -> float:
    """100 L/h, which makes anti-squat of a slope; 100 where the height of the sprung mass is not known."""
    high, base = s.centre_above_ground_mm, s.vehicle.wheelbase_mm
    return 100.0 * base / high if high and base else 100.0


def figures_of(own: Suspension, layout: Layout, setting: Setting, moved_by: dict[str, Columns]) -> Columns:
    """Slope of the patch's path, roll steer, most pinion turn, roll centre of each row; NaN where it does not move.

    ``moved_by`` holds how far the links' frame and axle ends move, (rows, links, 3) each.
    """
    c = compiled(layout, setting)
    travel = np.linspace(-own.droop_mm, own.bump_mm, POSES)
    travel[np.argmin(np.abs(travel))] = 0.0
    ride = int(np.argmin(np.abs(travel)))
    count = len(moved_by["frame"])
    shift = {key: _for_every_rod(by, len(c.length)) for key, by in moved_by.items()}
    a = np.repeat(c.a.point[None] + shift["axle"], POSES, axis=0)
    b = np.repeat(c.b.point[None] + shift["frame"], POSES, axis=0)
    own_rods = with_own_rods(c, a, b)
    targets = np.zeros((count * POSES, len(c.drives)))
    targets[:, 0] = np.tile(travel, count)
    start = reference(c, count * POSES)
    lifted = start.origin.copy()
    lifted[:, 2] += targets[:, 0]
    solved = solve(own_rods, targets, Pose(lifted, start.rotation, start.turned))
    good = solved.found.reshape(count, POSES).all(axis=1)
    at = np.arange(count) * POSES + ride
    out = np.full((count, 4), np.nan)
    rows_ok = np.flatnonzero(good)
    if len(rows_ok) == 0:
        return out
    from_ride = part(solved, at[rows_ok])
    heave, roll = twist(own_rods.of(at[rows_ok]), from_ride, 0), twist(own_rods.of(at[rows_ok]), from_ride, 1)
    pitch = np.degrees(angles(solved.pose.rotation)[2]).reshape(count, POSES)
    r = setting.radius_mm
    out[rows_ok, 0] = (heave[:, 0] - heave[:, 4] * r) / heave[:, 2]
    out[rows_ok, 1] = roll[:, 5] / roll[:, 3]
    out[rows_ok, 2] = np.abs(pitch - pitch[:, [ride]]).max(axis=1)[rows_ok]
    out[rows_ok, 3] = r + roll[:, 1] / roll[:, 3]
    return out


def _for_every_rod(by: Columns, rods: int) -> Columns:
    """(rows, links, 3) filled up to all rods; links come before other rods."""
    out = np.zeros((len(by), rods, 3))
    out[:, : by.shape[1]] = by
    return out


def _shifts(layout: Layouts, rows: Columns) -> dict[str, Columns]:
    """How far each link's ends move up in every row, (rows, links, 3)."""
    names = [named.path.split(".")[0] for named in layout.links()]
    out = {}
    for key, (upper, lower) in {"frame": (0, 1), "axle": (2, 3)}.items():
        shift = np.zeros((len(rows), len(names), 3))
        for k, name in enumerate(names):
            if name in {"upper", "lower"}:
                shift[:, k, 2] = rows[:, upper if name == "upper" else lower]
        out[key] = shift
    return out


def score_of(figures: Columns, wanted: Wanted) -> Columns:
    """Root of the squares of what each wish is missed by; 0 is all met."""
    terms = (
        (figures[:, 0] - wanted.anti_squat) / wanted.anti_squat_off,
        (figures[:, 1] - wanted.roll_steer) / wanted.roll_steer_off,
        figures[:, 2] / wanted.pinion_off_deg,
    )
    return np.asarray(np.sqrt(sum(term**2 for term in terms)))


def moved(suspension: Suspension, row: Columns) -> Suspension:
    """``suspension`` with its points in other holes: frame upper, frame lower, axle upper, axle lower, mm up."""
    layout = suspension.layout
    if not isinstance(layout, Layouts):
        raise ValueError("only links have holes")
    frame_upper, frame_lower, axle_upper, axle_lower = (float(v) for v in row)
    update = {
        "upper": _link(layout.upper, frame_upper, axle_upper),
        "lower": _link(layout.lower, frame_lower, axle_lower),
    }
    return suspension.model_copy(update={"layout": layout.model_copy(update=update)})


def _link(link: Link, frame: float, axle: float) -> Link:
    return link.model_copy(update={"frame": _up(link.frame, frame), "axle": _up(link.axle, axle)})


def _up(p: HardPoint, by: float) -> HardPoint:
    return HardPoint(x_mm=p.x_mm, y_mm=p.y_mm, z_mm=p.z_mm + by)


def _choice(asked: Asked, row: Columns, figures: Columns, score: float) -> HoleChoice:
    own = moved(asked.suspension, row)
    try:
        whole = studied(asked, own)
        reaches = whole.motion is not None and bool(whole.motion.there.all())
    except NodulantError:
        reaches = False
    return HoleChoice(
        frame_upper_mm=float(row[0]),
        frame_lower_mm=float(row[1]),
        axle_upper_mm=float(row[2]),
        axle_lower_mm=float(row[3]),
        anti_squat=float(figures[0]),
        roll_steer=float(figures[1]),
        pinion_deg=float(figures[2]),
        roll_centre_mm=float(figures[3]),
        score=score,
        reaches=reaches,
        suspension=own,
    )


class _Maps(NamedTuple):
    """The map's axes, and per cell score, anti-squat and the axle's holes."""

    upper_mm: list[float]
    lower_mm: list[float]
    score: list[list[float | None]]
    anti_squat: list[list[float | None]]
    axle: list[list[list[float] | None]]


def _maps(rows: Columns, score: Columns, squat: Columns) -> _Maps:
    """Best score over the axle's holes for every pair of frame holes, the anti-squat there, and which holes those are."""
    upper, lower = np.unique(rows[:, 0]), np.unique(rows[:, 1])
    safe = np.where(np.isfinite(score), score, np.inf)
    out = _Maps(upper.tolist(), lower.tolist(), [], [], [])
    for u in upper:
        best = []
        for low in lower:
            at = np.flatnonzero((rows[:, 0] == u) & (rows[:, 1] == low))
            i = int(at[int(np.argmin(safe[at]))])
            best.append(i if np.isfinite(safe[i]) else None)
        out.score.append([None if i is None else float(safe[i]) for i in best])
        out.anti_squat.append([None if i is None else float(squat[i]) for i in best])
        out.axle.append([None if i is None else rows[i, 2:].tolist() for i in best])
    return out
