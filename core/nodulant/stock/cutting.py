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
    """One bar: its length, the pieces cut from it, what is left of it past the last cut, whether the rack had it."""

    stock_mm: float
    pieces_mm: tuple[float, ...]
    left_mm: float
    in_rack: bool = False


class CutPlan(Frozen):
    """Bars to buy; ``proven`` says that no other plan buys less length."""

    bars: tuple[Bar, ...]
    bought_mm: float
    least_mm: float
    """No plan can buy less than this."""
    proven: bool


def cut_plan(
    lengths_mm: Sequence[float], stock_mm: Sequence[float], kerf_mm: float, have_mm: Sequence[float] = ()
) -> CutPlan:
    """Cut every length from bars of the sold lengths, and from those that the shop has, each once and before any is bought.

    Raises InputError for a length that fits none, or a kerf below 0.
    """
    if kerf_mm < 0:
        raise InputError(
            "a saw takes no less than nothing", field="/kerf_mm", found=f"{kerf_mm:g}", acceptable="0 or more"
        )
    if not stock_mm or min(stock_mm) <= 0:
        raise InputError("no bar is sold", field="/stock_mm", found="none", acceptable="a length above 0")
    longest = max((*stock_mm, *have_mm))
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
    sold, whole = _ways(sizes, asked, sorted(set(stock_mm)), kerf_mm)
    owned = sorted({round(v, 3) for v in have_mm if v >= sizes[-1]})
    from_rack, all_rack = _ways(sizes, asked, owned, kerf_mm) if owned else ([], True)
    ways, whole = [*sold, *from_rack], whole and all_rack
    counted = [sum(1 for v in have_mm if round(v, 3) == own) for own in owned]
    rack_rows = [[float(k >= len(sold) and bar == own) for k, (bar, _) in enumerate(ways)] for own in owned]
    limits = [LinearConstraint(np.array([way for _, way in ways]).T, lb=np.array(asked))]
    if owned:
        limits.append(LinearConstraint(np.array(rack_rows), ub=np.array(counted)))
    found = milp(
        np.array([bar if k < len(sold) else bar * OWN_SHARE for k, (bar, _) in enumerate(ways)]),
        constraints=limits,
        integrality=np.ones(len(ways)),
        bounds=Bounds(0, sum(asked)),
        options={"time_limit": SECONDS},
    )
    least = float(found.mip_dual_bound) if whole and found.mip_dual_bound is not None else sum(lengths_mm)
    if found.x is None:
        bars = _first_fit(lengths_mm, stock_mm, kerf_mm)
    else:
        times = [round(float(n)) for n in found.x]
        # what the rack has is cut first: what is cut too often is then not bought
        still = list(asked)
        bars = _bars(from_rack, times[len(sold) :], sizes, still, kerf_mm, in_rack=True)
        bars += _bars(sold, times[: len(sold)], sizes, still, kerf_mm)
    bought = sum(bar.stock_mm for bar in bars if not bar.in_rack)
    own = sum(bar.stock_mm * OWN_SHARE for bar in bars if bar.in_rack)
    proven = whole and bought + own <= least * (1 + 1e-6)
    return CutPlan(bars=tuple(bars), bought_mm=bought, least_mm=max(least - own, 0.0), proven=proven)


OWN_SHARE = 0.001
"""What a bar of the rack counts, over one that is bought: it is used first, and a short one before a long one."""


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


def _bars(
    ways: list[Way],
    times: Sequence[int],
    sizes: list[float],
    still: list[int],
    kerf_mm: float,
    *,
    in_rack: bool = False,
) -> list[Bar]:
    """The bars of a plan, taken off what is ``still`` to be cut; what a way would cut too many of is not cut."""
    out = []
    for (bar, counts), often in zip(ways, times, strict=True):
        for _ in range(often):
            own = [min(c, left) for c, left in zip(counts, still, strict=True)]
            still[:] = [left - c for c, left in zip(own, still, strict=True)]
            pieces = tuple(size for size, c in zip(sizes, own, strict=True) for _ in range(c))
            if pieces:
                left = bar - sum(pieces) - kerf_mm * len(pieces)
                out.append(Bar(stock_mm=bar, pieces_mm=pieces, left_mm=max(left, 0.0), in_rack=in_rack))
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
