"""Reading never writes, and what has not changed is not sent again."""

import re
import uuid
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import Any

from django.db import connection

from carpentry.tests.samples import sample
from server.plans.models import Plan
from server.rack.models import Rack
from server.site.api import api
from server.tests.base import ApiTestCase

_WRITES = re.compile(r"\s*(INSERT|UPDATE|DELETE|REPLACE)\b", re.IGNORECASE)


@contextmanager
def nothing_is_written() -> Iterator[list[str]]:
    """Fails whoever writes to the database."""
    seen: list[str] = []

    def look(execute: Callable[..., Any], sql: str, *rest: Any) -> Any:
        if _WRITES.match(sql):
            seen.append(sql[:120])
        return execute(sql, *rest)

    with connection.execute_wrapper(look):
        yield seen


class ReadingTest(ApiTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.yard = self.take_prices(sample("tallow-street.prices.csv"))[0]
        self.project = self.new_project("3 rail 2x4 treated 40", yard=self.yard["id"])
        self.trip = str(uuid.uuid4())
        self.ask("post", f"/projects/{self.project['id']}/trips", {"id": self.trip})
        self.cutting = str(uuid.uuid4())
        self.ask("post", f"/projects/{self.project['id']}/cuttings", {"id": self.cutting})

    def ids(self) -> dict[str, str]:
        return {
            "project_id": self.project["id"],
            "plan_id": self.project["plan"]["id"],
            "part_id": self.project["parts"][0]["id"],
            "yard_id": self.yard["id"],
            "line_id": self.yard["lines"][0]["id"],
            "cutting_id": self.cutting,
            "trip_id": self.trip,
            "board_id": str(uuid.uuid4()),
            "run_id": str(uuid.uuid4()),
            "shape_id": str(uuid.uuid4()),
        }

    def test_no_get_writes(self) -> None:
        asked = 0
        for path, ways in api.get_openapi_schema()["paths"].items():
            if "get" not in ways:
                continue
            address = path.format(**self.ids())
            query = {"price": "3.10", "thickness": "1", "width": "4"}
            with nothing_is_written() as seen:
                answer = self.client.get(address, query)
            self.assertLess(answer.status_code, 500, path)
            self.assertEqual(seen, [], path)
            asked += answer.status_code == 200
        self.assertGreater(asked, 20)

    def test_a_project_that_was_never_planned_is_only_read(self) -> None:
        new = {"id": str(uuid.uuid4()), "name": "Gate", "unit": "in"}
        self.ask("post", "/projects", new)
        Plan.objects.all().delete()
        with nothing_is_written() as seen:
            self.assertEqual(self.ask("get", f"/projects/{new['id']}").status_code, 200)
            sheet = self.client.get(f"/api/projects/{self.project['id']}/shopping-list.csv")
        self.assertEqual(seen, [])
        self.assertIn("2x4 treated", sheet.content.decode())
        self.assertEqual(Plan.objects.count(), 0)

    def test_a_rack_is_stored_when_something_is_laid_on_it(self) -> None:
        self.assertEqual(self.ask("get", "/rack").json()["total"], 0)
        self.assertEqual(Rack.objects.count(), 0)
        body = {"version": 1, "change_id": str(uuid.uuid4()), "stock": "2x4", "length": "70"}
        laid = self.ask("put", f"/rack/boards/{uuid.uuid4()}", body)
        self.assertEqual((laid.status_code, laid.json()["total"]), (200, 1))
        self.assertEqual(Rack.of(self.user).history.first().label, "empty rack")


class UnchangedTest(ApiTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.yard = self.take_prices(sample("tallow-street.prices.csv"))[0]
        self.project = self.new_project("3 rail 2x4 treated 40", yard=self.yard["id"])
        self.plan = f"/api/plans/{self.project['plan']['id']}"

    def look_again(self, state: str) -> int:
        return self.client.get(self.plan, headers={"If-None-Match": state}).status_code

    def state(self) -> str:
        answer = self.client.get(self.plan)
        self.assertEqual(answer.status_code, 200)
        return str(answer["ETag"])

    def test_what_is_known_is_not_sent_again(self) -> None:
        state = self.state()
        with self.assertNumQueries(8):  # however many parts there are
            self.assertEqual(self.look_again(state), 304)
        self.assertEqual(self.client.get(self.plan).status_code, 200)
        self.assertEqual(self.look_again('"something else"'), 200)

    def test_another_project_another_price_another_board(self) -> None:
        state = self.state()
        part = f"/parts/{self.project['parts'][0]['id']}"
        self.change(self.project, "patch", part, length="41")
        self.assertEqual(self.look_again(state), 410)
        changed = self.look(self.project["id"])
        self.plan = f"/api/plans/{changed['plan']['id']}"
        state = self.state()
        line = next(one for one in self.yard["lines"] if one["stock"] == "2x4 treated")
        body = {"version": self.yard["version"], "change_id": str(uuid.uuid4()), "price": "0.99"}
        self.ask("put", f"/yards/{self.yard['id']}/lines/{line['id']}", body)
        self.assertEqual(self.look_again(state), 410)

    def test_a_note_of_the_yard_leaves_the_plan_as_it_is(self) -> None:
        state = self.state()
        body = {"version": self.yard["version"], "change_id": str(uuid.uuid4()), "walk": "cedar"}
        self.ask("patch", f"/yards/{self.yard['id']}", body)
        self.assertEqual(self.look_again(state), 200)
        self.assertEqual(self.look_again(self.state()), 304)

    def test_a_plan_of_somebody_else_is_not_there(self) -> None:
        answer = self.other_client().get(self.plan, headers={"If-None-Match": self.state()})
        self.assertEqual(answer.status_code, 404)
