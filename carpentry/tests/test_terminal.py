import json
import logging
import subprocess
import sys
from io import StringIO
from pathlib import Path
from tempfile import TemporaryDirectory
from time import sleep
from unittest import TestCase
from unittest.mock import patch

from carpentry.cutting import (
    CutPlan,
    CutProblem,
    Ended,
    Progress,
    check_plan,
    plan_cuts,
    plan_within,
    problem_document,
    read_plan,
    read_problem,
)
from carpentry.language import CarpentryError
from carpentry.tests.problems import home_size
from carpentry.tests.samples import FOLDER, sample
from carpentry.tests.terminal import ROOT, run
from carpentry.worker import Planner


class DaysCommandTest(TestCase):
    ASKED = {
        "zone": "Europe/Berlin",
        "from": "2027-06-07T18:00",
        "steps": [{"id": "glue", "minutes": 30, "wait": "10 h"}],
    }

    def test_days_are_answered_and_what_cannot_be_is_exit_2(self) -> None:
        done = run("days", "-", given=json.dumps(self.ASKED))
        self.assertEqual((done.returncode, done.stderr), (0, ""))
        found = json.loads(done.stdout)
        self.assertEqual((found["ready"], found["late"]), ("2027-06-08T04:30", None))
        done = run(
            "days", "-", given=json.dumps(self.ASKED | {"windows": {}, "off": ["2027-02-31"]})
        )
        self.assertEqual((done.returncode, done.stdout), (2, ""))
        self.assertIn("off[0]: “2027-02-31” is no day", done.stderr)
        done = run("days", "-", given=json.dumps(self.ASKED | {"windows": {}}))
        self.assertEqual(done.returncode, 2)
        self.assertIn("windows: no free hours", done.stderr)


class ProcessTest(TestCase):
    def test_a_command_is_answered_by_a_process_of_its_own(self) -> None:
        """The other tests of commands run within this process, which is quicker."""
        command = [sys.executable, "-m", "carpentry", "plan", "-"]
        asked = {"stock": [{"id": "a", "length": "96", "price": "5"}]}
        for length, code in (("50", 0), ("100", 3), ("9x", 2)):
            text = json.dumps(asked | {"parts": [{"id": "x", "length": length}]})
            done = subprocess.run(
                command, input=text, capture_output=True, text=True, cwd=ROOT, check=False
            )
            self.assertEqual((done.returncode, bool(done.stdout)), (code, code != 2), done.stderr)


class PlanCommandTest(TestCase):
    def test_the_sample_is_planned(self) -> None:
        file = str(FOLDER / "short-run.cut.json")
        done = run("plan", file)
        self.assertEqual((done.returncode, done.stderr), (0, ""))
        plan = json.loads(done.stdout)
        self.assertEqual((plan["status"], plan["price"]), ("optimal", "41.80"))
        problem = read_problem(sample("short-run.cut.json"))
        check_plan(problem, read_plan(plan, problem.unit))

    def test_a_search_that_never_ends_is_ended(self) -> None:
        """What the search told last is the plan, however long it would go on."""
        given = home_size(3)

        def endless(problem: CutProblem, budget: object, progress: Progress) -> CutPlan:
            plan = plan_cuts(problem)
            progress(plan)
            while True:
                sleep(60)

        with patch("carpentry.cutting.within.plan_cuts", endless):
            plan = plan_within(given, 0.2)
        self.assertEqual((plan.price, plan.ended), (plan_cuts(given).price, Ended.CLOCK))

        def broken(*arguments: object) -> CutPlan:
            raise RuntimeError

        logging.disable(logging.CRITICAL)
        self.addCleanup(logging.disable, logging.NOTSET)
        with (
            patch("carpentry.cutting.within.plan_cuts", broken),
            patch("sys.stderr", new_callable=StringIO),
        ):
            plan = plan_within(given, 0.2)
        check_plan(given, plan)

    def test_parts_that_cannot_be_placed(self) -> None:
        text = json.dumps(
            {
                "stock": [{"id": "a", "length": "96", "price": "5"}],
                "parts": [{"id": "x", "length": "100"}, {"id": "y", "length": "50"}],
            }
        )
        done = run("plan", "-", given=text)
        self.assertEqual(done.returncode, 3)
        plan = json.loads(done.stdout)
        self.assertEqual(plan["status"], "incomplete")
        self.assertEqual([u["part"] for u in plan["unplaced"]], ["x"])
        self.assertEqual(plan["pieces_of_stock"], 1)

    def test_wrong_input_goes_to_stderr_with_its_path(self) -> None:
        text = json.dumps({"stock": [{"id": "a", "length": "9x", "price": "cheap"}], "parts": []})
        done = run("plan", "-", given=text)
        self.assertEqual((done.returncode, done.stdout), (2, ""))
        self.assertIn("stock[0].length: ", done.stderr)
        self.assertIn("stock[0].price: ", done.stderr)
        self.assertEqual(run("plan", "/no/such/file").returncode, 2)


