"""The shop: set-ups, miscuts made up afresh at every run (their seeds printed), and a server that
is killed while cuts are told."""

import os
import random
import signal
import statistics
import subprocess
import sys
import time
import uuid
from dataclasses import replace
from tempfile import TemporaryDirectory
from threading import Timer
from typing import Any
from unittest.mock import patch

import urllib3

from benchmarks.crowd import PORT, ROOT, Browser
from benchmarks.fresh import ripped_problem
from benchmarks.reporting import report
from carpentry.cutting import Budget, CutPlan, first_plan, plan_cuts, planner
from carpentry.cutting.problem import CutProblem
from carpentry.language import CarpentryError
from carpentry.shop import come_to, every_cut, stop_by_stop
from carpentry.shop.sequence import in_fewest_rounds
from carpentry.tests.benches import (
    CUT,
    TOOLS,
    bench_for,
    bench_of_now,
    benched,
    faults,
    fewest_rounds,
    labels_of,
    something,
    supply_of,
)
from carpentry.tests.random_problems import SORTS, random_problem

PIECES, PLANS, MISCUTS, KILLS = 200, 50, 1_000, 100
RIPPED, SMALL, SECONDS = 100, 60, 4.0  # plans, their parts at the most, for each
_LARGEST = 14  # cuts of a plan that an exact program still orders


def shop() -> None:
    """What is worked out without an application."""
    first = random.randrange(10**6)
    _set_ups(first)
    _fewest(first)
    _positions(first)
    _miscuts(first)


def _set_ups(first: int) -> None:
    """Set-ups of projects of some 200 pieces."""
    seconds = []
    for seed in range(first, first + 10):
        boards = []
        while sum(len(board.labels) for board in boards) < PIECES:
            sort = ("line", "ripped", "angled")[len(boards) % 3]
            problem = random_problem(sort, seed + len(boards), most=20)
            more = benched(problem, first_plan(problem))
            boards += [replace(board, number=len(boards) + n) for n, board in enumerate(more, 1)]
        started = time.perf_counter()
        stop_by_stop(every_cut(boards, TOOLS), TOOLS)
        seconds.append(time.perf_counter() - started)
    told = f"median {statistics.median(seconds):.3f} s, worst {max(seconds):.3f}"
    report(f"set-ups of {PIECES} pieces (seeds {first}–{first + 9})", told)


def _fewest(first: int) -> None:
    """Positions of tools on random plans, against every order that there is."""
    compared = more = 0
    seed = first
    while compared < PLANS:
        problem = random_problem(SORTS[seed % len(SORTS)], seed, most=3)
        seed += 1
        boards = benched(problem, first_plan(problem))
        cuts = every_cut(boards, TOOLS)
        if not 2 <= sum(map(len, cuts)) <= _LARGEST:
            continue
        waits = [
            [(c.key, [c.position], None if c.after is None else (c.board, c.after)) for c in board]
            for board in cuts
        ]
        found = in_fewest_rounds(waits, lambda position: (str(position),))
        compared += 1
        more += len(found.rounds) > fewest_rounds(waits)
    report(f"more set-ups than an exact program, of {PLANS} plans (from seed {first})", str(more))


def _positions(first: int) -> None:
    """Set-ups of ripped plans as they were found, and as they are cut in the end, at one price."""
    before, after = [], []
    seed = first
    while len(after) < RIPPED:
        problem = ripped_problem(seed)
        seed += 1
        if sum(part.quantity for part in problem.parts) > SMALL:
            continue
        with patch.object(planner, "fewer_positions", wraps=planner.fewer_positions) as sought:
            plan = plan_cuts(problem, Budget(SECONDS))
        found = next(one.args[1] for one in sought.call_args_list if one.args[0] is problem)
        assert found.price == plan.price, f"a position was paid for: seed {seed - 1}"
        before.append(_set_ups_of(problem, found))
        after.append(_set_ups_of(problem, plan))
    fewer = sum(now < was for was, now in zip(before, after, strict=True))
    report(
        f"set-ups of {RIPPED} ripped plans (from seed {first})",
        f"mean {statistics.mean(before):.2f}, then {statistics.mean(after):.2f}",
        f"fewer in {fewer}, worst {max(before)}, then {max(after)}",
    )


def _set_ups_of(problem: CutProblem, plan: CutPlan) -> int:
    return len(stop_by_stop(every_cut(benched(problem, plan), TOOLS), TOOLS).set_ups)


