"""A coilover fitted to what is wanted: rate and coil from generic stock, upper mount where the stroke is shared well.

Rate from the wanted ride frequency: k = (m (2 pi f)^2/1000 - F dMR/dz)/MR^2, rounded to the
stock's step; then the shortest coil that neither closes in bump nor comes loose in droop; the
upper mount moves along the damper's own line until the wanted share of the stroke is used.
"""

import math
from typing import Annotated

import numpy as np
from pydantic import Field

from nodulant.axles.points import HardPoint, on_axle
from nodulant.axles.springs import Coilover
from nodulant.axles.suspension import Suspension
from nodulant.base.errors import NotSolvable
from nodulant.base.model import Frozen
from nodulant.loads.beam import G
from nodulant.survey.vehicle import Seat, Survey
from nodulant.suspension.spring_motion import coil_seat
from nodulant.suspension.study import Study, study
from nodulant.units.inline import as_length

RATE_STEP, RATES = 2.0, (8.0, 200.0)
LENGTHS_MM = tuple(range(150, 501, 25))
CLOSED_SHARE = 0.31
"""Closed length of a generic coil over its free length (common practice, about a third)."""
LEFT_MM = 6.0
ROUNDS = 4


class CoilWish(Frozen):
    """Wanted ride frequency, Hz, and share of the damper's stroke used at ride height, %."""

    frequency_hz: Annotated[float, Field(gt=0.4, le=4)] = 1.3
    used_percent: Annotated[float, Field(ge=10, le=90)] = 45.0


class FoundCoil(Frozen):
    """The suspension with its coilover fitted, what it gives, and what still does not fit."""

    suspension: Suspension | None
    rate_n_per_mm: float = 0.0
    free_mm: float = 0.0
    raised_mm: float = 0.0
    """How far the upper mount moved up; down negative."""
    frequency_hz: float = 0.0
    used_percent: float = 0.0
    reason: str = ""
    fails: tuple[str, ...] = ()
    """Its own rows that fail in the design: it is not offered then."""


def fit_coilover(
    survey: Survey,
    suspension: Suspension,
    seats: tuple[Seat, ...],
    towards_rail_mm: float,
    wish: CoilWish,
) -> FoundCoil:
    """Fit the coilover of ``suspension``; raises NotSolvable where it has none or the corner's weight is not known."""
    if not isinstance(suspension.springs, Coilover):
        raise NotSolvable("there is no coilover to fit", field="springs", found="none", acceptable="a coilover")
    own = suspension
    for _ in range(ROUNDS):
        own = _raised(_studied(survey, own, seats, towards_rail_mm), wish)
    s = _studied(survey, own, seats, towards_rail_mm)
    rate = _rate(s, wish)
    own = _with(own, rate_n_per_mm=rate)
    s = _studied(survey, own, seats, towards_rail_mm)
    free = _length(s, rate)
    if free is None:
        return FoundCoil(
            suspension=None,
            rate_n_per_mm=rate,
            reason=f"no coil of {rate:g} N/mm up to {as_length(LENGTHS_MM[-1])} stays open in bump and seated in droop: less travel, or a helper spring",
        )
    own = _with(own, free_mm=free, block_mm=round(CLOSED_SHARE * free, 1))
    s = _studied(survey, own, seats, towards_rail_mm)
    return _found(suspension, own, s)


def _studied(survey: Survey, own: Suspension, seats: tuple[Seat, ...], towards: float) -> Study:
    s = study(survey, own, seats, towards, 1.0)
    if s.motion is None:
        reason = s.trouble.message if s.trouble else "the hubs are not known"
        raise NotSolvable(
            f"the linkage does not move: {reason}", field="layout", found="nothing", acceptable="a linkage"
        )
    if s.springs is None or s.springs.force is None or s.vehicle.axle_n is None:
        raise NotSolvable(
            "the weight on this corner is not known",
            field="/survey/masses",
            found="nothing",
            acceptable="masses and seats",
        )
    return s


def _coil(own: Suspension) -> Coilover:
    if not isinstance(own.springs, Coilover):
        raise ValueError("only a coilover is fitted")
    return own.springs


def _with(own: Suspension, **update: float) -> Suspension:
    return own.model_copy(update={"springs": _coil(own).model_copy(update=update)})


def _raised(s: Study, wish: CoilWish) -> Suspension:
    """The upper mount moved along the damper's line until the wanted stroke is used at ride height."""
    coil, own = _coil(s.suspension), s.suspension
    if s.setting is None or s.springs is None:
        raise ValueError("a study that moves has its setting")
    wanted = coil.open_mm - wish.used_percent / 100 * (coil.open_mm - coil.closed_mm)
    low, up = np.array(on_axle(coil.lower, s.setting.hub)), np.array(coil.upper.xyz())
    line = up - low
    at = low + line / np.linalg.norm(line) * wanted
    point = HardPoint(x_mm=round(float(at[0]), 2), y_mm=round(float(at[1]), 2), z_mm=round(float(at[2]), 2))
    return own.model_copy(update={"springs": coil.model_copy(update={"upper": point})})


def _rate(s: Study, wish: CoilWish) -> float:
    if s.springs is None or s.springs.force is None or s.motion is None or s.vehicle.axle_n is None:
        raise ValueError("a study that moves has its springs")
    mass, ratio = s.vehicle.axle_n / 2 / G, float(s.springs.ratio[s.ride])
    rows = np.flatnonzero(s.motion.there)
    slope = np.gradient(s.springs.ratio[rows], s.motion.travel[rows]) if len(rows) > 1 else np.zeros(len(rows))
    here = float(slope[int(np.flatnonzero(rows == s.ride)[0])])
    wheel = mass * (2 * math.pi * wish.frequency_hz) ** 2 / 1000
    exact = (wheel - float(s.springs.force[s.ride]) * here) / ratio**2
    each = exact / _coil(s.suspension).count
    return float(np.clip(round(each / RATE_STEP) * RATE_STEP, *RATES))


def _length(s: Study, rate: float) -> float | None:
    """The shortest coil of the stock that stays open in bump and seated in droop; None where none does."""
    if s.springs is None:
        return None
    coil = _coil(s.suspension)
    for free in LENGTHS_MM:
        trial = coil.model_copy(update={"rate_n_per_mm": rate, "free_mm": float(free), "block_mm": CLOSED_SHARE * free})
        seat = coil_seat(trial, s.springs, s.ride)
        if seat is None:
            return None
        loose = seat.compressed - float(np.nanmax(s.springs.length) - s.springs.length[s.ride])
        inside = free - seat.compressed < float(s.springs.length[s.ride])
        if float(np.nanmin(seat.left_to_block)) >= LEFT_MM and loose >= 0 and inside:
            return float(free)
    return None


def _found(before: Suspension, own: Suspension, s: Study) -> FoundCoil:
    coil = _coil(own)
    if s.springs is None or s.springs.frequency_hz is None:
        raise ValueError("a study that moves has its springs")
    stroke = coil.open_mm - coil.closed_mm
    return FoundCoil(
        suspension=own,
        rate_n_per_mm=coil.rate_n_per_mm,
        free_mm=coil.free_mm,
        raised_mm=coil.upper.z_mm - _coil(before).upper.z_mm,
        frequency_hz=float(s.springs.frequency_hz[s.ride]),
        used_percent=100 * (coil.open_mm - float(s.springs.length[s.ride])) / stroke,
    )
