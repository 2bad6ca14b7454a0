"""What moves with the rail: masses, features and crossmembers whose segment goes up, along or inward."""

from collections.abc import Sequence

import numpy as np

from nodulant.base.model import Frozen
from nodulant.frame.model import Placed
from nodulant.frame.ops.subframes.subframe import Subframe
from nodulant.frame.route import Route
from nodulant.job.caused import NEAR_MM
from nodulant.job.document import Inputs


class TakenAlong(Frozen):
    """One thing that moves with the rail, mm: up, rearward, and how much narrower its place gets."""

    name: str
    kind: str
    up_mm: float
    back_mm: float
    narrower_mm: float
    words: str


_WORDS = {
    "mass": "what it must clear: hood, floor, firewall, axle in bump",
    "hanger": "the spring's seat goes along",
    "steering": "column, shaft and rack: length and angles change",
    "engine-mount": "tied to each other by a bar, refitted at their old width",
    "body-mount": "the body's mounts go along or are refitted at their old place",
    "subframe": "its sides and all that they carry go in with their rails: cut in the middle, or its ears moved",
    "crossmember": "cut shorter by this, half from each end where its holes allow",
}


def taken_along(inputs: Inputs, route: Route, placed: Sequence[Placed]) -> tuple[TakenAlong, ...]:
    """Everything that moves, in order of station."""
    survey = inputs.survey
    rows = [(m.x_mm if m.to_x_mm is None else (m.x_mm + m.to_x_mm) / 2, m.name, "mass") for m in survey.masses]
    rows += [(f.x_mm, f.name, f.kind) for f in survey.features if f.kind not in {"axle-line", "hole", "crossmember"}]
    rows += [(c.x_mm, f"{c.name} crossmember", "crossmember") for c in survey.crossmembers]
    rows += [(p.centre_mm, p.op.name, "subframe") for p in placed if isinstance(p.op, Subframe)]
    out = []
    for x, name, kind in sorted(rows):
        shift = route.shift(np.array([x]))
        up, back, inward = float(shift.dz[0]), float(shift.dx[0]), float(shift.inward[0])
        if kind in {"mass", "other", "rail-end"}:
            inward = 0.0
        if kind not in {"crossmember", "subframe"}:
            up += by_pocket(x, placed)
        if max(abs(up), abs(back), abs(inward)) > 1e-6:
            words = _WORDS.get(kind, "goes with its segment")
            if kind in {"crossmember", "engine-mount", "subframe"} and abs(inward) < 1e-6:
                words = "goes with its segment"
            out.append(TakenAlong(name=name, kind=kind, up_mm=up, back_mm=back, narrower_mm=2 * inward, words=words))
    return tuple(out)


def by_pocket(x_mm: float, placed: Sequence[Placed]) -> float:
    """How far a subframe raised into the rail takes up what stands on it."""
    up = [p.op.lowers() for p in placed if abs(p.centre_mm - x_mm) < NEAR_MM]
    return max(up, default=0.0)
