"""Figures of the core in the job's unit system: a value, its unit, and what stands beside inches in their place."""

from nodulant.units.said import KG_PER_LB, MPA_PER_KSI, N_PER_LBF, significant_text
from nodulant.units.show import MM_PER_INCH, Style, show_length

N_M_PER_LBF_FT = N_PER_LBF * MM_PER_INCH * 12 / 1000
BESIDE_INCHES: dict[str, tuple[str, float]] = {
    "N": ("lbf", N_PER_LBF),
    "kN": ("lbf", N_PER_LBF / 1000),
    "N m": ("lbf ft", N_M_PER_LBF_FT),
    "kN m": ("lbf ft", N_M_PER_LBF_FT / 1000),
    "N m/deg": ("lbf ft/deg", N_M_PER_LBF_FT),
    "N/mm": ("lb/in", N_PER_LBF / MM_PER_INCH),
    "MPa": ("ksi", MPA_PER_KSI),
    "bar": ("psi", MPA_PER_KSI / 100),
    "kg": ("lb", KG_PER_LB),
    "m": ("ft", 0.3048),
    "mm²": ("in²", MM_PER_INCH**2),
    "mm³": ("in³", MM_PER_INCH**3),
    "mm⁴": ("in⁴", MM_PER_INCH**4),
}
"""The core's unit, and what is read beside inches: its name and how much of the core's it is (exact conversions)."""
BESIDE_MM: dict[str, tuple[str, float]] = {"mm²": ("cm²", 1e2), "mm³": ("cm³", 1e3), "mm⁴": ("cm⁴", 1e4)}
"""Section properties as steel tables have them."""


def show_figure(value: float, unit: str, style: Style, digits: int = 3) -> str:
    """A figure with its unit, with so many significant digits; a length as the tape reads it."""
    if unit == "mm":
        return show_length(value, style)
    if unit == "share":
        return f"{value * 100:.0f} %"
    name, of = (BESIDE_MM if style == "mm" else BESIDE_INCHES).get(unit, (unit, 1.0))
    own = value / of
    number = f"{own:.0f}" if abs(own) >= 10**digits else significant_text(own, digits)
    return f"{number} {name}".strip()


def show_reading(value: float, unit: str, style: Style) -> str:
    """What was read, in the unit of what is read: a length as the tape has it, all else with its unit."""
    return show_figure(value, unit, style, 4)


def show_off(value: float, unit: str, style: Style) -> str:
    """How far a reading is off its plan, with its sign, finer than it was read."""
    if unit == "mm":
        return show_deviation(value, style)
    name, of = ("", 1.0) if style == "mm" else BESIDE_INCHES.get(unit, ("", 1.0))
    return f"{value / of:+.2f} {name or unit}"


def show_deviation(value_mm: float, style: Style) -> str:
    """A deviation with its sign: finer than a tape, so that what fails never reads 0."""
    return f"{value_mm:+.2f} mm" if style == "mm" else f'{value_mm / MM_PER_INCH:+.3f}"'
