"""The cart: what was taken so far, what tags say and how many there are, folded from events."""

from collections import Counter
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, replace
from decimal import Decimal

from carpentry.buying import PriceLine, piece_price, read_money, read_volume
from carpentry.language import (
    CarpentryError,
    Notation,
    Unit,
    interchange,
    sold_name,
    spelled_out,
    write_length,
)
from carpentry.lumber import Lexicon, Section, StockName
from carpentry.lumber.rack import BoardFields, MeasuredBoard, OnHand, read_board
from carpentry.planning import Basis, Facts
from carpentry.project import FoundPacks, Hardware, content_of, pack_key, section_sold
from carpentry.trip.checks import CHECKS
from carpentry.trip.events import Event, EventKind

MOST_TAKEN = 1_000
_MEASURED = ("length", "thickness", "width", "crook", "bow", "cup", "twist")
_TALKS_OF_BOARDS = (EventKind.KEPT, EventKind.REJECTED)


@dataclass(frozen=True)
class Line:
    """Something on a yard's list: a stock and a named length (ticks), or a pack of hardware, which
    has no ``stock``, a ``length`` only where it goes by one, and a ``content``. ``price`` of one,
    ``None`` where the list has none; ``available`` so many at the most, ``None`` for plenty.
    ``section`` is what it measures at this yard; a pack ``holds`` so many."""

    key: str
    name: str
    price: Decimal | None
    stock: StockName | None = None
    length: int = 0
    real_length: int = 0
    available: int | None = None
    content: str = ""
    section: Section | None = None
    holds: int = 1

    def in_drawer(self, count: int) -> list[str]:
        """So many packs as lines that say they are in the drawer; none for boards."""
        if self.stock:
            return []
        length = f" {spelled_out(self.length, Unit.INCH)}" if self.length else ""
        if read_volume(self.content) is not None:
            return [f"have {self.content} {self.name}"] * count
        return [f"have {count * self.holds} {self.name}{length}"] if count else []

    def called(self, notation: Notation) -> str:
        """Its name with its length or content."""
        if self.stock:
            return f"{self.name} {sold_name(self.length, notation)}"
        length = f" {write_length(self.length, notation).text}" if self.length else ""
        return f"{self.name}{length}" + (f", {self.content}" if self.content else "")


def line_key(stock: StockName, length: int) -> str:
    """The key of a stock and a named length (ticks)."""
    return f"{stock} {interchange(length, Unit.INCH)}"


def lines_of(lines: Iterable[PriceLine], *, whole_inches: bool) -> dict[str, Line]:
    """Everything on a yard's list, by key."""
    known = list(lines)
    of_stock: dict[StockName, list[PriceLine]] = {}
    for line in known:
        of_stock.setdefault(line.stock, []).append(line)
    found = {}
    for line in known:
        key = line_key(line.stock, line.length.ticks)
        price = piece_price(line, whole_inches=whole_inches)
        found[key] = Line(
            key,
            str(line.stock),
            price,
            line.stock,
            line.length.ticks,
            line.real_length,
            line.available,
            section=section_sold(line.stock, of_stock[line.stock])[0],
        )
    return found


def packs_of(hardware: Hardware) -> list[tuple[Line, int]]:
    """The packs that hardware comes in, and how many of each; single pieces where nothing is known
    of packs."""
    found = []
    for item in hardware.lines:
        for package, count in item.packs:
            line = Line(
                pack_key(item.name, item.length, package),
                item.name,
                package.price,
                length=item.length or 0,
                content=content_of(package),
                holds=1 if package.volume else package.holds,
            )
            found.append((line, count))
        rest = item.needed - item.have - item.missing
        if not item.packs and rest > 0:
            key = pack_key(item.name, item.length)
            count = 1 if item.volume else rest
            found.append((Line(key, item.name, None, length=item.length or 0), count))
    return found


@dataclass(frozen=True)
class YardBoard:
    """A board that was measured at the yard and ``kept``, or rejected; ``event`` told so."""

    event: str
    read: MeasuredBoard
    kept: bool


@dataclass
class _Pile:
    """What is known of one line: how many more there are, ``None`` for plenty, and whether that was
    ``limited`` by what was said at the yard; how many were taken as they are, which were measured,
    and what the tag says."""

    left: int | None
    limited: bool = False
    plain: int = 0
    boards: list[YardBoard] = field(default_factory=list)
    tag: Decimal | None = None

    @property
    def taken(self) -> int:
        return self.plain + sum(board.kept for board in self.boards)

    def fewer(self, count: int) -> None:
        if self.left is not None:
            self.left = max(0, self.left - count)


