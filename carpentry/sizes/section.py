"""The cross-section of a board."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Section:
    """Thickness and width in ticks."""

    thickness: int
    width: int

    @property
    def area(self) -> int:
        """Square ticks."""
        return self.thickness * self.width
