"""Reading JSON documents: every fault at once, each with its path."""

import json
import re
from collections import Counter
from collections.abc import Collection, Iterator
from decimal import Decimal
from fractions import Fraction
from typing import Any

from carpentry.language.errors import CarpentryError, Problem
from carpentry.language.length import Unit, read_length

Json = dict[str, Any]
_NUMBER = re.compile(r"-?\d{1,6}(\.\d{1,6})?")
_PRICE = re.compile(r"\d{1,9}(\.\d{1,6})?")


def parse_json(text: str | bytes) -> Json:
    """A JSON object. Raises ``CarpentryError`` with the line where it stops being JSON."""
    try:
        parsed = json.loads(text, parse_constant=_no_constant, object_pairs_hook=_each_once)
    except json.JSONDecodeError as error:
        raise CarpentryError(f"this is not JSON: {error.msg}", f"line {error.lineno}") from error
    except CarpentryError:
        raise
    except (ValueError, RecursionError) as error:  # no text, a number without end, too deep
        raise CarpentryError("this is not JSON") from error
    if not isinstance(parsed, dict):
        raise CarpentryError("the file must hold one JSON object")
    return parsed


def _each_once(pairs: list[tuple[str, Any]]) -> Json:
    found = dict(pairs)
    if len(found) < len(pairs):
        ((twice, _),) = Counter(name for name, _ in pairs).most_common(1)
        raise CarpentryError(f"“{twice[:40]}” is there twice")
    return found


def _no_constant(name: str) -> Any:
    raise CarpentryError(f"{name} is no value here")


