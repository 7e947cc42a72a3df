"""A run of a project as it is typed, and how it lies when its figures are known."""

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from fractions import Fraction

from carpentry.design.measures import check_name
from carpentry.design.runs.asked import AtEnd, End, Run, Side, Spacing, Ticks
from carpentry.design.runs.equal import lay, length_of, neighbours
from carpentry.design.runs.packers import MOST_PACKERS, Pile, packed
from carpentry.design.runs.siding import Siding, exposure_of, lay_rows
from carpentry.language import (
    TICKS_PER_INCH,
    CarpentryError,
    Faults,
    Problem,
    Unit,
    check_typed,
    read_exactly,
    rounded,
    ticks_per,
    typed,
    write_decimal,
    write_figure,
)

MOST_FIGURE = 500
SIDING = ("exposure", "lap")
WAYS = ("count", "gap", "gap_at_most", "centres", *SIDING)
ENDS = tuple(end.value for end in AtEnd)


@dataclass(frozen=True)
class RunFields:
    """A run exactly as typed: lengths, the count and stated distances at the ends may be formulas.
    ``way`` says what ``figure`` is: how many, about which gap, and so on. ``part`` is the letter of
    the part that it lays."""

    name: str = typed("Name", most=40)
    along: str = typed("Along", help="the length it fills: 72, or opening", most=MOST_FIGURE)
    item: str = typed("Item", help="how wide one is: 3 1/2, or width of B", most=MOST_FIGURE)
    way: str = typed(
        "Asked for by",
        "gap",
        most=20,
        choices=WAYS,
        words=(
            *("how many", "gap, about", "gap, at most", "centre to centre"),
            *("exposure (siding)", "lap (siding)"),
        ),
    )
    figure: str = typed(
        "Figure", help="of what it is asked for by; for bays their number + 1", most=MOST_FIGURE
    )
    gap: str = typed("Gap", help="between boards (siding), or beside a count", most=MOST_FIGURE)
    first: str = typed("First end", "gap", help="or a distance", most=MOST_FIGURE)
    last: str = typed("Last end", "gap", help="or a distance", most=MOST_FIGURE)
    marks: str = typed(
        "Marks",
        Side.NEAR.value,
        most=10,
        choices=tuple(side.value for side in Side),
        words=("near edges", "far edges", "centres"),
    )
    rounding: str = typed("Marks rounded to", help="1/16, 1/32, 1, 0.5", most=20)
    packers: str = typed("Packers", help="each one owned: 18 18 3 3 3 1", most=200)
    least: str = typed("Least width", help="of a ripped row (siding)", most=MOST_FIGURE)
    left_out: str = typed("Left out", help="by number: 3 7", most=100)
    loose: str = typed("Loose", help="the last so many are fixed on the site", most=20)
    part: str = typed("Lays part", help="its letter", most=3)
    note: str = typed("Note", help="for yourself", most=200)


SHRINKS = "boards laid wet shrink: lap less gap should be more than a fiftieth of their width"
BALL_PASSES = "a 4 in ball passes: where this is a guard, the local code says how wide a gap may be"
_ONE_TOO_MANY = (
    "is one too many beside “along” and how many: leave this or “along” out, and it follows"
)
_TWO_SPACINGS = "is one too many: the figure says how far apart they are"
CHECKED_EVERY = 5  # items, at which a figure is told to check by
# What of it may be a formula, and is worked out before the run is.
FIGURES = ("along", "item", "figure", "gap", "least", "loose")


