"""A shape in a project: its measures are named there, and what it writes is linked to it by keys
that stay, so that it can be written anew without losing what was typed beside it."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from itertools import count

from carpentry.design.marks import mark_number, mark_of
from carpentry.design.measures import check_name
from carpentry.design.measures.formula import LONGEST_FORMULA
from carpentry.design.part import PartFields
from carpentry.design.runs import RunFields
from carpentry.design.shapes.asked import (
    AS_DRAWN,
    MIRRORED,
    PAIRS,
    SEVERAL,
    Ask,
    Asks,
    Given,
    Names,
    Written,
)
from carpentry.design.shapes.known import SHAPES
from carpentry.design.shapes.shape import Made, Shape, check_given, part_fields, run_fields, valued
from carpentry.design.sheet import Sheet, formula_keeping_unit
from carpentry.language import CarpentryError, Faults, Unit
from carpentry.lumber import Lexicon

LONGEST_CALLED = 24
MOST_SHAPES = 100
PLACED_ASKS = (
    Ask("copies", Asks.COUNT, "How many of it", "1"),
    Ask("hand", Asks.CHOICE, "Hand", AS_DRAWN, (AS_DRAWN, MIRRORED, PAIRS)),
)
# What a shape writes of a part; all else is the builder's.
PART_FIELDS = ("quantity", "name", "stock", "length", "width", "ends", "edges", "measured", "rip")
RUN_FIELDS = ("along", "item", "way", "figure", "gap", "first", "last", "least", "part")
LINE_KINDS = ("joints", "work")


@dataclass(frozen=True)
class Placed:
    """A shape of a project as typed: what it is ``called``, which ``shape`` it is, and its measures
    by name. ``letters`` are those that its parts were ever given, by key; ``figures`` what it works
    out beside its measures, as formulas by their names in the project."""

    called: str
    shape: str
    measures: Mapping[str, str]
    letters: Mapping[str, str] = field(default_factory=dict)
    figures: Mapping[str, str] = field(default_factory=dict)

    @property
    def kind(self) -> Shape:
        return SHAPES[self.shape]

    @property
    def asks(self) -> tuple[Ask, ...]:
        return (*self.kind.asks, *PLACED_ASKS)

    @property
    def given(self) -> Given:
        return Given(self.asks, self.measures)

    @property
    def said(self) -> "Placed":
        """The same with what is usual said of every measure, so that it stays as it is."""
        typed = {name: text for name, text in self.given.typed.items() if text}
        return replace(self, measures=typed)

    @property
    def named(self) -> dict[str, str]:
        """Its figures as formulas, by the names that they have in the project."""
        own = {f"{self.called} {name}": text for name, text in self.given.figures.items()}
        return own | dict(self.figures)

    def with_named(self, named: Mapping[str, str]) -> "Placed":
        """The same where the formulas of its figures are those that are named so."""
        given = self.given
        measures = dict(self.measures)
        several: dict[str, list[str]] = {}
        for figure, ask in given.asked.items():
            text = named[f"{self.called} {figure}"]
            if ask.kind in SEVERAL:
                several.setdefault(ask.name, []).append(text)
            elif ask.name in measures:
                measures[ask.name] = text
        measures |= {name: ", ".join(texts) for name, texts in several.items()}
        figures = {name: named[name] for name in self.figures}
        return replace(self, measures=measures, figures=figures)

    def keeping_unit(self, unit: Unit) -> "Placed":
        """The same as it is typed where bare figures are in another unit; counts have none."""
        counts = {
            f"{self.called} {name}"
            for name, ask in self.given.asked.items()
            if ask.kind is Asks.COUNT
        }
        return self.with_named(
            {
                name: text if name in counts else formula_keeping_unit(text, unit)
                for name, text in self.named.items()
            }
        )


@dataclass(frozen=True)
class Rows:
    """What a placed shape writes, each by the key by which it stays linked: parts, runs, and lines
    of joints and of work by their kind."""

    placed: Placed
    parts: Mapping[str, PartFields]
    runs: Mapping[str, RunFields]
    lines: Mapping[str, Mapping[str, str]]


def check_placed(placed: Placed, others: Sequence[str], lexicon: Lexicon) -> None:
    """Raises ``CarpentryError`` by measure (its name at ``called``) where a shape cannot be kept
    beside names that are taken."""
    faults = Faults()
    faults.attempt("called", lambda: check_name(placed.called), None)
    if len(placed.called) > LONGEST_CALLED:
        faults.add("called", f"has {LONGEST_CALLED} characters at the most")
    if placed.called in others:
        faults.add("called", f"there is “{placed.called}” already")
    for name, text in placed.measures.items():
        if len(text) > LONGEST_FORMULA:
            faults.add(name, f"has {LONGEST_FORMULA} characters at the most")
    faults.raise_any()
    check_given(placed.kind, placed.asks, placed.measures, lexicon)
    taken = [name for name in placed.named if name in others]
    if taken:
        raise CarpentryError(f"there is a measure “{taken[0]}” already", "called")


def write_placed(placed: Placed, sheet: Sheet, letter: Callable[[], str]) -> Rows:
    """What a shape writes in the sheet of its project, which names its figures; ``letter`` gives
    the next one to a part that has none. Raises ``CarpentryError`` by measure."""
    given, written = _written(placed, sheet)
    letters = dict(placed.letters)
    for row in written.rows:
        if row.key not in letters:
            letters[row.key] = letter()
    names = Names(letters, placed.called)
    copies = "" if given["copies"] == "1" else names.of("copies")
    times = " * ".join(filter(None, (copies, "2" if given.hand == PAIRS else "")))
    return Rows(
        placed=replace(
            placed,
            letters=letters,
            figures={names.of(name): names.said(text) for name, text in written.figures.items()},
        ),
        parts={row.key: part_fields(row, names, times) for row in written.rows},
        runs={run.name: run_fields(run, names) for run in written.runs},
        lines={
            "joints": {
                f"joint {n}": names.said(joint.text(times))
                for n, joint in enumerate(written.joints, start=1)
            },
            "work": {
                f"work {n}": names.said(work.line) for n, work in enumerate(written.work, start=1)
            },
        },
    )


def _written(placed: Placed, sheet: Sheet) -> tuple[Given, Written]:
    given = check_given(placed.kind, placed.asks, placed.measures, sheet.lexicon)
    given = valued(given, sheet, Names(placed.letters, placed.called))
    if given.count("copies") < 1:
        raise CarpentryError("of 0 make nothing", "copies")
    return given, placed.kind.write(given)


def made_placed(placed: Placed, sheet: Sheet) -> Made:
    """A placed shape as it is in the sheet of its project. What was taken away of it is reckoned
    with as it would be, but is not there. Raises ``CarpentryError`` by measure."""
    given, written = _written(placed, sheet)
    missing = [row.name for row in written.rows if row.key not in placed.letters]
    if missing:
        raise CarpentryError(f"{missing[0]} was not written yet")
    names = Names(placed.letters, placed.called)
    typed = sheet.typed
    rows = write_placed(placed, sheet, str)
    letters = placed.letters
    absent = {key for key in rows.parts if letters[key] not in typed.parts}
    known = {run.name for run in typed.runs}
    runs = [run for run in rows.runs.values() if run.name not in known]
    if absent or runs:
        parts = {**typed.parts, **{letters[key]: rows.parts[key] for key in absent}}
        whole = replace(typed, parts=parts, runs=[*typed.runs, *runs])
        sheet = Sheet(whole, sheet.lexicon, sheet.sections)
    return Made(placed.kind, given, written, names, sheet, absent=frozenset(absent))


def made_alone(placed: Placed, sheet: Sheet) -> Made:
    """A shape as it would be in a sheet that does not have it. Raises ``CarpentryError`` by
    measure."""
    typed = sheet.typed
    named = replace(typed, named={**typed.named, **placed.named})
    last = max(map(mark_number, typed.parts), default=0)
    numbers = count(last + 1)
    rows = write_placed(
        placed,
        Sheet(named, sheet.lexicon, sheet.sections),
        lambda: mark_of(next(numbers)),
    )
    letters = rows.placed.letters
    whole = replace(
        named,
        parts={**typed.parts, **{letters[key]: fields for key, fields in rows.parts.items()}},
        runs=[*typed.runs, *rows.runs.values()],
        named={**named.named, **rows.placed.named},
    )
    made = made_placed(rows.placed, Sheet(whole, sheet.lexicon, sheet.sections))
    made.check_runs()
    return made
