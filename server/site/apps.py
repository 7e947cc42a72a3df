"""The roof over all apps."""

import sqlite3
from contextlib import closing
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from django.apps import AppConfig, apps
from django.conf import settings
from django.db import connections
from django.db.models.signals import pre_migrate


class SiteConfig(AppConfig):
    name = "server.site"

    def ready(self) -> None:
        pre_migrate.connect(_keep_a_copy, sender=apps.get_app_config("accounts"))


def copy_database(file: Path, using: str = "default") -> None:
    """Writes a consistent copy of a database, also while others write to it."""
    connection = connections[using]
    connection.ensure_connection()
    with closing(sqlite3.connect(file)) as copy:
        connection.connection.backup(copy)


def _keep_a_copy(using: str, plan: list[Any], **_: Any) -> None:
    """Before anything in a database changes its form, a copy of it as it was."""
    if not plan or not connections[using].introspection.table_names():
        return
    folder = settings.BACKUPS
    folder.mkdir(parents=True, exist_ok=True)
    moment = datetime.now(UTC).strftime("%Y-%m-%dT%H-%M-%S-%f")
    copy_database(folder / f"{moment}.sqlite3", using)
