"""Every part that sets a size of the design: it is in hand, the right variant, and measured, before metal is cut."""

from collections.abc import Iterator

from nodulant.asbuilt.log import in_hand
from nodulant.axles.springs import AirSpring, Coilover, LeafPack, TorsionBar
from nodulant.axles.suspension import Suspension
from nodulant.base.model import Frozen
from nodulant.frame.ops.subframes.subframe import Subframe
from nodulant.job.document import Inputs
from nodulant.units.inline import as_length


class PartNeeded(Frozen):
    """A part, what it sets, and what is read on it."""

    key: str
    name: str
    read: str
    """What is measured, against what the design has."""
    here: bool
    said_by: str
    said_at: str
    text: str


def parts_needed(inputs: Inputs) -> tuple[PartNeeded, ...]:
    """Of suspensions with their steering, driveline and subframes; in that order."""
    known = in_hand(inputs.as_built.entries)
    out = []
    for key, name, read in _rows(inputs):
        said = known.get(key)
        out.append(
            PartNeeded(
                key=key,
                name=name,
                read=read,
                here=said is not None and said.here,
                said_by=said.by if said else "",
                said_at=said.at if said else "",
                text=said.text if said else "",
            )
        )
    return tuple(out)


def _rows(inputs: Inputs) -> Iterator[tuple[str, str, str]]:
    design = inputs.design
    for own in design.suspensions:
        yield from _hung(own)
    if design.driveline is not None:
        shaft = design.driveline
        yield (
            "driveline/shaft",
            "propeller shaft",
            f"splines {as_length(shaft.slip_mm)} long, {as_length(shaft.engaged_mm)} of them engaged",
        )
    for op in design.operations:
        if isinstance(op, Subframe):
            yield f"{op.id}/subframe", op.name, "on the bench in its own frame: mounts, pivots, faces, mass"


def _hung(own: Suspension) -> Iterator[tuple[str, str, str]]:
    axle, spring = own.axle, own.springs
    yield f"{axle}/axle", f"{axle} axle and hubs", "tube, hub to hub, bolt pattern, ratio, pads and brackets on it"
    if own.tyre or own.wheel:
        yield f"{axle}/wheel", f"{axle} wheel with its tyre", "width, offset, loaded radius at its pressure"
    if isinstance(spring, Coilover):
        sizes = f"eye to eye open {as_length(spring.open_mm)}, closed {as_length(spring.closed_mm)}; coil free {as_length(spring.free_mm)}"
        yield f"{axle}/coilover", f"{axle} coilover", sizes
    elif isinstance(spring, AirSpring):
        sizes = f"ride height {as_length(spring.ride_mm)}, from {as_length(spring.least_mm)} to {as_length(spring.most_mm)}; bellows {as_length(spring.diameter_mm)} across"
        yield f"{axle}/air-spring", f"{axle} air spring", sizes
    elif isinstance(spring, LeafPack):
        yield (
            f"{axle}/leaf",
            f"{axle} leaf pack",
            f"{as_length(spring.pack_mm)} thick, {spring.leaves} leaves, free bend",
        )
    elif isinstance(spring, TorsionBar):
        sizes = f"{as_length(spring.diameter_mm)} thick, {as_length(spring.length_mm)} between its ends"
        yield f"{axle}/torsion-bar", f"{axle} torsion bar", sizes
    if own.damper is not None:
        sizes = f"eye to eye open {as_length(own.damper.open_mm)}, closed {as_length(own.damper.closed_mm)}"
        yield f"{axle}/damper", f"{axle} damper", sizes
    if own.layout.links():
        yield (
            f"{axle}/joints",
            f"joints and bushings of the {axle} links",
            "bolt, ball, width between its faces, outside",
        )
    if own.stop is not None:
        yield f"{axle}/stop", f"{axle} bump stop", "free height, and height at its load"
    if own.half_shaft is not None:
        yield f"{axle}/half-shaft", f"{axle} half shafts", "length pushed in and pulled out, largest joint angle"
    for k, hose in enumerate(own.hoses):
        yield f"{axle}/hose-{k + 1}", f"{axle} {hose.name}", f"{as_length(hose.length_mm)} between its ends' fittings"
    if own.steering is not None:
        yield f"{axle}/steering", f"{axle} steering gear", "its mounts, its travel or turns, the ends of its rods"
