"""One flat pattern: outlines by layer, marks and text, in mm.

Layers: CUT (to size), HOLE, BEND, ETCH (marks and text). x runs rearward, y up. A right-hand
pattern is drawn as seen from outside the vehicle on the left, a mirrored one carries R.
"""

from typing import Literal

from nodulant.base.model import Frozen
from nodulant.drawn.dimension import Callout, Dimension
from nodulant.geometry import Outline
from nodulant.parts.sides import Side

Layer = Literal["CUT", "HOLE", "BEND", "ETCH"]


class Stroke(Frozen):
    """An outline on a layer."""

    layer: Layer
    outline: Outline


class Label(Frozen):
    """Etched text at a point, with its height, mm."""

    text: str
    x: float
    y: float
    height_mm: float = 5.0


class Pattern(Frozen):
    """A pattern of one part and side."""

    id: str
    title: str
    side: Side
    part_id: str | None
    thickness_mm: float | None
    steel: str
    strokes: tuple[Stroke, ...]
    labels: tuple[Label, ...]
    dimensions: tuple[Dimension, ...]
    datum: str
    callouts: tuple[Callout, ...] = ()
    count: int = 1
    """How many are cut of it."""
    hangs_on: tuple[str, ...] = ()
    """Surveyed places on the frame that it is placed by."""
    after: str = ""
    """How its scribed lines lie once the rail is joined again."""
    formed: str = ""
    """How it is bent or rolled, and which way."""
    missing: str = ""
    """What was to be surveyed, where it hangs on nothing."""

    def bounds(self) -> tuple[float, float, float, float]:
        """(x min, y min, x max, y max) of all strokes, mm."""
        boxes = [stroke.outline.bounds() for stroke in self.strokes]
        return min(b[0] for b in boxes), min(b[1] for b in boxes), max(b[2] for b in boxes), max(b[3] for b in boxes)

    def scaled(self, by: float) -> "Pattern":
        """The same pattern in another unit: every coordinate times ``by``, sizes in words as they are."""
        strokes = tuple(s.model_copy(update={"outline": s.outline.scaled(by)}) for s in self.strokes)
        labels = tuple(
            t.model_copy(update={"x": t.x * by, "y": t.y * by, "height_mm": t.height_mm * by}) for t in self.labels
        )
        measured = {
            "dimensions": tuple(d.scaled(by) for d in self.dimensions),
            "callouts": tuple(c.scaled(by) for c in self.callouts),
        }
        return self.model_copy(update={"strokes": strokes, "labels": labels, **measured})

    def at_origin(self) -> "Pattern":
        """The same pattern moved so that its lower left corner is (0, 0)."""
        x, y, _, _ = self.bounds()
        strokes = tuple(s.model_copy(update={"outline": s.outline.moved(-x, -y)}) for s in self.strokes)
        labels = tuple(t.model_copy(update={"x": t.x - x, "y": t.y - y}) for t in self.labels)
        measured = {
            "dimensions": tuple(d.moved(-x, -y) for d in self.dimensions),
            "callouts": tuple(c.moved(-x, -y) for c in self.callouts),
        }
        return self.model_copy(update={"strokes": strokes, "labels": labels, **measured})
