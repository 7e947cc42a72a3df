"""What nobody can store or should wait for is refused in a sentence, never with a crash."""

import io
import json
import uuid
import zipfile

from django.test import override_settings
from openpyxl import Workbook

from server.tests.base import ApiTestCase


def workbook(**members: str) -> bytes:
    """A workbook of one small sheet, with members (by the end of their name) replaced."""
    book, out, changed = Workbook(), io.BytesIO(), io.BytesIO()
    book.active.append(["count", "stock", "length"])
    book.active.append([4, "2x4", 30])
    book.save(out)
    with zipfile.ZipFile(out) as made, zipfile.ZipFile(changed, "w", zipfile.ZIP_DEFLATED) as new:
        for name in made.namelist():
            text = next((t for end, t in members.items() if name.endswith(f"{end}.xml")), None)
            new.writestr(name, made.read(name) if text is None else text)
    return changed.getvalue()


SHEET = (
    '<worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main">{}</worksheet>'
)


class WorkbookTest(ApiTestCase):
    def told(self, data: bytes) -> str:
        answer = self.upload("/reading/parts-file", data, "list.xlsx", unit="in", notation="1/32")
        if answer.status_code != 200:
            return f"{answer.status_code} {answer.json()['detail']}"
        return "; ".join(one["message"] for one in answer.json()["problems"]) or "read"

    def test_a_good_one(self) -> None:
        self.assertEqual(self.told(workbook()), "read")

    def test_entities_are_refused(self) -> None:
        levels = "".join(
            f'<!ENTITY e{n} "{f"&e{n - 1};" * 10 if n else "a" * 100}">' for n in range(9)
        )
        bomb = f"<!DOCTYPE x [{levels}]>{SHEET.format('<sheetData>&e8;</sheetData>')}"
        self.assertIn("entities of its own", self.told(workbook(sheet1=bomb)))

    def test_too_many_cells_columns_and_bytes(self) -> None:
        row = "<row>" + '<c t="n"><v>1</v></c>' * 700_000 + "</row>"
        cells = SHEET.format(f"<sheetData>{row}</sheetData>")
        self.assertIn("400,000 cells", self.told(workbook(sheet1=cells)))
        styles = "<styleSheet>" + "<xf/>" * 1_000_000 + "</styleSheet>"
        self.assertIn("413", self.told(workbook(styles=styles)))
        far = SHEET.format(
            '<sheetData><row r="1048576"><c r="XFD1048576"><v>1</v></c></row></sheetData>'
        )
        self.assertIn("more than 20,000 rows", self.told(workbook(sheet1=far)))
        with override_settings(MAX_UNPACKED_BYTES=1000):
            self.assertIn("413", self.told(workbook()))

    def test_broken_ones(self) -> None:
        for members in (
            {"sheet1": "<worksheet"},
            {"sheet1": SHEET.format('<sheetData><row r="x"><c r="?"/></row></sheetData>')},
            {"workbook": "<workbook/>"},
            {"sheet1": SHEET.format('<sheetData><c t="s"><v>99</v></c></sheetData>')},
        ):
            told = self.told(workbook(**members))
            self.assertTrue(told and "500" not in told, members)
        self.assertIn("no XLSX workbook", self.told(b"PK\x03\x04 not really"))


class CharactersTest(ApiTestCase):
    def test_half_a_character(self) -> None:
        body = json.dumps({"id": str(uuid.uuid4()), "name": "a\ud800b", "unit": "in"})
        answer = self.client.post("/api/projects", body, content_type="application/json")
        self.assertIn("half a character", self.problems(answer)["name"])

    def test_numbers_that_are_none(self) -> None:
        project = self.new_project("2 rail 2x4 60")
        part = project["parts"][0]["id"]
        for field, typed in (
            ("quantity", "²"),
            ("quantity", "5" * 1500),
            ("length", "5" * 1500),
            ("length", "1/" + "2" * 1500),
            ("length", "²"),
            ("boards", "²"),
            ("ends", "9" * 1500),
        ):
            answer = self.change(project, "patch", f"/parts/{part}", **{field: typed})
            self.assertIn(field, self.problems(answer), (field, typed[:9]))
        for typed in ("² rails 2x4 30", f"{'5' * 1500} rails 2x4 30", "2 rails 2x4x" + "9" * 300):
            reading = self.ask("post", "/reading/parts", {"text": typed, "unit": "in"}).json()
            self.assertTrue(reading["problems"] or reading["parts"], typed[:20])

    def test_pages_that_are_none(self) -> None:
        (yard,) = self.take_prices(b"yard,stock,length,price\nBell Yard,2x4,8ft,5\n")
        for page in ("100000000000000000000", "0", "-1", "²", "x"):
            for path in (f"/yards/{yard['id']}", "/rack"):
                answer = self.client.get(f"/api{path}", {"page": page})
                self.assertEqual(answer.status_code, 422, (path, page))
        answer = self.client.get("/api/rack", {"find": "100000000000000000000 ²"})
        self.assertEqual(answer.json()["found"], 0)

    def test_units_that_are_none(self) -> None:
        answer = self.ask("post", "/reading/parts", {"text": "2 rail 2x4 60", "unit": "ell"})
        self.assertIn("unit", self.problems(answer))


