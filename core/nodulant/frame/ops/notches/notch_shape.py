"""The shape of a cut from below: where the edge runs, how steep it is, how long it unrolls.

Local axes: dx from the notch's centre line (rearward positive), z up from the rail's
underside, mm. An arc deeper than its radius gets upright sides below the half circle.
"""

import math
from typing import Annotated, Literal, Self

import numpy as np
from pydantic import Field, model_validator

from nodulant.base.arrays import Columns
from nodulant.base.errors import InputError
from nodulant.base.model import Extra, Size
from nodulant.base.shown import Shown
from nodulant.frame.ops.fresh import Piece, Setting
from nodulant.geometry import Outline, Vertex
from nodulant.units.inline import as_length, as_thickness

ARC_MARKS, CORNER_MARKS, SIDE_MARKS = 8, 6, 4
"""Pieces of half an arc, of a corner and of a sloping side, at whose ends sections are taken."""


class ArcShape(Piece):
    """A circular cut of radius ``radius_mm``."""

    kind: Literal["arc"] = "arc"
    radius_mm: Annotated[Size, Shown("Radius")]

    @classmethod
    def fresh(cls, on: Setting) -> Self:
        """A usual one to begin with."""
        return cls(radius_mm=60.0)

    def half_mouth_mm(self, depth_mm: float) -> float:
        """Half the width at the rail's underside, mm."""
        r = self.radius_mm
        return r if depth_mm >= r else math.sqrt(max(2 * r * depth_mm - depth_mm**2, 0.0))

    def edge(self, dx: Columns, depth_mm: float) -> tuple[Columns, Columns]:
        """Height of the cut edge and its slope (radians) at ``dx``; 0 outside the mouth."""
        r, inside = self.radius_mm, np.abs(dx) < self.half_mouth_mm(depth_mm)
        across = np.clip(dx, -r, r)
        height = depth_mm - r + np.sqrt(np.maximum(r * r - across * across, 0.0))
        return np.where(inside, np.maximum(height, 0.0), 0.0), np.where(inside, np.arcsin(across / r), 0.0)

    def marks(self, depth_mm: float) -> list[float]:
        """Places along the edge, from its centre, at which sections are wanted: it turns evenly between them."""
        half = self.half_mouth_mm(depth_mm)
        turn = math.asin(min(half / self.radius_mm, 1.0))
        return [half * math.sin(turn * i / ARC_MARKS) / math.sin(turn) for i in range(1 - ARC_MARKS, ARC_MARKS)]

    def path(self, depth_mm: float) -> Outline:
        """The cut edge from the front of the mouth to its rear, open, with true arcs."""
        half, r = self.half_mouth_mm(depth_mm), self.radius_mm
        if depth_mm <= r:
            turn = 2 * math.acos((r - depth_mm) / r)
            return Outline(
                vertices=(Vertex(x=-half, y=0, bulge=-math.tan(turn / 4)), Vertex(x=half, y=0)), closed=False
            )
        up = depth_mm - r
        points = (Vertex(x=-r, y=0), Vertex(x=-r, y=up, bulge=-1.0), Vertex(x=r, y=up), Vertex(x=r, y=0))
        return Outline(vertices=points, closed=False)

    def path_above(self, depth_mm: float, level_mm: float) -> tuple[Vertex, ...]:
        """The part of the cut edge above ``level_mm``, front to rear; empty when there is none."""
        r, centre = self.radius_mm, depth_mm - self.radius_mm
        if level_mm >= depth_mm:
            return ()
        if level_mm < centre:
            return (
                Vertex(x=-r, y=level_mm),
                Vertex(x=-r, y=centre, bulge=-1.0),
                Vertex(x=r, y=centre),
                Vertex(x=r, y=level_mm),
            )
        half = math.sqrt(max(r * r - (level_mm - centre) ** 2, 0.0))
        turn = 2 * math.acos(min((level_mm - centre) / r, 1.0))
        return (Vertex(x=-half, y=level_mm, bulge=-math.tan(turn / 4)), Vertex(x=half, y=level_mm))

    def unrolled_mm(self, depth_mm: float, thickness_mm: float) -> float:
        """Length of a liner inside the cut, measured at its mid-thickness, mm."""
        r = self.radius_mm
        turn = 2 * math.acos((r - min(depth_mm, r)) / r)
        return (r - thickness_mm / 2) * turn + 2 * max(depth_mm - r, 0.0)

    def least_radius_mm(self) -> float:
        """The smallest radius of the cut edge, mm."""
        return self.radius_mm

    def crown_radius_mm(self) -> float | None:
        """Radius of the liner over the crown, mm."""
        return self.radius_mm

    def fits(self, depth_mm: float, liner_mm: float) -> None:
        """Refuse a liner that the arc cannot hold."""
        if liner_mm >= self.radius_mm:
            raise InputError(
                "the liner is thicker than the notch's radius",
                field="liner/thickness_mm",
                found=as_thickness(liner_mm),
                acceptable=f"less than {as_length(self.radius_mm)}",
            )


