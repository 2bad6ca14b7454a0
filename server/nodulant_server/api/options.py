"""Options, their drafts and revisions: opened, kept, saved, renamed, put in the trash, told apart."""

from django.db import transaction
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router

from nodulant.job.changes import design_changes
from nodulant.survey.vehicle import Survey
from nodulant_server.actions import save
from nodulant_server.actions.options import change_option, listed_revisions
from nodulant_server.api.access import acting, option_of
from nodulant_server.api.bodies import (
    Branch,
    Device,
    OptionChange,
    OptionDesign,
    OptionHead,
    OtherDraft,
    RevisionDesign,
    RevisionRow,
    Saved,
    SaveDesign,
    SaveDraft,
)
from nodulant_server.api.jobs import option_head
from nodulant_server.models import Draft
from nodulant_server.models.jobs import read_design

router = Router()


@router.patch("/options/{option_id}", response=OptionHead)
def change(request: HttpRequest, option_id: int, body: OptionChange) -> OptionHead:
    """Rename an option, note something on it, put it in the trash or take it out again."""
    option = option_of(request, option_id)
    return option_head(change_option(acting(request), option, body.name, body.note, body.deleted))


@router.get("/options/{option_id}/revisions", response=list[RevisionRow])
def revisions(request: HttpRequest, option_id: int) -> list[RevisionRow]:
    """The option's revisions, newest first, with what each changed."""
    rows = listed_revisions(option_of(request, option_id))
    return [RevisionRow(number=r.number, at=r.at, by=r.by, note=r.note, changes=told) for r, told in rows]


@router.get("/options/{option_id}/revisions/{number}", response=RevisionDesign)
def revision(request: HttpRequest, option_id: int, number: int) -> RevisionDesign:
    """A stored revision, and what the newest has otherwise."""
    option = option_of(request, option_id)
    design = get_object_or_404(option.revisions, number=number).design()
    return RevisionDesign(number=number, design=design, since=design_changes(design, option.head().design()))


@router.get("/options/{option_id}", response=OptionDesign)
def option(request: HttpRequest, option_id: int, device: Device = "") -> OptionDesign:
    """The newest design, the person's draft on this device, and what lies on others."""
    found = option_of(request, option_id)
    own = Draft.objects.filter(option=found, user=acting(request).user)
    draft = own.filter(device=device).first()
    head = found.head()
    return OptionDesign(
        id=found.pk,
        head=head.number,
        design=head.design(),
        draft=read_design(draft.document, found.job) if draft else None,
        draft_id=draft.pk if draft else None,
        draft_base=draft.base if draft else None,
        draft_survey=Survey.model_validate(draft.survey) if draft and draft.survey else None,
        draft_survey_base=draft.survey_base if draft else None,
        draft_device=device,
        others=[
            OtherDraft(id=d.pk, device=d.device, base=d.base, at=d.at)
            for d in own.exclude(device=device).order_by("-at")
        ],
    )


@router.post("/options/{option_id}/drafts/{draft_id}/keep", response=OptionHead)
def keep(request: HttpRequest, option_id: int, draft_id: int) -> OptionHead:
    """Make an option of the person's work on another device."""
    own = acting(request)
    draft = get_object_or_404(Draft, pk=draft_id, option=option_id, user=own.user)
    return option_head(save.keep_draft(own, draft))


@router.delete("/options/{option_id}/drafts/{draft_id}", response={204: None})
def throw_away(request: HttpRequest, option_id: int, draft_id: int) -> tuple[int, None]:
    """Throw away the person's work on another device."""
    get_object_or_404(Draft, pk=draft_id, option=option_id, user=acting(request).user).delete()
    return 204, None


@router.put("/options/{option_id}/draft", response=Saved)
def draft(request: HttpRequest, option_id: int, body: SaveDraft) -> Saved:
    """Keep unsaved work."""
    work = save.Unsaved(body.base, body.design, body.survey, body.survey_base, body.device, body.replaces)
    return Saved(number=save.save_draft(acting(request), option_of(request, option_id), work).base)


@router.post("/options/{option_id}/revisions", response=Saved)
def store(request: HttpRequest, option_id: int, body: SaveDesign) -> Saved:
    """Save the design as a new revision; 409 when it is stale."""
    option = option_of(request, option_id)
    row = save.save_design(acting(request), option, body.base, body.design, body.note, body.device)
    return Saved(number=row.number)


@router.post("/options/{option_id}/branch", response=OptionHead)
@transaction.atomic
def branch(request: HttpRequest, option_id: int, body: Branch) -> OptionHead:
    """Make a new option from a design."""
    new = save.branch(acting(request), option_of(request, option_id), body.design, body.name, "")
    return option_head(new)
