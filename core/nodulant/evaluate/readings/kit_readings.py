"""Plates as they lie in hand, before anything is cut: a kit's are not what the drawing has until a tape says so."""

from collections.abc import Iterable

from nodulant.asbuilt.compare import IN_HAND, AskedReading, Known
from nodulant.frame.ops.union import Operation
from nodulant.parts.part import Part
from nodulant.parts.specs import reading

LIMIT = "kit-plate"
LAID, LEAST_MM = frozenset({"outer", "inner"}), 200.0
"""Faces of the rail, and plates that are worth the tape; smaller ones are cut to what is there (common practice)."""
WAYS = (("long", "length", 0, "end to end"), ("high", "width", 1, "edge to edge"))


def kit_readings(operations: tuple[Operation, ...], parts: Iterable[Part], known: Known) -> list[AskedReading]:
    """Length and width of every plate that is laid over a rail's side; of two that are alike, once."""
    names = {op.id: op.name for op in operations}
    out, seen = [], set[tuple[str, str, int, int]]()
    for part in parts:
        x0, y0, x1, y1 = part.outline.bounds()
        sizes = (x1 - x0, y1 - y0)
        alike = (part.operation, part.role, round(sizes[0]), round(sizes[1]))
        if part.operation not in names or alike in seen or part.face not in LAID or sizes[0] < LEAST_MM:
            continue
        seen.add(alike)
        for key, name, k, datum in WAYS:
            spec = reading(
                f"{IN_HAND}{part.role[:28]}-{key}",
                f"{part.name} in hand: {name}",
                sizes[k],
                datum,
                LIMIT,
                extra=True,
            )
            out.append(known.asked(part.operation, part.side, spec, names[part.operation]))
    return out


def misfits(asked: Iterable[AskedReading]) -> list[str]:
    """Plates in hand that will not lie as they are planned."""
    return [r.spec.name for r in asked if r.spec.limit_id == LIMIT and r.answer == "fails"]
