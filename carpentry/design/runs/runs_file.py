"""Runs as JSON documents, and how they lie."""

from collections.abc import Sequence
from fractions import Fraction

from carpentry.design.runs.asked import AtEnd, End, Run, Side, Spacing, Ticks
from carpentry.design.runs.equal import lay, length_of
from carpentry.design.runs.packers import MOST_PACKERS, Pile, packed
from carpentry.design.runs.siding import exposure_of, lay_rows
from carpentry.language import (
    ROUNDED_TO,
    CarpentryError,
    Json,
    Reader,
    Unit,
    parse_json,
    read_count,
    read_exactly,
    rounded,
    ticks_per,
    write_decimal,
    write_figure,
)

_WAYS = ("count", "gap", "gap_at_most", "centres", "exposure")


def run_document(text: str | bytes) -> Json:
    """How the run of a JSON document lies: its count, its gap, marks, gaps and packers.

    Raises ``CarpentryError`` with every problem and its field.
    """
    asked = _Asked(text)
    try:
        return asked.siding() if asked.is_siding else asked.equal()
    except CarpentryError as error:
        for problem in error.problems:
            asked.reader.fault(problem.place, problem.message)
    asked.reader.raise_problems()
    raise AssertionError("a run that could not be laid has a problem")


class _Asked:
    """What a document asks for, read field by field."""

    def __init__(self, text: str | bytes) -> None:
        reader = self.reader = Reader(parse_json(text))
        self.unit = Unit(reader.choice("units", [u.value for u in Unit], Unit.INCH.value))
        self.round = self._length("round", ROUNDED_TO[self.unit]) or Fraction(1)
        self.item = self._length("item", None) or Fraction(0)
        self.given = {
            name: self._length(name, "") for name in (*_WAYS[1:], "along", "lap", "least")
        }
        self.count = self._count()
        self.side = Side(reader.choice("marks", [side.value for side in Side], Side.NEAR.value))
        self.ends = self._ends()
        self.packers = self._packers()
        reader.refuse_unknown()
        self.is_siding = self.given["lap"] is not None or self.given["exposure"] is not None
        self._check_ways()
        reader.raise_problems()

    def _read(self, place: str, text: str) -> Ticks | None:
        try:
            return read_exactly(text, self.unit)
        except CarpentryError as error:
            self.reader.fault(place, error.problems[0].message)
            return None

    def _length(self, name: str, default: str | None) -> Ticks | None:
        text = self.reader.text(name, default)
        found = self._read(name, text) if text.strip() else None
        if name in {"round", "item"} and found is not None and not found:
            self.reader.fault(name, "must be above 0")
        return found

    def _count(self) -> int | None:
        text = self.reader.text_or_whole("count")
        if not text:
            return None
        try:
            return read_count(text)
        except CarpentryError as error:
            self.reader.fault("count", error.problems[0].message)
            return None

    def _ends(self) -> tuple[End, End]:
        texts = self.reader.texts("ends", most=2, alone=True) or [AtEnd.GAP.value]
        found = [self._end(text) for text in texts]
        return found[0], found[-1]

    def _end(self, text: str) -> End:
        if text in set(AtEnd):
            return AtEnd(text)
        try:
            return read_exactly(text, self.unit)
        except CarpentryError:
            ways = ", ".join(AtEnd)
            self.reader.fault("ends", f"“{text[:40]}” is none of {ways}, and no length")
            return AtEnd.GAP

    def _packers(self) -> list[Ticks]:
        texts = self.reader.texts("packers", most=MOST_PACKERS)
        read = [self._read(f"packers[{index}]", text) for index, text in enumerate(texts)]
        return [packer for packer in read if packer is not None]

    def _check_ways(self) -> None:
        told = {name for name in (*self.given, "count") if self.reader.has(name)}
        ways = [name for name in _WAYS if name in told]
        if self.is_siding:
            ways = [name for name in ("lap", "exposure") if name in told]
            for name in sorted(told & {"count", "gap_at_most", "centres"}):
                self.reader.fault(name, "is not asked of siding")
            if {"exposure", "gap"} <= told:
                self.reader.fault("gap", "is one too many beside exposure")
        if "along" not in told and (self.is_siding or set(ways) != {"count", "gap"}):
            self.reader.fault("along", "is missing")
        elif "along" in told and len(ways) > 1:
            self.reader.fault(ways[1], f"is one too many beside {ways[0]}")
        elif not ways:
            self.reader.fault("count", f"is missing, or one of {', '.join(_WAYS[1:])}, lap")
        if not self.is_siding and "least" in told:
            self.reader.fault("least", "is asked of siding only")

    def equal(self) -> Json:
        along, gap = self.given["along"], self.given["gap"]
        spacing = Spacing(self.count, gap, self.given["gap_at_most"], self.given["centres"])
        if along is None:
            assert self.count is not None and gap is not None
            along = length_of(self.item, self.count, gap, self.ends)
            spacing = Spacing(count=self.count)
        run = lay(along, self.item, self.ends, spacing)
        laid = packed(run, rounded(run.places[0], self.round), self.packers)
        return self._document(run, laid) | {"rows": None, "last": None}

    def siding(self) -> Json:
        height, gap = self.given["along"], self.given["gap"] or Fraction(0)
        assert height is not None
        exposure = self.given["exposure"]
        if exposure is None:
            exposure = exposure_of(self.item, self.given["lap"] or Fraction(0), gap)
        rows = lay_rows(height, self.item, exposure, self.given["least"] or Fraction(0))
        run = Run(self.item, rows.rows, gap, rows.places, height)
        marks = [self._shown(mark) for mark in rows.marks(self.item, self.side)]
        document = self._document(run, []) | {"marks": marks, "gaps": []}
        return document | {"rows": rows.rows, "last": self._shown(rows.last)}

    def _document(self, run: Run, laid: Sequence[Pile]) -> Json:
        gaps = [sum(pile, Fraction(0)) for pile in laid] or run.gaps
        return {
            "count": run.count,
            "gap": self._shown(run.gap),
            "exact_gap": write_decimal(run.gap / ticks_per(self.unit)),
            "marks": [self._shown(mark) for mark in run.marks(self.side)],
            "gaps": [self._shown(gap) for gap in gaps],
            "packers": [[self._figure(packer) for packer in pile] for pile in laid],
            "along": self._figure(run.along),
        }

    def _shown(self, length: Ticks) -> str:
        return self._figure(rounded(length, self.round))

    def _figure(self, length: Ticks) -> str:
        return write_figure(length / ticks_per(self.unit), self.unit)
