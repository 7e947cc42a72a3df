"""Time that runs out, and whether anything ended for it."""

import math
from time import monotonic
from typing import Optional


class Clock:
    """So many ``seconds`` from now. It has rung when something asked whether time was up, and it
    was: what comes of it may be other than with more time. A part of it rings for the whole."""

    def __init__(self, seconds: float = math.inf, whole: Optional["Clock"] = None) -> None:
        self.end = monotonic() + seconds
        self.has_rung = False
        self._whole = whole

    @property
    def left(self) -> float:
        """Seconds until it rings, below zero afterwards."""
        return self.end - monotonic()

    @property
    def is_over(self) -> bool:
        """Whether time is up; then it rings."""
        over = self.left < 0
        if over:
            self.ring()
        return over

    def ring(self) -> None:
        """Says that something ended because time was up."""
        self.has_rung = True
        if self._whole:
            self._whole.ring()

    def within(self, seconds: float) -> "Clock":
        """A part of it: so many seconds from now, and no longer than it has itself."""
        return Clock(min(seconds, self.left), self)

    def part(self, share: float) -> "Clock":
        """A part of it: a share of what is left."""
        return self.within(max(0.0, self.left) * share)
