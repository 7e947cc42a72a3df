"""Settings for tests: a database of their own in a folder of their own, nothing slow for safety's
sake."""

from pathlib import Path
from tempfile import mkdtemp

from server.site.settings import *  # noqa: F403
from server.site.settings import DATABASES, LOGGING, STORAGES, WEB_DIST

_FOLDER = Path(mkdtemp(prefix="grain-tally-test-"))
DATABASES["default"]["OPTIONS"]["init_command"] = "PRAGMA synchronous=OFF;"
DATABASES["default"]["TEST"] = {"NAME": _FOLDER / "test.sqlite3"}
PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
INDEX_PAGE = WEB_DIST / "index.html"
STORAGES["staticfiles"]["BACKEND"] = "django.contrib.staticfiles.storage.StaticFilesStorage"
WHITENOISE_USE_FINDERS = True
WHITENOISE_AUTOREFRESH = True  # each client of a test would list every file anew
LOGGING["loggers"]["django.request"]["level"] = "CRITICAL"
BACKUPS = _FOLDER / "backups"
TEST_RUNNER = "server.site.runner.Runner"
