import io
import uuid
from typing import Any

from pypdf import PdfReader

from server.documents.paper import cut_in_words
from server.plans.models import Piece
from server.plans.schemas import CutOut
from server.rack.models import Rack
from server.tests.base import ApiTestCase

HEADER = b"yard,stock,length,price\n"
PRICES = HEADER + b"Old Mill,2x4,8ft,4.00\nOld Mill,2x10,8ft,14.00\nOld Mill,2x2,8ft,3.00\n"
TABLE = "quantity\tname\tstock\tlength\twidth\trip\n"


class RippedTestCase(ApiTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.yard = self.take_prices(PRICES)[0]["id"]

    def ripped(self, table: str, **settings: Any) -> dict[str, Any]:
        project = self.new_project(table, yard=self.yard)
        project = self.change(project, "patch", "", **{"rip": True} | settings).json()
        self.assertIn("plan", project, project)
        return project


class RippingTest(RippedTestCase):
    def test_narrow_parts_come_out_of_the_cheaper_board(self) -> None:
        project = self.ripped("12 square 2x2 30")
        plan = project["plan"]
        self.assertEqual(plan["tally"]["cost"], "$8.00")
        self.assertEqual(
            [(li["stock"], li["count"]) for li in plan["shopping"]["lines"]], [("2x4", 2)]
        )
        self.assertTrue(plan["tally"]["claim"]["proven"])
        self.assertIn("crosscut, rip, crosscut", plan["tally"]["claim"]["detail"])
        layout = plan["materials"][0]["layouts"][0]
        lines = [layout["cuts"][number - 1] for number in layout["rips"][0]["cuts"]]
        self.assertEqual([line["at"]["text"] for line in lines], ["1 1/2″", "3 1/8″"])
        self.assertEqual([line["fence"]["text"] for line in lines], ["1 1/2″", "1 1/2″"])
        self.assertEqual(project["parts"][0]["section"]["width"]["text"], "1 1/2″")
        self.assertEqual(Piece.objects.filter(board__plan=plan["id"]).count(), 12)

    def test_rounded_edges_are_ripped_off(self) -> None:
        project = self.ripped("2 square 2x2 90", eased="1/8")
        layouts = project["plan"]["materials"][0]["layouts"]
        starts = {s["y"]["low"] for la in layouts for rip in la["rips"] for s in rip["strips"]}
        self.assertNotIn(0, starts)
        faults = self.problems(self.change(project, "patch", "", eased="2"))
        self.assertIn("at most an inch", faults["eased"])

    def test_off_unless_part_or_project_allow_it(self) -> None:
        project = self.new_project("12 square 2x2 30", yard=self.yard)
        self.assertEqual(project["plan"]["shopping"]["lines"][0]["stock"], "2x2")
        one = self.new_project(f"{TABLE}12\tsquare\t2x2\t30\t\tyes", yard=self.yard)
        self.assertEqual(one["plan"]["shopping"]["lines"][0]["stock"], "2x4")
        other = self.ripped(f"{TABLE}12\tsquare\t2x2\t30\t\tno")
        self.assertEqual(other["plan"]["shopping"]["lines"][0]["stock"], "2x2")

    def test_a_part_that_states_its_width_is_planned_when_it_may_be_ripped(self) -> None:
        table = f"{TABLE}3\tstrip\t2x4\t30\t1\t"
        plain = self.new_project(table, yard=self.yard)
        self.assertIn("ripped or planed", plain["parts"][0]["later"])
        self.assertEqual(self.ripped(table)["parts"][0]["later"], "")

    def test_the_order_of_work_is_the_projects(self) -> None:
        project = self.ripped("12 square 2x2 30", order="crosscut-first")
        self.assertIn("crosscuts first", project["plan"]["tally"]["claim"]["detail"])
        faults = self.problems(self.change(project, "patch", "", order="sideways"))
        self.assertIn("choose one of", faults["order"])
        undone = self.change(project, "post", "/undo").json()
        self.assertEqual((undone["rip"], undone["order"]), (False, "either"))

    def test_short_pieces_are_ripped_to_a_line_and_held(self) -> None:
        project = self.ripped(f"{TABLE}3\tstrip\t2x4\t9\t1\t", order="crosscut-first")
        (layout,) = project["plan"]["materials"][0]["layouts"]
        rips = [CutOut(**cut) for cut in layout["cuts"] if cut["saw"] == "rip"]
        self.assertTrue(rips)
        for rip in rips:
            self.assertIn("never at the fence", rip.held)
            self.assertIn(f"from the {rip.against}: under 12 in", cut_in_words(rip))
        crosscuts = [cut["held"] for cut in layout["cuts"] if cut["saw"] == "crosscut"]
        self.assertEqual(set(crosscuts), {""})

    def test_less_than_a_saw_takes_off_is_no_rip(self) -> None:
        # a 2x4 is 3 1/2 wide: 3.496 is 0.1 mm less, 3 15/32 is 0.8 mm less
        for width, rips in (("3.496", 0), ("3 15/32", 1)):
            project = self.ripped(f"{TABLE}1\tstrip\t2x4\t30\t{width}\t")
            (layout,) = project["plan"]["materials"][0]["layouts"]
            sawn = [cut for cut in layout["cuts"] if cut["saw"] == "rip"]
            self.assertEqual(len(sawn), rips, width)

    def test_boards_on_hand_are_ripped_too(self) -> None:
        seen = {"version": Rack.of(self.user).version, "change_id": str(uuid.uuid4())}
        self.ask("put", f"/rack/boards/{uuid.uuid4()}", seen | {"stock": "2x10", "length": "70"})
        project = self.ripped("6 square 2x2 30", rack="saving")
        self.assertEqual(project["plan"]["tally"]["boards"], 0)
        self.assertEqual(project["plan"]["materials"][0]["layouts"][0]["rack_numbers"], [1])

    def test_without_prices_by_volume(self) -> None:
        project = self.new_project("4 square 2x2 30\n2 rail 2x4 60")
        plan = self.change(project, "patch", "", rip=True).json()["plan"]
        self.assertIsNone(plan["tally"]["cost"])
        self.assertEqual(plan["tally"]["unplaced"], 0)

    def test_too_wide_for_every_board(self) -> None:
        project = self.ripped(f"{TABLE}1\tpanel\t2x10\t30\t12\t")
        self.assertIn(
            "wider than the widest", project["plan"]["materials"][0]["unplaced"][0]["reason"]
        )

    def test_the_cut_sheet_says_where_the_saw_runs(self) -> None:
        project = self.ripped("12 square 2x2 30\n1 rail 2x4 40")
        content = self.client.get(f"/api/projects/{project['id']}/cut-sheet.pdf").content
        words = " ".join(page.extract_text() for page in PdfReader(io.BytesIO(content)).pages)
        self.assertIn("marked edge against it", words)
        self.assertIn("2x4 8 ft", words)

    def test_a_project_file_keeps_it(self) -> None:
        project = self.ripped("12 square 2x2 30", order="rip-first")
        content = self.client.get(f"/api/projects/{project['id']}/project.json").content
        again = self.upload("/projects/import", content, "p.json", id=str(uuid.uuid4())).json()
        self.assertEqual((again["rip"], again["order"]), (True, "rip-first"))

    def test_a_plan_that_rips_is_marked_cut(self) -> None:
        project = self.ripped("2 square 2x2 30")
        plan = project["plan"]["id"]
        cut = self.ask("post", f"/plans/{plan}/cut", {"change_id": str(uuid.uuid4())})
        self.assertEqual(cut.json()["stage"], "cut")
        boards = self.ask("get", "/rack").json()["boards"]
        self.assertEqual([board["stock"] for board in boards], ["2x2"])
        self.assertGreaterEqual(boards[0]["length_shown"]["ticks"], 8128 * 30)

    def test_strips_worth_keeping_are_laid_on(self) -> None:
        """1 1/2 out of a 2x4 leaves 1 7/8 x 90 beside it: a 2x2 on the rack, with its real width,
        where strips from 1 1/2 on are kept."""
        square = f"{TABLE}1\tsquare\t2x4\t90\t1 1/2\t"
        project = self.ripped(square, own_stock=True)
        layout = project["plan"]["materials"][0]["layouts"][0]
        ((length, wide),) = ((one["length"], one["width"]) for one in layout["keep"])
        self.assertEqual((length["text"], wide["text"]), ("90″", "1 7/8″"))
        plan = project["plan"]["id"]
        self.ask("post", f"/plans/{plan}/cut", {"change_id": str(uuid.uuid4())})
        (board,) = self.ask("get", "/rack").json()["boards"]
        self.assertEqual((board["stock"], board["width"], board["length"]), ("2x2", "1 7/8", "90"))
        wider = self.ripped(square, own_stock=True, keep_width="2")
        self.assertEqual(wider["plan"]["materials"][0]["layouts"][0]["keep"], [])

    def test_what_the_saws_cannot_do_is_told_at_the_part(self) -> None:
        project = self.ripped("quantity\tname\tstock\tlength\tthickness\n1\tslat\t2x4\t30\t5/8")
        self.assertEqual(project["plan"]["tally"]["unplaced"], 1)  # resaws up to 3, this is 3 1/2
        (told,) = project["plan"]["materials"][0]["unplaced"]
        self.assertIn("resaws up to 3″", told["reason"])
        tools = self.ask("get", "/tools").json()
        saw = next(one for one in tools["tools"] if one["kind"] == "table saw")
        seen = {"version": tools["version"], "change_id": str(uuid.uuid4())}
        self.ask("put", f"/tools/{saw['id']}", {**seen, "limits": {"resaw": "3 1/2"}})
        wider = self.ask("post", f"/projects/{project['id']}/plans").json()
        self.assertEqual(wider["tally"]["unplaced"], 0)

    def test_a_strip_in_millimetres_is_told_in_them(self) -> None:
        project = self.ripped(f"{TABLE}2\tslat\t2x4\t30\t19mm\t")
        layout = project["plan"]["materials"][0]["layouts"][0]
        rips = [cut for cut in layout["cuts"] if cut["saw"] == "rip"]
        self.assertIn("19 mm", {cut["fence"]["text"] for cut in rips} | {rips[0]["at"]["text"]})
        self.assertEqual(project["parts"][0]["section"]["width"]["text"], "19 mm")


class BevelsTest(RippedTestCase):
    HEAD = "quantity\tname\tstock\tlength\twidth\tedges\tshow\n"

    def test_a_bevelled_edge_is_ripped_without_being_allowed(self) -> None:
        project = self.new_project(f"{self.HEAD}4\tblock\t2x4\t20\t3\t45 45\t", yard=self.yard)
        (part,) = project["parts"]
        self.assertEqual(part["bevels"], "both 45°, leaning apart: the face is wider")
        plan = project["plan"]
        self.assertTrue(plan["tally"]["claim"]["proven"])
        (segment, *_) = plan["materials"][0]["layouts"][0]["rips"]
        strip = segment["strips"][0]
        self.assertEqual(strip["width"]["text"], "3″")
        left, right, back_right, back_left = strip["corners"]
        self.assertEqual((right - left, back_right - back_left), (24384, 0))
        cuts = plan["materials"][0]["layouts"][0]["cuts"]
        lines = [cuts[number - 1] for number in segment["cuts"]]
        self.assertEqual([line["angle"] for line in lines], ["45°", "45°"])
        self.assertTrue({line["face_up"] for line in lines} <= {"marked face", "back"})
        paper = self.client.get(f"/api/projects/{project['id']}/cut-sheet.pdf").content
        words = " ".join(page.extract_text() for page in PdfReader(io.BytesIO(paper)).pages)
        self.assertIn("blade tilted 45°", words)

    def test_edges_that_cannot_be(self) -> None:
        project = self.new_project(f"{self.HEAD}4\tblock\t2x4\t20\t2\t45 45\t", yard=self.yard)
        self.assertIn("nothing is left of one face", project["parts"][0]["later"])
        self.assertEqual(project["plan"]["tally"]["later"], 1)
        path = f"/parts/{project['parts'][0]['id']}"
        faults = self.problems(self.change(project, "patch", path, edges="45"))
        self.assertIn("such as 45 45", faults["edges"])
        never = self.change(project, "patch", path, edges="20 0", rip="no").json()
        self.assertIn("it has to be ripped", never["parts"][0]["later"])

    def test_what_is_seen_comes_from_the_first_boards(self) -> None:
        rows = "3\thidden\t2x4\t30\t\t\t\n3\tseen\t2x4\t30\t\t\tyes"
        material = self.new_project(self.HEAD + rows, yard=self.yard)["plan"]["materials"][0]
        self.assertEqual([layout["show"] for layout in material["layouts"]], [True, False])
        self.assertEqual(material["best_boards"], "the best boards for what is seen: board 1")

    def test_offcuts_of_ripped_boards_go_onto_the_rack(self) -> None:
        project = self.ripped(f"{TABLE}4\tstrip\t2x2\t30\t\t", order="crosscut-first")
        plan = project["plan"]
        body = {"change_id": str(uuid.uuid4())}
        self.assertEqual(self.ask("post", f"/plans/{plan['id']}/cut", body).json()["stage"], "cut")
        boards = self.ask("get", "/rack").json()["boards"]
        self.assertEqual([board["stock"] for board in boards], ["2x4"])
