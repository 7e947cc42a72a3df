"""What can be bought, in whole numbers: pieces of stock with their costs, spare ones too."""

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal

from carpentry.cutting.problem import NO_SPARE, CutProblem, Spare, StockPiece


@dataclass(frozen=True)
class Money:
    """Prices as whole costs; ``scale`` turns a price into one."""

    scale: Decimal

    @classmethod
    def of(cls, prices: Sequence[Decimal]) -> "Money":
        places = max((-int(price.as_tuple().exponent) for price in prices), default=0)
        return cls(Decimal(10) ** max(places, 0))

    def cost(self, price: Decimal) -> int:
        return int(price * self.scale)

    def price(self, cost: int) -> Decimal:
        """The price of a whole-number cost."""
        return (Decimal(cost) / self.scale).quantize(Decimal(1) / self.scale.quantize(1))


@dataclass(frozen=True)
class Source:
    """A stock piece in whole numbers: ``cost`` per piece, ``limit`` pieces at the most. Sources of
    one ``kind`` hold the same patterns. What is bought ``spare`` beside them comes on top."""

    stock: str
    kind: int
    cost: int
    limit: int
    spare: Spare = NO_SPARE
    available: int | None = None

    def cost_of(self, pieces: int) -> int:
        """What so many pieces cost with the spare ones beside them."""
        return self.cost * (pieces + self.spare.beside(pieces, self.available))


def as_source(problem: CutProblem, piece: StockPiece, kind: int, money: Money, most: int) -> Source:
    """A stock piece of a problem as a source of a ``kind``, ``most`` of which could be used."""
    limit = most if piece.available is None else min(piece.available, most)
    cost = money.cost(piece.price)
    return Source(piece.id, kind, cost, limit, problem.spare, piece.available)


def cost_of(sources: Sequence[Source], counts: Sequence[int]) -> int:
    """What a purchase costs: so many pieces of each source, and the spare ones beside them."""
    return sum(source.cost_of(n) for source, n in zip(sources, counts, strict=True) if n)
