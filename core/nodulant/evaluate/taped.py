"""The frame as it was taped: its points by least squares, the reading that does not fit, and how square it is."""

import math

import numpy as np

from nodulant.asbuilt.log import LengthEntry, standing
from nodulant.asbuilt.network import Network, Taped, adjust
from nodulant.base.model import Frozen
from nodulant.checks.check import Check, Subject, Why, judge, not_computed
from nodulant.frame.route import Route
from nodulant.job.document import Inputs
from nodulant.parts.sides import LEFT_RIGHT, Side
from nodulant.units.said import Said, said

TAPE_MM = 0.8
"""Spread of a tape stretched between two marks, besides what it can be read to (Nodulant default)."""
PROVE = Subject(subject="tape", state="as-built", stage="prove")


class TapedLength(Frozen):
    """One reading of the log: points by their names, measured and planned, mm, and how it fits."""

    entry: int
    start: str
    end: str
    start_name: str
    end_name: str
    measured_mm: float
    planned_mm: float
    off_mm: float
    control: float
    blunder_mm: float | None
    suspect: bool


class Square(Frozen):
    """Of the foremost and rearmost pair of points: diagonals, mm, how much they differ more than planned, and the angle."""

    front: str
    rear: str
    left_to_right_mm: float
    right_to_left_mm: float
    off_mm: float
    lozenge_deg: float
    """How far the cross lines are out of square with the lengths, positive where the right side is further back."""


class TapedFrame(Frozen):
    """What the lengths between frame points say; the worst suspect is left out of the points."""

    network: Network
    names: dict[str, str]
    lengths: tuple[TapedLength, ...]
    left_out: int | None
    square: Square | None
    helps: str


def taped_frame(inputs: Inputs, routes: dict[Side, Route]) -> TapedFrame | None:
    """The network of the job's standing lengths; None before there is one between two known points."""
    features = {f.id: f for f in inputs.survey.features}
    entries = [
        e
        for e in standing(inputs.as_built.entries)
        if isinstance(e, LengthEntry) and {e.start.feature_id, e.end.feature_id} <= features.keys()
    ]
    planned = {
        f"{f.id}/{side}": (routes[side].x_at(f.x_mm), _across(inputs, side, routes[side], f.x_mm))
        for f in features.values()
        for side in LEFT_RIGHT
    }
    taped = tuple(
        Taped(e.start.id, e.end.id, e.value_mm, math.hypot(TAPE_MM, e.resolution_mm / math.sqrt(12))) for e in entries
    )
    network = adjust(planned, taped)
    if network is None:
        return None
    suspect = network.suspects[0] if network.suspects else None
    kept = (
        network
        if suspect is None
        else adjust(planned, tuple(t for k, t in enumerate(taped) if k != suspect)) or network
    )
    names = {f"{f.id}/{side}": f"{f.name}, {side}" for f in features.values() for side in LEFT_RIGHT}
    rows = []
    for fit in network.lengths:
        entry, length = entries[fit.index], taped[fit.index]
        rows.append(
            TapedLength(
                entry=entry.number,
                start=length.a,
                end=length.b,
                start_name=names[length.a],
                end_name=names[length.b],
                measured_mm=length.length_mm,
                planned_mm=math.dist(planned[length.a], planned[length.b]),
                off_mm=fit.off_mm,
                control=fit.control,
                blunder_mm=fit.blunder_mm,
                suspect=fit.index in network.suspects,
            )
        )
    helps = " to ".join(names[p] for p in network.helps)
    points = network.model_copy(update={"points": kept.points})
    return TapedFrame(
        network=points,
        names={p.id: names[p.id] for p in points.points},
        lengths=tuple(rows),
        left_out=None if suspect is None else entries[suspect].number,
        square=_square(kept, planned),
        helps=helps,
    )


