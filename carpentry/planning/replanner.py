"""The one re-planner: what of a workup has to be planned anew, and what stays as it is.

The desk asks it after an edit, a trip after an event at the yard. A cut problem whose plan is known
keeps it, to the last board; the others are planned, near to the plans that were in force.
"""

import hashlib
import json
from collections.abc import Collection, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from decimal import Decimal

from carpentry.language import Json
from carpentry.planning.workup import Workup

Known = Mapping[str, Json]  # plans by the digests of their problems
_CHANGING = ("stock", "parts")
_SHORT = 16  # of a digest


def problem_digest(problem: Json) -> str:
    """What a cut problem is known by."""
    return hashlib.sha256(json.dumps(problem, sort_keys=True).encode()).hexdigest()


def made_with(problem: Json) -> str:
    """What the saws, trims, allowances and wishes of a cut problem are known by: all but its stock
    and parts."""
    settings = {name: value for name, value in problem.items() if name not in _CHANGING}
    return problem_digest(settings)[:_SHORT]


def is_settled(plan: Json) -> bool:
    """Whether nothing cheaper is found than a plan for the parts that it places, however long one
    looks, and it has its proof."""
    is_least = plan["status"] != "feasible" and Decimal(plan["bound"]) == Decimal(plan["price"])
    return is_least and ("proof" in plan or bool(plan["unplaced"]))


def settled_among(digests: Iterable[str], plans: Iterable[Json]) -> Iterator[tuple[str, Json]]:
    """The plans that need not be made again, each with the digest of its problem."""
    return (
        (digest, plan) for digest, plan in zip(digests, plans, strict=False) if is_settled(plan)
    )


def same_parts(problem: Json, plans: Sequence[Json]) -> Json | None:
    """The plan among several that shares most parts with a problem; ``None`` where none does that
    was made with the same saws and trims. Boards of others would be cut as nobody wants now."""
    wanted = {part["id"] for part in problem["parts"]}
    plans = [plan for plan in plans if plan.get("made_with") == made_with(problem)]

    def shared(plan: Json) -> int:
        return len(wanted & {p["part"] for layout in plan["layouts"] for p in layout["parts"]})

    best = max(plans, key=shared, default=None)
    return best if best and shared(best) else None


@dataclass(frozen=True)
class Replanned:
    """A workup to be planned: its cut ``problems`` with their ``digests``, the plans of it that are
    ``kept`` (``None`` for those to be made), and, for these, the plans of ``before`` to stay near
    to."""

    problems: tuple[Json, ...]
    digests: tuple[str, ...]
    kept: tuple[Json | None, ...]
    before: tuple[Json | None, ...]

    @property
    def open(self) -> list[Json]:
        """The problems that have to be planned."""
        return [p for p, plan in zip(self.problems, self.kept, strict=True) if plan is None]

    @property
    def near(self) -> list[Json | None]:
        """The plans to stay near to, one for each of these."""
        return [one for one, plan in zip(self.before, self.kept, strict=True) if plan is None]

    def leaving(
        self,
        work: Workup,
        touched: Collection[int],
        digests: Sequence[str],
        plans: Sequence[Json],
    ) -> "Replanned":
        """The same, where materials that are not ``touched`` (by index) keep the plan in force, of
        a problem as it was then; all are planned where these are not as many as before."""
        if len(plans) != len(self.problems):
            return self
        places = [n for n, problem in enumerate(work.problems) if problem]
        free = [n in touched for n in places]
        return replace(
            self,
            digests=tuple(
                new if is_free else old
                for new, old, is_free in zip(self.digests, digests, free, strict=True)
            ),
            kept=tuple(
                kept if is_free else plan
                for kept, plan, is_free in zip(self.kept, plans, free, strict=True)
            ),
        )

    def whole(self, made: Sequence[Json]) -> list[Json]:
        """The plans of all problems, of those ``made`` now, with what they were made with, and
        those kept; empty where there are not as many as were asked for."""
        if len(made) != len(self.open):
            return []
        fresh = iter(
            plan | {"made_with": made_with(problem)}
            for plan, problem in zip(made, self.open, strict=True)
        )
        return [next(fresh) if plan is None else plan for plan in self.kept]


def replan(work: Workup, known: Known, before: Sequence[Json]) -> Replanned:
    """What has to be planned of a workup where the plans of some problems are ``known``, near to
    those in force ``before``."""
    problems = tuple(problem for problem in work.documents if problem)
    digests = tuple(problem_digest(problem) for problem in problems)
    kept = tuple(known.get(digest) for digest in digests)
    near = tuple(
        None if plan else same_parts(problem, before)
        for problem, plan in zip(problems, kept, strict=True)
    )
    return Replanned(problems, digests, kept, near)
