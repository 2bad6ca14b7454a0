"""What is read with: by which name it is logged, and how finely it is read in each unit system."""

from nodulant.base.model import Frozen
from nodulant.units.show import MM_PER_INCH, Style


class Instrument(Frozen):
    """An instrument for lengths; its resolution as read by eye or shown, mm (common practice)."""

    id: str
    name: str
    metric_mm: float
    inch_mm: float

    def resolution_mm(self, style: Style) -> float:
        """How finely it is read where the job's tape is of this style, mm."""
        return self.metric_mm if style == "mm" else self.inch_mm


INSTRUMENTS: tuple[Instrument, ...] = (
    Instrument(id="tape", name="tape", metric_mm=0.5, inch_mm=MM_PER_INCH / 32),
    Instrument(id="rule", name="steel rule", metric_mm=0.5, inch_mm=MM_PER_INCH / 64),
    Instrument(id="calliper", name="calliper", metric_mm=0.02, inch_mm=MM_PER_INCH / 1000),
    Instrument(id="depth-gauge", name="depth gauge", metric_mm=0.02, inch_mm=MM_PER_INCH / 1000),
    Instrument(id="laser", name="laser tape", metric_mm=1.0, inch_mm=1.0),
)
