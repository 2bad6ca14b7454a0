"""Mistakes of the plan: a sign, a unit, a length, an end, a bolt, a hole, a drop that counts twice."""

from collections.abc import Callable
from random import Random
from typing import TypeVar

from nodulant.axles.springs import Coilover
from nodulant.axles.suspension import Suspension
from nodulant.base.model import Frozen
from nodulant.frame.ops.hole import WebHole
from nodulant.frame.ops.mounts.bracket import Bracket
from nodulant.frame.ops.notches.notch import Notch
from nodulant.frame.ops.on_axle.axle_bracket import AxleBracket
from nodulant.frame.ops.union import Operation
from nodulant.job.document import Inputs
from nodulant.practice.fault import Fault, Planted
from nodulant.targets.drop import DropEntry

LB_PER_IN = 5.710147
"""A rate in N/mm told in lb/in: 25.4 / 4.4482216152605."""
T = TypeVar("T", bound=Frozen)


def _suspension(inputs: Inputs, axle: str, change: Callable[[Suspension], Suspension]) -> Inputs:
    own = tuple(change(s) if s.axle == axle else s for s in inputs.design.suspensions)
    return inputs.model_copy(update={"design": inputs.design.model_copy(update={"suspensions": own})})


def _operation(inputs: Inputs, new: Operation) -> Inputs:
    own = tuple(new if op.id == new.id else op for op in inputs.design.operations)
    return inputs.model_copy(update={"design": inputs.design.model_copy(update={"operations": own})})


def _of_kind(inputs: Inputs, kind: type[T], chance: Random) -> T:
    return chance.choice([op for op in inputs.design.operations if isinstance(op, kind)])


def _pinion_down(inputs: Inputs, chance: Random) -> Planted:
    more = round(chance.uniform(0.0, 1.5), 1)

    def turned(s: Suspension) -> Suspension:
        return s.model_copy(update={"pinion_deg": -((s.pinion_deg or 4.5) + more)})

    return Planted(_suspension(inputs, "rear", turned), "the rear pinion's angle")


def _rate_in_pounds(inputs: Inputs, chance: Random) -> Planted:
    axle = chance.choice([s.axle for s in inputs.design.suspensions if isinstance(s.springs, Coilover)])

    def typed(s: Suspension) -> Suspension:
        springs = s.springs
        if not isinstance(springs, Coilover):
            return s
        rate = round(springs.rate_n_per_mm * LB_PER_IN, 1)
        return s.model_copy(update={"springs": springs.model_copy(update={"rate_n_per_mm": rate})})

    return Planted(_suspension(inputs, axle, typed), f"the {axle} spring's rate")


def _short_damper(inputs: Inputs, chance: Random) -> Planted:
    axle = chance.choice([s.axle for s in inputs.design.suspensions if isinstance(s.springs, Coilover)])
    short = round(chance.uniform(35.0, 60.0), 1)

    def cut(s: Suspension) -> Suspension:
        springs = s.springs
        if not isinstance(springs, Coilover):
            return s
        return s.model_copy(update={"springs": springs.model_copy(update={"open_mm": springs.open_mm - short})})

    return Planted(_suspension(inputs, axle, cut), f"the {axle} coilover's open length")


def _straight_end(inputs: Inputs, chance: Random) -> Planted:
    notch = _of_kind(inputs, Notch, chance)
    which = chance.choice([name for name in ("outer_plate", "cap") if getattr(notch, name) is not None])
    part = getattr(notch, which).model_copy(update={"end": "square"})
    return Planted(
        _operation(inputs, notch.model_copy(update={which: part})), f"the end of the notch's {which.split('_')[0]}"
    )


def _soft_bolt(inputs: Inputs, chance: Random) -> Planted:
    mounts = [op for op in inputs.design.operations if isinstance(op, Bracket | AxleBracket) and "lower" in op.id]
    mount = chance.choice(mounts)
    tabs = mount.tabs.model_copy(update={"grade": "8.8", "bolt_size": "M8"})
    return Planted(_operation(inputs, mount.model_copy(update={"tabs": tabs})), f"the bolt of '{mount.name}'")


def _in_the_bend(inputs: Inputs, chance: Random) -> Planted:
    hole = _of_kind(inputs, WebHole, chance)
    high = round(hole.diameter_mm / 2 + chance.uniform(3.0, 9.0), 1)
    return Planted(_operation(inputs, hole.model_copy(update={"height_mm": high})), f"the height of '{hole.name}'")


