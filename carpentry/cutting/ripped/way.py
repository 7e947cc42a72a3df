"""Cutting boards that are ripped: segments, strips across them, parts along the strips."""

from collections.abc import Iterator
from dataclasses import replace
from functools import cached_property

from carpentry.cutting.layouts import Waiting, in_order, put_together
from carpentry.cutting.loosened import has_angles, loosened
from carpentry.cutting.plan import Layout, PlacedPart
from carpentry.cutting.problem import CutPart, CutProblem
from carpentry.cutting.ripped.blocks import TooManyBlocks
from carpentry.cutting.ripped.exchanges import better_packings
from carpentry.cutting.ripped.model import RippedModel
from carpentry.cutting.ripped.numbers import Segment, strip_of
from carpentry.cutting.ripped.size_by_size import each_alone
from carpentry.cutting.search.cheapest import SearchResult, search
from carpentry.cutting.search.clock import Clock
from carpentry.cutting.search.every_load import roomiest
from carpentry.cutting.search.holding import Holder
from carpentry.cutting.search.model import FilledBoard, Packing
from carpentry.cutting.way import Report, Way
from carpentry.design.ends import ways_to_lie

_ALONE_SHARE = 0.15
_LIST_SHARE = 0.4
_EXCHANGE_SHARE = 0.1


class RippedWay:
    """Boards that are crosscut into segments, which are ripped."""

    def __init__(self, problem: CutProblem, model: RippedModel | None = None) -> None:
        self.problem = problem
        self.model = model or RippedModel(problem)

    @property
    def rip_set_ups(self) -> int | None:
        return self.model.rip_set_ups

    @cached_property
    def bounds_all(self) -> bool:
        if not self._leaves_something_out:
            return True
        every = all(kind.section.patterns is not None for kind in self.model.kinds)
        loose = self._loose
        return bool(loose and every and loose.is_like(self.model))

    @property
    def _leaves_something_out(self) -> bool:
        problem = self.problem
        if has_angles(problem):
            return True
        fence = problem.saw.rip_width
        if fence is not None and any((piece.width or 0) > 2 * fence for piece in problem.stock):
            return True
        flawed = any(piece.flaws for piece in problem.stock)
        return flawed and not all(part.clear for part in problem.parts)

    @cached_property
    def _loose(self) -> RippedModel | None:
        alone = {part.id: part.sawn_length + self.problem.kerf for part in self.problem.parts}
        try:
            return RippedModel(loosened(self.problem), loose=True, alone=alone)
        except TooManyBlocks:
            return None

    def loosened(self) -> Way | None:
        return RippedWay(loosened(self.problem), self._loose) if self._loose else None

    def item_of(self, part: CutPart) -> int | None:
        strip = replace(strip_of(part), loose=self.model.loose)
        return self.model.item_of.get((strip, self.problem.shape(part)))

    def search(self, clock: Clock, report: Report, kept_back: float = 0.0) -> SearchResult:
        part = clock.part(1 - kept_back) if kept_back else clock
        found = self._search(part, report)
        if found.proven and self.model.loads:
            packing = roomiest(self.model, self.model.loads, found.packing, part)
            return found.keeping(packing)
        return found

    def search_plainly(self, clock: Clock) -> SearchResult:
        self.model.list_loads(clock)
        return search(Holder(self.model, clock), lambda *_: None)

    def _search(self, clock: Clock, report: Report) -> SearchResult:
        """The search over purchases, with every load listed where they are few, and never dearer
        than each size ripped alone."""
        problem, model = self.problem, self.model
        report(model.quick(model.demand, [0] * len(model.sources)), 0)
        listed = model.list_loads(clock.part(_LIST_SHARE))
        start = None if listed else each_alone(problem, model, clock.part(_ALONE_SHARE))
        model.clock = clock.part(1 - _EXCHANGE_SHARE)
        found = search(Holder(model, model.clock), report, start)
        if found.proven or any(found.packing.missing):
            return found
        packing = found.packing
        if listed:
            alone = each_alone(problem, model, clock)
            packing = min((alone or packing, packing), key=lambda one: one.key(model))
        found = found.with_packing(packing, model)
        for better in better_packings(problem, model, packing, clock):
            found = found.with_packing(better, model)
            report(better, found.bound)
            if found.proven:
                break
        return found

    def arrange(self, packing: Packing) -> tuple[Layout, ...]:
        """Each board with its segments and strips."""
        bench = _RipBench(self.problem, self.model)
        return put_together(
            self.problem,
            (bench.lay_out(board) for board in sorted(packing.boards, key=in_order)),
        )


class _RipBench:
    """Lays out one board after the other from the parts that still wait."""

    def __init__(self, problem: CutProblem, model: RippedModel) -> None:
        self.problem = problem
        self.model = model
        self.pieces = {piece.id: piece for piece in problem.stock}
        waiting = (((strip_of(part), problem.shape(part)), part) for part in problem.parts)
        self.waiting = Waiting(waiting)

    def lay_out(self, board: FilledBoard) -> Layout:
        problem, model = self.problem, self.model
        piece = self.pieces[model.sources[board.source].stock]
        placed: list[PlacedPart] = []
        left = list(board.pattern)
        at = problem.trim_start
        for segment in model.recipe(board):
            at = at if segment.start is None else segment.start
            here = list(self._parts(segment, at, left))
            if here:
                placed += here
                at += segment.size * model.unit
        return Layout(piece.id, 1, tuple(placed))

    def _parts(self, segment: Segment, at: int, left: list[int]) -> Iterator[PlacedPart]:
        """The parts of a segment that begins at ``at``, no more of an item than ``left``."""
        kerf = self.problem.kerf
        for strip, items in zip(segment.pattern.strips, segment.strips, strict=True):
            x = at
            for number in (n for n in items if left[n]):
                item = self.model.items[number]
                part = self.waiting.take((self.model.strips[item.strip], item.shape))
                left[number] -= 1
                ends = ways_to_lie(part.ends)[strip.way]
                start = x + ends[0].saw(kerf) - kerf
                end = start + part.sawn_length
                yield PlacedPart(part.id, start, end, strip.y, strip.z, ends, strip.edges)
                x += item.size * self.model.unit
