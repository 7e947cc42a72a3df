"""Uploaded part lists and price lists: CSV or XLSX, within limits."""

from collections.abc import Sequence

from django.conf import settings
from django.core.files.uploadedfile import UploadedFile

from carpentry.buying import prices_table_of_csv, prices_table_of_rows
from carpentry.design import parts_table_of_csv, parts_table_of_rows
from carpentry.language import Table
from carpentry.lumber import Lexicon
from server.common.schemas import ColumnOut
from server.common.workbooks import TooLarge, is_workbook, workbook_rows


def upload_bytes(file: UploadedFile) -> bytes:
    """The content of an upload. Raises ``TooLarge`` over 5 MB."""
    if file.size is None or file.size > settings.MAX_UPLOAD_BYTES:
        raise TooLarge
    return file.read()


def chosen_columns(typed: str) -> tuple[str, ...]:
    """What the builder says each column is, commas between; empty where nothing is said."""
    return tuple(name.strip() for name in typed.split(",")) if typed else ()


def parts_table(file: UploadedFile, lexicon: Lexicon, chosen: Sequence[str]) -> Table:
    """An uploaded part list, CSV or XLSX, as a table; raises for what is none."""
    data = upload_bytes(file)
    if is_workbook(data):
        return parts_table_of_rows(workbook_rows(data), lexicon, chosen)
    return parts_table_of_csv(data, lexicon, chosen)


def prices_table(file: UploadedFile, chosen: Sequence[str]) -> Table:
    """An uploaded price list, CSV or XLSX, as a table; raises for what is none."""
    data = upload_bytes(file)
    if is_workbook(data):
        return prices_table_of_rows(workbook_rows(data), chosen)
    return prices_table_of_csv(data, chosen)


def columns_out(table: Table) -> list[ColumnOut]:
    """What each column of a table is taken for."""
    return [
        ColumnOut(name=column.name, heading=column.heading, sample=column.sample[:60])
        for column in table.columns
    ]
