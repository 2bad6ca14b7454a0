"""A new operation begins near the axle that the job touches, with sizes of the rails that are there."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal, Self, get_args, get_origin

from nodulant.base.annotations import members_of
from nodulant.base.errors import InputError
from nodulant.base.model import Frozen
from nodulant.frame.place import Place, resolve
from nodulant.survey.vehicle import Survey

ON_LINE_MM = 1.0
"""An axle line that lies this near to the wheelbase is the rear axle's."""
END_MM = 100.0
"""New work keeps this far from the ends of the rails."""
TAPE_MM = 10.0
"""What reaches to the end of a rail stops short of it by more than a mark on the tape is away."""


@dataclass(frozen=True, slots=True)
class Setting:
    """What a new operation is measured from and fitted to."""

    survey: Survey
    axle: Literal["front", "rear"] = "rear"
    plates_mm: tuple[float, ...] = ()
    """Thicknesses that the shop has."""

    def inward(self, along_mm: float) -> Place:
        """So far towards the middle of the vehicle from the line of the axle that the job touches, on both rails.

        Measured from the datum where no axle line is known.
        """
        away = along_mm if self.axle == "front" else -along_mm
        return self._on_rails(self.axle, away, END_MM)

    def between(self, near_mm: float, far_mm: float) -> dict[str, Place]:
        """Fields ``start`` and ``end`` of what lies between two places told as ``inward`` tells them."""
        first, last = sorted((near_mm, far_mm) if self.axle == "front" else (-near_mm, -far_mm))
        return {"start": self._on_rails(self.axle, first, TAPE_MM), "end": self._on_rails(self.axle, last, TAPE_MM)}

    def front(self, offset_mm: float) -> Place:
        """Behind the front axle's line."""
        return self._on_rails("front", offset_mm, END_MM)

    def _on_rails(self, axle: Literal["front", "rear"], offset_mm: float, margin_mm: float) -> Place:
        """At that offset behind the axle's line, or as near to it as both rails reach less a margin."""
        anchor = self._line(axle)
        line = resolve(Place(anchor_id=anchor), self.survey.features)
        rails = (self.survey.rails.left, self.survey.rails.right)
        first = max(rail.stations[0].x_mm for rail in rails) + margin_mm
        last = min(rail.stations[-1].x_mm for rail in rails) - margin_mm
        station = min(max(line + offset_mm, first), last)
        return Place(anchor_id=anchor, offset_mm=station - line)

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
        return on.inward(0.0)
    if chosen is None or not issubclass(chosen, Piece):
        raise InputError(
            "there is no such part", field=field, found=choice or field, acceptable=", ".join(sorted(kinds)) or "none"
        )
    return chosen.fresh(on)


def _kind_of(model: type[Frozen]) -> str:
    """The value of its field ``kind``, by which a union tells its members apart."""
    told = model.model_fields.get("kind")
    return str(told.default) if told is not None else ""
