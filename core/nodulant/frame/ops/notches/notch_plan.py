"""A notch from below or above, with its liner, side plates and cap box: parameters and measured values.

Depth is measured from the rail's edge that is cut to the crown of the cut; the liner lies inside
the cut, so the clear depth is less by its thickness.
"""

from typing import Annotated, ClassVar, Literal, Self

from pydantic import ValidationError, model_validator

from nodulant.base.errors import InputError
from nodulant.base.model import Extra, Frozen, Size, Thickness
from nodulant.base.shown import Shown
from nodulant.frame.ops.at_place import AtPlace
from nodulant.frame.ops.fresh import Piece, Setting
from nodulant.frame.ops.mounts.bolted import BoltGroup
from nodulant.frame.ops.notches.notch_shape import ArcShape, NotchShape, TrapezoidShape
from nodulant.frame.ops.operation import Adds
from nodulant.frame.ops.words import ENDS
from nodulant.frame.place import Place
from nodulant.parts.part import EndShape
from nodulant.units.inline import as_length

PlateEnd = Literal["square", "taper"]


class Liner(Piece):
    """Plate or half pipe that closes the cut from below; welded along both webs."""

    thickness_mm: Annotated[Thickness, Shown("Thickness")]
    steel_id: Annotated[str, Shown("Steel")] = "mild"
    weld_leg_mm: Annotated[Thickness, Shown("Weld leg")] = 5.0

    @classmethod
    def fresh(cls, on: Setting) -> Self:
        """A usual one to begin with."""
        return cls(thickness_mm=on.plate(6.0))


class SidePlate(Piece):
    """Plate on a side of the rail, ``overlap_mm`` past the cut, edges ``inset_mm`` inside the rail's."""

    thickness_mm: Annotated[Thickness, Shown("Thickness")]
    overlap_mm: Annotated[Extra, Shown("Overlap past the cut")]
    inset_mm: Annotated[Extra, Shown("Inside the edges by")] = 6.0
    end: Annotated[EndShape, Shown("Ends", choices=ENDS)] = "diamond"
    steel_id: Annotated[str, Shown("Steel")] = "mild"
    weld_leg_mm: Annotated[Thickness, Shown("Weld leg")] = 5.0

    @classmethod
    def fresh(cls, on: Setting) -> Self:
        """A usual one to begin with."""
        return cls(thickness_mm=on.plate(5.0), overlap_mm=190.0)

    @classmethod
    def past_a_joint(cls, on: Setting) -> Self:
        """One over a rail that was cut through: the whole section's force goes over."""
        return cls(thickness_mm=on.plate(5.0), overlap_mm=260.0, end="taper")


class Cap(Piece):
    """Box on the top flange, ``height_mm`` high, ``overlap_mm`` past the cut at its foot."""

    height_mm: Annotated[Size, Shown("Height")]
    thickness_mm: Annotated[Thickness, Shown("Thickness")]
    overlap_mm: Annotated[Extra, Shown("Overlap past the cut")]
    end: Annotated[PlateEnd, Shown("Ends", choices=ENDS)] = "taper"
    steel_id: Annotated[str, Shown("Steel")] = "mild"
    weld_leg_mm: Annotated[Thickness, Shown("Weld leg")] = 5.0

    @classmethod
    def fresh(cls, on: Setting) -> Self:
        """A usual one to begin with."""
        return cls(thickness_mm=on.plate(4.0), height_mm=50.0, overlap_mm=200.0)


