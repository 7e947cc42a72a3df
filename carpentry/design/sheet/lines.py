"""Formulas in typed lines: in brackets, ``=(2 * bays) B to A``, or alone between two commas."""

import re
from collections.abc import Callable, Iterator

from carpentry.design.sheet.typed import apart, is_formula
from carpentry.language import CarpentryError

_BRACKETED = re.compile(r"=\s*(?=\()")


def with_each(line: str, follow: Callable[[str], str], *, again: bool = False) -> str:
    """A line in which every formula, without its ``=`` and the brackets round it, is what
    ``follow`` makes of it: with them where it is a formula ``again``. Raises ``CarpentryError``
    for a bracket that is not closed."""
    if "=" not in line:
        return line
    return ",".join(_with_each(piece, follow, again=again) for piece in apart(line))


def _with_each(piece: str, follow: Callable[[str], str], *, again: bool) -> str:
    found = _BRACKETED.search(piece)
    if found:
        end = _closing(piece, found.end())
        made = follow(piece[found.end() + 1 : end - 1])
        made = f"=({made})" if again else made
        return f"{piece[: found.start()]}{made}{_with_each(piece[end:], follow, again=again)}"
    if is_formula(piece):
        before = piece[: len(piece) - len(piece.lstrip())]
        made = follow(piece.strip()[1:])
        return f"{before}={made.strip()}" if again else f"{before}{made}"
    return piece


def formulas_of_lines(text: str) -> Iterator[tuple[int, str]]:
    """The formulas in lines, each with the number of its line. Lines that cannot be read have
    none: they are told where they are read."""
    for number, line in enumerate(text.splitlines(), start=1):
        found: list[str] = []

        def note(formula: str, found: list[str] = found) -> str:
            found.append(formula)
            return ""

        try:
            with_each(line, note)
        except CarpentryError:
            continue
        for formula in found:
            yield number, formula


def lines_with(text: str, follow: Callable[[str], str]) -> str:
    """Lines in which every formula is as ``follow`` has it, still as a formula; those that cannot
    be read stay."""
    return "\n".join(_line_with(line, follow) for line in text.splitlines())


def _line_with(line: str, follow: Callable[[str], str]) -> str:
    try:
        return with_each(line, follow, again=True)
    except CarpentryError:
        return line


def _closing(text: str, start: int) -> int:
    """Where the bracket that opens at ``start`` is closed, after it."""
    depth = 0
    for at in range(start, len(text)):
        depth += {"(": 1, ")": -1}.get(text[at], 0)
        if not depth:
            return at + 1
    raise CarpentryError("a “)” is missing at the end")
