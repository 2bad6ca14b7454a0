"""What the floor sends."""

from typing import Annotated, Literal

from pydantic import Field

from nodulant.asbuilt.entry import Subject
from nodulant.asbuilt.floor import Cause, Minutes
from nodulant.asbuilt.log import FramePoint, When
from nodulant.asbuilt.record import BoltsTold, LookTold, PaintTold, RoadTold, WeldTold
from nodulant.base.model import Frozen, Id, Name, Text
from nodulant_server.api.bodies import MeasuredFields, ReadingFields

Mark = Annotated[str, Field(pattern=r"^[0-9a-zA-Z-]{8,40}$")]
"""What the sender calls it: sent twice, it is taken once."""
DoneAt = Annotated[str, Field(max_length=40)]


class ActSign(Frozen):
    """Sign a step."""

    kind: Literal["sign"]
    step: Subject
    reading: ReadingFields | None = None
    note: Text = ""
    minutes: Minutes | None = None


class ActPass(Frozen):
    """Pass a step unsigned, with a reason."""

    kind: Literal["pass"]
    step: Subject
    reason: Name


class ActNote(Frozen):
    """One line on a step."""

    kind: Literal["note"]
    step: Subject
    text: Name


class ActRework(Frozen):
    """A step done again."""

    kind: Literal["rework"]
    step: Subject
    cause: Cause
    minutes: Minutes
    text: Text = ""


class ActLeftOff(Frozen):
    """The end of a session."""

    kind: Literal["left-off"]
    step: Subject
    text: Text = ""


class ActReading(Frozen):
    """A reading that a gate waits for."""

    kind: Literal["reading"]
    operation: Id
    key: Id
    side: Literal["left", "right"]
    reading: ReadingFields


class ActPart(Frozen):
    """A part is here and measured, or not after all."""

    kind: Literal["part"]
    part: Subject
    here: bool = True
    text: Text = ""


class ActStop(Frozen):
    """The job stands still."""

    kind: Literal["stop"]
    step: Subject
    reason: Name


class ActGoOn(Frozen):
    """It goes on."""

    kind: Literal["go-on"]
    reason: Name


class ActLength(Frozen):
    """A tape between two points of the frame."""

    kind: Literal["length"]
    start: FramePoint
    end: FramePoint
    when: When = ""
    reading: MeasuredFields


class ActLevel(Frozen):
    """A point of the frame over one level line."""

    kind: Literal["level"]
    point: FramePoint
    when: When = ""
    reading: MeasuredFields


class ActWeld(WeldTold):
    """A joint welded, and who looked at it."""

    kind: Literal["weld"]


class ActBolts(BoltsTold):
    """Bolts drawn to torque, and who looked a second time."""

    kind: Literal["bolts"]


class ActPaint(PaintTold):
    """Coats on a zone."""

    kind: Literal["paint"]


class ActOnTheRoad(RoadTold):
    """The first drive."""

    kind: Literal["on-the-road"]


class ActInspection(LookTold):
    """Something looked at again."""

    kind: Literal["inspection"]


class FloorBody(Frozen):
    """One act of the floor."""

    mark: Mark | None = None
    done_at: DoneAt = ""
    act: Annotated[
        ActSign
        | ActPass
        | ActNote
        | ActRework
        | ActLeftOff
        | ActReading
        | ActPart
        | ActStop
        | ActGoOn
        | ActLength
        | ActLevel
        | ActWeld
        | ActBolts
        | ActPaint
        | ActOnTheRoad
        | ActInspection,
        Field(discriminator="kind"),
    ]
