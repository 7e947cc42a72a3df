"""A warm process that plans for somebody else: one JSON object per line in, several per line out.

In: ``{"id": "…", "problems": [cut problem, …], "before": [cut plan or null, …], "seconds": 20,
"every_proof": true}``, where ``before`` are plans whose boards are kept where that costs nothing;
without ``every_proof`` only those proofs are written that take a moment. Out, as plans get better,
and a last time with ``"done": true``:
``{"id": "…", "plans": [cut plan, …], "done": false, "seconds": 0.2}``.
The process may be killed at any moment; what it said last is the best so far.
"""

import json
from collections import OrderedDict
from collections.abc import Callable, Iterable
from dataclasses import replace
from itertools import zip_longest
from time import monotonic

from carpentry.cutting import (
    Budget,
    CutPlan,
    Status,
    first_plan,
    plan_cuts,
    plan_document,
    read_plan,
    read_problem,
    steadied,
)
from carpentry.language import Json
from carpentry.proof import is_proved_soon, with_proof

_REMEMBERED = 500
_BETWEEN = 0.25  # seconds at the least between two better plans that are told
Say = Callable[[Json], None]


class Planner:
    """Plans jobs, and remembers proven plans: most edits change one material only."""

    def __init__(self, say: Say) -> None:
        self._say = say
        self._known: OrderedDict[str, CutPlan] = OrderedDict()

    def work(self, job: Json) -> None:
        """Plans all problems of a job, saying first plans at once and better ones as they come."""
        started = monotonic()
        texts = [json.dumps(problem, sort_keys=True) for problem in job["problems"]]
        problems = [read_problem(text) for text in texts]
        before = [
            read_plan(old, problem.unit) if old else None
            for old, problem in zip_longest(job.get("before", ()), problems)
        ]
        plans = [self._known.get(text) for text in texts]
        best = [plan or first_plan(problem) for plan, problem in zip(plans, problems, strict=True)]

        said = started

        def say(done: bool) -> None:
            nonlocal said
            documents = [
                plan_document(plan, problem.unit)
                for plan, problem in zip(best, problems, strict=True)
            ]
            seconds = round(monotonic() - started, 3)
            self._say({"id": job["id"], "plans": documents, "done": done, "seconds": seconds})
            said = monotonic()

        if not all(plans):
            say(done=False)
        for index, (text, problem) in enumerate(zip(texts, problems, strict=True)):
            if plans[index] is None:
                left = max(0.1, job["seconds"] - (monotonic() - started))

                def better(plan: CutPlan, index: int = index) -> None:
                    best[index] = plan
                    if monotonic() - said > _BETWEEN:
                        say(done=False)

                best[index] = plan_cuts(problem, Budget(left), better)
            if best[index].proof is None and (job.get("every_proof") or is_proved_soon(problem)):
                best[index] = with_proof(
                    problem, best[index], max(0.1, job["seconds"] - (monotonic() - started))
                )
            self._remember(text, best[index])
            old = before[index]
            if old:
                proof = best[index].proof
                best[index] = replace(steadied(problem, best[index], old), proof=proof)
        say(done=True)

    def _remember(self, text: str, plan: CutPlan) -> None:
        if plan.bound == plan.price and plan.status is not Status.FEASIBLE:
            self._known[text] = plan
            while len(self._known) > _REMEMBERED:
                self._known.popitem(last=False)


def serve(lines: Iterable[str], say: Say) -> None:
    """Works through jobs until the lines end."""
    planner = Planner(say)
    for line in lines:
        planner.work(json.loads(line))
