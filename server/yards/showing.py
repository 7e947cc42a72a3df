"""A yard in the words of the API's contract."""

from dataclasses import asdict
from decimal import Decimal

from django.conf import settings

from carpentry.buying import PRICE_COLUMNS, piece_price, write_money
from carpentry.buying import PriceLine as ReadLine
from carpentry.language import Notation, sold_name
from server.common.schemas import length_out, section_out
from server.history.showing import shows
from server.yards.asking import Answer, Quoted
from server.yards.models import PriceLine, Yard
from server.yards.schemas import (
    AskedOut,
    PriceLineOut,
    QuotedOut,
    RefusedOut,
    YardOut,
    YardReadingOut,
)

TYPED = tuple(name for name in PRICE_COLUMNS if name != "yard")

PAGE = 100


def notation_of(yard: Yard) -> Notation:
    return Notation.MM if yard.unit == Yard.Unit.MM else Notation.SIXTY_FOURTHS


@shows(Yard)
def show_yard(yard: Yard, find: str = "", page: int = 1) -> YardOut:
    """The yard as it is now, with a page of the price lines that a search finds."""
    found = yard.find_lines(find)
    start = (max(page, 1) - 1) * PAGE
    return YardOut(
        id=yard.id,
        name=yard.name,
        version=yard.version,
        unit=yard.unit,
        currency=yard.currency,
        tax_rate=f"{yard.tax.rate:f}",
        prices_include_tax=yard.prices_include_tax,
        board_foot_rounding=yard.board_foot_rounding,
        price_age_days=yard.price_age_days,
        price_service=yard.price_service,
        service_code=yard.service_code,
        packs=yard.packs,
        walk=yard.walk,
        services=sorted(settings.PRICE_SERVICES),
        old_prices=yard.old_lines().count(),
        lines=[_line(line, yard) for line in found[start : start + PAGE]],
        found=found.count(),
        total=yard.lines.count(),
        page_size=PAGE,
        **asdict(yard.labels),
        updated=yard.updated,
    )


def _line(line: PriceLine, yard: Yard) -> PriceLineOut:
    line.yard = yard
    read = line.read()
    notation = notation_of(yard)
    price = piece_price(read, whole_inches=yard.whole_inches)
    return PriceLineOut(
        id=line.id,
        **{name: getattr(line, name) for name in TYPED},
        kind=read.stock.kind,
        named_length=sold_name(read.length.ticks, notation),
        real_length=length_out(read.real_length, notation),
        section=section_out(read.section, notation),
        section_is_own=read.has_own_section,
        is_old=line.is_old,
        piece_price=None if price is None else write_money(price, yard.currency),
        warnings=list(read.warnings),
    )


def compare_list(name: str, yard: Yard | None, lines: list[ReadLine]) -> YardReadingOut:
    """What taking a price list would do to a yard (``None``: it would be a new one)."""
    before = {(li.stock_key, li.length_ticks): li for li in yard.lines.all()} if yard else {}
    new, changed, same = [], [], 0
    for read in lines:
        called = f"{read.stock} {read.fields.length}"
        known = before.pop((str(read.stock), read.length.ticks), None)
        if known is None:
            new.append(called)
        elif all(getattr(known, field) == getattr(read.fields, field) for field in TYPED):
            same += 1
        else:
            changed.append(f"{called}: {known.price or 'none'} → {read.fields.price or 'none'}")
    return YardReadingOut(
        yard=name,
        known=yard is not None,
        new=new,
        changed=changed,
        same=same,
        gone=[str(line) for line in before.values()],
    )


def show_asked(answer: Answer, yard: Yard) -> AskedOut:
    """What a price service said, line by line."""
    return AskedOut(
        as_of=answer.as_of,
        changed=[_quoted(one, yard) for one in answer.changed],
        same=answer.same,
        unknown=[str(line) for line in answer.unknown],
        refused=[RefusedOut(name=str(line), reason=reason) for line, reason in answer.refused],
    )


def _quoted(one: Quoted, yard: Yard) -> QuotedOut:
    before = piece_price(one.line.read(), whole_inches=yard.whole_inches)
    return QuotedOut(
        line=one.line.id,
        name=str(one.line),
        before=_offer(before, one.line.available, yard),
        after=_offer(Decimal(one.price), one.available, yard),
        price=one.price,
        available=one.available,
        doubt=one.doubt,
    )


def _offer(price: Decimal | None, available: str, yard: Yard) -> str:
    cost = "no price" if price is None else write_money(price, yard.currency)
    if available == "0":
        return f"{cost}, none there"
    return f"{cost}, {available} there" if available else cost
