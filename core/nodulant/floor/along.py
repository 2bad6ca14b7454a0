"""What a step takes along: its template, its parts by number, the wire that it lays down."""

from nodulant.assembly.sheet import AssemblySheet, WeldRow
from nodulant.build.plan import Step
from nodulant.frame.parts import Work
from nodulant.materials.process import Welding
from nodulant.materials.steel import DENSITY_KG_PER_MM3
from nodulant.materials.weld import bead_mm2
from nodulant.parts.sides import Side
from nodulant.stock.consumables import tool_rows
from nodulant.stock.order import DEPOSITED
from nodulant.units.inline import as_amount, as_thickness

MOST_PARTS = 8


def along_of(
    step: Step, sheet: AssemblySheet | None, works: dict[Side, Work], seams: frozenset[int], welding: Welding
) -> tuple[str, ...]:
    """Lines of it; ``seams`` are the numbers of those that the step welds. Nothing for a step of the job."""
    if "cuts" in step.spec.acts and works:
        own = [work for side, work in works.items() if step.side in {side, "both"}]
        return tuple(f"{row.count} {row.what}" for row in tool_rows(own, ()))
    if sheet is None:
        return ()
    if step.spec.phase == "mark":
        return ("Templates of this work at 1:1, the bar on each sheet measured",)
    if sheet.parts and (step.spec.phase == "tack" or step.spec.key == "fit"):
        rows = [f"{p.number} {p.name} {as_thickness(p.thickness_mm)}" for p in sheet.parts[:MOST_PARTS]]
        more = len(sheet.parts) - MOST_PARTS
        return (f"Parts by number: {', '.join(rows)}{f' and {more} more' if more > 0 else ''}",)
    welds = [w for w in sheet.welds if w.number in seams and (w.side == "both" or step.side in {w.side, "both"})]
    return (_wire(welds, step.side, welding),) if welds else ()


def _wire(welds: list[WeldRow], side: str | None, welding: Welding) -> str:
    """Wire or rod with what is lost of it, and minutes of arc."""
    kg = minutes = 0.0
    for weld in welds:
        long, area = weld.total_mm if side == "both" else weld.bead_mm, bead_mm2(weld.kind, weld.leg_mm)
        kg += long * area * DENSITY_KG_PER_MM3 / DEPOSITED
        minutes += long / welding.speed_mm_per_min(area)
    what = {"MIG/MAG": "wire", "TIG": "filler rod", "stick": "electrodes"}[welding.process]
    return f"{as_amount('mass', kg)} of {what}, {max(round(minutes), 1)} minutes of arc"
