"""What a project that is cut has cost: receipts, what was bought without one, the rack."""

import uuid
from typing import Any

from server.tests.base import RackTestCase
from server.tests.test_shop import ShopTestCase
from server.tests.test_trips import TripTestCase


def spent(test: Any, project: dict[str, Any]) -> dict[str, Any]:
    return dict(test.ask("get", f"/projects/{project['id']}/spent").json())


def listed(test: Any, project: dict[str, Any]) -> dict[str, Any]:
    rows = test.ask("get", "/overview").json()
    return next(row for row in rows if row["id"] == project["id"])


def mark_cut(test: Any, project: dict[str, Any]) -> None:
    body = {"change_id": str(uuid.uuid4())}
    answer = test.ask("post", f"/plans/{project['plan']['id']}/cut", body)
    test.assertEqual(answer.status_code, 200, answer.content)


class WithoutReceiptTest(RackTestCase):
    def test_boards_and_hardware_by_the_list_with_tax(self) -> None:
        """Two boards at 5.00 and four latches at 2.25 are 19.00; with 10 % of tax 20.90."""
        (yard,) = self.take_prices(b"yard,stock,length,price\nBell Yard,2x4,8ft,5\n")
        seen = self.ask("get", f"/yards/{yard['id']}").json()
        change = {"version": seen["version"], "change_id": str(uuid.uuid4()), "tax_rate": "10"}
        self.assertEqual(self.ask("patch", f"/yards/{yard['id']}", change).status_code, 200)
        project = self.new_project("2 leg 2x4 90", yard=yard["id"])
        project = self.change(project, "patch", "", hardware="4 latch @ 2.25").json()
        self.assertEqual(spent(self, project)["lines"], [])
        self.assertEqual(listed(self, project)["cost"], "$10.00")
        mark_cut(self, project)
        found = spent(self, project)
        self.assertEqual(
            [(line["what"], line["paid"]) for line in found["lines"]],
            [
                ("2 boards by the list", "$10.00"),
                ("hardware, by the list", "$9.00"),
                ("tax, 10 %", "$1.90"),
            ],
        )
        self.assertEqual((found["total"], found["told"]), ("$20.90", "$20.90"))
        row = listed(self, project)
        self.assertEqual((row["cost"], row["is_cut"], row["proven"]), ("$20.90", True, False))

    def test_what_had_no_price_is_said(self) -> None:
        """One board of 16 ft, a standard length."""
        project = self.new_project("2 leg 2x4 90")
        mark_cut(self, project)
        self.assertEqual(spent(self, project)["told"], "$0.00, without 1 thing that had no price")

    def test_boards_from_the_rack_and_pieces_back_on_it(self) -> None:
        """A 60 in board gives a 40 and a piece of 18 and more."""
        self.add(stock="2x4", length="60")
        project = self.new_project("1 rail 2x4 40")
        project = self.change(project, "patch", "", rack="always", keep_from="12").json()
        mark_cut(self, project)
        told = spent(self, project)["told"]
        self.assertEqual(told, "$0.00, 1 board from the rack, 1 piece back on the rack")


class AfterAMiscutTest(ShopTestCase):
    def test_a_board_bought_after_is_counted_apart(self) -> None:
        """Two boards at 4.18 were planned, a third was bought after a miscut."""
        cutting = self.tell(self.new_cutting(), {"kind": "miscut", "cuts": "1.2", "now": "59"})
        self.tell(cutting, {"kind": "cut", "cuts": " ".join(self.every(cutting))})
        self.assertEqual(self.finish(cutting).status_code, 200)
        found = spent(self, self.project)
        self.assertEqual(
            [(line["what"], line["paid"]) for line in found["lines"]],
            [
                ("2 boards by the list", "$8.36"),
                ("1 board bought after the plan, at its prices", "$4.18"),
            ],
        )
        self.assertEqual(found["total"], "$12.54")
        self.assertEqual(listed(self, self.project)["cost"], "$12.54")


class WithReceiptTest(TripTestCase):
    def test_what_was_paid_is_what_it_cost_and_is_counted_once(self) -> None:
        """Boards that a trip laid on the rack are cut from there, at no other cost."""
        for line in [one for rack in self.trip["racks"] for one in rack["lines"]]:
            for _ in range(line["wanted"]):
                self.tell({"kind": "took", "line": line["key"]})
        body = {"change_id": str(uuid.uuid4()), "put_away": True}
        receipt = self.ask("post", f"/trips/{self.trip['id']}/finish", body).json()
        self.project = self.look(self.project["id"])
        self.assertEqual(self.project["plan"]["tally"]["boards"], 0)
        mark_cut(self, self.project)
        found = spent(self, self.project)
        self.assertEqual([line["paid"] for line in found["lines"]], [receipt["paid"]])
        self.assertIn("paid at Tallow Street Yard", found["lines"][0]["what"])
        self.assertEqual(found["total"], receipt["paid"])
        self.assertNotIn("from the rack", found["told"])
        self.assertEqual(listed(self, self.project)["cost"], receipt["paid"])
        self.project = self.look(self.project["id"])
        self.project = self.change(
            self.project, "post", "/parts", text="1 beam 2x4 treated 80"
        ).json()
        price = self.project["plan"]["shopping"]["total"]
        mark_cut(self, self.project)
        later = [line["what"] for line in spent(self, self.project)["lines"]]
        self.assertEqual(later[1:], ["1 board by the list"], price)
