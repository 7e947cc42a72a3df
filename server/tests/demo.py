"""The demo workshop with its plans: made by the first test that wants it, copied for the others."""

import os
import sqlite3
from pathlib import Path

from django.core.management import call_command
from django.db import connection

from server.plans.making import wait_for
from server.plans.models import Plan

_PLANNED_WITHIN = 20.0  # seconds for each of its plans
_copy = sqlite3.connect(":memory:", check_same_thread=False)


def load_demo() -> None:
    """Puts the demo workshop into the test's database, which must be empty."""
    connection.ensure_connection()
    if _copy.execute("SELECT count(*) FROM sqlite_master").fetchone()[0]:
        _copy.backup(connection.connection)
        return
    with Path(os.devnull).open("w") as nowhere:
        call_command("load_demo", stdout=nowhere)
    for plan in Plan.objects.all():
        wait_for(plan, _PLANNED_WITHIN)
    connection.connection.backup(_copy)
