"""Where one end of a link goes within a window, and how long the link then is, ranked against what the user wants.

Every place of a grid in side view is solved at a few poses in one batch, as the bracket holes are;
links outside the wanted lengths are left out. The best are studied over their whole travel.
"""

from collections.abc import Generator
from typing import Annotated, Literal, NamedTuple

import numpy as np
from pydantic import Field

from nodulant.axles.layouts.layout import Layout, NamedLink
from nodulant.axles.points import Link, on_axle
from nodulant.axles.suspension import Suspension
from nodulant.base.arrays import Columns
from nodulant.base.errors import NodulantError, NotSolvable
from nodulant.base.model import Frozen, Size
from nodulant.search.bracket_holes import BEST, CHUNK, Wanted, figures_of, lever_of, score_of, studied
from nodulant.search.steps import Progress, to_the_end
from nodulant.survey.vehicle import Seat, Survey

Reach = Annotated[float, Field(ge=0, le=400)]
MOST_PLACES = 6000


class Window(Frozen):
    """How far the end may go from where it is, fore and aft, down and up, mm, in steps; lengths that the link may have."""

    end: Literal["frame", "axle"] = "frame"
    ahead_mm: Reach = 100.0
    behind_mm: Reach = 100.0
    down_mm: Reach = 60.0
    up_mm: Reach = 60.0
    step_mm: Annotated[float, Field(ge=2, le=100)] = 10.0
    least_mm: Size | None = None
    most_mm: Size | None = None


class WindowChoice(Frozen):
    """One place: how far it moves back and up, mm, the link's length, and what it gives."""

    back_mm: float
    up_mm: float
    length_mm: float
    anti_squat: float
    roll_steer: float
    pinion_deg: float
    roll_centre_mm: float
    score: float
    reaches: bool
    suspension: Suspension
    fails: tuple[str, ...] = ()
    """What fails with it in the whole design and did not before: such a place is not offered."""


class FoundWindow(Frozen):
    """The best places, best first, and the score of every place of the grid; None where it does not move or is too long or short."""

    choices: tuple[WindowChoice, ...]
    tried: int
    back_mm: list[float]
    up_mm: list[float]
    score: list[list[float | None]]
    reason: str = ""


class AskedWindow(NamedTuple):
    """Where and what is searched."""

    survey: Survey
    suspension: Suspension
    seats: tuple[Seat, ...]
    towards_rail_mm: float
    grip: float
    link: str
    """The link's path in the layout."""
    window: Window
    wanted: Wanted


def find_window(asked: AskedWindow) -> FoundWindow:
    """Search to the end; raises NotSolvable where the link is not there or single wheels are asked for."""
    return to_the_end(search_window(asked))


def search_window(asked: AskedWindow) -> Generator[Progress, None, FoundWindow]:
    """Rank every place, then study the best; yields progress."""
    layout = asked.suspension.layout
    named = _named(layout, asked.link)
    base = studied(asked, asked.suspension)
    if base.setting is None:
        raise NotSolvable("the hubs are not known", field=base.missing[0], found="nothing", acceptable="a reading")
    back, up = _grid(asked.window)
    rows = np.array([(x, z) for z in up for x in back])
    length = _lengths(named.link, base.setting.hub, asked.window, rows)
    allowed = _allowed(asked.window, length)
    figures = np.full((len(rows), 4), np.nan)
    todo = np.flatnonzero(allowed)
    for first in range(0, len(todo), CHUNK):
        yield first, len(rows)
        some = todo[first : first + CHUNK]
        figures[some] = figures_of(asked.suspension, layout, base.setting, _shift(layout, asked, rows[some]))
    figures[:, 0] *= lever_of(base)
    score = score_of(figures, asked.wanted)
    order = np.argsort(np.where(np.isfinite(score), score, np.inf), kind="stable")
    choices = []
    for i in order[:BEST]:
        if not np.isfinite(score[i]):
            break
        yield len(rows), len(rows)
        choices.append(_choice(asked, rows[i], float(length[i]), figures[i], float(score[i])))
    table = [[float(v) if np.isfinite(v) else None for v in line] for line in score.reshape(len(up), len(back))]
    return FoundWindow(
        choices=tuple(choices),
        tried=int(allowed.sum()),
        back_mm=back.tolist(),
        up_mm=up.tolist(),
        score=table,
        reason=_reason(allowed, choices),
    )


