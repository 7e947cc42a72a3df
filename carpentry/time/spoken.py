"""What a typed line speaks of, by its words, and what has to be there before that."""

import re
from collections.abc import Container, Mapping, Sequence

from carpentry.time.step import Sort, Step, key_of
from carpentry.time.step_lines import TypedStep

JOINED = (Sort.JOIN, Sort.ASSEMBLE, Sort.GLUE, Sort.FIT)
CUT = (Sort.DRY, Sort.CUT, Sort.PRESERVE, Sort.MEASURE)  # never left out: cut before it is used
_READY = (Sort.DRY, Sort.CUT, Sort.PRESERVE)
_HUNG = re.compile(r"(?:re)?(?:hang|fit|mount|attach|install|set in|put in|put on|screw on)\b")
_LAST = re.compile(r"(?:deliver|set (?:it |them )?up|hand (?:it |them )?over)\b")
_MARK = re.compile(r"\b[A-Z]{1,3}\b")


def is_last_of_all(name: str) -> bool:
    """Whether a step of such a name comes when all else is done: it is delivered, or set up."""
    return bool(_LAST.match(key_of(name)))


class Spoken:
    """The steps that are made of a project, and the marks of its parts and groups by their names:
    the ``things`` that a line may speak of."""

    def __init__(self, made: Sequence[Step], things: Mapping[str, Sequence[str]]) -> None:
        self._made = made
        self._things = {_stem(name): marks for name, marks in things.items() if name.strip()}
        self._known = {mark for step in made for mark in step.parts}

    def marks_of(self, line: TypedStep) -> set[str]:
        """The marks of the parts and groups that a line names."""
        words = f" {_stem(line.name)} "
        named = [marks for name, marks in self._things.items() if f" {name} " in words]
        by_mark = set(_MARK.findall(line.name)) & self._known
        return by_mark.union(*named)

    def made_before(
        self, line: TypedStep, there: Container[str], *, stands: bool = True
    ) -> tuple[str, ...]:
        """The keys, of the steps that are ``there``, of what has to be done before what a line
        speaks of is there: its parts cut and, where it ``stands`` by then, put together; all of it
        where it is hung on that."""
        marks = self.marks_of(line)
        if line.only and not line.after:  # at once
            return ()
        if line.before_closing and not marks:
            return tuple(step.key for step in self._made if step.sort in _READY)
        sorts: tuple[Sort, ...] = CUT
        if not (line.before_closing or line.only):
            sorts = (*CUT, Sort.EARLY, *(JOINED if stands else ()))
        found = [one.key for one in self._made if one.sort in sorts and marks & set(one.parts)]
        if _HUNG.match(key_of(line.name)) and stands and not line.only:
            found += [one.key for one in self._made if one.sort is Sort.ASSEMBLE]
        return tuple(key for key in dict.fromkeys(found) if key in there)


def _stem(name: str) -> str:
    """The words of a name, singular and plural alike."""
    words = re.findall(r"[a-z0-9]+", name.lower())
    return " ".join(word[:-1] if len(word) > 3 and word.endswith("s") else word for word in words)
