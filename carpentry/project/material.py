"""A material: what parts are cut from, and the lengths it can be had in."""

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, field, replace
from decimal import Decimal

from carpentry.cutting import CutPart, CutProblem, Extra, Spare, StockPiece
from carpentry.design import Part
from carpentry.design.edges import Edges
from carpentry.design.ends import is_angled
from carpentry.language import TICKS_PER_INCH
from carpentry.lumber import Section, StockName
from carpentry.lumber.rack import CORNER, OnHand
from carpentry.project.settings import RackUse, Settings

LEAST_SAWN_OFF = TICKS_PER_INCH // 64  # less is no cut but sanding; common practice, no source


@dataclass(frozen=True)
class NamedPart:
    """A part under the lasting id of its row. ``cut`` counts its pieces that are cut already, by
    their sawn length (ticks)."""

    id: str
    part: Part
    cut: Mapping[int, int] = field(default_factory=dict, compare=False)


@dataclass(frozen=True)
class Offer:
    """A length a stock can be bought in, or, at price 0, boards ``on_hand``. ``price`` of one
    piece, ``None`` when not known. ``section`` is its own where it was measured or is ripped."""

    id: str
    stock: StockName
    length: int
    real_length: int
    price: Decimal | None
    available: int | None
    on_hand: OnHand | None = None
    section: Section | None = None

    @property
    def owned(self) -> bool:
        return self.on_hand is not None


