"""Linear and mixed-integer programs over HiGHS, in the few shapes the search needs."""

import os
from collections.abc import Sequence
from dataclasses import dataclass
from enum import Enum
from functools import cache
from pathlib import Path

import highspy
import numpy as np

from carpentry.cutting.search.clock import Clock
from carpentry.cutting.search.sources import Source

INFINITY = highspy.kHighsInf
_LARGE = 1_500  # columns, from which on presolving takes longer than it saves


@cache
def _let_the_library_greet() -> None:
    """HiGHS greets once per process on standard output, where only plans belong."""
    kept = os.dup(1)
    with Path(os.devnull).open("wb") as nowhere:
        os.dup2(nowhere.fileno(), 1)
        try:
            highspy.Highs()
        finally:
            os.dup2(kept, 1)
            os.close(kept)


class Outcome(Enum):
    """How a solve ended."""

    SOLVED = "solved"
    IMPOSSIBLE = "impossible"
    UNDECIDED = "undecided"


@dataclass(frozen=True)
class Solution:
    """``columns`` are the variables' values, ``duals`` the rows' prices (linear programs only).
    Of an integer program that was stopped ``bound`` is what no solution is below."""

    outcome: Outcome
    objective: float = 0.0
    columns: Sequence[float] = ()
    duals: Sequence[float] = ()
    bound: float = -INFINITY


class Program:
    """A minimisation with rows first and columns added as they are found."""

    def __init__(self, rows: Sequence[tuple[float, float]]) -> None:
        _let_the_library_greet()
        self._highs = highspy.Highs()
        self._highs.setOptionValue("output_flag", False)
        self._highs.setOptionValue("threads", 1)
        self._highs.setOptionValue("random_seed", 0)
        self._integer = False
        for lower, upper in rows:
            self._highs.addRow(lower, upper, 0, [], [])
        self.row_count = len(rows)
        self.column_count = 0

    def add_column(
        self,
        cost: float,
        entries: Sequence[tuple[int, float]],
        upper: float = INFINITY,
        *,
        integer: bool = False,
    ) -> int:
        """Adds a variable from 0 to ``upper`` with its row ``entries``; returns its index."""
        rows = np.array([row for row, _ in entries], dtype=np.int32)
        values = np.array([value for _, value in entries], dtype=np.float64)
        self._highs.addCol(cost, 0.0, upper, len(entries), rows, values)
        if integer:
            self._highs.changeColIntegrality(self.column_count, highspy.HighsVarType.kInteger)
            self._integer = True
        self.column_count += 1
        return self.column_count - 1

    def add_row(self, lower: float, upper: float, entries: Sequence[tuple[int, float]]) -> int:
        """Adds a row over existing columns; returns its index."""
        columns = np.array([column for column, _ in entries], dtype=np.int32)
        values = np.array([value for _, value in entries], dtype=np.float64)
        self._highs.addRow(lower, upper, len(entries), columns, values)
        self.row_count += 1
        return self.row_count - 1

    def bound_row(self, row: int, lower: float, upper: float) -> None:
        self._highs.changeRowBounds(row, lower, upper)

    def bound_column(self, column: int, upper: float) -> None:
        self._highs.changeColBounds(column, 0.0, upper)

    def solve(
        self,
        clock: Clock,
        nodes: int | None = None,
        target: float = -INFINITY,
        gap: float = 0.5,
    ) -> Solution:
        """Solves as it stands. ``nodes`` limits the branching, which also ends where a solution is
        no worse than a ``target``, or no more than ``gap`` above the bound; the clock may only stop
        early."""
        left = max(0.01, clock.left)
        self._highs.setOptionValue("time_limit", self._highs.getRunTime() + left)
        if self._integer:
            large = self.column_count > _LARGE
            self._highs.setOptionValue("presolve", "off" if large else "choose")
            self._highs.setOptionValue("mip_rel_gap", 0.0)
            self._highs.setOptionValue("mip_abs_gap", gap)
            self._highs.setOptionValue("objective_target", target)
            self._highs.setOptionValue("mip_max_nodes", nodes if nodes is not None else 100_000)
        self._highs.run()
        status = self._highs.getModelStatus()
        if status == highspy.HighsModelStatus.kInfeasible:
            return Solution(Outcome.IMPOSSIBLE)
        found, info = self._highs.getSolution(), self._highs.getInfo()
        objective = info.objective_function_value
        if status == highspy.HighsModelStatus.kTimeLimit:
            clock.ring()
        if status != highspy.HighsModelStatus.kOptimal:
            some = info.primal_solution_status == highspy.SolutionStatus.kSolutionStatusFeasible
            columns = found.col_value if self._integer and some else ()
            bound = info.mip_dual_bound if self._integer else -INFINITY
            return Solution(Outcome.UNDECIDED, objective, columns, (), bound)
        bound = info.mip_dual_bound if self._integer else objective
        return Solution(Outcome.SOLVED, objective, found.col_value, found.row_dual, bound)


def charge_spares(
    program: Program, source: Source, used: Sequence[int], cost: float
) -> Sequence[int]:
    """Adds the spare pieces beside those of a source that the columns ``used`` count, at a cost
    each: so many as soon as one is used, a share of them, no more than there are. Returns their
    column, if there are any."""
    spare, limit = source.spare, float(source.limit)
    if not source.cost or not spare.of(1):
        return []
    top = float(spare.of(source.limit))
    spares = program.add_column(cost, [], top, integer=True)
    is_used = program.add_column(0.0, [], 1.0, integer=True)
    pieces = [(column, 1.0) for column in used]
    program.add_row(-INFINITY, 0.0, [*pieces, (is_used, -limit)])
    wanted = [(column, -float(spare.percent)) for column in used]
    wanted += [(is_used, -100.0 * spare.boards), (spares, 100.0)]
    if source.available is None or source.available >= source.limit + top:
        program.add_row(0.0, INFINITY, wanted)
        return [spares]
    all_there_are = program.add_column(0.0, [], 1.0, integer=True)
    program.add_row(0.0, INFINITY, [*wanted, (all_there_are, 100 * top)])
    there = float(source.available)
    program.add_row(0.0, INFINITY, [*pieces, (spares, 1.0), (all_there_are, -there)])
    return [spares]
