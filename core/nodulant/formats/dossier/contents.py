"""What a dossier is made of: the stored inputs, who and when, and what was kept beside them; everything is reckoned once."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property

from nodulant.assembly.sheet import AssemblySheet, assembly_sheets
from nodulant.base.errors import NodulantError
from nodulant.clearance.moving import Mover
from nodulant.evaluate import Evaluation, SectionAt, evaluate, sections_at
from nodulant.evaluate.clearances.kept_sweep import SweepOnFile
from nodulant.evaluate.clearances.sweep import scene
from nodulant.evaluate.evaluation import SectionDrawing
from nodulant.frame.place import resolve
from nodulant.handcheck import hand_check
from nodulant.handcheck.sheet import HandCheck
from nodulant.job.document import Inputs
from nodulant.job.riding import in_place
from nodulant.parts.sides import LEFT_RIGHT, Side, on_sides
from nodulant.proof.after import After, after
from nodulant.proof.found import Built, built
from nodulant.proof.record import WeldRecord, weld_record
from nodulant.units.inline import told_in
from nodulant.units.show import Style


@dataclass(frozen=True)
class SectionOf:
    """A section at an operation."""

    name: str
    side: Side
    x_mm: float
    drawn: SectionDrawing


@dataclass(frozen=True)
class Contents:
    """One option of a job, as it stands."""

    job: str
    option: str
    revision: str
    """Which revision, by whom, from when."""
    author: str
    day: str
    """ISO; when the paper was made."""
    inputs: Inputs
    swept: SweepOnFile | None = None
    address: str = ""
    """Where the job is read on screen; its code stands on the cover."""
    photos: Mapping[str, bytes] = field(default_factory=dict)
    """JPEGs by their hash."""

    @property
    def style(self) -> Style:
        """The job's unit system."""
        return self.inputs.shop.style

    @cached_property
    def result(self) -> Evaluation:
        """Everything that is judged; raises InvalidInputs."""
        return told_in(evaluate(self.inputs), self.style)

    @cached_property
    def placed(self) -> Inputs:
        """With everything where the plan puts it."""
        return in_place(self.inputs)

    @cached_property
    def sheets(self) -> tuple[AssemblySheet, ...]:
        """Parts and welds by operation."""
        return tuple(told_in(s, self.style) for s in assembly_sheets(self.inputs))

    @cached_property
    def movers(self) -> tuple[Mover, ...]:
        """Everything that moves, in all its positions."""
        return scene(self.inputs).movers

    @cached_property
    def built(self) -> Built:
        """As built."""
        return told_in(built(self.inputs), self.style)

    @cached_property
    def record(self) -> WeldRecord:
        """Welds, bolts, paint."""
        return told_in(weld_record(self.inputs), self.style)

    @cached_property
    def after(self) -> After:
        """Inspections."""
        return told_in(after(self.inputs), self.style)

    @cached_property
    def hand(self) -> HandCheck | None:
        """The engineer's sheet; None where no section is known."""
        try:
            return told_in(hand_check(self.inputs), self.style)
        except NodulantError:
            return None

    @cached_property
    def sections(self) -> tuple[SectionOf, ...]:
        """One at every operation on a rail, on its first side; works at one station have one in common."""
        on_rail = [op for op in self.inputs.design.operations if not op.one_piece]
        places = [
            SectionAt(side=on_sides(op.side)[0], x_mm=resolve(op.anchor, self.inputs.survey.features)) for op in on_rail
        ]
        out = dict[tuple[Side, int], SectionOf]()
        for op, at, drawn in zip(on_rail, places, sections_at(self.inputs, places), strict=True):
            if drawn is not None and any(s.name != "rail" for s in drawn.after):
                own = SectionOf(op.name, at.side, at.x_mm, told_in(drawn, self.style))
                out.setdefault((at.side, round(at.x_mm)), own)
        return tuple(out.values())

    @property
    def sides(self) -> tuple[Side, ...]:
        """Both rails."""
        return LEFT_RIGHT
