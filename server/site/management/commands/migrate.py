"""Django's own ``migrate``, which also takes databases of earlier versions up."""

from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

from django.conf import settings
from django.core.management.commands import migrate
from django.db import connections
from django.db.migrations.loader import MigrationLoader
from django.db.migrations.recorder import MigrationRecorder

from server.ancestry import MODULES


class Command(migrate.Command):
    """A database that has been through a part of what was squashed goes through the rest of it
    first, as it was written then."""

    def handle(self, *args: Any, **options: Any) -> None:
        if _is_part_way(options["database"]):
            everything = {"app_label": None, "migration_name": None}
            with _of_before():
                super().handle(*args, **options | everything)
            if options["plan"]:
                return
        super().handle(*args, **options)


def _is_part_way(using: str) -> bool:
    """True if a database has been through some of what was squashed, and not through all of it."""
    applied = set(MigrationRecorder(connections[using]).applied_migrations())
    on_disk = MigrationLoader(None).disk_migrations.items()
    squashed = {old for (app, _), one in on_disk if app in MODULES for old in one.replaces}
    return bool(squashed & applied) and not squashed <= applied


@contextmanager
def _of_before() -> Iterator[None]:
    """Migrations as they were before they were squashed."""
    now = settings.MIGRATION_MODULES
    settings.MIGRATION_MODULES = now | MODULES
    try:
        yield
    finally:
        settings.MIGRATION_MODULES = now