class LengthTest(ApiTestCase):
    def test_a_request_that_is_too_long_is_refused_before_it_is_read(self) -> None:
        body = json.dumps({"text": "a " * 600_000, "unit": "in"})
        answer = self.client.post("/api/reading/parts", body, content_type="application/json")
        self.assertEqual(answer.status_code, 413)
        answer = self.upload("/reading/parts-file", b"x" * 6_000_000, unit="in", notation="1/32")
        self.assertEqual(answer.status_code, 413)

    def test_a_line_of_many_words_is_refused_at_once(self) -> None:
        answer = self.ask("post", "/reading/parts", {"text": "a " * 150_000, "unit": "in"}).json()
        self.assertIn("400 characters", answer["problems"][0]["message"])
        project = self.new_project()
        refused = self.change(project, "patch", "", name="x" * 5000)
        self.assertIn("longer than 2,000", self.problems(refused)["name"])

    def test_as_many_lines_as_a_list_holds_are_read(self) -> None:
        lines = "\n".join(f"2 rail {n} 2x4 {20 + n % 30} 1/2" for n in range(2000))
        reading = self.ask("post", "/reading/parts", {"text": lines, "unit": "in"}).json()
        self.assertEqual(len(reading["parts"]), 2000)


class ColumnsTest(ApiTestCase):
    LIST = b"Leg\t4x4\t36\t4\n"

    def test_what_each_column_is_shows_and_can_be_changed(self) -> None:
        reading = self.ask(
            "post", "/reading/parts", {"text": self.LIST.decode(), "unit": "in"}
        ).json()
        names = [column["name"] for column in reading["columns"]]
        self.assertEqual(names, ["name", "stock", "length", "quantity"])
        self.assertEqual(reading["parts"][0]["quantity"], 4)
        self.assertIn("wood", reading["choices"])
        chosen = self.upload(
            "/reading/parts-file",
            self.LIST,
            unit="in",
            notation="1/32",
            columns="name,stock,quantity,length",
        ).json()
        self.assertEqual(chosen["parts"][0]["quantity"], 36)

    def test_the_columns_that_were_chosen_are_taken(self) -> None:
        project = self.new_project()
        changed = self.change(
            project,
            "post",
            "/parts",
            text=self.LIST.decode(),
            columns="name,stock,quantity,length",
        ).json()
        self.assertEqual(changed["parts"][0]["quantity"], "36")
        refused = self.change(changed, "post", "/parts", text=self.LIST.decode(), columns="name,,,")
        self.assertTrue(self.problems(refused))
        seen = {"version": str(changed["version"]), "change_id": str(uuid.uuid4())}
        imported = self.upload(
            f"/projects/{project['id']}/parts/import",
            self.LIST,
            columns="name,stock,quantity,length",
            **seen,
        ).json()
        self.assertEqual([part["quantity"] for part in imported["parts"]], ["36"])
        now = self.look(project["id"])
        self.assertEqual([part["quantity"] for part in now["parts"]], ["36", "36"])

    def test_prices_of_one_yard(self) -> None:
        given = {"change_id": str(uuid.uuid4()), "at": "Alder Yard"}
        (yard,) = self.upload(
            "/yards/import-prices", b"item,cost,len\n2x4,$5.10,8ft\n", **given
        ).json()
        self.assertEqual((yard["name"], yard["lines"][0]["price"]), ("Alder Yard", "5.10"))

    def test_a_bare_number_of_feet_is_asked_about(self) -> None:
        (yard,) = self.take_prices(b"yard,stock,length,price\nBell Yard,2x4,8ft,5\n")
        seen = {"version": yard["version"], "change_id": str(uuid.uuid4())}
        line = {"stock": "2x6", "length": "8", "price": "7"}
        answer = self.ask("put", f"/yards/{yard['id']}/lines/{uuid.uuid4()}", seen | line)
        self.assertIn("8 ft?", self.problems(answer)["length"])
        rack = self.ask("get", "/rack").json()
        seen = {"version": rack["version"], "change_id": str(uuid.uuid4())}
        board = {"stock": "2x6", "length": "8"}
        answer = self.ask("put", f"/rack/boards/{uuid.uuid4()}", seen | board)
        self.assertIn("8 ft?", self.problems(answer)["length"])
