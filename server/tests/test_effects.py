import uuid
from typing import Any

from carpentry.tests.samples import sample
from server.rack.models import Rack
from server.tests.base import ApiTestCase


def widths(effect: dict[str, Any]) -> tuple[str, ...]:
    return tuple(effect[when]["width"]["text"] for when in ("before", "after"))


class EffectAtTheYardTest(ApiTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.yard = self.take_prices(sample("tallow-street.prices.csv"))[0]
        self.line = next(ln for ln in self.yard["lines"] if ln["stock"] == "2x4 treated")

    def effect(self, **typed: str) -> Any:
        return self.ask("post", f"/yards/{self.yard['id']}/lines/{self.line['id']}/effect", typed)

    def test_every_part_that_changes_is_listed_and_nothing_is_kept(self) -> None:
        self.new_project("2 leg 2x4 treated 70\n1 rail 2x6 40", yard=self.yard["id"])
        self.new_project("2 leg 2x4 treated 70", name="Bought elsewhere")
        effects = self.effect(width="3 3/8").json()
        self.assertEqual([(e["project"], e["mark"]) for e in effects], [("Cold frame", "A")])
        self.assertEqual(widths(effects[0]), ("3 1/2″", "3 3/8″"))
        after = self.ask("get", f"/yards/{self.yard['id']}").json()
        self.assertEqual(after["version"], self.yard["version"])

    def test_a_part_that_states_its_size_says_why_it_is_planned_otherwise(self) -> None:
        table = "quantity\tname\tstock\tlength\twidth\n1\trail\t2x4 treated\t50\t3 1/2"
        self.new_project(table, yard=self.yard["id"])
        effect = self.effect(width="3 3/8").json()[0]
        self.assertEqual(effect["before"], effect["after"])
        self.assertIn("more than the width", effect["why"])

    def test_no_change_no_list_and_nonsense_is_refused(self) -> None:
        self.new_project("2 leg 2x4 treated 70", yard=self.yard["id"])
        self.assertEqual(self.effect(width="3 1/2").json(), [])
        self.assertIn("width", self.problems(self.effect(width="40")))


class EffectOnTheRackTest(ApiTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.board = str(uuid.uuid4())
        seen = {"version": Rack.of(self.user).version, "change_id": str(uuid.uuid4())}
        body = seen | {"stock": "2x6", "length": "72"}
        self.ask("put", f"/rack/boards/{self.board}", body)
        project = self.new_project("2 rail 2x6 30")
        self.change(project, "patch", "", rack="saving").json()  # it is planned

    def effect(self, **typed: str) -> Any:
        return self.ask("post", f"/rack/boards/{self.board}/effect", typed)

    def test_parts_on_the_board_are_listed(self) -> None:
        effect = self.effect(width="5 7/16").json()[0]
        self.assertEqual((effect["mark"], effect["pieces"]), ("A", 2))
        self.assertEqual(widths(effect), ("5 1/2″", "5 7/16″"))
        self.assertEqual(Rack.of(self.user).boards.get().width, "")

    def test_a_board_that_plans_leave_alone_then(self) -> None:
        self.assertIn("rejected", self.effect(twist="yes").json()[0]["why"])
        self.assertIn("anew", self.effect(length="61").json()[0]["why"])
        self.assertEqual(self.effect(place="left bay").json(), [])
        self.assertIn("twist", self.problems(self.effect(twist="perhaps")))
