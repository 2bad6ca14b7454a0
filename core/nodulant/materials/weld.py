"""What a millimetre of fillet weld carries.

Fillet throat a = 0.707 leg; allowable shear on the throat 0.3 F_EXX and on the joined
metal 0.4 f_y t (AISC allowable stress design / AWS D1.1, from memory).
"""

WELD_STRENGTH_MPA = 482.6
"""F_EXX of 70 ksi wire, MPa."""
THROAT_PER_LEG = 0.707


def line_capacity(leg_mm: float, thinnest_mm: float, yield_mpa: float, weld_mpa: float = WELD_STRENGTH_MPA) -> float:
    """Allowable shear of one fillet line, N/mm: the lesser of throat and joined metal."""
    throat = THROAT_PER_LEG * leg_mm * 0.3 * weld_mpa
    return min(throat, 0.4 * yield_mpa * thinnest_mm)
