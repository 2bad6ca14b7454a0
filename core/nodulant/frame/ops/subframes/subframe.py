"""A subframe as one part: measured on the vehicle or on the bench, then placed, raised, shifted, turned or narrowed.

Measured on the vehicle, its points are given in the frame's axes as they stood before anything was
moved; measured on the bench (a donor's), from its own datum. Everything that rides with it goes where
it goes. Welded solid it ties the rails; on rubber it does not count.
"""

import math
from itertools import pairwise

import numpy as np

from nodulant.frame.columns import rail_at
from nodulant.frame.here import Cutting, OnRail, Span
from nodulant.frame.ops.subframes.subframe_plan import SubframePlan
from nodulant.frame.ops.subframes.subframe_points import SubframePoint
from nodulant.frame.ops.subframes.subframe_work import MARKED, marks_of, subframe_readings, subframe_steps
from nodulant.frame.pose import Pose, Vector
from nodulant.geometry import Outline
from nodulant.parts.sides import Side
from nodulant.parts.solid import Solid, block
from nodulant.parts.specs import CheckSpec, FigureSpec, ReadingSpec, StepSpec
from nodulant.survey.crossmember import Crossmember
from nodulant.survey.vehicle import Survey

PIECES = 8
"""Of half a beam that is turned: its ends stand an eighth of their own rise off at most."""
EDGE_MM = 0.2
"""How near chords follow an arc."""


class Subframe(SubframePlan):
    """A subframe whose datum lies at ``place``, ``height_mm`` above the rails' underside there, in the centre plane."""

    def stands_at(self, span: Span) -> tuple[float, ...]:
        """Where its faces and bushings are, turns left out."""
        pose = Pose(span.centre_mm, back_mm=self.back_mm, on_bench=self.measured == "bench")
        return tuple(pose.of((p.x_mm, 0.0, 0.0))[0] for p in self.points if p.what in {"face", "bushing"})

    def lowers(self) -> float:
        """How far the vehicle comes down over the axle that rides with it, mm."""
        return self.up_mm if self.measured == "vehicle" else 0.0

    def ties(self, x_mm: float) -> tuple[Crossmember, ...]:
        """Its beams, where it is welded in; on rubber it ties nothing."""
        if self.mounted != "solid":
            return ()
        # along only: heights of beams do not enter the frame's stations
        pose = Pose(x_mm, back_mm=self.back_mm, on_bench=self.measured == "bench")
        return tuple(
            Crossmember(
                id=f"{self.id[:36]}-{k + 1}",
                name=f"{self.name}, {beam.name}",
                x_mm=pose.of((beam.x_mm, 0.0, 0.0))[0],
                end="welded",
                profile=beam.profile,
                height_mm=beam.height_mm,
                width_mm=beam.width_mm,
                wall_mm=beam.wall_mm,
            )
            for k, beam in enumerate(self.beams)
        )

    def points_on(self, on: OnRail) -> list[tuple[SubframePoint, Vector, Vector]]:
        """Points of one side: as measured, and where they stand with the subframe in place on the surveyed rail."""
        pose = self._posed(on.span.centre_mm, on.rail)
        return [(p, at, pose.of(at)) for p in self.points if (at := p.on(on.side)) is not None]

    def solids(self, on: OnRail) -> tuple[Solid, ...]:
        """Its beams, half of each; out of level or square they go in short pieces, each side where it stands."""
        pose = self._posed(on.span.centre_mm, on.rail)
        askew, sign = bool(self.nose_right_deg or self.right_up_deg), -1.0 if on.side == "left" else 1.0
        rows = []
        for beam in self.beams:
            half = max(beam.half_mm - self.narrower_mm, 1.0)
            middle = np.array(pose.of((beam.x_mm, 0.0, beam.z_mm)))
            way = np.array(pose.of((beam.x_mm, sign * beam.half_mm, beam.z_mm))) - middle
            count = PIECES if askew else 1
            for k in range(count):
                x, _, z = (float(v) for v in middle + way * (k + 0.5) / count)
                centre = (x, half * (k + 0.5) / count, z)
                size = (beam.width_mm, half / count, beam.height_mm)
                rows.append(block(f"{self.name}, {beam.name}", "frame", centre, size))
        return tuple(rows)

    def checks(self, on: OnRail) -> tuple[CheckSpec, ...]:
        """Whether its faces meet the rail."""
        rows = []
        for k, (point, _, there) in enumerate(self.points_on(on)):
            if point.what == "face":
                gap, words = face_gap(on, there)
                rows.append(
                    CheckSpec(
                        limit_id="face-meets",
                        about=f"face-{k + 1}",
                        value=abs(gap),
                        formula="abs(gap)",
                        values={"gap": gap},
                        words=f"{point.name}: {words}",
                        detail=point.name,
                        station_mm=there[0],
                        remedy=f"{point.name[:1].upper()}{point.name[1:]} {words}: raise, lower or shim it, or cut the pocket to it.",
                    )
                )
        return tuple(rows)

    def figures(self, on: OnRail) -> tuple[FigureSpec, ...]:
        """Marks that survive, each with its coordinates before and after."""
        pose = self._posed(on.span.centre_mm, on.rail)
        return tuple(
            FigureSpec(key=key, name=name, value=value, unit=unit, basis=MARKED)
            for key, name, value, unit in marks_of(self, pose)
        )

    def steps(self, datum: str) -> list[StepSpec]:
        """Mark, support, lower out, trim, bring up, tack, prove."""
        return subframe_steps(self, datum)

    def readings_on(self, side: Side, datum: str, survey: Survey) -> list[ReadingSpec]:
        """Where each of its points stands after it is fixed."""
        return subframe_readings(self, side, datum, survey)


