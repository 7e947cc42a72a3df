"""What happens at the bench, one event after the other."""

from dataclasses import dataclass
from enum import StrEnum

from carpentry.language import CarpentryError, typed

MOST_CUTS = 2_000


class BenchEventKind(StrEnum):
    """Cuts are ``CUT``; one went wrong (``MISCUT``) and what it left is too small; a board or piece
    has a ``FLAW``, another ``LENGTH`` than it should have, or is ``LOST``; an earlier event is
    ``UNDONE``."""

    CUT = "cut"
    MISCUT = "miscut"
    FLAW = "flaw"
    LENGTH = "length"
    LOST = "lost"
    UNDONE = "undone"


@dataclass(frozen=True)
class BenchEvent:
    """One event, as typed. ``cuts`` are those that are done, or the one that went wrong, each as
    board and number, ``3.2``; ``board`` and ``piece`` (0 for all of it) what it is about; ``now``
    is what is left, ``start`` and ``end`` where a flaw lies; ``undoes`` the id of another event."""

    id: str
    kind: BenchEventKind
    cuts: str = typed("Cuts", most=MOST_CUTS * 10)
    board: int = typed("Board", 0)
    piece: int = typed("Piece", 0)
    now: str = typed("Length now", is_length=True)
    start: str = typed("From", is_length=True)
    end: str = typed("To", is_length=True)
    undoes: str = typed("Undoes")

    @property
    def keys(self) -> list[tuple[int, int]]:
        """Its cuts by board and number. Raises ``CarpentryError``."""
        found = []
        for word in self.cuts.split():
            board, dot, number = word.partition(".")
            if not (dot and board.isascii() and board.isdigit() and number.isdigit()):
                raise CarpentryError(f"“{word[:20]}” is no cut: write board and number", "cuts")
            found.append((int(board), int(number)))
        if not found:
            raise CarpentryError("no cut is named", "cuts")
        return found[:MOST_CUTS]
