"""What every operation between two places shares."""

from collections.abc import Iterable
from typing import Annotated

from nodulant.base.shown import Shown
from nodulant.frame.here import Span
from nodulant.frame.ops.operation import RailOperation
from nodulant.frame.place import Place, resolve
from nodulant.survey.rail import Rail
from nodulant.survey.vehicle import Feature


class Ranged(RailOperation):
    """An operation from ``start`` to ``end``."""

    start: Annotated[Place, Shown("Front end")]
    end: Annotated[Place, Shown("Rear end")]

    @property
    def anchor(self) -> Place:
        """Its front end."""
        return self.start

    def span(self, rail: Rail, features: Iterable[Feature], field: str) -> Span:
        """From end to end."""
        known = tuple(features)
        return Span(resolve(self.start, known, f"{field}/start"), resolve(self.end, known, f"{field}/end"))
