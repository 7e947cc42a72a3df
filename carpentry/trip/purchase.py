"""What a plan wants of every line of a yard, beside what is in the cart."""

from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal
from fractions import Fraction

from carpentry.buying import ListLine, Tax, shopping_list, write_money
from carpentry.cutting import CutPlan
from carpentry.language import Notation
from carpentry.lumber import StockName, rounded, species_of, weight_kg
from carpentry.lumber.rack import OnHand
from carpentry.project import Material, Settings
from carpentry.trip.cart import Cart, Line

HARDWARE = "hardware"


@dataclass(frozen=True)
class Wanted:
    """How many of a line a plan needs, and how many ``spare`` ones stand beside them; what is in
    the cart already counts among both. ``idle`` are the boards, by their events, that were measured
    and kept but serve no part."""

    needed: int
    spare: int = 0
    idle: tuple[str, ...] = ()

    @property
    def count(self) -> int:
        return self.needed + self.spare


Purchase = Mapping[str, Wanted]
Planned = Sequence[tuple[Material, CutPlan | None]]


def purchase_of(planned: Planned, cart: Cart, settings: Settings) -> dict[str, Wanted]:
    """What plans of materials take, by line. Boards of the cart are what they were planned from as
    boards on hand; those of these materials that no plan uses are not wanted."""
    keys = {(line.stock, line.length): key for key, line in cart.lines.items() if line.stock}
    bought: Counter[str] = Counter()
    used: dict[object, Counter[OnHand]] = {}
    for material, plan in planned:
        offers = {offer.id: offer for offer in material.offers}
        for layout in plan.layouts if plan else ():
            offer = offers[layout.stock]
            if offer.on_hand is None:
                bought[keys[offer.stock, offer.length]] += layout.count
            else:
                used.setdefault(offer.stock, Counter())[offer.on_hand] += layout.count
    idle: dict[str, list[str]] = {}
    stocks = {offer.stock for material, _ in planned for offer in material.offers}
    for key in cart.touched():
        stock = cart.lines[key].stock
        if stock not in stocks:
            continue
        left = used.get(stock, Counter())
        for board in cart.kept(key):
            if left[board.read.on_hand] > 0:
                left[board.read.on_hand] -= 1
                bought[key] += 1
            else:
                idle.setdefault(key, []).append(board.event)
        as_listed = OnHand(cart.lines[key].real_length)
        taken = min(cart.plain(key), left[as_listed])
        left[as_listed] -= taken
        bought[key] += taken
    return {
        key: Wanted(bought[key], _spare(key, bought[key], cart, settings), tuple(idle.get(key, ())))
        for key in dict.fromkeys((*bought, *idle))
        if bought[key] or key in idle
    }


def together(purchases: Iterable[Purchase]) -> dict[str, Wanted]:
    """Purchases of several materials as one."""
    found: dict[str, Wanted] = {}
    for purchase in purchases:
        for key, one in purchase.items():
            other = found.get(key, Wanted(0))
            found[key] = Wanted(
                one.needed + other.needed, one.spare + other.spare, (*one.idle, *other.idle)
            )
    return found


def touched_by(stock: StockName | None, materials: Sequence[Material]) -> set[int]:
    """The materials (by index) that have to be planned anew when less of a stock is there: those
    that are cut from it, and those that share a stock with one of these."""
    stocks = {stock} if stock else set()
    touched: set[int] = set()
    grown = True
    while grown:
        grown = False
        for n, material in enumerate(materials):
            mine = {offer.stock for offer in material.offers}
            if n not in touched and mine & stocks:
                touched.add(n)
                stocks |= mine
                grown = True
    return touched


def left_out_told(planned: Planned) -> list[str]:
    """The parts that plans leave out, in words."""
    return [
        f"{left.quantity} × {named[left.part]}: {left.reason}"
        for material, plan in planned
        for named in [{one.id: one.part.name for one in material.parts}]
        for left in (plan.unplaced if plan else ())
    ]


def _spare(key: str, needed: int, cart: Cart, settings: Settings) -> int:
    left = cart.left(key)
    spare = settings.spare.of(needed)
    return spare if left is None else max(0, min(spare, cart.taken(key) + left - needed))


