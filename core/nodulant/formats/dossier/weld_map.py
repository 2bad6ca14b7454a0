"""The weld map in pictures: each work from the side with its parts and the numbers of its seams."""

from reportlab.graphics.shapes import Drawing, Polygon, PolyLine, Rect, String
from reportlab.lib.colors import Color, black, white
from reportlab.lib.units import mm
from reportlab.platypus import Flowable, KeepTogether

from nodulant.assembly.sheet import AssemblySheet
from nodulant.formats.dossier.contents import Contents
from nodulant.formats.dossier.parts import in_rows, part, small
from nodulant.geometry import Outline

RAIL, SEAM = Color(0.93, 0.93, 0.93), Color(0.35, 0.35, 0.35)
TALL = 30 * mm
CHORD_MM = 0.5
WIDE_PT, HIGH_PT = 15.0, 8.0
"""Of a seam's flag."""
Flat = tuple[float, float]


def weld_map(of: Contents, wide: float) -> list[Flowable]:
    """Every work that has seams, two beside each other; the numbers are those of the record and of the assembly sheets."""
    cells: list[Flowable | list[Flowable]] = [
        [_drawn(s, wide / 2 - 10), small(f"{s.name}: {len(s.welds)} {'seam' if len(s.welds) == 1 else 'seams'}.")]
        for s in of.sheets
        if s.view.welds and s.view.rail
    ]
    if not cells:
        return []
    head = part("Weld map, from the left, front to the left")
    return [KeepTogether([head, in_rows(cells[:2], 2, wide)]), *([in_rows(cells[2:], 2, wide)] if cells[2:] else [])]


def _drawn(sheet: AssemblySheet, wide: float) -> Drawing:
    view = sheet.view
    placed = [p.outline for p in view.parts if p.in_place]
    bounds = [s.bounds() for s in (*view.rail, *placed, *(w.path for w in view.welds))]
    x0, y0 = min(b[0] for b in bounds), min(b[1] for b in bounds)
    spans = max(b[2] for b in bounds) - x0, max(b[3] for b in bounds) - y0
    k = min(wide / max(spans[0], 1.0), TALL / max(spans[1], 1.0))
    drawing = Drawing(wide, spans[1] * k + 2 * HIGH_PT)

    def flat(outline: Outline) -> list[float]:
        return [c for x, y in outline.points(CHORD_MM) for c in ((x - x0) * k, (y - y0) * k + HIGH_PT)]

    for outline in view.rail:
        drawing.add(Polygon(flat(outline), fillColor=RAIL, strokeColor=black, strokeWidth=0.4))
    for outline in placed:
        drawing.add(Polygon(flat(outline), fillColor=None, strokeColor=black, strokeWidth=0.6))
    for weld in view.welds:
        points = flat(weld.path)
        drawing.add(PolyLine([*points, *(points[:2] if weld.path.closed else [])], strokeColor=SEAM, strokeWidth=1.3))
    taken: list[Flat] = []
    for weld in view.welds:
        x, y = _free(flat(weld.path)[:2], taken, wide)
        drawing.add(Rect(x, y, WIDE_PT, HIGH_PT, fillColor=white, strokeColor=black, strokeWidth=0.3))
        drawing.add(String(x + WIDE_PT / 2, y + 2, f"W{weld.number}", fontSize=5.5, textAnchor="middle"))
    return drawing


def _free(wanted: list[float], taken: list[Flat], wide: float) -> Flat:
    """A flag's place near where its seam begins, off those that are there: to the right, then row by row upward."""
    for k in range(40):
        x = min(wanted[0] + (WIDE_PT + 1) * (k % 5), wide - WIDE_PT)
        y = max(wanted[1] - HIGH_PT / 2, 0.0) + (HIGH_PT + 1) * (k // 5)
        if all(abs(x - u) >= WIDE_PT or abs(y - v) >= HIGH_PT for u, v in taken):
            taken.append((x, y))
            return x, y
    return wanted[0], wanted[1]
