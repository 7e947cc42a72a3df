"""The sheet: parts, measures and runs that follow one another, worked out together.

What was typed stays as it was typed. A field that begins with ``=`` is a formula; so is plain
arithmetic that is no length by itself, such as ``(61 - 18 5/8)/2``. Only what is shown or cut is
rounded, once; what follows from it is worked out from the exact value.
"""

import re
from collections.abc import Callable, Iterator, Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass, field, replace
from fractions import Fraction
from functools import cached_property, partial

from carpentry.design.measures import (
    Formula,
    Kind,
    Known,
    Look,
    MeasureFields,
    Reckoned,
    Reference,
    Value,
    Worked,
    as_length,
    check_name,
    formula_of,
    keeping_unit,
    read_formula,
    read_taped,
    renamed,
    work_out_formulas,
)
from carpentry.design.part import PART_LENGTHS, Part, PartFields, read_part
from carpentry.design.runs import (
    ENDS,
    FIGURES,
    AtEnd,
    End,
    Laid,
    RunFields,
    laid,
    read_packers,
)
from carpentry.language import (
    ROUNDED_TO,
    CarpentryError,
    Faults,
    Length,
    Problem,
    Unit,
    check_typed,
    read_exactly,
    rounded,
    spelled_out,
    ticks_per,
    typed_fields,
    unambiguous,
    write_decimal,
    write_figure,
)
from carpentry.lumber import INCHES, Lexicon, Section, StockName, read_stock

PAIRS = ("ends", "edges")
FORMULA_FIELDS = ("quantity", *PART_LENGTHS, *PAIRS)
_ANGLES_TO = Fraction(1, 100)  # of a degree
_OF_AN_INCH = (1, 2, 4, 8, 16, 32, 64)  # what a number is shown as a fraction of
_BEVEL = re.compile(r"\s+b\s*$")
_INLINE = re.compile(r"=\s*(?=\()")

Sections = Callable[[StockName], Section | None]
Followed = tuple[str, str, bool]  # a field, what its formula came to as text, whether exact
MOST_NAMED = 6  # of what went into a formula, where it is told


def no_sections(_stock: StockName) -> Section | None:
    """Where nothing is known of what stocks measure."""
    return None


def rounding_of(unit: Unit) -> Fraction:
    """What lengths are rounded to where they are cut, in ticks."""
    return read_exactly(ROUNDED_TO[unit], unit)


def is_formula(text: str) -> bool:
    return text.lstrip().startswith("=")


def formulas_in(fields: PartFields) -> dict[str, str]:
    """The formulas of a part, without their ``=``, by field."""
    typed = {name: getattr(fields, name) for name in FORMULA_FIELDS}
    return {name: text.strip()[1:].strip() for name, text in typed.items() if is_formula(text)}


def with_formulas(fields: PartFields, lexicon: Lexicon) -> PartFields:
    """Fields in which arithmetic that is no length has the ``=`` of a formula."""
    return replace(
        fields,
        **{
            name: f"={text.strip()}"
            for name in PART_LENGTHS
            if (text := getattr(fields, name)).strip() and _is_arithmetic(text, lexicon)
        },
    )


def _is_arithmetic(text: str, lexicon: Lexicon) -> bool:
    if is_formula(text):
        return False
    try:
        lexicon.length(text)
    except CarpentryError:
        try:
            return len(read_formula(text, lexicon.unit).steps) > 1
        except CarpentryError:
            return False
    return False


@dataclass(frozen=True)
class MeasureShown:
    """A measure worked out: what holds, and what its formula comes to where the tape said
    otherwise; what is wrong with it; which of its specimens do not fit what holds; where it is
    used."""

    fields: MeasureFields
    value: Value | None
    computed: Value | None
    problems: tuple[str, ...]
    specimens: tuple[tuple[Value, bool], ...]
    used_by: tuple[str, ...]


@dataclass(frozen=True)
class RunShown:
    """A run worked out, or what is wrong with it by field; where it is used."""

    fields: RunFields
    laid: Laid | None
    problems: tuple[Problem, ...]
    used_by: tuple[str, ...]


