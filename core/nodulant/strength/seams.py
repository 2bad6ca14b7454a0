"""Flow along the long welds of plates, from the shear and torque of every case.

Each plate hangs on two long welds. A plate that is a wall of the section carries the flow at its
edges (``sections.flow``: textbook shear flow, closed round cells). One that lies on a wall brings in half of
V A d/I for a plate whose centroid lies d off the section's, plus V t h^2/(12 I) for an upright
plate's own bending, the same across with I_z. Torque adds the flow in the plate (Bredt-Batho). What
the plate's ends bring in is the business of its development length.
"""

from dataclasses import dataclass

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.frame.additions import Plate
from nodulant.frame.layout import Layout
from nodulant.loads.cases import Case
from nodulant.sections.properties import Properties
from nodulant.strength.rail import Loading, RailComparison
from nodulant.strength.space import FrameComparison


@dataclass(frozen=True)
class SeamFlow:
    """The worst flow on one weld line of a plate, N/mm, and its parts there."""

    operation: str
    role: str
    case: Case
    station_mm: float
    upright: float
    """V Q/I of shear in the upright plane."""
    across: float
    torque: float
    line: float
    """What the line may carry, N/mm."""

    @property
    def use(self) -> float:
        """Flow over what the line may carry."""
        return (self.upright + self.across + self.torque) / self.line


@dataclass(frozen=True)
class _Forces:
    """Every case and its shear up, shear across and torque along the rail, magnitudes, N and N mm, shape (cases, stations)."""

    cases: tuple[Case, ...]
    shear: Columns
    side_shear: Columns
    torque: Columns


def seam_flows(rail: RailComparison, frames: FrameComparison, symmetric: tuple[Case, ...]) -> list[SeamFlow]:
    """The worst flow of every welded plate of one rail that is developed somewhere."""
    layout = rail.built.layout
    if layout is None or rail.loading is None:
        raise ValueError("a planned rail has its layout and loads")
    forces = _forces(rail, rail.loading, frames, symmetric)
    out: dict[tuple[str, str], SeamFlow] = {}
    for plate in layout.plates:
        if plate.line_n_per_mm > 0 and (plate.share > 0).any():
            worst = _worst(plate, layout, rail, forces)
            key = (plate.operation, plate.role)
            out[key] = max(out.get(key, worst), worst, key=lambda s: s.use)
    return list(out.values())


def _forces(rail: RailComparison, loading: Loading, frames: FrameComparison, symmetric: tuple[Case, ...]) -> _Forces:
    asked = tuple(case for case in frames.asked if case.id in frames.planned.cases)
    in_space = [frames.planned.cases[case.id][rail.side].forces for case in asked]

    def rows(name: str, own: list[Columns]) -> Columns:
        return np.stack(own + [np.interp(rail.x, f.x, getattr(f, name)) for f in in_space])

    standing, none = np.abs(loading.state.shear), np.zeros_like(rail.x)
    alone = [none for _ in symmetric]
    return _Forces(
        (*symmetric, *asked),
        rows("shear", [case.factor * standing for case in symmetric]),
        rows("side_shear", alone),
        rows("torque", alone),
    )


def _worst(plate: Plate, layout: Layout, rail: RailComparison, f: _Forces) -> SeamFlow:
    up, across = rail.built.edge_flows.get(plate.role) or moment_of_area(plate, layout, rail.built.properties)
    twist = rail.built.torsion.flows.get(plate.role, np.zeros_like(rail.x))
    there = np.flatnonzero(plate.share > 0)
    own = slice(int(there[0]), int(there[-1]) + 1)
    flows = (f.shear[:, own] * up[own], f.side_shear[:, own] * across[own], f.torque[:, own] * twist[own])
    total = np.where(plate.share[own] > 0, flows[0] + flows[1] + flows[2], 0.0)
    case, i = np.unravel_index(int(np.argmax(total)), total.shape)
    up_here, across_here, torque = (float(flow[case, i]) for flow in flows)
    where = (f.cases[case], float(rail.x[own][i]))
    return SeamFlow(plate.operation, plate.role, *where, up_here, across_here, torque, plate.line_n_per_mm)


def moment_of_area(plate: Plate, layout: Layout, p: Properties) -> tuple[Columns, Columns]:
    """Q/I on one of the two lines of a plate that lies on a wall, upright and across, 1/mm; shapes (stations,)."""
    t, strip = plate.thickness_mm * plate.share * plate.credit, layout.strips(plate)[0]
    i_y, i_z = np.maximum(p.i_y, 1e-6), np.maximum(p.i_z, 1e-6)
    off_z, off_y = (
        np.abs((low + high) / 2 - centre)
        for low, high, centre in ((strip.z0, strip.z1, p.centroid_z), (strip.y0, strip.y1, p.centroid_y))
    )
    if strip.upright:
        tall = strip.height
        return (t * tall * off_z / 2 + t * tall**2 / 12) / i_y, t * tall * off_y / 2 / i_z
    wide = strip.y1 - strip.y0
    return t * wide * off_z / 2 / i_y, (t * wide * off_y / 2 + t * wide**2 / 12) / i_z
