"""Shear centre, warping constant and sectorial coordinate of thin-walled sections, station by station.

Vlasov's integrals of the midline: with w about any pole (``sections.walls``), the pole for which w
is not correlated with y and z is the shear centre; I_w = integral of w^2 dA about it, w being the
sectorial coordinate with mean 0 (Vlasov, Thin-Walled Elastic Beams, from memory). Walls that are not
welded all along are left out. A bimoment B gives the stress B w / I_w.
"""

from dataclasses import dataclass

import numpy as np

from nodulant.base.arrays import Columns, Mask, Rows
from nodulant.sections.walls import LEAST_MM, Network, Stacked, stacked


@dataclass(frozen=True)
class Sectorial:
    """Shear centre, mm, warping constant, mm6, greatest sectorial coordinate, mm2, thickest wall, mm; (stations,)."""

    y: Columns
    z: Columns
    i_w: Columns
    w_most: Columns
    thickest: Columns

    def rows(self, at: Rows) -> "Sectorial":
        """The same at some of the stations."""
        return Sectorial(self.y[at], self.z[at], self.i_w[at], self.w_most[at], self.thickest[at])


def sectorial(network: Network) -> Sectorial:
    """Evaluate all stations; shapes (stations,)."""
    s = stacked(network)
    conducts = s.closure >= 1 - 1e-9
    every = np.arange(len(s.points), dtype=np.int64)
    conductance = s.conductance(every, conducts)
    potential = s.potential(conductance, -(conductance * s.twice_area) @ s.signs)
    mass = _thickness(s, conducts) * s.length
    start, end = s.ends

    def mean(one: Columns, two: Columns) -> Columns:
        """Integral of a product of two functions that are linear along every wall."""
        a, b, c, d = one[:, start], one[:, end], two[:, start], two[:, end]
        return np.asarray((mass * (2 * a * c + 2 * b * d + a * d + b * c)).sum(axis=1) / 6)

    one = np.ones_like(potential)
    area = np.maximum(mass.sum(axis=1), LEAST_MM)

    def centred(values: Columns) -> Columns:
        return np.asarray(values - (mean(values, one) / area)[:, None])

    y, z, w = (centred(v) for v in (s.points[..., 0], s.points[..., 1], potential))
    i_yy, i_zz, i_yz, i_wy, i_wz = mean(y, y), mean(z, z), mean(y, z), mean(w, y), mean(w, z)
    apart = np.maximum(i_yy * i_zz - i_yz**2, LEAST_MM)
    pole_y = -(i_wz * i_yy - i_wy * i_yz) / apart
    pole_z = (i_wy * i_zz - i_wz * i_yz) / apart
    about = w + pole_y[:, None] * z - pole_z[:, None] * y
    held = (conducts.astype(float) @ (s.signs != 0)) > 0
    most = np.abs(np.where(held, about, 0.0)).max(axis=1)
    thickest = np.where(conducts, s.thickness, 0.0).max(axis=1)
    return Sectorial(pole_y, pole_z, np.maximum(mean(about, about), 0.0), most, thickest)


def _thickness(s: Stacked, conducts: Mask) -> Columns:
    """Metal along each wall over its length, mm."""
    cover, thick, closure = s.doubled
    lying = np.where(closure >= 1 - 1e-9, thick * cover / np.maximum(s.length, LEAST_MM), 0.0)
    return np.asarray(np.where(conducts, s.thickness + lying, 0.0))
