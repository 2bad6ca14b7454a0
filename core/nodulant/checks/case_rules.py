"""Factors of safety of a rail in every case, judged station by station against the limit and against stock there.

A case fails where the factor is below the limit and more than 1 % below stock's at that station, 10 %
where nothing was taken out or softened: a stiffer part always draws more, and that alone is no fault.
Where stock is as low, that is stock's own. It also fails where its worst place is used 10 % harder than
stock's own worst place and the factor is below 2.25. Where the depth of a hole bounds the twist, only
yield itself is the limit, and no worst place is compared.
"""

from dataclasses import dataclass

import numpy as np

from nodulant.base.arrays import Columns, Mask
from nodulant.checks.capacity_rules import weakened_rows
from nodulant.checks.check import (
    BesideStock,
    Changes,
    Check,
    Governs,
    Stage,
    State,
    Subject,
    Verdict,
    Why,
    not_computed,
    told,
)
from nodulant.checks.where import cause_at, place_words
from nodulant.loads.cases import BESIDE, Case
from nodulant.materials.steel import SAFETY_ON_YIELD
from nodulant.parts.limit import Limit
from nodulant.parts.limits import find_limit
from nodulant.parts.sides import LEFT_RIGHT, AxleName, Side
from nodulant.strength.rail import RailComparison
from nodulant.strength.rail_case import RailCase, factor_of
from nodulant.strength.space import FrameComparison
from nodulant.strength.twist import Twist
from nodulant.strength.typed_mounts import TypedMounts
from nodulant.survey.vehicle import Survey
from nodulant.units.inline import as_amount
from nodulant.units.said import Kind, Said, said

SAME, DRAWN = 0.99, 1 / 1.1
"""A factor this share of stock's, or more, is as good as stock's: where the rail was weakened, and elsewhere."""
ACCURATE = 0.99
"""A solved frame is right to 1 %: a factor within that of its limit is close, not failed."""
WORKED = 2.0 / 3.0
"""Use of yield/1.5 beyond which a rail's worst place is compared with stock's worst place."""
CLOSE, CLOSE_IN_A_HOLE = 1.05, 1.2
GUESSED_LEAST = 0.7
"""While an axle's roll stiffness is a guess, a factor in a hole from here to the limit is close, and asks for it."""


@dataclass(frozen=True)
class Factors:
    """Factors of safety of one rail at ``x``; stock's at the same stations, or None where it cannot be known."""

    x: Columns
    own: Columns
    stock: Columns | None
    stock_x: Columns | None = None
    """Every station of the stock rail, and its factors there."""
    stock_whole: Columns | None = None
    weakened: Mask | None = None
    """Stations where stock metal was taken or softened; all of them where left out."""


@dataclass(frozen=True)
class Judged:
    """The class of one case on one rail and the row that governs it."""

    verdict: Verdict
    row: int
    peak: float | None = None
    """The worst place's use over stock's, where that is what fails."""


def judge_factors(f: Factors, limit: float, *, peak: float | None = None, close: float = CLOSE) -> Judged:
    """The class of one case, see the head of this module; ``peak`` is how much harder than stock's the worst place may be worked."""
    every: Mask = np.ones(len(f.own), dtype=bool)
    stock = np.full_like(f.own, np.inf) if f.stock is None else f.stock
    below = f.own < np.where(every if f.weakened is None else f.weakened, SAME, DRAWN) * stock
    low = f.own < ACCURATE * limit
    least = int(np.argmin(f.own))

    def worst(among: Mask) -> int:
        return int(np.argmin(np.where(among, f.own, np.inf)))

    if (low & below).any():
        return Judged("fails", worst(low & below))
    if peak is not None and f.stock_whole is not None and SAFETY_ON_YIELD / f.own[least] > WORKED:
        ratio = float(f.stock_whole.min() / f.own[least])
        if ratio > peak:
            return Judged("fails", least, ratio)
    if (low & (stock < limit)).any():
        return Judged("stock itself", worst(low & (stock < limit)))
    near = (f.own < limit * close) & (f.own < SAME * stock)
    if near.any():
        return Judged("close", worst(near))
    return Judged("holds", least)


def missing_case_checks(
    cases: tuple[Case, ...],
    missing: tuple[str, ...],
    changes: Changes,
    reason: str = "",
    state: State = "planned",
    side: str = "both",
) -> list[Check]:
    """All checks of ``cases`` as 'not computed', one of both rails each unless it is one side's."""
    stage: Stage = "prove" if state == "as-built" else "cut"
    out = [
        not_computed(
            _rule(case, None),
            Subject(subject=f"rail-{case.id}", side=side, state=state, stage=stage),
            missing,
            changes,
            case.name,
        )
        for case in cases
    ]
    return [check.model_copy(update={"remedy": reason}) for check in out]


