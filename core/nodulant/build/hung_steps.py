"""Build steps that a suspension brings: leaf packs, U-bolts, bump stops, hoses, springs and dampers at the end.

Common practice of the trade; lengths come from the design. U-bolts are used once: their threads have yielded.
"""

from nodulant.axles.springs import LeafPack
from nodulant.axles.suspension import Suspension
from nodulant.parts.cautions import HOT
from nodulant.parts.specs import HoldPoint, StepSpec
from nodulant.units.inline import as_deviation, as_distance, as_length

PACK = "A leaf pack holds its bend: C-clamps on both sides of the centre bolt before that is undone, eyes and ends away from the body."


def hung_steps(suspensions: tuple[Suspension, ...]) -> tuple[StepSpec, ...]:
    """General steps of what hangs on the frame, in their phases; none where nothing is planned to."""
    return tuple(step for own in suspensions for step in _of_axle(own))


def _of_axle(own: Suspension) -> tuple[StepSpec, ...]:
    pack = own.springs if isinstance(own.springs, LeafPack) else None
    return (
        *(_leaves(own, pack) if pack else ()),
        *((_stops(own),) if own.stop is not None else ()),
        *((_hoses(own),) if own.hoses else ()),
        _hung(own, leaf=pack is not None),
    )


def _leaves(own: Suspension, pack: LeafPack) -> tuple[StepSpec, ...]:
    steps = []
    if pack.removed:
        left = pack.leaves - pack.removed
        steps.append(
            StepSpec(
                key=f"{own.axle}-leaves-out",
                phase="fit",
                title=f"Take {_counted(pack.removed, 'leaf', 'leaves')} out of each {own.axle} pack",
                detail=f"{left} of {pack.leaves} stay, the main leaf first. A new centre bolt, its head into the pad; the clips bent round what is left. Both packs alike, their free bend read side by side.",
                minutes=60,
                people=2,
                tools=("C-clamps", "vice"),
                cautions=(PACK,),
                hold=HoldPoint(kind="look", ask="Both packs alike: leaves, length from centre bolt to eye, free bend"),
            )
        )
    if pack.flipped:
        to = "over" if pack.axle_was == "under" else "under"
        steps.append(
            StepSpec(
                key=f"{own.axle}-flip",
                phase="tack",
                title=f"Put the {own.axle} axle {to} its springs",
                detail=f"Old pads off the tube, ground flush and looked at for cracks. New pads by their template on the other side of the tube: pinion angle set first, then both pads level with each other. {_pads(pack)}Tacked only.",
                minutes=120,
                people=2,
                tools=("grinder", "angle gauge", "welder"),
                cautions=(PACK, HOT),
                hold=HoldPoint(kind="look", ask="Pinion angle as planned, both pads level with each other"),
                acts=("mocks-up",),
                undo="cut the tacks with a thin wheel and dress them",
            )
        )
        steps.append(
            StepSpec(
                key=f"{own.axle}-flip-weld",
                phase="weld",
                title=f"Weld the {own.axle} axle's spring pads",
                detail="Springs, seals and breather away from the heat; short beads round the tube by turns, left and right, cooling between.",
                minutes=90,
                tools=("welder",),
                cautions=(HOT,),
                acts=("welds-mount",),
            )
        )
    steps.append(
        StepSpec(
            key=f"{own.axle}-u-bolts",
            phase="finish",
            title=f"New U-bolts on the {own.axle} axle",
            detail=f"{_block(pack)}New ones, their legs {as_length(25)} past the nut at most, high nuts and hard washers. Tightened crosswise in three turns with the weight on the springs, marked with paint; read again after {as_distance(100)} and {as_distance(1000)}.",
            minutes=45,
            tools=("torque wrench",),
            hold=HoldPoint(kind="look", ask="Crosswise to the torque of their size, marks on every nut"),
        )
    )
    return tuple(steps)


def _pads(pack: LeafPack) -> str:
    return f"Pads differ by {as_deviation(pack.pads_mm)}: see the drop stack. " if pack.pads_mm else ""


def _block(pack: LeafPack) -> str:
    return f"Block of {as_length(pack.block_mm)} pinned to pack and pad. " if pack.block_mm else ""


def _stops(own: Suspension) -> StepSpec:
    stop, gap = own.stop, "Shims as planned"
    if stop is not None and stop.place is None:
        gap = f"{as_length(stop.gap_mm)} of wheel travel to the first touch"
    return StepSpec(
        key=f"{own.axle}-stops",
        phase="finish",
        title=f"Bump stops on the {own.axle} axle",
        detail=f"{gap}, left as right; the stop meets its face square through the last {as_length(20)}. It stops the axle before anything else does.",
        minutes=40,
        tools=("feeler blocks",),
        hold=HoldPoint(kind="look", ask="Both strike together, and before metal does"),
    )


def _hoses(own: Suspension) -> StepSpec:
    rows = "; ".join(f"{h.name}, {as_length(h.length_mm)} free" for h in own.hoses)
    return StepSpec(
        key=f"{own.axle}-hoses",
        phase="finish",
        title=f"Hoses of the {own.axle} axle",
        detail=f"{rows}: both ends held, never by the hose alone; no twist, no pull in droop at either lock, {as_length(20)} from exhaust, rim and spring. New seals; brakes bled until the pedal is hard.",
        minutes=60,
        people=2,
        tools=("flare spanners",),
        cautions=("Brake fluid strips paint and burns.",),
        hold=HoldPoint(kind="look", ask="Droop and both locks: slack left in every one; pedal hard, no leak"),
    )


def _hung(own: Suspension, *, leaf: bool) -> StepSpec:
    what = "Spring eyes and shackles" if leaf else "Springs, dampers and joints"
    return StepSpec(
        key=f"{own.axle}-hang",
        phase="finish",
        title=f"Hang the {own.axle} axle for good",
        detail=f"{what} with new lock nuts, greased bolts, washers as drawn. Rubber bushings are tightened at ride height with the weight on the wheels, or they are torn; ball joints and spherical ends at any height. Every nut to its torque, marked with paint.",
        minutes=120,
        people=2,
        tools=("torque wrench", "jack"),
        hold=HoldPoint(kind="look", ask="Torque marks on every nut, looked at by a second person"),
    )


def _counted(count: int, one: str, more: str) -> str:
    return f"{'one' if count == 1 else count} {one if count == 1 else more}"
