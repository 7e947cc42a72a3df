import json
import subprocess
import sys
import time
import uuid
from concurrent.futures import ThreadPoolExecutor
from typing import Any
from unittest import TestCase
from unittest.mock import patch

from django.test import override_settings

from carpentry.cutting import first_plan, plan_document, problem_document
from carpentry.language import Unit
from carpentry.tests.problems import home_size, problem
from server.plans.solver import Job, Lane, Solver
from server.plans.turns import Turns

SMALL = problem_document(problem([("96", "5.00", None)], [("40", 3)]))


def hard(seed: int = 0) -> dict[str, Any]:
    """A problem that keeps the planner busy for seconds: hundreds of triples of one length."""
    import random

    chance = random.Random(seed)
    lengths: list[int] = []
    while len(lengths) < 501:
        large, middle = chance.randint(380, 490), chance.randint(250, 370)
        if 250 <= 1000 - large - middle < middle:
            lengths += [large, middle, 1000 - large - middle]
    return {
        "units": "mm",
        "stock": [{"id": "s", "length": "1000", "price": "1"}],
        "parts": [
            {"id": str(n), "length": str(n), "quantity": lengths.count(n)}
            for n in sorted(set(lengths))
        ],
    }


class TurnsTest(TestCase):
    def test_owners_take_turns_and_keep_their_order(self) -> None:
        turns: Turns[str] = Turns()
        for owner, thing in (("a", "a1"), ("a", "a2"), ("a", "a3"), ("b", "b1"), ("c", "c1")):
            turns.put(owner, thing)
        self.assertEqual([turns.get() for _ in range(3)], ["a1", "b1", "c1"])
        turns.put("b", "b2")
        self.assertEqual([turns.get() for _ in range(3)], ["a2", "b2", "a3"])

    def test_who_asks_first_waits_for_something(self) -> None:
        turns: Turns[str] = Turns()
        with ThreadPoolExecutor(1) as pool:
            got = pool.submit(turns.get)
            turns.put("a", "a1")
            self.assertEqual(got.result(10), "a1")