class NotchPlan(AtPlace):
    """A cut from below centred at ``place``; ``both`` sides are cut alike."""

    adds: ClassVar[Adds] = Adds("Notch", "an opening for an axle, arm or tie rod: it buys travel and lowers nothing")
    searched: ClassVar[bool] = True
    kind: Literal["notch"] = "notch"
    place: Annotated[Place, Shown("Centre")]
    from_: Annotated[Literal["below", "above"], Shown("Cut from")] = "below"
    shape: Annotated[NotchShape, Shown("Shape", choices={"arc": "arc", "trapezoid": "straight-sided"})]
    depth_mm: Annotated[Size, Shown("Depth")]
    tool: Annotated[
        Literal["template", "hole-saw"],
        Shown(
            "Cut with",
            choices={"template": "grinder, to a template", "hole-saw": "hole saw in a guide"},
            note="Default: to a template; setting up a hole saw costs hours where a grinder takes half of one. The steps give both times.",
        ),
    ] = "template"
    """Grinder or plasma to a template, or a hole saw in a tacked guide tube (an arc only)."""
    weld_allowance_mm: Annotated[Extra, Shown("Weld and fit-up")] = 2.0
    """Room that weld and fit-up take inside the cut, on each side."""
    liner: Annotated[Liner | None, Shown("Liner")] = None
    outer_plate: Annotated[SidePlate | None, Shown("Outer side plate")] = None
    inner_plate: Annotated[SidePlate | None, Shown("Inner side plate")] = None
    cap: Annotated[Cap | None, Shown("Cap box on the other edge", lacking="bolts")] = None
    bolts: Annotated[BoltGroup | None, Shown("Bolted on instead of welded", lacking="cap")] = None
    """Liner and side plates are one bracket, bolted on through the webs: nothing is welded to the rail."""

    @classmethod
    def fresh_values(cls, on: Setting) -> dict[str, object]:
        """Where it begins and what no default tells."""
        return {"place": on.inward(0), "shape": ArcShape(radius_mm=60), "depth_mm": 40.0}

    def fresh_piece(self, at: str, choice: str, on: Setting) -> Frozen:
        """Another shape of the cut is about as wide as the one it replaces."""
        if at != "shape":
            return super().fresh_piece(at, choice, on)
        wide = 2 * self.shape.radius_mm if isinstance(self.shape, ArcShape) else self.shape.mouth_width_mm
        if choice == "arc":
            return ArcShape(radius_mm=wide / 2)
        return TrapezoidShape(top_width_mm=0.8 * wide, mouth_width_mm=1.15 * wide)

    @model_validator(mode="after")
    def _parts_fit(self) -> Self:
        if self.bolts is not None:
            self.bolts.bolt()
            if self.cap is not None:
                raise InputError(
                    "a cap box is welded, this notch is bolted",
                    field="cap",
                    found="a cap",
                    acceptable="none, or a welded notch",
                )
        self.shape.fits(self.depth_mm, self.liner.thickness_mm if self.liner else 0.0)
        return self

    @property
    def half_mouth_mm(self) -> float:
        """Half the width at the rail's underside."""
        return self.shape.half_mouth_mm(self.depth_mm)

    def as_measured(self, measured: dict[str, float]) -> Self:
        """The notch with measured values in place of planned ones (fields of the as-built readings, mm)."""
        if not measured:
            return self
        own = {name: getattr(self, name) for name in type(self).model_fields}
        try:
            return type(self).model_validate({**own, **_measured_fields(self, measured)})
        except ValidationError as error:
            found = ", ".join(f"{key} {as_length(value)}" for key, value in sorted(measured.items()))
            raise InputError(
                "these readings do not make a notch that can be built",
                field="/as_built/entries",
                found=found,
                acceptable="measure again, or withdraw the wrong reading",
            ) from error


def _measured_fields(notch: NotchPlan, measured: dict[str, float]) -> dict[str, object]:
    depth = measured.get("depth", notch.depth_mm)
    update: dict[str, object] = {"depth_mm": depth}
    if "position" in measured:
        update["place"] = notch.place.model_copy(update={"offset_mm": measured["position"]})
    if "width" in measured:
        update["shape"] = _shape_as_measured(notch.shape, measured["width"], depth)
    for role in ("liner", "outer_plate", "inner_plate", "cap"):
        update[role] = _plate_as_measured(getattr(notch, role), role, measured)
    return update


def _shape_as_measured(shape: NotchShape, width_mm: float, depth_mm: float) -> NotchShape:
    if isinstance(shape, ArcShape):
        half = width_mm / 2
        radius = half if depth_mm >= half else (half**2 + depth_mm**2) / (2 * depth_mm)
        return ArcShape(radius_mm=radius)
    narrower = min(shape.top_width_mm, width_mm)
    return shape.model_copy(update={"mouth_width_mm": width_mm, "top_width_mm": narrower})


def _plate_as_measured(
    plate: Liner | SidePlate | Cap | None, role: str, measured: dict[str, float]
) -> Liner | SidePlate | Cap | None:
    if plate is None:
        return None
    short = role.removesuffix("_plate")
    update = {
        field: measured[f"{short}-{key}"]
        for field, key in (("thickness_mm", "thickness"), ("overlap_mm", "overlap"), ("height_mm", "height"))
        if f"{short}-{key}" in measured
    }
    return plate.model_copy(update=update)
