"""Which rules and states an answer did not work out because they were not asked for: their rows stay as they were."""

from nodulant.checks.check import State
from nodulant.evaluate.evaluation import Want
from nodulant.parts.steer_limits import STEER_LIMITS
from nodulant.parts.travel_limits import TRAVEL_LIMITS

FRAME = (
    "accident-use",
    "cap-end",
    "case-limit",
    "fatigue-life",
    "frame-stiffness",
    "hole-bending",
    "in-the-cut",
    "joint-bending",
    "joint-overlap",
    "joint-torsion",
    "joint-use",
    "joint-panel",
    "patch-load",
    "flange-bending",
    "place-wanted",
    "seam",
    "seat-carried",
    "slender",
    "twist-angle",
    "twist-limit",
)
INTERIM = ("interim-use", "tacks")
ALONG = ("along-clear", "hose-slack")
TRAVEL = ("mount-follows", *(limit.id for limit in (*TRAVEL_LIMITS, *STEER_LIMITS)))


def left_out(want: Want) -> tuple[str, ...]:
    """Ids of the rules that are not worked out with ``want``."""
    rows = ((want.frame, FRAME), (want.interim, INTERIM), (want.along, ALONG), (want.travel, TRAVEL))
    return tuple(rule for asked, rules in rows if not asked for rule in rules)


def left_out_states(want: Want) -> tuple[State, ...]:
    """States of the frame that are not worked out with ``want``."""
    return () if want.as_built else ("as-built",)
