"""Cautions that the steps of many operations share."""

FIRE_WATCH_MIN = 30
"""How long somebody looks after the last arc (common practice)."""
HOT = f"Fire watch and extinguisher for {FIRE_WATCH_MIN} minutes after; lines, wiring and undercoat shielded."
DUST = "Respirator, eyes, ears; no gloves at a drill."
WHEEL = "Cut-off wheels kick: two hands, stand out of their plane, keep clear of lines."
STANDING_TEXT = (
    "These are planning figures from simplified models. Frame and steering work is safety-critical and regulated: "
    "check local rules before cutting, have a licensed engineer or inspector review where they require it or where any "
    "check does not hold, and have the welding done by a qualified welder."
)
"""Under every paper that somebody builds by."""
