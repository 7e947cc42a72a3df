"""A whole project from files, and the cuts of a board as they are read at the saw."""

import json
from decimal import Decimal
from pathlib import Path
from tempfile import TemporaryDirectory
from unittest import TestCase

from carpentry.cutting import CutPart, CutProblem, StockPiece, plan_cuts, read_plan
from carpentry.design.edges import edges_told, outermost_width, read_edges
from carpentry.language import CarpentryError, Json, Notation, Unit, measured_in, write_length
from carpentry.lumber import Section
from carpentry.planning.build import build_document, plan_all, work_up_files
from carpentry.project import (
    CutLine,
    YardFile,
    cut_lines,
    project_document,
    read_project_file,
    read_rack_file,
    read_yard_file,
)
from carpentry.shop import read_tools_file
from carpentry.tests.problems import ticks
from carpentry.tests.samples import FOLDER, sample
from carpentry.tests.terminal import ROOT, run

DEMO = ROOT / "demo"
YARD = str(DEMO / "tallow-street.yard.json")


class BuildCommandTest(TestCase):
    def build(self, *arguments: str) -> dict[str, object]:
        done = run("build", *arguments, "--seconds", "8")
        self.assertEqual((done.returncode, done.stderr), (0, ""))
        found: dict[str, object] = json.loads(done.stdout)
        return found

    def test_a_demo_project_is_planned_priced_and_cut(self) -> None:
        found = self.build(str(DEMO / "compost-station.project.json"), "--yard", YARD)
        tally = found["tally"]
        self.assertEqual((tally["boards"], tally["wood"]), (38, "322.45"))  # type: ignore[index]
        wood, hardware, tax, total = (
            Decimal(tally[name])  # type: ignore[index]
            for name in ("wood", "hardware", "tax", "total")
        )
        self.assertEqual(wood + hardware + tax, total)
        lines: list[dict[str, object]] = found["list"]  # type: ignore[assignment]
        self.assertEqual(sum(Decimal(str(line["line_price"])) for line in lines), wood)
        claims: list[dict[str, object]] = found["claims"]  # type: ignore[assignment]
        self.assertEqual({claim["says"] for claim in claims}, {"No cheaper purchase exists"})
        self.assertEqual(sum(Decimal(str(claim["price"])) for claim in claims), wood)
        layouts: list[dict[str, object]] = found["layouts"]  # type: ignore[assignment]
        self.assertTrue(all(layout["cuts"] for layout in layouts))
        self.assertTrue(any(str(one["stock"]).startswith("1x6 cedar ") for one in layouts))
        self.assertIn("trim", {note["cause"] for note in found["notes"]})  # type: ignore[attr-defined]
        self.assertTrue(found["hardware"]["lines"])  # type: ignore[index]

    def test_rack_and_tools(self) -> None:
        """A board on hand is used first; with a saw that crosscuts 4 in no 1x6 is crosscut."""
        project = {
            "format": "grain-tally/project@1",
            "name": "Shelf",
            "rack": "always",
            "parts": [{"quantity": "2", "stock": "1x6 cedar", "length": "40"}],
        }
        with TemporaryDirectory() as folder:
            files = {
                "project": project,
                "rack": {"boards": [{"stock": "1x6 cedar", "length": "84"}]},
                "tools": {"tools": {"miter saw": {"crosscut": "4"}}},
            }
            paths = {}
            for name, document in files.items():
                paths[name] = str(Path(folder) / f"{name}.json")
                Path(paths[name]).write_text(json.dumps(document))
            arguments = (paths["project"], "--yard", YARD, "--rack", paths["rack"])
            found = self.build(*arguments)
            self.assertEqual(found["tally"]["owned"], 1)  # type: ignore[index]
            self.assertEqual(found["tally"]["boards"], 0)  # type: ignore[index]
            done = run("build", *arguments, "--tools", paths["tools"])
            self.assertEqual(done.returncode, 3)
            unplaced = json.loads(done.stdout)["unplaced"]
            self.assertIn("wider than the saw crosscuts", unplaced[0]["reason"])

    def test_wrong_files(self) -> None:
        done = run("build", "/no/such/project.json")
        self.assertEqual((done.returncode, done.stdout), (2, ""))
        bad = json.dumps(
            {
                "format": "grain-tally/project@2",
                "name": "Bad",
                "saw": {"tilt": "steep", "bite": "3"},
                "extras": 1,
            }
        )
        done = run("build", "-", given=bad)
        self.assertEqual((done.returncode, done.stdout), (2, ""))
        for words in ("saw.bite: ", "saw.tilt: ", "extras: "):
            self.assertIn(words, done.stderr)

    def test_workshop_files_name_their_faults(self) -> None:
        with self.assertRaises(CarpentryError) as raised:
            read_rack_file('{"boards": [{"stock": "2x13", "length": "96", "colour": "red"}]}')
        told = str(raised.exception)
        self.assertIn("boards[0].colour: ", told)
        self.assertIn("boards[0].stock: ", told)
        with self.assertRaises(CarpentryError) as raised:
            read_tools_file('{"table saw": {"depth": "3 1/8", "tilt": "over"}, "laser": {}}')
        told = str(raised.exception)
        self.assertIn("table saw.tilt: ", told)
        self.assertIn("laser: ", told)

    def test_what_tools_do(self) -> None:
        saw = read_tools_file(
            '{"tools": {"table saw": {"rip": "24", "depth": "3", "tilt": "45"},'
            ' "miter saw": {"crosscut": "12", "tilt": "40", "miter": "50"}}}'
        ).limits
        self.assertEqual((saw.rip_width, saw.resaw_depth), (ticks("24"), ticks("6")))
        self.assertEqual((saw.tilt, saw.miter), (Decimal(40), Decimal(50)))


