"""The frame by tape and level as the floor needs it: what can be hooked to, and what was found so far, in sentences."""

from collections.abc import Iterator

from nodulant.asbuilt.log import HUBS
from nodulant.base.model import Frozen
from nodulant.evaluate import Evaluation
from nodulant.parts.sides import LEFT_RIGHT
from nodulant.survey.vehicle import Survey
from nodulant.units.inline import as_deviation


class TapePoint(Frozen):
    """A mark on one side: '<feature>/<side>', and its name."""

    id: str
    name: str
    level: bool
    """Whether a level is read there: hubs have none."""


def tape_points(survey: Survey) -> tuple[TapePoint, ...]:
    """Features on both rails, foremost first, then the hubs."""
    rows = [(f.id, f.name, True) for f in sorted(survey.features, key=lambda f: f.x_mm)]
    rows += [(hub, f"{hub.removeprefix('hub-')} hub", False) for hub in HUBS]
    return tuple(
        TapePoint(id=f"{i}/{s}", name=f"{name}, {s}", level=level) for i, name, level in rows for s in LEFT_RIGHT
    )


def frame_says(found: Evaluation) -> tuple[str, ...]:
    """The wrong length first, then the newest shape of the frame, then what else to tape."""
    return tuple(_says(found))


def _says(found: Evaluation) -> Iterator[str]:
    taped = found.taped
    wrong = None if taped is None else next((r for r in taped.lengths if r.entry == taped.left_out), None)
    if wrong is not None:
        size = as_deviation(wrong.blunder_mm or wrong.off_mm)
        way = "long" if (wrong.blunder_mm or wrong.off_mm) > 0 else "short"
        yield f"{wrong.start_name} to {wrong.end_name} is about {size} too {way}: tape it again."
    for t in found.frame_times[-1:]:
        if t.square is not None:
            yield f"{t.name.capitalize()}: diagonals {as_deviation(t.square.off_mm)} apart, {abs(t.square.lozenge_deg):.2f} deg out of square."
        if t.levels is not None:
            yield f"Twisted by {as_deviation(t.levels.twist_mm)} over its width, sags by {as_deviation(t.levels.sag_mm)}."
        for axle in t.axles:
            way = "right" if axle.thrust_deg > 0 else "left"
            yield f"The {axle.hub} axle points {abs(axle.thrust_deg):.2f} deg to the {way}."
    if taped is not None and taped.helps:
        yield f"Tape {taped.helps} next: it tells most."