@dataclass(frozen=True)
class Material:
    """One stock, the parts cut from it and the lengths it comes in; or, where parts are
    ``ripped``, all stocks of one wood together.

    ``priced`` says whether the plan minimises money or, without prices, total length (volume where
    ripped). ``sections`` are the finished sections of the parts by id. ``later`` are parts that no
    board is planned for yet, each with the reason. Where boards are ripped, ``sawn`` are the parts
    (by id) that may be; the others have their board's section as it is. ``apart`` says that parts
    of this wood which could share boards with these are planned by themselves.
    """

    stock: StockName
    section: Section | None
    section_from_yard: bool
    sections_differ: bool
    priced: bool
    offers: tuple[Offer, ...]
    parts: tuple[NamedPart, ...]
    later: tuple[tuple[NamedPart, str], ...]
    sections: Mapping[str, Section | None]
    ripped: bool = False
    sawn: frozenset[str] = frozenset()
    apart: bool = False

    @property
    def called(self) -> str:
        """Its name for a heading."""
        if not self.ripped:
            return str(self.stock)
        called = self.stock.size if self.stock.own else " ".join(self.stock.words) or "plain"
        return f"{called} boards, ripped"

    def all_parts(self) -> Iterator[NamedPart]:
        """Its parts, those too that no board is planned for yet."""
        yield from self.parts
        yield from (named for named, _ in self.later)

    def section_of(self, offer: Offer) -> Section | None:
        """What a board of an offer measures."""
        return offer.section or self.section

    def problem(self, settings: Settings, *, spares: bool = True) -> CutProblem | None:
        """The cut problem of this material, or ``None`` when nothing of it can be planned. Older
        plans are of problems without the ``spares`` that are bought beside them."""
        parts = [self._cut_part(named, settings) for named in self.parts]
        wanted = tuple(part for part in parts if part.quantity)
        if not wanted:
            return None
        return CutProblem(
            unit=settings.unit,
            kerf=settings.kerf.ticks,
            trim_start=settings.trim_start.ticks,
            trim_end=settings.trim_end.ticks,
            stock=tuple(self._piece(offer, settings) for offer in self.offers),
            parts=wanted,
            order=settings.order,
            share_angled_cuts=settings.share_angled_cuts,
            keep_offcut_from=settings.keep_from_for(self.stock),
            eased=settings.eased.ticks if self.ripped else 0,
            owned_first=settings.rack is RackUse.ALWAYS,
            keep_width=settings.keep_width.ticks,
            saw=settings.saw,
            spare=settings.spare if spares else Spare(),
        )

    def _piece(self, offer: Offer, settings: Settings) -> StockPiece:
        size = offer.real_length
        section = offer.section if self.ripped else self.section
        if section and self.ripped:
            size = size * section.area // TICKS_PER_INCH**3
        price = offer.price if offer.price is not None else Decimal(size)
        board = offer.on_hand
        flaws = board.flaws if board else ()
        piece = StockPiece(offer.id, offer.real_length, price, offer.available, flaws=flaws)
        if settings.keep_from_for(offer.stock) != settings.keep_from_for(self.stock):
            piece = replace(piece, keep_from=settings.keep_from_for(offer.stock))
        if board and board.crook and self.ripped:
            piece = replace(piece, crook=board.crook, corner=CORNER)
        if section is None:
            return piece
        return replace(piece, thickness=section.thickness, width=section.width)

    def cut_already(self, named: NamedPart, settings: Settings) -> int:
        """How many pieces of a part are cut already; those that were cut to another length are
        not."""
        if not named.cut:
            return 0
        return named.part.quantity * settings.copies - self._cut_part(named, settings).quantity

    def _cut_part(self, named: NamedPart, settings: Settings) -> CutPart:
        """What is still to be cut of a part."""
        whole = self._whole_part(named, settings)
        if not named.cut:
            return whole
        done = named.cut.get(whole.sawn_length, 0)
        return replace(whole, quantity=max(0, whole.quantity - done))

    def _whole_part(self, named: NamedPart, settings: Settings) -> CutPart:
        part = named.part
        extra = extra_of(part, settings.extra)
        sawn = named.id in self.sawn
        cut = CutPart(
            named.id,
            part.length.ticks,
            part.quantity * settings.copies,
            extra=extra if sawn else Extra(extra.length),
            clear=part.clear,
            show=part.show,
            on=self._on(part, own_stock=not sawn or part.own_stock_only(settings.own_stock)),
            rip=not self.ripped or (sawn and part.may_be_ripped(settings.rip)),
            resaw=not self.ripped or (sawn and part.may_be_resawn(settings.resaw)),
            whole=self.ripped and not sawn,
            together=part.fields.together.strip(),
        )
        section = self.sections[named.id] if self.ripped else self.section
        if section is None:
            return cut
        sawn_to = self._without_shavings(part.sawn_section(section), cut.extra, part.edges)
        return replace(
            cut,
            length=part.outermost(section),
            thickness=sawn_to.thickness,
            width=sawn_to.width,
            ends=part.sawn_ends,
            edges=part.edges,
        )

    def _without_shavings(self, section: Section, extra: Extra, edges: Edges) -> Section:
        """What a part is sawn to: where a board differs by less than anybody saws off, the board's
        own size."""
        if not self.ripped:
            return section
        boards = [offer.section for offer in self.offers if offer.section]
        thick = section.thickness
        wide = section.width
        if not extra.thickness:
            thick = _like(thick, (one.thickness for one in boards))
        if not extra.width and not is_angled(edges):
            wide = _like(wide, (one.width for one in boards))
        return replace(section, thickness=thick, width=wide)

    def _on(self, part: Part, *, own_stock: bool) -> tuple[str, ...]:
        """The offers that a part which names boards, or comes from its ``own_stock`` alone, may be
        cut from; empty where it may come from any."""
        boards = part.boards
        may = tuple(
            offer.id
            for offer in self.offers
            if (boards is None or boards.allows(offer.on_hand))
            and (not own_stock or offer.stock == part.stock)
        )
        return () if len(may) == len(self.offers) else may


def extra_of(part: Part, usual: Extra) -> Extra:
    """What a part takes beyond its finished size (ticks): its own where it says so, else the
    project's ``usual``. Width and thickness count only on faces that are sawn."""
    length, width, thickness = part.extra
    return Extra(
        length.ticks if length else usual.length,
        width.ticks if width else usual.width,
        thickness.ticks if thickness else usual.thickness,
    )


def _like(size: int, boards: Iterable[int]) -> int:
    """A size (ticks), or that of a board which is the same for a saw."""
    return min(
        (one for one in boards if abs(one - size) < LEAST_SAWN_OFF),
        key=lambda one: abs(one - size),
        default=size,
    )
