"""The frames between steps, with what is not allowed meanwhile."""

import numpy as np

from nodulant.base.arrays import significant
from nodulant.base.errors import NodulantError
from nodulant.checks.check import Check, Governs, Subject, Why, judge
from nodulant.evaluate.evaluation import Deflection, InterimFrame
from nodulant.job.document import Inputs
from nodulant.loads.ladder import STANDING
from nodulant.parts.sides import LEFT_RIGHT, Sides
from nodulant.strength.interim import MOVING, Interim, interim_states
from nodulant.strength.rail import missing_for_sections
from nodulant.strength.space import FrameComparison
from nodulant.units.inline import as_length, as_thickness


def interim_frames(inputs: Inputs) -> tuple[InterimFrame, ...]:
    """Every cut by itself, before anything is welded on; none where a wall was not measured."""
    if any(missing_for_sections(inputs.survey, side) for side in LEFT_RIGHT):
        return ()
    try:
        states = interim_states(inputs.survey, inputs.design.operations)
    except NodulantError:
        return ()  # the operation's own error is told where it is made
    return tuple(_frame(s) for s in states)


def _frame(s: Interim) -> InterimFrame:
    return InterimFrame(
        operation=s.operation,
        name=s.name,
        side=s.side,
        in_two=s.through,
        use=s.use,
        station_mm=s.station_mm,
        may_stand=s.standing,
        may_move=s.moving,
        tacks_n=s.tack_n,
        tacks_needed_n=s.tack_needed_n,
        words=interim_words(s.side, in_two=s.through, use=s.use),
    )


def interim_words(sides: Sides, *, in_two: bool, use: float | None) -> str:
    """What may and may not be done while a cut is open on a rail, or on both alike."""
    if in_two:
        which = "Both rails are" if sides == "both" else f"The {sides} rail is"
        return f"{which} in two, nobody in or under it: frame held on stands and braces on both sides of the cut, nothing on it, no wheels carrying it, until it is welded."
    if use is None:
        return (
            "Not computed: masses or seats are missing. Until then: on stands on both sides of the cut, nobody in it."
        )
    if use > 1:
        return "It may not carry its own weight: on stands on both sides of the cut, body and load off, nobody in or under it."
    if MOVING * use > 1:
        return (
            "It may stand on its wheels, and not be rolled, sat in, jacked under this rail, or have its engine put in."
        )
    return "It may stand and be rolled by hand on flat ground; not driven, not jacked under this rail."


def interim_checks(inputs: Inputs, frames: tuple[InterimFrame, ...]) -> list[Check]:
    """One check a cut that can be computed: whether the open frame may stand on its wheels."""
    out = []
    for f in frames:
        if f.tacks_needed_n is not None:
            out.append(_tacks(f, inputs))
        if f.use is None:
            continue
        subject = Subject(subject=f.operation, side=f.side, state="interim")
        why = Why(
            formula="use",
            values={"use": f.use},
            words=f"{f.name}: the cut open on this rail, nothing welded on, 1 g on the surveyed supports. {f.words}",
        )
        out.append(
            judge(
                "interim-use",
                subject,
                f.use,
                why,
                inputs.design.limits,
                governs=Governs(case="static", station_mm=f.station_mm),
                detail=f.name,
                remedy=f.words,
            )
        )
    return out


def _tacks(f: InterimFrame, inputs: Inputs) -> Check:
    values = {"tacks": f.tacks_n, "needed": f.tacks_needed_n or 1.0}
    words = f"eight tacks of {as_length(20)}, {as_thickness(5)} leg, N; needed: three times what stands on the joint. Tacks are never the only support over a person"
    return judge(
        "tacks",
        Subject(subject=f.operation, side=f.side, state="interim"),
        values["tacks"] / values["needed"],
        Why(formula="tacks / needed", values=values, words=words),
        inputs.design.limits,
        governs=Governs(station_mm=f.station_mm),
        detail=f.name,
        remedy="More or longer tacks, or props on both sides before it is rolled or carries its axle.",
    )


def deflections(frames: FrameComparison | None, case: str) -> tuple[Deflection, ...]:
    """How both planned rails bend in a case (standing where it is no space case), at their planned stations; a strike is the right wheel's."""
    if frames is None:
        return ()
    ladder = frames.planned.ladder
    in_space = ladder.has(case)
    factor = frames.planned.twist.couple_nmm if case == "twist" else 1.0
    moved = factor * ladder.solved.displacements[ladder.row(case if in_space else STANDING, "right")]
    if in_space and case != "jack":
        moved = moved + ladder.solved.displacements[ladder.cases.index(STANDING)]
    out = []
    for k, side in enumerate(LEFT_RIGHT):
        own = moved[k::2]
        sign = 1.0 if side == "left" else -1.0
        nodes = ladder.frame.nodes[k::2]
        up = own[:, 2] - np.interp(nodes[:, 0], nodes[[0, -1], 0], own[[0, -1], 2])
        out.append(
            Deflection(
                side=side,
                case=case,
                x_mm=significant(nodes[:, 0], 7),
                up_mm=significant(up, 4),
                inward_mm=significant(sign * own[:, 1], 4),
            )
        )
    return tuple(out)
