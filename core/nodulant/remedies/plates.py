"""Changes of the plates, welds and shape of one operation: what a fabricator would try next."""

import math
from collections.abc import Iterable, Iterator, Sequence

import numpy as np
from pydantic import ValidationError

from nodulant.base.errors import NodulantError
from nodulant.frame.here import OnRail
from nodulant.frame.ops.hole import WebHole
from nodulant.frame.ops.mounts.bracket import Bracket, BracketGusset
from nodulant.frame.ops.notches.notch import Cap, Liner, Notch, SidePlate
from nodulant.frame.ops.notches.notch_shape import ArcShape, NotchShape, TrapezoidShape
from nodulant.frame.ops.plates.boxing import Boxing
from nodulant.frame.ops.plates.plate import Doubler
from nodulant.frame.ops.pockets.raise_into import Raise
from nodulant.frame.ops.subframes.subframe import Subframe, lift_to_meet
from nodulant.frame.ops.through.narrow import Narrow
from nodulant.frame.ops.through.splice import Splice
from nodulant.frame.ops.through.splice_plates import overlap_needed
from nodulant.frame.ops.through.stretch import Stretch
from nodulant.frame.ops.through.zstep import Gusset, ZStep
from nodulant.frame.ops.union import Operation
from nodulant.frame.place import Place
from nodulant.materials.weld import least_leg_mm, most_leg_mm
from nodulant.remedies.patch import Patch
from nodulant.search.boxing_sets import fillet_mm, weldable_with
from nodulant.search.plate_sets import overlap_for, with_room_for
from nodulant.targets.notch_needed import NotchNeeded
from nodulant.units.said import Kind, Said, said

ROLES = {"liner": "liner", "outer_plate": "outer plate", "inner_plate": "inner plate", "cap": "cap"}
CORNER_MM = 12.0
LONGER_MM, DEEPER, WIDER = 150.0, 1.25, 1.3
CROSSMEMBERS = 3
LONGER = (1.0, 1.04, 1.1, 1.2)
"""Overlaps that are tried, over what is needed."""


def changes_of(op: Operation, on: OnRail, rack: tuple[float, ...], caps: tuple[float, ...]) -> Iterator[Patch]:
    """Every single change of one operation that may help it."""
    if isinstance(op, Notch):
        yield from _notch(op, on, rack, caps)
    elif isinstance(op, Boxing):
        yield from _boxing(op, on, rack)
    elif isinstance(op, ZStep | Splice | Stretch | Narrow):
        yield from _cut_through(op, on, rack)
    elif isinstance(op, Raise):
        yield from _thicker(op, ("floor_mm", "box_mm"), {"floor_mm": "floor", "box_mm": "box on top"}, on, rack)
        yield from _set(op, "overlap of the box", {"overlap_mm": op.overlap_mm + LONGER_MM}, op.overlap_mm + LONGER_MM)
        yield from _corner(op, op.corner_radius_mm, {"corner_radius_mm": CORNER_MM})
    elif isinstance(op, Bracket):
        yield from _bracket(op, on, rack)
    elif isinstance(op, WebHole):
        middle = on.here.height / 2
        if abs(op.height_mm - middle) > 1:
            yield from _set(op, "hole in the middle of the web, up", {"height_mm": middle}, middle)
    elif isinstance(op, Subframe):
        yield from _subframe(op, on)
    elif isinstance(op, Doubler):
        yield from _doubler(op, on, rack)
    else:
        yield from _thicker(op, ("thickness_mm", "plate_mm", "wall_mm"), {}, on, rack)
    yield from _legs(op, on)


def _set(op: Operation, name: str, update: dict[str, object], value: float, kind: Kind = "length") -> Iterator[Patch]:
    """The operation with some fields changed, where it can be so."""
    yield from _made(op, update, said(f"{op.name}: {name} {{value}}", value=(value, kind)))


