"""Loads the demo workshop through the importers that any builder uses."""

import json
import uuid
from dataclasses import replace
from datetime import datetime, timedelta
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import transaction
from django.utils import timezone

from carpentry.project import ProjectFile, read_project_file, read_settings, read_yard_file
from carpentry.time.progress import ProgressEvent, ProgressKind
from server.accounts.models import User
from server.days.going import take_events, zone_of
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
        days = json.loads((DEMO / "days.json").read_text())
        found = []
        for file in sorted(DEMO.glob("*.project.json")):
            asked = days.get(file.name.removesuffix(".project.json"), {})
            read = _wanted(read_project_file(file.read_bytes()), asked)
            project = project_from_file(user, read, uuid.uuid4())
            _happened(project, asked)
            found.append(project)
        return found


def _wanted(read: ProjectFile, asked: dict[str, Any]) -> ProjectFile:
    """A project that is wanted so many days from today."""
    if "wanted" not in asked:
        return read
    ahead, clock = asked["wanted"].split(" ")
    day = timezone.localdate() + timedelta(days=int(ahead))
    fields = replace(read.settings.fields, days_wanted=f"{day.isoformat()} {clock}")
    return replace(read, settings=read_settings(fields))


def _happened(project: Project, asked: dict[str, Any]) -> None:
    """What was done of it, so many days before today."""
    events = []
    for step, told in asked.get("done", {}).items():
        ago, clock = told.split(" ")
        day = timezone.localdate() - timedelta(days=int(ago))
        moment = timezone.make_aware(datetime.fromisoformat(f"{day.isoformat()}T{clock}"))
        events.append(ProgressEvent(str(uuid.uuid4()), ProgressKind.DONE, step, moment.isoformat()))
    for id, why in take_events(project, zone_of(""), events):
        raise CommandError(f"{project}: {id}: {why}")
