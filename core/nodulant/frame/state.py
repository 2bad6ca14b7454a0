"""A frame state: which cuts are made, which parts are on, what was measured instead.

Stock, planned, interim and as-built are one type, and every section is taken from one.
"""

from typing import Literal

from nodulant.base.model import Frozen

PartState = Literal["absent", "tacked", "welded"]
StateName = Literal["stock", "planned", "interim", "as-built"]


class FrameState(Frozen):
    """Cuts made (operation ids), parts by id, and measured values by '<operation>/<field>/<side>', mm."""

    name: StateName
    cuts: frozenset[str] = frozenset()
    parts: dict[str, PartState] = {}
    measured: dict[str, float] = {}

    def carries(self, part: str) -> bool:
        """A part counts for strength only when it is welded; tacks count for nothing."""
        return self.parts.get(part, "absent") == "welded"

    def measured_for(self, operation: str, side: str) -> dict[str, float]:
        """Measured values of one operation on one side, by field."""
        head, tail = f"{operation}/", f"/{side}"
        return {
            k[len(head) : -len(tail)]: v for k, v in self.measured.items() if k.startswith(head) and k.endswith(tail)
        }