def _made(op: Operation, update: dict[str, object], words: Said) -> Iterator[Patch]:
    own = {name: getattr(op, name) for name in type(op).model_fields}
    try:
        made = type(op).model_validate({**own, **update})
    except (ValidationError, NodulantError):
        return
    if made != op:
        yield Patch(clauses=(words,), changed=(made,))


def next_up(rack: tuple[float, ...], now: float, wall: float = 0.0) -> float | None:
    """The next thickness of the rack that its welds allow."""
    return next((t for t in sorted(rack) if t > now + 1e-6 and weldable_with(t, wall)), None)


def _thicker(
    op: Operation, fields: tuple[str, ...], names: dict[str, str], on: OnRail, rack: tuple[float, ...]
) -> Iterator[Patch]:
    for field in fields:
        now = getattr(op, field, None)
        if isinstance(now, int | float) and (t := next_up(rack, now, on.here.wall)) is not None:
            yield from _set(op, names.get(field, "metal"), {field: t}, t, "thickness")


def _notch(op: Notch, on: OnRail, rack: tuple[float, ...], caps: tuple[float, ...]) -> Iterator[Patch]:
    here = on.here
    flat = {"liner", "cap"} if here.round else set(ROLES)
    for field in [role for role in ROLES if role in flat]:
        plate = getattr(op, field)
        if op.bolts is not None and field == "cap":
            continue
        now = plate.thickness_mm if plate is not None else 0.0
        t = next_up(rack, max(now, 0.0), here.wall)
        if t is None:
            continue
        made = _plate(op, field, t, on, caps)
        room: dict[str, object] = {}
        if field == "liner":
            grown = with_room_for(op, t)
            room = {"shape": grown.shape, "depth_mm": grown.depth_mm}
        if made is not None:
            verb = "" if plate is None else "thicker "
            words = said(f"{op.name}: {verb}{ROLES[field]} {{value}}", value=(t, "thickness"))
            yield from _made(op, {field: made, **room}, words)
    yield from _weldable(op, on, rack, caps)
    if op.cap is not None and (high := next((h for h in sorted(caps) if h > op.cap.height_mm + 1), None)):
        cap = op.cap.model_copy(update={"height_mm": high})
        cap = cap.model_copy(update={"overlap_mm": overlap_for(cap, on.here)})
        yield from _set(op, "higher cap", {"cap": cap}, high)
    yield from _overlaps(op, on)
    if isinstance(op.shape, ArcShape):
        mouth = 2 * op.half_mouth_mm
        shape = TrapezoidShape(top_width_mm=mouth, mouth_width_mm=mouth, corner_radius_mm=CORNER_MM)
        yield from _made(op, {"shape": shape}, said(f"{op.name}: cut straight-sided, with a flat liner"))
    else:
        shape = op.shape.model_copy(update={"corner_radius_mm": CORNER_MM})
        yield from _corner(op, op.shape.corner_radius_mm, {"shape": shape})
    if op.bolts is not None:
        n = op.bolts.per_end + 2
        edge = max(op.bolts.edge_mm, 2.0 * op.bolts.bolt().size.diameter_mm)
        more = op.bolts.model_copy(update={"per_end": n, "edge_mm": edge, "sleeves": True})
        yield from _set(op, "bolts an end", {"bolts": more}, float(n), "count")


def as_needed(op: Notch, needed: Sequence[NotchNeeded]) -> Iterator[Patch]:
    """The cut as deep and as wide as the axle's travel asks for, on both sides alike."""
    arc = isinstance(op.shape, ArcShape)
    depth = max((n.arc_depth_mm if arc else n.depth_mm for n in needed), default=0.0)
    if depth <= 0:
        return
    depth = max(op.depth_mm, math.ceil(depth))
    width, radius = max(n.width_mm for n in needed), max(n.radius_mm for n in needed)
    if isinstance(op.shape, ArcShape):
        shape: NotchShape = op.shape.model_copy(update={"radius_mm": max(op.shape.radius_mm, float(math.ceil(radius)))})
    else:
        more = max(math.ceil(width) - op.shape.mouth_width_mm, 0.0)
        wider = {"mouth_width_mm": op.shape.mouth_width_mm + more, "top_width_mm": op.shape.top_width_mm + more}
        shape = op.shape.model_copy(update=wider)
    words = said(f"{op.name}: cut as the travel asks, {{depth}} deep", depth=(depth, "length"))
    yield from _made(op, {"depth_mm": depth, "shape": shape}, words)


