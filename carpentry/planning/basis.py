"""What a plan rests on: a yard's prices and the boards on hand, as they are or as they were."""

from collections import Counter
from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import asdict, dataclass, field, fields
from decimal import Decimal
from functools import cached_property
from typing import Any

from carpentry.buying import PriceFields, PriceLine, Tax, read_price_line
from carpentry.cutting import SawLimits
from carpentry.design import Part
from carpentry.language import Json, Unit
from carpentry.lumber import (
    INCHES,
    NO_OWN,
    Lexicon,
    OwnFields,
    OwnStocks,
    Section,
    StockName,
    read_own,
)
from carpentry.lumber.rack import BoardFields, MeasuredBoard, OnHand, read_board
from carpentry.project import Shelf, section_sold
from carpentry.project.gathering import Owned

STANDARD = "standard lengths"  # where no yard is chosen
NO_TAX = Tax(Decimal(0), included=False)
_NOTED = tuple(one.name for one in fields(BoardFields))


@dataclass(frozen=True)
class RackBoard:
    """A board on the rack under the lasting id of its row, with the number that is written on it
    where it has one."""

    id: str
    number: int | None
    read: MeasuredBoard

    def on_hand(self, named: Collection[int]) -> OnHand:
        """What plans know of it; boards that parts name by number are told apart by it."""
        read = self.read.on_hand
        if self.number is None or self.number not in named:
            return read
        return OnHand(read.length, read.section, read.flaws, self.number, read.crook)


def by_stock(boards: Iterable[RackBoard]) -> dict[StockName, list[RackBoard]]:
    """Boards by stock, in their order."""
    found: dict[StockName, list[RackBoard]] = {}
    for board in boards:
        found.setdefault(board.read.stock, []).append(board)
    return found


def usable(boards: Iterable[RackBoard]) -> dict[StockName, list[RackBoard]]:
    """The boards that plans may use, by stock."""
    return by_stock(board for board in boards if not board.read.not_used_because())


@dataclass(frozen=True)
class Basis:
    """Prices and boards on hand. Kept with a plan that was cut and with a trip, so that they stay
    what they were when yard, rack and tools go on. ``unit`` is that of the yard's bare lengths,
    ``source`` where prices are from, such as the yard's name; ``saw`` what the saws can do, where
    that is not as the project says."""

    unit: Unit
    lines: Sequence[PriceLine] = ()
    whole_inches: bool = False
    tax: Tax = NO_TAX
    currency: str = "USD"
    source: str = STANDARD
    own: OwnStocks = field(default_factory=lambda: NO_OWN)
    rack: Mapping[StockName, Sequence[RackBoard]] = field(default_factory=dict)
    packs: str = ""
    saw: SawLimits | None = None

    @cached_property
    def lexicon(self) -> Lexicon:
        """How the words of its yard are read."""
        return Lexicon(self.unit, self.own)

    @cached_property
    def _lines_of(self) -> dict[StockName, list[PriceLine]]:
        found: dict[StockName, list[PriceLine]] = {}
        for line in self.lines:
            found.setdefault(line.stock, []).append(line)
        return found

    def section(self, stock: StockName) -> Section | None:
        """What a stock measures where it is bought."""
        return section_sold(stock, self._lines_of.get(stock, ()))[0]

    def shelf(self, unit: Unit, named: Collection[int], taken: Owned) -> Shelf:
        """What parts of a project in a ``unit`` can be cut from, boards ``taken`` at the yard too,
        when parts name rack boards by these numbers."""
        owned = {
            stock: Counter(board.on_hand(named) for board in boards)
            for stock, boards in self.rack.items()
        }
        for stock, boards in taken.items():
            owned[stock] = owned.get(stock, Counter()) + boards
        return Shelf(self.lines, unit, whole_inches=self.whole_inches, owned=owned)

    def document(self) -> Json:
        """As plain data that ``read_basis`` takes back."""
        return {
            "unit": self.unit.value,
            "lines": [asdict(line.fields) for line in self.lines],
            "whole_inches": self.whole_inches,
            "tax": [f"{self.tax.rate:f}", self.tax.included],
            "currency": self.currency,
            "source": self.source,
            "packs": self.packs,
            "saw": _saw_document(self.saw),
            "own": [asdict(stock.fields) for stock in self.own.values()],
            "rack": [
                {"id": board.id, "number": board.number, **asdict(board.read.fields)}
                for boards in self.rack.values()
                for board in boards
            ],
        }


def read_basis(document: Json) -> Basis:
    """A basis from its document."""
    unit = Unit(document["unit"])
    read = (read_own(OwnFields(**row), INCHES.unit) for row in document["own"])
    lexicon = Lexicon(unit, {stock.name: stock for stock in read})
    noted = INCHES.knowing(lexicon.own)
    rate, included = document["tax"]
    return Basis(
        unit=unit,
        lines=[read_price_line(PriceFields(**row), lexicon) for row in document["lines"]],
        whole_inches=document["whole_inches"],
        tax=Tax(Decimal(rate), included),
        currency=document["currency"],
        source=document["source"],
        own=lexicon.own,
        rack=by_stock(
            RackBoard(
                row["id"],
                row["number"],
                read_board(BoardFields(**{name: row.get(name, "") for name in _NOTED}), noted),
            )
            for row in document["rack"]
        ),
        packs=document.get("packs", ""),
        saw=_read_saw(document.get("saw")),
    )


def _saw_document(saw: SawLimits | None) -> Json | None:
    if saw is None:
        return None
    return {
        name: f"{limit:f}" if isinstance(limit, Decimal) else limit
        for name, limit in asdict(saw).items()
    }


def _read_saw(document: Json | None) -> SawLimits | None:
    """What the saws could do; ``None`` where it was not noted."""
    if document is None:
        return None
    told: dict[str, Any] = {
        name: Decimal(limit) if isinstance(limit, str) else limit
        for name, limit in document.items()
    }
    return SawLimits(**told)


def named_boards(parts: Iterable[Part]) -> set[int]:
    """The numbers of rack boards that parts name."""
    return {number for part in parts if part.boards for number in part.boards.numbers}
