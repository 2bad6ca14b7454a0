"""A pattern as DXF: R2010, millimetres or inches, closed polylines with bulges, layers CUT, HOLE, BEND, ETCH.

Dimensions are real ones, on a layer DIM that a cutting table leaves out; their text is in the job's unit.
"""

import io
import re
import zipfile
from collections.abc import Iterable
from typing import Literal

import ezdxf
from ezdxf import units as dxf_units
from ezdxf import zoom
from ezdxf.layouts import Modelspace

from nodulant.drawn.dimension import stacked
from nodulant.drawn.lines import ARROW_MM, GAP_MM, PAST_MM, TEXT_MM, line_at, room_round, text_width
from nodulant.formats.stroke_text import strokes_of
from nodulant.patterns.pattern import Pattern
from nodulant.patterns.torch import for_torch
from nodulant.units.inline import told
from nodulant.units.show import MM_PER_INCH, Style

COLOURS = {"CUT": 7, "HOLE": 5, "BEND": 3, "ETCH": 8, "DIM": 4, "NOTE": 9}
NOTE_MM, ROUND_MM = 3.0, 60.0
"""Height of notes, and what is seen round a pattern when its file is opened: its dimensions."""


Unit = Literal["mm", "in"]
Files = dict[str, bytes]
"""Contents by name."""
MM_IN = {"mm": 1.0, "in": 25.4}


def pattern_dxf(pattern: Pattern, unit: Unit = "mm", of: str = "", kerf_mm: float = 0.0, style: Style = "mm") -> bytes:
    """The pattern as the bytes of a DXF file, one drawing unit a millimetre or an inch; lower left corner at (0, 0).

    What it is, what it hangs on and what it is a pattern ``of`` stand under it on a layer NOTE, which no table cuts.
    With ``kerf_mm`` cut lines are where a torch's middle goes, told in ``style``, and texts are single strokes; without,
    lines are to size.
    """
    pattern, torch = for_torch(pattern, kerf_mm)
    pattern = pattern if unit == "mm" else pattern.scaled(1 / MM_IN[unit])
    drawing = ezdxf.new("R2010", units=dxf_units.MM if unit == "mm" else dxf_units.IN)
    for name, colour in COLOURS.items():
        drawing.layers.add(name, color=colour)
    space = drawing.modelspace()
    for stroke in pattern.strokes:
        points = [(v.x, v.y, v.bulge) for v in stroke.outline.vertices]
        space.add_lwpolyline(points, format="xyb", close=stroke.outline.closed, dxfattribs={"layer": stroke.layer})
    for label in pattern.labels:
        if torch:
            for line in strokes_of(label.text, label.x, label.y, label.height_mm):
                space.add_lwpolyline(line, dxfattribs={"layer": "ETCH"})
            continue
        text = space.add_text(label.text, height=label.height_mm, dxfattribs={"layer": "ETCH"})
        text.set_placement((label.x, label.y))
    scale = 1 / MM_IN[unit]
    below = (room_round(pattern.dimensions)["below"] + 2 * NOTE_MM) * scale
    for k, row in enumerate(_noted(pattern, of, told(torch, style))):
        note = space.add_text(row, height=NOTE_MM * scale, dxfattribs={"layer": "NOTE"})
        note.set_placement((0.0, -below - 1.7 * k * NOTE_MM * scale))
    _measure(space, pattern, scale)
    x0, y0, x1, y1 = pattern.bounds()
    zoom.window(space, (x0 - ROUND_MM * scale, y0 - ROUND_MM * scale), (x1 + ROUND_MM * scale, y1 + ROUND_MM * scale))
    stream = io.StringIO()
    drawing.write(stream)
    return stream.getvalue().encode("utf-8", errors="replace")


def _noted(pattern: Pattern, of: str, torch: str) -> list[str]:
    """Rows under a drawing: what and how many, what of and from where, the job with its revision."""
    hangs = f"hang on: {', '.join(pattern.hangs_on)}" if pattern.hangs_on else pattern.missing
    rows = (
        f"{pattern.title}, {pattern.side}, {pattern.count} off, {pattern.steel}",
        f"from {pattern.datum}",
        hangs,
        pattern.formed,
        torch,
        of,
    )
    return [row for row in rows if row]


LOOK = {"dimtxt": TEXT_MM, "dimasz": ARROW_MM, "dimexo": GAP_MM, "dimexe": PAST_MM, "dimgap": 1.0, "dimtad": 1}


def _measure(space: Modelspace, pattern: Pattern, scale: float) -> None:
    on_layer, bounds = {"layer": "DIM"}, pattern.bounds()
    look = {name: value if name == "dimtad" else value * scale for name, value in LOOK.items()}
    for d, span, row in stacked(pattern.dimensions, lambda text: text_width(text) * scale):
        line = line_at(span.edge, row, bounds, scale=scale)
        if span.across_the_sheet:
            base, one, two, angle = (span.a, line), (span.a, span.from_a), (span.b, span.from_b), 0.0
        else:
            base, one, two, angle = (line, span.a), (span.from_a, span.a), (span.from_b, span.b), 90.0
        space.add_linear_dim(base, one, two, angle=angle, text=d.text, override=look, dxfattribs=on_layer).render()
    for c in pattern.callouts:
        centre, point = (c.centre_x, c.centre_y), (c.x, c.y)
        if c.kind == "radius":
            space.add_radius_dim(centre, mpoint=point, text=c.text, override=look, dxfattribs=on_layer).render()
        else:
            space.add_diameter_dim(centre, mpoint=point, text=c.text, override=look, dxfattribs=on_layer).render()


def named_dxf(
    patterns: Iterable[Pattern],
    job: str,
    tag: str,
    style: Style,
    unit: Unit = "mm",
    of: str = "",
    kerf_mm: float = 0.0,
) -> Files:
    """Every pattern as a DXF of its own, by a name that tells job, part, side, thickness, quantity, revision and unit."""
    out: Files = {}
    for pattern in patterns:
        thick = "template" if pattern.thickness_mm is None else _thick(pattern.thickness_mm, style)
        stem = _file_name(f"{job} {pattern.title} {pattern.side[0].upper()} {thick} {pattern.count}off {tag} {unit}")
        name = next(n for n in (stem, *(f"{stem}-{k}" for k in range(2, 1000))) if f"{n}.dxf" not in out)
        out[f"{name}.dxf"] = pattern_dxf(pattern, unit, of, kerf_mm, style)
    return out


def zipped(files: Files) -> bytes:
    """Files in one ZIP, the same bytes for the same files."""
    stream = io.BytesIO()
    with zipfile.ZipFile(stream, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, data in files.items():
            archive.writestr(zipfile.ZipInfo(name, date_time=(1980, 1, 1, 0, 0, 0)), data, zipfile.ZIP_DEFLATED)
    return stream.getvalue()


def _thick(mm: float, style: Style) -> str:
    """A thickness as letters that a file's name may have."""
    return f"{mm:g}mm" if style == "mm" else f"{mm / MM_PER_INCH:.4g}in"


def _file_name(text: str) -> str:
    return re.sub(r"[^A-Za-z0-9.]+", "-", text).strip("-.")