@dataclass(frozen=True)
class Laid:
    """A run as it lies, all lengths in exact ticks: ``rows`` where it is siding. ``neighbours`` are
    the gaps that one item less and one more would leave, ``packers_fault`` says why the packers do
    not make up the gaps, ``left_out`` the numbers of items that are
    not there, ``loose`` how many of the last are fixed on the site."""

    run: Run
    side: Side
    rounding: Ticks
    rows: Siding | None = None
    packers: tuple[Pile, ...] = ()
    packers_fault: str = ""
    neighbours: Mapping[int, Ticks] = field(default_factory=dict)
    left_out: tuple[int, ...] = ()
    loose: int = 0

    @property
    def pieces(self) -> int:
        """How many there are to cut."""
        return self.run.count - len(self.left_out)

    def marks(self, side: Side | None = None, *, from_end: bool = False) -> list[Ticks]:
        """Where each item is marked, each rounded on its own, from the beginning or from the
        end, of which edge ``side`` says; those left out too."""
        wanted = side or self.side
        exact = self.rows.marks(self.run.item, wanted) if self.rows else self.run.marks(wanted)
        if from_end:
            exact = [self.run.along - mark for mark in exact]
        return [rounded(mark, self.rounding) for mark in exact]

    @property
    def widths(self) -> list[Ticks]:
        """How wide each item is: rows of siding may be ripped at the first and the last."""
        found = [self.run.item] * self.run.count
        if self.rows:
            found[0], found[-1] = self.rows.first, self.rows.last
        return found

    def checks(self) -> dict[int, Ticks]:
        """Where every fifth item ends, from the beginning: to check by, where it is there."""
        ends = (place + wide for place, wide in zip(self.run.places, self.widths, strict=True))
        return {
            number: end
            for number, end in enumerate(ends, start=1)
            if not number % CHECKED_EVERY and number not in self.left_out
        }

    @property
    def caution(self) -> str:
        """What to mind of it: rows that overlap by less than wet boards shrink, about a fiftieth
        of their width; gaps that let a ball of 4 in through where it is a guard. Both from memory:
        common practice, and the local code decides."""
        if self.rows:
            if self.run.item - self.rows.exposure > self.run.item / 50:
                return ""
            return SHRINKS
        gaps = [*self.run.gaps, *self.openings.values()]
        if max(gaps, default=Fraction(0)) < 4 * TICKS_PER_INCH:
            return ""
        return BALL_PASSES

    @property
    def openings(self) -> dict[int, Ticks]:
        """What is left free where items are left out, by the number of the first of them."""
        found: dict[int, Ticks] = {}
        for number in self.left_out:
            if number - 1 in self.left_out:
                continue
            beyond = number
            while beyond in self.left_out:
                beyond += 1
            before = self.run.places[number - 2] + self.run.item if number > 1 else Fraction(0)
            after = self.run.places[beyond - 1] if beyond <= self.run.count else self.run.along
            found[number] = after - before
        return found


def pile_told(pile: Pile, unit: Unit) -> str:
    """What makes up a gap, in words: ``18 + 18 + 3 = 39``."""
    figures = [write_figure(packer / ticks_per(unit), unit) for packer in pile]
    total = write_figure(sum(pile, Fraction(0)) / ticks_per(unit), unit)
    if not figures:
        return "nothing"
    return f"{' + '.join(figures)} = {total}" if len(figures) > 1 else total


def check_run(fields: RunFields, others: Sequence[str]) -> None:
    """Raises ``CarpentryError`` by field where a run cannot be kept beside ``others``; whether it
    can be laid is told when it is."""
    faults = Faults()
    check_typed(fields, faults)
    faults.attempt("name", lambda: check_name(fields.name), None)
    if fields.name in others:
        faults.add("name", f"there is a run “{fields.name}” already")
    faults.raise_any()


