"""The hand-check sheet as plain lines in the job's unit."""

from nodulant.handcheck.places import GoverningPlace, Line, Reckoned
from nodulant.handcheck.sensitive import Sensitive
from nodulant.handcheck.sheet import HandCheck
from nodulant.units.said import significant_text, tell
from nodulant.units.show import Style, show_length, show_thickness


def sheet_lines(sheet: HandCheck, style: Style) -> list[str]:
    """Every line of the sheet, with a blank one between its parts."""
    out = [f"Hand-check sheet; {system(style)}", f"design and survey hash {sheet.content_hash}"]
    for place in sheet.places:
        out += ["", heading(place, style), section_words(place, style), place.basis]
        out += [f"  {text}" for text in reckoned_lines(place.planned, style)]
        if place.stock is not None:
            out += ["  Stock:", *(f"    {text}" for text in reckoned_lines(place.stock, style))]
    out += ["", "What was assumed, and where it comes from"]
    out += [f"  {a.about}: {tell(a.says, style)} ({a.source})" for a in sheet.assumptions]
    out += ["", "What the worst place hangs on: factor over its limit with a tenth less, as it is, a tenth more"]
    return [*out, *(f"  {s.name}: {sensitive_words(s)}" for s in sheet.sensitive)]


def heading(place: GoverningPlace, style: Style) -> str:
    """The place, its side and station."""
    return f"{place.title}; {place.side} rail, station {show_length(place.x_mm, style)}"


def section_words(place: GoverningPlace, style: Style) -> str:
    """Rail and plates as they stand there."""
    rail = " x ".join(show_length(mm, style) for mm in (place.height_mm, place.width_mm))
    plates = [
        f"{p.role} {show_thickness(p.thickness_mm, style)}, {100 * p.share:.0f} % brought in" for p in place.plates
    ]
    return "; ".join([f"{rail} x {show_thickness(place.wall_mm, style)}, {place.steel}", *plates])


def system(style: Style) -> str:
    """The units that the sheet is reckoned in."""
    return "N, mm, MPa" if style == "mm" else "lbf, in, psi"


def reckoned_lines(frame: Reckoned, style: Style) -> list[str]:
    """Each step as a formula, its numbers and what comes out."""
    return [f"{line.name}: {line.formula} = {outcome(line, style)}" for line in frame.lines]


def outcome(line: Line, style: Style) -> str:
    """A step's numbers and what comes out."""
    own = line if style == "mm" else line.inch
    return f"{own.worked} = {number(own.value)} {own.unit}"


def sensitive_words(s: Sensitive) -> str:
    """Less, now, more."""
    return ", ".join("cannot be" if v is None else f"{v:.2f}" for v in (s.less, s.now, s.more))


def number(value: float) -> str:
    """Four digits that carry, never in powers of ten."""
    return significant_text(value, 4)
