"""Crossmembers whose height is known, as bodies between the rails of the planned frame."""

from collections.abc import Iterable, Mapping

import numpy as np

from nodulant.clearance.shapes import Prisms, Standing
from nodulant.frame.columns import rail_at
from nodulant.frame.route import Route
from nodulant.parts.sides import LEFT_RIGHT, Side
from nodulant.survey.crossmember import Crossmember
from nodulant.survey.vehicle import Rails


def tie_bodies(ties: Iterable[Crossmember], rails: Rails, routes: Mapping[Side, Route]) -> tuple[Standing, ...]:
    """A block from rail to rail for every crossmember whose middle's height is given; a tube counts as its square."""
    out = []
    for tie in ties:
        if tie.up_mm is None:
            continue
        faces = {side: _face(rails, routes, side, tie.x_mm) for side in LEFT_RIGHT}
        x = sum(f[0] for f in faces.values()) / 2
        z = sum(f[2] for f in faces.values()) / 2 + tie.up_mm
        wide = tie.height_mm if tie.profile == "tube" else tie.width_mm
        dx, dz = wide / 2, tie.height_mm / 2
        corners = np.array([[(x - dx, z - dz), (x + dx, z - dz), (x + dx, z + dz), (x - dx, z + dz)]])
        pack = Prisms(corners, np.array([-faces["left"][1]]), np.array([faces["right"][1]]))
        out.append(Standing(f"{tie.name} crossmember", "work", pack))
    return tuple(out)


def _face(rails: Rails, routes: Mapping[Side, Route], side: Side, x_mm: float) -> tuple[float, float, float]:
    """Planned station, how far the rail's inner face lies from the centre plane, and its underside's height."""
    rail, shift = rails.of(side), routes[side].shift(np.array([x_mm]))
    under, _, width, _ = rail_at(rail, x_mm)
    inner = rail.web_y_mm - (width if rail.opens == "inward" else 0.0)
    return x_mm + float(shift.dx[0]), inner - float(shift.inward[0]), under + float(shift.dz[0])
