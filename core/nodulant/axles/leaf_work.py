"""What is done to a leaf pack: the axle put to its other side, blocks, leaves taken out.

Flipping an axle that hung under the spring to above it lowers the vehicle by tube, pack and the
difference of the pads; the other way lifts it as much. A block lowers where the axle sits above
the spring, else it lifts. n equal leaves share the load alike: k of them gone leave (n - k)/n of
rate and rating, and n/(n - k) of the stress (common practice, beams of equal strength).
"""

from dataclasses import dataclass

from nodulant.axles.springs import LeafPack


@dataclass(frozen=True)
class LeafChange:
    """What the work gives: how far each part lowers the vehicle, mm (negative lifts), the rate left, N/mm, and the stress against before."""

    flip_mm: float
    block_mm: float
    removed_mm: float
    rate_n_per_mm: float
    stress: float

    @property
    def lowers_mm(self) -> float:
        """All of it together."""
        return self.flip_mm + self.block_mm + self.removed_mm


def leaf_change(pack: LeafPack, tube_mm: float, load_n: float) -> LeafChange:
    """The work on ``pack`` under ``load_n`` on one spring, on an axle tube of ``tube_mm``."""
    left = pack.leaves_left
    over = (pack.axle_was == "over") != pack.flipped
    sign = 1.0 if pack.axle_was == "under" else -1.0
    flip = sign * (tube_mm + pack.pack_mm + pack.pads_mm) if pack.flipped else 0.0
    sagged = load_n / pack.rate_n_per_mm * (pack.leaves / left - 1)
    return LeafChange(
        flip, pack.block_mm if over else -pack.block_mm, sagged, pack.worked_rate_n_per_mm, pack.leaves / left
    )
