"""The frame's twist where the survey allows it: checks and figures."""

from nodulant.base.errors import NodulantError
from nodulant.checks.check import Check
from nodulant.checks.twist_rules import missing_twist_checks, twist_checks
from nodulant.evaluate.evaluation import Figure
from nodulant.job.document import Inputs
from nodulant.parts.sides import LEFT_RIGHT, Side
from nodulant.strength.rail import RailComparison, missing_for_sections
from nodulant.strength.twist import TwistComparison, compare_twist, missing_for_twist

BASIS = "two rails and crossmembers, Saint-Venant: open stretches are a lower bound, their warping is left out"


def frame_twist(inputs: Inputs, planned: dict[Side, RailComparison]) -> tuple[TwistComparison | None, list[Check]]:
    """The comparison with its checks; None and 'not computed' where an input is missing or nothing ties the rails."""
    survey, design = inputs.survey, inputs.design
    missing = missing_for_twist(survey) + tuple(p for side in LEFT_RIGHT for p in missing_for_sections(survey, side))
    if missing:
        return None, missing_twist_checks(missing, design.limits)
    try:
        twist = compare_twist(survey, design.seats, design.crossmembers, planned)
    except NodulantError as error:
        return None, missing_twist_checks((error.field,), design.limits, error.message)
    return twist, twist_checks(twist, design.limits)


def twist_figures(twist: TwistComparison | None) -> tuple[Figure, ...]:
    """Torsional stiffness of both frames and the couple of the case."""
    if twist is None:
        return ()
    rows = (("stock", twist.stock), ("planned", twist.planned))
    stiff = [
        Figure(
            id=f"twist-{name}",
            name=f"Torsional stiffness, {name}",
            value=frame.ladder.stiffness_nm_per_deg,
            unit="N m/deg",
            basis=BASIS,
        )
        for name, frame in rows
    ]
    ratio = Figure(
        id="twist-ratio",
        name="Torsional stiffness, planned over stock",
        value=twist.planned.ladder.stiffness_nm_per_deg / twist.stock.ladder.stiffness_nm_per_deg,
        unit="x",
        basis=BASIS,
    )
    couple = Figure(
        id="twist-couple",
        name="Couple of one wheel in a hole",
        value=twist.couple_nmm / 1e6,
        unit="kN m",
        basis="lighter axle's load x half its track x 1.3, body-engineering textbooks, from memory",
    )
    return (*stiff, ratio, couple)
