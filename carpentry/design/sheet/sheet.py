"""The sheet: parts, measures and runs that follow one another, worked out together.

What was typed stays as it was typed. A field that begins with ``=`` is a formula; so is plain
arithmetic that is no length by itself, such as ``(61 - 18 5/8)/2``. Only what is shown or cut is
rounded, once; what follows from it is worked out from the exact value.
"""

from collections.abc import Sequence
from dataclasses import replace
from fractions import Fraction
from functools import partial

from carpentry.design.measures import Kind, Value, as_length, read_formula
from carpentry.design.part import Part, PartFields, read_part
from carpentry.design.sheet.lines import with_each
from carpentry.design.sheet.reckoning import Reckoning
from carpentry.design.sheet.typed import (
    PAIRS,
    TypedSheet,
    formulas_in,
    keys_of,
    part_formulas,
    turns_of,
    with_formulas,
)
from carpentry.language import (
    CarpentryError,
    Faults,
    Length,
    Problem,
    rounded,
    typed_fields,
    write_decimal,
)
from carpentry.lumber import INCHES, Lexicon

Followed = tuple[str, str, bool]  # a field, what its formula came to as text, whether exact


class Sheet(Reckoning):
    """The parts of a sheet as they are now, and lines that follow its measures."""

    def part(self, mark: str) -> Part:
        """A part as it is now. Where something of it cannot be worked out it says so in ``fault``:
        it is there, but nothing can be planned of it."""
        fields = self.typed.parts[mark]
        if not formulas_in(fields) and not fields.taped.strip():
            return read_part(fields, self.lexicon)
        found, followed, problems = self._substituted(mark, fields)
        part, problems = self._readable(found, problems)
        part = _as_typed(part, fields, followed)
        if not problems:
            return part
        headings = typed_fields(PartFields)
        said = "; ".join(f"{headings[p.place].heading.lower()}: {p.message}" for p in problems)
        places = {p.place for p in problems}
        if "length" in places:
            part = replace(part, length=Length(0, fields.length))
        if "width" in places:
            part = replace(part, width=None)
        return replace(part, fault=said)

    def check(self, mark: str) -> Part:
        """A part as it was just typed. Raises ``CarpentryError`` by field where something of it
        cannot be worked out."""
        fields = self.typed.parts[mark]
        found, followed, problems = self._substituted(mark, fields)
        part, problems = self._readable(found, problems)
        if problems:
            raise CarpentryError(problems)
        return _as_typed(part, fields, followed)

    def _readable(self, found: PartFields, problems: list[Problem]) -> tuple[Part, list[Problem]]:
        """A part from its values, with everything that is wrong with them; those mean nothing in
        it."""
        while True:
            try:
                return read_part(_without(found, problems), self.lexicon), problems
            except CarpentryError as error:
                known = {p.place for p in problems}
                more = [p for p in error.problems if p.place not in known]
                if not more:
                    raise
                problems = [*problems, *more]

    def readable(self, mark: str) -> Part:
        """``part``, unless a formula of it is none at all, or a field that is no formula cannot be
        read: that raises ``CarpentryError`` by field."""
        faults = Faults()
        fields = self.typed.parts[mark]
        for name, texts in part_formulas(fields).items():
            for text in texts:
                faults.attempt(name, partial(read_formula, text, self.lexicon.unit), None)
        found, _, problems = self._substituted(mark, fields)
        _, problems = self._readable(found, problems)
        follow = formulas_in(fields)
        faults.problems += [p for p in problems if p.place not in follow]
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
        return whole.check("")

    def _substituted(
        self, mark: str, fields: PartFields
    ) -> tuple[PartFields, list[Followed], list[Problem]]:
        """Fields with what their formulas come to, and what is wrong with those."""
        followed: list[Followed] = []
        problems: list[Problem] = []
        taken: dict[str, str] = {}
        for name, texts in part_formulas(fields).items():
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
        keys = [key for key, _ in keys_of(name, mark, texts)]
        if name in PAIRS and len(turns_of(formulas_in(fields)[name])) != 2:
            raise CarpentryError("write two angles with a comma between them: = lean, -lean")
        told = [message for key in keys for message in self.problems_at.get(key, [])]
        if told:
            raise CarpentryError(Problem(name, message) for message in told)
        values = [self._value(mark, fields, key) for key in keys]
        if None in values:
            raise CarpentryError(self.waits_for(keys[values.index(None)]))
        found = [value for value in values if value is not None]
        try:
            if name == "quantity":
                return _quantity(found[0])
            if name in PAIRS:
                return self._angles(found, fields, name)
            return self._length_text(name, found[0])
        except CarpentryError as error:
            went_in = self.went_in(keys[0])
            raise CarpentryError(f"{error}: {texts[0]}{went_in}") from error

    def _value(self, mark: str, fields: PartFields, key: str) -> Value | None:
        """What a formula comes to by itself, also where the tape said otherwise."""
        if key == f"length of {mark}" and fields.taped.strip():
            return self.worked.computed.get(key)
        return self.worked.values.get(key)

    def _length_text(self, name: str, value: Value) -> tuple[str, bool]:
        found = as_length(value, self.lexicon.unit)
        text, exact = self.shown(found)
        least = 0 if name.startswith("extra") else 1
        if rounded(found.amount, self.rounding) < least:
            raise CarpentryError(f"comes out {text}")
        return text, exact

    def _angles(self, values: Sequence[Value], fields: PartFields, name: str) -> tuple[str, bool]:
        texts, exact = [], True
        angles = iter(values)
        for bevel, has_tilt in turns_of(formulas_in(fields)[name]):
            said = [self._angle(next(angles)) for _ in range(1 + has_tilt)]
            exact = exact and all(sure for _, sure in said)
            text = " tilt ".join(one for n, (one, _) in enumerate(said) if n == 0 or one != "0")
            texts.append(f"{text}{'b' if bevel else ''}")
        return (", " if any(" " in text for text in texts) else " ").join(texts), exact

    def _angle(self, value: Value) -> tuple[str, bool]:
        if value.kind is Kind.LENGTH:
            raise CarpentryError("a length is no angle: write degrees")
        return self.shown(Value(Kind.ANGLE, value.amount))

    def followed(self, mark: str) -> dict[str, Value | None]:
        """What the formulas of a part come to, by what they stand for."""
        found = part_formulas(self.typed.parts[mark])
        keys = [key for name, texts in found.items() for key, _ in keys_of(name, mark, texts)]
        if self.typed.parts[mark].taped.strip():
            keys.append(f"length of {mark}")
        return {key: self.worked.values.get(key) for key in keys}

    def went_into(self, mark: str) -> str:
        """The formula of a part's length with the numbers that went in; empty where it has none."""
        fields = self.typed.parts.get(mark)
        formula = formulas_in(fields).get("length") if fields else None
        return f"{formula}{self.went_in(f'length of {mark}')}" if formula else ""

    def shown_ticks(self, ticks: Fraction) -> str:
        """A length in ticks as text that is read in the unit of the sheet."""
        return self.shown(Value(Kind.LENGTH, ticks))[0]

    def shown_length(self, formula: str) -> str:
        """A formula's length as such text. Raises ``CarpentryError``."""
        return self.shown_ticks(as_length(self.reckon(formula), self.lexicon.unit).amount)

    def inline(self, line: str) -> str:
        """A typed line in which formulas in brackets, ``=(2 * bays)``, are what they come to; so is
        a formula between two commas. Raises ``CarpentryError``."""
        return with_each(line, lambda text: self.shown(self.reckon(text))[0])


def _without(fields: PartFields, problems: Sequence[Problem]) -> PartFields:
    """Fields that can be read: with something that means nothing where there is a problem."""
    usual = {"quantity": "1", "length": "1", "width": "1"}  # a sheet's part needs a width
    return replace(fields, **{p.place: usual.get(p.place, "") for p in problems})


def _as_typed(part: Part, fields: PartFields, followed: Sequence[Followed]) -> Part:
    """A part with what was typed where its values were read."""
    kept = {name: getattr(fields, name) for name in formulas_in(fields)}
    kept["taped"] = fields.taped
    return replace(
        part,
        fields=replace(part.fields, **kept),
        followed=tuple(followed),
    )


def _quantity(value: Value) -> tuple[str, bool]:
    text = write_decimal(value.amount)
    if value.kind not in {Kind.COUNT, Kind.NUMBER}:
        raise CarpentryError(f"{value.words} is no quantity")
    if value.amount.denominator != 1 or value.amount < 1:
        raise CarpentryError(f"comes out {text}, and a quantity is a whole number from 1 on")
    return text, True


EMPTY = Sheet(TypedSheet(), INCHES)
