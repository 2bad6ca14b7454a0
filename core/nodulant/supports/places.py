"""Places for stands that hold every body of a job through every cut: a pair under each rail of every part."""

import itertools
import math
from collections.abc import Sequence
from typing import Literal

from nodulant.frame.columns import rail_at
from nodulant.parts.sides import LEFT_RIGHT, Side
from nodulant.supports.bodies import Body, Situation
from nodulant.supports.support import Support
from nodulant.supports.tipping import LEAST_MM, SHARE
from nodulant.survey.vehicle import Survey

Kind = Literal["stand", "leg"]
STEP_MM, CLEAR_MM, LEG_MM = 50.0, 150.0, 50.0
"""Between places that are tried; from a cut to a stand, clear of plates, braces and hands, and to a leg that is welded on (common practice)."""
WAYS: tuple[tuple[Kind, float], ...] = (("stand", CLEAR_MM), ("leg", LEG_MM))
STOCK_KG = (1000.0, 1500.0, 3000.0, 6000.0)
"""Ratings that stands are sold with, each (common practice)."""


def places(survey: Survey, found: Sequence[Situation]) -> tuple[Support, ...]:
    """Pairs of stands, the smallest parts first; a part that nothing holds gets none, and is left to legs or a tie.

    What already stands under a larger part counts for it.
    """
    cuts = sorted({x for s in found if s.operation for b in s.bodies for x in (b.start_mm, b.end_mm)})
    every = [b for s in found for b in s.bodies]
    ends = sorted({(b.start_mm, b.end_mm) for b in every}, key=lambda e: e[1] - e[0])
    at: dict[float, Kind] = {}
    for start, end in ends:
        own = [b for b in every if (b.start_mm, b.end_mm) == (start, end)]
        inner = [c for c in cuts if survey.rails.left.start_mm < c < survey.rails.left.end_mm]
        there = [x for x in at if start <= x <= end]
        for kind, clear_mm in WAYS:
            more = _more((start, end), own, [(c, clear_mm) for c in inner], there)
            if more is not None:
                at |= dict.fromkeys(more, kind)
                break
    rows = itertools.product(sorted(at), LEFT_RIGHT)
    out = [_stand(survey, x, side, at[x], k) for k, (x, side) in enumerate(rows, 1)]
    heaviest = max((b.mass_kg for b in every), default=0.0)
    rating = next((kg for kg in STOCK_KG if kg >= heaviest / 2), STOCK_KG[-1])
    return tuple(s.model_copy(update={"rating_kg": rating}) for s in out)


def fresh_stand(survey: Survey, there: Sequence[Support]) -> Support:
    """One more, under the middle of the left rail."""
    taken = {s.id for s in there}
    number = next(n for n in itertools.count(len(there) + 1) if f"stand-{n}" not in taken)
    rail = survey.rails.left
    return _stand(survey, round((rail.start_mm + rail.end_mm) / 2), "left", "stand", number)


def _stand(survey: Survey, x: float, side: Side, kind: Kind, number: int) -> Support:
    """Under the middle of the rail."""
    rail = survey.rails.of(side)
    wide = rail_at(rail, x)[2]
    across = rail.web_y_mm + (-wide if rail.opens == "inward" else wide) / 2
    return Support(
        id=f"{kind}-{number}",
        name=f"{kind.capitalize()} {number}",
        kind=kind,
        x_mm=x,
        y_mm=round(-across if side == "left" else across, 1),
    )


def _more(
    ends: tuple[float, float], bodies: Sequence[Body], shut: Sequence[tuple[float, float]], there: Sequence[float]
) -> tuple[float, ...] | None:
    """Stations to put under a part besides what is ``there``: as few as hold all its bodies, then as steady as they can.

    ``shut`` are stations with what nothing may stand nearer to; None where no two more hold it.
    """
    start, end = ends
    tried = [round(start + k * STEP_MM) for k in range(math.floor((end - start) / STEP_MM) + 1)]
    clear = [x for x in tried if start + CLEAR_MM / 3 <= x <= end and all(abs(x - c) >= away for c, away in shut)]
    for count in range(3):
        best: tuple[float, ...] = ()
        best_score = (0.0, -math.inf)
        for more in itertools.combinations(clear, count):
            score = _steady((*there, *more), bodies)
            if score is not None and score > best_score:
                best, best_score = more, score
        if best_score > (0.0, -math.inf):
            return best
    return None


def _steady(at: Sequence[float], bodies: Sequence[Body]) -> tuple[float, float] | None:
    """How much more room than is asked for stands at these stations leave along the frame; of equal ones the closer together."""
    if len(at) < 2:
        return None
    a, b = min(at), max(at)
    needed = max(LEAST_MM, SHARE * (b - a))
    room = min((min(body.x_mm - a, b - body.x_mm) - needed for body in bodies), default=0.0)
    # beyond half as much again nothing gets steadier: then the shorter way between stands
    return None if room < 0 else (min(room, needed / 2) + 1e-9, a - b if room > needed / 2 else b - a)
