"""Bodies and answers of the API; the core's models are used as they are."""

from datetime import datetime
from typing import Annotated, Literal

from pydantic import Field, StringConstraints, model_validator

from nodulant.asbuilt.instruments import Instrument
from nodulant.asbuilt.log import Entry, FramePoint, When, by_new_names
from nodulant.base.model import Frozen, Name, Text
from nodulant.begin.start import Start
from nodulant.evaluate import Want
from nodulant.evaluate.evaluation import RailDrawing
from nodulant.formats.paper import Paper
from nodulant.frame.ops.form import Form
from nodulant.job.changes import Change
from nodulant.job.document import Design, Shop
from nodulant.job.merged import Merged
from nodulant.loads.cases import Case
from nodulant.materials import Steel
from nodulant.materials.pipe import Pipe
from nodulant.parts.measure import Measure
from nodulant.parts.reads import MetWords, ValueWords
from nodulant.parts.sides import AxleName
from nodulant.survey.rail import Station
from nodulant.survey.vehicle import Seat, Survey
from nodulant.targets.mechanisms import MechanismDefault
from nodulant.units.show import Style
from nodulant_server.roles import Role


class Person(Frozen):
    """Someone the demo can sign in as."""

    name: str
    role: Role


class ShopName(Frozen):
    """A shop that a person belongs to."""

    id: int
    name: str


class Session(Frozen):
    """Who is signed in."""

    user: str | None
    role: Role | None
    demo: bool
    people: list[Person]
    shop: str = ""
    shops: list[ShopName] = []
    """Every shop that the person belongs to."""
    link: int | None = None
    """The one job that is looked at by a reader's link."""


class SignIn(Frozen):
    """Name and password."""

    name: str
    password: str


class WheelFace(Frozen):
    """A wheel told in both ways, mm: offset and backspacing."""

    offset_mm: float
    backspacing_mm: float


class Switch(Frozen):
    """Demo person to become."""

    name: str


class NewJob(Frozen):
    """A job to begin: its name, how it reads a tape, and what a first visit with one gave."""

    name: Name
    style: Style = "in16"
    start: Start


class JobRow(Frozen):
    """A job in the list: when anything of it was last stored, and by whom."""

    id: int
    name: str
    vehicle: str
    at: datetime
    by: str
    example: bool
    archived: bool
    template: bool
    note: str


class BeginLike(Frozen):
    """A job to begin like another one: its own name and vehicle."""

    name: Name
    vehicle: Name


class JobChange(Frozen):
    """What is changed of a job in the list; what is left out stays."""

    name: Name | None = None
    note: Text | None = None
    template: bool | None = None
    archived: bool | None = None
    deleted: bool | None = None


class OptionHead(Frozen):
    """An option and its newest revision's number."""

    id: int
    key: str
    name: str
    note: str
    head: int


class OptionChange(Frozen):
    """What is changed of an option; what is not given stays."""

    name: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)] | None = None
    note: Annotated[str, StringConstraints(strip_whitespace=True, max_length=4000)] | None = None
    deleted: bool | None = None


class RevisionRow(Frozen):
    """A stored revision of an option, and what it changed against the one before."""

    number: int
    at: datetime
    by: str
    note: str
    changes: tuple[Change, ...]


class RevisionDesign(Frozen):
    """A stored revision's design, and what the newest one has otherwise."""

    number: int
    design: Design
    since: tuple[Change, ...]


class JobHead(Frozen):
    """A job as the bench needs it."""

    id: int
    name: str
    shop: Shop
    shop_number: int
    survey_number: int
    survey: Survey
    options: list[OptionHead]
    log: list[Entry]


Device = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9._-]{0,80}$")]
Number = Annotated[int, Field(ge=1, le=2**31 - 1)]
"""Of a revision."""


class OtherDraft(Frozen):
    """Unsaved work of the same person on another device: which, made on what revision, and when it was kept."""

    id: int
    device: str
    base: int
    at: datetime


class OptionDesign(Frozen):
    """The newest saved design, the device's own draft, and the person's drafts on other devices."""

    id: int
    head: int
    design: Design
    draft: Design | None
    draft_id: int | None
    draft_base: int | None
    draft_survey: Survey | None
    draft_survey_base: int | None
    draft_device: str
    others: list[OtherDraft]


class SaveDraft(Frozen):
    """Unsaved work: a design and the survey where it was edited too, the revisions they started from, and the device."""

    base: Number
    design: Design
    survey: Survey | None = None
    survey_base: Number | None = None
    device: Device = ""
    replaces: Device | None = None
    """A device whose work was taken over here."""


class SaveDesign(Frozen):
    """A design, the revision that it started from, a word on what it is for, and the device it was made on."""

    base: Number
    design: Design
    note: Text = ""
    device: Device = ""


class SaveShop(Frozen):
    """The shop's settings on a job, and the number of those they started from."""

    base: Annotated[int, Field(ge=1)]
    shop: Shop


class SaveSurvey(Frozen):
    """A survey and the revision that it started from."""

    base: Number
    survey: Survey


class MergedSurvey(Merged):
    """Both changes in one survey, and the revision that it is on top of."""

    head: int


