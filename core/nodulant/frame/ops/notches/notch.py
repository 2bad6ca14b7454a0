"""A notch: arc or straight-sided cut from below, with liner, side plates, cap or bolted bracket."""

from collections.abc import Iterable

from nodulant.base.errors import InputError
from nodulant.frame.additions import Additions
from nodulant.frame.columns import RailColumns, rail_at
from nodulant.frame.here import OnRail, RailHere, Span
from nodulant.frame.ops.mounts.bolted import BoltGroup, bolt_checks, bolt_figures
from nodulant.frame.ops.notches.notch_parts import MARKS_OUT, liner_bends, liner_formed, notch_parts, notch_seams
from nodulant.frame.ops.notches.notch_plan import Cap, Liner, NotchPlan, PlateEnd, SidePlate
from nodulant.frame.ops.notches.notch_sections import bolt_spots, notch_additions
from nodulant.frame.ops.notches.notch_work import notch_readings, notch_steps
from nodulant.frame.ops.notches.tube_parts import refuse_on_tube
from nodulant.frame.ops.plates.weld_legs import leg_checks
from nodulant.frame.place import resolve
from nodulant.geometry import Outline, Vertex
from nodulant.materials.weld import least_leg_mm
from nodulant.parts.bought import Needed
from nodulant.parts.part import Face, Part, RoundHole, Seam
from nodulant.parts.specs import CheckSpec, FatigueDetail, FigureSpec, ReadingSpec, StepSpec
from nodulant.survey.rail import Rail
from nodulant.survey.vehicle import Feature
from nodulant.units.inline import as_length, as_place

__all__ = ["BoltGroup", "Cap", "Liner", "Notch", "PlateEnd", "SidePlate"]


