"""Measures and runs of a project: parts follow, what was typed stays, what is wrong is told."""

import io
import json
import uuid
from typing import Any

from pypdf import PdfReader

from server.projects.models import Project
from server.tests.base import Answer, ApiTestCase

GATE = {
    "format": "grain-tally/project@3",
    "name": "Cold frame",
    "trim": {"start": "1/2", "end": "0"},
    "measures": [
        {"name": "opening", "formula": "72"},
        {"name": "bays", "formula": "3"},
        {"name": "post", "formula": "width of A"},
        {"name": "rail", "formula": "opening - 2 * post"},
    ],
    "parts": [
        {"quantity": "2", "name": "post", "stock": "4x4", "length": "58"},
        {"quantity": "2", "name": "rail", "stock": "2x4", "length": "60"},
    ],
}


class MeasuresTestCase(ApiTestCase):
    def look(self, project: str) -> dict[str, Any]:
        """A project without its plan: that is asked for where it is looked at."""
        return dict(self.ask("get", f"/projects/{project}").json())

    @property
    def plan(self) -> dict[str, Any]:
        return dict(self.ask("post", f"/projects/{self.project['id']}/plans").json())

    def setUp(self) -> None:
        super().setUp()
        id_ = str(uuid.uuid4())
        data = json.dumps(GATE).encode()
        self.project = self.upload("/projects/import", data, "gate.json", id=id_).json()

    def add(self, line: str) -> None:
        self.project = self.change(self.project, "post", "/measures", line=line).json()

    def patch(self, path: str, **body: Any) -> Answer:
        answer = self.change(self.project, "patch", path, **body)
        if answer.status_code == 200:
            self.project = answer.json()
        return answer

    def type_into(self, mark: str, **fields: str) -> Answer:
        return self.patch(f"/parts/{self.part(mark)['id']}", **fields)

    def part(self, mark: str) -> dict[str, Any]:
        return next(dict(part) for part in self.project["parts"] if part["mark"] == mark)

    def measure(self, name: str) -> dict[str, Any]:
        return next(dict(one) for one in self.project["measures"] if one["name"] == name)

    def change_measure(self, which: str, **fields: str) -> Answer:
        return self.patch(f"/measures/{self.measure(which)['id']}", **fields)

    def length(self, mark: str) -> str:
        return str(self.part(mark)["length_shown"]["text"])


