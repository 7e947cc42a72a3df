"""Working a sheet out: measures, runs and what is said of parts, each from what it rests on."""

from collections.abc import Callable
from fractions import Fraction
from functools import cache, cached_property, partial

from carpentry.design.ends import says_shape
from carpentry.design.measures import (
    Formula,
    Kind,
    Known,
    Look,
    Reckoned,
    Reference,
    Value,
    Worked,
    as_length,
    check_name,
    formula_of,
    read_formula,
    read_taped,
    work_out_formulas,
)
from carpentry.design.part import PartFields, read_boards, read_quantity
from carpentry.design.runs import ENDS, FIGURES, AtEnd, End, Laid, RunFields, laid, read_packers
from carpentry.design.sheet.lines import formulas_of_lines
from carpentry.design.sheet.typed import (
    TypedSheet,
    along_edge,
    keys_of,
    part_formulas,
    run_inputs,
)
from carpentry.language import (
    ROUNDED_TO,
    CarpentryError,
    Faults,
    Problem,
    Unit,
    check_typed,
    read_exactly,
    rounded,
    ticks_per,
    write_decimal,
    write_figure,
)
from carpentry.lumber import Lexicon, Section, StockName, read_stock, sheet_section

_ANGLES_TO = Fraction(1, 100)  # of a degree
_OF_AN_INCH = (1, 2, 4, 8, 16, 32, 64)  # what a number is shown as a fraction of
Sections = Callable[[StockName], Section | None]
MOST_NAMED = 6  # of what went into a formula, where it is told


def no_sections(_stock: StockName) -> Section | None:
    """Where nothing is known of what stocks measure."""
    return None


def rounding_of(unit: Unit) -> Fraction:
    """What lengths are rounded to where they are cut, in ticks."""
    return read_exactly(ROUNDED_TO[unit], unit)


class _RunReckoned:
    """What is said of a run (its gap, count or last), as a formula on its figures."""

    references: tuple[Reference, ...] = ()

    def __init__(self, sheet: "Reckoning", fields: RunFields, said: str) -> None:
        self.sheet, self.fields, self.said = sheet, fields, said
        self.names = tuple(run_inputs(fields))

    def value(self, known: Known, look: Look) -> Value:
        try:
            found = self.sheet.lay(self.fields, known)
        except CarpentryError as error:
            told = "; ".join(f"{p.place} {p.message}".strip() for p in error.problems)
            raise CarpentryError(f"run {self.fields.name}: {told}") from error
        if self.said == "count":
            return Value(Kind.COUNT, Fraction(found.pieces))
        if self.said == "gap":
            return Value(Kind.LENGTH, found.run.gap)
        if found.rows is None:
            raise CarpentryError(f"{self.fields.name} has no ripped row: it is no siding")
        return Value(Kind.LENGTH, found.rows.last)