def laid(
    fields: RunFields,
    figures: Mapping[str, Fraction | None],
    ends: tuple[End, End],
    rounding: Ticks,
    packers: Sequence[Ticks],
) -> Laid:
    """How a run lies between ``ends`` whose ``FIGURES`` are these: ticks, counts as they are,
    ``None`` where nothing was typed.

    Raises ``CarpentryError`` at the field where that cannot be.
    """
    item, figure = figures["item"], figures["figure"]
    if item is None:
        raise CarpentryError("is missing: how wide is one of them?", "item")
    if figure is None:
        raise CarpentryError("is missing: how many, or how far apart?", "figure")
    side = Side(fields.marks.strip().lower() or Side.NEAR.value)
    way = fields.way.strip().lower()
    if way == "exposure" and figures["gap"] is not None:
        raise CarpentryError(_TWO_SPACINGS, "gap")
    if way not in SIDING and figures["gap"] is not None:
        if way != "count":
            raise CarpentryError(_TWO_SPACINGS, "gap")
        if figures["along"] is not None:
            raise CarpentryError(_ONE_TOO_MANY, "gap")
    try:
        if way in SIDING:
            rows = _siding(way, figures, item, figure)
            gap = figures["gap"] or Fraction(0)
            run = Run(item, rows.rows, gap, rows.places, figures["along"] or item)
            return Laid(run, side, rounding, rows)
        run = _equal(way, figures, item, figure, ends)
    except CarpentryError as error:
        raise CarpentryError(
            Problem("figure" if p.place == way else p.place, p.message) for p in error.problems
        ) from error
    piled: tuple[Pile, ...] = ()
    fault = ""
    try:
        piled = tuple(packed(run, rounded(run.places[0], rounding), packers))
    except CarpentryError as error:
        fault = error.problems[0].message
    return Laid(
        run,
        side,
        rounding,
        packers=piled,
        packers_fault=fault,
        neighbours=neighbours(run, ends),
        left_out=_left_out(fields.left_out, run.count),
        loose=_loose(figures["loose"], run.count),
    )


def _equal(
    way: str,
    figures: Mapping[str, Fraction | None],
    item: Ticks,
    figure: Fraction,
    ends: tuple[End, End],
) -> Run:
    along, gap = figures["along"], figures["gap"]
    if way == "count":
        count = whole(figure, "figure")
        if along is None and gap is not None:
            along = length_of(item, count, gap, ends)
        spacing = Spacing(count=count)
    else:
        asked = {"gap": None, "gap_at_most": None, "centres": None} | {way: figure}
        spacing = Spacing(None, asked["gap"], asked["gap_at_most"], asked["centres"])
    if along is None:
        raise CarpentryError("is missing: how long is what it fills?", "along")
    return lay(along, item, ends, spacing)


def _siding(
    way: str, figures: Mapping[str, Fraction | None], item: Ticks, figure: Fraction
) -> Siding:
    height = figures["along"]
    if height is None:
        raise CarpentryError("is missing: how high is the wall?", "along")
    exposure = exposure_of(item, figure, figures["gap"] or Fraction(0)) if way == "lap" else figure
    return lay_rows(height, item, exposure, figures["least"] or Fraction(0))


def whole(figure: Fraction, place: str) -> int:
    """A count. Raises ``CarpentryError`` where it is none."""
    if figure.denominator != 1:
        raise CarpentryError(f"{write_decimal(figure)} is no whole number", place)
    return int(figure)


def _left_out(text: str, count: int) -> tuple[int, ...]:
    numbers = re.split(r"[\s,]+", text.strip()) if text.strip() else []
    if not all(number.isdecimal() and 1 <= int(number) <= count for number in numbers):
        raise CarpentryError(f"write numbers of items from 1 to {count}, such as 3 7", "left_out")
    found = tuple(sorted({int(number) for number in numbers}))
    if len(found) == count:
        raise CarpentryError("all of them are left out: nothing is left of the run", "left_out")
    return found


def _loose(figure: Fraction | None, count: int) -> int:
    number = whole(figure, "loose") if figure is not None else 0
    if not 0 <= number <= count:
        raise CarpentryError(f"write how many of the {count} are loose", "loose")
    return number


def read_packers(text: str, unit: Unit) -> list[Ticks]:
    """Packers as typed, each one that is owned: ``18 18 3``, ``3/4, 1/8``, ``18 x 2``.

    Raises ``CarpentryError``.
    """
    found: list[Ticks] = []
    typed = re.sub(r"(?<![\d/.])(\d+)\s+(?=\d+/)", r"\1+", text)  # a mixed number is one packer
    for word in re.findall(r"[^\s,;]+(?:\s*[x×]\s*\d+\b)?", typed):
        size, _, times = re.sub(r"\s", "", word).replace("×", "x").partition("x")
        found += [read_exactly(size.replace("+", " "), unit)] * int(times or 1)
        if len(found) > MOST_PACKERS:
            raise CarpentryError(f"packers are {MOST_PACKERS} at the most")
    return found
