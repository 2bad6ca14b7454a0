"""A notch from below or above, with its liner, side plates and cap box: parameters and measured values.

Depth is measured from the rail's edge that is cut to the crown of the cut; the liner lies inside
the cut, so the clear depth is less by its thickness.
"""

from typing import Literal, Self

from pydantic import ValidationError, model_validator

from nodulant.base.errors import InputError
from nodulant.base.model import Extra, Frozen, Size, Thickness
from nodulant.frame.ops.bolted import BoltGroup
from nodulant.frame.ops.notch_shape import ArcShape, NotchShape
from nodulant.frame.ops.operation import RailOperation
from nodulant.frame.place import Place
from nodulant.parts.part import EndShape

PlateEnd = Literal["square", "taper"]


class Liner(Frozen):
    """Plate or half pipe that closes the cut from below; welded along both webs."""

    thickness_mm: Thickness
    steel_id: str = "mild"
    weld_leg_mm: Thickness = 5.0


class SidePlate(Frozen):
    """Plate on a side of the rail, ``overlap_mm`` past the cut, edges ``inset_mm`` inside the rail's."""

    thickness_mm: Thickness
    overlap_mm: Extra
    inset_mm: Extra = 6.0
    end: EndShape = "diamond"
    steel_id: str = "mild"
    weld_leg_mm: Thickness = 5.0


class Cap(Frozen):
    """Box on the top flange, ``height_mm`` high, ``overlap_mm`` past the cut at its foot."""

    height_mm: Size
    thickness_mm: Thickness
    overlap_mm: Extra
    end: PlateEnd = "taper"
    steel_id: str = "mild"
    weld_leg_mm: Thickness = 5.0


class NotchPlan(RailOperation):
    """A cut from below centred at ``place``; ``both`` sides are cut alike."""

    kind: Literal["notch"] = "notch"
    place: Place
    from_: Literal["below", "above"] = "below"
    shape: NotchShape
    depth_mm: Size
    tool: Literal["template", "hole-saw"] = "template"
    """Grinder or plasma to a template, or a hole saw in a tacked guide tube (an arc only)."""
    weld_allowance_mm: Extra = 2.0
    """Room that weld and fit-up take inside the cut, on each side."""
    liner: Liner | None = None
    outer_plate: SidePlate | None = None
    inner_plate: SidePlate | None = None
    cap: Cap | None = None
    bolts: BoltGroup | None = None
    """Liner and side plates are one bracket, bolted on through the webs: nothing is welded to the rail."""

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
            found = ", ".join(f"{key} {value:g} mm" for key, value in sorted(measured.items()))
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
