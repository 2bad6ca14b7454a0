"""Closed forms of whole profiles that stand alone, such as crossmembers.

Height h and width b are outside sizes, t the wall, mm. Box: Bredt's J = 4 A^2 t / perimeter of
the midline, its four corners saving what they save in any section, plus sum(s t^3) / 3. Tube: J = 2 I.
Channel with its web upright: J = sum(b t^3) / 3 (Timoshenko).
"""

import math
from typing import Literal, NamedTuple

from nodulant.sections.walls import CORNER_SAVING

ProfileKind = Literal["tube", "box", "channel"]


class Profile(NamedTuple):
    """Area mm2, inertia about the horizontal and the upright axis mm4, torsion constant mm4, torsion modulus mm3."""

    area: float
    i_y: float
    i_z: float
    j: float
    w_t: float
    """Torque over the shear stress that it makes, mm3: 2 A t and the like."""


def profile(kind: ProfileKind, height_mm: float, width_mm: float, wall_mm: float) -> Profile:
    """Properties of a profile; a tube's width is not used."""
    h, b, t = height_mm, width_mm, wall_mm
    if kind == "tube":
        inner = h - 2 * t
        inertia = math.pi * (h**4 - inner**4) / 64
        return Profile(math.pi * (h * h - inner * inner) / 4, inertia, inertia, 2 * inertia, 4 * inertia / h)
    if kind == "box":
        area = b * h - (b - 2 * t) * (h - 2 * t)
        i_y = (b * h**3 - (b - 2 * t) * (h - 2 * t) ** 3) / 12
        i_z = (h * b**3 - (h - 2 * t) * (b - 2 * t) ** 3) / 12
        middle = (b - t) * (h - t)
        girth = 2 * (b + h - 2 * t)
        squares = girth / t - 4 * CORNER_SAVING
        j = 4 * middle**2 / squares + girth * t**3 / 3
        return Profile(area, i_y, i_z, j, j / (2 * middle / squares / t + t))
    area = h * t + 2 * (b - t) * t
    centre = (h * t * t / 2 + 2 * (b - t) * t * (b + t) / 2) / area
    i_y = (b * h**3 - (b - t) * (h - 2 * t) ** 3) / 12
    i_z = h * t**3 / 3 + 2 * t * (b**3 - t**3) / 3 - area * centre**2
    j = (h + 2 * (b - t)) * t**3 / 3
    return Profile(area, i_y, i_z, j, j / t)
