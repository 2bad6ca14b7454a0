"""The frame by tape and level as the floor needs it: what can be hooked to, and what was found so far, in sentences."""

from collections.abc import Iterable, Iterator

from nodulant.asbuilt.log import HUBS, When
from nodulant.base.model import Frozen
from nodulant.evaluate import Evaluation
from nodulant.evaluate.readings.points import Mark
from nodulant.parts.sides import LEFT_RIGHT
from nodulant.survey.vehicle import Survey
from nodulant.units.inline import as_deviation


class TapePoint(Frozen):
    """A mark on one side: '<feature>/<side>', and its name."""

    id: str
    name: str
    level: bool
    """Whether a level is read there: hubs have none."""
    mark: Mark | None = None
    """Where it is; None where that is not known."""


def tape_points(survey: Survey, marks: Iterable[Mark] = ()) -> tuple[TapePoint, ...]:
    """Features on both rails, foremost first, then the hubs."""
    rows = [(f.id, f.name, True) for f in sorted(survey.features, key=lambda f: f.x_mm)]
    rows += [(hub, f"{hub.removeprefix('hub-')} hub", False) for hub in HUBS]
    at = {mark.id: mark for mark in marks}
    return tuple(
        TapePoint(id=f"{i}/{s}", name=f"{name}, {s}", level=level, mark=at.get(f"{i}/{s}"))
        for i, name, level in rows
        for s in LEFT_RIGHT
    )


class FrameSays(Frozen):
    """A sentence, and the two points, by id, between which it wants a tape; none where it wants nothing."""

    words: str
    tape: tuple[str, ...] = ()
    when: When = ""
    """When the others were taped."""


def frame_says(found: Evaluation, survey: Survey) -> tuple[FrameSays, ...]:
    """The wrong length first, then the newest shape of the frame, then what else to tape."""
    return tuple(_says(found, {p.id: p.name for p in tape_points(survey)}))


def _says(found: Evaluation, names: dict[str, str]) -> Iterator[FrameSays]:
    for words, tape in _wanted(found, names):
        yield FrameSays(words=words, tape=tape, when=found.taped.when if found.taped else "")


def _wanted(found: Evaluation, names: dict[str, str]) -> Iterator[tuple[str, tuple[str, ...]]]:
    taped = found.taped
    wrong = None if taped is None else next((r for r in taped.lengths if r.entry == taped.left_out), None)
    if wrong is not None:
        size = as_deviation(wrong.blunder_mm or wrong.off_mm)
        way = "long" if (wrong.blunder_mm or wrong.off_mm) > 0 else "short"
        words = f"{wrong.start_name} to {wrong.end_name} is about {size} too {way}: tape it again."
        yield words, (wrong.start, wrong.end)
    for number in taped.replaced if taped else ():
        yield f"Entry {number} did not fit and was taped again: the later length counts.", ()
    for t in found.frame_times[-1:]:
        if t.square is not None:
            yield (
                f"{t.name.capitalize()}: diagonals {as_deviation(t.square.off_mm)} apart, {abs(t.square.lozenge_deg):.2f} deg out of square.",
                (),
            )
        if t.levels is not None:
            twist, sag = as_deviation(t.levels.twist_mm), as_deviation(t.levels.sag_mm)
            yield f"Twisted by {twist} over its width, sags by {sag}.", ()
        for axle in t.axles:
            way = "right" if axle.thrust_deg > 0 else "left"
            yield f"The {axle.hub} axle points {abs(axle.thrust_deg):.2f} deg to the {way}.", ()
    if taped is not None and taped.helps:
        yield f"{' to '.join(names.get(p, p) for p in taped.helps)} tells most: tape it next.", taped.helps
