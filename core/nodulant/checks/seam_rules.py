"""Checks of stitched boxing seams under the frame's forces.

Flow along a seam: V/(2 h) as the closing wall's half of the shear, and T/(2 A) from torque, h and
A of the closed cell (thin-walled box, textbook). A seam that does not carry it: the plate and its
cell count for nothing.
"""

import numpy as np

from nodulant.checks.check import Check, Governs, Subject, Why, judge, not_computed
from nodulant.checks.rail_rules import Changes
from nodulant.frame.ops.boxing import Boxing
from nodulant.frame.ops.plate_welds import line_n_per_mm
from nodulant.strength.rail import RailComparison
from nodulant.strength.space import FrameComparison

BUMP = 3.0


def stitch_checks(rail: RailComparison, frames: FrameComparison | None, changes: Changes) -> list[Check]:
    """One check for every stitched boxing plate of one rail."""
    out = []
    for p in rail.placed:
        if not isinstance(p.op, Boxing) or p.op.seam != "stitch":
            continue
        subject = Subject(subject=p.op.id, side=rail.side)
        if rail.loading is None or frames is None:
            out.append(not_computed("stitch", subject, ("/survey/masses", "/survey/crossmembers"), changes))
            continue
        out.append(_stitch(rail, frames, p.op, (p.start_mm, p.end_mm), subject, changes))
    return out


def _stitch(
    rail: RailComparison,
    frames: FrameComparison,
    box: Boxing,
    span: tuple[float, float],
    subject: Subject,
    changes: Changes,
) -> Check:
    layout = rail.built.layout
    if layout is None or rail.loading is None:
        raise ValueError("a planned rail has its layout and loads")
    inside = (rail.x >= span[0]) & (rail.x <= span[1])
    twist = frames.planned.cases["twist"][rail.side]
    torque = np.interp(rail.x, twist.x, twist.torque)
    shear = BUMP * np.abs(rail.loading.state.shear)
    height = np.maximum(layout.crown - layout.cut, 1.0)
    area = height * layout.rail.width
    flow = np.where(inside, np.maximum(shear / (2 * height), torque / (2 * area)), 0.0)
    at = int(np.argmax(flow))
    line = line_n_per_mm(box.thickness_mm, box.weld_leg_mm, box.steel_id, float(layout.rail.wall[at]))
    values = {"flow": float(flow[at]), "pitch": box.pitch_mm, "bead": box.bead_mm, "line": line}
    return judge(
        "stitch",
        subject,
        float(flow[at]) * box.pitch_mm / (box.bead_mm * line),
        Why(
            formula="flow * pitch / (bead * line)",
            values=values,
            words="N/mm along the seam: the greater of three times standing shear and one wheel in a hole",
        ),
        changes,
        governs=Governs(station_mm=float(rail.x[at])),
        remedy="Longer or closer stitches, or a full seam: until then plate and cell count for nothing.",
    )
