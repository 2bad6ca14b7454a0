"""Hole saws that a shop can buy: diameters in eighths of an inch to four, then coarser (common practice, from memory)."""

_INCHES = (
    *(n / 8 for n in range(6, 33)),
    4.25,
    4.5,
    4.75,
    5.0,
    5.5,
    6.0,
)
HOLE_SAWS_MM: tuple[float, ...] = tuple(25.4 * inches for inches in _INCHES)


def next_saw_mm(diameter_mm: float) -> float | None:
    """The smallest saw that cuts at least so wide; None where none does."""
    return next((size for size in HOLE_SAWS_MM if size >= diameter_mm - 1e-9), None)
