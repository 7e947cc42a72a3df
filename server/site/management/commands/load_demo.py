"""Loads the demo workshop through the importers that any builder uses."""

import uuid
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandParser
from django.db import transaction

from carpentry.project import read_project_file, read_yard_file
from server.accounts.models import User
from server.plans.making import plan_for, wait_for
from server.plans.resting import work_up
from server.projects.api import project_from_file
from server.projects.models import Project
from server.yards.api import yard_from_file

DEMO = settings.ROOT / "demo"


class Command(BaseCommand):
    help = "Loads the Quarry Lane demo workshop. What was edited is kept unless --reset is given."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--reset", action="store_true", help="start over")

    def handle(self, *args: Any, reset: bool, **options: Any) -> None:
        known = User.objects.filter(username=settings.DEMO_USER)
        if reset:
            known.delete()
        if known.exists():
            self.stdout.write("The demo workshop is loaded already; what was edited is kept.")
            return
        for project in self._load():
            plan = plan_for(project, work_up(project))
            wait_for(plan, settings.QUICK_PLAN_SECONDS + settings.PLAN_SECONDS)
        self.stdout.write("The demo workshop is loaded.")

    @transaction.atomic
    def _load(self) -> list[Project]:
        user = User(username=settings.DEMO_USER)
        user.set_unusable_password()
        user.save()
        for file in sorted(DEMO.glob("*.yard.json")):
            yard_from_file(user, read_yard_file(file.read_bytes()), uuid.uuid4())
        return [
            project_from_file(user, read_project_file(file.read_bytes()), uuid.uuid4())
            for file in sorted(DEMO.glob("*.project.json"))
        ]
