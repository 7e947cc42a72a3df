"""Downloads."""

import json
import re
from urllib.parse import quote

from django.http import HttpResponse
from pydantic import BaseModel

_TYPES = {
    "csv": "text/csv; charset=utf-8",
    "json": "application/json",
    "txt": "text/plain; charset=utf-8",
    "pdf": "application/pdf",
    "svg": "image/svg+xml",
    "dxf": "image/vnd.dxf",
    "ics": "text/calendar; charset=utf-8",
    "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
}


def file_answer(content: bytes, name: str, kind: str) -> HttpResponse:
    """A download. The name keeps its letters where the browser can show them."""
    plain = re.sub(r"[^\w.-]+", "-", name.lower()).strip("-") or "file"
    answer = HttpResponse(content, content_type=_TYPES[kind])
    ascii_name = plain.encode("ascii", "ignore").decode() or "file"
    answer["Content-Disposition"] = (
        f"attachment; filename=\"{ascii_name}.{kind}\"; filename*=UTF-8''{quote(plain)}.{kind}"
    )
    answer["Cache-Control"] = "no-store"
    return answer


def as_json(document: object) -> bytes:
    """A document as readable JSON."""
    return json.dumps(document, indent=1, ensure_ascii=False).encode()


def json_answer(shown: BaseModel) -> HttpResponse:
    """A whole answer of the API, written at once."""
    return HttpResponse(shown.model_dump_json(), content_type="application/json")
