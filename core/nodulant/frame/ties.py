"""The crossmembers of the planned frame: surveyed ones with everything that the design does to them."""

from nodulant.frame.ops.crossmember_change import CrossmemberChange
from nodulant.frame.ops.union import Operation
from nodulant.frame.place import resolve
from nodulant.survey.crossmember import Crossmember
from nodulant.survey.vehicle import Survey

SAME_PLACE_MM = 5.0
"""Two crossmembers nearer to each other than this are one that was given twice."""


def planned_crossmembers(
    survey: Survey, operations: tuple[Operation, ...], added: tuple[Crossmember, ...]
) -> tuple[Crossmember, ...]:
    """Surveyed, changed and added crossmembers, one at a place; raises InputError where one that is named is not there."""
    ties = survey.crossmembers
    for index, op in enumerate(operations):
        if isinstance(op, CrossmemberChange):
            field = f"/design/operations/{index}"
            ties = op.applied(ties, resolve(op.place, survey.features, f"{field}/place"), field)
        else:
            ties = (*ties, *op.ties(resolve(op.anchor, survey.features, f"/design/operations/{index}/place")))
    return (*ties, *(c for c in added if not any(_same_place(c, other) for other in ties)))


def given_twice(ties: tuple[Crossmember, ...], added: tuple[Crossmember, ...]) -> tuple[tuple[str, str], ...]:
    """Names of added crossmembers with those that stand at their place already."""
    return tuple((c.name, other.name) for c in added for other in ties if c is not other and _same_place(c, other))


def _same_place(one: Crossmember, other: Crossmember) -> bool:
    return abs(one.x_mm - other.x_mm) < SAME_PLACE_MM
