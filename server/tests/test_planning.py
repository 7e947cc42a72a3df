"""Plans of a project: asked for once, taken over where they are known, dropped where outdated."""

import threading
import time
import uuid
from typing import Any
from unittest.mock import patch

from django.db import connection
from django.test import override_settings

from carpentry.tests.samples import sample
from server.history.models import Conflict, shortened
from server.history.showing import shown
from server.plans import making
from server.plans.making import find_plan, plan_for, settled_plan, wait_for
from server.plans.models import Plan, PlanOfVersion
from server.plans.resting import work_up
from server.plans.solver import solver
from server.projects.models import Project
from server.rack.models import Rack
from server.stocks.models import OwnMaterials
from server.tests.base import ApiTestCase
from server.yards.models import Yard

HARD = "\n".join(f"{3 + n % 9} p{n} 2x4 {11 + n}.{n:02d}" for n in range(80))


class PlansTest(ApiTestCase):
    def row(self, project: dict[str, Any]) -> Project:
        return Project.objects.get(id=project["id"])

    def await_boards(self, plan: str) -> None:
        """Waits for the first boards of a plan under way."""
        for _ in range(200):
            seen = self.ask("get", f"/plans/{plan}").json()
            if seen["materials"][0]["layouts"]:
                return
            time.sleep(0.05)
        self.fail("no board was planned")

    def test_it_is_asked_for_once(self) -> None:
        project = self.new_project("3 rail 2x4 40")
        for _ in range(3):
            again = self.look(project["id"])
        self.assertEqual(again["plan"]["id"], project["plan"]["id"])
        self.assertEqual(PlanOfVersion.objects.get(number=project["version"]).plan.status, "done")

    def test_a_trim_that_goes_goes_from_boards_that_are_planned(self) -> None:
        project = self.new_project(
            "7 rail 2x4 40\n9 post 2x4 29\n11 slat 2x4 21 3/4\n5 sill 2x4 17"
        )
        self.assertEqual(self.first_cuts(), {"1/2"})
        project = self.change(project, "patch", "", trim_start="0", trim_end="0").json()
        self.assertEqual(self.first_cuts(), {"0"})

    def test_other_boards_at_the_same_cost_are_told(self) -> None:
        prices = b"yard,stock,length,price\nMill,2x4,8ft,4.00\nMill,2x4,10ft,4.00"
        yard = self.take_prices(prices)[0]["id"]
        project = self.new_project("1 rail 2x4 90", yard=yard)
        id_ = project["parts"][0]["id"]
        project = self.change(project, "patch", f"/parts/{id_}", length="100").json()
        self.assertIn("1 × 2x4 8 ft became 1 × 2x4 10 ft", project["plan"]["effect"])
        project = self.change(project, "patch", f"/parts/{id_}", length="101").json()
        self.assertIn("same purchase", project["plan"]["effect"])

    def test_the_list_of_projects_claims_no_more_than_the_desk(self) -> None:
        project = self.new_project("3 rail 2x4 40")
        self.assertEqual(self.listed(), [True])
        planed = self.change(project, "post", "/parts", text="1 lid ply 1/2 20x20").json()
        self.assertFalse(planed["plan"]["tally"]["claim"]["proven"])
        self.assertEqual(self.listed(), [False])

    def test_a_claim_has_its_proof(self) -> None:
        """Three of 40 are two boards: one of 8 ft holds two, and no shorter purchase three."""
        prices = b"yard,stock,length,price\nMill,2x4,8ft,4.00\n"
        project = self.new_project("3 rail 2x4 40", yard=self.take_prices(prices)[0]["id"])
        plan = project["plan"]
        self.assertTrue(plan["tally"]["claim"]["checked"])
        (proof,) = self.ask("get", f"/plans/{plan['id']}/proof").json()
        (count,) = proof["counts"]
        self.assertEqual(proof["of"], "2x4")
        self.assertEqual(count["parts"], [{"part": "A rail", "counts": 1}])
        self.assertEqual(count["needed"], 3)
        self.assertEqual(count["boards"], [{"board": "2x4 8 ft", "price": "$4.00", "holds": 2}])
        self.assertEqual(proof["says"], "No boards under $8.00 hold 3.")
        self.change(project, "post", "/parts", text="1 post 4x4 40")
        self.assertEqual(self.ask("get", f"/plans/{plan['id']}/proof").status_code, 410)

    def test_without_an_accepted_proof_nothing_is_claimed(self) -> None:
        work = work_up(self.row(self.new_project("3 rail 2x4 40")))
        plan = Plan.objects.exclude(outcome=[]).get()
        (document,) = plan.outcome
        proof = document["proof"]
        for spoiled in (
            proof | {"lines": []},
            proof | {"price": "1.00"},
            proof | {"lines": [proof["lines"][0] | {"needed": 99}]},
            {"format": "another"},
        ):
            (checked,) = work.with_proofs_checked([document | {"proof": spoiled}])
            self.assertNotIn("proof", checked)
            claim = work.tally(work.plans([checked])).claim
            self.assertFalse(claim.proven)
            self.assertEqual(claim.headline, "Nothing shorter was found")
        self.assertEqual(work.with_proofs_checked([document]), [document])

    def listed(self) -> list[bool]:
        return [row["proven"] for row in self.ask("get", "/overview").json()]

    def first_cuts(self) -> set[str]:
        """Where the first parts of the newest plan's boards begin."""
        plan = Plan.objects.exclude(outcome=[]).order_by("-asked")[0]
        return {layout["parts"][0]["x"][0] for layout in plan.outcome[0]["layouts"]}

    def test_two_who_ask_at_once_get_one_plan(self) -> None:
        project = self.row(self.new_project("3 rail 2x4 40"))
        Plan.objects.all().delete()
        found: list[Plan] = []

        def ask() -> None:
            mine = Project.objects.get(id=project.id)
            found.append(plan_for(mine, work_up(mine)))
            connection.close()

        threads = [threading.Thread(target=ask) for _ in range(4)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        self.assertEqual(len({plan.id for plan in found}), 1)
        self.assertEqual(Plan.objects.count(), 1)

    def test_what_is_proven_of_a_wood_is_taken_over(self) -> None:
        project = self.new_project("3 rail 2x4 40\n2 slat 1x6 cedar 30")
        asked: list[int] = []
        submit = solver.submit

        def counted(*args: Any, **options: Any) -> Any:
            asked.append(len(args[2]))
            return submit(*args, **options)

        part = f"/parts/{project['parts'][0]['id']}"
        with patch.object(solver, "submit", counted):
            changed = self.change(project, "patch", part, length="41").json()
        self.assertEqual(asked, [1])
        old, new = project["plan"]["materials"][1], changed["plan"]["materials"][1]
        self.assertEqual(old["summary"], new["summary"])

    def test_a_project_without_anything_to_plan(self) -> None:
        plan = self.new_project()["plan"]
        self.assertEqual((plan["status"], plan["materials"]), ("done", []))

    @override_settings(ANSWER_WITHIN_SECONDS=0.01, PLAN_SECONDS=30.0)
    def test_one_that_was_outdated_is_not_kept(self) -> None:
        """An undo would find it stopped, which nobody did."""
        project = self.new_project(HARD)
        first = project["plan"]["id"]
        self.assertEqual(project["plan"]["status"], "running")
        part = f"/parts/{project['parts'][0]['id']}"
        changed = self.change(project, "patch", part, length="12").json()
        for _ in range(200):
            if not Plan.objects.filter(id=first).exists():
                break
            time.sleep(0.05)
        self.assertFalse(Plan.objects.filter(id=first).exists())
        back = self.change(changed, "post", "/undo").json()
        self.assertEqual(back["plan"]["status"], "running")
        self.assertEqual(self.ask("get", f"/plans/{first}").status_code, 404)

    @override_settings(ANSWER_WITHIN_SECONDS=0.01, PLAN_SECONDS=2.0)
    def test_one_goes_on_until_its_time_is_up(self) -> None:
        plan = self.new_project(HARD)["plan"]
        self.assertEqual(plan["status"], "running")
        wait_for(Plan.objects.get(id=plan["id"]), 60.0)
        plan = self.ask("get", f"/plans/{plan['id']}").json()
        self.assertEqual(plan["status"], "done")
        self.assertTrue(plan["materials"][0]["layouts"])

    @override_settings(ANSWER_WITHIN_SECONDS=0.01, PLAN_SECONDS=30.0)
    def test_one_that_was_stopped_is_kept_and_taken_up(self) -> None:
        project = self.new_project(HARD)
        self.await_boards(project["plan"]["id"])
        stopped = self.ask("post", f"/plans/{project['plan']['id']}/stop", {}).json()
        self.assertEqual(stopped["status"], "stopped")
        self.assertTrue(stopped["materials"][0]["layouts"])
        self.assertEqual(self.look(project["id"])["plan"]["id"], stopped["id"])
        again = self.ask("post", f"/projects/{project['id']}/plans?again=true", {}).json()
        self.assertNotEqual(again["id"], stopped["id"])
        self.assertEqual(again["status"], "running")

    def test_one_that_an_ended_server_left_is_made_anew(self) -> None:
        project = self.new_project("3 rail 2x4 40")
        Plan.objects.update(status=Plan.Status.RUNNING, outcome=[])
        row = self.row(project)
        self.assertIsNone(find_plan(row, work_up(row)))
        again = self.look(project["id"])["plan"]
        self.assertEqual(again["status"], "done")
        self.assertNotEqual(again["id"], project["plan"]["id"])

    def test_one_that_is_gone_while_it_is_waited_for(self) -> None:
        project = self.new_project("3 rail 2x4 40")
        plan = Plan.objects.get(id=project["plan"]["id"])
        plan.status = Plan.Status.RUNNING
        Plan.objects.all().delete()
        wait_for(plan, 0)
        self.assertEqual(plan.status, "failed")
        row = self.row(project)
        self.assertEqual(len(settled_plan(row, work_up(row), 20)), 1)
        self.assertEqual(Plan.objects.count(), 0)

    def test_nothing_is_reckoned_while_nobody_else_can_write(self) -> None:
        project = self.row(self.new_project("3 rail 2x4 40"))
        Plan.objects.all().delete()
        inside: list[bool] = []
        number = making.numbered_boards

        def numbered(*args: Any) -> Any:
            inside.append(connection.in_atomic_block)
            return number(*args)

        with patch.object(making, "numbered_boards", numbered):
            plan_for(project, work_up(project))
        self.assertEqual(inside, [False])


class WorkedUpTest(ApiTestCase):
    """What is worked up is kept by its state: never longer."""

    def setUp(self) -> None:
        super().setUp()
        self.take_prices(sample("tallow-street.prices.csv"))
        self.yard = Yard.objects.get()
        shown_ = self.new_project("3 rail 2x4 treated 40", yard=str(self.yard.id))
        self.project = Project.objects.get(id=shown_["id"])
        self.work = work_up(self.project)

    def changes(self, subject: Any, make: Any) -> None:
        subject.change(subject.version, uuid.uuid4(), "changed", make)

    def test_it_is_the_same_while_nothing_changes(self) -> None:
        self.assertIs(work_up(Project.objects.get(id=self.project.id)), self.work)

    def test_another_part_price_board_or_material(self) -> None:
        def more_kerf(project: Project) -> None:
            project.kerf = "3/32"

        def fewer_lines(yard: Yard) -> None:
            yard.lines.filter(stock="2x4 treated").delete()

        before = self.work
        for subject, make in (
            (self.project, more_kerf),
            (self.yard, fewer_lines),
            (Rack.of(self.user), lambda rack: None),
            (OwnMaterials.of(self.user), lambda mine: None),
        ):
            self.changes(subject, make)
            now = work_up(self.project)
            self.assertIsNot(now, before, subject)
            before = now
        self.assertEqual(before.settings.kerf.text, "3/32")

    def test_a_yard_that_is_gone(self) -> None:
        self.yard.delete()
        self.assertEqual(work_up(self.project).source, "standard lengths")


class ConflictsTest(ApiTestCase):
    def test_every_thing_with_a_version_says_how_it_is_shown(self) -> None:
        self.take_prices(sample("tallow-street.prices.csv"))
        project = Project.objects.get(id=self.new_project()["id"])
        for thing in (project, Yard.objects.get(), Rack.of(self.user), OwnMaterials.of(self.user)):
            self.assertEqual(shown(thing).version, thing.version, thing)

    def test_a_change_from_an_older_version_gets_both_states(self) -> None:
        rack = {"version": 7, "change_id": str(uuid.uuid4()), "stock": "2x4", "length": "70"}
        answer = self.ask("put", f"/rack/boards/{uuid.uuid4()}", rack)
        self.assertEqual((answer.status_code, answer.json()["current"]["version"]), (409, 1))
        self.assertIsNone(answer.json()["seen"])
        with self.assertRaises(Conflict):
            Rack.of(self.user).change(7, uuid.uuid4(), "board", lambda rack: None)

    def test_a_long_label_is_shortened(self) -> None:
        self.assertEqual(shortened("x" * 200), "x" * 200)
        self.assertEqual(shortened("x" * 201), "x" * 199 + "…")
