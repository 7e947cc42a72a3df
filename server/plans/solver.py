"""The warm planning process beside the server, and the jobs it is given.

There is one process and one job at a time; a job that is stopped, or outdated by a newer one for
the same project, takes the process with it, and a new one starts at once.
"""

import json
import logging
import queue
import subprocess
import sys
import threading
import uuid
from collections.abc import Callable
from dataclasses import dataclass, field
from time import monotonic
from typing import Any

from django.conf import settings

Documents = list[dict[str, Any]]
logger = logging.getLogger(__name__)


@dataclass
class Job:
    """Cut problems under way. ``plans`` are the best so far, one per problem, once there are any;
    ``stopped`` and ``failed`` tell how it ended when not by itself."""

    key: uuid.UUID
    subject: uuid.UUID
    problems: Documents
    plans: Documents = field(default_factory=list)
    started: float = field(default_factory=monotonic)
    stopped: bool = False
    failed: bool = False
    finished: threading.Event = field(default_factory=threading.Event)
    settled: threading.Event = field(default_factory=threading.Event)
    _then: "Callable[[Job], None] | None" = None
    _lock: threading.Lock = field(default_factory=threading.Lock)

    @property
    def elapsed(self) -> float:
        """Seconds since it was asked for."""
        return monotonic() - self.started

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
            self.finished.set()
            then = self._then
        if then:
            then(self)


class Solver:
    """Hands jobs to the planning process, in turn."""

    def __init__(self) -> None:
        self._waiting: queue.Queue[Job] = queue.Queue()
        self._jobs: dict[uuid.UUID, Job] = {}
        self._current: Job | None = None
        self._process: subprocess.Popen[str] | None = None
        self._lock = threading.RLock()
        self._thread: threading.Thread | None = None

    def submit(self, key: uuid.UUID, subject: uuid.UUID, problems: Documents) -> Job:
        """Queues the problems of a plan; older jobs of the same ``subject`` are stopped."""
        job = Job(key, subject, problems)
        with self._lock:
            for older in [j for j in self._jobs.values() if j.subject == subject]:
                self.stop(older.key)
            self._jobs[key] = job
            if self._thread is None:
                self._thread = threading.Thread(target=self._run, name="planning", daemon=True)
                self._thread.start()
        self._waiting.put(job)
        return job

    def job(self, key: uuid.UUID) -> Job | None:
        """The job of a plan until what it came to is stored."""
        return self._jobs.get(key)

    def forget(self, job: Job) -> None:
        """Ends the memory of a job, once what it came to is stored."""
        self._jobs.pop(job.key, None)
        job.settled.set()

    def stop(self, key: uuid.UUID) -> None:
        """Ends a job; what it found last is kept."""
        with self._lock:
            job = self._jobs.get(key)
            if job is None or job.finished.is_set():
                return
            job.stopped = True
            if job is self._current and self._process:
                self._process.kill()

    def warm_up(self) -> None:
        """Starts the process before the first job needs it."""
        with self._lock:
            self._running_process()

    def close(self) -> None:
        """Ends the process."""
        with self._lock:
            if self._process:
                self._process.kill()
                self._process.wait()
                self._process = None

    def _running_process(self) -> "subprocess.Popen[str]":
        if self._process is None or self._process.poll() is not None:
            self._process = subprocess.Popen(
                [sys.executable, "-m", "carpentry", "work"],
                stdin=subprocess.PIPE,
                stdout=subprocess.PIPE,
                text=True,
                cwd=settings.ROOT,
            )
        return self._process

    def _run(self) -> None:
        while True:
            job = self._waiting.get()
            try:
                if not job.stopped:
                    self._work(job)
            except (OSError, ValueError):
                logger.exception("the planning process failed")
                job.failed = True
            finally:
                with self._lock:
                    self._current = None
                try:
                    job.finish()
                except Exception:
                    logger.exception("a plan could not be stored")

    def _work(self, job: Job) -> None:
        with self._lock:
            process = self._running_process()
            self._current = job
        assert process.stdin and process.stdout
        order = {"id": str(job.key), "problems": job.problems, "seconds": settings.PLAN_SECONDS}
        process.stdin.write(json.dumps(order) + "\n")
        process.stdin.flush()
        for line in process.stdout:
            answer = json.loads(line)
            job.plans = answer["plans"]
            if answer["done"]:
                return
        process.wait()
        job.failed = not job.stopped
        self.warm_up()


solver = Solver()
