"""The operations there are: a new one is a new file and a line here."""

from typing import Annotated

from pydantic import Field

from nodulant.base.annotations import members_of
from nodulant.frame.ops.crossmember_change import CrossmemberChange
from nodulant.frame.ops.hole import WebHole
from nodulant.frame.ops.mounts.bracket import Bracket
from nodulant.frame.ops.mounts.pad import AxlePad, Pad
from nodulant.frame.ops.mounts.spring_bridge import SpringBridge
from nodulant.frame.ops.mounts.steering_mount import SteeringMount
from nodulant.frame.ops.notches.notch import Notch
from nodulant.frame.ops.on_axle.axle_bracket import AxleBracket
from nodulant.frame.ops.on_axle.truss import Truss
from nodulant.frame.ops.operation import RailOperation
from nodulant.frame.ops.plates.boxing import Boxing
from nodulant.frame.ops.plates.plate import Doubler
from nodulant.frame.ops.plates.repair import Repair
from nodulant.frame.ops.pockets.raise_into import Raise
from nodulant.frame.ops.pockets.spring_pocket import SpringPocket
from nodulant.frame.ops.subframes.subframe import Subframe
from nodulant.frame.ops.through.access import AccessCut
from nodulant.frame.ops.through.narrow import Narrow
from nodulant.frame.ops.through.splice import Splice
from nodulant.frame.ops.through.stretch import Stretch
from nodulant.frame.ops.through.zstep import ZStep

Operation = Annotated[
    Notch
    | Boxing
    | ZStep
    | Raise
    | Subframe
    | Narrow
    | Stretch
    | Doubler
    | WebHole
    | CrossmemberChange
    | Splice
    | AccessCut
    | Repair
    | Bracket
    | SpringBridge
    | SpringPocket
    | Pad
    | AxleBracket
    | Truss
    | AxlePad
    | SteeringMount,
    Field(discriminator="kind"),
]


def operation_kinds() -> tuple[type[RailOperation], ...]:
    """Every kind of operation, in the order of the union."""
    return tuple(m for m in members_of(Operation) if isinstance(m, type) and issubclass(m, RailOperation))
