"""Note in the audit who did what; it is read on the shop's page and never changed."""

from nodulant_server.logs import client_address, request_id
from nodulant_server.models import AuditEntry, Workshop
from nodulant_server.roles import Acting


def note(acting: Acting, what: str, subject: str = "") -> None:
    """One thing done by somebody in a shop."""
    note_of(acting.workshop, acting.name, what, subject)


def note_of(workshop: Workshop | None, by: str, what: str, subject: str = "") -> None:
    """One thing done, perhaps by somebody who is in no shop (yet)."""
    AuditEntry(
        workshop=workshop, by=by[:150], what=what, subject=subject[:200], address=client_address(), request=request_id()
    ).save()
