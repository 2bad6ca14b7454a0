"""Every part and seam that the operations add to one rail."""

from dataclasses import dataclass

from nodulant.frame.columns import rail_at
from nodulant.frame.model import Placed
from nodulant.frame.ops.boxing import Boxing
from nodulant.frame.ops.boxing_parts import boxing_outline, boxing_part, boxing_seam
from nodulant.frame.ops.notch import Notch
from nodulant.frame.ops.notch_parts import RailHere, notch_parts, notch_seams
from nodulant.parts.part import Part, Seam
from nodulant.parts.sides import Side
from nodulant.survey.vehicle import Survey


@dataclass(frozen=True)
class Added:
    """Parts and seams of one rail."""

    parts: tuple[Part, ...]
    seams: tuple[Seam, ...]


def rail_here(survey: Survey, side: Side, centre_mm: float, placed: list[Placed]) -> RailHere:
    """The rail at one station, with the width that a boxing plate closes it to."""
    underside, height, width, wall = rail_at(survey.rails.of(side), centre_mm)
    boxes = [p.op for p in placed if isinstance(p.op, Boxing) and p.start_mm <= centre_mm <= p.end_mm]
    closed = max([width, *(width - box.set_in_mm() for box in boxes)])
    return RailHere(centre_mm, underside, height, width, wall, closed)


def added_parts(survey: Survey, side: Side, placed: list[Placed]) -> Added:
    """Parts and seams of every operation on ``side``."""
    parts: list[Part] = []
    seams: list[Seam] = []
    notches = [(p.op, p.centre_mm) for p in placed if isinstance(p.op, Notch)]
    for p in placed:
        if isinstance(p.op, Notch):
            own = notch_parts(p.op, side, rail_here(survey, side, p.centre_mm, placed))
            parts += own
            seams += notch_seams(p.op, side, own)
        else:
            outline = boxing_outline(p.op, p.start_mm, p.end_mm, survey.rails.of(side), notches)
            part = boxing_part(p.op, side, outline)
            parts.append(part)
            seams.append(boxing_seam(p.op, side, part))
    return Added(tuple(parts), tuple(seams))
