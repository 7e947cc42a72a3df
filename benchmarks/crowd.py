"""Many clients on one project of a real server: what they are answered, and how long it takes."""

import json
import os
import random
import statistics
import subprocess
import sys
import time
import uuid
from collections import Counter
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import contextmanager
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

import urllib3

from benchmarks.reporting import report

ROOT = Path(__file__).parents[1]
PORT = 8137


class Browser:
    """A client with its cookies and its token."""

    def __init__(self) -> None:
        self.pool = urllib3.PoolManager(timeout=60.0, retries=False)
        self.cookies: dict[str, str] = {}
        self.statuses: Counter[int] = Counter()
        self.seconds: list[float] = []

    def ask(self, method: str, path: str, body: dict[str, Any] | None = None) -> Any:
        headers = {
            "Cookie": "; ".join(f"{name}={value}" for name, value in self.cookies.items()),
            "X-CSRFToken": self.cookies.get("csrftoken", ""),
            "Content-Type": "application/json",
        }
        started = time.perf_counter()
        data = None if body is None else json.dumps(body)
        answer = self.pool.request(
            method, f"http://127.0.0.1:{PORT}/api{path}", body=data, headers=headers
        )
        self.seconds.append(time.perf_counter() - started)
        self.statuses[answer.status] += 1
        for cookie in answer.headers.getlist("Set-Cookie"):
            name, _, value = cookie.partition(";")[0].partition("=")
            self.cookies[name] = value
        return answer.json() if answer.data else None


@contextmanager
def served() -> Iterator[str]:
    """A real server with the demo workshop, on a database of its own; its address."""
    with TemporaryDirectory() as folder:
        environment = os.environ | {"GRAIN_TALLY_DATA": folder, "GRAIN_TALLY_SIGN_IN_RATE": "99/s"}
        manage = [sys.executable, str(ROOT / "manage.py")]
        for command in (["migrate", "--verbosity", "0"], ["load_demo"]):
            subprocess.run(
                [*manage, *command], env=environment, cwd=ROOT, check=True, capture_output=True
            )
        static = [*manage, "collectstatic", "--noinput"]
        subprocess.run(static, env=environment, cwd=ROOT, check=True, capture_output=True)
        served = [sys.executable, "-m", "gunicorn", "server.site.wsgi", "--threads", "8"]
        server = subprocess.Popen(
            [*served, "--bind", f"127.0.0.1:{PORT}", "--timeout", "120", "--log-level", "critical"],
            env=environment,
            cwd=ROOT,
            stderr=subprocess.DEVNULL,
        )
        try:
            _await_answer()
            yield f"http://127.0.0.1:{PORT}"
        finally:
            server.terminate()
            server.wait()


def _await_answer() -> None:
    for _ in range(100):
        try:
            Browser().ask("GET", "/session")
            return
        except urllib3.exceptions.HTTPError:
            time.sleep(0.1)


def crowd(clients: int = 20, seconds: float = 60.0) -> None:
    """So many clients read and change one project, as fast as they are answered."""
    with served():
        _besiege(clients, seconds)


def _besiege(clients: int, seconds: float) -> None:
    first = Browser()
    first.ask("GET", "/session")
    first.ask("POST", "/session/demo", {})
    project = first.ask("GET", "/overview")[0]["id"]
    deadline = time.monotonic() + seconds

    def work(number: int) -> Browser:
        browser, chance = Browser(), random.Random(number)
        browser.cookies = dict(first.cookies)
        while time.monotonic() < deadline:
            read = browser.ask("GET", f"/projects/{project}")
            if "version" not in (read or {}):
                continue
            seen = {"version": read["version"], "change_id": str(uuid.uuid4())}
            parts = [part["id"] for part in read["parts"]]
            if chance.random() < 0.5 and len(parts) > 3:
                gone = {"parts": [chance.choice(parts)]}
                browser.ask("POST", f"/projects/{project}/parts/remove", seen | gone)
            else:
                line = {"text": f"{chance.randint(1, 6)} slat 1x4 cedar {chance.randint(10, 40)}"}
                browser.ask("POST", f"/projects/{project}/parts", seen | line)
        return browser

    with ThreadPoolExecutor(clients) as pool:
        browsers = list(pool.map(work, range(clients)))
    statuses: Counter[int] = sum((one.statuses for one in browsers), Counter())
    times = sorted(second for one in browsers for second in one.seconds)
    told = ", ".join(f"{count} × {status}" for status, count in sorted(statuses.items()))
    report(f"{clients} clients on one project, {seconds:g} s", told)
    report("  answers", f"median {statistics.median(times):.2f} s, worst {times[-1]:.2f}")
