"""Every body of a job on the stands that are placed, at each moment of its work."""

from collections.abc import Iterable, Sequence

from nodulant.base.model import Frozen
from nodulant.frame.ops.union import Operation
from nodulant.supports.bodies import situations
from nodulant.supports.lift import Lift, Lifted, lifted
from nodulant.supports.support import Support
from nodulant.supports.tipping import Stands, stands_on
from nodulant.survey.vehicle import Survey

NO_MASS = "the survey has no masses: what the frame carries, and where"


class Moment(Frozen):
    """How the bodies stand at one moment."""

    key: str
    name: str
    operation: str | None
    stands: tuple[Stands, ...]

    @property
    def holds(self) -> bool:
        """Whether all of them stand."""
        return all(s.holds for s in self.stands)


class SupportsFound(Frozen):
    """All moments in order; none where ``missing`` says what is not known."""

    moments: tuple[Moment, ...]
    idle: tuple[str, ...] = ()
    """Names of what stands under nothing at any moment: beyond the frame's ends, or where metal comes out."""
    lifts: tuple[Lifted, ...] = ()
    """What hangs on a crane, in the order in which it was written down."""
    missing: str = ""


def look(
    survey: Survey, operations: Iterable[Operation], supports: Sequence[Support], lifts: Sequence[Lift] = ()
) -> SupportsFound:
    """Before each cut and lift and after it; raises UnknownReference."""
    found = situations(survey, operations, lifts)
    if not found:
        return SupportsFound(moments=(), missing=NO_MASS)
    moments = tuple(
        Moment(
            key=s.key, name=s.name, operation=s.operation, stands=tuple(stands_on(body, supports) for body in s.bodies)
        )
        for s in found
    )
    bodies = [s.body for m in moments for s in m.stands]
    idle = tuple(s.name for s in supports if not any(b.start_mm <= s.x_mm <= b.end_mm for b in bodies))
    return SupportsFound(moments=moments, idle=idle, lifts=tuple(lifted(survey, one) for one in lifts))