class Cart:
    """What was taken and seen at a yard whose list has these ``lines``."""

    def __init__(self, lines: Mapping[str, Line], lexicon: Lexicon) -> None:
        self.lines = lines
        self.checked: set[str] = set()
        self._lexicon = lexicon
        self._piles: dict[str, _Pile] = {}

    def _pile(self, key: str) -> _Pile:
        line = self.lines.get(key)
        return self._piles.get(key) or _Pile(line.available if line else None)

    def touched(self) -> list[str]:
        """The keys of lines that something was said of, in that order."""
        return list(self._piles)

    def taken(self, key: str) -> int:
        """How many of a line are in the cart."""
        return self._pile(key).taken

    def boards(self, key: str) -> list[YardBoard]:
        """Those of a line that were measured, kept and rejected ones."""
        return self._pile(key).boards

    def kept(self, key: str) -> list[YardBoard]:
        """The boards of a line that were measured and kept."""
        return [board for board in self._pile(key).boards if board.kept]

    def plain(self, key: str) -> int:
        """How many of a line were taken as they are."""
        return self._pile(key).plain

    def tag(self, key: str) -> Decimal | None:
        """What the tag says one costs, ``None`` where it was not read."""
        return self._pile(key).tag

    def price(self, key: str) -> Decimal | None:
        """What one costs: by the tag, else by the list."""
        tag = self.tag(key)
        return self.lines[key].price if tag is None else tag

    def left(self, key: str) -> int | None:
        """How many more there are to take, ``None`` for plenty."""
        return self._pile(key).left

    def limited(self, key: str) -> bool:
        """Whether somebody said at the yard how many there are."""
        return self._pile(key).limited

    def on_hand(self) -> dict[StockName, Counter[OnHand]]:
        """The boards in the cart, as plans know boards that are there."""
        found: dict[StockName, Counter[OnHand]] = {}
        for key in self._piles:
            stock = self.lines[key].stock
            if stock is not None:
                found.setdefault(stock, Counter()).update(self.boards_in(key))
        return found

    def boards_in(self, key: str) -> Counter[OnHand]:
        """The boards of a line that are in the cart, those alike counted."""
        pile = self._pile(key)
        counted: Counter[OnHand] = Counter(board.read.on_hand for board in self.kept(key))
        if pile.plain:
            counted[OnHand(self.lines[key].real_length)] += pile.plain
        return counted

    def packs(self) -> dict[str, FoundPacks]:
        """What is known of packs, by their keys."""
        return {
            key: FoundPacks(self.taken(key), self.left(key), self.tag(key))
            for key in self._piles
            if self.lines[key].stock is None
        }

    def as_found(self, lines: Iterable[PriceLine]) -> list[PriceLine]:
        """A price list as the yard turned out to be: prices by their tags where the list has one,
        and so many of each as are left there."""
        return [self._as_found(line) for line in lines]

    def facts(self, basis: Basis) -> Facts:
        """What happened at the yard, for plans that rest on a basis."""
        return Facts(
            taken=self.on_hand(), lines=tuple(self.as_found(basis.lines)), packs=self.packs()
        )

    def _as_found(self, line: PriceLine) -> PriceLine:
        key = line_key(line.stock, line.length.ticks)
        tag = self.tag(key)
        if tag is not None and line.price is not None:
            per = "sheet" if line.stock.is_sheet else "each"
            line = replace(line, price=tag, per=per)
        return replace(line, available=self.left(key))

    def take(self, event: Event) -> None:
        """Takes an event in. Raises ``CarpentryError`` for one that cannot be."""
        if event.kind is EventKind.CHECKED:
            self._check(event)
            return
        if event.line not in self.lines:
            raise CarpentryError("that is not on this yard's list any more", "line")
        pile = self._pile(event.line)
        if event.kind is EventKind.TAG:
            pile.tag = read_money(event.price) if event.price.strip() else None
        elif event.kind is EventKind.ONLY:
            self._only(pile, event)
        elif event.kind is EventKind.TOOK:
            if not 1 <= event.count <= MOST_TAKEN - pile.taken:
                raise CarpentryError(f"from 1 to {MOST_TAKEN:,} of a line are taken", "count")
            pile.plain += event.count
            pile.fewer(event.count)
        elif event.kind is EventKind.PUT_BACK:
            if not pile.plain:
                raise CarpentryError("none of these is ticked", "count")
            pile.plain -= 1
            pile.fewer(-1)
        elif event.kind in _TALKS_OF_BOARDS:
            pile.boards.append(self._measured(event))
            pile.fewer(1)
        self._piles[event.line] = pile

    def _check(self, event: Event) -> None:
        if event.line not in {check.key for check in CHECKS}:
            raise CarpentryError("there is no such check", "line")
        self.checked ^= {event.line}

    def _only(self, pile: _Pile, event: Event) -> None:
        if event.count < 0 or event.count > MOST_TAKEN:
            raise CarpentryError(f"there are from 0 to {MOST_TAKEN:,}", "count")
        if event.count < pile.taken:
            more = pile.taken - event.count
            raise CarpentryError(
                f"{pile.taken} of these are ticked already: put {more} back first, or count"
                " them in",
                "count",
            )
        pile.left, pile.limited = event.count - pile.taken, True

    def _measured(self, event: Event) -> YardBoard:
        line = self.lines[event.line]
        if line.stock is None:
            raise CarpentryError("only boards are measured", "line")
        typed = {name: getattr(event, name) for name in _MEASURED}
        typed["length"] = typed["length"].strip() or interchange(
            line.real_length, self._lexicon.unit
        )
        kept = event.kind is EventKind.KEPT
        read = read_board(BoardFields(stock=str(line.stock), **typed), self._lexicon)
        if kept and read.length > line.real_length + line.length // 10:
            raise CarpentryError("that is much longer than its name: look at the tag", "length")
        reason = read.not_used_because() or ("crooked" if read.crook else "")
        if kept and reason:
            raise CarpentryError(f"{reason}; reject it, or note only what stays good")
        return YardBoard(event.id, read, kept)


def cart_of(events: Iterable[Event], lines: Mapping[str, Line], lexicon: Lexicon) -> Cart:
    """The cart that events come to, in their order, without those that were undone. Raises
    ``CarpentryError`` for one that cannot be."""
    cart = Cart(lines, lexicon)
    known: dict[str, Event] = {}
    for event in events:
        known[event.id] = event
        if event.kind is EventKind.UNDONE:
            undone = known.get(event.undoes)
            if undone is None or undone.kind is EventKind.UNDONE:
                raise CarpentryError("there is nothing of that kind to undo", "undoes")
    gone = {event.undoes for event in known.values()}
    for event in known.values():
        if event.kind is not EventKind.UNDONE and event.id not in gone:
            cart.take(event)
    return cart
