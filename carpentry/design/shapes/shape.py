"""A shape worked out: its parts with their sizes, and where every piece of them lies."""

import math
import re
from abc import ABC, abstractmethod
from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import cached_property, partial
from typing import ClassVar

from carpentry.design.edges import corners as edge_corners
from carpentry.design.edges import outermost_width
from carpentry.design.marks import mark_of
from carpentry.design.measures import Kind, MeasureFields, Value, as_length
from carpentry.design.part import Part, PartFields
from carpentry.design.runs import Laid, RunFields
from carpentry.design.shapes.asked import (
    AS_DRAWN,
    MIRRORED,
    Ask,
    Asks,
    Given,
    Lying,
    Names,
    Row,
    Span,
    Vector,
    Written,
)
from carpentry.design.sheet import RunShown, Sections, Sheet, TypedSheet, runs_shown
from carpentry.language import CarpentryError, Faults, Problem, Unit, ticks_per
from carpentry.lumber import Lexicon, Section, StockName, read_stock, sheet_section

MOST_PIECES = 2_000
_APART = 0.15  # of its width, between a shape and its mirror image
_PLAIN = re.compile(r"[\d. b-]*")  # two angles that are no formulas


class Shape(ABC):
    """A small, named bit of construction with measures of its own."""

    name: ClassVar[str]
    heading: ClassVar[str]
    help: ClassVar[str]  # what it is made of, in a few words
    caution: ClassVar[str] = ""
    views: ClassVar[tuple[str, ...]] = ("front", "side", "plan")
    asks: ClassVar[tuple[Ask, ...]]

    @abstractmethod
    def write(self, given: Given) -> Written:
        """The parts of the shape, as formulas on its measures. Raises ``CarpentryError`` by measure
        for what cannot be built whatever the sizes are."""

    @abstractmethod
    def lie(self, made: "Made") -> Sequence[Lying]:
        """Where the pieces lie. Raises ``CarpentryError`` by measure for what cannot be built."""

    def notices(self, made: "Made") -> Sequence[str]:
        """What is to be minded of it as it is, in sentences."""
        return ()

    def spans(self, made: "Made") -> Sequence[Span]:
        """What its drawing tells the size of, beside the whole of it in every view."""
        return ()


@dataclass(frozen=True)
class Solid:
    """A piece in space: the corners round its back, and those round its face in the same order."""

    key: str
    number: int
    back: tuple[Vector, ...]
    face: tuple[Vector, ...]

    @property
    def corners(self) -> tuple[Vector, ...]:
        return self.back + self.face


def check_given(
    shape: Shape, asks: Sequence[Ask], typed: Mapping[str, str], lexicon: Lexicon
) -> Given:
    """The measures that were typed of a shape that asks for these. Raises ``CarpentryError`` by
    measure for those that are none, are missing, or choose what is not there."""
    faults = Faults()
    given = Given(asks, typed)
    known = {one.name: one for one in asks}
    for name in typed:
        if name not in known:
            faults.add(name, f"is no measure of a {shape.name}: {', '.join(known)}")
    for one in known.values():
        text = given[one.name]
        if one.is_required and not text:
            faults.add(one.name, "is missing")
        elif one.kind is Asks.CHOICE and text.lower() not in one.choices:
            faults.add(one.name, f"“{text[:40]}” is none of {', '.join(one.choices)}")
        elif one.kind is Asks.STOCK and text:
            stock = faults.attempt(one.name, partial(read_stock, text, lexicon), None)
            if stock and stock.length is not None:
                faults.add(one.name, "is written without a length here: 2x4")
    faults.raise_any()
    return given


