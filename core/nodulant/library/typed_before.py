"""Rails, axles, tyres, springs and racks of a shop's own jobs. What was only assumed is no part of it."""

from collections.abc import Iterable, Iterator
from typing import Any, Literal

from pydantic import JsonValue

from nodulant.axles.springs import AirSpring, Coilover, LeafPack, TorsionBar
from nodulant.axles.steering import Rack
from nodulant.axles.suspension import Suspension
from nodulant.base.model import Frozen, is_assumed
from nodulant.job.document import Design
from nodulant.parts.sides import AxleName
from nodulant.survey.vehicle import Axle, Survey
from nodulant.units.inline import as_amount, as_length, as_thickness

Kind = Literal["rail", "axle", "tyre", "coilover", "air", "leaf", "torsion", "rack"]
PLACED = frozenset({"kind", "lower", "upper", "on", "seat", "anchor", "flipped", "axle_was", "count", "apart_mm"})
"""Where a spring stands belongs to its vehicle; what was bought does not."""
MOST = 60
RAILS = {"channel": "open channel", "rect-tube": "closed box"}
"""Rails that a job can begin with, in words."""


class TypedBefore(Frozen):
    """One thing as it was typed: its kind, its sizes as a name, fields with their values, and the vehicle it is of."""

    kind: Kind
    name: str
    values: dict[str, JsonValue]
    of: str


def typed_before(jobs: Iterable[tuple[Survey, Iterable[Design]]]) -> tuple[TypedBefore, ...]:
    """Everything that a shop's jobs hold, newest first as the jobs are given, each thing once."""
    seen: dict[str, TypedBefore] = {}
    for survey, designs in jobs:
        for row in (*_surveyed(survey), *_designed(survey.vehicle, designs)):
            seen.setdefault(f"{row.kind} {sorted(row.values.items())}", row)
    return tuple(seen.values())[:MOST]


def _surveyed(survey: Survey) -> Iterator[TypedBefore]:
    rail = survey.rails.left
    for i, at in enumerate(rail.stations if rail.kind in RAILS else ()):
        where = f"/rails/left/stations/{i}"
        known = not any(is_assumed(survey.assumed, f"{where}/{f}") for f in ("height_mm", "width_mm", "wall_mm"))
        if at.wall_mm is not None and known:
            size = f"{as_length(at.height_mm)} x {as_length(at.width_mm)} x {as_thickness(at.wall_mm)}"
            values: dict[str, JsonValue] = {
                "kind": rail.kind,
                "rail_height_mm": at.height_mm,
                "rail_width_mm": at.width_mm,
                "wall_mm": at.wall_mm,
            }
            yield TypedBefore(kind="rail", name=f"{RAILS[rail.kind]} {size}", values=values, of=survey.vehicle)
    ends: tuple[AxleName, AxleName] = ("rear", "front")
    for axle in ends:
        yield from _axle(survey, axle)


def _axle(survey: Survey, axle: AxleName) -> Iterator[TypedBefore]:
    own: Axle = getattr(survey, axle)

    def given(*fields: str) -> dict[str, JsonValue]:
        values: dict[str, Any] = {f: getattr(own, f) for f in fields}
        return {f: v for f, v in values.items() if v is not None and not is_assumed(survey.assumed, f"/{axle}/{f}")}

    tube = given("tube_diameter_mm")
    if own.tube_diameter_mm is not None and tube:
        name = f"{axle} axle, tube {as_length(own.tube_diameter_mm)}"
        yield TypedBefore(kind="axle", name=name, values=tube, of=survey.vehicle)
    tyre = given("tyre", "loaded_radius_mm")
    if own.tyre and "tyre" in tyre:
        yield TypedBefore(kind="tyre", name=own.tyre, values=tyre, of=survey.vehicle)


def _designed(vehicle: str, designs: Iterable[Design]) -> Iterator[TypedBefore]:
    for design in designs:
        for suspension in design.suspensions:
            yield from _spring(vehicle, suspension)
            gear = suspension.steering.gear if suspension.steering is not None else None
            if isinstance(gear, Rack):
                name = f"stroke {as_length(gear.stroke_mm)}, {gear.turns:g} turns"
                values = gear.model_dump(mode="json", exclude={"kind", "input_right_moves"})
                yield TypedBefore(kind="rack", name=name, values=values, of=vehicle)


def _spring(vehicle: str, suspension: Suspension) -> Iterator[TypedBefore]:
    spring = suspension.springs
    if spring is None:
        return
    if isinstance(spring, Coilover):
        name = (
            f"{as_amount('rate', spring.rate_n_per_mm)}, {as_length(spring.closed_mm)} to {as_length(spring.open_mm)}"
        )
    elif isinstance(spring, AirSpring):
        name = f"ride {as_length(spring.ride_mm)}, {as_length(spring.least_mm)} to {as_length(spring.most_mm)}"
    elif isinstance(spring, LeafPack):
        name = f"{as_amount('rate', spring.rate_n_per_mm)}, {spring.leaves} leaves"
    else:
        assert isinstance(spring, TorsionBar)
        name = f"bar {as_thickness(spring.diameter_mm)}, {as_length(spring.length_mm)} long"
    values = {f: v for f, v in spring.model_dump(mode="json").items() if f not in PLACED and v is not None}
    yield TypedBefore(kind=spring.kind, name=name, values=values, of=vehicle)
