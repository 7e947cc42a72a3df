import io
import uuid

from pypdf import PdfReader

from carpentry.tests.samples import sample
from server.rack.models import Rack
from server.tests.base import RackTestCase


class RackTest(RackTestCase):
    def test_boards_get_numbers_that_are_never_used_twice(self) -> None:
        self.assertEqual(self.ask("get", "/rack").json()["boards"], [])
        first = self.add("2x4 treated", "70", place="left bay")
        self.add("1x6 cedar", "40 1/2")
        seen = {"version": Rack.of(self.user).version, "change_id": str(uuid.uuid4())}
        self.ask("post", "/rack/boards/remove", seen | {"boards": [first]})
        self.add("2x4", "33")
        numbers = [board["number"] for board in self.ask("get", "/rack").json()["boards"]]
        self.assertEqual(numbers, [2, 3])
        self.step("undo")
        undone = self.step("undo")
        self.assertEqual([board["number"] for board in undone["boards"]], [1, 2])
        self.assertEqual(undone["boards"][0]["id"], first)

    def test_a_board_is_measured_and_judged(self) -> None:
        id_ = self.add("2x6", "90", width="5 7/16", crook="1/2")
        board = self.ask("get", f"/rack/boards/{id_}").json()
        self.assertEqual(board["section"]["width"]["text"], "5 7/16″")
        self.assertEqual(board["section_source"], "measured")
        self.assertEqual(board["straight_width"]["text"], "4 11/16″")
        self.assertEqual(board["left_alone"], "")
        self.write(id_, twist="yes")
        twisted = self.ask("get", f"/rack/boards/{id_}").json()
        self.assertIn("rejected", twisted["left_alone"])
        self.assertIsNone(twisted["straight_width"])

    def test_what_is_refused(self) -> None:
        id_ = str(uuid.uuid4())
        faults = self.problems(self.write(id_, stock="2x4", length="96", width="40", flaws="9"))
        self.assertEqual(set(faults), {"width", "flaws"})
        self.assertEqual(self.ask("get", f"/rack/boards/{id_}").status_code, 404)
        old = {"version": 0, "change_id": str(uuid.uuid4()), "stock": "2x4", "length": "96"}
        conflict = self.ask("put", f"/rack/boards/{id_}", old)
        self.assertEqual(conflict.status_code, 409)

    def test_boards_are_found_by_stock_place_note_and_number(self) -> None:
        self.add("2x4 treated", "70", place="left bay")
        self.add("1x6 cedar", "40", note="from the old gate frame")
        for find, count in (("cedar", 1), ("left bay", 1), ("frame", 1), ("2", 2), ("oak", 0)):
            self.assertEqual(self.ask("get", f"/rack?find={find}").json()["found"], count, find)

    def test_nobody_sees_anothers_rack(self) -> None:
        id_ = self.add("2x4", "70")
        other = self.other_client()
        self.assertEqual(other.get("/api/rack").json()["boards"], [])
        self.assertEqual(other.get(f"/api/rack/boards/{id_}").status_code, 404)

    def test_labels_carry_number_and_size(self) -> None:
        for _ in range(26):
            self.add("2x4 treated", "70 1/2")
        pages = PdfReader(
            io.BytesIO(self.client.get("/api/rack/labels.pdf?paper=a4").content)
        ).pages
        self.assertEqual(len(pages), 2)
        self.assertIn("70 1/2", pages[0].extract_text())
        self.assertIn("26", pages[1].extract_text())

    def test_a_plan_takes_boards_on_hand_first_and_costs_less(self) -> None:
        yard = self.take_prices(sample("tallow-street.prices.csv"))[0]["id"]
        self.add("2x4 treated", "75")
        self.add("2x4 treated", "75", twist="yes")
        project = self.new_project("2 leg 2x4 treated 70", yard=yard)
        self.assertEqual(project["plan"]["tally"]["boards"], 1)
        project = self.change(project, "patch", "", rack="saving").json()
        plan = project["plan"]
        self.assertEqual((plan["tally"]["boards"], plan["tally"]["owned"]), (1, 1))
        self.assertEqual(plan["tally"]["cost"], "$5.18")
        owned = next(la for la in plan["materials"][0]["layouts"] if la["owned"])
        self.assertEqual(owned["rack_numbers"], [1])
        self.assertEqual([ln["count"] for ln in plan["shopping"]["lines"]], [1])
        self.assertIn("rack boards where they save", project["change"])
        self.assertTrue(plan["tally"]["claim"]["proven"])
        project = self.change(project, "post", "/undo").json()
        self.assertEqual(project["plan"]["tally"]["owned"], 0)

    def test_everything_from_the_rack(self) -> None:
        self.add("2x4", "96")
        project = self.new_project("2 leg 2x4 40")
        project = self.change(project, "patch", "", rack="saving").json()
        self.assertEqual(project["plan"]["tally"]["boards"], 0)
        self.assertEqual(project["plan"]["shopping"]["lines"], [])
        self.assertEqual(project["plan"]["materials"][0]["summary"], "1 of 8 ft from the rack")
