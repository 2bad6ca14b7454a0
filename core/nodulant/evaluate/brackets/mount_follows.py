"""Whether each mount stands where its joint is: what was taken over from Travel, and the joint as Travel has it now."""

from collections.abc import Sequence

from nodulant.base.errors import NodulantError
from nodulant.checks.check import Check
from nodulant.checks.mount_rules import mount_check
from nodulant.evaluate.brackets.mounts import mounts
from nodulant.frame.ops.mounts.bracket import Bracket
from nodulant.frame.ops.mounts.pad import AxlePad, Pad
from nodulant.frame.ops.mounts.spring_bridge import SpringBridge
from nodulant.frame.ops.mounts.steering_mount import SteeringMount
from nodulant.frame.ops.on_axle.axle_bracket import AxleBracket
from nodulant.frame.ops.pockets.spring_pocket import SpringPocket
from nodulant.frame.ops.union import Operation
from nodulant.frame.place import resolve
from nodulant.job.document import Inputs
from nodulant.suspension.study import Study


def follow_checks(inputs: Inputs, studies: Sequence[Study]) -> list[Check]:
    """One row for each mount that some joint asks for by its id."""
    asked = {op.id: op for s in studies for op in mounts(inputs, s)}
    out = []
    for index, op in enumerate(inputs.design.operations):
        wanted = asked.get(op.id)
        if wanted is None or wanted.kind != op.kind:
            continue
        there, wish = _joint(inputs, op), _joint(inputs, wanted)
        if there is not None and wish is not None:
            out.append(mount_check(op, index, there, wish, inputs.design.limits))
    return out


def brought_up_to_date(inputs: Inputs, studies: Sequence[Study], *, all_asked: bool = True) -> tuple[Operation, ...]:
    """The design's operations with every mount where its joint is; ``all_asked`` puts in those that are missing too."""
    asked = {op.id: op for s in studies for op in mounts(inputs, s)}
    own = tuple(_followed(op, asked.get(op.id)) for op in inputs.design.operations)
    there = {op.id for op in own}
    return (*own, *(op for id_, op in asked.items() if id_ not in there)) if all_asked else own


def _followed(op: Operation, joint: Operation | None) -> Operation:
    return op if joint is None or joint.kind != op.kind else op.following(joint)


Joint = tuple[float, float, float]
"""Rearward, outward and up, mm, each from where the mount itself is measured."""


def _joint(inputs: Inputs, op: Operation) -> Joint | None:
    """Where a mount holds its bolt or plate; None where it says no place of its own."""
    try:
        x = resolve(op.anchor, inputs.survey.features)
    except NodulantError:
        return None
    match op:
        case Bracket():
            return (x, op.tabs.standoff_mm, op.height_mm + op.tabs.lift_mm)
        case SpringPocket():
            return (x, 0.0, op.bolt_up_mm)
        case SteeringMount():
            return (x, op.standoff_mm, op.height_mm + op.lift_mm)
        case SpringBridge():
            return (x, op.y_mm, op.height_mm - op.od_mm / 2 - op.tabs.standoff_mm)
        case AxleBracket() | AxlePad():
            return (x + op.x_mm, op.y_mm, op.z_mm)
        case Pad():
            return (x, op.out_mm, -op.drop_mm)
        case _:
            return None
