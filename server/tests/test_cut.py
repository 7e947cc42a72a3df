import uuid
from typing import Any

from django.test import override_settings

from carpentry.tests.samples import sample
from server.plans.models import Plan
from server.tests.base import RackTestCase


class CutTest(RackTestCase):
    """One leg from a 75 in board on hand, one from a board bought; 24 1/2 in offcuts and more."""

    def setUp(self) -> None:
        super().setUp()
        yard = self.take_prices(sample("tallow-street.prices.csv"))[0]["id"]
        self.add("2x4 treated", "75", place="left bay")
        self.add("2x4 treated", "20")
        self.project = self.new_project("2 leg 2x4 treated 70", yard=yard)
        self.project = self.change(self.project, "patch", "", rack="saving").json()

    def mark(self, way: str = "cut") -> Any:
        plan = self.project["plan"]["id"]
        return self.ask("post", f"/plans/{plan}/{way}", {"change_id": str(uuid.uuid4())})

    def on_rack(self) -> list[tuple[int, str]]:
        boards = self.ask("get", "/rack").json()["boards"]
        return [(board["number"], board["length_shown"]["text"]) for board in boards]

    def now(self) -> dict[str, Any]:
        self.project = self.look(self.project["id"])
        return self.project

    def test_offcuts_go_onto_the_rack_and_used_boards_off_it_once(self) -> None:
        self.assertEqual(self.on_rack(), [(1, "75″"), (2, "20″")])
        # The board bought is really 96 1/8 in long: 1/2 trim, 70, a kerf of 1/8, and 25 1/2 left.
        cut = self.mark()
        self.assertEqual(cut.json()["stage"], "cut")
        self.assertEqual(self.on_rack(), [(2, "20″"), (3, "25 1/2″")])
        offcut = self.ask("get", "/rack").json()["boards"][1]
        self.assertIn("offcut of Cold frame, board 2", offcut["note"])
        self.assertEqual(self.mark().status_code, 200)
        self.assertEqual(self.on_rack(), [(2, "20″"), (3, "25 1/2″")])

    def test_a_cut_plan_stays_what_it_was(self) -> None:
        self.mark()
        again = self.now()["plan"]
        self.assertEqual(again["stage"], "cut")
        self.assertEqual(again["tally"]["owned"], 1)
        self.assertEqual(again["materials"][0]["layouts"][0]["rack_numbers"], [1])
        yard = self.ask("get", f"/yards/{self.project['yard']['id']}").json()
        line = next(ln for ln in yard["lines"] if ln["stock"] == "2x4 treated")
        seen = {"version": yard["version"], "change_id": str(uuid.uuid4())}
        self.ask("put", f"/yards/{yard['id']}/lines/{line['id']}", seen | {"price": "9.99"})
        self.assertEqual(self.now()["plan"]["tally"]["cost"], "$5.18")
        content = self.client.get(f"/api/projects/{self.project['id']}/cut-sheet.pdf").content
        self.assertTrue(content.startswith(b"%PDF"))

    def test_after_a_change_only_the_rest_is_planned_from_the_rack_as_it_is(self) -> None:
        self.mark()
        self.project = self.change(
            self.now(), "post", "/parts", text="1 stub 2x4 treated 24"
        ).json()
        plan = self.project["plan"]
        self.assertEqual(plan["stage"], "draft")
        self.assertEqual((plan["tally"]["boards"], plan["tally"]["owned"]), (0, 1))
        self.project = self.change(self.project, "post", "/undo").json()
        self.assertEqual(self.project["plan"]["stage"], "cut")

    def test_taken_back_at_the_desk(self) -> None:
        before = self.on_rack()
        self.mark()
        self.assertEqual(self.mark("not-cut").json()["stage"], "draft")
        self.assertEqual(self.on_rack(), before)
        self.assertEqual(self.now()["plan"]["stage"], "draft")
        self.mark("not-cut")
        self.assertEqual(self.on_rack(), before)

    def test_taken_back_later_spares_what_was_laid_on_since(self) -> None:
        self.mark()
        self.add("1x6 cedar", "33")
        self.mark("not-cut")
        self.assertEqual([length for _, length in self.on_rack()], ["75″", "20″", "33″"])

    def test_undone_and_redone_at_the_rack(self) -> None:
        self.mark()
        self.ask("post", "/rack/undo", self.seen_rack())
        self.assertEqual(self.now()["plan"]["stage"], "draft")
        self.ask("post", "/rack/redo", self.seen_rack())
        self.assertEqual(self.now()["plan"]["stage"], "cut")
        self.assertEqual(self.on_rack(), [(2, "20″"), (3, "25 1/2″")])

    def test_a_plan_that_is_not_of_the_present_state(self) -> None:
        self.add("2x4 treated", "72")
        self.assertIn("changed", self.problems(self.mark())["plan"])
        self.assertEqual(len(self.on_rack()), 3)

    def test_nothing_to_cut_and_somebody_elses_plan(self) -> None:
        empty = self.new_project("")
        plan = empty["plan"]["id"]
        body = {"change_id": str(uuid.uuid4())}
        self.assertIn("plan", self.problems(self.ask("post", f"/plans/{plan}/cut", body)))
        mine = self.project["plan"]["id"]
        other = self.other_client()
        answer = other.post(f"/api/plans/{mine}/cut", body, content_type="application/json")
        self.assertEqual(answer.status_code, 404)
        self.assertEqual(Plan.objects.get(id=mine).stage, "draft")

    @override_settings(ANSWER_WITHIN_SECONDS=0.0)
    def test_a_plan_that_is_just_being_finished_is_waited_for(self) -> None:
        """Its boards are proven and shown a moment before they are stored."""
        project = self.new_project("3 rail 2x4 60")
        self.assertIn(project["plan"]["status"], {"queued", "running"})
        plan = project["plan"]["id"]
        answer = self.ask("post", f"/plans/{plan}/cut", {"change_id": str(uuid.uuid4())})
        self.assertEqual((answer.status_code, answer.json()["stage"]), (200, "cut"))


