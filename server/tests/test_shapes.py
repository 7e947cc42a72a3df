"""Shapes of a project: what they write stays linked, what was typed by hand stays."""

import io
import json
import uuid
from typing import Any

import ezdxf
from defusedxml.ElementTree import fromstring
from pypdf import PdfReader

from server.tests.base import Answer
from server.tests.test_measures import MeasuresTestCase

FRAME = {"width": "31 1/4", "height": "58", "stock": "2x2", "middles": "1"}


class ShapesTestCase(MeasuresTestCase):
    def add_shape(self, called: str, shape: str, measures: dict[str, str]) -> Answer:
        answer = self.change(
            self.project, "post", "/shapes", called=called, shape=shape, measures=measures
        )
        if answer.status_code == 200:
            self.project = answer.json()
        return answer

    def shape(self, called: str) -> dict[str, Any]:
        return next(dict(one) for one in self.project["shapes"] if one["called"] == called)

    def measure_of(self, called: str, **measures: str) -> Answer:
        return self.patch(
            f"/shapes/{self.shape(called)['id']}",
            measures={name.replace("_", " "): text for name, text in measures.items()},
        )

    def post(self, path: str, **body: Any) -> Answer:
        answer = self.change(self.project, "post", path, **body)
        if answer.status_code == 200:
            self.project = answer.json()
        return answer

    def now(self) -> dict[str, Any]:
        self.project = self.look(self.project["id"])
        return self.project

    def written(self, *fields: str) -> dict[str, Any]:
        """Of every part that a shape wrote these fields, by letter."""
        return {
            part["mark"]: tuple(part[field] for field in fields)
            for part in self.now()["parts"]
            if part["shape"]
        }

    def drawing(self, called: str) -> str:
        return f"/projects/{self.project['id']}/shapes/{self.shape(called)['id']}/drawing"

    def length(self, mark: str) -> str:
        return str(self.part(mark)["length_shown"]["text"]).rstrip("″")


