"""Work that a suspension asks for: brackets on rails and axle, a truss, mounts and plates of its springs.

Each comes with its place and its worst force, ready to be put into the design; what the axle is
made of decides whether a bracket may stand on it.
"""

import numpy as np
from pydantic import ValidationError

from nodulant.axles.layouts.layout import NamedLink
from nodulant.axles.points import HardPoint, on_axle
from nodulant.axles.springs import AirSpring, Coilover, Damper, StopOnDamper, StopOnFrame, Strap
from nodulant.base.errors import NodulantError
from nodulant.evaluate.brackets.arm_brackets import arm_brackets
from nodulant.evaluate.brackets.frame_brackets import frame_brackets, worst_on_frame
from nodulant.evaluate.brackets.steering_mounts import steering_mounts
from nodulant.evaluate.brackets.tower import pocket_at_its_eye
from nodulant.evaluate.suspensions.clocking import each_of
from nodulant.frame.columns import rail_at
from nodulant.frame.model import placed_on, planned_state
from nodulant.frame.ops.mounts.bracket import Bracket
from nodulant.frame.ops.mounts.pad import AxlePad, Pad
from nodulant.frame.ops.mounts.spring_bridge import SpringBridge
from nodulant.frame.ops.mounts.tabs import Tabs
from nodulant.frame.ops.on_axle.axle_bracket import AxleBracket
from nodulant.frame.ops.on_axle.truss import Truss
from nodulant.frame.ops.union import Operation
from nodulant.frame.place import Place
from nodulant.job.document import Inputs
from nodulant.job.riding import on_rails
from nodulant.suspension.forces import BUMP
from nodulant.suspension.study import Study

TUBE_MM = 76.0
TRUSS_UP_MM = 35.0
"""An upper joint this far above the tube's top and near the middle stands on a truss."""
NEAR_RAIL_MM, BESIDE_MM = 160.0, 15.0
SMALL = {"bolt_size": "M12", "width_mm": 45.0, "edge_mm": 22.0, "joint_mm": 35.0, "thickness_mm": 5.0}


def mounts(inputs: Inputs, s: Study) -> tuple[Operation, ...]:
    """Everything that holds this suspension, in the order it is fitted; nothing where it does not move."""
    if s.motion is None or s.setting is None:
        return ()
    rows: list[Operation] = [*frame_brackets(inputs, s), *arm_brackets(inputs, s)]
    if not s.suspension.layout.independent:
        rows += _on_the_axle(inputs, s)
    rows += _springs(inputs, s)
    rows += steering_mounts(inputs, s)
    return tuple(rows)


Work = AxleBracket | AxlePad | Pad | SpringBridge | Bracket | Truss


def _made(kind: type[Work], **fields: object) -> list[Operation]:
    """The work, or nothing where its place or its force lies beyond what any bracket is for."""
    try:
        return [kind.model_validate(fields)]
    except (ValidationError, NodulantError):
        return []


def _hub_line(inputs: Inputs, s: Study) -> float:
    """Station of the surveyed rail that stands over the hubs in the plan."""
    x, _, z = s.setting.hub if s.setting else (0.0, 0.0, 0.0)
    return on_rails(inputs, HardPoint(x_mm=x, y_mm=1.0, z_mm=z)).x_mm


def _axle_line(inputs: Inputs, s: Study) -> Place:
    x = _hub_line(inputs, s)
    own = [f for f in inputs.survey.features if f.kind == "axle-line"] or list(inputs.survey.features)
    anchor = min(own, key=lambda f: abs(f.x_mm - x))
    return Place(anchor_id=anchor.id, offset_mm=round(x - anchor.x_mm, 3))


def _at(inputs: Inputs, x: float) -> Place:
    anchor = min(inputs.survey.features, key=lambda f: abs(f.x_mm - x))
    return Place(anchor_id=anchor.id, offset_mm=round(x - anchor.x_mm, 3))


def _housing(s: Study) -> dict[str, object]:
    own = s.suspension
    return {
        "tube_mm": s.vehicle.tube_mm or TUBE_MM,
        "tube_wall_mm": own.tube_wall_mm,
        "housing": own.housing,
        "housing_half_mm": own.housing_half_mm,
    }


def _on_the_axle(inputs: Inputs, s: Study) -> list[Operation]:
    """Brackets of every pair of links; near the middle and high up they stand on a truss."""
    if not s.forces:
        return []
    out: list[Operation] = []
    truss: Truss | None = None
    for named in s.suspension.layout.links():
        if named.lateral or not named.name.endswith(", right"):
            continue
        p, stem = named.link.axle, named.name.removesuffix(", right")
        along, across, up = (-v for v in worst_on_frame(s, named))
        force = {"along_n": round(along, 1), "out_n": round(across, 1), "up_n": round(up, 1)}
        if _needs_truss(s, named):
            truss = truss or _truss(inputs, s, p, force)
        out += _made(
            AxleBracket,
            id=f"{s.suspension.axle}-{stem.replace(' ', '-')}-on-axle",
            name=f"{stem.capitalize()} on the {s.suspension.axle} axle",
            place=_axle_line(inputs, s),
            x_mm=p.x_mm,
            y_mm=p.y_mm,
            z_mm=p.z_mm,
            stands_on="truss" if truss is not None and _needs_truss(s, named) else "tube",
            base_mm=_cover(truss) if truss is not None and _needs_truss(s, named) else 0.0,
            **_housing(s),
            **force,
        )
    return [truss, *out] if truss is not None else out


