"""Everything that the floor needs of an option, in one answer that a phone can keep: steps, drawings, what is open."""

from collections.abc import Iterable, Sequence
from typing import get_args

from nodulant.asbuilt.compare import AskedReading, reading_of
from nodulant.asbuilt.floor import Cause, LeftOffEntry, StopEntry
from nodulant.asbuilt.instruments import AT_A_MARK, BETWEEN_MARKS, INSTRUMENTS
from nodulant.asbuilt.log import Entry, standing, stopped
from nodulant.asbuilt.taken import Answer
from nodulant.assembly.sheet import AssemblySheet, assembly_sheets, numbered_welds, works_of
from nodulant.assembly.view import View, view_of
from nodulant.base.model import Frozen
from nodulant.build.estimates import Estimate, Learned, Took, took_of
from nodulant.build.general import MOCK_UP_STEP, PARTS_STEP
from nodulant.build.nearest import nearest
from nodulant.build.plan import Step, StepStatus
from nodulant.evaluate import Evaluation, Want, evaluate
from nodulant.evaluate.gates.parts_here import PartNeeded
from nodulant.floor.along import along_of
from nodulant.floor.figures import FloorFigure, figures_of, place_of
from nodulant.floor.frame_words import FrameSays, TapePoint, frame_says, tape_points
from nodulant.floor.open_cuts import open_cuts, while_open
from nodulant.frame.ops.union import Operation
from nodulant.gauges.asked import asks_for
from nodulant.gauges.collect import gauges_of
from nodulant.gauges.gauge import Gauge
from nodulant.heat.plan import seams_of_steps
from nodulant.job.document import Inputs
from nodulant.job.riding import in_place
from nodulant.parts.cautions import FIRE_WATCH_MIN, STANDING_TEXT
from nodulant.parts.measure import Measure
from nodulant.parts.sides import Side
from nodulant.parts.specs import Phase
from nodulant.proof.record import RecordRow, record_rows
from nodulant.units.show import Style

WANT = Want(strips=False, parts=False, frame=False)


class AskedOfStep(Frozen):
    """A reading that a hold point or a gate waits for, or that can be taken."""

    operation: str
    side: Side
    key: str
    name: str
    planned: float
    unit: Measure
    datum: str
    about: str
    """What it is a reading of."""
    read_with: tuple[str, ...]
    """Instruments that can take it, by id, the one made for it first."""
    extra: bool
    """Nobody has to take it."""
    taken: str
    """As it was typed; empty while it was not."""
    answer: Answer | None
    words: str
    """What it says: how far off, how sure."""


class FloorGauge(Frozen):
    """A gauge to have at hand: what it is, its size, and how it is used."""

    name: str
    size: str
    says: str


class FloorStep(Frozen):
    """One step as the floor sees it."""

    id: str
    title: str
    work: str
    """The operation's name; empty for a step of the job."""
    operation: str | None
    side: str | None
    phase: Phase
    detail: str
    takes: Estimate
    people: int
    tools: tuple[str, ...]
    cautions: tuple[str, ...]
    place: str
    """Where it is; empty for a step of the job."""
    figures: tuple[FloorFigure, ...]
    gauges: tuple[FloorGauge, ...]
    along: tuple[str, ...]
    """What it takes along: templates, parts, wire."""
    hold: str
    """What must hold before it is signed; empty where nothing is asked."""
    reading: AskedOfStep | None
    before: tuple[AskedOfStep, ...]
    """Readings that open it."""
    parts: tuple[PartNeeded, ...]
    """Parts that have to be in hand."""
    hides: str
    undo: str
    meanwhile: str
    """What may not be done while what it opens is open."""
    burns: bool
    """An arc or a flame: a fire watch follows."""
    key: str
    """What kind of step it is, within its operation."""
    welds: bool
    """Its beads have an order."""
    needs: tuple[str, ...]
    """Steps that come right before it; what those wait for is left out."""
    status: StepStatus
    shut: str
    """Why it waits for something outside the plan; empty where it does not."""
    signed_by: str
    signed_at: str
    reason: str


class FloorPicture(Frozen):
    """An operation's drawing."""

    operation: str
    view: View