class WritesTest(ShapesTestCase):
    puts_together = True

    def test_a_frame_writes_parts_joints_and_a_run(self) -> None:
        self.assertEqual(self.add_shape("bay frame", "frame", FRAME).status_code, 200)
        self.assertEqual(
            self.written("quantity", "name", "length", "group"),
            {
                "C": ("2", "post", "=bay frame height", "bay frame"),
                "D": ("2", "rail", "=bay frame width - 2 * width of C", "bay frame"),
                "E": (
                    "=count of bay frame middles",
                    "middle",
                    "=bay frame height - 2 * width of D",
                    "bay frame",
                ),
            },
        )
        self.assertEqual([self.length(mark) for mark in "CDE"], ["58", "28 1/4", "55"])
        self.assertEqual(
            self.project["joints"].splitlines(),
            [
                "4 C edge to D end, 2 screws",
                "=(2 * count of bay frame middles) D edge to E end, 2 screws",
            ],
        )
        (run,) = self.project["runs"]
        self.assertEqual(
            (run["name"], run["part"], run["laid"]["count"]), ("bay frame middles", "E", 1)
        )
        shape = self.shape("bay frame")
        self.assertEqual((shape["writes"], shape["problems"]), (["C", "D", "E"], []))
        self.assertEqual(shape["values"]["width"]["text"], "31 1/4")
        self.assertEqual(shape["measures"]["corners"], "rails between")  # usual now, said for ever

    def test_rows_follow_a_measure_of_the_shape_and_of_the_project(self) -> None:
        self.add_shape("gate", "frame", FRAME | {"width": "opening - 1"})
        self.assertEqual(self.length("D"), "68")
        opening = self.measure("opening")["id"]
        answer = self.patch(f"/measures/{opening}", formula="60")
        self.assertIn("D", answer.json()["change"])
        self.now()
        self.assertEqual(self.length("D"), "56")
        self.assertIn("height 58 → 60", self.measure_of("gate", height="60").json()["change"])
        self.now()
        self.assertEqual((self.length("C"), self.length("E")), ("60", "57"))

    def test_another_choice_keeps_notes_groups_letters_and_ids(self) -> None:
        self.add_shape("gate", "frame", FRAME)
        before = {part["mark"]: part["id"] for part in self.now()["parts"]}
        self.type_into("D", note="the good ones", group="front")
        self.measure_of("gate", corners="posts between")
        after = {part["mark"]: part["id"] for part in self.now()["parts"]}
        self.assertEqual(after, before)
        self.assertEqual(
            (self.part("D")["note"], self.part("D")["group"]), ("the good ones", "front")
        )
        self.assertEqual((self.length("C"), self.length("D")), ("55", "31 1/4"))
        self.assertIn("4 D edge to C end, 2 screws", self.project["joints"])
        self.assertNotIn("C edge to D", self.project["joints"])

    def test_fewer_and_more_of_something_keep_their_letters(self) -> None:
        self.add_shape("gate", "frame", FRAME)
        self.measure_of("gate", middles="0")
        self.assertEqual(list(self.written()), ["C", "D"])
        self.assertEqual(self.project["runs"], [])
        self.measure_of("gate", middles="3")
        self.assertEqual(list(self.written()), ["C", "D", "E"])
        self.assertEqual(self.part("E")["pieces"], 3)

    def test_a_part_that_was_cut_stays_when_its_shape_writes_it_no_more(self) -> None:
        self.add_shape("gate", "frame", FRAME)
        plan = self.plan
        self.ask("post", f"/plans/{plan['id']}/cut", {"change_id": str(uuid.uuid4())})
        self.now()
        middle = self.part("E")
        self.measure_of("gate", middles="0", height="60")
        self.now()
        kept = self.part("E")
        self.assertEqual((kept["id"], kept["shape"], kept["fault"]), (middle["id"], None, ""))
        self.assertEqual((kept["pieces"], self.length("E")), (1, "55"))
        self.assertEqual(list(self.written()), ["C", "D"])
        self.measure_of("gate", middles="2")
        self.assertEqual(list(self.written()), ["C", "D", "F"])
        self.assertEqual((self.part("E")["pieces"], self.part("F")["pieces"]), (1, 2))

    def test_a_structure_that_follows_a_measure_of_the_project(self) -> None:
        self.add_shape("gate", "frame", FRAME | {"middles": "bays - 3"})
        self.assertEqual(list(self.written()), ["C", "D"])
        self.patch(f"/measures/{self.measure('bays')['id']}", formula="5")
        self.assertEqual(list(self.written()), ["C", "D", "E"])
        self.patch(f"/measures/{self.measure('bays')['id']}", formula="what")
        self.assertEqual(list(self.written()), ["C", "D", "E"])  # nothing is lost to a slip
        self.assertEqual(self.shape("gate")["problems"][0]["place"], "middles")

    def test_several_of_it_and_pairs(self) -> None:
        self.add_shape("gate", "frame", FRAME | {"copies": "bays"})
        self.assertEqual([self.part(mark)["pieces"] for mark in "CDE"], [6, 6, 3])
        self.assertIn("=(4 * gate copies) C edge to D end", self.project["joints"])
        self.measure_of("gate", hand="left and right")
        self.now()
        self.assertEqual([self.part(mark)["pieces"] for mark in "CDE"], [12, 12, 6])
        drawn = self.ask(
            "get", f"/projects/{self.project['id']}/shapes/{self.shape('gate')['id']}/drawing"
        ).json()
        self.assertEqual(len(drawn["views"][0]["pieces"]), 2 * 5)

    def test_it_is_undone_and_done_again(self) -> None:
        self.add_shape("gate", "frame", FRAME)
        self.measure_of("gate", width="40")
        self.post("/undo")
        self.now()
        self.assertEqual(self.length("D"), "28 1/4")
        self.post("/undo")
        self.assertEqual(
            (self.written(), self.project["shapes"], self.project["joints"]), ({}, [], "")
        )
        self.post("/redo")
        self.assertEqual(list(self.written()), ["C", "D", "E"])
        self.measure_of("gate", width="41")
        self.now()
        self.assertEqual(self.length("D"), "38")


