"""A load pressed into a flange over a short length: the web's resistance against crippling.

EN 1993-1-5 section 6 (from memory), patch load resisted by shear in the web, no stiffeners, a the free
length: F_Rd = f_y chi l_y t_w; l_y = s + 2 t_f (1 + sqrt(m1 + m2)), at most a; m1 = b_f/t_w for one steel;
m2 = 0.02 (h_w/t_f)^2 where lambda > 0.5; lambda = sqrt(l_y t_w f_y/F_cr); F_cr = 0.9 k E t_w^3/h_w with
k = 6 + 2 (h_w/a)^2; chi = 0.5/lambda, at most 1. b_f is at most 15 sqrt(235/f_y) t_f to either side.
With bending: F/F_Rd + 0.8 M/M_Rd is at most 1.4 (7.2).
"""

from dataclasses import dataclass

from nodulant.materials.steel import ELASTIC_MODULUS_MPA

LONG_MM = 1e4
"""Free length where nothing stiffens the web near the load."""
TOGETHER = 1.4


@dataclass(frozen=True)
class Web:
    """Height between the flanges, thickness, flange's width on this web and its thickness, mm, and yield, MPa."""

    height_mm: float
    thickness_mm: float
    flange_mm: float
    flange_thickness_mm: float
    yield_mpa: float


def effective_length_mm(web: Web, patch_mm: float) -> float:
    """Length of web that takes a load spread over ``patch_mm`` of the flange."""
    wide = min(web.flange_mm, 15 * (235 / web.yield_mpa) ** 0.5 * web.flange_thickness_mm + web.thickness_mm)
    m1 = wide / web.thickness_mm
    stocky = _spread(web, patch_mm, m1)
    if _slenderness(web, stocky) <= 0.5:
        return stocky
    return _spread(web, patch_mm, m1 + 0.02 * (web.height_mm / web.flange_thickness_mm) ** 2)


def patch_resistance_n(web: Web, patch_mm: float) -> float:
    """F_Rd of one web, N, with gamma 1."""
    length = effective_length_mm(web, patch_mm)
    chi = min(1.0, 0.5 / _slenderness(web, length))
    return float(web.yield_mpa * chi * length * web.thickness_mm)


def _spread(web: Web, patch_mm: float, m: float) -> float:
    return float(min(patch_mm + 2 * web.flange_thickness_mm * (1 + m**0.5), LONG_MM))


def _slenderness(web: Web, length_mm: float) -> float:
    k = 6 + 2 * (web.height_mm / LONG_MM) ** 2
    critical = 0.9 * k * ELASTIC_MODULUS_MPA * web.thickness_mm**3 / web.height_mm
    return float((length_mm * web.thickness_mm * web.yield_mpa / critical) ** 0.5)