class ReadWith(Frozen):
    """An instrument as the keypad offers it."""

    id: str
    name: str
    resolution: float
    unit: Measure
    zeroed: bool


class FloorSheet(Frozen):
    """The floor's answer."""

    job: str
    option: str
    style: Style
    steps: tuple[FloorStep, ...]
    pictures: tuple[FloorPicture, ...]
    standing: str
    """What may not be done now, while cuts are open: the strictest of them; empty where none is."""
    stop: StopEntry | None
    left_off: LeftOffEntry | None
    next_session: str
    """What the steps that are open ask for: tools, and hands."""
    log: tuple[Entry, ...]
    """Notes, photos and rework, oldest first."""
    readings: tuple[AskedOfStep, ...]
    """All that can be read, in the order of work."""
    points: tuple[TapePoint, ...]
    """Marks that a tape is hooked to."""
    frame: tuple[FrameSays, ...]
    """What lengths and levels say so far."""
    joints: tuple[RecordRow, ...]
    """Every weld and bolted joint, with what was written of it."""
    instruments: tuple[ReadWith, ...]
    length_with: tuple[str, ...]
    level_with: tuple[str, ...]
    """Which of them a length between marks is taken with, and a level; the usual one first."""
    causes: tuple[str, ...]
    """Why something is done again."""
    fire_watch_min: int
    cautions: str


def floor_sheet(inputs: Inputs, job: str, option: str, history: Iterable[Took] = ()) -> FloorSheet:
    """The stored plan for the floor; ``history`` is what such steps took on the shop's other jobs.

    Raises InputError and UnknownReference for an operation that has no place.
    """
    found, entries = evaluate(inputs, WANT), inputs.as_built.entries
    gauges, sheets = gauges_of(inputs), {s.operation: s for s in assembly_sheets(inputs)}
    learned = Learned((*history, *took_of(entries)))
    own = standing(entries)
    left = [e for e in own if isinstance(e, LeftOffEntry)]
    pictures = tuple(FloorPicture(operation=k, view=view) for k, view in _views(inputs, sheets).items())
    return FloorSheet(
        job=job,
        option=option,
        style=inputs.shop.style,
        steps=_steps(inputs, found, gauges, sheets, learned),
        pictures=pictures,
        standing=while_open(open_cuts(found.steps, found.interim)),
        stop=stopped(entries),
        left_off=left[-1] if left else None,
        next_session=_next_session(found.steps),
        log=tuple(e for e in own if e.kind in {"note", "photo", "rework"}),
        readings=tuple(_read(r) for r in found.readings),
        points=tape_points(inputs.survey, found.marks),
        frame=frame_says(found, inputs.survey),
        joints=record_rows(sheets.values(), own),
        instruments=tuple(
            ReadWith(id=i.id, name=i.name, resolution=i.resolution(inputs.shop.style), unit=i.unit, zeroed=i.zeroed)
            for i in INSTRUMENTS
        ),
        length_with=BETWEEN_MARKS,
        level_with=AT_A_MARK,
        causes=get_args(Cause),
        fire_watch_min=FIRE_WATCH_MIN,
        cautions=STANDING_TEXT,
    )


def _views(inputs: Inputs, sheets: dict[str, AssemblySheet]) -> dict[str, View]:
    """Of every operation on a rail; one that adds no metal shows the rail that it cuts."""
    placed = in_place(inputs)
    out = {}
    for operation, works in works_of(placed).items():
        sheet = sheets.get(operation)
        view = sheet.view if sheet else view_of(placed, next(iter(works.values())), {}, ())
        if view.rail or view.parts:
            out[operation] = view
    return out


NEXT = 6
"""So many open steps are a session."""


def _next_session(steps: Iterable[Step]) -> str:
    """Tools and people of the next steps that are open; empty where none is."""
    own = [s.spec for s in steps if s.status == "open"][:NEXT]
    if not own:
        return ""
    tools = dict.fromkeys(tool for spec in own for tool in spec.tools)
    people = max(spec.people for spec in own)
    hands = "one person" if people == 1 else f"{people} people"
    return f"{hands}; {', '.join(tools)}" if tools else hands


