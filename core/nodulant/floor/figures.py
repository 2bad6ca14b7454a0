"""The numbers that a step needs at hand: where, how deep or long, and what is laid down."""

from collections.abc import Iterable, Mapping, Sequence

from nodulant.asbuilt.compare import AskedReading
from nodulant.assembly.sheet import AssemblySheet, WeldRow
from nodulant.base.model import Frozen
from nodulant.build.plan import Step
from nodulant.frame.ops.union import Operation
from nodulant.gauges.gauge import Gauge
from nodulant.units.inline import as_length, as_place, as_thickness

MOST = 2


class FloorFigure(Frozen):
    """One number with its name, told in the job's unit."""

    name: str
    value: str


def place_of(operation: Operation | None, datums: Mapping[str, str]) -> str:
    """From which datum an operation's place is measured, and how far."""
    if operation is None:
        return ""
    place = operation.anchor
    return f"{as_place(place.offset_mm)} {datums.get(place.anchor_id, place.anchor_id)}"


def figures_of(
    step: Step,
    sheet: AssemblySheet | None,
    seams: frozenset[int],
    asked: Sequence[AskedReading],
    gauges: Sequence[Gauge],
) -> tuple[FloorFigure, ...]:
    """At most two beside its place: of the seams that it welds, or its readings and gauges. A step of the job has none."""
    if step.operation is None:
        return ()
    if sheet is not None and seams:
        return tuple(_welds([w for w in sheet.welds if w.number in seams], step.side))
    return tuple([*_readings(step, asked), *_sizes(gauges)][:MOST])


def _welds(welds: Iterable[WeldRow], side: str | None) -> list[FloorFigure]:
    own = [w for w in welds if "both" in {side, w.side} or w.side == side]
    legs = sorted({w.leg_mm for w in own if w.kind == "fillet"})
    out = []
    if legs:
        value = as_thickness(legs[0]) if len(legs) == 1 else f"{as_thickness(legs[0])} to {as_thickness(legs[-1])}"
        out.append(FloorFigure(name="fillet leg", value=value))
    beads = sum(w.total_mm if side == "both" else w.bead_mm for w in own)
    out.append(FloorFigure(name="weld in all", value=as_length(beads)))
    return out


def _readings(step: Step, asked: Iterable[AskedReading]) -> list[FloorFigure]:
    """Its hold point's reading first, then the operation's others; thicknesses of plates last; its place stands before them."""
    own = [
        a for a in asked if a.operation == step.operation and step.side in {a.side, "both"} and a.spec.key != "position"
    ]
    first = step.spec.hold.reading if step.spec.hold else None
    own.sort(key=lambda a: (a.spec.key != first, a.spec.key.endswith("thickness")))
    seen: dict[str, FloorFigure] = {}
    for a in own:
        thin = a.spec.key.endswith("thickness")
        value = as_thickness(a.spec.planned) if thin else as_length(a.spec.planned)
        if a.spec.unit != "mm":
            value = f"{a.spec.planned:.1f} {a.spec.unit}"
        seen.setdefault(a.spec.key, FloorFigure(name=a.spec.name.lower(), value=value))
    return list(seen.values())


def _sizes(gauges: Iterable[Gauge]) -> list[FloorFigure]:
    return [FloorFigure(name=g.name, value=g.size) for g in gauges if g.size]
