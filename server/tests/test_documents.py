import csv
import io
import json
import uuid
import zipfile
from pathlib import Path
from tempfile import TemporaryDirectory
from time import sleep
from typing import Any
from unittest.mock import patch

from django.conf import settings
from django.core.management import CommandError, call_command
from django.test import override_settings
from openpyxl import Workbook, load_workbook
from pypdf import PdfReader

from carpentry.design import read_parts_csv
from carpentry.lumber import INCHES
from carpentry.tests.samples import sample
from server.accounts.models import User
from server.documents import planned as taking
from server.plans.making import wait_for
from server.plans.models import Plan
from server.projects.models import Project
from server.tests.base import ApiTestCase
from server.tests.demo import load_demo
from server.yards.models import Yard


def pdf_text(data: bytes) -> str:
    return "\n".join(page.extract_text() for page in PdfReader(io.BytesIO(data)).pages)


class TakeAwayTest(ApiTestCase):
    def setUp(self) -> None:
        super().setUp()
        yard = self.take_prices(sample("tallow-street.prices.csv"))[0]
        project = self.new_project(yard=yard["id"], name="Compost station")
        seen = {"version": project["version"], "change_id": str(uuid.uuid4())}
        self.upload(
            f"/projects/{project['id']}/parts/import", sample("compost-station.parts.csv"), **seen
        )
        self.project = self.look(project["id"])

    def take(self, file: str) -> bytes:
        answer = self.client.get(f"/api/projects/{self.project['id']}/{file}")
        self.assertEqual(answer.status_code, 200)
        self.assertIn("attachment", answer["Content-Disposition"])
        return answer.content

    def test_the_list_as_csv_and_xlsx_says_the_same(self) -> None:
        rows = list(csv.reader(io.StringIO(self.take("shopping-list.csv").decode("utf-8-sig"))))
        self.assertEqual(rows[1], ["2x4 treated", "12 ft", "12 ft", "5", "$8.36", "$41.80"])
        self.assertEqual(rows[-3][-1], "$322.45")
        sheet = load_workbook(io.BytesIO(self.take("shopping-list.xlsx"))).active
        cells = [[str(cell or "") for cell in row] for row in sheet.iter_rows(values_only=True)]
        self.assertEqual(cells, rows)

    @override_settings(ANSWER_WITHIN_SECONDS=0.001)
    def test_what_is_taken_away_waits_for_its_plan(self) -> None:
        part = f"/parts/{self.project['parts'][0]['id']}"
        self.change(self.project, "patch", part, length="35 3/4")
        self.assertIn("2x4 treated", self.take("shopping-list.csv").decode())
        self.assertIn("35 3/4", pdf_text(self.take("cut-sheet.pdf")))

    def test_who_takes_away_never_keeps_everybody_waiting(self) -> None:
        """Two may wait for their plan; a third gets the best so far at once."""
        project = Project.objects.get(id=self.project["id"])
        with patch.object(taking, "settled_plan", wraps=taking.settled_plan) as settled:
            taking.planned(project)
            held = [taking._may_wait.acquire(blocking=False) for _ in range(2)]
            try:
                taking.planned(project)
            finally:
                for _ in filter(None, held):
                    taking._may_wait.release()
        waits = [call.args[2] for call in settled.call_args_list]
        quick, long = settings.QUICK_PLAN_SECONDS, settings.PLAN_SECONDS
        self.assertEqual((held, waits), ([True, True], [quick + long, quick]))

    def test_paper_in_both_sizes(self) -> None:
        for paper, width in (("letter", 612), ("a4", 595)):
            listed = self.take(f"shopping-list.pdf?paper={paper}")
            self.assertEqual(int(PdfReader(io.BytesIO(listed)).pages[0].mediabox.width), width)
            text = pdf_text(listed)
            for words in ("2x4 treated", "12 ft", "$322.45", "No cheaper purchase"):
                self.assertIn(words, text)
            sheet = pdf_text(self.take(f"cut-sheet.pdf?paper={paper}"))
            for words in ("Compost station", "boards 1–2", "upright", "does not check strength"):
                self.assertIn(words, sheet)
            self.assertIn("never burn offcuts", sheet)
        refused = self.client.get(f"/api/projects/{self.project['id']}/cut-sheet.pdf?paper=a5")
        self.assertEqual(refused.status_code, 422)

    def test_parts_read_back(self) -> None:
        again = read_parts_csv(self.take("parts.csv"), INCHES)
        lengths = [part.length.ticks for part in again]
        self.assertEqual(lengths, [p["length_shown"]["ticks"] for p in self.project["parts"]])
        self.assertEqual(
            [p.fields.length for p in again], [p["length"] for p in self.project["parts"]]
        )

    def test_a_project_comes_back_as_it_was(self) -> None:
        data = self.take("project.json")
        answer = self.upload("/projects/import", data, "p.json", id=str(uuid.uuid4())).json()
        answer = self.look(answer["id"])
        self.project = answer
        self.assertEqual(json.loads(self.take("project.json")), json.loads(data))
        self.assertEqual(answer["plan"]["tally"]["cost"], "$322.45")

    def test_a_yard_comes_back_as_it_was(self) -> None:
        yard = self.project["yard"]["id"]
        data = self.client.get(f"/api/yards/{yard}/yard.json").content
        self.client.delete(f"/api/yards/{yard}")
        again = self.upload("/yards/import", data, "y.json", change_id=str(uuid.uuid4())).json()
        back = self.client.get(f"/api/yards/{again['id']}/yard.json").content
        self.assertEqual(json.loads(back), json.loads(data))
        listed = self.client.get(f"/api/yards/{again['id']}/prices.csv").content
        preview = self.upload("/reading/prices-file", listed).json()["yards"][0]
        self.assertEqual((preview["same"], preview["changed"]), (16, []))
        book = self.client.get(f"/api/yards/{again['id']}/prices.xlsx").content
        preview = self.upload("/reading/prices-file", book, "prices.xlsx").json()["yards"][0]
        self.assertEqual((preview["same"], preview["changed"]), (16, []))

    def test_cells_are_harmless(self) -> None:
        project = self.change(
            self.project, "post", "/parts", text="1 =SUM(A1) 2x4 treated 9"
        ).json()
        self.project = project
        self.assertIn(b"'=SUM(A1)", self.take("parts.csv"))
        again = read_parts_csv(self.take("parts.csv"), INCHES)
        self.assertEqual(again[-1].name, "=SUM(A1)")
        part = f"/parts/{project['parts'][-1]['id']}"
        self.project = self.change(project, "patch", part, ends="-20 20").json()
        self.assertEqual(read_parts_csv(self.take("parts.csv"), INCHES)[-1].fields.ends, "-20 20")

    def test_characters_that_a_workbook_cannot_hold_are_left_out(self) -> None:
        yard = self.ask("post", "/yards", {"id": str(uuid.uuid4()), "name": "Bell\x07 Yard"}).json()
        seen = {"version": 1, "change_id": str(uuid.uuid4()), "stock": "2x4", "length": "8ft"}
        self.ask("put", f"/yards/{yard['id']}/lines/{uuid.uuid4()}", seen)
        book = self.client.get(f"/api/yards/{yard['id']}/prices.xlsx")
        self.assertEqual(load_workbook(io.BytesIO(book.content)).active["A2"].value, "Bell Yard")

    def test_a_missing_price_is_said(self) -> None:
        self.change(self.project, "post", "/parts", text="1 post 6x6 40")
        text = self.take("shopping-list.csv").decode()
        self.assertIn("no price", text)
        self.assertIn("incomplete", text)
        self.assertIn("incomplete", pdf_text(self.take("shopping-list.pdf")))

    def test_nothing_to_print_still_prints(self) -> None:
        self.project = self.new_project()
        for file in ("shopping-list.pdf", "cut-sheet.pdf", "shopping-list.csv", "parts.csv"):
            self.assertTrue(self.take(file))