class Reckoning:
    """Everything typed in a sheet, worked out. ``sections`` tells what a stock measures where it is
    bought: sizes of parts that state none of their own follow it."""

    def __init__(
        self, typed: TypedSheet, lexicon: Lexicon, sections: Sections = no_sections
    ) -> None:
        self.typed, self.lexicon = typed, lexicon
        self.sections: Sections = cache(sections)
        self.rounding = rounding_of(lexicon.unit)

    @cached_property
    def unread(self) -> tuple[dict[str, Reckoned], dict[str, Value], Faults, set[str]]:
        """Formulas by what they stand for, what was measured, faults, and all names."""
        faults = Faults()
        unit = self.lexicon.unit
        formulas: dict[str, Reckoned] = {}
        measured: dict[str, Value] = {}
        for one in self.typed.measures:
            try:
                check_name(one.name)
                formula = formula_of(one, unit)
                if formula:
                    formulas[one.name] = formula
                if one.measured.strip():
                    measured[one.name] = read_taped(one.measured, unit)
            except CarpentryError as error:
                faults.problems.extend(Problem(one.name, p.message) for p in error.problems)
        for name, text in self.typed.named.items():
            self._read(name, text, formulas, faults)
        for mark, fields in self.typed.parts.items():
            for name, texts in part_formulas(fields).items():
                for key, text in keys_of(name, mark, texts):
                    self._read(key, text, formulas, faults)
            for key, text in along_edge(mark, fields).items():
                self._read(key, text, formulas, faults)
            if fields.taped.strip():
                key = f"length of {mark}"
                read = faults.attempt(key, partial(read_taped, fields.taped, unit), None)
                if read:
                    measured[key] = read
        for run in self.typed.runs:
            for key, text in run_inputs(run).items():
                self._read(key, text, formulas, faults)
            for said in ("gap", "count", "last"):
                formulas[f"{said} of {run.name}"] = _RunReckoned(self, run, said)
        named = {one.name for one in self.typed.measures}
        named |= {*self.typed.usual, *self.typed.named}
        return formulas, measured, faults, named

    def _read(self, key: str, text: str, formulas: dict[str, Reckoned], faults: Faults) -> None:
        try:
            formulas[key] = read_formula(text, self.lexicon.unit)
        except CarpentryError as error:
            faults.problems.extend(Problem(key, p.message) for p in error.problems)

    @cached_property
    def worked(self) -> Worked:
        """Everything worked out: measures by name, ``length of A`` and the like."""
        formulas, measured, faults, named = self.unread
        keys = {key for run in self.typed.runs for key in run_inputs(run)}
        held = dict(self.typed.usual) | measured
        for one in self.typed.measures:  # a measure of that name holds instead
            if one.name in self.typed.usual and one.name not in measured:
                held.pop(one.name, None)
        copy = Faults()
        copy.problems = list(faults.problems)
        return work_out_formulas(formulas, named | keys, copy, self._look, held)

    @cached_property
    def problems_at(self) -> dict[str, list[str]]:
        found: dict[str, list[str]] = {}
        for problem in self.worked.problems:
            found.setdefault(problem.place, []).append(problem.message)
        return found

    def _look(self, reference: Reference) -> Value:
        """What is said of a part that no formula says."""
        fields = self.typed.parts.get(reference.of)
        if fields is None:
            if reference.of.isupper():
                raise CarpentryError(f"there is no part {reference.of}: {reference}")
            known = [run.name for run in self.typed.runs]
            if reference.of in known:
                raise CarpentryError(f"{reference} could not be worked out")
            told = f" Runs here: {', '.join(known)}" if known else ""
            raise CarpentryError(f"there is no run “{reference.of}”.{told}")
        if reference.field in {"angle", "edge"} and says_shape(fields.ends):
            raise CarpentryError(f"{reference.of} has shaped ends: there is no one {reference}")
        if reference.field == "quantity":
            return Value(Kind.COUNT, Fraction(read_quantity(fields.quantity)))
        if reference.field == "angle":
            return Value(Kind.ANGLE, Fraction(0))
        if reference.field == "edge":
            return self._look(Reference("length", reference.of))
        text = getattr(fields, reference.field)
        if text.strip():
            return Value(Kind.LENGTH, Fraction(self.lexicon.length(text).ticks))
        section = self._section(fields)
        if section is None or reference.field == "length":
            raise CarpentryError(f"the {reference.field} of {reference.of} is not known")
        size = section.width if reference.field == "width" else section.thickness
        return Value(Kind.LENGTH, Fraction(size))

    def _section(self, fields: PartFields) -> Section | None:
        """What its board measures: the rack boards that it names alone where those are alike, else
        its stock where that is bought."""
        choice = read_boards(fields.boards)
        if choice and choice.only:
            named = {self.typed.boards.get(number) for number in choice.numbers}
            if len(named) == 1 and None not in named:
                return named.pop()
        stock = read_stock(fields.stock, self.lexicon).stock
        return self.sections(stock) or sheet_section(stock)

    def lay(self, run: RunFields, known: Known) -> Laid:
        """How a run lies when its figures are known; raises as ``laid``."""
        unit = self.lexicon.unit
        faults = Faults()
        check_typed(run, faults)
        figures: dict[str, Fraction | None] = dict.fromkeys(FIGURES)
        ends: dict[str, End] = {}
        for key in run_inputs(run):
            name = key.rpartition(": ")[2]
            read = faults.attempt(name, partial(self._figure, run, name, known[key]), None)
            if read is not None and name in {"first", "last"}:
                ends[name] = read
            elif name in FIGURES:
                figures[name] = read
        for name in ("first", "last"):
            text = getattr(run, name).strip().lower() or AtEnd.GAP
            if text in ENDS:
                ends[name] = AtEnd(text)
        step = self.rounding
        if run.rounding.strip():
            step = faults.attempt("rounding", lambda: read_exactly(run.rounding, unit), step)
            if not step:
                faults.add("rounding", "must be above 0")
        none: list[Fraction] = []
        packers = faults.attempt("packers", lambda: read_packers(run.packers, unit), none)
        faults.raise_any()
        return laid(run, figures, (ends["first"], ends["last"]), step, packers)

    def _figure(self, run: RunFields, name: str, value: Value) -> Fraction:
        counts = name == "loose" or (name == "figure" and run.way.strip().lower() == "count")
        if not counts:
            return as_length(value, self.lexicon.unit).amount
        if value.kind not in {Kind.COUNT, Kind.NUMBER}:
            raise CarpentryError(f"{value.words} is no count")
        return value.amount

    def reckon(self, text: str) -> Value:
        """What a formula, without its ``=``, comes to here. Raises ``CarpentryError``."""
        formula = read_formula(text, self.lexicon.unit)
        faults = Faults()
        _, _, _, named = self.unread
        one = {"": formula}
        known = {**self.worked.values}
        found = work_out_formulas(one, named, faults, self.known_or(known), known)
        if "" not in found.values:
            faults.problems = [Problem("", p.message) for p in faults.problems]
            faults.raise_any()
            unknown = next(name for name in formula.names if name not in known)
            raise CarpentryError(f"{unknown} could not be worked out")
        return found.values[""]

    def known_or(self, known: Known) -> Look:
        return lambda reference: known.get(str(reference)) or self._look(reference)

    def shown(self, value: Value) -> tuple[str, bool]:
        """A value as text that is read in the unit of the sheet, and whether it is exact: lengths
        are rounded as they are cut."""
        unit = self.lexicon.unit
        if value.kind is Kind.LENGTH:
            at = rounded(value.amount, self.rounding)
            return write_figure(at / ticks_per(unit), unit), at == value.amount
        if value.kind is Kind.ANGLE:
            at = rounded(value.amount, _ANGLES_TO)
            return write_decimal(at), at == value.amount
        if unit is Unit.INCH and value.amount.denominator in _OF_AN_INCH:
            return write_figure(value.amount, unit), True
        text = write_decimal(value.amount)
        return text, Fraction(text) == value.amount

    def waits_for(self, key: str) -> str:
        formula = self.unread[0][key]
        needed = [*formula.names, *map(str, formula.references)]
        known = self.worked.values
        missing = [name for name in needed if name not in known]
        why = next(
            (f": {self.problems_at[one][0]}" for one in missing if one in self.problems_at), ""
        )
        return f"waits for {', '.join(missing) or 'what it rests on'}, not worked out{why}"

    def went_in(self, key: str) -> str:
        formula = self.unread[0][key]
        known = self.worked.values
        needed = [name for name in (*formula.names, *map(str, formula.references)) if name in known]
        said = [f"{name} = {self.shown(known[name])[0]}" for name in needed[:MOST_NAMED]]
        return f", where {', '.join(said)}" if said else ""

    def users(self) -> dict[str, list[str]]:
        """Where each name and each reference is used, in words."""
        found: dict[str, list[str]] = {}
        formulas, _, _, _ = self.unread
        for key, formula in formulas.items():
            if not isinstance(formula, Formula):
                continue
            for name in (*formula.names, *map(str, formula.references)):
                found.setdefault(name, []).append(key)
        for kind, text in self.typed.lines.items():
            for number, typed in formulas_of_lines(text):
                for name in self._named_in(typed):
                    found.setdefault(name, []).append(f"{kind}, line {number}")
        return found

    def _named_in(self, text: str) -> tuple[str, ...]:
        try:
            formula = read_formula(text, self.lexicon.unit)
        except CarpentryError:
            return ()
        return (*formula.names, *map(str, formula.references))

    def used_in(self, name: str) -> list[str]:
        """Where a measure is used: other measures, ``length of A``, ``run: along``."""
        return self.users().get(name, [])
