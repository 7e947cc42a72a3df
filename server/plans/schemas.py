"""The API's contract for plans."""

from datetime import datetime
from uuid import UUID

from pydantic import BaseModel

from server.common.schemas import LengthOut, SectionOut


class EffectOut(BaseModel):
    """A part that a corrected size would change; ``why`` it would not be planned as before."""

    project: str
    mark: str
    called: str
    pieces: int
    before: SectionOut | None
    after: SectionOut | None
    why: str


class SpanOut(BaseModel):
    """From ``low`` to ``high``, in ticks."""

    low: int
    high: int


class PlacedOut(BaseModel):
    """A part on a board; ``start`` and ``end`` in ticks from its marked end, ``y`` across and ``z``
    through it where it is ripped. ``corners`` are those of its face: top left, top right, bottom
    right, bottom left, in ticks along the board; ``bevels`` where the short points of bevelled ends
    are. ``ends`` in words, as they lie; ``long_points`` where the left and right one have theirs:
    top, bottom, face or back, empty for a square one. ``shared`` when its left end is the saw line
    that makes the right end of the part before it."""

    part: UUID
    start: int
    end: int
    y: SpanOut | None
    z: SpanOut | None
    length: LengthOut
    corners: list[int]
    bevels: list[int]
    ends: str
    long_points: list[str]
    shared: bool


class RipStripOut(BaseModel):
    """A strip on the end of a board: where, in ticks from the marked edge and face, and what it
    gives. ``corners`` across the board: on its face left and right, on its back right and left."""

    y: SpanOut
    z: SpanOut
    parts: list[UUID]
    thickness: LengthOut
    width: LengthOut
    corners: tuple[int, int, int, int]


class RipSegmentOut(BaseModel):
    """A length of a board that is ripped in one way; ``cuts`` are the numbers of its rips and
    resaws."""

    start: LengthOut
    end: LengthOut
    strips: list[RipStripOut]
    cuts: list[int]


class MadeOut(BaseModel):
    """A piece that a cut makes, and the parts in it: one of them, or several still together."""

    number: int
    parts: list[UUID]
    is_part: bool
    keep: bool


class CutOut(BaseModel):
    """A cut of piece ``of``, the board being 0: a ``crosscut``, ``rip`` or ``resaw``. ``at`` is
    where its line is marked, from the marked end, edge or face, the saw running ``beyond`` or
    ``before`` it. ``fence`` is from the fence to the blade, ``against`` it that edge or face; of a
    crosscut it is the length before the line; a rip of a short piece is sawn to a line there
    instead, ``held`` as is said. ``angle`` where it is slanted, its ``long_point``,
    and for a tilted blade the ``face_up``; the blade leans away from the fence. ``on_face`` is the
    line on the board's face, ``on_end`` on its end: x1, y1, x2, y2 in ticks."""

    number: int
    saw: str
    of: int
    at: LengthOut
    waste: str
    fence: LengthOut
    against: str
    held: str
    angle: str
    long_point: str
    face_up: str
    makes: list[MadeOut]
    on_face: list[int] | None
    on_end: list[int] | None


class LeftoverOut(BaseModel):
    """A leftover worth keeping: where, in ticks, and its length and width."""

    start: int
    end: int
    y: SpanOut | None
    z: SpanOut | None
    length: LengthOut
    width: LengthOut | None


class LayoutOut(BaseModel):
    """``count`` boards cut alike; ``first`` is the number of the first of them."""

    first: int
    count: int
    board_ids: list[UUID]
    owned: bool
    rack_numbers: list[int]
    named_length: str
    length: LengthOut
    stock: str
    measured: SectionOut | None
    section: SectionOut | None
    rips: list[RipSegmentOut]
    cuts: list[CutOut]
    parts: list[PlacedOut]
    keep: list[LeftoverOut]
    flaws: list[SpanOut]
    changed: int
    show: bool
    trim_start: int
    trim_end: int


class UnplacedOut(BaseModel):
    part: UUID
    quantity: int
    reason: str


class LaterOut(BaseModel):
    part: UUID
    reason: str


class MaterialOut(BaseModel):
    """A stock with its boards; or, ``ripped``, all stocks of one wood."""

    stock: str
    ripped: bool
    kind: str
    wood: str
    stands: str
    caution: str
    section: SectionOut | None
    section_source: str
    note: str
    notes: list[str]
    test_piece: str
    best_boards: str
    priced: bool
    summary: str
    cost: str | None
    layouts: list[LayoutOut]
    unplaced: list[UnplacedOut]
    later: list[LaterOut]


class GroupOut(BaseModel):
    """A group of parts and its share of the wood, before tax."""

    name: str
    pieces: int
    cost: str


