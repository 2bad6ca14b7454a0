"""The opening of a wheel arch as measured on the body before the cut, frame axes, mm."""

from typing import Literal, Self

from pydantic import model_validator

from nodulant.base.errors import InputError
from nodulant.base.model import Coordinate, Frozen, Size

LEAST_MM = 50.0


class Arch(Frozen):
    """Edges of the opening on one side; the other side is its mirror image."""

    front_x_mm: Coordinate
    """Front edge at the hub's height."""
    rear_x_mm: Coordinate
    """Rear edge at the hub's height."""
    top_z_mm: Coordinate
    """Highest point of its edge, above the datum plane."""
    edge_y_mm: Size
    """Its edge or folded lip, from the centre plane."""
    hub_z_mm: Coordinate | None = None
    """Height at which its front and rear edge were measured; the surveyed hubs' where left out."""
    rides: Literal["body", "rail", "placed"] = "body"
    """Whether it stays with the body between the axles, goes with the rails under it, as a bed does, or was measured on the finished frame."""

    @model_validator(mode="after")
    def _opens(self) -> Self:
        if self.rear_x_mm - self.front_x_mm < LEAST_MM:
            raise InputError(
                "the rear edge of an arch lies behind its front edge",
                field="rear_x_mm",
                found=f"{self.rear_x_mm:g}",
                acceptable=f"{self.front_x_mm + LEAST_MM:g} or more",
            )
        return self

    @property
    def middle_x_mm(self) -> float:
        """Halfway between its edges."""
        return (self.front_x_mm + self.rear_x_mm) / 2
