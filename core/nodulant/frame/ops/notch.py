"""A notch: arc or straight-sided cut from below, with liner, side plates, cap or bolted bracket."""

from collections.abc import Iterable

from nodulant.base.errors import InputError
from nodulant.frame.additions import Additions
from nodulant.frame.columns import RailColumns
from nodulant.frame.here import OnRail, Span
from nodulant.frame.ops.notch_parts import liner_bends, notch_parts, notch_seams
from nodulant.frame.ops.notch_plan import Cap, Liner, NotchPlan, PlateEnd, SidePlate
from nodulant.frame.ops.notch_sections import notch_additions
from nodulant.frame.ops.notch_work import notch_readings, notch_steps
from nodulant.frame.place import Place, resolve
from nodulant.geometry import Outline, Vertex
from nodulant.parts.part import Part, Seam
from nodulant.parts.specs import ReadingSpec, StepSpec
from nodulant.survey.vehicle import Feature

__all__ = ["Cap", "Liner", "Notch", "PlateEnd", "SidePlate"]


class Notch(NotchPlan):
    """A cut from below centred at ``place``; ``both`` sides are cut alike."""

    @property
    def anchor(self) -> Place:
        """Its centre."""
        return self.place

    @property
    def removes(self) -> bool:
        """Stock metal goes."""
        return True

    def span(self, features: Iterable[Feature], field: str) -> Span:
        """The mouth of the cut."""
        centre = resolve(self.place, features, f"{field}/place")
        return Span(centre - self.half_mouth_mm, centre + self.half_mouth_mm)

    def place_fields(self) -> tuple[str, str]:
        """One place holds both ends."""
        return ("place/offset_mm", "place/offset_mm")

    def refuse(self, rail_height_mm: float, field: str) -> None:
        """Refuse a notch that leaves nothing of the rail; raises InputError at ``field``."""
        if self.depth_mm >= 0.95 * rail_height_mm:
            raise InputError(
                "the notch is as deep as the rail",
                field=f"{field}/depth_mm",
                found=f"{self.depth_mm:g} mm",
                acceptable=f"less than {0.95 * rail_height_mm:.1f} mm on a rail {rail_height_mm:g} mm high",
            )

    def roles(self) -> tuple[str, ...]:
        """Liner, plates and cap that it has."""
        have = {"liner": self.liner, "outer": self.outer_plate, "inner": self.inner_plate, "cap": self.cap}
        return tuple(role for role, plate in have.items() if plate is not None)

    def additions(self, span: Span, rail: RailColumns, carried: frozenset[str], boxed: bool) -> Additions:
        """Cut and plates as columns."""
        return notch_additions(self, span.centre_mm, rail, carried, boxed)

    def parts(self, on: OnRail) -> list[Part]:
        """Its plates as flat shapes."""
        return notch_parts(self, on.side, on.here)

    def seams(self, on: OnRail, parts: list[Part]) -> list[Seam]:
        """Fillets around its plates."""
        return notch_seams(self, on.side, parts)

    def cut_edge(self) -> Outline:
        """Edge of the cut."""
        return self.shape.path(self.depth_mm)

    def edge_above(self, level_mm: float) -> tuple[Vertex, ...]:
        """The part of the edge above a level."""
        return self.shape.path_above(self.depth_mm, level_mm)

    def bends(self, part: Part, centre_mm: float) -> tuple[Outline, ...]:
        """Bend lines of a straight-sided liner."""
        return liner_bends(self, part, centre_mm) if part.role == "liner" else ()

    def steps(self, datum: str) -> list[StepSpec]:
        """Mark, cut, fit, look and weld."""
        return notch_steps(self, f"{self.place.offset_mm:+.1f} mm from {datum}")

    def readings(self, datum: str) -> list[ReadingSpec]:
        """Place, depth, width and plates."""
        return notch_readings(self, datum)
