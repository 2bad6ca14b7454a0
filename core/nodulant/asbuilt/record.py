"""What is written of joints, bolts and paint when they are done: by whom, with what, who looked at them, what was found."""

from typing import Annotated, Literal

from pydantic import Field

from nodulant.asbuilt.entry import Logged, Subject
from nodulant.base.model import Frozen, Name, Text
from nodulant.materials.process import Process

RECORD_KINDS = frozenset({"weld", "bolts", "paint", "on-the-road", "inspection"})
Dye = Literal["not done", "clear", "marks"]
Who = Annotated[str, Field(max_length=80)]
"""A name; empty where nobody did."""


class WeldTold(Frozen):
    """One joint of the weld map as it was welded and looked at."""

    joint: Subject
    process: Process = "MIG/MAG"
    wire: Annotated[str, Field(max_length=60)] = ""
    operator: Name
    gap_mm: Annotated[float, Field(ge=0, le=20)] | None = None
    """Fit-up gap before it was welded; None where nobody measured it."""
    looked_by: Who = ""
    dye: Dye = "not done"
    defect: Text = ""
    """What was found; empty where nothing was."""
    repaired: bool = False


class WeldEntry(WeldTold, Logged):
    """The same as it stands in the log."""

    kind: Literal["weld"] = "weld"


class BoltsTold(Frozen):
    """The bolts of one joint: torque, the mark across nut and thread, and who looked a second time."""

    joint: Subject
    torque_nm: Annotated[float, Field(gt=0, le=5000)] | None = None
    marked: bool = False
    looked_by: Who = ""


class BoltsEntry(BoltsTold, Logged):
    """The same as it stands in the log."""

    kind: Literal["bolts"] = "bolts"


class PaintTold(Frozen):
    """Coats on a zone."""

    zone: Name
    coats: Annotated[int, Field(ge=0, le=10)]
    """0 is bare metal, cleaned."""
    film_um: Annotated[float, Field(gt=0, le=3000)] | None = None
    looked_by: Who = ""


class PaintEntry(PaintTold, Logged):
    """The same as it stands in the log."""

    kind: Literal["paint"] = "paint"


class RoadTold(Frozen):
    """The first drive, and how far it is driven in a week: from it follow the days of both inspections."""

    first: Annotated[str, Field(pattern=r"^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$")]
    km_week: Annotated[float, Field(gt=0, le=5000)]


class OnTheRoadEntry(RoadTold, Logged):
    """The same as it stands in the log."""

    kind: Literal["on-the-road"] = "on-the-road"


class LookTold(Frozen):
    """One thing looked at again after so many kilometres."""

    km: Literal[100, 1000]
    what: Subject
    ok: bool
    found: Text = ""


class InspectionEntry(LookTold, Logged):
    """The same as it stands in the log."""

    kind: Literal["inspection"] = "inspection"