class Reader:
    """Takes fields out of a JSON object, collecting every problem under its path.

    Problems of all readers made with ``inside`` and ``items`` gather in one list; call
    ``refuse_unknown`` last and ``raise_problems`` at the end.
    """

    def __init__(self, data: Json, path: str = "", problems: list[Problem] | None = None) -> None:
        self._data = data
        self._path = path
        self._taken: set[str] = set()
        self.problems: list[Problem] = [] if problems is None else problems

    def path(self, name: str) -> str:
        return f"{self._path}.{name}" if self._path else name

    def names(self) -> list[str]:
        """The names of all that is there."""
        return list(self._data)

    def fault(self, name: str, message: str) -> None:
        self.problems.append(Problem(self.path(name) if name else self._path, message))

    def has(self, name: str) -> bool:
        return self._data.get(name) is not None

    def _take(self, name: str) -> Any:
        self._taken.add(name)
        return self._data.get(name)

    def text(self, name: str, default: str | None = None, *, longest: int = 500) -> str:
        """A text; without ``default`` it must be there and not be empty."""
        value = self._take(name)
        if value is None and default is not None:
            return default
        if value is None:
            self.fault(name, "is missing")
            return ""
        if not isinstance(value, str):
            self.fault(name, "must be text in quotation marks")
            return ""
        if default is None and not value.strip():
            self.fault(name, "is empty")
        if len(value) > longest:
            self.fault(name, f"is longer than {longest} characters")
        return value

    def choice(self, name: str, choices: Collection[str], default: str) -> str:
        value = self.text(name, default)
        if value not in choices:
            self.fault(name, f"must be one of {', '.join(choices)}")
            return default
        return value

    def whole(self, name: str, default: int | None = None, *, least: int = 0, most: int) -> int:
        """A whole JSON number within limits."""
        value = self._take(name)
        if value is None and default is not None:
            return default
        if value is None:
            self.fault(name, "is missing")
            return least
        if isinstance(value, bool) or not isinstance(value, int):
            self.fault(name, "must be a whole number, without quotation marks")
            return least
        if not least <= value <= most:
            self.fault(name, f"must be from {least:,} to {most:,}")
            return least
        return value

    def number(self, name: str) -> Fraction | None:
        """A JSON number, or one as text; ``None`` where there is none."""
        value = self._take(name)
        if value is None:
            return None
        text = str(value).strip()
        if not isinstance(value, bool) and _NUMBER.fullmatch(text):
            return Fraction(text)
        self.fault(name, "must be a number")
        return None

    def text_or_whole(self, name: str) -> str:
        """A text, or a whole JSON number as text; empty when it is not there."""
        value = self._data.get(name)
        if isinstance(value, int) and not isinstance(value, bool):
            self._taken.add(name)
            return str(value)
        return self.text(name, "")

    def texts(self, name: str, *, most: int | None = None, alone: bool = False) -> list[str]:
        """The texts of a list, empty when it is not there; one text may stand ``alone``."""
        value = self._take(name)
        if value is None:
            return []
        if alone and isinstance(value, str):
            return [value]
        if not isinstance(value, list) or not all(isinstance(text, str) for text in value):
            self.fault(name, "must be a list of texts")
            return []
        if most is not None and len(value) > most:
            self.fault(name, f"has {len(value):,} entries, more than {most:,}")
            return []
        return value

    def flag(self, name: str, default: bool) -> bool:
        value = self._take(name)
        if value is None:
            return default
        if not isinstance(value, bool):
            self.fault(name, "must be true or false")
            return default
        return value

    def ticks(self, name: str, unit: Unit, default: str | None = None, *, least: int = 0) -> int:
        """A length written as text, in ticks."""
        text = self.text(name, default)
        if not text:
            return least
        try:
            ticks = read_length(text, unit).ticks
        except CarpentryError as error:
            self.fault(name, error.problems[0].message)
            return least
        if ticks < least:
            self.fault(name, "must be more than 0")
        return ticks

    def price(self, name: str) -> Decimal:
        """A plain decimal written as text, zero or more."""
        text = self.text(name)
        if text and not _PRICE.fullmatch(text):
            self.fault(name, f"“{text}” is no price: write a plain decimal such as 7.15")
        return Decimal(text) if _PRICE.fullmatch(text) else Decimal(0)

    def inside(self, name: str) -> "Reader":
        """The object under ``name``, empty when it is not there."""
        value = self._take(name)
        if value is not None and not isinstance(value, dict):
            self.fault(name, "must be an object")
            value = None
        return Reader(value or {}, self.path(name), self.problems)

    def items(self, name: str, *, most: int, required: bool = True) -> Iterator["Reader"]:
        """The objects of the list under ``name``."""
        value = self._take(name)
        if value is None and not required:
            return
        if not isinstance(value, list):
            self.fault(name, "must be a list" if value is not None else "is missing")
            return
        if len(value) > most:
            self.fault(name, f"has {len(value):,} entries, more than {most:,}")
            return
        for index, item in enumerate(value):
            path = f"{self.path(name)}[{index}]"
            if isinstance(item, dict):
                yield Reader(item, path, self.problems)
            else:
                self.problems.append(Problem(path, "must be an object"))

    def is_list(self, name: str) -> bool:
        """Whether there is a list under ``name``."""
        return isinstance(self._data.get(name), list)

    def one_or_more(self, name: str, *, most: int) -> "list[Reader]":
        """The objects of a list, or one that stands alone; ``true`` is one without fields."""
        if self.is_list(name):
            return list(self.items(name, most=most))
        if self._data.get(name) in (True, False):
            return [Reader({}, self.path(name), self.problems)] if self.flag(name, False) else []
        return [self.inside(name)]

    def refuse(self, names: Collection[str], message: str) -> None:
        """A fault for each of the fields that is there."""
        for name in names:
            if name in self._data:
                self._taken.add(name)
                self.fault(name, message)

    def refuse_unknown(self) -> None:
        for name in self._data:
            if name not in self._taken:
                self.fault(name, "is no field here")

    def nothing(self, name: str) -> None:
        """Marks a field as known without reading it."""
        self._taken.add(name)

    def raise_problems(self) -> None:
        if self.problems:
            raise CarpentryError(self.problems)