class _RunReckoned:
    """What is said of a run (its gap, count or last), as a formula on its figures."""

    references: tuple[Reference, ...] = ()

    def __init__(self, sheet: "Sheet", fields: RunFields, said: str) -> None:
        self.sheet, self.fields, self.said = sheet, fields, said
        self.names = tuple(sheet.inputs_of(fields))

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


@dataclass(frozen=True)
class TypedSheet:
    """What a sheet is made from: parts by their letters, measures and runs, as they were typed.
    ``usual`` are names that are known without a measure, such as the kerf."""

    parts: Mapping[str, PartFields] = field(default_factory=dict)
    measures: Sequence[MeasureFields] = ()
    runs: Sequence[RunFields] = ()
    usual: Mapping[str, Value] = field(default_factory=dict)


class Sheet:
    """Parts, measures and runs worked out. ``sections`` tells what a stock measures where it is
    bought: sizes of parts that state none of their own follow it."""

    def __init__(
        self, typed: TypedSheet, lexicon: Lexicon, sections: Sections = no_sections
    ) -> None:
        self.typed, self.lexicon, self.sections = typed, lexicon, sections
        self.rounding = rounding_of(lexicon.unit)

    @cached_property
    def _unread(self) -> tuple[dict[str, Reckoned], dict[str, Value], Faults, set[str]]:
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
        for mark, fields in self.typed.parts.items():
            for name, texts in self._formulas_of(fields).items():
                for key, text in _keys(name, mark, texts):
                    self._read(key, text, formulas, faults)
            if fields.taped.strip():
                key = f"length of {mark}"
                read = faults.attempt(key, partial(read_taped, fields.taped, unit), None)
                if read:
                    measured[key] = read
        for run in self.typed.runs:
            for key, text in self.inputs_of(run).items():
                self._read(key, text, formulas, faults)
            for said in ("gap", "count", "last"):
                formulas[f"{said} of {run.name}"] = _RunReckoned(self, run, said)
        named = {one.name for one in self.typed.measures} | set(self.typed.usual)
        return formulas, measured, faults, named

    def _read(self, key: str, text: str, formulas: dict[str, Reckoned], faults: Faults) -> None:
        try:
            formulas[key] = read_formula(text, self.lexicon.unit)
        except CarpentryError as error:
            faults.problems.extend(Problem(key, p.message) for p in error.problems)

    def _formulas_of(self, fields: PartFields) -> dict[str, list[str]]:
        found: dict[str, list[str]] = {}
        for name, text in formulas_in(fields).items():
            pieces = _apart(text) if name in PAIRS else [text]
            found[name] = [_BEVEL.sub("", piece) if name in PAIRS else piece for piece in pieces]
        return found

    def inputs_of(self, run: RunFields) -> dict[str, str]:
        """What has to be worked out before a run is laid: formulas by what they stand for."""
        texts = {name: getattr(run, name) for name in FIGURES}
        for name in ("first", "last"):
            text = getattr(run, name).strip()
            if text and text.lower() not in ENDS:
                texts[name] = text
        return {
            f"{run.name}: {name}": text.strip().removeprefix("=").strip()
            for name, text in texts.items()
            if text.strip()
        }

    @cached_property
    def worked(self) -> Worked:
        """Everything worked out: measures by name, ``length of A`` and the like."""
        formulas, measured, faults, named = self._unread
        keys = {key for run in self.typed.runs for key in self.inputs_of(run)}
        held = dict(self.typed.usual) | measured
        for one in self.typed.measures:  # a measure of that name holds instead
            if one.name in self.typed.usual and one.name not in measured:
                held.pop(one.name, None)
        copy = Faults()
        copy.problems = list(faults.problems)
        return work_out_formulas(formulas, named | keys, copy, self._look, held)

    @cached_property
    def _problems(self) -> dict[str, list[str]]:
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
        if reference.field == "quantity":
            return Value(Kind.COUNT, Fraction(int(fields.quantity or "1")))
        text = getattr(fields, reference.field)
        if text.strip():
            return Value(Kind.LENGTH, Fraction(self.lexicon.length(text).ticks))
        section = self.sections(read_stock(fields.stock, self.lexicon).stock)
        if section is None or reference.field == "length":
            raise CarpentryError(f"the {reference.field} of {reference.of} is not known")
        size = section.width if reference.field == "width" else section.thickness
        return Value(Kind.LENGTH, Fraction(size))

    def lay(self, run: RunFields, known: Known) -> Laid:
        """How a run lies when its figures are known; raises as ``laid``."""
        unit = self.lexicon.unit
        faults = Faults()
        check_typed(run, faults)
        figures: dict[str, Fraction | None] = dict.fromkeys(FIGURES)
        ends: dict[str, End] = {}
        for key in self.inputs_of(run):
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
        _, _, _, named = self._unread
        one = {"": formula}
        known = {**self.worked.values}
        found = work_out_formulas(one, named, faults, self._known_or(known), known)
        if "" not in found.values:
            faults.problems = [Problem("", p.message) for p in faults.problems]
            faults.raise_any()
            unknown = next(name for name in formula.names if name not in known)
            raise CarpentryError(f"{unknown} could not be worked out")
        return found.values[""]

    def _known_or(self, known: Known) -> Look:
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

    def part(self, mark: str) -> Part:
        """A part as it is now. Where something of it cannot be worked out it says so in ``fault``:
        it is there, but nothing can be planned of it."""
        fields = self.typed.parts[mark]
        if not formulas_in(fields) and not fields.taped.strip():
            return read_part(fields, self.lexicon)
        found, followed, problems = self._substituted(mark, fields)
        try:
            if not problems:
                return _as_typed(read_part(found, self.lexicon), fields, followed)
        except CarpentryError as error:
            problems = [Problem(p.place, p.message) for p in error.problems]
        neutral = {p.place: {"quantity": "1", "length": "1"}.get(p.place, "") for p in problems}
        part = _as_typed(read_part(replace(found, **neutral), self.lexicon), fields, followed)
        headings = typed_fields(PartFields)
        said = "; ".join(f"{headings[p.place].heading.lower()}: {p.message}" for p in problems)
        if "length" in neutral:
            part = replace(part, length=Length(0, fields.length))
        return replace(part, fault=said)

    def check(self, mark: str) -> Part:
        """A part as it was just typed. Raises ``CarpentryError`` by field where something of it
        cannot be worked out."""
        return self._checked(mark, self.typed.parts[mark])

    def readable(self, mark: str) -> Part:
        """``part``, unless a formula of it is none at all: that raises ``CarpentryError`` by
        field."""
        faults = Faults()
        for name, texts in self._formulas_of(self.typed.parts[mark]).items():
            for text in texts:
                faults.attempt(name, partial(read_formula, text, self.lexicon.unit), None)
        faults.raise_any()
        return self.part(mark)

    def read(self, fields: PartFields, lexicon: Lexicon) -> Part:
        """A part that is not in the sheet yet, as ``read_part`` reads it; arithmetic becomes a
        formula."""
        spelled = with_formulas(fields, lexicon)
        if not formulas_in(spelled) and not spelled.taped.strip():
            return read_part(spelled, lexicon)
        parts = {**self.typed.parts, "": spelled}
        whole = Sheet(replace(self.typed, parts=parts), lexicon, self.sections)
        return whole._checked("", spelled)

    def _checked(self, mark: str, fields: PartFields) -> Part:
        found, followed, problems = self._substituted(mark, fields)
        try:
            part = read_part(found, self.lexicon)
        except CarpentryError as error:
            known = {p.place for p in problems}
            problems += [p for p in error.problems if p.place not in known]
        if problems:
            raise CarpentryError(problems)
        return _as_typed(part, fields, followed)

    def _substituted(
        self, mark: str, fields: PartFields
    ) -> tuple[PartFields, list[Followed], list[Problem]]:
        """Fields with what their formulas come to, and what is wrong with those."""
        followed: list[Followed] = []
        problems: list[Problem] = []
        taken: dict[str, str] = {}
        for name, texts in self._formulas_of(fields).items():
            try:
                text, exact = self._text_of(mark, fields, name, texts)
            except CarpentryError as error:
                problems += [Problem(name, p.message) for p in error.problems]
                continue
            taken[name] = text
            followed.append((name, text, exact))
        if fields.taped.strip():
            value = self.worked.values.get(f"length of {mark}")
            try:
                text, _ = self._length_text("length", value) if value else ("", True)
                taken["taped"] = text
            except CarpentryError as error:
                problems += [Problem("taped", p.message) for p in error.problems]
        return replace(fields, **taken), followed, problems

    def _text_of(
        self, mark: str, fields: PartFields, name: str, texts: Sequence[str]
    ) -> tuple[str, bool]:
        keys = [key for key, _ in _keys(name, mark, texts)]
        if name in PAIRS and len(texts) != 2:
            raise CarpentryError("write two angles with a comma between them: = lean, -lean")
        told = [message for key in keys for message in self._problems.get(key, [])]
        if told:
            raise CarpentryError(Problem(name, message) for message in told)
        values = [self._value(mark, fields, key) for key in keys]
        if None in values:
            raise CarpentryError(self._waits_for(keys[values.index(None)]))
        found = [value for value in values if value is not None]
        try:
            if name == "quantity":
                return _quantity(found[0])
            if name in PAIRS:
                return self._angles(found, fields, name)
            return self._length_text(name, found[0])
        except CarpentryError as error:
            went_in = self._went_in(keys[0])
            raise CarpentryError(f"{error}: {texts[0]}{went_in}") from error

    def _value(self, mark: str, fields: PartFields, key: str) -> Value | None:
        """What a formula comes to by itself, also where the tape said otherwise."""
        if key == f"length of {mark}" and fields.taped.strip():
            return self.worked.computed.get(key)
        return self.worked.values.get(key)

    def _waits_for(self, key: str) -> str:
        formula = self._unread[0][key]
        needed = [*formula.names, *map(str, formula.references)]
        known = self.worked.values
        missing = [name for name in needed if name not in known]
        why = next((f": {self._problems[one][0]}" for one in missing if one in self._problems), "")
        return f"waits for {', '.join(missing) or 'what it rests on'}, not worked out{why}"

    def _went_in(self, key: str) -> str:
        formula = self._unread[0][key]
        known = self.worked.values
        needed = [name for name in (*formula.names, *map(str, formula.references)) if name in known]
        said = [f"{name} = {self.shown(known[name])[0]}" for name in needed[:MOST_NAMED]]
        return f", where {', '.join(said)}" if said else ""

    def _length_text(self, name: str, value: Value) -> tuple[str, bool]:
        found = as_length(value, self.lexicon.unit)
        text, exact = self.shown(found)
        least = 0 if name.startswith("extra") else 1
        if rounded(found.amount, self.rounding) < least:
            raise CarpentryError(f"comes out {text}")
        return text, exact

    def _angles(self, values: Sequence[Value], fields: PartFields, name: str) -> tuple[str, bool]:
        bevels = [bool(_BEVEL.search(text)) for text in _apart(formulas_in(fields)[name])]
        texts, exact = [], True
        for value, bevel in zip(values, bevels, strict=True):
            if value.kind is Kind.LENGTH:
                raise CarpentryError("a length is no angle: write degrees")
            text, sure = self.shown(Value(Kind.ANGLE, value.amount))
            texts.append(f"{text}{'b' if bevel else ''}")
            exact = exact and sure
        return " ".join(texts), exact

    def measures(self) -> Iterator[MeasureShown]:
        """The measures in their order, worked out."""
        formulas, measured, _, _ = self._unread
        users = self._users()
        for one in self.typed.measures:
            value = self.worked.values.get(one.name)
            problems = tuple(self._problems.get(one.name, ()))
            formula = formulas.get(one.name)
            if value is None and not problems:
                problems = (self._waits_for(one.name),) if formula else ("it is not said yet",)
            computed = self.worked.computed.get(one.name) if one.name in measured else None
            specimens = self._specimens(formula, value)
            yield MeasureShown(
                one, value, computed, problems, specimens, tuple(users.get(one.name, ()))
            )

    def _specimens(
        self, formula: Reckoned | None, value: Value | None
    ) -> tuple[tuple[Value, bool], ...]:
        """What was measured of several things, each with whether it fits what holds."""
        if not isinstance(formula, Formula) or value is None:
            return ()
        try:
            found = formula.specimens(self.worked.values, self._known_or(self.worked.values))
        except (CarpentryError, KeyError):
            return ()
        room = self._comparable(value)
        smaller = formula.takes_smallest
        fits = []
        for one in found:
            size = self._comparable(one)
            fits.append((one, size >= room if smaller else size <= room))
        return tuple(fits)

    def _comparable(self, value: Value) -> Fraction:
        if value.kind is Kind.ANGLE or value.kind is Kind.COUNT:
            return value.amount
        return as_length(value, self.lexicon.unit).amount

    def runs(self) -> Iterator[RunShown]:
        """The runs in their order, worked out."""
        users = self._users()
        for run in self.typed.runs:
            inputs = self.inputs_of(run)
            told = [
                Problem(key.rpartition(": ")[2], message)
                for key in inputs
                for message in self._problems.get(key, ())
            ]
            found: Laid | None = None
            if not told:
                missing = [key for key in inputs if key not in self.worked.values]
                told = [Problem(k.rpartition(": ")[2], self._waits_for(k)) for k in missing]
            if not told:
                try:
                    found = self.lay(run, self.worked.values)
                    if found.packers_fault:
                        told = [Problem("packers", found.packers_fault)]
                except CarpentryError as error:
                    told = list(error.problems)
            used = tuple(
                one
                for said in ("gap", "count", "last")
                for one in users.get(f"{said} of {run.name}", ())
            )
            yield RunShown(run, found, tuple(told), tuple(dict.fromkeys(used)))

    def _users(self) -> dict[str, list[str]]:
        """Where each name and each reference is used, in words."""
        found: dict[str, list[str]] = {}
        formulas, _, _, _ = self._unread
        for key, formula in formulas.items():
            if not isinstance(formula, Formula):
                continue
            for name in (*formula.names, *map(str, formula.references)):
                found.setdefault(name, []).append(key)
        return found

    def used_in(self, name: str) -> list[str]:
        """Where a measure is used: other measures, ``length of A``, ``run: along``."""
        return self._users().get(name, [])

    def inline(self, line: str) -> str:
        """A typed line in which formulas in brackets, ``=(2 * bays)``, are what they come to; so is
        a formula between two commas. Raises ``CarpentryError``."""
        if "=" not in line:
            return line
        pieces = [self._inline(piece) for piece in _apart(line)]
        return ",".join(pieces)

    def _inline(self, piece: str) -> str:
        found = _INLINE.search(piece)
        if found:
            end = _closing(piece, found.end())
            value = self.shown(self.reckon(piece[found.end() : end]))[0]
            return self._inline(f"{piece[: found.start()]}{value}{piece[end:]}")
        if is_formula(piece):
            before = piece[: len(piece) - len(piece.lstrip())]
            return f"{before}{self.shown(self.reckon(piece.strip()[1:]))[0]}"
        return piece

    def renaming(self, old: str, new: str) -> "TypedSheet":
        """What is typed where a measure is called otherwise: every formula follows."""
        unit = self.lexicon.unit

        def follow(text: str) -> str:
            try:
                return renamed(read_formula(text, unit), old, new)
            except CarpentryError:
                return text

        return TypedSheet(
            parts={mark: _each(fields, follow) for mark, fields in self.typed.parts.items()},
            measures=[
                replace(
                    one,
                    name=new if one.name == old else one.name,
                    formula=follow(one.formula) if one.formula.strip() else one.formula,
                )
                for one in self.typed.measures
            ],
            runs=[
                replace(
                    run,
                    **{
                        key.rpartition(": ")[2]: follow(text)
                        for key, text in self.inputs_of(run).items()
                    },
                )
                for run in self.typed.runs
            ],
            usual=self.typed.usual,
        )