class FollowTest(MeasuresTestCase):
    puts_together = True

    def test_a_part_follows_a_measure_and_says_so(self) -> None:
        self.type_into("B", length="=rail", quantity="=2 * bays")
        rail = self.part("B")
        self.assertEqual((rail["length"], self.length("B"), rail["pieces"]), ("=rail", "65″", 6))
        self.assertEqual([one["field"] for one in rail["follows"]], ["quantity", "length"])
        self.change_measure("opening", formula="60")
        self.assertEqual(self.length("B"), "53″")
        self.assertEqual(self.project["change"], "opening 72 → 60; B follows")
        self.project = self.change(self.project, "post", "/undo").json()
        self.assertEqual(self.length("B"), "65″")

    def test_a_part_that_is_changed_says_which_others_followed(self) -> None:
        self.type_into("B", length="=length of A / 2")
        self.type_into("A", length="60")
        self.assertEqual(self.project["change"], "A post: length 58 → 60; B follows")

    def test_what_follows_is_not_rounded_twice(self) -> None:
        self.add("third = opening / 7")
        self.type_into("B", length="=third * 7")
        self.assertEqual(self.length("B"), "72″")
        self.type_into("A", length="=third")  # 10.2857 in
        self.assertFalse(self.part("A")["follows"][0]["exact"])
        self.assertEqual(self.length("A"), "10 9/32″")

    def test_beyond_every_board_with_the_numbers_that_went_in(self) -> None:
        self.type_into("B", length="=rail * 5")
        (material,) = [m for m in self.plan["materials"] if m["unplaced"]]
        self.assertIn("(rail * 5, where rail = 65)", material["unplaced"][0]["reason"])

    def test_the_yard_s_own_width_is_followed(self) -> None:
        self.type_into("B", length="=rail")
        data = b"yard,stock,length,price,thickness,width\nBell Yard,4x4,8ft,12,3 3/8,3 3/8\n"
        (yard,) = self.take_prices(data)
        self.patch("", yard=yard["id"])
        self.assertEqual(self.length("B"), "65 1/4″")
        before = self.plan["id"]
        self.take_prices(data.replace(b"3 3/8,3 3/8", b"3 3/8,3 1/4"))
        self.project = self.look(self.project["id"])
        self.assertEqual(self.length("B"), "65 1/2″")
        self.assertNotEqual(self.plan["id"], before)

    def test_a_corrected_size_lists_what_would_follow_it(self) -> None:
        self.type_into("B", length="=rail")
        (yard,) = self.take_prices(b"yard,stock,length,price\nBell Yard,4x4,8ft,12\n")
        self.patch("", yard=yard["id"])
        line = self.ask("get", f"/yards/{yard['id']}").json()["lines"][0]["id"]
        path = f"/yards/{yard['id']}/lines/{line}/effect"
        effects = self.ask("post", path, {"width": "3 1/4"}).json()
        self.assertEqual([one["mark"] for one in effects], ["A", "B"])
        self.assertEqual(effects[1]["why"], "its length follows: 65″ → 65 1/2″")
        self.assertEqual(self.ask("post", path, {"price": "13"}).json(), [])

    def test_a_corrected_board_of_the_rack_lists_what_would_follow_it(self) -> None:
        seen = {"version": self.ask("get", "/rack").json()["version"]}
        fields = {"stock": "4x4", "length": "9ft", "thickness": "3 1/2", "width": "3 1/2"}
        board = uuid.uuid4()
        body = seen | {"change_id": str(uuid.uuid4())} | fields
        self.assertEqual(self.ask("put", f"/rack/boards/{board}", body).status_code, 200)
        self.patch("", rack="saving")
        self.type_into("A", boards="1")
        self.type_into("B", length="=rail")
        effects = self.ask("post", f"/rack/boards/{board}/effect", {"width": "3 1/4"}).json()
        follow = [one["why"] for one in effects if one["mark"] == "B"]
        self.assertEqual(follow, ["its length follows: 65″ → 65 1/2″"])

    def test_measured_beats_computed_and_can_be_taken_back(self) -> None:
        self.type_into("B", length="=rail")
        self.change_measure("rail", measured="64 7/8")
        rail = self.measure("rail")
        self.assertEqual((rail["value"]["text"], rail["computed"]["text"]), ("64 7/8", "65"))
        self.assertRegex(rail["measured_on"], r"\d{4}-\d\d-\d\d")
        self.assertEqual(self.length("B"), "64 7/8″")
        self.change_measure("rail", measured="")
        self.assertEqual((self.length("B"), self.measure("rail")["measured_on"]), ("65″", ""))

    def test_a_part_that_was_measured(self) -> None:
        self.add("half = length of B / 2")
        self.type_into("B", length="=rail", held="yes")
        held = self.part("B")
        self.assertTrue(held["is_held"])
        self.assertEqual(held["sawn"]["text"], "67″")  # two inches until it is measured
        self.type_into("B", taped="64 3/4")
        now = self.part("B")
        self.assertEqual((self.length("B"), now["computed"]["text"]), ("64 3/4″", "65″"))
        self.assertEqual((now["is_held"], now["sawn"]), (False, None))
        self.assertEqual(self.measure("half")["value"]["text"], "32 3/8")

    def test_renaming_follows_and_use_keeps_it(self) -> None:
        self.type_into("B", length="=rail - 1/4", ends="=8°, -8°")
        self.change_measure("rail", name="cross rail")
        self.assertEqual(self.part("B")["length"], "=cross rail - 1/4")
        self.change_measure("opening", name="gate")
        self.assertEqual(self.measure("cross rail")["formula"], "gate - 2 * post")
        removal = {"parts": [self.measure("post")["id"]]}
        answer = self.change(self.project, "post", "/measures/remove", **removal)
        self.assertEqual(answer.status_code, 422)
        self.assertIn("post is used in cross rail", answer.json()["detail"])

    def test_angles_section_and_allowance(self) -> None:
        self.add("lean = 8°")
        self.type_into("B", ends="=lean, -lean", width="=post - 1/4", extra_length="=kerf * 4")
        self.assertEqual(self.part("B")["angles"], "both 8°, parallel")
        self.assertEqual(self.part("B")["section"]["width"]["text"], "3 1/4″")
        self.assertEqual(
            {one["field"] for one in self.part("B")["follows"]}, {"ends", "width", "extra_length"}
        )

    def test_joints_take_measures(self) -> None:
        self.patch("", joints="=(4 * bays) B to A, 2 screws", hardware="=(bays + 1) strap hinge")
        hardware = self.plan["shopping"]["hardware"]
        self.assertEqual(
            {(one["name"], one["needed"]) for one in hardware["lines"]},
            {("screw", "24"), ("strap hinge", "4")},
        )
        self.patch("", joints="=(4 * bay) B to A, 2 screws")
        (problem,) = self.plan["shopping"]["hardware"]["problems"]
        self.assertIn("“bay” is not known. Nearest known: bays", problem)

    def test_joints_follow_a_new_name_and_keep_a_name_from_going(self) -> None:
        self.add("pairs = 2")
        joints = "=(4 * pairs) B to A, 2 screws\n2 B to A, 2 screws, =3in - kerf\n=(broken B"
        self.patch("", joints=joints)
        self.change_measure("pairs", name="couples")
        self.assertEqual(self.project["joints"].splitlines()[0], "=(4 * couples) B to A, 2 screws")
        self.assertEqual(self.project["joints"].splitlines()[2], "=(broken B")
        self.assertEqual(self.measure("couples")["used_by"], ["joints, line 1"])
        removal = {"parts": [self.measure("couples")["id"]]}
        answer = self.change(self.project, "post", "/measures/remove", **removal)
        self.assertIn("couples is used in joints, line 1", answer.json()["detail"])
        self.patch("", joints="2 B to A, 2 screws, =opening / 24", unit="mm")
        self.assertEqual(self.project["joints"], "2 B to A, 2 screws, =opening / 24")
        self.patch("", unit="in", joints="2 B to A, 2 screws, =opening / 24 + 1")
        self.patch("", unit="mm")
        self.assertEqual(self.project["joints"], "2 B to A, 2 screws, =in: opening / 24 + 1")
        self.patch("", joints="=(mm: 4 * couples) B to A, 2 screws")
        self.patch("", unit="in")
        self.assertEqual(self.measure("couples")["formula"], "2")
        self.assertEqual(self.project["joints"], "=(mm: 4 * couples) B to A, 2 screws")
        self.patch("", joints="=(4 * couples) B to A, 2 screws")
        for unit, joints in (("mm", "=(in: 4 * couples)"), ("in", "=(4 * couples)")):
            self.patch("", unit=unit)
            self.assertEqual(self.project["joints"], f"{joints} B to A, 2 screws")
            hardware = self.plan["shopping"]["hardware"]
            self.assertEqual((hardware["problems"], hardware["lines"][0]["needed"]), ([], "16"))

    def test_the_change_says_what_came_of_it(self) -> None:
        self.patch("", finishes="oil on all, 1 coat, 300 sq ft/gal")
        self.type_into("B", quantity="=2 * bays")
        self.assertEqual(self.plan["status"], "done")
        self.change_measure("bays", formula="5")
        self.assertRegex(self.plan["effect"], r"4 pieces more, finish \+\d+ sq ft")


