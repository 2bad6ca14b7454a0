"""Mistakes of the floor: a stand under the wrong body, a box that was closed before what belongs in it."""

from random import Random

from nodulant.asbuilt.log import SignOffEntry
from nodulant.evaluate import evaluate
from nodulant.job.document import AsBuilt, Inputs
from nodulant.practice.fault import Fault, Planted
from nodulant.practice.signals import WANT
from nodulant.supports.bodies import situations
from nodulant.supports.places import places

AT, BY = "2026-11-02T18:00:00+00:00", "crew"


def on_stands(inputs: Inputs) -> Inputs:
    """With stands where they are found for every moment."""
    own = inputs.design
    found = places(inputs.survey, situations(inputs.survey, own.operations, own.lifts))
    return inputs.model_copy(update={"design": own.model_copy(update={"supports": found})})


def _wrong_body(inputs: Inputs, chance: Random) -> Planted:
    """The rearmost pair stands ahead of the cut that it should stand behind."""
    stood = on_stands(inputs)
    stands = sorted(stood.design.supports, key=lambda s: s.x_mm)
    last = max(s.x_mm for s in stands)
    ahead = min(s.x_mm for s in stands) + chance.uniform(50.0, 150.0)
    moved = tuple(s.model_copy(update={"x_mm": round(ahead)}) if s.x_mm == last else s for s in stands)
    design = stood.design.model_copy(update={"supports": moved})
    return Planted(stood.model_copy(update={"design": design}), "the rearmost pair of stands")


def signed(inputs: Inputs, upto: str, leave_out: str) -> Inputs:
    """Every step signed to ``upto``, but one."""
    out: list[SignOffEntry] = []
    for step in evaluate(inputs, WANT).steps:
        if step.id != leave_out:
            out.append(SignOffEntry(number=len(out) + 1, at=AT, by=BY, step=step.id, evaluated="practice"))
        if step.id == upto:
            break
    return inputs.model_copy(update={"as_built": AsBuilt(entries=tuple(out))})


def _closed_first(inputs: Inputs, chance: Random) -> Planted:
    """Signed as welded shut while what comes before it was never done."""
    steps = evaluate(inputs, WANT).steps
    shuts = [s for s in steps if "shuts" in s.spec.acts and s.needs]
    last = chance.choice(shuts)
    inside = [s for s in steps if s.id in last.needs and s.operation is not None]
    before = chance.choice(inside or [s for s in steps if s.id in last.needs])
    return Planted(signed(inputs, last.id, before.id), f"'{before.spec.title}' before '{last.spec.title}'")


FLOOR_FAULTS = (
    Fault(
        id="wrong-body",
        name="A support stands under the wrong part of the frame",
        story="The frame stands on four good stands, level and quiet. The saw is ready.",
        hints=(
            "It is about the build.",
            "Think of the moment after the cut, not before it.",
            "Where the rearmost stands are.",
            "After the cut nothing holds what is behind it: it tips.",
        ),
        costs="The rear of the frame comes down as the last bridge parts. Somebody may be under it.",
        hours=30.0,
        shows=frozenset({"tips"}),
        plant=_wrong_body,
    ),
    Fault(
        id="closed-first",
        name="A box was closed before what belongs inside or before it was done",
        story="The welder was there on Saturday and did all he could.",
        hints=(
            "It is about the build.",
            "What is signed and what it waits for do not go together.",
            "A step that is still open before one that shuts something.",
            "It cannot be reached any more.",
        ),
        costs="The plate is cut open again, and its weld ground out.",
        hours=11.0,
        shows=frozenset({"order"}),
        plant=_closed_first,
    ),
)
