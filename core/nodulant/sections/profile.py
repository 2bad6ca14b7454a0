"""Closed forms of whole profiles that stand alone, such as crossmembers.

Height h and width b are outside sizes, t the wall, mm. Box: Bredt's J = 4 A^2 t / perimeter of
the midline. Tube: J = 2 I. Channel with its web upright: J = sum(b t^3) / 3 (Timoshenko).
"""

import math
from typing import Literal, NamedTuple

ProfileKind = Literal["tube", "box", "channel"]


class Profile(NamedTuple):
    """Area mm2, inertia about the horizontal and the upright axis mm4, torsion constant mm4."""

    area: float
    i_y: float
    i_z: float
    j: float


def profile(kind: ProfileKind, height_mm: float, width_mm: float, wall_mm: float) -> Profile:
    """Properties of a profile; a tube's width is not used."""
    h, b, t = height_mm, width_mm, wall_mm
    if kind == "tube":
        inner = h - 2 * t
        inertia = math.pi * (h**4 - inner**4) / 64
        return Profile(math.pi * (h * h - inner * inner) / 4, inertia, inertia, 2 * inertia)
    if kind == "box":
        area = b * h - (b - 2 * t) * (h - 2 * t)
        i_y = (b * h**3 - (b - 2 * t) * (h - 2 * t) ** 3) / 12
        i_z = (h * b**3 - (h - 2 * t) * (b - 2 * t) ** 3) / 12
        middle = (b - t) * (h - t)
        return Profile(area, i_y, i_z, 2 * t * middle**2 / (b + h - 2 * t))
    area = h * t + 2 * (b - t) * t
    centre = (h * t * t / 2 + 2 * (b - t) * t * (b + t) / 2) / area
    i_y = (b * h**3 - (b - t) * (h - 2 * t) ** 3) / 12
    i_z = h * t**3 / 3 + 2 * t * (b**3 - t**3) / 3 - area * centre**2
    return Profile(area, i_y, i_z, (h + 2 * (b - t)) * t**3 / 3)
