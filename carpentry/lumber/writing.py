"""How sizes are written: the pieces of a board's name, told apart and spelled one way.

``2x4``, ``2" x 4"``, ``2 by 4``, ``38mm x 89mm``, ``5/4x6``, ``1-1/4 x 6``, ``8/4``, ``ex 25x50``,
``3/4 ply``, ``ply 18mm``, ``4x8x3/4 plywood``. Nothing here knows which sizes are sold.
"""

import re
from dataclasses import dataclass

from carpentry.language import VULGAR_FRACTIONS, Unit

_QUARTERS = r"(?:4|5|6|8|10|12|16)/4"
_PROPER = r"(?:1/2|[13]/4|[1357]/8|(?:[13579]|1[135])/16|(?:[13579]|1[13579]|2[13579]|31)/32)"
_NUMBER = rf"(?:{_QUARTERS}|\d{{1,4}}(?:\s+|-){_PROPER}|{_PROPER}|\d{{1,4}}(?:\.\d{{1,3}})?)"
_MARK = r"(?:\s*(?:\"|″|”|''|in\b\.?|inch\b|inches\b|mm\b))"
_TIMES = r"(?:\s*[xX×]\s*|\s+by\s+|\s*\*\s*)"
SHEET_NAMES = {
    "ply": "ply",
    "plywood": "ply",
    "osb": "osb",
    "hardboard": "hardboard",
    "mdf": "mdf",
    "particleboard": "particleboard",
    "chipboard": "particleboard",
    "polycarbonate": "polycarbonate",
    "corrugated": "corrugated",
}
SHEET_KINDS = frozenset(SHEET_NAMES.values())
_KIND = rf"(?P<kind>{'|'.join(sorted(SHEET_NAMES, key=len, reverse=True))})(?![\w'-])"
_THICK = rf"(?P<thick>{_PROPER}|\d{{1,3}}(?:\.\d)?(?:(?:\s+|-){_PROPER})?)(?P<mark>{_MARK})?"
_FORMAT = r"(?:4\s*(?:ft|')?\s*[xX×]\s*8\s*(?:ft\b|')?|\d{4}\s*[xX×]\s*\d{4}(?:\s*mm)?)"
_SHEET_WAYS = tuple(
    re.compile(rf"\s*{way}", re.IGNORECASE)
    for way in (
        rf"{_FORMAT}{_TIMES}{_THICK}\s*-?\s*{_KIND}",
        rf"{_THICK}(?:{_TIMES}|\s+){_FORMAT}\s+{_KIND}",
        rf"{_FORMAT}\s+{_THICK}\s*-?\s*{_KIND}",
        rf"{_FORMAT}\s+{_KIND}\s*{_THICK}(?![\w/.])",
        rf"{_KIND}\s*{_THICK}(?![\w/.])(?:\s+{_FORMAT}(?![\w/.]))?",
        rf"{_THICK}\s*-?\s*(?P<words>(?:[a-z][a-z-]+\s+){{0,2}}){_KIND}"
        rf"(?:\s+{_FORMAT}(?![\w/.]))?",
    )
)
_BOARD = re.compile(
    rf"\s*(?P<ex>ex\.?\s*)?(?P<thick>{_NUMBER})(?P<mark1>{_MARK})?{_TIMES}"
    rf"(?P<wide>{_NUMBER})(?P<mark2>{_MARK})?(?![\d/.½¼¾⅛⅜⅝⅞])",
    re.IGNORECASE,
)
_QUARTER = re.compile(rf"\s*(?P<thick>{_QUARTERS})(?![\d/.xX×])")
_AMOUNT = (
    r"(?:\d{1,5}(?:[.,]\d{1,4})?(?:(?:\s+|-)\d{1,2}/\d{1,2}|[½¼¾⅛⅜⅝⅞])?|\d{1,2}/\d{1,2}|[½¼¾⅛⅜⅝⅞])"
)
_FEET, _SMALL = (
    r"(?:\s*(?:feet\b|foot\b|ft\b\.?|['′’]))",
    r"(?:\s*(?:inches\b|inch\b|in\b\.?|[\"″”]))",
)
_UNITS = rf"(?:{_FEET}|{_SMALL}|\s*(?:mm|cm|m)\b)"
_ANY_LENGTH = rf"(?:\d{{1,4}}{_FEET}\s*-?\s*{_AMOUNT}{_SMALL}?|{_AMOUNT}{_UNITS}?)"
_UNIT_LENGTH = rf"(?:\d{{1,4}}{_FEET}\s*-?\s*{_AMOUNT}{_SMALL}?|{_AMOUNT}{_UNITS})"
_AFTER_SIZE = re.compile(rf"(?:{_TIMES}|-)(?P<length>{_ANY_LENGTH})(?![\w/.])", re.IGNORECASE)
_AT_THE_END = re.compile(rf"(?:^|[\s,@-]+)(?P<length>{_UNIT_LENGTH})(?=[\s,]|$)", re.IGNORECASE)
_WORD = re.compile(r"#?\w[\w&.'+/-]*(?:\s*&\s*\w)?")
_LETTER = re.compile(r"[^\W\d_]")


