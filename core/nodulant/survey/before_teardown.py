"""Readings that cannot be taken after teardown (common practice)."""

from nodulant.base.memo import remembered
from nodulant.base.model import Frozen, is_assumed
from nodulant.parts.sides import AxleName
from nodulant.survey.vehicle import Survey


class Reading(Frozen):
    """One reading that teardown destroys, where it is kept, and whether it was taken."""

    pointer: str
    name: str
    why: str
    taken: bool


_AXLE = (
    ("hub_z_left_mm", "hub height, left", "gives ride height and the ground plane"),
    ("hub_z_right_mm", "hub height, right", "shows a lean that was there before you came"),
    ("tyre", "tyre size", "sets the height of everything"),
)
_REAR = (
    ("tube_diameter_mm", "axle tube diameter", "sets the notch"),
    ("tube_gap_left_mm", "tube to rail, left", "the travel there was"),
    ("tube_gap_right_mm", "tube to rail, right", "the travel there was"),
    ("pinion_angle_deg", "pinion angle", "the driveshaft ran with it"),
)


BOTH: frozenset[AxleName] = frozenset({"front", "rear"})


NONE: frozenset[AxleName] = frozenset()


@remembered(8)
def readings_before_teardown(
    survey: Survey, touched: frozenset[AxleName] = BOTH, deep: frozenset[AxleName] = NONE
) -> tuple[Reading, ...]:
    """Every reading that must be in before the vehicle is taken apart; ``deep`` are the axles that come far up.

    Work on the front axle alone leaves the rear one as it stands: it can be measured at any time.
    Work on the rear asks for the front's height too, since body and rake hang on both.
    """
    assumed = survey.assumed

    def reading(pointer: str, name: str, why: str, value: object) -> Reading:
        taken = value is not None and not is_assumed(assumed, pointer)
        return Reading(pointer="/survey" + pointer, name=name, why=why, taken=taken)

    out = [reading("/wheelbase_mm", "Wheelbase, hub to hub", "nobody can measure it afterwards", survey.wheelbase_mm)]
    for axle_name, axle, rows in (("front", survey.front, _AXLE), ("rear", survey.rear, _AXLE + _REAR)):
        for field, name, why in rows if axle_name == "front" or "rear" in touched else ():
            out.append(reading(f"/{axle_name}/{field}", f"{axle_name.capitalize()} {name}", why, getattr(axle, field)))
    for name, axle in (("front", survey.front), ("rear", survey.rear)):
        if name in deep:
            why = "the wheel goes up into it: its middle and edges are gone with the body"
            out.append(reading(f"/{name}/arch", f"{name.capitalize()} wheel arch", why, axle.arch))
    for side in ("left", "right"):
        rail = getattr(survey.rails, side)
        walls = all(station.wall_mm is not None for station in rail.stations)
        out.append(
            reading(
                f"/rails/{side}/stations",
                f"Wall at every station, {side} rail",
                "what stock strength means",
                walls or None,
            )
        )
    out.append(reading("/masses", "Masses on the frame", "loads the rail is checked with", survey.weighs or None))
    return tuple(out)
