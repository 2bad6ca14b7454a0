"""Checks of what was put in where a rail was cut through, under the frame solver's forces."""

from dataclasses import dataclass

import numpy as np

from nodulant.checks.check import Changes, Check, Governs, Subject, Verdict, Why, judge, not_computed, told
from nodulant.loads.cases import CASES, Case, in_force
from nodulant.loads.frame3d import PieceForces
from nodulant.loads.ladder import STANDING
from nodulant.loads.plan import LoadPlan
from nodulant.materials.steel import SAFETY_ON_YIELD, UNKNOWN
from nodulant.parts.joint import Joint
from nodulant.parts.limits import find_limit
from nodulant.strength.rail import RailComparison
from nodulant.strength.rail_case import MOST
from nodulant.strength.space import ALONE, FrameComparison
from nodulant.units.said import said

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
        subject = Subject(subject=f"{joint.operation}-{joint.kind}", side=joint.side, cause=f"piece {joint.operation}")
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
    """The stock rail ahead of the cut and behind it; the weaker one is to be equalled, in torsion where it is closed."""
    beside = [int(np.argmin(np.abs(rail.x - x))) for x in (joint.at_mm, joint.behind_mm)]
    p, t = rail.stock.properties, rail.stock.torsion
    bending = min(min(float(p.reference_top[i]), float(p.reference_bottom[i])) for i in beside)
    own_yield = joint.yield_reference_mpa
    if rail.stock.whole.rail.steel.id == UNKNOWN:  # nothing may be stronger than steel that nobody knows
        own_yield = min(own_yield, rail.stock.whole.rail.yields[0])
    own = joint.s_y * own_yield
    words = "yield moments, N mm; the weaker rail beside the cut, as stock"
    out = [_against(joint, "joint-bending", own, bending, words, subject, changes)]
    if all(t.closed[i] for i in beside):
        torsion = min(float(t.j[i]) for i in beside)
        words = "Saint-Venant J, mm4; the weaker rail beside the cut, as stock"
        out.append(_against(joint, "joint-torsion", joint.j, torsion, words, subject, changes))
    return out


WEAKER_REMEDY = {
    "joint-bending": "A deeper post or riser, thicker walls, or side plates over it.",
    "joint-torsion": "A closed box, or thicker walls.",
}


def _against(joint: Joint, rule: str, own: float, rail: float, words: str, subject: Subject, changes: Changes) -> Check:
    """Weaker below the limit, gutted below the least that may be left."""
    limit, change = find_limit(rule, changes)
    gutted = find_limit("capacity-least", changes)[0].value
    ratio = own / rail
    verdict: Verdict = "fails" if ratio < gutted else "weaker" if ratio < limit.value - 1e-9 else "holds"
    return told(
        limit,
        subject,
        ratio,
        Why(formula="piece / rail", values={"piece": own, "rail": rail}, words=words),
        verdict,
        changed=change is not None,
        governs=Governs(station_mm=joint.at_mm),
        remedy=WEAKER_REMEDY[rule] if verdict != "holds" else "",
        said=said("{ratio} of the weaker rail beside it", ratio=(ratio, "ratio")),
    )


def _forced(joint: Joint, frames: FrameComparison, plan: LoadPlan, subject: Subject, changes: Changes) -> list[Check]:
    found = (_Worst(_use(joint, f), case, f) for case, f in _all_cases(joint, frames, plan))
    worst = max(found, key=lambda w: w.use / SAFETY_ON_YIELD if w.case.accident else w.use)
    rule = "accident-use" if worst.case.accident else "joint-use"
    here = Governs(case=worst.case.id, station_mm=joint.at_mm)
    f = worst.forces
    values = {
        "moment": f.moment,
        "modulus": joint.s_y,
        "across": f.side_moment,
        "modulus_across": joint.s_z,
        "axial": f.axial,
        "area": joint.area,
        "shear": f.shear,
        "webs": max(joint.panel_mm2, 1e-9),
        "torque": f.torque,
        "modulus_torsion": joint.w_t,
        "yield_": joint.yield_mpa,
    }
    limit = find_limit(rule, changes)[0]
    factor = min(SAFETY_ON_YIELD / max(worst.use, 1e-9), MOST)
    why = Why(
        formula="yield_ / ((moment / modulus + across / modulus_across + axial / area) ** 2"
        " + 3 * (shear / webs + torque / modulus_torsion) ** 2) ** 0.5",
        values=values,
        words=f"{worst.case.name}; N mm, mm3, N; yield beside a weld",
    )
    if factor >= MOST:
        why = Why(formula="most", values={"most": MOST}, words=why.words)
    check = judge(
        rule,
        subject,
        factor,
        why,
        changes,
        governs=here,
        detail=worst.case.name,
        remedy="A deeper or thicker piece.",
    )
    told_ = said(
        "factor {factor}, worked to {worked} of yield; wanted {wanted}",
        factor=(factor, "factor"),
        worked=(1.0 / factor, "share"),
        wanted=(limit.value, "factor"),
    )
    title = f"Inserted piece, {worst.case.name[0].lower()}{worst.case.name[1:]}"
    checks = [check.model_copy(update={"said": told_, "title": title})]
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
    """The couple on two lines as elastic lines, 3 M/l^2 at their ends, and the shear over all of them."""
    f = worst.forces
    pull, shear = f.moment / joint.lever_mm, f.shear + f.axial
    load = 6 * pull / joint.line_mm + shear / joint.line_mm
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
            formula="(6 * moment / lever / line + shear / line) / capacity",
            values=values,
            words=f"{worst.case.name}; N/mm at the ends of both long welds, elastic: 3 M/l^2 on each of two lines",
        ),
        changes,
        governs=Governs(case=worst.case.id, station_mm=joint.at_mm),
        detail=worst.case.name,
        remedy="A longer overlap, a bigger leg, or bolts and plates besides.",
    )


def _use(joint: Joint, f: PieceForces) -> float:
    """Von Mises use of yield/1.5, bending, shear and torque together."""
    along = f.moment / joint.s_y + f.side_moment / joint.s_z + f.axial / joint.area
    across = f.shear / max(joint.panel_mm2, 1e-9) + f.torque / joint.w_t
    return float(SAFETY_ON_YIELD * np.hypot(along, 3**0.5 * across) / joint.yield_mpa)


def _all_cases(joint: Joint, frames: FrameComparison, plan: LoadPlan) -> list[tuple[Case, PieceForces]]:
    ladder, piece = frames.planned.ladder, (joint.operation, joint.side, joint.at_mm)
    stand, nothing = ladder.piece(STANDING, piece), PieceForces(0, 0, 0, 0, 0)
    out = [(case, _sum(stand, stand, case.factor - 1.0)) for case in in_force(CASES, plan)]
    bump = out[-1][0].factor - 1.0
    for case in frames.asked:
        if case.id not in frames.planned.cases:
            continue
        total = nothing if case.id in ALONE else stand
        for share, part in ((case.factor, part) for part in case.of) if case.of else ((1.0, case.id),):
            if part == "bump":
                total = _sum(total, stand, share * bump)
            else:
                couple = frames.planned.twist.couple_nmm if part == "twist" else 1.0
                total = _sum(total, ladder.piece(part, piece), share * couple)
        out.append((case, total))
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
