"""A job that begins like another one: its sizes as a starting point, every one of them still to be measured."""

from nodulant.base.model import is_assumed
from nodulant.job.document import Design
from nodulant.survey.checklist import checklist
from nodulant.survey.vehicle import Survey

SURVEY = "/survey"
MOST = 390
"""Of the pointers that a survey may carry."""


def like(survey: Survey, vehicle: str) -> Survey:
    """The survey of another vehicle of this kind: what was measured on the first one counts as assumed on it."""
    taken = [item for group in checklist(survey) for item in group.items if item.taken]
    assumed = dict(survey.assumed)
    for item in taken:
        at = item.pointer.removeprefix(SURVEY)
        if not is_assumed(survey.assumed, at) and len(assumed) < MOST:
            assumed[at] = item.name
    return survey.model_copy(update={"vehicle": vehicle, "assumed": assumed, "typed": {}})


def like_design(design: Design) -> Design:
    """The design as planned there, without how its figures were typed."""
    return design.model_copy(update={"typed": {}})
