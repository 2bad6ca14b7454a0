"""Read what a person typed: ``3 7/16``, ``3-7/16"``, ``1' 4 1/2"``, ``87.3 mm``, ``4.5deg``.

Terms: a *number* is an integer, a decimal, a fraction or an integer with a fraction; a
*term* is a number with an optional unit; feet may be followed by inches. The result is
in the base unit of its kind (mm, deg, kg, N, N/mm, bar, N m); a comma is a decimal one, but refused
where three digits follow it. Errors carry the 0-based place of the trouble.
Exact factors: 1 in = 25.4 mm, 1 lb = 0.45359237 kg (international yard and pound, 1959); g = 9.80665.
"""

import re
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from nodulant.base.errors import UnreadableQuantity
from nodulant.base.model import Frozen

Kind = Literal["length", "angle", "mass", "force", "rate", "pressure", "torque", "number"]

_LBF = Fraction(45359237, 100000000) * Fraction(980665, 100000)
FACTORS: dict[Kind, dict[str, Fraction]] = {
    "length": {
        "mm": Fraction(1),
        "cm": Fraction(10),
        "m": Fraction(1000),
        "in": Fraction(254, 10),
        "ft": Fraction(3048, 10),
    },
    "angle": {"deg": Fraction(1)},
    "mass": {"kg": Fraction(1), "lb": Fraction(45359237, 100000000), "t": Fraction(1000)},
    "force": {
        "N": Fraction(1),
        "kN": Fraction(1000),
        "kgf": Fraction(980665, 100000),
        "lbf": _LBF,
        "lb": _LBF,
    },
    "rate": {"N/mm": Fraction(1), "lb/in": _LBF / Fraction(254, 10), "lbf/in": _LBF / Fraction(254, 10)},
    "pressure": {"bar": Fraction(1), "psi": _LBF / Fraction(254, 10) ** 2 * 10, "kPa": Fraction(1, 100)},
    "torque": {"N m": Fraction(1), "lbf ft": _LBF * Fraction(3048, 10000)},
    "number": {"": Fraction(1)},
}
SPELLINGS = {
    '"': "in",
    "'": "ft",
    "inch": "in",
    "inches": "in",
    "feet": "ft",
    "foot": "ft",
    "lbs": "lb",
    "°": "deg",
    "nm": "n m",
    **dict.fromkeys(("lbft", "lb ft", "lbfft", "ftlb", "ft lb", "ft-lb", "ftlbf", "ft lbf", "ft-lbf"), "lbf ft"),
}
EXAMPLES: dict[Kind, str] = {
    "length": "such as 3 7/16, 3.4375in, 87.3 mm or 1' 4 1/2\"",
    "angle": "such as 4.5 or 4.5deg",
    "mass": "such as 120 kg or 265 lb",
    "force": "such as 12 kN, 1500 N or 900 lbf",
    "rate": "such as 32 N/mm or 180 lb/in",
    "pressure": "such as 5 bar or 75 psi",
    "torque": "such as 80 N m or 60 lbf ft",
    "number": "a plain number such as 2.5",
}
LOOKALIKES = str.maketrans({"”": '"', "″": '"', "’": "'", "′": "'", "−": "-", "–": "-", "\u00a0": " ", "\u2044": "/"})

_NUMBER = re.compile(
    r"(?P<whole>\d+)(?:-|\s+)(?P<num>\d+)\s*/\s*(?P<den>\d+)"
    r"|(?P<fnum>\d+)\s*/\s*(?P<fden>\d+)"
    r"|(?P<dec>\d+[.,]?\d*|[.,]\d+)"
)
_UNIT = re.compile(
    r"[nN] ?[mM](?![a-zA-Z/])|[lL][bB][fF]? ?[fF][tT]|[fF][tT][ -]?[lL][bB][fF]?|[a-zA-Z]+(?:/[a-zA-Z]+)?|[\"'°]"
)
_THOUSANDS = re.compile(r"(\d+),(\d{3})")
_BLANK = re.compile(r"\s*")


