"""A change of a design as what it puts in the place of what: it can be laid on a newer draft, or refused there."""

from nodulant.base.model import Frozen
from nodulant.frame.ops.union import Operation
from nodulant.job.document import Design, Inputs
from nodulant.survey.crossmember import Crossmember
from nodulant.survey.vehicle import Seat
from nodulant.units.said import Said


class Patch(Frozen):
    """Operations that take the place of those with their ids, and what is added; seats where they move."""

    clauses: tuple[Said, ...]
    """What it does, one clause a change."""
    changed: tuple[Operation, ...] = ()
    added: tuple[Operation, ...] = ()
    crossmembers: tuple[Crossmember, ...] = ()
    seats: tuple[Seat, ...] = ()
    """All planned seats, where any of them moves; empty where none does."""


def patched(inputs: Inputs, patch: Patch) -> Inputs:
    """The inputs with a patch in them."""
    return inputs.model_copy(update={"design": patched_design(inputs.design, patch)})


def patched_design(design: Design, patch: Patch) -> Design:
    """The design with a patch in it."""
    by_id = {op.id: op for op in patch.changed}
    operations = tuple(by_id.get(op.id, op) for op in design.operations) + patch.added
    update: dict[str, object] = {"operations": operations}
    if patch.crossmembers:
        update["crossmembers"] = (*design.crossmembers, *patch.crossmembers)
    if patch.seats:
        update["seats"] = patch.seats
    return design.model_copy(update=update)


def together(one: Patch, two: Patch) -> Patch:
    """Both patches, the second laid on the first."""
    later = {op.id: op for op in two.changed}
    changed = {op.id: later.get(op.id, op) for op in one.changed}
    added = tuple(later.get(op.id, op) for op in one.added)
    mine = {op.id for op in one.added}
    changed |= {op.id: op for op in two.changed if op.id not in mine}
    later_texts = {clause.text for clause in two.clauses}
    return Patch(
        clauses=(*(clause for clause in one.clauses if clause.text not in later_texts), *two.clauses),
        changed=tuple(changed.values()),
        added=(*added, *two.added),
        crossmembers=(*one.crossmembers, *two.crossmembers),
        seats=two.seats or one.seats,
    )


def words_of(patch: Patch) -> Said:
    """Its clauses as one sentence."""
    texts, of = [], {}
    for k, clause in enumerate(patch.clauses):
        text = clause.text
        for name, amount in clause.of.items():
            text, of[f"{name}{k}"] = text.replace("{" + name + "}", "{" + f"{name}{k}" + "}"), amount
        texts.append(text)
    return Said(text="; ".join(texts), of=of)
