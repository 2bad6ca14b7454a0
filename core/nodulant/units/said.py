"""Sentences that carry quantities: the core says value and kind, the edge formats them in the job's unit."""

from typing import Annotated, Literal

from pydantic import Field

from nodulant.base.model import Frozen
from nodulant.units.show import MM_PER_INCH, Style, show_length, show_thickness

Kind = Literal[
    "length",
    "thickness",
    "factor",
    "ratio",
    "share",
    "force",
    "moment",
    "stress",
    "angle",
    "mass",
    "cycles",
    "minutes",
    "stiffness",
    "number",
    "count",
]
"""length and thickness mm, factor and ratio plain, share 0 to 1, force N, moment N mm, stress MPa, angle deg, mass kg, stiffness N m/deg."""
N_PER_LBF, KG_PER_LB, MPA_PER_KSI = 4.4482216152605, 0.45359237, 6.894757293168


class Amount(Frozen):
    """A value in the core's unit, and what kind of quantity it is."""

    value: float
    kind: Kind


class Said(Frozen):
    """Words with ``{names}`` where quantities stand."""

    text: Annotated[str, Field(max_length=2000)]
    of: dict[str, Amount] = {}


def said(text: str, **of: tuple[float, Kind]) -> Said:
    """A sentence from words and (value, kind) of each name in them."""
    return Said(text=text, of={name: Amount(value=value, kind=kind) for name, (value, kind) in of.items()})


def tell(words: Said, style: Style) -> str:
    """The sentence as a person reads it in the job's unit."""
    out = words.text
    for name, amount in words.of.items():
        out = out.replace("{" + name + "}", show_amount(amount, style))
    return out


def show_amount(amount: Amount, style: Style) -> str:
    """One quantity with its unit: inches, pounds and ksi beside inch styles, mm, newtons and MPa beside mm."""
    v, inch = amount.value, style != "mm"
    if amount.kind == "length":
        return show_length(v, style)
    if amount.kind in ("factor", "number"):
        return significant_text(v, 2)
    if amount.kind == "thickness":
        return show_thickness(v, style)
    if amount.kind == "count":
        return f"{v:.0f}"
    if amount.kind == "ratio":
        return f"{v:.2f}"
    if amount.kind == "share":
        return f"{100 * v:.{share_digits(v)}f} %"
    if amount.kind == "force":
        return f"{_grouped(v / N_PER_LBF)} lbf" if inch else f"{significant_text(v / 1000, 3)} kN"
    if amount.kind == "moment":
        feet = v / N_PER_LBF / MM_PER_INCH / 12
        return f"{_grouped(feet)} lbf ft" if inch else f"{significant_text(v / 1e6, 3)} kN m"
    if amount.kind == "stress":
        return f"{significant_text(v / MPA_PER_KSI, 3)} ksi" if inch else f"{v:.0f} MPa"
    if amount.kind == "angle":
        return f"{v:.1f} deg"
    if amount.kind == "mass":
        return f"{significant_text(v / KG_PER_LB, 3)} lb" if inch else f"{significant_text(v, 3)} kg"
    if amount.kind == "cycles":
        return "more than 100 million cycles" if v > 1e8 else f"{_grouped(float(f'{v:.2g}'))} cycles"
    if amount.kind == "stiffness":
        feet = v * 1000 / N_PER_LBF / MM_PER_INCH / 12
        return f"{_grouped(feet)} lbf ft/deg" if inch else f"{_grouped(v)} N m/deg"
    return f"{v:.0f} min"


def share_digits(share: float) -> int:
    """Decimals of a percentage: one beside 100, which only the whole may read."""
    return 1 if 5e-5 < abs(share - 1) < 5e-3 else 0


def significant_text(value: float, digits: int) -> str:
    """A number with so many significant digits, never in powers of ten."""
    if value == 0:
        return "0"
    if abs(value) >= 10 ** (digits - 1):
        return _grouped(value)
    shown = f"{value:.{digits}g}"
    return shown if "e" not in shown else f"{value:.4f}"


def _grouped(value: float) -> str:
    """Whole numbers with thin groups of three digits."""
    return f"{value:,.0f}".replace(",", " ")
