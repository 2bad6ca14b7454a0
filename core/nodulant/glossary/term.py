"""One word of the trade, with a small drawing and arrows from where to where."""

from typing import Literal

from nodulant.base.model import Frozen

Scene = Literal[
    "side", "notch", "section", "box", "axle", "front", "plan", "tab", "link", "spring", "leaf", "bolt", "weld",
    "step", "ground", "rack", "shaft", "plate", "stop", "subframe", "hanger", "none",
]  # fmt: skip
Theme = Literal["frame", "axle and wheels", "cuts", "plates and welds", "holes and bolts", "suspension", "steering", "strength", "work"]  # fmt: skip


class Arrow(Frozen):
    """From where to where, on a drawing 120 wide and 72 high, y down."""

    x0: float
    y0: float
    x1: float
    y1: float


class Term(Frozen):
    """A word: what it is, from where to where it is measured, and which fields ask for it.

    A field is named by its last name, or with what stands before it: ``wheel.offset_mm``, ``z-step:rise_mm``.
    """

    id: str
    name: str
    theme: Theme
    says: str
    scene: Scene
    arrows: tuple[Arrow, ...] = ()
    fields: tuple[str, ...] = ()


def term(
    id_: str,
    name: str,
    theme: Theme,
    says: str,
    scene: Scene,
    *arrows: tuple[float, float, float, float],
    fields: str = "",
) -> Term:
    """A term; ``fields`` parted by blanks, ``arrows`` as x0, y0, x1, y1."""
    drawn = tuple(Arrow(x0=x0, y0=y0, x1=x1, y1=y1) for x0, y0, x1, y1 in arrows)
    return Term(id=id_, name=name, theme=theme, says=says, scene=scene, arrows=drawn, fields=tuple(fields.split()))