def _plate(op: Notch, field: str, t: float, on: OnRail, caps: tuple[float, ...]) -> Liner | SidePlate | Cap | None:
    old, leg = getattr(op, field), fillet_mm(t, on.here.wall)
    if field == "liner":
        base = old or Liner(thickness_mm=t)
        return base.model_copy(update={"thickness_mm": t, "weld_leg_mm": leg})
    if field == "cap":
        base = old or (Cap(height_mm=min(caps), thickness_mm=t, overlap_mm=0) if caps else None)
        if base is None:
            return None
    else:
        base = old or SidePlate(thickness_mm=t, overlap_mm=0)
    made = base.model_copy(update={"thickness_mm": t, "weld_leg_mm": leg})
    return made.model_copy(update={"overlap_mm": max(overlap_for(made, on.here), made.overlap_mm)})


def _weldable(op: Notch, on: OnRail, rack: tuple[float, ...], caps: tuple[float, ...]) -> Iterator[Patch]:
    """Every plate that is too thin for the leg that the rail's wall asks for, thick enough at once; legs to suit."""
    update: dict[str, object] = {}
    thickest = 0.0
    for field in ROLES:
        plate = getattr(op, field)
        if plate is None or op.bolts is not None:
            continue
        thin = not weldable_with(plate.thickness_mm, on.here.wall)
        t = next_up(rack, plate.thickness_mm, on.here.wall) if thin else plate.thickness_mm
        if t is None:
            return
        made = _plate(op, field, t, on, caps)
        if made is not None and (thin or plate.weld_leg_mm != made.weld_leg_mm):
            update[field], thickest = made, max(thickest, t)
    if update:
        yield from _set(op, "plates and welds that suit the rail's wall, to", update, thickest, "thickness")


def _overlaps(op: Notch, on: OnRail) -> Iterator[Patch]:
    """All plates as long as they need or a little longer, clear of what lies at their ends, which no weld crosses square."""
    for longer in LONGER:
        made: dict[str, SidePlate | Cap] = {}
        for field in ("outer_plate", "inner_plate", "cap"):
            plate = getattr(op, field)
            if plate is None:
                continue
            own = plate.model_copy(update={"end": "taper"} if plate.end == "square" else {})
            wanted = float(np.ceil(longer * overlap_for(own, on.here)))
            own = own.model_copy(update={"overlap_mm": max(plate.overlap_mm, wanted)})
            if own != plate:
                made[field] = own
        if made:
            update: dict[str, object] = {**made}
            yield from _set(op, "plates past the cut by", update, max(p.overlap_mm for p in made.values()))


def _corner(op: Operation, now: float, update: dict[str, object]) -> Iterator[Patch]:
    if now < CORNER_MM:
        yield from _set(op, "corners drilled to a radius of", update, CORNER_MM)


def _boxing(op: Boxing, on: OnRail, rack: tuple[float, ...]) -> Iterator[Patch]:
    yield from _thicker(op, ("thickness_mm",), {"thickness_mm": "boxing plate"}, on, rack)
    if op.seam == "stitch":
        yield from _made(op, {"seam": "full"}, said(f"{op.name}: a full seam in place of stitches"))
    reach = 2 * on.here.height
    start = max(op.start.offset_mm - reach, op.start.offset_mm - (on.span.start_mm - on.rail.start_mm) + 1)
    end = min(op.end.offset_mm + reach, op.end.offset_mm + (on.rail.end_mm - on.span.end_mm) - 1)
    update: dict[str, object] = {
        "start": Place(anchor_id=op.start.anchor_id, offset_mm=start),
        "end": Place(anchor_id=op.end.anchor_id, offset_mm=end),
    }
    yield from _set(op, "longer at both ends by", update, reach)


