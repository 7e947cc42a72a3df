"""Whole numbers as builders write them: 6, six, a dozen."""

import re

from carpentry.language.errors import CarpentryError

_NAMES = (
    *("one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten"),
    *("eleven", "twelve"),
)
_WORDS = {name: number for number, name in enumerate(_NAMES, start=1)} | {
    **{"a": 1, "an": 1, "a pair of": 2, "pair of": 2, "a dozen": 12, "dozen": 12},
    **{"half a dozen": 6, "twenty": 20},
}
COUNT = rf"\d{{1,9}}|{'|'.join(sorted(_WORDS, key=len, reverse=True))}"
_COUNT = re.compile(rf"(?:{COUNT})", re.IGNORECASE)


def read_count(text: str) -> int:
    """A whole number in digits or in words. Raises ``CarpentryError`` for anything else."""
    typed = " ".join(text.lower().split())
    if not typed.isascii() or not _COUNT.fullmatch(typed):
        raise CarpentryError(f"“{text.strip()}” is no whole number")
    return int(typed) if typed.isdigit() else _WORDS[typed]
