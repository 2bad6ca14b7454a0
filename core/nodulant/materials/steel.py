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

UNKNOWN = "unknown"
"""Id of the steel of a rail that nobody has tested."""
CAUTION_MPA = 550.0
"""What a rail of unknown steel may have at most: a caution, no reference."""


class Steel(Frozen):
    """Yield used as the reference to equal and yield used in absolute checks, MPa."""

    id: str
    name: Name
    yield_reference_mpa: float
    yield_mpa: float
    weldable: bool
    source: str
    ultimate_mpa: float
    near_weld_mpa: float
    """Reference yield within 25 mm of a weld, unless a procedure proves more; the working yield is never above its own."""
    carbon_equivalent: float | None = None
    """Typical, percent; None where nobody knows."""
    note: str = ""

    @property
    def beside_weld_mpa(self) -> float:
        """What metal beside a weld may be worked with, MPa."""
        return max(min(self.near_weld_mpa, self.yield_mpa), 1.0)


STEELS: tuple[Steel, ...] = (
    Steel(
        id="mild",
        name="Mild steel plate",
        yield_reference_mpa=248.0,
        yield_mpa=248.0,
        weldable=True,
        source="ASTM A36, from memory",
        ultimate_mpa=400.0,
        near_weld_mpa=248.0,
        carbon_equivalent=0.38,
    ),
    Steel(
        id="s355",
        name="Structural steel 355",
        yield_reference_mpa=355.0,
        yield_mpa=355.0,
        weldable=True,
        source="EN 10025-2, from memory",
        ultimate_mpa=470.0,
        near_weld_mpa=355.0,
        carbon_equivalent=0.43,
    ),
    Steel(
        id="hsla-340",
        name="High-strength low-alloy 340",
        yield_reference_mpa=340.0,
        yield_mpa=340.0,
        weldable=True,
        source="mill data, from memory",
        ultimate_mpa=410.0,
        near_weld_mpa=340.0,
        carbon_equivalent=0.30,
        note="hot-rolled: keeps its yield beside a weld",
    ),
    Steel(
        id="hsla-550",
        name="High-strength low-alloy 550",
        yield_reference_mpa=550.0,
        yield_mpa=550.0,
        weldable=True,
        source="mill data, from memory",
        ultimate_mpa=620.0,
        near_weld_mpa=550.0,
        carbon_equivalent=0.42,
        note="low heat input: beads short, hand-warm between",
    ),
    Steel(
        id="dom",
        name="Cold-drawn 1020 tube",
        yield_reference_mpa=480.0,
        yield_mpa=480.0,
        weldable=True,
        source="ASTM A513 type 5, from memory",
        ultimate_mpa=550.0,
        near_weld_mpa=240.0,
        carbon_equivalent=0.36,
        note="beside a weld it counts as annealed",
    ),
    Steel(
        id="4130",
        name="4130 normalised tube",
        yield_reference_mpa=430.0,
        yield_mpa=430.0,
        weldable=True,
        source="AMS 6360, from memory",
        ultimate_mpa=670.0,
        near_weld_mpa=430.0,
        carbon_equivalent=0.63,
        note="preheat about 150 C, no quench",
    ),
    Steel(
        id="heat-treated",
        name="Heat-treated rail, marked do not weld",
        yield_reference_mpa=760.0,
        yield_mpa=760.0,
        weldable=False,
        source="common practice",
        ultimate_mpa=860.0,
        near_weld_mpa=248.0,
        note="a weld destroys its temper: bolt on, or replace the rail",
    ),
    Steel(
        id="cast",
        name="Cast iron or cast steel housing",
        yield_reference_mpa=200.0,
        yield_mpa=200.0,
        weldable=False,
        source="common practice",
        ultimate_mpa=400.0,
        near_weld_mpa=0.0,
        note="never without a qualified procedure: bolt on, or bridge it with a truss welded to the tubes only",
    ),
    Steel(
        id=UNKNOWN,
        name="Unknown steel",
        yield_reference_mpa=235.0,
        yield_mpa=235.0,
        weldable=True,
        source="Nodulant default: counts as the weakest structural steel; against stock shapes are compared at equal steel",
        ultimate_mpa=360.0,
        near_weld_mpa=235.0,
        note="counted as hardenable for welding: file or hardness test, spark test, then a trial bead on scrap",
    ),
)
_BY_ID = {steel.id: steel for steel in STEELS}


def find_steel(steel_id: str) -> Steel:
    """Return the grade named ``steel_id``; raises UnknownReference with the names there are."""
    if steel_id not in _BY_ID:
        names = ", ".join(sorted(_BY_ID))
        raise UnknownReference(f"there is no steel '{steel_id}'", found=steel_id, acceptable=f"one of {names}")
    return _BY_ID[steel_id]


HARDENABLE = 0.45
"""Carbon equivalent above which a weld beside cold metal can crack without preheat (common practice)."""
