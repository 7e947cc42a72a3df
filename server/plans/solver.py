"""The warm planning processes beside the server, and the jobs they are given.

Every job first gets a moment in the quick lane, where nobody waits long for anybody; what is not
proven there goes on in the long lane, whose process is killed when a job is stopped or outdated by
a newer one for the same project.
"""

import json
import logging
import subprocess
import sys
import threading
import uuid
from collections.abc import Callable, Hashable, Sequence
from dataclasses import dataclass, field
from decimal import Decimal
from time import monotonic
from typing import Any

from django.conf import settings

from carpentry.cutting import Ended
from carpentry.planning import is_settled
from server.plans.turns import Turns

Document = dict[str, Any]
_LEAST_SECONDS = 0.1
_GRACE = 5.0  # seconds beyond its time after which a process is ended
_FIRST_PLAN = 60.0  # seconds in which a process starts and tells first plans, on a busy machine too
logger = logging.getLogger(__name__)


@dataclass
class Job:
    """Cut problems under way, each with the plan ``before`` it, if any, whose boards are kept where
    that costs nothing. Its ``owner`` takes turns with others. It takes so many ``seconds`` at the
    most, where that is said. ``plans`` are the best so far, one per problem, once there are any;
    ``told`` counts how often there were better ones, ``whole`` adds to them what was not asked for
    anew. ``stopped`` and ``failed`` tell how it ended when not by itself, ``outdated`` that a newer
    one of its subject took its place."""

    key: uuid.UUID
    subject: uuid.UUID
    owner: Hashable
    problems: list[Document]
    before: list[Document | None]
    seconds: float | None = None
    plans: list[Document] = field(default_factory=list)
    told: int = 0
    started: float = field(default_factory=monotonic)
    stopped: bool = False
    outdated: bool = False
    failed: bool = False
    finished: threading.Event = field(default_factory=threading.Event)
    settled: threading.Event = field(default_factory=threading.Event)
    whole: Callable[[list[Document]], list[Document]] = list
    _then: "Callable[[Job], None] | None" = None
    _lock: threading.Lock = field(default_factory=threading.Lock)

    @property
    def elapsed(self) -> float:
        """Seconds since it was asked for."""
        return monotonic() - self.started

    @property
    def left(self) -> float:
        """Seconds that it may still take."""
        return float("inf") if self.seconds is None else self.seconds - self.elapsed

    def open_problems(self) -> list[int]:
        """The problems (by index) whose plan is not proven yet."""
        if not self.plans:
            return list(range(len(self.problems)))
        return [index for index, plan in enumerate(self.plans) if not is_settled(plan)]

    def take(self, indices: list[int], plans: list[Document]) -> None:
        """Keeps those of the plans for some problems that are better than what is known."""
        kept = list(self.plans)
        for index, plan in zip(indices, plans, strict=True) if kept else ():
            if is_settled(plan) or _worth(plan) <= _worth(kept[index]):
                kept[index] = plan
        self.plans = kept or plans
        self.told += 1

    def overran(self) -> None:
        """Says of plans that were told on the way that the clock ended them: no more came."""
        self.plans = [{"ended": Ended.CLOCK} | plan for plan in self.plans]

    def wait(self, seconds: float, then: "Callable[[Job], None]") -> bool:
        """Whether it finishes within some seconds; if not, ``then`` is called when it does."""
        if self.finished.wait(seconds):
            return True
        with self._lock:
            if self.finished.is_set():
                return True
            self._then = then
        return False

    def finish(self) -> None:
        """Tells everybody who waits; whoever stores the plans calls ``Solver.forget`` then."""
        with self._lock:
            if self.finished.is_set():
                return
            self.finished.set()
            then = self._then
        if then:
            try:
                then(self)
            except Exception:
                logger.exception("a plan could not be stored")


def _worth(plan: Document) -> tuple[int, Decimal, int]:
    """What plans of one problem are compared by: parts left out, price, pieces."""
    left_out = sum(unplaced["quantity"] for unplaced in plan["unplaced"])
    return left_out, Decimal(plan["price"]), plan["pieces_of_stock"]


