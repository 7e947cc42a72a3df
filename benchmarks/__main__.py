"""Prints every figure of the product, measured now, on this machine."""

import gzip
import json
import os
import random
import statistics
import sys
import time
import uuid
from collections.abc import Iterator
from decimal import Decimal
from pathlib import Path

from carpentry.cutting import CutPart, CutPlan, CutProblem, Status, StockPiece, plan_cuts
from carpentry.cutting.first_fit import first_fit, orders
from carpentry.cutting.line import to_line
from carpentry.length import TICKS_PER_MM, Unit
from carpentry.tests.problems import home_size

ROOT = Path(__file__).parents[1]


def timed(problem: CutProblem) -> tuple[CutPlan, float]:
    started = time.process_time()
    return plan_cuts(problem), time.process_time() - started


def report(what: str, *figures: str) -> None:
    print(f"{what:<44} {'  '.join(figures)}", flush=True)


def spread(seconds: list[float]) -> str:
    return f"median {statistics.median(seconds):.2f} s of CPU, worst {max(seconds):.2f}"


def home_projects() -> None:
    problems = [home_size(seed) for seed in range(20)]
    done = [timed(problem) for problem in problems]
    proven = sum(plan.status is Status.OPTIMAL for plan, _ in done)
    report("home-size problems proven", f"{proven} of {len(done)}", spread([s for _, s in done]))
    many = [
        CutProblem(
            p.unit,
            p.kerf,
            p.trim_start,
            p.trim_end,
            tuple(
                StockPiece(s.id, s.length, s.price, s.available and s.available * 20)
                for s in p.stock
            ),
            tuple(CutPart(q.id, q.length, q.quantity * 20) for q in p.parts if q.quantity <= 500),
        )
        for p in problems
    ]
    done = [timed(problem) for problem in many]
    proven = sum(plan.status is Status.OPTIMAL for plan, _ in done)
    report("the same, 20 times as many", f"{proven} of {len(done)}", spread([s for _, s in done]))


def pencil_prices(problem: CutProblem) -> Iterator[Decimal]:
    """First-fit decreasing with every single length, and from many mixed starts."""
    line = to_line(problem)
    chance = random.Random(0)
    tried = list(orders(line))
    tried += [tuple(chance.sample(range(len(line.sources)), len(line.sources))) for _ in range(30)]
    for order in tried:
        packing = first_fit(line, order, line.demand)
        if not any(packing.missing):
            yield line.price(packing.key(line)[1])


def against_the_pencil() -> None:
    savings: list[Decimal] = []
    dearer = compared = 0
    for seed in range(200):
        problem = home_size(10_000 + seed)
        plan = plan_cuts(problem)
        pencil = min(pencil_prices(problem), default=None)
        if pencil is None or plan.unplaced:
            continue
        compared += 1
        dearer += plan.price > pencil
        savings.append((pencil - plan.price) / pencil * 100)
    mean = sum(savings, Decimal(0)) / len(savings)
    report(
        "against the best first-fit plan",
        f"{compared} random projects",
        f"dearer on {dearer}",
        f"mean saving {mean:.2f} %, best {max(savings):.2f} %",
    )


def bin_packing() -> None:
    for count, size in ((120, 150), (500, 150)):
        chance = random.Random(count)
        sizes = [chance.randint(20, 100) for _ in range(count)]
        parts = tuple(CutPart(str(s), s * TICKS_PER_MM, sizes.count(s)) for s in sorted(set(sizes)))
        stock = (StockPiece("bin", size * TICKS_PER_MM, Decimal(1)),)
        plan, seconds = timed(CutProblem(Unit.MM, 0, 0, 0, stock, parts))
        report(f"uniform bin packing u{count}", plan.status.value, f"{seconds:.2f} s of CPU")


def round_trip() -> None:
    """From a changed length to the answer with the new plan, through the whole API."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.config.settings")
    sys.argv[1:] = ["test"]  # a database of its own, without a write-ahead log
    import django

    django.setup()
    from django.conf import settings
    from django.core.management import call_command
    from django.test import Client
    from django.test.utils import get_runner, setup_test_environment

    setup_test_environment()
    runner = get_runner(settings)(verbosity=0, interactive=False)
    databases = runner.setup_databases()
    with Path(os.devnull).open("w") as nowhere:
        call_command("load_demo", stdout=nowhere)
    client = Client()
    client.post("/api/session/demo")
    for row in client.get("/api/projects").json():
        project = client.get(f"/api/projects/{row['id']}").json()
        while project["plan"]["status"] in {"queued", "running"}:
            time.sleep(0.1)
            project = client.get(f"/api/projects/{row['id']}").json()
        report(f"demo project, {row['name']}", project["plan"]["tally"]["claim"]["headline"])
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
                f"/api/projects/{row['id']}/parts/{part}",
                json.dumps(body),
                content_type="application/json",
            )
            seconds.append(time.perf_counter() - started)
            project = answer.json()
        report(
            "  change to answer",
            f"median {statistics.median(seconds):.3f} s, worst {max(seconds):.3f}",
        )
    runner.teardown_databases(databases)


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


if __name__ == "__main__":
    home_projects()
    against_the_pencil()
    bin_packing()
    front_end()
    round_trip()
