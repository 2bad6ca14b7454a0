"""What every operation at one place shares."""

from collections.abc import Iterable
from typing import TYPE_CHECKING

from nodulant.frame.here import Span
from nodulant.frame.ops.operation import RailOperation
from nodulant.frame.place import Place, resolve
from nodulant.survey.rail import Rail
from nodulant.survey.vehicle import Feature


class AtPlace(RailOperation):
    """An operation that stands at its ``place``, as far ahead of it as behind; each kind says what its place is."""

    if TYPE_CHECKING:
        place: Place

    @property
    def anchor(self) -> Place:
        """Its place."""
        return self.place

    @property
    def half_mm(self) -> float:
        """How far it reaches ahead of its place and behind it."""
        raise NotImplementedError

    def place_fields(self) -> tuple[str, str]:
        """One place holds both ends."""
        return ("place/offset_mm", "place/offset_mm")

    def span(self, rail: Rail, features: Iterable[Feature], field: str) -> Span:
        """Both ways from its place."""
        x = resolve(self.place, features, f"{field}/place")
        return Span(x - self.half_mm, x + self.half_mm)
