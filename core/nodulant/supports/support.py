"""One thing that holds a part of the frame up."""

from typing import Annotated, Literal

from pydantic import Field

from nodulant.base.model import Coordinate, Frozen, Id, Name

RATED_KG = 1500.0
"""A pair of usual stands is rated twice this (Nodulant default: read it on the stand)."""


class Support(Frozen):
    """A stand or leg under the frame: where it touches, in the plan of the surveyed frame, and what it is rated for."""

    id: Id
    name: Name
    kind: Literal["stand", "leg", "tie-down"] = "stand"
    """A stand from the floor, a leg welded to the part that it carries, or a tie that holds it down."""
    x_mm: Coordinate
    """Station on the surveyed frame."""
    y_mm: Coordinate
    """From the centre plane, to the right."""
    rating_kg: Annotated[float, Field(gt=0, le=50_000)] = RATED_KG
