"""A sweep kept as evidence: what it was of, its worst pairs, and whether a design is still that one."""

import hashlib

from nodulant.base.model import Frozen, Name
from nodulant.evaluate.clearances.sweep import SweepResult, SweptPair
from nodulant.job.document import Inputs

KEPT_PAIRS = 40
PARTS = {"operations", "suspensions", "targets", "obstacles", "limits", "seats"}


class KeptSweep(Frozen):
    """The worst pairs of a sweep, and what stood behind them; ``of`` is the hash of all that a sweep depends on."""

    of: str
    pairs: tuple[SweptPair, ...]
    """Worst first."""
    all_pairs: int
    positions: int
    left_out: tuple[str, ...]


class SweepOnFile(Frozen):
    """A kept sweep with its revision, when and by whom it was swept, and whether the design is still that one."""

    revision: int | None
    """None where it was swept for the paper that it stands on."""
    at: str
    by: Name
    fresh: bool
    swept: KeptSweep


def swept_hash(inputs: Inputs) -> str:
    """SHA-256 of everything that a sweep depends on; what is typed beside it does not change it."""
    survey = inputs.survey.model_dump_json(exclude={"typed"})
    return hashlib.sha256((survey + inputs.design.model_dump_json(include=PARTS)).encode()).hexdigest()


def kept(inputs: Inputs, result: SweepResult) -> KeptSweep:
    """What is kept of a sweep of ``inputs``."""
    return KeptSweep(
        of=swept_hash(inputs),
        pairs=result.pairs[:KEPT_PAIRS],
        all_pairs=len(result.pairs),
        positions=result.positions,
        left_out=result.left_out,
    )