class MeasuredOnTheRackTest(RackTestCase):
    def layouts(self, line: str) -> list[dict[str, Any]]:
        project = self.new_project(line)
        project = self.change(project, "patch", "", rack="saving").json()
        layouts: list[dict[str, Any]] = project["plan"]["materials"][0]["layouts"]
        return layouts

    def test_parts_have_the_size_of_the_board_they_are_cut_from(self) -> None:
        self.add(stock="2x6", length="60", width="5 7/16", width_end="5 15/32")
        self.add(stock="2x6", length="60")
        layouts = self.layouts("2 rail 2x6 50")
        measured = [la["measured"] and la["measured"]["width"]["text"] for la in layouts]
        self.assertEqual(sorted(map(str, measured)), ["5 7/16″", "None"])

    def test_a_part_that_states_its_size_is_not_cut_from_less(self) -> None:
        self.add(stock="2x6", length="60", width="5 7/16")
        table = "quantity\tname\tstock\tlength\twidth\n1\trail\t2x6\t50\t5 1/2"
        self.assertFalse(self.layouts(table)[0]["owned"])


class StaysCutTest(RackTestCase):
    """What a plan marked cut has cut is not bought again after an edit."""

    def mark(self, project: dict[str, Any]) -> None:
        plan = project["plan"]["id"]
        answer = self.ask("post", f"/plans/{plan}/cut", {"change_id": str(uuid.uuid4())})
        self.assertEqual(answer.status_code, 200, answer.content)

    def now(self, project: dict[str, Any]) -> dict[str, Any]:
        return dict(self.look(project["id"]))

    def test_only_the_rest_is_planned(self) -> None:
        project = self.new_project("4 leg 2x4 40\n2 rail 2x4 30")
        self.mark(project)
        project = self.now(project)
        self.assertEqual([part["cut"] for part in project["parts"]], [0, 0])
        leg, rail = (part["id"] for part in project["parts"])
        project = self.change(project, "patch", f"/parts/{leg}", quantity="6").json()
        self.assertEqual([part["cut"] for part in project["parts"]], [4, 2])
        placed = [
            one["part"]
            for layout in project["plan"]["materials"][0]["layouts"]
            for one in layout["parts"] * layout["count"]
        ]
        self.assertEqual(placed, [leg, leg])
        (before,) = project["plan"]["already_cut"]
        self.assertIn("board", before["told"])
        pieces = sorted(piece for board in before["boards"] for piece in board["pieces"])
        self.assertEqual(pieces, ["A1", "A2", "A3", "A4", "B1", "B2"])
        longer = self.change(project, "patch", f"/parts/{rail}", length="31").json()
        self.assertEqual([part["cut"] for part in longer["parts"]], [4, 0])

    def test_what_was_cut_keeps_its_cost_in_sight(self) -> None:
        """Two boards at 5.00 for two legs of 90; one more leg is one board more."""
        (yard,) = self.take_prices(b"yard,stock,length,price\nBell Yard,2x4,8ft,5\n")
        project = self.new_project("2 leg 2x4 90")
        project = self.change(project, "patch", "", yard=yard["id"]).json()
        self.assertEqual(project["plan"]["already_cut"], [])
        self.mark(project)
        self.assertEqual(self.now(project)["plan"]["already_cut"], [])
        leg = project["parts"][0]["id"]
        project = self.change(self.now(project), "patch", f"/parts/{leg}", quantity="3").json()
        (before,) = project["plan"]["already_cut"]
        self.assertEqual((before["told"], before["cost"]), ("2 boards, $10.00", "$10.00"))
        self.assertEqual(project["plan"]["tally"]["boards"], 1)
        self.assertIn("1 board more, +$5.00", project["plan"]["effect"])

    def test_a_second_cut_plan_adds_to_the_first(self) -> None:
        project = self.new_project("4 leg 2x4 40")
        self.mark(project)
        leg = project["parts"][0]["id"]
        project = self.change(self.now(project), "patch", f"/parts/{leg}", quantity="6").json()
        self.mark(project)
        project = self.change(self.now(project), "patch", f"/parts/{leg}", name="post").json()
        self.assertEqual(project["parts"][0]["cut"], 4)
        fewer = self.change(project, "patch", f"/parts/{leg}", quantity="5").json()
        self.assertEqual(fewer["parts"][0]["cut"], 5)
        self.assertEqual(fewer["plan"]["tally"]["claim"]["headline"], "Everything is cut")

    def test_not_cut_after_all(self) -> None:
        project = self.new_project("4 leg 2x4 40")
        self.mark(project)
        leg = project["parts"][0]["id"]
        body = {"change_id": str(uuid.uuid4())}
        self.ask("post", f"/plans/{project['plan']['id']}/not-cut", body)
        project = self.change(self.now(project), "patch", f"/parts/{leg}", quantity="6").json()
        self.assertEqual(project["parts"][0]["cut"], 0)
