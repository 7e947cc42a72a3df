"""A shape worked out: its parts with their sizes, and where every piece of them lies."""

import math
import re
from abc import ABC, abstractmethod
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property, partial
from typing import ClassVar

from carpentry.design.edges import corners as edge_corners
from carpentry.design.ends import EndAngle
from carpentry.design.marks import mark_of
from carpentry.design.measures import Kind, MeasureFields, as_length, read_formula
from carpentry.design.part import Part, PartFields
from carpentry.design.runs import Laid, RunFields
from carpentry.design.shapes.asked import Ask, Asks, Given, Lying, Row, Vector, Written
from carpentry.design.sheet import Sections, Sheet, TypedSheet, runs_shown
from carpentry.design.sheet.typed import apart
from carpentry.language import CarpentryError, Faults, Problem, ticks_per
from carpentry.lumber import Lexicon, Section, read_stock, sheet_section

MOST_PIECES = 2_000
_PLAIN = re.compile(r"[\d. b-]*")  # two angles that are no formulas


class Shape(ABC):
    """A small, named bit of construction with measures of its own."""

    name: ClassVar[str]
    heading: ClassVar[str]
    asks: ClassVar[tuple[Ask, ...]]

    @abstractmethod
    def write(self, given: Given) -> Written:
        """The parts of the shape, as formulas on its measures. Raises ``CarpentryError`` by measure
        for what cannot be built whatever the sizes are."""

    @abstractmethod
    def lie(self, made: "Made") -> Sequence[Lying]:
        """Where the pieces lie. Raises ``CarpentryError`` by measure for what cannot be built."""


@dataclass(frozen=True)
class Solid:
    """A piece in space: its eight corners, those of its face after those of its back."""

    key: str
    number: int
    corners: tuple[Vector, ...]


