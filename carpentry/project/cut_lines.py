"""The cuts of a board as they are read at the saw: where to mark, what lies against the fence, how
the blade stands, and what comes off.

Everything here is made from a plan's cuts. A rip lies so that a tilted blade leans away from the
fence, and that a narrow strip falls on the free side; both are common practice, no source.
"""

from dataclasses import dataclass
from decimal import Decimal
from functools import lru_cache

from carpentry.cutting import Cut, Layout, Saw
from carpentry.cutting.replay import Piece, saw_apart, whole_board
from carpentry.language import TICKS_PER_INCH
from carpentry.lumber import Section
from carpentry.lumber.cautions import SHORT_RIP

NARROW = 3 * TICKS_PER_INCH // 2  # a narrower strip is not guided between blade and fence

SawnLine = tuple[tuple[int, int], tuple[int, int]]


@dataclass(frozen=True)
class Made:
    """A piece that a cut makes: the parts in it, and whether it is a part, kept, or waste."""

    number: int
    parts: tuple[str, ...]
    is_part: bool
    keep: bool


@dataclass(frozen=True)
class CutLine:
    """One cut. ``at`` is where the line is marked: from the marked end along the board, from the
    marked edge across it, from the marked face through it (ticks). ``waste`` says on which side of
    the line the saw runs: ``beyond`` or ``before`` it. ``fence`` is from the fence to the near side
    of the blade, with ``against`` it that edge or face of the piece; for a crosscut it is how long
    the piece before the line is. ``face_up`` is the face that is seen while a tilted blade cuts.
    ``on_face`` and ``on_end`` are the line as it is drawn on the board's face (along, across) and
    on its end (across, through).
    """

    number: int
    saw: Saw
    of: int
    at: int
    waste: str
    fence: int
    against: str
    angle: Decimal
    long_point: str
    face_up: str
    makes: tuple[Made, ...]
    along: tuple[int, int]
    on_face: SawnLine | None
    on_end: SawnLine | None

    @property
    def is_short(self) -> bool:
        """Whether its piece is too short to be ripped or resawn at a fence."""
        return self.saw is not Saw.CROSSCUT and self.along[1] - self.along[0] < SHORT_RIP


def cut_lines(layout: Layout, length: int, section: Section | None) -> list[CutLine]:
    """The cuts of a board that measures so much (ticks), in the order in which they are made."""
    return list(_cut_lines(layout, length, section))


@lru_cache(5_000)
def _cut_lines(layout: Layout, length: int, section: Section | None) -> tuple[CutLine, ...]:
    size = (section.width, section.thickness) if section else (1, 1)
    lying = {0: whole_board(length, *size)}
    holding = _holding(layout)
    kept = {one.number for one in layout.pieces if one.keep}
    parts = {one.number for one in layout.pieces if one.part}
    lines = []
    for number, cut in enumerate(layout.cuts, start=1):
        piece = lying.pop(cut.of)
        for made, rest in zip(cut.makes, saw_apart(piece, cut), strict=True):
            if made is not None and rest is not None:
                lying[made] = rest
        makes = tuple(
            Made(made, tuple(holding.get(made, ())), made in parts, made in kept)
            for made in cut.makes
            if made is not None
        )
        lines.append(_line(number, cut, piece, makes))
    return tuple(lines)


def _holding(layout: Layout) -> dict[int, list[str]]:
    """The parts in every piece, those in pieces of its pieces too."""
    found = {one.number: [one.part] for one in layout.pieces if one.part}
    for cut in reversed(layout.cuts):
        inside = [part for made in cut.makes if made for part in found.get(made, ())]
        if inside:
            found[cut.of] = inside
    return found


def _line(number: int, cut: Cut, piece: Piece, makes: tuple[Made, ...]) -> CutLine:
    first = next((one for one in makes if one.number == cut.makes[0]), None)
    wanted_first = first is not None and bool(first.parts or first.keep)
    fence, against, face_up = _at_the_fence(cut, piece)
    (x0, x1), (y0, y1), (z0, z1) = ((round(low), round(high)) for low, high in piece.spans)
    at = cut.start if wanted_first else cut.end
    far = _far(cut, at, piece)
    on_face: SawnLine | None = None
    on_end: SawnLine | None = None
    if cut.saw is Saw.CROSSCUT:
        on_face = ((at, y0), (at if cut.angle.bevel else far, y1))
    elif cut.saw is Saw.RIP:
        on_face = ((x0, at), (x1, at))
        on_end = ((at, z0), (far, z1))
    else:
        on_end = ((y0, at), (y1, at))
    return CutLine(
        number=number,
        saw=cut.saw,
        of=cut.of,
        at=at,
        waste="beyond" if wanted_first else "before",
        fence=fence,
        against=against,
        angle=abs(cut.angle.degrees),
        long_point=cut.angle.long_point if wanted_first else cut.angle.flipped.long_point,
        face_up=face_up,
        makes=makes,
        along=(x0, x1),
        on_face=on_face if z0 == 0 else None,
        on_end=on_end,
    )


def _far(cut: Cut, at: int, piece: Piece) -> int:
    """Where a slanted line is on the other edge or face of its piece."""
    over = 2 if cut.angle.bevel else 1
    wide = round(piece.size(over))
    reach = cut.angle.reach(wide, wide)
    return at - reach if cut.angle.degrees > 0 else at + reach


def _at_the_fence(cut: Cut, piece: Piece) -> tuple[int, str, str]:
    """From the fence (a crosscut: the stop) to the blade, what lies against it, and the face that
    is up where the blade is tilted."""
    axis = {Saw.CROSSCUT: 0, Saw.RIP: 1, Saw.RESAW: 2}[cut.saw]
    low, high = (round(one) for one in piece.spans[axis])
    if cut.saw is Saw.CROSSCUT:
        return max(0, cut.start - low), "", ""
    below, above = cut.start - low, high - cut.end
    far_side = above > below and (cut.saw is Saw.RESAW or below < NARROW)
    far_side = far_side or below <= 0
    names = ("marked face", "back") if cut.saw is Saw.RESAW else ("marked edge", "far edge")
    against = names[far_side]
    if not cut.angle.degrees:
        return above if far_side else below, against, ""
    # away from the marked face a positive tilt comes nearer the marked edge: that face is up where
    # the marked edge is at the fence, so that the blade leans away from it
    face_up = (cut.angle.degrees > 0) != far_side
    start = cut.start if not face_up else _far(cut, cut.start, piece)
    end = cut.end if not face_up else _far(cut, cut.end, piece)
    distance = high - end if far_side else start - low
    return distance, against, "marked face" if face_up else "back"
