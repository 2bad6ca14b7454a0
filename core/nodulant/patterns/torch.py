"""A pattern as a torch follows it: half a cut outside the plate, half a cut inside its holes."""

from nodulant.base.errors import InputError
from nodulant.geometry.offset import offset
from nodulant.patterns.pattern import Pattern, Stroke
from nodulant.units.inline import as_thickness

AWAY = {"CUT": 0.5, "HOLE": -0.5}
"""Which way each layer's lines move, in cuts."""


def for_torch(pattern: Pattern, kerf_mm: float) -> tuple[Pattern, str]:
    """The pattern with its cut lines moved, and what is to be said of it; card for scribing stays as it is.

    A hole too small for the cut keeps its size, and that is said: it is drilled.
    """
    if kerf_mm <= 0 or pattern.thickness_mm is None:
        return pattern, ""
    strokes, kept = [], 0
    for stroke in pattern.strokes:
        away = AWAY.get(stroke.layer, 0.0)
        if not away or not stroke.outline.closed:
            strokes.append(stroke)
            continue
        try:
            strokes.append(Stroke(layer=stroke.layer, outline=offset(stroke.outline, away * kerf_mm)))
        except InputError:
            strokes.append(stroke)
            kept += 1
    words = f"cut lines are the middle of a {as_thickness(kerf_mm)} cut"
    if kept:
        words += f"; {kept} {'is' if kept == 1 else 'are'} smaller than it and left to size: drill"
    return pattern.model_copy(update={"strokes": tuple(strokes)}), words
