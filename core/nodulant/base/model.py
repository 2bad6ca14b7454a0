"""The frozen model every document and every result is built from.

Fields carry their unit in the name (``_mm``, ``_kg``, ``_deg``, ``_mpa``). Unknown
fields and non-finite numbers are refused where the value is built.
"""

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field, StringConstraints


class Frozen(BaseModel):
    """Immutable value: unknown fields and NaN or infinity are errors."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


Id = Annotated[str, StringConstraints(pattern=r"^[a-z0-9][a-z0-9_-]{0,39}$")]
Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
Text = Annotated[str, StringConstraints(max_length=4000)]
Coordinate = Annotated[float, Field(ge=-20_000, le=20_000)]
"""A position along, across or above the frame, mm."""
Size = Annotated[float, Field(gt=0, le=5_000)]
"""A length that cannot be zero, mm."""
Thickness = Annotated[float, Field(ge=0.1, le=40)]
"""A wall, plate or weld size, mm: foil is no wall."""
Extra = Annotated[float, Field(ge=0, le=2_000)]
"""A length that may be zero, mm."""


class Typed(Frozen):
    """How a person typed a number, kept beside it and outside every hash."""

    text: Annotated[str, Field(max_length=60)]
    unit: Annotated[str, Field(max_length=8)]


Assumed = Annotated[dict[Annotated[str, Field(max_length=120)], Name], Field(max_length=400)]
"""Values that nobody gave: pointers into the document, and what each is called. They count as not measured."""


def is_assumed(assumed: Assumed, pointer: str) -> bool:
    """Whether a value at ``pointer``, or anything below it, was assumed and not measured."""
    return any(key == pointer or key.startswith(f"{pointer}/") for key in assumed)
