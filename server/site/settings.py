"""Settings, from the environment with safe defaults."""

import os
import re
from pathlib import Path

from django.core.management.utils import get_random_secret_key

ROOT = Path(__file__).resolve().parents[2]
DATA = Path(os.environ.get("GRAIN_TALLY_DATA", ROOT / "var"))
DATA.mkdir(parents=True, exist_ok=True)
BACKUPS = DATA / "backups"  # the database as it was before each migration


def _secret_key() -> str:
    """The key from the environment, else one made once and kept outside the repository."""
    given = os.environ.get("GRAIN_TALLY_SECRET_KEY")
    if given:
        return given
    home = Path(os.environ.get("XDG_DATA_HOME", Path.home() / ".local" / "share"))
    file = home / "grain-tally" / "secret-key"
    if not file.exists():
        file.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
        file.touch(mode=0o600)
        file.write_text(get_random_secret_key())
    return file.read_text().strip()


SECRET_KEY = _secret_key()
DEBUG = os.environ.get("GRAIN_TALLY_DEBUG") == "1"
ALLOWED_HOSTS = os.environ.get("GRAIN_TALLY_HOSTS", "127.0.0.1,localhost,[::1]").split(",")
_TLS = os.environ.get("GRAIN_TALLY_TLS", "")
BEHIND_TLS = _TLS == "1"  # a web server before this one holds the certificate
OVER_TLS = _TLS in ("1", "own")

INSTALLED_APPS = [
    "django.contrib.admin",
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.messages",
    "django.contrib.staticfiles",
    "csp",
    "ninja",
    "server.site",
    "server.accounts",
    "server.stocks",
    "server.yards",
    "server.rack",
    "server.tools",
    "server.projects",
    "server.plans",
    "server.trips",
    "server.shop",
    "server.days",
]

MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "csp.middleware.CSPMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "server.site.limits.Limits",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.contrib.messages.middleware.MessageMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
]

ROOT_URLCONF = "server.site.urls"
WSGI_APPLICATION = "server.site.wsgi.application"

TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "APP_DIRS": True,
        "OPTIONS": {
            "context_processors": [
                "django.template.context_processors.request",
                "django.contrib.auth.context_processors.auth",
                "django.contrib.messages.context_processors.messages",
            ]
        },
    }
]

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": DATA / "grain-tally.sqlite3",
        "OPTIONS": {
            "transaction_mode": "IMMEDIATE",
            "timeout": 20,
            "init_command": "PRAGMA journal_mode=WAL; PRAGMA synchronous=NORMAL;",
        },
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

AUTH_USER_MODEL = "accounts.User"
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.UserAttributeSimilarityValidator"},
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator"},
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
]

SESSION_COOKIE_AGE = 60 * 60 * 24 * 60
SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_SECURE = OVER_TLS
CSRF_COOKIE_SECURE = OVER_TLS
CSRF_TRUSTED_ORIGINS = [o for o in os.environ.get("GRAIN_TALLY_ORIGINS", "").split(",") if o]
if BEHIND_TLS:
    SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https")
    SECURE_HSTS_SECONDS = 60 * 60 * 24 * 30
SECURE_REFERRER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"

# Styles may be inline: the component library writes its theme into a style element.
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": ["'self'"],
        "script-src": ["'self'"],
        "style-src": ["'self'", "'unsafe-inline'"],
        "img-src": ["'self'", "data:"],
        "object-src": ["'none'"],
        "base-uri": ["'self'"],
        "form-action": ["'self'"],
        "frame-ancestors": ["'none'"],
    }
}

LANGUAGE_CODE = "en-us"
TIME_ZONE = os.environ.get("TZ", "UTC") or "UTC"
USE_TZ = True

WEB_DIST = ROOT / "web" / "dist"
STATIC_URL = "static/"
STATIC_ROOT = DATA / "static"
INDEX_PAGE = STATIC_ROOT / "index.html"  # of one build with its assets
STATICFILES_DIRS = [WEB_DIST] if WEB_DIST.exists() else []
STORAGES = {
    "default": {"BACKEND": "django.core.files.storage.FileSystemStorage"},
    "staticfiles": {"BACKEND": "whitenoise.storage.CompressedStaticFilesStorage"},
}
STATIC_ROOT.mkdir(parents=True, exist_ok=True)


def WHITENOISE_IMMUTABLE_FILE_TEST(path: str, url: str) -> bool:
    """Whether a static file carries a hash in its name, as the front end's build makes them."""
    return re.search(r"/assets/.+-[\w-]{8}\.\w+$", url) is not None


LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "loggers": {
        "django.request": {
            "handlers": ["console"],
            "level": "ERROR",
            "propagate": False,
        }
    },
}

MAX_UPLOAD_BYTES = 5 * 1024 * 1024
MAX_UNPACKED_BYTES = 50 * 1024 * 1024
DATA_UPLOAD_MAX_MEMORY_SIZE = MAX_UPLOAD_BYTES + 64 * 1024

NINJA_NUM_PROXIES = 1 if BEHIND_TLS else 0  # whose word on the client's address is believed
ACCOUNT_RATE = os.environ.get("GRAIN_TALLY_ACCOUNT_RATE", "30/10m")
SIGN_IN_RATE = os.environ.get("GRAIN_TALLY_SIGN_IN_RATE", "10/m")
ANSWER_WITHIN_SECONDS = 0.11  # a plan ready by then is part of the same answer
ANSWER_AT_YARD_SECONDS = 0.6  # the best plan by then is what is taken at the yard
QUICK_PLAN_SECONDS = 1.0  # in the quick lane, before a plan goes on in the long one
PLAN_SECONDS = float(os.environ.get("GRAIN_TALLY_PLAN_SECONDS", "20"))
# Price services that yards may be asked at, by name; builders choose among these and no others.
PRICE_SERVICES = dict(
    pair.split("=", 1)
    for pair in os.environ.get(
        "GRAIN_TALLY_PRICE_SERVICES", "simulated yard=http://127.0.0.1:8010"
    ).split(",")
    if "=" in pair
)
PRICE_SERVICE_READ_SECONDS = 3.0
PRICE_SERVICE_SECONDS = 20.0
DEMO_USER = "quarry-lane"