class Lane:
    """One planning process and the jobs that wait for it. ``then`` gets each job after its turn.
    Without ``every_proof`` it leaves those for the other that take more than a moment."""

    def __init__(
        self,
        name: str,
        seconds: Callable[[], float],
        then: Callable[[Job], None],
        *,
        every_proof: bool,
    ) -> None:
        self.name = name
        self._every_proof = every_proof
        self._seconds = seconds
        self._then = then
        self._waiting: Turns[Job] = Turns()
        self._current: Job | None = None
        self._process: subprocess.Popen[str] | None = None
        self._thread: threading.Thread | None = None
        self._lock = threading.RLock()

    def put(self, job: Job) -> None:
        with self._lock:
            if self._thread is None:
                self._thread = threading.Thread(target=self._run, name=self.name, daemon=True)
                self._thread.start()
        self._waiting.put(job.owner, job)

    def works_on(self, job: Job) -> bool:
        with self._lock:
            return job is self._current

    def kill(self, job: Job) -> None:
        """Ends the process if it works on this job; the next job finds it gone, not dying."""
        with self._lock:
            if job is self._current and self._process:
                self._process.kill()
                self._process.wait()

    def running_process(self) -> "subprocess.Popen[str]":
        """The process, started if there is none."""
        with self._lock:
            if self._process is None or self._process.poll() is not None:
                self._process = subprocess.Popen(
                    [sys.executable, "-m", "carpentry", "work"],
                    stdin=subprocess.PIPE,
                    stdout=subprocess.PIPE,
                    text=True,
                    cwd=settings.ROOT,
                )
            return self._process

    def close(self) -> None:
        """Ends the process."""
        with self._lock:
            if self._process:
                self._process.kill()
                self._process.wait()
                self._process = None

    def _run(self) -> None:
        while True:
            job = self._waiting.get()
            with self._lock:
                if job.finished.is_set():
                    continue  # stopped before its turn
                self._current = job
            try:
                if not job.stopped:
                    self._work(job)
            except (OSError, ValueError):
                job.failed = not job.stopped  # one that is ended may be in the middle of being told
                if job.failed:
                    logger.exception("the planning process failed")
            with self._lock:
                self._current = None
            self._then(job)

    def _work(self, job: Job) -> None:
        process = self.running_process()
        assert process.stdin and process.stdout
        indices = job.open_problems()
        order = {
            "id": str(job.key),
            "problems": [job.problems[index] for index in indices],
            "before": [job.before[index] for index in indices],
            "seconds": max(_LEAST_SECONDS, min(self._seconds(), job.left)),
            "every_proof": self._every_proof,
        }
        late = _kill_after(process, order["seconds"] + _FIRST_PLAN)
        is_first = True
        try:
            process.stdin.write(json.dumps(order) + "\n")
            process.stdin.flush()
            for line in process.stdout:
                if is_first:
                    is_first = False
                    late.cancel()
                    late = _kill_after(process, order["seconds"] * 1.1 + _GRACE)
                answer = json.loads(line)
                job.take(indices, answer["plans"])
                if answer["done"]:
                    return
        finally:
            late.cancel()
        process.wait()
        job.failed = not job.stopped and not job.plans
        if not job.stopped:
            job.overran()
        self.running_process()


def _kill_after(process: "subprocess.Popen[str]", seconds: float) -> threading.Timer:
    """Starts a timer that ends a process."""
    late = threading.Timer(seconds, process.kill)
    late.daemon = True
    late.start()
    return late


class Solver:
    """Takes jobs, and sends each through the quick lane and, where that proves too little, the
    long one."""

    def __init__(self) -> None:
        self._jobs: dict[uuid.UUID, Job] = {}
        self._lock = threading.RLock()
        self._quick = Lane(
            "quick planning",
            lambda: settings.QUICK_PLAN_SECONDS,
            self._after_quick,
            every_proof=False,
        )
        self._long = Lane(
            "long planning", lambda: settings.PLAN_SECONDS, Job.finish, every_proof=True
        )

    def submit(
        self,
        key: uuid.UUID,
        subject: uuid.UUID,
        problems: list[Document],
        before: Sequence[Document | None] = (),
        seconds: float | None = None,
        *,
        owner: Hashable = None,
        whole: Callable[[list[Document]], list[Document]] = list,
    ) -> Job:
        """Queues the problems of a plan, in turn with those of other owners, with the plans in
        force ``before`` it, for so many seconds at the most where that is said; older jobs of the
        same ``subject`` are stopped."""
        known = list(before) or [None] * len(problems)
        job = Job(key, subject, owner, problems, known, seconds, whole=whole)
        with self._lock:
            for older in [j for j in self._jobs.values() if j.subject == subject]:
                older.outdated = not older.finished.is_set()
                self.stop(older.key)
            self._jobs[key] = job
        self._quick.put(job)
        return job

    def _after_quick(self, job: Job) -> None:
        if job.stopped or job.failed or not job.open_problems() or job.left <= 0:
            job.finish()
        else:
            self._long.put(job)

    def job(self, key: uuid.UUID) -> Job | None:
        """The job of a plan until what it came to is stored."""
        return self._jobs.get(key)

    def forget(self, job: Job) -> None:
        """Ends the memory of a job, once what it came to is stored."""
        self._jobs.pop(job.key, None)
        job.settled.set()

    def stop(self, key: uuid.UUID) -> None:
        """Ends a job, at once where it waits for its turn; what it found last is kept."""
        job = self._jobs.get(key)
        if job and not job.finished.is_set():
            job.stopped = True
            self._long.kill(job)
            if not self._long.works_on(job) and not self._quick.works_on(job):
                job.finish()

    def stop_all(self) -> None:
        """Ends every job."""
        for key in list(self._jobs):
            self.stop(key)

    def warm_up(self) -> None:
        """Starts the processes before the first job needs them."""
        self._quick.running_process()
        self._long.running_process()

    def close(self) -> None:
        """Ends the processes."""
        self._quick.close()
        self._long.close()


solver = Solver()