class Quantity(Frozen):
    """A value in its kind's base unit (mm, deg, kg, 1) and how it was typed."""

    value: float
    unit: str
    text: str


@dataclass(frozen=True)
class _Term:
    value: Fraction
    unit: str
    start: int
    end: int


def parse_quantity(text: str, kind: Kind = "length", unit: str = "in") -> Quantity:
    """Return the quantity that ``text`` means; ``unit`` is taken where none was typed.

    Raises UnreadableQuantity with the position of the first thing that cannot be read.
    """
    if len(text) > 60:
        raise _unreadable("that is too long for one quantity", 60, text[60:], kind)
    clean = text.translate(LOOKALIKES)
    sign, start = _sign(clean)
    terms = _terms(clean, start, kind)
    total, typed = _total(terms, clean, kind, unit)
    return Quantity(value=float(sign * total), unit=typed, text=text.strip())


def _sign(text: str) -> tuple[int, int]:
    start = _skip(text, 0)
    if text[start : start + 1] in {"-", "+"}:
        return (-1 if text[start] == "-" else 1), _skip(text, start + 1)
    return 1, start


def _skip(text: str, at: int) -> int:
    found = _BLANK.match(text, at)
    return found.end() if found else at


def _terms(text: str, at: int, kind: Kind) -> list[_Term]:
    terms: list[_Term] = []
    while at < len(text):
        term = _term(text, at, kind)
        terms.append(term)
        at = _skip(text, term.end)
    if not terms:
        raise _unreadable("nothing was typed", at, "", kind)
    return terms


def _term(text: str, at: int, kind: Kind) -> _Term:
    number = _NUMBER.match(text, at)
    if not number:
        raise _unreadable("a number was expected here", at, text[at:], kind)
    value = _value(number, kind)
    end = _skip(text, number.end())
    found = _UNIT.match(text, end)
    if not found:
        return _Term(value, "", at, number.end())
    word = found.group().lower()
    meant = SPELLINGS.get(word, word)
    unit = next((name for name in FACTORS[kind] if name.lower() == meant), "")
    if not unit:
        raise _unreadable(f"'{found.group()}' is no unit of {kind}", end, found.group(), kind)
    return _Term(value, unit, at, found.end())


def _value(number: re.Match[str], kind: Kind) -> Fraction:
    if number["dec"] is not None:
        if (thousands := _THOUSANDS.fullmatch(number["dec"])) is not None:
            message = f"a comma before three digits may be either; type {thousands[1]}.{thousands[2]} or {thousands[1]}{thousands[2]}"
            raise _unreadable(message, number.start("dec"), number["dec"], kind)
        return Fraction(number["dec"].replace(",", ".").rstrip(".") or "0")
    whole = int(number["whole"] or 0)
    group = "den" if number["whole"] else "fden"
    below = int(number[group])
    if below == 0:
        raise _unreadable("a fraction cannot have 0 below the line", number.start(group), "0", kind)
    return whole + Fraction(int(number["num"] or number["fnum"]), below)


def _total(terms: list[_Term], text: str, kind: Kind, unit: str) -> tuple[Fraction, str]:
    first = terms[0]
    if len(terms) == 1:
        used = first.unit or unit
        if used not in FACTORS[kind]:
            raise _unreadable(f"'{used}' is no unit of {kind}", first.end, used, kind)
        return first.value * FACTORS[kind][used], used
    second = terms[1]
    if first.unit != "ft" or second.unit not in {"", "in"}:
        raise _unreadable("one quantity was expected", second.start, text[second.start :], kind)
    if len(terms) > 2:
        raise _unreadable("one quantity was expected", terms[2].start, text[terms[2].start :], kind)
    return first.value * FACTORS["length"]["ft"] + second.value * FACTORS["length"]["in"], "ft"


def _unreadable(message: str, position: int, found: str, kind: Kind) -> UnreadableQuantity:
    return UnreadableQuantity(message, position=position, found=found, acceptable=EXAMPLES[kind])
