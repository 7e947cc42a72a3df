"""Joints, packs, totals and other yards through the API."""

import uuid
from typing import Any

from django.test import override_settings

from server.tests.base import ApiTestCase

PRICES = b"yard,stock,length,price\nOld Mill,2x4,8ft,4.00\nOld Mill,1x6,8ft,6.00\n"


class BuyingTestCase(ApiTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.yard = self.take_prices(PRICES)[0]
        self.project = self.new_project("2 post 2x4 36\n4 slat 1x6 40", yard=self.yard["id"])


class HardwareTest(BuyingTestCase):
    def sell(self, packs: str) -> Any:
        yard = self.ask("get", f"/yards/{self.yard['id']}").json()
        body = {"version": yard["version"], "change_id": str(uuid.uuid4()), "packs": packs}
        return self.ask("patch", f"/yards/{self.yard['id']}", body)

    def test_screws_from_joints_in_the_total(self) -> None:
        self.assertEqual(self.sell("screw 2in, 10, 1.50\nscrew 2in, 25, 3.20").status_code, 200)
        project = self.change(
            self.project, "patch", "", joints="8 B to A, 2 screws", hardware="1 latch @ 6.50"
        ).json()
        self.assertEqual(project["change"], "joints changed, hardware changed")
        shopping = project["plan"]["shopping"]
        hardware = shopping["hardware"]
        screw, latch = hardware["lines"]
        self.assertEqual((screw["name"], screw["length"]["text"]), ("screw", "2″"))
        self.assertEqual([(p["content"], p["count"]) for p in screw["packs"]], [("10", 2)])
        self.assertEqual((screw["price"], screw["left"]), ("$3.00", "4"))
        self.assertEqual((latch["price"], hardware["price"]), ("$6.50", "$9.50"))
        self.assertEqual((shopping["wood_total"], shopping["total"]), ("$16.00", "$25.50"))
        self.assertEqual(project["plan"]["tally"]["cost"], "$16.00")
        undone = self.change(project, "post", "/undo").json()
        self.assertEqual(undone["plan"]["shopping"]["hardware"]["lines"], [])

    def test_a_change_of_thickness_changes_the_screw(self) -> None:
        project = self.change(self.project, "patch", "", joints="8 B to A, 2 screws").json()
        part = project["parts"][1]["id"]
        thick = self.change(project, "patch", f"/parts/{part}", stock="2x4").json()
        (line,) = thick["plan"]["shopping"]["hardware"]["lines"]
        self.assertEqual((line["length"]["text"], line["price"]), ("2 1/2″", None))

    def test_what_cannot_be_read_is_kept_and_told(self) -> None:
        project = self.change(self.project, "patch", "", joints="8 B on A\n4 B to A, glue").json()
        self.assertEqual(project["joints"], "8 B on A\n4 B to A, glue")
        hardware = project["plan"]["shopping"]["hardware"]
        self.assertIn("joints, line 1: write how many", hardware["problems"][0])
        self.assertEqual(hardware["lines"], [])
        faults = self.problems(self.sell("screw 2in, 10, 1.50\nscrew"))
        self.assertIn("line 2: write a name", faults["packs"])

    def test_files_have_it(self) -> None:
        self.sell("screw 2in, 25, 3.00")
        self.change(self.project, "patch", "", joints="8 B to A, 2 screws")
        path = f"/api/projects/{self.project['id']}"
        table = self.client.get(f"{path}/shopping-list.csv").content.decode("utf-8-sig")
        self.assertIn("screw,2″,,16,1 of 25 at $3.00,$3.00", table)
        self.assertIn("hardware,,,,,$3.00", table)
        self.assertTrue(self.client.get(f"{path}/shopping-list.pdf").content.startswith(b"%PDF"))
        message = self.client.get(f"{path}/shopping-list.txt")
        self.assertIn("text/plain", message["Content-Type"])
        lines = message.content.decode().splitlines()
        self.assertEqual(lines[0], "Cold frame, Old Mill")
        self.assertIn("1 × 2x4 8 ft", lines)
        self.assertIn("16 × screw 2″ (1 of 25 at $3.00)", lines)
        self.assertEqual(lines[-1], "total $19.00")
        document = self.client.get(f"{path}/project.json")
        self.assertEqual(document.json()["joints"], ["8 B to A, 2 screws"])
        yard = self.client.get(f"/api/yards/{self.yard['id']}/yard.json").json()
        self.assertEqual(yard["packs"], ["screw 2in, 25, 3.00"])

    def test_usual_lengths(self) -> None:
        path = f"/projects/{self.project['id']}/usual-lengths"
        kinds = {one["kind"]: one["lengths"] for one in self.ask("get", path).json()}
        self.assertNotIn("dowel", kinds)
        self.assertIn("2 1/2″", [length["text"] for length in kinds["screw"]])
        self.change(self.project, "patch", "", unit="mm")
        kinds = {one["kind"]: one["lengths"] for one in self.ask("get", path).json()}
        self.assertIn("60 mm", [length["text"] for length in kinds["screw"]])

    def test_a_change_of_unit_keeps_what_joints_mean(self) -> None:
        project = self.change(
            self.project, "patch", "", joints="8 B to A, 2 screws, 2", rules="recess: 1/4"
        ).json()
        project = self.change(project, "patch", "", unit="mm").json()
        self.assertEqual(project["joints"], "8 B to A, 2 screws, 2in")
        self.assertEqual(project["rules"], "recess: 1/4in")
        (joint,) = project["plan"]["shopping"]["hardware"]["joints"]
        self.assertEqual(joint["length"]["text"], "50.8 mm")

    def test_a_finish_by_the_can(self) -> None:
        self.sell("oil, 1 qt, 21.00\noil, 1 gal, 62.00")
        project = self.change(
            self.project, "patch", "", finishes="oil on B, 2 coats, 300 sq ft/gal"
        ).json()
        (line,) = project["plan"]["shopping"]["hardware"]["lines"]
        self.assertEqual((line["name"], line["needed"]), ("oil", "12.5 fl oz"))
        self.assertEqual([(p["content"], p["count"]) for p in line["packs"]], [("1 qt", 1)])
        bad = self.change(project, "patch", "", finishes="oil on B, 2 coats, 0 m2/l").json()
        told = bad["plan"]["shopping"]["hardware"]["problems"]
        self.assertIn("covers nothing", told[0])

    def test_budget_and_margin(self) -> None:
        """16.00 for one build: 4.00 over 12.00, and 24.00 of 40.00 earned."""
        project = self.change(self.project, "patch", "", budget="12", sells_for="40.00").json()
        shopping = project["plan"]["shopping"]
        self.assertTrue(shopping["over_budget"])
        self.assertEqual(shopping["budget"], "$4.00 over the budget of $12.00")
        self.assertEqual(
            shopping["margin"], "sells for $40.00: $24.00 above cost, 60 % of the price"
        )
        project = self.change(project, "patch", "", budget="20").json()
        self.assertEqual(
            project["plan"]["shopping"]["budget"], "$4.00 left of the budget of $20.00"
        )
        less = self.change(project, "patch", "", sells_for="10").json()
        self.assertIn("$6.00 below cost, 60 % of the price", less["plan"]["shopping"]["margin"])
        unpriced = self.change(less, "post", "/parts", text="1 post 6x6 40").json()
        shopping = unpriced["plan"]["shopping"]
        self.assertEqual((shopping["margin"], shopping["budget"]), ("", ""))
        self.assertFalse(shopping["over_budget"])
        self.assertIn("prices are missing", shopping["total_note"])
        faults = self.problems(self.change(unpriced, "patch", "", budget="lots"))
        self.assertIn("no amount of money", faults["budget"])


class CompareTest(BuyingTestCase):
    def other(self, data: bytes) -> str:
        return self.take_prices(b"yard,stock,length,price\n" + data)[0]["id"]

    def compared(self, yard: str) -> Any:
        return self.ask("get", f"/projects/{self.project['id']}/compare/{yard}")

    def test_two_yards_line_by_line(self) -> None:
        """At the other yard the 2x4 is 3.00 and slats come from one board of 16 ft."""
        yard = self.other(b"Hill Top,2x4,8ft,3.00\nHill Top,1x6,16ft,11.00\n")
        found = self.compared(yard).json()
        self.assertEqual((found["here_total"], found["there_total"]), ("$16.00", "$14.00"))
        self.assertEqual(found["verdict"], "$2.00 cheaper at Hill Top")
        rows = {(row["stock"], row["named_length"]): row for row in found["lines"]}
        self.assertEqual(rows["2x4", "8 ft"]["there"]["line_price"], "$3.00")
        self.assertIsNone(rows["1x6", "8 ft"]["there"])
        self.assertEqual(rows["1x6", "16 ft"]["there"]["count"], 1)
        self.assertEqual(found["there_claim"], "No cheaper purchase exists")
        self.project = self.change(self.project, "patch", "", joints="8 B to A, 2 screws").json()
        some = self.compared(yard).json()
        self.assertEqual(some["verdict"], "the wood alone is $2.00 cheaper at Hill Top")
        self.assertEqual(some["there_hardware"], "$0.00, some without a price")
        again = self.look(self.project["id"])
        self.assertEqual(again["yard"]["name"], "Old Mill")
        self.assertEqual(again["plan"]["tally"]["cost"], "$16.00")

    def test_a_plan_under_way_is_waited_for(self) -> None:
        """Its own plan unfinished, a project would seem to cost nothing."""
        yard = self.other(b"Hill Top,2x4,8ft,3.00\nHill Top,1x6,16ft,11.00\n")
        with override_settings(ANSWER_WITHIN_SECONDS=0.0):
            self.change(self.project, "patch", "", kerf="1/16")
            found = self.compared(yard).json()
        self.assertEqual(found["here_total"], "$16.00")

    def test_currencies_and_missing_boards(self) -> None:
        yard = self.other(b"Hill Top,2x4,8ft,3.00\nHill Top,1x6,2ft,1.00\n")
        self.assertIn("not of the same things", self.compared(yard).json()["verdict"])
        state = self.ask("get", f"/yards/{yard}").json()
        body = {"version": state["version"], "change_id": str(uuid.uuid4()), "currency": "EUR"}
        self.ask("patch", f"/yards/{yard}", body)
        found = self.compared(yard).json()
        self.assertIn("USD and EUR", found["verdict"])
        self.change(self.project, "patch", "", yard="")
        faults = self.problems(self.compared(yard))
        self.assertIn("choose a yard", faults["yard"])


class MakeOrBuyTest(BuyingTestCase):
    """Two posts on one 2x4 at 4.00; four slats of 40 in two to a 1x6 at 6.00: 12.00."""

    def weigh(self, price: str, part: int = 1) -> Any:
        part_id = self.project["parts"][part]["id"]
        path = f"/projects/{self.project['id']}/make-or-buy/{part_id}?price={price}"
        return self.ask("get", path)

    def test_made_against_bought(self) -> None:
        weighed = self.weigh("2.50").json()
        self.assertEqual(
            weighed["told"],
            "the wood for 4 costs $12.00, bought made they cost $10.00: buying saves $2.00",
        )
        self.assertTrue(weighed["proven"])
        self.assertIn("making saves $4.00", self.weigh("4").json()["told"])
        self.assertIn("the same", self.weigh("3.00").json()["told"])

    def test_by_the_foot(self) -> None:
        """40 in at 0.60 a foot are 2.00 each."""
        self.assertEqual(self.weigh("0.60/ft").json()["bought"], "$8.00")

    def test_what_is_no_price(self) -> None:
        self.assertIn("no amount", self.problems(self.weigh("cheap"))["price"])
        self.assertIn("what one costs", self.problems(self.weigh("1/yd"))["price"])
        self.assertIn("what one costs", self.problems(self.weigh(""))["price"])

    def test_wood_without_a_price(self) -> None:
        self.project = self.change(self.project, "post", "/parts", text="1 beam 2x10 40").json()
        self.assertIn("no price", self.problems(self.weigh("2"))[""])


class HowItComesAboutTest(BuyingTestCase):
    def test_groups_share_the_wood(self) -> None:
        table = "quantity\tname\tstock\tlength\tgroup\n2\tpost\t2x4\t36\tframe\n"
        table += "1\tcap\t2x4\t12\ttop\n2\tslat\t1x6\t40\ttop"
        project = self.new_project(table, yard=self.yard["id"])
        groups = project["plan"]["shopping"]["groups"]
        # one 2x4 at 4.00 for 36 + 36 + 12: 72/84 of it to the frame; one 1x6 at 6.00
        self.assertEqual(
            [(group["name"], group["pieces"], group["cost"]) for group in groups],
            [("frame", 2, "$3.43"), ("top", 3, "$6.57")],
        )

    def test_prices_say_how(self) -> None:
        prices = b"yard,stock,length,price,per,date\nFen,2x4,8ft,0.61,ft,2026-10-19\n"
        yard = self.take_prices(prices)[0]["id"]
        project = self.new_project("2 post 2x4 36", yard=yard)
        (line,) = project["plan"]["shopping"]["lines"]
        self.assertEqual(line["how"], "0.61 USD a foot × 8, seen 2026-10-19")
        self.assertEqual(line["price"], "$4.88")
        project = self.change(project, "patch", "", spare="1").json()
        spare = project["plan"]["shopping"]["lines"][1]
        self.assertTrue(spare["how"].startswith("spare: 1 of those"))
