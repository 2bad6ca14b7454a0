"""Settings: safe by default; NODULANT_DEMO=1 turns the demo on, on loopback only."""

import os
import secrets
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
    "nodulant_server",
]
MIDDLEWARE = [
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
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": f"django.contrib.auth.password_validation.{name}"}
    for name in ("MinimumLengthValidator", "CommonPasswordValidator", "NumericPasswordValidator")
]
USE_TZ = True
TIME_ZONE = "UTC"
STATIC_URL = "/static/"
STATIC_ROOT = None
WHITENOISE_ROOT = WEB_DIST if WEB_DIST.exists() else None
WHITENOISE_MAX_AGE = 3600
WHITENOISE_ADD_HEADERS_FUNCTION = on_files
SESSION_ENGINE = "django.contrib.sessions.backends.cached_db"
SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SAMESITE = "Lax"
CSRF_COOKIE_SAMESITE = "Lax"
SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_REFERRER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"
_TLS = os.environ.get("NODULANT_TLS") == "1"
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = _TLS
SECURE_HSTS_SECONDS = 30 * 24 * 3600 if _TLS else 0
PROXY = os.environ.get("NODULANT_PROXY", "")
"""Address of the proxy in front, whose word on the client's address and on https is taken; none where it is empty."""
SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https") if PROXY else None
CSRF_TRUSTED_ORIGINS = os.environ.get("NODULANT_ORIGINS", "").split()
LOGGING = logging_to(DATA)
DATA_UPLOAD_MAX_MEMORY_SIZE = 11 * 1024 * 1024
"""A little over the 10 MB of a job file, so that the refusal is ours and says why."""
