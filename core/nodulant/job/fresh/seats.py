"""Seats with the usual shares: the answer that a half-typed table most often asks for."""

from collections.abc import Sequence

from nodulant.parts.sides import AxleName
from nodulant.survey.vehicle import Seat


def even_seats(seats: Sequence[Seat], axle: AxleName) -> tuple[Seat, ...]:
    """The seats with equal shares of ``axle``; the other axle's stay as they are."""
    count = sum(seat.axle == axle for seat in seats)
    return tuple(seat.model_copy(update={"share": 1 / count}) if seat.axle == axle else seat for seat in seats)


def seats_at_both_ends(seats: Sequence[Seat], axle: AxleName, line_mm: float) -> tuple[Seat, ...]:
    """An axle's only seat and a second as far on the other side of its line: the two ends of a spring.

    Where the axle has no seat or already several, they are shared evenly.
    """
    own = [seat for seat in seats if seat.axle == axle]
    if len(own) != 1:
        return even_seats(seats, axle)
    taken, (one,) = {seat.id for seat in seats}, own
    fresh = next(name for n in range(2, len(seats) + 3) if (name := f"{one.id}-{n}"[-40:]) not in taken)
    other = one.model_copy(update={"id": fresh, "name": f"{one.name}, other end"[:120], "x_mm": 2 * line_mm - one.x_mm})
    return even_seats((*seats, other), axle)
