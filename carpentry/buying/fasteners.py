"""The length of a fastener for a joint: the one that bites without coming through, chosen by rules
of thumb and faulted only where a careful builder would take another.

Rules of thumb are common practice, no source; a builder may set others. They say nothing about what
a joint bears.
"""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from enum import StrEnum
from fractions import Fraction

from carpentry.buying.fastener_kinds import KINDS, POCKETS, How, Kind, usual_lengths
from carpentry.language import TICKS_PER_INCH, CarpentryError, Notation, Unit, write_length


class Through(StrEnum):
    """What a fastener goes through or into: across the thickness, across the width, or along the
    grain."""

    FACE = "face"
    EDGE = "edge"
    END = "end"


RECESS = "recess"  # what a recessed head takes is a rule, too
_TAKEN: Mapping[str, Mapping[str, int]] = {
    **{kind.value: one.takes for kind, one in KINDS.items() if one.takes},
    RECESS: {"plug": 1},
}
_END_GRAIN = Fraction(3, 2)  # as much again, for it holds less; from memory


@dataclass(frozen=True)
class Rules:
    """Rules of thumb. A screw bites ``into_face`` of the last piece, but no more than ``into_edge``
    times what it fastens, and that where it goes into an edge or end; it stays ``short`` of coming
    through; a recessed head goes ``recess`` deeper; a bolt passes everything and ``nut``, its
    washers and nut (ticks). ``enough_share`` of its length or ``enough`` (ticks) in the last piece,
    the lesser, is not faulted; into an end it is half as much again. ``taken`` says what each of a
    kind takes beside itself, and each recess."""

    into_face: Fraction = Fraction(2, 3)
    into_edge: Fraction = Fraction(3, 2)
    short: int = TICKS_PER_INCH // 8
    recess: int = TICKS_PER_INCH // 4
    nut: int = TICKS_PER_INCH // 2
    enough_share: Fraction = Fraction(1, 3)
    enough: int = TICKS_PER_INCH
    taken: Mapping[str, Mapping[str, int]] = field(default_factory=lambda: _TAKEN)


USUAL_RULES = Rules()
_TOO_DEEP = ("the recess goes through the first piece",)
_FROM_AN_END = (
    "write the piece with the head first, such as A edge to B end, or toe-screw it, screw it "
    "through the miter, or take pocket screws"
)
_INSTEAD = "counterbore it (recessed 1 1/2in), toe-screw it, or take pocket screws or a bolt"


@dataclass(frozen=True)
class Passed:
    """A piece on a fastener's way: how deep it is there (ticks), and through what it goes."""

    depth: int
    through: Through = Through.FACE


@dataclass(frozen=True)
class Chosen:
    """A fastener's length (ticks; ``None`` for what has none), and what is to be said about it."""

    length: int | None
    warnings: tuple[str, ...] = ()


def choose_length(
    kind: Kind,
    way: Sequence[Passed],
    unit: Unit,
    *,
    sunk: int = 0,
    rules: Rules = USUAL_RULES,
    sold: Iterable[int] = (),
) -> Chosen:
    """The length for a joint that passes the pieces of ``way`` and ends in the last of them, its
    head ``sunk`` so far (ticks); of those that are ``sold`` at the yard (ticks) where one fits, a
    usual one first.

    Raises ``CarpentryError`` for fewer than two pieces, and for a piece without depth.
    """
    if len(way) < 2:
        raise CarpentryError("a joint takes two pieces or more")
    if any(piece.depth <= 0 for piece in way):
        raise CarpentryError("the thickness of a piece is missing")
    how = KINDS[kind].how
    if how is How.NOT:
        return Chosen(None)
    if sunk >= way[0].depth:
        return Chosen(None, _TOO_DEEP)
    passing = _Passing(kind, way, unit, sunk, rules)
    usual, at_yard = usual_lengths(kind, unit), sorted(set(sold))
    offered = ([length for length in at_yard if length in usual], at_yard, usual)
    if how is How.POCKET:
        return passing.pocket()
    return passing.bolt(offered) if how is How.PASSES else passing.screw(offered)


def check_length(
    kind: Kind,
    length: int,
    way: Sequence[Passed],
    unit: Unit = Unit.INCH,
    *,
    sunk: int = 0,
    rules: Rules = USUAL_RULES,
) -> tuple[str, ...]:
    """What is wrong with a length (ticks) that was chosen otherwise, in words."""
    if KINDS[kind].how is How.NOT:
        return ()
    if sunk >= way[0].depth:
        return _TOO_DEEP
    return tuple(_Passing(kind, way, unit, sunk, rules).faults(length))


