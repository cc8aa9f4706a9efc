"""Settings, by environment. Defaults suit one machine; nothing here reaches the network."""

from pathlib import Path
from typing import Any

import environ

from project.pages import with_page_policy

ROOT = Path(__file__).resolve().parents[2]
env = environ.Env()

DATA_DIR = Path(env.str("EVENPROBE_DATA", default=str(ROOT / "data")))
DATA_DIR.mkdir(mode=0o700, parents=True, exist_ok=True)

DEBUG = env.bool("DEBUG", default=False)
ALLOWED_HOSTS = env.list("ALLOWED_HOSTS", default=["127.0.0.1", "localhost", "testserver"])
CSRF_TRUSTED_ORIGINS = env.list("CSRF_TRUSTED_ORIGINS", default=["http://127.0.0.1:5173", "http://localhost:5173"])


def _secret_key() -> str:
    """From the environment, or one made on first use and kept with the data, never in the repository."""
    given = env.str("SECRET_KEY", default="")
    if given:
        return str(given)
    kept = DATA_DIR / "secret-key"
    if not kept.exists():
        from django.core.management.utils import get_random_secret_key

        kept.write_text(get_random_secret_key())
        kept.chmod(0o600)
    return kept.read_text()


SECRET_KEY = _secret_key()

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.staticfiles",
    "django_otp",
    "django_otp.plugins.otp_totp",
    "django_otp.plugins.otp_static",
    "ninja",
    "crews",
    "people",
    "history",
    "brought",
    "kit",
    "sites",
    "base",
    "photos",
    "readings",
    "meters",
    "proofs",
    "sheets",
    "rounds",
    "plugging",
    "hunts",
    "visits",
    "practising",
    "signoffs",
    "reports",
    "exchange",
    "upkeep",
    "demo",
]

MIDDLEWARE = [
    "base.headers.careful",
    "crews.signing_in.turned_away",
    "base.trying_again.tried_again",
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "base.compressed.Compressed",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "practising.way_in.in_a_case",
    "base.acting.nobody_yet",
    "readings.settling.after_changes",
    "base.unchanged.tagged",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
]

PLAIN_HTTP = env.bool("PLAIN_HTTP", default=False)
"""The demo's, on this machine alone: without it nothing is served but over HTTPS, and cookies go nowhere else."""
BEHIND_A_FRONT = env.bool("BEHIND_A_FRONT", default=False)
"""Whether a front of one's own, that ends TLS, says in X-Forwarded-For where a request came from, and in
X-Forwarded-Proto that it was over HTTPS."""

INTERPRETERS = env.int("INTERPRETERS", default=0)
"""Processes beside the server that readings are interpreted in; none: in the server itself."""
INTERPRETER_MB = env.int("INTERPRETER_MB", default=360)
"""What one of them may grow to before it forgets the samples it drew."""

BACKUP_DIR = env.str("BACKUP_DIR", default="")
"""Where `manage.py backup` puts its copies, for `/readyz` to look how old the last is; empty: not looked at."""
BACKUP_AGE_H = env.int("BACKUP_AGE_H", default=26)

PHOTOS_MB_PER_CREW = env.int("PHOTOS_MB_PER_CREW", default=4096)
"""How much room a crew's pictures may take."""

METER_LINKS = [
    name.lower() if name.count(":") == 1 else name
    for name in env.list("METER_LINKS", default=[f"127.0.0.1:{env.int('METER_PORT', default=5025)}"])
]
"""The meters this server may reach, as host:port or a serial port's device; the demo's stand-in and no other."""

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "formatters": {
        "line": {
            "()": "pythonjsonlogger.json.JsonFormatter",
            "format": "{asctime}{levelname}{name}{message}",
            "style": "{",
            "rename_fields": {"asctime": "at", "levelname": "level", "name": "of"},
        }
    },
    "handlers": {"stderr": {"class": "logging.StreamHandler", "formatter": "line"}},
    "root": {"handlers": ["stderr"], "level": "INFO"},
    "loggers": {
        "django": {"handlers": [], "level": "INFO", "propagate": True},
        "django.request": {"level": "CRITICAL"},
    },
}
"""To stderr, an object a line, for whoever runs the server to keep; `failures` logs a failure with its reference."""

ROOT_URLCONF = "project.urls"
WSGI_APPLICATION = "project.wsgi.application"

DATABASES: dict[str, Any] = {
    "default": env.db_url("DATABASE_URL", default=f"sqlite:///{DATA_DIR / 'evenprobe.sqlite3'}")
}
if DATABASES["default"]["ENGINE"] == "django.db.backends.sqlite3":
    DATABASES["default"]["TEST"] = {"NAME": DATA_DIR / "test.sqlite3"}
    DATABASES["default"]["OPTIONS"] = {
        "timeout": 3,
        "transaction_mode": "IMMEDIATE",
        "init_command": "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA foreign_keys=ON;",
    }

CACHES = {
    "default": {
        "BACKEND": "base.kept_answers.KeptAnswers",
        "LOCATION": DATA_DIR / "interpretations",
        "TIMEOUT": None,
        "OPTIONS": {"MAX_ENTRIES": 20_000},
    }
}

PASSWORD_HASHERS = [
    "django.contrib.auth.hashers.ScryptPasswordHasher",
    "django.contrib.auth.hashers.PBKDF2PasswordHasher",
]
"""The first makes a hash (RFC 7914, as OWASP sizes it: 16 MB and a quarter of a second); the second reads those made
before, which are made anew at the next sign-in."""
AUTHENTICATION_BACKENDS = ["crews.backends.WithCrew"]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator", "OPTIONS": {"min_length": 10}},
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
]
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"
USE_TZ = True
TIME_ZONE = "UTC"
LANGUAGE_CODE = "en"

STATIC_URL = "/static/"
WEB_DIST = ROOT / "web" / "dist"
WHITENOISE_ROOT = WEB_DIST if WEB_DIST.exists() else None
WHITENOISE_MAX_AGE = 600
WHITENOISE_IMMUTABLE_FILE_TEST = r"^/assets/.+-[\w-]{8}\.\w+$"
"""What carries a hash of its content in its name."""
WHITENOISE_ADD_HEADERS_FUNCTION = with_page_policy
SESSION_ENGINE = "crews.sessions"
SESSION_COOKIE_AGE = 14 * 24 * 3600
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = SECURE_SSL_REDIRECT = not PLAIN_HTTP
SECURE_REDIRECT_EXEMPT = [r"^healthz$", r"^readyz$"]
SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https") if BEHIND_A_FRONT else None
SECURE_HSTS_SECONDS = 0 if PLAIN_HTTP else env.int("HSTS_SECONDS", default=365 * 24 * 3600)
SECURE_HSTS_INCLUDE_SUBDOMAINS = SECURE_HSTS_SECONDS > 0
SILENCED_SYSTEM_CHECKS = ["security.W021"]
"""A crew's own server is on no browser's list of addresses that are HTTPS from the first."""
SECURE_CONTENT_TYPE_NOSNIFF = True
X_FRAME_OPTIONS = "DENY"
DATA_UPLOAD_MAX_MEMORY_SIZE = 20 * 1024 * 1024
