"""From what is needed to packs and cans, as a yard sells them or as it turned out to have them."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from decimal import Decimal

from carpentry.buying.coating import write_volume
from carpentry.buying.joints import hardware_key, read_each_line, read_package
from carpentry.buying.packages import MOST_NEEDED, Package, pack_need
from carpentry.language import CarpentryError, Unit, interchange, write_length
from carpentry.project.settings import Settings


@dataclass(frozen=True)
class FoundPacks:
    """What is known of a pack at the yard: how many are in the cart, how many more there are
    (``None`` for plenty), and what its tag says (``None`` for the list's price)."""

    taken: int = 0
    left: int | None = None
    tag: Decimal | None = None


@dataclass(frozen=True)
class HardwareLine:
    """Something to buy: its ``length`` in ticks where it has one, how many are ``needed``, how many
    are in the drawer, the packs, their ``price`` (``None`` where it is not known), what is left
    over, and what it is used for. A ``volume`` is counted in millilitres. So many are ``missing``
    because there are no more packs."""

    name: str
    length: int | None
    needed: int
    have: int
    packs: tuple[tuple[Package, int], ...]
    price: Decimal | None
    left: int
    used_for: tuple[str, ...]
    volume: bool = False
    missing: int = 0

    @property
    def tin(self) -> str:
        """What the first of its tins holds, as it is written on it."""
        return self.packs[0][0].content if self.volume and self.packs else ""


def pack_key(name: str, length: int | None, package: Package | None = None) -> str:
    """What a pack is known by: the name and length (ticks) of what it holds, and how much."""
    sized = name if length is None else f"{name} {interchange(length, Unit.INCH)}"
    return f"pack {sized} {content_of(package) if package else ''}".strip()


def content_of(package: Package) -> str:
    """What a package holds, in words; empty for a single piece."""
    if package.volume:
        return package.content
    return "" if package.holds == 1 else f"pack of {package.holds}"


def packed_line(
    need: HardwareLine, packages: Sequence[Package], found: Mapping[str, FoundPacks]
) -> HardwareLine:
    """A need with the cheapest packs for it, those in the cart counted first. Where there are too
    few it takes what there is."""
    seen = [found.get(pack_key(need.name, need.length, p), FoundPacks()) for p in packages]
    in_cart = sum(p.holds * one.taken for p, one in zip(packages, seen, strict=True))
    rest = need.needed - need.have - in_cart
    if (not packages and rest > 0) or need.needed > MOST_NEEDED:
        none_there = found.get(pack_key(need.name, need.length), FoundPacks()).left == 0
        return replace(need, missing=rest if none_there else 0)
    offered = [
        replace(p, price=p.price if one.tag is None else one.tag, available=one.left)
        for p, one in zip(packages, seen, strict=True)
    ]
    held = sum(p.holds * p.available for p in offered if p.available is not None)
    plenty = any(p.available is None for p in offered)
    if rest > held and not plenty:
        counts = tuple(p.available or 0 for p in offered)
    else:
        counts = pack_need(need.needed, offered, need.have + in_cart).counts
    whole = [count + one.taken for count, one in zip(counts, seen, strict=True)]
    bought = sum(p.holds * n for p, n in zip(packages, whole, strict=True))
    left = need.have + bought - need.needed
    return replace(
        need,
        packs=tuple((p, n) for p, n in zip(packages, whole, strict=True) if n),
        price=sum((p.price * n for p, n in zip(offered, whole, strict=True)), Decimal(0)),
        left=max(0, left),
        missing=max(0, -left),
    )


def missing_told(line: HardwareLine, settings: Settings) -> str:
    """How much of a thing there are no packs for, such as "20 × screw 2″: the packs are too few";
    empty where there are enough."""
    if not line.missing:
        return ""
    name = line.name
    if line.length is not None:
        name += f" {write_length(line.length, settings.notation).text}"
    amount = f"{line.missing} × {name}"
    if line.volume:
        amount = (
            f"{write_volume(line.missing, metric=settings.unit is Unit.MM, tin=line.tin)} {name}"
        )
    return f"{amount}: the packs are too few"


def pack_prices(text: str, unit: Unit) -> dict[str, Decimal]:
    """What a yard's packs cost, by their keys in lower case; ``text`` has one a line, bare lengths
    in ``unit``."""
    packages, _ = read_each_line(text, read_package)
    return {_key_of(package, unit): package.price for package in packages}


def packs_priced(text: str, unit: Unit, prices: Mapping[str, Decimal]) -> str:
    """The lines of a yard's packs with other prices for some of them, by key in lower case."""
    return "\n".join(_priced(line, unit, prices) for line in text.splitlines())


def _key_of(package: Package, unit: Unit) -> str:
    name, length = hardware_key(package.name, unit)
    return pack_key(name, length, package).lower()


def _priced(line: str, unit: Unit, prices: Mapping[str, Decimal]) -> str:
    try:
        price = prices.get(_key_of(read_package(line), unit))
    except CarpentryError:
        return line
    return line if price is None else f"{line.rpartition(',')[0]}, {price:f}"
