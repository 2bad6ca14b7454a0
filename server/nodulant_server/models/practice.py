"""Practice jobs: which mistake is in them is known here alone, until it is found or given up."""

from django.conf import settings
from django.db import models

from nodulant_server.models.jobs import Job


class PracticeRun(models.Model):
    """One practice job of one person."""

    job = models.OneToOneField(Job, related_name="practice", on_delete=models.CASCADE)
    user = models.ForeignKey(settings.AUTH_USER_MODEL, related_name="practised", on_delete=models.CASCADE)
    fault = models.CharField(max_length=40)
    seed = models.PositiveIntegerField()
    spot = models.CharField(max_length=200)
    hints = models.PositiveSmallIntegerField(default=0)
    accused = models.JSONField(default=list)
    given_up = models.BooleanField(default=False)
    begun_at = models.DateTimeField(auto_now_add=True)
