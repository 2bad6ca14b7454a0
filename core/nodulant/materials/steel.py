"""Steel grades with the yield they are counted with.

Values are typical minima, from memory of ASTM A36, EN 10025-2 and mill data. A rail of
unknown steel counts with a high yield where it is the thing to be equalled and with a low
one where it must carry by itself.
"""

from nodulant.base.errors import UnknownReference
from nodulant.base.model import Frozen, Name

ELASTIC_MODULUS_MPA = 205_000.0
SHEAR_MODULUS_MPA = 79_000.0
DENSITY_KG_PER_MM3 = 7.85e-6
SAFETY_ON_YIELD = 1.5
"""Allowable stress is yield / 1.5 (common practice of allowable-stress design)."""


class Steel(Frozen):
    """Yield used as the reference to equal and yield used in absolute checks, MPa."""

    id: str
    name: Name
    yield_reference_mpa: float
    yield_mpa: float
    weldable: bool
    source: str


STEELS: tuple[Steel, ...] = (
    Steel(
        id="mild",
        name="Mild steel plate",
        yield_reference_mpa=248.0,
        yield_mpa=248.0,
        weldable=True,
        source="ASTM A36, from memory",
    ),
    Steel(
        id="s355",
        name="Structural steel 355",
        yield_reference_mpa=355.0,
        yield_mpa=355.0,
        weldable=True,
        source="EN 10025-2, from memory",
    ),
    Steel(
        id="hsla-340",
        name="High-strength low-alloy 340",
        yield_reference_mpa=340.0,
        yield_mpa=340.0,
        weldable=True,
        source="mill data, from memory",
    ),
    Steel(
        id="heat-treated",
        name="Heat-treated rail, marked do not weld",
        yield_reference_mpa=760.0,
        yield_mpa=760.0,
        weldable=False,
        source="common practice",
    ),
    Steel(
        id="unknown",
        name="Unknown steel",
        yield_reference_mpa=550.0,
        yield_mpa=235.0,
        weldable=True,
        source="Nodulant default: strong as reference, weak as worker",
    ),
)
_BY_ID = {steel.id: steel for steel in STEELS}


def find_steel(steel_id: str) -> Steel:
    """Return the grade named ``steel_id``; raises UnknownReference with the names there are."""
    if steel_id not in _BY_ID:
        names = ", ".join(sorted(_BY_ID))
        raise UnknownReference(f"there is no steel '{steel_id}'", found=steel_id, acceptable=f"one of {names}")
    return _BY_ID[steel_id]
