"""One suspension of a design as it stands in the plan, for whatever searches it."""

from dataclasses import dataclass
from typing import TypeVar

from pydantic import BaseModel

from nodulant.axles.suspension import Suspension
from nodulant.base.errors import UnknownReference
from nodulant.job.document import Inputs
from nodulant.job.riding import given_back, in_place
from nodulant.targets.drop import towards_rail

M = TypeVar("M", bound=BaseModel)


@dataclass(frozen=True)
class Hung:
    """Suspension ``index`` of ``planned``; what is found of it goes back to the frame as ``stored`` gives it."""

    stored: Inputs
    planned: Inputs
    index: int

    @property
    def own(self) -> Suspension:
        """The suspension in the plan."""
        return self.planned.design.suspensions[self.index]

    @property
    def towards_rail_mm(self) -> float:
        """How far its stack brings the axle closer to the rails."""
        return towards_rail(self.planned.design.targets, self.own.axle)

    def back(self, found: M) -> M:
        """A result with its suspensions as the document gives them."""
        return given_back(found, self.stored, self.index)


def hung(inputs: Inputs, index: int) -> Hung:
    """The suspension by its number; raises UnknownReference where there is none."""
    there = inputs.design.suspensions
    if not 0 <= index < len(there):
        raise UnknownReference(
            "this design has no such suspension",
            field="/suspension",
            found=str(index),
            acceptable=", ".join(f"{k} ({own.axle})" for k, own in enumerate(there)) or "none is designed yet",
        )
    return Hung(inputs, in_place(inputs), index)
