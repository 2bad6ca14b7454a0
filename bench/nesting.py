"""Plates on one sheet: time, against rectangles by a general-purpose packer, and against ten times the time."""

import math
import time

import rectpack
from tests import fixtures as f

from bench.measure import Figure
from nodulant.job.rack import MetalRack, Sheet
from nodulant.search.steps import to_the_end
from nodulant.stock.needs import blank_of
from nodulant.stock.nesting.piece import NestPiece, nest_pieces
from nodulant.stock.nesting.plan import SECONDS, nest_all

WIDE_MM, LONGEST_MM, NEAR_MM = 1250.0, 8000.0, 4.0
LONGER = 10.0


def nesting() -> list[Figure]:
    """The demo's step option as if all its plates were of one thickness, along one wide strip."""
    rack = MetalRack(sheets=(Sheet(long_mm=LONGEST_MM, wide_mm=WIDE_MM),))
    alike = {"thickness_mm": 6.0, "steel_id": "mild"}
    pieces = [p.model_copy(update=alike) for p in nest_pieces(f.demo("step"))]
    began = time.perf_counter()
    ours = _long(pieces, rack, SECONDS)
    took = time.perf_counter() - began
    patient = _long(pieces, rack, LONGER * SECONDS)
    boxes = _by_rectangles(pieces, rack)
    return [
        Figure("laying out the demo's plates", took * 1000, "ms", budget="20000 ms"),
        Figure("strip by rectangles over strip by outlines", boxes / ours, "x", at_least=1.05),
        Figure("strip over that of ten times the time", ours / patient, "x", at_most=1.06),
    ]


def _long(pieces: list[NestPiece], rack: MetalRack, seconds: float) -> float:
    plan = to_the_end(nest_all(pieces, rack, seconds))
    return sum(s.used_long_mm for s in plan.sheets)


def _by_rectangles(pieces: list[NestPiece], rack: MetalRack) -> float:
    """The shortest strip on which each of four of the packer's rules finds room for every blank, mm, the best of them."""
    grown = [
        tuple(math.ceil(side + rack.kerf_mm) for side in blank_of(p.outline)) for p in pieces for _ in range(p.count)
    ]
    across = math.floor(WIDE_MM - 2 * rack.margin_mm + rack.kerf_mm)
    rules = (rectpack.MaxRectsBssf, rectpack.MaxRectsBl, rectpack.MaxRectsBaf, rectpack.SkylineMwfl)
    return min(_shortest(rule, grown, across) for rule in rules) + 2 * rack.margin_mm


def _shortest(rule: type, grown: list[tuple[int, ...]], across: int) -> float:
    low, high = 0.0, LONGEST_MM
    while high - low > NEAR_MM:
        middle = (low + high) / 2
        packer = rectpack.newPacker(rotation=True, pack_algo=rule, sort_algo=rectpack.SORT_AREA)
        for long, wide in grown:
            packer.add_rect(long, wide)
        packer.add_bin(int(middle), across)
        packer.pack()
        if sum(len(bin_) for bin_ in packer) == len(grown):
            high = middle
        else:
            low = middle
    return high
