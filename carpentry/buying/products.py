"""Glues and finishes, one record each: how long what they are used for waits, how it is worked, and
how far it goes, by its label or by common practice.

A label that was typed always wins. Common practice is from memory unless said otherwise, and told
as such.
"""

import re
from collections.abc import Iterable
from dataclasses import dataclass, field, replace
from enum import StrEnum
from fractions import Fraction
from typing import Any

from carpentry.hours.durations import DURATION, read_duration, write_long
from carpentry.hours.weather import Wait, read_celsius
from carpentry.language import CarpentryError

LABEL, PRACTICE = "the label", "common practice"
MOST_STAY = 20  # minutes that keep the builder there; common practice, no source
_HOUR, _DAY = 60, 24 * 60


class Use(StrEnum):
    """What a product is for, finishes in the order in which they go on."""

    WOOD = "wood"
    GLUE = "glue"
    FILLER = "filler"
    PRESERVATIVE = "preservative"
    STAIN = "stain"
    PRIMER = "primer"
    OIL = "oil"
    COAT = "coat"
    WAX = "wax"
    UNKNOWN = "unknown"


_GOES_ON = tuple(Use)
# What does not keep water out: it hides nothing that would have to be sealed first.
_OPEN = (Use.STAIN, Use.WAX, Use.FILLER)


@dataclass(frozen=True)
class Product:
    """How a product is used and how long that waits (minutes): ``wait`` between coats, or until a
    glue is at full strength; ``clamps`` until the clamps come off; ``wipe`` and ``buff`` until it
    is wiped off or buffed, which keeps the builder there; ``cure`` after the last coat before use,
    ``hard`` until it is hard; ``within`` until a next coat no longer holds without a rub. It may be
    slower when it is humid or cold, to ``humid`` where its label says so; it is not used below
    ``least`` °C; it is rubbed lightly between coats, back-brushed, or coated on one side after the
    other where the work is ``turned``. It goes ``coverage`` square metres a litre. Rags with what
    is ``oily`` can catch fire; a ``waterproof`` glue is for outdoors; what takes ``wet`` wood does
    not wait for treated boards to dry. It may be there ``instead`` of another one, with ``work``
    minutes of its own. ``source`` says where this is from, ``asks`` what to ask about it."""

    name: str
    use: Use
    wait: int
    clamps: int = 0
    wipe: int = 0
    buff: int = 0
    cure: int = 0
    hard: int = 0
    within: int = 0
    slower: bool = False
    humid: int | None = None
    least: Fraction | None = None
    rubbed: bool = False
    brushed: bool = False
    turned: bool = False
    coverage: int | None = None
    oily: bool = False
    waterproof: bool = False
    wet: bool = False
    instead: str = ""
    work: int | None = None
    source: str = PRACTICE
    asks: str = field(default="", compare=False)

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
    def stays(self) -> int:
        """Minutes for which the builder stays with it after it is on."""
        return self.wipe + self.buff

    @property
    def told(self) -> str:
        """How long it waits and who says so."""
        what = "full strength" if self.use is Use.GLUE else "dries"
        clamps = f"clamps {write_long(self.clamps)}, " if self.clamps else ""
        return f"{clamps}{what} {write_long(self.wait)}, {self.source}"

    @property
    def last_told(self) -> str:
        """That of its last coat: when it is dry to the touch, and when it can be used."""
        if self.cure <= self.wait:
            return self.told
        hard = f", hard after {write_long(self.hard)}" if self.hard else ""
        cures = f"cures {write_long(self.cure)} before use{hard}"
        return f"dry to the touch after {write_long(self.wait)}, {cures}, {self.source}"

    @property
    def seals(self) -> bool:
        """Whether it keeps water out of what it is on."""
        return self.use in (Use.PRESERVATIVE, Use.PRIMER, Use.OIL, Use.COAT, Use.UNKNOWN)

    def goes_on_before(self, other: "Product") -> bool:
        """Whether it is put on before another where both are on one surface, as is sensible."""
        return _GOES_ON.index(self.use) < _GOES_ON.index(other.use) and Use.UNKNOWN not in (
            self.use,
            other.use,
        )


@dataclass(frozen=True)
class Known:
    """What is known of products by a name of which a word is among ``nouns`` (the last such word
    counts) and, where there are any, another among ``kinds``. A ``bare`` one is asked about."""

    nouns: tuple[str, ...]
    kinds: tuple[str, ...]
    product: Product
    bare: str = ""


_WATER = ("water", "waterborne", "acrylic", "latex", "milk", "chalk")
_OIL = ("oil", "alkyd", "linseed", "tung", "danish", "gel")
_FIFTY_F = Fraction(10)  # °C


def _kind(use: Use, wait: int, **more: Any) -> Product:
    return Product("", use, wait, **more)


