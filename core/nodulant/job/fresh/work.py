"""New work for a job: the operation and its parts as they begin, on this survey and from this shop's plate."""

from nodulant.base.errors import UnknownReference
from nodulant.base.model import Frozen
from nodulant.frame.ops.fresh import Setting
from nodulant.frame.ops.operation import RailOperation
from nodulant.frame.ops.union import operation_kinds
from nodulant.job.document import Inputs
from nodulant.job.touched import touched_axle


def fresh_operation(inputs: Inputs, kind: str) -> RailOperation:
    """A new operation of a kind near the axle that the job touches; raises UnknownReference."""
    kinds = {str(k.model_fields["kind"].default): k for k in operation_kinds()}
    if kind not in kinds:
        raise UnknownReference(
            f"there is no operation '{kind}'",
            field="/kind",
            found=kind,
            acceptable="one of " + ", ".join(sorted(kinds)),
        )
    return kinds[kind].fresh(_setting(inputs), [op.id for op in inputs.design.operations])


def fresh_part(inputs: Inputs, operation_id: str, at: str, choice: str) -> Frozen:
    """What the part ``at`` of an operation begins with; raises UnknownReference and InputError."""
    for op in inputs.design.operations:
        if op.id == operation_id:
            return op.fresh_piece(at, choice, _setting(inputs))
    raise UnknownReference(
        f"there is no operation '{operation_id}'",
        field="/operation_id",
        found=operation_id,
        acceptable=", ".join(op.id for op in inputs.design.operations) or "none in this design",
    )


def _setting(inputs: Inputs) -> Setting:
    return Setting(inputs.survey, touched_axle(inputs.survey, inputs.design), inputs.shop.plate_stock_mm)