class WorkbookTest(ApiTestCase):
    def book(self, rows: list[list[Any]]) -> bytes:
        book = Workbook()
        for row in rows:
            book.active.append(row)
        out = io.BytesIO()
        book.save(out)
        return out.getvalue()

    def read(self, data: bytes) -> Any:
        return self.upload("/reading/parts-file", data, "p.xlsx", unit="in", notation="1/32")

    def test_a_workbook_is_read_like_a_csv(self) -> None:
        rows: list[list[Any]] = [["Quantity", "Name", "Stock", "Length"]]
        rows += [[6, "bearer", "2x6", 44.5], ["2", "rail", "2x4", "9ft"]]
        parts = self.read(self.book(rows)).json()["parts"]
        self.assertEqual([p["quantity"] for p in parts], [6, 2])
        self.assertEqual(parts[0]["length"]["text"], "44 1/2″")

    def test_faults_of_a_workbook(self) -> None:
        bad = self.book([["quantity", "name", "stock", "length"], [0, "a", "2x99", ""]])
        places = [p["place"] for p in self.read(bad).json()["problems"]]
        self.assertEqual(places, ["line 2, quantity", "line 2, stock", "line 2, length"])
        self.assertIn("no XLSX", str(self.read(b"PK\x03\x04nothing").json()["problems"]))

    def test_a_bomb_is_refused(self) -> None:
        out = io.BytesIO()
        with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:
            packed.writestr("xl/workbook.xml", b"0" * (settings.MAX_UNPACKED_BYTES + 1))
        self.assertEqual(self.read(out.getvalue()).status_code, 413)


