"""Parts gathered by material, each with the stock lengths it can be cut from."""

from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import replace
from decimal import Decimal
from enum import Enum

from carpentry.buying import PriceFields, PriceLine, piece_price, read_price_line
from carpentry.design import Part, angles_fault, not_planned_yet
from carpentry.design.ends import is_angled
from carpentry.language import Unit, interchange, spelled_out
from carpentry.lumber import INCHES, STANDARD_LENGTHS, Section, StockName, standard_section
from carpentry.lumber.rack import OnHand
from carpentry.project.material import Material, NamedPart, Offer
from carpentry.project.settings import Settings

MOST_PIECES = 10_000
MOST_TOGETHER = 150  # pieces of one wood that are planned together where some are ripped
MOST_KINDS_TOGETHER = 20
Owned = Mapping[StockName, Counter[OnHand]]
Stocks = tuple[StockName, ...]


class Grouping(Enum):
    """Which parts of a wood are one cut problem where some may be ripped. Those that can come from
    the same boards, today. Plans that were cut before are read as they were made: of a whole wood,
    without angled ends that share saw lines, or those that are ripped alone."""

    RIPPED_ALONE = 1
    SQUARE_ENDED = 2
    SAME_BOARDS = 3


class Shelf:
    """What there is to cut from: a yard's price lines and boards on hand. ``whole_inches`` is the
    yard's school of board feet."""

    def __init__(
        self,
        lines: Iterable[PriceLine],
        unit: Unit,
        *,
        whole_inches: bool = False,
        owned: Owned | None = None,
    ) -> None:
        self.unit = unit
        self.whole_inches = whole_inches
        self.owned = owned or {}
        self.lines: dict[StockName, list[PriceLine]] = {}
        for line in lines:
            self.lines.setdefault(line.stock, []).append(line)

    def section(self, stock: StockName) -> tuple[Section | None, bool]:
        """What a stock measures here, and whether that is the yard's own."""
        return section_sold(stock, self.lines.get(stock, ()))

    def offers(self, stock: StockName) -> tuple[bool, list[Offer]]:
        """What can be bought of a stock, and whether with prices: where some lines are priced those
        alone; where there is no line the standard lengths, without a price."""
        lines = self.lines.get(stock, [])
        if not lines:
            return False, [
                Offer(interchange(length, Unit.INCH), stock, length, length, None, None)
                for length in STANDARD_LENGTHS[self.unit]
            ]
        prices = [(line, piece_price(line, whole_inches=self.whole_inches)) for line in lines]
        priced = [(line, price) for line, price in prices if price is not None]
        return bool(priced), [
            Offer(
                interchange(line.length.ticks, Unit.INCH),
                stock,
                line.length.ticks,
                line.real_length,
                price,
                line.available,
            )
            for line, price in (priced or prices)
        ]

    def on_hand(self, stock: StockName) -> list[Offer]:
        """Boards of a stock that are owned, alike ones together, at price 0."""
        return [
            Offer(
                _owned_id(board),
                stock,
                board.length,
                board.length,
                Decimal(0),
                count,
                on_hand=board,
                section=board.section,
            )
            for board, count in sorted(
                self.owned.get(stock, Counter()).items(), key=lambda one: _owned_id(one[0])
            )
        ]

    def of_wood(self, wood: tuple[str, ...]) -> list[StockName]:
        """The stocks of a wood that are sold or owned."""
        return [stock for stock in dict.fromkeys((*self.lines, *self.owned)) if stock.wood == wood]


def standard_lines(stock: StockName, unit: Unit) -> list[PriceLine]:
    """The standard lengths of a stock that a yard does not list, as lines without a price."""
    return [
        read_price_line(
            PriceFields(stock=str(stock), length=spelled_out(length, Unit.INCH)),
            INCHES.knowing({stock.size: stock.own}) if stock.own else INCHES,
        )
        for length in STANDARD_LENGTHS[unit]
    ]


