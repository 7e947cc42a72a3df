"""Several clients at once: nothing is lost, nobody gets a crash, and a conflict is told."""

import random
import uuid
from collections import Counter
from concurrent.futures import ThreadPoolExecutor
from threading import Barrier
from typing import Any

from django.db import connection
from django.test import Client

from server.projects.models import Project
from server.tests.base import ApiTestCase
from server.tests.test_trips import EIGHT, TripTestCase
from server.trips.finishing import correct, finish
from server.trips.going import plan_anew
from server.trips.models import Trip


class AtOnceTest(ApiTestCase):
    def side_by_side(self, count: int, work: Any) -> list[Any]:
        """What ``work`` comes to for each of so many threads that begin together."""
        begin = Barrier(count)

        def one(number: int) -> Any:
            try:
                begin.wait()
                return work(number)
            finally:
                connection.close()

        with ThreadPoolExecutor(count) as pool:
            return list(pool.map(one, range(count)))

    def signed_in(self) -> Client:
        client = Client(raise_request_exception=False)
        client.force_login(self.user)
        return client

    def test_reading_and_changing_one_project(self) -> None:
        project = self.new_project("\n".join(f"2 rail {n} 2x4 {20 + n}" for n in range(8)))
        address = f"/api/projects/{project['id']}"
        statuses: Counter[int] = Counter()

        def work(number: int) -> list[int]:
            client, chance, found = self.signed_in(), random.Random(number), []
            for _ in range(6):
                read = client.get(address)
                found.append(read.status_code)
                if read.status_code != 200:
                    continue
                seen = {"version": read.json()["version"], "change_id": str(uuid.uuid4())}
                parts = [part["id"] for part in read.json()["parts"]]
                if chance.random() < 0.5 and len(parts) > 2:
                    body = seen | {"parts": [chance.choice(parts)]}
                    answer = client.post(
                        f"{address}/parts/remove", body, content_type="application/json"
                    )
                else:
                    body = seen | {"text": f"1 post 2x4 {chance.randint(10, 40)}"}
                    answer = client.post(f"{address}/parts", body, content_type="application/json")
                found.append(answer.status_code)
            return found

        for found in self.side_by_side(8, work):
            statuses.update(found)
        self.assertEqual(set(statuses) - {200, 409}, set(), statuses)
        self.assertGreater(statuses[200], 20)
        changed = statuses.total() - 8 * 6 - statuses[409]
        self.assertEqual(Project.objects.get().version, project["version"] + changed)

    def test_one_project_made_twice_is_made_once(self) -> None:
        body = {"id": str(uuid.uuid4()), "name": "Rack", "unit": "in"}

        def work(number: int) -> int:
            client = self.signed_in()
            answer = client.post("/api/projects", body, content_type="application/json")
            return int(answer.status_code)

        self.assertEqual(set(self.side_by_side(4, work)), {200})
        self.assertEqual(Project.objects.get().revisions.count(), 1)


class TripAtOnceTest(TripTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.tell({"kind": "took", "line": EIGHT, "count": 2})

    def stale(self) -> Trip:
        """The trip as another tab read it a moment ago."""
        return Trip.objects.select_related("project", "yard").get(id=self.trip["id"])

    def test_a_trip_that_is_finished_while_another_tab_plans_stays_finished(self) -> None:
        planning = self.stale()
        finish(self.stale(), uuid.uuid4(), put_away=True)
        plan_anew(planning)
        now = self.stale()
        self.assertIsNotNone(now.finished)
        self.assertEqual(len(now.laid), 2)
        self.assertEqual(len(self.ask("get", "/rack").json()["boards"]), 2)

    def test_a_trip_that_is_finished_twice_is_finished_once(self) -> None:
        first, second = self.stale(), self.stale()
        finish(first, uuid.uuid4(), put_away=True)
        finish(second, uuid.uuid4(), put_away=True)
        now = self.stale()
        self.assertEqual(len(now.laid), 2)
        self.assertEqual(len(self.ask("get", "/rack").json()["boards"]), 2)

    def test_two_corrections_of_a_receipt_are_both_kept(self) -> None:
        finish(self.stale(), uuid.uuid4(), put_away=False)
        first, second = self.stale(), self.stale()
        correct(first, EIGHT, "3", None)
        correct(second, EIGHT, None, "4.50")
        self.assertEqual(self.stale().paid[EIGHT], {"count": "3", "price": "4.50"})

    def test_events_after_the_end_are_refused(self) -> None:
        finish(self.stale(), uuid.uuid4(), put_away=False)
        self.assertIn("finished", self.refused(kind="took", line=EIGHT, count=1))

    def test_a_trip_begun_by_two_is_one(self) -> None:
        Trip.objects.all().delete()
        self.assertEqual(self.begin()["id"], self.begin()["id"])