def part_keeping_unit(fields: PartFields, unit: Unit) -> dict[str, str]:
    """The formulas of a part, and what the tape said of it, by field, as they are typed where bare
    figures are in another unit."""
    kept = _each(fields, lambda text: _kept(text, unit))
    said = {name: getattr(kept, name) for name in formulas_in(fields)}
    return said | ({"taped": _kept(fields.taped, unit)} if fields.taped.strip() else {})


def run_keeping_unit(run: RunFields, unit: Unit) -> RunFields:
    """A run as it is typed where bare figures are in another unit."""
    texts = EMPTY.inputs_of(run)
    kept = {key.rpartition(": ")[2]: _kept(text, unit) for key, text in texts.items()}
    with suppress(CarpentryError):  # what cannot be read is told at its field, and kept as it is
        if run.rounding.strip():
            step = round(read_exactly(run.rounding, unit))
            kept["rounding"] = unambiguous(run.rounding, step, unit)
    with suppress(CarpentryError):
        packers = read_packers(run.packers, unit)
        kept["packers"] = ", ".join(spelled_out(round(packer), unit) for packer in packers)
    return replace(run, **kept)


def _kept(text: str, unit: Unit) -> str:
    with suppress(CarpentryError):
        return keeping_unit(text, unit)
    return text


