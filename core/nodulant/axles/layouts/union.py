"""All layouts; a new one is a class and a name here."""

from typing import Annotated

from pydantic import Field

from nodulant.axles.layouts.independent import DoubleWishbone, MultiLink, Strut, TrailingArm
from nodulant.axles.layouts.live import (
    LadderBars,
    LeafSprings,
    ParallelFourLink,
    ThreeLink,
    TorqueArm,
    TriangulatedFourLink,
)

AnyLayout = Annotated[
    TriangulatedFourLink
    | ParallelFourLink
    | ThreeLink
    | LadderBars
    | TorqueArm
    | LeafSprings
    | TrailingArm
    | MultiLink
    | DoubleWishbone
    | Strut,
    Field(discriminator="kind"),
]
