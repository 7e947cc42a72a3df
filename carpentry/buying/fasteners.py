"""Fasteners for a joint: which kinds there are, the lengths they are usually sold in, and the one
that bites without coming through.

Rules of thumb are common practice, no source; a builder may set others. They say nothing about what
a joint bears.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from enum import StrEnum
from fractions import Fraction

from carpentry.language import TICKS_PER_INCH, TICKS_PER_MM, CarpentryError, Unit


class Kind(StrEnum):
    """Ways to join pieces."""

    SCREW = "screw"
    STRUCTURAL = "structural screw"
    LAG = "lag screw"
    NAIL = "nail"
    BRAD = "brad"
    POCKET = "pocket screw"
    BOLT = "bolt"
    CARRIAGE = "carriage bolt"
    DOWEL = "dowel"
    BISCUIT = "biscuit"
    SPLINE = "spline"
    GLUE = "glue"


class Through(StrEnum):
    """What a fastener goes through or into: across the thickness, across the width, or along the
    grain."""

    FACE = "face"
    EDGE = "edge"
    END = "end"


BOLTS = (Kind.BOLT, Kind.CARRIAGE)
BEARING = (Kind.STRUCTURAL, Kind.LAG, *BOLTS)  # what a joint that bears load may be held by
_SCREWS = (Kind.SCREW, Kind.STRUCTURAL, Kind.LAG, Kind.NAIL, Kind.BRAD)


def _inches(*sizes: str) -> tuple[int, ...]:
    return tuple(int(sum(map(Fraction, size.split())) * TICKS_PER_INCH) for size in sizes)


def _millimetres(*sizes: int) -> tuple[int, ...]:
    return tuple(size * TICKS_PER_MM for size in sizes)


# Nails by their penny size, from memory; the lengths that are usually sold, from memory.
PENNIES = {
    **dict(
        zip((2, 3, 4, 5, 6, 7), _inches("1", "1 1/4", "1 1/2", "1 3/4", "2", "2 1/4"), strict=True)
    ),
    **dict(zip((8, 9, 10, 12), _inches("2 1/2", "2 3/4", "3", "3 1/4"), strict=True)),
    **dict(zip((16, 20, 30), _inches("3 1/2", "4", "4 1/2"), strict=True)),
    **dict(zip((40, 50, 60), _inches("5", "5 1/2", "6"), strict=True)),
}
_USUAL = {
    Unit.INCH: {
        Kind.SCREW: _inches(
            *("3/4", "1", "1 1/4", "1 1/2", "1 5/8", "2", "2 1/4", "2 1/2"),
            *("3", "3 1/2", "4", "5", "6"),
        ),
        Kind.STRUCTURAL: _inches(
            *("1 1/2", "2 1/2", "3", "3 1/2", "4", "4 1/2", "5", "6", "8", "10", "12")
        ),
        Kind.LAG: _inches(
            *("1", "1 1/2", "2", "2 1/2", "3", "3 1/2", "4", "4 1/2", "5", "6", "8", "10", "12")
        ),
        Kind.NAIL: _inches(
            *("1 1/4", "1 1/2", "2", "2 1/2", "3", "3 1/4", "3 1/2", "4", "4 1/2", "5", "6")
        ),
        Kind.BRAD: _inches("5/8", "3/4", "1", "1 1/4", "1 1/2", "1 3/4", "2", "2 1/2"),
        Kind.BOLT: _inches(*(f"{n} 1/2" for n in range(1, 12)), *map(str, range(2, 13))),
        Kind.CARRIAGE: _inches(*(f"{n} 1/2" for n in range(1, 12)), *map(str, range(2, 13))),
    },
    Unit.MM: {
        Kind.SCREW: _millimetres(16, 20, 25, 30, 35, 40, 45, 50, 60, 70, 80, 90, 100, 120, 140),
        Kind.STRUCTURAL: _millimetres(40, 60, 80, 100, 120, 140, 160, 180, 200, 240, 300),
        Kind.LAG: _millimetres(30, 40, 50, 60, 70, 80, 90, 100, 120, 140, 160, 180, 200),
        Kind.NAIL: _millimetres(25, 30, 40, 50, 60, 65, 70, 75, 80, 90, 100, 125, 150),
        Kind.BRAD: _millimetres(15, 20, 25, 30, 35, 40, 45, 50),
        Kind.BOLT: _millimetres(*range(40, 310, 10)),
        Kind.CARRIAGE: _millimetres(*range(40, 310, 10)),
    },
}
# Pocket screws by the thickness of the piece with the pockets: 1 1/4 in for 3/4, 2 1/2 for 1 1/2 as
# trade knows it; the others from memory.
_POCKET = {
    Unit.INCH: dict(
        zip(
            _inches("1/2", "5/8", "3/4", "1", "1 1/8", "1 1/4", "1 1/2"),
            _inches("1", "1", "1 1/4", "1 1/2", "1 1/2", "2", "2 1/2"),
            strict=True,
        )
    ),
    Unit.MM: dict(
        zip(_millimetres(12, 15, 18, 22, 28, 38), _millimetres(25, 25, 30, 40, 50, 65), strict=True)
    ),
}


RECESS = "recess"  # what a recessed head takes is a rule, too
_TAKEN: Mapping[str, Mapping[str, int]] = {
    Kind.BOLT.value: {"washer": 2, "nut": 1},
    Kind.CARRIAGE.value: {"washer": 1, "nut": 1},
    Kind.LAG.value: {"washer": 1},
    RECESS: {"plug": 1},
}


@dataclass(frozen=True)
class Rules:
    """Rules of thumb. A screw bites ``into_face`` of the last piece, but no more than ``into_edge``
    times what it fastens, and that where it goes into an edge or end; it stays ``short`` of coming
    through; a recessed head goes ``recess`` deeper; a bolt passes everything and ``nut``, its
    washers and nut (ticks). ``taken`` says what each of a kind takes beside itself, and each
    recess."""

    into_face: Fraction = Fraction(2, 3)
    into_edge: Fraction = Fraction(3, 2)
    short: int = TICKS_PER_INCH // 8
    recess: int = TICKS_PER_INCH // 4
    nut: int = TICKS_PER_INCH // 2
    taken: Mapping[str, Mapping[str, int]] = field(default_factory=lambda: _TAKEN)


USUAL_RULES = Rules()
_TOO_DEEP = ("the recess goes through the first piece",)


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


def usual_lengths(kind: Kind, unit: Unit) -> tuple[int, ...]:
    """The lengths (ticks) that a kind is usually sold in, shortest first; none for dowels and the
    like."""
    return tuple(sorted(_USUAL[unit].get(kind, ())))


def choose_length(
    kind: Kind,
    way: Sequence[Passed],
    unit: Unit,
    *,
    recessed: bool = False,
    rules: Rules = USUAL_RULES,
) -> Chosen:
    """The length for a joint that passes the pieces of ``way`` and ends in the last of them.

    Raises ``CarpentryError`` for fewer than two pieces, and for a piece without depth.
    """
    if len(way) < 2:
        raise CarpentryError("a joint takes two pieces or more")
    if any(piece.depth <= 0 for piece in way):
        raise CarpentryError("the thickness of a piece is missing")
    sunk = rules.recess if recessed else 0
    if sunk >= way[0].depth and (kind in BOLTS or kind in _SCREWS):
        return Chosen(None, _TOO_DEEP)
    if kind is Kind.POCKET:
        return _pocket(way, unit, rules)
    if kind in BOLTS:
        return _bolt(kind, way, unit, rules, sunk)
    if kind in _SCREWS:
        return _screw(kind, way, unit, rules, sunk)
    return Chosen(None)


def check_length(
    kind: Kind,
    length: int,
    way: Sequence[Passed],
    *,
    recessed: bool = False,
    rules: Rules = USUAL_RULES,
) -> tuple[str, ...]:
    """What is wrong with a length (ticks) that was chosen otherwise, in words."""
    sunk = rules.recess if recessed else 0
    fastened, whole = _depths(way, sunk)
    if sunk >= way[0].depth and (kind in BOLTS or kind in _SCREWS):
        return _TOO_DEEP
    if kind in BOLTS:
        return () if length >= whole + rules.nut else ("too short for its washers and nut",)
    if kind is Kind.POCKET:
        return _pocket_faults(length, way, rules)
    if kind not in _SCREWS:
        return ()
    if length >= whole:
        return ("comes through",)
    if length <= fastened:
        return ("misses the last piece",)
    wrong = []
    if length > whole - rules.short:
        wrong.append("comes closer to the far side than the rule")
    if length < fastened + _bite(way, fastened, rules):
        wrong.append("does not bite by the rule")
    return tuple(wrong)


def _depths(way: Sequence[Passed], sunk: int) -> tuple[int, int]:
    """Ticks of what is fastened, and of everything, under a head that is sunk so far."""
    fastened = sum(piece.depth for piece in way[:-1]) - sunk
    return fastened, fastened + way[-1].depth


def _bite(way: Sequence[Passed], fastened: int, rules: Rules) -> int:
    """Ticks that a screw has to go into the last piece: a share of a thin one, and never more than
    what is fastened asks for."""
    asked = int(fastened * rules.into_edge)
    last = way[-1]
    return min(asked, int(last.depth * rules.into_face)) if last.through is Through.FACE else asked


def _screw(kind: Kind, way: Sequence[Passed], unit: Unit, rules: Rules, sunk: int) -> Chosen:
    fastened, whole = _depths(way, sunk)
    least, most = fastened + _bite(way, fastened, rules), whole - rules.short
    lengths = usual_lengths(kind, unit)
    within = [length for length in lengths if length <= most]
    biting = [length for length in within if length >= least]
    if biting:
        return Chosen(biting[0])
    reaching = [length for length in within if length > fastened]
    if reaching:
        return Chosen(
            reaching[-1], check_length(kind, reaching[-1], way, recessed=sunk > 0, rules=rules)
        )
    if not within:
        return Chosen(None, ("the shortest that is sold comes through",))
    return Chosen(None, ("the longest that is sold misses the last piece",))


def _bolt(kind: Kind, way: Sequence[Passed], unit: Unit, rules: Rules, sunk: int) -> Chosen:
    needed = _depths(way, sunk)[1] + rules.nut
    fitting = [length for length in usual_lengths(kind, unit) if length >= needed]
    if fitting:
        return Chosen(fitting[0])
    return Chosen(None, ("no bolt that is sold is long enough: use threaded rod",))


def _pocket(way: Sequence[Passed], unit: Unit, rules: Rules) -> Chosen:
    thick = way[0].depth
    fitting = [length for size, length in _POCKET[unit].items() if size <= thick]
    if not fitting:
        return Chosen(None, ("too thin for pocket screws",))
    return Chosen(fitting[-1], _pocket_faults(fitting[-1], way, rules))


def _pocket_faults(length: int, way: Sequence[Passed], rules: Rules) -> tuple[str, ...]:
    """Where a pocket screw comes out: half of it goes into the last piece (common practice, no
    source), about straight."""
    into = length // 2
    if into >= way[-1].depth:
        return ("comes through",)
    return (
        ("comes closer to the far side than the rule",)
        if into > way[-1].depth - rules.short
        else ()
    )
