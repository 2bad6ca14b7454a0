"""Live axles on links."""

from typing import Literal

from nodulant.axles.layouts.lateral import Lateral
from nodulant.axles.layouts.layout import Layout, NamedLink, Where, pair
from nodulant.axles.points import FramePoint, HardPoint, Link, on_axle
from nodulant.linkage.mechanism import CARRIER, FRAME, End, Guide, Piece, Point, Rod


class TriangulatedFourLink(Layout):
    """Two lower links fore and aft, two upper ones that converge in plan and so locate the axle sideways too."""

    kind: Literal["triangulated"] = "triangulated"
    upper: Link
    lower: Link

    def links(self) -> tuple[NamedLink, ...]:
        """Upper and lower pairs."""
        return (*pair("upper link", "upper", self.upper), *pair("lower link", "lower", self.lower))


class Located(Layout):
    """A live axle that something else keeps in the middle."""

    lateral: Lateral

    def more_rods(self, hub: Point) -> tuple[Rod, ...]:
        """Of the lateral locator."""
        return self.lateral.rods(hub)

    def pieces(self, hub: Point) -> tuple[Piece, ...]:
        """Of the lateral locator."""
        return self.lateral.pieces(hub)

    def points(self) -> dict[str, tuple[Where, HardPoint]]:
        """Of the lateral locator."""
        return self.lateral.points()


class ParallelFourLink(Located):
    """Two upper and two lower links, all fore and aft: one link more than freedoms, so it binds in roll."""

    kind: Literal["parallel"] = "parallel"
    upper: Link
    lower: Link

    def links(self) -> tuple[NamedLink, ...]:
        """Both pairs and the lateral locator's own."""
        return (
            *pair("upper bar", "upper", self.upper),
            *pair("lower bar", "lower", self.lower),
            *self.lateral.links(),
        )


class ThreeLink(Located):
    """Two lower arms and one upper one."""

    kind: Literal["three-link"] = "three-link"
    upper: Link
    """On its own side: its y is kept."""
    lower: Link

    def links(self) -> tuple[NamedLink, ...]:
        """The pair, the single one, the lateral locator's own."""
        return (
            NamedLink("upper link", "upper", self.upper),
            *pair("lower arm", "lower", self.lower),
            *self.lateral.links(),
        )


class LadderBars(Located):
    """A bar on each side, fast on the housing and pivoted on the frame: roll twists the housing between them."""

    kind: Literal["ladder"] = "ladder"
    pivot: FramePoint
    """On the frame, right side."""

    def links(self) -> tuple[NamedLink, ...]:
        """The lateral locator's own."""
        return self.lateral.links()

    def points(self) -> dict[str, tuple[Where, HardPoint]]:
        """The pivots and the lateral locator's own."""
        return {"pivot": ("frame", self.pivot), **super().points()}

    def guides(self, hub: Point) -> tuple[Guide, ...]:
        """Each front eye stays at its pivot, fore and aft and in height; sideways its bush is soft."""
        out = []
        for name, point in (("right", self.pivot), ("left", self.pivot.mirrored())):
            eye = End(CARRIER, point.xyz())
            out.append(Guide(f"ladder bar's eye, {name}, fore and aft", eye, (1.0, 0.0, 0.0), BUSH))
            out.append(Guide(f"ladder bar's eye, {name}, in height", eye, (0.0, 0.0, 1.0), BUSH))
        return tuple(out)


BUSH = 5.0e3
"""Radial stiffness of a rubber bush, N/mm (common practice, a few kN per mm)."""


class TorqueArm(Located):
    """Two lower links, and an arm fast on the housing whose front end slides fore and aft on the frame."""

    kind: Literal["torque-arm"] = "torque-arm"
    lower: Link
    front: FramePoint
    """The arm's front end, on the frame."""

    def links(self) -> tuple[NamedLink, ...]:
        """The lower pair and the lateral locator's own."""
        return (*pair("lower link", "lower", self.lower), *self.lateral.links())

    def points(self) -> dict[str, tuple[Where, HardPoint]]:
        """The arm's front end and the lateral locator's own."""
        return {"front": ("frame", self.front), **super().points()}

    def guides(self, hub: Point) -> tuple[Guide, ...]:
        """Its height is held."""
        return (Guide("torque arm", End(CARRIER, self.front.xyz()), (0.0, 0.0, 1.0)),)


