"""Every kind of heavy work: a function from what was asked, as JSON, to lines. A new kind is one line in ``KINDS``."""

from collections.abc import Callable, Iterator
from typing import Any

from django.contrib.auth.models import User
from pydantic import BaseModel

from nodulant.evaluate.clearances.sweep import SweepResult, sweep
from nodulant.evaluate.finding import find_sets
from nodulant.evaluate.suspensions.fitted import holes_judged, window_judged
from nodulant.formats.dossier import dossier_pdf
from nodulant.formats.dossier.archive import dossier_zip
from nodulant.formats.jobfile import dump_job
from nodulant.formats.pattern_pdf import TitleBlock
from nodulant.formats.whole_zip import Choices, whole_zip
from nodulant.job.document import Inputs
from nodulant.remedies.tried import find_remedies
from nodulant.stock.nesting.plan import nest
from nodulant_server.actions.dossier import contents_of
from nodulant_server.actions.sweeps import keep_sweep
from nodulant_server.actions.transfer import export_job
from nodulant_server.api.search_bodies import FindHolesBody, FindLine, FindWindowBody, SweepLine
from nodulant_server.heavy.lines import searched
from nodulant_server.models import Option
from nodulant_server.roles import ALLOWED, acting_as

Asked = dict[str, Any]
LIMIT_S = 180.0
"""Longer than this no run goes on: what it found until then stands."""


def _inputs(asked: Asked) -> Inputs:
    return Inputs.model_validate(asked["inputs"])


def _step(step: tuple[Any, ...], left: float | None) -> FindLine:
    return FindLine(done=step[0], total=step[1], best=getattr(step, "best", None), seconds_left=left)


def _refused(words: str) -> FindLine:
    return FindLine(problem=words)


def _sets(asked: Asked) -> Iterator[bytes]:
    search = find_sets(_inputs(asked), asked["operation_id"])
    return searched(search, lambda found: FindLine(sets=found), _step, _refused)


def _remedies(asked: Asked) -> Iterator[bytes]:
    search = find_remedies(_inputs(asked), asked["key"])
    return searched(search, lambda found: FindLine(remedies=found), _step, _refused)


def _holes(asked: Asked) -> Iterator[bytes]:
    body = FindHolesBody.model_validate(asked["body"])
    search = holes_judged(_inputs(asked), body.suspension, body.holes, body.wanted)
    return searched(search, lambda found: FindLine(holes=found), _step, _refused)


def _window(asked: Asked) -> Iterator[bytes]:
    body = FindWindowBody.model_validate(asked["body"])
    search = window_judged(_inputs(asked), body.suspension, body.link, body.window, body.wanted)
    return searched(search, lambda found: FindLine(window=found), _step, _refused)


def _nest(asked: Asked) -> Iterator[bytes]:
    return searched(nest(_inputs(asked)), lambda found: FindLine(nest=found), _step, _refused)


def _sweep(asked: Asked) -> Iterator[bytes]:
    inputs = _inputs(asked)

    def told(result: SweepResult) -> BaseModel:
        option = Option.objects.filter(pk=asked["option_id"] or 0).first()
        person = User.objects.filter(pk=asked["person"] or 0).first()
        own = acting_as(person, option.job.workshop_id) if option and person else None
        if option is not None and own is not None and "design" in ALLOWED[own.role]:
            keep_sweep(own, option, inputs, result)
        return SweepLine(swept=result)

    return searched(
        sweep(inputs),
        told,
        lambda step, left: SweepLine(done=step[0], total=step[1], pair=step[2]),
        lambda words: SweepLine(problem=words),
    )


def _report(asked: Asked) -> Iterator[bytes]:
    """The paper itself, in one piece."""
    option = Option.objects.get(pk=asked["option_id"])
    yield dossier_pdf(contents_of(option, _inputs(asked), asked), short=asked["short"])


def _dossier(asked: Asked) -> Iterator[bytes]:
    """Both papers with the job file and its photos, in one piece."""
    option = Option.objects.get(pk=asked["option_id"])
    yield dossier_zip(contents_of(option, _inputs(asked), asked), dump_job(export_job(option.job)))


def _everything(asked: Asked) -> Iterator[bytes]:
    """The ZIP itself, in one piece."""
    yield whole_zip(_inputs(asked), TitleBlock(**asked["title"]), Choices(**asked["choices"]))


KINDS: dict[str, Callable[[Asked], Iterator[bytes]]] = {
    "sets": _sets,
    "remedies": _remedies,
    "holes": _holes,
    "window": _window,
    "nest": _nest,
    "sweep": _sweep,
    "report": _report,
    "dossier": _dossier,
    "everything": _everything,
}
