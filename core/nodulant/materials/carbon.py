"""Carbon equivalent and the preheat it asks for.

CE = C + Mn/6 + (Cr + Mo + V)/5 + (Ni + Cu)/15, in percent (IIW formula; EN 1011-2 annex C,
from memory). Bands: to 0.40 none, to 0.45 about 100 C, to 0.60 about 150 C, above a qualified
procedure (common practice for thin walls; a weld procedure governs).
"""

from typing import Annotated

from pydantic import Field

from nodulant.base.model import Frozen

Percent = Annotated[float, Field(ge=0, le=20)]


class Analysis(Frozen):
    """A steel's analysis, percent by mass."""

    c: Annotated[float, Field(ge=0, le=2)]
    mn: Percent = 0.0
    cr: Percent = 0.0
    mo: Percent = 0.0
    v: Percent = 0.0
    ni: Percent = 0.0
    cu: Percent = 0.0

    def carbon_equivalent(self) -> float:
        """IIW carbon equivalent, percent."""
        return self.c + self.mn / 6 + (self.cr + self.mo + self.v) / 5 + (self.ni + self.cu) / 15


def preheat_c(equivalent: float) -> float | None:
    """Preheat, degrees C, for thin walls; None where only a qualified procedure will do."""
    if equivalent <= 0.40:
        return 0.0
    return 100.0 if equivalent <= 0.45 else 150.0 if equivalent <= 0.60 else None
