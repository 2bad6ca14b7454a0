"""How straight the rails still are where something was welded to them: a string before, and again when it is cold."""

from nodulant.asbuilt.compare import AskedReading, Known
from nodulant.frame.ops.union import Operation
from nodulant.parts.sides import on_sides
from nodulant.parts.specs import reading

STRING = "a string along the rail, from one metre ahead to one metre behind, the same as before the weld"


def straight_readings(operations: tuple[Operation, ...], known: Known) -> list[AskedReading]:
    """Of every rail that is cut or closed, after less before: up and outward."""
    out = []
    for op in operations:
        if op.one_piece or not any({"cuts", "shuts"} & set(s.acts) for s in op.steps("")):
            continue
        for side in on_sides(op.side):
            for key, way in (("bow-up", "up"), ("bow-out-across", "outward")):
                name = f"Rail bowed {way} by the weld"
                out.append(
                    known.asked(op.id, side, reading(key, name, 0.0, STRING, "as-built-straight", extra=True), op.name)
                )
    return out
