"""Begin a job from what a first visit gave: what was measured, what is assumed, and the first answer in its design."""

from django.db import transaction
from django.utils import timezone

from nodulant.begin.first_answer import first_answer
from nodulant.begin.start import Start, begun
from nodulant.job.document import Inputs, Shop
from nodulant_server.actions.save import Stale
from nodulant_server.audit import note
from nodulant_server.models import DesignRevision, Job, Option, SurveyRevision
from nodulant_server.roles import Acting, require


@transaction.atomic
def begin_job(acting: Acting, name: str, start: Start, shop: Shop) -> Job:
    """Store a new job with its survey and one option that holds the first answer; raises Forbidden."""
    require(acting, "import")
    survey, design = begun(start, shop)
    answer = first_answer(Inputs(survey=survey, design=design, shop=shop))
    answered = design.model_copy(update={"operations": answer.operations})
    job = Job.objects.create(
        name=name, shop=shop.model_dump(mode="json"), owner=acting.member, workshop=acting.workshop
    )
    at, by = timezone.now(), acting.name
    SurveyRevision(job=job, number=1, document=survey.model_dump(mode="json"), at=at, by=by).save()
    option = Option.objects.create(job=job, key="first", name="First idea")
    DesignRevision(option=option, number=1, document=answered.model_dump(mode="json"), at=at, by=by).save()
    note(acting, "job begun", job.name)
    return job


def change_shop(acting: Acting, job: Job, base: int, shop: Shop) -> int:
    """Replace a job's shop settings that started from number ``base``; the new number. Raises Forbidden and Stale."""
    require(acting, "design")
    settings = shop.model_dump(mode="json")
    with transaction.atomic():
        own = Job.objects.filter(pk=job.pk, shop_number=base)
        if not own.update(shop=settings, shop_number=base + 1):
            raise Stale(Job.objects.get(pk=job.pk).shop_number, None)
        note(acting, "shop settings", job.name)
    return base + 1
