"""The bench: boards, which of their cuts are done, and which pieces are not there any more."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace

from carpentry.cutting import Cut, PlacedPart
from carpentry.cutting.replay import Piece
from carpentry.language import CarpentryError
from carpentry.shop.bench_cuts import BenchBoard, lying_pieces
from carpentry.shop.events import BenchEvent, BenchEventKind
from carpentry.shop.tree import under

Key = tuple[int, int]  # a board, and a cut or a piece of it


@dataclass(frozen=True)
class Changed:
    """What an event came to beside cuts done: ``boards`` as they are now, new ones too, cuts that
    are ``done`` by it, pieces that are ``gone``, parts that have no board any more, by their labels
    with their parts, and what it ``says``."""

    boards: tuple[BenchBoard, ...] = ()
    done: frozenset[Key] = frozenset()
    gone: frozenset[Key] = frozenset()
    missing: Mapping[str, str] = field(default_factory=dict)
    says: str = ""


@dataclass(frozen=True)
class Bench:
    """Boards by their numbers, the cuts that are ``done``, the pieces that are ``gone``, and the
    labels of parts that no board is there for."""

    boards: Mapping[int, BenchBoard]
    done: frozenset[Key] = frozenset()
    gone: frozenset[Key] = frozenset()
    missing: Mapping[str, str] = field(default_factory=dict)

    def cut(self, key: Key) -> Cut | None:
        """A cut by its board and number, ``None`` where it is in the plan no more."""
        board = self.boards.get(key[0])
        return dict(board.numbered()).get(key[1]) if board else None

    def with_before(self, keys: Iterable[Key]) -> frozenset[Key]:
        """Cuts, and those before them that made their pieces. Raises ``CarpentryError`` for one
        that there is not."""
        found: set[Key] = set()
        for key in keys:
            if self.cut(key) is None and key[1] not in self._shaped(key[0]):
                raise CarpentryError(
                    f"board {key[0]} is cut otherwise now: look at it, and say what is there",
                    "cuts",
                )
            board = self.boards[key[0]]
            made_by = {made: n for n, cut in board.numbered() for made in cut.makes if made}
            cuts = dict(board.numbered())
            shaped = self._shaped(key[0])
            number: int | None = key[1]
            if number in shaped:
                same = [n for n, piece in shaped.items() if piece == shaped[number]]
                found |= {(key[0], n) for n in same if n <= number}
                number = made_by.get(shaped[number])
            while number is not None and (key[0], number) not in found:
                found.add((key[0], number))
                number = made_by.get(cuts[number].of)
        return frozenset(found)

    def _shaped(self, number: int) -> dict[int, int]:
        """What is sawn of the parts of a board, by number, each with its piece."""
        board = self.boards.get(number)
        return {n: piece for n, piece, _ in board.shaped()} if board else {}

    def there(self, number: int) -> list[int]:
        """The pieces of a board that lie there now."""
        board = self.boards[number]
        pieces = [0]
        for cut_number, cut in board.numbered():
            if (number, cut_number) in self.done:
                pieces.remove(cut.of)
                pieces += [made for made in cut.makes if made is not None]
        return [piece for piece in pieces if (number, piece) not in self.gone]

    def to_come(self, number: int) -> set[int]:
        """The pieces of a board that are there or come of those that are."""
        board = self.boards[number]
        return {one for piece in self.there(number) for one in under(board, piece)}

    def cuts_left(self) -> int:
        """How many cuts are not done yet."""
        every = {
            (number, n)
            for number, board in self.boards.items()
            for n in (*board.numbers, *self._shaped(number))
        }
        return len(every - self.done)

    def parts_cut(self) -> list[tuple[BenchBoard, str, PlacedPart]]:
        """The parts that are there, each with its board and its label."""
        found = []
        for number, board in self.boards.items():
            for piece in self.there(number):
                if piece in board.labels:
                    found.append((board, board.labels[piece], board.placed[piece]))
        return found

    def lying(self, number: int) -> dict[int, Piece]:
        """Every piece of a board by its number."""
        return lying_pieces(self.boards[number])

    def changed(self, what: Changed) -> "Bench":
        """The bench after something that came to this."""
        boards = {**self.boards, **{board.number: board for board in what.boards}}
        missing = {k: v for k, v in self.missing.items() if not _placed(k, what.boards)}
        return Bench(
            boards, self.done | what.done, self.gone | what.gone, {**missing, **what.missing}
        )


def _placed(label: str, boards: Iterable[BenchBoard]) -> bool:
    return any(label in board.labels.values() for board in boards)


def bench_of(
    boards: Iterable[BenchBoard], events: Sequence[tuple[BenchEvent, Changed | None]]
) -> Bench:
    """The bench that events come to, each with what it changed where it did; those that were undone
    left away. Raises ``CarpentryError`` for one that cannot be."""
    bench = Bench({board.number: board for board in boards})
    gone = {event.undoes for event, _ in events if event.kind is BenchEventKind.UNDONE}
    for event, changed in events:
        if event.kind is BenchEventKind.UNDONE or event.id in gone:
            continue
        if event.kind is BenchEventKind.CUT:
            bench = replace(bench, done=bench.done | bench.with_before(event.keys))
        elif changed is not None:
            bench = bench.changed(changed)
    return bench


def undo_fault(events: Sequence[tuple[BenchEvent, Changed | None]], undoes: str) -> str:
    """Why an event cannot be undone; empty where it can."""
    names = [event.id for event, _ in events]
    if undoes not in names:
        return "there is nothing of that kind to undo"
    at = names.index(undoes)
    if events[at][0].kind is BenchEventKind.UNDONE:
        return "there is nothing of that kind to undo"
    taken_back = {event.undoes for event, _ in events if event.kind is BenchEventKind.UNDONE}
    if undoes in taken_back:
        return "that is undone already"
    for event, changed in events[at + 1 :]:
        if event.id not in taken_back and changed is not None:
            return "the boards were planned anew after that: undo that first"
    return ""
