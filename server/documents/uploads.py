"""Uploaded part lists and price lists: CSV or XLSX, within limits."""

import io
import zipfile
from collections.abc import Iterable

from django.conf import settings
from django.core.files.uploadedfile import UploadedFile
from openpyxl import load_workbook

from carpentry.buying import PriceLine, UnitOf, read_prices_csv, read_prices_rows
from carpentry.errors import CarpentryError
from carpentry.parts import Part, read_parts_csv, read_parts_rows
from carpentry.sizes import OwnStocks
from carpentry.table import Row

_MOST_ROWS = 20_000
_MOST_COLUMNS = 50


class TooLarge(Exception):
    """An upload over the limit."""


def upload_bytes(file: UploadedFile) -> bytes:
    """The content of an upload. Raises ``TooLarge`` over 5 MB."""
    if file.size is None or file.size > settings.MAX_UPLOAD_BYTES:
        raise TooLarge
    return file.read()


def _is_workbook(data: bytes) -> bool:
    return data.startswith(b"PK\x03\x04")


def workbook_rows(data: bytes) -> list[Row]:
    """The rows of a workbook's first sheet, every cell as text.

    Raises ``CarpentryError`` for what is no workbook, and ``TooLarge`` when it unpacks to more than
    is allowed.
    """
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as packed:
            if sum(entry.file_size for entry in packed.infolist()) > settings.MAX_UNPACKED_BYTES:
                raise TooLarge
        sheet = load_workbook(io.BytesIO(data), read_only=True, data_only=True).worksheets[0]
        return list(_rows(sheet.iter_rows(values_only=True)))
    except (zipfile.BadZipFile, KeyError, ValueError, OSError, IndexError) as error:
        if isinstance(error, CarpentryError):
            raise
        raise CarpentryError("this is no XLSX workbook that can be read") from error


def _rows(cells: Iterable[tuple[object, ...]]) -> Iterable[Row]:
    for number, values in enumerate(cells, start=1):
        if number > _MOST_ROWS:
            raise CarpentryError(f"the sheet has more than {_MOST_ROWS:,} rows")
        row = Row(number, tuple(_text(value) for value in values[:_MOST_COLUMNS]))
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


def read_parts_upload(file: UploadedFile, unit: str, own: OwnStocks) -> list[Part]:
    """The parts of an uploaded CSV or XLSX list; raises with every problem of it."""
    data = upload_bytes(file)
    if _is_workbook(data):
        return read_parts_rows(workbook_rows(data), unit, own)
    return read_parts_csv(data, unit, own)


def read_prices_upload(
    file: UploadedFile, unit_of: UnitOf, own: OwnStocks
) -> dict[str, list[PriceLine]]:
    """The price lines of an uploaded CSV or XLSX list, by yard; ``unit_of`` each yard."""
    data = upload_bytes(file)
    if _is_workbook(data):
        return read_prices_rows(workbook_rows(data), unit_of, own)
    return read_prices_csv(data, unit_of, own)
