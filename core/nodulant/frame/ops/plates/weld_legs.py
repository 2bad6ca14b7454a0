"""Fillet legs against the least and the most that their plates take."""

from nodulant.materials.weld import least_leg_mm, most_leg_mm
from nodulant.parts.specs import CheckSpec
from nodulant.units.inline import as_thickness


def leg_checks(leg_mm: float, plate_mm: float, wall_mm: float, station_mm: float) -> tuple[CheckSpec, ...]:
    """Fillet leg against the least for the thicker part and the most along the plate's edge."""
    least, most = least_leg_mm(max(plate_mm, wall_mm)), most_leg_mm(plate_mm)
    return (
        CheckSpec(
            limit_id="leg-least",
            value=leg_mm / least,
            formula="leg / least",
            values={"leg": leg_mm, "least": least},
            words="by the thicker part, cyclic",
            station_mm=station_mm,
            remedy=f"{as_thickness(least)} leg or more.",
            same_as_stock=leg_mm >= least,
        ),
        CheckSpec(
            limit_id="leg-most",
            value=leg_mm / most,
            formula="leg / most",
            values={"leg": leg_mm, "most": most},
            words="along the plate's edge",
            station_mm=station_mm,
            remedy=f"{as_thickness(most)} leg at most, or a thicker plate.",
            same_as_stock=leg_mm <= most,
        ),
    )
