"""The frame each time it was measured: before the cut, after the tack, at the end; square, straight, level, and its axles under it."""

import math

from nodulant.asbuilt.compare import uncertain_check
from nodulant.asbuilt.levels import Levels, levelled
from nodulant.asbuilt.log import LengthEntry, LevelEntry, When, standing
from nodulant.asbuilt.said_of import amount_off
from nodulant.base.model import Frozen
from nodulant.checks.check import Changes, Check, Subject, Why, judge
from nodulant.evaluate.readings.points import FramePoints
from nodulant.evaluate.readings.shape import AxleTaped, Square, Sway, axles_of, sway_of
from nodulant.evaluate.readings.taped import TapedFrame, taped_checks, taped_frame
from nodulant.job.document import Inputs
from nodulant.parts.limits import find_limit
from nodulant.parts.measure import Measure

LEVEL_MM = 0.5
"""Spread of a level read at a mark, besides what it can be read to (Nodulant default)."""
WORDS: dict[When, str] = {"before": "before the cut", "tacked": "after the tack", "done": "at the end", "": "taped"}
ORDER: tuple[When, ...] = ("before", "", "tacked", "done")


class FrameAt(Frozen):
    """What was found at one time."""

    when: When
    name: str
    lengths: int
    square: Square | None
    sway: Sway | None
    axles: tuple[AxleTaped, ...]
    levels: Levels | None


class FrameRead(Frozen):
    """Every time that it was measured, oldest first, and the newest network."""

    times: tuple[FrameAt, ...]
    taped: TapedFrame | None


def frame_read(inputs: Inputs, points: FramePoints) -> FrameRead:
    """From the standing lengths and levels of the log."""
    entries = standing(inputs.as_built.entries)
    taken = [e for e in entries if isinstance(e, LengthEntry | LevelEntry)]
    nets = {when: taped_frame(inputs, points, when) for when in {e.when for e in taken}}
    times = [_at(points, taken, when, nets[when]) for when in ORDER if when in nets]
    newest = next((net for when in reversed(ORDER) if (net := nets.get(when)) is not None), None)
    return FrameRead(times=tuple(t for t in times if t is not None), taped=newest)


def _at(
    points: FramePoints, taken: list[LengthEntry | LevelEntry], when: When, net: TapedFrame | None
) -> FrameAt | None:
    read = {e.point.id: e for e in taken if isinstance(e, LevelEntry) and e.when == when}
    spread = math.hypot(LEVEL_MM, max((e.resolution for e in read.values()), default=0.0) / math.sqrt(12))
    levels = levelled(points.places(when), {id_: e.value for id_, e in read.items()}, spread)
    if net is None and levels is None:
        return None
    plan = points.plan(when)
    return FrameAt(
        when=when,
        name=WORDS[when],
        lengths=0 if net is None else len(net.lengths),
        square=None if net is None else net.square,
        sway=None if net is None else sway_of(net.network, plan),
        axles=() if net is None else axles_of(net.network, plan),
        levels=levels,
    )


def frame_checks(inputs: Inputs, read: FrameRead) -> list[Check]:
    """Of the newest time: whether lengths fit, and whether the frame is square, straight, flat and its axles under it."""
    out = taped_checks(inputs, read.taped)
    if not read.times:
        return out
    limits, now = inputs.design.limits, read.times[-1]
    names = {f.id: f.name for f in inputs.survey.features}
    if now.square is not None:
        values = {"one": now.square.left_to_right_mm, "other": now.square.right_to_left_mm}
        values["planned"] = values["one"] - values["other"] - now.square.off_mm
        why = Why(formula="abs(one - other - planned)", values=values, words="of the foremost and rearmost points")
        out.append(judge("frame-square", _of("tape"), abs(now.square.off_mm), why, limits, remedy=RACK))
    if now.sway is not None:
        out.append(_told("frame-sway", "tape", now.sway.off_mm, now.sway.sure_mm, names[now.sway.at], limits, DRAW))
    if now.levels is not None:
        own = now.levels
        out.append(
            _told("frame-twist", "levels", own.twist_mm, own.twist_sure_mm, "last pair against the first", limits, DRAW)
        )
        out.append(_told("frame-sag", "levels", own.sag_mm, own.sag_sure_mm, names[own.sag_at], limits, DRAW))
    for axle in now.axles:
        where = f"{axle.hub}-axle-taped"
        hubs = f"{axle.hub} hubs"
        if axle.hub == "rear":
            out.append(_told("thrust", where, axle.thrust_deg, axle.thrust_sure_deg, hubs, limits, SET, "deg"))
        out.append(_told("axle-offset", where, axle.right_mm, axle.right_sure_mm, hubs, limits, SET))
    return out


RACK = "Rack it square with a chain before anything more is welded, then tape again."
DRAW = (
    "Draw it back with heat on the long side, or a jack and chain, before anything more is welded, then measure again."
)

SET = "It is the axle under the frame, not the frame: read its links and joints, and press 'Solve what was read' in Prove."


def _of(subject: str) -> Subject:
    return Subject(subject=subject, state="as-built", stage="prove")


def _told(
    limit: str, subject: str, off: float, sure: float, where: str, limits: Changes, remedy: str, unit: Measure = "mm"
) -> Check:
    allowed = find_limit(limit, limits)[0].value
    told = f"{amount_off(off, unit)} at {where} ± {amount_off(sure, unit)}, {amount_off(allowed, unit)} allowed"
    why = Why(formula="abs(off)", values={"off": off, "uncertainty": sure}, words=where)
    return uncertain_check(limit, _of(subject), (abs(off), sure), why, limits, detail="", words=told, remedy=remedy)
