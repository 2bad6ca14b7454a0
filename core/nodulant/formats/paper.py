"""Which pattern lies on which page at 1:1: small ones share pages, large ones run over several that overlap.

A page lies upright or on its side, whichever takes fewer; dimensions stand round a part where that takes no more
paper, inside it where it would. Lengths mm.
"""

import math
from collections.abc import Sequence
from typing import Literal, NamedTuple

from reportlab.lib.pagesizes import A3, A4, LEGAL, LETTER

from nodulant.drawn.lines import room_round
from nodulant.patterns.pattern import Pattern, Stroke

Paper = Literal["a4", "a3", "letter", "legal", "roll"]
MM = 72 / 25.4
ROLL_MM = (610.0, 1200.0)
"""A 24 in roll, and how long a piece is cut from it."""
SIZES = {"a4": A4, "a3": A3, "letter": LETTER, "legal": LEGAL, "roll": (ROLL_MM[0] * MM, ROLL_MM[1] * MM)}
"""Width and height upright, points."""
MARGIN_MM, FOOT_MM, OVERLAP_MM = 10.0, 24.0, 10.0
INSET_MM = 0.35
"""A line at the edge of the drawing area is printed whole."""
CAPTION_MM, CAPTION_WIDE_MM, BETWEEN_MM = 8.0, 60.0, 4.0
"""Under a pattern that shares its page, how wide that is at least, and between two of them."""
SAME_MM = 0.05


class Put(NamedTuple):
    """A pattern on a page: where its corner lies, whether dimensions stand inside it, whether it serves for both sides."""

    pattern: Pattern
    x: float
    y: float
    inside: bool
    both: bool
    wide: float = 0.0
    """For its caption."""


class Page(NamedTuple):
    """One page: on its side or not, what lies on it, and which of how many it is of a pattern that needs several."""

    turned: bool
    puts: tuple[Put, ...]
    column: int = 0
    row: int = 0
    across: int = 1
    up: int = 1


def page_size_mm(paper: Paper, *, turned: bool = False) -> tuple[float, float]:
    """Width and height of a page, mm."""
    wide, high = (side / MM for side in SIZES[paper])
    return (high, wide) if turned else (wide, high)


def tile_size_mm(paper: Paper, *, turned: bool = False) -> tuple[float, float]:
    """Drawing area of a page, mm."""
    wide, high = page_size_mm(paper, turned=turned)
    return wide - 2 * MARGIN_MM, high - MARGIN_MM - FOOT_MM


def pages_of(patterns: Sequence[Pattern], paper: Paper, *, once: bool = False) -> list[Page]:
    """Every page in the order it is printed; with ``once`` a pair that is one turned over is printed once."""
    chosen = _once(patterns) if once else [(p, False) for p in patterns]
    large: list[Page] = []
    small: list[Put] = []
    for pattern, both in chosen:
        turned, across, up = _fewest(pattern, paper)
        if across * up == 1:
            small.append(_sized(pattern, paper, both=both))
            continue
        put = _in_tiles(pattern, paper, both=both, turned=turned)
        large += [Page(turned, (put,), c, r, across, up) for r in range(up) for c in range(across)]
    return [*_shared(small, paper), *large]


def _once(patterns: Sequence[Pattern]) -> list[tuple[Pattern, bool]]:
    """Left ones that their right one is the mirror of, once; all others as they are."""
    by_id = {p.id: p for p in patterns}
    out: list[tuple[Pattern, bool]] = []
    done: set[str] = set()
    for p in patterns:
        if p.id in done:
            continue
        other = by_id.get(p.id.removesuffix("left") + "right") if p.id.endswith("/left") else None
        both = other is not None and _mirrored(p, other)
        if other is not None and both:
            done.add(other.id)
        out.append((p, both))
    return out


def _mirrored(one: Pattern, two: Pattern) -> bool:
    if (one.thickness_mm, one.steel) != (two.thickness_mm, two.steel):
        return False
    cut = [[s for s in p.strokes if s.layer in {"CUT", "HOLE"}] for p in (one.at_origin(), two.at_origin())]
    x0, _, x1, _ = one.at_origin().bounds()
    pairs = zip(*cut, strict=True)
    return len(cut[0]) == len(cut[1]) and all(_turned_over(a, b, x0 + x1) for a, b in pairs)


def _turned_over(one: Stroke, two: Stroke, wide: float) -> bool:
    flipped = one.outline.mirrored().moved(wide, 0.0)
    if len(flipped.vertices) != len(two.outline.vertices):
        return False
    pairs = zip(flipped.vertices, two.outline.vertices, strict=True)
    return all(abs(a.x - b.x) < SAME_MM and abs(a.y - b.y) < SAME_MM for a, b in pairs)


