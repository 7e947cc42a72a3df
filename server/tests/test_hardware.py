"""Joints, packs and totals through the API."""

import uuid
from typing import Any

from server.tests.base import ApiTestCase

PRICES = b"yard,stock,length,price\nOld Mill,2x4,8ft,4.00\nOld Mill,1x6,8ft,6.00\n"


class HardwareTest(ApiTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.yard = self.take_prices(PRICES)[0]
        self.project = self.new_project("2 post 2x4 36\n4 slat 1x6 40", yard=self.yard["id"])

    def sell(self, packs: str) -> Any:
        yard = self.ask("get", f"/yards/{self.yard['id']}").json()
        body = {"version": yard["version"], "change_id": str(uuid.uuid4()), "packs": packs}
        return self.ask("patch", f"/yards/{self.yard['id']}", body)

    def test_screws_from_joints_in_the_total(self) -> None:
        self.assertEqual(self.sell("screw 2in, 10, 1.50\nscrew 2in, 25, 3.20").status_code, 200)
        project = self.change(
            self.project, "patch", "", joints="8 B to A, 2 screws", hardware="1 latch @ 6.50"
        ).json()
        self.assertEqual(project["change"]["label"], "joints changed, hardware changed")
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
        self.assertEqual([line["name"] for line in hardware["lines"]], ["glue"])
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

    def test_a_finish_by_the_can(self) -> None:
        self.sell("oil, 1 qt, 21.00\noil, 1 gal, 62.00")
        project = self.change(
            self.project, "patch", "", finishes="oil on B, 2 coats, 300 sq ft/gal"
        ).json()
        (line,) = project["plan"]["shopping"]["hardware"]["lines"]
        self.assertEqual((line["name"], line["needed"]), ("oil", "0.1 gal"))
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
        self.assertEqual(shopping["margin"], "sells for $40.00: $24.00, 60 %, above cost")
        project = self.change(project, "patch", "", budget="20").json()
        self.assertEqual(
            project["plan"]["shopping"]["budget"], "$4.00 left of the budget of $20.00"
        )
        less = self.change(project, "patch", "", sells_for="10").json()
        self.assertIn("$6.00, 60 %, below cost", less["plan"]["shopping"]["margin"])
        faults = self.problems(self.change(less, "patch", "", budget="lots"))
        self.assertIn("write an amount of money", faults["budget"])
