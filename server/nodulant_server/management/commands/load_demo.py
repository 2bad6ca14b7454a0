"""``manage.py load_demo``: the demo shop's people and jobs, once."""

from pathlib import Path

from django.conf import settings
from django.contrib.auth.models import User
from django.core.management.base import BaseCommand, CommandError

from nodulant.formats.jobfile import load_job
from nodulant_server.actions import people
from nodulant_server.actions.transfer import import_job
from nodulant_server.demo import PEOPLE
from nodulant_server.models import Job
from nodulant_server.roles import Acting, acting_as
from nodulant_server.shops import shop_named

DEMO_FILES = Path(settings.ROOT) / "demo"


def _example(owner: Acting, file: Path) -> Job:
    """One demo job, marked as an example."""
    job = import_job(owner, load_job(file.read_bytes()))
    job.example = True
    job.save(update_fields=["example"])
    return job


class Command(BaseCommand):
    """Load the demo when it is not there yet."""

    help = "Create the demo shop's people and import its jobs, unless they exist."

    def handle(self, *args: str, **options: str) -> None:
        """Create people with their roles, then import every job file."""
        shop = shop_named("Demo shop")
        for name, role in PEOPLE:
            if not User.objects.filter(username=name).exists():
                people.add_member(shop, name, None, role)
        if Job.objects.exists():
            return
        owner = acting_as(User.objects.get(username="ada"))
        if owner is None:
            raise CommandError("'ada' is in no shop: the demo wants a data folder of its own")
        for file in sorted(DEMO_FILES.glob("*.nodulant.json")):
            self.stdout.write(f"loaded {_example(owner, file).name}")