@dataclass(frozen=True)
class WrittenSize:
    """A size that a text begins with, spelled one way, and where it ends. ``sheet`` for
    a sheet, ``metric`` where its unit says so, ``words`` are those that stand inside it."""

    name: str
    end: int
    sheet: bool = False
    metric: bool = False
    words: str = ""


def _plain(number: str) -> str:
    """A number of a size in one spelling: ``1-1/4`` and ``1 1/4`` are ``5/4``."""
    spelled = re.sub(r"[\s-]+", " ", number.strip())
    return "5/4" if spelled == "1 1/4" else spelled


def _thickness(number: str, mark: str | None, unit: Unit) -> str:
    """How thick a sheet is, in its name: ``1/2``, ``1-1/8``, ``18mm``."""
    spelled = re.sub(r"[\s-]+", "-", number.strip())
    metric = "mm" in (mark or "").lower()
    bare = not mark and "/" not in spelled
    if metric or (bare and (unit is Unit.MM or float(spelled) > 2)):
        return f"{spelled.removesuffix('.0')}mm"
    return spelled


def written_sheet(text: str, unit: Unit) -> WrittenSize | None:
    """The sheet that a text begins with, in any order of its kind, thickness and format."""
    for way in _SHEET_WAYS:
        found = way.match(text)
        if found:
            kind = SHEET_NAMES[found["kind"].lower()]
            thick = _thickness(found["thick"], found["mark"], unit)
            words = found.groupdict().get("words") or ""
            return WrittenSize(f"{kind} {thick}", found.end(), True, thick.endswith("mm"), words)
    return None


def written_board(text: str) -> WrittenSize | None:
    """The board that a text begins with, thickness and width in the order they are written."""
    found = _BOARD.match(text)
    if not found:
        quarter = _QUARTER.match(text)
        return WrittenSize(quarter["thick"], quarter.end()) if quarter else None
    marks = "".join(filter(None, (found["mark1"], found["mark2"]))).lower()
    ex = "ex " if found["ex"] else ""
    name = f"{ex}{_plain(found['thick'])}x{_plain(found['wide'])}"
    return WrittenSize(name, found.end(), metric="mm" in marks)


def written_third(text: str, end: int) -> tuple[str, int] | None:
    """The third number of ``2x4x8``, as it is written, and where it ends."""
    found = _AFTER_SIZE.match(text, end)
    return (found["length"].strip(), found.end()) if found else None


def written_length(text: str) -> tuple[str, str] | None:
    """A length with its unit among the words after a size (``8ft``), and the words without it."""
    found = _AT_THE_END.search(text)
    if not found:
        return None
    return found["length"].strip(), f"{text[: found.start()]} {text[found.end() :]}"


def words_at(text: str, at: int) -> int:
    """Where the words end that follow a size in a line, from ``at``."""
    while True:
        gap = re.compile(r"[\s,]+").match(text, at)
        found = _WORD.match(text, gap.end()) if gap else None
        if not found or not (_LETTER.search(found[0]) or found[0].startswith("#")):
            return at
        if found[0][0].isdigit():
            return at
        at = found.end()


def is_word(text: str) -> bool:
    if not _WORD.fullmatch(text) or re.match(r"[xX×]\d", text):
        return False
    return bool(_LETTER.search(text)) or text.startswith("#")


def spelled_out_fractions(text: str) -> str:
    """A text with its single-character fractions in digits: ``1½`` is ``1 1/2``."""
    for character, digits in VULGAR_FRACTIONS.items():
        text = re.sub(rf"(?<=\d){character}", f" {digits}", text).replace(character, digits)
    return text
