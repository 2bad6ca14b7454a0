"""A vehicle over the ground: scrub lines, ground angles, and the room that a jack finds."""

from dataclasses import dataclass

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.checks.check import Changes, Check
from nodulant.checks.sweep_rules import scrub_checks
from nodulant.clearance.moving import Mover
from nodulant.clearance.shapes import Standing
from nodulant.clearance.under import angle_deg, lowest_over, sinks_mm, under_axle
from nodulant.evaluate.suspensions.travel_drawing import Fact
from nodulant.parts.sides import AxleName, LoadState
from nodulant.suspension.motion import Setting


@dataclass(frozen=True)
class SweptAxle:
    """One axle's bodies with where it stands, and its rims' diameter, mm; None where the tyre is not known."""

    name: AxleName
    setting: Setting
    movers: tuple[Mover, ...]
    rim_mm: float | None
    stands: dict[LoadState, float]
    """Wheel travel in each load state that the springs know, mm."""


def scrubs(axles: tuple[SweptAxle, ...], limits: Changes) -> list[Check]:
    """Scrub lines of every axle whose rims are known."""
    out = []
    for axle in axles:
        under = None if axle.rim_mm is None else under_axle(axle.movers, axle.setting, axle.rim_mm)
        out += [] if under is None else scrub_checks(axle.name, under, limits)
    return out


def jack_room(axles: tuple[SweptAxle, ...], standing: tuple[Standing, ...]) -> tuple[Fact, ...]:
    """What hangs lowest of each axle and of the frame, over the ground at ride height, mm; of an axle also with its tyres flat."""
    out = []
    for axle in axles:
        low = lowest_over(axle.movers, axle.setting)
        if low is None:
            continue
        name, under = f"Room for a jack, {axle.name} axle", f"under the {low.part}"
        out.append(Fact(name=name, value=low.over_mm, unit="mm", words=f"{under}, at ride height"))
        if axle.rim_mm is not None:
            flat = low.over_mm - sinks_mm(axle.setting, axle.rim_mm)
            words = under if flat > 0 else f"none: the {low.part} lies on the ground"
            out.append(Fact(name=f"{name}, both its tyres flat", value=max(flat, 0.0), unit="mm", words=words))
    over = _over_ground(axles, standing)
    if over is not None:
        name, x, high = min(over, key=lambda row: float(row[2].min()))
        at = float(x[int(np.argmin(high))])
        words = f"under the {name}, at ride height"
        out.append(Fact(name="Lowest of frame and things", value=float(high.min()), unit="mm", words=words))
        where = "ahead of" if at < 0 else "behind"
        out.append(Fact(name=f"Its lowest place, {where} the datum", value=abs(at), unit="mm", words=""))
    return tuple(out)


def ground_angles(axles: tuple[SweptAxle, ...], standing: tuple[Standing, ...]) -> tuple[Fact, ...]:
    """How steep the ground may be ahead, behind and between the axles before rails or what was placed touch it."""
    front, rear = _both(axles)
    over = _over_ground(axles, standing)
    if over is None or front is None or rear is None:
        return ()
    xf, xr = front.hub[0], rear.hub[0]
    x, high = (np.concatenate([row[k] for row in over]) for k in (1, 2))
    ahead = [angle_deg(xf - a, h, front.radius_mm) for a, h in zip(x[x < xf], high[x < xf], strict=True)]
    behind = [angle_deg(a - xr, h, rear.radius_mm) for a, h in zip(x[x > xr], high[x > xr], strict=True)]
    mid = (x > xf) & (x < xr)
    between = [
        angle_deg(a - xf, h, front.radius_mm) + angle_deg(xr - a, h, rear.radius_mm)
        for a, h in zip(x[mid], high[mid], strict=True)
    ]
    words = "rails and what was placed, at ride height; the body's own overhang is not known unless it was placed"
    rows = (("Approach", ahead), ("Departure", behind), ("Breakover", between))
    return tuple(
        Fact(name=f"{name} angle", value=min(v), unit="deg", words=words if k == 0 else "")
        for k, (name, v) in enumerate(rows)
        if v
    )


def _both(axles: tuple[SweptAxle, ...]) -> tuple[Setting | None, Setting | None]:
    front, rear = (next((a.setting for a in axles if a.name == name), None) for name in ("front", "rear"))
    return front, rear


def _over_ground(
    axles: tuple[SweptAxle, ...], standing: tuple[Standing, ...]
) -> list[tuple[str, Columns, Columns]] | None:
    """Undersides of everything that stands: name, stations and heights over the line through both tyres' feet; None without both."""
    front, rear = _both(axles)
    if front is None or rear is None or not standing:
        return None
    xf, xr = front.hub[0], rear.hub[0]
    gf, gr = (a.hub[2] - a.radius_mm for a in (front, rear))
    out = []
    for thing in standing:
        boxes = thing.pack.boxes
        x = np.concatenate([boxes.low[:, 0], boxes.high[:, 0]])
        z = np.concatenate([boxes.low[:, 2], boxes.low[:, 2]])
        out.append((thing.name, x, np.asarray(z - (gf + (x - xf) / (xr - xf) * (gr - gf)))))
    return out
