"""The crossmembers of the planned frame: surveyed ones with everything that the design does to them."""

from nodulant.frame.ops.crossmember_change import CrossmemberChange
from nodulant.frame.ops.union import Operation
from nodulant.frame.place import resolve
from nodulant.survey.crossmember import Crossmember
from nodulant.survey.vehicle import Survey


def planned_crossmembers(
    survey: Survey, operations: tuple[Operation, ...], added: tuple[Crossmember, ...]
) -> tuple[Crossmember, ...]:
    """Surveyed, changed and added crossmembers; raises InputError where one that is named is not there."""
    ties = survey.crossmembers
    for index, op in enumerate(operations):
        if isinstance(op, CrossmemberChange):
            field = f"/design/operations/{index}"
            ties = op.applied(ties, resolve(op.place, survey.features, f"{field}/place"), field)
        else:
            ties = (*ties, *op.ties(resolve(op.anchor, survey.features, f"/design/operations/{index}/place")))
    return (*ties, *added)
