"""What a sheet is made from: fields as they were typed, and the formulas among them."""

import re
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace

from carpentry.design.ends import Measured, read_ends, says_shape
from carpentry.design.measures import MeasureFields, Value, read_formula
from carpentry.design.part import PART_LENGTHS, PartFields
from carpentry.design.runs import ENDS, FIGURES, RunFields
from carpentry.language import CarpentryError
from carpentry.lumber import Lexicon, Section

PAIRS = ("ends", "edges")
FORMULA_FIELDS = ("quantity", *PART_LENGTHS, *PAIRS)
_BEVEL = re.compile(r"\s+b\s*$")
_TILT = ";"  # between a miter and its tilt: no word, as any word may be a name


@dataclass(frozen=True)
class TypedSheet:
    """What a sheet is made from: parts by their letters, measures and runs, as they were typed.
    ``usual`` are names that are known without a measure, such as the kerf; ``boards`` what boards
    of the rack measure, by number; ``lines`` those of joints and the like that may have formulas in
    them, by kind; ``named`` formulas that go by a name without being measures: what shapes are
    asked and what they work out."""

    parts: Mapping[str, PartFields] = field(default_factory=dict)
    measures: Sequence[MeasureFields] = ()
    runs: Sequence[RunFields] = ()
    usual: Mapping[str, Value] = field(default_factory=dict)
    boards: Mapping[int, Section] = field(default_factory=dict)
    lines: Mapping[str, str] = field(default_factory=dict)
    named: Mapping[str, str] = field(default_factory=dict)


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


def part_formulas(fields: PartFields) -> dict[str, list[str]]:
    """The formulas of a part by field, those of two angles one after the other; without what marks
    a bevel."""
    found: dict[str, list[str]] = {}
    for name, text in formulas_in(fields).items():
        pieces = apart(text) if name in PAIRS else [text]
        found[name] = [
            angle
            for piece in pieces
            for angle in (_BEVEL.sub("", piece).split(_TILT) if name in PAIRS else [piece])
        ]
    return found


def run_inputs(run: RunFields) -> dict[str, str]:
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


def along_edge(mark: str, fields: PartFields) -> dict[str, str]:
    """What an angled part measures along its top edge (or face), and the angle of its left end, as
    formulas: they hold however its length is measured, and whichever way its ends lean."""
    text = fields.ends.strip()
    length = f"length of {mark}"
    if not text:
        follows = is_formula(fields.length) or fields.taped.strip()
        return {f"edge of {mark}": length} if follows else {}
    if says_shape(text):
        return {}
    if is_formula(text):
        typed = [(_BEVEL.sub("", one).strip(), bool(_BEVEL.search(one))) for one in apart(text[1:])]
    else:
        try:
            typed = [(f"{end.degrees:f}°", end.bevel) for end in read_ends(text)]
        except CarpentryError:  # told where it stands
            return {}
    lost, reaches = "", ""
    for angle, bevel in typed:
        across = f"{'thickness' if bevel else 'width'} of {mark}"
        lost += f" - {across} * tan(max(0°, -({angle})))"
        reaches += f" + {across} * tan(max({angle}, -({angle})))"
    left = typed[0][0]
    ways: dict[str, str] = {
        Measured.EDGE: length,
        Measured.SHORT_SHORT: f"{length}{reaches}{lost}",
        Measured.CENTRE: f"{length} + (0 in{reaches}) / 2{lost}",
    }
    measured = fields.measured.strip().lower()
    return {
        f"angle of {mark}": f"max({left}, -({left}))",
        f"edge of {mark}": ways.get(measured, f"{length}{lost}"),
    }


def keys_of(name: str, mark: str, texts: Sequence[str]) -> list[tuple[str, str]]:
    if name not in PAIRS:
        return [(f"{name} of {mark}", texts[0])]
    return [(f"{name} {n} of {mark}", text) for n, text in enumerate(texts, start=1)]


def with_each_formula(fields: PartFields, follow: Callable[[str], str]) -> PartFields:
    """Fields with every formula of theirs as ``follow`` has it."""
    taken: dict[str, str] = {}
    for name, text in formulas_in(fields).items():
        if name not in PAIRS:
            taken[name] = f"={follow(text)}"
            continue
        pieces = []
        for piece in apart(text):
            bevel = _BEVEL.search(piece)
            body = piece[: bevel.start()] if bevel else piece
            followed = f"{_TILT} ".join(follow(angle.strip()) for angle in body.split(_TILT))
            pieces.append(f"{followed}{' b' if bevel else ''}")
        taken[name] = f"={', '.join(pieces)}"
    return replace(fields, **taken)


def turns_of(text: str) -> list[tuple[bool, bool]]:
    """Of every end of a formula, whether it is a bevel, and whether it has a tilt beside its
    miter."""
    return [(bool(_BEVEL.search(one)), _TILT in one) for one in apart(text)]


def apart(text: str) -> list[str]:
    """A text at its commas that are in no brackets."""
    depth, pieces = 0, [""]
    for letter in text:
        depth += {"(": 1, ")": -1}.get(letter, 0)
        if letter == "," and depth <= 0:
            pieces.append("")
        else:
            pieces[-1] += letter
    return pieces