def valued(given: Given, sheet: Sheet, names: Names) -> Given:
    """The same with what its figures come to in a sheet that has them, and what its stocks measure.
    Raises ``CarpentryError`` by measure where one is not what it is asked as."""
    faults = Faults()
    unit = sheet.lexicon.unit
    values: dict[str, Fraction] = {}
    for figure, one in given.asked.items():
        name = names.of(figure)
        for message in sheet.problems_at.get(name, ()):
            faults.add(one.name, message)
        value = sheet.worked.values.get(name)
        if value is None:
            if name not in sheet.problems_at:
                faults.add(one.name, sheet.waits_for(name))
            continue
        faults.attempt(one.name, partial(_check_measure, one, value, unit), None)
        is_length = one.kind in {Asks.LENGTH, Asks.LENGTHS} and value.kind is not Kind.ANGLE
        values[figure] = as_length(value, unit).amount if is_length else value.amount
    faults.raise_any()
    sections = {
        one.name: _section_of(read_stock(given[one.name], sheet.lexicon).stock, sheet)
        for one in given.asks
        if one.kind is Asks.STOCK and given[one.name]
    }
    return Given(given.asks, given.typed, values, sections)


def _section_of(stock: StockName, sheet: Sheet) -> Section | None:
    return sheet.sections(stock) or sheet_section(stock)


def _check_measure(ask: Ask, value: Value, unit: Unit) -> None:
    if ask.kind in {Asks.LENGTH, Asks.LENGTHS} and as_length(value, unit).amount < 0:
        raise CarpentryError("is below 0")
    if ask.kind is Asks.ANGLE and value.kind is Kind.LENGTH:
        raise CarpentryError("a length is no angle: write degrees")
    if ask.kind is Asks.SHARES and not (value.kind is Kind.NUMBER and 0 < value.amount < 1):
        raise CarpentryError("are parts of the whole, such as 1/2")
    if ask.kind is Asks.COUNT:
        if value.kind not in {Kind.COUNT, Kind.NUMBER} or value.amount.denominator != 1:
            raise CarpentryError("is no whole number")
        if not 0 <= value.amount <= MOST_PIECES:
            raise CarpentryError(f"is from 0 to {MOST_PIECES:,}")


def part_fields(row: Row, names: Names, copies: str = "") -> PartFields:
    """A part as a shape writes it; ``copies`` is a formula for how often the shape is there."""
    quantity = row.quantity
    if copies:
        quantity = copies if quantity == "1" else f"{_factor(quantity)} * {copies}"
    plain = _PLAIN.fullmatch(row.ends)
    return PartFields(
        quantity=_formula(quantity, names),
        name=row.name,
        stock=row.stock,
        length=_formula(row.length, names),
        ends=row.ends if plain else _formula(row.ends, names),
        edges=_formula(row.edges, names) if "{" in row.edges else row.edges,
        measured=row.measured,
        width=_formula(row.width, names) if row.width else "",
        rip=row.rip,
    )


def _factor(text: str) -> str:
    return f"({text})" if re.search(r"[+-]", text) else text


def _formula(text: str, names: Names) -> str:
    return text if text.isdecimal() else f"={names.said(text)}"


def run_fields(run: RunFields, names: Names) -> RunFields:
    """A run as a shape writes it."""
    fields = ("along", "item", "figure", "gap", "least")
    texts = {field: names.said(getattr(run, field)) for field in fields}
    part = names.letters.get(run.part, "")
    return replace(run, name=names.of(run.name), part=part, **texts)


