"""What may not be done while cuts are open: of several the strictest counts, for there is one vehicle.

Each cut was reckoned with the others whole, so that several at once are told as that.
"""

from collections.abc import Iterable, Sequence

from nodulant.build.plan import Step, StepStatus
from nodulant.evaluate.evaluation import InterimFrame
from nodulant.evaluate.rails.interim import interim_words
from nodulant.parts.sides import Sides

DONE: frozenset[StepStatus] = frozenset({"done", "overridden"})


def open_cuts(steps: Sequence[Step], interim: Iterable[InterimFrame]) -> list[InterimFrame]:
    """Frames as they stand now: a cut that was made and is not welded yet, in the order of the plan."""
    frames: dict[tuple[str, str], InterimFrame] = {(f.operation, f.side): f for f in interim}
    out: dict[tuple[str, str], InterimFrame] = {}
    for step in steps:
        if step.operation is None or "cuts" not in step.spec.acts or step.status not in DONE:
            continue
        for side in ("left", "right") if step.side == "both" else (step.side or "",):
            frame = frames.get((step.operation, side))
            if frame is not None and not _closed(steps, step.operation, side):
                out[step.operation, side] = frame
    return list(out.values())


def _closed(steps: Iterable[Step], operation: str, side: str) -> bool:
    """Whether a cut's welds are all done; one that is welded to nothing stays as it is, and is judged as planned."""
    own = [s for s in steps if s.operation == operation and s.side in {side, "both"} and "welds" in s.spec.acts]
    return all(s.status in DONE for s in own)


def while_open(frames: Iterable[InterimFrame]) -> str:
    """The strictest words, and the names of all that is open; empty where nothing is."""
    worst_first = sorted(frames, key=_strictness, reverse=True)
    if not worst_first:
        return ""
    worst = worst_first[0]
    sides = {f.side for f in worst_first if _strictness(f)[0] == _strictness(worst)[0]}
    which: Sides = "both" if len(sides) > 1 else worst.side
    use = "" if worst.use is None or worst.in_two else f" {worst.use:.0%} of what it may carry standing."
    names = list(dict.fromkeys(f.name for f in worst_first))
    open_here = f" Open: {' and '.join([', '.join(names[:-1]), names[-1]] if len(names) > 1 else names)}"
    alone = ", each reckoned with the others whole." if len(names) > 1 else "."
    return f"{interim_words(which, in_two=worst.in_two, use=worst.use)}{use}{open_here}{alone}"


def _strictness(frame: InterimFrame) -> tuple[int, float]:
    """What forbids more is more: what is known to be too weak forbids more than what is not known."""
    if frame.in_two:
        return 4, 0.0
    if frame.use is None:
        return 2, 0.0
    return (3 if not frame.may_stand else 1 if not frame.may_move else 0), frame.use
