"""Mistakes of measuring: a free radius, a finder that was not zeroed, a wrong tape."""

import math
from itertools import combinations
from random import Random

from nodulant.asbuilt.log import FramePoint, LengthEntry, ReadingEntry
from nodulant.evaluate import Want, evaluate
from nodulant.evaluate.readings.points import FramePoints
from nodulant.frame.model import planned_state, route_on
from nodulant.job.document import AsBuilt, Inputs
from nodulant.parts.sides import LEFT_RIGHT, Side
from nodulant.parts.tyre import parse_tyre
from nodulant.practice.fault import Fault, Planted

READ = Want(strips=False, parts=False, steps=False, frame=False, interim=False, along=False)
AT, BY = "2026-11-02T18:00:00+00:00", "crew"
BLUNDER_MM = 12.0
CONTROLLED = 0.4
"""A length whose own error shows by less than this cannot be found by anybody."""


def _free_radius(inputs: Inputs, chance: Random) -> Planted:
    name = chance.choice(("front", "rear"))
    axle = inputs.survey.front if name == "front" else inputs.survey.rear
    size = axle.tyre or inputs.survey.rear.tyre or "215/75R16"
    free = parse_tyre(size).free_diameter_mm / 2
    loaded = axle.model_copy(update={"tyre": size, "loaded_radius_mm": round(free, 1)})
    survey = inputs.survey.model_copy(update={name: loaded})
    return Planted(inputs.model_copy(update={"survey": survey}), f"{name} tyre's loaded radius")


def _not_zeroed(inputs: Inputs, chance: Random) -> Planted:
    """Every angle is off by the rake that the rail stood at."""
    rake = chance.choice((-1, 1)) * chance.uniform(1.9, 3.5)
    angles = [r for r in evaluate(inputs, READ).readings if r.spec.unit == "deg" and not r.operation.endswith("-wheel")]
    entries = [
        ReadingEntry(
            number=k,
            at=AT,
            by=BY,
            operation=r.operation,
            key=r.spec.key,
            side=r.side,
            value=round(r.spec.planned + rake + chance.gauss(0, 0.04), 2),
            unit="deg",
            instrument="angle finder",
            resolution=0.1,
        )
        for k, r in enumerate(angles, 1)
    ]
    return Planted(_with_log(inputs, entries), f"all angles off by {rake:.1f} deg")


def taped(inputs: Inputs, chance: Random) -> list[LengthEntry]:
    """Every length between the outer and two middle pairs, to a tape's spread."""
    survey, design = inputs.survey, inputs.design
    state = planned_state(design.operations)
    routes = {side: route_on(survey, design.operations, side, state) for side in LEFT_RIGHT}
    plan = FramePoints(inputs, routes, {}).plan("")
    features = sorted(survey.features, key=lambda f: f.x_mm)
    kept = [features[0], features[len(features) // 3], features[2 * len(features) // 3], features[-1]]
    points = [FramePoint(feature_id=f.id, side=side) for f in kept for side in LEFT_RIGHT]
    out = []
    for k, (a, b) in enumerate(combinations(points, 2), 1):
        length = math.dist(plan[a.id], plan[b.id]) + chance.gauss(0, 0.5)
        out.append(LengthEntry(number=k, at=AT, by=BY, start=a, end=b, value=round(length, 1), when="tacked"))
    return out


def _wrong_tape(inputs: Inputs, chance: Random) -> Planted:
    rows = taped(inputs, chance)
    found = evaluate(_with_log(inputs, rows), READ).taped
    sure = [row.entry - 1 for row in found.lengths if row.control > CONTROLLED] if found else []
    k = chance.choice(sure or list(range(len(rows))))
    off = chance.choice((-1, 1)) * BLUNDER_MM
    rows[k] = rows[k].model_copy(update={"value": rows[k].value + off})
    return Planted(_with_log(inputs, rows), f"entry {rows[k].number}")


def _turned_over(inputs: Inputs, chance: Random) -> Planted:
    """A tapered pocket cut by the other rail's pattern: deep and shallow wall change places."""
    side: Side = chance.choice(LEFT_RIGHT)
    own = {r.spec.key: r for r in evaluate(inputs, READ).readings if r.side == side and r.spec.key.endswith("depth")}
    deep, shallow = own["depth"], own["inner-depth"]
    pairs = ((deep, shallow.spec.planned), (shallow, deep.spec.planned))
    entries = [
        ReadingEntry(
            number=k,
            at=AT,
            by=BY,
            operation=r.operation,
            key=r.spec.key,
            side=side,
            value=round(value + chance.gauss(0, 0.1), 2),
            instrument="depth gauge",
            resolution=0.02,
        )
        for k, (r, value) in enumerate(pairs, 1)
    ]
    return Planted(_with_log(inputs, entries), f"the pocket on the {side}")


def _with_log(inputs: Inputs, entries: "list[ReadingEntry] | list[LengthEntry]") -> Inputs:
    return inputs.model_copy(update={"as_built": AsBuilt(entries=tuple(entries))})


SURVEY_FAULTS = (
    Fault(
        id="free-radius",
        name="A tyre's loaded radius is its free radius",
        story="The tyres were measured on the bench, before they went on. Everything fits on paper.",
        hints=(
            "It was measured, not designed: look at the survey.",
            "Compare what the tyre's size gives with what stands as measured.",
            "The loaded radius of one axle.",
            "It is half the tyre's diameter: nothing stands on it.",
        ),
        costs="The vehicle stands lower than planned by what the tyre gives, stops are struck, and the mounts are cut loose again.",
        hours=9.0,
        shows=frozenset({"loaded-radius"}),
        plant=_free_radius,
    ),
    Fault(
        id="not-zeroed",
        name="The angle finder was not zeroed on the rail",
        story="All angles were taken in one go on Tuesday evening, by one person with one finder.",
        hints=(
            "It is about what was read as built.",
            "Several rows are off, and all by nearly the same.",
            "Every angle: pinion and tabs.",
            "The finder showed the rail's rake as well: it was zeroed on the floor.",
        ),
        costs="The pinion is turned to a wrong angle, the shaft shakes, and its mounts are cut loose and welded again.",
        hours=12.0,
        shows=frozenset({"as-built-pinion", "as-built-angle"}),
        plant=_not_zeroed,
    ),
    Fault(
        id="wrong-tape",
        name="One length of the tape network was misread",
        story="The frame was taped after the tack. Somebody says it is out of square.",
        hints=(
            "It is about the frame by tape.",
            "The lengths do not go together: one of them is suspect.",
            "The length with the largest standardised residual.",
            "It is off by far more than a tape spreads: tape it again before anything is racked.",
        ),
        costs="A square frame is pulled with a chain until it fits a wrong number, and has to be pulled back.",
        hours=6.0,
        shows=frozenset({"tape-fits"}),
        plant=_wrong_tape,
    ),
    Fault(
        id="turned-over",
        name="A left pattern was used on the right, or the other way round",
        story="The pocket was cut by its pattern, to the line. It was a good cut.",
        hints=(
            "It is about what was read as built.",
            "Two depths of one cut do not agree with the plan.",
            "The depth at the web and the depth at the open side of the pocket.",
            "Each is what the other should be: the pattern lay turned over.",
        ),
        costs="The subframe stands askew; the pocket is filled, welded, and cut again.",
        hours=14.0,
        shows=frozenset({"as-built"}),
        plant=_turned_over,
    ),
)
