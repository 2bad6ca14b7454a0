"""Checks of the long welds of plates under the frame's forces."""

from nodulant.checks.check import Changes, Check, Governs, Subject, Why, judge, not_computed
from nodulant.loads.cases import CASES, in_force
from nodulant.loads.plan import LoadPlan
from nodulant.strength.rail import RailComparison
from nodulant.strength.seams import SeamFlow, seam_flows
from nodulant.strength.space import FrameComparison


def seam_checks(
    rail: RailComparison, frames: FrameComparison | None, plan: LoadPlan, missing: tuple[str, ...], changes: Changes
) -> list[Check]:
    """One check for every welded plate of one rail; 'not computed' without the frame in space, which lacks ``missing``."""
    if rail.loading is None or frames is None:
        layout = rail.built.layout
        welded = {(p.operation, p.role) for p in (layout.plates if layout else ()) if p.line_n_per_mm > 0}
        return [not_computed("seam", _subject(rail, *key), missing, changes, detail=key[1]) for key in sorted(welded)]
    return [_judged(rail, flow, changes) for flow in seam_flows(rail, frames, in_force(CASES, plan))]


def _subject(rail: RailComparison, operation: str, role: str) -> Subject:
    return Subject(subject=f"{operation}-{role}", side=rail.side, cause=f"seams {operation}")


def _judged(rail: RailComparison, flow: SeamFlow, changes: Changes) -> Check:
    values = {"upright": flow.upright, "across": flow.across, "torque": flow.torque, "line": flow.line}
    return judge(
        "seam",
        _subject(rail, flow.operation, flow.role),
        flow.use,
        Why(
            formula="(upright + across + torque) / line",
            values=values,
            words=f"{flow.case.name}: N/mm on one of its two long welds, from shear up and across and from torque round the cell; stitches count by their share of the length",
        ),
        changes,
        governs=Governs(case=flow.case.id, station_mm=flow.station_mm),
        detail=flow.role,
        remedy="A bigger leg, a full seam in place of stitches, or a thicker plate: until then it counts for nothing.",
    )
