"""The demo job and small changes of it, for tests."""

import math
from functools import lru_cache
from pathlib import Path

import numpy as np
from pydantic import TypeAdapter

from nodulant.asbuilt.log import ReadingEntry
from nodulant.formats.dossier import Contents
from nodulant.formats.jobfile import load_job
from nodulant.frame.ops.notches.notch import Cap, Liner, Notch, SidePlate
from nodulant.frame.ops.notches.notch_shape import ArcShape, TrapezoidShape
from nodulant.frame.ops.plates.boxing import Boxing
from nodulant.frame.ops.union import Operation
from nodulant.frame.place import Place
from nodulant.job.document import AsBuilt, Inputs
from nodulant.job.riding import in_place
from nodulant.survey.rail import Rail, Station
from nodulant.survey.vehicle import Datum, Feature, Rails, Survey

ROOT = Path(__file__).resolve().parents[1]
DEMO = ROOT / "demo" / "wherry.nodulant.json"


@lru_cache(maxsize=8)
def demo(option="arc"):
    """Inputs of a demo option as it stands in the plan, before anything was logged."""
    return in_place(job().inputs(option))


def job(name="wherry"):
    """A demo job file, before anything was logged."""
    return logged_job(name).model_copy(update={"log": ()})


def logged_job(name="wherry"):
    """A demo job file with its log."""
    return load_job((DEMO.parent / f"{name}.nodulant.json").read_bytes())


def straight_rail(height=150.0, width=60.0, wall=5.0, radius=0.0, steel="mild", start=0.0, end=3000.0):
    """A prismatic channel rail."""
    rows = tuple(
        Station(x_mm=x, underside_z_mm=0, height_mm=height, width_mm=width, wall_mm=wall) for x in (start, end)
    )
    return Rail(stations=rows, inside_radius_mm=radius, steel_id=steel)


def survey_of(rail, **more):
    """A survey with the same rail on both sides and one feature at mid-length."""
    features = (Feature(id="mid", name="mid mark", kind="other", x_mm=1500),)
    fields = {"vehicle": "test frame", "datum": Datum(feature_id="mid"), "rails": Rails(left=rail, right=rail)}
    return Survey(**{**fields, "features": features, **more})


def arc_notch(depth=60.0, radius=60.0, at=0.0, **plates):
    """An arc notch at the mid mark."""
    fields = {"id": "cut", "name": "cut", "place": Place(anchor_id="mid", offset_mm=at), "depth_mm": depth}
    return Notch(**fields, shape=ArcShape(radius_mm=radius), **plates)


def straight_notch(depth=60.0, top=96.0, mouth=140.0, corner=12.0, **plates):
    """A straight-sided notch at the mid mark."""
    shape = TrapezoidShape(top_width_mm=top, mouth_width_mm=mouth, corner_radius_mm=corner)
    place = Place(anchor_id="mid", offset_mm=0)
    return Notch(id="cut", name="cut", place=place, depth_mm=depth, shape=shape, **plates)


def boxing(fit="flush", thickness=5.0, half=900.0):
    """A boxing plate about the mid mark."""
    start, end = Place(anchor_id="mid", offset_mm=-half), Place(anchor_id="mid", offset_mm=half)
    return Boxing(id="box", name="box", start=start, end=end, thickness_mm=thickness, fit=fit)


def liner(t=6.0):
    return Liner(thickness_mm=t)


def side_plate(t=6.0, overlap=260.0, inset=0.0, end="square"):
    return SidePlate(thickness_mm=t, overlap_mm=overlap, inset_mm=inset, end=end)


def cap(t=6.0, height=50.0, overlap=400.0):
    return Cap(thickness_mm=t, height_mm=height, overlap_mm=overlap)


def stations_at(*x):
    return np.array(x, dtype=float)


def with_operations(inputs: Inputs, *operations) -> Inputs:
    """Inputs with other operations."""
    return inputs.model_copy(update={"design": inputs.design.model_copy(update={"operations": tuple(operations)})})


def alone(inputs: Inputs, *operations) -> Inputs:
    """Inputs with these operations and nothing else that is added."""
    inputs = with_operations(inputs, *operations)
    return inputs.model_copy(update={"design": inputs.design.model_copy(update={"crossmembers": ()})})


def with_notch(inputs: Inputs, **update) -> Inputs:
    """Inputs with the demo notch changed, validated again."""
    box, notch = inputs.design.operations
    fields = {name: getattr(notch, name) for name in type(notch).model_fields}
    return with_operations(inputs, box, Notch.model_validate({**fields, **update}))


def with_survey(inputs: Inputs, **update) -> Inputs:
    return inputs.model_copy(update={"survey": inputs.survey.model_copy(update=update)})


def with_rear(inputs: Inputs, **update) -> Inputs:
    return with_survey(inputs, rear=inputs.survey.rear.model_copy(update=update))


def with_targets(inputs: Inputs, **update) -> Inputs:
    targets = inputs.design.targets.model_copy(update=update)
    return inputs.model_copy(update={"design": inputs.design.model_copy(update={"targets": targets})})


def with_readings(inputs: Inputs, *rows) -> Inputs:
    """Inputs with as-built readings (key, side, value) of the demo notch."""
    entries = tuple(
        ReadingEntry(
            number=i, at="2026-10-05T10:00:00+00:00", by="bram", operation="axle-notch", key=k, side=s, value=v
        )
        for i, (k, s, v) in enumerate(rows, start=1)
    )
    return inputs.model_copy(update={"as_built": AsBuilt(entries=entries)})


def on_tubes(inputs: Inputs, wall_mm: float | None = None) -> Inputs:
    """Inputs with both rails of round tube as high as the left rail was."""
    left = inputs.survey.rails.left
    walls = {} if wall_mm is None else {"wall_mm": wall_mm, "rust_loss_mm": 0.0}
    rows = tuple(s.model_copy(update={"width_mm": s.height_mm, **walls}) for s in left.stations)
    made = left.model_copy(update={"kind": "round-tube", "stations": rows, "inside_radius_mm": 0.0})
    return with_survey(inputs, rails=inputs.survey.rails.model_copy(update={"left": made, "right": made}))


def check_of(result, check_id):
    """The check of that id; fails the test when there is none."""
    return next(c for c in result.checks if c.id == check_id)


def finite(value):
    """Whether every number in a dumped result is finite."""
    if isinstance(value, dict):
        return all(finite(v) for v in value.values())
    if isinstance(value, list | tuple):
        return all(finite(v) for v in value)
    return not isinstance(value, float) or math.isfinite(value)


def operation(fields):
    """An operation from its document."""
    return TypeAdapter(Operation).validate_python(fields)


def dossier_of(inputs, job="job", revision="revision 1", **more):
    """What a dossier of these inputs is made of."""
    told = {"option": "arc", "author": "ada", "day": "2026-12-01"}
    return Contents(job=job, revision=revision, inputs=inputs, **{**told, **more})