def _reason(allowed: np.ndarray[tuple[int], np.dtype[np.bool_]], choices: list[WindowChoice]) -> str:
    if choices:
        return ""
    if not allowed.any():
        return "no place in this window gives a link of that length"
    return "no place in this window gives a linkage that moves"


def _named(layout: Layout, path: str) -> NamedLink:
    links = {n.path: n for n in reversed(layout.links())}
    if layout.independent or path not in links:
        raise NotSolvable(
            "this link cannot be searched",
            field="link",
            found=path,
            acceptable=", ".join(sorted(links)) if links and not layout.independent else "a link of a live axle",
        )
    return links[path]


def _grid(w: Window) -> tuple[Columns, Columns]:
    """Offsets with 0 among them."""

    def offsets(less: float, more: float) -> Columns:
        count = np.arange(-int(less // w.step_mm), int(more // w.step_mm) + 1, dtype=np.float64)
        return np.asarray(count * w.step_mm)

    back, up = offsets(w.ahead_mm, w.behind_mm), offsets(w.down_mm, w.up_mm)
    if len(back) * len(up) > MOST_PLACES:
        raise NotSolvable(
            "the window has too many places",
            field="window/step_mm",
            found=f"{len(back) * len(up)} places",
            acceptable=f"at most {MOST_PLACES}: a larger step or a smaller window",
        )
    return back, up


def _lengths(link: Link, hub: tuple[float, float, float], w: Window, rows: Columns) -> Columns:
    sign = 1.0 if w.end == "axle" else -1.0
    apart = np.array(on_axle(link.axle, hub)) - np.array(link.frame.xyz())
    d = apart + sign * np.stack([rows[:, 0], np.zeros(len(rows)), rows[:, 1]], axis=1)
    return np.asarray(np.linalg.norm(d, axis=1))


def _allowed(w: Window, length: Columns) -> np.ndarray[tuple[int], np.dtype[np.bool_]]:
    least, most = w.least_mm or 0.0, w.most_mm or np.inf
    return np.asarray((length >= least - 1e-9) & (length <= most + 1e-9) & (length > 1.0))


def _shift(layout: Layout, asked: AskedWindow, rows: Columns) -> dict[str, Columns]:
    """How far each rod's ends move in every row, (rows, links, 3)."""
    links = layout.links()
    out = {key: np.zeros((len(rows), len(links), 3)) for key in ("frame", "axle")}
    for k, named in enumerate(links):
        if named.path == asked.link:
            out[asked.window.end][:, k, 0] = rows[:, 0]
            out[asked.window.end][:, k, 2] = rows[:, 1]
    return out


def _moved(suspension: Suspension, path: str, end: str, row: Columns) -> Suspension:
    layout = suspension.layout.model_dump()
    link = layout
    for key in path.split("."):
        link = link[key]
    link[end] = {**link[end], "x_mm": link[end]["x_mm"] + float(row[0]), "z_mm": link[end]["z_mm"] + float(row[1])}
    return Suspension.model_validate({**suspension.model_dump(), "layout": layout})


def _choice(asked: AskedWindow, row: Columns, length: float, figures: Columns, score: float) -> WindowChoice:
    own = _moved(asked.suspension, asked.link, asked.window.end, row)
    try:
        whole = studied(asked, own)
        reaches = whole.motion is not None and bool(whole.motion.there.all())
    except NodulantError:
        reaches = False
    return WindowChoice(
        back_mm=float(row[0]),
        up_mm=float(row[1]),
        length_mm=length,
        anti_squat=float(figures[0]),
        roll_steer=float(figures[1]),
        pinion_deg=float(figures[2]),
        roll_centre_mm=float(figures[3]),
        score=score,
        reaches=reaches,
        suspension=own,
    )
