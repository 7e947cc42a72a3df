"""Asking a yard's price service: what it says, checked, against what the list says now.

Nothing here changes a price. The protocol is described in docs/price-service.md.
"""

import json
import time
from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import date, timedelta
from decimal import Decimal
from fractions import Fraction
from typing import Any, Literal

import urllib3
from django.conf import settings
from pydantic import BaseModel, ConfigDict, Field, ValidationError

from carpentry.buying import MAX_AVAILABLE, piece_price
from carpentry.language import TICKS_PER_FOOT, CarpentryError
from server.yards.models import PriceLine, Yard

PROTOCOL = "grain-tally/yard-prices@1"
ITEMS_AT_ONCE = 500
MOST_BYTES = 2 * 1024 * 1024
DOUBTFUL = 3  # a price that grew or fell by so many times is not taken unseen
OLDEST_DAYS = 14
UNCHANGED = "no price is changed"


class ServiceFailed(CarpentryError):
    """The service gave nothing that can be used."""

    def __init__(self, message: str) -> None:
        super().__init__(f"{message}; {UNCHANGED}", "service")


class _Said(BaseModel):
    model_config = ConfigDict(extra="forbid", strict=True)


class _Item(_Said):
    stock: str
    feet: str


class _Price(_Item):
    price: str = Field(pattern=r"^\d{1,7}\.\d\d$")
    per: Literal["each"]
    available: int | None = Field(ge=0, le=MAX_AVAILABLE)


class _Prices(_Said):
    protocol: Literal["grain-tally/yard-prices@1"]
    yard: str
    currency: str
    as_of: date = Field(strict=False)
    prices: list[_Price]
    unknown: list[_Item]


@dataclass(frozen=True)
class Quoted:
    """A line whose price or stock would change. ``doubt`` says why to look twice, or nothing."""

    line: PriceLine
    price: str
    available: str
    doubt: str


@dataclass
class Answer:
    """What asking came to: ``refused`` are lines whose price is not believed, with the reason."""

    as_of: date
    changed: list[Quoted] = field(default_factory=list)
    same: int = 0
    unknown: list[PriceLine] = field(default_factory=list)
    refused: list[tuple[PriceLine, str]] = field(default_factory=list)


def ask_yard(yard: Yard) -> Answer:
    """Asks the yard's service for all its lines.

    Raises ``ServiceFailed`` when it is down, too slow, answers nonsense or in another currency.
    """
    address = settings.PRICE_SERVICES.get(yard.price_service)
    if not address:
        raise ServiceFailed("choose this yard's price service in its settings first")
    lines = list(yard.lines.all())
    if not lines:
        raise ServiceFailed("this yard has no price lines to ask about")
    deadline = time.monotonic() + settings.PRICE_SERVICE_SECONDS
    answer: Answer | None = None
    for start in range(0, len(lines), ITEMS_AT_ONCE):
        some = lines[start : start + ITEMS_AT_ONCE]
        said = _understood(_ask(address, yard.service_code, some, deadline), yard)
        answer = answer or Answer(said.as_of)
        _compare(some, said, yard, answer)
    assert answer is not None
    return answer


def _feet(line: PriceLine) -> str:
    return str(Fraction(line.length_ticks, TICKS_PER_FOOT))


def _ask(address: str, code: str, lines: Sequence[PriceLine], deadline: float) -> bytes:
    """The raw answer; a failed attempt is made again twice, after a growing pause."""
    body = {
        "protocol": PROTOCOL,
        "yard": code,
        "items": [{"stock": line.stock_key, "feet": _feet(line)} for line in lines],
    }
    retries = urllib3.Retry(
        total=2,
        backoff_factor=0.2,
        status_forcelist=[502, 503, 504],
        allowed_methods=["POST"],
        redirect=0,
        raise_on_redirect=True,
    )
    timeout = urllib3.Timeout(connect=1, read=settings.PRICE_SERVICE_READ_SECONDS)
    pool = urllib3.PoolManager(retries=retries, timeout=timeout)
    try:
        response = pool.request("POST", f"{address}/v1/prices", json=body, preload_content=False)
        content = b""
        for chunk in response.stream(65536):
            content += chunk
            if len(content) > MOST_BYTES:
                raise ServiceFailed("the price service answers without end")
            if time.monotonic() > deadline:
                raise ServiceFailed("the price service is too slow")
        if response.status != 200:
            raise ServiceFailed(_said_no(content, response.status))
    except urllib3.exceptions.MaxRetryError as error:
        if isinstance(error.reason, urllib3.exceptions.ReadTimeoutError):
            raise ServiceFailed("the price service does not answer in time") from error
        raise ServiceFailed("the price service is down") from error
    except urllib3.exceptions.HTTPError as error:
        raise ServiceFailed("the price service broke off in the middle") from error
    finally:
        pool.clear()
    return content


def _said_no(content: bytes, status: int) -> str:
    try:
        message = json.loads(content)["message"]
    except (ValueError, KeyError, TypeError):
        message = f"status {status}"
    return f"the price service refused to answer ({str(message)[:100]})"


def _understood(content: bytes, yard: Yard) -> _Prices:
    try:
        said = _Prices.model_validate(json.loads(content))
    except (ValueError, ValidationError) as error:
        raise ServiceFailed("the price service's answer makes no sense") from error
    if said.yard != yard.service_code:
        raise ServiceFailed("the price service answered for another yard")
    if said.currency != yard.currency:
        raise ServiceFailed(
            f"the price service prices in {said.currency[:3]}, this yard in {yard.currency}"
        )
    today = date.today()
    if not today - timedelta(days=OLDEST_DAYS) <= said.as_of <= today + timedelta(days=1):
        raise ServiceFailed(f"the price service's prices are of {said.as_of}, not of today")
    return said


def _compare(lines: Sequence[PriceLine], said: _Prices, yard: Yard, answer: Answer) -> None:
    left = {(line.stock_key, _feet(line)): line for line in lines}

    def taken(item: _Item) -> PriceLine:
        line: PriceLine | None = left.pop((item.stock, item.feet), None)
        if line is None:
            raise ServiceFailed("the price service names what was not asked for")
        return line

    for quoted in said.prices:
        line = taken(quoted)
        price = Decimal(quoted.price)
        if price == 0:
            answer.refused.append((line, f"a price of {quoted.price} is not believed"))
            continue
        available = "" if quoted.available is None else str(quoted.available)
        before = piece_price(line.read(), whole_inches=yard.whole_inches)
        if before == price and available == line.available:
            answer.same += 1
            continue
        answer.changed.append(Quoted(line, quoted.price, available, _doubt(before, price)))
    answer.unknown += [taken(item) for item in said.unknown]
    answer.refused += [(line, "the service left it out") for line in left.values()]


def _doubt(before: Decimal | None, now: Decimal) -> str:
    if not before:
        return ""
    if now > before * DOUBTFUL:
        return f"more than {DOUBTFUL} times what it was"
    if now * DOUBTFUL < before:
        return f"less than 1/{DOUBTFUL} of what it was"
    return ""


def quoted_fields(price: str, available: str, day: date) -> dict[str, Any]:
    """The fields of a price line that take a quote: a price for one piece."""
    return {"price": price, "per": "each", "available": available, "date": day.isoformat()}