def to_crossmembers(op: Boxing, on: OnRail, stations_mm: Iterable[float]) -> Iterator[Patch]:
    """One end of a boxing plate carried to the next crossmembers beyond it, where an open rail is held against warping."""
    ahead = sorted((x for x in stations_mm if on.rail.start_mm < x < on.span.start_mm - 1), reverse=True)
    behind = sorted(x for x in stations_mm if on.span.end_mm + 1 < x < on.rail.end_mm)
    for x in ahead[:CROSSMEMBERS]:
        to = Place(anchor_id=op.start.anchor_id, offset_mm=op.start.offset_mm - (on.span.start_mm - x))
        yield from _set(op, "carried forward to the crossmember at", {"start": to}, x)
    for x in behind[:CROSSMEMBERS]:
        to = Place(anchor_id=op.end.anchor_id, offset_mm=op.end.offset_mm + (x - on.span.end_mm))
        yield from _set(op, "carried back to the crossmember at", {"end": to}, x)


def _cut_through(op: ZStep | Splice | Stretch | Narrow, on: OnRail, rack: tuple[float, ...]) -> Iterator[Patch]:
    if not isinstance(op, Splice):
        box = op.box
        if (t := next_up(rack, box.wall_mm)) is not None:
            yield from _set(op, "wall of the piece", {"box": box.model_copy(update={"wall_mm": t})}, t, "thickness")
        if box.profile == "channel":
            update: dict[str, object] = {"box": box.model_copy(update={"profile": "box"})}
            yield from _made(op, update, said(f"{op.name}: a closed box between the ends"))
        if isinstance(op, ZStep) and op.method == "post":
            deep = round((box.depth_mm or on.here.height) * DEEPER)
            yield from _set(op, "post deeper along the rail", {"box": box.model_copy(update={"depth_mm": deep})}, deep)
    if isinstance(op, ZStep):
        t = next_up(rack, op.gusset.thickness_mm if op.gusset else 0.0, on.here.wall)
        if t is not None and op.method != "set-on":
            gusset = Gusset(leg_mm=op.gusset.leg_mm if op.gusset else round(0.6 * op.rise_mm), thickness_mm=t)
            yield from _set(op, "gussets", {"gusset": gusset}, t, "thickness")
        if op.method == "set-on":
            yield from _set(op, "overlap", {"overlap_mm": op.overlap_mm + LONGER_MM}, op.overlap_mm + LONGER_MM)
    if isinstance(op, Narrow):
        for jog in ("angled", "plated"):
            if op.jog != jog:
                yield from _made(op, {"jog": jog}, said(f"{op.name}: {jog} jog"))
        yield from _set(op, "jog's run", {"run_mm": op.run_mm + 60}, op.run_mm + 60)
    else:
        yield from _side_plates(op, on, rack)
        if op.weld not in {"two-sided", "two-sided-ground"}:
            yield from _made(op, {"weld": "two-sided"}, said(f"{op.name}: butts welded from both sides"))
            gap = round(on.here.wall / 2, 1)
            if op.root_gap_mm < gap:
                yield from _set(op, "root opened to", {"root_gap_mm": gap}, gap)


