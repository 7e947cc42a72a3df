"""What a proof consists of, and how it is written down."""

from collections.abc import Mapping
from dataclasses import dataclass
from decimal import Decimal

from carpentry.language import Json, Reader

FORMAT = "grain-tally/proof@1"
MOST_LINES, MOST_REFUTED = 200, 500
MOST_FIGURE = 10**18
Counts = Mapping[str, int]


@dataclass(frozen=True)
class Line:
    """What each part (by id) is ``worth``, what all that are wanted ``needed``, and the most that
    one piece of each stock (by id) ``holds``: a purchase has to hold as much as is needed."""

    worth: Counts
    needed: int
    holds: Counts


@dataclass(frozen=True)
class Proof:
    """That no purchase below ``checked`` holds all parts: below it each breaks one of the
    ``lines``, or is no more than one of those that were ``refuted`` by trying every way to fill
    it. ``price`` is what the plan asks for; the proof is whole where both are the same."""

    price: Decimal
    checked: Decimal
    lines: tuple[Line, ...]
    refuted: tuple[Counts, ...] = ()

    @property
    def is_whole(self) -> bool:
        return self.checked == self.price


def proof_document(proof: Proof) -> Json:
    """A proof as a JSON document that ``read_proof`` takes back."""
    return {
        "format": FORMAT,
        "price": f"{proof.price:f}",
        "checked": f"{proof.checked:f}",
        "lines": [
            {"worth": dict(line.worth), "needed": line.needed, "holds": dict(line.holds)}
            for line in proof.lines
        ],
        "refuted": [dict(one) for one in proof.refuted],
    }


def read_proof(reader: Reader) -> Proof:
    """A proof from a document. What is wrong is told by the reader, by its path."""
    if reader.text("format", FORMAT) != FORMAT:
        reader.fault("format", f"must be {FORMAT}")
    price, checked = reader.price("price"), reader.price("checked")
    lines = tuple(_line(item) for item in reader.items("lines", most=MOST_LINES))
    refuted = tuple(
        _counts(item) for item in reader.items("refuted", most=MOST_REFUTED, required=False)
    )
    reader.refuse_unknown()
    return Proof(price, checked, lines, refuted)


def _line(item: Reader) -> Line:
    worth = _counts(item.inside("worth"))
    needed = item.whole("needed", most=MOST_FIGURE)
    holds = _counts(item.inside("holds"))
    item.refuse_unknown()
    return Line(worth, needed, holds)


def _counts(item: Reader) -> Counts:
    return {name: item.whole(name, most=MOST_FIGURE) for name in item.names()}
