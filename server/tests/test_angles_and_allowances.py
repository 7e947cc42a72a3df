"""Angled ends, wood added for the work, spare boards and what is kept, through the API."""

import io
from typing import Any

from pypdf import PdfReader

from server.tests.base import ApiTestCase

PRICES = b"yard,stock,length,price,available\nOld Mill,2x4,8ft,4.00,\nOld Mill,2x6,8ft,7.00,2\n"
TABLE = "quantity\tname\tstock\tlength\tends\tmeasured\textra_length\n"


class PlannedTestCase(ApiTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.yard = self.take_prices(PRICES)[0]["id"]

    def planned(self, rows: str, **settings: Any) -> dict[str, Any]:
        project = self.new_project(TABLE + rows, yard=self.yard)
        return self.change(project, "patch", "", **settings).json() if settings else project


class AngledEndsTest(PlannedTestCase):
    def test_a_centre_length_is_cut_over_all(self) -> None:
        """A 2x4 with 45° ends is 3 1/2 longer between its long points than along its centre."""
        project = self.planned("2\tbrace\t2x4\t20\t45 45\tcentre\t")
        part = project["parts"][0]
        self.assertEqual(part["over_all"]["text"], "23 1/2″")
        self.assertEqual(part["angles"], "both 45°, mirrored")
        placed = project["plan"]["materials"][0]["layouts"][0]["parts"][0]
        self.assertEqual(placed["length"]["text"], "23 1/2″")
        top_left, top_right, bottom_right, bottom_left = placed["corners"]
        wide = part["section"]["width"]["ticks"]
        self.assertEqual((bottom_left - top_left, top_right - bottom_right), (wide, wide))

    def test_sharing_cuts_saves_a_board(self) -> None:
        rows = "8\tslat\t2x4\t26\t45 -45\t\t"
        shared = self.planned(rows)
        self.assertEqual(shared["plan"]["tally"]["boards"], 2)
        self.assertIn("neighbours share", shared["plan"]["tally"]["claim"]["detail"])
        alone = self.planned(rows, share_angled_cuts=False)
        self.assertEqual(alone["plan"]["tally"]["boards"], 3)
        self.assertIn("no angled cut shared", alone["plan"]["tally"]["claim"]["detail"])
        self.assertEqual(alone["change"], "angled cuts not shared")

    def test_left_and_right_of_a_pair(self) -> None:
        ends = ("20 10b", "10b 20", "20 -20")
        rows = "\n".join(f"1\tstop\t2x4\t20\t{both}\t\t" for both in ends)
        pairs = [part["pair"] for part in self.planned(rows)["parts"]]
        self.assertEqual(pairs, ["B", "A", ""])

    def test_ends_that_meet_are_told(self) -> None:
        part = self.planned("1\tblock\t2x4\t6\t45 45\t\t")["parts"][0]
        self.assertIn("nothing is left of one edge", part["later"])

    def test_the_cut_sheet_says_so(self) -> None:
        rows = "1\tleft\t2x4\t20\t20 10b\tcentre\t1\n1\tright\t2x4\t20\t10b 20\tcentre\t"
        project = self.planned(rows)
        path = f"/api/projects/{project['id']}/cut-sheet.pdf"
        sheet = PdfReader(io.BytesIO(self.client.get(path).content))
        text = sheet.pages[0].extract_text()
        for words in ("left 20°, right 10° bevel", "mirror image of B", "over all", "sawn"):
            self.assertIn(words, text)


class AllowancesTest(PlannedTestCase):
    def test_a_length_is_sawn_longer(self) -> None:
        project = self.planned(
            "2\trail\t2x4\t40\t\t\t2\n1\tpost\t2x4\t30\t\t\t", extra_length="1/2"
        )
        sawn = [part["sawn"]["text"] for part in project["parts"]]
        self.assertEqual(sawn, ["42″", "30 1/2″"])
        lengths = [
            placed["length"]["text"]
            for layout in project["plan"]["materials"][0]["layouts"]
            for placed in layout["parts"]
        ]
        self.assertIn("42″", lengths)
        self.assertIn("30 1/2″", lengths)
        again = self.change(project, "patch", "", extra_length="0").json()
        self.assertIsNone(again["parts"][1]["sawn"])

    def test_what_is_planed_off_counts_on_sawn_faces_only(self) -> None:
        """Two 1 5/8 strips and a kerf come out of 3 1/2; the thickness needs no saw."""
        project = self.new_project(
            "quantity\tname\tstock\tlength\twidth\trip\n2\tstrip\t2x4\t90\t1 1/2\tyes",
            yard=self.yard,
        )
        project = self.change(project, "patch", "", extra_width="1/8", extra_thickness="1/8").json()
        strips = project["plan"]["materials"][0]["layouts"][0]["rips"][0]["strips"]
        sizes = [(s["thickness"]["text"], s["width"]["text"]) for s in strips]
        self.assertEqual(sizes, [("1 1/2″", "1 5/8″")] * 2)
        wider = self.change(project, "patch", "", extra_width="1/4", extra_thickness="1/4").json()
        self.assertEqual(wider["plan"]["shopping"]["lines"][0]["stock"], "2x6")

    def test_bad_allowances(self) -> None:
        project = self.planned("1\trail\t2x4\t40\t\t\t")
        faults = self.problems(
            self.change(project, "patch", "", extra_length="9ft", spare="lots", keep_from="x")
        )
        self.assertIn("at most 4 ft", faults["extra_length"])
        self.assertIn("10 %", faults["spare"])
        self.assertIn("keep_from", faults)
        faults = self.problems(self.change(project, "patch", "", keep_from_of="2x4 12, 9x9 3"))
        self.assertIn("“9x9 3” is no rule", faults["keep_from_of"])
        path = f"/parts/{project['parts'][0]['id']}"
        faults = self.problems(self.change(project, "patch", path, extra_width="-1"))
        self.assertIn("extra_width", faults)


class SpareTest(PlannedTestCase):
    def test_spare_boards_stand_apart(self) -> None:
        project = self.planned("6\trail\t2x4\t90\t\t\t\n2\tbeam\t2x6\t90\t\t\t", spare="20 %")
        lines = project["plan"]["shopping"]["lines"]
        found = [(line["stock"], line["count"], line["spare"]) for line in lines]
        self.assertEqual(found, [("2x4", 6, False), ("2x6", 2, False), ("2x4", 2, True)])
        tally = project["plan"]["tally"]
        self.assertEqual((tally["boards"], tally["spare"], tally["cost"]), (8, 2, "$46.00"))
        self.assertTrue(tally["claim"]["proven"])

    def test_what_is_kept_and_what_a_test_piece_is_cut_from(self) -> None:
        project = self.planned("1\trail\t2x4\t80\t\t\t", keep_from="20")
        material = project["plan"]["materials"][0]
        self.assertFalse(material["layouts"][0]["keep"])
        self.assertIn("15 3/8″ left of board 1", material["test_piece"])
        kept = self.change(project, "patch", "", keep_from="15").json()
        self.assertTrue(kept["plan"]["materials"][0]["layouts"][0]["keep"])
        of_some = self.change(kept, "patch", "", keep_from_of="2x6 8, 2x4 16").json()
        self.assertFalse(of_some["plan"]["materials"][0]["layouts"][0]["keep"])
        metric = self.change(of_some, "patch", "", unit="mm").json()
        self.assertEqual(metric["keep_from_of"], "2x6 8in, 2x4 16in")
        full = self.planned("1\trail\t2x4\t93\t\t\t")["plan"]["materials"][0]
        self.assertIn("no leftover is long enough", full["test_piece"])


class SteadyBoardsTest(PlannedTestCase):
    def test_boards_that_come_are_not_cut_otherwise(self) -> None:
        project = self.planned("2\trail\t2x4\t90\t\t\t")
        part = project["parts"][0]["id"]
        more = self.change(project, "patch", f"/parts/{part}", quantity="5").json()
        self.assertEqual(more["plan"]["effect"], "3 boards more, +$12.00; 3 pieces more")
        other = self.change(more, "patch", f"/parts/{part}", length="89").json()
        self.assertEqual(other["plan"]["effect"], "same purchase")

    def test_one_more_part_leaves_the_other_boards_as_they_were(self) -> None:
        rows = "6\trail\t2x4\t31 1/4\t\t\t\n9\tslat\t2x4\t22\t\t\t\n3\tpost\t2x4\t40\t\t\t"
        project = self.planned(rows)
        part = project["parts"][1]["id"]
        more = self.change(project, "patch", f"/parts/{part}", quantity="10").json()
        layouts = more["plan"]["materials"][0]["layouts"]
        self.assertLessEqual(sum(layout["changed"] for layout in layouts), 1)
        self.assertRegex(more["plan"]["effect"], "1 board is cut otherwise")
        undone = self.change(more, "post", "/undo").json()
        self.assertEqual(
            undone["plan"]["materials"][0]["layouts"][0]["parts"],
            project["plan"]["materials"][0]["layouts"][0]["parts"],
        )
