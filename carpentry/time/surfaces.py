"""Which surfaces of parts a finish goes on, and which of them joints hide."""

from collections.abc import Iterable, Iterator, Mapping

from carpentry.buying.coating import Coat
from carpentry.buying.fasteners import Through
from carpentry.buying.joints import Joint

Surface = tuple[str, Through]  # of a part, by its mark
_SIDES = {
    "face": Through.FACE,
    "faces": Through.FACE,
    "edges": Through.EDGE,
    "ends": Through.END,
}


def sides_of(coat: Coat) -> frozenset[Through]:
    """The sides that a finish goes on; all where none is named."""
    return frozenset(_SIDES[side.lower()] for side in coat.sides) or frozenset(Through)


def is_on_ends_alone(coat: Coat) -> bool:
    """Whether nothing but ends is coated."""
    return sides_of(coat) == {Through.END}


def hidden_by(joints: Iterable[Joint]) -> Iterator[Surface]:
    """Surfaces that lie against another where pieces meet without glue: what is glued stays
    bare."""
    for joint in joints:
        if not joint.glued:
            for meeting in joint.way:
                yield meeting.mark, meeting.through


class Coated:
    """What is on surfaces so far: by surface, whatever was put on it last."""

    def __init__(self) -> None:
        self._last: dict[Surface, str] = {}

    def before(self, mark: str, sides: Iterable[Through]) -> tuple[str, ...]:
        """What has to be dry before something goes on these sides of a part, by its keys."""
        found = (self._last.get((mark, side)) for side in sorted(sides))
        return tuple(dict.fromkeys(key for key in found if key))

    def put_on(self, marks: Iterable[str], sides: Iterable[Through], key: str) -> None:
        """Remembers what was put on last."""
        sides = tuple(sides)
        self._last.update({(mark, side): key for mark in marks for side in sides})

    def batches(
        self, marks: Iterable[str], sides: frozenset[Through]
    ) -> Mapping[tuple[str, ...], list[str]]:
        """Parts of which all wait for the same, by what they wait for."""
        found: dict[tuple[str, ...], list[str]] = {}
        for mark in marks:
            found.setdefault(self.before(mark, sides), []).append(mark)
        return found
