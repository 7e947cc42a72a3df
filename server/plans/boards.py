"""The boards of a plan in the words of the API's contract."""

from collections import Counter
from collections.abc import Iterable
from itertools import pairwise
from uuid import UUID

from carpentry.cutting import Layout, PlacedPart
from carpentry.design.edges import wider_width
from carpentry.design.ends import bevel_lines, is_angled, outline, told
from carpentry.language import sold_name
from carpentry.lumber import Section
from carpentry.lumber.cautions import SHORT_RIP_HELD
from carpentry.project import (
    CutLine,
    Material,
    Offer,
    RipStrip,
    Settings,
    cut_lines,
    kept_leftovers,
    rip_segments,
)
from carpentry.project.cut_lines import SawnLine
from server.common.schemas import length_out, sawn_out, section_out
from server.plans.models import Board, Plan
from server.plans.schemas import (
    CutOut,
    LayoutOut,
    LeftoverOut,
    MadeOut,
    PlacedOut,
    RipSegmentOut,
    RipStripOut,
    SpanOut,
)

_SQUARE = ("0", "0")
Piece = tuple[str, str]  # a part, and its ends and edges
Signature = tuple[str, tuple[Piece, ...]]


def _signature(stock: str, pieces: Iterable[Piece]) -> Signature:
    """What makes boards alike: their stock and the pieces on them."""
    return stock, tuple(sorted(pieces))


def _piece(part: str, ends: Iterable[str], edges: Iterable[str]) -> Piece:
    """A piece, whichever way it lies: turned over or end for end its angles keep their sizes, and
    still lean alike or apart."""
    return part, " ".join(map(_however_it_lies, (list(ends), list(edges))))


def _however_it_lies(pair: list[str]) -> str:
    leaning = [one.startswith("-") for one in pair if one.strip("-0.b")]
    apart = len(leaning) == 2 and leaning[0] != leaning[1]
    return f"{sorted(one.lstrip('-') for one in pair)} {apart}"


class NumberedBoards:
    """A plan's boards as they are shown one after the other: the next number, those that are
    stored, and how many of a kind there were before."""

    def __init__(self, plan: Plan, before: Plan | None) -> None:
        self.next = 1
        self._stored = {board.number: board for board in plan.boards.all()}
        self._is_first = before is None
        self._before: Counter[Signature] = Counter()
        self._wood_of: dict[str, int] = {}
        self._changed: Counter[int] = Counter()
        for wood, planned in enumerate(before.outcome if before else []):
            for layout in planned["layouts"]:
                pieces = [
                    _piece(one["part"], one.get("ends", _SQUARE), one.get("edges", _SQUARE))
                    for one in layout["parts"]
                ]
                self._before[_signature(layout["stock"], pieces)] += layout["count"]
                self._wood_of |= dict.fromkeys((part for part, _ in pieces), wood)

    @property
    def cut_otherwise(self) -> int:
        """How many boards of the same wood are cut otherwise than before; others came or went."""
        left: Counter[int] = Counter()
        for (_, pieces), count in (+self._before).items():
            left[self._wood_of[pieces[0][0]]] += count
        return (left & self._changed).total()

    def take(self, layout: Layout) -> tuple[list[Board], int]:
        """The stored boards of a layout, and how many of them are new or cut otherwise."""
        first = layout.number or self.next
        numbers = range(first, first + layout.count)
        self.next += layout.count
        boards = [self._stored[n] for n in numbers if n in self._stored]
        if self._is_first:
            return boards, 0
        pieces = [
            _piece(one.part, map(str, one.ends), (f"{edge.degrees:f}" for edge in one.edges))
            for one in layout.parts
        ]
        signature = _signature(layout.stock, pieces)
        same = min(layout.count, self._before[signature])
        self._before[signature] -= same
        woods = [self._wood_of[part] for part, _ in pieces if part in self._wood_of]
        if woods:
            self._changed[woods[0]] += layout.count - same
        return boards, layout.count - same


def show_layouts(
    layouts: Iterable[Layout], material: Material, numbered: NumberedBoards, settings: Settings
) -> list[LayoutOut]:
    """The boards of a material, with the next numbers."""
    offers = {offer.id: offer for offer in material.offers}
    seen = {named.id for named in material.parts if named.part.show}
    return [
        _layout(layout, material, offers[layout.stock], numbered, settings).model_copy(
            update={"show": any(placed.part in seen for placed in layout.parts)}
        )
        for layout in layouts
    ]


