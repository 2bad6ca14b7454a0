"""The open job file and the inputs of an evaluation.

``Inputs`` are what one evaluation sees: survey, design, as-built log and shop. ``JobFile``
holds all revisions of a job. Lengths mm, masses kg, angles degrees, as the names say.
"""

import hashlib
from itertools import pairwise
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from nodulant.asbuilt.log import Entry, deciding
from nodulant.axles.suspension import Suspension
from nodulant.base.errors import InputError
from nodulant.base.memo import remembered, shared
from nodulant.base.model import Assumed, Frozen, Id, Name, Size, Text, Thickness, Typed
from nodulant.clearance.obstacle import Obstacle
from nodulant.driveline.driveline import Driveline
from nodulant.frame.ops.union import Operation
from nodulant.job.along import AlongNote
from nodulant.job.rack import MetalRack
from nodulant.job.timing import EVENINGS, Timing, WorkSession
from nodulant.loads.plan import LoadPlan
from nodulant.materials.process import Welding
from nodulant.parts.limit import LimitChange, StrengthRule
from nodulant.supports.lift import Lift
from nodulant.supports.support import Support
from nodulant.survey.crossmember import Crossmember
from nodulant.survey.vehicle import Seat, Survey
from nodulant.targets.drop import Targets
from nodulant.units.show import MM_PER_INCH, Style

FORMAT = "nodulant-job"
MOST_OPTIONS, MOST_REVISIONS, MOST_ENTRIES = 50, 5000, 20_000
"""Of one job file: what is stored is held to the same, so that every job can leave."""
VERSION = 5


class Design(Frozen):
    """One option's design: targets, operations, planned seats and changed limits."""

    targets: Targets = Targets()
    operations: Annotated[tuple[Operation, ...], Field(max_length=40)] = ()
    seats: Annotated[tuple[Seat, ...], Field(max_length=20)] = ()
    """Planned seats; empty means the surveyed ones stay."""
    crossmembers: Annotated[tuple[Crossmember, ...], Field(max_length=60)] = ()
    """Added by this design; the surveyed ones stay."""
    loads: LoadPlan = LoadPlan()
    suspensions: Annotated[tuple[Suspension, ...], Field(max_length=2)] = ()
    """What holds the axles; none means that the stock one stays and is not looked at."""
    driveline: Driveline | None = None
    obstacles: Annotated[tuple[Obstacle, ...], Field(max_length=60)] = ()
    """Engine, sump, tank, floor: what the user placed for the sweep."""
    along: Annotated[tuple[AlongNote, ...], Field(max_length=8)] = ()
    """What was said of things that go along with a raise or a narrowing."""
    supports: Annotated[tuple[Support, ...], Field(max_length=30)] = ()
    """Stands and legs that hold the frame while it is worked on."""
    lifts: Annotated[tuple[Lift, ...], Field(max_length=20)] = ()
    """What is lifted off or out by a crane."""
    timing: Timing = Timing()
    """What its plan waits for that is no work, and by when it is to be done; no figure depends on it."""
    stock_spares: Literal["not said", "fit", "do not fit"] = "not said"
    """Whether spares of the donor's stock parts still fit after this design."""
    rule: StrengthRule = StrengthRule()
    """Whether what is weaker than stock but carries its loads passes."""
    limits: dict[str, LimitChange] = {}
    typed: dict[str, Typed] = {}
    assumed: Assumed = {}
    notes: Annotated[dict[Id, Text], Field(max_length=200)] = {}
    """What somebody noted on an operation, by its id; no part of the work, and outside every hash."""


Rate = Annotated[float, Field(ge=0, le=100_000)]


class Rates(Frozen):
    """What an hour, a kilogram of plate and a metre of weld cost the shop; None where it has not said."""

    currency: Annotated[str, Field(max_length=8)] = "units"
    hour: Rate | None = None
    plate_kg: Rate | None = None
    weld_m: Rate | None = None


class Shop(Frozen):
    """What the shop has and how it reads a tape."""

    name: Name = "Shop"
    style: Style = "in16"
    plate_stock_mm: Annotated[tuple[Thickness, ...], Field(min_length=1, max_length=20)] = (3.0, 4.0, 5.0, 6.0, 8.0)
    cap_heights_mm: Annotated[tuple[Size, ...], Field(min_length=1, max_length=20)] = (25.0, 40.0, 50.0, 60.0, 75.0)
    rates: Rates = Rates()
    rack: MetalRack = MetalRack()
    welding: Welding = Welding()
    week: Annotated[tuple[WorkSession, ...], Field(max_length=28)] = EVENINGS
    """When somebody works."""

    @classmethod
    def reading(cls, style: Style) -> Self:
        """A new shop that reads its tape so: its rack is in inches where its tape is."""
        if style == "mm":
            return cls(style=style)
        sixteenths = {"plate_stock_mm": (2, 3, 4, 5, 6), "cap_heights_mm": (16, 24, 32, 40, 48)}
        racks = {name: tuple(n * MM_PER_INCH / 16 for n in sizes) for name, sizes in sixteenths.items()}
        return cls.model_validate({"style": style, "rack": MetalRack.reading(style), **racks})


