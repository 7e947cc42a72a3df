import json
import uuid
from typing import Any
from unittest.mock import patch

from carpentry.tests.samples import sample
from server.plans.models import Board, Piece
from server.projects.models import Part, Project
from server.tests.base import ApiTestCase


class DeletedTest(ApiTestCase):
    def setUp(self) -> None:
        super().setUp()
        yard = self.take_prices(sample("tallow-street.prices.csv"))[0]
        self.project = self.new_project("2 rail 2x4 treated 60", yard=yard["id"])
        self.path = f"/projects/{self.project['id']}"

    def names(self, of: str) -> list[str]:
        return [one["name"] for one in self.ask("get", of).json()]

    def test_it_is_brought_back_as_it_was(self) -> None:
        plan = self.project["plan"]["id"]
        self.assertEqual(self.ask("delete", self.path).status_code, 204)
        self.assertEqual(self.names("/overview"), [])
        self.assertEqual(self.names("/deleted-projects"), ["Cold frame"])
        self.assertEqual([one["projects"] for one in self.ask("get", "/yards").json()], [0])
        for method, address in (
            ("get", self.path),
            ("delete", self.path),
            ("post", f"{self.path}/plans"),
            ("get", f"/plans/{plan}"),
        ):
            self.assertEqual(self.ask(method, address).status_code, 404, address)
        back = self.ask("post", f"{self.path}/bring-back").json()
        self.assertEqual(back["version"], self.project["version"])
        self.assertEqual(self.look(back["id"])["parts"], self.project["parts"])
        self.assertEqual(self.names("/deleted-projects"), [])
        self.assertEqual(self.ask("post", f"{self.path}/bring-back").status_code, 404)
        seen = {"version": back["version"], "change_id": str(uuid.uuid4())}
        undone = self.ask("post", f"{self.path}/undo", seen).json()
        self.assertEqual(undone["gone"], [self.project["parts"][0]["id"]])

    def test_it_is_gone_for_good_only_when_that_is_asked_for(self) -> None:
        gone = f"/deleted-projects/{self.project['id']}"
        self.assertEqual(self.ask("delete", gone).status_code, 404)
        self.ask("delete", self.path)
        self.assertEqual(self.ask("delete", gone).status_code, 204)
        self.assertEqual(self.names("/deleted-projects"), [])
        self.assertFalse(Project.objects.exists())

    def test_its_id_makes_no_second_one(self) -> None:
        self.ask("delete", self.path)
        body = {"id": self.project["id"], "name": "Again", "unit": "in"}
        self.assertEqual(self.ask("post", "/projects", body).json()["name"], "Cold frame")
        self.assertEqual(Project.objects.count(), 1)