class TypingTest(MeasuresTestCase):
    def test_the_entry_line(self) -> None:
        text = "4 stile 2x4 =opening-2*post\n1 brace 2x4 (61 - 18 5/8)/2"
        body = {"text": text, "unit": "in", "project": self.project["id"]}
        seen = self.ask("post", "/reading/parts", body).json()
        self.assertEqual([part["length"]["text"] for part in seen["parts"]], ["65″", "21 3/16″"])
        self.project = self.change(self.project, "post", "/parts", text=text).json()
        self.assertEqual(self.part("D")["length"], "=(61 - 18 5/8)/2")

    def test_what_cannot_be_worked_out_is_refused_at_its_field(self) -> None:
        for formula, said in (
            ("=openin - 2", "“openin” is not known. Nearest known: opening"),
            ("=opening / 0", "nothing can be divided by 0"),
            ("=opening - 80", "comes out -8: opening - 80, where opening = 72"),
            ("=opening * post * post", "two lengths multiplied"),
            ("=length of B", "goes round in a circle: length of B → length of B"),
            ("=length of Z", "there is no part Z"),
            ("=gap of pickets", "there is no run “pickets”"),
            ("=" + "(" * 1000 + "1" + ")" * 1000, "longer than 2,000 characters"),
            ("=" + "1 + " * 200 + "1", "500 characters"),
            ("=" + "(" * 100 + "1" + ")" * 100, "brackets stand 40 deep"),
            ("=sin(post)", "sin takes an angle"),
            ("=", "a formula is missing"),
        ):
            answer = self.type_into("B", length=formula)
            self.assertEqual(answer.status_code, 422, formula)
            problem = answer.json()["problems"][0]
            self.assertEqual(problem["place"], "length", formula)
            self.assertIn(said, problem["message"])
        self.assertEqual(self.type_into("B", quantity="=bays / 2").status_code, 422)

    def test_bad_measures(self) -> None:
        for line, said in (
            ("rail = 3", "there is a measure “rail” already"),
            ("sin = 3", "means something in formulas"),
            ("3x = 3", "names are lower-case words"),
            ("lid", "write a name and what it is"),
            ("lid = 3 +", "it ends where"),
            ("lid = " + "1+" * 400 + "1", "500 characters"),
        ):
            answer = self.change(self.project, "post", "/measures", line=line)
            self.assertEqual(answer.status_code, 422, line)
            self.assertIn(said, answer.json()["detail"])

    def test_a_measure_that_goes_wrong_is_kept_and_told_at_the_part(self) -> None:
        self.type_into("B", length="=rail")
        self.change_measure("opening", formula="5")
        fault = "length: comes out -2: rail, where rail = -2"
        self.assertEqual(self.part("B")["fault"], fault)
        later = [one["reason"] for material in self.plan["materials"] for one in material["later"]]
        self.assertEqual(later, [fault])
        self.assertEqual(self.plan["tally"]["later"], 1)
        self.assertIn("not known", self.cut_sheet())
        self.change_measure("opening", formula="closing")
        self.assertIn("“closing” is not known", self.measure("opening")["problems"][0])
        self.assertIn("waits for rail", self.part("B")["fault"])
        self.change_measure("opening", formula="72")
        self.assertEqual((self.part("B")["fault"], self.length("B")), ("", "65″"))

    def cut_sheet(self) -> str:
        answer = self.client.get(f"/api/projects/{self.project['id']}/cut-sheet.pdf")
        return "".join(page.extract_text() for page in PdfReader(io.BytesIO(answer.content)).pages)

    def test_a_letter_is_never_given_twice(self) -> None:
        gone = self.part("B")["id"]
        self.add("half = length of B / 2")
        self.project = self.change(self.project, "post", "/parts/remove", parts=[gone]).json()
        self.assertIn("there is no part B", self.measure("half")["problems"][0])
        self.project = self.change(self.project, "post", "/parts", text="slat 1x4 40").json()
        self.assertEqual([part["mark"] for part in self.project["parts"]], ["A", "C"])

    def test_another_unit_changes_no_formula(self) -> None:
        self.type_into("B", length="=opening - 2", quantity="=2 * bays")
        ticks = self.part("B")["length_shown"]["ticks"]
        self.patch("", unit="mm")
        self.assertEqual(self.measure("opening")["formula"], "in: 72")
        self.assertEqual(self.part("B")["length"], "=in: opening - 2")
        self.assertEqual(self.part("B")["pieces"], 6)
        self.assertLessEqual(abs(self.part("B")["length_shown"]["ticks"] - ticks), 80)  # 1/4 mm
        self.type_into("B", length="=opening")
        self.assertEqual(self.length("B"), "1829 mm")  # 72 in, to half a millimetre
        answer = self.type_into("B", length="=opening * 2")
        self.assertIn("write the units of the lengths", answer.json()["detail"])

    def test_reading_a_line_and_a_question_keeps_nothing(self) -> None:
        path = f"/projects/{self.project['id']}/reading"
        seen = self.ask("post", f"{path}/measure", {"line": "lid = rail + 1 1/2"}).json()
        self.assertEqual((seen["name"], seen["value"]["text"]), ("lid", "66 1/2"))
        given = {"question": "equal", "given": {"board": "10 ft", "pieces": "2"}}
        answer = self.ask("post", f"{path}/question", given).json()
        self.assertEqual(answer["formula"], "(10 ft - first trim - last trim - (2 - 1) * kerf) / 2")
        self.assertEqual(answer["value"]["text"], "59 11/16")  # with half an inch of trim
        self.patch("", trim_start="0", trim_end="0")
        answer = self.ask("post", f"{path}/question", given).json()
        self.assertEqual(answer["value"]["text"], "59 15/16")
        self.assertEqual(Project.objects.get().measures.count(), 4)


