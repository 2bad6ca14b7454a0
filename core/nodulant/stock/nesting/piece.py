"""What is laid out: every flat plate of a design as its pattern draws it, and where it lies."""

from shapely import Polygon
from shapely.affinity import rotate, translate

from nodulant.base.model import Frozen
from nodulant.geometry import Outline
from nodulant.job.document import Inputs
from nodulant.parts.sides import Side
from nodulant.patterns.collect import patterns_of
from nodulant.patterns.pattern import Pattern
from nodulant.stock.needs import plates_of

CHORD_MM = 0.1
"""How near a laid-out outline follows an arc."""


class NestPiece(Frozen):
    """Equal plates: outline and holes as they are cut, mm."""

    id: str
    name: str
    side: Side
    thickness_mm: float
    steel_id: str
    outline: Outline
    holes: tuple[Outline, ...] = ()
    count: int = 1
    operation: str = ""
    """The work that it is made for, by name."""

    def shape(self) -> Polygon:
        """The outline as a polygon; holes are not used for other pieces."""
        return Polygon(self.outline.points(CHORD_MM))


class Laid(Frozen):
    """One plate on its sheet: turned about (0, 0) of its pattern, then moved there; mm, degrees."""

    piece_id: str
    name: str
    side: Side
    x_mm: float
    y_mm: float
    turned_deg: float
    outline: Outline
    holes: tuple[Outline, ...]
    operation: str = ""

    def shape(self) -> Polygon:
        """Where it lies, as a polygon."""
        return Polygon(self.outline.points(CHORD_MM))


def laid(piece: NestPiece, x_mm: float, y_mm: float, turned_deg: float) -> Laid:
    """A plate put down."""

    def there(line: Outline) -> Outline:
        return line.turned(turned_deg, 0.0, 0.0).moved(x_mm, y_mm)

    return Laid(
        piece_id=piece.id,
        name=piece.name,
        side=piece.side,
        x_mm=x_mm,
        y_mm=y_mm,
        turned_deg=turned_deg,
        outline=there(piece.outline),
        holes=tuple(there(h) for h in piece.holes),
        operation=piece.operation,
    )


def placed_shape(shape: Polygon, x_mm: float, y_mm: float, turned_deg: float) -> Polygon:
    """A polygon turned about (0, 0), then moved."""
    return translate(rotate(shape, turned_deg, origin=(0, 0)), x_mm, y_mm)


def quarters(*, grain: bool) -> tuple[float, ...]:
    """Turns in which a plate may lie, degrees; along the grain only head to tail."""
    return (0.0, 180.0) if grain else (0.0, 180.0, 90.0, 270.0)


def nest_pieces(inputs: Inputs) -> tuple[NestPiece, ...]:
    """Every plate of both sides that is cut from sheet, at its true outline; raises InputError."""
    names = {op.id: op.name for op in inputs.design.operations}
    counts = {part.id: (part.steel_id, part.count, names[part.operation]) for part in plates_of(inputs)}
    found = (
        _piece(p, *counts[p.part_id])
        for p in patterns_of(inputs.survey, inputs.design.operations)
        if p.part_id in counts
    )
    return tuple(piece for piece in found if piece is not None)


def _piece(pattern: Pattern, steel_id: str, count: int, operation: str) -> NestPiece | None:
    drawn = pattern.at_origin()
    cuts = [s.outline for s in drawn.strokes if s.layer == "CUT" and s.outline.closed]
    if not cuts or pattern.thickness_mm is None:
        return None
    outer = max(cuts, key=lambda line: abs(line.area_mm2()))
    return NestPiece(
        id=pattern.id,
        name=pattern.title,
        side=pattern.side,
        thickness_mm=pattern.thickness_mm,
        steel_id=steel_id,
        outline=outer,
        holes=tuple(
            s.outline for s in drawn.strokes if s.layer == "HOLE" or (s.layer == "CUT" and s.outline is not outer)
        ),
        count=count,
        operation=operation,
    )
