"""What the fastener of a joint passes: the wood where it goes in, less what was sawn off there."""

from collections.abc import Mapping
from dataclasses import dataclass
from itertools import pairwise

from carpentry.buying.fastener_kinds import Kind
from carpentry.buying.fasteners import Passed, Through
from carpentry.buying.joints import Joint
from carpentry.language import TICKS_PER_INCH, CarpentryError

# Common practice, no source: a toe screw begins an inch from the end, but no farther than two
# thirds of the thickness, and goes in at 45°; through a mitered end one begins where there is an
# inch and a half of wood above the other piece, or seven tenths of a narrow one's width.
_TOE = TICKS_PER_INCH
_MITER = TICKS_PER_INCH * 3 // 2
_SLOPE = 2**0.5


@dataclass(frozen=True)
class JoinedPart:
    """What joints and finishes have to know of a part: finished thickness, width and length in
    ticks, 0 where they are not known, and how many pieces there are."""

    thickness: int
    width: int
    length: int
    pieces: int = 1

    def meets(self, through: Through) -> tuple[int, int]:
        """The smaller and the larger size (ticks) of the side that a joint is on."""
        sizes = {
            Through.FACE: (self.width, self.length),
            Through.EDGE: (self.thickness, self.length),
            Through.END: (self.thickness, self.width),
        }
        smaller, larger = sorted(sizes[through])
        return smaller, larger

    def depth(self, through: Through) -> int:
        """Ticks that a fastener finds there."""
        sizes = {Through.FACE: self.thickness, Through.EDGE: self.width, Through.END: self.length}
        return sizes[through]


def passed_by(joint: Joint, parts: Mapping[str, JoinedPart]) -> list[Passed]:
    """The pieces on the way of a joint's fastener, each as deep (ticks) as it is there. The
    parts of the joint are among ``parts``, by their marks. Raises ``CarpentryError`` where nothing
    of a piece is left."""
    halves = 2 if joint.lapped else 1
    way = [Passed(parts[m.mark].depth(m.through) // halves, m.through) for m in joint.way]
    if joint.sawn:
        n = next((n for n, one in enumerate(way) if one.through is Through.FACE), 0)
        if joint.sawn >= way[n].depth > 0:
            raise CarpentryError("what is sawn off for the joint leaves nothing of the piece")
        way[n] = Passed(way[n].depth - joint.sawn, way[n].through)
    head = parts[joint.way[0].mark]
    if joint.kind is Kind.POCKET:
        way[0] = Passed(head.thickness, way[0].through)
    elif joint.toed:
        start = min(_TOE, head.thickness * 2 // 3)
        way[0] = Passed(int(start * _SLOPE), way[0].through)
        way[-1] = Passed(int(way[-1].depth * _SLOPE), way[-1].through)
    elif joint.mitered:
        way[0] = Passed(min(_MITER, head.width * 7 // 10), way[0].through)
    return way


@dataclass(frozen=True)
class Contact:
    """On how large an ``area`` (square ticks) the pieces of one joint meet, and how ``long``
    (ticks) that is."""

    area: int
    long: int


def contact(joint: Joint, parts: Mapping[str, JoinedPart]) -> Contact:
    """Where the pieces of one joint meet: the whole of the smaller where they cross or one stands
    on the other, the whole length of the shorter where they lie along; nothing of parts that are
    not there."""
    if any(meeting.mark not in parts for meeting in joint.way):
        return Contact(0, 0)
    area = longest = 0
    for one, other in pairwise(joint.way):
        (small, large) = parts[one.mark].meets(one.through)
        (less, more) = parts[other.mark].meets(other.through)
        along = joint.along or one.through is other.through is Through.EDGE
        across, far = min(small, less if along else more), min(large, more if along else less)
        area += across * far
        longest = max(longest, across, far)
    return Contact(area, longest)