_STAIN, _PAINT, _PRIMER = ("stain", "stains", "woodstain"), ("paint", "enamel"), ("primer",)
_VARNISH = ("varnish", "urethane", "polyurethane")
_WET = {"slower": True}
_IS_IT = "taken as oil-based, the slower one; water-based dries in"
_OIL_STAIN = _kind(Use.STAIN, _DAY, wipe=10, coverage=10, oily=True, **_WET)
_FILM = {"cure": 3 * _DAY, "rubbed": True, **_WET}
_URETHANE = _kind(Use.COAT, 4 * _HOUR, hard=30 * _DAY, coverage=12, oily=True, **_FILM)
_SPAR = replace(_URETHANE, wait=_DAY, coverage=11)
_COLD = {"rubbed": True, "least": _FIFTY_F, **_WET}
_OIL_PRIMER = _kind(Use.PRIMER, _DAY, coverage=9, oily=True, **_COLD)
_OIL_PAINT = _kind(Use.COAT, _DAY, cure=3 * _DAY, coverage=10, oily=True, **_COLD)
_GLUE = _kind(Use.GLUE, _DAY, clamps=30, coverage=5)
_OUTDOORS = replace(_GLUE, waterproof=True)
_SEALER = _kind(Use.PRESERVATIVE, 4 * _HOUR, cure=_DAY, coverage=6, **_WET)
KNOWN: tuple[Known, ...] = (
    Known(
        ("oil", "linseed", "tung", "danish"),
        (),
        _kind(Use.OIL, 16 * _HOUR, wipe=15, cure=3 * _DAY, coverage=10, oily=True, **_WET),
    ),
    Known(_STAIN, (), _OIL_STAIN, f"{_IS_IT} 4 h"),
    Known(_STAIN, (*_OIL, "wiping"), _OIL_STAIN),
    Known(_STAIN, _WATER, _kind(Use.STAIN, 4 * _HOUR, wipe=5, coverage=10, **_WET)),
    Known(
        _STAIN,
        ("deck", "fence", "siding", "exterior"),
        _kind(Use.OIL, _DAY, cure=2 * _DAY, brushed=True, coverage=6, oily=True, **_WET),
    ),
    Known(_VARNISH, (), _URETHANE),
    Known(("varnish",), ("oil", "tung", "linseed", "long"), _SPAR),
    Known(_VARNISH, ("spar", "marine", "yacht"), _SPAR),
    Known(_VARNISH, _WATER, _kind(Use.COAT, 3 * _HOUR, coverage=12, **_FILM)),
    Known(("shellac",), (), _kind(Use.COAT, _HOUR, cure=_DAY, coverage=10, **_WET)),
    Known(("wax",), (), _kind(Use.WAX, _HOUR, buff=30, cure=_DAY, coverage=20)),
    Known(_PRIMER, (), _OIL_PRIMER, f"{_IS_IT} 3 h"),
    Known(_PRIMER, _OIL, _OIL_PRIMER),
    Known(_PRIMER, _WATER, replace(_OIL_PRIMER, wait=3 * _HOUR, oily=False)),
    Known(("paint",), (), _OIL_PAINT, f"{_IS_IT} 4 h"),
    Known(("enamel",), (), _OIL_PAINT),
    Known(_PAINT, _OIL, _OIL_PAINT),
    Known(_PAINT, _WATER, replace(_OIL_PAINT, wait=4 * _HOUR, cure=2 * _DAY, oily=False)),
    Known(("sealer", "sealant"), ("end", "sill", "edge", "grain"), _SEALER),
    Known(("preservative",), (), replace(_SEALER, coverage=5)),
    Known(("glue",), (), _GLUE),
    Known(("glue",), ("waterproof", "exterior", "outdoor"), replace(_OUTDOORS, clamps=_HOUR)),
    Known(("glue",), ("polyurethane", "pu"), replace(_OUTDOORS, clamps=4 * _HOUR, wet=True)),
    Known(("epoxy", "resin", "hardener"), (), replace(_OUTDOORS, clamps=12 * _HOUR, coverage=4)),
    Known(("adhesive",), (), replace(_OUTDOORS, clamps=0, coverage=3, wet=True)),
    Known(("filler", "putty"), (), _kind(Use.FILLER, 2 * _HOUR, rubbed=True, coverage=2)),
    Known(("wood", "boards"), ("treated",), _kind(Use.WOOD, 14 * _DAY)),  # until water soaks in
)
_UNKNOWN = _kind(Use.UNKNOWN, _DAY, source="nothing known of it: a day", **_WET)