class Made:
    """A shape with its measures in a sheet that has all that it writes: its parts by key, and where
    their pieces lie; those of parts that are ``absent`` are nowhere."""

    def __init__(
        self,
        shape: Shape,
        given: Given,
        written: Written,
        names: Names,
        sheet: Sheet,
        *,
        absent: frozenset[str] = frozenset(),
    ) -> None:
        self.shape, self.given, self.written = shape, given, written
        self.names, self.sheet, self.absent = names, sheet, absent

    @cached_property
    def parts(self) -> dict[str, Part]:
        """Its parts by key. Raises ``CarpentryError`` by measure where one cannot be made."""
        return {row.key: self._part(row) for row in self.written.rows}

    def _part(self, row: Row) -> Part:
        try:
            return self.sheet.check(self.names.letters[row.key])
        except CarpentryError as error:
            raise CarpentryError(
                Problem(self._blamed(row, p.place), f"{row.name}: {p.message}")
                for p in error.problems
            ) from error

    def _blamed(self, row: Row, field: str) -> str:
        """The measure that a field of a part rests on first: what is wrong is told there."""
        if field == "stock":
            return next((name for name, text in self.given.typed.items() if text == row.stock), "")
        return self._measure_of(getattr(row, field, ""))

    def _measure_of(self, text: str) -> str:
        """The first measure that a text of the shape rests on, also by way of its figures."""
        asked = self.given.asked
        for name in re.findall(r"\{([^{}]+)\}", text):
            if name in asked:
                return asked[name].name
            found = self._measure_of(self.written.figures.get(name, ""))
            if found:
                return found
        return ""

    @cached_property
    def _runs(self) -> dict[str, RunShown]:
        return {shown.fields.name: shown for shown in runs_shown(self.sheet)}

    def check_runs(self) -> None:
        """Raises ``CarpentryError`` at the measure that a field of a run follows, where a run
        cannot be laid."""
        faults = Faults()
        for run in self.written.runs:
            shown = self._runs[self.names.of(run.name)]
            for problem in shown.problems if shown.laid is None else ():
                text = getattr(run, problem.place, "")
                faults.add(self._measure_of(text) or problem.place, problem.message)
        faults.raise_any()

    @property
    def per(self) -> int:
        """Ticks in a unit of space."""
        return ticks_per(self.sheet.lexicon.unit)

    def length(self, formula: str) -> float:
        """What a formula of the shape comes to, in units of space."""
        value = as_length(self.sheet.reckon(self.names.said(formula)), self.sheet.lexicon.unit)
        return float(value.amount / self.per)

    def degrees(self, formula: str) -> float:
        """An angle, in degrees."""
        return float(self.sheet.reckon(self.names.said(formula)).amount)

    def told(self, size: float) -> str:
        """A size in units of space, as it is shown."""
        return self.sheet.shown_ticks(Fraction(size) * self.per)

    def count(self, name: str) -> int:
        """A measure that is a count."""
        return self.given.count(name)

    def section(self, key: str) -> Section:
        """The finished section of a part. Raises ``CarpentryError`` where its stock has none."""
        part = self.parts[key]
        stock = part.stock
        found = part.finished_section(_section_of(stock, self.sheet))
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

    def length_at_top(self, key: str) -> float:
        """Along the top edge of its face, as it is cut."""
        _, face = cut_corners(self.parts[key], self.section(key))
        return (face[2][0] - face[3][0]) / self.per

    def lean(self, key: str) -> float:
        """How far the left end of a part is from square, in radians: how far it leans."""
        return math.radians(abs(float(self.parts[key].ends[0].degrees)))

    def laid(self, run: str) -> Laid:
        """How a run of the shape lies. Raises ``CarpentryError`` where it cannot be laid."""
        called = self.names.of(run)
        shown = self._runs[called]
        if shown.laid is None:
            raise CarpentryError(shown.problems)
        return shown.laid

    @cached_property
    def solids(self) -> list[Solid]:
        """Every piece in space, as many of each part as its quantity says for one of the shape.

        Raises ``CarpentryError`` by measure where it cannot be built.
        """
        counts: Counter[str] = Counter()
        found: list[Solid] = []
        for lying in self.shape.lie(self):
            if lying.key in self.absent:
                continue
            counts[lying.key] += 1
            back, face = self._corners(lying)
            found.append(Solid(lying.key, counts[lying.key], back, face))
        return self._handed(found)

    def _handed(self, solids: list[Solid]) -> list[Solid]:
        """The pieces as they are mirrored, or with their mirror images beside them."""
        hand = self.given.hand
        if hand == AS_DRAWN or not solids:
            return solids
        xs = [corner[0] for solid in solids for corner in solid.corners]
        low, high = min(xs), max(xs)
        if hand == MIRRORED:
            return [_mirrored(solid, low + high) for solid in solids]
        beside = high + (high - low) * _APART
        numbers = Counter(solid.key for solid in solids)
        images = (_mirrored(solid, beside + high) for solid in solids)
        return solids + [replace(one, number=one.number + numbers[one.key]) for one in images]

    def seen_at(self, point: Vector) -> Vector:
        """Where a point of it lies, mirrored where it is."""
        if self.given.hand != MIRRORED:
            return point
        xs = [corner[0] for solid in self.solids for corner in solid.corners]
        return (min(xs) + max(xs) - point[0], point[1], point[2])

    def _corners(self, lying: Lying) -> tuple[tuple[Vector, ...], tuple[Vector, ...]]:
        """The corners of a piece from its own cuts: round its back, and round its face."""
        part, section = self.parts[lying.key], self.section(lying.key)
        if part.is_shaped and not any(end.tilt for end in part.ends):
            corners = part.seen(section)
            loops = [
                tuple(self._point(lying, u, v, t) for u, v in corners)
                for t in (0, section.thickness)
            ]
            return loops[0], loops[1]
        back, face = (
            tuple(self._point(lying, *corner) for corner in loop)
            for loop in cut_corners(part, section)
        )
        return back, face

    def _point(self, lying: Lying, u: float, v: float, t: float) -> Vector:
        ax, ay, az = lying.along
        bx, by, bz = lying.across
        normal = (ay * bz - az * by, az * bx - ax * bz, ax * by - ay * bx)
        x, y, z = (
            o + (u * a + v * b + t * n) / self.per
            for o, a, b, n in zip(lying.origin, lying.along, lying.across, normal, strict=True)
        )
        return (x, y, z)


