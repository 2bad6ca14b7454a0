"""A stand-in for a steel yard: a stock list, prices and offcuts of its own invention, and an answer to every order."""

import hashlib

from nodulant.stock.order import OrderList, OrderRow
from nodulant_server.outside.port import YardAnswer, YardLine, YardOffcut, YardStock

SIXTEENTH_MM = 25.4 / 16
PLATE_MM = tuple(
    sorted({1.5, 2.0, 3.0, 4.0, 5.0, 6.0, 8.0, 10.0, 12.0, *(SIXTEENTH_MM * n for n in (2, 3, 4, 5, 6, 8))})
)
TUBE_MM = ((33.7, 3.2), (42.4, 3.2), (48.3, 4.0), (38.1, 6.35), (44.45, 3.175), (50.8, 6.35))
NEAR_MM = 0.05
PRICE = {"plate": 2.1, "tube": 3.4, "bolts": 1.6, "kg": 9.5, "m3": 14.0, "m2": 6.0, "pieces": 3.0}
"""By the kilogram for metal, by the piece for bolts, else by the order's own unit; the stand-in's own currency."""
SOON_DAYS, LATER_DAYS = 1, 6
OFFCUTS = (
    YardOffcut(name="end of a coil", thickness_mm=6.0, long_mm=900.0, wide_mm=310.0, price=9.0),
    YardOffcut(name="drop from a base plate", thickness_mm=SIXTEENTH_MM * 4, long_mm=610.0, wide_mm=305.0, price=7.0),
)


class SimulatedYard:
    """Answers at once, and never forgets what it said: the same order has the same number."""

    def stock(self) -> YardStock:
        """Its list."""
        return YardStock(plate_mm=PLATE_MM, tube_mm=TUBE_MM, offcuts=OFFCUTS)

    def take(self, order: OrderList, currency: str) -> YardAnswer:
        """Every line with its price and day; what it does not have comes later, and is said."""
        lines = tuple(_line(row) for row in order.rows)
        number = hashlib.sha256("".join(f"{row.what}{row.amount}" for row in order.rows).encode()).hexdigest()[:8]
        return YardAnswer(
            number=number,
            lines=lines,
            total=round(sum(line.price or 0.0 for line in lines), 2),
            currency=currency,
            days=max((line.days for line in lines), default=0),
        )


def _line(row: OrderRow) -> YardLine:
    if row.in_rack and not row.quantity:
        return YardLine(
            what=row.what, amount=row.amount, there=True, days=0, price=0.0, words="stands in your own rack"
        )
    there = _has(row)
    price = _price(row)
    words = "" if there else "not in the yard: comes from the mill's store"
    days = SOON_DAYS if there else LATER_DAYS
    return YardLine(what=row.what, amount=row.amount, there=there, days=days, price=price, words=words)


def _price(row: OrderRow) -> float | None:
    if row.section in {"plate", "tube"}:
        return None if row.mass_kg is None else round(PRICE[row.section] * row.mass_kg, 2)
    each = PRICE.get(row.section, PRICE.get(row.unit))
    return None if each is None else round(each * row.quantity, 2)


def _has(row: OrderRow) -> bool:
    """Whether its list holds the thickness or tube; bolts, wire, gas and paint it always has."""
    if row.section == "plate":
        return any(abs(row.size_mm[0] - t) < NEAR_MM for t in PLATE_MM)
    if row.section == "tube":
        od, wall = row.size_mm
        return any(abs(od - o) < NEAR_MM and abs(wall - w) < NEAR_MM for o, w in TUBE_MM)
    return True