def _layout(
    layout: Layout,
    material: Material,
    offer: Offer,
    numbered: NumberedBoards,
    settings: Settings,
) -> LayoutOut:
    notation = settings.notation
    first = layout.number or numbered.next
    boards, changed = numbered.take(layout)
    section = material.section_of(offer)
    lines = cut_lines(layout, offer.real_length, section)
    return LayoutOut(
        first=first,
        count=layout.count,
        board_ids=[board.id for board in boards],
        owned=offer.owned,
        rack_numbers=[b.rack_number for b in boards if b.rack_number is not None],
        named_length=sold_name(offer.length, notation),
        length=length_out(offer.real_length, notation),
        stock=str(offer.stock),
        measured=section_out(offer.on_hand.section, notation) if offer.on_hand else None,
        section=section_out(section, notation),
        rips=_rips(layout, material, offer, lines, notation),
        cuts=[_cut(line, notation) for line in lines],
        parts=_placed_parts(layout, material, notation),
        keep=_leftovers(layout, notation),
        changed=changed,
        show=False,
        flaws=[_span(flaw) for flaw in offer.on_hand.flaws] if offer.on_hand else [],
        trim_start=settings.trim_start.ticks,
        trim_end=settings.trim_end.ticks,
    )


def _span(span: tuple[int, int]) -> SpanOut:
    return SpanOut(low=span[0], high=span[1])


def _rips(
    layout: Layout, material: Material, offer: Offer, lines: list[CutLine], notation: str
) -> list[RipSegmentOut]:
    section = material.section_of(offer)
    if not material.ripped or section is None:
        return []
    return [
        RipSegmentOut(
            start=length_out(one.start, notation),
            end=length_out(one.end, notation),
            strips=[
                RipStripOut(
                    y=_span(strip.y),
                    z=_span(strip.z),
                    parts=[UUID(part) for part in dict.fromkeys(strip.parts)],
                    thickness=sawn_out(strip.z[1] - strip.z[0], notation),
                    width=sawn_out(_wider(strip), notation),
                    corners=strip.corners,
                )
                for strip in one.strips
            ],
            cuts=[line.number for line in one.lines],
        )
        for one in rip_segments(layout, section, lines)
    ]


def _cut(line: CutLine, notation: str) -> CutOut:
    written = length_out if line.angle else sawn_out  # what is slanted was never typed
    return CutOut(
        number=line.number,
        saw=line.saw.value,
        of=line.of,
        at=written(line.at, notation),
        waste=line.waste,
        fence=written(line.fence, notation),
        against=line.against,
        held=SHORT_RIP_HELD if line.is_short else "",
        angle=f"{line.angle:f}°" if line.angle else "",
        long_point=line.long_point,
        face_up=line.face_up,
        makes=[
            MadeOut(
                number=made.number,
                parts=[UUID(part) for part in dict.fromkeys(made.parts)],
                is_part=made.is_part,
                keep=made.keep,
            )
            for made in line.makes
        ],
        on_face=_drawn(line.on_face),
        on_end=_drawn(line.on_end),
    )


def _drawn(line: SawnLine | None) -> list[int] | None:
    return [at for point in line for at in point] if line else None


def _wider(strip: RipStrip) -> int:
    """Ticks across the wider face of a strip."""
    return wider_width(strip.y[1] - strip.y[0], strip.edges, strip.z[1] - strip.z[0])


def _placed_parts(layout: Layout, material: Material, notation: str) -> list[PlacedOut]:
    shown = [_placed(one, material.sections[one.part], notation) for one in layout.parts]
    if material.ripped:
        return shown
    for (before, one), out in zip(pairwise(layout.parts), shown[1:], strict=True):
        out.shared = one.start < before.end and is_angled(one.ends)
    return shown


def _placed(placed: PlacedPart, section: Section | None, notation: str) -> PlacedOut:
    thick, wide = (section.thickness, section.width) if section else (0, 0)
    return PlacedOut(
        part=UUID(placed.part),
        start=placed.start,
        end=placed.end,
        y=_span(placed.y) if placed.y else None,
        z=_span(placed.z) if placed.z else None,
        length=length_out(placed.end - placed.start, notation),
        corners=list(outline(placed.start, placed.end, placed.ends, thick, wide)),
        bevels=bevel_lines(placed.start, placed.end, placed.ends, thick),
        ends=told(placed.ends) if is_angled(placed.ends) else "",
        long_points=[end.long_point for end in placed.ends],
        shared=False,
    )


def _leftovers(layout: Layout, notation: str) -> list[LeftoverOut]:
    return [
        LeftoverOut(
            start=rest.start,
            end=rest.end,
            y=_span(rest.y) if rest.y else None,
            z=_span(rest.z) if rest.z else None,
            length=length_out(rest.length, notation),
            width=sawn_out(rest.y[1] - rest.y[0], notation) if rest.y else None,
        )
        for rest in kept_leftovers(layout)
    ]