def _owned_id(board: OnHand) -> str:
    sizes = [board.length]
    if board.section:
        sizes += [board.section.thickness, board.section.width]
    sizes += [end for flaw in board.flaws for end in flaw]
    if board.crook:
        sizes.append(board.crook)
    name = "owned" if board.number is None else f"rack {board.number}"
    return " ".join((name, *(interchange(size, Unit.INCH) for size in sizes)))


def section_sold(stock: StockName, lines: Iterable[PriceLine]) -> tuple[Section | None, bool]:
    """The section a stock has where these lines are sold, and whether it is the yard's own: the
    first that a line states, else the standard one (``None`` for a sheet)."""
    own = next((line for line in lines if line.has_own_section), None)
    return (own.section, True) if own else (standard_section(stock), False)


def gather_materials(
    parts: Iterable[NamedPart],
    shelf: Shelf,
    settings: Settings,
    grouping: Grouping = Grouping.SAME_BOARDS,
) -> list[Material]:
    """Materials in the order in which the parts first name them.

    Parts that may be ripped are planned together with all others that can come from the same
    boards, so that what is proven is proven of them all; where they are too many for that, those
    that are not ripped are kept apart, each from their own stock.
    """
    named_parts = list(parts)
    woods: dict[tuple[str, ...], list[NamedPart]] = {}
    for named in named_parts:
        woods.setdefault(named.part.stock.wood, []).append(named)
    together: dict[str, Stocks] = {}
    for wood, of_wood in woods.items():
        for stocks in _stocks_together(wood, of_wood, shelf, settings, grouping):
            here = [one for one in of_wood if one.part.stock in stocks]
            together |= dict.fromkeys(_planned_together(here, shelf, settings, grouping), stocks)
    groups: dict[StockName | Stocks, list[NamedPart]] = {}
    for named in named_parts:
        groups.setdefault(together.get(named.id, named.part.stock), []).append(named)
    torn = torn_apart(named_parts, groups)
    alone = grouping is Grouping.RIPPED_ALONE
    return [
        _without_torn(
            _of_stock(key, named, shelf, settings)
            if isinstance(key, StockName)
            else _of_wood(key, named, () if alone else named_parts, shelf, settings),
            torn,
        )
        for key, named in groups.items()
    ]


def _stocks_together(
    wood: tuple[str, ...],
    of_wood: Sequence[NamedPart],
    shelf: Shelf,
    settings: Settings,
    grouping: Grouping,
) -> list[Stocks]:
    """The stocks of a wood from which parts may be ripped: those that a part can come from belong
    together."""
    every = tuple(dict.fromkeys((*(one.part.stock for one in of_wood), *shelf.of_wood(wood))))
    sawn = [one for one in of_wood if is_sawn(one, shelf, settings)]
    if grouping is not Grouping.SAME_BOARDS:
        return [every] if sawn else []
    groups: list[set[StockName]] = []
    for one in sawn:
        mine = {stock for stock in every if _may_come_from(one.part, stock, shelf, settings)}
        mine.add(one.part.stock)
        for other in [group for group in groups if group & mine]:
            groups.remove(other)
            mine |= other
        groups.append(mine)
    return [tuple(stock for stock in every if stock in group) for group in groups]


def _may_come_from(part: Part, stock: StockName, shelf: Shelf, settings: Settings) -> bool:
    """Whether a part that is sawn could come from boards of a stock, by their sections."""
    if stock != part.stock and part.own_stock_only(settings.own_stock):
        return False
    wanted = part.finished_section(shelf.section(part.stock)[0])
    boards = [shelf.section(stock)[0], *(offer.section for offer in shelf.on_hand(stock))]
    if wanted is None:
        return False
    sizes = (wanted.thickness, wanted.width), (wanted.width, wanted.thickness)
    rips, resaws = part.may_be_ripped(settings.rip), part.may_be_resawn(settings.resaw)
    return any(
        (high == board.thickness or (resaws and high < board.thickness))
        and (wide == board.width or (rips and wide < board.width))
        for board in boards
        if board
        for high, wide in sizes
    )


