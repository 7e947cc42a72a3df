"""What stays the same thing: parts, lines, boards and events keep their ids through changes."""

import uuid
from typing import Any

from django.core.exceptions import ValidationError

from carpentry.tests.samples import sample
from server.common.rows import as_lines
from server.projects.models import Part, Project, ProjectLine
from server.tests.base import ApiTestCase, RackTestCase
from server.trips.models import Trip, TripEvent
from server.yards.models import PackLine, Yard


class PartsTest(ApiTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.project = self.new_project("4 leg 2x4 33\n6 slat 1x6 cedar 44\n2 rail 2x4 41")

    def ids(self) -> dict[str, str]:
        return {part["name"]: part["id"] for part in self.project["parts"]}

    def do(self, method: str, path: str, **body: Any) -> dict[str, Any]:
        answer = self.change(self.project, method, path, **body)
        self.assertEqual(answer.status_code, 200, answer.content[:300])
        self.project = answer.json()
        return self.project

    def take_file(self, data: str, **fields: str) -> dict[str, Any]:
        seen = {"version": str(self.project["version"]), "change_id": str(uuid.uuid4())}
        path = f"/projects/{self.project['id']}/parts/import"
        answer = self.upload(path, data.encode(), **seen, **fields)
        self.assertEqual(answer.status_code, 200, answer.content[:300])
        self.project = self.look(self.project["id"])
        return dict(answer.json())

    def test_undo_and_redo(self) -> None:
        before = self.ids()
        self.do("post", "/parts/remove", parts=[before["slat"]])
        self.do("patch", f"/parts/{before['leg']}", length="34")
        self.do("post", "/undo")
        self.do("post", "/undo")
        self.assertEqual(self.ids(), before)
        self.assertEqual([p["position"] for p in self.project["parts"]], [1, 2, 3])
        self.do("post", "/redo")
        self.assertEqual(set(self.ids()), {"leg", "rail"})

    def test_an_undo_answers_what_it_changed(self) -> None:
        leg = self.ids()["leg"]
        self.do("patch", f"/parts/{leg}", length="34")
        seen = {"version": self.project["version"], "change_id": str(uuid.uuid4())}
        answer = self.ask("post", f"/projects/{self.project['id']}/undo", seen).json()
        self.assertEqual([part["id"] for part in answer["parts"]], [leg])
        self.assertEqual((answer["whole"], answer["gone"]), (False, []))

    def test_a_change_that_is_told_twice_answers_all_of_it(self) -> None:
        leg = self.ids()["leg"]
        body = {"version": self.project["version"], "change_id": str(uuid.uuid4()), "length": "34"}
        path = f"/projects/{self.project['id']}/parts/{leg}"
        first, again = (self.ask("patch", path, body).json() for _ in range(2))
        self.assertEqual((first["whole"], len(first["parts"])), (False, 1))
        self.assertEqual((again["whole"], len(again["parts"])), (True, 3))
        self.assertEqual(again["version"], first["version"])

    def test_what_all_parts_share_is_told_of_all(self) -> None:
        seen = {"version": self.project["version"], "change_id": str(uuid.uuid4())}
        path = f"/projects/{self.project['id']}"
        answer = self.ask("patch", path, seen | {"extra_length": "1/4"}).json()
        self.assertEqual(len(answer["parts"]), 3)
        seen = {"version": answer["version"], "change_id": str(uuid.uuid4())}
        answer = self.ask("patch", path, seen | {"budget": "100"}).json()
        self.assertEqual(answer["parts"], [])

    def test_another_unit_and_back(self) -> None:
        before = self.ids()
        self.do("patch", "", unit="mm")
        self.assertEqual(self.ids(), before)
        self.do("post", "/undo")
        self.assertEqual(self.ids(), before)

    def test_a_changed_file_instead_of_the_list(self) -> None:
        before = self.ids()
        marks = {part["name"]: part["mark"] for part in self.project["parts"]}
        told = self.take_file(
            "quantity,name,stock,length\n2,rail,2x4,42\n4,leg,2x4,33\n1,top,1x6 cedar,50\n",
            instead="true",
        )
        self.assertEqual([part["name"] for part in self.project["parts"]], ["rail", "leg", "top"])
        now = self.ids()
        self.assertEqual((now["rail"], now["leg"]), (before["rail"], before["leg"]))
        self.assertEqual(self.project["parts"][0]["mark"], marks["rail"])
        self.assertEqual(told["gone"], [before["slat"]])
        self.do("post", "/undo")
        self.assertEqual(self.ids(), before)

    def test_beside_the_list_all_of_a_file_is_new(self) -> None:
        before = self.ids()
        self.take_file("quantity,name,stock,length\n2,rail,2x4,41\n")
        self.assertEqual(len(self.project["parts"]), 4)
        self.assertEqual(self.project["parts"][2]["id"], before["rail"])

    def test_two_that_have_swapped_their_marks(self) -> None:
        """As no change makes it, but a state that is gone back to may have it."""
        project = Project.objects.get(id=self.project["id"])
        snapshot = project.snapshot()
        one, other = snapshot["parts"][:2]
        one["mark"], other["mark"] = other["mark"], one["mark"]
        project.restore(snapshot)
        marks = dict(Part.objects.filter(project=project).values_list("name", "mark"))
        self.assertEqual((marks["leg"], marks["slat"], marks["rail"]), ("B", "A", "C"))


class LinesTest(ApiTestCase):
    def test_a_line_that_stays_is_the_same_line(self) -> None:
        project = self.new_project("2 post 2x4 40\n4 slat 1x6 cedar 30")

        def lines() -> dict[str, Any]:
            return {one.text: one.id for one in ProjectLine.objects.filter(kind="hardware")}

        project = self.change(project, "patch", "", hardware="2 hinge\n1 latch").json()
        first = lines()
        more = "2 hinge\n8 washer\n1 latch"
        project = self.change(project, "patch", "", hardware=more).json()
        self.assertEqual(project["hardware"], more)
        second = lines()
        self.assertEqual(
            (second["2 hinge"], second["1 latch"]), (first["2 hinge"], first["1 latch"])
        )
        project = self.change(project, "post", "/undo").json()
        self.assertEqual(lines(), first)
        project = self.change(project, "post", "/redo").json()
        self.assertEqual(lines(), second)

    def test_a_line_that_is_changed_is_the_same_line(self) -> None:
        before = [ProjectLine(text=text) for text in ("2 hinge", "1 latch")]
        now = list(as_lines("2 hinge\n2 latch\n3 hook", before))
        self.assertEqual([id_ for id_, _ in now[:2]], [line.id for line in before])
        self.assertNotIn(now[2][0], [line.id for line in before])

    def test_packs_of_a_yard(self) -> None:
        yard = self.take_prices(sample("tallow-street.prices.csv"))[0]
        row = Yard.objects.get(id=yard["id"])
        row.write_packs("screws 2, 100, 8.60\nscrews 3, 50, 7.40")
        first = {one.text: one.id for one in PackLine.objects.all()}
        row.write_packs("screws 2, 100, 8.90\nscrews 3, 50, 7.40")
        second = {one.text: one.id for one in PackLine.objects.all()}
        self.assertEqual(set(first.values()), set(second.values()))
        with self.assertRaises(ValidationError):
            row.write_packs("what is that")


class RackTest(RackTestCase):
    def test_a_board_that_comes_back_is_the_same_board(self) -> None:
        board = self.add("2x4", "70")
        removal = self.seen_rack() | {"boards": [board]}
        self.ask("post", "/rack/boards/remove", removal)
        again = self.step("undo")
        self.assertEqual([one["id"] for one in again["boards"]], [board])


class HappenedTest(ApiTestCase):
    def test_what_happened_is_never_rewritten(self) -> None:
        self.take_prices(sample("tallow-street.prices.csv"))
        yard = Yard.objects.get()
        project = self.new_project("3 rail 2x4 treated 40", yard=str(yard.id))
        trip = str(uuid.uuid4())
        racks = self.ask("post", f"/projects/{project['id']}/trips", {"id": trip}).json()["racks"]
        line = racks[0]["lines"][0]["key"]
        event = {"id": str(uuid.uuid4()), "kind": "took", "line": line, "count": 1}
        for _ in range(2):
            self.ask("post", f"/trips/{trip}/events", {"events": [event]})
        (row,) = TripEvent.objects.all()
        row.kind = "put back"
        with self.assertRaises(TypeError):
            row.save()
        self.assertEqual(TripEvent.objects.get().kind, "took")

    def test_a_trip_has_a_plan_like_any_other(self) -> None:
        self.take_prices(sample("tallow-street.prices.csv"))
        project = self.new_project("3 rail 2x4 treated 40", yard=str(Yard.objects.get().id))
        trip = str(uuid.uuid4())
        self.ask("post", f"/projects/{project['id']}/trips", {"id": trip})
        plan = Trip.objects.get().plan
        self.assertEqual((plan.stage, plan.status), ("chosen", "done"))
        self.assertEqual(len(plan.outcome), len(plan.problems))
        finish = {"change_id": str(uuid.uuid4()), "put_away": True}
        self.ask("post", f"/trips/{trip}/finish", finish)
        plan.refresh_from_db()
        self.assertEqual(plan.stage, "bought")
        self.ask("post", f"/trips/{trip}/open-again", {"change_id": str(uuid.uuid4())})
        plan.refresh_from_db()
        self.assertEqual(plan.stage, "chosen")
        self.assertEqual(self.look(project["id"])["plan"]["stage"], "draft")
