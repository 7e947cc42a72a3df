"""One purchase, one sum: desk, list, projects, yard, paper and terminal say the same of every
project of the demo workshop, whatever has happened to it."""

import io
import uuid
from time import monotonic, sleep
from typing import Any

from django.conf import settings
from pypdf import PdfReader

from carpentry.planning import build_document, plan_all, work_up_files
from carpentry.project import read_project_file, read_yard_file
from carpentry.tests import TORTURE
from server.accounts.models import User
from server.projects.models import Project
from server.tests.base import ApiTestCase
from server.tests.demo import load_demo

MOST_SECONDS = 60.0


class SumsTest(ApiTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.user.delete()
        load_demo()
        self.client.force_login(User.objects.get(username=settings.DEMO_USER))

    def take(self, path: str) -> bytes:
        answer: Any = self.client.get(f"/api{path}")
        self.assertEqual(answer.status_code, 200, path)
        return b"".join(answer) if answer.streaming else bytes(answer.content)

    def planned(self, project: Project) -> dict[str, Any]:
        """Its plan, once planning is over."""
        until = monotonic() + MOST_SECONDS
        while (plan := self.look(str(project.id))["plan"])["status"] in ("queued", "running"):
            self.assertLess(monotonic(), until, project.name)
            sleep(0.05)
        return dict(plan)

    def same_everywhere(self, project: Project) -> dict[str, Any]:
        """What all places say of a project; the plan that they say it of."""
        plan = self.planned(project)
        tally, shopping = plan["tally"], plan["shopping"]
        said = (project.name, shopping["total_note"])
        rows = {row["name"]: row for row in self.ask("get", "/overview").json()}
        if tally["cost"] is not None:
            self.assertEqual(tally["cost"], shopping["subtotal"], said)
            self.assertEqual(rows[project.name]["cost"], tally["cost"], said)
        self.assertEqual(rows[project.name]["boards"], tally["boards"] + tally["spare"], said)
        self.assertEqual(rows[project.name]["proven"], tally["claim"]["proven"], said)
        if tally["with_tax"] is not None:
            self.assertEqual(tally["with_tax"], shopping["wood_total"], said)
        folder = f"/projects/{project.id}"
        paper = PdfReader(io.BytesIO(self.take(f"{folder}/shopping-list.pdf"))).pages
        on_paper = "".join(page.extract_text() for page in paper)
        as_text = self.take(f"{folder}/shopping-list.txt").decode()
        for told in (on_paper, as_text):
            self.assertIn(shopping["total"], told, said)
        return plan

    def test_as_they_are(self) -> None:
        compared = 0
        for project in Project.objects.all():
            plan = self.same_everywhere(project)
            if project.rack != "never" or project.rip:
                continue
            compared += 1
            folder = f"/projects/{project.id}"
            file = read_project_file(self.take(f"{folder}/project.json"))
            yard = read_yard_file(self.take(f"/yards/{project.yard_id}/yard.json"))
            work = work_up_files(file, yard)
            document = build_document(work, plan_all(work, 20))
            money = plan["shopping"]["total"].lstrip("$").replace(",", "")
            self.assertEqual(document["tally"]["total"], money, project.name)
            wood = plan["shopping"]["subtotal"].lstrip("$").replace(",", "")
            self.assertEqual(document["tally"]["wood"], wood, project.name)
        self.assertGreater(compared, 1)

    def quick_ones(self) -> list[Project]:
        """Those whose boards are not ripped, or all in the long run."""
        return [one for one in Project.objects.all() if TORTURE or not one.rip]

    def test_with_a_price_missing(self) -> None:
        for project in self.quick_ones():
            if not project.yard:
                continue
            line = project.yard.lines.first()
            assert line is not None
            kept = line.price
            line.price = ""
            line.yard = project.yard
            line.save()
            self.same_everywhere(project)
            line.price = kept
            line.save()

    def test_at_the_yard_and_after_buying_and_cutting(self) -> None:
        for project in self.quick_ones():
            plan = self.same_everywhere(project)
            if not plan["tally"]["boards"] or plan["tally"]["unplaced"]:
                continue
            trip = self.ask("post", f"/projects/{project.id}/trips", {"id": str(uuid.uuid4())})
            self.assertEqual(trip.json()["total"], plan["shopping"]["total"], project.name)
            lines = [one for rack in trip.json()["racks"] for one in rack["lines"]]
            events = [
                {"id": str(uuid.uuid4()), "kind": "took", "line": one["key"]}
                for one in lines
                for _ in range(one["wanted"])
            ]
            self.ask("post", f"/trips/{trip.json()['id']}/events", {"events": events})
            body = {"change_id": str(uuid.uuid4()), "put_away": True}
            receipt = self.ask("post", f"/trips/{trip.json()['id']}/finish", body).json()
            self.assertEqual(receipt["paid"], plan["shopping"]["total"], project.name)
            bought = self.same_everywhere(project)
            marked = self.ask(
                "post", f"/plans/{bought['id']}/cut", {"change_id": str(uuid.uuid4())}
            )
            self.assertEqual(marked.status_code, 200, marked.content)
            spent = self.ask("get", f"/projects/{project.id}/spent").json()
            self.assertEqual(spent["total"], receipt["paid"], project.name)
            rows = {row["name"]: row for row in self.ask("get", "/overview").json()}
            self.assertEqual(rows[project.name]["cost"], spent["total"], project.name)

    def test_cut_without_a_receipt(self) -> None:
        """What a project has cost by the list is what the list said, hardware and tax too."""
        for project in self.quick_ones():
            plan = self.same_everywhere(project)
            if plan["tally"]["unplaced"] or plan["shopping"]["total_note"]:
                continue
            marked = self.ask("post", f"/plans/{plan['id']}/cut", {"change_id": str(uuid.uuid4())})
            self.assertEqual(marked.status_code, 200, marked.content)
            spent = self.ask("get", f"/projects/{project.id}/spent").json()
            self.assertEqual(spent["total"], plan["shopping"]["total"], project.name)
