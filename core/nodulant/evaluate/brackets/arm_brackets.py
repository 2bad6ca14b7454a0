"""Brackets that wishbones and arms ask for on the rails, where no subframe carries them."""

from nodulant.axles.layouts.independent import DoubleWishbone, Strut
from nodulant.axles.points import HardPoint
from nodulant.evaluate.brackets.frame_brackets import bracket_at, reached
from nodulant.frame.ops.mounts.bracket import Bracket
from nodulant.frame.place import resolve
from nodulant.job.document import Inputs
from nodulant.job.riding import on_rails
from nodulant.suspension.pivots import pivot_forces
from nodulant.suspension.study import Study

CARRIED_MM = 700.0
"""A subframe whose datum lies this near to the hubs carries the arms' pivots."""


def arm_brackets(inputs: Inputs, s: Study) -> tuple[Bracket, ...]:
    """One bracket for every pivot near the rails, both sides alike; none without forces, or where a subframe carries them."""
    layout = s.suspension.layout
    if not isinstance(layout, DoubleWishbone | Strut) or _on_a_subframe(inputs, s):
        return ()
    out = []
    for field, worst in pivot_forces(s).items():
        place: HardPoint = getattr(layout, field)
        point = on_rails(inputs, place)
        if not reached(inputs, point):
            continue
        stem, end = field.split("_")
        name = f"{stem} arm, {end} pivot"
        x, y, z = worst.force
        made = bracket_at(inputs, s.suspension.axle, f"{stem}-arm-{end}", name, point, (x, y, z))
        if made is not None:
            out.append(made)
    return tuple(out)


def _on_a_subframe(inputs: Inputs, s: Study) -> bool:
    if s.setting is None:
        return False
    stations = inputs.survey.features
    line = on_rails(inputs, HardPoint(x_mm=s.setting.hub[0], y_mm=1.0, z_mm=0.0)).x_mm
    return any(op.carries and abs(resolve(op.anchor, stations) - line) < CARRIED_MM for op in inputs.design.operations)