def _needs_truss(s: Study, named: NamedLink) -> bool:
    p, radius = named.link.axle, (s.vehicle.tube_mm or TUBE_MM) / 2
    half = s.suspension.housing_half_mm
    near = abs(p.y_mm) < (half if half is not None else radius * 3)
    return near and p.z_mm > radius + TRUSS_UP_MM and s.suspension.housing != "steel"


def _truss(inputs: Inputs, s: Study, p: HardPoint, force: dict[str, float]) -> Truss | None:
    own, radius = s.suspension, (s.vehicle.tube_mm or TUBE_MM) / 2
    begins = (own.housing_half_mm or 200.0) + 20.0
    tall = max(p.z_mm - radius - 60.0, 40.0)
    made = _made(
        Truss,
        id=f"{own.axle}-truss",
        name=f"Truss on the {own.axle} axle",
        place=_axle_line(inputs, s),
        x_mm=p.x_mm,
        y_mm=p.y_mm,
        foot_from_mm=begins,
        foot_to_mm=begins + 150.0,
        tall_mm=round(tall, 1),
        clear_mm=round(tall / 2, 1),
        **_housing(s),
        **force,
    )
    return next((op for op in made if isinstance(op, Truss)), None)


def _cover(truss: Truss) -> float:
    return truss.tube_mm / 2 + truss.tall_mm


def _springs(inputs: Inputs, s: Study) -> list[Operation]:
    springs, own = s.suspension.springs, s.suspension
    out: list[Operation] = []
    if isinstance(springs, Coilover):
        for tail, lower, upper in _each(springs):
            out += _between(inputs, s, f"coilover{tail}", lower, upper, _most(s) / springs.count)
    elif isinstance(springs, AirSpring):
        out += _bellows(inputs, s, springs)
    rows: tuple[tuple[str, Damper | Strap | None], ...] = (("damper", own.damper), ("strap", own.strap))
    for name, held in rows:
        if held is not None:
            for tail, lower, upper in _each(held):
                out += _between(inputs, s, f"{name}{tail}", lower, upper, 0.0)
    if own.stop is not None:
        out += _stop(inputs, s)
    return out


def _each(held: Coilover | Damper | Strap) -> list[tuple[str, HardPoint, HardPoint]]:
    """The one of a side, or the front and the rear one of a pair."""
    if isinstance(held, Strap):
        return [("", held.lower, held.upper)]
    return [(f"-{which}" if which else "", lower, upper) for which, lower, upper in each_of(held)]


def _most(s: Study) -> float:
    """Force of one side's spring at the top of its travel, N; 0 where it is not known."""
    if s.springs is None or s.springs.force is None:
        return 0.0
    return float(np.nanmax(s.springs.force))


def _between(inputs: Inputs, s: Study, name: str, lower: HardPoint, upper: HardPoint, force: float) -> list[Operation]:
    """The upper mount on rail or crossmember, and the lower one on the axle."""
    if s.setting is None:
        return []
    a, b = np.array(on_axle(lower, s.setting.hub)), np.array(upper.xyz())
    push = (b - a) / np.linalg.norm(b - a) * force
    out: list[Operation] = _upper(inputs, s, name, upper, push)
    if not s.suspension.layout.independent:
        held = name.partition("-")[0]
        down = -push if held == "strap" else push
        out += _made(
            AxleBracket,
            id=f"{s.suspension.axle}-{name}-on-axle",
            name=f"{_words(name)} on the {s.suspension.axle} axle",
            place=_axle_line(inputs, s),
            holds=held,
            x_mm=lower.x_mm,
            y_mm=lower.y_mm,
            z_mm=lower.z_mm,
            tabs=Tabs.model_validate(SMALL),
            along_n=round(-float(down[0]), 1),
            out_n=round(-float(down[1]) * float(np.sign(lower.y_mm or 1.0)), 1),
            up_n=round(-float(down[2]), 1),
            **_housing(s),
        )
    return out


def _words(name: str) -> str:
    """'coilover-front' as people say it."""
    kind, _, which = name.partition("-")
    return f"{which} {kind}".strip().capitalize()