class ListLineOut(BaseModel):
    """A line to buy; ``how`` says how its price, or the count of spare ones, comes about."""

    stock: str
    section: SectionOut | None
    named_length: str
    real_length: LengthOut | None
    count: int
    price: str | None
    line_price: str | None
    how: str
    spare: bool
    kind: str
    parts: list[UUID]


class PackOut(BaseModel):
    """``count`` packs; ``content`` is what one holds, empty for single pieces."""

    name: str
    content: str
    count: int
    price: str


class HardwareLineOut(BaseModel):
    """Something bought by name and perhaps length, amounts in words, empty for none; ``used_for``
    says how it came about."""

    name: str
    length: LengthOut | None
    needed: str
    have: str
    packs: list[PackOut]
    price: str | None
    left: str
    used_for: list[str]


class JointOut(BaseModel):
    text: str
    fastener: str
    length: LengthOut | None
    count: int
    warnings: list[str]
    notes: list[str]


class HardwareOut(BaseModel):
    """All that is not wood, and the joints it comes from."""

    lines: list[HardwareLineOut]
    joints: list[JointOut]
    problems: list[str]
    price: str
    unpriced: int


class ShoppingOut(BaseModel):
    """``wood_total`` is without hardware, ``total`` with it; both with the tax. ``budget`` says
    what of it is left or over, ``margin`` what one earns; empty where nothing was said."""

    lines: list[ListLineOut]
    groups: list[GroupOut]
    hardware: HardwareOut
    subtotal: str
    wood_total: str
    budget: str
    over_budget: bool
    margin: str
    tax_rate: str
    tax_included: bool
    tax: str
    total: str
    per_copy: str
    copies: int
    unpriced: int
    total_note: str


class ClaimOut(BaseModel):
    """What is claimed; ``checked`` where there is a proof of it to be read, as far as it goes."""

    proven: bool
    checked: bool
    headline: str
    detail: str


class BoardHoldsOut(BaseModel):
    """How much one board holds at the most; ``price`` is empty where boards have none."""

    board: str
    price: str
    holds: int


class CountedPartOut(BaseModel):
    part: str
    counts: int


class ProofCountOut(BaseModel):
    """What each part counts, how much all of them need, and what boards hold of it."""

    parts: list[CountedPartOut]
    needed: int
    boards: list[BoardHoldsOut]


class ProofOut(BaseModel):
    """Why no purchase for one material is cheaper: its counts, the purchases that meet them all and
    were ``tried`` in every way, and what follows; ``whole`` if nothing is left open."""

    of: str
    counts: list[ProofCountOut]
    tried: list[str]
    says: str
    whole: bool


class TallyOut(BaseModel):
    boards: int
    spare: int
    owned: int
    longest: str
    cost: str | None
    with_tax: str | None
    unpriced: int
    waste: str
    keepable: int
    board_feet: str
    weight: str
    bound: str | None
    unplaced: int
    later: int
    claim: ClaimOut


class CutBoardOut(BaseModel):
    """A board that was cut: what is written on it and its pieces, in order."""

    number: int
    stock: str
    length: str
    pieces: list[str]


class AlreadyCutOut(BaseModel):
    """What an earlier plan of the project cut: it is there, whatever is planned now. ``cost`` is
    missing where boards had no price."""

    told: str
    cost: str | None
    boards: list[CutBoardOut]


class PlanOut(BaseModel):
    """The plan of a ``version`` of a project as far as it is. ``effect`` is what the newest change
    did to the purchase, empty while that is not known; ``cut`` how many pieces of its parts are cut
    already, ``already_cut`` what plans before it cut."""

    id: UUID
    project: UUID
    version: int
    status: str
    stage: str
    asked: datetime
    seconds: float | None
    effect: str
    longest_ticks: int
    cut: dict[UUID, int]
    already_cut: list[AlreadyCutOut]
    materials: list[MaterialOut]
    shopping: ShoppingOut
    tally: TallyOut
    saw_cautions: list[str]
    other_cautions: list[str]


class MakeOrBuyOut(BaseModel):
    """What the wood of a part costs, what it costs bought made, both with tax, and what of it;
    ``proven`` when both purchases are the least."""

    made: str
    bought: str
    told: str
    proven: bool


class ComparedLineOut(BaseModel):
    """A stock and length as two yards sell it; nothing where it is not bought there."""

    stock: str
    named_length: str
    spare: bool
    here: ListLineOut | None
    there: ListLineOut | None


class ComparisonOut(BaseModel):
    """A project at its own yard and at another. ``verdict`` says which is cheaper, or why that
    cannot be told; ``left_out`` counts parts without a board there."""

    here: str
    there: str
    here_claim: str
    there_claim: str
    lines: list[ComparedLineOut]
    here_hardware: str
    there_hardware: str
    here_total: str
    there_total: str
    left_out: int
    verdict: str
