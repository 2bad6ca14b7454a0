"""Links as people measure them: length from joint to joint, and angles as an angle finder reads them."""

import math

from nodulant.axles.points import on_axle
from nodulant.evaluate.suspensions.travel_drawing import LinkSize
from nodulant.suspension.study import Study


def link_sizes(s: Study) -> tuple[LinkSize, ...]:
    """Every link at ride height, of a pair the right one; none where the hubs are not known."""
    if s.setting is None:
        return ()
    out: dict[str, LinkSize] = {}
    for named in s.suspension.layout.links():
        if named.path in out and not named.name.endswith(", right"):
            continue
        a, b = on_axle(named.link.axle, s.setting.hub), named.link.frame.xyz()
        along, across, up = (q - p for p, q in zip(a, b, strict=True))
        out[named.path] = LinkSize(
            path=named.path,
            name=named.name.removesuffix(", right"),
            length_mm=math.sqrt(along**2 + across**2 + up**2),
            side_deg=_slope(up, along),
            end_deg=_slope(up, across),
            plan_deg=math.degrees(math.atan2(abs(across), abs(along))),
            lateral=abs(across) > abs(along),
        )
    return tuple(out.values())


def _slope(up: float, level: float) -> float:
    """Fall from frame to axle over its level length; upright at most."""
    return math.degrees(math.atan2(up, abs(level))) if up or level else 0.0