def place_checks(cases: tuple[Case, ...], changes: Changes) -> list[Check]:
    """One row for every case that waits for its place; it blocks nothing else."""
    out = []
    for case in cases:
        subject = Subject(subject=case.id.removesuffix("-front"), side=case.axle or "both", cause="places wanted")
        field = "jacks" if case.id.startswith("jack") else "stops"
        check = not_computed("place-wanted", subject, (f"/design/loads/{field}",), changes)
        words = f"Say {case.place}, and '{case.name}' is computed."
        out.append(
            check.model_copy(
                update={"title": f"{case.name}: not said {case.place}", "remedy": words, "cause": "places wanted"}
            )
        )
    return out


def bump_check(rail: RailComparison, survey: Survey, bump: Case, missing: tuple[str, ...], changes: Changes) -> Check:
    """One rail under the symmetric bump; standing is the same at a third."""
    stage: Stage = "prove" if rail.state.name == "as-built" else "cut"
    if rail.loading is None:
        return missing_case_checks((bump,), missing, changes, state=rail.state.name, side=rail.side)[0]
    own, stock = (factor_of(bump.factor * u.working) for u in (rail.loading.use_state, rail.loading.use_stock))
    found = Factors(rail.x, own, stock, rail.x, stock, weakened_rows(rail, survey, rail.x))
    moment, p = np.abs(rail.loading.state.moment), rail.built.properties
    strength = np.minimum(p.working_top, p.working_bottom)

    def why(row: int) -> Why:
        values = {"yield_moment": float(strength[row]), "factor": bump.factor, "moment": max(float(moment[row]), 1e-9)}
        words = f"{bump.basis}; moment at 1 g in one rail, N mm; yield moment of the weaker fibre"
        if moment[row] * bump.factor * 1e3 <= strength[row]:
            return Why(formula="most", values={"most": float(own[row])}, words=words)
        return Why(formula="yield_moment / (factor * moment)", values=values, words=words)

    subject = Subject(subject="rail-bump", side=rail.side, state=rail.state.name, stage=stage)
    peak = find_limit("use-peak", changes)[0].value
    judged = judge_factors(found, find_limit("use-limit", changes)[0].value, peak=peak)
    return _told(rail, survey, bump, found, judged, subject, why(judged.row), None, changes)


def space_checks(
    frames: FrameComparison, rails: dict[Side, RailComparison], survey: Survey, changes: Changes
) -> list[Check]:
    """Both rails in every case of the frame in space."""
    checks: list[Check] = []
    weak = {s: weakened_rows(rails[s], survey, next(iter(frames.planned.cases.values()))[s].x) for s in LEFT_RIGHT}
    for case in frames.asked:
        if frames.missing[case.id]:
            reason = _push_words(frames.push_wanted[case.id])
            checks += missing_case_checks((case,), frames.missing[case.id], changes, reason)
            continue
        own = _with_mounts(case, frames.mounts)
        for side in LEFT_RIGHT:
            before = frames.stock.cases.get(case.id, {}).get(side)
            after, twist = frames.planned.cases[case.id][side], frames.planned.twist if case.id == "twist" else None
            checks.append(_space_check(rails[side], weak[side], survey, own, before, after, twist, changes))
    return checks


def _with_mounts(case: Case, mounts: TypedMounts) -> Case:
    """The case, whose basis names the mounts that twist the rails in it by the force typed for them."""
    typed = (*(mounts.springs if case.id == BESIDE else ()), *(mounts.bars if "corner" in (case.id, *case.of) else ()))
    names = " and ".join(f"'{name}'" for name in dict.fromkeys(mount.name for mount in typed))
    if not names:
        return case
    return case.model_copy(update={"basis": f"{case.basis}; with the torque of the force typed for {names}"})


def _push_words(axles: tuple[AxleName, ...]) -> str:
    """What to do about axles of which nothing says how they push along on the frame."""
    if not axles:
        return ""
    one = f"The {axles[0]} axle stands" if len(axles) == 1 else "Both axles stand"
    return (
        f"{one} on one seat a side, which takes no push: describe the suspension, or say where its links or arms are."
    )


def _rule(case: Case, twist: Twist | None) -> str:
    if case.id == "bump":
        return "use-limit"
    if twist is not None and twist.bound == "hole":
        return "twist-limit"
    return "accident-use" if case.accident else "case-limit"