class OwnershipTest(ApiTestCase):
    def test_to_anybody_else_it_does_not_exist(self) -> None:
        project = self.new_project("2 rail 2x4 60")
        yard = self.take_prices(sample("tallow-street.prices.csv"))[0]
        part, plan = project["parts"][0]["id"], project["plan"]["id"]
        other = self.other_client()
        seen = {"version": 2, "change_id": str(uuid.uuid4())}
        path = f"/api/projects/{project['id']}"
        for method, address, body in (
            ("get", path, None),
            ("patch", path, {"name": "mine"}),
            ("delete", path, {}),
            ("post", f"{path}/parts", {"text": "1 a 2x4 9"}),
            ("patch", f"{path}/parts/{part}", {"length": "9"}),
            ("post", f"{path}/parts/remove", {"parts": [part]}),
            ("post", f"{path}/undo", {}),
            ("post", f"{path}/redo", {}),
            ("post", f"{path}/plans", {}),
            ("get", f"/api/plans/{plan}", None),
            ("post", f"/api/plans/{plan}/stop", {}),
            *(
                ("get", f"{path}/{file}", None)
                for file in (
                    *("shopping-list.csv", "shopping-list.xlsx", "shopping-list.pdf"),
                    *("cut-sheet.pdf", "parts.csv", "project.json"),
                )
            ),
            ("get", f"/api/yards/{yard['id']}", None),
            ("patch", f"/api/yards/{yard['id']}", {"name": "mine"}),
            ("delete", f"/api/yards/{yard['id']}", {}),
            ("put", f"/api/yards/{yard['id']}/lines/{uuid.uuid4()}", {"price": "1"}),
            ("post", f"/api/yards/{yard['id']}/lines/remove", {"lines": []}),
            ("post", f"/api/yards/{yard['id']}/undo", {}),
            ("get", f"/api/yards/{yard['id']}/prices.csv", None),
            ("get", f"/api/yards/{yard['id']}/prices.xlsx", None),
            ("get", f"/api/yards/{yard['id']}/yard.json", None),
        ):
            send = getattr(other, method)
            answer = (
                send(address)
                if body is None
                else send(address, json.dumps(seen | body), content_type="application/json")
            )
            self.assertEqual(answer.status_code, 404, f"{method} {address}")
        self.assertEqual(other.get("/api/overview").json(), [])
        self.assertEqual(other.get("/api/yards").json(), [])
        answer = other.patch(
            f"/api/projects/{self.new_project()['id']}", "{}", content_type="application/json"
        )
        self.assertIn(answer.status_code, {404, 422})

    def test_nor_can_what_was_deleted_be_brought_back_or_deleted_for_good(self) -> None:
        project = self.new_project("2 rail 2x4 60")
        self.ask("delete", f"/projects/{project['id']}")
        other = self.other_client()
        for send, address in (
            (other.post, f"/api/projects/{project['id']}/bring-back"),
            (other.delete, f"/api/deleted-projects/{project['id']}"),
        ):
            self.assertEqual(send(address).status_code, 404, address)
        self.assertEqual(other.get("/api/deleted-projects").json(), [])
        self.assertEqual(len(self.ask("get", "/deleted-projects").json()), 1)

    def test_a_project_cannot_choose_somebody_elses_yard(self) -> None:
        yard = self.take_prices(sample("tallow-street.prices.csv"))[0]
        other = self.other_client()
        body = {"id": str(uuid.uuid4()), "name": "x", "unit": "in", "yard": yard["id"]}
        answer = other.post("/api/projects", json.dumps(body), content_type="application/json")
        self.assertEqual(answer.status_code, 404)