def torn_apart(
    parts: Iterable[NamedPart],
    groups: Mapping[StockName | Stocks, list[NamedPart]],
) -> dict[str, str]:
    """Parts (by id) that are to be kept together and cannot be, each with the reason in words."""
    place = {one.id: key for key, named in groups.items() for one in named}
    sets: dict[str, list[NamedPart]] = {}
    for one in parts:
        if name := one.part.fields.together.strip():
            sets.setdefault(name, []).append(one)
    found: dict[str, str] = {}
    for name, members in sets.items():
        first = members[0].part
        reason = ""
        if len(members) == 1:
            reason = "there is nothing else of that name"
        elif len({place[one.id] for one in members}) > 1:
            reason = "they are of different stock"
        elif any(one.part.quantity != first.quantity for one in members):
            reason = "there are not as many of each"
        elif any(_is_slanted(one.part) for one in members):
            reason = "only square ends and edges lie so"
        elif any(_section_stated(one.part) != _section_stated(first) for one in members):
            reason = "they have different sections"
        elif len({one.part.boards for one in members}) > 1:
            reason = "they name different rack boards"
        if reason:
            found |= {one.id: f"cannot be kept together as “{name}”: {reason}" for one in members}
    return found


def _is_slanted(part: Part) -> bool:
    return is_angled(part.sawn_ends) or is_angled(part.edges)


def _section_stated(part: Part) -> list[int]:
    return [one.ticks if one else 0 for one in (part.thickness, part.width)]


def _without_torn(material: Material, torn: Mapping[str, str]) -> Material:
    """A material in which parts that cannot be kept together wait, told why."""
    waiting = [one for one in material.parts if one.id in torn]
    if not waiting:
        return material
    return replace(
        material,
        parts=tuple(one for one in material.parts if one.id not in torn),
        later=(*material.later, *((one, torn[one.id]) for one in waiting)),
    )


def is_sawn(named: NamedPart, shelf: Shelf, settings: Settings) -> bool:
    """Whether a part may be ripped or resawn from other sizes."""
    return named.part.may_be_sawn(settings.rip) and _has_flat_faces(named.part, shelf)


def _has_flat_faces(part: Part, shelf: Shelf) -> bool:
    section, _ = shelf.section(part.stock)
    return section is not None and part.stock.is_even


def _kept_apart(
    stocks: Stocks, together: Sequence[NamedPart], others: Iterable[NamedPart], shelf: Shelf
) -> set[StockName]:
    """The stocks of parts that could share boards with these, but are planned by themselves."""
    ids = {one.id for one in together}
    return {
        one.part.stock
        for one in others
        if one.part.stock in stocks and one.id not in ids and _has_flat_faces(one.part, shelf)
    }


def _planned_together(
    here: Sequence[NamedPart], shelf: Shelf, settings: Settings, grouping: Grouping
) -> set[str]:
    """The parts of some stocks, by id, that are planned as one: those that may be sawn, and those
    that could share boards with them, unless they are too many."""
    sawn = [one for one in here if is_sawn(one, shelf, settings)]
    ids = {one.id for one in sawn}
    priced = any(shelf.offers(one.part.stock)[0] for one in sawn)
    angled_too = grouping is Grouping.SAME_BOARDS or not settings.share_angled_cuts
    others = [
        one
        for one in here
        if one.id not in ids
        and _has_flat_faces(one.part, shelf)
        and not not_planned_yet(one.part, shelf.section(one.part.stock)[0])
        and shelf.offers(one.part.stock)[0] == priced
        and (angled_too or one.part.square_ended)
    ]
    pieces = sum(one.part.quantity for one in (*sawn, *others)) * settings.copies
    too_many = pieces > MOST_TOGETHER or len(sawn) + len(others) > MOST_KINDS_TOGETHER
    if too_many or grouping is Grouping.RIPPED_ALONE:
        others = []
    return {one.id for one in (*sawn, *others)}


def _settled(
    now: list[NamedPart], later: list[tuple[NamedPart, str]], settings: Settings
) -> tuple[tuple[NamedPart, ...], tuple[tuple[NamedPart, str], ...]]:
    """The parts that are planned now and later: not more pieces than can be."""
    if sum(one.part.quantity for one in now) * settings.copies > MOST_PIECES:
        reason = f"more than {MOST_PIECES:,} pieces of one stock: build fewer copies"
        return (), (*later, *((one, reason) for one in now))
    return tuple(now), tuple(later)


