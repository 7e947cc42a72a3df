"""How a builder's words are read: handed around as one thing."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace

from carpentry.language import Length, Unit, read_length
from carpentry.lumber.own import NO_OWN, OwnStock


@dataclass(frozen=True)
class Lexicon:
    """What bare numbers mean, and the materials of one's ``own`` by name."""

    unit: Unit = Unit.INCH
    own: Mapping[str, OwnStock] = field(default_factory=lambda: NO_OWN)

    def __hash__(self) -> int:
        return hash((self.unit, *self.own))

    def length(self, text: str) -> Length:
        """A length as typed; raises as ``read_length``."""
        return read_length(text, self.unit)

    def in_unit(self, unit: Unit) -> "Lexicon":
        """The same words where bare numbers mean another unit."""
        return replace(self, unit=unit)

    def knowing(self, own: Mapping[str, OwnStock]) -> "Lexicon":
        """The same unit with these materials of one's own."""
        return replace(self, own=own)


INCHES = Lexicon(Unit.INCH)
MILLIMETRES = Lexicon(Unit.MM)


def lexicon_in(unit: Unit | str, own: Mapping[str, OwnStock] = NO_OWN) -> Lexicon:
    """A lexicon from the name of a unit, ``in`` or ``mm``. Raises ``ValueError`` for another."""
    return Lexicon(Unit(unit), own)
