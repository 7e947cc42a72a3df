"""Durations as builders write them: 30 min, 10 h, 1 h 30 min, overnight, 3 days."""

import re
from fractions import Fraction

from carpentry.language import CarpentryError

OVERNIGHT = 10 * 60  # minutes; common practice, no source
LONGEST_WAIT = 366 * 24 * 60
LONGEST_WORK = 7 * 24 * 60
_UNITS = {"min": 1, "h": 60, "day": 24 * 60, "week": 7 * 24 * 60}
_UNIT = r"(min(?:ute)?s?|h(?:ours?|rs?)?|days?|d|weeks?|years?)"
_AMOUNT = re.compile(rf"(\d{{1,6}}(?:\.\d{{1,2}})?|½)\s*{_UNIT}", re.IGNORECASE)
DURATION = (
    rf"(?:overnight|an? hour|half an hour|(?:(?:\d{{1,6}}(?:\.\d{{1,2}})?|½)\s*{_UNIT[1:-1]}\b"
    r"\.?\s*)+)"
).replace(_UNIT[1:-1], f"(?:{_UNIT[1:-1]})")
_WORDS = {"overnight": OVERNIGHT, "an hour": 60, "a hour": 60, "half an hour": 30}


def read_duration(text: str, *, most: int = LONGEST_WAIT, of: str = "a wait") -> int:
    """Whole minutes. Raises ``CarpentryError`` for what is no duration, and for one over ``most``
    of what it is the duration ``of``."""
    typed = " ".join(text.lower().replace(",", " ").split()).rstrip(".")
    minutes: Fraction | int | None = _WORDS.get(typed)
    if minutes is None:
        if not typed or _AMOUNT.sub("", typed).strip(" .") or not _AMOUNT.search(typed):
            raise CarpentryError(
                f"“{text.strip()[:40]}” is no duration: write 30 min, 10 h, 2 days"
            )
        minutes = sum(
            ((Fraction(1, 2) if n == "½" else Fraction(n)) * _unit(unit))
            for n, unit in _AMOUNT.findall(typed)
        )
    whole = round(minutes)
    if whole > most:
        raise CarpentryError(f"{of} of {text.strip()[:40]} is over {write_long(most)}, the most")
    return whole


def _unit(text: str) -> int:
    if text.startswith("year"):
        return 365 * 24 * 60
    return next(m for unit, m in _UNITS.items() if text[0] == unit[0])


def write_duration(minutes: int) -> str:
    """``7 h 20 min``, ``9 h``, ``20 min``, ``0 h``."""
    hours, rest = divmod(abs(minutes), 60)
    told = " ".join(
        [*([f"{hours} h"] if hours or not rest else []), *([f"{rest} min"] * bool(rest))]
    )
    return f"-{told}" if minutes < 0 else told


def write_long(minutes: int) -> str:
    """``53 h``, ``4 days``, ``2 days 6 h``: from three days on in days."""
    days, rest = divmod(minutes, 24 * 60)
    if days < 3:
        return write_duration(minutes)
    days, hours = divmod(24 * days + round(rest / 60), 24)
    return f"{days} days {hours} h" if hours else f"{days} days"