BESIDE_FIGURES = {"imported", "done_at", "clock", "minutes", "planned_minutes"}
"""Of an entry: what no figure depends on."""


class AsBuilt(Frozen):
    """The append-only log."""

    entries: Annotated[tuple[Entry, ...], Field(max_length=MOST_ENTRIES)] = ()


@remembered(8)
def _same_log(log: AsBuilt) -> AsBuilt:
    """The log first seen with these entries: they are compared, since thousands of them are long to write down."""
    return log


class Inputs(Frozen):
    """Everything one evaluation depends on."""

    survey: Survey
    design: Design = Design()
    as_built: AsBuilt = AsBuilt()
    shop: Shop = Shop()

    def as_planned(self) -> "Inputs":
        """The same inputs with an empty log: nothing was read yet."""
        return self.model_copy(update={"as_built": AsBuilt()})

    def of_shared_parts(self) -> "Inputs":
        """The same inputs made of parts that are the very same objects as in earlier ones with the same content."""
        own = self.design
        design = own.model_copy(
            update={
                "targets": shared(own.targets),
                "operations": tuple(shared(op) for op in own.operations),
                "suspensions": tuple(shared(s) for s in own.suspensions),
                "obstacles": tuple(shared(o) for o in own.obstacles),
                "loads": shared(own.loads),
            }
        )
        parts = {"survey": shared(self.survey), "as_built": _same_log(self.as_built), "shop": shared(self.shop)}
        return self.model_copy(update={"design": design, **parts})

    def content_hash(self) -> str:
        """SHA-256 of the canonical JSON, typed text left out; hexadecimal. A job that assumes nothing hashes as it always did."""
        left_out = {
            name: {"typed", "notes"} if document.assumed else {"typed", "notes", "assumed"}
            for name, document in (("design", self.design), ("survey", self.survey))
        }
        left_out["design"].add("timing")
        left_out["design"] |= {name for name in ("supports", "lifts") if not getattr(self.design, name)}
        entries = self.as_built.entries
        counted = deciding(entries)
        whole = self if counted == entries else self.model_copy(update={"as_built": AsBuilt(entries=counted)})
        text = whole.model_dump_json(
            exclude={
                **left_out,
                "shop": {"rack", "welding", "week"},
                "as_built": {"entries": {"__all__": BESIDE_FIGURES}},
            }
        )
        return hashlib.sha256(text.encode()).hexdigest()


class SurveyRevision(Frozen):
    """One numbered, immutable survey."""

    number: Annotated[int, Field(ge=1)]
    at: Annotated[str, Field(max_length=40)]
    by: Name
    survey: Survey


class DesignRevision(Frozen):
    """One numbered, immutable design of an option."""

    number: Annotated[int, Field(ge=1)]
    at: Annotated[str, Field(max_length=40)]
    by: Name
    note: Text = ""
    design: Design


class OptionFile(Frozen):
    """A named alternative and its chain of revisions."""

    id: Id
    name: Name
    note: Text = ""
    revisions: Annotated[tuple[DesignRevision, ...], Field(min_length=1, max_length=MOST_REVISIONS)]


class JobFile(Frozen):
    """One job as a document that outlives the application."""

    format: Literal["nodulant-job"] = "nodulant-job"
    version: Literal[5] = 5
    name: Name
    note: Text = ""
    shop: Shop = Shop()
    surveys: Annotated[tuple[SurveyRevision, ...], Field(min_length=1, max_length=MOST_REVISIONS)]
    options: Annotated[tuple[OptionFile, ...], Field(min_length=1, max_length=MOST_OPTIONS)]
    log: Annotated[tuple[Entry, ...], Field(max_length=MOST_ENTRIES)] = ()

    @model_validator(mode="after")
    def _numbered(self) -> Self:
        _rising("surveys", [s.number for s in self.surveys])
        _rising("log", [e.number for e in self.log])
        for i, option in enumerate(self.options):
            _rising(f"options/{i}/revisions", [r.number for r in option.revisions])
        ids = [option.id for option in self.options]
        if len(set(ids)) != len(ids):
            raise InputError(
                "two options share an id", field="options", found=", ".join(ids), acceptable="different ids"
            )
        return self

    def inputs(self, option_id: str | None = None) -> Inputs:
        """Newest survey with the newest design of an option (the first one by default)."""
        option = next((o for o in self.options if o.id == option_id), self.options[0])
        return Inputs(
            survey=self.surveys[-1].survey,
            design=option.revisions[-1].design,
            as_built=AsBuilt(entries=self.log),
            shop=self.shop,
        )


def _rising(field: str, numbers: list[int]) -> None:
    for i, (a, b) in enumerate(pairwise(numbers), start=1):
        if b <= a:
            raise InputError(
                "numbers must rise", field=f"{field}/{i}/number", found=str(b), acceptable=f"more than {a}"
            )