class WorkOutCommandTest(TestCase):
    def test_measures_are_worked_out_from_a_file_or_standard_input(self) -> None:
        measures = {"opening": "57 1/2", "rail": "opening - 2 * 1 3/4"}
        document = json.dumps({"units": "in", "round": "1/32", "measures": measures})
        with TemporaryDirectory() as folder:
            file = Path(folder) / "measures.json"
            file.write_text(document)
            for ran in (run("work-out", str(file)), run("work-out", "-", given=document)):
                self.assertEqual((ran.returncode, ran.stderr), (0, ""))
                self.assertEqual(
                    json.loads(ran.stdout)["measures"]["rail"],
                    {"kind": "number", "value": "54", "exact": True},
                )

    def test_every_fault_has_a_line_of_its_own(self) -> None:
        measures = {"rail": "opning - 2", "opening": "72", "leg": "1 / 0"}
        ran = run("work-out", "-", given=json.dumps({"measures": measures}))
        self.assertEqual((ran.returncode, ran.stdout), (2, ""))
        self.assertEqual(
            ran.stderr.splitlines(),
            [
                "measures.rail: “opning” is not known. Nearest known: opening",
                "measures.leg: nothing can be divided by 0",
            ],
        )
        self.assertEqual(run("work-out", "nowhere.json").returncode, 2)


class RunCommandTest(TestCase):
    def test_a_run_is_laid(self) -> None:
        asked = {"units": "mm", "along": "1210", "item": "88.9", "gap": "40", "ends": "half-gap"}
        ran = run("run", "-", given=json.dumps(asked))
        self.assertEqual((ran.returncode, ran.stderr), (0, ""))
        told = json.loads(ran.stdout)
        self.assertEqual((told["count"], told["exact_gap"]), (9, "45.544444"))

    def test_every_fault_has_a_line_of_its_own(self) -> None:
        ran = run("run", "-", given='{"along": "72", "item": "0", "count": "3", "of": "oak"}')
        self.assertEqual((ran.returncode, ran.stdout), (2, ""))
        self.assertEqual(ran.stderr.splitlines(), ["item: must be above 0", "of: is no field here"])