def _across(inputs: Inputs, side: Side, route: Route, x_mm: float) -> float:
    """The web's outer face in plan, left negative, mm."""
    moved = float(route.shift(np.array([x_mm])).inward[0])
    return (-1.0 if side == "left" else 1.0) * (inputs.survey.rails.of(side).web_y_mm - moved)


def _square(network: Network, planned: dict[str, tuple[float, float]]) -> Square | None:
    at = {p.id: (p.x_mm, p.y_mm) for p in network.points}
    pairs = sorted(
        (planned[f"{name}/left"][0], name)
        for name in {p.id.split("/")[0] for p in network.points}
        if {f"{name}/left", f"{name}/right"} <= at.keys()
    )
    if len(pairs) < 2 or network.loose:
        return None
    front, rear = pairs[0][1], pairs[-1][1]

    def diagonals(of: dict[str, tuple[float, float]]) -> tuple[float, float]:
        return math.dist(of[f"{front}/left"], of[f"{rear}/right"]), math.dist(of[f"{front}/right"], of[f"{rear}/left"])

    one, other = diagonals(at)
    wanted = diagonals(planned)
    along = math.atan2(*(sum(at[f"{rear}/{s}"][k] - at[f"{front}/{s}"][k] for s in LEFT_RIGHT) for k in (1, 0)))
    skew = [
        math.atan2(at[f"{n}/right"][0] - at[f"{n}/left"][0], at[f"{n}/right"][1] - at[f"{n}/left"][1]) + along
        for _, n in pairs
    ]
    return Square(
        front=front,
        rear=rear,
        left_to_right_mm=one,
        right_to_left_mm=other,
        off_mm=(one - other) - (wanted[0] - wanted[1]),
        lozenge_deg=math.degrees(sum(skew) / len(skew)),
    )


def taped_checks(inputs: Inputs, frame: TapedFrame | None) -> list[Check]:
    """Whether every length fits the others, and whether the frame is square; nothing before anything was taped."""
    if frame is None:
        return []
    limits = inputs.design.limits
    worst = max(frame.network.lengths, key=lambda fit: fit.out)
    row = frame.lengths[frame.network.lengths.index(worst)]
    if frame.network.redundancy < 1 or frame.network.loose:
        fits = not_computed("tape-fits", PROVE, (), limits)
        words = "Too few lengths to control each other: tape both diagonals of every bay, and a few over two bays."
        out = [fits.model_copy(update={"remedy": words})]
    else:
        values = {"off": abs(worst.off_mm), "spread": abs(worst.off_mm) / max(worst.out, 1e-12)}
        check = judge(
            "tape-fits",
            PROVE,
            worst.out,
            Why(formula="off / spread", values=values, words=f"{row.start_name} to {row.end_name}, entry {row.entry}"),
            limits,
            remedy=f"Tape {row.start_name} to {row.end_name} again and take entry {row.entry} back.",
        )
        out = [check.model_copy(update={"said": _told(row, frame)})]
    if frame.square is not None:
        off = abs(frame.square.off_mm)
        values = {"one": frame.square.left_to_right_mm, "other": frame.square.right_to_left_mm}
        values["planned"] = values["one"] - values["other"] - frame.square.off_mm
        why = Why(formula="abs(one - other - planned)", values=values, words="of the foremost and rearmost points")
        remedy = "Rack it square with a chain before anything more is welded, then tape again."
        out.append(judge("frame-square", PROVE, off, why, limits, remedy=remedy))
    return out


def _told(row: TapedLength, frame: TapedFrame) -> Said:
    if frame.left_out is None:
        return said(
            "the worst of {n} is {off} out", n=(float(len(frame.lengths)), "count"), off=(abs(row.off_mm), "length")
        )
    others = sum(other.suspect for other in frame.lengths) - 1
    more = f", or one of {others} that it cannot be told from" if others else ""
    where = f"{row.start_name} to {row.end_name}: "
    return said(where + "about {off} wrong" + more, off=(abs(row.blunder_mm or row.off_mm), "length"))
