"""Copies of the whole database, made while it is used and opened again before they count."""

import sqlite3
from contextlib import closing
from datetime import UTC, datetime
from pathlib import Path

from django.conf import settings
from django.db import connection

SUFFIX = ".sqlite3"
PREFIX = "nodulant-"
KEPT = 14
REVISIONS = "SELECT count(*) FROM nodulant_server_designrevision"


class BackupRefused(RuntimeError):
    """A copy that cannot be made, or a file that is none."""


def database_file() -> Path:
    """The database's own file; raises BackupRefused for a database that has copies of its own."""
    if connection.vendor != "sqlite":
        raise BackupRefused("this database is copied with its own tools (pg_dump)")
    return Path(str(settings.DATABASES["default"]["NAME"]))


def backup(folder: Path, kept: int = KEPT) -> tuple[Path, int]:
    """Write a verified copy into ``folder`` and leave the newest ``kept``; the file, and how many revisions are in it."""
    source = database_file()
    folder.mkdir(parents=True, exist_ok=True)
    target = folder / f"{PREFIX}{datetime.now(UTC):%Y%m%d-%H%M%S-%f}{SUFFIX}"
    unfinished = target.with_suffix(".part")
    with closing(sqlite3.connect(source)) as live, closing(sqlite3.connect(unfinished)) as copy:
        live.backup(copy, pages=2000)
        copy.execute("PRAGMA journal_mode=DELETE")  # one file, with nothing beside it
    unfinished.chmod(0o600)
    revisions = verified(unfinished)
    unfinished.rename(target)
    for old in listed(folder)[kept:]:
        old.unlink()
    return target, revisions


def listed(folder: Path) -> list[Path]:
    """Copies in a folder, newest first."""
    return sorted(folder.glob(f"{PREFIX}*{SUFFIX}"), reverse=True)


def verified(file: Path) -> int:
    """How many revisions a copy holds; raises BackupRefused where it is truncated or none of ours."""
    try:
        with closing(sqlite3.connect(f"file:{file}?mode=ro", uri=True)) as copy:
            whole = copy.execute("PRAGMA integrity_check").fetchone()[0]
            if whole != "ok":
                raise BackupRefused(f"{file.name} is damaged: {whole}")
            return int(copy.execute(REVISIONS).fetchone()[0])
    except sqlite3.DatabaseError as error:
        raise BackupRefused(f"{file.name} cannot be opened: {error}") from error


def restore(file: Path) -> tuple[Path | None, int]:
    """Put a verified copy in the database's place; what was there is kept beside it. The server must not run."""
    revisions, target = verified(file), database_file()
    target.parent.mkdir(parents=True, exist_ok=True)
    before = None
    if target.exists():
        before = target.with_name(f"{target.stem}-before-{datetime.now(UTC):%Y%m%d-%H%M%S}{SUFFIX}")
        with closing(sqlite3.connect(target)) as old, closing(sqlite3.connect(before)) as aside:
            old.backup(aside)
        for part in ("", "-wal", "-shm"):
            target.with_name(target.name + part).unlink(missing_ok=True)
    with closing(sqlite3.connect(file)) as copy, closing(sqlite3.connect(target)) as new:
        copy.backup(new)
    target.chmod(0o600)
    return before, revisions