class SolverTest(TestCase):
    solver: Solver

    @classmethod
    def setUpClass(cls) -> None:
        cls.solver = Solver()
        cls.addClassCleanup(cls.solver.close)

    def submit(self, *problems: dict[str, Any], subject: uuid.UUID | None = None) -> Job:
        return self.solver.submit(uuid.uuid4(), subject or uuid.uuid4(), list(problems))

    def test_a_job_is_planned(self) -> None:
        job = self.submit(SMALL, problem_document(home_size(2)))
        self.assertTrue(job.finished.wait(30))
        self.assertFalse(job.failed or job.stopped)
        self.assertEqual([plan["status"] for plan in job.plans], ["optimal", "optimal"])

    def test_a_job_that_is_ended_while_it_is_told_has_not_failed(self) -> None:
        def ended(lane: Lane, job: Job) -> None:
            job.stopped = True
            raise BrokenPipeError

        with patch.object(Lane, "_work", ended), self.assertNoLogs("server.plans.solver"):
            job = self.submit(SMALL)
            self.assertTrue(job.finished.wait(10))
        self.assertEqual((job.stopped, job.failed), (True, False))

    def test_who_waits_too_short_is_told_later(self) -> None:
        told: list[Job] = []
        job = self.submit(hard(1))
        self.assertFalse(job.wait(0.01, told.append))
        self.solver.stop(job.key)
        self.assertTrue(job.finished.wait(30))
        for _ in range(50):
            if told:
                break
            time.sleep(0.05)
        self.assertEqual(told, [job])

    def test_a_stopped_job_keeps_its_best(self) -> None:
        job = self.submit(hard(2))
        while not job.plans and not job.finished.is_set():
            time.sleep(0.02)
        self.solver.stop(job.key)
        self.assertTrue(job.finished.wait(30))
        self.assertTrue(job.stopped)
        self.assertEqual(len(job.plans), 1)
        after = self.submit(SMALL)
        self.assertTrue(after.finished.wait(30))
        self.assertFalse(after.failed)

    def test_a_newer_job_of_the_same_project_ends_the_older(self) -> None:
        subject = uuid.uuid4()
        older = self.submit(hard(3), subject=subject)
        newer = self.submit(SMALL, subject=subject)
        self.assertTrue(older.finished.wait(30))
        self.assertTrue(newer.finished.wait(30))
        self.assertTrue(older.stopped)
        self.assertFalse(newer.stopped)

    def test_a_long_job_keeps_nobody_waiting(self) -> None:
        long_one = self.submit(hard(5))
        while not long_one.elapsed > 1.5:
            time.sleep(0.05)
        small = self.submit(SMALL)
        self.assertTrue(small.finished.wait(10))
        self.assertFalse(long_one.finished.is_set())
        self.solver.stop(long_one.key)
        self.assertTrue(long_one.finished.wait(30))

    @override_settings(PLAN_SECONDS=60.0)
    def test_a_job_that_waits_is_stopped_before_its_turn(self) -> None:
        first, second = self.submit(hard(5)), self.submit(hard(6))
        while not second.elapsed > 4:
            time.sleep(0.05)
        self.solver.stop(second.key)
        self.assertTrue(second.finished.wait(15))
        self.assertFalse(first.finished.is_set())
        self.solver.stop_all()
        self.assertTrue(first.finished.wait(30))
        after = self.submit(SMALL)
        self.assertTrue(after.finished.wait(30))
        self.assertFalse(after.stopped)

    def test_a_crash_fails_one_job_only(self) -> None:
        broken = self.submit({"parts": "none of this is a problem"})
        self.assertTrue(broken.finished.wait(30))
        self.assertTrue(broken.failed)
        after = self.submit(SMALL)
        self.assertTrue(after.finished.wait(30))
        self.assertFalse(after.failed)

    @override_settings(QUICK_PLAN_SECONDS=0.1, PLAN_SECONDS=0.2)
    def test_a_process_that_does_not_end_is_ended(self) -> None:
        """It told a plan and then never came back: the plan stays, and the next job is planned."""
        told = plan_document(first_plan(home_size(1)), Unit.INCH)
        endless = (
            "import sys, time; sys.stdin.readline(); print(sys.argv[1], flush=True); time.sleep(99)"
        )
        answer = json.dumps({"id": "", "plans": [told | {"status": "feasible"}], "done": False})
        solver = Solver()
        self.addCleanup(solver.close)
        for lane in (solver._quick, solver._long):
            lane._process = subprocess.Popen(
                [sys.executable, "-c", endless, answer],
                stdin=subprocess.PIPE,
                stdout=subprocess.PIPE,
                text=True,
            )
        with patch("server.plans.solver._GRACE", 0.2):
            job = solver.submit(uuid.uuid4(), uuid.uuid4(), [problem_document(home_size(1))])
            self.assertTrue(job.finished.wait(30))
        self.assertFalse(job.failed)
        self.assertEqual(job.plans[0]["price"], told["price"])
        after = solver.submit(uuid.uuid4(), uuid.uuid4(), [SMALL])
        self.assertTrue(after.finished.wait(30))
        self.assertFalse(after.failed)

    @override_settings(PLAN_SECONDS=1.0)
    def test_the_time_limit_ends_with_a_bound(self) -> None:
        job = self.submit(hard(4))
        self.assertTrue(job.finished.wait(60))
        plan = job.plans[0]
        self.assertLessEqual(float(plan["bound"]), float(plan["price"]))

    def test_a_job_is_known_until_it_is_forgotten(self) -> None:
        job = self.submit(SMALL)
        self.assertTrue(job.finished.wait(30))
        self.assertIs(self.solver.job(job.key), job)
        self.solver.forget(job)
        self.assertIsNone(self.solver.job(job.key))
        self.assertTrue(job.settled.is_set())
        self.solver.stop(job.key)
