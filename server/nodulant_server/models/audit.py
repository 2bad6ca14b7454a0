"""Who did what when: appended to, never changed."""

from django.db import models

from nodulant_server.models.immutable import AppendOnly, Immutable
from nodulant_server.models.shops import Workshop


class AuditEntry(Immutable):
    """One thing done: signing in, people, settings, imports, exports, options, revisions, deletions."""

    workshop = models.ForeignKey(Workshop, null=True, related_name="audit", on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)
    by = models.CharField(max_length=150, blank=True)
    what = models.CharField(max_length=40)
    subject = models.CharField(max_length=200, blank=True)
    address = models.CharField(max_length=45, blank=True)
    request = models.CharField(max_length=20, blank=True)

    objects = AppendOnly["AuditEntry"].as_manager()

    class Meta:
        """Newest first."""

        ordering = ("-pk",)