class FilesTest(MeasuresTestCase):
    def test_a_list_with_formulas(self) -> None:
        data = b"count,part,stock,length\n2,stile,2x4,=rail\n1,sill,2x4,=rail+1\n"
        self.upload_parts(data)
        self.assertEqual((self.length("C"), self.length("D")), ("65″", "66″"))
        out = self.client.get(f"/api/projects/{self.project['id']}/parts.csv").content.decode()
        self.assertIn("stile,2x4,65,", out)
        self.assertNotIn("=rail", out)
        seen = {"version": self.project["version"], "change_id": str(uuid.uuid4())}
        bad = self.upload(
            f"/projects/{self.project['id']}/parts/import",
            b"part,stock,length\na,2x4,=rial\n",
            **seen,
        )
        self.assertEqual(bad.json()["problems"][0]["place"], "line 2, length")
        self.assertIn("Nearest known: rail", bad.json()["detail"])

    def upload_parts(self, data: bytes) -> None:
        seen = {"version": self.project["version"], "change_id": str(uuid.uuid4())}
        answer = self.upload(f"/projects/{self.project['id']}/parts/import", data, **seen)
        self.assertEqual(answer.status_code, 200, answer.content)
        self.project = self.look(self.project["id"])

    def test_the_whole_project_and_back(self) -> None:
        self.type_into("B", length="=rail", quantity="=2 * bays")
        self.change_measure("opening", measured="71 7/8")
        run = {"name": "slats", "along": "rail", "item": "1 1/2", "way": "count", "figure": "7"}
        self.project = self.change(self.project, "post", "/runs", **run).json()
        path = f"/api/projects/{self.project['id']}/project.json"
        document = json.loads(self.client.get(path).content)
        self.assertEqual(document["format"], "grain-tally/project@3")
        self.assertEqual(document["parts"][1]["length"], "=rail")
        self.assertEqual(document["parts"][1]["values"], {"quantity": "6", "length": "64 7/8"})
        data = json.dumps(document).encode()
        again = self.upload("/projects/import", data, "p.json", id=str(uuid.uuid4())).json()
        for place in ("measures", "runs"):
            self.assertEqual(
                [without_ids(one) for one in again[place]],
                [without_ids(one) for one in self.project[place]],
            )
        self.assertEqual(again["parts"][1]["length_shown"]["text"], "64 7/8″")