def usual_product(name: str) -> Product:
    """What is common practice for a product of such a name: the last word that names a product
    says what it is, the others which of them. What nobody knows is asked about."""
    words = re.findall(r"[a-z]+", name.lower())
    every = (_fitting(head, words) for head in reversed(words))
    fitting = next((found for found in every if found), [])
    if not fitting:
        told = f"nothing is known of “{name}”: its label in Products says how long it waits"
        return replace(_UNKNOWN, name=name, asks=told)
    best = max(fitting, key=lambda one: bool(one.kinds))
    asks = f"is the {name} water-based? It is {best.bare}" if best.bare else ""
    return replace(best.product, name=name, asks=asks)


def _fitting(head: str, words: Iterable[str]) -> list[Known]:
    """The rows that fit a name whose last word for a product is this one."""
    return [
        one for one in KNOWN if head in one.nouns and (not one.kinds or set(one.kinds) & set(words))
    ]


def product_in(text: str) -> Product | None:
    """The product that a sentence speaks of, by its words for it; ``None`` where it speaks of
    none."""
    found = usual_product(text)
    if found.use in (Use.UNKNOWN, Use.WOOD):
        return None
    words = re.findall(r"[a-z]+", text.lower())
    heads = {noun for one in KNOWN for noun in one.nouns}
    last = max(n for n, word in enumerate(words) if _fitting(word, words))
    kinds = {kind for one in KNOWN if words[last] in one.nouns for kind in one.kinds}
    first = last
    while first and words[first - 1] in kinds | heads:
        first -= 1
    return usual_product(" ".join(words[first : last + 1]))


_CLAUSES = (
    (rf"(?:dries\s+)?({DURATION})(?:\s+between coats)?", "wait"),
    (rf"(?:full )?strength\s+({DURATION})", "wait"),
    (rf"clamps\s+({DURATION})", "clamps"),
    (rf"wipe off after\s+({DURATION})", "wipe"),
    (rf"buff after\s+({DURATION})", "buff"),
    (rf"cures?\s+({DURATION})", "cure"),
    (rf"hard after\s+({DURATION})", "hard"),
    (rf"(?:re)?coat within\s+({DURATION})", "within"),
    (rf"({DURATION})\s+when humid", "humid"),
    (rf"({DURATION})\s+of work", "work"),
    (r"slower when humid", "slower"),
    (r"(?:at )?least\s+(-?\d+(?:\.\d+)?)\s*°?\s*([FC])", "least"),
    (
        r"(no\s+)?(?:light\s+)?(?:sand(?:ing)?|rub(?:bing)?)(?: lightly)?(?: between(?: coats)?)?",
        "rubbed",
    ),
    (r"(no\s+)?back-?brush(?:ed|ing)?", "brushed"),
    (r"(no\s+)?wip(?:e|ing)(?: off)?", "wipe"),
    (r"(not\s+)?waterproof", "waterproof"),
    (r"turned", "turned"),
    (r"instead of\s+(.+)", "instead"),
)
_WAYS = tuple((re.compile(way, re.IGNORECASE), field) for way, field in _CLAUSES)


def read_product(text: str) -> Product:
    """What a label says: ``cedar oil: 16 h between coats, wipe off after 15 min, slower when
    humid, least 50 °F``, ``wood glue: clamps 30 min, full strength 12 h``, ``spar varnish: 24 h,
    no sanding between``. What it does not say is common practice. Raises ``CarpentryError``."""
    name, colon, rest = text.strip().partition(":")
    clauses = [one.strip() for one in rest.split(",") if one.strip()]
    if not colon or not name.strip() or not clauses:
        raise CarpentryError(
            "write its name and what its label says: cedar oil: 16 h between coats, slower when "
            "humid"
        )
    found = replace(usual_product(name.strip()), source=LABEL, asks="")
    if any(one.lower().startswith(("clamps", "full strength", "strength")) for one in clauses):
        found = replace(found, use=Use.GLUE)
    for clause in clauses:
        found = _with(found, clause)
    return found


def _with(product: Product, clause: str) -> Product:
    for way, name in _WAYS:
        said = way.fullmatch(clause)
        if said is None:
            continue
        value: Any
        if name in ("slower", "turned"):
            value = True
        elif name in ("rubbed", "brushed", "waterproof"):
            value = not said[1]
        elif name == "wipe" and not (said[1] or "").strip()[:1].isdigit():
            value = 0 if said[1] else product.wipe or 15
        elif name == "least":
            value = read_celsius(said[1], said[2])
        elif name == "instead":
            value = said[1].strip()
        else:
            value = read_duration(said[1])
        return replace(product, **{name: value})
    raise CarpentryError(
        f"“{clause[:40]}” says nothing of a wait: write 16 h between coats, clamps 30 min, full "
        "strength 12 h, wipe off after 15 min, cure 3 days, recoat within 48 h, slower when humid, "
        "8 h when humid, least 50 °F, sand between coats, no sanding between, turned, or instead "
        "of another"
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