def _space_check(
    rail: RailComparison,
    weak: Mask,
    survey: Survey,
    case: Case,
    before: RailCase | None,
    after: RailCase,
    twist: Twist | None,
    changes: Changes,
) -> Check:
    limit = find_limit(_rule(case, twist), changes)[0]
    in_a_hole = limit.id == "twist-limit"
    stock = None if before is None else np.interp(after.x, before.x, _factor(case, before))
    found = Factors(
        after.x,
        _factor(case, after),
        stock,
        None if before is None else before.x,
        None if before is None else _factor(case, before),
        weak,
    )
    peak = None if case.accident or in_a_hole else find_limit("use-peak", changes)[0].value
    close = CLOSE_IN_A_HOLE if in_a_hole else CLOSE
    judged = judge_factors(found, limit.value, peak=peak, close=close)
    guessed = bool(in_a_hole and twist and twist.guessed)
    if guessed and judged.verdict == "fails" and found.own[judged.row] >= GUESSED_LEAST * limit.value:
        judged = Judged("close", judged.row)
    f, row = after.forces, judged.row
    words = (
        f"{case.basis}; von Mises, worst fibre and wall together; moment {as_amount('moment', f.moment[row])}, across"
        f" {as_amount('moment', f.side_moment[row])}, torque {as_amount('moment', f.torque[row])},"
        f" shear {as_amount('force', f.shear[row])}, bimoment {as_amount('bimoment', f.bimoment[row])}"
    )
    why = Why(formula="1.5 / use", values={"use": SAFETY_ON_YIELD / float(found.own[row])}, words=words)
    subject = Subject(subject=f"rail-{case.id}", side=rail.side)
    check = _told(rail, survey, case, found, judged, subject, why, twist, changes)
    if guessed and check.verdict == "close":
        axles = " and ".join(twist.guessed) if twist else ""
        words = f"The {axles} springs' roll stiffness is a guess: their rates and places decide this."
        return check.model_copy(update={"remedy": words})
    return check


def _factor(case: Case, rail: RailCase) -> Columns:
    """Factors of safety; in an accident warping stress counts as what evens out by itself."""
    return rail.primary_factor if case.accident else rail.factor


def _told(
    rail: RailComparison,
    survey: Survey,
    case: Case,
    f: Factors,
    judged: Judged,
    subject: Subject,
    why: Why,
    twist: Twist | None,
    changes: Changes,
) -> Check:
    row = judged.row
    own, place = float(f.own[row]), float(f.x[row])
    beside = _beside(f, row)
    limit, change = find_limit("use-peak" if judged.peak is not None else _rule(case, twist), changes)
    value = own if judged.peak is None else judged.peak
    if judged.peak is not None:
        why = Why(formula="own / stock", values={"own": 1.0 / own, "stock": 1.0 / own / judged.peak}, words=why.words)
    cause = "stock itself" if judged.verdict == "stock itself" else cause_at(rail, survey, place)
    own_subject = Subject(subject.subject, subject.side, subject.state, subject.stage, cause)
    check = told(
        limit,
        own_subject,
        value,
        why,
        judged.verdict,
        changed=change is not None,
        governs=Governs(case=case.id, station_mm=place),
        title=f"{place_words(rail, survey, place)}, {_short(case)}",
        remedy=_remedy(judged, limit),
        said=_said(own, place, beside, judged, twist),
        stock=beside,
    )
    # a case is one row whatever rule of it governs
    return check.model_copy(update={"id": own_subject.id_for(_rule(case, None))})


def _short(case: Case) -> str:
    return case.name[0].lower() + case.name[1:]


def _beside(f: Factors, row: int) -> BesideStock | None:
    if f.stock is None or f.stock_whole is None or f.stock_x is None:
        return None
    worst = int(np.argmin(f.stock_whole))
    return BesideStock(here=float(f.stock[row]), worst=float(f.stock_whole[worst]), worst_mm=float(f.stock_x[worst]))


def _said(own: float, place: float, beside: BesideStock | None, judged: Judged, twist: Twist | None) -> Said:
    worked = 1.0 / own
    if judged.verdict == "stock itself":
        return said("stock itself has a factor of {factor} at {place}", factor=(own, "factor"), place=(place, "length"))
    text = "factor {factor}, worked to {worked} of yield"
    told_: dict[str, tuple[float, Kind]] = {"factor": (own, "factor"), "worked": (worked, "share")}
    if beside is not None and beside.here is not None:
        text += "; stock {stock} here, at its own worst {worst} at {where}"
        told_ |= {
            "stock": (beside.here, "factor"),
            "worst": (beside.worst, "factor"),
            "where": (beside.worst_mm, "length"),
        }
    elif beside is None:
        text += "; stock's own is not surveyed"
    if twist is not None:
        text += "; the frame twists {angle} under {couple}, bounded by " + (
            "the hole's depth of {hole}" if twist.bound == "hole" else "the wheel that lifts off"
        )
        told_ |= {
            "angle": (twist.angle_deg, "angle"),
            "couple": (twist.couple_nmm, "moment"),
            "hole": (twist.hole_mm, "length"),
        }
    return said(text, **told_)


def _remedy(judged: Judged, limit: Limit) -> str:
    if judged.verdict != "fails":
        return ""
    if judged.peak is not None:
        return "The planned rail's worst place is worked harder than stock's: strengthen it, or move the load."
    return (
        "Bring the section up here, move the seat so that less arrives, or carry the load beside it with a crossmember."
    )
