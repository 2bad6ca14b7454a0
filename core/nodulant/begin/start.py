"""A new job from a short choice and up to six readings; what nobody gave is assumed, and says so.

Assumed are a usual rail, wheelbase and bump travel, so that there is something to draw and to cut into; each
counts as not measured until someone types it.
"""

from typing import Annotated, Literal

from pydantic import Field

from nodulant.base.model import Extra, Frozen, Name, Size, Thickness
from nodulant.frame.ops.fresh import Setting
from nodulant.frame.ops.pockets.raise_into import Raise
from nodulant.frame.ops.through.zstep import ZStep
from nodulant.frame.ops.union import Operation
from nodulant.job.document import Design, Shop
from nodulant.parts.limits import find_limit
from nodulant.parts.sides import LEFT_RIGHT, AxleName
from nodulant.survey.in_the_way import InTheWay
from nodulant.survey.rail import Rail, RailSize, Station
from nodulant.survey.vehicle import Axle, Datum, Feature, Rails, Survey
from nodulant.targets.drop import DropEntry, FrontTarget, Mechanism, Targets
from nodulant.targets.mechanisms import MECHANISMS

By = Literal["springs", "blocks", "spring-flip", "air", "z-step", "raise", "not said"]
"""What is to lower it, in the trade's words; a step and a raise ask for no notch."""
CUTS: frozenset[By] = frozenset({"z-step", "raise"})
WHEELBASE_MM, HEIGHT_MM, WIDTH_MM, BEYOND_MM, BUMP_MM = 2600.0, 120.0, 50.0, (600.0, 900.0), 75.0
"""Usual sizes, to be typed over: wheelbase, a rail and how far it goes past both axles, bump travel (common practice)."""
STEP_BEHIND_MM = 600.0
"""A front step is cut this far behind its axle, and the rail ahead of it rises."""
LINE: dict[AxleName, str] = {"front": "front-axle", "rear": "rear-axle"}


class Start(Frozen):
    """What a first visit with a tape gives: six readings, each left out where it was not taken."""

    vehicle: Name
    axle: Literal["rear", "front", "both"] = "rear"
    by: By = "not said"
    drop_mm: Annotated[float, Field(gt=0, le=1000)] | None = None
    kind: Literal["channel", "rect-tube"] = "channel"
    rail_height_mm: RailSize | None = None
    rail_width_mm: RailSize | None = None
    wall_mm: Thickness | None = None
    tube_diameter_mm: Annotated[float, Field(ge=20, le=400)] | None = None
    tube_gap_mm: Extra | None = None
    wheelbase_mm: Annotated[float, Field(ge=500, le=10_000)] | None = None
    tyre: Annotated[str, Field(max_length=40)] | None = None
    bump_mm: Size | None = None
    in_the_way: InTheWay = ()

    @property
    def main_axle(self) -> AxleName:
        """The axle that is answered first."""
        return "front" if self.axle == "front" else "rear"


def begun(start: Start, shop: Shop) -> tuple[Survey, Design]:
    """Survey and first design of a new job; tapes hook on the axle that it is about."""
    survey = _survey(start)
    return survey, _design(start, survey, shop)


