"""What the API's tests share: a signed-in builder and short ways of asking."""

import json
import uuid
from functools import lru_cache
from typing import Any

from django.core.cache import cache
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client, TransactionTestCase, override_settings

from server.accounts.models import User
from server.plans.solver import solver
from server.rack.models import Rack

Answer = Any


@override_settings(ANSWER_WITHIN_SECONDS=20)
class ApiTestCase(TransactionTestCase):
    """Plans may be stored by another thread, so every test really commits. Answers wait for their
    plan, however slow the machine."""

    # Whether what the desk makes of each change, of what it knew and was told, is looked at.
    puts_together = False

    def setUp(self) -> None:
        cache.clear()
        self.user = User.objects.create_user("mira", password="long-enough-7")
        self.client.force_login(self.user)

    def tearDown(self) -> None:
        solver.stop_all()

    def ask(self, method: str, path: str, body: dict[str, Any] | None = None) -> Answer:
        send = getattr(self.client, method)
        if body is None:
            return send(f"/api{path}")
        return send(f"/api{path}", json.dumps(body), content_type="application/json")

    def upload(self, path: str, data: bytes, name: str = "list.csv", **fields: Any) -> Answer:
        return self.client.post(f"/api{path}", {**fields, "file": SimpleUploadedFile(name, data)})

    def new_project(self, lines: str = "", **typed: Any) -> dict[str, Any]:
        """A project with its plan, as ``look`` gives it."""
        body = {"id": str(uuid.uuid4()), "name": "Cold frame", "unit": "in"} | typed
        project = self.ask("post", "/projects", body).json()
        if lines:
            return dict(self.change(project, "post", "/parts", text=lines).json())
        return self.look(project["id"])

    def look(self, project: str) -> dict[str, Any]:
        """A project with the plan of its present state, as the desk puts them together."""
        found = self.ask("get", f"/projects/{project}").json()
        plan = self.ask("post", f"/projects/{project}/plans").json()
        later = {one["part"]: one["reason"] for m in plan["materials"] for one in m["later"]}
        parts = [
            part
            | {"later": later.get(part["id"], "")}
            | {"cut": plan["cut"].get(part["id"], 0), "pair": found["pairs"].get(part["id"], "")}
            for part in found["parts"]
        ]
        return found | {"plan": plan, "parts": parts}

    def change(self, project: dict[str, Any], method: str, path: str, **body: Any) -> Answer:
        """Changes a project; the answer that all is well has it, once it is asked, as ``look``
        gives it."""
        seen = {"version": project["version"], "change_id": str(uuid.uuid4())}
        answer = self.ask(method, f"/projects/{project['id']}{path}", seen | body)
        if answer.status_code == 200:
            changed = answer.json
            answer.json = lru_cache(lambda: self.look(project["id"]))
            if self.puts_together:
                parts = [_alone(part) for part in answer.json()["parts"]]
                self.assertEqual(put_together(project, changed()), parts)
        return answer

    def take_prices(self, data: bytes) -> list[dict[str, Any]]:
        return self.upload("/yards/import-prices", data, change_id=str(uuid.uuid4())).json()

    def other_client(self) -> Client:
        """Somebody else's."""
        client = Client()
        client.force_login(User.objects.create_user("other", password="long-enough-8"))
        return client

    def problems(self, answer: Answer, status: int = 422) -> dict[str, str]:
        self.assertEqual(answer.status_code, status, answer.content[:300])
        return {p["place"]: p["message"] for p in answer.json()["problems"]}


def put_together(known: dict[str, Any], changed: dict[str, Any]) -> list[dict[str, Any]]:
    """The parts of a project that was known, after what a change answered."""
    parts = {part["id"]: _alone(part) for part in ([] if changed["whole"] else known["parts"])}
    for id_ in changed["gone"]:
        del parts[id_]
    parts |= {part["id"]: part for part in changed["parts"]}
    return sorted(parts.values(), key=lambda part: part["position"])


def _alone(part: dict[str, Any]) -> dict[str, Any]:
    """A part without what ``look`` puts beside it."""
    return {name: value for name, value in part.items() if name not in ("later", "cut", "pair")}


class RackTestCase(ApiTestCase):
    """A builder with a rack."""

    def write(self, board: str, **typed: str) -> Any:
        return self.ask("put", f"/rack/boards/{board}", self.seen_rack() | typed)

    def seen_rack(self) -> dict[str, Any]:
        return {"version": Rack.of(self.user).version, "change_id": str(uuid.uuid4())}

    def add(self, stock: str, length: str, **typed: str) -> str:
        id_ = str(uuid.uuid4())
        answer = self.write(id_, stock=stock, length=length, **typed)
        self.assertEqual(answer.status_code, 200, answer.content)
        return id_

    def step(self, way: str) -> Any:
        return self.ask("post", f"/rack/{way}", self.seen_rack()).json()
