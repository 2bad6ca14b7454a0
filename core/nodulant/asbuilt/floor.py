"""What is written on the floor beside signatures: notes, photos, rework, where one left off, a stop.

None of it changes a figure; a stop shuts every signature until somebody says why it may go on.
"""

from typing import Annotated, Literal

from pydantic import Field

from nodulant.asbuilt.entry import Logged, Subject
from nodulant.base.model import Name, Text

Sha256 = Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]
Minutes = Annotated[int, Field(ge=0, le=10_000)]
Cause = Literal["part did not fit", "misread", "heat moved it", "weld not good", "plan was wrong", "damage", "other"]
FLOOR_KINDS = frozenset({"note", "photo", "rework", "left-off", "stop", "go-on"})


class NoteEntry(Logged):
    """One line on a step."""

    kind: Literal["note"] = "note"
    step: Subject
    text: Name


class PhotoEntry(Logged):
    """A picture of a step, kept with the job under its hash."""

    kind: Literal["photo"] = "photo"
    step: Subject
    sha256: Sha256
    text: Text = ""


class ReworkEntry(Logged):
    """A step done again, and why: later estimates know of it."""

    kind: Literal["rework"] = "rework"
    step: Subject
    cause: Cause
    minutes: Minutes
    text: Text = ""


class LeftOffEntry(Logged):
    """The end of a session: at which step, and what the next one has to know."""

    kind: Literal["left-off"] = "left-off"
    step: Subject
    text: Text = ""


class StopEntry(Logged):
    """The job stands still: nothing is signed until somebody who decides lets it go on."""

    kind: Literal["stop"] = "stop"
    step: Subject
    reason: Name


class GoOnEntry(Logged):
    """It goes on, and why it may."""

    kind: Literal["go-on"] = "go-on"
    reason: Name
