"""Begin a job from what a first visit gave: what was measured, what is assumed, and the first answer in its design."""

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from nodulant.begin.first_answer import first_answer
from nodulant.begin.start import Start, begun
from nodulant.job.document import Inputs, Shop
from nodulant_server.models import DesignRevision, Job, Option, SurveyRevision
from nodulant_server.roles import require


@transaction.atomic
def begin_job(user: User, name: str, start: Start, shop: Shop) -> Job:
    """Store a new job with its survey and one option that holds the first answer; raises Forbidden."""
    require(user, "import")
    survey, design = begun(start, shop)
    answer = first_answer(Inputs(survey=survey, design=design, shop=shop))
    answered = design.model_copy(update={"operations": answer.operations})
    job = Job.objects.create(name=name, shop=shop.model_dump(mode="json"), owner=user)
    at, by = timezone.now(), user.username
    SurveyRevision(job=job, number=1, document=survey.model_dump(mode="json"), at=at, by=by).save()
    option = Option.objects.create(job=job, key="first", name="First idea")
    DesignRevision(option=option, number=1, document=answered.model_dump(mode="json"), at=at, by=by).save()
    return job


def change_shop(user: User, job: Job, shop: Shop) -> None:
    """Replace a job's shop settings (stock, how it reads a tape); raises Forbidden."""
    require(user, "design")
    job.shop = shop.model_dump(mode="json")
    job.save(update_fields=["shop"])
