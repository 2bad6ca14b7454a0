"""What each drop mechanism leaves as designed and whether it costs travel, before the user says otherwise.

Common practice: springs, keys, air and arms with lowered spring seats move the axle along its curves; a step
or a raised subframe takes pivots and steering along; a notch buys travel and lowers nothing. Of something
else nobody knows what it keeps: it keeps nothing until the user says so.
"""

from nodulant.base.model import Frozen, Name
from nodulant.targets.drop import Keeps, Mechanism

_ALL = Keeps()
_NONE = Keeps(camber=False, toe=False, anti_dive=False)
_NO_TOE = Keeps(toe=False)
_NO_DIVE = Keeps(anti_dive=False)


class MechanismDefault(Frozen):
    """A mechanism as it is first offered."""

    mechanism: Mechanism
    name: Name
    keeps: Keeps
    costs_travel: bool


def _row(mechanism: Mechanism, name: str, keeps: Keeps, costs: bool) -> MechanismDefault:
    return MechanismDefault(mechanism=mechanism, name=name, keeps=keeps, costs_travel=costs)


MECHANISMS: tuple[MechanismDefault, ...] = (
    _row("springs", "Shorter or softer springs", _NONE, True),
    _row("torsion-keys", "Torsion bars turned at their keys", _NONE, True),
    _row("drop-arms", "Arms with lowered spring seats", _NONE, True),
    _row("spring-flip", "Spring flip", _NO_DIVE, True),
    _row("blocks", "Blocks", _NO_DIVE, True),
    _row("air", "Air springs", _NONE, True),
    _row("tyre", "Tyre radius", _ALL, False),
    _row("spindle", "Drop spindle", _NO_TOE, False),
    _row("pivots-raised", "Pivots raised in the frame", _NO_TOE, True),
    _row("z-step", "Z-step in the rail", _ALL, False),
    _row("raise", "Subframe raised into the rail", _ALL, False),
    _row("notch", "Notch", _ALL, False),
    _row("other", "Something else", _NONE, True),
)
