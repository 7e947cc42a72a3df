"""What is to be cut from what: one material, lengths only."""

from dataclasses import dataclass
from decimal import Decimal

from carpentry.length import Unit


@dataclass(frozen=True)
class StockPiece:
    """A length that can be bought (or is owned, at price 0).

    ``length`` in ticks, the real one; ``price`` of one piece; ``available`` pieces, ``None`` for
    as many as wanted.
    """

    id: str
    length: int
    price: Decimal
    available: int | None = None


@dataclass(frozen=True)
class CutPart:
    """``quantity`` equal parts of ``length`` ticks."""

    id: str
    length: int
    quantity: int


@dataclass(frozen=True)
class CutProblem:
    """Parts to be cut from stock of one material. Lengths in ticks.

    Parts lie in one line with ``kerf`` between them; the last needs no cut when it ends exactly at
    sound wood. ``trim_start`` and ``trim_end`` are the wood lost at each end of a piece of stock.
    """

    unit: Unit
    kerf: int
    trim_start: int
    trim_end: int
    stock: tuple[StockPiece, ...]
    parts: tuple[CutPart, ...]

    def sound_length(self, piece: StockPiece) -> int:
        """Ticks of a piece between its trims; zero or less when the trims take all of it."""
        return piece.length - self.trim_start - self.trim_end
