"""A hole in the web: what is left above and below it bends as the shear passes.

The rail beside a hole is two tees, web and flange, that share the shear as their second moments and
are bent by it like the posts of a frame without diagonals (Vierendeel): M = V a/2 at the corner of the
opening, a its length. A round hole counts as a rectangle 0.9 of its diameter high and 0.45 of it long
(SCI P355, from memory).
"""

from dataclasses import dataclass

HIGH, LONG = 0.9, 0.45
"""A round hole as a rectangle, of its diameter."""


@dataclass(frozen=True)
class Tee:
    """What is left of a rail over or under a hole: web ``deep_mm`` from the flange's outer face, all webs' thickness, flange."""

    deep_mm: float
    web_mm: float
    flange_mm: float
    flange_thickness_mm: float

    @property
    def _parts(self) -> tuple[tuple[float, float, float], ...]:
        """Area, place of the middle and height of flange and web, from the flange's outer face."""
        t = min(self.flange_thickness_mm, self.deep_mm)
        web = max(self.deep_mm - t, 0.0)
        return ((self.flange_mm * t, t / 2, t), (self.web_mm * web, t + web / 2, web))

    @property
    def centre_mm(self) -> float:
        """Centroid from the flange's outer face."""
        return sum(a * z for a, z, _ in self._parts) / sum(a for a, _, _ in self._parts)

    @property
    def second_moment(self) -> float:
        """About its own centroid, mm4."""
        return sum(a * h * h / 12 + a * (z - self.centre_mm) ** 2 for a, z, h in self._parts)

    @property
    def modulus(self) -> float:
        """Least section modulus, mm3."""
        return self.second_moment / max(self.centre_mm, self.deep_mm - self.centre_mm)


def tee_bending(tees: tuple[Tee, ...], shear_n: float, long_mm: float) -> float:
    """Greatest stress, MPa, that shear over an opening of ``long_mm`` bends into the tees beside it."""
    whole = sum(tee.second_moment for tee in tees)
    return max(shear_n * tee.second_moment / whole * long_mm / 2 / tee.modulus for tee in tees)
