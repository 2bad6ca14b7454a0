"""A reading's sentence: how far off, how sure, and what would tell where this instrument does not."""

from nodulant.asbuilt.taken import Taken, answer, finer, wanted
from nodulant.parts.measure import Measure
from nodulant.units.inline import as_amount, as_deviation
from nodulant.units.show import Style


def amount_off(size: float, unit: Measure) -> str:
    """A deviation or an uncertainty, told finer than it was read, so that what fails never reads 0."""
    if unit == "mm":
        return as_deviation(size)
    if unit == "kg":
        return as_amount("mass", abs(size))
    if unit == "N m":
        return as_amount("torque", abs(size))
    return f"{abs(size):.2f} {unit}"


def off_in_words(taken: Taken, off: float, allowed: float, style: Style, limit: str) -> str:
    """How far off, how sure, of what is allowed; where that cannot tell, what would; where two differ, that a third is wanted."""
    unit = taken.unit
    own = f"off by {amount_off(off, unit)} ± {amount_off(taken.expanded, unit)}, {amount_off(allowed, unit)} allowed"
    if taken.again:
        own += "; two readings differ by more than the instrument explains: take a third"
    if answer(off, taken.expanded, allowed) != "cannot tell":
        return own
    better = finer(taken.value, off, allowed, unit, style, limit)
    if better is None:
        return f"{own}: it lies at its limit, and no instrument of the list can tell"
    return f"{own}: this {taken.instrument} cannot tell, one that is sure to {amount_off(wanted(off, allowed), unit)} would, such as a {better.name}"