class ProblemFileTest(TestCase):
    def test_a_problem_reads_back(self) -> None:
        for seed in range(5):
            problem = home_size(seed)
            self.assertEqual(read_problem(json.dumps(problem_document(problem))), problem)

    def test_every_fault_by_its_path(self) -> None:
        good = json.loads(sample("short-run.cut.json"))
        piece, part = good["stock"][0], good["parts"][0]
        for change, path, words in (
            ({"units": "ft"}, "units", "one of in, mm"),
            ({"format": "other@1"}, "format", "must be"),
            ({"kerf": "100"}, "kerf", "wider than the shortest part"),
            ({"kerf": 0.125}, "kerf", "must be text"),
            ({"trim": {"start": "x"}}, "trim.start", "a number is expected"),
            ({"trim": {"middle": "1"}}, "trim.middle", "no field"),
            ({"colour": "red"}, "colour", "no field"),
            ({"stages": 2}, "stages", "not planned yet"),
            ({"parts": []}, "parts", "nothing to plan"),
            ({"parts": "all"}, "parts", "must be a list"),
            ({"parts": [1]}, "parts[0]", "must be an object"),
            ({"parts": [part, part]}, "parts[1].id", "there twice"),
            ({"parts": [part | {"quantity": 0}]}, "parts[0].quantity", "from 1"),
            ({"parts": [part | {"quantity": "2"}]}, "parts[0].quantity", "whole number"),
            ({"parts": [part | {"quantity": 20000}]}, "parts[0].quantity", "10,000"),
            ({"parts": [part | {"length": "0"}]}, "parts[0].length", "more than 0"),
            ({"parts": [part | {"length": "-3"}]}, "parts[0].length", "a number is expected"),
            ({"parts": [part | {"ends": ["30", "0"]}]}, "parts[0].width", "angled end needs it"),
            ({"parts": [part | {"ends": ["80", "0"]}]}, "parts[0].ends", "no saw cuts that"),
            ({"parts": [part | {"ends": ["30"]}]}, "parts[0].ends", "two angles"),
            ({"parts": [part | {"ends": "30"}]}, "parts[0].ends", "list of texts"),
            ({"parts": [part | {"measured": "over"}]}, "parts[0].measured", "one of"),
            ({"parts": [part | {"on": ["a"]}]}, "parts[0].on", "no stock of this problem"),
            ({"stock": [piece | {"width": "3 1/2"}]}, "parts", "no thickness and width"),
            ({"parts": [part | {"width": "1", "thickness": "1"}]}, "stock[0].width", "missing"),
            ({"parts": [part | {"width": "0"}]}, "parts[0].width", "more than 0"),
            ({"parts": [part | {"extra": {"depth": "1"}}]}, "parts[0].extra.depth", "no field"),
            ({"parts": [part | {"turn": "no"}]}, "parts[0].turn", "true or false"),
            ({"order": "any"}, "order", "one of"),
            ({"stock": [piece | {"flaws": [{}]}]}, "stock[0].flaws[0].to", "missing"),
            ({"stock": [piece | {"price": 7.15}]}, "stock[0].price", "must be text"),
            ({"stock": [piece | {"price": "-1"}]}, "stock[0].price", "is no price"),
            ({"stock": [piece | {"available": -1}]}, "stock[0].available", "from 0"),
            ({"stock": [{"length": "9"}]}, "stock[0].id", "missing"),
        ):
            with self.assertRaises(CarpentryError, msg=path) as caught:
                read_problem(json.dumps(good | change))
            told = {problem.place: problem.message for problem in caught.exception.problems}
            self.assertIn(words, told.get(path, f"nothing said at {path}: {told}"))

    def test_what_is_no_json(self) -> None:
        endless = f'{{"kerf": {"1" * 5_000}}}'
        twice = '{"kerf": "1/8", "kerf": "0"}'
        for text in ("", "[]", "{", '{"kerf": NaN}', "null", endless, twice, "[" * 100_000):
            with self.assertRaises(CarpentryError, msg=text):
                read_problem(text)


class WorkerTest(TestCase):
    def test_jobs_are_answered_and_remembered(self) -> None:
        said: list[dict[str, object]] = []
        planner = Planner(said.append)
        job = {"id": "1", "seconds": 10, "problems": [problem_document(home_size(6))]}
        planner.work(job)
        self.assertTrue(said[-1]["done"])
        self.assertFalse(said[0]["done"])
        answers = len(said)
        planner.work(job | {"id": "2"})
        self.assertEqual(len(said), answers + 1)
        self.assertEqual(said[-1]["plans"], said[-2]["plans"])
        self.assertEqual(said[-1]["id"], "2")
