"""What the application says to a yard and to a cutting table, and what they answer: a real one takes a stand-in's place."""

from typing import Protocol

from nodulant.base.model import Frozen
from nodulant.stock.order import OrderList


class TableAnswer(Frozen):
    """What a cutting table makes of one drawing; ``refused`` says why it takes none, and where."""

    drawing: str
    taken: bool
    contours: int = 0
    pierces: int = 0
    cut_mm: float = 0.0
    minutes: float = 0.0
    refused: str = ""


class YardLine(Frozen):
    """One line of an order as the yard answers it; no price where it does not have it."""

    what: str
    amount: str
    there: bool
    days: int
    price: float | None
    words: str = ""


class YardAnswer(Frozen):
    """An order with its number, prices and the day that the last of it is there."""

    number: str
    lines: tuple[YardLine, ...]
    total: float
    currency: str
    days: int


class YardOffcut(Frozen):
    """A piece that the yard has left over, mm."""

    name: str
    thickness_mm: float
    long_mm: float
    wide_mm: float
    price: float


class YardStock(Frozen):
    """What the yard has: plate thicknesses and tube (outside and wall), mm, and offcuts."""

    plate_mm: tuple[float, ...]
    tube_mm: tuple[tuple[float, float], ...]
    offcuts: tuple[YardOffcut, ...]


class Yard(Protocol):
    """A steel yard."""

    def stock(self) -> YardStock:
        """What it has."""

    def take(self, order: OrderList, currency: str) -> YardAnswer:
        """Answer an order; nothing is bound by it until somebody says so."""


class Table(Protocol):
    """A cutting table."""

    def look(self, name: str, drawing: bytes, thickness_mm: float) -> TableAnswer:
        """Read a DXF and say how it would be cut, or why it cannot be."""
