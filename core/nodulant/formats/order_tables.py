"""The order list as CSV for the counter and as a workbook with the cut lists, in the job's unit system."""

import io
from collections.abc import Iterable, Sequence

from openpyxl import Workbook
from openpyxl.styles import Font
from openpyxl.utils import get_column_letter
from openpyxl.worksheet.worksheet import Worksheet

from nodulant.formats.tables_csv import plain, table_csv
from nodulant.stock.order import OrderList
from nodulant.units.inline import as_amount, as_length, as_thickness, told
from nodulant.units.show import Style

Row = Sequence[str | float]
Table = tuple[str, Sequence[str], list[Row]]
WIDEST = 60


def order_csv(order: OrderList, style: Style) -> bytes:
    """What to buy, a row each."""
    _, head, rows = _order(order, style)
    return table_csv(head, ([str(cell) for cell in row] for row in rows))


def order_xlsx(order: OrderList, style: Style) -> bytes:
    """A workbook: what to buy, plates, tube with its cut plan, welds."""
    book = Workbook()
    book.remove(book.worksheets[0])
    for title, head, rows in (_order(order, style), _plates(order, style), _tubes(order, style), _welds(order, style)):
        _fill(book.create_sheet(title), head, rows)
    stream = io.BytesIO()
    book.save(stream)
    return stream.getvalue()


def _fill(sheet: Worksheet, head: Sequence[str], rows: Iterable[Row]) -> None:
    sheet.append(list(head))
    for cell in sheet[1]:
        cell.font = Font(bold=True)
    for row in rows:
        sheet.append([plain(cell) if isinstance(cell, str) else cell for cell in row])
    sheet.freeze_panes = "A2"
    for k, column in enumerate(sheet.columns, start=1):
        widest = max(len(str(cell.value or "")) for cell in column)
        sheet.column_dimensions[get_column_letter(k)].width = min(widest + 2, WIDEST)


def _order(order: OrderList, style: Style) -> Table:
    rack = {True: "in the rack", False: "not in the rack", None: ""}
    rows: list[Row] = [
        [
            row.section,
            told(row.what, style),
            told(row.amount, style),
            "" if row.mass_kg is None else told(as_amount("mass", row.mass_kg), style),
            rack[row.in_rack],
            "" if row.price is None else row.price,
            told(row.words, style),
        ]
        for row in order.rows
    ]
    return "Order", ("kind", "what", "how much", "mass", "rack", "price", "why so much"), rows


def _plates(order: OrderList, style: Style) -> Table:
    rows: list[Row] = [
        [
            p.name,
            p.operation,
            p.sides,
            p.count,
            told(as_thickness(p.thickness_mm), style),
            told(as_length(p.long_mm), style),
            told(as_length(p.wide_mm), style),
            told(as_amount("mass", p.mass_kg), style),
        ]
        for p in order.plates
    ]
    return "Plates", ("plate", "work", "sides", "pieces", "thick", "blank, long", "blank, wide", "mass of one"), rows


def _tubes(order: OrderList, style: Style) -> Table:
    rows: list[Row] = []
    for own in order.tubes:
        size = told(own.called, style)
        for piece in own.pieces:
            rows.append(["piece", size, piece.name, piece.count, told(as_length(piece.long_mm), style), piece.ends, ""])
        for number, bar in enumerate(own.plan.bars, start=1):
            cuts = ", ".join(told(as_length(v), style) for v in bar.pieces_mm)
            rows.append(
                [
                    "bar",
                    size,
                    f"{'rack' if bar.in_rack else 'bar'} {number}: {cuts}",
                    1,
                    told(as_length(bar.stock_mm), style),
                    "",
                    told(as_length(bar.left_mm), style),
                ]
            )
    return "Tube", ("row", "size", "what", "pieces", "length", "ends", "left over"), rows


def _welds(order: OrderList, style: Style) -> Table:
    rows: list[Row] = [
        [w.kind, told(as_thickness(w.leg_mm), style), told(as_length(w.length_mm), style)] for w in order.welds
    ]
    return "Welds", ("weld", "leg or thickness", "length"), rows
