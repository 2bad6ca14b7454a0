"""DATABASE_URL: empty for SQLite beside the data, or another database that Django supports."""

from pathlib import Path
from typing import Any
from urllib.parse import unquote, urlsplit

ENGINES = {"postgres": "postgresql", "postgresql": "postgresql", "mysql": "mysql"}
PRAGMAS = "PRAGMA journal_mode={journal}; PRAGMA synchronous=FULL; PRAGMA busy_timeout=5000; PRAGMA foreign_keys=ON"


def database(url: str, data: Path, journal: str = "WAL") -> dict[str, Any]:
    """Django's settings for ``url``; SQLite in WAL mode with foreign keys and a busy timeout."""
    parts = urlsplit(url)
    if url and parts.scheme in ENGINES:
        return {
            "ENGINE": f"django.db.backends.{ENGINES[parts.scheme]}",
            "NAME": unquote(parts.path.lstrip("/")),
            "USER": unquote(parts.username or ""),
            "PASSWORD": unquote(parts.password or ""),
            "HOST": parts.hostname or "",
            "PORT": parts.port or "",
        }
    if url and parts.scheme != "sqlite":
        raise ValueError(f"DATABASE_URL names '{parts.scheme}'; known are sqlite, postgres and mysql")
    data.mkdir(mode=0o700, parents=True, exist_ok=True)  # nobody else on this machine reads it
    return {
        "ENGINE": "django.db.backends.sqlite3",
        "CONN_MAX_AGE": 300,
        "NAME": unquote(parts.path) if url else str(data / "nodulant.sqlite3"),
        "OPTIONS": {"init_command": PRAGMAS.format(journal=journal), "transaction_mode": "IMMEDIATE", "timeout": 10},
    }