class TrapezoidShape(Piece):
    """A straight-sided cut: width at the top and at the mouth, top corners rounded."""

    kind: Literal["trapezoid"] = "trapezoid"
    top_width_mm: Annotated[Size, Shown("Width at top")]
    mouth_width_mm: Annotated[Size, Shown("Width at mouth")]
    corner_radius_mm: Annotated[Extra, Shown("Corner radius")] = 12.0

    @classmethod
    def fresh(cls, on: Setting) -> Self:
        """A usual one to begin with."""
        return cls(top_width_mm=96.0, mouth_width_mm=138.0)

    @model_validator(mode="after")
    def _narrows_upward(self) -> Self:
        if self.mouth_width_mm < self.top_width_mm:
            raise InputError(
                "the mouth is narrower than the top",
                field="mouth_width_mm",
                found=f"{self.mouth_width_mm:g}",
                acceptable=f"at least {self.top_width_mm:g}",
            )
        return self

    def half_mouth_mm(self, depth_mm: float) -> float:
        """Half the width at the rail's underside, mm."""
        return self.mouth_width_mm / 2

    def edge(self, dx: Columns, depth_mm: float) -> tuple[Columns, Columns]:
        """Height of the cut edge and its slope (radians) at ``dx``; 0 outside the mouth."""
        half, top, r = self.mouth_width_mm / 2, self.top_width_mm / 2, self.corner_radius_mm
        away, phi = np.abs(dx), self.side_angle(depth_mm)
        run = max(half - top, 1e-9)
        side = np.where(half - top < 1e-6, depth_mm, (half - away) / run * depth_mm)
        height, slope = np.minimum(side, depth_mm), np.where(side < depth_mm, phi, 0.0)
        centre = top - r * math.tan(phi / 2)
        on_arc = (away > centre) & (away < centre + r * math.sin(phi))
        lift = np.sqrt(np.maximum(r * r - (away - centre) ** 2, 0.0))
        height = np.where(on_arc, depth_mm - r + lift, height)
        slope = np.where(on_arc, np.arcsin(np.clip((away - centre) / max(r, 1e-9), 0, 1)), slope)
        inside = away < half
        return np.where(inside, np.maximum(height, 0.0), 0.0), np.where(inside, slope, 0.0)

    def marks(self, depth_mm: float) -> list[float]:
        """Places along the edge, from its centre, at which sections are wanted: corners' ends and middles, and between them."""
        half, top, r, phi = (
            self.mouth_width_mm / 2,
            self.top_width_mm / 2,
            self.corner_radius_mm,
            self.side_angle(depth_mm),
        )
        start, arc = top - r * math.tan(phi / 2), r * math.sin(phi)
        corner = [start + arc * i / CORNER_MARKS for i in range(CORNER_MARKS + 1)]
        side = [corner[-1] + (half - corner[-1]) * i / SIDE_MARKS for i in range(1, SIDE_MARKS)]
        return [0.0, start / 2, -start / 2, *(sign * x for sign in (-1, 1) for x in (*corner, *side))]

    def path(self, depth_mm: float) -> Outline:
        """The cut edge from the front of the mouth to its rear, open, corners as true arcs."""
        half, top, r, phi = (
            self.mouth_width_mm / 2,
            self.top_width_mm / 2,
            self.corner_radius_mm,
            self.side_angle(depth_mm),
        )
        centre, bulge = top - r * math.tan(phi / 2), -math.tan(phi / 4)
        low = (centre + r * math.sin(phi), depth_mm - r + r * math.cos(phi))
        points = (
            Vertex(x=-half, y=0),
            Vertex(x=-low[0], y=low[1], bulge=bulge if r else 0.0),
            Vertex(x=-centre, y=depth_mm),
            Vertex(x=centre, y=depth_mm, bulge=bulge if r else 0.0),
            Vertex(x=low[0], y=low[1]),
            Vertex(x=half, y=0),
        )
        return Outline(vertices=points, closed=False)

    def path_above(self, depth_mm: float, level_mm: float) -> tuple[Vertex, ...]:
        """The part of the cut edge above ``level_mm``, front to rear; empty when there is none."""
        points = self.path(depth_mm).vertices
        low = points[1]
        if level_mm >= low.y:
            return ()
        half = -points[0].x + (low.x - points[0].x) * -level_mm / max(low.y, 1e-9)
        return (Vertex(x=-half, y=level_mm), *points[1:-1], Vertex(x=half, y=level_mm))

    def unrolled_mm(self, depth_mm: float, thickness_mm: float) -> float:
        """Length of a liner inside the cut at its mid-thickness, mm."""
        outside = self.path(depth_mm).length_mm()
        return outside - 2 * self.side_angle(depth_mm) * thickness_mm / 2

    def least_radius_mm(self) -> float:
        """The smallest radius of the cut edge, mm."""
        return self.corner_radius_mm

    def crown_radius_mm(self) -> float | None:
        """None: the crown is flat."""
        return None

    def fits(self, depth_mm: float, liner_mm: float) -> None:
        """Refuse corner radii and liners that the cut cannot hold."""
        phi = self.side_angle(depth_mm)
        room = min(self.top_width_mm / 2 / math.tan(phi / 2), depth_mm / max(1 - math.cos(phi), 1e-9))
        if self.corner_radius_mm > room:
            raise InputError(
                "the corner radius does not fit the cut",
                field="shape/corner_radius_mm",
                found=as_thickness(self.corner_radius_mm),
                acceptable=f"at most {as_length(room)}",
            )
        if 2 * liner_mm >= self.top_width_mm:
            raise InputError(
                "the liner fills the notch",
                field="liner/thickness_mm",
                found=as_thickness(liner_mm),
                acceptable=f"less than {as_length(self.top_width_mm / 2)}",
            )

    def side_angle(self, depth_mm: float) -> float:
        """Angle of the sides against the horizontal, radians."""
        return math.atan2(depth_mm, (self.mouth_width_mm - self.top_width_mm) / 2)


NotchShape = Annotated[ArcShape | TrapezoidShape, Field(discriminator="kind")]
