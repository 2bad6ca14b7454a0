"""Tube and bar cut to lengths from what is sold: the exact one-dimensional cutting-stock problem.

All ways to cut one bar are listed, and an integer program picks how often each is cut (Gilmore and Gomory 1961);
what it finds is the least, and proven, where the list is complete. Lengths mm.
"""

from collections.abc import Sequence

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp

from nodulant.base.errors import InputError
from nodulant.base.model import Frozen
from nodulant.units.inline import as_length

MOST_WAYS = 40_000
SECONDS = 2.0


class Bar(Frozen):
    """One bar that is bought: its length, the pieces cut from it, what is left of it past the last cut."""

    stock_mm: float
    pieces_mm: tuple[float, ...]
    left_mm: float


class CutPlan(Frozen):
    """Bars to buy; ``proven`` says that no other plan buys less length."""

    bars: tuple[Bar, ...]
    bought_mm: float
    least_mm: float
    """No plan can buy less than this."""
    proven: bool


def cut_plan(lengths_mm: Sequence[float], stock_mm: Sequence[float], kerf_mm: float) -> CutPlan:
    """Cut every length from bars of the sold lengths; raises InputError for one that fits none, or a kerf below 0."""
    if kerf_mm < 0:
        raise InputError(
            "a saw takes no less than nothing", field="/kerf_mm", found=f"{kerf_mm:g}", acceptable="0 or more"
        )
    if not stock_mm or min(stock_mm) <= 0:
        raise InputError("no bar is sold", field="/stock_mm", found="none", acceptable="a length above 0")
    longest = max(stock_mm)
    for length in lengths_mm:
        if not 0 < length <= longest:
            raise InputError(
                "a piece is longer than any bar that is sold",
                field="/lengths_mm",
                found=as_length(length),
                acceptable=f"{as_length(longest)} or less",
            )
    sizes = sorted({round(v, 3) for v in lengths_mm}, reverse=True)
    asked = [sum(1 for v in lengths_mm if round(v, 3) == s) for s in sizes]
    if not sizes:
        return CutPlan(bars=(), bought_mm=0.0, least_mm=0.0, proven=True)
    ways, whole = _ways(sizes, asked, sorted(set(stock_mm)), kerf_mm)
    found = milp(
        np.array([bar for bar, _ in ways]),
        constraints=LinearConstraint(np.array([way for _, way in ways]).T, lb=np.array(asked)),
        integrality=np.ones(len(ways)),
        bounds=Bounds(0, sum(asked)),
        options={"time_limit": SECONDS},
    )
    least = float(found.mip_dual_bound) if whole and found.mip_dual_bound is not None else sum(lengths_mm)
    if found.x is None:
        bars = _first_fit(lengths_mm, stock_mm, kerf_mm)
    else:
        bars = _bars(ways, [round(float(n)) for n in found.x], sizes, asked, kerf_mm)
    bought = sum(bar.stock_mm for bar in bars)
    return CutPlan(bars=tuple(bars), bought_mm=bought, least_mm=least, proven=whole and bought <= least * (1 + 1e-6))


Way = tuple[float, tuple[int, ...]]
"""A bar's length, and how many of each size are cut from it."""


def _ways(sizes: list[float], asked: list[int], stock: Sequence[float], kerf_mm: float) -> tuple[list[Way], bool]:
    """Every way to cut a bar that nothing more fits in, and whether the list is complete."""
    out: list[Way] = []
    for bar in stock:
        if not _fill(out, bar, sizes, asked, kerf_mm):
            # too many to list: each size by itself keeps every piece possible
            return out + [_only(bar, k, sizes) for bar in stock for k, s in enumerate(sizes) if s <= bar], False
    return out, True


def _only(bar: float, own: int, sizes: list[float]) -> Way:
    return (bar, tuple(int(k == own) for k in range(len(sizes))))


def _fill(out: list[Way], bar: float, sizes: list[float], asked: list[int], kerf_mm: float) -> bool:
    """Add every full way to cut a bar, the longest pieces first; False where there are too many."""
    counts = [0] * len(sizes)

    def place(k: int, room: float) -> bool:
        if k == len(sizes):
            full = not any(c < a and s <= room + ROUND_OFF for c, a, s in zip(counts, asked, sizes, strict=True))
            if full and any(counts):
                out.append((bar, tuple(counts)))
            return len(out) <= MOST_WAYS
        # the last piece of a bar needs no cut behind it
        most = min(asked[k], max(int((room + kerf_mm + ROUND_OFF) // (sizes[k] + kerf_mm)), 0))
        for n in range(most, -1, -1):
            counts[k] = n
            if not place(k + 1, room - n * (sizes[k] + kerf_mm)):
                return False
        return True

    return place(0, bar)


ROUND_OFF = 1e-6


def _bars(ways: list[Way], times: Sequence[int], sizes: list[float], asked: list[int], kerf_mm: float) -> list[Bar]:
    """The bars of a plan; what a way would cut too many of is not cut."""
    still, out = list(asked), []
    for (bar, counts), often in zip(ways, times, strict=True):
        for _ in range(often):
            own = [min(c, left) for c, left in zip(counts, still, strict=True)]
            still = [left - c for c, left in zip(own, still, strict=True)]
            pieces = tuple(size for size, c in zip(sizes, own, strict=True) for _ in range(c))
            if pieces:
                left = bar - sum(pieces) - kerf_mm * len(pieces)
                out.append(Bar(stock_mm=bar, pieces_mm=pieces, left_mm=max(left, 0.0)))
    return sorted(out, key=lambda b: (-b.stock_mm, [-p for p in b.pieces_mm]))


def _first_fit(lengths_mm: Sequence[float], stock_mm: Sequence[float], kerf_mm: float) -> list[Bar]:
    """The longest first, each from the first bar that it fits: a plan where no better one was found."""
    longest, bars = max(stock_mm), list[list[float]]()
    for length in sorted(lengths_mm, reverse=True):
        home = next((b for b in bars if sum(b) + kerf_mm * len(b) + length <= longest + ROUND_OFF), None)
        if home is None:
            bars.append([length])
        else:
            home.append(length)
    out = []
    for own in bars:
        used = sum(own) + kerf_mm * (len(own) - 1)
        bar = min(s for s in stock_mm if s >= used - ROUND_OFF)
        out.append(Bar(stock_mm=bar, pieces_mm=tuple(own), left_mm=max(bar - used - kerf_mm, 0.0)))
    return out
