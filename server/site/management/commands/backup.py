"""A consistent copy of the database while the server runs."""

from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from server.site.apps import copy_database


class Command(BaseCommand):
    help = "Writes a consistent copy of the database to a file, while the server may be running."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file", type=Path)

    def handle(self, *args: Any, file: Path, **options: Any) -> None:
        if file.exists():
            raise CommandError(f"{file} is there already: name a new file")
        if not file.parent.is_dir():
            raise CommandError(f"there is no folder {file.parent}")
        copy_database(file)
        self.stdout.write(f"{file} holds everything up to now.")
