"""The rigging step of everything that a crane lifts: hook, strap, helper, nobody under it (common practice)."""

from nodulant.parts.specs import HoldPoint, StepSpec
from nodulant.supports.lift import HELPER_KG, Lifted
from nodulant.units.inline import as_amount, as_length

NOBODY_UNDER = (
    "Nobody under it, nor between it and a wall; it is never left hanging. Slings and shackles rated and looked at."
)


def rigging_step(lift: Lifted) -> StepSpec:
    """Before anything is unbolted: what hangs, where its middle is, what the crane is good for there."""
    return StepSpec(
        key=f"lift-{lift.lift}",
        phase="prepare",
        title=f"Rig and lift: {lift.name}",
        detail=f"{_hangs(lift)} Lines, looms, earth straps and the last bolts off first; lifted a hand's breadth, looked at, then on. Straps to its own lifting points, a levelling strap between; down on its own stands at once.",
        minutes=60,
        people=2 if lift.mass_kg > HELPER_KG else 1,
        tools=("crane", "levelling strap", "slings"),
        cautions=(NOBODY_UNDER,),
        hold=HoldPoint(kind="look", ask="It hangs level a hand's breadth up, nothing is still fast"),
    )


def _hangs(lift: Lifted) -> str:
    if lift.mass_kg <= 0:
        return "Its mass is not known: read it before a hook goes on."
    where = (
        ""
        if lift.x_mm is None
        else f", its middle {as_length(abs(lift.x_mm))} {'behind' if lift.x_mm >= 0 else 'ahead of'} the front axle line"
    )
    return f"{as_amount('mass', lift.mass_kg)}{where}: {lift.use:.0%} of what the crane may lift at this reach; {lift.words}."
