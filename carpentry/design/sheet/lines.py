"""Formulas in typed lines: in brackets, ``=(2 * bays) B to A``, or alone between two commas."""

import re
from collections.abc import Callable, Iterator

from carpentry.design.sheet.typed import apart, is_formula
from carpentry.language import CarpentryError

_BRACKETED = re.compile(r"=\s*(?=\()")


def with_each(line: str, follow: Callable[[str], str]) -> str:
    """A line in which every formula, with its ``=``, is what ``follow`` makes of it without. Raises
    ``CarpentryError`` for a bracket that is not closed."""
    if "=" not in line:
        return line
    return ",".join(_with_each(piece, follow) for piece in apart(line))


def _with_each(piece: str, follow: Callable[[str], str]) -> str:
    found = _BRACKETED.search(piece)
    if found:
        end = _closing(piece, found.end())
        made = follow(piece[found.end() : end])
        return f"{piece[: found.start()]}{made}{_with_each(piece[end:], follow)}"
    if is_formula(piece):
        before = piece[: len(piece) - len(piece.lstrip())]
        return f"{before}{follow(piece.strip()[1:])}"
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
    def again(formula: str) -> str:
        made = follow(formula)
        bracketed = formula.lstrip().startswith("(") and not made.lstrip().startswith("(")
        return f"=({made})" if bracketed else f"={made}"

    try:
        return with_each(line, again)
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
