"""Checks of what was put in where a rail was cut through, under the frame solver's forces."""

from dataclasses import dataclass

import numpy as np

from nodulant.checks.check import Check, Governs, Subject, Why, judge, not_computed
from nodulant.checks.rail_rules import Changes
from nodulant.loads.cases import CASES, Case, in_force
from nodulant.loads.frame3d import PieceForces
from nodulant.loads.ladder import STANDING
from nodulant.loads.plan import LoadPlan
from nodulant.materials.steel import SAFETY_ON_YIELD
from nodulant.parts.joint import Joint
from nodulant.strength.rail import RailComparison
from nodulant.strength.space import FrameComparison

FORCED = ("joint-use", "joint-panel")


@dataclass(frozen=True)
class _Worst:
    """The worst case of an inserted piece: its use and forces."""

    use: float
    case: Case
    forces: PieceForces


def joint_checks(
    joints: tuple[Joint, ...],
    rails: dict[str, RailComparison],
    frames: FrameComparison | None,
    plan: LoadPlan,
    changes: Changes,
) -> list[Check]:
    """Capacities against the weaker rail beside it, and use under the worst case; 'not computed' without the frame."""
    checks: list[Check] = []
    for joint in joints:
        subject = Subject(subject=f"{joint.operation}-{joint.kind}", side=joint.side)
        checks += _capacities(joint, rails[joint.side], subject, changes)
        rules = (*FORCED, "joint-overlap") if joint.kind == "overlap" else FORCED
        if frames is None:
            checks += [
                not_computed(rule, subject, ("/survey/crossmembers", "/survey/masses"), changes) for rule in rules
            ]
            continue
        checks += _forced(joint, frames, plan, subject, changes)
    return checks


def _capacities(joint: Joint, rail: RailComparison, subject: Subject, changes: Changes) -> list[Check]:
    """The stock rail ahead of the cut and behind it; the weaker one is to be equalled."""
    beside = [int(np.argmin(np.abs(rail.x - x))) for x in (joint.at_mm, joint.behind_mm)]
    p, t = rail.stock.properties, rail.stock.torsion
    bending = min(min(float(p.reference_top[i]), float(p.reference_bottom[i])) for i in beside)
    torsion = min(float(t.j[i]) for i in beside)
    own = joint.s_y * joint.yield_reference_mpa
    here = Governs(station_mm=joint.at_mm)
    return [
        judge(
            "joint-bending",
            subject,
            own / bending,
            Why(
                formula="piece / rail",
                values={"piece": own, "rail": bending},
                words="yield moments, N mm; the weaker rail beside the cut, as stock",
            ),
            changes,
            governs=here,
            remedy="A deeper post or riser, thicker walls, or side plates over it.",
        ),
        judge(
            "joint-torsion",
            subject,
            joint.j / torsion,
            Why(
                formula="piece / rail",
                values={"piece": joint.j, "rail": torsion},
                words="Saint-Venant J, mm4; the weaker rail beside the cut, as stock",
            ),
            changes,
            governs=here,
            remedy="A closed box, or thicker walls.",
        ),
    ]


def _forced(joint: Joint, frames: FrameComparison, plan: LoadPlan, subject: Subject, changes: Changes) -> list[Check]:
    worst = max((_Worst(_use(joint, f), case, f) for case, f in _all_cases(joint, frames, plan)), key=lambda w: w.use)
    here = Governs(case=worst.case.id, station_mm=joint.at_mm)
    f = worst.forces
    values = {
        "moment": f.moment,
        "modulus": joint.s_y,
        "across": f.side_moment,
        "modulus_across": joint.s_z,
        "axial": f.axial,
        "area": joint.area,
        "yield_": joint.yield_mpa,
    }
    checks = [
        judge(
            "joint-use",
            subject,
            worst.use,
            Why(
                formula="1.5 * (moment / modulus + across / modulus_across + axial / area) / yield_",
                values=values,
                words=f"{worst.case.name}; N mm, mm3, N; yield beside a weld",
            ),
            changes,
            governs=here,
            detail=worst.case.name,
            remedy="A deeper or thicker piece.",
        )
    ]
    if joint.panel_mm2 > 0:
        checks.append(_panel(joint, worst, subject, changes))
    if joint.kind == "overlap":
        checks.append(_overlap(joint, worst, subject, changes))
    return checks


def _panel(joint: Joint, worst: _Worst, subject: Subject, changes: Changes) -> Check:
    """The flange couple on the corner's sheet, less what a gusset takes."""
    couple, relief = joint.panel_force_n(worst.forces.moment)
    values = {"couple": couple, "relief": relief, "panel": joint.panel_mm2, "yield_": joint.yield_mpa}
    gusset = "; relief is what the gusset takes of it" if joint.gusset_mm > 0 else ""
    return judge(
        "joint-panel",
        subject,
        (couple - relief) / joint.panel_mm2 / (0.4 * joint.yield_mpa),
        Why(
            formula="(couple - relief) / panel / (0.4 * yield_)",
            values=values,
            words=f"{worst.case.name}: flange couple M/h, N, over the corner's sheet, mm2{gusset}",
        ),
        changes,
        governs=Governs(case=worst.case.id, station_mm=joint.at_mm),
        detail=worst.case.name,
        remedy="Gussets in both corners, side plates over the corner, or thicker walls of the post.",
    )


def _overlap(joint: Joint, worst: _Worst, subject: Subject, changes: Changes) -> Check:
    """Couple M/l on the welds of each half of the overlap, and the shear over all of them."""
    f = worst.forces
    pull, shear = f.moment / joint.lever_mm, f.shear + f.axial
    load = 4 * pull / joint.line_mm + shear / joint.line_mm
    values = {
        "moment": f.moment,
        "lever": joint.lever_mm,
        "line": joint.line_mm,
        "shear": shear,
        "capacity": joint.line_n_per_mm,
    }
    return judge(
        "joint-overlap",
        subject,
        load / joint.line_n_per_mm,
        Why(
            formula="(4 * moment / lever / line + shear / line) / capacity",
            values=values,
            words=f"{worst.case.name}; N/mm on both long welds, the couple on half of them at either end",
        ),
        changes,
        governs=Governs(case=worst.case.id, station_mm=joint.at_mm),
        detail=worst.case.name,
        remedy="A longer overlap, a bigger leg, or bolts and plates besides.",
    )


def _use(joint: Joint, f: PieceForces) -> float:
    along = f.moment / joint.s_y + f.side_moment / joint.s_z + f.axial / joint.area
    return SAFETY_ON_YIELD * along / joint.yield_mpa


def _all_cases(joint: Joint, frames: FrameComparison, plan: LoadPlan) -> list[tuple[Case, PieceForces]]:
    ladder, piece = frames.planned.ladder, (joint.operation, joint.side, joint.at_mm)
    stand = ladder.piece(STANDING, piece)
    out = [(case, _sum(stand, stand, case.factor - 1.0)) for case in in_force(CASES, plan)]
    for case in frames.asked:
        if ladder.has(case.id):
            factor = case.factor * frames.couple_nmm if case.id == "twist" else 1.0
            base = stand if case.id != "jack" else PieceForces(0, 0, 0, 0, 0)
            out.append((case, _sum(base, ladder.piece(case.id, piece), factor)))
    return out


def _sum(a: PieceForces, b: PieceForces, factor: float) -> PieceForces:
    """Magnitudes added: never too low."""
    return PieceForces(
        a.axial + factor * b.axial,
        a.shear + factor * b.shear,
        a.moment + factor * b.moment,
        a.side_moment + factor * b.side_moment,
        a.torque + factor * b.torque,
    )
