"""The API of the size book: looked up, and asked the other way round."""

from decimal import Decimal
from fractions import Fraction
from functools import partial
from itertools import groupby

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Query, Router

from carpentry.buying import cents, piece_price, write_money
from carpentry.language import TICKS_PER_FOOT, CarpentryError, Faults, Unit, read_length
from carpentry.lumber import Alternative, Entry, Section, entries, look_up, nominal_for
from server.common.schemas import ErrorOut, length_out
from server.sizes.schemas import BookOut, BookSizeOut, BothUnitsOut, FamilyOut, WayOut, WaysIn
from server.yards.models import Yard

router = Router(tags=["sizes"])


def _both(ticks: int) -> BothUnitsOut:
    return BothUnitsOut(inches=length_out(ticks, "1/64"), millimetres=length_out(ticks, "mm"))


def _wide(section: Section | None) -> BothUnitsOut | None:
    return _both(section.width) if section and section.width else None


def _size(entry: Entry) -> BookSizeOut:
    size = entry.size
    green = size.green if size.green != size.section else None
    return BookSizeOut(
        name=size.name,
        thickness=_both(size.section.thickness),
        width=_wide(size.section),
        green_thickness=_both(green.thickness) if green else None,
        green_width=_wide(green),
    )


@router.get("/sizes", response=BookOut)
def size_book(request: HttpRequest, name: str = "") -> BookOut:
    """The size book, or the entries that a name means."""
    try:
        found = look_up(name) if name.strip() else list(entries())
    except CarpentryError as error:
        return BookOut(families=[], message=error.problems[0].message)
    found.sort(key=lambda entry: entry.family.name)
    families = []
    for _, group in groupby(found, key=lambda entry: entry.family.name):
        of_family = list(group)
        family = of_family[0].family
        families.append(
            FamilyOut(
                name=family.name,
                source=family.source,
                note=family.note,
                sizes=[_size(entry) for entry in of_family],
            )
        )
    order = [entry.family.name for entry in entries()]
    families.sort(key=lambda family: order.index(family.name))
    return BookOut(families=families, message="")


@router.get("/sizes/ways", response={200: list[WayOut], 404: ErrorOut, 422: ErrorOut})
def ways_to_a_size(request: HttpRequest, asked: Query[WaysIn]) -> list[WayOut]:
    """The ways to a finished size, the cheapest at a yard first."""
    faults = Faults()
    thick, wide = (
        faults.attempt(place, partial(_ticks, text, asked.unit), 0)
        for place, text in (("thickness", asked.thickness), ("width", asked.width))
    )
    faults.raise_any()
    chosen = get_object_or_404(Yard.objects.of(request.user), id=asked.yard) if asked.yard else None
    prices = _feet_prices(chosen, asked.words) if chosen else {}
    currency = chosen.currency if chosen else "USD"
    return [_way(one, currency) for one in nominal_for(thick, wide, prices.get)]


def _ticks(text: str, unit: Unit) -> int:
    return read_length(text, unit).ticks


def _feet_prices(yard: Yard, words: str) -> dict[str, Decimal]:
    """The least price of a running foot by size name, of the yard's stock with these words."""
    wanted = tuple(sorted(words.lower().split()))
    prices: dict[str, Decimal] = {}
    for line in yard.read_lines():
        price = piece_price(line, whole_inches=yard.whole_inches)
        if price is None or line.stock.words != wanted:
            continue
        foot = cents(Fraction(price) * TICKS_PER_FOOT / line.length.ticks)
        prices[line.stock.size] = min(foot, prices.get(line.stock.size, foot))
    return prices


def _way(one: Alternative, currency: str) -> WayOut:
    return WayOut(
        way=one.way,
        size=one.size.name,
        boards=one.boards,
        thickness=_both(one.size.section.thickness),
        width=_both(one.size.section.width),
        off_width=_both(one.off_width),
        off_thickness=_both(one.off_thickness),
        cost=None if one.cost is None else write_money(one.cost, currency),
    )
