"""Work that takes longer than an answer should: its place in the queue, how far it is, what it found."""

from django.db import models


class HeavyWork(models.Model):
    """One run of a search, sweep or paper: asked for by a web process, done by a worker, perhaps on another machine."""

    kind = models.CharField(max_length=40)
    of = models.CharField(max_length=40)
    """Whose limit it counts against: a person, or a reader's link."""
    job_id = models.PositiveBigIntegerField(default=0)
    asked = models.JSONField()
    asked_at = models.DateTimeField(auto_now_add=True)
    state = models.CharField(max_length=10, default="waiting", db_index=True)
    """waiting, running or over."""
    queue = models.CharField(max_length=32, blank=True)
    """The worker's, so that a job stays where it is warm."""
    leased_until = models.DateTimeField(null=True)
    """The worker says again and again that it is alive; once this is over, somebody else takes the work."""
    tries = models.PositiveIntegerField(default=0)
    cancel = models.BooleanField(default=False)

    class Meta:
        """In the order asked for."""

        ordering = ("pk",)


class HeavyLines(models.Model):
    """Some lines of the answer, in order: progress, then what was found."""

    work = models.ForeignKey(HeavyWork, related_name="answer", on_delete=models.CASCADE)
    content = models.BinaryField()

    class Meta:
        """In the order written."""

        ordering = ("pk",)


class WorkerSeen(models.Model):
    """When a queue's worker last said that it is there."""

    queue = models.CharField(max_length=32, unique=True)
    at = models.DateTimeField()
