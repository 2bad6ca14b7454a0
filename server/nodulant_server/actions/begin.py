"""Begin a job from nothing: a bare survey in which nothing is measured yet."""

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from nodulant.job.document import Design, Shop
from nodulant.survey.rail import Rail, Station
from nodulant.survey.vehicle import Datum, Feature, Rails, Survey
from nodulant_server.models import DesignRevision, Job, Option, SurveyRevision
from nodulant_server.roles import require


def blank_survey(vehicle: str) -> Survey:
    """Two straight rails to be measured: sizes are there to be drawn, walls are missing, so nothing is computed."""
    ends = tuple(Station(x_mm=x, underside_z_mm=0, height_mm=120, width_mm=50) for x in (-500, 3000))
    rail = Rail(stations=ends)
    features = (
        Feature(id="front-axle", name="front axle line", kind="axle-line", x_mm=0),
        Feature(id="rear-axle", name="rear axle line", kind="axle-line", x_mm=2500),
    )
    return Survey(
        vehicle=vehicle, datum=Datum(feature_id="front-axle"), rails=Rails(left=rail, right=rail), features=features
    )


@transaction.atomic
def begin_job(user: User, name: str, vehicle: str) -> Job:
    """Store a new job with a blank survey and one empty option; raises Forbidden."""
    require(user, "import")
    job = Job.objects.create(name=name, shop=Shop().model_dump(mode="json"), owner=user)
    survey = blank_survey(vehicle).model_dump(mode="json")
    SurveyRevision(job=job, number=1, document=survey, at=timezone.now(), by=user.username).save()
    option = Option.objects.create(job=job, key="first", name="First idea")
    design = Design().model_dump(mode="json")
    DesignRevision(option=option, number=1, document=design, at=timezone.now(), by=user.username).save()
    return job


def change_shop(user: User, job: Job, shop: Shop) -> None:
    """Replace a job's shop settings (stock, how it reads a tape); raises Forbidden."""
    require(user, "design")
    job.shop = shop.model_dump(mode="json")
    job.save(update_fields=["shop"])
