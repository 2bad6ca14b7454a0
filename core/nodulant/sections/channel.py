"""Closed forms of the plain channel that the survey view shows."""


def shear_centre_offset_mm(height_mm: float, width_mm: float, wall_mm: float) -> float:
    """Distance of the shear centre outside the web's midline, mm.

    Thin walls, equal flanges: e = 3 b^2 / (h + 6 b), b and h to mid-thickness (textbook
    result, for example Timoshenko, Strength of Materials).
    """
    b, h = width_mm - wall_mm / 2, height_mm - wall_mm
    return 3 * b * b / (h + 6 * b)
