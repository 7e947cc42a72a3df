"""What a shape asks for, and what it writes: parts with formulas, joints, work and runs."""

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from enum import StrEnum
from fractions import Fraction
from functools import cached_property
from types import MappingProxyType

from carpentry.design.measures import RESERVED
from carpentry.design.runs import RunFields
from carpentry.language import CarpentryError
from carpentry.lumber import Section

Vector = tuple[float, float, float]
AS_DRAWN, MIRRORED, PAIRS = "as drawn", "mirrored", "left and right"
_BARE = re.compile(r"[+-]?[\d.]+")
_BRACED = re.compile(r"\{([^{}]+)\}")


class Asks(StrEnum):
    """What a measure of a shape is."""

    LENGTH = "length"
    COUNT = "count"
    ANGLE = "angle"
    STOCK = "stock"
    CHOICE = "choice"
    LENGTHS = "lengths"  # several, with commas between them
    SHARES = "shares"  # several parts of a whole, such as 1/3, 2/3


SEVERAL = (Asks.LENGTHS, Asks.SHARES)


_FIGURES = (Asks.LENGTH, Asks.COUNT, Asks.ANGLE)


@dataclass(frozen=True)
class Ask:
    """One measure of a shape; ``usual`` is what it is where nothing is said, empty for one that has
    to be said (or that there may be none of, where it is ``open``)."""

    name: str
    kind: Asks
    heading: str
    usual: str = ""
    choices: tuple[str, ...] = ()
    open: bool = False

    @property
    def is_required(self) -> bool:
        return not self.usual and not self.open


@dataclass(frozen=True)
class Row:
    """A part that a shape writes, by a ``key`` that stays. Quantity, length, width and ends are
    formulas, in which names in braces are those of the shape: its figures, ``{height}``, its parts,
    ``width of {post}``, and its runs, ``count of {middles}``."""

    key: str
    name: str
    stock: str
    quantity: str
    length: str
    ends: str = ""
    edges: str = ""
    measured: str = ""
    width: str = ""
    rip: str = ""


@dataclass(frozen=True)
class Joint:
    """How many places a kind of joint has, as a formula, and the rest of its line."""

    count: str
    line: str

    def text(self, copies: str = "") -> str:
        """The whole line; ``copies`` is a formula for how often all of it is there."""
        count = " * ".join(one for one in (self.count, copies) if one not in {"", "1"}) or "1"
        return f"{count if count.isdecimal() else f'=({count})'} {self.line}"


@dataclass(frozen=True)
class Work:
    """What is worked on a part beside cutting it: a groove, a rabbet, a half lap. Sizes are
    formulas."""

    kind: str
    key: str
    place: str
    sizes: Mapping[str, str] = field(default_factory=dict)

    @property
    def line(self) -> str:
        """It as a line, its sizes as formulas in brackets."""
        sizes = ", ".join(f"{name} =({formula} + 0 in)" for name, formula in self.sizes.items())
        return f"{{{self.key}}} {self.kind} {self.place}: {sizes}"


@dataclass(frozen=True)
class Written:
    """All that a shape writes. ``figures`` are what it works out beside its measures, by name; a
    run goes by its name as key."""

    rows: Sequence[Row]
    joints: Sequence[Joint] = ()
    work: Sequence[Work] = ()
    runs: Sequence[RunFields] = ()
    figures: Mapping[str, str] = field(default_factory=dict)


@dataclass(frozen=True)
class Lying:
    """Where a piece of a part lies: the corner from which its length, its width and its thickness
    run, in inches or millimetres of space, and the directions of its length and its width (unit
    vectors; its face looks along ``along × across``)."""

    key: str
    origin: Vector
    along: Vector
    across: Vector


@dataclass(frozen=True)
class Span:
    """A size that a drawing tells: from one point to another of the view ``front``, ``side`` or
    ``plan``, measured ``across`` it or ``up``; points are corners in space."""

    view: str
    way: str
    start: Vector
    end: Vector


class Given:
    """The measures of a shape as they were given, with what is usual for the others. ``values`` are
    what its figures come to, by name: ticks, degrees, or how many; ``sections`` what its stocks
    measure."""

    def __init__(
        self,
        asks: Sequence[Ask],
        typed: Mapping[str, str],
        values: Mapping[str, Fraction] = MappingProxyType({}),
        sections: Mapping[str, Section | None] = MappingProxyType({}),
    ) -> None:
        self.asks, self.values, self.sections = asks, values, sections
        self.typed = {one.name: typed.get(one.name, "").strip() or one.usual for one in asks}

    def __getitem__(self, name: str) -> str:
        return self.typed[name]

    def choice(self, name: str) -> str:
        return self.typed[name].lower()

    def count(self, name: str) -> int:
        """A measure that is a count, as it comes out."""
        return int(self.values[name])

    def section(self, name: str) -> Section:
        """What the stock of a measure is. Raises ``CarpentryError`` where that is not known."""
        found = self.sections.get(name)
        if found is None:
            raise refuse(name, f"{self.typed[name]} has no size that is known")
        return found

    def has(self, name: str) -> bool:
        """Whether there is anything of what may be ``none``."""
        return self.choice(name) not in {"", "none"}

    @property
    def hand(self) -> str:
        """Whether it is as drawn, mirrored, or both."""
        return self.typed.get("hand", AS_DRAWN).lower()

    def several(self, name: str) -> list[str]:
        """Several lengths, each as the figure that it is."""
        return [f"{{{figure}}}" for figure in self._several(name)]

    def _several(self, name: str) -> dict[str, str]:
        texts = [one.strip() for one in self.typed[name].split(",") if one.strip()]
        return {f"{name}{n}": text for n, text in enumerate(texts, start=1)}

    @cached_property
    def asked(self) -> dict[str, Ask]:
        """The figures among the measures by name, each with what asks for it: of several in one
        measure, ``stretchers at1``, ``stretchers at2``."""
        found: dict[str, Ask] = {}
        for one in self.asks:
            if one.kind in SEVERAL:
                found |= dict.fromkeys(self._several(one.name), one)
            elif one.kind in _FIGURES and self.typed[one.name]:
                found[one.name] = one
        return found

    @cached_property
    def figures(self) -> dict[str, str]:
        """The same, each as a formula; a bare figure that is an angle is in degrees."""
        found: dict[str, str] = {}
        for name, ask in self.asked.items():
            text = self._several(ask.name)[name] if ask.kind in SEVERAL else self.typed[name]
            is_bare = ask.kind is Asks.ANGLE and _BARE.fullmatch(text)
            found[name] = f"{text}°" if is_bare else text
        return found


class Names:
    """What the names in braces stand for. In a project the figures and runs of a shape go by what
    it is ``called`` there; parts go by their letters."""

    def __init__(self, letters: Mapping[str, str], called: str = "") -> None:
        self.letters, self.called = letters, called

    def of(self, name: str) -> str:
        """What a figure or a run is called in formulas."""
        if self.called:
            return f"{self.called} {name}"
        return f"{name} width" if name in RESERVED else name

    def said(self, text: str) -> str:
        """A formula or a line without braces."""
        return _BRACED.sub(lambda found: self.letters.get(found[1]) or self.of(found[1]), text)


def refuse(name: str, message: str) -> CarpentryError:
    """What is said of a measure that cannot be built."""
    return CarpentryError(message, name)