def without_ids(one: dict[str, Any]) -> dict[str, Any]:
    return {name: value for name, value in one.items() if name != "id"}


class RunsTest(MeasuresTestCase):
    def setUp(self) -> None:
        super().setUp()
        run = {"name": "pickets", "along": "opening", "item": "3 1/2", "way": "gap", "figure": "2"}
        self.project = self.change(self.project, "post", "/runs", **run).json()

    @property
    def pickets(self) -> dict[str, Any]:
        return dict(self.project["runs"][0])

    def change_run(self, **fields: str) -> Answer:
        return self.patch(f"/runs/{self.pickets['id']}", **fields)

    def write(self, line: str) -> Answer:
        return self.change(self.project, "post", f"/runs/{self.pickets['id']}/part", line=line)

    def test_it_writes_its_part_and_drives_it(self) -> None:
        self.project = self.write("picket 1x4 cedar 42").json()
        picket = self.part("C")
        self.assertEqual((picket["quantity"], picket["pieces"]), ("=count of pickets", 13))
        self.assertEqual((self.pickets["part"], self.pickets["item"]), ("C", "width of C"))
        self.change_measure("opening", formula="60")
        self.assertEqual(self.part("C")["pieces"], 11)
        self.assertIn("C follows", self.project["change"])
        self.change_run(left_out="3 4")
        self.assertEqual(self.part("C")["pieces"], 9)
        answer = self.change_run(name="slats")
        self.assertIn("pickets is used in quantity of C", answer.json()["detail"])
        removal = self.change(self.project, "post", "/runs/remove", parts=[self.pickets["id"]])
        self.assertEqual(removal.status_code, 422)

    def test_a_run_says_that_its_part_is_gone(self) -> None:
        self.project = self.write("picket 1x4 cedar 42").json()
        gone = [self.part("C")["id"]]
        self.project = self.change(self.project, "post", "/parts/remove", parts=gone).json()
        problems = {one["place"]: one["message"] for one in self.pickets["problems"]}
        self.assertEqual(problems["part"], "there is no part C any more")
        self.assertIn("there is no part C", problems["item"])

    def test_what_is_left_free_and_what_is_loose(self) -> None:
        self.change_run(left_out="3", loose="2")
        laid = self.pickets["laid"]
        gap = float(laid["exact_gap"])
        (opening,) = laid["openings"]
        self.assertAlmostEqual(opening["width"]["ticks"] / 8128, 3.5 + 2 * gap, delta=1 / 32)
        self.assertEqual([mark["number"] for mark in laid["marks"] if mark["loose"]], [12, 13])

    def test_from_either_end(self) -> None:
        first, last = self.pickets["laid"]["marks"][0], self.pickets["laid"]["marks"][-1]
        ends_at = last["start"] + last["wide"]
        self.assertAlmostEqual(first["left"]["ticks"], 72 * 8128 - ends_at, delta=2 * 254)
        self.assertAlmostEqual(
            first["right"]["ticks"] + first["left"]["ticks"], 72 * 8128, delta=254
        )

    def test_what_cannot_be_laid_is_kept_and_told(self) -> None:
        for fields, place, said in (
            ({"figure": "-1"}, "figure", "a gap is not below 0"),
            ({"way": "count", "figure": "0"}, "figure", "one item at the least"),
            ({"figure": "10000"}, "figure", "2,000 items at the most"),
            ({"figure": "2.5"}, "figure", "no whole number"),
            ({"way": "lap", "figure": "4"}, "figure", "as wide as the board"),
            ({"item": "80", "way": "gap", "figure": "2"}, "item", "not one of them fits"),
            ({"item": "picket"}, "item", "“picket” is not known"),
            (
                {"item": "3 1/2", "way": "gap", "figure": "2", "left_out": "99"},
                "left_out",
                "from 1 to 13",
            ),
            ({"left_out": "", "packers": "1/4"}, "packers", "do not make up the gaps"),
        ):
            self.assertEqual(self.change_run(**fields).status_code, 200, fields)
            problems = {one["place"]: one["message"] for one in self.pickets["problems"]}
            self.assertIn(said, problems.get(place, ""), fields)
        self.assertEqual(self.pickets["laid"]["count"], 13)  # packers or not

    def test_siding_and_count_with_a_gap(self) -> None:
        self.change_run(along="60", item="7 1/4", way="lap", figure="1/2", gap="1/8")
        laid = self.pickets["laid"]
        self.assertEqual((laid["rows"], laid["last"]["text"]), (9, "5″"))
        self.assertEqual(laid["exposure"]["text"], "6 7/8″")
        edge = {"first": "item", "last": "item", "marks": "far", "gap": "kerf / cos(0°)"}
        self.change_run(along="", item="21", way="count", figure="3", **edge)
        marks = [mark["left"]["text"] for mark in self.pickets["laid"]["marks"]]
        self.assertEqual(marks, ["21″", "42 1/8″", "63 1/4″"])

    def test_marks_along_the_edge_of_an_angled_part(self) -> None:
        # kerf 1/8 at 60° takes 1/4 along the edge: 21, 42 1/4, 63 1/2
        self.type_into("B", ends="60 -60", measured="edge", length="21", quantity="3")
        path = f"/parts/{self.part('B')['id']}/edge-marks"
        self.project = self.change(self.project, "post", path).json()
        run = self.project["runs"][1]
        marks = [mark["left"]["text"] for mark in run["laid"]["marks"]]
        self.assertEqual((run["name"], marks), ("edge marks b", ["21″", "42 1/4″", "63 1/2″"]))
        self.type_into("B", measured="long-long", length="27 1/16")  # 3 1/2 * tan 60° = 6 1/16
        run = self.project["runs"][1]
        self.assertEqual(run["laid"]["marks"][0]["left"]["text"], "21″")
        self.type_into("B", ends="20 20")
        answer = self.change(self.project, "post", path)
        self.assertIn("not parallel", answer.json()["detail"])

    def test_rows_that_will_part_as_they_dry(self) -> None:
        self.change_run(along="60", item="7 1/4", way="lap", figure="1/8", gap="1/8")
        self.assertIn("boards laid wet shrink", self.pickets["laid"]["caution"])

    def test_a_place_before_the_zero_of_the_tape(self) -> None:
        self.change_run(first="half-item", last="half-item")
        first, last = self.pickets["laid"]["marks"][0], self.pickets["laid"]["marks"][-1]
        self.assertEqual(first["left"]["text"], "−1 3/4″")
        self.assertEqual((last["start"] + last["wide"]) / 8128, 73.75)

    def test_a_guard_s_gap_points_to_the_code(self) -> None:
        self.assertEqual(self.pickets["laid"]["caution"], "")
        self.change_run(figure="5")
        self.assertIn("the local code says", self.pickets["laid"]["caution"])

    def test_on_paper(self) -> None:
        self.change_run(packers="2 x 1, 1/8 x 3, 1/16")
        path = f"/api/projects/{self.project['id']}/runs/{self.pickets['id']}/marks.pdf?paper=a4"
        answer = self.client.get(path)
        text = "".join(page.extract_text() for page in PdfReader(io.BytesIO(answer.content)).pages)
        self.assertIn("Hook the tape once", text)
        self.assertIn("13, gap", text)


