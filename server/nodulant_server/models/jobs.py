"""What is stored of a conversion: jobs, options, immutable revisions, drafts, the log and attachments."""

from typing import Any

from django.conf import settings
from django.db import models
from pydantic import ValidationError

from nodulant.job.document import Design, Shop
from nodulant.job.upgrade import upgraded_design
from nodulant.survey.vehicle import Survey
from nodulant_server.models.immutable import Immutable
from nodulant_server.models.shops import Link, Workshop


def read_design(document: dict[str, Any], job: "Job") -> Design:
    """A stored design, brought up to the newest version where it was stored by an older program."""
    try:
        return Design.model_validate(document)
    except ValidationError:
        return Design.model_validate(upgraded_design(document, job.survey_head().document))


class Job(models.Model):
    """One vehicle conversion."""

    name = models.CharField(max_length=120)
    workshop = models.ForeignKey(Workshop, related_name="jobs", on_delete=models.PROTECT)
    """Whose it is: nobody outside it sees it."""
    shop = models.JSONField(default=dict)
    shop_number = models.PositiveIntegerField(default=1)
    """Goes up with every change of the shop's settings."""
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    created_at = models.DateTimeField(auto_now_add=True)
    example = models.BooleanField(default=False)
    """Came with the demo shop: marked so that nobody takes it for a real one."""
    note = models.TextField(blank=True)
    template = models.BooleanField(default=False)
    """Kept to begin others like it."""
    archived_at = models.DateTimeField(null=True)
    deleted_at = models.DateTimeField(null=True)
    """In the trash since then: listed nowhere, brought back by undo."""

    def shop_model(self) -> Shop:
        """The shop's settings."""
        return Shop.model_validate(self.shop)

    def live_options(self) -> "models.QuerySet[Option]":
        """Every option that is not in the trash, oldest first."""
        return self.options.filter(deleted_at=None).order_by("pk")

    def survey_head(self) -> "SurveyRevision":
        """The newest survey."""
        return self.surveys.order_by("-number")[0]


class SurveyRevision(Immutable):
    """One numbered survey of a job."""

    job = models.ForeignKey(Job, related_name="surveys", on_delete=models.PROTECT)
    number = models.PositiveIntegerField()
    document = models.JSONField()
    at = models.DateTimeField()
    by = models.CharField(max_length=150)

    class Meta:
        """One row a number."""

        constraints = (models.UniqueConstraint(fields=["job", "number"], name="one_survey_a_number"),)

    def survey(self) -> Survey:
        """The stored survey."""
        return Survey.model_validate(self.document)


class Option(models.Model):
    """A named alternative design of a job."""

    job = models.ForeignKey(Job, related_name="options", on_delete=models.PROTECT)
    key = models.CharField(max_length=40)
    name = models.CharField(max_length=120)
    note = models.TextField(blank=True)
    deleted_at = models.DateTimeField(null=True)
    """In the trash since then: shown nowhere, brought back by undo."""

    class Meta:
        """One row a key."""

        constraints = (models.UniqueConstraint(fields=["job", "key"], name="one_option_a_key"),)

    def head(self) -> "DesignRevision":
        """The newest revision."""
        return self.revisions.order_by("-number")[0]


class DesignRevision(Immutable):
    """One numbered design of an option."""

    option = models.ForeignKey(Option, related_name="revisions", on_delete=models.PROTECT)
    number = models.PositiveIntegerField()
    document = models.JSONField()
    at = models.DateTimeField()
    by = models.CharField(max_length=150)
    note = models.TextField(blank=True)

    class Meta:
        """One row a number."""

        constraints = (models.UniqueConstraint(fields=["option", "number"], name="one_design_a_number"),)

    def design(self) -> Design:
        """The stored design."""
        return read_design(self.document, self.option.job)


class Draft(models.Model):
    """Unsaved work of one person on one option, on one device: nobody's is overwritten by another's."""

    option = models.ForeignKey(Option, related_name="drafts", on_delete=models.CASCADE)
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE)
    device = models.CharField(max_length=80, default="")
    """The browser's tab that made it, by a name of its own."""
    base = models.PositiveIntegerField()
    document = models.JSONField()
    survey = models.JSONField(null=True)
    """The survey as edited, while it is not saved as a revision."""
    survey_base = models.PositiveIntegerField(null=True)
    """The survey revision that ``survey`` started from."""
    at = models.DateTimeField(auto_now=True)

    class Meta:
        """One row a person, option and device."""

        constraints = (models.UniqueConstraint(fields=["option", "user", "device"], name="one_draft_a_device"),)


class SweepKept(models.Model):
    """The last sweep of a stored revision of an option."""

    option = models.OneToOneField(Option, related_name="sweep", on_delete=models.CASCADE)
    revision = models.PositiveIntegerField()
    document = models.JSONField()
    at = models.DateTimeField()
    by = models.CharField(max_length=150)


class LogEntry(Immutable):
    """One append-only entry: reading, sign-off, override, decision, withdrawal or what was noted on the floor."""

    job = models.ForeignKey(Job, related_name="log", on_delete=models.PROTECT)
    number = models.PositiveIntegerField()
    document = models.JSONField()
    mark = models.CharField(max_length=60, null=True)
    """What the sender calls it: sent twice, it is taken once."""

    class Meta:
        """One row a number, and one a mark, in order."""

        constraints = (
            models.UniqueConstraint(fields=["job", "number"], name="one_entry_a_number"),
            models.UniqueConstraint(fields=["job", "mark"], name="one_entry_a_mark"),
        )
        ordering = ("number",)


class Attachment(Immutable):
    """A file kept with a job under its hash."""

    job = models.ForeignKey(Job, related_name="attachments", on_delete=models.PROTECT)
    sha256 = models.CharField(max_length=64)
    name = models.CharField(max_length=200)
    content_type = models.CharField(max_length=100)
    content = models.BinaryField()
    at = models.DateTimeField()
    by = models.CharField(max_length=150)


class ReaderLink(Link):
    """Whoever holds it looks at one job."""

    job = models.ForeignKey(Job, related_name="reader_links", on_delete=models.CASCADE)
    label = models.CharField(max_length=80, blank=True)
    """Whom it was given to."""
