"""The boards of a plan as they are bought and written on: numbered, with the labels of their
pieces, each taken from the rack or bought."""

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from carpentry.cutting import CutPlan, Layout
from carpentry.lumber import Section, StockName
from carpentry.planning.basis import RackBoard
from carpentry.planning.workup import Workup
from carpentry.project import Offer, kept_leftovers, section_left


@dataclass(frozen=True)
class LabelledPiece:
    """A part on its board, from ``start`` to ``end`` in ticks; ``label`` is written on it."""

    part: str
    label: str
    start: int
    end: int


@dataclass(frozen=True)
class Offcut:
    """What of a board is worth keeping (ticks)."""

    length: int
    section: Section | None


@dataclass(frozen=True)
class NumberedBoard:
    """One piece of stock: ``number`` is written on it, boards of the same ``layout`` are cut alike.
    ``taken`` is the board of the rack that it is, ``None`` where it is bought or in the cart."""

    number: int
    layout: int
    offer: Offer
    section: Section | None
    taken: RackBoard | None
    pieces: tuple[LabelledPiece, ...]
    offcuts: tuple[Offcut, ...]


def numbered_boards(work: Workup, plans: Sequence[CutPlan | None]) -> list[NumberedBoard]:
    """The boards of the plans of a workup, in the order in which they are shown."""
    boards: list[NumberedBoard] = []
    layouts = 0
    cut: Counter[str] = Counter()
    for material, plan in zip(work.materials, plans, strict=True):
        offers = {offer.id: offer for offer in material.offers}
        on_rack = {
            stock: _best_first(work.basis.rack.get(stock, ()))
            for stock in {offer.stock for offer in material.offers if offer.owned}
        }
        for layout in plan.layouts if plan else ():
            layouts += 1
            offer = offers[layout.stock]
            section = material.section_of(offer)
            offcuts = tuple(
                Offcut(rest.length, section_left(rest, section)) for rest in kept_leftovers(layout)
            )
            for _ in range(layout.count):
                taken = _take(on_rack, offer, work) if offer.owned else None
                pieces = tuple(_pieces(layout, cut, work))
                number = layout.number or len(boards) + 1
                boards.append(
                    NumberedBoard(number, layouts, offer, section, taken, pieces, offcuts)
                )
    return boards


def _pieces(layout: Layout, cut: Counter[str], work: Workup) -> Iterable[LabelledPiece]:
    for placed in layout.parts:
        cut[placed.part] += 1
        label = f"{work.marks[placed.part]}{cut[placed.part]}"
        yield LabelledPiece(placed.part, label, placed.start, placed.end)


def _best_first(boards: Iterable[RackBoard]) -> list[RackBoard]:
    """Boards in the order in which they are taken: layouts with parts that are seen come first."""
    return sorted(boards, key=lambda board: (board.read.unevenness, board.number or 0))


def _take(
    on_rack: dict[StockName, list[RackBoard]], offer: Offer, work: Workup
) -> RackBoard | None:
    """The first board of an offer's kind that is still on the rack for this plan."""
    here = on_rack[offer.stock]
    board = next((b for b in here if b.on_hand(work.named) == offer.on_hand), None)
    if board:
        here.remove(board)
    return board
