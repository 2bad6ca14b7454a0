"""Text as single strokes, for a machine that etches along lines: letters of an open stroke font, no outlines to fill."""

from functools import lru_cache

from HersheyFonts import HersheyFonts

Line = list[tuple[float, float]]
PLAIN = {"·": "-", "–": "-", "…": "...", "×": "x", "ø": "dia ", "±": "+-", "\u00a0": " "}
"""What the font has no letter for, as it is told instead."""


@lru_cache(maxsize=1)
def _font() -> HersheyFonts:
    font = HersheyFonts()
    font.load_default_font("futural")
    return font


def strokes_of(text: str, x: float, y: float, height: float) -> list[Line]:
    """Open lines of a text whose foot begins at (x, y), its capitals ``height`` high."""
    font = _font()
    font.normalize_rendering(height)
    plain = "".join(PLAIN.get(letter, letter) for letter in text)
    told = "".join(letter if letter.isascii() else "?" for letter in plain)
    return [[(x + px, y + py) for px, py in line] for line in font.strokes_for_text(told)]