class ChangesTest(ApiTestCase):
    puts_together = True

    def test_a_length_changes_and_everything_follows(self) -> None:
        yard = self.take_prices(sample("tallow-street.prices.csv"))[0]
        project = self.new_project(
            "2 back rail 2x4 treated 9ft\n4 leg 2x4 treated 30", yard=yard["id"]
        )
        part = project["parts"][0]
        answer = self.change(project, "patch", f"/parts/{part['id']}", length="60").json()
        self.assertEqual(answer["version"], project["version"] + 1)
        self.assertIn("length 9ft → 60", answer["change"])
        self.assertIn("−$", answer["plan"]["effect"])
        self.assertTrue(answer["plan"]["tally"]["claim"]["proven"])

    def test_a_stale_change_gets_both_states(self) -> None:
        first = self.new_project("2 rail 2x4 60")
        part = first["parts"][0]["id"]
        newer = self.change(first, "patch", f"/parts/{part}", length="70").json()
        answer = self.change(first, "patch", f"/parts/{part}", length="80")
        self.assertEqual(answer.status_code, 409)
        self.assertEqual(answer.json()["seen"]["parts"][0]["length"], "60")
        self.assertEqual(answer.json()["current"]["parts"][0]["length"], "70")
        self.assertEqual(answer.json()["current"]["version"], newer["version"])

    def test_a_repeated_request_makes_one_thing(self) -> None:
        id_, change_id = str(uuid.uuid4()), str(uuid.uuid4())
        body = {"id": id_, "name": "Firewood rack", "unit": "in"}
        project = self.ask("post", "/projects", body).json()
        self.assertEqual(self.ask("post", "/projects", body).json(), project)
        add = {"version": project["version"], "change_id": change_id, "text": "1 a 2x4 20"}
        for _ in range(2):
            answer = self.ask("post", f"/projects/{id_}/parts", add)
            self.assertEqual(answer.status_code, 200)
        self.assertEqual(Project.objects.count(), 1)
        self.assertEqual(Part.objects.count(), 1)

    def test_undo_and_redo_walk_through_the_history(self) -> None:
        project = self.new_project("2 rail 2x4 60")
        part = project["parts"][0]["id"]
        lengths = ["61", "62", "63"]
        for length in lengths:
            project = self.change(project, "patch", f"/parts/{part}", length=length).json()

        def step(way: str) -> str | None:
            nonlocal project
            project = self.change(project, "post", f"/{way}").json()
            return project["parts"][0]["length"] if project["parts"] else None

        self.assertEqual([step("undo") for _ in range(4)], ["62", "61", "60", None])
        self.assertIsNone(project["undo"])
        version = project["version"]
        self.assertIsNone(step("undo"))
        self.assertEqual(project["version"], version)
        self.assertEqual([step("redo") for _ in range(4)], ["60", "61", "62", "63"])
        self.assertIsNone(project["redo"])
        self.assertEqual(step("undo"), "62")
        self.assertEqual(project["parts"][0]["id"], part)
        project = self.change(project, "patch", f"/parts/{part}", length="99").json()
        self.assertIsNone(project["redo"])
        again = self.look(project["id"])
        self.assertEqual(again["undo"], project["undo"])

    def test_marks_stay_with_their_parts(self) -> None:
        project = self.new_project("1 a 2x4 20\n1 b 2x4 21\n1 c 2x4 22")
        self.assertEqual([p["mark"] for p in project["parts"]], ["A", "B", "C"])
        gone = project["parts"][1]["id"]
        project = self.change(project, "post", "/parts/remove", parts=[gone]).json()
        project = self.change(project, "post", "/parts", text="1 d 2x4 23").json()
        self.assertEqual([p["mark"] for p in project["parts"]], ["A", "C", "D"])

    def test_another_unit_changes_no_size(self) -> None:
        project = self.new_project("2 rail 2x4 60\n1 b 2x4 44 1/2\n1 c 2x4 735mm")
        before = [p["length_shown"]["ticks"] for p in project["parts"]]
        project = self.change(project, "patch", "", unit="mm").json()
        self.assertEqual([p["length_shown"]["ticks"] for p in project["parts"]], before)
        self.assertEqual([p["length"] for p in project["parts"]], ["60in", "44 1/2in", "735mm"])
        self.assertEqual((project["kerf"]["typed"], project["notation"]), ("3", "mm"))
        project = self.change(project, "post", "/undo").json()
        self.assertEqual([p["length"] for p in project["parts"]], ["60", "44 1/2", "735mm"])
        self.assertEqual(project["unit"], "in")

    def test_a_length_inside_a_name_keeps_its_meaning_in_another_unit(self) -> None:
        project = self.new_project("2 a 1x4x30\n1 b 2x4x8 treated")
        typed = [(p["stock"], p["length"]) for p in project["parts"]]
        self.assertEqual(typed, [("1x4", "30"), ("2x4 treated", "8ft")])
        before = [p["length_shown"]["ticks"] for p in project["parts"]]
        project = self.change(project, "patch", "", unit="mm").json()
        self.assertEqual([p["length_shown"]["ticks"] for p in project["parts"]], before)
        self.assertEqual(self.ask("get", f"/projects/{project['id']}").status_code, 200)

    def test_a_name_with_a_length_typed_into_a_part(self) -> None:
        project = self.new_project("2 a 2x4 96")
        part = f"/parts/{project['parts'][0]['id']}"
        changed = self.change(project, "patch", part, stock="2x6x8").json()["parts"][0]
        self.assertEqual((changed["stock"], changed["length"]), ("2x6", "96"))

    def test_a_field_given_as_nothing_is_left_as_it_is(self) -> None:
        project = self.new_project("2 rail 2x4 60")
        for field in ("name", "kerf", "copies", "unit", "rack"):
            answer = self.change(project, "patch", "", **{field: None})
            self.assertEqual(answer.status_code, 200, field)
            project = answer.json()
        part = f"/parts/{project['parts'][0]['id']}"
        project = self.change(project, "patch", part, length=None).json()
        self.assertEqual((project["name"], project["parts"][0]["length"]), ("Cold frame", "60"))

    def test_what_is_refused_changes_nothing(self) -> None:
        project = self.new_project("2 rail 2x4 60")
        part = f"/parts/{project['parts'][0]['id']}"
        for method, path, body, place in (
            ("patch", part, {"length": "4 x"}, "length"),
            ("patch", part, {"quantity": "0"}, "quantity"),
            ("patch", part, {"stock": "2x13"}, "stock"),
            ("patch", part, {"ends": "99 0"}, "ends"),
            ("patch", part, {"name": "n" * 300}, "name"),
            ("patch", part, {"stock": "2x4 " + "w" * 120}, "stock"),
            ("post", "/parts", {"text": "6 a 2x4"}, "length"),
            ("post", "/parts", {"text": "  "}, ""),
            ("patch", "", {"kerf": "9"}, "kerf"),
            ("patch", "", {"copies": 0}, "copies"),
            ("patch", "", {"unit": "ft"}, "unit"),
            ("patch", "", {"name": " "}, "name"),
            ("patch", "", {"notation": "mm"}, "notation"),
        ):
            with self.subTest(path=path, body=body):
                answer = self.change(project, method, path, **body)
                self.assertIn(place, self.problems(answer))
        now = self.look(project["id"])
        self.assertEqual(now["version"], project["version"])

    def test_the_limit_of_a_project_is_named(self) -> None:
        with patch("server.projects.api.MAX_PARTS", 12):
            project = self.new_project("\n".join(f"1 p{n} 2x4 {20 + n}" for n in range(12)))
            self.assertEqual(len(project["parts"]), 12)
            answer = self.change(project, "post", "/parts", text="1 more 2x4 20")
        self.assertIn("12 parts", self.problems(answer)[""])