def _twice(inputs: Inputs, chance: Random) -> Planted:
    """The step's own drop typed in once more, and what was left to be solved gives way."""
    targets = inputs.design.targets
    again = DropEntry(
        id="again", name="Frame stepped at the rear", mechanism="z-step", amount_mm=round(chance.uniform(50.0, 75.0))
    )
    more = targets.model_copy(update={"entries": (*targets.entries, again)})
    return Planted(inputs.model_copy(update={"design": inputs.design.model_copy(update={"targets": more})}), again.name)


DESIGN_FAULTS = (
    Fault(
        id="pinion-sign",
        name="The pinion's angle has the wrong sign",
        story="The new axle came with its pads welded on. The shaft is the old one.",
        hints=(
            "It is about what turns.",
            "A joint works at an angle that none should have at rest.",
            "The pinion's angle of the rear suspension.",
            "Nose up is positive: it was typed nose down.",
        ),
        costs="The shaft's joints shake and wear out within weeks; pads are cut off and turned.",
        hours=10.0,
        shows=frozenset({"joint-angle"}),
        plant=_pinion_down,
    ),
    Fault(
        id="rate-unit",
        name="A spring's rate was typed in the wrong unit",
        story="The springs came with a number on them, and the number was typed.",
        hints=(
            "It is about how it rides.",
            "One axle is much too stiff for what stands on it.",
            "The rate of one coilover's spring.",
            "Pounds an inch were typed as newtons a millimetre.",
        ),
        costs="It rides on its stops or without its springs; the springs are sent back.",
        hours=4.0,
        shows=frozenset({"coil-seated"}),
        plant=_rate_in_pounds,
    ),
    Fault(
        id="short-damper",
        name="A damper is shorter than full droop",
        story="The coilovers were on offer, nearly the size that was wanted.",
        hints=(
            "It is about the ends of travel.",
            "Something is pulled apart before the axle hangs.",
            "The open length of one coilover.",
            "At full droop the eyes are further apart than it opens.",
        ),
        costs="The damper is the droop stop and is torn off its mount.",
        hours=5.0,
        shows=frozenset({"damper-open"}),
        plant=_short_damper,
    ),
    Fault(
        id="across-the-flange",
        name="A plate ends straight across the flange in tension",
        story="The plates were cut to a size that left no waste.",
        hints=(
            "It is about the cut.",
            "It is not how much metal there is but how it ends.",
            "The end of one of the notch's plates.",
            "It ends square: a weld straight across the flange.",
        ),
        costs="A crack begins at the weld within the first years and runs through the flange.",
        hours=16.0,
        shows=frozenset({"end-shape"}),
        plant=_straight_end,
    ),
    Fault(
        id="soft-bolt",
        name="A bolt is too weak for its joint",
        story="The bolts are new, from the drawer.",
        hints=(
            "It is about a mount.",
            "The metal holds; what goes through it does not.",
            "Size and grade of one joint's bolt.",
            "It is smaller and softer than the joint's force asks for.",
        ),
        costs="The bolt bends in the first hard stop, the hole goes oval, the link lets go.",
        hours=6.0,
        shows=frozenset({"link-bolt"}),
        plant=_soft_bolt,
    ),
    Fault(
        id="in-the-bend",
        name="A hole is drilled into the bend of the flange",
        story="The rack's hole was marked by eye, where the line crosses the rail.",
        hints=(
            "It is about the cut.",
            "There is too little metal beside something round.",
            "The height of the hole for the rack.",
            "Its edge is nearer to the flange than the bend is round.",
        ),
        costs="The flange cracks from the hole; the rail is patched and the hole moved.",
        hours=8.0,
        shows=frozenset({"pass-web"}),
        plant=_in_the_bend,
    ),
    Fault(
        id="twice",
        name="A part of the drop is counted twice",
        story="The height came out lower on paper than anybody hoped for.",
        hints=(
            "It is about the target.",
            "The stack claims more than the cuts and springs give.",
            "The contributions of the rear axle's drop.",
            "The step stands in it by itself and typed in once more.",
        ),
        costs="The vehicle stands higher than promised, and brackets are made for a height that never comes.",
        hours=7.0,
        shows=frozenset({"drop-sum", "stack-cut", "stack-stands"}),
        plant=_twice,
    ),
)
