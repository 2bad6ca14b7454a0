"""A new suspension and its parts, for a draft: where the hubs stand and where there is frame."""

from collections.abc import Callable

from nodulant.axles.layouts.live import LeafSprings
from nodulant.axles.riding import PLACED, RAIL
from nodulant.axles.suspension import Suspension
from nodulant.base.errors import UnknownReference
from nodulant.base.model import Frozen
from nodulant.job.document import Inputs
from nodulant.job.fresh.layouts import lateral_of, layout_of, mirrored_eye
from nodulant.job.fresh.springing import (
    anti_roll_of,
    bar_run_of,
    bearing_of,
    damper_of,
    driveline_of,
    half_shaft_of,
    hose_of,
    springs_of,
    stop_of,
    stop_place_of,
    strap_of,
)
from nodulant.job.fresh.stand import Stand, stand_of
from nodulant.job.fresh.steering import clamp_of, column_of, gear_of, steering_of
from nodulant.parts.sides import AxleName


def fresh_suspension(inputs: Inputs, axle: AxleName, kind: str, before: bool) -> Suspension:
    """A suspension of a layout's kind, planned or as it was ``before``; raises UnknownReference where there is no such kind."""
    layout = layout_of(kind, stand_of(inputs, axle, before))
    targets, rear = inputs.design.targets, axle == "rear"
    own = inputs.survey.rear if rear else inputs.survey.front
    return Suspension(
        axle=axle,
        name="Rear suspension" if rear else "Front suspension",
        layout=layout,
        bump_mm=(targets.bump_mm if rear else targets.front.bump_mm) or 80.0,
        droop_mm=targets.droop_mm if rear else 70.0,
        rides=PLACED if before else RAIL,
        driven=rear,
        brake_share=0.35 if rear else 0.65,
        pinion_deg=own.pinion_angle_deg,
    )


Made = Callable[[Stand, Suspension, str], Frozen]
PARTS: dict[str, Made] = {
    "layout": lambda on, own, kind: layout_of(kind, on),
    "lateral": lambda on, own, kind: lateral_of(kind, on),
    "springs": lambda on, own, kind: springs_of(kind, on, own),
    "damper": lambda on, own, kind: damper_of(on, own),
    "stop": lambda on, own, kind: stop_of(own),
    "stop_place": lambda on, own, kind: stop_place_of(kind, on, own),
    "strap": lambda on, own, kind: strap_of(on, own),
    "anti_roll": lambda on, own, kind: anti_roll_of(on),
    "runs": lambda on, own, kind: bar_run_of(on, own),
    "half_shaft": lambda on, own, kind: half_shaft_of(on),
    "hose": lambda on, own, kind: hose_of(on, own),
    "steering": lambda on, own, kind: steering_of(own, on),
    "gear": lambda on, own, kind: gear_of(kind, own, on),
    "clamp": lambda on, own, kind: clamp_of(),
}


def fresh_suspension_part(inputs: Inputs, index: int, part: str, kind: str, before: bool) -> Frozen:
    """A part of suspension ``index`` as it begins; raises UnknownReference where there is no such suspension or part."""
    held = inputs.survey.suspensions if before else inputs.design.suspensions
    if not 0 <= index < len(held):
        raise UnknownReference(
            "there is no such suspension", field="/suspension", found=str(index), acceptable=f"0 to {len(held) - 1}"
        )
    own = held[index]
    on = stand_of(inputs, own.axle, before)
    if part == "rear_eye" and isinstance(own.layout, LeafSprings):
        return mirrored_eye(own.layout, on)
    if part == "column" and own.steering is not None:
        return column_of(own.steering, on)
    if part not in PARTS:
        raise UnknownReference(
            "there is no such part", field="/part", found=part, acceptable=", ".join((*PARTS, "rear_eye", "column"))
        )
    return PARTS[part](on, own, kind)


def fresh_driveline_part(inputs: Inputs, part: str) -> Frozen:
    """The shaft to the rear axle, or its bearing; raises UnknownReference where there is no such part."""
    on = stand_of(inputs, "rear", before=False)
    if part == "driveline":
        return driveline_of(inputs.survey, on)
    if part == "bearing" and inputs.design.driveline is not None:
        return bearing_of(inputs.design.driveline, on)
    raise UnknownReference("there is no such part", field="/part", found=part, acceptable="driveline, bearing")
