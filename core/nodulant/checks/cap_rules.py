"""Ends of caps: the welds that bring their force in, and hold them down as it comes."""

import numpy as np

from nodulant.checks.check import Changes, Check, Governs, Subject, Why, judge, not_computed
from nodulant.frame.additions import Plate
from nodulant.frame.layout import Layout
from nodulant.loads.cases import Case
from nodulant.materials.steel import SAFETY_ON_YIELD
from nodulant.sections.properties import Properties
from nodulant.strength.at_station import at_station
from nodulant.strength.cap_end import end_flow, together
from nodulant.strength.rail import RailComparison
from nodulant.strength.space import FrameComparison
from nodulant.units.inline import as_amount, as_length


def cap_checks(
    rail: RailComparison,
    frames: FrameComparison | None,
    symmetric: tuple[Case, ...],
    missing: tuple[str, ...],
    changes: Changes,
) -> list[Check]:
    """The worse end of every cap of one rail; 'not computed' without the frame in space, which lacks ``missing``."""
    out: dict[str, Check] = {}
    for plate in rail.built.whole.plates:
        if not plate.lie.box or plate.line_n_per_mm <= 0 or not (plate.share >= 1).any():
            continue
        subject = Subject(subject=f"{plate.operation}-{plate.role}", side=rail.side, cause=f"seams {plate.operation}")
        if rail.loading is None or frames is None:
            out[subject.subject] = not_computed("cap-end", subject, missing, changes)
            continue
        for end in np.flatnonzero(plate.share >= 1)[[0, -1]]:
            check = _judged(rail, frames, symmetric, plate, int(end), subject, changes)
            old = out.get(subject.subject)
            if old is None or (check.value or 0.0) > (old.value or 0.0):
                out[subject.subject] = check
    return list(out.values())


def cap_force(plate: Plate, layout: Layout, p: Properties, k: int, moment: float) -> tuple[float, float]:
    """Force of a cap at station ``k`` under a moment, N, and how far from the flange under it it acts, mm."""
    strips = layout.strips(plate)
    areas = [float(((s.y1 - s.y0) * (s.z1 - s.z0))[k]) for s in strips]
    middles = [float((s.z0 + s.z1)[k]) / 2 for s in strips]
    area = sum(areas)
    middle = sum(a * z for a, z in zip(areas, middles, strict=True)) / area
    foot = float(plate.low[k] if plate.role == "cap" else plate.high[k])
    return moment * area * abs(middle - float(p.centroid_z[k])) / float(p.i_y[k]), abs(middle - foot)


def _judged(
    rail: RailComparison,
    frames: FrameComparison,
    symmetric: tuple[Case, ...],
    plate: Plate,
    k: int,
    subject: Subject,
    changes: Changes,
) -> Check:
    layout, place = rail.built.whole, float(rail.x[k])
    across = float(layout.rail.width[k])
    limit = {True: SAFETY_ON_YIELD, False: 1.0}
    at = max(at_station(rail, frames, symmetric, place), key=lambda a: a.moment / limit[a.case.accident])
    force, away = cap_force(plate, layout, rail.built.properties, k, at.moment)
    shear, lift = end_flow(force, away, plate.grown_mm, across)
    line = plate.line_n_per_mm * limit[at.case.accident]
    return judge(
        "cap-end",
        subject,
        together(shear, lift) / line,
        Why(
            formula="(shear ** 2 + lift ** 2) ** 0.5 / line",
            values={"shear": shear, "lift": lift, "line": line},
            words=f"{at.case.name}: {as_amount('force', force)} in the cap come in over {as_length(plate.grown_mm)}, {as_length(away)}"
            " above the flange: N/mm on two long welds and the one across the end",
        ),
        changes,
        detail=at.case.name,
        governs=Governs(case=at.case.id, station_mm=place),
        remedy="A bigger leg, a lower cap, or one that reaches further past the cut.",
    )
