"""What a taped frame's points say of its shape: squareness, side-sway, and how each axle stands under it."""

import math
from collections.abc import Mapping

import numpy as np

from nodulant.asbuilt.log import HUBS
from nodulant.asbuilt.network import Network, PointAt
from nodulant.base.arrays import Columns
from nodulant.base.model import Frozen
from nodulant.parts.sides import LEFT_RIGHT

COVERS = 2.0
Plan = Mapping[str, tuple[float, float]]


class Square(Frozen):
    """Of the foremost and rearmost pair of points: diagonals, mm, how much they differ more than planned, and the angle."""

    front: str
    rear: str
    left_to_right_mm: float
    right_to_left_mm: float
    off_mm: float
    lozenge_deg: float
    """How far the cross lines are out of square with the lengths, positive where the right side is further back."""


class Sway(Frozen):
    """How far the middle between the rails bends sideways off the line through its ends, mm, to the right positive."""

    at: str
    off_mm: float
    sure_mm: float


class AxleTaped(Frozen):
    """A hub line under the frame's own centre line: which way it points, degrees, and how far it stands to the right, mm."""

    hub: str
    thrust_deg: float
    thrust_sure_deg: float
    right_mm: float
    right_sure_mm: float
    apart_mm: float
    """From hub to hub, across."""


def square_of(network: Network, planned: dict[str, tuple[float, float]]) -> Square | None:
    """Diagonals and lozenge of the outermost pairs; None where the lengths do not hold the frame."""
    at = {p.id: (p.x_mm, p.y_mm) for p in network.points}
    pairs = sorted(
        (planned[f"{name}/left"][0], name)
        for name in {p.id.split("/")[0] for p in network.points} - set(HUBS)
        if {f"{name}/left", f"{name}/right"} <= at.keys()
    )
    if len(pairs) < 2 or any(not name.startswith(HUBS) for name in network.loose):
        return None
    front, rear = pairs[0][1], pairs[-1][1]

    def diagonals(of: dict[str, tuple[float, float]]) -> tuple[float, float]:
        return math.dist(of[f"{front}/left"], of[f"{rear}/right"]), math.dist(of[f"{front}/right"], of[f"{rear}/left"])

    one, other = diagonals(at)
    wanted = diagonals(planned)
    along = math.atan2(*(sum(at[f"{rear}/{s}"][k] - at[f"{front}/{s}"][k] for s in LEFT_RIGHT) for k in (1, 0)))
    skew = [
        math.atan2(at[f"{n}/right"][0] - at[f"{n}/left"][0], at[f"{n}/right"][1] - at[f"{n}/left"][1]) + along
        for _, n in pairs
    ]
    return Square(
        front=front,
        rear=rear,
        left_to_right_mm=one,
        right_to_left_mm=other,
        off_mm=(one - other) - (wanted[0] - wanted[1]),
        lozenge_deg=math.degrees(sum(skew) / len(skew)),
    )


def sway_of(network: Network, planned: Plan) -> Sway | None:
    """The largest over all pairs between the outer two; None with fewer than three."""
    rows = _middles(network, planned)
    if len(rows) < 3:
        return None
    (_, _, first), (_, _, last) = rows[0], rows[-1]
    along = (last - first) / np.linalg.norm(last - first)
    best: Sway | None = None
    for name, sure, middle in rows[1:-1]:
        off = float((middle - first) @ np.array([-along[1], along[0]]))
        ends = math.hypot(rows[0][1], rows[-1][1]) / math.sqrt(2)
        own = Sway(at=name, off_mm=off, sure_mm=COVERS * math.hypot(sure, ends))
        best = own if best is None or abs(own.off_mm) > abs(best.off_mm) else best
    return best


def axles_of(network: Network, planned: Plan) -> tuple[AxleTaped, ...]:
    """Of every axle of which both hubs were taped and held."""
    rows, at = _middles(network, planned), {p.id: p for p in network.points}
    if len(rows) < 2:
        return ()
    middles = np.array([m for _, _, m in rows])
    centre, (along, *_) = middles.mean(axis=0), np.linalg.svd(middles - middles.mean(axis=0))[2]
    along = along * (1.0 if along[0] > 0 else -1.0)
    across = np.array([-along[1], along[0]])
    out = []
    for hub in HUBS:
        left, right = at.get(f"{hub}/left"), at.get(f"{hub}/right")
        if left is None or right is None or {left.id, right.id} & set(network.loose):
            continue
        line = _xy(right) - _xy(left)
        sure = math.hypot(left.major_mm, right.major_mm)
        reach = float(line @ across)
        middle = (_xy(left) + _xy(right)) / 2 - centre
        out.append(
            AxleTaped(
                hub=hub.removeprefix("hub-"),
                thrust_deg=math.degrees(math.atan2(float(line @ along), reach)),
                thrust_sure_deg=math.degrees(COVERS * sure / abs(reach)),
                right_mm=float(middle @ across),
                right_sure_mm=COVERS * sure / 2,
                apart_mm=float(np.linalg.norm(line)),
            )
        )
    return tuple(out)


def _xy(p: PointAt) -> Columns:
    return np.array([p.x_mm, p.y_mm])


def _middles(network: Network, planned: Plan) -> list[tuple[str, float, Columns]]:
    """Name, spread and middle of every pair of the frame, foremost first; loose ones left out."""
    at = {p.id: p for p in network.points if p.id not in network.loose}
    names = {id_.split("/")[0] for id_ in at} - set(HUBS)
    pairs = sorted((planned[f"{n}/left"][0], n) for n in names if all(f"{n}/{side}" in at for side in LEFT_RIGHT))
    out = []
    for _, name in pairs:
        one, other = at[f"{name}/left"], at[f"{name}/right"]
        out.append((name, math.hypot(one.major_mm, other.major_mm) / 2, (_xy(one) + _xy(other)) / 2))
    return out
