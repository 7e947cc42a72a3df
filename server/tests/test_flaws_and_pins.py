"""Rack boards with flaws, and parts that name the boards they come from, through the API."""

import uuid
from typing import Any

from server.tests.base import RackTestCase

PRICES = b"yard,stock,length,price\nOld Mill,2x4,8ft,4.00\nOld Mill,2x6,8ft,7.00\n"
TABLE = "quantity\tname\tstock\tlength\tclear\tboards\n"


class FlawsAndPinsTest(RackTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.yard = self.take_prices(PRICES)[0]["id"]

    def planned(self, rows: str, **settings: Any) -> dict[str, Any]:
        project = self.new_project(TABLE + rows, yard=self.yard)
        return self.change(project, "patch", "", **{"rack": "saving"} | settings).json()

    @staticmethod
    def used(project: dict[str, Any]) -> list[int]:
        layouts = project["plan"]["materials"][0]["layouts"]
        return [number for layout in layouts for number in layout["rack_numbers"]]

    def test_a_clear_part_avoids_the_flaw(self) -> None:
        self.add("2x4", "70", flaws="30 to 34 1/2")
        clear = self.planned("2\trail\t2x4\t28\t\t")
        self.assertEqual(self.used(clear), [1])
        (layout,) = clear["plan"]["materials"][0]["layouts"]
        (flaw,) = layout["flaws"]
        for placed in layout["parts"]:
            self.assertTrue(placed["end"] <= flaw["low"] or placed["start"] >= flaw["high"])
        long = self.planned("1\trail\t2x4\t40\t\t")
        self.assertEqual((self.used(long), long["plan"]["tally"]["boards"]), ([], 1))
        hidden = self.planned("1\trail\t2x4\t40\tno\t")
        self.assertEqual((self.used(hidden), hidden["plan"]["tally"]["boards"]), ([1], 0))

    def test_flaws_and_names_count_where_parts_are_ripped(self) -> None:
        self.add("2x4", "70", flaws="30 to 34 1/2")
        ripped = self.planned("2\trail\t2x4\t28\t\t", rip=True)
        self.assertEqual(self.used(ripped), [1])
        long = self.planned("1\trail\t2x4\t40\t\t", rip=True)
        self.assertEqual(self.used(long), [])
        self.add("2x6", "70")
        named = self.planned("2\tsquare\t2x2\t50\t\t2", rip=True)
        self.assertEqual(self.used(named), [2])

    def test_a_part_comes_from_the_board_it_names(self) -> None:
        self.add("2x4", "70")
        self.add("2x4", "70")
        named = self.planned("1\tsign\t2x4\t30\t\t2\n1\trail\t2x4\t60\t\tnot 1")
        layouts = named["plan"]["materials"][0]["layouts"]
        marks = {part["id"]: part["mark"] for part in named["parts"]}
        placed = [
            (layout["rack_numbers"], [marks[one["part"]] for one in layout["parts"]])
            for layout in layouts
        ]
        self.assertIn(([2], ["A"]), placed)
        self.assertNotIn(1, self.used(named))

    def test_a_board_that_is_not_there(self) -> None:
        part = self.planned("1\tsign\t2x4\t30\t\t7")["parts"][0]
        self.assertIn("may only come from rack 7", part["later"])
        project = self.planned("1\tsign\t2x4\t30\t\t")
        bad = TABLE + "1\ta\t2x4\t9\t\tmine"
        faults = self.problems(self.change(project, "post", "/parts", text=bad))
        self.assertIn("numbers of rack boards", " ".join(faults.values()))

    def test_cut_takes_the_board_that_was_named(self) -> None:
        self.add("2x4", "70")
        self.add("2x4", "70")
        named = self.planned("1\tsign\t2x4\t30\t\t2")
        plan = named["plan"]["id"]
        self.ask("post", f"/plans/{plan}/cut", {"change_id": str(uuid.uuid4())})
        left = [board["number"] for board in self.ask("get", "/rack").json()["boards"]]
        self.assertIn(1, left)
        self.assertNotIn(2, left)
