"""Mounts under their suspension's own forces, as Travel has them now: never a typed one beside it.

A mount is the work that its joint asks for: by name where it was taken over from there, else one
of the same kind at the same place.
"""

import math
from collections.abc import Sequence

from nodulant.base.errors import NodulantError
from nodulant.evaluate.brackets.mounts import mounts
from nodulant.evaluate.evaluation import Figure
from nodulant.frame.ops.union import Operation
from nodulant.frame.place import resolve
from nodulant.job.document import Inputs
from nodulant.suspension.study import Study

FORCES = ("spring_n", "across_n", "along_n", "out_n", "up_n", "force_n")
SAME_PLACE_MM = 40.0
"""A mount this near to where its joint asks for one is that joint's."""


def under_own_forces(inputs: Inputs, studies: Sequence[Study]) -> Inputs:
    """The design with the forces of Travel in its mounts; the same where nothing is held or nothing moves."""
    if not any(_fields(op) for op in inputs.design.operations):
        return inputs
    asked = [op for s in studies for op in mounts(inputs, s) if any(getattr(op, name) for name in _fields(op))]
    operations = tuple(_loaded(inputs, op, asked) for op in inputs.design.operations)
    return inputs.model_copy(update={"design": inputs.design.model_copy(update={"operations": operations})})


def own_force_figures(typed: Inputs, loaded: Inputs) -> tuple[Figure, ...]:
    """The force that each mount is worked with where Travel gives it, beside what was typed."""
    pairs = zip(typed.design.operations, loaded.design.operations, strict=True)
    basis = "as Travel has its joint now, worst case; what was typed gives way to it"
    return tuple(
        Figure(id=f"own-force-{op.id}", name="Force of its joint", value=_size(op), unit="N", basis=basis)
        for given, op in pairs
        if op is not given
    )


def _size(op: Operation) -> float:
    own = {name: float(getattr(op, name)) for name in _fields(op)}
    parts = math.sqrt(sum(own.get(name, 0.0) ** 2 for name in ("along_n", "out_n", "up_n")))
    return max(own.get("spring_n", 0.0), own.get("force_n", 0.0), parts)


def _fields(op: Operation) -> list[str]:
    """Names of the forces that can be put into an operation."""
    return [name for name in FORCES if name in type(op).model_fields]


def _loaded(inputs: Inputs, op: Operation, asked: Sequence[Operation]) -> Operation:
    own = next((a for a in asked if a.kind == op.kind and (a.id == op.id or _same_place(inputs, a, op))), None)
    return op if own is None else op.model_copy(update={name: getattr(own, name) for name in _fields(own)})


def _same_place(inputs: Inputs, asked: Operation, op: Operation) -> bool:
    """Whether two mounts stand at one place: station, height where they have one, and what they hold."""
    if getattr(asked, "holds", None) != getattr(op, "holds", None) or not _fields(op):
        return False
    try:
        x = [resolve(o.anchor, inputs.survey.features) for o in (asked, op)]
    except NodulantError:
        return False
    away = [abs(x[0] - x[1])]
    for name in ("height_mm", "x_mm", "y_mm", "z_mm"):
        if name in type(op).model_fields:
            away.append(abs(getattr(asked, name) - getattr(op, name)))
    return max(away) <= SAME_PLACE_MM
