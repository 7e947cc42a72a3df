"""How the answer to a change grows with a project: 100, 500 and 2,000 rows."""

import json
import statistics
import time
import uuid
from typing import Any

from benchmarks.reporting import report

WOODS = ("2x4 pine", "1x6 cedar", "2x6 fir", "1x4 oak")
CHANGES = 5


def growth(sizes: tuple[int, ...] = (100, 500, 2_000)) -> None:
    """Seconds of the server's own processor time for a change, for its plan (but the planning,
    which is another process's), and for looking at a plan that has not changed."""
    from django.test import Client

    from server.accounts.models import User
    from server.plans.solver import solver

    user = User.objects.create_user("growth", password="long-enough-7")
    client = Client()
    client.force_login(user)

    def ask(method: str, path: str, body: Any = None, **headers: Any) -> Any:
        send, address = getattr(client, method), f"/api{path}"
        if body is None:
            answer = send(address, headers=headers)
        else:
            answer = send(address, json.dumps(body), content_type="application/json")
        assert answer.status_code < 400, answer.content[:300]
        return answer

    for woods, rip in ((WOODS, False), (WOODS[:1], False), (WOODS[:1], True)):
        for rows in sizes:
            told = _measured(ask, woods, rows, rip=rip)
            called = f"{len(woods)} wood{'s' * (len(woods) > 1)}{', ripped' if rip else ''}"
            report(f"{rows:,} rows of {called}", told)
            solver.stop_all()


def _measured(ask: Any, woods: tuple[str, ...], rows: int, *, rip: bool) -> str:
    new = {"id": str(uuid.uuid4()), "name": "growth", "unit": "in"}
    version = ask("post", "/projects", new).json()["version"]
    path = f"/projects/{new['id']}"
    lines = "\n".join(
        f"{1 + n % 7} part{n} {woods[n % len(woods)]} {10 + (n * 37 % 800) / 8:g}"
        for n in range(rows)
    )

    def seen() -> dict[str, Any]:
        return {"version": version, "change_id": str(uuid.uuid4())}

    answer = ask("post", f"{path}/parts", seen() | {"text": lines}).json()
    parts, version = [part["id"] for part in answer["parts"]], answer["version"]
    if rip:
        version = ask("patch", path, seen() | {"rip": True}).json()["version"]
    ask("post", f"{path}/plans")
    times: dict[str, list[float]] = {"change": [], "plan": [], "read": [], "poll": []}

    def timed(what: str, *asked: Any, **headers: Any) -> Any:
        started = time.process_time()
        answer = ask(*asked, **headers)
        times[what].append(time.process_time() - started)
        return answer

    for n in range(CHANGES):
        body = seen() | {"length": f"{20 + n}"}
        version = timed("change", "patch", f"{path}/parts/{parts[n]}", body).json()["version"]
        plan = timed("plan", "post", f"{path}/plans").json()["id"]
        timed("read", "get", path)
        state = ask("get", f"/plans/{plan}")
        if "ETag" in state.headers:
            timed("poll", "get", f"/plans/{plan}", None, **{"If-None-Match": state["ETag"]})
    return ", ".join(f"{what} {statistics.median(found):.3f} s" for what, found in times.items())