class PlansTest(ApiTestCase):
    def test_boards_and_pieces_have_lasting_ids(self) -> None:
        project = self.new_project("3 rail 2x4 60")
        plan = project["plan"]
        self.assertEqual(plan["status"], "done")
        layout = plan["materials"][0]["layouts"][0]
        board = Board.objects.get(id=layout["board_ids"][0])
        self.assertEqual([piece.label for piece in board.pieces.all()], ["A1", "A2", "A3"])
        again = self.look(project["id"])
        self.assertEqual(again["plan"]["id"], plan["id"])
        part = project["parts"][0]["id"]
        changed = self.change(project, "patch", f"/parts/{part}", length="61").json()
        self.assertNotEqual(changed["plan"]["id"], plan["id"])
        undone = self.change(changed, "post", "/undo").json()
        self.assertEqual(undone["plan"]["id"], plan["id"])
        self.assertEqual(Piece.objects.filter(board__plan=plan["id"]).count(), 3)

    def test_a_yards_new_price_makes_a_new_plan(self) -> None:
        yard = self.take_prices(sample("tallow-street.prices.csv"))[0]
        project = self.new_project("2 rail 2x4 treated 9ft", yard=yard["id"])
        line = next(li for li in yard["lines"] if li["length"] == "10ft")
        body = {"version": yard["version"], "change_id": str(uuid.uuid4()), "price": "9.99"}
        self.ask("put", f"/yards/{yard['id']}/lines/{line['id']}", body)
        again = self.look(project["id"])
        self.assertNotEqual(again["plan"]["id"], project["plan"]["id"])
        self.assertNotEqual(again["plan"]["tally"]["cost"], project["plan"]["tally"]["cost"])

    def test_what_needs_more_than_a_crosscut_is_kept_and_listed(self) -> None:
        project = self.new_project("1 bottom ply 1/2 30 x 24\n2 rail 2x4 60")
        part = project["parts"][1]["id"]
        project = self.change(project, "patch", f"/parts/{part}", width="2").json()
        reasons = {
            la["part"]: la["reason"] for m in project["plan"]["materials"] for la in m["later"]
        }
        self.assertEqual(reasons[part], "has to be ripped or planed to its width")
        self.assertEqual(len(reasons), 2)
        self.assertEqual(project["plan"]["tally"]["later"], 2)


