"""The letters that are written on parts."""

from collections.abc import Sequence


def mark_of(number: int) -> str:
    """The mark of the nth part: 1 is A, 26 is Z, 27 is AA."""
    letters = ""
    while number:
        number, letter = divmod(number - 1, 26)
        letters = chr(ord("A") + letter) + letters
    return letters


def mark_number(mark: str) -> int:
    """The number whose mark this is; 0 for what is no mark."""
    number = 0
    for letter in mark:
        if not "A" <= letter <= "Z":
            return 0
        number = number * 26 + ord(letter) - ord("A") + 1
    return number


def all_marked(given: Sequence[str]) -> list[str]:
    """Marks for all parts: those that are given, and the next ones where none is (empty)."""
    last = max(map(mark_number, given), default=0)
    marks = []
    for mark in given:
        last += not mark
        marks.append(mark or mark_of(last))
    return marks