def lift_to_meet(op: Subframe, on: OnRail) -> tuple[float, ...]:
    """How far each face would go up, or down where negative, to lie against the rail's underside, mm."""
    faces = [
        at for point, _, at in op.points_on(on) if point.what == "face" and on.rail.start_mm <= at[0] <= on.rail.end_mm
    ]
    return tuple(_underside(on, at[0]) - at[2] for at in faces)


def _underside(on: OnRail, x: float) -> float:
    """The rail's underside at a station, with what cuts from below have taken it up by."""
    return rail_at(on.rail, x)[0] + max((_cut_depth(cut, x) for cut in on.cuts), default=0.0)


def face_gap(on: OnRail, point: Vector) -> tuple[float, str]:
    """How far a face stands off the rail's nearest wall, mm, negative where it is inside it; and that in words."""
    x, y, z = point
    away = max(on.rail.start_mm - x, x - on.rail.end_mm)
    if away > 0:
        return away, "beyond the end of the rail"
    under, height, width, _ = rail_at(on.rail, x)
    web = on.rail.web_y_mm
    near, far = (web - width, web) if on.rail.opens == "inward" else (web, web + width)
    low = _underside(on, x)
    across = abs(y) if (y < 0) == (on.side == "left") else -abs(y)
    below, above = low - z, z - (under + height)
    beside = max(near - across, across - far)
    outside = math.hypot(max(below, above, 0.0), max(beside, 0.0))
    if outside > 0:
        return outside, _words(below, above, beside)
    return max(below, above, beside), "inside the rail"


def _words(below: float, above: float, beside: float) -> str:
    if beside > max(below, above):
        return "beside the rail"
    return "below the rail" if below > above else "above the rail"


def _cut_depth(cut: Cutting, x: float) -> float:
    """How far a cut from below, with what lines it, has taken the rail's underside up at a station."""
    vertices = cut.edge.edge_above(0.0)
    if cut.edge.from_above or len(vertices) < 2:
        return 0.0
    dx, ring = x - cut.centre_mm, Outline(vertices=vertices).points(EDGE_MM)
    deep = 0.0
    for (x0, z0), (x1, z1) in pairwise([*ring, ring[0]]):
        if min(x0, x1) <= dx <= max(x0, x1):
            deep = max(deep, z0, z1) if x0 == x1 else max(deep, z0 + (z1 - z0) * (dx - x0) / (x1 - x0))
    return max(deep - cut.edge.lined_mm, 0.0)