class ImportTest(ApiTestCase):
    def read(self, name: str, unit: str = "in") -> dict[str, Any]:
        fields = {"unit": unit, "notation": "1/32"}
        return self.upload("/reading/parts-file", sample(name), name, **fields).json()

    def take(self, project: dict[str, Any], data: bytes, name: str = "list.csv") -> Any:
        seen = {"version": project["version"], "change_id": str(uuid.uuid4())}
        return self.upload(f"/projects/{project['id']}/parts/import", data, name, **seen)

    def test_the_samples(self) -> None:
        preview = self.read("compost-station.parts.csv")
        self.assertEqual(len(preview["parts"]), 8)
        project = self.take(self.new_project(), sample("compost-station.parts.csv")).json()
        self.assertEqual(len(project["parts"]), 8)
        self.assertEqual(project["version"], 2)
        self.assertEqual(project["undo"], "8 parts added")

    def test_the_broken_list_by_line_and_nothing_kept(self) -> None:
        preview = self.read("broken.parts.csv")
        self.assertEqual(preview["parts"], [])
        lines = [p["place"].split(",")[0] for p in preview["problems"]]
        self.assertEqual(lines, [f"line {n}" for n in range(3, 9)])
        project = self.new_project()
        answer = self.take(project, sample("broken.parts.csv"))
        self.assertEqual(len(self.problems(answer)), 6)
        self.assertEqual(Part.objects.count(), 0)

    def test_a_large_file_is_refused(self) -> None:
        answer = self.take(self.new_project(), b"x" * (5 * 1024 * 1024 + 1))
        self.assertEqual(answer.status_code, 413)
        self.assertIn("5 MB", answer.json()["detail"])

    def test_a_project_file_by_path(self) -> None:
        bad = json.dumps(
            {"format": "grain-tally/project@1", "name": "x", "parts": [{"stock": "2x4"}]}
        )
        answer = self.upload("/projects/import", bad.encode(), "p.json", id=str(uuid.uuid4()))
        self.assertIn("parts[0].length", self.problems(answer))
        answer = self.upload("/projects/import", b"{", "p.json", id=str(uuid.uuid4()))
        self.assertIn("not JSON", " ".join(self.problems(answer).values()))
        self.assertEqual(Project.objects.count(), 0)


class WorkshopTest(ApiTestCase):
    def test_what_it_holds_is_counted(self) -> None:
        project = self.new_project("2 rail 2x4 60")
        self.new_project(name="Gone")
        self.take_prices(sample("tallow-street.prices.csv"))
        self.ask("delete", f"/projects/{project['id']}")
        held = {"projects": 1, "yards": 1, "boards": 0, "materials": 0, "tools": 6}
        self.assertEqual(self.ask("get", "/workshop").json(), held)
        other = self.other_client().get("/api/workshop").json()
        self.assertEqual(other, dict.fromkeys(held, 0) | {"tools": 6})  # a few to start from