def cut_corners(part: Part, section: Section) -> list[list[Vector]]:
    """The corners (ticks along, across and through) of a part with two cut ends and two edges:
    round its back, and round its face, from the bottom left one."""
    thick = section.thickness
    widest = outermost_width(section.width, part.edges, thick)
    wide = widest if any(end.tilt for end in part.ends) else section.width
    over_all = part.length.ticks if part.square_ended else part.outermost(section)
    face_low, face_high, back_high, back_low = edge_corners(0, widest, part.edges, thick)
    loops = []
    for out, low, high in ((0.0, back_low, back_high), (1.0, face_low, face_high)):
        loop: list[Vector] = []
        for v, ends in ((low, (0, 1)), (high, (1, 0))):
            for end in ends:
                lost = part.ends[end].lost(v / wide, out, thick, wide)
                loop.append((over_all - lost if end else lost, float(v), out * thick))
        loops.append(loop)
    return loops


def _mirrored(solid: Solid, about: float) -> Solid:
    """A piece in a mirror that stands square to the length: what is on the left is on the right."""
    loops = (
        tuple((about - x, y, z) for x, y, z in loop[::-1]) for loop in (solid.back, solid.face)
    )
    return Solid(solid.key, solid.number, *loops)


def make(shape: Shape, typed: Mapping[str, str], lexicon: Lexicon, sections: Sections) -> Made:
    """A shape by itself, in a sheet of its own. Raises ``CarpentryError`` by measure where it
    cannot be made."""
    given = check_given(shape, shape.asks, typed, lexicon)
    figures = Names({})
    measures = _measures(given.figures, figures)
    given = valued(given, Sheet(TypedSheet({}, measures), lexicon, sections), figures)
    written = shape.write(given)
    letters = {row.key: mark_of(n) for n, row in enumerate(written.rows, start=1)}
    names = Names(letters)
    sheet = Sheet(
        TypedSheet(
            {letters[row.key]: part_fields(row, names) for row in written.rows},
            [*measures, *_measures(written.figures, names)],
            [run_fields(run, names) for run in written.runs],
        ),
        lexicon,
        sections,
    )
    made = Made(shape, given, written, names, sheet)
    made.check_runs()
    assert made.parts is not None
    return made


def _measures(figures: Mapping[str, str], names: Names) -> list[MeasureFields]:
    return [MeasureFields(names.of(name), names.said(text)) for name, text in figures.items()]