def _miscuts(first: int) -> None:
    """A thousand things that go wrong, each replayed."""
    wrong, lost, seconds, seed = 0, 0, [], first
    while wrong < MISCUTS:
        sort = SORTS[seed % len(SORTS)]
        problem = random_problem(sort, seed)
        seed += 1
        took, bad = _go_wrong(problem, random.Random(f"{sort} {seed}"))
        wrong += len(took)
        seconds += took
        lost += bad
    told = f"{lost} lost something; median {statistics.median(seconds):.3f} s"
    report(
        f"{wrong} miscuts, replayed (seeds {first}–{seed - 1})", f"{told}, worst {max(seconds):.3f}"
    )


def _go_wrong(problem: CutProblem, chance: random.Random) -> tuple[list[float], int]:
    bench, supply = bench_for(problem), supply_of(problem)
    wanted, seconds, lost = labels_of(bench), [], 0
    for step in range(40):
        event = something(chance, bench, str(step))
        if event is None:
            break
        before = bench
        if event.kind is CUT:
            bench = bench_of_now(bench, event)
            continue
        started = time.perf_counter()
        try:
            bench = bench.changed(come_to(bench, event, supply))
        except CarpentryError:
            continue
        seconds.append(time.perf_counter() - started)
        lost += bool(faults(before, bench, problem, wanted))
    return seconds, lost


def killed_server() -> None:
    """A server is killed a hundred times while cuts are told; what was acknowledged is there."""
    with TemporaryDirectory() as folder:
        environment = os.environ | {"GRAIN_TALLY_DATA": folder, "GRAIN_TALLY_SIGN_IN_RATE": "99/s"}
        environment.pop("DJANGO_SETTINGS_MODULE", None)
        manage = [sys.executable, str(ROOT / "manage.py")]
        for command in (["migrate", "--verbosity", "0"], ["load_demo"]):
            subprocess.run(
                [*manage, *command], env=environment, cwd=ROOT, check=True, capture_output=True
            )
        browser, acknowledged, chance = Browser(), set[str](), random.Random(7)
        cutting: dict[str, Any] = {}
        cuts: list[str] = []
        for _ in range(KILLS):
            server = _serve(environment)
            try:
                if not cutting:
                    browser.ask("GET", "/session")
                    browser.ask("POST", "/session/demo", {})
                    project = browser.ask("GET", "/overview")[0]["id"]
                    id_ = {"id": str(uuid.uuid4())}
                    cutting = browser.ask("POST", f"/projects/{project}/cuttings", id_)
                    cuts = [
                        cut["key"]
                        for card in cutting["by_stop"]["cards"]
                        for row in card["rows"]
                        for cut in row["cuts"]
                    ]
                acknowledged |= _press(browser, cutting["id"], chance.choice(cuts))
                Timer(0.3 * chance.random(), os.killpg, (server.pid, signal.SIGKILL)).start()
                while True:
                    acknowledged |= _press(browser, cutting["id"], chance.choice(cuts))
            except urllib3.exceptions.HTTPError:
                pass
            server.wait()
            browser.pool.clear()
        server = _serve(environment)
        seen = set(browser.ask("GET", f"/cuttings/{cutting['id']}")["seen"])
        os.killpg(server.pid, signal.SIGKILL)
        lost = len(acknowledged - seen)
    told = f"{len(acknowledged)} cuts acknowledged, {lost} lost"
    report(f"{KILLS} kills of the server during presses", told)


def _press(browser: Browser, cutting: str, cut: str) -> set[str]:
    """Tells of a cut; the ids of what the server says that it has taken in."""
    event = {"id": str(uuid.uuid4()), "kind": "cut", "cuts": cut}
    answer = browser.ask("POST", f"/cuttings/{cutting}/events", {"events": [event]})
    return {event["id"]} & set((answer or {}).get("seen", ()))


def _serve(environment: dict[str, str]) -> "subprocess.Popen[bytes]":
    command = [sys.executable, "-m", "gunicorn", "server.site.wsgi", "--threads", "8"]
    server = subprocess.Popen(
        [*command, "--bind", f"127.0.0.1:{PORT}", "--log-level", "critical"],
        env=environment,
        cwd=ROOT,
        stderr=subprocess.DEVNULL,
        start_new_session=True,
    )
    for _ in range(200):
        try:
            told = urllib3.request("GET", f"http://127.0.0.1:{PORT}/api/session", retries=False)
        except urllib3.exceptions.HTTPError:
            time.sleep(0.05)
            continue
        if told.status == 200:
            return server
        raise RuntimeError(f"the server answers {told.status}: {told.data[:200]!r}")
    raise RuntimeError("the server does not answer")
