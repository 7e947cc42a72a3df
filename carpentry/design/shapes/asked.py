"""What a shape asks for, and what it writes: parts with formulas, joints, work and runs."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from enum import StrEnum

from carpentry.design.measures import RESERVED
from carpentry.design.runs import RunFields
from carpentry.language import CarpentryError

Vector = tuple[float, float, float]


class Asks(StrEnum):
    """What a measure of a shape is."""

    LENGTH = "length"
    COUNT = "count"
    ANGLE = "angle"
    STOCK = "stock"
    CHOICE = "choice"
    LENGTHS = "lengths"  # several, with commas between them


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
    def known_as(self) -> str:
        """What formulas call it: its name, unless that means something there."""
        return f"{self.name} width" if self.name in RESERVED else self.name

    @property
    def is_required(self) -> bool:
        return not self.usual and not self.open


@dataclass(frozen=True)
class Row:
    """A part that a shape writes, by a ``key`` that stays. Length, quantity, width and ends may be
    formulas that name parts of the shape by their keys in braces: ``width of {post}``."""

    key: str
    name: str
    stock: str
    quantity: str
    length: str
    ends: str = ""
    edges: str = ""
    measured: str = ""
    width: str = ""
    note: str = ""


@dataclass(frozen=True)
class Work:
    """What is worked on a part beside cutting it: a groove, a rabbet, a half lap. Sizes are
    formulas."""

    kind: str
    key: str
    place: str
    sizes: Mapping[str, str] = field(default_factory=dict)


@dataclass(frozen=True)
class Written:
    """All that a shape writes. Joints are lines that name parts by their keys in braces."""

    rows: Sequence[Row]
    joints: Sequence[str] = ()
    work: Sequence[Work] = ()
    runs: Sequence[RunFields] = ()


@dataclass(frozen=True)
class Lying:
    """Where a piece of a part lies: the corner from which its length, its width and its thickness
    run, in inches or millimetres of space, and the directions of its length and its width (unit
    vectors; its face looks along ``along × across``)."""

    key: str
    origin: Vector
    along: Vector
    across: Vector


class Given:
    """The measures of a shape as they were given, with what is usual for the others."""

    def __init__(self, asks: Sequence[Ask], typed: Mapping[str, str]) -> None:
        self.typed = {one.name: typed.get(one.name, "").strip() or one.usual for one in asks}

    def __getitem__(self, name: str) -> str:
        return self.typed[name]

    def choice(self, name: str) -> str:
        return self.typed[name].lower()

    def has(self, name: str) -> bool:
        """Whether there is anything of it: a count or a length that is not nothing."""
        return self.typed[name] not in {"", "0", "none"}

    def several(self, name: str) -> list[str]:
        """Several lengths, as formulas."""
        return [one.strip() for one in self.typed[name].split(",") if one.strip()]


def refuse(name: str, message: str) -> CarpentryError:
    """What is said of a measure that cannot be built."""
    return CarpentryError(message, name)
