"""``manage.py load_demo``: the demo shop's people and jobs, once."""

from pathlib import Path

from django.conf import settings
from django.contrib.auth.models import Group, User
from django.core.management.base import BaseCommand

from nodulant.formats.jobfile import load_job
from nodulant_server.actions.transfer import import_job
from nodulant_server.demo import PEOPLE
from nodulant_server.models import Job

DEMO_FILES = Path(settings.ROOT) / "demo"


def _example(owner: User, file: Path) -> Job:
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
        for name, role in PEOPLE:
            user, made = User.objects.get_or_create(username=name)
            if made:
                user.set_unusable_password()
                user.save()
            user.groups.add(Group.objects.get_or_create(name=role)[0])
        if Job.objects.exists():
            return
        owner = User.objects.get(username="ada")
        for file in sorted(DEMO_FILES.glob("*.nodulant.json")):
            self.stdout.write(f"loaded {_example(owner, file).name}")
