"""Laid-out sheets as files: one DXF a sheet for the cutting table, all in one ZIP, and a list of what lies on which."""

import io
import zipfile

from shapely import Polygon, unary_union

from nodulant.formats.dxf import Unit, pattern_dxf
from nodulant.formats.svg import pattern_svg
from nodulant.formats.tables_csv import table_csv
from nodulant.geometry.outline import polygon
from nodulant.patterns.pattern import Label, Pattern, Stroke
from nodulant.patterns.text_inside import fitted_rows
from nodulant.stock.nesting.piece import CHORD_MM, Laid
from nodulant.stock.nesting.plan import NestedSheet, NestPlan
from nodulant.units.inline import told, told_in
from nodulant.units.show import Style, show_length

TEXT_MM = (6.0, 4.0, 2.5)
CLEAR_MM = 1.0


def sheet_pattern(sheet: NestedSheet) -> Pattern:
    """A sheet as one drawing: its edge and names on ETCH, plates on CUT, their holes on HOLE."""
    strokes = [Stroke(layer="ETCH", outline=polygon((c.along_mm, c.across_mm) for c in sheet.corners))]
    labels: list[Label] = []
    for piece in sheet.pieces:
        strokes += [Stroke(layer="HOLE", outline=hole) for hole in piece.holes]
        strokes.append(Stroke(layer="CUT", outline=piece.outline))
        labels += _named(piece)
    return Pattern(
        id=sheet.name,
        title=sheet.name,
        side="left",
        part_id=None,
        thickness_mm=sheet.thickness_mm,
        steel=sheet.steel,
        strokes=tuple(strokes),
        labels=tuple(labels),
        dimensions=(),
        datum="the sheet's lower left corner",
    )


def _named(piece: Laid) -> tuple[Label, ...]:
    """Its name inside its outline and off its holes; left out where it does not fit."""
    holes = unary_union([Polygon(hole.points(CHORD_MM)).buffer(CLEAR_MM) for hole in piece.holes])
    metal = piece.shape().buffer(-CLEAR_MM).difference(holes)
    return fitted_rows(metal, ((f"{piece.name} · {piece.side[0].upper()}",),), TEXT_MM)


def nest_zip(plan: NestPlan, style: Style, unit: Unit = "mm", kerf_mm: float = 0.0) -> bytes:
    """One DXF and one SVG a sheet, and ``sheets.csv``; names tell thickness and sheet. With ``kerf_mm`` lines are a torch's middle."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as files:
        for k, sheet in enumerate(plan.sheets, 1):
            name, drawn = file_name(sheet, k, style), told_in(sheet_pattern(sheet), style)
            files.writestr(name, pattern_dxf(drawn, unit, kerf_mm=kerf_mm, style=style))
            files.writestr(name.replace(".dxf", ".svg"), pattern_svg(drawn))
        files.writestr("sheets.csv", nest_csv(plan, style))
    return out.getvalue()


def file_name(sheet: NestedSheet, number: int, style: Style) -> str:
    """Such as ``2-3-16in-left-of-sheet-1.dxf``."""
    words = told(f"{number}-{sheet.name}", style).replace('"', "in")
    return "".join(c if c.isalnum() else "-" for c in words).replace("--", "-").strip("-") + ".dxf"


def nest_csv(plan: NestPlan, style: Style) -> bytes:
    """A row for each plate: its sheet, place and turn."""
    head = ("sheet", "steel", "plate", "side", "along", "across", "turned, degrees")
    rows: list[tuple[str, ...]] = [
        (sheet.name, sheet.steel, piece.name, piece.side, *_corner(piece, style), f"{piece.turned_deg:g}")
        for sheet in plan.sheets
        for piece in sheet.pieces
    ]
    rows += [("left out", one.words, one.name, one.side, "", "", "") for one in plan.left_out]
    return table_csv(head, ([told(cell, style) for cell in row] for row in rows))


def _corner(piece: Laid, style: Style) -> tuple[str, str]:
    x, y, _, _ = piece.outline.bounds()
    return show_length(x, style), show_length(y, style)
