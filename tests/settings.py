"""Settings for tests: a file database without WAL, the demo off unless a test turns it on."""

import hashlib
import os
import tempfile
from pathlib import Path

os.environ.setdefault("DJANGO_ALLOW_ASYNC_UNSAFE", "true")
os.environ.setdefault("NODULANT_SECRET", "only-for-tests")
# one folder a checkout: two of them may be tested at once
_HERE = hashlib.sha256(str(Path(__file__).resolve()).encode()).hexdigest()[:8]
_DATA = Path(tempfile.gettempdir()) / f"nodulant-tests-{os.getuid()}-{_HERE}"
os.environ["NODULANT_DATA"] = str(_DATA)

from nodulant_server.database_url import database  # noqa: E402
from nodulant_server.settings import *  # noqa: E402, F403

DEMO = False
_URL = os.environ.get("NODULANT_TEST_URL", "")  # another database than SQLite: tests/server run on PostgreSQL too
DATABASES = {"default": database(_URL, _DATA, journal="MEMORY")}
if own := os.environ.get("NODULANT_TEST_DATABASE"):  # a worker that a test started, on that test's database
    DATABASES["default"]["NAME"] = own
DATABASES["default"]["TEST"] = {"NAME": f"test_{_HERE}" if _URL else str(_DATA / "test.sqlite3")}
PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
TEST_RUNNER = "tests.runner.Runner"
LOGGING = {"version": 1, "disable_existing_loggers": False, "root": {"handlers": [], "level": "CRITICAL"}}
