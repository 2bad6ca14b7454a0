"""Places on the rail, named from a feature and resolved to a station.

Operations sit on the as-surveyed rail. A place is a named feature and an offset (positive
rearward), so a thing keeps its distance to the feature it was measured from.
"""

from collections.abc import Iterable

from nodulant.base.errors import UnknownReference
from nodulant.base.model import Coordinate, Frozen, Id
from nodulant.survey.vehicle import Feature


class Place(Frozen):
    """``offset_mm`` rearward of the feature ``anchor_id``."""

    anchor_id: Id
    offset_mm: Coordinate = 0.0


def resolve(place: Place, features: Iterable[Feature], field: str = "") -> float:
    """Station of ``place`` on the as-surveyed rail, mm; raises UnknownReference."""
    known = {feature.id: feature.x_mm for feature in features}
    if place.anchor_id not in known:
        raise UnknownReference(
            f"there is no feature '{place.anchor_id}' to measure from",
            field=f"{field}/anchor_id",
            found=place.anchor_id,
            acceptable="one of " + ", ".join(sorted(known)),
        )
    return known[place.anchor_id] + place.offset_mm
