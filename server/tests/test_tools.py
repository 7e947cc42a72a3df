"""The tools of a workshop: begun with a few, changed, undone, and what plans make of them."""

import json
import uuid
from typing import Any

from server.tests.base import ApiTestCase
from server.tools.models import Toolbox


class ToolsTest(ApiTestCase):
    def seen(self) -> dict[str, Any]:
        now = self.ask("get", "/tools").json()
        return {"version": now["version"], "change_id": str(uuid.uuid4())}

    def tool(self, kind: str) -> dict[str, Any]:
        found = self.ask("get", "/tools").json()["tools"]
        return next(one for one in found if one["kind"] == kind)

    def write(self, id_: str, **more: Any) -> Any:
        return self.ask("put", f"/tools/{id_}", {**self.seen(), **more})

    def test_a_few_to_start_from_are_not_stored_by_reading(self) -> None:
        first = self.ask("get", "/tools").json()
        self.assertEqual([t["kind"] for t in first["tools"]][:2], ["miter saw", "table saw"])
        self.assertFalse(Toolbox.objects.exists())
        self.assertIn("Crosscuts up to 12″", first["can"])
        self.assertEqual(first, self.ask("get", "/tools").json())

    def test_one_is_changed_added_taken_away_and_all_undone(self) -> None:
        saw = self.tool("miter saw")
        changed = self.write(saw["id"], limits={"crosscut": "8 1/2", "blade": "10"}).json()
        self.assertEqual(len(changed["tools"]), 6)
        self.assertIn("Crosscuts up to 8 1/2″", changed["can"])
        self.assertEqual(self.tool("miter saw")["limits"]["tilt"], "45")
        added = self.write(str(uuid.uuid4()), kind="sled", limits={"width": "24"}).json()
        self.assertIn("Crosscuts up to 24″", added["can"])
        gone = self.ask("post", "/tools/remove", {**self.seen(), "tools": [saw["id"]]}).json()
        self.assertIn("Crosscuts: any width", gone["can"])
        self.assertIn("miter saw taken away", gone["undo"])
        for _ in range(3):
            self.ask("post", "/tools/undo", self.seen())
        self.assertIn("Crosscuts up to 12″", self.ask("get", "/tools").json()["can"])
        again = self.ask("post", "/tools/redo", self.seen()).json()
        self.assertIn("Crosscuts up to 8 1/2″", again["can"])

    def test_what_cannot_be_is_refused_by_limit(self) -> None:
        saw = self.tool("miter saw")
        told = self.problems(self.write(saw["id"], limits={"crosscut": "-12", "tilt": "over"}))
        self.assertIn("less than nothing", told["crosscut"])
        self.assertIn("no angle", told["tilt"])
        self.assertIn("kind", self.problems(self.write(str(uuid.uuid4()), kind="laser")))
        self.assertFalse(Toolbox.objects.exists())

    def test_a_change_of_what_somebody_else_changed_is_told(self) -> None:
        seen, saw = self.seen(), self.tool("table saw")
        self.write(saw["id"], limits={"rip": "24"})
        late = self.ask("put", f"/tools/{saw['id']}", {**seen, "limits": {"rip": "30"}})
        self.assertEqual(late.status_code, 409)

    def test_nobody_sees_another_s_tools(self) -> None:
        saw = self.tool("miter saw")
        self.write(saw["id"], limits={"crosscut": "8 1/2"})
        other = self.other_client()
        self.assertIn("Crosscuts up to 12″", other.get("/api/tools").json()["can"])
        body = {"version": 1, "change_id": str(uuid.uuid4()), "tools": [saw["id"]]}
        other.post("/api/tools/remove", json.dumps(body), content_type="application/json")
        self.assertEqual(self.tool("miter saw")["limits"]["crosscut"], "8 1/2")

    def test_the_file_is_one_that_the_terminal_reads(self) -> None:
        document = self.ask("get", "/tools/file").json()
        self.assertEqual(document["format"], "grain-tally/tools@1")
        self.assertEqual(document["tools"]["miter saw"]["crosscut"], "12")

    def test_plans_follow_and_say_what_would_do(self) -> None:
        project = self.new_project("2 lid 1x12 40")
        self.assertEqual(project["plan"]["tally"]["unplaced"], 0)
        self.write(self.tool("miter saw")["id"], limits={"crosscut": "10"})
        plan = self.ask("post", f"/projects/{project['id']}/plans").json()
        self.assertEqual(plan["tally"]["unplaced"], 2)
        (told,) = plan["materials"][0]["unplaced"]
        self.assertIn("wider than the saw crosscuts, 10″: turned over", told["reason"])
        self.write(self.tool("miter saw")["id"], limits={"turn over": "yes"})
        plan = self.ask("post", f"/projects/{project['id']}/plans").json()
        self.assertEqual(plan["tally"]["unplaced"], 0)
