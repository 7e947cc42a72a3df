"""What a worth of parts says: how much of it one board holds, and which worths are worth a try."""

from collections.abc import Iterator, Mapping

from carpentry.cutting.problem import CutProblem
from carpentry.proof.boards import most_worth_crosscut, pieces_of
from carpentry.proof.sections import Section, most_worth_ripped


def most_worth(problem: CutProblem, worth: Mapping[str, int]) -> dict[str, int] | None:
    """The most worth that one piece of each stock (by id) holds, or somewhat more; ``None`` where
    nobody can tell."""
    if problem.is_ripped:
        return most_worth_ripped(problem, worth)
    return most_worth_crosscut(problem, worth)


def usual_worths(problem: CutProblem) -> Iterator[dict[str, int]]:
    """Parts by number, and where boards are ripped by length and by volume."""
    yield {part.id: 1 for part in problem.parts}
    pieces = pieces_of(problem)
    if problem.is_ripped:
        yield {piece.parts[0]: piece.size for piece in pieces}
        sections = {part.id: Section.of(part) for part in problem.parts}
        kerf = problem.kerf
        yield {
            piece.parts[0]: piece.size * (one.thickness + kerf) * (one.width + kerf)
            for piece in pieces
            for one in [sections[piece.parts[0]]]
        }
