"""Glues and finishes: how long what they are used for waits, by their label or by common practice.

A label that was typed always wins. Common practice is told as such; "from memory" beside a value
says that no source was at hand.
"""

import re
from collections.abc import Iterable
from dataclasses import dataclass, replace
from enum import StrEnum
from fractions import Fraction
from typing import Any

from carpentry.hours.durations import DURATION, OVERNIGHT, read_duration, write_long
from carpentry.hours.weather import Wait, read_celsius
from carpentry.language import CarpentryError

LABEL, PRACTICE = "the label", "common practice"
MOST_STAY = 20  # minutes that keep the builder there; common practice, no source
_HOUR, _DAY = 60, 24 * 60


class Use(StrEnum):
    """What a product is for."""

    GLUE = "glue"
    FINISH = "finish"
    PRESERVATIVE = "preservative"
    WOOD = "wood"


@dataclass(frozen=True)
class Product:
    """How long what a product is used for waits (minutes): ``wait`` between coats, or until a glue
    is at full strength; ``clamps`` until the clamps come off; ``wipe`` until it is wiped off, which
    keeps the builder there; ``cure`` after the last coat before use. It may be slower when it is
    humid or cold, to ``humid`` where its label says so; it is not used below ``least`` °C; it is
    sanded between coats, or coated on one side after the other where the work is ``turned``. It
    may be there ``instead`` of another one. ``source`` says where this is from."""

    name: str
    use: Use
    wait: int
    clamps: int = 0
    wipe: int = 0
    cure: int = 0
    slower: bool = False
    humid: int | None = None
    least: Fraction | None = None
    sanded: bool = False
    turned: bool = False
    instead: str = ""
    source: str = PRACTICE

    @property
    def waits(self) -> Wait:
        """Its wait, as the weather stretches it."""
        if self.slower or self.humid is not None:
            return Wait.slowed(self.wait, self.humid)
        return Wait.steady(self.wait)

    @property
    def last_wait(self) -> Wait:
        """That after its last coat."""
        longest = max(self.wait, self.cure)
        if longest == self.wait:
            return self.waits
        return Wait.slowed(longest) if self.slower else Wait.steady(longest)

    @property
    def told(self) -> str:
        """How long it waits and who says so."""
        what = "full strength" if self.use is Use.GLUE else "dries"
        clamps = f"clamps {write_long(self.clamps)}, " if self.clamps else ""
        return f"{clamps}{what} {write_long(self.wait)}, {self.source}"


_FIFTY_F = Fraction(10)  # °C
_USUAL: tuple[tuple[str, Product], ...] = (  # the first that a name has a word of
    (r"epoxy|resin|hardener", Product("", Use.GLUE, _DAY, clamps=12 * _HOUR)),  # from memory
    (r"construction adhesive", Product("", Use.GLUE, _DAY, clamps=_HOUR)),  # from memory
    (r"glue|adhesive", Product("", Use.GLUE, OVERNIGHT, clamps=30)),  # overnight
    (r"preservative", Product("", Use.PRESERVATIVE, 4 * _HOUR)),  # from memory
    (r"filler|putty", Product("", Use.FINISH, _HOUR, sanded=True)),  # from memory
    (r"stain", Product("", Use.FINISH, _DAY, wipe=10, slower=True)),
    (r"oil|linseed|tung|danish", Product("", Use.FINISH, _DAY, wipe=15, slower=True)),
    (r"primer|paint|enamel", Product("", Use.FINISH, 4 * _HOUR, slower=True, least=_FIFTY_F)),
    (
        r"varnish|topcoat|lacquer|poly|clear",
        Product("", Use.FINISH, 4 * _HOUR, slower=True, sanded=True),
    ),
    (r"sealer|sealant", Product("", Use.FINISH, 4 * _HOUR, slower=True)),  # from memory
    (r"treated", Product("", Use.WOOD, 14 * _DAY)),  # until water soaks in; from memory
)
_UNKNOWN = Product("", Use.FINISH, _DAY, slower=True, source="nothing known of it: a day")


def usual_product(name: str) -> Product:
    """What is common practice for a product of such a name."""
    for words, product in _USUAL:
        if re.search(rf"\b(?:{words})", name, re.IGNORECASE) or re.search(
            rf"(?:{words})\b", name, re.IGNORECASE
        ):
            return replace(product, name=name)
    return replace(_UNKNOWN, name=name)


_CLAUSES = (
    (rf"(?:dries\s+)?({DURATION})(?:\s+between coats)?", "wait"),
    (rf"(?:full )?strength\s+({DURATION})", "wait"),
    (rf"clamps\s+({DURATION})", "clamps"),
    (rf"wipe off after\s+({DURATION})", "wipe"),
    (rf"cures?\s+({DURATION})", "cure"),
    (rf"({DURATION})\s+when humid", "humid"),
    (r"slower when humid", "slower"),
    (r"(?:at )?least\s+(-?\d+(?:\.\d+)?)\s*°?\s*([FC])", "least"),
    (r"sand between(?: coats)?", "sanded"),
    (r"turned", "turned"),
    (r"instead of\s+(.+)", "instead"),
)
_WAYS = tuple((re.compile(way, re.IGNORECASE), field) for way, field in _CLAUSES)


def read_product(text: str) -> Product:
    """What a label says: ``cedar oil: 16 h between coats, wipe off after 15 min, slower when
    humid, least 50 °F``, ``wood glue: clamps 30 min, full strength 12 h``. What it does not say is
    common practice. Raises ``CarpentryError``."""
    name, colon, rest = text.strip().partition(":")
    clauses = [one.strip() for one in rest.split(",") if one.strip()]
    if not colon or not name.strip() or not clauses:
        raise CarpentryError(
            "write its name and what its label says: cedar oil: 16 h between coats, slower when "
            "humid"
        )
    found = replace(usual_product(name.strip()), source=LABEL)
    if any(one.lower().startswith(("clamps", "full strength", "strength")) for one in clauses):
        found = replace(found, use=Use.GLUE)
    for clause in clauses:
        found = _with(found, clause)
    return found


def _with(product: Product, clause: str) -> Product:
    for way, field in _WAYS:
        said = way.fullmatch(clause)
        if said is None:
            continue
        value: Any
        if field in ("slower", "sanded", "turned"):
            value = True
        elif field == "least":
            value = read_celsius(said[1], said[2])
        elif field == "instead":
            value = said[1].strip()
        else:
            value = read_duration(said[1])
        return replace(product, **{field: value})
    raise CarpentryError(
        f"“{clause[:40]}” says nothing of a wait: write 16 h between coats, clamps 30 min, full "
        "strength 12 h, wipe off after 15 min, cure 3 days, slower when humid, 8 h when humid, "
        "least 50 °F, sand between coats, turned, or instead of another"
    )


def product_named(name: str, products: Iterable[Product]) -> Product:
    """What is known of a product: its label where it was typed, else common practice."""
    wanted = _key(name)
    return next((one for one in products if _key(one.name) == wanted), usual_product(name))


def instead_of(product: Product, products: Iterable[Product]) -> Product | None:
    """What is there instead of a product and waits less, the one that waits least."""
    others = [
        one
        for one in products
        if one.instead and _key(one.instead) == _key(product.name) and one.wait < product.wait
    ]
    return min(others, key=lambda one: one.wait, default=None)


def _key(name: str) -> str:
    return " ".join(name.lower().split())
