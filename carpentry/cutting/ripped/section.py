"""The cross-section of a board that is ripped, and what the saw can take out of it."""

from dataclasses import dataclass

from carpentry.cutting.problem import NO_LIMITS, CutProblem, SawLimits, StockPiece
from carpentry.design.edges import Edges
from carpentry.design.ends import EndAngle, is_angled


@dataclass(frozen=True)
class BoardSection:
    """A board's section in ticks. Strips lie between ``low`` and ``top`` from the marked edge:
    what is beyond is ripped off first. A ``crooked`` board has no strip as wide as itself."""

    thickness: int
    width: int
    low: int
    top: int
    crooked: bool = False
    saw: SawLimits = NO_LIMITS

    @classmethod
    def of(cls, problem: CutProblem, piece: StockPiece) -> "BoardSection":
        low, top = problem.straight_edges(piece)
        thick, wide = piece.thickness or 0, piece.width or 0
        return cls(thick, wide, low, top, bool(piece.crook), problem.saw)

    @property
    def inner(self) -> int:
        """Ticks across, within which strips lie."""
        return max(0, self.top - self.low)

    @property
    def is_eased(self) -> bool:
        return self.inner < self.width

    @property
    def resawn_first(self) -> bool:
        """Whether it is too thick to be ripped as it is."""
        return not self.saw.rips(self.thickness)

    def rips(self, high: int) -> bool:
        """Whether what is so thick (ticks) at the most may be ripped, perhaps resawn before."""
        if not self.resawn_first:
            return True
        return self.saw.rips(high) and self.saw.resaws(self.width)

    def resaws(self, wide: int) -> bool:
        """Whether what is so wide (ticks) may be resawn, ripped to its width before."""
        return self.saw.resaws(self.width if self.resawn_first else wide)

    def gives(self, high: int, wide: int, edges: Edges, *, loose: bool = False) -> bool:
        """Whether the saw takes a strip of that section out of it. When ``loose``, for bounds, how
        deep a tilted blade cuts and how far the fence stands does not count."""
        saw = self.saw
        if not saw.crosses(wide, high):
            return False
        if high != self.thickness and not self.resaws(wide):
            return False
        if wide == self.width and not is_angled(edges):
            return True
        if not self.rips(high) or any(not saw.tilts(edge) for edge in edges):
            return False
        return loose or (
            all(self._tilts(high, edge) for edge in edges)
            and (saw.reaches(wide) or saw.reaches(self.width - wide))
        )

    def _tilts(self, high: int, edge: EndAngle) -> bool:
        """Whether a blade so tilted goes through it, perhaps once it is resawn."""
        if self.saw.rips(self.thickness, edge):
            return True
        return high < self.thickness and self.saw.rips(high, edge) and self.saw.resaws(self.width)
