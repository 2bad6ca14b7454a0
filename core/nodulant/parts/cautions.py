"""Cautions that the steps of many operations share."""

HOT = "Fire watch and extinguisher for 30 minutes after; lines, wiring and undercoat shielded."
DUST = "Respirator, eyes, ears; no gloves at a drill."
WHEEL = "Cut-off wheels kick: two hands, stand out of their plane, keep clear of lines."
