"""The demo workshop with its plans: made by the first test that wants it, copied for the others."""

import fcntl
import os
import sqlite3
from contextlib import closing
from pathlib import Path

from django.conf import settings
from django.core.management import call_command
from django.db import connection
from django.test import override_settings

from server.plans.making import wait_for
from server.plans.models import Plan

_PLANNED_WITHIN = 120.0  # seconds for each of its plans, on a busy machine too
# Of all processes that test side by side: they share the folder.
_COPY = Path(settings.BACKUPS.parent) / "demo.sqlite3"


def load_demo() -> None:
    """Puts the demo workshop into the test's database, which must be empty."""
    connection.ensure_connection()
    with _COPY.with_suffix(".lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        if not _COPY.exists():
            _plan_demo()
            return
    with closing(sqlite3.connect(_COPY)) as copy:
        copy.backup(connection.connection)


@override_settings(PLAN_SECONDS=_PLANNED_WITHIN)
def _plan_demo() -> None:
    with Path(os.devnull).open("w") as nowhere:
        call_command("load_demo", stdout=nowhere)
    for plan in Plan.objects.all():
        wait_for(plan, _PLANNED_WITHIN)
    unfinished = _COPY.with_suffix(".part")
    with closing(sqlite3.connect(unfinished)) as copy:
        connection.connection.backup(copy)
    unfinished.rename(_COPY)
