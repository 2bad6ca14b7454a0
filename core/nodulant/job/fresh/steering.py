"""Steering as it begins: a gear that suits the layout, king pins where the axle needs them, column and shaft."""

from nodulant.axles.layouts.independent import DoubleWishbone, MultiLink, Strut, TrailingArm
from nodulant.axles.points import Link
from nodulant.axles.steering import CentreLink, ColumnClamp, DragLink, KingPins, Rack, Sector, Steering, SteeringShaft
from nodulant.axles.suspension import Suspension
from nodulant.base.errors import UnknownReference
from nodulant.job.fresh.stand import Stand, at


def gears_for(own: Suspension) -> tuple[str, ...]:
    """Gears that a layout can have, the usual one first; none for wheels that do not steer."""
    if isinstance(own.layout, DoubleWishbone | Strut):
        return ("rack", "centre-link")
    return () if isinstance(own.layout, TrailingArm | MultiLink) else ("drag-link",)


def gear_of(kind: str, own: Suspension, on: Stand) -> Rack | CentreLink | DragLink:
    """A gear of a kind on the hubs as they stand; raises UnknownReference where the layout cannot have it."""
    if kind not in gears_for(own):
        raise UnknownReference(
            "this layout has no such gear",
            field="/kind",
            found=kind,
            acceptable=", ".join(gears_for(own)) or "wishbones, struts or a beam axle",
        )
    toe: Link | None = getattr(own.layout, "toe", None)
    behind = toe is not None and toe.axle.x_mm > 0
    if kind == "rack":
        return Rack(stroke_mm=65, turns=3.2, boot_mm=56, input_right_moves="left" if behind else "right")
    if kind == "centre-link":
        joint = toe.frame if toe else at(on.x + 130, 300, on.z)
        # the arm points at the axle, so that anticlockwise it moves the joints the way that steers right
        box = Sector(
            shaft=at(joint.x_mm + (150 if behind else -150), -(joint.y_mm + 60), joint.z_mm + 20),
            arm_end=at(joint.x_mm, -(joint.y_mm + 60), joint.z_mm),
            swing_deg=30,
            turns=4,
            input_right_turns="anticlockwise",
        )
        return CentreLink(box=box)
    ahead = on.along(350.0, "ahead")
    box = Sector(
        shaft=at(ahead, -(on.web + 35), on.z + 60),
        arm_end=at(ahead + 150, -(on.web + 35), on.z + 50),
        swing_deg=33,
        turns=4,
        input_right_turns="anticlockwise",
    )
    return DragLink(box=box, knuckle=at(-170, on.half - 105, 50))


def steering_of(own: Suspension, on: Stand) -> Steering:
    """Steering with its gear; raises UnknownReference where the wheels do not steer."""
    kinds = gears_for(own)
    gear = gear_of(kinds[0] if kinds else "none", own, on)
    if own.layout.independent:
        return Steering(gear=gear)
    pins = KingPins(
        upper=at(10, on.half - 130, 95), lower=at(-10, on.half - 100, -95), tie_rod=at(160, on.half - 150, -35)
    )
    return Steering(gear=gear, king_pins=pins)


def column_of(steering: Steering, on: Stand) -> SteeringShaft:
    """A shaft of two joints from a column over the left rail down to the gear."""
    gear = steering.gear
    if isinstance(gear, Rack):
        end = at(on.x + 60, -120, on.z + 150)
    else:
        end = at(gear.box.shaft.x_mm, gear.box.shaft.y_mm, gear.box.shaft.z_mm + 60)
    return SteeringShaft(
        column=at(end.x_mm + 700, -on.web + 40, end.z_mm + 700),
        joints=(
            at(end.x_mm + 430, -on.web + 30, end.z_mm + 330),
            at(end.x_mm + 90, end.y_mm - 10, end.z_mm + 60),
        ),
        gear=end,
    )


def clamp_of() -> ColumnClamp:
    """A tube of two inches on a column of an inch and three quarters."""
    return ColumnClamp(column_mm=44.45, tube_mm=50.8, wall_mm=3.05, slot_mm=3.0)
