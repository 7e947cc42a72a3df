"""A plan within so many seconds, whatever happens: the search runs in a process of its own, which
is ended when its time is up; what it told last is the plan."""

import logging
import os
import signal
from dataclasses import replace
from multiprocessing.connection import Connection, Pipe
from time import monotonic
from typing import NoReturn

from carpentry.cutting.plan import CutPlan, Ended
from carpentry.cutting.planner import Budget, first_plan, plan_cuts
from carpentry.cutting.problem import CutProblem

logger = logging.getLogger(__name__)
_GRACE = 0.4  # seconds for the search to end by itself


def plan_within(problem: CutProblem, seconds: float) -> CutPlan:
    """The plan of ``plan_cuts``, or the best that it told of when ``seconds`` and a moment are
    over."""
    deadline = monotonic() + seconds + _GRACE
    ours, theirs = Pipe(duplex=False)
    child = os.fork()
    if not child:
        _search(problem, seconds, theirs)
    theirs.close()
    best: CutPlan | None = None
    done = False
    try:
        while not done and ours.poll(max(0.0, deadline - monotonic())):
            best, done = ours.recv()
    except EOFError:
        logger.error("the search ended without a plan")
    finally:
        os.kill(child, signal.SIGKILL)
        os.waitpid(child, 0)
        ours.close()
    if best and done:
        return best
    return replace(best or first_plan(problem), ended=Ended.CLOCK)


def _search(problem: CutProblem, seconds: float, told: Connection) -> NoReturn:
    """The search in its own process, which ends with it."""
    try:
        told.send((first_plan(problem), False))
        plan = plan_cuts(problem, Budget(seconds), lambda better: told.send((better, False)))
        told.send((plan, True))
    except Exception:
        logger.exception("the search failed")
    finally:
        os._exit(0)
