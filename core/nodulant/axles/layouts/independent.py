"""Wheels on arms of their own; the right one is given, the left mirrors it."""

from abc import abstractmethod
from typing import Annotated, Literal

from pydantic import Field

from nodulant.axles.layouts.layout import Layout, NamedLink, Where
from nodulant.axles.points import FramePoint, HardPoint, Link, on_axle
from nodulant.base.errors import InputError
from nodulant.linkage.crank import axis_of
from nodulant.linkage.mechanism import CARRIER, FRAME, End, Guide, Point, Rod, Slide
from nodulant.units.inline import as_length


class Independent(Layout):
    """One wheel by itself."""

    @property
    def independent(self) -> bool:
        """Yes."""
        return True


class TrailingArm(Independent):
    """An arm that turns about two pivots on the frame: square across it is a trailing arm, askew a semi-trailing one."""

    kind: Literal["trailing"] = "trailing"
    inner: FramePoint
    outer: FramePoint

    def links(self) -> tuple[NamedLink, ...]:
        """None: the arm is the carrier itself."""
        return ()

    def points(self) -> dict[str, tuple[Where, HardPoint]]:
        """Both pivots."""
        return {"inner": ("frame", self.inner), "outer": ("frame", self.outer)}

    def guides(self, hub: Point) -> tuple[Guide, ...]:
        """One pivot holds in three directions, the other in the two across the hinge."""
        p, q = self.inner.xyz(), self.outer.xyz()
        along = tuple(b - a for a, b in zip(p, q, strict=True))
        size = sum(v * v for v in along) ** 0.5
        if size < 1.0:
            raise InputError(
                "both pivots of the arm lie on one point",
                field="outer",
                found=f"{as_length(0)} apart",
                acceptable=f"{as_length(1)} or more",
            )
        u = (along[0] / size, along[1] / size, along[2] / size)
        across = _square_to(u)
        rows = [Guide(f"inner pivot, {n}", End(CARRIER, p), d) for n, d in _AXES]
        rows += [Guide(f"outer pivot, {n}", End(CARRIER, q), d) for n, d in zip(("one", "two"), across, strict=True)]
        return tuple(rows)


_AXES: tuple[tuple[str, Point], ...] = (
    ("fore and aft", (1.0, 0.0, 0.0)),
    ("sideways", (0.0, 1.0, 0.0)),
    ("in height", (0.0, 0.0, 1.0)),
)


def _square_to(u: Point) -> tuple[Point, Point]:
    """Two unit vectors square to ``u`` and to each other."""
    seed = (0.0, 0.0, 1.0) if abs(u[2]) < 0.9 else (1.0, 0.0, 0.0)
    a = _cross(u, seed)
    size = sum(v * v for v in a) ** 0.5
    one = (a[0] / size, a[1] / size, a[2] / size)
    return one, _cross(u, one)


def _cross(a: Point, b: Point) -> Point:
    return (a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0])


class MultiLink(Independent):
    """Five rods to one upright."""

    kind: Literal["multi-link"] = "multi-link"
    rods: Annotated[tuple[Link, ...], Field(min_length=5, max_length=5)]

    def links(self) -> tuple[NamedLink, ...]:
        """All five."""
        return tuple(NamedLink(f"rod {i + 1}", f"rods.{i}", link) for i, link in enumerate(self.rods))


class Steered(Independent):
    """A wheel whose upright turns about two joints and is held by one toe link: to a rack, a centre link or the frame."""

    toe: Link

    def links(self) -> tuple[NamedLink, ...]:
        """The toe link."""
        return (NamedLink(TOE_LINK, "toe", self.toe),)

    @abstractmethod
    def king_pin(self, hub: Point) -> tuple[End, End]:
        """Lower and upper point of the line that the wheel is steered about."""


TOE_LINK = "toe link"


class DoubleWishbone(Steered):
    """Two wishbones and a toe link; each wishbone is two rods to one ball joint."""

    kind: Literal["double-wishbone"] = "double-wishbone"
    upper_front: FramePoint
    upper_rear: FramePoint
    upper_ball: HardPoint
    """On the upright, from the hub line."""
    lower_front: FramePoint
    lower_rear: FramePoint
    lower_ball: HardPoint

    def points(self) -> dict[str, tuple[Where, HardPoint]]:
        """The wishbones' pivots and ball joints."""
        names = ("upper_front", "upper_rear", "lower_front", "lower_rear")
        balls: dict[str, tuple[Where, HardPoint]] = {
            "upper_ball": ("axle", self.upper_ball),
            "lower_ball": ("axle", self.lower_ball),
        }
        return balls | {name: ("frame", getattr(self, name)) for name in names}

    def more_rods(self, hub: Point) -> tuple[Rod, ...]:
        """Both legs of both wishbones."""
        upper = wishbone("upper wishbone", self.upper_ball, self.upper_front, self.upper_rear, hub)
        return (*upper, *wishbone("lower wishbone", self.lower_ball, self.lower_front, self.lower_rear, hub))

    def king_pin(self, hub: Point) -> tuple[End, End]:
        """Between the ball joints."""
        return End(CARRIER, on_axle(self.lower_ball, hub)), End(CARRIER, on_axle(self.upper_ball, hub))


class Strut(Steered):
    """A lower arm, a toe link, and a strut fast on the upright whose line always passes its top mount."""

    kind: Literal["strut"] = "strut"
    top: FramePoint
    """Middle of the top mount, on the frame."""
    foot: HardPoint
    """A point on the strut's own line near the upright, from the hub line."""
    lower_front: FramePoint
    lower_rear: FramePoint
    lower_ball: HardPoint

    def points(self) -> dict[str, tuple[Where, HardPoint]]:
        """Top mount, the strut's foot, the arm's pivots and its ball joint."""
        frame = {name: getattr(self, name) for name in ("top", "lower_front", "lower_rear")}
        axle = {name: getattr(self, name) for name in ("foot", "lower_ball")}
        return {n: ("frame", p) for n, p in frame.items()} | {n: ("axle", p) for n, p in axle.items()}

    def more_rods(self, hub: Point) -> tuple[Rod, ...]:
        """Both legs of the lower arm."""
        return wishbone("lower arm", self.lower_ball, self.lower_front, self.lower_rear, hub)

    def slides(self, hub: Point) -> tuple[Slide, ...]:
        """The top mount stays on the strut's line: on two planes through it."""
        foot, top = on_axle(self.foot, hub), self.top.xyz()
        if sum((a - b) ** 2 for a, b in zip(foot, top, strict=True)) < 1.0:
            raise InputError(
                "the strut's foot lies on its top mount",
                field="foot",
                found=f"{as_length(0)} apart",
                acceptable=f"{as_length(1)} or more",
            )
        one, two = _square_to(axis_of(foot, top))
        return (Slide("strut, one way across", top, one), Slide("strut, the other way across", top, two))

    def king_pin(self, hub: Point) -> tuple[End, End]:
        """From the ball joint to the top mount."""
        return End(CARRIER, on_axle(self.lower_ball, hub)), End(FRAME, self.top.xyz())


def wishbone(name: str, ball: HardPoint, front: HardPoint, rear: HardPoint, hub: Point) -> tuple[Rod, Rod]:
    """An arm as two rods from its pivots to its ball joint."""
    end = End(CARRIER, on_axle(ball, hub))
    return (
        Rod(f"{name}, front leg", end, End(FRAME, front.xyz())),
        Rod(f"{name}, rear leg", end, End(FRAME, rear.xyz())),
    )