class ByHandTest(ShapesTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.add_shape("gate", "frame", FRAME)

    def test_a_field_typed_by_hand_stays_until_it_follows_again(self) -> None:
        self.type_into("D", length="30", note="as the old ones")
        self.assertEqual(self.part("D")["by_hand"], ["length"])
        self.measure_of("gate", width="40", corners="posts between")
        self.now()
        self.assertEqual((self.length("D"), self.part("D")["by_hand"]), ("30", ["length"]))
        shape = self.shape("gate")["id"]
        self.post(f"/shapes/{shape}/follow", part=self.part("D")["id"], field="length")
        self.now()
        self.assertEqual((self.length("D"), self.part("D")["by_hand"]), ("40", []))
        answer = self.post(f"/shapes/{shape}/follow", part=self.part("D")["id"], field="length")
        self.assertEqual(answer.status_code, 422)

    def test_typing_what_the_shape_writes_follows_it_again(self) -> None:
        written = self.part("C")["length"]
        self.type_into("C", length="50")
        self.type_into("C", length=written)
        self.assertEqual(self.part("C")["by_hand"], [])

    def test_a_joint_typed_by_hand_stays(self) -> None:
        lines = self.project["joints"].replace(
            "4 C edge to D end, 2 screws", "4 C edge to D end, 3 screws"
        )
        self.patch("", joints=lines)
        self.measure_of("gate", middles_run="level", corners="posts between")
        self.assertIn("4 C edge to D end, 3 screws", self.project["joints"])
        self.assertIn("C edge to E end", self.project["joints"])  # the other one follows

    def test_a_line_typed_by_hand_stays_when_its_shape_writes_it_no_more(self) -> None:
        joints = self.project["joints"]
        self.patch("", joints=joints.replace("E end, 2 screws", "E end, 3 screws"))
        self.measure_of("gate", middles="0")
        self.assertIn("E end, 3 screws", self.project["joints"])
        self.assertIn("C edge to D end, 2 screws", self.project["joints"])

    def test_a_run_of_one_s_own_whose_name_begins_like_a_shape_s_stays_one_s_own(self) -> None:
        self.add_shape("gate two", "frame", FRAME)
        self.post("/runs", name="gate pickets", along="60", item="3 1/2", figure="2")
        data = self.ask("get", f"/projects/{self.project['id']}/project.json").content
        again = self.upload("/projects/import", data, "gate.json", id=str(uuid.uuid4()))
        self.project = again.json()
        self.measure_of("gate", middles="0")
        names = [run["name"] for run in self.now()["runs"]]
        self.assertEqual(names, ["gate two middles", "gate pickets"])
        self.assertEqual(self.shape("gate two")["problems"], [])

    def test_what_was_taken_away_stays_away_until_all_follows_again(self) -> None:
        self.post("/parts/remove", parts=[self.part("E")["id"]])
        self.measure_of("gate", height="60")
        self.assertEqual(list(self.written()), ["C", "D"])
        self.assertEqual(self.shape("gate")["left_out"], ["part: middle"])
        self.post(f"/shapes/{self.shape('gate')['id']}/follow")
        self.assertEqual(list(self.written()), ["C", "D", "E"])
        self.assertEqual(self.length("E"), "57")

    def test_let_go_keeps_what_it_wrote_with_its_sizes(self) -> None:
        sizes = [self.length(mark) for mark in "CDE"]
        self.post(f"/shapes/{self.shape('gate')['id']}/let-go")
        self.assertEqual((self.written(), self.now()["shapes"]), ({}, []))
        self.assertEqual([self.length(mark) for mark in "CDE"], sizes)
        self.patch(f"/measures/{self.measure('gate width')['id']}", formula="40")
        self.now()
        self.assertEqual(self.length("D"), "37")
        self.post("/undo")
        self.post("/undo")
        self.measure_of("gate", width="50")
        self.now()
        self.assertEqual(self.length("D"), "47")

    def test_it_goes_with_all_that_it_wrote(self) -> None:
        self.post(f"/shapes/{self.shape('gate')['id']}/let-go", with_all=True)
        self.now()
        self.assertEqual([part["mark"] for part in self.project["parts"]], ["A", "B"])
        self.assertEqual((self.project["runs"], self.project["joints"]), ([], ""))

    def test_another_name_is_followed(self) -> None:
        self.add("half = gate width / 2")
        self.add("many = count of gate middles * 2")
        self.patch(f"/shapes/{self.shape('gate')['id']}", called="front gate")
        self.now()
        self.assertEqual(self.measure("half")["formula"], "front gate width / 2")
        self.assertEqual(self.measure("many")["value"]["text"], "2")
        self.assertEqual(self.part("D")["length"], "=front gate width - 2 * width of C")
        self.assertEqual([self.part(mark)["by_hand"] for mark in "CDE"], [[], [], []])
        self.assertEqual(self.project["runs"][0]["name"], "front gate middles")
        self.measure_of("front gate", width="40")
        self.now()
        self.assertEqual(self.length("D"), "37")

    def test_another_unit_keeps_every_size_and_every_link(self) -> None:
        self.type_into("C", length="57")
        self.patch("", unit="mm")
        self.now()
        self.assertEqual(
            [self.part(m)["length_shown"]["text"] for m in "CD"], ["1447.8 mm", "717.5 mm"]
        )
        self.assertEqual([self.part(mark)["by_hand"] for mark in "CDE"], [["length"], [], []])
        said = self.shape("gate")["measures"]
        self.assertEqual((said["width"], said["middles"]), ("in: 31 1/4", "1"))
        self.measure_of("gate", width="1000")
        self.now()
        self.assertEqual(self.part("D")["length_shown"]["text"], "924 mm")  # 1000 - 2 × 38

    def test_a_project_file_keeps_shapes_and_links(self) -> None:
        self.type_into("D", length="30")
        self.post("/parts/remove", parts=[self.part("E")["id"]])
        data = self.ask("get", f"/projects/{self.project['id']}/project.json").content
        self.assertEqual(json.loads(data)["format"], "grain-tally/project@4")
        again = self.upload("/projects/import", data, "gate.json", id=str(uuid.uuid4()))
        self.assertEqual(again.status_code, 200, again.content)
        self.project = again.json()
        self.assertEqual(self.part("D")["by_hand"], ["length"])
        self.assertEqual(self.shape("gate")["left_out"], ["part: middle"])
        self.measure_of("gate", height="70")
        self.now()
        self.assertEqual((self.length("C"), self.length("D")), ("70", "30"))
        self.measure_of("gate", corners="posts between")
        self.assertEqual(self.project["joints"].splitlines()[0], "4 D edge to C end, 2 screws")


class ShapedPartsTest(ShapesTestCase):
    def test_a_notched_part_is_drawn_told_and_bought_square(self) -> None:
        self.type_into("B", notches="1 1/8 x 2 at top right")
        part = self.part("B")
        self.assertIn("notch 1 1/8 deep, 2 long, top edge at the right end", part["shaping"][0])
        (piece,) = part["sketch"]["pieces"]
        self.assertEqual(len(piece["points"].split()), 6)
        told = [label["text"] for label in part["sketch"]["labels"] if not label["letter"]]
        self.assertIn("58″", told)  # from the left end to the notch, of 60
        self.assertIn("2 3/8″", told)  # from the bottom edge
        claim = self.plan["tally"]["claim"]
        self.assertIn("shaped parts cut from square pieces", claim["detail"])
        page = self.client.get(f"/api/projects/{self.project['id']}/cut-sheet.pdf").content
        text = " ".join(PdfReader(io.BytesIO(page)).pages[0].extract_text().split())
        self.assertIn("two stopped cuts, finished by hand", text)

    def test_what_cannot_be_cut_is_told_at_its_field_or_beside_the_part(self) -> None:
        answer = self.type_into("B", notches="1 x")
        self.assertEqual(answer.json()["problems"][0]["place"], "notches")
        self.type_into("B", notches="4 x 2 at top right")
        self.assertIn("as deep as the part is wide", str(self.plan))

    def test_clipped_ends_keep_their_stub_in_another_unit(self) -> None:
        self.type_into("B", ends="45 stub 3/8, 0")
        self.patch("", unit="mm")
        self.now()
        self.assertEqual(self.part("B")["ends"], "45 stub 3/8in, 0")

    def test_no_one_edge_is_said_of_shaped_ends(self) -> None:
        self.type_into("B", ends="45 stub 3/8, -45 stub 3/8")
        self.add("along = edge of B")
        self.assertIn("shaped ends", self.measure("along")["problems"][0])
        answer = self.post(f"/parts/{self.part('B')['id']}/edge-marks")
        self.assertIn("shaped then", answer.json()["detail"])

    def test_kept_together_lie_so_on_their_board_and_are_said_to(self) -> None:
        self.type_into("A", together="front", quantity="2")
        self.assertIn("there is nothing else of that name", str(self.plan))
        self.type_into("B", together="front")
        self.assertIn("they are of different stock", str(self.plan))
        self.type_into("A", stock="2x4")
        plan = self.plan
        self.assertIn("matching parts kept together", str(plan))
        rows = [
            [placed["part"] for placed in layout["parts"]]
            for material in plan["materials"]
            for layout in material["layouts"]
        ]
        ids = [self.part(mark)["id"] for mark in "AB"]
        self.assertTrue(all(row[n : n + 2] == ids for row in rows for n in range(0, len(row), 2)))

    def test_work_on_parts_is_kept_as_lines_and_shown_with_its_sizes(self) -> None:
        lapped = FRAME | {"corners": "half-lapped", "middles": "0"}
        self.add_shape("gate", "frame", lapped)
        self.assertEqual(
            self.shape("gate")["work"],
            [
                "C half lap both ends: depth 3/4, length 1 1/2",
                "D half lap both ends: depth 3/4, length 1 1/2",
            ],
        )
        self.assertIn("depth =(thickness of C / 2 + 0 in)", self.project["work"])
        self.post(f"/shapes/{self.shape('gate')['id']}/let-go")
        self.assertIn("C half lap both ends", self.project["work"])


class RefusedTest(ShapesTestCase):
    def test_what_cannot_be_built_changes_nothing(self) -> None:
        self.add_shape("gate", "frame", FRAME)
        before = self.now()
        for measures, place in (
            ({"width": "2"}, "width"),
            ({"width": "-4"}, "width"),
            ({"width": ""}, "width"),
            ({"width": "openin"}, "width"),
            ({"middles": "1 1/2"}, "middles"),
            ({"middles": "90"}, "middles"),
            ({"copies": "0"}, "copies"),
            ({"copies": "3000"}, "copies"),
            ({"stock": "2x2x8"}, "stock"),
            ({"stock": "brick"}, "stock"),
            ({"corners": "nailed"}, "corners"),
            ({"depth": "3"}, "depth"),
            ({"width": "9" * 501}, "width"),
        ):
            answer = self.measure_of("gate", **measures)
            self.assertEqual(answer.status_code, 422, measures)
            places = [problem["place"] for problem in answer.json()["problems"]]
            self.assertIn(place, places, (measures, answer.json()))
        self.assertEqual(self.now(), before)

    def test_names(self) -> None:
        self.add_shape("gate", "frame", FRAME)
        self.add("lid width = 4")
        for called in ("gate", "Gate", "lid", "opening", "", "of", "x" * 25):
            answer = self.add_shape(called, "frame", FRAME)
            self.assertEqual(answer.status_code, 422, called)
            self.assertEqual(answer.json()["problems"][0]["place"], "called", called)
        answer = self.change(self.project, "post", "/measures", line="gate width = 4")
        self.assertEqual(answer.status_code, 422)
        self.assertEqual(
            self.add_shape("lid", "gazebo", FRAME).json()["problems"][0]["place"], "shape"
        )

    def test_others_do_not_reach_it(self) -> None:
        self.add_shape("gate", "frame", FRAME)
        path = self.drawing("gate")
        self.assertEqual(self.ask("get", path).status_code, 200)
        self.client = self.other_client()
        self.assertEqual(self.ask("get", path).status_code, 404)

    def test_a_preview_keeps_nothing(self) -> None:
        before = self.now()
        body = {"called": "gate", "shape": "frame", "measures": FRAME}
        path = f"/projects/{self.project['id']}/reading/shape"
        found = self.ask("post", path, body).json()
        lengths = [part["length"]["text"].rstrip("″") for part in found["parts"]]
        self.assertEqual(lengths, ["58", "28 1/4", "55"])
        self.assertEqual([view["name"] for view in found["views"]], ["front", "side", "plan"])
        wrong = self.ask("post", path, body | {"measures": FRAME | {"width": "1"}}).json()
        self.assertEqual((wrong["problems"][0]["place"], wrong["parts"]), ("width", []))
        self.assertEqual(self.now(), before)


class FilesTest(ShapesTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.add_shape("gate", "frame", FRAME)

    def file(self, ending: str, view: str = "front") -> bytes:
        answer = self.ask("get", f"{self.drawing('gate')}.{ending}?view={view}")
        self.assertEqual(answer.status_code, 200)
        return bytes(answer.content)

    def test_dxf_is_read_again_at_full_size(self) -> None:
        drawing = ezdxf.read(io.StringIO(self.file("dxf").decode()))
        self.assertEqual(drawing.units, ezdxf.units.IN)
        pieces = list(drawing.modelspace().query('LWPOLYLINE[layer=="pieces"]'))
        self.assertEqual(len(pieces), 5)
        points = [point for piece in pieces for point in piece.get_points("xy")]
        self.assertAlmostEqual(max(x for x, _ in points) - min(x for x, _ in points), 31.25, 2)
        self.assertAlmostEqual(max(y for _, y in points) - min(y for _, y in points), 58, 2)
        texts = [one.dxf.text for one in drawing.modelspace().query("TEXT")]
        self.assertIn("31 1/4″", texts)
        self.assertEqual(drawing.audit().errors, [])

    def test_dxf_of_all_views_has_each_piece_in_each(self) -> None:
        drawing = ezdxf.read(io.StringIO(self.file("dxf", "all").decode()))
        self.assertEqual(len(list(drawing.modelspace().query("LWPOLYLINE"))), 15)

    def test_svg_is_read_again_at_full_size(self) -> None:
        self.patch("", unit="mm")
        root = fromstring(self.file("svg"))
        self.assertTrue(root.get("width", "").endswith("mm"))
        names = {"s": "http://www.w3.org/2000/svg"}
        corners = [
            [float(figure) for figure in point.split(",")]
            for one in root.findall(".//s:g[@id='pieces']/s:polygon", names)
            for point in one.get("points", "").split()
        ]
        self.assertEqual(len(corners), 5 * 4)
        wide, high = (max(c[n] for c in corners) - min(c[n] for c in corners) for n in (0, 1))
        self.assertAlmostEqual(wide, 31.25 * 25.4, 1)
        self.assertAlmostEqual(high, 58 * 25.4, 1)

    def test_paper_names_its_scale(self) -> None:
        (page,) = PdfReader(io.BytesIO(self.file("pdf"))).pages
        text = page.extract_text()
        self.assertRegex(text, r"front, 1 : \d+")
        self.assertIn("31 1/4", text)

    def test_what_cannot_be_drawn_is_told(self) -> None:
        self.measure_of("gate", width="opening - 1")
        self.patch(f"/measures/{self.measure('opening')['id']}", formula="2")
        told = self.ask("get", self.drawing("gate")).json()
        self.assertEqual((told["views"], told["problems"][0]["place"]), ([], "width"))
        answer = self.ask("get", f"{self.drawing('gate')}.dxf")
        self.assertEqual(
            (answer.status_code, answer.json()["problems"][0]["place"]), (422, "width")
        )
        self.assertEqual(self.shape("gate")["problems"][0]["place"], "width")
