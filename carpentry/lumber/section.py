"""The cross-section of a board."""

import math
from dataclasses import dataclass


@dataclass(frozen=True)
class Section:
    """Thickness and width in ticks; ``round`` for a dowel or pipe, whose diameter both are."""

    thickness: int
    width: int
    round: bool = False

    @property
    def area(self) -> int:
        """Square ticks; of a round one to the nearest whole."""
        area = self.thickness * self.width
        return round(area * math.pi / 4) if self.round else area