class Branch(Frozen):
    """A new option from a design."""

    name: Name
    design: Design


class Saved(Frozen):
    """The number that was written."""

    number: int


class DraftBody(Frozen):
    """A draft on its job; the job's own survey where none is given."""

    job_id: int
    design: Design
    survey: Survey | None = None


class EvaluateBody(DraftBody):
    """Evaluate a draft on a job; ``slim`` leaves out the whys, for a drag."""

    want: Want = Want()
    slim: bool = False
    sequence: int = 0


class PagesBody(DraftBody):
    """How many pages a draft's patterns take on a paper; mirrored pairs ``once`` or both."""

    paper: Paper = "a4"
    once: bool = False


class Pages(Frozen):
    """Pages of paper."""

    pages: int


class TravelBody(DraftBody):
    """Move the suspensions of a draft; at a ``glance`` nothing is judged and only level poses are given."""

    glance: bool = False
    only: Annotated[int, Field(ge=0, le=1)] | None = None
    """At a glance: the number of the suspension that a hand moves; the others are left out."""


class OutlineBody(Frozen):
    """A drawing of the rail from the side, its unit, where its left end is, and a station to be like in width and wall."""

    text: str
    unit: Literal["mm", "in"] = "mm"
    front_x_mm: float = 0.0
    like: Station


class SectionBody(Frozen):
    """A drawing of the rail's cross-section, web upright, and its unit."""

    text: str
    unit: Literal["mm", "in"] = "mm"


class CompareBody(Frozen):
    """Options of one job to be put side by side."""

    job_id: int
    option_ids: Annotated[tuple[int, ...], Field(min_length=2, max_length=4)]


class Catalogue(Frozen):
    """What the core offers to choose from."""

    mechanisms: tuple[MechanismDefault, ...]
    steels: tuple[Steel, ...]
    bolt_sizes: tuple[str, ...]
    bolt_grades: tuple[str, ...]
    cases: tuple[Case, ...]
    reads: dict[str, ValueWords]
    """How a value reads, by the unit of its limit."""
    met: dict[str, MetWords]
    """What is said of limits that are met or not, by their ids."""
    saws_mm: tuple[float, ...]
    """Diameters of hole saws that can be bought, mm."""
    pipes: tuple[Pipe, ...]
    """Pipe for liners, with its trade names."""
    forms: tuple[Form, ...]
    """Work that can be added to the rails, each with its form, in the order it is offered."""
    instruments: tuple[Instrument, ...]
    """What lengths are read with."""


class StationsBody(Frozen):
    """CSV text and the unit where it names none."""

    text: Annotated[str, Field(max_length=1_000_000)]
    unit: Literal["mm", "in"] = "mm"


class FreshBody(DraftBody):
    """A new operation of a kind for a draft."""

    kind: Annotated[str, Field(max_length=40)]


class SeatsBody(Frozen):
    """Seats whose shares of an axle are to make 1; ``both_ends`` puts a second one beyond the axle's line."""

    seats: Annotated[list[Seat], Field(max_length=20)]
    axle: AxleName
    line_mm: float = 0.0
    both_ends: bool = False


class FreshPartBody(DraftBody):
    """What an optional part of an operation begins with; ``choice`` where there are several kinds of it."""

    operation_id: Annotated[str, Field(max_length=40)]
    at: Annotated[str, Field(max_length=40)]
    choice: Annotated[str, Field(max_length=40)] = ""


class OptionCounts(Frozen):
    """How an option stands: groups of checks by verdict, empty where it cannot be evaluated; its worst, and what comes next."""

    id: int
    name: str
    counts: dict[str, int]
    worst: str = ""
    next_step: str = ""
    rail: RailDrawing | None = None
    """The left rail as planned, for a small picture."""


class MeasuredFields(Frozen):
    """A number as typed, with what it was read with."""

    value: float
    text: str = ""
    instrument: str = "tape"
    resolution: float = 0.5
    note: str = ""

    @model_validator(mode="before")
    @classmethod
    def _as_sent_before(cls, data: object) -> object:
        """A phone that was offline while the shop was updated still says it the older way."""
        return by_new_names(data)


class ReadingFields(MeasuredFields):
    """A reading as typed, in its unit; ``again`` counts it with those before it."""

    unit: Measure = "mm"
    again: bool = False


class SignBody(Frozen):
    """Sign a step of an option's design."""

    step: str
    reading: ReadingFields | None = None
    note: str = ""


class ReadingBody(ReadingFields):
    """A reading of an operation on a side."""

    operation: str
    key: str
    side: Literal["left", "right"]


class LengthBody(MeasuredFields):
    """A tape between two points of the frame."""

    start: FramePoint
    end: FramePoint
    when: When = ""


class LevelBody(MeasuredFields):
    """A point of the frame over one level line."""

    point: FramePoint
    when: When = ""


class ReasonBody(Frozen):
    """An override or decision with its reason."""

    subject: str
    reason: Name
    choice: Literal["accept", "rework"] | None = None


class WithdrawBody(Frozen):
    """The entry to take back."""

    entry: int
    reason: Name
