"""New work for a job: the operation and its parts as they begin, on this survey and from this shop's plate."""

import math
from typing import TypeVar

from nodulant.base.errors import UnknownReference
from nodulant.base.model import Frozen
from nodulant.frame.ops.fresh import Setting
from nodulant.frame.ops.operation import RailOperation
from nodulant.frame.ops.union import operation_kinds
from nodulant.job.document import Inputs, Shop
from nodulant.job.touched import touched_axle
from nodulant.units.show import MM_PER_INCH


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
    fresh = kinds[kind].fresh(_setting(inputs), [op.id for op in inputs.design.operations])
    return on_the_tape(fresh, inputs.shop)


def fresh_part(inputs: Inputs, operation_id: str, at: str, choice: str) -> Frozen:
    """What the part ``at`` of an operation begins with; raises UnknownReference and InputError."""
    for op in inputs.design.operations:
        if op.id == operation_id:
            return on_the_tape(op.fresh_piece(at, choice, _setting(inputs)), inputs.shop)
    raise UnknownReference(
        f"there is no operation '{operation_id}'",
        field="/operation_id",
        found=operation_id,
        acceptable=", ".join(op.id for op in inputs.design.operations) or "none in this design",
    )


def _setting(inputs: Inputs) -> Setting:
    return Setting(inputs.survey, touched_axle(inputs.survey, inputs.design), inputs.shop.plate_stock_mm)


FINE_MM, LONG_MM = 6.5, 100.0
PLACES = frozenset({"x_mm", "y_mm", "z_mm", "half_mm"})
"""Told from the frame's own planes, and fitted to it."""
AT_LEAST = frozenset({"root_gap_mm"})
"""A tighter root would not weld through."""
Fresh = TypeVar("Fresh", bound=Frozen)


def on_the_tape(fresh: Fresh, shop: Shop) -> Fresh:
    """Usual sizes on the marks of an inch shop's tape: long ones on quarters, others on 1/16, walls and holes on 1/32.

    What the rack holds and what was fitted to the rail stays.
    """
    if shop.style == "mm":
        return fresh
    update: dict[str, object] = {}
    for name in type(fresh).model_fields:
        value = getattr(fresh, name)
        if isinstance(value, Frozen):
            update[name] = on_the_tape(value, shop)
        elif name.endswith("_mm") and isinstance(value, float) and _is_usual(name, value, shop):
            parts = 32 if abs(value) < FINE_MM or name == "diameter_mm" else 16 if abs(value) < LONG_MM else 4
            marks = value * parts / MM_PER_INCH
            update[name] = round((math.ceil(marks) if name in AT_LEAST else round(marks)) * MM_PER_INCH / parts, 6)
    return fresh.model_copy(update=update)


def _is_usual(name: str, value: float, shop: Shop) -> bool:
    """A round metric number, as this trade's defaults are written."""
    return name not in PLACES and value not in shop.plate_stock_mm and value != 0 and (2 * value).is_integer()
