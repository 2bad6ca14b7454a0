"""What a served shop does by itself: copies, an emptied trash, and a look whether anything is missing."""

import json
import logging
from dataclasses import asdict, dataclass, replace
from datetime import UTC, datetime, timedelta
from pathlib import Path

from django.conf import settings
from django.utils import timezone

from nodulant_server.actions.trash import empty_trash
from nodulant_server.backup import BackupRefused, backup
from nodulant_server.models import DesignRevision, SurveyRevision

log = logging.getLogger(__name__)
HOURLY, TRASH_DAYS = timedelta(hours=1), 30


@dataclass(frozen=True)
class Kept:
    """What is remembered from one start to the next, beside the database."""

    revisions: int = 0
    """Of designs and surveys, when last looked; fewer than that means that something was lost."""
    backup_at: str = ""
    backup_file: str = ""
    backup_revisions: int = 0
    trouble: str = ""
    """Why the last copy could not be made."""


def _file() -> Path:
    return Path(settings.DATA) / "upkeep.json"


def kept() -> Kept:
    """What is remembered; empty where nothing is or it cannot be read."""
    try:
        return Kept(**json.loads(_file().read_text()))
    except (OSError, ValueError, TypeError):
        return Kept()


def _keep(told: Kept) -> None:
    part = _file().with_suffix(".part")
    part.write_text(json.dumps(asdict(told)))
    part.rename(_file())


def revisions() -> int:
    """How many are stored now."""
    return DesignRevision.objects.count() + SurveyRevision.objects.count()


def missing() -> str:
    """What to say where there are fewer revisions than there were; empty where there are not."""
    before, now = kept().revisions, revisions()
    if now >= before:
        return ""
    return (
        f"{before - now} stored revisions are missing: there were {before}, now there are {now}. "
        "Look whether an older database was put in place; copies are in the backups folder."
    )


def backed_up() -> Kept:
    """Make a copy now; what is remembered says how it went."""
    before = kept()
    try:
        file, _ = backup(Path(settings.DATA) / "backups")
        count = revisions()
        at = datetime.now(UTC).isoformat(timespec="seconds")
        told = Kept(max(before.revisions, count), at, file.name, count, "")
    except (BackupRefused, OSError) as error:
        log.error("no copy was made: %s", error)
        told = replace(before, trouble=str(error))
    _keep(told)
    return told


def emptied() -> int:
    """Empty what lay in the trash for long enough; how many jobs and options went."""
    gone = empty_trash(timezone.now() - timedelta(days=TRASH_DAYS))
    if gone:
        _keep(replace(kept(), revisions=revisions()))
    return gone


def due(now: datetime | None = None) -> bool:
    """Whether the next copy is due: an hour after the last, and only where something changed since."""
    last = kept()
    if not last.backup_at or last.trouble:
        return True
    age = (now or datetime.now(UTC)) - datetime.fromisoformat(last.backup_at)
    return age >= HOURLY and (revisions() != last.backup_revisions or age >= 24 * HOURLY)
