"""Kinds of fasteners, one record each: the lengths they are sold in, how one is chosen, what they
take beside themselves, how long one takes, and what they do under load.

Lengths that are usually sold are from memory, minutes are common practice, no source.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from fractions import Fraction

from carpentry.language import TICKS_PER_INCH, TICKS_PER_MM, Unit


class Kind(StrEnum):
    """Ways to join pieces."""

    SCREW = "screw"
    STRUCTURAL = "structural screw"
    LAG = "lag screw"
    NAIL = "nail"
    BRAD = "brad"
    STAPLE = "staple"
    TACK = "tack"
    POCKET = "pocket screw"
    BOLT = "bolt"
    CARRIAGE = "carriage bolt"
    DOWEL = "dowel"
    BISCUIT = "biscuit"
    SPLINE = "spline"
    GLUE = "glue"


class How(StrEnum):
    """How the length of a kind is chosen: so that it bites and does not come through, so that it
    passes everything, by the piece with the pocket, or not at all."""

    BITES = "bites"
    PASSES = "passes"
    POCKET = "pocket"
    NOT = "not"


def _inches(*sizes: str) -> tuple[int, ...]:
    return tuple(int(sum(map(Fraction, size.split())) * TICKS_PER_INCH) for size in sizes)


def _millimetres(*sizes: int) -> tuple[int, ...]:
    return tuple(size * TICKS_PER_MM for size in sizes)


def _sold(inches: tuple[int, ...], millimetres: tuple[int, ...]) -> Mapping[Unit, tuple[int, ...]]:
    return {Unit.INCH: inches, Unit.MM: millimetres}


_TAKE_INSTEAD = "a joint that bears load takes structural screws, lag screws or bolts"
_LETS_GO = f"glue and wooden pins alone may let go outdoors: {_TAKE_INSTEAD}"


@dataclass(frozen=True)
class FastenerKind:
    """A kind with its ``other_names``, ``how`` its length is chosen among those that are ``sold``
    (ticks, by unit, shortest first), and how far (ticks) it is asked to bite at the most; beyond
    ``longest`` (ticks) something else is better. ``takes`` is what each takes beside itself,
    ``minutes`` what one takes with its hole. ``gives_way`` says what it does under load; empty for
    what bears. It has a diameter where ``by_diameter``, else a gauge; it needs ``clamps`` until its
    glue is strong."""

    kind: Kind
    how: How
    minutes: float
    gives_way: str
    other_names: tuple[str, ...] = ()
    sold: Mapping[Unit, tuple[int, ...]] = field(default_factory=dict)
    most_bite: int | None = None
    longest: int | None = None
    takes: Mapping[str, int] = field(default_factory=dict)
    by_diameter: bool = False
    clamps: bool = False

    @property
    def bears(self) -> bool:
        """Whether a joint that bears load may be held by it."""
        return not self.gives_way

    @property
    def is_driven(self) -> bool:
        """Whether it is driven into the wood, which it may split."""
        return self.how in (How.BITES, How.POCKET)


_BOLTS = _sold(
    tuple(sorted(_inches(*(f"{n} 1/2" for n in range(1, 12)), *map(str, range(2, 13))))),
    _millimetres(*range(40, 310, 10)),
)
KINDS: Mapping[Kind, FastenerKind] = {
    one.kind: one
    for one in (
        FastenerKind(
            Kind.SCREW,
            How.BITES,
            0.75,
            f"ordinary screws are brittle and may snap: {_TAKE_INSTEAD}",
            sold=_sold(
                _inches(
                    *("3/4", "1", "1 1/4", "1 1/2", "1 5/8", "2", "2 1/4", "2 1/2"),
                    *("3", "3 1/2", "4", "5", "6"),
                ),
                _millimetres(16, 20, 25, 30, 35, 40, 45, 50, 60, 70, 80, 90, 100, 120, 140),
            ),
            most_bite=TICKS_PER_INCH * 3 // 2,
            longest=TICKS_PER_INCH * 4,
        ),
        FastenerKind(
            Kind.STRUCTURAL,
            How.BITES,
            0.75,
            "",
            ("structural", "timber screw"),
            sold=_sold(
                _inches(*("1 1/2", "2 1/2", "3", "3 1/2", "4", "4 1/2", "5", "6", "8", "10", "12")),
                _millimetres(40, 60, 80, 100, 120, 140, 160, 180, 200, 240, 300),
            ),
        ),
        FastenerKind(
            Kind.LAG,
            How.BITES,
            3.0,
            "",
            ("lag", "lag bolt", "coach screw"),
            sold=_sold(
                _inches(
                    *("1", "1 1/2", "2", "2 1/2", "3", "3 1/2", "4", "4 1/2", "5", "6", "8"),
                    *("10", "12"),
                ),
                _millimetres(30, 40, 50, 60, 70, 80, 90, 100, 120, 140, 160, 180, 200),
            ),
            takes={"washer": 1},
            by_diameter=True,
        ),
        FastenerKind(
            Kind.NAIL,
            How.BITES,
            0.3,
            f"nails may draw out; the local code says which and how many, else {_TAKE_INSTEAD}",
            sold=_sold(
                _inches(
                    *("1 1/4", "1 1/2", "2", "2 1/2", "3", "3 1/4", "3 1/2", "4", "4 1/2"),
                    *("5", "6"),
                ),
                _millimetres(25, 30, 40, 50, 60, 65, 70, 75, 80, 90, 100, 125, 150),
            ),
            most_bite=TICKS_PER_INCH * 2,
        ),
        FastenerKind(
            Kind.BRAD,
            How.BITES,
            0.3,
            f"brads only hold in place: {_TAKE_INSTEAD}",
            ("brad nail", "pin"),
            sold=_sold(
                _inches("5/8", "3/4", "1", "1 1/4", "1 1/2", "1 3/4", "2", "2 1/2"),
                _millimetres(15, 20, 25, 30, 35, 40, 45, 50),
            ),
        ),
        FastenerKind(
            Kind.STAPLE,
            How.BITES,
            0.1,
            f"staples only hold what is thin: {_TAKE_INSTEAD}",
            sold=_sold(
                _inches("1/4", "3/8", "1/2", "9/16", "3/4", "1", "1 1/4", "1 1/2"),
                _millimetres(6, 8, 10, 14, 20, 25, 30, 40),
            ),
        ),
        FastenerKind(
            Kind.TACK,
            How.BITES,
            0.2,
            f"tacks only hold what is thin: {_TAKE_INSTEAD}",
            sold=_sold(_inches("3/8", "1/2", "5/8", "3/4", "1"), _millimetres(10, 13, 16, 20, 25)),
        ),
        FastenerKind(
            Kind.POCKET,
            How.POCKET,
            1.5,
            f"pocket screws may snap or split out: {_TAKE_INSTEAD}",
            ("pocket-hole screw", "pocket hole screw"),
            sold=_sold(
                _inches("1", "1 1/4", "1 1/2", "2", "2 1/2"), _millimetres(25, 30, 40, 50, 65)
            ),
        ),
        FastenerKind(
            Kind.BOLT,
            How.PASSES,
            3.0,
            "",
            sold=_BOLTS,
            takes={"washer": 2, "nut": 1},
            by_diameter=True,
        ),
        FastenerKind(
            Kind.CARRIAGE,
            How.PASSES,
            3.0,
            "",
            ("coach bolt",),
            sold=_BOLTS,
            takes={"washer": 1, "nut": 1},
            by_diameter=True,
        ),
        FastenerKind(Kind.DOWEL, How.NOT, 2.0, _LETS_GO, by_diameter=True, clamps=True),
        FastenerKind(Kind.BISCUIT, How.NOT, 1.0, _LETS_GO, clamps=True),
        FastenerKind(Kind.SPLINE, How.NOT, 1.0, _LETS_GO, clamps=True),
        FastenerKind(
            Kind.GLUE,
            How.NOT,
            0.0,
            _LETS_GO,
            (
                *("glued", "wood glue", "waterproof glue", "waterproof wood glue"),
                *("construction adhesive", "adhesive", "polyurethane glue", "epoxy"),
            ),
            clamps=True,
        ),
    )
}

# Nails by their penny size, from memory.
PENNIES = {
    **dict(
        zip((2, 3, 4, 5, 6, 7), _inches("1", "1 1/4", "1 1/2", "1 3/4", "2", "2 1/4"), strict=True)
    ),
    **dict(zip((8, 9, 10, 12), _inches("2 1/2", "2 3/4", "3", "3 1/4"), strict=True)),
    **dict(zip((16, 20, 30), _inches("3 1/2", "4", "4 1/2"), strict=True)),
    **dict(zip((40, 50, 60), _inches("5", "5 1/2", "6"), strict=True)),
}
# Pocket screws by the thickness of the piece with the pockets: 1 1/4 in for 3/4, 1 1/2 for 1,
# 2 1/2 for 1 1/2 as trade knows it; the others from memory.
POCKETS: Mapping[Unit, Mapping[int, int]] = {
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


def usual_lengths(kind: Kind, unit: Unit) -> tuple[int, ...]:
    """The lengths (ticks) that a kind is usually sold in, shortest first; none for dowels and the
    like."""
    return KINDS[kind].sold.get(unit, ())