def _of_stock(
    stock: StockName, named: Sequence[NamedPart], shelf: Shelf, settings: Settings
) -> Material:
    section, from_yard = shelf.section(stock)
    offers = [one for one in shelf.on_hand(stock) if not (one.on_hand and one.on_hand.crook)]
    reasons = [
        (one, not_planned_yet(one.part, section) or _no_board_named(one.part, offers))
        for one in named
    ]
    parts, later = _settled(
        [one for one, reason in reasons if not reason],
        [(one, reason) for one, reason in reasons if reason],
        settings,
    )
    priced, bought = shelf.offers(stock)
    return Material(
        stock=stock,
        section=section,
        section_from_yard=from_yard,
        sections_differ=len({line.section for line in shelf.lines.get(stock, [])}) > 1,
        priced=priced,
        offers=(*_large_enough(offers, parts), *bought),
        parts=parts,
        later=later,
        sections={one.id: one.part.finished_section(section) for one in named},
    )


def _no_board_named(part: Part, owned: Iterable[Offer]) -> str | None:
    """Why a part that may only come from some boards has none, in words."""
    if part.boards is None or not part.boards.only:
        return None
    if any(part.boards.allows(offer.on_hand) for offer in owned):
        return None
    return f"may only come from rack {part.boards}, which is not there to be used"


def _large_enough(owned: Iterable[Offer], parts: Iterable[NamedPart]) -> list[Offer]:
    """Boards on hand but those that measure less than a part states."""
    stated = [one.part for one in parts]
    thickest = max((p.thickness.ticks for p in stated if p.thickness), default=0)
    widest = max((p.width.ticks for p in stated if p.width), default=0)
    return [
        offer
        for offer in owned
        if offer.section is None
        or (offer.section.thickness >= thickest and offer.section.width >= widest)
    ]


def _of_wood(
    stocks: Stocks,
    named: Sequence[NamedPart],
    every: Sequence[NamedPart],
    shelf: Shelf,
    settings: Settings,
) -> Material:
    there = shelf.of_wood(named[0].part.stock.wood)
    mine = (*(one.part.stock for one in named), *(one for one in there if one in stocks))
    sold = [(stock, *shelf.offers(stock)) for stock in dict.fromkeys(mine)]
    priced = any(has_prices for _, has_prices, _ in sold)
    apart = _kept_apart(stocks, named, every, shelf)
    offers: list[Offer] = []
    for stock, has_prices, bought in sold:
        section, _ = shelf.section(stock)
        if section is None or not stock.is_even:
            continue
        here = shelf.on_hand(stock) + (bought if has_prices or not priced else [])
        if stock in apart:  # what there is only so much of goes to the parts of that stock
            here = [offer for offer in here if offer.available is None]
        offers += [
            replace(offer, id=f"{stock} {offer.id}", section=offer.section or section)
            for offer in here
        ]
    owned = [offer for offer in offers if offer.owned]
    sawn = frozenset(one.id for one in named if is_sawn(one, shelf, settings))
    reasons = [
        (
            one,
            angles_fault(one.part, shelf.section(one.part.stock)[0])
            or _no_board_named(one.part, owned),
        )
        for one in named
    ]
    parts, later = _settled(
        [one for one, reason in reasons if not reason],
        [(one, reason) for one, reason in reasons if reason],
        settings,
    )
    first = named[0].part.stock
    section, _ = shelf.section(first)
    return Material(
        stock=first,
        section=section,
        section_from_yard=any(shelf.section(stock)[1] for stock in stocks),
        sections_differ=False,
        priced=priced,
        offers=tuple(offers),
        parts=parts,
        later=later,
        sections={
            one.id: one.part.finished_section(shelf.section(one.part.stock)[0]) for one in named
        },
        ripped=True,
        sawn=sawn,
        apart=bool(apart),
    )