def total_of(counts: Mapping[str, int], cart: Cart, tax: Tax) -> tuple[Decimal, int]:
    """What so many of each line cost with tax, by their tags or the list, and how many pieces have
    no price."""
    boards: list[ListLine] = []
    packs = Decimal(0)
    unpriced = 0
    for key, count in counts.items():
        line, price = cart.lines[key], cart.price(key)
        if line.stock:
            length = line.real_length
            boards.append(ListLine(line.stock, line.section, line.length, length, count, price))
        else:
            packs += (price or Decimal(0)) * count
            unpriced += 0 if price is not None else count
    listed = shopping_list(boards, tax, 1, packs)
    return listed.total, listed.unpriced + unpriced


@dataclass(frozen=True)
class Load:
    """What is carried home: kilograms air-dry, one decimal, without ``unweighed`` boards of woods
    that nobody knows the weight of; and the longest board (ticks)."""

    weight_kg: Decimal
    unweighed: int
    longest: int


def load_of(purchase: Purchase, cart: Cart) -> Load:
    """The load of a purchase when all of it is taken; boards of the cart as they measure."""
    kilograms = Fraction(0)
    longest = unweighed = 0
    for key in dict.fromkeys((*purchase, *cart.touched())):
        line = cart.lines[key]
        if line.stock is None or line.section is None:
            continue
        density = species_of(line.stock).density()
        boards = cart.boards_in(key)
        wanted = purchase.get(key, Wanted(0)).count
        boards[OnHand(line.real_length)] += max(0, wanted - cart.taken(key))
        for board, count in boards.items():
            section = board.section or line.section
            if density is None:
                unweighed += count
            else:
                kilograms += weight_kg(section.area * board.length * count, density)
            longest = max(longest, board.length if count else 0)
    return Load(rounded(kilograms), unweighed, longest)


def change_told(
    before: Purchase,
    after: Purchase,
    cart: Cart,
    tax: Tax,
    *,
    currency: str,
    notation: Notation,
) -> str:
    """What a new plan changed of a purchase, such as "3 × 2x4 treated 16 ft instead of 4 × 2x4
    treated 12 ft: $3.10 more"; empty where nothing did."""
    counts = [{key: one.count for key, one in side.items()} for side in (before, after)]
    keys = dict.fromkeys((*counts[1], *counts[0]))
    changes = {key: counts[1].get(key, 0) - counts[0].get(key, 0) for key in keys}

    def named(sign: int) -> str:
        return ", ".join(
            f"{abs(n)} × {cart.lines[key].called(notation)}"
            for key, n in changes.items()
            if n * sign > 0
        )

    more, fewer = named(1), named(-1)
    if not more and not fewer:
        return ""
    (was, unpriced_before), (now, unpriced_after) = (total_of(one, cart, tax) for one in counts)
    told = f"{more} instead of {fewer}" if more and fewer else more and f"{more} more"
    told = told or f"{fewer} fewer"
    if unpriced_before or unpriced_after:
        return f"{told}; some prices are missing"
    if was == now:
        return f"{told}, at the same price"
    return f"{told}: {write_money(abs(now - was), currency)} {'more' if now > was else 'less'}"


def racks_of(keys: Iterable[str], cart: Cart, walk: str) -> list[tuple[str, list[str]]]:
    """The lines in the order in which they are walked by: rack by rack, each a wood, with its sizes
    from small to large and the longest of each first; hardware last. ``walk`` names racks that come
    before the others, such as ``cedar, treated``; those go in the order of the yard's list."""
    first = [name.strip().lower() for name in walk.split(",") if name.strip()]
    listed: dict[str, list[str]] = {}
    for key, line in cart.lines.items():
        listed.setdefault(rack_named(line), []).append(key)
    order = list(listed)
    wanted = set(keys)

    def place(rack: str) -> tuple[bool, int]:
        named = rack.lower() in first
        return not named, first.index(rack.lower()) if named else order.index(rack)

    racks = []
    for rack in sorted(listed, key=place):
        here = [key for key in listed[rack] if key in wanted]
        if here:
            racks.append((rack, sorted(here, key=lambda key: _size(cart.lines[key]))))
    return racks


def rack_named(line: Line) -> str:
    """The rack that a line lies on: its wood or kind."""
    if line.stock is None:
        return HARDWARE
    return " ".join(line.stock.words) or ("sheets" if line.stock.is_sheet else "plain")


def _size(line: Line) -> tuple[int, str, int]:
    area = line.section.area if line.section else 0
    return area, line.name, -line.length
