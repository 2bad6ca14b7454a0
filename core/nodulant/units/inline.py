"""Quantities inside sentences: written as typed marks by the core, told in the job's unit at the edge.

A mark is ``[[kind:value]]``, value in mm, N, N mm, MPa, kg; a bolt's torque in N m, a bimoment N mm2, a rate N/mm. A text with marks is a plain string, so it goes through every model
and file unchanged; only an edge (screen, paper, command line) tells it. What a person typed has no marks and
is never touched.
"""

import re
from typing import Literal, TypeVar

from pydantic import BaseModel

from nodulant.units.said import N_PER_LBF, Amount, show_amount
from nodulant.units.said import Kind as Told
from nodulant.units.show import MM_PER_INCH, Style, show_length, show_thickness

OtherKind = Literal[
    "force", "moment", "stress", "mass", "torque", "bimoment", "rate", "area", "gas", "distance", "heat", "temperature"
]
Kind = Literal["length", "thickness", "place", "deviation"] | OtherKind
M = TypeVar("M", bound=BaseModel)
MARK = re.compile(
    r"\[\[(length|thickness|place|deviation|force|moment|stress|mass|torque|bimoment|rate|area|gas|distance|heat|temperature):(-?\d+(?:\.\d+)?)\]\]"
)
_AMOUNTS: dict[str, Told] = {"force": "force", "moment": "moment", "stress": "stress", "mass": "mass"}
NO_BREAK = "\u00a0"
AT_MM = 0.05
"""Nearer to its datum than this a place is at it."""


def as_length(value_mm: float) -> str:
    """A length, told as a tape reads it."""
    return _mark("length", value_mm)


def as_thickness(value_mm: float) -> str:
    """A plate, wall, leg or hole: told as an inch fraction only where it is one."""
    return _mark("thickness", value_mm)


def as_deviation(value_mm: float) -> str:
    """A tolerance or a deviation, magnitude: finer than a tape, so that what fails never reads 0."""
    return _mark("deviation", abs(value_mm))


def as_above(value_mm: float) -> str:
    """A height over something, and which way: nobody reads a minus off a tape."""
    return f"{as_length(abs(value_mm))} {'below' if value_mm < 0 else 'above'}"


def as_amount(kind: OtherKind, value: float) -> str:
    """A force N, moment N mm, stress MPa, mass kg, a torque N m, a bimoment N mm2, a rate N/mm, a painted area m2, gas m3, a distance km, heat kJ/mm, a temperature °C."""
    return _mark(kind, value)


def as_distance(value_km: float) -> str:
    """A distance on the road, km: where miles are driven, in whole tens or hundreds of them."""
    return _mark("distance", value_km)


def as_place(offset_mm: float) -> str:
    """A place along the frame from the datum that is named next: '11" behind', '2" ahead of', 'at'."""
    return _mark("place", offset_mm)


def told(text: str, style: Style) -> str:
    """A text with its marks told in ``style``; any other text as it is."""
    return MARK.sub(lambda found: _told(found[1], float(found[2]), style), text)


KM_PER_MILE = 1.609344


def _mark(kind: Kind, value_mm: float) -> str:
    return f"[[{kind}:{value_mm:.4f}]]"


def _digits(value: float, count: int) -> str:
    """So many digits that count, and never a power of ten."""
    return f"{value:.0f}" if abs(value) >= 10 ** (count - 1) else f"{value:.{count}g}"


def _told(kind: str, value_mm: float, style: Style) -> str:
    if kind == "thickness":
        return show_thickness(value_mm, style)
    if kind == "place":
        if abs(value_mm) < AT_MM:
            return "at"
        return f"{show_length(abs(value_mm), style)} {'behind' if value_mm > 0 else 'ahead of'}"
    if kind == "deviation":
        return f"{_digits(value_mm, 2)} mm" if style == "mm" else f'{value_mm / MM_PER_INCH:.3f}"'
    if kind == "torque":
        feet = value_mm * 1000 / N_PER_LBF / MM_PER_INCH / 12
        return f"{value_mm:.0f} N m" if style == "mm" else f"{feet:.0f} lbf ft"
    if kind == "bimoment":
        feet = value_mm / N_PER_LBF / (12 * MM_PER_INCH) ** 2
        return f"{value_mm / 1e9:.2f} kN m2" if style == "mm" else f"{feet:.0f} lbf ft2"
    if kind == "rate":
        return f"{_digits(value_mm, 3)} N/mm" if style == "mm" else f"{value_mm / N_PER_LBF * MM_PER_INCH:.0f} lb/in"
    if kind == "area":
        feet = value_mm / (12 * MM_PER_INCH / 1000) ** 2
        return f"{value_mm:.2f} m2" if style == "mm" else f"{feet:.1f} ft2"
    if kind == "gas":
        feet = value_mm / (12 * MM_PER_INCH / 1000) ** 3
        return f"{value_mm:.2f} m3" if style == "mm" else f"{feet:.0f} ft3"
    if kind == "distance":
        return f"{value_mm:.0f} km" if style == "mm" else f"{float(f'{value_mm / KM_PER_MILE:.1g}'):.0f} miles"
    if kind == "heat":
        return f"{value_mm:.2f} kJ/mm" if style == "mm" else f"{value_mm * MM_PER_INCH:.0f} kJ/in"
    if kind == "temperature":
        return f"{value_mm:.0f} °C" if style == "mm" else f"{round((value_mm * 1.8 + 32) / 5) * 5} °F"
    if kind in _AMOUNTS:
        return show_amount(Amount(value=value_mm, kind=_AMOUNTS[kind]), style)
    return show_length(value_mm, style)


def told_json(text: str, style: Style, *, whole: bool = False) -> str:
    """JSON with its marks told, escaped as a string in JSON has to be; ``whole`` lets no line break inside a quantity."""

    def escaped(found: re.Match[str]) -> str:
        out = _told(found[1], float(found[2]), style).replace('"', '\\"')
        return out.replace(" ", NO_BREAK) if whole else out

    return MARK.sub(escaped, text)


def told_in(model: M, style: Style) -> M:
    """The same model with the marks in all its texts told; for paper."""
    text = model.model_dump_json()
    return type(model).model_validate_json(told_json(text, style)) if "[[" in text else model
