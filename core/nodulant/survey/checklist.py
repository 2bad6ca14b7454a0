"""The survey as a list to take to the vehicle: what is measured, by what it is good for, and what is already in.

Which readings a verdict rests on is this product's own; their order is that of the work (common practice).
"""

from collections.abc import Iterable, Iterator

from nodulant.base.memo import remembered
from nodulant.base.model import Frozen, is_assumed
from nodulant.parts.sides import LEFT_RIGHT, AxleName
from nodulant.survey.before_teardown import BOTH, NONE, readings_before_teardown
from nodulant.survey.vehicle import Axle, Survey


class Item(Frozen):
    """One thing to measure: where it is kept, the glossary's word for it, and whether it was measured."""

    pointer: str
    name: str
    term: str
    taken: bool
    before_teardown: bool = False


class Unlocks(Frozen):
    """Readings and what they are good for together."""

    id: str
    title: str
    says: str
    items: tuple[Item, ...]


_TUBE = (
    ("tube_diameter_mm", "axle tube, diameter", "tube-diameter"),
    ("tube_gap_left_mm", "tube to rail, left", "tube-gap"),
    ("tube_gap_right_mm", "tube to rail, right", "tube-gap"),
)
_STANDS = (
    ("hub_z_left_mm", "hub height, left", "hub-height"),
    ("hub_z_right_mm", "hub height, right", "hub-height"),
    ("tyre", "tyre size", "tyre-size"),
    ("loaded_radius_mm", "loaded radius", "loaded-radius"),
    ("track_mm", "track", "track"),
    ("wheel", "wheel: rim and offset", "wheel-offset"),
    ("arch", "wheel arch", "arch"),
)
_PINION = (("pinion_angle_deg", "pinion, nose up", "pinion-angle"),)
_STATION = (
    ("height_mm", "height", "rail-height"),
    ("width_mm", "width", "rail-width"),
    ("wall_mm", "wall", "wall"),
)
LEAST_MARKS = 3
"""A template hangs on two marks; the third shows that they are right (common practice)."""


def reading_missing(pointers: Iterable[str]) -> str:
    """A sentence that names the readings a motion waits for."""
    return f"a reading of the survey is missing: {', '.join(reading_name(p) for p in pointers)}"


def reading_name(pointer: str) -> str:
    """The words for a reading by its pointer: 'front hub height, left'."""
    *_, of, field = ("", *pointer.split("/"))
    known = {name: words for rows in (_TUBE, _STANDS, _PINION) for name, words, _ in rows}
    plain = field.removesuffix("_mm").removesuffix("_deg").replace("_", " ")
    return f"{of} {known.get(field, plain)}" if of in {"front", "rear"} else plain


@remembered(8)
def checklist(
    survey: Survey, touched: frozenset[AxleName] = BOTH, deep: frozenset[AxleName] = NONE
) -> tuple[Unlocks, ...]:
    """Everything to measure for work on the touched axles, in groups in the order of the work.

    Work on the front alone leaves the rear as it stands; work on the rear asks for the front's height, since rake hangs on both.
    """
    gone = {r.pointer for r in readings_before_teardown(survey, touched, deep)}

    def item(at: str, name: str, term: str, value: object) -> Item:
        taken = value is not None and value != () and not is_assumed(survey.assumed, at)
        pointer = f"/survey{at}"
        return Item(pointer=pointer, name=name, term=term, taken=taken, before_teardown=pointer in gone)

    def of_axle(axle: AxleName, rows: tuple[tuple[str, str, str], ...]) -> Iterator[Item]:
        own: Axle = getattr(survey, axle)
        for field, name, term in rows:
            yield item(f"/{axle}/{field}", f"{axle.capitalize()} {name}", term, getattr(own, field))

    def of_rails() -> Iterator[Item]:
        for side in LEFT_RIGHT:
            for i, station in enumerate(survey.rails.of(side).stations):
                for field, name, term in _STATION:
                    at = f"/rails/{side}/stations/{i}/{field}"
                    yield item(at, f"{side} rail, station {i + 1}, {name}", term, getattr(station, field))

    rear: tuple[AxleName, ...] = ("rear",) if "rear" in touched else ()
    standing: tuple[AxleName, ...] = ("front", *rear)
    marks = [f for f in survey.features if f.kind != "axle-line"]
    cut = [i for axle in rear for i in of_axle(axle, _TUBE)]
    cut += [item("/wheelbase_mm", "Wheelbase, hub to hub", "wheelbase", survey.wheelbase_mm), *of_rails()]
    steel = [
        item(f"/rails/{side}/steel_id", f"{side} rail, steel", "steel", _known(survey.rails.of(side).steel_id))
        for side in LEFT_RIGHT
    ]
    return (
        Unlocks(
            id="cut",
            title="The cut and its plates",
            says="where it lies, how deep it is, plates as strong as stock",
            items=tuple(cut),
        ),
        Unlocks(
            id="heights",
            title="Ride height and wheels",
            says="heights, what the tyres touch, ground clearance",
            items=tuple(i for axle in standing for i in of_axle(axle, _STANDS)),
        ),
        Unlocks(
            id="strength",
            title="Factors of safety",
            says="how hard the rails are worked, in figures and not against stock alone",
            items=(
                *steel,
                item("/masses", "Masses with their places", "mass", survey.masses if survey.weighs else ()),
                item("/seats", "Seats of both axles, with their shares", "seat", survey.seats),
                item("/crossmembers", "Crossmembers and their joints", "crossmember", survey.crossmembers),
                item("/stops", "Stock bump stops", "stock-stop", survey.stops),
            ),
        ),
        Unlocks(
            id="motion",
            title="Travel and driveline",
            says="curves, joint angles, hoses, against what there was before",
            items=(
                *(i for axle in rear for i in of_axle(axle, _PINION)),
                item("/suspensions", "What holds the axles now: hard points", "hard-point", survey.suspensions),
            ),
        ),
        Unlocks(
            id="marks",
            title="Templates hang on the frame",
            says="holes and edges that can be found again, at least three near the work",
            items=(
                item(
                    "/features",
                    f"{len(marks)} of {LEAST_MARKS} marks",
                    "feature",
                    tuple(marks) if len(marks) >= LEAST_MARKS else None,
                ),
            ),
        ),
    )


def _known(steel_id: str) -> str | None:
    return None if steel_id == "unknown" else steel_id
