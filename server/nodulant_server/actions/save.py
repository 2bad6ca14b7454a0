"""Save a design or a survey as a new revision; a stale save is refused and kept as an option."""

import re
from dataclasses import dataclass

from django.db import transaction
from django.utils import timezone

from nodulant.job.document import MOST_OPTIONS, MOST_REVISIONS, Design
from nodulant.survey.vehicle import Survey
from nodulant_server.actions.limits import one_at_a_time, refuse_beyond
from nodulant_server.audit import note
from nodulant_server.models import DesignRevision, Draft, Job, Option, SurveyRevision
from nodulant_server.models.jobs import read_design
from nodulant_server.roles import Acting, require


@dataclass
class Stale(Exception):
    """The save started from an older revision; the work was kept as ``kept`` where it could be."""

    head: int
    kept: Option | None


def save_design(
    acting: Acting, option: Option, base: int, design: Design, words: str = "", device: str = ""
) -> DesignRevision:
    """Append a revision that started from ``base``; raises Stale and keeps the work as an option.

    The device's draft is in it and goes; those of other devices stay.
    """
    require(acting, "design")
    with transaction.atomic():
        one_at_a_time(option.job)
        head = option.head().number
        if head == base:
            Draft.objects.filter(option=option, user=acting.user, device=device, base=base).delete()
            return _append(option, head + 1, design, acting, words)
        kept = _beside(acting, option, base, design)
        Draft.objects.filter(option=option, user=acting.user, device=device, base=base).delete()
    raise Stale(head, kept)


def _beside(acting: Acting, option: Option, base: int, design: Design) -> Option | None:
    """Stale work as an option; where the job has as many as it may, as a draft that is offered on opening."""
    if option.job.live_options().count() >= MOST_OPTIONS:
        save_draft(acting, option, Unsaved(base, design, device=f"stale.{timezone.now():%Y%m%d%H%M%S%f}"))
        return None
    words = f"kept from a save that started from revision {base}"
    return branch(acting, option, design, f"{option.name}, {acting.name}'s copy", words)


def branch(acting: Acting, option: Option, design: Design, name: str, words: str) -> Option:
    """Make a new option with ``design`` as its first revision."""
    require(acting, "design")
    refuse_beyond(option.job.live_options().count() + 1, MOST_OPTIONS, "options", "delete one first")
    stem = re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:30] or "option"
    taken = set(option.job.options.values_list("key", flat=True))
    key = next(k for k in [stem, *(f"{stem}-{n}" for n in range(2, 1000))] if k not in taken)
    new = Option.objects.create(job=option.job, key=key, name=name[:120], note=words)
    note(acting, "option made", f"{option.job.name}: {new.name}")
    _append(new, 1, design, acting, words)
    return new


@dataclass(frozen=True)
class Unsaved:
    """Work to be kept: what it started from, on which device, and which device's work it takes over."""

    base: int
    design: Design
    survey: Survey | None = None
    survey_base: int | None = None
    device: str = ""
    replaces: str | None = None


def save_draft(acting: Acting, option: Option, work: Unsaved) -> Draft:
    """Keep unsaved work; it replaces the device's older work on the same revision, and puts work on another aside."""
    require(acting, "design")
    own = Draft.objects.filter(option=option, user=acting.user)
    with transaction.atomic():
        for overtaken in own.filter(device=work.device).exclude(base=work.base):
            own.filter(pk=overtaken.pk).update(device=f"aside.{overtaken.pk}")
        draft, _ = Draft.objects.update_or_create(
            option=option,
            user=acting.user,
            device=work.device,
            defaults={
                "base": work.base,
                "document": work.design.model_dump(mode="json"),
                "survey": work.survey.model_dump(mode="json") if work.survey else None,
                "survey_base": work.survey_base,
            },
        )
        if work.replaces is not None and work.replaces != work.device:
            own.filter(device=work.replaces, base=work.base).delete()
    return draft


def keep_draft(acting: Acting, draft: Draft) -> Option:
    """Make an option of work that lay on another device, and put the draft away."""
    when = timezone.localtime(draft.at).strftime("%d %b %H:%M")
    with transaction.atomic():
        words = f"kept from a draft that started from revision {draft.base}"
        name = f"{draft.option.name}, {acting.name} {when}"
        new = branch(acting, draft.option, read_design(draft.document, draft.option.job), name, words)
        draft.delete()
    return new


def save_survey(acting: Acting, job: Job, base: int, survey: Survey) -> SurveyRevision:
    """Append a survey revision that started from ``base``; raises Stale."""
    require(acting, "design")
    with transaction.atomic():
        one_at_a_time(job)
        head = job.survey_head().number
        if head != base:
            raise Stale(head, None)
        refuse_beyond(head + 1, MOST_REVISIONS, "surveys", "a copy of the job")
        row = SurveyRevision(
            job=job, number=head + 1, document=survey.model_dump(mode="json"), at=timezone.now(), by=acting.name
        )
        row.save()
        note(acting, "survey stored", f"{job.name}, survey {row.number}")
    return row


def _append(option: Option, number: int, design: Design, acting: Acting, words: str) -> DesignRevision:
    refuse_beyond(number, MOST_REVISIONS, "revisions of an option", "an option of its own")
    row = DesignRevision(
        option=option,
        number=number,
        document=design.model_dump(mode="json"),
        at=timezone.now(),
        by=acting.name,
        note=words,
    )
    row.save()
    note(acting, "revision stored", f"{option.job.name}: {option.name}, revision {number}")
    return row