class CommandsTest(ApiTestCase):
    @override_settings(QUICK_PLAN_SECONDS=0.3, PLAN_SECONDS=0.5)
    def test_the_demo_comes_with_its_plans(self) -> None:
        with override_settings(ANSWER_WITHIN_SECONDS=0.0):
            call_command("load_demo", stdout=io.StringIO())
        for plan in Plan.objects.all():
            wait_for(plan, 60)
        plans = Plan.objects.values_list("status", flat=True)
        self.assertEqual(list(plans), [Plan.Status.DONE] * Project.objects.count())

    @override_settings(QUICK_PLAN_SECONDS=0.1, PLAN_SECONDS=0.2)
    def test_the_demo_loads_once_and_starts_over(self) -> None:
        call_command("load_demo", verbosity=0, stdout=io.StringIO())
        demo = User.objects.get(username=settings.DEMO_USER)
        self.assertEqual(Project.objects.filter(owner=demo).count(), 6)
        self.assertEqual(Yard.objects.filter(owner=demo).count(), 2)
        Project.objects.filter(owner=demo, name="Bin screen").delete()
        call_command("load_demo", stdout=io.StringIO())
        self.assertEqual(Project.objects.filter(owner=demo).count(), 5)
        call_command("load_demo", "--reset", stdout=io.StringIO())
        self.assertEqual(Project.objects.filter(owner__username=settings.DEMO_USER).count(), 6)

    def test_what_is_proven_of_every_demo_project(self) -> None:
        self.user.delete()
        load_demo()
        self.client.force_login(User.objects.get(username=settings.DEMO_USER))
        for project in Project.objects.all():
            for _ in range(400):
                shown = self.look(project.id)
                if shown["plan"]["status"] == "done":
                    break
                sleep(0.2)
            claim = shown["plan"]["tally"]["claim"]
            if project.rip or project.share_angled_cuts:
                self.assertRegex(
                    claim["headline"],
                    "No cheaper purchase exists|Checked in part|above the least",
                    f"{project.name}, {shown['plan']['status']}",
                )
            elif shown["plan"]["tally"]["later"]:
                self.assertEqual(claim["headline"], "1 part not planned yet", project.name)
                self.assertIn("for the others no cheaper purchase exists", claim["detail"])
                self.assertFalse(claim["proven"])
            else:
                self.assertTrue(claim["proven"], project.name)

    def test_a_backup_can_be_read(self) -> None:
        self.new_project("1 rail 2x4 60")
        with TemporaryDirectory() as folder:
            file = Path(folder) / "copy.sqlite3"
            call_command("backup", str(file), stdout=io.StringIO())
            self.assertIn(b"Cold frame", file.read_bytes())
            with self.assertRaisesRegex(CommandError, "there already"):
                call_command("backup", str(file))
            with self.assertRaisesRegex(CommandError, "no folder"):
                call_command("backup", str(Path(folder) / "no" / "copy"))
