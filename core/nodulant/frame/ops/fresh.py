"""A new operation begins near the axle that the job touches, with sizes of the rails that are there."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal, Self, get_args, get_origin

from nodulant.base.annotations import members_of
from nodulant.base.errors import InputError
from nodulant.base.model import Frozen
from nodulant.frame.place import Place
from nodulant.survey.vehicle import Survey

ON_LINE_MM = 1.0
"""An axle line that lies this near to the wheelbase is the rear axle's."""


@dataclass(frozen=True, slots=True)
class Setting:
    """What a new operation is measured from and fitted to."""

    survey: Survey
    axle: Literal["front", "rear"] = "rear"
    plates_mm: tuple[float, ...] = ()
    """Thicknesses that the shop has."""

    def near(self, offset_mm: float) -> Place:
        """Behind the line of the axle that the job touches; behind the datum where no axle line is known."""
        return Place(anchor_id=self._line(self.axle), offset_mm=offset_mm)

    def front(self, offset_mm: float) -> Place:
        """Behind the front axle's line."""
        return Place(anchor_id=self._line("front"), offset_mm=offset_mm)

    def _line(self, axle: Literal["front", "rear"]) -> str:
        lines = [f for f in self.survey.features if f.kind == "axle-line"]
        if not lines:
            return self.survey.datum.feature_id
        base = self.survey.wheelbase_mm
        if axle == "front":
            return min(lines, key=lambda f: abs(f.x_mm)).id
        return next((f.id for f in lines if base is not None and abs(f.x_mm - base) < ON_LINE_MM), lines[-1].id)

    def plate(self, usual_mm: float) -> float:
        """The shop's plate that is nearest to a usual thickness, mm."""
        return min(self.plates_mm, key=lambda t: abs(t - usual_mm), default=usual_mm)

    @property
    def inner_mm(self) -> float:
        """From the centre plane to the rails' inner side, mm."""
        rail = self.survey.rails.right
        return rail.web_y_mm - max(s.width_mm for s in rail.stations)

    @property
    def tube_mm(self) -> float:
        """Outside diameter of the axle's tube, mm; a usual one where it is not measured."""
        axle = self.survey.rear if self.axle == "rear" else self.survey.front
        return axle.tube_diameter_mm or 76.0


class Piece(Frozen):
    """Part of an operation that may be there or not."""

    @classmethod
    def fresh(cls, on: Setting) -> Self:
        """The piece as it begins."""
        return cls()


def unused(kind: str, taken: Iterable[str]) -> tuple[str, int]:
    """An id for a new operation of a kind, and how manyeth it is."""
    known = set(taken)
    number = next(n for n in range(1, len(known) + 2) if f"{kind}-{n}" not in known)
    return f"{kind}-{number}", number


def fresh_piece(annotation: object, choice: str, on: Setting, field: str) -> Frozen:
    """What a field of type ``annotation`` begins with; ``choice`` names the kind where there are several.

    Raises InputError at ``field`` where the type holds no piece of that kind.
    """
    inside = get_args(annotation)[0] if get_origin(annotation) is tuple else annotation
    offered = [t for t in members_of(inside) if isinstance(t, type) and issubclass(t, Frozen)]
    kinds = {_kind_of(t): t for t in offered}
    chosen = kinds.get(choice) if choice else next(iter(offered), None)
    if chosen is Place:
        return on.near(0.0)
    if chosen is None or not issubclass(chosen, Piece):
        raise InputError(
            "there is no such part", field=field, found=choice or field, acceptable=", ".join(sorted(kinds)) or "none"
        )
    return chosen.fresh(on)


def _kind_of(model: type[Frozen]) -> str:
    """The value of its field ``kind``, by which a union tells its members apart."""
    told = model.model_fields.get("kind")
    return str(told.default) if told is not None else ""