class Made:
    """A shape with its measures: its sheet, the parts by key, and where their pieces lie.

    Raises ``CarpentryError`` by measure where it cannot be made.
    """

    def __init__(
        self, shape: Shape, typed: Mapping[str, str], lexicon: Lexicon, sections: Sections
    ) -> None:
        self.shape, self.lexicon, self.sections = shape, lexicon, sections
        self.given = Given(shape.asks, typed)
        self._check_given(typed)
        self.written = shape.write(self.given)
        self.letters = {row.key: mark_of(n) for n, row in enumerate(self.written.rows, start=1)}
        self.sheet = self._sheet()
        self._check_measures()
        self._check_runs()
        self.parts = {key: self._part(key) for key in self.letters}

    def _check_given(self, typed: Mapping[str, str]) -> None:
        faults = Faults()
        known = {one.name: one for one in self.shape.asks}
        for name in typed:
            if name not in known:
                faults.add(name, f"is no measure of a {self.shape.name}: {', '.join(known)}")
        for one in known.values():
            text = self.given[one.name]
            if one.is_required and not text:
                faults.add(one.name, "is missing")
            elif one.kind is Asks.CHOICE and text.lower() not in one.choices:
                faults.add(one.name, f"“{text[:40]}” is none of {', '.join(one.choices)}")
            elif one.kind is Asks.STOCK and text:
                faults.attempt(one.name, partial(read_stock, text, self.lexicon), None)
        faults.raise_any()

    @cached_property
    def _formulas(self) -> dict[str, str]:
        """The measures that are figures, each as a formula."""
        figures = {Asks.LENGTH, Asks.COUNT, Asks.ANGLE}
        return {
            one.known_as: text
            for one in self.shape.asks
            if (text := self.given[one.name]) and one.kind in figures
        }

    @cached_property
    def _asked(self) -> dict[str, str]:
        """The measures by what formulas call them."""
        return {one.known_as: one.name for one in self.shape.asks}

    def _sheet(self) -> Sheet:
        measures = [MeasureFields(name, text) for name, text in self._formulas.items()]
        parts = {self.letters[row.key]: self._fields(row) for row in self.written.rows}
        runs = [self._run(run) for run in self.written.runs]
        return Sheet(TypedSheet(parts, measures, runs), self.lexicon, self.sections)

    def lettered(self, text: str) -> str:
        """A formula or a line with the letters of the parts that it names by key."""
        for key, letter in self.letters.items():
            text = text.replace(f"{{{key}}}", letter)
        return text

    def _fields(self, row: Row) -> PartFields:
        return PartFields(
            quantity=self._formula(row.quantity),
            name=row.name,
            stock=row.stock,
            length=self._formula(row.length),
            ends=row.ends if _PLAIN.fullmatch(row.ends) else self._formula(row.ends),
            edges=row.edges,
            measured=row.measured,
            width=self._formula(row.width) if row.width else "",
            note=row.note,
        )

    def _formula(self, text: str) -> str:
        return text if text.isdecimal() else f"={self.lettered(text)}"

    def _run(self, run: RunFields) -> RunFields:
        texts = {name: self.lettered(getattr(run, name)) for name in ("along", "item", "figure")}
        return replace(run, part=self.letters.get(run.part, ""), **texts)

    def _check_measures(self) -> None:
        """Every measure is what it is asked as, lengths above nothing."""
        faults = Faults()
        for problem in self.sheet.worked.problems:
            if problem.place in self._formulas:
                faults.add(self._asked[problem.place], problem.message)
        faults.raise_any()
        for one in self.shape.asks:
            if one.known_as in self._formulas:
                faults.attempt(one.name, partial(self._check_measure, one), None)
        faults.raise_any()

    def _check_runs(self) -> None:
        """What keeps a run from being laid is told at the measure that its field follows."""
        faults = Faults()
        for shown in runs_shown(self.sheet):
            for problem in shown.problems if shown.laid is None else ():
                text = getattr(shown.fields, problem.place, "")
                place = self._asked[text] if text in self._formulas else problem.place
                faults.add(place, problem.message)
        faults.raise_any()

    def _check_measure(self, ask: Ask) -> None:
        value = self.sheet.worked.values[ask.known_as]
        if ask.kind is Asks.LENGTH and as_length(value, self.lexicon.unit).amount < 0:
            raise CarpentryError("is below 0")
        if ask.kind is Asks.COUNT:
            if value.kind not in {Kind.COUNT, Kind.NUMBER} or value.amount.denominator != 1:
                raise CarpentryError("is no whole number")
            if not 0 <= value.amount <= MOST_PIECES:
                raise CarpentryError(f"is from 0 to {MOST_PIECES:,}")

    def _part(self, key: str) -> Part:
        row = next(row for row in self.written.rows if row.key == key)
        try:
            return self.sheet.check(self.letters[key])
        except CarpentryError as error:
            raise CarpentryError(
                Problem(self._blamed(row, p.place), f"{row.name}: {p.message}")
                for p in error.problems
            ) from error

    def _blamed(self, row: Row, field: str) -> str:
        """The measure that a field of a part rests on first: what is wrong is told there."""
        if field == "stock":
            return next(name for name, text in self.given.typed.items() if text == row.stock)
        try:
            first = apart(self.lettered(getattr(row, field)))[0]
            formula = read_formula(first, self.lexicon.unit)
        except CarpentryError:
            return ""
        named = (self._asked[name] for name in formula.names if name in self._formulas)
        return next(named, "")

    @property
    def per(self) -> int:
        """Ticks in a unit of space."""
        return ticks_per(self.lexicon.unit)

    def length(self, formula: str) -> float:
        """What a formula on measures and keys comes to, in units of space."""
        value = as_length(self.sheet.reckon(self.lettered(formula)), self.lexicon.unit)
        return float(value.amount / self.per)

    def count(self, name: str) -> int:
        """A measure that is a count."""
        return int(self.sheet.worked.values[name].amount)

    def section(self, key: str) -> Section:
        """The finished section of a part. Raises ``CarpentryError`` where its stock has none."""
        part = self.parts[key]
        stock = part.stock
        found = part.finished_section(self.sections(stock) or sheet_section(stock))
        if found is None:
            raise CarpentryError(f"{part.stock} has no size that is known", "stock")
        return found

    def width_of(self, key: str) -> float:
        return self.section(key).width / self.per

    def thickness_of(self, key: str) -> float:
        return self.section(key).thickness / self.per

    def length_of(self, key: str) -> float:
        """Between the outermost points, as it is cut."""
        part = self.parts[key]
        over_all = part.length.ticks
        if not part.square_ended:
            over_all = part.outermost(self.section(key))
        return over_all / self.per

    def lean(self) -> float:
        """How far a leg leans from upright, in radians."""
        return math.radians(abs(float(self.parts["left"].ends[0].degrees)))

    def laid(self, run: str) -> Laid:
        """How a run of the shape lies. Raises ``CarpentryError`` where it cannot be laid."""
        shown = next(one for one in runs_shown(self.sheet) if one.fields.name == run)
        if shown.laid is None:
            raise CarpentryError(shown.problems)
        return shown.laid

    def solids(self) -> list[Solid]:
        """Every piece in space, as many of each part as its quantity says.

        Raises ``CarpentryError`` by measure where it cannot be built.
        """
        counts: dict[str, int] = {}
        found: list[Solid] = []
        for lying in self.shape.lie(self):
            counts[lying.key] = counts.get(lying.key, 0) + 1
            found.append(Solid(lying.key, counts[lying.key], self._corners(lying)))
        return found

    def _corners(self, lying: Lying) -> tuple[Vector, ...]:
        """The corners of a piece from its own cuts."""
        part, section = self.parts[lying.key], self.section(lying.key)
        over_all = part.length.ticks if part.square_ended else part.outermost(section)
        across = edge_corners(0, section.width, part.edges, section.thickness)
        face_left, face_right, back_right, back_left = across
        found: list[Vector] = []
        for t, sides in ((0.0, (back_left, back_right)), (1.0, (face_left, face_right))):
            for v in sides:
                lost = [self._lost(end, section, v / section.width, t) for end in part.ends]
                for u in (lost[0], over_all - lost[1]):
                    found.append(self._point(lying, u, v, t * section.thickness))
        return tuple(found)

    @staticmethod
    def _lost(end: EndAngle, section: Section, share: float, t: float) -> float:
        """How far inside the outermost point an end lies (ticks), at this share of the width from
        the bottom edge and of the thickness from the back."""
        at = t if end.bevel else share
        across = section.thickness if end.bevel else section.width
        reach = across * math.tan(math.radians(abs(float(end.degrees))))
        return reach * (1 - at if end.degrees > 0 else at)

    def _point(self, lying: Lying, u: float, v: float, t: float) -> Vector:
        ax, ay, az = lying.along
        bx, by, bz = lying.across
        normal = (ay * bz - az * by, az * bx - ax * bz, ax * by - ay * bx)
        x, y, z = (
            o + (u * a + v * b + t * n) / self.per
            for o, a, b, n in zip(lying.origin, lying.along, lying.across, normal, strict=True)
        )
        return (x, y, z)
