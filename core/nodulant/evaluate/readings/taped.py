"""The frame as it was taped: its points by least squares, and the reading that does not fit."""

import math

from nodulant.asbuilt.log import LengthEntry, When, standing
from nodulant.asbuilt.network import Network, Taped, adjust
from nodulant.base.model import Frozen
from nodulant.checks.check import Check, Subject, Why, judge, not_computed
from nodulant.evaluate.readings.points import FramePoints
from nodulant.evaluate.readings.shape import Square, square_of
from nodulant.job.document import Inputs
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


class TapedFrame(Frozen):
    """What the lengths between frame points say; the worst suspect is left out of the points."""

    when: When
    network: Network
    names: dict[str, str]
    lengths: tuple[TapedLength, ...]
    left_out: int | None
    square: Square | None
    helps: tuple[str, ...]
    """The two points between which a length tells most, by id; none where nothing more is wanted."""
    replaced: tuple[int, ...] = ()
    """Entries that did not fit and were taped again since: the later one counts."""


def taped_frame(inputs: Inputs, points: FramePoints, when: When, replaced: tuple[int, ...] = ()) -> TapedFrame | None:
    """The network of the standing lengths taken then; None before there is one between two known points.

    A length that does not fit and was taped again since gives way to the later one; ``replaced`` did so.
    """
    entries = [
        e
        for e in standing(inputs.as_built.entries)
        if isinstance(e, LengthEntry) and e.when == when and e.number not in replaced
        if {e.start.id, e.end.id} <= points.names.keys()
    ]
    planned, names = points.plan(when), points.names
    taped = tuple(
        Taped(e.start.id, e.end.id, e.value, math.hypot(TAPE_MM, e.resolution / math.sqrt(12))) for e in entries
    )
    network = adjust(planned, taped, points.hubs)
    if network is None:
        return None
    suspect = network.suspects[0] if network.suspects else None
    if suspect is not None and any(_same_ends(entries[suspect], e) for e in entries[suspect + 1 :]):
        return taped_frame(inputs, points, when, (*replaced, entries[suspect].number))
    kept = network
    if suspect is not None:
        others = tuple(t for k, t in enumerate(taped) if k != suspect)
        kept = adjust(planned, others, points.hubs) or network
    rows = tuple(
        TapedLength(
            entry=entries[fit.index].number,
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
        for fit in network.lengths
        for length in (taped[fit.index],)
    )
    placed = network.model_copy(update={"points": kept.points})
    return TapedFrame(
        when=when,
        network=placed,
        names={p.id: names[p.id] for p in placed.points},
        lengths=rows,
        left_out=None if suspect is None else entries[suspect].number,
        square=square_of(kept, planned),
        helps=network.helps,
        replaced=replaced,
    )


def _same_ends(one: LengthEntry, other: LengthEntry) -> bool:
    return {one.start.id, one.end.id} == {other.start.id, other.end.id}


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
            remedy=f"Tape {row.start_name} to {row.end_name} again: entry {row.entry} gives way to what is read then.",
        )
        out = [check.model_copy(update={"said": _told(row, frame)})]
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