class _Passing:
    """Pieces that a fastener of a kind passes under a head that is sunk so far."""

    def __init__(
        self, kind: Kind, way: Sequence[Passed], unit: Unit, sunk: int, rules: Rules
    ) -> None:
        self.kind, self.last, self.unit, self.rules = KINDS[kind], way[-1], unit, rules
        self.first = way[0]
        self.fastened = sum(piece.depth for piece in way[:-1]) - sunk
        self.whole = self.fastened + self.last.depth

    def screw(self, offered: Sequence[Sequence[int]]) -> Chosen:
        least, most = self.fastened + self._bite, self.whole - self.rules.short
        longest = self.kind.longest or most
        reaching = [[n for n in lengths if self.fastened < n <= most] for lengths in offered]
        for lengths in reaching:
            if fitting := [n for n in lengths if least <= n <= longest]:
                return Chosen(fitting[0])
        for lengths in reaching:
            if fitting := [n for n in lengths if n <= longest and not any(self.faults(n))]:
                return Chosen(fitting[-1])
        usual = reaching[-1]
        if usual:
            length = next((n for n in usual if n >= least), usual[-1])
            return Chosen(length, tuple(self.faults(length)))
        if all(length > most for length in offered[-1]):
            shortest = self._said(offered[-1][0])
            return Chosen(None, (f"the shortest that is sold, {shortest}, comes through",))
        far = f"the longest that is sold misses the last piece: {self._said(self.fastened)} lie"
        return Chosen(None, (f"{far} before it; {self._else}",))

    def bolt(self, offered: Sequence[Sequence[int]]) -> Chosen:
        needed = self.whole + self.rules.nut
        for lengths in offered:
            if fitting := [n for n in lengths if n >= needed and n < needed + TICKS_PER_INCH]:
                return Chosen(fitting[0])
        if fitting := [n for n in offered[-1] if n >= needed]:
            return Chosen(fitting[0])
        return Chosen(None, ("no bolt that is sold is long enough: use threaded rod",))

    def pocket(self) -> Chosen:
        """By the thickness of the piece with the pocket."""
        pockets = POCKETS[self.unit]
        fitting = [length for size, length in pockets.items() if size <= self.first.depth]
        if not fitting:
            return Chosen(None, ("too thin for pocket screws",))
        return Chosen(fitting[-1], tuple(self.faults(fitting[-1])))

    def faults(self, length: int) -> Iterator[str]:
        """What is wrong with a length, where a careful builder would take another."""
        how = self.kind.how
        if how is How.PASSES:
            if length < self.whole + self.rules.nut:
                room = self._said(self.rules.nut)
                yield (
                    f"too short for its washers and nut: it passes {self._said(self.whole)} and "
                    f"they take {room}"
                )
        elif how is How.POCKET:
            # Half of it goes into the last piece (common practice, no source), about straight.
            yield from self._end_of(length // 2, length)
        elif length <= self.fastened:
            yield (
                f"misses the last piece: {self._said(self.fastened)} lie before it, and "
                f"{self._said(length)} is no longer; {self._else}"
            )
        else:
            into = length - self.fastened
            yield from self._end_of(into, length)
            if into < self._enough(length) and into < self._bite:
                yield f"only {self._said(into)} goes into the last piece"
            if self.kind.longest and length > self.kind.longest:
                yield f"{self._said(length)} is a silly length for a {self.kind.kind}: {_INSTEAD}"

    @property
    def _else(self) -> str:
        """What would hold where no length does."""
        return _FROM_AN_END if self.first.through is Through.END else _INSTEAD

    def _end_of(self, into: int, length: int) -> Iterator[str]:
        """Where a point comes out, or nearly."""
        left = self.last.depth - into
        if left <= 0:
            yield f"{self._said(length)} comes through"
        elif left < self.rules.short:
            yield f"its point stops only {self._said(left)} from the far side"

    @property
    def _bite(self) -> int:
        """Ticks that it has to go into the last piece by the rule: a share of a thin one, never
        more than what is fastened asks for, nor than its kind is ever asked."""
        asked = int(self.fastened * self.rules.into_edge)
        if self.kind.most_bite is not None:
            asked = min(asked, self.kind.most_bite)
        if self.last.through is Through.FACE:
            asked = min(asked, int(self.last.depth * self.rules.into_face))
        return asked

    def _enough(self, length: int) -> int:
        """Ticks in the last piece that a careful builder is content with."""
        enough = min(length * self.rules.enough_share, Fraction(self.rules.enough))
        return int(enough * (_END_GRAIN if self.last.through is Through.END else 1))

    def _said(self, ticks: int) -> str:
        metric = self.unit is Unit.MM
        return write_length(ticks, Notation.MM if metric else Notation.SIXTEENTHS).text
