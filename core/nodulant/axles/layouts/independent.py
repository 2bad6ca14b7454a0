"""Wheels on arms of their own; the right one is given, the left mirrors it."""

from typing import Annotated, Literal

from pydantic import Field

from nodulant.axles.layouts.layout import Layout, NamedLink, Where
from nodulant.axles.points import HardPoint, Link, on_axle
from nodulant.base.errors import InputError
from nodulant.linkage.mechanism import CARRIER, FRAME, End, Guide, Point, Rod


class Independent(Layout):
    """One wheel by itself."""

    @property
    def independent(self) -> bool:
        """Yes."""
        return True


class TrailingArm(Independent):
    """An arm that turns about two pivots on the frame: square across it is a trailing arm, askew a semi-trailing one."""

    kind: Literal["trailing"] = "trailing"
    inner: HardPoint
    outer: HardPoint

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
                "both pivots of the arm lie on one point", field="outer", found="0 mm apart", acceptable="1 mm or more"
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


class DoubleWishbone(Independent):
    """Two wishbones and a toe link; each wishbone is two rods to one ball joint."""

    kind: Literal["double-wishbone"] = "double-wishbone"
    upper_front: HardPoint
    upper_rear: HardPoint
    upper_ball: HardPoint
    """On the upright, from the hub line."""
    lower_front: HardPoint
    lower_rear: HardPoint
    lower_ball: HardPoint
    toe: Link

    def links(self) -> tuple[NamedLink, ...]:
        """The toe link."""
        return (NamedLink("toe link", "toe", self.toe),)

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
        out = []
        for which, ball in (("upper", self.upper_ball), ("lower", self.lower_ball)):
            for leg in ("front", "rear"):
                pivot: HardPoint = getattr(self, f"{which}_{leg}")
                out.append(
                    Rod(f"{which} wishbone, {leg} leg", End(CARRIER, on_axle(ball, hub)), End(FRAME, pivot.xyz()))
                )
        return tuple(out)