def _fewest(pattern: Pattern, paper: Paper) -> tuple[bool, int, int]:
    """Upright or on its side, and pages across and up, for the bare part."""
    _, _, wide, high = pattern.bounds()
    options = [(turned, *_tiles(wide, high, paper, turned=turned)) for turned in (False, True)]
    return min(options, key=lambda o: (o[1] * o[2], o[0]))


def _tiles(wide: float, high: float, paper: Paper, *, turned: bool) -> tuple[int, int]:
    tile_w, tile_h = tile_size_mm(paper, turned=turned)
    across, up = (
        max(1, math.ceil((side + 2 * INSET_MM - OVERLAP_MM) / (tile - OVERLAP_MM)))
        for side, tile in ((wide, tile_w), (high, tile_h))
    )
    return across, up


def _in_tiles(pattern: Pattern, paper: Paper, *, both: bool, turned: bool) -> Put:
    _, _, wide, high = pattern.bounds()
    room = room_round(pattern.dimensions)
    grown = (wide + room["left"] + room["right"], high + room["below"] + room["above"])
    if _tiles(*grown, paper, turned=turned) == _tiles(wide, high, paper, turned=turned):
        return Put(pattern, room["left"] + INSET_MM, room["below"] + INSET_MM, inside=False, both=both)
    return Put(pattern, INSET_MM, INSET_MM, inside=True, both=both)


class _Box(NamedTuple):
    """A pattern with the room that it takes on a shared page."""

    put: Put
    wide: float
    high: float


def _sized(pattern: Pattern, paper: Paper, *, both: bool) -> Put:
    """On a page of its own lying either way: dimensions outside where that fits, else inside."""
    outside = Put(pattern, 0.0, 0.0, inside=False, both=both)
    boxed = _box(outside)
    fits = any(_fits(boxed, paper, turned=turned) for turned in (False, True))
    return outside if fits else outside._replace(inside=True)


def _box(put: Put) -> _Box:
    _, _, wide, high = put.pattern.bounds()
    room = room_round(() if put.inside else put.pattern.dimensions)
    x, y = room["left"] + INSET_MM, room["below"] + INSET_MM + CAPTION_MM
    full = max(x + wide + room["right"] + INSET_MM, CAPTION_WIDE_MM)
    return _Box(put._replace(x=x, y=y, wide=full - x), full, y + high + room["above"] + INSET_MM)


def _fits(box: _Box, paper: Paper, *, turned: bool) -> bool:
    tile_w, tile_h = tile_size_mm(paper, turned=turned)
    return box.wide <= tile_w and box.high <= tile_h


def _shared(small: Sequence[Put], paper: Paper) -> list[Page]:
    """Pages of all one way or with each that needs it the other way, whichever are fewer."""
    tries = [_shelved([_box(put) for put in small], paper, first=first) for first in (False, True)]
    return min(tries, key=len)


class _Sheet:
    """A page that fills from its top: shelves of patterns side by side."""

    def __init__(self, paper: Paper, *, turned: bool) -> None:
        self.turned = turned
        self.wide, self.high = tile_size_mm(paper, turned=turned)
        self.shelves: list[tuple[float, float, float]] = []
        """Top, height and how far across each is filled."""
        self.puts: list[Put] = []

    def take(self, box: _Box) -> bool:
        """Put a pattern on the first shelf that has room, or on a new one; False where there is none."""
        for k, (top, high, filled) in enumerate(self.shelves):
            if box.high <= high and filled + box.wide <= self.wide:
                self.shelves[k] = (top, high, filled + box.wide + BETWEEN_MM)
                self._lay(box, filled, top)
                return True
        top = self.shelves[-1][0] - self.shelves[-1][1] - BETWEEN_MM if self.shelves else self.high
        if box.high > top or box.wide > self.wide:
            return False
        self.shelves.append((top, box.high, box.wide + BETWEEN_MM))
        self._lay(box, 0.0, top)
        return True

    def _lay(self, box: _Box, x: float, top: float) -> None:
        self.puts.append(box.put._replace(x=x + box.put.x, y=top - box.high + box.put.y))


def _shelved(boxes: Sequence[_Box], paper: Paper, *, first: bool) -> list[Page]:
    """The highest first, each on the first page that has room (first fit; Coffman et al. 1980, from memory)."""
    sheets: list[_Sheet] = []
    for box in sorted(boxes, key=lambda b: (-b.high, -b.wide)):
        if any(sheet.take(box) for sheet in sheets):
            continue
        turned = first if _fits(box, paper, turned=first) else not first
        sheet = _Sheet(paper, turned=turned)
        if not sheet.take(box):
            # it fills a page of its own, and its caption lies on it
            sheet = _Sheet(paper, turned=_fewest(box.put.pattern, paper)[0])
            sheet.puts.append(box.put._replace(x=INSET_MM, y=INSET_MM))
            sheet.shelves.append((0.0, 0.0, sheet.wide))
        sheets.append(sheet)
    return [Page(sheet.turned, tuple(sheet.puts)) for sheet in sheets]