class ProjectVersionsTest(TestCase):
    """What was written once opens for ever."""

    def test_a_file_of_the_first_version(self) -> None:
        first = read_project_file(sample("first.project.json"))
        self.assertEqual(first.name, "Duck house")
        settings = first.settings
        self.assertTrue(settings.rip and settings.resaw and not settings.own_stock)
        self.assertEqual(settings.saw.crosscut, ticks("12"))
        self.assertFalse(settings.share_angled_cuts)
        self.assertEqual([part.quantity for part in first.parts], [4, 2])
        self.assertEqual((first.parts[1].fields.rip, str(first.parts[1].boards)), ("yes", "3"))
        self.assertTrue(project_document(first)["format"].endswith("@1"))

    def test_a_file_of_the_second_version(self) -> None:
        second = read_project_file(sample("second.project.json"))
        saw = second.settings.saw
        self.assertEqual((saw.crosscut, saw.rip_width), (ticks("8"), ticks("20")))
        self.assertIsNone(saw.resaw_depth)
        self.assertEqual(second.settings.keep_width.ticks, ticks("2"))
        self.assertEqual(second.parts[0].fields.own_stock, "yes")
        document = project_document(second)
        self.assertTrue(document["format"].endswith("@2"))
        self.assertEqual(read_project_file(json.dumps(document)), second)

    def test_a_file_of_the_third_version(self) -> None:
        third = read_project_file(sample("third.project.json"))
        self.assertEqual([one.name for one in third.measures], ["opening", "rail", "lean", "stone"])
        post, rail, picket = third.parts
        self.assertEqual((post.length.text, post.computed and post.computed.text), ("41 7/8", "42"))
        self.assertEqual((rail.length.text, rail.is_held), ("64 7/8", True))
        self.assertEqual(rail.extra[0] and rail.extra[0].ticks, ticks("1/2"))
        self.assertEqual((picket.quantity, third.runs[0].packers), (10, "2, 1 x 2, 1/2"))
        document = project_document(third)
        self.assertTrue(document["format"].endswith("@3"))
        self.assertEqual(read_project_file(json.dumps(document)), third)

    def test_a_file_of_the_fifth_version(self) -> None:
        fifth = read_project_file(sample("fifth.project.json"))
        days = fifth.settings.days
        self.assertEqual((days.clamps, days.pace), (4, Decimal(120)))
        self.assertEqual(len(fifth.steps.splitlines()), 2)
        self.assertIn("before closing", fifth.finishes)
        document = project_document(fifth)
        self.assertTrue(document["format"].endswith("@5"))
        self.assertEqual(read_project_file(json.dumps(document)), fifth)
        for name, value, said in (
            ("off", "2027-02-31", "days.off: “2027-02-31” is no day"),
            ("hours", "mon 25:00-26:00", "days.hours: “25:00-26:00” is past 24:00"),
            ("colour", "red", "days.colour: is no field here"),
        ):
            broken = json.loads(json.dumps(document))
            broken["days"][name] = value
            with self.assertRaisesRegex(CarpentryError, said):
                read_project_file(json.dumps(broken))

    def test_a_file_of_the_fourth_version(self) -> None:
        fourth = read_project_file(sample("fourth.project.json"))
        (shape,) = fourth.shapes
        self.assertEqual((shape.placed.called, shape.placed.shape), ("wash stand", "stand"))
        self.assertEqual(fourth.marks, ("A", "B", "D", "E", "F"))
        leg, rail, _, left, door = fourth.parts
        self.assertEqual((leg.quantity, leg.length.text, rail.length.text), (8, "33 1/4", "40"))
        self.assertTrue(left.notches and door.is_shaped)
        self.assertEqual(left.fields.together, "front")
        document = project_document(fourth)
        self.assertTrue(document["format"].endswith("@4"))
        self.assertEqual(read_project_file(json.dumps(document)), fourth)
        for place, value, said in (
            ("shape", "gazebo", "shapes\\[0\\].shape"),
            ("called", "Wash Stand", "shapes\\[0\\].called"),
            ("measures", {"width": "22"}, "measures.length: is missing"),
            ("colour", "red", "shapes\\[0\\]"),
        ):
            broken = json.loads(json.dumps(document))
            broken["shapes"][0][place] = value
            with self.assertRaisesRegex(CarpentryError, said):
                read_project_file(json.dumps(broken))

    def test_the_compost_station_costs_what_it_did_before_it_followed_its_bays(self) -> None:
        """At its measures it is the same purchase as from the list with every size typed; with
        other bays its counts are others."""
        yard = read_yard_file((DEMO / "tallow-street.yard.json").read_text())
        text = (DEMO / "compost-station.project.json").read_text()
        tally = self.built(text, yard)["tally"]
        self.assertEqual((tally["wood"], tally["total"]), ("322.45", "578.10"))
        two = json.loads(text)
        two["measures"][0]["formula"] = "2"
        fewer = read_project_file(json.dumps(two))
        self.assertEqual([part.quantity for part in fewer.parts], [6, 4, 2, 18, 7, 12, 8, 3])
        self.assertEqual(fewer.parts[2].length.text, "72")

    def test_the_rain_barrel_stand_is_as_long_as_its_barrels(self) -> None:
        """3 × 23 1/8 and four gaps of 2 are 77 3/8; the rails between legs of 3 1/2 70 3/8."""
        text = (DEMO / "rain-barrel-stand.project.json").read_text()
        stand = read_project_file(text)
        lengths = dict(zip(stand.marks, (part.length.text for part in stand.parts), strict=True))
        self.assertEqual((lengths["B"], lengths["A"]), ("70 3/8", "26 1/2"))
        yard = read_yard_file((DEMO / "tallow-street.yard.json").read_text())
        self.assertEqual(self.built(text, yard)["tally"]["says"], "No cheaper purchase exists")

    def built(self, project: str, yard: YardFile) -> Json:
        work = work_up_files(read_project_file(project), yard)
        return build_document(work, plan_all(work, 20))

    def test_plans_that_were_written_before_they_had_cuts(self) -> None:
        old = read_plan(json.loads((FOLDER / "first.plan.json").read_text()), Unit.INCH)
        self.assertEqual(old.layouts[0].cuts, ())
        self.assertEqual(old.layouts[0].parts[0].part, "back-rail")