class Notch(NotchPlan):
    """A cut from below centred at ``place``; ``both`` sides are cut alike."""

    def cut_spans(self, span: Span) -> tuple[Span, ...]:
        """The mouth."""
        return (span,)

    def marks(self, span: Span) -> tuple[float, ...]:
        """Along the edge of the cut."""
        bolts = {x for x, _ in bolt_spots(self, span.centre_mm, 1.0)}
        return (*(span.centre_mm + dx for dx in self.shape.marks(self.depth_mm)), *sorted(bolts))

    @property
    def lined_mm(self) -> float:
        """Thickness of its liner."""
        return self.liner.thickness_mm if self.liner else 0.0

    @property
    def from_above(self) -> bool:
        """Which edge is cut."""
        return self.from_ == "above"

    def span(self, rail: Rail, features: Iterable[Feature], field: str) -> Span:
        """The mouth of the cut; raises InputError for plates that have no seat on a round tube."""
        centre = resolve(self.place, features, f"{field}/place")
        if rail.kind == "round-tube":
            refuse_on_tube(self, rail_at(rail, centre)[1], field)
        return Span(centre - self.half_mouth_mm, centre + self.half_mouth_mm)

    def refuse(self, rail_height_mm: float, field: str) -> None:
        """Refuse a notch that leaves nothing of the rail; raises InputError at ``field``."""
        if self.depth_mm >= 0.95 * rail_height_mm:
            raise InputError(
                "the notch is as deep as the rail",
                field=f"{field}/depth_mm",
                found=as_length(self.depth_mm),
                acceptable=f"less than {as_length(0.95 * rail_height_mm)} on a rail {as_length(rail_height_mm)} high",
            )

    @property
    def welded(self) -> bool:
        """A bolted bracket heats nothing."""
        return self.bolts is None and bool(self.roles())

    def roles(self) -> tuple[str, ...]:
        """Liner, plates and cap that it has."""
        have = {"liner": self.liner, "outer": self.outer_plate, "inner": self.inner_plate, "cap": self.cap}
        return tuple(role for role, plate in have.items() if plate is not None)

    def additions(self, span: Span, rail: RailColumns, carried: frozenset[str], boxed: bool) -> Additions:
        """Cut and plates as columns."""
        return notch_additions(self, span.centre_mm, rail, carried, boxed)

    def parts(self, on: OnRail) -> list[Part]:
        """Its plates as flat shapes."""
        parts = [self._drilled(part, on) for part in notch_parts(self, on.side, on.here)]
        return parts if self.from_ == "below" else [_turned_over(part, on.here) for part in parts]

    def _drilled(self, part: Part, on: OnRail) -> Part:
        """A side plate with the holes of its bolts."""
        if self.bolts is None or part.face not in {"inner", "outer"}:
            return part
        hole = self.bolts.bolt().size.hole_mm
        holes = tuple(
            RoundHole(x_mm=x, y_mm=on.here.underside + z, diameter_mm=hole)
            for x, z in bolt_spots(self, on.here.centre, on.here.height)
        )
        return part.model_copy(update={"holes": holes})

    def bought(self, on: OnRail) -> tuple[Needed, ...]:
        """Bolts of a bracket that is bolted on."""
        if self.bolts is None:
            return ()
        plates = sum(p.thickness_mm for p in (self.outer_plate, self.inner_plate) if p)
        count = len(bolt_spots(self, on.here.centre, on.here.height))
        return self.bolts.bought(self.name, count, plates, on)

    @property
    def drills(self) -> bool:
        """A bolted bracket's bolts go through the rail."""
        return self.bolts is not None

    def seams(self, on: OnRail, parts: list[Part]) -> list[Seam]:
        """Fillets around its plates."""
        return notch_seams(self, on.side, parts)

    @property
    def opens(self) -> bool:
        """It has an edge that plates follow."""
        return True

    def cut_edge(self) -> Outline:
        """Edge of the cut."""
        return self.shape.path(self.depth_mm)

    def edge_above(self, level_mm: float) -> tuple[Vertex, ...]:
        """The part of the edge above a level."""
        return self.shape.path_above(self.depth_mm, level_mm)

    def bends(self, part: Part, centre_mm: float) -> tuple[Outline, ...]:
        """Where a liner is bent or rolled."""
        return liner_bends(self, part, centre_mm) if part.role == "liner" else ()

    def formed(self, part: Part) -> str:
        """How a liner is bent or rolled, and which way."""
        return f"{liner_formed(self, part.thickness_mm)} · {MARKS_OUT}" if part.role == "liner" else ""

    def checks(self, on: OnRail) -> tuple[CheckSpec, ...]:
        """Edge distance, holes and sleeves of a bolted bracket; leg sizes of welded plates."""
        at = on.span.centre_mm
        plates = [p for p in (self.liner, self.outer_plate, self.inner_plate, self.cap) if p is not None]
        if self.bolts:
            thinnest = min((p.thickness_mm for p in plates), default=5.0)
            return bolt_checks(self.bolts, thinnest, plates[0].steel_id if plates else "mild", on)
        if not plates:
            return ()
        worst = min(plates, key=lambda p: p.weld_leg_mm / least_leg_mm(max(p.thickness_mm, on.here.wall)))
        return leg_checks(worst.weld_leg_mm, worst.thickness_mm, on.here.wall, at)

    def figures(self, on: OnRail) -> tuple[FigureSpec, ...]:
        """Torque and friction of a bolted bracket."""
        side = self.outer_plate or self.inner_plate
        if not self.bolts or side is None:
            return ()
        area = side.thickness_mm * (on.here.height - 2 * side.inset_mm)
        return bolt_figures(self.bolts, area, side.steel_id, on.here.closed_width)

    def details(self, on: OnRail) -> tuple[FatigueDetail, ...]:
        """The cut's edge or its liner's welds, and the ends of plates and cap."""
        start, end = on.span.start_mm, on.span.end_mm
        if self.bolts:
            return (
                FatigueDetail(
                    about="edge", detail="edge-dressed", start_mm=start, end_mm=end, words="dressed edge of the cut"
                ),
            )
        edge = FatigueDetail(
            about="edge",
            detail="attachment" if self.liner else "edge-dressed",
            start_mm=start,
            end_mm=end,
            words="liner welded along the cut" if self.liner else "dressed edge of the cut",
        )
        plates = (("outer", self.outer_plate), ("inner", self.inner_plate), ("cap", self.cap))
        ends = [
            FatigueDetail(
                about=f"{role}-end", detail="plate-end", start_mm=x - 1, end_mm=x + 1, words=f"end of the {role} plate"
            )
            for role, plate in plates
            if plate is not None
            for x in (start - plate.overlap_mm, end + plate.overlap_mm)
        ]
        return (edge, *ends)

    def steps(self, datum: str) -> list[StepSpec]:
        """Mark, cut, fit, look and weld."""
        return notch_steps(self, f"{as_place(self.place.offset_mm)} {datum}")

    def readings(self, datum: str) -> list[ReadingSpec]:
        """Place, depth, width and plates."""
        return notch_readings(self, datum)


_OVER: dict[Face, Face] = {"top": "bottom", "bottom": "top"}


def _turned_over(part: Part, rail: RailHere) -> Part:
    """A plate of a cut from above: its mirror image about the rail's mid-height."""
    face = _OVER.get(part.face, part.face)
    if part.face in {"top", "bottom"}:
        return part.model_copy(update={"face": face})
    middle = 2 * rail.underside + rail.height
    return part.model_copy(update={"outline": part.outline.upside_down().moved(0.0, middle)})