LEAST_HALF_MM, ALIKE_MM = 50.0, 1.0
"""A shorter half is none; halves nearer to each other than this are alike."""


class LeafSprings(Layout):
    """Leaf springs by the equivalent link: each seat swings on an arm of three quarters of the spring's front half.

    SAE three-link equivalent of a semi-elliptic spring (SAE Spring Design Manual, from memory): the
    virtual pivot lies a quarter of the front half behind the eye. With both halves alike the seat
    does not turn; halves a (front) and b (rear) turn it by (b - a)/(a b) per unit of travel, as if a
    point a b/(b - a) ahead of it kept its height (constant curvature of each half, own; the SAE
    manual's form, from memory).
    """

    kind: Literal["leaf"] = "leaf"
    eye: FramePoint
    """Front eye, on the frame, right side."""
    seat: HardPoint
    """Where the spring lies on the axle, from the hub line, right side."""
    rear_eye: FramePoint | None = None
    """On the frame; halves of one length where left out."""

    def links(self) -> tuple[NamedLink, ...]:
        """None: a spring is no link."""
        return ()

    def points(self) -> dict[str, tuple[Where, HardPoint]]:
        """The eyes and the seat."""
        rows: dict[str, tuple[Where, HardPoint]] = {"eye": ("frame", self.eye), "seat": ("axle", self.seat)}
        return rows if self.rear_eye is None else {**rows, "rear_eye": ("frame", self.rear_eye)}

    def turns_about_mm(self, hub: Point) -> float | None:
        """How far ahead of the seat the point lies that keeps its height; None for halves of one length."""
        if self.rear_eye is None:
            return None
        seat = on_axle(self.seat, hub)[0]
        front, rear = seat - self.eye.x_mm, self.rear_eye.x_mm - seat
        if front < LEAST_HALF_MM or rear < LEAST_HALF_MM or abs(rear - front) < ALIKE_MM:
            return None
        return front * rear / (rear - front)

    def eyes_line_mm(self, x_mm: float) -> float:
        """Height of the line through both eyes at a station of the frame, mm; level where the rear one is left out."""
        if self.rear_eye is None or abs(self.rear_eye.x_mm - self.eye.x_mm) < ALIKE_MM:
            return self.eye.z_mm
        share = (x_mm - self.eye.x_mm) / (self.rear_eye.x_mm - self.eye.x_mm)
        return self.eye.z_mm + share * (self.rear_eye.z_mm - self.eye.z_mm)

    def virtual_pivot(self, hub: Point, eye: HardPoint) -> Point:
        """A quarter of the way from the eye to the seat."""
        seat = on_axle(self.seat, hub)
        return (eye.x_mm + (seat[0] - eye.x_mm) / 4, eye.y_mm, eye.z_mm)

    def more_rods(self, hub: Point) -> tuple[Rod, ...]:
        """An equivalent arm each side, and a third above them that keeps the housing from turning."""
        rods = []
        for name, eye, seat in (("right", self.eye, self.seat), ("left", self.eye.mirrored(), self.seat.mirrored())):
            end, pivot = on_axle(seat, hub), self.virtual_pivot(hub, eye)
            rods.append(Rod(f"spring's front half, {name}", End(CARRIER, end), End(FRAME, pivot)))
        if self.turns_about_mm(hub) is not None:
            return tuple(rods)
        own, above = self.virtual_pivot(hub, self.eye), 100.0
        top = on_axle(self.seat, hub)
        wrap = Rod(
            "springs against windup",
            End(CARRIER, (top[0], hub[1], top[2] + above)),
            End(FRAME, (own[0], hub[1], own[2] + above)),
        )
        return (*rods, wrap)

    def guides(self, hub: Point) -> tuple[Guide, ...]:
        """The springs' side stiffness, taken as rigid, on the line of their eyes, about which the axle rolls; unequal halves turn the seat."""
        across = Guide("springs sideways", End(CARRIER, (hub[0], hub[1], self.eyes_line_mm(hub[0]))), (0.0, 1.0, 0.0))
        ahead = self.turns_about_mm(hub)
        if ahead is None:
            return (across,)
        seat = on_axle(self.seat, hub)
        still = End(CARRIER, (seat[0] - ahead, hub[1], seat[2]))
        return (across, Guide("springs against windup", still, (0.0, 0.0, 1.0)))