class OwnershipTest(MeasuresTestCase):
    def test_nothing_of_somebody_else_s_can_be_changed(self) -> None:
        run = {"name": "slats", "along": "72", "item": "1 1/2", "way": "count", "figure": "7"}
        self.project = self.change(self.project, "post", "/runs", **run).json()
        measure, laid = self.project["measures"][0]["id"], self.project["runs"][0]["id"]
        other = self.other_client()
        seen = {"version": self.project["version"], "change_id": str(uuid.uuid4())}
        base = f"/api/projects/{self.project['id']}"
        for method, path, body in (
            ("post", "/measures", {"line": "x = 1"}),
            ("patch", f"/measures/{measure}", {"formula": "1"}),
            ("post", "/measures/remove", {"parts": [measure]}),
            ("post", "/reading/measure", {"line": "x = opening"}),
            ("post", "/reading/question", {"question": "half", "given": {"board": "opening"}}),
            ("post", "/runs", run | {"name": "rails"}),
            ("patch", f"/runs/{laid}", {"figure": "3"}),
            ("post", "/runs/remove", {"parts": [laid]}),
            ("post", f"/runs/{laid}/part", {"line": "slat 1x4 40"}),
            ("post", f"/parts/{self.part('A')['id']}/edge-marks", {}),
            ("get", f"/runs/{laid}/marks.pdf", {}),
        ):
            answer = other.generic(
                method.upper(), base + path, json.dumps(seen | body), "application/json"
            )
            self.assertEqual(answer.status_code, 404, path)
        reading = {"text": "rail 2x4 =opening", "unit": "in", "project": self.project["id"]}
        answer = other.post("/api/reading/parts", json.dumps(reading), "application/json")
        self.assertEqual(answer.status_code, 404)
        self.assertEqual(self.look(self.project["id"])["version"], self.project["version"])
