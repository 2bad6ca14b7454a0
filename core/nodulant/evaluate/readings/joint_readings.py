"""As-built readings of the joints on the frame: along, up and across, from what a tape can be hooked to."""

import numpy as np

from nodulant.asbuilt.axle import Joint, joints_of
from nodulant.asbuilt.compare import AskedReading, Known
from nodulant.frame.route import Route
from nodulant.frame.seen import rail_seen
from nodulant.job.document import Inputs
from nodulant.parts.sides import Side
from nodulant.parts.specs import ReadingSpec, reading
from nodulant.suspension.study import Study

LIMIT = "as-built-joint"


def joint_readings(inputs: Inputs, studies: list[Study], routes: dict[Side, Route], known: Known) -> list[AskedReading]:
    """Of every joint where a link or an arm meets the frame."""
    out = []
    for s in studies:
        if s.setting is None:
            continue
        joints = joints_of(s.suspension.layout, s.setting)
        seen = {side: rail_seen(inputs.survey, side, routes[side]) for side in {j.side for j in joints}}
        for joint in joints:
            rail = seen[joint.side]
            under = float(np.interp(joint.at[0], rail.x, rail.low))
            for spec in _specs(inputs, joint, routes[joint.side], under):
                out.append(
                    known.asked(
                        f"{s.suspension.axle}-joints",
                        joint.side,
                        spec,
                        f"{s.suspension.axle.capitalize()} joints on the frame",
                    )
                )
    return out


def _specs(inputs: Inputs, joint: Joint, route: Route, under: float) -> list[ReadingSpec]:
    x, y, z = joint.at
    name = joint.name.capitalize()
    there = route.exists(np.array([f.x_mm for f in inputs.survey.features]))
    hooks = [(f.name, route.x_at(f.x_mm)) for f, ok in zip(inputs.survey.features, there, strict=True) if ok]
    datum, at = min(hooks, key=lambda h: abs(h[1] - x), default=("the front hub line", 0.0))
    return [
        reading(f"{joint.key}-along", f"{name}: frame joint behind", x - at, datum, LIMIT, extra=True),
        reading(
            f"{joint.key}-up",
            f"{name}: frame joint up",
            z - under,
            "the rail's underside at its station",
            LIMIT,
            extra=True,
        ),
        reading(
            f"{joint.key}-across", f"{name}: frame joint out", abs(y), "the frame's centre plane", LIMIT, extra=True
        ),
    ]
