"""What is aboard in each named load state; each one carries what the one before it does."""

from typing import get_args

from nodulant.base.memo import remembered
from nodulant.parts.sides import LoadState
from nodulant.survey.vehicle import Mass, Survey

LOAD_STATES: tuple[LoadState, ...] = get_args(LoadState)


def aboard(masses: tuple[Mass, ...], state: LoadState) -> tuple[Mass, ...]:
    """``masses`` with those that are not aboard yet at nothing, in their places; none where nothing is aboard."""
    limit = LOAD_STATES.index(state)
    held = tuple(m if LOAD_STATES.index(m.aboard) <= limit else m.model_copy(update={"mass_kg": 0.0}) for m in masses)
    return held if any(m.mass_kg > 0 for m in held) else ()


@remembered(8)
def in_state(survey: Survey, state: LoadState) -> Survey:
    """``survey`` loaded as in ``state``; the very same where everything is aboard."""
    if all(LOAD_STATES.index(m.aboard) <= LOAD_STATES.index(state) for m in survey.masses):
        return survey
    return survey.model_copy(update={"masses": aboard(survey.masses, state)})
