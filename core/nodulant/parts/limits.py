"""Limits as data: a user may change one with a reason, and the change is recorded."""

from typing import Literal

from nodulant.base.model import Frozen, Name

Direction = Literal["at-least", "at-most"]


class Limit(Frozen):
    """Default value of a limit, its direction and where it comes from."""

    id: str
    name: Name
    value: float
    unit: str
    direction: Direction
    basis: str
    tolerance: float | None = None
    """Scale of the margin where the limit is 0."""


class LimitChange(Frozen):
    """A user's own value for a limit, with the reason that is shown beside it."""

    value: float
    reason: Name


def _at_least(id_: str, name: str, value: float, unit: str, basis: str) -> Limit:
    return Limit(id=id_, name=name, value=value, unit=unit, direction="at-least", basis=basis)


def _at_most(id_: str, name: str, value: float, unit: str, basis: str, tolerance: float | None = None) -> Limit:
    return Limit(id=id_, name=name, value=value, unit=unit, direction="at-most", basis=basis, tolerance=tolerance)


_STOCK = "not weaker than stock: the capacity at every station is at least the surveyed rail's"
LIMITS: tuple[Limit, ...] = (
    _at_least("modulus-top", "Bending capacity, top fibre", 1.0, "x stock", _STOCK),
    _at_least("modulus-bottom", "Bending capacity, bottom fibre", 1.0, "x stock", _STOCK),
    _at_least("shear-area", "Web shear capacity", 1.0, "x stock", _STOCK),
    _at_least("torsion-constant", "Torsion constant J", 1.0, "x stock", _STOCK),
    _at_least("torsion-capacity", "Torsion capacity", 1.0, "x stock", _STOCK),
    _at_most(
        "use-along",
        "Use along the rail",
        1.0,
        "x allowed",
        "Nodulant default: use here at most the stock use here or half the stock peak",
    ),
    _at_most(
        "use-peak",
        "Peak use",
        1.0,
        "x stock peak",
        "not weaker than stock, same load case, each frame on its own supports",
    ),
    _at_most("use-limit", "Use at 3 g", 1.0, "of yield/1.5", "allowable stress design, yield over 1.5"),
    _at_most(
        "twist-bending",
        "Bending with one wheel in a hole",
        1.0,
        "x allowed",
        "lighter axle's load x half its track x 1.3 on top of 1 g: body-engineering textbooks, from memory",
    ),
    _at_most(
        "twist-torque",
        "Torque with one wheel in a hole",
        1.0,
        "of yield/1.5",
        "the same case against the closed cell's Saint-Venant capacity",
    ),
    _at_least("corner-radius", "Radius of cut corners", 6.0, "mm", "common practice: 12-13 mm drilled corners"),
    _at_least("liner-bend", "Arc radius over liner thickness", 3.0, "x", "common practice: least bend of mild plate"),
    _at_least(
        "overlap", "Overlap past the cut", 1.0, "x needed", "rail height (common practice), development and weld length"
    ),
    _at_least(
        "end-shape",
        "Ends tapered where the flange is in tension",
        1.0,
        "tapered",
        "common practice: no weld straight across a tension flange",
    ),
    _at_least("hole-distance", "Existing hole to cut or plate end", 1.5, "x diameter", "common practice"),
    _at_least(
        "end-distance", "Cut or plate to the rail's end", 0.0, "mm", "the rail must be there to be cut and welded"
    ),
    _at_least(
        "weldable",
        "Steel may be welded",
        1.0,
        "yes",
        "common practice: a weld destroys the temper of a heat-treated rail",
    ),
    _at_least("metal-clearance", "Moving metal to fixed metal", 12.7, "mm", "common practice: half an inch all round"),
    _at_least("bump-travel", "Bump travel before the clearance is used up", 1.0, "x wanted", "the owner's target"),
    _at_least("notch-depth", "Notch depth", 1.0, "x needed", "axle top at full bump plus clearance, liner and weld"),
    _at_least(
        "notch-width",
        "Notch width at the rail's underside",
        1.0,
        "x needed",
        "axle's path plus clearance, liner and weld, both sides",
    ),
    _at_most("drop-sum", "Drop stack against the target", 0.0, "mm", "the stack must add up to the target", 1.6),
    _at_most("notch-lowers", "Drop claimed by a notch", 0.0, "mm", "a notch lowers nothing: it buys travel", 1.6),
    _at_most(
        "double-count",
        "Mechanisms counted twice",
        0.0,
        "entries",
        "common practice: one movement of the same parts counts once",
        1.0,
    ),
    _at_most(
        "hub-agrees", "Hub height against tube and gap", 3.0, "mm", "the same height measured two ways, common practice"
    ),
    _at_least("survey-complete", "Readings taken before teardown", 1.0, "of all", "they cannot be taken afterwards"),
    _at_most("as-built", "As-built reading against plan", 1.5, "mm", "common practice: points +-1.5 mm"),
    _at_most("as-built-plate", "Plate thickness against plan", 0.3, "mm", "common practice: mill tolerance of plate"),
)
_BY_ID = {limit.id: limit for limit in LIMITS}


def find_limit(limit_id: str, changes: dict[str, LimitChange]) -> tuple[Limit, LimitChange | None]:
    """The limit in force under ``limit_id`` and the user's change, if there is one."""
    limit, change = _BY_ID[limit_id], changes.get(limit_id)
    if change is None:
        return limit, None
    own = {"value": change.value, "basis": f"your own limit: {change.reason} (default {limit.value:g}: {limit.basis})"}
    return limit.model_copy(update=own), change
