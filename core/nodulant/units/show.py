"""Show a length the way a tape reads it."""

from fractions import Fraction
from typing import Literal

Style = Literal["in16", "in32", "in", "mm"]
MM_PER_INCH = 25.4


def show_length(value_mm: float, style: Style) -> str:
    """Return ``value_mm`` as inch fractions (1/16 or 1/32), decimal inches or mm, with its unit."""
    if style == "mm":
        return f"{_trim(f'{value_mm:.1f}')} mm"
    if style == "in":
        return f'{_trim(f"{value_mm / MM_PER_INCH:.3f}")}"'
    return _fraction(value_mm, 16 if style == "in16" else 32)


def show_thickness(value_mm: float, style: Style) -> str:
    """A plate or wall: as an inch fraction only where it is one, else in decimals, so that 5 mm never reads 3/16."""
    parts = value_mm / MM_PER_INCH * 32
    if style == "mm":
        return f"{_trim(f'{value_mm:.2f}')} mm"
    if abs(parts - round(parts)) * MM_PER_INCH / 32 < 0.02:
        return _fraction(value_mm, 32)
    return f'{_trim(f"{value_mm / MM_PER_INCH:.3f}")}"'


def _trim(text: str) -> str:
    trimmed = text.rstrip("0").rstrip(".") if "." in text else text
    return "0" if trimmed == "-0" else trimmed


def _fraction(value_mm: float, below: int) -> str:
    parts = int(abs(value_mm) / MM_PER_INCH * below + 0.5)
    sign = "-" if value_mm < 0 and parts else ""
    whole, rest = divmod(parts, below)
    if not rest:
        return f'{sign}{whole}"'
    small = Fraction(rest, below)
    lead = f"{whole} " if whole else ""
    return f'{sign}{lead}{small.numerator}/{small.denominator}"'
