"""What no request may be: too long, or made of characters that nothing can store."""

import json
from collections.abc import Callable, Iterator
from typing import Any

from django.conf import settings
from django.http import HttpRequest, HttpResponse, JsonResponse

from carpentry.project.file import TYPED_LINES

LONG_TEXTS = dict.fromkeys(("text", *TYPED_LINES, "packs"), 400_000)
LONGEST_TEXT = 2_000
MOST_JSON_BYTES = 1_000_000


class Limits:
    """Refuses requests by their length before anything of them is stored or read, and texts that
    are longer than any field, before anything is parsed."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        return self._refused(request) or self.get_response(request)

    def _refused(self, request: HttpRequest) -> HttpResponse | None:
        typed = request.META.get("CONTENT_LENGTH") or "0"
        length = int(typed) if typed.isascii() and typed.isdigit() else 0
        is_json = request.content_type == "application/json"
        if length > settings.DATA_UPLOAD_MAX_MEMORY_SIZE or (is_json and length > MOST_JSON_BYTES):
            return _answer(413, "that is more than can be taken at once", [])
        if not is_json or not length:
            return None
        try:
            body = json.loads(request.body)
        except (ValueError, RecursionError):
            return None  # told by who reads it
        faults = [{"place": place, "message": told} for place, told in _faults(body, "")]
        return _answer(422, faults[0]["message"], faults) if faults else None


def _faults(value: Any, place: str) -> Iterator[tuple[str, str]]:
    """What is wrong with the texts in a JSON value, each with the field it is in."""
    if isinstance(value, dict):
        for name, one in value.items():
            yield from _faults(one, str(name)[:100])
    elif isinstance(value, list):
        for one in value:
            yield from _faults(one, place)
    elif isinstance(value, str):
        most = LONG_TEXTS.get(place, LONGEST_TEXT)
        if len(value) > most:
            yield place, f"longer than {most:,} characters"
        elif any("\ud800" <= character <= "\udfff" for character in value):
            yield place, "there is half a character in it: type it again"


def _answer(status: int, detail: str, problems: list[dict[str, str]]) -> HttpResponse:
    return JsonResponse({"detail": detail, "problems": problems}, status=status)
