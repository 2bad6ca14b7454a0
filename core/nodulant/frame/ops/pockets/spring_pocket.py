"""An upper mount in the rail: a slot for the coilover, its bolt through both walls, or between cheeks raised above it.

A bolt above the rail stands between two cheeks that are lapped on the walls; the slot then goes through
the top flange too. The cut may stop at a line told from a named face. Strength is reckoned as if it went
through the whole width and as if the cheeks carried nothing of the rail's own bending.
"""

from collections.abc import Iterable
from dataclasses import replace

import numpy as np

from nodulant.base.errors import InputError
from nodulant.frame.additions import Additions
from nodulant.frame.columns import RailColumns
from nodulant.frame.here import OnRail, Span
from nodulant.frame.ops.pockets.spring_pocket_parts import CHEEKS, FOOT_MM, GUSSET, pocket_parts, pocket_seams
from nodulant.frame.ops.pockets.spring_pocket_plan import SpringPocketPlan
from nodulant.frame.ops.pockets.spring_pocket_work import pocket_checks, pocket_steps
from nodulant.geometry import Outline, Vertex
from nodulant.parts.part import Part, Seam
from nodulant.parts.solid import Solid, block
from nodulant.parts.specs import CheckSpec, FatigueDetail, FigureSpec, ReadingSpec, StepSpec, reading
from nodulant.survey.rail import Rail
from nodulant.survey.vehicle import Feature
from nodulant.units.inline import as_length

RISE_MM, WELD_ROOM_MM = 300.0, 3.0
"""How far a mount may rise above its rail; what a slot takes beside a flange's wall."""


class SpringPocket(SpringPocketPlan):
    """What a spring pocket does to its rail, and what it asks for."""

    def span(self, rail: Rail, features: Iterable[Feature], field: str) -> Span:
        """The slot."""
        return self.as_notch().span(rail, features, field)

    def cut_spans(self, span: Span) -> tuple[Span, ...]:
        """The slot."""
        return (span,)

    def refuse(self, rail_height_mm: float, field: str) -> None:
        """Something of the rail stays, and the bolt lies in its wall or within reach above it."""
        self.as_notch().refuse(rail_height_mm, field)
        least, most = self.depth_mm + self.edge_mm, rail_height_mm + RISE_MM
        if not least <= self.bolt_up_mm <= most:
            raise InputError(
                "the bolt lies neither in what is left of the wall nor between cheeks on it",
                field=f"{field}/bolt_up_mm",
                found=f"{as_length(self.bolt_up_mm)} above the underside",
                acceptable=f"{as_length(least)} to {as_length(most)}",
            )

    def roles(self) -> tuple[str, ...]:
        """Doublers, cheeks and gusset; cheeks are cut only where the bolt stands above the rail."""
        plates = ("outer", "inner") if self.plate_mm > 0 else ()
        return (*plates, *CHEEKS, GUSSET) if self.gusset_mm > 0 else (*plates, *CHEEKS)

    def additions(self, span: Span, rail: RailColumns, carried: frozenset[str], boxed: bool) -> Additions:
        """Slot and doublers as columns; through the top flange too where the mount rises above it."""
        made = self.as_notch().additions(span, rail, carried, boxed)
        middle = int(np.argmin(np.abs(rail.x - span.centre_mm)))
        if not self.raised(float(rail.height[middle])):
            return made
        over = np.where(np.abs(rail.x - span.centre_mm) <= self.length_mm / 2, rail.wall + WELD_ROOM_MM, 0.0)
        return replace(made, cut_top=over)

    def parts(self, on: OnRail) -> list[Part]:
        """Doublers, cheeks where it is raised, and the gusset."""
        return pocket_parts(self, on)

    def seams(self, on: OnRail, parts: list[Part]) -> list[Seam]:
        """Fillets around the plates; a cheek's along what it laps."""
        return pocket_seams(self, on, parts)

    @property
    def opens(self) -> bool:
        """The slot has an edge."""
        return True

    def cut_edge(self) -> Outline:
        """Edge of the slot in the wall."""
        return self.as_notch().cut_edge()

    def cut_templates(self) -> tuple[tuple[str, Outline], ...]:
        """Edge of the slot; of the one wall that is cut where it stops at a line."""
        far = "outer wall" if self.line_from == "inner" else "inner wall"
        return ((far if self.line_mm > 0 else "", self.cut_edge()),)

    def edge_above(self, level_mm: float) -> tuple[Vertex, ...]:
        """The part of the edge above a level."""
        return self.as_notch().edge_above(level_mm)

    def checks(self, on: OnRail) -> tuple[CheckSpec, ...]:
        """Room in the slot, the bolt and its holes, cheeks and their welds, spacers."""
        return pocket_checks(self, on)

    def details(self, on: OnRail) -> tuple[FatigueDetail, ...]:
        """The slot's bare edge, and the doublers' ends."""
        start, end = on.span.start_mm, on.span.end_mm
        edge = FatigueDetail(
            about="edge", detail="edge-dressed", start_mm=start, end_mm=end, words="dressed edge of the slot"
        )
        if self.plate_mm <= 0:
            return (edge,)
        ends = (start - self.overlap_mm, end + self.overlap_mm)
        return (
            edge,
            *(
                FatigueDetail(
                    about="plate-end", detail="plate-end", start_mm=x - 1, end_mm=x + 1, words="end of the doublers"
                )
                for x in ends
            ),
        )

    def figures(self, on: OnRail) -> tuple[FigureSpec, ...]:
        """Torque of the bolt."""
        bolt = self.bolt()
        return (
            FigureSpec(
                key="link-torque",
                name=f"Torque of the {bolt.size.id} {bolt.grade.id} bolt, dry",
                value=bolt.torque_nm("dry"),
                unit="N m",
                basis="T = 0.2 F d; tightened at ride height where the eye is rubber",
            ),
        )

    def solids(self, on: OnRail) -> tuple[Solid, ...]:
        """The bolt, and the cheeks that hold it above the rail."""
        d, width, up = self.bolt().size.diameter_mm, on.here.width, on.here.underside + self.bolt_up_mm
        middle = on.rail.web_y_mm - width / 2 * (1 if on.rail.opens == "inward" else -1)
        bolt = block(self.name, "frame", (on.span.centre_mm, middle, up), (d, width + 4 * d, d))
        if not self.raised(on.here.height):
            return (bolt,)
        top, reach = on.here.underside + on.here.height, self.bolt_up_mm - on.here.height + self.edge_mm
        at, long = (on.span.centre_mm, top + reach / 2), self.length_mm + 2 * FOOT_MM
        sides = (middle + s * (width + self.cheek_mm) / 2 for s in (-1.0, 1.0))
        cheeks = (block(self.name, "frame", (at[0], y, at[1]), (long, self.cheek_mm, reach)) for y in sides)
        return (bolt, *cheeks)

    def steps(self, datum: str) -> list[StepSpec]:
        """Doublers first, then the slot, then the bolt."""
        return pocket_steps(self, datum)

    def measured_fields(self) -> dict[str, str]:
        """What is read after cutting."""
        return {"position": "place", "bolt-up": "bolt_up_mm"}

    def readings(self, datum: str) -> list[ReadingSpec]:
        """Place, and the bolt's height."""
        return [
            reading("position", "Middle of the slot", self.place.offset_mm, datum),
            reading("bolt-up", "Bolt above the underside", self.bolt_up_mm, "rail underside beside the slot"),
        ]
