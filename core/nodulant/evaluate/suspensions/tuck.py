"""The least tuck of an axle's wheels in a design: its rails, arches and placed things round it."""

from nodulant.base.errors import InputError
from nodulant.clearance.arches import arch_name
from nodulant.evaluate.clearances.sweep import scene
from nodulant.evaluate.suspensions.hung import hung
from nodulant.job.document import Inputs
from nodulant.parts.limits import find_limit
from nodulant.search.tuck import WIDEST_MM, AskedTuck, FoundTuck, TuckWish, find_tuck
from nodulant.units.inline import as_length, as_thickness


def least_tuck(inputs: Inputs, suspension: int, most_mm: float, same_mm: float | None = None) -> FoundTuck:
    """Solve it, or compare all ways at ``same_mm``; raises NotSolvable and InputError with the reason."""
    h = hung(inputs, suspension)
    design = h.planned.design
    gap = find_limit("tyre-sweep", design.limits)[0].value
    if gap > WIDEST_MM:
        raise InputError(
            "the limit of the tyre through travel and lock is too wide to tuck for",
            field="/design/limits/tyre-sweep",
            found=as_thickness(gap),
            acceptable=f"{as_length(WIDEST_MM)} or less",
        )
    axle = h.own.axle
    others = {arch_name(name) for name in ("front", "rear") if name != axle}
    asked = AskedTuck(
        inputs.survey,
        h.own,
        design.seats,
        h.towards_rail_mm,
        tuple(t for t in scene(h.planned).standing if not (t.kind == "wing" and t.name in others)),
        TuckWish(most_mm=most_mm, gap_mm=max(gap, 0.0), same_mm=same_mm),
    )
    return h.back(find_tuck(asked))
