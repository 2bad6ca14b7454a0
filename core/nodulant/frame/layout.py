"""A rail with everything done to it, ready to be sectioned."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.frame.additions import Additions, Hole, Plate, Role
from nodulant.frame.columns import RailColumns
from nodulant.materials.steel import UNKNOWN

LINERS: tuple[Role, ...] = ("liner", "liner-top")


@dataclass(frozen=True)
class Strip:
    """A rectangle of a plate in the section: y across from the web's outer face, z up from the underside, mm; (stations,)."""

    y0: Columns
    y1: Columns
    z0: Columns
    z1: Columns
    upright: bool

    @property
    def height(self) -> Columns:
        """How tall it stands, mm."""
        return np.asarray(np.maximum(self.z1 - self.z0, 0.0))


@dataclass(frozen=True)
class Layout:
    """The rail, the heights cut from below and above, mm, and what was added and drilled."""

    rail: RailColumns
    cut: Columns
    cut_top: Columns
    plates: tuple[Plate, ...]
    holes: tuple[Hole, ...]

    def of(self, role: Role) -> list[Plate]:
        """Plates of one role."""
        return [plate for plate in self.plates if plate.role == role]

    @property
    def crown(self) -> Columns:
        """Height of the highest stock metal left, mm."""
        return np.maximum(self.rail.height - self.cut_top, self.cut)

    def plate_yield(self, plate: Plate) -> float:
        """Reference yield of a plate, MPa: on a rail of unknown steel all metal counts alike, so that shapes are compared."""
        own = plate.steel.yield_reference_mpa
        return min(own, self.rail.yields[0]) if self.rail.steel.id == UNKNOWN else own

    @cached_property
    def closing_plane(self) -> tuple[Columns, Columns]:
        """Outer face of what closes the rail and the thickness of a boxing plate there, mm (0 where there is none)."""
        rail = self.rail
        face = rail.width + (rail.second if rail.kind == "two-skin" else 0.0)
        thick = np.zeros_like(self.cut)
        for plate in self.of("boxing"):
            here = plate.closes > 0
            face = np.where(here, rail.width - plate.set_in_mm, face)
            thick = np.where(here, plate.thickness_mm, thick)
        return face, thick

    @property
    def closed_here(self) -> Columns:
        """Whether the open side of the rail has a wall of its own or a boxing plate, as 0 or 1."""
        return np.asarray(((own_closing(self.rail) > 0) | (self.closing_plane[1] > 0)).astype(float))

    def strips(self, plate: Plate) -> tuple[Strip, ...]:
        """The rectangles that a plate is in the section."""
        t, lie = np.full_like(self.cut, plate.thickness_mm), plate.lie
        if lie.box:
            return self._box(plate, t)
        if lie.let_in:
            return (self._let_in(plate, t),)
        if not lie.upright:
            middle, half = np.maximum(self.closing_plane[0], self.rail.width) / 2, self._reach(plate) / 2
            return (Strip(middle - half, middle + half, plate.low, plate.high, upright=False),)
        face = self.closing_plane[0]
        y0, y1 = {"web": (-t, 0 * t), "closing": (face - t, face)}.get(lie.on, (face, face + t))
        low = np.maximum(plate.low, self.cut)
        high = np.minimum(plate.high, np.where(self.cut_top > 0, self.crown, plate.high))
        return (Strip(y0, y1, low, np.maximum(high, low), upright=True),)

    def _let_in(self, plate: Plate, t: Columns) -> Strip:
        """A piece of a wall; where the rail has no such wall, or it was cut away, it has no height."""
        rail, far = self.rail, own_closing(self.rail)
        low = np.clip(plate.low, self.cut, self.crown)
        high = np.clip(plate.high, low, np.maximum(self.crown, low))
        if not plate.lie.upright:
            on_top = plate.lie.on == "in-top"
            near = self._face_at("patch", rail.wall, on_top)
            beyond = 0.0 if rail.kind == "two-skin" else self._face_at("patch-far", far, on_top)
            return Strip(near, rail.width - beyond, low, high, upright=False)
        if plate.lie.on == "in-web":
            return Strip(0 * t, t, low, high, upright=True)
        outside = rail.width + (far if rail.kind == "two-skin" else 0.0)
        return Strip(outside - t, outside, low, np.where(far > 0, high, low), upright=True)

    def _face_at(self, role: Role, own: Columns, on_top: bool) -> Columns:
        """Thickness of an upright wall at one flange: the rail's own, or a piece's that reaches down or up to there."""
        out = own
        for piece in self.of(role):
            reaches = piece.high >= self.rail.height - 1e-9 if on_top else piece.low <= 1e-9
            out = np.where(reaches & (piece.share > 0) & (own > 0), piece.thickness_mm, out)
        return out

    def patched(self, role: Role, wall: Columns, length: Columns) -> Columns:
        """Thickness of one of the rail's walls with the pieces let into it, spread over its length, mm."""
        out = wall
        for plate in self.of(role):
            strip = self.strips(plate)[0]
            long = strip.height if strip.upright else np.where(strip.height > 0, strip.y1 - strip.y0 + 2 * wall, 0.0)
            out = out + (plate.thickness_mm - wall) * plate.share * np.clip(long / np.maximum(length, 1e-9), 0.0, 1.0)
        return out

    def _reach(self, plate: Plate) -> Columns:
        """Width of a plate that lies across the rail: a liner in a round tube is as wide as the cut's edge there."""
        if self.rail.round:
            return self.rail.width_at(self.cut if plate.role == "liner" else self.crown)
        return np.maximum(self.closing_plane[0], self.rail.width)

    def _box(self, cap: Plate, t: Columns) -> tuple[Strip, ...]:
        width = self.rail.width
        lid = (cap.high - t, cap.high) if cap.role == "cap" else (cap.low, cap.low + t)
        out = t if self.rail.round else 0 * t  # a cap straddles a round tube
        return (
            Strip(-out, t - out, cap.low, cap.high, upright=True),
            Strip(width - t + out, width + out, cap.low, cap.high, upright=True),
            Strip(t - out, width - t + out, *lid, upright=False),
        )


def lay_out(rail: RailColumns, additions: Sequence[Additions], holes: tuple[Hole, ...]) -> Layout:
    """Compose operations: the deepest cut governs, plates add up and lose what their seat lost, plugged holes are gone."""
    cut, top = np.zeros_like(rail.x), np.zeros_like(rail.x)
    for addition in additions:
        cut = np.maximum(cut, addition.cut)
        if addition.cut_top is not None:
            top = np.maximum(top, addition.cut_top)
    plugged = {hole for a in additions for hole in a.plugged}
    drilled = (*holes, *(hole for a in additions for hole in a.holes))
    cut = np.minimum(cut, rail.height)
    top = np.minimum(top, rail.height - cut)
    unseated = {"top": top > rail.wall / 2, "bottom": cut > rail.wall / 2}
    plates = tuple(
        p.seated(rail.x, unseated[p.lie.seat].astype(float)) if p.lie.seat and not rail.round else p
        for a in additions
        for p in a.plates
    )
    return Layout(rail, cut, top, plates, tuple(h for h in drilled if h not in plugged))


def own_closing(rail: RailColumns) -> Columns:
    """Thickness of the rail's own second upright wall, mm; 0 where it is open."""
    if rail.kind in {"rect-tube", "top-hat"}:
        return rail.wall
    return np.full_like(rail.wall, rail.second if rail.kind == "two-skin" else 0.0)