def _each(fields: PartFields, follow: Callable[[str], str]) -> PartFields:
    """Fields with every formula of theirs as ``follow`` has it."""
    taken: dict[str, str] = {}
    for name, text in formulas_in(fields).items():
        if name not in PAIRS:
            taken[name] = f"={follow(text)}"
            continue
        pieces = []
        for piece in _apart(text):
            bevel = _BEVEL.search(piece)
            body = piece[: bevel.start()] if bevel else piece
            pieces.append(f"{follow(body.strip())}{' b' if bevel else ''}")
        taken[name] = f"={', '.join(pieces)}"
    return replace(fields, **taken)


def _as_typed(part: Part, fields: PartFields, followed: Sequence[Followed]) -> Part:
    """A part with what was typed where its values were read."""
    kept = {name: getattr(fields, name) for name in formulas_in(fields)}
    kept["taped"] = fields.taped
    return replace(
        part,
        fields=replace(part.fields, **kept),
        followed=tuple(followed),
    )


def _keys(name: str, mark: str, texts: Sequence[str]) -> list[tuple[str, str]]:
    if name not in PAIRS:
        return [(f"{name} of {mark}", texts[0])]
    return [(f"{name} {n} of {mark}", text) for n, text in enumerate(texts, start=1)]


def _quantity(value: Value) -> tuple[str, bool]:
    text = write_decimal(value.amount)
    if value.kind not in {Kind.COUNT, Kind.NUMBER}:
        raise CarpentryError(f"{value.words} is no quantity")
    if value.amount.denominator != 1 or value.amount < 1:
        raise CarpentryError(f"comes out {text}, and a quantity is a whole number from 1 on")
    return text, True


def _closing(text: str, start: int) -> int:
    """Where the bracket that opens at ``start`` is closed, after it."""
    depth = 0
    for at in range(start, len(text)):
        depth += {"(": 1, ")": -1}.get(text[at], 0)
        if not depth:
            return at + 1
    raise CarpentryError("a “)” is missing at the end")


def _apart(text: str) -> list[str]:
    """A text at its commas that are in no brackets."""
    depth, pieces = 0, [""]
    for letter in text:
        depth += {"(": 1, ")": -1}.get(letter, 0)
        if letter == "," and depth <= 0:
            pieces.append("")
        else:
            pieces[-1] += letter
    return pieces


EMPTY = Sheet(TypedSheet(), INCHES)
