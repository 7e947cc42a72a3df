"""What happened since a plan was first made: at the saw, and at the yard."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

from carpentry.buying import PriceLine
from carpentry.planning.basis import Basis
from carpentry.project import FoundPacks
from carpentry.project.gathering import Owned

Pieces = Mapping[str, Mapping[int, int]]


@dataclass(frozen=True)
class Facts:
    """``cut`` counts the pieces of each part (by id) that are cut already, by the length (ticks)
    they were sawn to. ``taken`` are boards in the cart, as they were measured where they were;
    ``lines`` the yard's list as it turned out to be, with the prices on the tags and so many as are
    left, ``None`` where nobody went; ``packs`` what is known of packs, by their keys."""

    cut: Pieces = field(default_factory=dict)
    taken: Owned = field(default_factory=dict)
    lines: Sequence[PriceLine] | None = None
    packs: Mapping[str, FoundPacks] = field(default_factory=dict)

    def seen_in(self, basis: Basis) -> Basis:
        """A basis as it turned out to be."""
        return basis if self.lines is None else replace(basis, lines=self.lines)


NOTHING_HAPPENED = Facts()
