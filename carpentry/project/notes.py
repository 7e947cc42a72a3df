"""What a builder should know beside a plan: what just did not fit, and what would save boards."""

from collections.abc import Iterator
from dataclasses import dataclass

from carpentry.cutting import Cause, CutPlan, CutProblem, NearMiss, less_trim, near_misses
from carpentry.language import sold_name, write_length
from carpentry.project.material import Material, extra_of
from carpentry.project.settings import Settings

_COUNTED = ("No", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight", "Nine")


@dataclass(frozen=True)
class Note:
    """A note in words, and what ``cause`` takes the wood that is missing."""

    cause: Cause
    says: str


def notes(
    material: Material, problem: CutProblem | None, plan: CutPlan | None, settings: Settings
) -> Iterator[Note]:
    """What is worth knowing of a material's plan and its cut problem: what would save boards
    first."""
    if material.ripped or problem is None:
        return
    found = less_trim(problem, plan) if plan else None
    if found:
        less, boards = found
        noun = "board" if boards == 1 else "boards"
        trim = write_length(less, settings.notation).text
        count = _counted(boards).lower()
        yield Note(Cause.TRIM, f"{trim} less trim at the first end would save {count} {noun}")
    for miss in near_misses(problem):
        yield Note(miss.cause, _told(material, miss, settings))


def _told(material: Material, miss: NearMiss, settings: Settings) -> str:
    def written(ticks: int) -> str:
        return write_length(ticks, settings.notation).text

    part = next(named.part for named in material.parts if named.id == miss.part)
    offer = next(offer for offer in material.offers if offer.id == miss.stock)
    length = written(part.length.ticks + extra_of(part, settings.extra).length)
    board = sold_name(offer.length, settings.notation)
    verb = "part misses" if miss.count == 1 else "parts miss"
    article = "an" if board.startswith(("8", "11 ", "18 ")) else "a"
    causes = []
    if miss.over:
        causes.append(f"{written(miss.over)} too long")
    if miss.kerf > 0:
        causes.append(f"the saw takes {written(miss.kerf)}")
    if miss.trim > 0:
        causes.append(f"the trim {written(miss.trim)}")
    if miss.spare > 0:
        causes.append(f"{written(miss.spare)} is to spare")
    by = written(miss.missing)
    return f"{_counted(miss.count)} {length} {verb} {article} {board} board by {by}: " + ", ".join(
        causes
    )


def _counted(number: int) -> str:
    return _COUNTED[number] if number < len(_COUNTED) else str(number)
