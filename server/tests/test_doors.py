"""Who is let in: tokens, throttles, and every endpoint's own check."""

import json
import uuid
from typing import Any

from django.conf import settings
from django.test import Client

from server.accounts.models import User
from server.tests.base import ApiTestCase

CONTRACT = json.loads((settings.ROOT / "server/openapi.json").read_text())
DOORS = {"/api/session", "/api/session/demo", "/api/account"}


def operations() -> list[tuple[str, str, dict[str, Any]]]:
    """Every operation of the API: its method, an address for it, and what the contract says."""
    found = []
    for path, methods in CONTRACT["paths"].items():
        address = path
        while "{" in address:
            start, end = address.index("{"), address.index("}")
            address = f"{address[:start]}{uuid.uuid4()}{address[end + 1 :]}"
        found += [(method, address, operation) for method, operation in methods.items()]
    return found


class EveryEndpointTest(ApiTestCase):
    def test_each_that_changes_something_wants_the_token(self) -> None:
        strict = Client(enforce_csrf_checks=True)
        strict.force_login(self.user)
        changing = [(m, a) for m, a, _ in operations() if m != "get"]
        self.assertGreater(len(changing), 40)
        for method, address in changing:
            answer = strict.generic(method.upper(), address, "{}", "application/json")
            self.assertEqual(answer.status_code, 403, (method, address))

    def test_each_but_the_doors_wants_somebody(self) -> None:
        client = Client()
        for method, address, _ in operations():
            if address in DOORS and (method != "delete"):
                continue
            answer = client.generic(method.upper(), address, "{}", "application/json")
            self.assertEqual(answer.status_code, 401, (method, address))

    def test_nothing_of_somebody_else_s_is_shown_or_deleted(self) -> None:
        project = self.new_project("2 rail 2x4 60")
        (yard,) = self.take_prices(b"yard,stock,length,price\nBell Yard,2x4,8ft,5\n")
        line = self.ask("get", f"/yards/{yard['id']}").json()["lines"][0]["id"]
        mine = {
            "project_id": project["id"],
            "plan_id": project["plan"]["id"],
            "part_id": project["parts"][0]["id"],
            "yard_id": yard["id"],
            "line_id": line,
            "trip_id": str(uuid.uuid4()),
            "tool_id": str(uuid.uuid4()),
            "cutting_id": str(uuid.uuid4()),
            "board_id": str(uuid.uuid4()),
            "material_id": str(uuid.uuid4()),
            "run_id": str(uuid.uuid4()),
            "shape_id": str(uuid.uuid4()),
            "measure_id": str(uuid.uuid4()),
        }
        other, asked = self.other_client(), 0
        for path, methods in CONTRACT["paths"].items():
            if "{" not in path:
                continue
            address = path.format(**mine)
            for method in ("get", "delete"):
                if method in methods and not _needs_more(methods[method]):
                    asked += 1
                    answer = other.generic(method.upper(), address)
                    self.assertEqual(answer.status_code, 404, (method, path))
        self.assertGreater(asked, 12)
        self.assertEqual(self.ask("get", f"/projects/{project['id']}").status_code, 200)
        self.assertEqual(self.ask("get", f"/yards/{yard['id']}").status_code, 200)


def _needs_more(operation: dict[str, Any]) -> bool:
    return any(p["in"] == "query" and p.get("required") for p in operation.get("parameters", ()))


class DoorsTest(ApiTestCase):
    def test_the_doors_want_the_token_of_our_pages(self) -> None:
        User.objects.create_user(settings.DEMO_USER)
        for path, body in (
            ("/api/session", {"username": "mira", "password": "long-enough-7"}),
            ("/api/account", {"username": "tove", "password": "barrel-and-hoop"}),
            ("/api/session/demo", {}),
        ):
            client = Client(enforce_csrf_checks=True)
            refused = client.post(path, json.dumps(body), content_type="application/json")
            self.assertEqual(refused.status_code, 403, path)
            client.get("/api/session")
            token = client.cookies["csrftoken"].value
            let_in = client.post(
                path,
                json.dumps(body),
                content_type="application/json",
                headers={"X-CSRFToken": token},
            )
            self.assertEqual(let_in.status_code, 200, path)

    def attempt(self, name: str, address: str) -> int:
        body = json.dumps({"username": name, "password": "no"})
        answer = Client(REMOTE_ADDR=address).post(
            "/api/session", body, content_type="application/json"
        )
        return int(answer.status_code)

    def test_one_address_is_slowed_whatever_name_it_tries(self) -> None:
        statuses = [self.attempt(f"name{n}", "192.0.2.1") for n in range(12)]
        self.assertEqual((statuses[0], statuses[-1]), (422, 429))
        self.assertEqual(self.attempt("mira", "192.0.2.2"), 422)

    def test_one_account_is_slowed_wherever_it_is_tried_from(self) -> None:
        statuses = [self.attempt("Mira ", f"192.0.2.{n}") for n in range(32)]
        self.assertEqual((statuses[0], statuses[-1]), (422, 429))
        self.assertEqual(self.attempt("tove", "192.0.2.200"), 422)

    def test_an_address_is_not_taken_from_what_a_client_says(self) -> None:
        statuses = []
        for n in range(12):
            client = Client(headers={"X-Forwarded-For": f"198.51.100.{n}"})
            body = json.dumps({"username": f"name{n}", "password": "no"})
            answer = client.post("/api/session", body, content_type="application/json")
            statuses.append(answer.status_code)
        self.assertEqual(statuses[-1], 429)

    def test_the_admin_s_door_has_the_same_throttles(self) -> None:
        statuses = []
        for _ in range(12):
            form = {"username": "mira", "password": "no"}
            statuses.append(Client().post("/admin/login/", form).status_code)
        self.assertEqual((statuses[0], statuses[-1]), (200, 429))