def _steps(
    inputs: Inputs,
    found: Evaluation,
    gauges: Sequence[Gauge],
    sheets: dict[str, AssemblySheet],
    learned: Learned,
) -> tuple[FloorStep, ...]:
    by_work = works_of(in_place(inputs))
    operations = {id_: next(iter(works.values())).op for id_, works in by_work.items()}
    datums = {f.id: f.name for f in inputs.survey.features}
    before = nearest(found.steps)
    seams = {
        (operation, row.key): frozenset(row.seams)
        for operation, works in by_work.items()
        for row in seams_of_steps(next(iter(works.values())), numbered_welds(works))
    }
    out = []
    for step in found.steps:
        spec, operation = step.spec, operations.get(step.operation or "")
        own = [g for g in gauges if asks_for(step, g, found.steps)]
        sheet = sheets.get(step.operation or "")
        welded = seams.get((step.operation or "", spec.key), frozenset())
        out.append(
            FloorStep(
                id=step.id,
                title=_title(spec.title, operation),
                work=operation.name if operation else "",
                operation=step.operation,
                side=step.side,
                phase=spec.phase,
                detail=spec.detail,
                takes=learned.of(spec.key, spec.minutes),
                people=spec.people,
                tools=spec.tools,
                cautions=spec.cautions,
                place=place_of(operation, datums),
                figures=figures_of(step, sheet, welded, found.readings, own),
                gauges=tuple(_told(g, operation) for g in own),
                along=along_of(
                    step,
                    sheet,
                    by_work.get(step.operation or "", {}),
                    welded,
                    inputs.shop.welding,
                ),
                hold=spec.hold.ask if spec.hold else "",
                reading=_asked(step, found),
                before=_before(step, found),
                parts=found.parts_needed if spec.key == PARTS_STEP else (),
                hides=spec.hides,
                undo=spec.undo,
                meanwhile=_meanwhile(step, found),
                burns="welder" in spec.tools,
                key=spec.key,
                welds=bool(welded),
                needs=before[step.id],
                status=step.status,
                shut=step.held,
                signed_by=step.signed_by,
                signed_at=step.signed_at,
                reason=step.reason,
            )
        )
    return tuple(out)


def _title(title: str, operation: Operation | None) -> str:
    """A step's title without the name of its work, which stands over it."""
    return title if operation is None else title.removesuffix(f": {operation.name}")


def _told(gauge: Gauge, operation: Operation | None) -> FloorGauge:
    name = gauge.name if operation is None else gauge.name.removeprefix(f"{operation.name}: ")
    count = f"{gauge.count} × " if gauge.count > 1 else ""
    size = f"not known: {gauge.missing}" if gauge.missing else gauge.size
    return FloorGauge(name=f"{count}{name}", size=size, says=gauge.says)


def _asked(step: Step, found: Evaluation) -> AskedOfStep | None:
    hold = step.spec.hold
    if hold is None or hold.kind != "reading":
        return None
    asked = reading_of(found.readings, step.operation, step.side, hold.reading or "")
    return None if asked is None else _read(asked)


def _before(step: Step, found: Evaluation) -> tuple[AskedOfStep, ...]:
    """The heights of the wheels, before brackets are made to them."""
    if step.spec.key != MOCK_UP_STEP:
        return ()
    return tuple(_read(r) for r in found.readings if r.operation.endswith("-height"))


def _read(r: AskedReading) -> AskedOfStep:
    return AskedOfStep(
        operation=r.operation,
        side=r.side,
        key=r.spec.key,
        name=r.spec.name,
        planned=r.spec.planned,
        datum=r.spec.datum,
        unit=r.spec.unit,
        about=r.about,
        read_with=r.read_with,
        extra=r.spec.extra,
        taken="" if r.value is None else r.text or f"read {r.count} times",
        answer=r.answer,
        words=r.words,
    )


def _meanwhile(step: Step, found: Evaluation) -> str:
    """Nothing where nothing is welded into the cut: it stays as it is judged."""
    if "cuts" not in step.spec.acts or not any(
        s.operation == step.operation and "welds" in s.spec.acts for s in found.steps
    ):
        return ""
    own = [f for f in found.interim if f.operation == step.operation and step.side in {f.side, "both"}]
    return own[0].words if own else ""
