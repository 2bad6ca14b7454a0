"""Does it matter: the design evaluated again as if both sides were built as one of them was."""

import math
from typing import TypeVar

from nodulant.asbuilt.axle import Joint, Measured, beam_as_built, joints_of, wheel_as_built
from nodulant.axles.points import HardPoint, Link
from nodulant.axles.riding import PLACED, moved_on_frame
from nodulant.axles.suspension import Suspension
from nodulant.base.errors import NodulantError
from nodulant.base.model import Frozen
from nodulant.checks.check import Check, Verdict
from nodulant.evaluate import Want, evaluate
from nodulant.job.document import Inputs
from nodulant.parts.sides import LEFT_RIGHT, AxleName, Side
from nodulant.suspension.motion import Setting
from nodulant.suspension.study import Study

M = TypeVar("M", bound=Frozen)
Offsets = dict[tuple[str, Side, str], float]
SAME_MM = 1e-6
MOST = 12
COUNTS = 0.02
"""A margin that is this much worse has changed."""
WANT = Want(strips=False, parts=False, steps=False, readings=False)
OF_THE_PLAN = frozenset({"mount-follows", "stands", "claimed-twice"})
"""Rules about how the plan's own parts go together: nothing that was built can change them."""
RANK: dict[Verdict, int] = {
    "holds": 0,
    "note": 0,
    "stock itself": 0,
    "close": 1,
    "weaker": 2,
    "not computed": 2,
    "fails": 3,
}


class WorseAsBuilt(Frozen):
    """A check that is worse as built than as planned, on the side that was measured."""

    id: str
    title: str
    side: Side
    planned: float | None
    built: float | None
    unit: str
    planned_verdict: Verdict
    built_verdict: Verdict


def changed_by(inputs: Inputs, studies: list[Study], measured: dict[AxleName, Measured]) -> tuple[WorseAsBuilt, ...]:
    """What is worse with each side's joints and links as measured; verdicts that got worse first."""
    if not any(measured.values()):
        return ()
    plan = {c.id: c for c in evaluate(inputs, WANT).checks if c.state == "planned"}
    out: list[tuple[int, float, WorseAsBuilt]] = []
    for side in LEFT_RIGHT:
        built = as_side(inputs, studies, measured, side)
        if built is None:
            continue
        try:
            checks = evaluate(built, WANT).checks
        except NodulantError:
            continue
        out += [row for c in checks if (row := _worse(plan.get(c.id), c, side)) is not None]
    out.sort(key=lambda row: row[:2])
    return tuple(row for _, _, row in out[:MOST])


def _worse(was: Check | None, now: Check, side: Side) -> tuple[int, float, WorseAsBuilt] | None:
    if was is None or now.limit_id in OF_THE_PLAN:
        return None
    fell = RANK[now.verdict] - RANK[was.verdict]
    lost = (was.margin or 0.0) - (now.margin or 0.0)
    if fell <= 0 and not (lost > COUNTS and was.margin is not None and now.margin is not None):
        return None
    row = WorseAsBuilt(
        id=now.id,
        title=now.title,
        side=side,
        planned=was.value,
        built=now.value,
        unit=now.unit,
        planned_verdict=was.verdict,
        built_verdict=now.verdict,
    )
    return -max(fell, 0), -lost, row


def as_side(inputs: Inputs, studies: list[Study], measured: dict[AxleName, Measured], side: Side) -> Inputs | None:
    """The inputs with both sides as that one was measured; None where nothing was, or its links do not reach."""
    own, any_of = [], False
    for s in studies:
        found = measured.get(s.suspension.axle, {})
        mine: Offsets = {(key, "right", way): off for (key, at, way), off in found.items() if at == side}
        if s.setting is None or not mine:
            own.append(s.suspension)
            continue
        try:
            own.append(_built(s.suspension, s.setting, mine))
        except NodulantError:
            return None
        any_of = True
    if not any_of:
        return None
    return inputs.model_copy(update={"design": inputs.design.model_copy(update={"suspensions": tuple(own)})})


def _built(own: Suspension, setting: Setting, mine: Offsets) -> Suspension:
    joints = [j for j in joints_of(own.layout, setting) if j.side == "right"]
    if own.layout.independent:
        layout = moved_on_frame(own.layout, lambda _, p: _moved(p, joints, mine))
        stood = wheel_as_built(own, setting, mine, "right")
        turned = {
            "rides": PLACED,
            "rides_but": {},
            "camber_deg": own.camber_deg + stood.camber_deg,
            "toe_deg": own.toe_deg + stood.toe_deg,
        }
        return own.model_copy(update={"layout": layout, **turned})
    layout = moved_on_frame(_footed(own.layout, joints, mine), lambda _, p: _moved(p, joints, mine))
    both = {(key, at, way): off for (key, _, way), off in mine.items() for at in LEFT_RIGHT}
    sat = beam_as_built(own.layout, setting, both)
    turned_by = math.radians(sat.pinion_deg)
    update: dict[str, object] = {"layout": _pitched(layout, turned_by), "hub_x_mm": setting.hub[0] + sat.rear_mm}
    update |= {"rides": PLACED, "rides_but": {}, "hub_z_mm": setting.hub[2]}
    if own.pinion_deg is not None:
        update["pinion_deg"] = own.pinion_deg + sat.pinion_deg
    return own.model_copy(update=update)


def _footed(model: M, joints: list[Joint], mine: Offsets) -> M:
    """With the links' joints on the axle as they were measured, by the joints at their other ends."""
    update: dict[str, object] = {}
    for name in type(model).model_fields:
        value: object = getattr(model, name)
        if isinstance(value, Link):
            key = next((j.key for j in joints if _same(value.frame, j)), "")
            along, up = (mine.get((key, "right", way), 0.0) for way in ("axle-along", "axle-up"))
            foot = value.axle.model_copy(update={"x_mm": value.axle.x_mm + along, "z_mm": value.axle.z_mm + up})
            update[name] = value.model_copy(update={"axle": foot})
        elif isinstance(value, Frozen):
            update[name] = _footed(value, joints, mine)
    return model.model_copy(update=update)


def _same(point: HardPoint, joint: Joint) -> bool:
    return all(abs(a - b) < SAME_MM for a, b in zip(point.xyz(), joint.at, strict=True))


def _pitched(model: M, by_rad: float) -> M:
    """With the links' ends on the axle turned about its line, nose up positive."""
    update: dict[str, object] = {}
    for name in type(model).model_fields:
        value: object = getattr(model, name)
        if isinstance(value, Link):
            c, s = math.cos(by_rad), math.sin(by_rad)
            x, z = value.axle.x_mm, value.axle.z_mm
            # nose up: what lies ahead of the hub line rises, what lies above it goes back
            end = HardPoint(x_mm=x * c + z * s, y_mm=value.axle.y_mm, z_mm=z * c - x * s)
            update[name] = value.model_copy(update={"axle": end})
        elif isinstance(value, Frozen):
            update[name] = _pitched(value, by_rad)
    return model.model_copy(update=update)


def _moved(point: HardPoint, joints: list[Joint], mine: Offsets) -> HardPoint:
    """A frame point as measured, where it is one of the joints."""
    for j in joints:
        if _same(point, j):
            along, up, across = (mine.get((j.key, "right", way), 0.0) for way in ("along", "up", "across"))
            out = -1.0 if point.y_mm < 0 else 1.0
            return HardPoint(x_mm=point.x_mm + along, y_mm=point.y_mm + out * across, z_mm=point.z_mm + up)
    return point
