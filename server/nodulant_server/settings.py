"""Settings: safe by default; NODULANT_DEMO=1 turns the demo on, on loopback only."""

import os
import secrets
from datetime import timedelta
from pathlib import Path
from typing import Any

from nodulant_server.database_url import database
from nodulant_server.headers import on_files
from nodulant_server.logs import logging_to

ROOT = Path(__file__).resolve().parents[2]
DATA = Path(os.environ.get("NODULANT_DATA", ROOT / "var"))
DEMO = os.environ.get("NODULANT_DEMO") == "1"
WEB_DIST = Path(os.environ.get("NODULANT_WEB", ROOT / "web" / "dist"))


def _secret() -> str:
    """A secret kept beside the data, made once."""
    if value := os.environ.get("NODULANT_SECRET"):
        return value
    DATA.mkdir(mode=0o700, parents=True, exist_ok=True)
    kept = DATA / "secret"
    if not kept.exists():
        kept.write_text(secrets.token_urlsafe(48))
        kept.chmod(0o600)
    return kept.read_text()


SECRET_KEY = _secret()
DEBUG = False
ALLOWED_HOSTS = ["127.0.0.1", "localhost", "[::1]", *os.environ.get("NODULANT_HOSTS", "").split()]
INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "axes",
    "django_tasks",
    "django_tasks_db",
    "nodulant_server",
]
MIDDLEWARE = [
    "nodulant_server.proxied.from_proxy",
    "nodulant_server.logs.numbered",
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "nodulant_server.demo.sign_in_ada",
    "nodulant_server.headers.content_policy",
    "nodulant_server.headers.in_its_tape",
]
ROOT_URLCONF = "nodulant_server.urls"
WSGI_APPLICATION = "nodulant_server.wsgi.application"
DATABASES: dict[str, dict[str, Any]] = {"default": database(os.environ.get("DATABASE_URL", ""), DATA)}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"
AUTHENTICATION_BACKENDS = ["axes.backends.AxesStandaloneBackend", "django.contrib.auth.backends.ModelBackend"]
AXES_FAILURE_LIMIT, AXES_COOLOFF_TIME, AXES_RESET_ON_SUCCESS = 8, timedelta(minutes=5), True
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_USERNAME_CALLABLE = "nodulant_server.api.session.tried_as"
SILENCED_SYSTEM_CHECKS = ["axes.W002"]
"""Its middleware answers in its own words; the sign-in route answers in ours."""
AXES_VERBOSE, AXES_DISABLE_ACCESS_LOG = False, True
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": f"django.contrib.auth.password_validation.{name}"}
    for name in (
        "UserAttributeSimilarityValidator",
        "MinimumLengthValidator",
        "CommonPasswordValidator",
        "NumericPasswordValidator",
    )
]
TASKS = {"default": {"BACKEND": "django_tasks_db.DatabaseBackend", "QUEUES": []}}
INSTRUMENTS = os.environ.get("NODULANT_INSTRUMENTS", "")
"""Instruments that the server can ask: 'id=url id=url', any URL of pyserial."""
WORKERS = int(os.environ.get("NODULANT_WORKERS", "0"))
"""How many queues of heavy work there are, each with a worker of its own; 0 does it in the asking process."""
USE_TZ = True
TIME_ZONE = "UTC"
STATIC_URL = "/static/"
STATIC_ROOT = None
WHITENOISE_ROOT = WEB_DIST if WEB_DIST.exists() else None
WHITENOISE_MAX_AGE = 3600
WHITENOISE_ADD_HEADERS_FUNCTION = on_files
SESSION_ENGINE = "django.contrib.sessions.backends.db"
SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SAMESITE = "Lax"
CSRF_COOKIE_SAMESITE = "Lax"
SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_REFERRER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"
_TLS = os.environ.get("NODULANT_TLS") == "1"
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = _TLS
SECURE_HSTS_SECONDS = 30 * 24 * 3600 if _TLS else 0
PROXY = os.environ.get("NODULANT_PROXY", "").split()
"""Addresses of proxies in front, whose word on the client's address and on https is taken; none where it is empty."""
SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https") if PROXY else None
CSRF_TRUSTED_ORIGINS = os.environ.get("NODULANT_ORIGINS", "").split()
LOGGING = logging_to(DATA)
DATA_UPLOAD_MAX_MEMORY_SIZE = 11 * 1024 * 1024
"""A little over the 10 MB of a job file, so that the refusal is ours and says why."""
