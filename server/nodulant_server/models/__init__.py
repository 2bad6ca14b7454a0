"""Everything that is stored."""

from nodulant_server.models.audit import AuditEntry
from nodulant_server.models.heavy import HeavyLines, HeavyWork, WorkerSeen
from nodulant_server.models.immutable import Immutable, ImmutableError
from nodulant_server.models.jobs import (
    Attachment,
    DesignRevision,
    Draft,
    Job,
    LogEntry,
    Option,
    ReaderLink,
    SurveyRevision,
    SweepKept,
)
from nodulant_server.models.practice import PracticeRun
from nodulant_server.models.shops import Invitation, Member, NewPassword, SignedIn, Workshop

__all__ = [
    "Attachment",
    "AuditEntry",
    "DesignRevision",
    "Draft",
    "HeavyLines",
    "HeavyWork",
    "Immutable",
    "ImmutableError",
    "Invitation",
    "Job",
    "LogEntry",
    "Member",
    "NewPassword",
    "Option",
    "PracticeRun",
    "ReaderLink",
    "SignedIn",
    "SurveyRevision",
    "SweepKept",
    "WorkerSeen",
    "Workshop",
]