def _side_plates(op: ZStep | Splice | Stretch, on: OnRail, rack: tuple[float, ...]) -> Iterator[Patch]:
    """Both side plates, next in thickness, as long as they need; or only longer."""
    update: dict[str, object] = {}
    longer: dict[str, SidePlate] = {}
    t = next_up(rack, max([0.0, *(p.thickness_mm for p in op.plates().values())]), on.here.wall)
    for field in ("outer_plate", "inner_plate"):
        old = getattr(op, field)
        if t is not None:
            leg = fillet_mm(t, on.here.wall)
            made = (old or SidePlate(thickness_mm=t, overlap_mm=0)).model_copy(
                update={"thickness_mm": t, "weld_leg_mm": leg}
            )
            update[field] = made.model_copy(update={"overlap_mm": float(np.ceil(overlap_needed(made, on)))})
        if old is not None and (needed := float(np.ceil(overlap_needed(old, on)))) > old.overlap_mm:
            longer[field] = old.model_copy(update={"overlap_mm": needed})
    if update and t is not None:
        yield from _set(op, "plates on both sides", update, t, "thickness")
    if longer:
        yield from _set(op, "plates past the cut by", {**longer}, max(p.overlap_mm for p in longer.values()))


def _bracket(op: Bracket, on: OnRail, rack: tuple[float, ...]) -> Iterator[Patch]:
    if (t := next_up(rack, op.thickness_mm)) is not None:
        leg = max(op.weld_leg_mm, fillet_mm(t, on.here.wall))
        yield from _set(op, "foot", {"thickness_mm": t, "weld_leg_mm": leg}, t, "thickness")
    tall = min(round(op.tall_mm * WIDER), round(0.85 * on.here.height))
    update: dict[str, object] = {"width_mm": float(round(op.width_mm * WIDER)), "tall_mm": float(max(tall, op.tall_mm))}
    yield from _set(op, "foot longer along the rail", update, round(op.width_mm * WIDER))
    if op.gusset is None:
        t = next_up(rack, op.thickness_mm - 0.1) or max(rack)
        gusset = BracketGusset(leg_mm=min(40.0, 0.6 * op.tabs.standoff_mm), thickness_mm=t)
        yield from _set(op, "gusset", {"gusset": gusset}, t, "thickness")
    if (t := next_up(rack, op.tabs.thickness_mm)) is not None:
        yield from _set(op, "tabs", {"tabs": op.tabs.model_copy(update={"thickness_mm": t})}, t, "thickness")
    edge = round(op.tabs.edge_mm * DEEPER)
    tabs = op.tabs.model_copy(update={"edge_mm": edge, "width_mm": round(op.tabs.width_mm * DEEPER)})
    yield from _set(op, "more metal round the link's hole, edge", {"tabs": tabs}, edge)


def _doubler(op: Doubler, on: OnRail, rack: tuple[float, ...]) -> Iterator[Patch]:
    yield from _thicker(op, ("thickness_mm",), {"thickness_mm": "plate"}, on, rack)
    update: dict[str, object] = {
        "start": Place(anchor_id=op.start.anchor_id, offset_mm=op.start.offset_mm - LONGER_MM / 2),
        "end": Place(anchor_id=op.end.anchor_id, offset_mm=op.end.offset_mm + LONGER_MM / 2),
    }
    yield from _set(op, "longer by", update, LONGER_MM)


def _subframe(op: Subframe, on: OnRail) -> Iterator[Patch]:
    """Up or down until the face that is farthest off lies against the rail, or until they do in the mean."""
    lifts = lift_to_meet(op, on)
    if lifts:
        for lift in (max(lifts, key=abs), sum(lifts) / len(lifts)):
            up = round(op.up_mm + lift, 1)
            yield from _set(op, "goes up by", {"up_mm": up}, up)


def _legs(op: Operation, on: OnRail) -> Iterator[Patch]:
    """The operation's own leg within its bounds, and the largest that its plate takes."""
    leg = getattr(op, "weld_leg_mm", None)
    plate = next(
        (t for f in ("thickness_mm", "floor_mm", "plate_mm") if isinstance(t := getattr(op, f, None), float)), None
    )
    if leg is None or plate is None:
        return
    for wanted in dict.fromkeys((least_leg_mm(max(plate, on.here.wall)), most_leg_mm(plate))):
        if wanted > leg + 1e-6 and wanted <= most_leg_mm(plate) + 1e-6:
            yield from _set(op, "weld leg", {"weld_leg_mm": wanted}, wanted)