class CutLinesTest(TestCase):
    """What is read at the saw, worked by hand."""

    def lines(self, edges: str, width: str, long: str = "90") -> list[CutLine]:
        read = read_edges(edges)
        wide = outermost_width(ticks(width), read, ticks("1 1/2"))
        part = CutPart("rail", ticks(long), 1, ticks("1 1/2"), wide, edges=read)
        stock = StockPiece("b", ticks(long), Decimal(9), None, ticks("1 1/2"), ticks("9 1/4"))
        given = CutProblem(Unit.INCH, ticks("1/8"), 0, 0, (stock,), (part,))
        (layout,) = plan_cuts(given).layouts
        return cut_lines(layout, stock.length, Section(ticks("1 1/2"), ticks("9 1/4")))

    def test_a_square_rip_has_the_strip_at_the_fence(self) -> None:
        (rip,) = self.lines("", "4")
        self.assertEqual((rip.fence, rip.against, rip.face_up), (ticks("4"), "marked edge", ""))
        self.assertEqual((rip.at, rip.waste), (ticks("4"), "beyond"))

    def test_a_short_piece_is_not_ripped_at_the_fence(self) -> None:
        told = [self.lines("", "4", long)[0].is_short for long in ("11 63/64", "12", "90")]
        self.assertEqual(told, [True, False, False])

    def test_a_narrow_strip_falls_on_the_free_side(self) -> None:
        """3/4 off a 9 1/4 board: the fence stands 8 3/8 from the blade, at the far edge."""
        (rip,) = self.lines("", "3/4")
        self.assertEqual((rip.fence, rip.against), (ticks("8 3/8"), "far edge"))

    def test_a_tilted_blade_leans_away_from_the_fence(self) -> None:
        """Right edge 20° with the face wider, marked edge at the fence: going up from the table the
        blade goes away from the fence with the back down, where the part is 1 1/2 tan 20° less than
        4 in wide: 3.454."""
        (rip,) = self.lines("0 20", "4")
        self.assertEqual((rip.against, rip.face_up), ("marked edge", "marked face"))
        self.assertAlmostEqual(rip.fence / 8128, 3.454, places=3)
        (other,) = self.lines("0 -20", "4")
        self.assertEqual((other.against, other.face_up), ("marked edge", "back"))
        self.assertAlmostEqual(other.fence / 8128, 3.454, places=3)

    def test_edges_that_lean_alike_and_apart(self) -> None:
        alike, apart = (edges_told(read_edges(text)) for text in ("20 -20", "20 20"))
        self.assertEqual(alike, "both 20°, leaning alike")
        self.assertEqual(apart, "both 20°, leaning apart: the face is wider")
        self.assertEqual(edges_told(read_edges("-20 -20"))[-17:], "the back is wider")
        self.assertIn("right square", edges_told(read_edges("30 0")))
        self.assertEqual(edges_told(read_edges("0 0")), "")

    def test_lines_are_written_as_they_were_measured(self) -> None:
        for typed, notation, text in (
            ("19mm", Notation.THIRTY_SECONDS, "19 mm"),
            ("3/4", Notation.THIRTY_SECONDS, "3/4″"),
            ("3/4", Notation.MM, "3/4″"),
            ("19mm", Notation.MM, "19 mm"),
        ):
            size = ticks(typed)
            self.assertEqual(write_length(size, measured_in(size, notation)).text, text)
