"""The application: from a change to the answer, and what a browser loads."""

import gzip
import json
import os
import statistics
import time
import uuid
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from benchmarks.reporting import report

ROOT = Path(__file__).parents[1]


@contextmanager
def application() -> Iterator[None]:
    """The application on a database of its own."""
    os.environ["DJANGO_SETTINGS_MODULE"] = "server.site.testing"
    import django

    django.setup()
    from django.conf import settings
    from django.test.utils import get_runner, setup_test_environment

    setup_test_environment()
    runner = get_runner(settings)(verbosity=0, interactive=False)
    databases = runner.setup_databases()
    yield
    runner.teardown_databases(databases)


def load_demo() -> None:
    """The demo workshop, without a word."""
    from django.core.management import call_command

    with Path(os.devnull).open("w") as nowhere:
        call_command("load_demo", stdout=nowhere)


def round_trip() -> None:
    """From a changed length to the answer with the new plan, through the whole API."""
    from django.test import Client

    load_demo()
    client = Client()
    client.post("/api/session/demo")
    for row in client.get("/api/overview").json():
        address = f"/api/projects/{row['id']}"
        project = client.get(address).json()
        plan = client.post(f"{address}/plans").json()
        while plan["status"] in {"queued", "running"}:
            time.sleep(0.1)
            plan = client.post(f"{address}/plans").json()
        report(f"demo project, {row['name']}", plan["tally"]["claim"]["headline"])
        part = project["parts"][0]["id"]
        seconds = []
        for step in range(21):
            body = {
                "version": project["version"],
                "change_id": str(uuid.uuid4()),
                "length": f"{1000 + 13 * step}mm",
            }
            started = time.perf_counter()
            answer = client.patch(
                f"{address}/parts/{part}", json.dumps(body), content_type="application/json"
            )
            client.post(f"{address}/plans")
            seconds.append(time.perf_counter() - started)
            project = answer.json()
        report(
            "  change to answer",
            f"median {statistics.median(seconds):.3f} s, worst {max(seconds):.3f}",
        )


def packages() -> None:
    """The least-cost packages of everything a demo project takes."""
    from server.plans.resting import work_up
    from server.projects.models import Project

    load_demo()
    for project in Project.objects.order_by("name"):
        work = work_up(project)
        started = time.perf_counter()
        lines = work.hardware.lines
        report(
            f"packages, {project.name}",
            f"{time.perf_counter() - started:.3f} s for {len(lines)} needs, proven",
        )


def front_end() -> None:
    sizes = {".js": 0, ".css": 0}
    for file in (ROOT / "web/dist/assets").iterdir():
        if file.suffix in sizes:
            sizes[file.suffix] += len(gzip.compress(file.read_bytes(), 9))
    whole = sum(sizes.values()) / 1000
    report(
        "front end, everything, gzipped",
        f"JS {sizes['.js'] / 1000:.0f} kB + CSS {sizes['.css'] / 1000:.0f} kB = {whole:.0f} kB",
    )
