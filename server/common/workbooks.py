"""Workbooks as rows of text. What is in one is measured before any of it is built up."""

import io
import zipfile
import zlib
from collections.abc import Iterator
from xml.etree.ElementTree import ParseError

from django.conf import settings
from openpyxl import load_workbook
from openpyxl.utils.exceptions import InvalidFileException

from carpentry.language import MOST_COLUMNS, CarpentryError, Row

MOST_ROWS = 20_000
MOST_CELLS = 400_000
_MOST_BESIDES = 4 * 1024 * 1024  # bytes of a member that is neither a sheet nor its texts
_TAGS_OF_A_CELL = 6  # itself, its value and a share of its row, opened and closed
_CHUNK = 1 << 20
_UNREADABLE = (
    *(zipfile.BadZipFile, zlib.error, ParseError, InvalidFileException, EOFError, OSError),
    *(KeyError, IndexError, ValueError, TypeError, AttributeError, RuntimeError, AssertionError),
    *(NotImplementedError, OverflowError),
)


class TooLarge(Exception):
    """An upload over the limit."""


def is_workbook(data: bytes) -> bool:
    return data.startswith(b"PK\x03\x04")


def workbook_rows(data: bytes) -> list[Row]:
    """The rows of a workbook's first sheet, every cell as text.

    Raises ``CarpentryError`` for what is no workbook, and ``TooLarge`` when it unpacks to more than
    is allowed.
    """
    try:
        _measure(data)
        book = load_workbook(io.BytesIO(data), read_only=True, data_only=True)
        sheet = book.worksheets[0]
        sheet.reset_dimensions()
        return list(_rows(sheet.iter_rows(values_only=True, max_col=MOST_COLUMNS)))
    except CarpentryError:
        raise
    except _UNREADABLE as error:
        raise CarpentryError("this is no XLSX workbook that can be read") from error


def _measure(data: bytes) -> None:
    """Refuses what would unpack to too much, has too many cells, or defines its own entities."""
    with zipfile.ZipFile(io.BytesIO(data)) as packed:
        entries = packed.infolist()
        if sum(entry.file_size for entry in entries) > settings.MAX_UNPACKED_BYTES:
            raise TooLarge
        tags = 0
        for entry in entries:
            of_cells = "worksheets/" in entry.filename or "sharedStrings" in entry.filename
            if not of_cells and entry.file_size > _MOST_BESIDES:
                raise TooLarge
            for chunk in _chunks(packed, entry):
                if b"<!DOCTYPE" in chunk or b"<!ENTITY" in chunk:
                    raise CarpentryError("the workbook defines entities of its own: save it anew")
                tags += chunk.count(b"<")
            if tags > MOST_CELLS * _TAGS_OF_A_CELL:
                raise CarpentryError(f"the workbook has more than {MOST_CELLS:,} cells")


def _chunks(packed: zipfile.ZipFile, entry: zipfile.ZipInfo) -> Iterator[bytes]:
    """A member piece by piece, each with the end of the one before."""
    if not entry.filename.lower().endswith((".xml", ".rels")):
        return
    end = b""
    with packed.open(entry) as member:
        while chunk := member.read(_CHUNK):
            yield end + chunk
            end = chunk[-8:]


def _rows(cells: Iterator[tuple[object, ...]]) -> Iterator[Row]:
    for number, values in enumerate(cells, start=1):
        if number > MOST_ROWS:
            raise CarpentryError(f"the sheet has more than {MOST_ROWS:,} rows")
        row = Row(number, tuple(_text(value) for value in values[:MOST_COLUMNS]))
        if not row.is_empty:
            yield row


def _text(value: object) -> str:
    if value is None:
        return ""
    if isinstance(value, float):
        return f"{value:.6f}".rstrip("0").rstrip(".")
    if hasattr(value, "date") and callable(value.date):
        return str(value.date())
    return str(value)
