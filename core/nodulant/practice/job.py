"""Practice jobs without end: a clean twin varied by a seed, one fault planted, and how an answer is scored."""

from collections.abc import Iterable
from random import Random

from nodulant.base.errors import InputError
from nodulant.base.model import Frozen
from nodulant.job.document import AsBuilt, Inputs
from nodulant.practice.design_faults import DESIGN_FAULTS
from nodulant.practice.fault import Fault, FaultChoice, Planted
from nodulant.practice.floor_faults import FLOOR_FAULTS
from nodulant.practice.survey_faults import SURVEY_FAULTS

FAULTS: dict[str, Fault] = {f.id: f for f in (*SURVEY_FAULTS, *DESIGN_FAULTS, *FLOOR_FAULTS)}
CHOICES: tuple[FaultChoice, ...] = tuple(FaultChoice(id=f.id, name=f.name) for f in FAULTS.values())
MOST, PER_HINT, PER_FALSE, LEAST = 100, 15, 20, 5
VARIED = 0.05
"""So far the vehicle's masses differ from seed to seed."""


class Score(Frozen):
    """How a job was answered."""

    points: int
    found: bool
    hints: int
    false: int
    words: str


def fault_of(id_: str) -> Fault:
    """The fault of that id; raises InputError."""
    if id_ not in FAULTS:
        raise InputError("there is no such fault", field="/fault", found=id_[:40], acceptable=", ".join(FAULTS))
    return FAULTS[id_]


def clean_twin(base: Inputs, seed: int) -> Inputs:
    """The base with lighter or heavier masses and an empty log."""
    chance = Random(f"twin/{seed}")
    masses = tuple(
        m.model_copy(update={"mass_kg": round(m.mass_kg * chance.uniform(1 - VARIED, 1.0), 1)})
        for m in base.survey.masses
    )
    survey = base.survey.model_copy(update={"masses": masses})
    return base.model_copy(update={"survey": survey, "as_built": AsBuilt()})


def practice_job(base: Inputs, fault: str, seed: int) -> Planted:
    """A clean twin with one fault in it; the same seed gives the same job. Raises InputError for an unknown fault."""
    own = fault_of(fault)
    return own.plant(clean_twin(base, seed), Random(f"{fault}/{seed}"))


def score(fault: Fault, accused: Iterable[str], hints: int) -> Score:
    """Points for what was found, less what was helped with and what was falsely accused."""
    tried = list(dict.fromkeys(accused))
    found = fault.id in tried
    false = sum(a != fault.id for a in tried)
    points = max(MOST - PER_HINT * hints - PER_FALSE * false, LEAST) if found else 0
    if found:
        words = f"Found. Not seen in time: {fault.costs} About {fault.hours:g} hours of work again."
    elif false:
        words = "Not that. An accusation that is wrong costs a good part, too."
    else:
        words = "Nothing accused yet."
    return Score(points=points, found=found, hints=hints, false=false, words=words)
