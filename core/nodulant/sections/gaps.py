"""A short open stretch between closed ones: its two webs carry the torque by bending.

Where a liner's welds have not yet brought it in, a boxed rail is a slit box. Saint-Venant's J of
the slit section would apply only to a long stretch; over a short one the closed ends hold it
from warping, and the webs bend in their planes against each other like the posts of a frame:
shear T/b in each, ends clamped. With I of both webs about their own axes and length l,
theta = T l^3 (1/I1 + 1/I2) / (12 E b^2), so J = 12 E b^2 / (G l^2 (1/I1 + 1/I2)), and yield where
T l / (2 b) reaches the weaker web's f_y S (own, plane frame; never more than the closed ends).
Where another cell is closed beside the gap, a cap's, both turn together and share the torque by
their stiffness until the first of them yields.
"""

import numpy as np

from nodulant.base.arrays import Columns, Mask
from nodulant.materials.steel import ELASTIC_MODULUS_MPA, SHEAR_MODULUS_MPA
from nodulant.sections.torsion import Torsion

LONGEST = 1.5
"""A gap longer than this many web heights is left to Saint-Venant."""


def bridged(
    x: Columns,
    torsion: Torsion,
    whole: Mask,
    webs: tuple[Columns, Columns],
    size: tuple[Columns, Columns],
    yield_mpa: float,
) -> Torsion:
    """``torsion`` with every short gap bridged.

    ``whole`` says where the rail's own cell is closed; web thicknesses, then height of the webs and
    width between them, mm.
    """
    if whole.all() or not whole.any():
        return torsion
    height, width = size
    j, capacity, closed = torsion.j.copy(), torsion.capacity.copy(), torsion.closed.copy()
    flow = torsion.flow.copy()
    for first, last in _gaps(whole):
        length = float(x[last + 1] - x[first - 1])
        rows = slice(first, last + 1)
        high, apart = height[rows], width[rows]
        one, two = (np.maximum(t[rows], 0.0) for t in webs)
        if length > LONGEST * float(high.min()) or float(np.minimum(one, two).min()) <= 0:
            continue
        inertia = [t * high**3 / 12 for t in (one, two)]
        soft = 1 / inertia[0] + 1 / inertia[1]
        stiff = 12 * ELASTIC_MODULUS_MPA * apart**2 / (SHEAR_MODULUS_MPA * length**2 * soft)
        ends = (first - 1, last + 1)
        both = torsion.j[rows] + stiff
        j[rows] = np.minimum(both, min(float(torsion.j[k]) for k in ends))
        bent = 2 * apart * np.minimum(one, two) * high**2 / 6 * yield_mpa / length
        shared = np.minimum(bent / stiff, torsion.capacity[rows] / torsion.j[rows]) * both
        first_yield = np.where(torsion.closed[rows], shared, bent)
        capacity[rows] = np.minimum(first_yield, min(float(torsion.capacity[k]) for k in ends))
        closed[rows] = True
        flow[rows] = max(float(torsion.flow[k]) for k in ends)
    return Torsion(j, capacity, closed, flow)


def _gaps(closed: Mask) -> list[tuple[int, int]]:
    """First and last row of every open run that has closed stations on both sides."""
    step = np.diff(closed.astype(int))
    starts, ends = np.flatnonzero(step == -1) + 1, np.flatnonzero(step == 1)
    return [(int(s), int(e)) for s in starts for e in ends[ends >= s][:1]]