def _survey(start: Start) -> Survey:
    assumed: dict[str, str] = {}
    base = start.wheelbase_mm
    if base is None:
        base, assumed["/wheelbase_mm"] = WHEELBASE_MM, "wheelbase"
    measured = 0.0 if start.main_axle == "front" else base
    places = sorted({-BEYOND_MM[0], measured, base + BEYOND_MM[1]})
    stations = []
    for number, x in enumerate(places):
        here = x == measured
        rows = (
            ("height_mm", "rail height", start.rail_height_mm, HEIGHT_MM),
            ("width_mm", "rail width", start.rail_width_mm, WIDTH_MM),
            ("wall_mm", "rail wall", start.wall_mm, None),
        )
        sizes: dict[str, float | None] = {"x_mm": x, "underside_z_mm": 0.0}
        where = f"over the {start.main_axle} axle" if here else f"at the {'front' if number == 0 else 'rear'} end"
        for field, name, given, usual in rows:
            sizes[field] = given if given is not None else usual
            if sizes[field] is not None and (given is None or not here):
                _assume(assumed, number, field, f"{name} {where}")
        if not here:
            _assume(assumed, number, "x_mm", f"where the rails {'begin' if number == 0 else 'end'}")
            _assume(assumed, number, "underside_z_mm", f"rail's underside {where}")
        stations.append(Station.model_validate(sizes))
    rail = Rail(stations=tuple(stations), kind=start.kind)
    for side in LEFT_RIGHT:
        assumed[f"/rails/{side}/web_y_mm"] = "web's distance from the centre"
        assumed[f"/rails/{side}/inside_radius_mm"] = "radius inside the rail's corners"
    own = Axle(
        tyre=start.tyre,
        tube_diameter_mm=start.tube_diameter_mm,
        tube_gap_left_mm=start.tube_gap_mm,
        tube_gap_right_mm=start.tube_gap_mm,
    )
    if start.tube_gap_mm is not None:
        assumed[f"/{start.main_axle}/tube_gap_right_mm"] = "tube to rail on the right, taken as on the left"
    features = (
        Feature(id=LINE["front"], name="front axle line", kind="axle-line", x_mm=0),
        Feature(id=LINE["rear"], name="rear axle line", kind="axle-line", x_mm=base),
    )
    return Survey.model_validate(
        {
            "vehicle": start.vehicle,
            "datum": Datum(feature_id=LINE[start.main_axle]),
            "wheelbase_mm": base,
            "rails": Rails(left=rail, right=rail),
            "features": features,
            start.main_axle: own,
            "about": ("front", "rear") if start.axle == "both" else (start.axle,),
            "in_the_way": start.in_the_way,
            "assumed": assumed,
        }
    )


def _assume(assumed: dict[str, str], station: int, field: str, words: str) -> None:
    for side in LEFT_RIGHT:
        assumed[f"/rails/{side}/stations/{station}/{field}"] = words


def _design(start: Start, survey: Survey, shop: Shop) -> Design:
    assumed: dict[str, str] = {}
    if start.bump_mm is None:
        where = "/targets/front/bump_mm" if start.main_axle == "front" else "/targets/bump_mm"
        assumed[where] = "bump travel"
    assumed["/targets/droop_mm"] = "droop travel"
    clearance = find_limit("metal-clearance", {})[0]
    assumed[f"/limits/{clearance.id}"] = "clearance of moving metal"
    bump = start.bump_mm or BUMP_MM
    entries: tuple[DropEntry, ...] = ()
    if start.by not in CUTS and start.by != "not said" and start.drop_mm is not None:
        entries = (_entry(start.by, start.drop_mm),)
    drop = start.drop_mm or 0.0
    if start.main_axle == "front":
        targets = Targets(front=FrontTarget(drop_mm=drop, entries=entries, bump_mm=bump), bump_mm=bump, droop_mm=bump)
    else:
        targets = Targets(drop_mm=drop, entries=entries, bump_mm=bump, droop_mm=bump)
    return Design(targets=targets, operations=_cut(start, survey, shop), assumed=assumed)


def _entry(by: Mechanism, drop_mm: float) -> DropEntry:
    own = next(m for m in MECHANISMS if m.mechanism == by)
    return DropEntry.model_validate({"id": "drop-1", "amount_mm": drop_mm, **own.model_dump()})


def _cut(start: Start, survey: Survey, shop: Shop) -> tuple[Operation, ...]:
    """The step or the raise that was asked for; a notch waits for the path of the axle."""
    if start.by not in CUTS or start.drop_mm is None:
        return ()
    on = Setting(survey, start.main_axle, shop.plate_stock_mm)
    if start.by == "raise":
        pocket = Raise.fresh(on, ())
        return (pocket.model_copy(update={"place": on.inward(0), "depth_mm": start.drop_mm + pocket.floor_mm}),)
    step = ZStep.fresh(on, ()).model_copy(update={"rise_mm": start.drop_mm})
    if start.main_axle == "front":
        step = step.model_copy(update={"place": on.front(STEP_BEHIND_MM), "rises": "ahead"})
    return (step,)