def _upper(
    inputs: Inputs, s: Study, name: str, point: HardPoint, push: np.ndarray[tuple[int], np.dtype[np.float64]]
) -> list[Operation]:
    rail, point = inputs.survey.rails.right, on_rails(inputs, point)
    pushes = {"spring_n": float(np.linalg.norm(push)), "across_n": abs(float(push[1]))}
    if name.startswith("coilover") and (pocket := pocket_at_its_eye(inputs, point, **pushes)) is not None:
        return [pocket]
    x = min(max(point.x_mm, rail.start_mm + 100.0), rail.end_mm - 100.0)
    underside, height, width, _ = rail_at(rail, x)
    inner = rail.web_y_mm - width if rail.opens == "inward" else rail.web_y_mm
    off = inner - abs(point.y_mm)
    axle, within = s.suspension.axle, -20.0 <= point.z_mm - underside <= height + 60.0
    if not name.startswith("coilover") and 0.0 < off < NEAR_RAIL_MM and within:
        tall = min(80.0, height - 10.0)
        middle = float(np.clip(point.z_mm - underside, tall / 2, height - tall / 2))
        tabs = Tabs.model_validate({**SMALL, "standoff_mm": max(off, 30.0), "lift_mm": point.z_mm - underside - middle})
        return _made(
            Bracket,
            id=f"{axle}-{name}-on-rail",
            name=f"{_words(name)} on the rail",
            place=_at(inputs, x),
            face="inner",
            height_mm=middle,
            width_mm=80.0,
            tall_mm=tall,
            tabs=tabs,
        )
    bridge = SpringBridge.model_fields
    tabs, od = bridge["tabs"].default, float(bridge["od_mm"].default)
    above = max(point.z_mm + tabs.standoff_mm + od / 2 - underside, od / 2)
    return _made(
        SpringBridge,
        id=f"{axle}-{name}-bridge",
        name=f"{_words(name)} crossmember, {axle}",
        place=_at(inputs, x),
        form="hoop" if above > height + od / 2 else "straight",
        height_mm=round(above, 1),
        y_mm=max(abs(point.y_mm), 1.0),
        **{name: round(force, 1) for name, force in pushes.items()},
    )


def _bellows(inputs: Inputs, s: Study, springs: AirSpring) -> list[Operation]:
    rail, force, upper = inputs.survey.rails.right, _most(s), on_rails(inputs, springs.upper)
    x = min(max(upper.x_mm, rail.start_mm + 100.0), rail.end_mm - 100.0)
    underside, _, width, _ = rail_at(rail, x)
    inward = 1.0 if rail.opens == "inward" else -1.0
    middle = rail.web_y_mm - inward * width / 2
    size = min(max(springs.diameter_mm * 0.75, 80.0), 200.0)
    out: list[Operation] = [
        *_made(
            Pad,
            id=f"{s.suspension.axle}-air-spring-plate",
            name=f"Air spring's upper plate, {s.suspension.axle}",
            place=_at(inputs, x),
            holds="air-spring",
            long_mm=size,
            across_mm=size,
            out_mm=round(min(max(abs(upper.y_mm) - middle, -400.0), 400.0), 1),
            drop_mm=round(min(max(underside - upper.z_mm, 0.0), 2000.0), 1),
            force_n=round(force, 1),
        )
    ]
    if not s.suspension.layout.independent:
        out += _made(
            AxlePad,
            id=f"{s.suspension.axle}-air-spring-on-axle",
            name=f"Air spring's lower plate, {s.suspension.axle}",
            place=_axle_line(inputs, s),
            x_mm=springs.lower.x_mm,
            y_mm=springs.lower.y_mm,
            z_mm=springs.lower.z_mm,
            long_mm=size,
            across_mm=size,
            tilt_deg=springs.plate_deg,
            up_n=-round(force, 1),
            **_housing(s),
        )
    return out


def _beside_cuts(inputs: Inputs, x: float) -> float:
    """``x``, or just ahead of the cut that it lies in: a stop needs metal over it."""
    operations = inputs.design.operations
    try:
        placed = placed_on(inputs.survey, operations, "right", planned_state(operations))
    except NodulantError:
        return x
    half = float(Pad.model_fields["long_mm"].default) / 2 + BESIDE_MM
    for cut in (cut for p in placed for cut in p.cuts):
        if cut.start_mm - half < x < cut.end_mm + half:
            return max(cut.start_mm - half, inputs.survey.rails.right.start_mm + 100.0)
    return x


def _stop(inputs: Inputs, s: Study) -> list[Operation]:
    """Under the rail above the axle: three times the corner's standing load (the frame case's own factor)."""
    rail, place = inputs.survey.rails.right, s.suspension.stop.place if s.suspension.stop else None
    if isinstance(place, StopOnDamper):
        return []
    if isinstance(place, StopOnFrame):
        x = on_rails(inputs, place.base).x_mm
    else:
        x = _hub_line(inputs, s)
        x = _beside_cuts(inputs, min(max(x, rail.start_mm + 100.0), rail.end_mm - 100.0))
    force = BUMP * s.loads.standing_n / 2 if s.loads else 0.0
    width = rail_at(rail, x)[2]
    return _made(
        Pad,
        id=f"{s.suspension.axle}-bump-stop-plate",
        name=f"Bump stop's plate, {s.suspension.axle}",
        place=_at(inputs, x),
        across_mm=max(width, 40.0),
        force_n=round(force, 1),
    )
