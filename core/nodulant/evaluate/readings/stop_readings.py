"""How a bump stop on the frame is met, as built: held to what the design itself is held to."""

from nodulant.asbuilt.compare import AskedReading, Known
from nodulant.parts.sides import LEFT_RIGHT
from nodulant.parts.specs import reading
from nodulant.suspension.study import Study

AT_TOUCH = "what strikes it, raised until both touch"


def stop_readings(studies: list[Study], known: Known) -> list[AskedReading]:
    """Out of its axis and beside it, of every stop whose place on the frame is known."""
    out = []
    for s in studies:
        if s.strike is None or s.strike.off_square_deg is None:
            continue
        axle = s.suspension.axle
        name = f"{axle.capitalize()} bump stop"
        specs = (
            reading("square", f"{name} met out of its axis", 0.0, AT_TOUCH, "stop-square", "deg", extra=True),
            reading("aside", f"{name} met beside its middle", 0.0, AT_TOUCH, "stop-aside", extra=True),
        )
        out += [known.asked(f"{axle}-stop", side, spec, name) for side in LEFT_RIGHT for spec in specs]
    return out
