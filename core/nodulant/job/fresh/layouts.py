"""Every layout as it begins on an axle: it moves, and its frame ends lie where there is frame."""

from collections.abc import Callable

from nodulant.axles.layouts.independent import DoubleWishbone, MultiLink, Strut, TrailingArm
from nodulant.axles.layouts.lateral import TrackBar, WattsLink
from nodulant.axles.layouts.live import (
    LadderBars,
    LeafSprings,
    ParallelFourLink,
    ThreeLink,
    TorqueArm,
    TriangulatedFourLink,
)
from nodulant.axles.layouts.union import AnyLayout
from nodulant.axles.points import HardPoint, Joints, Link, Tube
from nodulant.base.errors import UnknownReference
from nodulant.job.fresh.stand import Stand, at

LINK, THIN = Tube(od_mm=44.5, wall_mm=6.35, steel_id="dom"), Tube(od_mm=31.8, wall_mm=4.78, steel_id="dom")
LEAF_HALF_MM = 600.0


def layout_of(kind: str, on: Stand) -> AnyLayout:
    """A layout of a kind; raises UnknownReference where there is none."""
    made = LAYOUTS.get(kind)
    if made is None:
        raise UnknownReference(
            "there is no such layout", field="/kind", found=kind, acceptable=", ".join(sorted(LAYOUTS))
        )
    return made(on)


def lateral_of(kind: str, on: Stand) -> TrackBar | WattsLink:
    """What keeps an axle in the middle, on the side of the axle away from its links."""
    back = -on.lead
    if kind == "watts":
        x = on.along(110.0, "behind" if back > 0 else "ahead")
        return WattsLink(
            pin=at(x - on.x, 0, 0),
            crank_mm=160.0,
            upper=at(x, -on.inner, on.z + 80),
            lower=at(x, on.inner, on.z - 80),
            tube=THIN,
        )
    x = on.along(140.0, "behind" if back > 0 else "ahead")
    return TrackBar(bar=_link(at(x, on.inner, on.z + 10), at(x - on.x, -on.inner, 20)))


def mirrored_eye(layout: LeafSprings, on: Stand) -> HardPoint:
    """A rear eye as far behind the seat as the front one lies ahead, on the frame."""
    x = 2 * (on.x + layout.seat.x_mm) - layout.eye.x_mm
    return at(min(x, on.to_mm - 1.0), layout.eye.y_mm, layout.eye.z_mm)


def _link(frame: HardPoint, axle: HardPoint) -> Link:
    return Link(frame=frame, axle=axle, tube=LINK, joints=Joints())


def _lower(on: Stand, y: float) -> Link:
    return _link(at(on.along(660.0), on.inner, on.z + 20), at(0, y, -75))


def _triangulated(on: Stand) -> TriangulatedFourLink:
    upper = _link(at(on.along(460.0), on.inner, on.z + 152), at(10 * on.lead, 70, 130))
    return TriangulatedFourLink(lower=_lower(on, on.inner + 60), upper=upper)


def _parallel(on: Stand) -> ParallelFourLink:
    return ParallelFourLink(
        lower=_link(at(on.along(620.0), on.inner, on.z + 20), at(0, on.inner, -75)),
        upper=_link(at(on.along(480.0), on.inner, on.z + 130), at(0, on.inner, 130)),
        lateral=lateral_of("track-bar", on),
    )


def _three_link(on: Stand) -> ThreeLink:
    upper = _link(at(on.along(480.0), 60, on.z + 150), at(10 * on.lead, 60, 130))
    return ThreeLink(lower=_lower(on, on.inner + 60), upper=upper, lateral=lateral_of("track-bar", on))


def _ladder(on: Stand) -> LadderBars:
    return LadderBars(pivot=at(on.along(800.0), on.inner, on.z + 60), lateral=lateral_of("track-bar", on))


def _torque_arm(on: Stand) -> TorqueArm:
    front = at(on.along(1000.0), 0, on.z + 90)
    return TorqueArm(lower=_lower(on, on.inner + 60), front=front, lateral=lateral_of("track-bar", on))


def _leaf(on: Stand) -> LeafSprings:
    y = round(on.web + 40)
    return LeafSprings(eye=at(on.along(LEAF_HALF_MM, "ahead"), y, on.z + 20), seat=at(0, y, -60))


def _trailing(on: Stand) -> TrailingArm:
    x = on.along(480.0, "ahead")
    return TrailingArm(inner=at(x, on.inner, on.z + 30), outer=at(x, on.half - 140, on.z + 30))


def _multi_link(on: Stand) -> MultiLink:
    y, near = on.half - 120, on.inner
    x = on.x
    return MultiLink(
        rods=(
            _link(at(x - 60, near, on.z + 105), at(-40, y, 120)),
            _link(at(x + 100, near, on.z + 110), at(60, y, 120)),
            _link(at(x - 110, near, on.z - 100), at(-60, y, -95)),
            _link(at(x + 110, near, on.z - 95), at(70, y, -95)),
            _link(at(on.along(520.0, "ahead"), y - 60, on.z - 10), at(-60, y, 0)),
        )
    )


def _wishbones(on: Stand) -> DoubleWishbone:
    y, ahead, behind = on.half - 110, on.along(200.0, "ahead"), on.along(200.0, "behind")
    return DoubleWishbone(
        upper_front=at(ahead, on.inner + 115, on.z + 114),
        upper_rear=at(behind, on.inner + 115, on.z + 96),
        upper_ball=at(10, y - 20, 130),
        lower_front=at(ahead + 50, on.inner + 55, on.z - 85),
        lower_rear=at(behind - 10, on.inner + 55, on.z - 85),
        lower_ball=at(0, y, -95),
        toe=_link(at(on.x + 130, on.inner + 75, on.z - 18), at(120, y - 10, -22)),
    )


def _strut(on: Stand) -> Strut:
    y, ahead, behind = on.half - 100, on.along(140.0, "ahead"), on.along(190.0, "behind")
    return Strut(
        top=at(on.x + 30, y - 110, on.z + 540),
        foot=at(5, y - 30, 90),
        lower_front=at(ahead, on.inner + 75, on.z - 85),
        lower_rear=at(behind, on.inner + 75, on.z - 85),
        lower_ball=at(-5, y, -100),
        toe=_link(at(on.x + 130, on.inner + 93, on.z - 12), at(125, y - 15, -22)),
    )


LAYOUTS: dict[str, Callable[[Stand], AnyLayout]] = {
    "triangulated": _triangulated,
    "parallel": _parallel,
    "three-link": _three_link,
    "ladder": _ladder,
    "torque-arm": _torque_arm,
    "leaf": _leaf,
    "trailing": _trailing,
    "multi-link": _multi_link,
    "double-wishbone": _wishbones,
    "strut": _strut,
}
