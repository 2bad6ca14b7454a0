"""The weld and inspection record: every joint of the weld map and every bolted one, with what was written of it.

A joint is done when somebody else than its operator looked at it and nothing is left to repair (common practice:
nobody passes his own weld).
"""

from collections.abc import Iterable
from typing import Literal

from nodulant.asbuilt.log import Entry, standing
from nodulant.asbuilt.record import BoltsEntry, PaintEntry, WeldEntry
from nodulant.assembly.sheet import AssemblySheet, WeldRow, assembly_sheets
from nodulant.base.model import Frozen
from nodulant.frame.ops.mounts.bolted import tightened
from nodulant.job.document import Inputs
from nodulant.materials.bolts import find_bolt
from nodulant.parts.sides import LEFT_RIGHT
from nodulant.units.inline import as_amount, as_length, as_thickness

JointState = Literal["open", "made", "to repair", "done"]


class RecordRow(Frozen):
    """One joint: what it is, and what was written of it."""

    joint: str
    kind: Literal["weld", "bolts"]
    operation: str
    work: str
    side: str
    name: str
    asks: str
    """Kind, leg and length; or bolts and grade."""
    state: JointState
    says: str
    """What was written, in a sentence; empty where nothing was."""
    written: WeldEntry | BoltsEntry | None
    """The newest that stands of it."""


class WeldRecord(Frozen):
    """All joints in the order of work, coats, and what is open."""

    rows: tuple[RecordRow, ...]
    paint: tuple[PaintEntry, ...]
    open_points: tuple[str, ...]


def weld_record(inputs: Inputs) -> WeldRecord:
    """The stored plan's joints with the log's newest standing words on each; raises InputError and UnknownReference."""
    entries = standing(inputs.as_built.entries)
    rows = record_rows(assembly_sheets(inputs), entries)
    paint = tuple(e for e in entries if isinstance(e, PaintEntry))
    return WeldRecord(rows=rows, paint=paint, open_points=tuple(_open(rows)))


def record_rows(sheets: Iterable[AssemblySheet], entries: Iterable[Entry]) -> tuple[RecordRow, ...]:
    """Every joint of the sheets, with the newest of the ``entries`` that stand."""
    newest = {e.joint: e for e in entries if isinstance(e, WeldEntry | BoltsEntry)}
    return tuple(row for sheet in sheets for row in _of(sheet, newest))


def _of(sheet: AssemblySheet, newest: dict[str, WeldEntry | BoltsEntry]) -> Iterable[RecordRow]:
    for weld in sheet.welds:
        for side in LEFT_RIGHT if weld.side == "both" else (weld.side,):
            joint = f"{sheet.operation}/weld-{weld.number}/{side}"
            yield _row(sheet, joint, "weld", side, " to ".join(weld.joins), _asks(weld), newest.get(joint))
    for k, bolts in enumerate(sheet.bolts, start=1):
        joint = f"{sheet.operation}/bolts-{k}"
        tight = tightened(find_bolt(bolts.size, bolts.grade))
        asks = f"{bolts.count} {bolts.size}, grade {bolts.grade}, grip {as_length(bolts.grip_mm)}, to {tight}"
        yield _row(sheet, joint, "bolts", "", bolts.name, asks, newest.get(joint))


def _row(
    sheet: AssemblySheet,
    joint: str,
    kind: Literal["weld", "bolts"],
    side: str,
    name: str,
    asks: str,
    entry: WeldEntry | BoltsEntry | None,
) -> RecordRow:
    state, says = ("open", "") if entry is None else _written(entry)
    return RecordRow(
        joint=joint,
        kind=kind,
        operation=sheet.operation,
        work=sheet.name,
        side=side,
        name=name,
        asks=asks,
        state=state,
        says=says,
        written=entry,
    )


def _asks(weld: WeldRow) -> str:
    leg = f" {as_thickness(weld.leg_mm)}" if weld.kind == "fillet" else ""
    return f"{weld.kind}{leg}, {as_length(weld.bead_mm)}{', ground flush' if weld.ground else ''}"


def _written(entry: WeldEntry | BoltsEntry) -> tuple[JointState, str]:
    if isinstance(entry, BoltsEntry):
        torque = "" if entry.torque_nm is None else f"to {as_amount('torque', entry.torque_nm)}"
        words = [torque, "marked" if entry.marked else "not marked", _looked(entry.looked_by)]
        done = entry.torque_nm is not None and entry.marked and _by_another(entry.looked_by, entry.by)
        return ("done" if done else "made"), ", ".join(w for w in words if w)
    bad = bool(entry.defect) or entry.dye == "marks"
    words = [entry.process, entry.wire, f"by {entry.operator}"]
    words += ["" if entry.gap_mm is None else f"gap {as_thickness(entry.gap_mm)}", _looked(entry.looked_by)]
    words += ["" if entry.dye == "not done" else f"dye: {entry.dye}", entry.defect]
    words += ["repaired" if entry.repaired else ""]
    says = ", ".join(w for w in words if w)
    if bad and not entry.repaired:
        return "to repair", says
    return ("done" if _by_another(entry.looked_by, entry.operator) else "made"), says


def _looked(name: str) -> str:
    return f"looked at by {name}" if name else "looked at by nobody"


def _by_another(looked: str, made: str) -> bool:
    return bool(looked) and looked.casefold() != made.casefold()


def _open(rows: tuple[RecordRow, ...]) -> Iterable[str]:
    for state, words in (
        ("to repair", "to repair"),
        ("made", "made, but not looked at by somebody else"),
        ("open", "not written down"),
    ):
        own = [r for r in rows if r.state == state]
        if own:
            kinds = {"weld": "welds", "bolts": "bolted joints"}
            counts = ((sum(r.kind == kind for r in own), name) for kind, name in kinds.items())
            yield f"{' and '.join(f'{n} {name}' for n, name in counts if n)} {words}"
